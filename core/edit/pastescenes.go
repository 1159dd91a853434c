package edit

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/series"
	"capstan/core/words"
)

// PasteScenes puts copies of scenes into the film, of this project or another one. Threads and loops that go on from one of them to the next do so in
// the copies.
type PasteScenes struct {
	Scenes []*doc.Scene `json:"scenes"`
	IDs    []string     `json:"ids"` // that they get
	Seed   string       `json:"seed"`
	Index  int          `json:"index"`
	New    bool         `json:"new"` // as things of their own: their threads are none of the film's
}

// Op is its name on the wire.
func (c *PasteScenes) Op() string { return "scene.paste" }

func (c *PasteScenes) apply(e *editor) error {
	if len(c.Scenes) == 0 || len(c.IDs) != len(c.Scenes) || slices.Contains(c.Scenes, nil) {
		return words.New("scene.gone")
	}
	known := map[string]bool{} // loops of the scene before
	for k, from := range c.Scenes {
		if !sound(from.Layers) {
			return words.New("layer.none")
		}
		if slices.Contains(from.Sounds, nil) {
			return words.New("sound.none-given")
		}
		s := from.Clone()
		s.ID, s.Aside, s.Template = c.IDs[k], false, false
		to, loops := map[string]string{}, map[string]bool{}
		doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
			if c.New {
				to[l.Thread] = derive(c.Seed+"/thread", l.Thread)
			}
			for _, m := range l.Moves {
				loops[m.ID] = true
				if m.Continues != "" && known[m.Continues] {
					m.Continues = derive(c.Seed, m.Continues)
				} else {
					m.Continues = ""
				}
			}
			return true
		})
		if len(to) > 0 {
			ways := map[string]doc.Strand{}
			for thread, way := range s.Transition.Threads {
				if n, ok := to[thread]; ok {
					ways[n] = way
				}
			}
			if s.Transition.Threads = ways; len(ways) == 0 {
				s.Transition.Threads = nil
			}
			series.Rethread(s, to)
		}
		series.Remap(s, c.Seed, map[string]string{})
		known = loops
		e.insert(s, c.Index+k)
	}
	return e.firstCuts()
}
