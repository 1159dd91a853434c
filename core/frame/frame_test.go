package frame_test

import (
	"bytes"
	"encoding/json"
	"image"
	"math"
	"slices"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/text"
	"capstan/demo"
	"capstan/library"
)

const sky = "bbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbb"

func opener(t testing.TB) (*doc.Project, frame.Assets) {
	t.Helper()
	b, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	return demo.Opener(sky, &doc.Media{Name: "sky.jpg", Type: "image/jpeg", Width: 1920, Height: 1080, Opaque: true}), frame.Assets{Fonts: b}
}

func compile(t testing.TB, p *doc.Project, a frame.Assets) *frame.Film {
	t.Helper()
	if err := p.Validate(); err != nil {
		t.Fatal(err)
	}
	f, err := frame.Compile(p, a, nil)
	if err != nil {
		t.Fatal(err)
	}
	return f
}

func list(l *frame.List) string {
	b, _ := json.Marshal(l)
	return string(b)
}

// two builds a film of two scenes with one matched layer each, and a morph of 700 ms between them.
func two(a, b doc.Layer) *doc.Project {
	p := doc.NewProject("p", "p", 400, 300, "s1")
	s := doc.NewScene("s2", "2")
	s.Transition = doc.Transition{Kind: doc.Morph, Duration: 700, Easing: "linear"}
	p.Film.Scenes = append(p.Film.Scenes, s)
	for i, l := range []*doc.Layer{&a, &b} {
		l.ID, l.Thread = []string{"a", "b"}[i], "t"
		if l.Kind == "" {
			l.Kind = doc.Rectangle
		}
		if l.Fill.Kind == "" {
			l.Fill = doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}
		}
		p.Film.Scenes[i].Stay = 1500
		p.Film.Scenes[i].Layers = []*doc.Layer{l}
	}
	return p
}

func quad(t *testing.T, f *frame.Film, at motion.Instant, id string) [4]geom.Point {
	t.Helper()
	p := f.Player()
	p.Stand(at)
	q, _, ok := p.Quad(id)
	if !ok {
		t.Fatalf("%s is not drawn at %v", id, at)
	}
	return q
}

// docs/motion.md, section 11: quarter turns with 0.7 s morphs stand at 45 degrees at 0.35 s, and from 270 on to 360 it
// never runs backwards: turns are numbers, not angles modulo 360.
func TestQuarterTurnsMorphTheWayTheySay(t *testing.T) {
	for _, c := range []struct{ from, to, half float64 }{{0, 90, 45}, {270, 360, 315}, {0, -90, -45}, {0, 720, 360}} {
		a, b := doc.Layer{Opacity: 1, Place: doc.Place{X: 200, Y: 150, W: 100, H: 40, Turn: c.from}}, doc.Layer{Opacity: 1, Place: doc.Place{X: 200, Y: 150, W: 100, H: 40, Turn: c.to}}
		f := compile(t, two(a, b), frame.Assets{Fonts: &text.Book{}})
		q := quad(t, f, motion.Millis(1850), "a")
		got := math.Atan2(q[1].Y-q[0].Y, q[1].X-q[0].X) * 180 / math.Pi
		if d := math.Mod(got-c.half+540+360*4, 360) - 180; math.Abs(d) > 1e-9 {
			t.Errorf("%v to %v degrees stands at %v half way", c.from, c.to, got)
		}
	}
}

// Section 11: 60 % opacity half way through a fade shows at 30 %.
func TestOpacitiesMultiply(t *testing.T) {
	l := doc.Layer{Opacity: 0.6, Place: doc.Place{X: 200, Y: 150, W: 100, H: 40}, Moves: []*doc.Move{{ID: "m", Kind: doc.Entrance, Effect: effect.Fade, Duration: 1000, Easing: "linear", Start: doc.Start{When: doc.AtTime}}}}
	f := compile(t, two(l, doc.Layer{Opacity: 1}), frame.Assets{Fonts: &text.Book{}})
	n := f.Player().At(motion.Millis(500), frame.View{Scale: 1}).Numbers
	if got := n[len(n)-1]; math.Abs(got-0.3) > 1e-12 {
		t.Errorf("shows at %v", got)
	}
}

func TestAMorphInterpolatesPlaceSizeTurnOpacityColour(t *testing.T) {
	a := doc.Layer{Opacity: 0.2, Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"}, Place: doc.Place{X: 100, Y: 100, W: 40, H: 20}}
	b := doc.Layer{Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#ffffff"}, Place: doc.Place{X: 300, Y: 200, W: 80, H: 60}}
	f := compile(t, two(a, b), frame.Assets{Fonts: &text.Book{}})
	l := f.Player().At(motion.Millis(1500+350), frame.View{Scale: 1})
	// background fill, then one fill: m, colour
	n := l.Numbers[10:]
	m := geom.Matrix{A: n[0], B: n[1], C: n[2], D: n[3], E: n[4], F: n[5]}
	box := m.ApplyBox(f.Geometry.Path(l.Codes[4]).Bounds())
	if c := box.Centre(); math.Abs(c.X-200)+math.Abs(c.Y-150)+math.Abs(box.W()-60)+math.Abs(box.H()-40) > 1e-9 {
		t.Errorf("half way it fills %v", box)
	}
	if math.Abs(n[9]-0.6) > 1e-12 {
		t.Errorf("opacity %v", n[9])
	}
	// OKLab half way from black to white is L 0.5: #636363 (CSS Color 4).
	if got := math.Round(n[6] * 255); got != 0x63 {
		t.Errorf("colour %v", n[6:9])
	}
}

// Section 6: with loops off, A at clock h equals B at clock 0 when B was continued from A; here: a scene and its exact copy.
func TestAMorphBetweenEqualScenesStandsStill(t *testing.T) {
	a := doc.Layer{Opacity: 0.7, Corner: 8, Place: doc.Place{X: 100, Y: 100, W: 40, H: 20, Turn: 33}}
	f := compile(t, two(a, a), frame.Assets{Fonts: &text.Book{}})
	p := f.Player()
	want := list(p.At(motion.Millis(1499), frame.View{Scale: 1}))
	for _, ms := range []int64{1500, 1700, 1999, 2199, 2200, 2900} {
		if got := list(p.At(motion.Millis(ms), frame.View{Scale: 1})); got != want {
			t.Errorf("at %d ms:\n%s\n%s", ms, got, want)
		}
	}
}

func TestMorphsAreContinuousAtBothEnds(t *testing.T) {
	p, a := opener(t)
	f := compile(t, p, a)
	pl := f.Player()
	o := f.Order
	for i := 1; i < len(o.Starts); i++ {
		for _, ms := range []int64{o.Starts[i], o.Begin(i)} {
			before := render(t, f, pl, motion.Instant{Num: ms*1000 - 1, Den: 1000})
			after := render(t, f, pl, motion.Millis(ms))
			worst := 0
			for k := range before.Pix {
				worst = max(worst, int(before.Pix[k])-int(after.Pix[k]), int(after.Pix[k])-int(before.Pix[k]))
			}
			if worst > 3 {
				t.Errorf("the picture jumps by %d at %d ms", worst, ms)
			}
		}
	}
}

func render(t *testing.T, f *frame.Film, p *frame.Player, at motion.Instant) *image.RGBA {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, 480, 270))
	flat := image.NewRGBA(image.Rect(0, 0, 16, 9))
	if err := raster.NewPainter(f, func(string, int) (*image.RGBA, error) { return flat, nil }).Paint(img, p.At(at, frame.View{Scale: 0.25})); err != nil {
		t.Fatal(err)
	}
	return img
}

func TestAtAllocatesNothingOnceWarm(t *testing.T) {
	p, a := opener(t)
	f := compile(t, p, a)
	pl := f.Player()
	for k := int64(0); k < f.Frames(); k++ {
		pl.At(motion.FrameTime(k, 30, 1), frame.View{Scale: 1})
	}
	for _, ms := range []int64{1000, 5000, 7000, 9100} {
		if n := testing.AllocsPerRun(20, func() { pl.At(motion.Millis(ms), frame.View{Scale: 1}) }); n > 0 {
			t.Errorf("at %d ms: %v allocations", ms, n)
		}
	}
}

func TestEveryPlayerSaysTheSame(t *testing.T) {
	p, a := opener(t)
	f, g := compile(t, p, a), compile(t, p, a)
	warm, cold := f.Player(), g.Player()
	for k := f.Frames() - 1; k >= 0; k -= 3 {
		at := motion.FrameTime(k, 30, 1)
		if x, y := list(warm.At(at, frame.View{Scale: 1})), list(cold.At(at, frame.View{Scale: 1})); x != y {
			t.Fatalf("frame %d depends on who plays it", k)
		}
	}
}

func TestCompilingAgainSharesWhatDidNotChange(t *testing.T) {
	p, a := opener(t)
	f := compile(t, p, a)
	q := *p
	q.Film.Scenes = slices.Clone(p.Film.Scenes)
	c := q.Film.Scenes[0].Clone()
	c.Layers[0].Opacity = 0.25
	q.Film.Scenes[0] = c
	g, err := frame.Compile(&q, a, f)
	if err != nil {
		t.Fatal(err)
	}
	if g.Geometry != f.Geometry {
		t.Error("outlines are made anew")
	}
	fresh := compile(t, &q, a)
	for _, ms := range []int64{0, 2000, 5000, 7000, 12000} {
		x, y := g.Player().At(motion.Millis(ms), frame.View{Scale: 1}), fresh.Player().At(motion.Millis(ms), frame.View{Scale: 1})
		if xn, yn := mustJSON(x.Numbers), mustJSON(y.Numbers); !bytes.Equal(xn, yn) {
			t.Errorf("at %d ms the shared film shows something else", ms)
		}
	}
}

func mustJSON(v any) []byte { b, _ := json.Marshal(v); return b }

func TestPointersFindTheFrontUnlockedLayerAndFallThroughHoles(t *testing.T) {
	p := doc.NewProject("p", "p", 400, 300, "s1")
	mk := func(id, kind string, x, y, w, h float64) *doc.Layer {
		return &doc.Layer{ID: id, Thread: id, Kind: kind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"}, Place: doc.Place{X: x, Y: y, W: w, H: h}}
	}
	back, locked, round := mk("back", doc.Rectangle, 200, 150, 300, 200), mk("locked", doc.Rectangle, 200, 150, 400, 300), mk("round", doc.Ellipse, 0, 0, 100, 100)
	locked.Locked = true
	clear := mk("clear", doc.Rectangle, 200, 150, 50, 50)
	clear.Fill = doc.Fill{Kind: doc.NoFill}
	ring := mk("ring", doc.PathKind, 100, 100, 0, 0)
	ring.Path = "M-40 -40L40 -40L40 40L-40 40ZM-20 -20L-20 20L20 20L20 -20Z"
	g := mk("g", doc.Group, 300, 150, 0, 0)
	g.Place.Turn = 90
	g.Children = []*doc.Layer{round}
	p.Film.Scenes[0].Layers = []*doc.Layer{back, g, clear, ring, locked}
	f := compile(t, p, frame.Assets{Fonts: &text.Book{}})
	pl := f.Player()
	pl.StandAtRest(0)
	for _, c := range []struct {
		x, y float64
		want []string
	}{{200, 150, []string{"back"}}, {300, 150, []string{"g", "round"}}, {345, 195, []string{"back"}}, {70, 100, []string{"ring"}}, {100, 100, []string{"back"}}, {10, 10, nil}} {
		if got := pl.Hit(geom.Point{X: c.x, Y: c.y}, 0); !slices.Equal(got, c.want) {
			t.Errorf("at %v, %v: %v, want %v", c.x, c.y, got, c.want)
		}
	}
}

func TestALayerThatIsAwayIsNotFound(t *testing.T) {
	l := doc.Layer{Opacity: 1, Place: doc.Place{X: 200, Y: 150, W: 100, H: 100}, Moves: []*doc.Move{{ID: "m", Kind: doc.Entrance, Effect: effect.AtOnce, Start: doc.Start{When: doc.AtTime, Offset: 1000}}}}
	f := compile(t, two(l, doc.Layer{Opacity: 1}), frame.Assets{Fonts: &text.Book{}})
	p := f.Player()
	p.Stand(motion.Millis(999))
	if got := p.Hit(geom.Point{X: 200, Y: 150}, 0); got != nil {
		t.Errorf("before it comes: %v", got)
	}
	p.Stand(motion.Millis(1000))
	if got := p.Hit(geom.Point{X: 200, Y: 150}, 0); !slices.Equal(got, []string{"a"}) {
		t.Errorf("once it has come: %v", got)
	}
	p.StandAtRest(0)
	if got := p.Hit(geom.Point{X: 200, Y: 150}, 0); !slices.Equal(got, []string{"a"}) {
		t.Errorf("at rest nothing is hidden by time: %v", got)
	}
}

func BenchmarkAt(b *testing.B) {
	p, a := opener(b)
	f := compile(b, p, a)
	pl := f.Player()
	b.ReportAllocs()
	frames := f.Frames()
	for i := int64(0); b.Loop(); i++ {
		pl.At(motion.FrameTime(i%frames, 30, 1), frame.View{Scale: 1})
	}
}
