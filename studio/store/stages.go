package store

import (
	"errors"
	"strings"
	"time"

	"capstan/core/doc"
	"capstan/core/words"

	"gorm.io/gorm"
)

// Stage is a project as it was at one moment, kept under a name to return to.
type Stage struct {
	ID        string    `gorm:"primaryKey" json:"id"`
	ProjectID string    `gorm:"index" json:"project"`
	Name      string    `json:"name"`
	Revision  int64     `json:"revision"`
	Length    int64     `json:"length"` // ms
	Scenes    int       `json:"scenes"`
	Document  []byte    `json:"-"`
	CreatedAt time.Time `json:"createdAt"`
}

// MaxStages is how many stages a project may have.
const MaxStages = 200

// KeepStage keeps a project as it stands now.
func (s *Store) KeepStage(project, id, name string) (*Stage, error) {
	name = strings.TrimSpace(name)
	if name == "" {
		return nil, words.New("stage.name")
	}
	p, revision, err := s.Load(project)
	if err != nil {
		return nil, err
	}
	if err := p.Validate(); err != nil {
		return nil, err
	}
	raw, err := p.Write()
	if err != nil {
		return nil, err
	}
	var row Project
	if _, err := s.describe(&row, p, nil); err != nil {
		return nil, err
	}
	stage := &Stage{ID: id, ProjectID: project, Name: name, Revision: revision, Length: row.Length, Scenes: len(p.Film.Shown()), Document: raw, CreatedAt: time.Now()}
	return stage, s.tx(func(tx *gorm.DB) error {
		var n int64
		if err := tx.Model(&Stage{}).Where("project_id = ?", project).Count(&n).Error; err != nil {
			return err
		}
		if n >= MaxStages {
			return words.New("stage.many", MaxStages)
		}
		return tx.Create(stage).Error
	})
}

// Stages lists the stages of a project without their documents, the newest first.
func (s *Store) Stages(project string) ([]Stage, error) {
	list := []Stage{}
	return list, s.db.Omit("document").Where("project_id = ?", project).Order("created_at desc").Find(&list).Error
}

// Stage finds a stage and reads its document.
func (s *Store) Stage(id string) (*Stage, *doc.Project, error) {
	var g Stage
	err := s.db.First(&g, "id = ?", id).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return nil, nil, words.New("stage.gone")
	} else if err != nil {
		return nil, nil, err
	}
	p, err := doc.Read(g.Document)
	return &g, p, err
}

// RenameStage gives a stage another name.
func (s *Store) RenameStage(id, name string) error {
	if name = strings.TrimSpace(name); name == "" {
		return words.New("stage.name")
	}
	return s.stageChanged(s.db.Model(&Stage{}).Where("id = ?", id).UpdateColumn("name", name))
}

// DeleteStage removes a stage.
func (s *Store) DeleteStage(id string) error {
	return s.stageChanged(s.db.Delete(&Stage{}, "id = ?", id))
}

func (s *Store) stageChanged(r *gorm.DB) error {
	if r.Error == nil && r.RowsAffected == 0 {
		return words.New("stage.gone")
	}
	return r.Error
}
