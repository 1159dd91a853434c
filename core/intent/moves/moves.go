package moves

import (
	"cmp"
	"math"
	"math/rand/v2"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/effect"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/motion"
	"capstan/core/scope"
	"capstan/core/words"
)

var movesAsked = intent.Table{
	"move.add": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Kind    string   `json:"kind"`
		Effect  string   `json:"effect"`
		Variant string   `json:"variant"` // of the effect; empty: the plain one
		After   bool     `json:"after"`   // of several layers: each begins when the one before ends
		At      *int64   `json:"at"`      // ms of the film at which it starts, to a hundredth of a second, within the stay of the moment's scene; without it at the playhead, or as its kind does
	}) (edit.Command, error) {
		var list []edit.Command
		before := ""
		for _, l := range fitFor(s, m, c.Kind, c.Effect, s.Layers(m, c.Threads)) {
			mv, err := New(s, m, l, c.Kind, c.Effect, c.Variant)
			if err != nil {
				return nil, err
			}
			if c.At != nil {
				i := s.SceneIndex(m)
				last := max(0, s.Shown.Timing(i).Stay-doc.MinDuration)
				mv.Start = doc.Start{When: doc.AtTime, Offset: min(last, max(0, *c.At-s.Shown.Order.Begin(i))) / 10 * 10}
			}
			if before != "" && c.After && mv.Lasts == "" {
				mv.Start = doc.Start{When: doc.WhenEnds, Of: before}
			}
			before = mv.ID
			list = append(list, &edit.AddMove{Layer: l.ID, Move: mv})
		}
		if len(list) == 0 {
			return nil, nil
		}
		s.Use(UsedKey(list[0].(*edit.AddMove).Move, c.Variant), c.Kind, c.Effect)
		return edit.All(list...), nil
	}),
	"path.draw": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string   `json:"threads"`
		From    [2]float64 `json:"from"` // page px
		To      [2]float64 `json:"to"`
	}) (edit.Command, error) {
		return drawPath(s, m, c.Threads, geom.Point{X: c.From[0], Y: c.From[1]}, geom.Point{X: c.To[0], Y: c.To[1]})
	}),
	"path.reach": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Move string  `json:"move"`
		X    float64 `json:"x"` // from its begin to its end, px
		Y    float64 `json:"y"`
	}) (edit.Command, error) {
		return reach(s, c.Move, geom.Point{X: c.X, Y: c.Y})
	}),
	"move.set": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Move  string      `json:"move"`
		Patch edit.Fields `json:"patch"`
	}) (edit.Command, error) {
		remember(s, c.Move, c.Patch)
		return notTooEarly(s, c.Move, edit.SetMove(c.Move, completed(s, c.Move, c.Patch)))
	}),
	"move.unit": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Move string `json:"move"`
		Unit string `json:"unit"`
	}) (edit.Command, error) {
		m, _, _ := s.Move(c.Move)
		if m == nil {
			return nil, words.New("move.gone")
		}
		patch := edit.Fields{"unit": c.Unit}
		if c.Unit == "" {
			patch = edit.Fields{"unit": nil, "order": nil, "overlap": nil, "seed": nil}
		}
		switch {
		case m.Comes() != nil && m.Comes().Sudden && c.Unit == "":
			patch["duration"] = nil
		case m.Timeless():
			patch["duration"] = 1000 // typing on
		case m.Unit == "" && c.Unit != "":
			patch["overlap"] = 0.6
			if m.Kind != doc.Loop && m.Lasts == "" && m.End == nil {
				patch["duration"] = max(m.Duration, 1000)
			}
		}
		return edit.SetMove(c.Move, endingWithScene(s, c.Move, patch)), nil
	}),
	"move.delete": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Move string `json:"move"`
	}) (edit.Command, error) {
		return &edit.DeleteMoves{IDs: []string{c.Move}}, nil
	}),
}

// notTooEarly refuses a change by which a move would begin before the transition into its scene does. Other edits may bring that
// about: then it begins as early as it can, with a mark.
func notTooEarly(s *intent.Desk, id string, c edit.Command) (edit.Command, error) {
	return noneTooEarly(s, []string{id}, c)
}

// noneTooEarly is notTooEarly for several moves.
func noneTooEarly(s *intent.Desk, moves []string, c edit.Command) (edit.Command, error) {
	p, err := edit.Preview(s.Doc, c, s.Assets())
	if err != nil {
		return c, nil // carrying it out says why
	}
	after := map[int]*motion.Timing{}
	for _, id := range moves {
		_, _, i := s.Move(id)
		if i < 0 || s.Film.Timing(i).Moves[id].Early {
			continue
		}
		into := s.Film.Order.Into[i]
		if after[i] == nil {
			if after[i], err = motion.Resolve(p.Film.Scenes[i], into); err != nil {
				return c, nil
			}
		}
		switch {
		case !after[i].Moves[id].Early:
		case into == 0:
			return nil, words.New("move.early")
		default:
			return nil, words.New("move.earlier", words.Seconds(into))
		}
	}
	return c, nil
}

// endingWithScene completes a change of duration: a move that is hung before the scene's end so that it ends with it goes on doing so.
func endingWithScene(s *intent.Desk, id string, patch edit.Fields) edit.Fields {
	m, _, i := s.Move(id)
	var ms int64
	if m == nil || patch.Has("start") || !patch.Get("duration", &ms) || m.Start.When != doc.BeforeSceneEnd {
		return patch
	}
	t := s.Film.Timing(i)
	if iv := t.Moves[id]; iv.End == t.Stay && iv.Passes > 0 {
		patch = patch.Clone()
		patch["start"] = edit.Fields{"offset": math.Round(float64(ms) * iv.Passes)}
	}
	return patch
}

// remember keeps the last used duration and easing of an effect.
func remember(s *intent.Desk, move string, patch edit.Fields) {
	m, _, _ := s.Move(move)
	if m == nil || s.Trying {
		return
	}
	key := UsedKey(m, "")
	u := s.Last[key]
	var ms int64
	if patch.Get("duration", &ms) && ms >= doc.MinDuration {
		u.Duration = ms
	}
	patch.Get("easing", &u.Easing)
	if e := m.Does(); e != nil {
		// What is wrong will be refused, and what names another move is this one's alone.
		set := effect.Params{}
		if edit.Fields(edit.FieldsOf(patch["params"])).Change(&set) == nil {
			u.Params = u.Params.Clone()
			for name, v := range set {
				if q := e.Param(name); q != nil && q.Control != effect.Move && q.Control != effect.Layer && q.Control != effect.List && q.Check(v) == "" {
					if u.Params == nil {
						u.Params = effect.Params{}
					}
					u.Params[name] = v
				}
			}
		}
	}
	s.Last[key] = u
}

// New makes a move with its defaults (docs/motion.md, Defaults), or as one like it was last set.
func New(s *intent.Desk, m scope.Moment, l *doc.Layer, kind, name, variant string) (*doc.Move, error) {
	v := &doc.Move{ID: s.NewID(), Kind: kind, Effect: name, Start: doc.Start{When: doc.AtTime, Offset: s.StartAt(m)}}
	if l.Kind == doc.ViewKind && kind != doc.Change && kind != doc.MotionPath && !sways(kind, name) {
		return nil, words.New("view.unmoved", l.Name)
	}
	if kind == doc.Change {
		return newChange(s, v, l, variant, s.Film.Timing(s.SceneIndex(m)).Stay)
	}
	if kind == doc.MotionPath {
		v.Path = &doc.PathParams{Rest: doc.Departs}
		setWay(v, way(variant, math.Round(float64(s.Doc.Film.Width)*0.25)), s.Doc.Film.Width)
		v.Easing = s.Last[UsedKey(v, "")].Easing
		return v, nil
	}
	e := effect.As(kind, name)
	if e == nil {
		return nil, words.New("move.unknown", kind, name)
	}
	if g := e.Goes; kind == doc.Loop && g.Parted && l.Kind != doc.Group {
		return nil, words.New("move.partless", e.Words, l.Name)
	}
	o := e.Offer(kind, variant)
	if o.Unit != "" && l.Kind != doc.TextKind {
		return nil, words.New("move.wordless", o.Name, l.Name)
	}
	v.Unit = o.Unit
	box, _ := s.Film.Box(s.SceneIndex(m), l.ID)
	page := s.Doc.Film
	at := effect.Setting{PageW: float64(page.Width), PageH: float64(page.Height), Box: box}
	if e.Comes != nil && e.Comes.Lasts != nil {
		at.Lines = s.Film.Lines(s.SceneIndex(m), l.ID)
	}
	v.Params = e.Fresh(o, at)
	v.Repeat, v.Easing = o.Repeat, o.Easing
	switch g := v.Goes(); {
	case g == nil && v.Timeless():
	case g == nil:
		if e.Comes.Seeded {
			v.Seed = 1 + rand.Int64N(1e6)
		}
		if e.Comes.Lasts != nil {
			v.Duration = e.Comes.Lasts(at) / 10 * 10
		}
		v.Duration = cmp.Or(v.Duration, o.Duration, e.Lasts, map[string]int64{doc.Entrance: 600, doc.Exit: 400}[kind])
	default:
		v.Lasts, v.Start.Offset = doc.WholeScene, 0
		if g.Cycle == nil && !v.Runs() {
			v.Duration = cmp.Or(o.Duration, 2000)
		}
		if g.Seeded {
			v.Seed = 1 + rand.Int64N(1e6)
		}
	}
	u := s.Last[UsedKey(v, variant)]
	if u.Duration > 0 && v.Duration > 0 {
		v.Duration = u.Duration
	}
	v.Easing = cmp.Or(u.Easing, v.Easing)
	for name, of := range u.Params {
		if v.Params == nil {
			v.Params = effect.Params{}
		}
		v.Params[name] = of
	}
	if kind == doc.Exit {
		v.Start = doc.Start{When: doc.BeforeSceneEnd, Offset: v.Duration}
		if at := s.StartAt(m); at > 0 {
			v.Start = doc.Start{When: doc.AtTime, Offset: at}
		}
	}
	return v, nil
}

// First is the effect that is offered first of a kind.
func First(kind string) string {
	for _, e := range effect.All() {
		if effect.As(kind, e.Name) != nil {
			return e.Name
		}
	}
	return ""
}

// Sudden is an entrance or exit that takes no time.
func Sudden(s *intent.Desk, kind string, at int64) *doc.Move {
	v := &doc.Move{ID: s.NewID(), Kind: kind, Start: doc.Start{When: doc.AtTime, Offset: at}}
	for _, e := range effect.All() {
		if v.Effect = e.Name; v.Timeless() {
			break
		}
	}
	return v
}

// Band is a loop that repeats its layer to the left, with so many px between copies.
func Band(s *intent.Desk, apart float64) *doc.Move {
	v := &doc.Move{ID: s.NewID(), Kind: doc.Loop, Start: doc.Start{When: doc.AtTime}, Lasts: doc.WholeScene}
	for _, e := range effect.All() {
		if e.Goes != nil && e.Goes.Band != nil {
			v.Effect, v.Params = e.Name, e.Goes.Band(apart)
		}
	}
	return v
}

// Drawing is the effect by which layers are drawn.
func Drawing() (name string) {
	for _, e := range effect.All() {
		if e.Comes != nil && e.Comes.Pen != nil {
			name = e.Name
		}
	}
	return
}

// Sides is the effect by which one side of something goes, and the next comes, with its parameters: about a level axis, or an upright one.
func Sides(level bool) (name string, params effect.Params) {
	for _, e := range effect.All() {
		if e.Comes != nil && e.Comes.Over != nil {
			name, params = e.Name, e.Comes.Over(level)
		}
	}
	return
}

// UsedKey names moves of one kind and effect, offered in one way, for what they were last given.
func UsedKey(m *doc.Move, variant string) string { return m.Kind + "/" + m.Effect + "/" + variant }

// setLine makes a straight path of a move and gives it the time it takes at 500 px/s at 1920 wide, within 1..6 s.
func setLine(v *doc.Move, a, b geom.Point, pageWidth int) {
	p := &geom.Path{}
	p.Move(a)
	p.Line(b)
	setWay(v, p, pageWidth)
}

// way is the line of a new path of a variant, so wide: straight, an arc, a wave, or an ellipse that comes back to where it began.
func way(variant string, w float64) *geom.Path {
	p := presets[variant]
	p.Height, p.Width = math.Round(p.Height*w), math.Round(p.Width*w)
	return p.Path(geom.Point{}, geom.Point{X: w})
}

// presets are the lines that are offered, their heights and widths as shares of how far they go.
var presets = map[string]motion.Preset{
	"":             {Shape: motion.Straight},
	motion.Arc:     {Shape: motion.Arc, Height: 0.35},
	motion.Wave:    {Shape: motion.Wave, Height: 0.12, Count: 2},
	motion.Ellipse: {Shape: motion.Ellipse, Width: 1, Height: 0.6},
}

func setWay(v *doc.Move, p *geom.Path, pageWidth int) {
	v.Effect, v.Path.D = doc.Along, p.Data()
	s := geom.NewMeasure(p).Length() / (500 * float64(pageWidth) / 1920)
	v.Duration = int64(math.Round(min(6, max(1, s))*10) * 100)
}

// drawPath gives layers a path drawn on the page: begun on the layer it departs from there; begun elsewhere, in the wings say, it
// arrives from there. Where a drag from elsewhere ends off the layer it moves along the drawn line all the same.
func drawPath(s *intent.Desk, m scope.Moment, chosen []string, from, to geom.Point) (edit.Command, error) {
	s.Stand(m)
	i := s.SceneIndex(m)
	var list []edit.Command
	for _, l := range s.Layers(m, chosen) {
		outer := s.Shown.Ancestry(i, l.ID)
		inv, ok := outer.Inverse()
		if !ok {
			continue
		}
		box, _ := s.Shown.Box(i, l.ID)
		rest := s.Shown.RestMatrix(i, l.ID)
		a, b := inv.Apply(from), inv.Apply(to)
		v := &doc.Move{
			ID: s.NewID(), Kind: doc.MotionPath, Start: doc.Start{When: doc.AtTime, Offset: s.StartAt(m)}, Path: &doc.PathParams{Rest: doc.Departs},
		}
		onLayer := false
		if back, ok := rest.Inverse(); ok {
			onLayer = box.Contains(back.Apply(a))
		}
		if onLayer {
			setLine(v, geom.Point{}, b.Sub(a), s.Doc.Film.Width)
		} else {
			v.Path.Rest = doc.Arrives
			setLine(v, a.Sub(rest.Apply(box.Centre())), geom.Point{}, s.Doc.Film.Width)
		}
		v.Easing = s.Last[UsedKey(v, "")].Easing
		list = append(list, &edit.AddMove{Layer: l.ID, Move: v})
	}
	if len(list) == 0 {
		return nil, nil
	}
	return edit.All(list...), nil
}

// pathOf returns a motion path with its line, which has a begin and an end.
func pathOf(s *intent.Desk, id string) (*doc.Move, *geom.Path, error) {
	m, _, _ := s.Move(id)
	if m == nil || m.Path == nil {
		return nil, nil, words.New("path.gone")
	}
	p, err := geom.ParseData(m.Path.D)
	if err != nil || len(p.Points) < 2 {
		return nil, nil, words.New("path.unreadable", "it is damaged")
	}
	return m, p, nil
}

// reach puts the end of a path that is not the rest pose where the typed distance says. The path is scaled and turned with
// it, so a bend stays a bend.
func reach(s *intent.Desk, id string, to geom.Point) (edit.Command, error) {
	m, p, err := pathOf(s, id)
	if err != nil {
		return nil, err
	}
	a, b := p.Points[0], p.Points[len(p.Points)-1]
	was := b.Sub(a)
	switch m.Path.Axis {
	case doc.Level:
		to.Y = 0
	case doc.Upright:
		to.X = 0
	}
	out := &geom.Path{}
	if was.Len() < 1e-9 {
		out.Move(geom.Point{})
		out.Line(to)
	} else {
		k := to.Len() / was.Len()
		turn := (math.Atan2(to.Y, to.X) - math.Atan2(was.Y, was.X)) * 180 / math.Pi
		rest := a
		if m.Path.Rest == doc.Arrives {
			rest = b
		}
		out.Append(p, geom.Rotate(turn).Mul(geom.Scale(k, k)).About(rest))
	}
	return &edit.SetMoves{Set: []edit.Part{{ID: id, Patch: edit.Fields{"path": edit.Fields{"d": out.Data()}}}}}, nil
}
