package session_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/gesture"
	"capstan/core/intent/looks"
	"capstan/core/session"
)

func shapeOf(id, kind string, x, y, w, h float64) *doc.Layer {
	return &doc.Layer{ID: id, Thread: id, Name: id, Kind: kind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: x, Y: y, W: w, H: h}}
}

func with(layers ...*doc.Layer) *doc.Project {
	p := doc.NewProject("p", "p", 320, 240, "s")
	p.Film.Scenes[0].Layers = layers
	return p
}

// places are where the layers of a group stand on the page, with their turns.
func places(s *session.Session, group string) (list [][3]float64) {
	g := s.Document().Film.Scenes[0].Layers[0]
	for _, l := range g.Children {
		p := geom.Translate(geom.Point{X: g.Place.X, Y: g.Place.Y}).Apply(geom.Point{X: l.Place.X, Y: l.Place.Y})
		list = append(list, [3]float64{math.Round(p.X*100) / 100, math.Round(p.Y*100) / 100, l.Place.Turn})
	}
	return
}

func TestCopiesLieInRowsGridsAndRings(t *testing.T) {
	for args, want := range map[string]string{
		`"along":"row","n":3,"gapX":10,"gapY":5`:                      "[[50 60 0] [100 65 0] [150 70 0]]",
		`"along":"grid","n":2,"rows":2,"gapX":0,"gapY":10`:            "[[50 60 0] [90 60 0] [50 90 0] [90 90 0]]",
		`"along":"ring","n":4,"radius":50`:                            "[[50 60 0] [100 110 90] [50 160 180] [0 110 270]]",
		`"along":"ring","n":3,"radius":50,"sweep":180,"upright":true`: "[[50 60 0] [100 110 0] [50 160 0]]",
		`"along":"ring","n":3,"radius":50,"sweep":-180`:               "[[50 60 0] [0 110 -90] [50 160 -180]]",
	} {
		s := open(t, with(shapeOf("a", doc.Rectangle, 50, 60, 40, 20)))
		want1(t, s, "copies", `{"threads":["a"],`+args+`}`)
		if got := fmt.Sprint(places(s, "")); got != want {
			t.Errorf("%s: %s, want %s", args, got, want)
		}
		seen := map[string]bool{}
		for _, l := range s.Document().Film.Scenes[0].Layers[0].Children {
			if seen[l.ID] || seen[l.Thread] && l.ID != l.Thread {
				t.Errorf("%s: an id or thread is there twice", args)
			}
			seen[l.ID], seen[l.Thread] = true, true
		}
	}
	s := open(t, with(shapeOf("a", doc.Rectangle, 50, 60, 40, 20)))
	for _, bad := range []string{`"along":"row","n":1`, `"along":"grid","n":100,"rows":100`, `"along":"row","n":-3`} {
		if c, err := s.Intent("copies", rest, []byte(`{"threads":["a"],`+bad+`}`)); err == nil || !strings.Contains(err.Error(), "Nothing was changed") {
			t.Errorf("%s: %s, %v", bad, c, err)
		}
	}
}

func want1(t *testing.T, s *session.Session, intent, args string) {
	t.Helper()
	want(t, s, rest, intent, args)
}

// The ground covers the page wherever its path takes it, lies at the back, and is locked; one that would bare an edge is told.
func TestTheGroundCoversThePageOnItsWholeWay(t *testing.T) {
	l := shapeOf("a", doc.Rectangle, 10, 10, 20, 20)
	l.Moves = []*doc.Move{{ID: "m", Kind: doc.MotionPath, Effect: doc.Along, Start: doc.Start{When: doc.AtTime}, Duration: 1000, Path: &doc.PathParams{D: "M0 0L-60 0L-60 25"}}}
	s := open(t, with(shapeOf("b", doc.Ellipse, 1, 1, 1, 1), l))
	want1(t, s, "ground.make", `{"threads":["a"]}`)
	back := s.Document().Film.Scenes[0].Layers[0]
	if back.ID != "a" || !back.Locked {
		t.Fatalf("at the back lies %s, locked: %v", back.ID, back.Locked)
	}
	for _, at := range []geom.Point{{}, {X: -60}, {X: -60, Y: 25}} {
		b := geom.BoxAt(geom.Point{X: back.Place.X, Y: back.Place.Y}.Add(at), back.Place.W, back.Place.H)
		if b.Min.X > 0 || b.Min.Y > 0 || b.Max.X < 320 || b.Max.Y < 240 {
			t.Errorf("at %v of its way it leaves %v", at, b)
		}
	}
	if back.Place.W > 381 || back.Place.H > 266 {
		t.Errorf("it is %v by %v, more than it needs", back.Place.W, back.Place.H)
	}
	if s.Selection(rest, []string{"a"})[0].Bares != "" {
		t.Error("a ground with room is said to bare an edge")
	}
	want1(t, s, "place", `{"threads":["a"],"w":320}`)
	want1(t, s, "place", `{"threads":["a"],"x":160}`)
	if got := s.Selection(rest, []string{"a"})[0].Bares; !strings.HasPrefix(got, "60 px of the page show at ") {
		t.Errorf("of one without room it is said: %q", got)
	}
	// Dragged with its path, it is said at the pointer, until it has room; a view over it that is dragged over its edge, likewise.
	want1(t, s, "view.add", `{}`)
	view := s.Document().Film.Scenes[0].View()
	want1(t, s, "view.zoom", fmt.Sprintf(`{"threads":[%q],"zoom":2}`, view.Thread))
	for thread, by := range map[string]geom.Point{"a": {X: -40}, view.Thread: {X: 97}} {
		if err := s.Begin("move", rest, []string{thread}, "", "", geom.Point{X: 160, Y: 120}); err != nil {
			t.Fatal(err)
		}
		r, err := s.Update(geom.Point{X: 160, Y: 120}.Add(by), gesture.Modifiers{})
		if err != nil || !strings.Contains(r.Words, "px of the page show at ") {
			t.Errorf("%s is dragged: %q, %v", thread, r.Words, err)
		}
		s.DropDrag()
		s.ClearDraft()
	}
	// With room it covers the page whatever takes it away: a change that makes it smaller and turns it, a loop, the view.
	want1(t, s, "lock.all", `{"on":false}`)
	want1(t, s, "move.add", `{"threads":["a"],"kind":"loop","effect":"rock"}`)
	want1(t, s, "move.add", `{"threads":["a"],"kind":"change","effect":"becomes","variant":"shrink"}`)
	want1(t, s, "ground.cover", `{"threads":["a"]}`)
	if got := s.Selection(rest, []string{"a"})[0].Bares; got != "" || s.Document().Film.Scenes[0].Layers[0].Place.W > 1400 {
		t.Errorf("with room, %v wide, it is said: %q", s.Document().Film.Scenes[0].Layers[0].Place.W, got)
	}
	if _, err := open(t, with(&doc.Layer{ID: "t", Thread: "t", Name: "t", Kind: doc.TextKind, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Text: &doc.Text{Align: doc.Left, Runs: []doc.Run{{Text: "x", Family: "Archivo", Weight: 400, Size: 9}}}})).Intent("ground.make", rest, []byte(`{"threads":["t"]}`)); err == nil {
		t.Error("words became the ground")
	}
	// A picture keeps its proportions.
	p := with(shapeOf("a", doc.Picture, 10, 10, 100, 50))
	p.Media = map[string]*doc.Media{strings.Repeat("a", 64): {Name: "x.png", Type: "image/png", Width: 100, Height: 50}}
	p.Film.Scenes[0].Layers[0].Picture, p.Film.Scenes[0].Layers[0].Fill = &doc.PictureUse{Media: strings.Repeat("a", 64)}, doc.Fill{Kind: doc.NoFill}
	s = open(t, p)
	want1(t, s, "ground.cover", `{"threads":["a"]}`)
	if q := s.Document().Film.Scenes[0].Layers[0]; q.Place.W != 480 || q.Place.H != 240 || q.Locked {
		t.Errorf("the picture is %v by %v, locked %v", q.Place.W, q.Place.H, q.Locked)
	}
}

// A look goes over with all that belongs to it, and takes away what the other had and it has not.
func TestLooksAreCopiedWholeAndPutAside(t *testing.T) {
	a, b := shapeOf("a", doc.Star, 50, 50, 40, 40), shapeOf("b", doc.Rectangle, 90, 90, 30, 30)
	a.Opacity, a.Glow, a.Corner = 0.5, &doc.Glow{Blur: 4, Colour: "#f3dca6"}, 3
	a.Stroke = &doc.Stroke{Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"}, Width: 2, Dash: []float64{4, 2}}
	b.Shadow, b.Blur, b.Blend = &doc.Shadow{Colour: "#000000", X: 3}, 5, "multiply"
	b.Fill = doc.Fill{Kind: doc.Linear, Gradient: &doc.Gradient{To: [2]float64{1, 1}, Stops: []doc.Stop{{At: 0, Colour: "#ffffff"}, {At: 1, Colour: "#000000"}}}}
	s := open(t, with(a, b))
	want1(t, s, "look.save", `{"thread":"a","name":"Sail"}`)
	want1(t, s, "look.paste", fmt.Sprintf(`{"threads":["b"],"saved":%q}`, s.FilmView().Looks[0].ID))
	got := looks.LookOf(s.Desk, rest, "b")
	if want := looks.LookOf(s.Desk, rest, "a"); fmt.Sprintf("%+v %+v %+v", got.Fill, got.Stroke.Dash, got.Glow) != fmt.Sprintf("%+v %+v %+v", want.Fill, want.Stroke.Dash, want.Glow) ||
		got.Shadow != nil || got.Blur != 0 || got.Blend != "" || got.Opacity != 0.5 || got.Corner != 3 {
		t.Errorf("b looks %+v, a %+v", got, want)
	}
	want1(t, s, "look.forget", fmt.Sprintf(`{"id":%q}`, s.FilmView().Looks[0].ID))
	if n := len(s.FilmView().Looks); n != 0 {
		t.Errorf("%d looks are left", n)
	}
}

// A picture is replaced wherever its missing file was used; the box keeps its middle, and its size where the proportions agree.
func TestAPictureIsReplacedInItsPlace(t *testing.T) {
	old, next := strings.Repeat("a", 64), strings.Repeat("b", 64)
	p := with(shapeOf("a", doc.Picture, 60, 70, 100, 50), shapeOf("b", doc.Picture, 20, 30, 40, 20))
	p.Media = map[string]*doc.Media{old: {Name: "x.png", Type: "image/png", Width: 200, Height: 100}}
	for _, l := range p.Film.Scenes[0].Layers {
		l.Picture, l.Fill = &doc.PictureUse{Media: old, Crop: &doc.Crop{0, 0, 0.5, 1}}, doc.Fill{Kind: doc.NoFill}
	}
	for size, want := range map[string]string{`"width":400,"height":200`: "100 50 true", `"width":100,"height":100`: "50 50 false"} {
		s := open(t, p)
		want1(t, s, "picture.replace", fmt.Sprintf(`{"from":%q,"hash":%q,"media":{"name":"y.png","type":"image/png","bytes":1,%s},"threads":["a"]}`, old, next, size))
		a, b := s.Document().Film.Scenes[0].Layers[0], s.Document().Film.Scenes[0].Layers[1]
		if got := fmt.Sprint(a.Place.W, " ", a.Place.H, " ", a.Picture.Crop != nil); got != want || a.Picture.Media != next || a.Place.X != 60 || b.Picture.Media != old {
			t.Errorf("%s: %s, want %s (%s, %s)", size, got, want, a.Picture.Media[:2], b.Picture.Media[:2])
		}
	}
}

// Returning to a stage is one step, and undoing it gives the project back byte for byte; only the name stays what it is.
func TestReturningToAStageIsAStep(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Star, 50, 50, 40, 40)))
	stage, _ := s.Document().Write()
	want1(t, s, "nudge", `{"threads":["a"],"dx":9,"dy":0}`)
	want1(t, s, "scene.duplicate", `{}`)
	if _, err := s.Apply(sent(`{"op":"project.rename","name":"other"}`)); err != nil {
		t.Fatal(err)
	}
	before, _ := s.Document().Write()
	c, err := s.Intent("stage.return", rest, []byte(`{"document":`+string(stage)+`}`))
	if err != nil {
		t.Fatal(err)
	}
	patch, err := s.Apply(c)
	if err != nil {
		t.Fatal(err)
	}
	if p := s.Document(); len(p.Film.Scenes) != 1 || p.Film.Scenes[0].Layers[0].Place.X != 50 || p.Name != "other" {
		t.Errorf("returned to %d scenes, %v, %q", len(p.Film.Scenes), p.Film.Scenes[0].Layers[0].Place.X, p.Name)
	}
	back, err := patch.Inverse().Apply(s.Document())
	if err != nil {
		t.Fatal(err)
	}
	if raw, _ := back.Write(); string(raw) != string(before) {
		t.Error("undone, the project is another one")
	}
}
