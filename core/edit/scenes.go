package edit

import (
	"fmt"
	"slices"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
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
		head.Layers = nil
		n, err := merged(&head, c.Patch, "id", "layers", "aside")
		if err != nil {
			return err
		}
		n.Layers = s.Layers
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
	s.ID, s.Name, s.Aside = c.ID, c.Name, false
	s.Transition.Threads = nil // they are about what the scene before it was
	if i == 0 && s.Transition.Kind == doc.Cut {
		s.Transition = doc.Transition{Kind: doc.Morph, Duration: 700}
	}
	if goOn {
		s.Cues, s.EndsAtCue = nil, ""
		film, err := frame.Compile(e.p, e.assets, nil)
		if err != nil {
			return err
		}
		if s.Layers, err = e.ending(film, i, s.Layers); err != nil {
			return err
		}
	}
	links := map[string]string{} // new loop -> the one it continues
	remap(s, c.Seed, links)
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
	return nil
}

// remap gives the layers, moves and cues of a copied scene new ids and hangs hitches on the new moves.
func remap(s *doc.Scene, seed string, old map[string]string) {
	ids := map[string]string{}
	id := func(was string) string {
		n := derive(seed, was)
		ids[was], old[n] = n, was
		return n
	}
	for i := range s.Cues {
		s.Cues[i].ID = id(s.Cues[i].ID)
	}
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		l.ID = id(l.ID)
		for _, m := range l.Moves {
			m.ID = id(m.ID)
		}
		return true
	})
	to := func(was string) string {
		if n, ok := ids[was]; ok {
			return n
		}
		return was
	}
	s.EndsAtCue = to(s.EndsAtCue)
	for i := range s.Runs {
		s.Runs[i].ID = derive(seed, s.Runs[i].ID)
		for k := range s.Runs[i].Moves {
			s.Runs[i].Moves[k] = to(s.Runs[i].Moves[k])
		}
	}
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			m.Start.Of, m.Until = to(m.Start.Of), to(m.Until)
			m.Rename(to)
			if m.End != nil {
				m.End.Of = to(m.End.Of)
			}
		}
		return true
	})
}

// ending turns layers into what they are at the end of scene i: entrances and exits are gone, path ends are kept
// in the place, finished spins in the turn; layers that have left or never entered are left out.
func (e *editor) ending(film *frame.Film, i int, layers []*doc.Layer) ([]*doc.Layer, error) {
	out := []*doc.Layer{}
	for _, l := range layers {
		pose := film.EndPose(i, l.ID)
		if is, large := film.EndLayer(i, l.ID); is != nil {
			if err := settleChanges(l, is, large); err != nil {
				return nil, err
			}
		}
		if !l.Hidden && (!pose.Present || pose.Waiting) {
			if l.Mask != doc.Inside {
				continue
			}
			l.Opacity = 0 // nothing shows in a mask that is not there
		}
		var kept []*doc.Move
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
		}
		if m := apartAt(film, i, l); m != nil {
			kept = append(kept, m)
		}
		l.Place.X += pose.Offset.X
		l.Place.Y += pose.Offset.Y
		l.Place.Turn += pose.Angle
		turnAbout(l, film, i, spin)
		detach(kept)
		l.Moves = kept
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

// turnAbout adds a turn about the layer's pivot to its place.
func turnAbout(l *doc.Layer, film *frame.Film, scene int, deg float64) {
	if deg == 0 {
		return
	}
	_, pivot := film.Box(scene, l.ID)
	before := geom.Rotate(l.Place.Turn).ApplyVector(pivot)
	l.Place.Turn += deg
	after := geom.Rotate(l.Place.Turn).ApplyVector(pivot)
	l.Place.X += before.X - after.X
	l.Place.Y += before.Y - after.Y
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
