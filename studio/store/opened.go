package store

import (
	"errors"
	"sync"
	"time"

	"github.com/go-json-experiment/json"
	"gorm.io/gorm"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/patch"
	"capstan/core/words"
	"capstan/studio/budget"
)

// opened is a project that is held in memory. Each has a lock of its own: a slow command in one project delays no other.
type opened struct {
	mu       sync.Mutex
	doc      *doc.Project // nil: not read yet
	revision int64
	film     *frame.Film // of the last change, where its length hung on its moves
	bytes    int         // about how long the document is as it is written
	used     time.Time   // last
}

// lend calls f with a project, which nobody else has meanwhile.
func (s *Store) lend(id string, f func(o *opened) error) error {
	s.mu.Lock()
	o := s.open[id]
	if o == nil {
		o = &opened{}
		s.open[id] = o
	}
	o.used = time.Now()
	if len(s.open) > budget.Open {
		var oldest string
		for k, v := range s.open {
			if k != id && v.mu.TryLock() {
				v.mu.Unlock()
				if oldest == "" || v.used.Before(s.open[oldest].used) {
					oldest = k
				}
			}
		}
		delete(s.open, oldest)
	}
	s.mu.Unlock()
	o.mu.Lock()
	defer o.mu.Unlock()
	// It may have been deleted, or put out of memory and read anew by another, while this one waited.
	s.mu.Lock()
	now := s.open[id]
	s.mu.Unlock()
	if now != o {
		return s.lend(id, f)
	}
	if o.doc == nil {
		if err := s.read(id, o); err != nil {
			s.close(id)
			return err
		}
	}
	return f(o)
}

// close puts a project out of memory.
func (s *Store) close(id string) {
	s.mu.Lock()
	defer s.mu.Unlock()
	delete(s.open, id)
}

// Load returns a project's document and its revision.
func (s *Store) Load(id string) (p *doc.Project, revision int64, err error) {
	err = s.lend(id, func(o *opened) error {
		p, revision = o.doc, o.revision
		return nil
	})
	return p, revision, err
}

// read reads a project: the newest snapshot that can be read, and what was changed since.
func (s *Store) read(id string, o *opened) error {
	var revisions []int64
	if err := s.db.Model(&Snapshot{}).Where("project_id = ?", id).Order("revision desc").Pluck("revision", &revisions).Error; err != nil {
		return err
	}
	if len(revisions) == 0 {
		return words.New("not-found", "project")
	}
	var all error
	for _, r := range revisions {
		err := s.readFrom(id, r, o)
		if err == nil {
			return nil
		}
		all = errors.Join(all, err)
	}
	var f *words.Fault
	if errors.As(all, &f) {
		return f
	}
	return words.Because(all, "replay", revisions[0], all)
}

func (s *Store) readFrom(id string, revision int64, o *opened) error {
	var snap Snapshot
	if err := s.db.Where("project_id = ? AND revision = ?", id, revision).First(&snap).Error; err != nil {
		return err
	}
	p, err := doc.Read(snap.Document)
	if err != nil {
		return err
	}
	var changes []Change
	if err := s.db.Select("revision", "patch", "format").Where("project_id = ? AND revision > ?", id, revision).Order("revision").Find(&changes).Error; err != nil {
		return err
	}
	// By the patches, whatever their commands would do today.
	patches := make([]patch.Patch, len(changes))
	for i, c := range changes {
		switch {
		case c.Format > patch.Format:
			return words.New("data.newer", s.dir)
		case len(c.Patch) == 0:
			return words.New("replay", c.Revision, "it is no longer kept")
		}
		if err := json.Unmarshal(c.Patch, &patches[i]); err != nil {
			return words.Because(err, "replay", c.Revision, err)
		}
		if patches[i], err = patches[i].Lifted(max(c.Format, 1)); err != nil {
			return words.Because(err, "replay", c.Revision, err)
		}
		revision = c.Revision
	}
	if p, err = patch.All(p, patches); err != nil {
		return words.Because(err, "replay", revision, err)
	}
	if err := p.Validate(); err != nil {
		return words.Because(err, "replay", revision, err)
	}
	raw, err := p.Write()
	if err != nil {
		return err
	}
	o.doc, o.revision, o.bytes, o.film = p, revision, len(raw), nil
	return nil
}

func (s *Store) since(id string, base int64) ([]Change, error) {
	list := []Change{}
	return list, s.db.Where("project_id = ? AND revision > ?", id, base).Order("revision").Find(&list).Error
}

// missed returns the changes after base, or more where they are too many to be told, or no longer kept whole.
func (s *Store) missed(id string, base, revision int64) (list []Change, more bool, err error) {
	if base < 0 || revision-base > budget.Told {
		return []Change{}, true, nil
	}
	var kept struct{ N, Bytes int64 }
	q := s.db.Model(&Change{}).Where("project_id = ? AND revision > ? AND length(command) > 0", id, base)
	if err := q.Select("count(*) as n, coalesce(sum(length(command) + length(patch)), 0) as bytes").Scan(&kept).Error; err != nil {
		return nil, false, err
	}
	if kept.N != revision-base || kept.Bytes > budget.ToldBytes {
		return []Change{}, true, nil
	}
	list, err = s.since(id, base)
	return list, false, err
}

// Since returns the changes stored after a revision, and the revision they lead to; more says that they are too many, or too old, to be told
// one by one: the document is loaded anew.
func (s *Store) Since(id string, base int64) (list []Change, revision int64, more bool, err error) {
	err = s.lend(id, func(o *opened) error {
		revision = o.revision
		list, more, err = s.missed(id, base, revision)
		return err
	})
	return list, revision, more, err
}

// compact empties changes that nobody needs any more: all is kept of what windows may have missed, and of what snapshots need.
func compact(tx *gorm.DB, id string, revision int64) error {
	return tx.Model(&Change{}).Where("project_id = ? AND revision <= ? AND length(command) > 0", id, revision-budget.KeptWhole).
		Updates(map[string]any{"command": []byte{}, "patch": []byte{}}).Error
}
