package store

import (
	"errors"
	"time"

	"gorm.io/gorm"

	"capstan/core/words"
)

// AddExport stores a new export.
func (s *Store) AddExport(e *Export) error {
	return s.tx(func(tx *gorm.DB) error { return tx.Create(e).Error })
}

// SaveExport stores what has become of an export; one that has been deleted meanwhile stays deleted.
func (s *Store) SaveExport(e *Export) error {
	return s.tx(func(tx *gorm.DB) error {
		return tx.Model(&Export{}).Where("id = ?", e.ID).Select("*").Omit("id").Updates(e).Error
	})
}

// Export finds an export.
func (s *Store) Export(id string) (*Export, error) {
	var e Export
	err := s.db.First(&e, "id = ?", id).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return nil, words.New("not-found", "export")
	}
	return &e, err
}

// Exports lists the exports of a project, the newest first; of all projects when it is empty.
func (s *Store) Exports(project string) ([]Export, error) {
	list := []Export{}
	q := s.db.Omit("document").Order("created_at desc")
	if project != "" {
		q = q.Where("project_id = ?", project)
	}
	return list, q.Find(&list).Error
}

// NextExport returns the export that waits whose turn it is, or nil: the oldest, but for those that were put first.
func (s *Store) NextExport() (*Export, error) {
	var e Export
	err := s.db.Where("state = ?", Waiting).Order("turn, created_at").First(&e).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return nil, nil
	}
	return &e, err
}

// RequeueExports puts exports that were running when Capstan stopped back into the queue, once each; one that was begun again already has
// failed, with the words of why.
func (s *Store) RequeueExports() error {
	running := func() *gorm.DB { return s.db.Model(&Export{}).Where("state = ?", Running) }
	return errors.Join(
		running().Where("tries >= 1").Updates(map[string]any{"state": Failed, "ended_at": time.Now(), "message": words.New("export.twice").Error()}).Error,
		running().Updates(map[string]any{"state": Waiting, "frames_done": 0, "tries": gorm.Expr("tries + 1")}).Error)
}

// DeleteExport removes an export's row.
func (s *Store) DeleteExport(id string) error { return s.db.Delete(&Export{}, "id = ?", id).Error }
