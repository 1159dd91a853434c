package frame_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/library"
)

// drawOn is a draw-on of a second, without easing.
func drawOn(params effect.Params) *doc.Move {
	return &doc.Move{ID: "m", Kind: doc.Entrance, Effect: effect.DrawOn, Start: doc.Start{When: doc.AtTime}, Duration: 1000, Easing: "linear", Params: params}
}

func straight(id string, x, y, w float64) *doc.Layer {
	return &doc.Layer{ID: id, Thread: id, Name: id, Kind: doc.PathKind, Opacity: 1, Path: fmt.Sprintf("M0 0L%v 0", w), Fill: doc.Fill{Kind: doc.NoFill},
		Stroke: &doc.Stroke{Width: 4, Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"}}, Place: doc.Place{X: x, Y: y}}
}

// Three lines of 30, 60 and 10 px in a group, drawn in a second: by hand, how many px of each show at each time, by length, equally, from the front and
// from above. Nothing is filled, so all of the time goes to lines.
func TestGroupsAreDrawnPartAfterPart(t *testing.T) {
	for name, c := range map[string]struct {
		params effect.Params
		want   map[float64][3]int // px by ms
	}{
		"by length":      {nil, map[float64][3]int{0: {0, 0, 0}, 200: {20, 0, 0}, 300: {30, 0, 0}, 500: {30, 20, 0}, 950: {30, 60, 5}, 1000: {30, 60, 10}}},
		"equally":        {effect.Params{"equal": true}, map[float64][3]int{200: {18, 0, 0}, 500: {30, 30, 0}, 900: {30, 60, 7}}},
		"from the front": {effect.Params{"order": "front"}, map[float64][3]int{50: {0, 0, 5}, 400: {0, 30, 10}, 850: {15, 60, 10}}},
		"from above":     {effect.Params{"order": "top"}, map[float64][3]int{300: {0, 30, 0}, 650: {0, 60, 5}, 850: {15, 60, 10}}},
		"from the left":  {effect.Params{"order": "left"}, map[float64][3]int{50: {0, 0, 5}, 250: {15, 0, 10}, 700: {30, 30, 10}}},
	} {
		g := &doc.Layer{Kind: doc.Group, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 10, Y: 10},
			Children: []*doc.Layer{straight("b", 10, 80, 30), straight("c", 20, 20, 60), straight("d", 0, 50, 10)}}
		s := newStage(t, g, drawOn(c.params))
		for ms, want := range c.want {
			img := s.at(ms)
			for i, y := range []int{90, 30, 60} {
				dark := 0
				for x := range 160 {
					if img.RGBAAt(x, y).R < 128 {
						dark++
					}
				}
				if d := dark - want[i]; d < -1 || d > 1 {
					t.Errorf("%s, %v ms: line %d shows %d px, want %d", name, ms, i, dark, want[i])
				}
			}
		}
	}
}

// The time of what is filled: lines in the first three quarters, the filling in the last, at once where its share is 0; what lends itself a line has
// none at the end.
func TestDrawnThenFilled(t *testing.T) {
	box := func() *doc.Layer {
		return &doc.Layer{Kind: doc.Rectangle, Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"}, Place: doc.Place{X: 80, Y: 60, W: 80, H: 40}}
	}
	for _, c := range []struct {
		fill, ms float64
		want     uint8
	}{{0.25, 740, 255}, {0.25, 875, 128}, {0.25, 1000, 0}, {0, 999, 255}, {0, 1000, 0}, {0.9, 550, 128}} {
		img := newStage(t, box(), drawOn(effect.Params{"fill": c.fill})).at(c.ms)
		if got := img.RGBAAt(80, 60).R; math.Abs(float64(got)-float64(c.want)) > 3 {
			t.Errorf("filled for %v, %v ms in its middle is %d, want %d", c.fill, c.ms, got, c.want)
		}
	}
	if img := newStage(t, box(), drawOn(nil)).at(300); img.RGBAAt(80, 40).R > 10 || img.RGBAAt(40, 60).R < 250 {
		t.Error("its outline is not drawn from its upper left on, clockwise")
	}
}

// The tip of a pencil lies at the end of the line, within half a px, whatever is done to the layer; it is there while lines are drawn, and nowhere
// before, while it is filled, and after. A layer that draws comes to the tip by its pivot, and is seen nowhere else.
func TestWhatDrawsIsAtTheTip(t *testing.T) {
	l := straight("l", 30, 40, 100)
	l.Place.Turn = 20
	l.Place.FlipX = true
	sign := &doc.Layer{ID: "sign", Thread: "sign", Name: "sign", Opacity: 1, Kind: doc.Ellipse, Fill: doc.Fill{Kind: doc.Solid, Colour: "#ff0000"}, Place: doc.Place{X: 140, Y: 100, W: 6, H: 6}}
	s := newStage(t, l, drawOn(effect.Params{"pointer": "layer", "layer": "sign", "swing": 0.0}))
	s.p.Film.Scenes[0].Layers = append(s.p.Film.Scenes[0].Layers, sign)
	red := func(ms float64) (at geom.Point, n int) {
		img := s.at(ms)
		for y := range 120 {
			for x := range 160 {
				if c := img.RGBAAt(x, y); c.R > 200 && c.G < 60 {
					at, n = at.Add(geom.Point{X: float64(x) + 0.5, Y: float64(y) + 0.5}), n+1
				}
			}
		}
		return at.Mul(1 / max(1, float64(n))), n
	}
	for _, ms := range []float64{100, 400, 730} {
		at, n := red(ms)
		p := s.film.Player()
		p.AtRest(0, frame.View{Scale: 1})
		own, _, _ := p.Axes("l")
		want := own.Apply(geom.Point{X: 100 * ms / 1000})
		if n < 15 || at.Sub(want).Len() > 0.5 {
			t.Errorf("%v ms: what draws is at %v (%d px), the tip at %v", ms, at, n, want)
		}
	}
	for _, ms := range []float64{0, 1000, 2000} {
		if at, n := red(ms); n > 0 {
			t.Errorf("%v ms: what draws is at %v", ms, at)
		}
	}
	s.p.Film.Scenes[0].Layers, s.film = s.p.Film.Scenes[0].Layers[:1], nil // it is deleted: the line is drawn all the same
	if _, n := red(500); n > 0 {
		t.Error("what was deleted draws")
	}
	if d, _ := apart(s.at(500), blank()); d < 100 {
		t.Error("without what draws it nothing is drawn")
	}
	for _, tool := range []string{"pencil", "brush", "chalk", "hand", "left hand"} {
		with := func(pointer string) *stage {
			return newStage(t, straight("l", 30, 60, 80), drawOn(effect.Params{"pointer": pointer, "size": 60.0}))
		}
		a, b := with(tool), newStage(t, straight("l", 30, 60, 80), drawOn(nil))
		for ms, seen := range map[float64]bool{500: true, 1000: false, 1500: false} {
			if d, _ := apart(a.at(ms), b.at(ms)); (d > 0) != seen {
				t.Errorf("%s at %v ms: seen by %d of 255", tool, ms, d)
			}
		}
	}
}

// Pictures are uncovered all over, a band at a time. What has no length, nothing in it or 5,000 paths is drawn, too.
func TestOddThingsAreDrawn(t *testing.T) {
	for name, l := range map[string]*doc.Layer{
		"an empty group": {Kind: doc.Group, Fill: doc.Fill{Kind: doc.NoFill}, Children: []*doc.Layer{}},
		"a dot":          {Kind: doc.PathKind, Path: "M0 0L0 0", Fill: doc.Fill{Kind: doc.NoFill}, Stroke: &doc.Stroke{Width: 8, Cap: "round", Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"}}},
		"5,000 paths":    {Kind: doc.PathKind, Path: strings.Repeat("M10 10L90 70", 5000), Fill: doc.Fill{Kind: doc.NoFill}, Stroke: &doc.Stroke{Width: 2, Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"}}},
		"8,000 px wide":  {Kind: doc.Group, Fill: doc.Fill{Kind: doc.NoFill}, Children: []*doc.Layer{straight("wide", 0, 60, 8000), straight("also", 0, 70, 8000)}},
		"no height":      {Kind: doc.Rectangle, Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"}, Place: doc.Place{W: 100, H: 0}},
	} {
		for _, e := range []string{effect.DrawOn, effect.Hinge} {
			move := drawOn(effect.Params{"pointer": "pencil"})
			if move.Effect = e; e == effect.Hinge {
				move.Params = nil
			}
			s := newStage(t, l, move)
			if s.p.Validate() != nil {
				continue // refused in words
			}
			for _, ms := range []float64{0, 1, 500, 999} {
				s.at(ms)
			}
			rest := newStage(t, l).at(0)
			if d, _ := apart(newStage(t, l, move).at(1000), rest); d > 0 {
				t.Errorf("%s by %s ends %d off its rest", name, e, d)
			}
		}
	}
}

// How long At takes while a drawing of 2,000 paths is drawn on.
func BenchmarkAtOfADrawing(b *testing.B) {
	g := &doc.Layer{ID: "l", Thread: "l", Name: "l", Opacity: 1, Kind: doc.Group, Fill: doc.Fill{Kind: doc.NoFill}, Moves: []*doc.Move{drawOn(nil)}}
	for i := range 2000 {
		k := straight(fmt.Sprint("k", i), float64(i%50*30), float64(i/50*20), 10)
		k.Path = "M0 0C5 -9 20 30 28 4"
		g.Children = append(g.Children, k)
	}
	p := doc.NewProject("p", "Stage", 1600, 900, "s")
	p.Film.Scenes[0].Stay, p.Film.Scenes[0].Layers = 4000, []*doc.Layer{g}
	fonts, err := library.Book()
	if err != nil {
		b.Fatal(err)
	}
	f, err := frame.Compile(p, frame.Assets{Fonts: fonts}, nil)
	if err != nil {
		b.Fatal(err)
	}
	pl := f.Player()
	b.ReportAllocs()
	for i := int64(0); b.Loop(); i++ {
		pl.At(motion.Millis(i*37%1000), frame.View{Scale: 1})
	}
}
