package edit

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/series"
	"capstan/core/words"
)

// JoinThreads lets layers of a scene, and what goes on from them later, go on from layers of the scene before: they get the threads of these.
type JoinThreads struct {
	Scene string `json:"scene"` // the later one
	Pairs []Join `json:"pairs"`
}

// Join is a thread that goes on as another.
type Join struct {
	From string `json:"from"` // the thread in the scene before
	To   string `json:"to"`   // the thread in the scene, which gets that of the other
}

// Op is its name on the wire.
func (c *JoinThreads) Op() string { return "thread.join" }

func (c *JoinThreads) apply(e *editor) error {
	shown := e.p.Film.Shown()
	at := slices.IndexFunc(shown, func(s *doc.Scene) bool { return s.ID == c.Scene })
	if at < 1 {
		return words.New("thread.join-first")
	}
	for _, p := range c.Pairs {
		if err := joins(shown, at, p); err != nil {
			return err
		}
		for _, sc := range shown[at:] {
			if sc.Thread(p.To) == nil && sc.Transition.Threads[p.To] == (doc.Strand{}) {
				continue
			}
			s, err := e.scene(sc.ID)
			if err != nil {
				return err
			}
			series.Rethread(s, map[string]string{p.To: p.From})
			if way, set := s.Transition.Threads[p.To]; set {
				delete(s.Transition.Threads, p.To)
				if s.ID != c.Scene {
					s.Transition.Threads[p.From] = way
				}
				if len(s.Transition.Threads) == 0 {
					s.Transition.Threads = nil // as it is read again
				}
			}
		}
		shown = e.p.Film.Shown()
	}
	return nil
}

// joins returns why a thread cannot go on as another from scene at on.
func joins(shown []*doc.Scene, at int, p Join) error {
	from, to := shown[at-1].Thread(p.From), shown[at].Thread(p.To)
	switch {
	case from == nil || to == nil:
		return words.New("thread.join-gone")
	case shown[at-1].Thread(p.To) != nil:
		return words.New("thread.goes-on", to.Name)
	}
	for i, sc := range shown[at:] {
		if other := sc.Thread(p.From); other != nil {
			return words.New("thread.twice", from.Name, shown[at+i].Name)
		}
	}
	return nil
}
