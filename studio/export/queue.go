package export

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"os"
	"path/filepath"
	"sync"
	"time"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/variant"
	"capstan/studio/budget"
	"capstan/studio/media"
	"capstan/studio/store"
)

// Queue makes the store's waiting exports, the oldest first, two of them at a time: a short one need not wait for a long one, and each uses all
// cores, so more would only slow the first one down.
type Queue struct {
	store   *store.Store
	files   *media.Folder
	notify  func(store.Export)
	wake    chan struct{}
	claim   sync.Mutex    // held while the next export is taken
	large   sync.Mutex    // held by an export that needs much memory
	places  chan struct{} // one for each that is made at a time
	mu      sync.Mutex
	running map[string]*making
}

// NewQueue returns a queue; notify is told whenever an export changes, from the queue's own goroutine.
func NewQueue(s *store.Store, files *media.Folder, notify func(store.Export)) *Queue {
	return &Queue{
		store: s, files: files, notify: notify, wake: make(chan struct{}, 1),
		places: make(chan struct{}, budget.Exports), running: map[string]*making{},
	}
}

// File returns where the finished file of an export lies.
func (q *Queue) File(e *store.Export) string {
	return filepath.Join(q.store.Dir(), "exports", e.ID+"."+delivery.Ending(e.Format))
}

// Add puts an export into the queue.
func (q *Queue) Add(e *store.Export) error {
	e.State, e.CreatedAt = store.Waiting, time.Now()
	if err := q.store.AddExport(e); err != nil {
		return err
	}
	q.notify(*e)
	q.poke()
	return nil
}

func (q *Queue) poke() {
	select {
	case q.wake <- struct{}{}:
	default:
	}
}

// Cancel stops an export that waits or runs. One that has ended is left as it is.
func (q *Queue) Cancel(id string) error {
	q.claim.Lock()
	defer q.claim.Unlock()
	q.mu.Lock()
	m := q.running[id]
	q.mu.Unlock()
	if m != nil {
		m.stop()
		return nil
	}
	e, err := q.store.Export(id)
	if err != nil || e.State != store.Waiting && e.State != store.Paused {
		return err
	}
	e.State, e.EndedAt = store.Cancelled, time.Now()
	if err := q.store.SaveExport(e); err != nil {
		return err
	}
	q.notify(*e)
	return nil
}

// List returns a project's exports with the frames done so far.
func (q *Queue) List(project string) ([]store.Export, error) {
	// None ends or begins while they are read: else one that has just ended and the one after it would both seem to run.
	q.claim.Lock()
	defer q.claim.Unlock()
	q.mu.Lock()
	defer q.mu.Unlock()
	list, err := q.store.Exports(project)
	for i := range list {
		if m := q.running[list[i].ID]; m != nil {
			list[i] = m.latest
		}
	}
	return list, err
}

// Run works until ctx ends. Exports that were running when Capstan last stopped are made again, once: one that was running both times may be
// what stopped it.
func (q *Queue) Run(ctx context.Context) error {
	if err := errors.Join(q.keepWhole(), q.store.RequeueExports()); err != nil {
		return err
	}
	var makers sync.WaitGroup
	defer makers.Wait()
	for {
		select {
		case <-ctx.Done():
			return nil
		case q.places <- struct{}{}:
		}
		if e, m := q.next(ctx); e != nil {
			makers.Go(func() { q.run(ctx, e, m) })
			continue
		}
		<-q.places
		select {
		case <-ctx.Done():
			return nil
		case <-q.wake:
		case <-time.After(5 * time.Second):
		}
	}
}

// keepWhole notes as done what was running when Capstan last stopped and is there: a file gets its name when it is whole.
func (q *Queue) keepWhole() error {
	list, err := q.store.Exports("")
	for i := range list {
		info, gone := os.Stat(q.File(&list[i]))
		if list[i].State != store.Running || gone != nil {
			continue
		}
		e, missing := q.store.Export(list[i].ID) // with its document
		if missing != nil {
			err = errors.Join(err, missing)
			continue
		}
		e.State, e.EndedAt, e.Bytes, e.FramesDone = store.Done, info.ModTime(), info.Size(), e.Frames
		err = errors.Join(err, q.store.SaveExport(e))
	}
	return err
}

// next takes the export whose turn it is, or returns nil.
func (q *Queue) next(parent context.Context) (*store.Export, *making) {
	q.claim.Lock()
	defer q.claim.Unlock()
	e, err := q.store.NextExport()
	if err != nil {
		slog.Error("the export queue cannot be read", "error", err)
		return nil, nil
	}
	if e == nil {
		return nil, nil
	}
	e.State = store.Running
	if err := q.store.SaveExport(e); err != nil {
		slog.Error("the state of an export could not be stored", "export", e.ID, "error", err)
		return nil, nil
	}
	// From now on it can be paused and cancelled as one that runs: no moment lies between.
	m := &making{owns: true, latest: *e, since: time.Now()}
	m.ctx, m.stop = context.WithCancel(parent)
	q.mu.Lock()
	q.running[e.ID] = m
	q.mu.Unlock()
	return e, m
}

func (q *Queue) run(parent context.Context, e *store.Export, m *making) {
	defer m.stop()
	defer q.leave(m)
	q.notify(*e)
	err := guarded(func() error { return q.make(m.ctx, e, m) })
	if q.ended(e, err, parent.Err() != nil) {
		q.notify(*e)
	}
}

// ended stores how an export has ended, in one with its no longer running.
func (q *Queue) ended(e *store.Export, err error, stopping bool) bool {
	q.mu.Lock()
	defer q.mu.Unlock()
	delete(q.running, e.ID)
	if stopping {
		return false // Capstan is stopping; the export is made again at the next start
	}
	e.Left = 0
	e.EndedAt = time.Now()
	switch {
	case errors.Is(err, context.Canceled):
		e.State, e.Message = store.Cancelled, ""
	case err != nil:
		e.State, e.Message = store.Failed, told(err).Error()
		slog.Error("export failed", "export", e.ID, "error", err)
	default:
		e.State = store.Done
		if info, err := os.Stat(q.File(e)); err == nil {
			e.Bytes = info.Size()
		}
	}
	if err := q.store.SaveExport(e); err != nil {
		slog.Error("the state of an export could not be stored", "export", e.ID, "error", err)
	}
	return true
}

// Asked is what was asked for when an export was put into the queue.
func Asked(e *store.Export) (a delivery.Ask, err error) {
	if e.Settings != "" {
		return a, json.Unmarshal([]byte(e.Settings), &a)
	}
	a = delivery.Ask{Format: e.Format, Width: e.Width, Rate: doc.Rate{Num: e.RateNum, Den: e.RateDen}, From: e.At, Pause: &e.EndPause}
	if e.Once {
		a.Passes = 1
	}
	return a, nil
}

// planned returns the film that an export shows, and its plan.
func (q *Queue) planned(e *store.Export) (*frame.Film, Options, error) {
	ask, err := Asked(e)
	if err != nil {
		return nil, Options{}, err
	}
	film, err := q.shown(e, ask)
	if err != nil {
		return nil, Options{}, err
	}
	o, err := delivery.Of(film, ask)
	return film, o, err
}

// shown is the film that an export shows.
func (q *Queue) shown(e *store.Export, ask delivery.Ask) (*frame.Film, error) {
	p, err := doc.Read(e.Document)
	if err != nil {
		return nil, err
	}
	if ask.Row > 0 {
		if p, _, err = variant.Fill(p, ask.Row); err != nil {
			return nil, err
		}
	}
	return frame.CompileFilm(p, e.Film, q.store.Assets(p))
}

func (q *Queue) make(ctx context.Context, e *store.Export, m *making) error {
	film, o, err := q.planned(e)
	if err != nil {
		return err
	}
	if err := Ready(film, q.files); err != nil {
		return err
	}
	if o.Pictures, err = q.encoded(e, film); err != nil {
		return err
	}
	if Alone(o) {
		q.large.Lock()
		defer q.large.Unlock()
	}
	e.Frames = o.Sequence(film).Len()
	last := time.Time{}
	q.rest(ctx, e, m)
	made, err := MakeWithin(ctx, film, q.files, o, q.File(e), func(done, all int64) {
		e.FramesDone, e.Frames = done, all
		q.mu.Lock()
		e.Left = m.left(done, all)
		m.latest = *e
		q.mu.Unlock()
		if now := time.Now(); now.Sub(last) > 100*time.Millisecond || done == all {
			last = now
			q.notify(*e)
		}
		q.rest(ctx, e, m)
	}, func(gives string, bytes int64) {
		e.Message = fmt.Sprintf("%s: %d of %d KB", cmp.Or(gives, "as asked"), kilobytes(bytes), kilobytes(o.Target))
		m.since, m.worked = time.Now(), 0
	})
	if err == nil {
		shows := made.Sequence(film)
		e.Width, e.Height, e.RateNum, e.RateDen, e.Frames, e.Length = made.Width, made.Height, made.RateNum, made.RateDen, shows.Len(), shows.Length()
		e.FramesDone, e.Message = e.Frames, made.GaveUp(o)
	}
	return err
}

// Delete removes an export that has ended, with its file.
func (q *Queue) Delete(e *store.Export) error {
	if err := os.Remove(q.File(e)); err != nil && !errors.Is(err, os.ErrNotExist) {
		return err
	}
	return q.store.DeleteExport(e.ID)
}
