package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"time"

	"gorm.io/gorm"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/patch"
	"capstan/core/words"
	"capstan/studio/budget"
)

// Stale says that a command was made on an older revision than the current one, and does not fit that.
type Stale struct {
	Revision int64
	Since    []Change
	More     bool // too many to be told: the document is to be loaded anew
}

func (e *Stale) Error() string {
	return words.New("stale").Error()
}

// Incoming is a command as a window sends it.
type Incoming struct {
	Base    int64  // the revision it was made on
	Window  string // who sends it
	ID      string // a repeated one is not carried out twice
	Command edit.Command
	// Strictly on its base: where that is no longer the newest revision it is Stale. Else it is carried out on the newest where it fits that.
	Strict bool
}

// Taken is what has become of a command.
type Taken struct {
	Change
	Now   int64    // the revision that Since leads to
	Since []Change // stored after its base, its own among them, where that is more than its own
	More  bool     // Since is too long to be told
}

// Apply is Take of a command strictly on its base.
func (s *Store) Apply(id string, base int64, window, commandID string, command edit.Command) (Change, error) {
	t, err := s.Take(context.Background(), id, Incoming{base, window, commandID, command, true})
	return t.Change, err
}

// Take carries out a command and stores it as the next revision, in one transaction. A command id that was carried out before is
// acknowledged again and not repeated: with its revision, which is base or older where the caller has it already.
func (s *Store) Take(ctx context.Context, id string, in Incoming) (t Taken, err error) {
	err = s.lend(id, func(o *opened) error {
		t, err = s.take(ctx, id, o, in)
		return err
	})
	return t, err
}

func (s *Store) take(ctx context.Context, id string, o *opened, in Incoming) (t Taken, err error) {
	stale := func() error {
		since, more, err := s.missed(id, in.Base, o.revision)
		if err != nil {
			return err
		}
		return &Stale{o.revision, since, more}
	}
	if in.ID != "" {
		err := s.db.Where("project_id = ? AND command_id = ?", id, in.ID).First(&t.Change).Error
		switch {
		case err == nil && t.Revision <= in.Base+1:
			t.Now = max(t.Revision, in.Base)
			return t, nil
		case err == nil && in.Strict:
			return t, stale()
		case err == nil:
			t.Now = o.revision
			t.Since, t.More, err = s.missed(id, in.Base, o.revision)
			return t, err
		case !errors.Is(err, gorm.ErrRecordNotFound):
			return t, err
		}
	}
	if in.Base != o.revision && (in.Strict || in.Base > o.revision) {
		return t, stale()
	}
	late := time.Now().Add(budget.Command)
	next, changes, err := edit.ApplyWhile(func() error {
		if time.Now().After(late) {
			return words.New("command.slow", int(budget.Command.Seconds()))
		}
		return ctx.Err()
	}, o.doc, in.Command, s.Assets(o.doc))
	if err != nil && in.Base != o.revision && ctx.Err() == nil {
		return t, stale()
	}
	if err != nil {
		return t, err
	}
	rawPatch, err := json.Marshal(changes)
	if err != nil {
		return t, err
	}
	rawCommand, err := edit.Write(in.Command)
	if err != nil {
		return t, err
	}
	size, err := grown(o, next, changes)
	if err != nil {
		return t, err
	}
	row := Project{ID: id}
	film, err := s.describe(&row, next, o.film)
	if err != nil {
		return t, err
	}
	t.Change = Change{id, o.revision + 1, in.ID, in.Window, json.RawMessage(rawCommand), rawPatch, patch.Format, time.Now()}
	t.Now = t.Revision
	if err := s.put(t.Change, row, o, next); err != nil {
		return t, err
	}
	before := o.revision
	o.doc, o.revision, o.film, o.bytes = next, t.Revision, film, size
	if in.Base < before {
		t.Since, t.More, err = s.missed(id, in.Base, o.revision)
		if err != nil {
			t.Since, t.More = nil, true // it is stored; what else was is asked for again
		}
	}
	return t, nil
}

// grown returns how long a document is after a change, to within what names of fields take, or why that is too long.
func grown(o *opened, next *doc.Project, changes patch.Patch) (int, error) {
	size := o.bytes
	for _, c := range changes {
		size += len(c.After) - len(c.Before)
	}
	if size < doc.MaxBytes*3/4 || size <= o.bytes {
		return size, nil
	}
	raw, err := next.Write()
	if err != nil {
		return 0, err
	}
	if len(raw) > doc.MaxBytes {
		return 0, words.New("document.large", doc.MaxBytes>>20)
	}
	return len(raw), nil
}

// put stores a change with what the list of projects says of it, and now and then a snapshot.
func (s *Store) put(c Change, row Project, o *opened, next *doc.Project) error {
	snapshot := c.Revision%snapshotEvery == 0
	if snapshot { // what many changes lead to is looked at whole
		if err := next.Validate(); err != nil {
			return err
		}
	}
	err := s.tx(func(tx *gorm.DB) error {
		if err := tx.Create(&c).Error; err != nil {
			return err
		}
		err := tx.Model(&Project{}).Where("id = ?", c.ProjectID).Updates(map[string]any{
			"name": row.Name, "width": row.Width, "height": row.Height, "length": row.Length,
			"revision": c.Revision, "updated_at": c.At,
		}).Error
		if err == nil && !maps.Equal(next.Media, o.doc.Media) {
			err = use(tx, c.ProjectID, next.Media)
		}
		if err != nil || !snapshot {
			return err
		}
		raw, err := next.Write()
		if err != nil {
			return err
		}
		// Older ones than the last few are not needed: changes lead from any of them to now.
		return errors.Join(tx.Create(&Snapshot{c.ProjectID, c.Revision, raw}).Error,
			tx.Delete(&Snapshot{}, "project_id = ? AND revision < ?", c.ProjectID, c.Revision-keptSnapshots*snapshotEvery).Error,
			compact(tx, c.ProjectID, c.Revision))
	})
	if err != nil {
		return fmt.Errorf("the change could not be stored: %w", err)
	}
	return nil
}

// describe notes on a row what the list of projects says of a document. The film it returns, nil where none had to be made, is what
// the next call for this project is given, so that only what changed is compiled again.
func (s *Store) describe(row *Project, p *doc.Project, before *frame.Film) (*frame.Film, error) {
	row.Name, row.Width, row.Height = p.Name, p.Film.Width, p.Film.Height
	var stays []int64
	for _, sc := range p.Film.Scenes {
		if sc.AutoStay || len(sc.Cues) > 0 { // its stay hangs on its moves and cues
			film, err := frame.Compile(p, s.Assets(p), before)
			if err != nil {
				return nil, err
			}
			row.Length = film.Order.Length
			return film, nil
		}
		stays = append(stays, sc.Stay)
	}
	row.Length = motion.NewOrder(&p.Film, stays).Length
	return nil, nil
}
