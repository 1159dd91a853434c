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

// CutScene makes two scenes of one at a time of its clock, with a cut between them; see series.Cut.
type CutScene struct {
	Scene string `json:"scene"`
	At    int64  `json:"at"` // ms on its clock, within its stay
	ID    string `json:"id"` // of the later scene
	Seed  string `json:"seed"`
	Name  string `json:"name"`
}

// Op is its name on the wire.
func (c *CutScene) Op() string { return "scene.cut" }

func (c *CutScene) apply(e *editor) error {
	i, err := e.inFilm(c.Scene)
	if err != nil {
		return err
	}
	return e.cut(i, c.At, c.ID, c.Seed, c.Name, &series.Means{Assets: e.assets, Grow: grown})
}

// grown makes a layer so many times as large.
func grown(l *doc.Layer, times float64) error { return scale(l, times, times, Growth()) }

// inFilm finds a scene that is not set aside.
func (e *editor) inFilm(id string) (int, error) {
	i, s := e.p.Scene(id)
	switch {
	case s == nil:
		return 0, words.New("scene.gone")
	case s.Aside:
		return 0, words.New("scene.aside")
	}
	return i, nil
}

func (e *editor) cut(i int, at int64, id, seed, name string, by *series.Means) error {
	s, err := e.scene(e.p.Film.Scenes[i].ID)
	if err != nil {
		return err
	}
	was, err := motion.Resolve(s, e.into(s))
	if err != nil {
		return err
	}
	later, loops, err := series.Cut(e.p, i, at, e.into(s), seed, by)
	if err != nil {
		return err
	}
	later.ID, later.Name = id, name
	e.insert(later, i+1)
	cutSounds(s, later, was, at)
	cutCaptions(s, later, at)
	return e.relink(i+2, loops)
}

// relink lets loops of a scene that go on loops of the one before go on others.
func (e *editor) relink(i int, to map[string]string) error {
	shown := e.p.Film.Shown()
	if i >= len(shown) {
		return nil
	}
	goes := func(m *doc.Move) bool { return m.Continues != "" && to[m.Continues] != "" }
	some := false
	doc.Walk(shown[i].Layers, func(l, _ *doc.Layer) bool {
		some = some || slices.ContainsFunc(l.Moves, goes)
		return !some
	})
	if !some {
		return nil
	}
	s, err := e.scene(shown[i].ID)
	if err != nil {
		return err
	}
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			if goes(m) {
				m.Continues = to[m.Continues]
			}
		}
		return true
	})
	return nil
}

// SplitMorph puts a scene into a morph that is what the morph shows at a time. Both halves go on as one, so that the film shows what it did; the
// scene does not stay yet (docs/motion.md, section 6).
type SplitMorph struct {
	Scene string `json:"scene"` // into which the morph is
	At    int64  `json:"at"`    // ms since its begin
	ID    string `json:"id"`
	Seed  string `json:"seed"`
	Name  string `json:"name"`
}

// Op is its name on the wire.
func (c *SplitMorph) Op() string { return "morph.split" }

func (c *SplitMorph) apply(e *editor) error {
	i, err := e.inFilm(c.Scene)
	if err != nil {
		return err
	}
	s := e.p.Film.Scenes[i]
	switch {
	case i == 0 || s.Transition.Kind != doc.Morph:
		return words.New("cut.pages")
	case c.At <= 0 || c.At >= s.Transition.Duration:
		return words.New("cut.edge")
	}
	film, err := frame.Compile(e.p, e.assets, nil)
	if err != nil {
		return err
	}
	// A run with one easing may show another morph of it now.
	i, share := film.Passes(motion.Millis(film.Order.Starts[i] + c.At))
	if i == 0 {
		return words.New("cut.pages")
	}
	s = e.p.Film.Scenes[i]
	all := s.Transition.Duration
	if all < 2 {
		return words.New("cut.edge")
	}
	first := min(max(int64(share*float64(all)+0.5), 1), all-1)
	before := e.p.Film.Scenes[i-1]
	if err := e.copyScene(&DuplicateScene{From: before.ID, ID: c.ID, Seed: c.Seed, Name: c.Name}, true); err != nil {
		return err
	}
	m, err := e.scene(c.ID)
	if err != nil {
		return err
	}
	if s, err = e.scene(s.ID); err != nil {
		return err
	}
	m.AutoStay, m.Stay = false, 0
	m.Transition = doc.Transition{Kind: doc.Morph, Duration: first, Easing: s.Transition.Easing, GoesOn: s.Transition.GoesOn, Curve: s.Transition.Curve}
	for thread, way := range s.Transition.Threads {
		if way.Letters { // whichever words it has, they go letter by letter on one side
			if m.Transition.Threads == nil {
				m.Transition.Threads = map[string]doc.Strand{}
			}
			m.Transition.Threads[thread] = doc.Strand{Letters: true}
		}
	}
	s.Transition.Duration, s.Transition.GoesOn, s.Transition.Curve = all-first, true, false
	series.Between(film, i, m, s, float64(first)/float64(all), c.Seed)
	loops := map[string]string{}
	doc.Walk(m.Layers, func(l, _ *doc.Layer) bool {
		for _, o := range l.Moves {
			if o.Continues != "" {
				loops[o.Continues] = o.ID
			}
		}
		return true
	})
	return e.relink(i+1, loops)
}

// UnfoldScene makes of a scene in which things happen one after another a scene for each step (docs/motion.md, section 6). Fades and changes that
// begin and end together become the transition into the scene where they are done; other steps begin their scene after a cut.
type UnfoldScene struct {
	Scene string   `json:"scene"`
	Seed  string   `json:"seed"`
	Names []string `json:"names"` // of the scenes that come of it; what is missing is made of the scene's own
}

// Op is its name on the wire.
func (c *UnfoldScene) Op() string { return "scene.unfold" }

// MaxSteps is into how many scenes one is unfolded at most.
const MaxSteps = 200

func (c *UnfoldScene) apply(e *editor) error {
	i, err := e.inFilm(c.Scene)
	if err != nil {
		return err
	}
	s := e.p.Film.Scenes[i]
	steps, err := series.Steps(s, e.into(s))
	if err != nil {
		return err
	}
	if len(steps) == 0 {
		return words.New("unfold.nothing", s.Name)
	}
	if len(steps) >= MaxSteps {
		return words.New("unfold.many", len(steps)+1, MaxSteps)
	}
	by := &series.Means{Assets: e.assets, Grow: grown}
	before := int64(0)
	for k, at := range steps {
		if err := e.another(); err != nil {
			return err
		}
		name := fmt.Sprintf("%s %d", s.Name, k+2)
		if k < len(c.Names) {
			name = c.Names[k]
		}
		seed := fmt.Sprintf("%s/%d", c.Seed, k)
		if err := e.cut(i+k, at-before, derive(seed, "scene"), seed, name, by); err != nil {
			return err
		}
		before = at
	}
	for k := range steps {
		if err := e.another(); err != nil {
			return err
		}
		if err := e.intoTransition(i + k + 1); err != nil {
			return err
		}
	}
	return nil
}

// Steps returns when the steps of a scene begin; see series.Steps.
func Steps(s *doc.Scene, into int64) ([]int64, error) { return series.Steps(s, into) }

// intoTransition makes the first step of scene i the transition into it, where a morph tells the same.
func (e *editor) intoTransition(i int) error {
	s, err := e.scene(e.p.Film.Scenes[i].ID)
	if err != nil {
		return err
	}
	phases := map[string]int64{} // of what goes on loops of layers that leave in that step
	if i+1 < len(e.p.Film.Shown()) {
		if phases, err = series.Phases(e.p, i+1, e.assets); err != nil {
			return err
		}
	}
	if err := series.IntoTransition(s); err != nil || len(phases) == 0 {
		return err
	}
	next, err := e.scene(e.p.Film.Scenes[i+1].ID)
	if err != nil {
		return err
	}
	return series.Unlink(next, s, phases, e.into(next))
}

// FoldScenes makes one scene of scenes that follow one another; see series.Fold.
type FoldScenes struct {
	IDs  []string `json:"ids"`
	Seed string   `json:"seed"`
}

// Op is its name on the wire.
func (c *FoldScenes) Op() string { return "scene.fold" }

func (c *FoldScenes) apply(e *editor) error {
	var at []int
	for _, id := range c.IDs {
		i, err := e.inFilm(id)
		if err != nil {
			return err
		}
		at = append(at, i)
	}
	slices.Sort(at)
	at = slices.Compact(at)
	if len(at) < 2 {
		return words.New("fold.two")
	}
	if at[len(at)-1]-at[0] != len(at)-1 {
		return words.New("fold.apart")
	}
	first, n := at[0], len(at)
	f, err := series.Fold(e.p, first, n, c.Seed, e.assets)
	if err != nil {
		return err
	}
	if err := e.foldSounds(f.Scene, e.p.Film.Scenes[first:first+n], f.Origins); err != nil {
		return err
	}
	foldCaptions(f.Scene, e.p.Film.Scenes[first:first+n], f.Origins)
	for k := 1; k < n; k++ {
		delete(e.cloned, e.p.Film.Scenes[first+k].ID)
	}
	e.cloned[f.Scene.ID] = f.Scene
	delete(e.thin, f.Scene.ID)
	e.p.Film.Scenes = slices.Replace(e.p.Film.Scenes, first, first+n, f.Scene)
	return e.relink(first+1, f.Loops)
}
