package edit

import (
	"maps"

	"capstan/core/doc"
	"capstan/core/series"
	"capstan/core/words"
)

// CutThreads gives layers, with all that is inside them, threads of their own from a scene on, or in that scene alone: they no longer go on from the
// scene before. Their loops begin anew there.
type CutThreads struct {
	Scene string   `json:"scene"`
	IDs   []string `json:"ids"`
	Seed  string   `json:"seed"`
	Alone bool     `json:"alone"`
}

// Op is its name on the wire.
func (c *CutThreads) Op() string { return "thread.cut" }

func (c *CutThreads) apply(e *editor) error {
	at, _ := e.p.Scene(c.Scene)
	if at < 0 {
		return words.New("scene.gone")
	}
	first, err := e.scene(c.Scene)
	if err != nil {
		return err
	}
	to := map[string]string{}
	for _, id := range c.IDs {
		l, _ := first.Layer(id)
		if l == nil {
			return words.New("layer.gone")
		}
		doc.Walk([]*doc.Layer{l}, func(k, _ *doc.Layer) bool {
			to[k.Thread] = derive(c.Seed+"/thread", k.Thread)
			for _, m := range k.Moves {
				m.Continues = ""
			}
			return true
		})
	}
	for i, sc := range e.p.Film.Shown() {
		if i < at || c.Alone && i > at {
			continue
		}
		s, err := e.scene(sc.ID)
		if err != nil {
			return err
		}
		series.Rethread(s, to)
		ways := map[string]doc.Strand{}
		for thread, way := range s.Transition.Threads {
			n, cut := to[thread]
			switch {
			case !cut:
				ways[thread] = way
			case i > at && !c.Alone:
				ways[n] = way
			}
		}
		if !maps.EqualFunc(ways, s.Transition.Threads, doc.Strand.Equal) {
			s.Transition.Threads = ways
		}
		if len(s.Transition.Threads) == 0 {
			s.Transition.Threads = nil // as it is read again
		}
	}
	return nil
}
