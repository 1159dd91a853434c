package store

import (
	"errors"
	"time"

	"capstan/core/edit"
	"capstan/core/words"
)

// Binned lists the projects in the bin, those put there last first.
func (s *Store) Binned() ([]Project, error) {
	list := []Project{}
	return list, s.db.Where("binned_at IS NOT NULL").Order("binned_at desc").Find(&list).Error
}

// Named counts the projects of a name, those in the bin left out.
func (s *Store) Named(name string) (n int64, err error) {
	return n, s.db.Model(&Project{}).Where("name = ? AND binned_at IS NULL", name).Count(&n).Error
}

// Bin puts a project into the bin, with all that belongs to it. A window that has it open can go on: what it stores is kept.
func (s *Store) Bin(id string) error { return s.setBinned(id, "binned_at IS NULL", time.Now()) }

// Restore takes a project out of the bin.
func (s *Store) Restore(id string) error { return s.setBinned(id, "binned_at IS NOT NULL", nil) }

func (s *Store) setBinned(id, where string, at any) error {
	// Being binned is no change of the project: it keeps its place in the list.
	r := s.db.Model(&Project{}).Where("id = ? AND "+where, id).UpdateColumn("binned_at", at)
	if r.Error == nil && r.RowsAffected == 0 {
		return words.New("not-found", "project")
	}
	return r.Error
}

// Rename gives a project another name, as a revision like any other.
func (s *Store) Rename(id, name string) (Change, error) {
	for range 5 {
		_, revision, err := s.Load(id)
		if err != nil {
			return Change{}, err
		}
		c, err := s.Apply(id, revision, "", "", &edit.RenameProject{Name: name})
		var stale *Stale
		if !errors.As(err, &stale) {
			return c, err
		}
	}
	return Change{}, words.New("project.busy")
}
