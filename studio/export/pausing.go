package export

import (
	"context"
	"log/slog"
	"time"

	"capstan/studio/store"
)

// making is an export that is being made.
type making struct {
	ctx    context.Context
	stop   context.CancelFunc
	resume chan struct{} // closed when it goes on; nil: it is not to rest
	owns   bool          // a place among those that are made at a time
	latest store.Export  // with the frames done

	since  time.Time     // when it last began or went on
	worked time.Duration // before that
}

// left is how long the frames that are left take, ms, by those that are done; 0 where that is not known yet.
func (m *making) left(done, all int64) int64 {
	worked := m.worked + time.Since(m.since)
	if done < 2 || worked < 400*time.Millisecond {
		return 0
	}
	return int64(worked.Seconds() * 1000 * float64(all-done) / float64(done))
}

// Pause lets an export rest, whether it waits or runs. One that runs keeps what it has, but not its place: others are made meanwhile. Over a
// restart of Capstan it stays paused, and begins anew when it goes on.
func (q *Queue) Pause(id string) error {
	q.claim.Lock()
	defer q.claim.Unlock()
	q.mu.Lock()
	if m := q.running[id]; m != nil {
		if m.resume == nil {
			m.resume = make(chan struct{})
		}
		q.mu.Unlock()
		return nil
	}
	q.mu.Unlock()
	return q.changed(id, store.Waiting, func(e *store.Export) { e.State = store.Paused })
}

// Resume lets a paused export go on.
func (q *Queue) Resume(id string) error {
	q.claim.Lock()
	defer q.claim.Unlock()
	q.mu.Lock()
	if m := q.running[id]; m != nil {
		if m.resume != nil {
			close(m.resume)
			m.resume = nil
		}
		q.mu.Unlock()
		return nil
	}
	q.mu.Unlock()
	return q.changed(id, store.Paused, func(e *store.Export) { e.State = store.Waiting })
}

// First puts an export that waits in front of the others that do.
func (q *Queue) First(id string) error {
	list, err := q.store.Exports("")
	if err != nil {
		return err
	}
	least := 0.0
	for _, e := range list {
		if e.State == store.Waiting {
			least = min(least, e.Turn)
		}
	}
	return q.change(id, store.Waiting, func(e *store.Export) { e.Turn = least - 1 })
}

// change changes an export that is in a state; one that no longer is, is left as it is.
func (q *Queue) change(id, state string, how func(*store.Export)) error {
	q.claim.Lock()
	defer q.claim.Unlock()
	return q.changed(id, state, how)
}

// changed is change where the claim is held.
func (q *Queue) changed(id, state string, how func(*store.Export)) error {
	e, err := q.store.Export(id)
	if err != nil || e.State != state {
		return err
	}
	how(e)
	if err := q.store.SaveExport(e); err != nil {
		return err
	}
	q.notify(*e)
	q.poke()
	return nil
}

// rest waits while an export is paused, without a place among those that are made.
func (q *Queue) rest(ctx context.Context, e *store.Export, m *making) {
	q.mu.Lock()
	resume := m.resume
	q.mu.Unlock()
	if resume == nil {
		return
	}
	m.worked += time.Since(m.since)
	q.leave(m)
	q.show(e, m, store.Paused)
	select {
	case <-ctx.Done():
		return
	case <-resume:
	}
	select {
	case <-ctx.Done():
		return
	case q.places <- struct{}{}:
		m.owns = true
	}
	m.since = time.Now()
	q.show(e, m, store.Running)
}

// leave gives a place back.
func (q *Queue) leave(m *making) {
	if m.owns {
		m.owns = false
		<-q.places
		q.poke()
	}
}

// show stores a state and tells of it.
func (q *Queue) show(e *store.Export, m *making, state string) {
	e.State, e.Left = state, 0
	if err := q.store.SaveExport(e); err != nil {
		slog.Error("the state of an export could not be stored", "export", e.ID, "error", err)
	}
	q.mu.Lock()
	m.latest = *e
	q.mu.Unlock()
	q.notify(*e)
}
