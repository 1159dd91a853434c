package edit

import (
	"fmt"
	"slices"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/series"
	"capstan/core/words"
)

// AddScene puts an empty scene into the film; it takes the background of the one before it.
type AddScene struct {
	ID    string `json:"id"`
	Index int    `json:"index"`
	Name  string `json:"name"`
	Aside bool   `json:"aside"` // behind all others, and not in the film
}

// Op is its name on the wire.
func (c *AddScene) Op() string { return "scene.add" }

func (c *AddScene) apply(e *editor) error {
	s := doc.NewScene(c.ID, c.Name)
	if s.Aside = c.Aside; s.Aside {
		s.Background.Colour = asideColour
	} else if i := min(max(c.Index, 0), len(e.p.Film.Shown())) - 1; i >= 0 {
		s.Background = e.p.Film.Scenes[i].Background
	}
	e.insert(s, c.Index)
	return nil
}

// DeleteScenes takes scenes out of the film, which keeps one at least.
type DeleteScenes struct {
	IDs []string `json:"ids"`
}

// Op is its name on the wire.
func (c *DeleteScenes) Op() string { return "scene.delete" }

func (c *DeleteScenes) apply(e *editor) error {
	left := slices.DeleteFunc(slices.Clone(e.p.Film.Scenes), func(s *doc.Scene) bool { return slices.Contains(c.IDs, s.ID) })
	if len(left) == len(e.p.Film.Scenes) {
		return words.New("scene.gone")
	}
	if len(left) == 0 || left[0].Aside {
		return words.New("film.last-scene")
	}
	e.p.Film.Scenes = left
	return e.firstCuts()
}

// OrderScenes puts scenes elsewhere in the film, together. Those set aside stay behind all others.
type OrderScenes struct {
	IDs   []string `json:"ids"`
	Index int      `json:"index"` // among the scenes that stay where they are
}

// Op is its name on the wire.
func (c *OrderScenes) Op() string { return "scene.order" }

func (c *OrderScenes) apply(e *editor) error {
	var moving, staying []*doc.Scene
	for _, s := range e.p.Film.Scenes {
		if slices.Contains(c.IDs, s.ID) && !s.Aside {
			moving = append(moving, s)
		} else {
			staying = append(staying, s)
		}
	}
	if len(moving) == 0 {
		return words.New("scene.gone")
	}
	shown := (&doc.Film{Scenes: staying}).Shown()
	e.p.Film.Scenes = slices.Insert(staying, min(max(c.Index, 0), len(shown)), moving...)
	return e.firstCuts()
}

// SetScenes changes fields of scenes, not their layers.
type SetScenes struct {
	IDs   []string `json:"ids"`
	Patch Fields   `json:"patch"`
}

// Op is its name on the wire.
func (c *SetScenes) Op() string { return "scene.set" }

func (c *SetScenes) apply(e *editor) error {
	for _, id := range c.IDs {
		s, err := e.scene(id)
		if err != nil {
			return err
		}
		head := *s
		head.Layers, head.Sounds = nil, nil
		n, err := merged(&head, c.Patch, "id", "layers", "sounds", "aside", "template")
		if err != nil {
			return err
		}
		n.Layers, n.Sounds = s.Layers, s.Sounds
		*s = *n
	}
	return nil
}

// asideColour is the ground of a scene that is set aside: dark things are seen on it, and light ones.
const asideColour = "#d8ceba"

// insert puts a scene into the film; a scene that was first gets a cut.
func (e *editor) insert(s *doc.Scene, index int) {
	index = min(max(index, 0), len(e.p.Film.Shown()))
	if s.Aside {
		index = len(e.p.Film.Scenes)
	}
	e.p.Film.Scenes = slices.Insert(e.p.Film.Scenes, index, s)
	e.cloned[s.ID] = s
}

// firstCuts gives the first scene a cut: nothing comes before it.
func (e *editor) firstCuts() error {
	first := e.p.Film.Scenes[0]
	if first.Transition.Duration == 0 {
		return nil
	}
	s, err := e.scene(first.ID)
	if err == nil {
		s.Transition = doc.Transition{Kind: doc.Cut}
	}
	return err
}

// DuplicateScene puts a copy behind a scene, with all its moves. Threads are kept; layers and moves get new ids, hitches are re-mapped to them.
type DuplicateScene struct {
	From string `json:"from"`
	ID   string `json:"id"`
	Seed string `json:"seed"`
	Name string `json:"name"`
}

// Op is its name on the wire.
func (c *DuplicateScene) Op() string { return "scene.duplicate" }

func (c *DuplicateScene) apply(e *editor) error { return e.copyScene(c, false) }

// ContinueScene is DuplicateScene with a copy that begins as the scene ends (docs/motion.md, section 6).
type ContinueScene DuplicateScene

// Op is its name on the wire.
func (c *ContinueScene) Op() string { return "scene.continue" }

func (c *ContinueScene) apply(e *editor) error { return e.copyScene((*DuplicateScene)(c), true) }

func (e *editor) copyScene(c *DuplicateScene, goOn bool) error {
	i, from := e.p.Scene(c.From)
	if from == nil {
		return words.New("scene.gone")
	}
	s := from.Clone()
	s.ID, s.Name, s.Aside, s.Template = c.ID, c.Name, false, false
	s.Transition.Threads = nil // they are about what the scene before it was
	if i == 0 && s.Transition.Kind == doc.Cut {
		s.Transition = doc.Transition{Kind: doc.Morph, Duration: 700}
	}
	if goOn {
		s.Cues, s.EndsAtCue, s.Sounds, s.Captions = nil, "", nil, nil
		film, err := frame.Compile(e.p, e.assets, nil)
		if err != nil {
			return err
		}
		if s.Layers, err = e.ending(film, i, s.Layers); err != nil {
			return err
		}
		doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
			for _, m := range l.Moves {
				if m.Start.OnSound() { // of the scene before
					m.Start = doc.Start{When: doc.AtTime}
				}
			}
			return true
		})
	}
	links := map[string]string{} // new loop -> the one it continues
	series.Remap(s, c.Seed, links)
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			m.Continues = ""
			if m.Kind == doc.Loop && m.Lasts == "scene" {
				m.Continues = links[m.ID]
			}
		}
		return true
	})
	e.insert(s, i+1)
	return e.between(c.From, c.ID)
}

// CopyScene puts a copy of a scene into the film, or aside, with threads of its own: it goes on from none.
type CopyScene struct {
	From     string `json:"from"`
	ID       string `json:"id"`
	Seed     string `json:"seed"`
	Name     string `json:"name"`
	Index    int    `json:"index"`    // in the film
	Template bool   `json:"template"` // aside, to be used again
}

// Op is its name on the wire.
func (c *CopyScene) Op() string { return "scene.copy" }

func (c *CopyScene) apply(e *editor) error {
	_, from := e.p.Scene(c.From)
	if from == nil {
		return words.New("scene.gone")
	}
	s := from.Clone()
	s.ID, s.Name, s.Aside, s.Template = c.ID, c.Name, c.Template, c.Template
	s.Transition.Threads = nil
	if c.Template || c.Index <= 0 {
		s.Transition = doc.Transition{Kind: doc.Cut}
	}
	renewed(s, c.Seed)
	e.insert(s, c.Index)
	return e.firstCuts()
}

// renewed gives all that a scene holds new ids, and threads of its own.
func renewed(s *doc.Scene, seed string) {
	to := map[string]string{}
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		to[l.Thread] = derive(seed+"/thread", l.Thread)
		for _, m := range l.Moves {
			m.Continues = ""
		}
		return true
	})
	series.Rethread(s, to)
	series.Remap(s, seed, map[string]string{})
}

// ending turns layers into what they are at the end of scene i: entrances and exits are gone, path ends are kept
// in the place, finished spins in the turn; layers that have left or never entered are left out.
func (e *editor) ending(film *frame.Film, i int, layers []*doc.Layer) ([]*doc.Layer, error) {
	out := []*doc.Layer{}
	for _, l := range layers {
		pose := film.EndPose(i, l.ID)
		if is, large := film.EndLayer(i, l.ID); is != nil {
			if err := series.Settle(l, is, large, grown); err != nil {
				return nil, err
			}
		}
		if !l.Hidden && (!pose.Present || pose.Waiting) {
			if l.Mask != doc.Inside {
				continue
			}
			l.Opacity = 0 // nothing shows in a mask that is not there
		}
		var kept, going []*doc.Move
		spin := pose.Loops.Turn
		for _, m := range l.Moves {
			if m.Lasts == doc.WholeThread {
				continue // it goes on by itself
			}
			if m.Kind == doc.Loop && m.Lasts == "scene" && !m.Drifts() {
				if g := m.Goes(); g == nil || g.Round == nil { // what has rolled stays turned, and rolls on from there
					spin -= film.EndTurn(i, l.ID, m.ID)
				}
				kept = append(kept, m)
			}
			// A scroll that has ended stays where it is, and one that has not goes on.
			if g := m.Goes(); g != nil && m.Lasts == "" && !series.Settles(m) && g.Round == nil {
				if at := film.Timing(i).Moves[m.ID]; at.Begin < film.Timing(i).Stay {
					series.BeginAt(m, at.Begin-film.Timing(i).Stay, 0)
					m.End, m.Until = nil, ""
					going = append(going, m)
				}
			}
		}
		if m := series.ApartAt(film, i, l); m != nil {
			kept = append(kept, m)
		}
		l.Place.X += pose.Offset.X
		l.Place.Y += pose.Offset.Y
		l.Place.Turn += pose.Angle
		series.TurnAbout(l, film, i, spin)
		detach(kept)
		l.Moves = append(kept, going...)
		if l.Kind == doc.Group {
			var err error
			if l.Children, err = e.ending(film, i, l.Children); err != nil {
				return nil, err
			}
			if !slices.ContainsFunc(l.Children, func(k *doc.Layer) bool { return k.Mask == "" }) {
				continue
			}
		}
		out = append(out, l)
	}
	return out, nil
}

// detach hangs moves that go on by themselves on the scene's clock 0.
func detach(moves []*doc.Move) {
	for _, m := range moves {
		m.Start, m.End, m.Until = doc.Start{When: doc.AtTime}, nil, ""
	}
}

// rehang gives every move of the scene that hangs on one of the gone moves, or ends with it, its
// resolved time as a time of its own.
func rehang(s *doc.Scene, into int64, gone map[string]bool) error {
	t, err := motion.Resolve(s, into)
	if err != nil {
		return err
	}
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			at := t.Moves[m.ID]
			if m.End != nil && gone[m.End.Of] {
				if m.End.Stretches && m.Lasts == "" {
					m.Duration = at.Pass
				} else {
					m.Start = doc.Start{When: doc.AtTime, Offset: at.Begin}
				}
				m.End = nil
			}
			if gone[m.Start.Of] {
				m.Start = doc.Start{When: doc.AtTime, Offset: at.Begin}
			}
			if gone[m.Until] {
				m.Until = ""
				if m.Duration > 0 {
					m.Repeat = at.Passes
				}
			}
		}
		return true
	})
	return nil
}

// SceneName proposes a name for a new scene of the film: the first number that is free.
func SceneName(p *doc.Project) string {
	taken := map[string]bool{}
	for _, s := range p.Film.Scenes {
		taken[s.Name] = true
	}
	for n := len(p.Film.Shown()) + 1; ; n++ {
		if name := fmt.Sprintf("Scene %d", n); !taken[name] {
			return name
		}
	}
}
