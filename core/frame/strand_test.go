package frame_test

import (
	"math"
	"reflect"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
)

// placeAt is where the tile lies at a time.
func placeAt(t *testing.T, f *frame.Film, ms int64) geom.Point {
	t.Helper()
	p := f.Player()
	p.Stand(motion.Millis(ms))
	for _, id := range []string{"l0", "l1"} {
		if corners, _, ok := p.Quad(id); ok {
			return corners[0].Add(corners[2]).Mul(0.5)
		}
	}
	t.Fatalf("nothing is drawn at %d ms", ms)
	return geom.Point{}
}

// Threads go through a morph by an easing of their own, wait, and go by an arc (docs/motion.md, section 6): the tile goes 40 px to the right in the
// second second. Both ends are what the scenes show, exactly.
func TestThreadsGoTheirOwnWay(t *testing.T) {
	across := func(s doc.Strand) func(*doc.Film) {
		return func(f *doc.Film) {
			f.Scenes[0].Layers[0].Place.X, f.Scenes[1].Layers[0].Place.X = 30, 70
			f.Scenes[1].Transition.Threads = map[string]doc.Strand{"a": s}
		}
	}
	in, err := motion.ParseEasing("ease-in")
	if err != nil {
		t.Fatal(err)
	}
	for name, c := range map[string]struct {
		way  doc.Strand
		at   int64
		want geom.Point
	}{
		"as the others":                 {doc.Strand{}, 1250, geom.Point{X: 40, Y: 50}},
		"eased by itself":               {doc.Strand{Easing: "ease-in"}, 1250, geom.Point{X: 30 + 40*in(0.25), Y: 50}},
		"it waits":                      {doc.Strand{Delay: 0.5}, 1500, geom.Point{X: 30, Y: 50}},
		"then it goes faster":           {doc.Strand{Delay: 0.5}, 1750, geom.Point{X: 50, Y: 50}},
		"waits and is eased":            {doc.Strand{Delay: 0.5, Easing: "ease-in"}, 1750, geom.Point{X: 30 + 40*in(0.5), Y: 50}},
		"half a circle to the right":    {doc.Strand{Arc: 0.5}, 1500, geom.Point{X: 50, Y: 70}},
		"a quarter of it":               {doc.Strand{Arc: 0.5}, 1250, geom.Point{X: 50 - 20*math.Sqrt2/2, Y: 50 + 20*math.Sqrt2/2}},
		"to the left":                   {doc.Strand{Arc: -0.25}, 1500, geom.Point{X: 50, Y: 40}},
		"three quarters of a circle":    {doc.Strand{Arc: 1}, 1500, geom.Point{X: 50, Y: 90}},
		"an arc that waits, at its top": {doc.Strand{Arc: -0.5, Delay: 0.5}, 1750, geom.Point{X: 50, Y: 30}},
	} {
		f := round(t, []float64{0, 0}, across(c.way))
		if got := placeAt(t, f, c.at); got.Sub(c.want).Len() > 1e-6 {
			t.Errorf("%s: at %v, want %v", name, got, c.want)
		}
		plain := round(t, []float64{0, 0}, across(doc.Strand{}))
		for _, ms := range []int64{1000, 2000} {
			a, b := f.Player().At(motion.Millis(ms), frame.View{Scale: 1}), plain.Player().At(motion.Millis(ms), frame.View{Scale: 1})
			if !reflect.DeepEqual(a.Numbers, b.Numbers) || !reflect.DeepEqual(a.Codes, b.Codes) {
				t.Errorf("%s: at %d ms it is not what the scene shows", name, ms)
			}
		}
		if c.way.Arc != 0 && c.way.Delay == 0 { // even speed along a circle: equal chords
			first := 0.0
			for ms := int64(1000); ms < 2000; ms += 50 {
				step := placeAt(t, f, ms+50).Sub(placeAt(t, f, ms)).Len()
				if first == 0 {
					first = step
				}
				if math.Abs(step-first) > 1e-6*first {
					t.Fatalf("%s: from %d ms on a step of %v, the first was %v", name, ms, step, first)
				}
			}
		}
	}
	// In a group that waits the parts wait, too, unless they have a time of their own.
	grouped := func(inner map[string]doc.Strand) func(*doc.Film) {
		return func(f *doc.Film) {
			for i, s := range f.Scenes {
				tile := s.Layers[0]
				tile.Place.X, tile.Place.Y = 0, float64(40*i)
				s.Layers = []*doc.Layer{{ID: "g" + string(rune('0'+i)), Thread: "g", Name: "g", Kind: doc.Group, Opacity: 1, Place: doc.Place{X: 50, Y: 20}, Children: []*doc.Layer{tile}}}
			}
			inner["g"] = doc.Strand{Delay: 0.5}
			f.Scenes[1].Transition.Threads = inner
		}
	}
	for _, c := range []struct {
		inner map[string]doc.Strand
		want  float64
	}{{map[string]doc.Strand{}, 20}, {map[string]doc.Strand{"a": {Delay: 0.25}}, 20 + 40.0/3}} {
		f := round(t, []float64{0, 0}, grouped(c.inner))
		if got := placeAt(t, f, 1500); math.Abs(got.Y-c.want) > 1e-6 {
			t.Errorf("a part with %+v stands at %v, want %v", c.inner, got.Y, c.want)
		}
	}
}

// What only one of two scenes has comes in from a side of the page and goes out by one, whole, as far as brings it off the page; it waits and is eased
// as others are.
func TestWhatOneSceneHasComesInFromTheWings(t *testing.T) {
	f := round(t, []float64{0, 0}, func(f *doc.Film) {
		f.Scenes[1].Layers[0].Thread = "b"
		f.Scenes[1].Transition.Threads = map[string]doc.Strand{"a": {Wing: "left"}, "b": {Wing: "bottom", Delay: 0.5}}
	})
	p := f.Player()
	middle := func(id string, ms int64) geom.Point {
		p.Stand(motion.Millis(ms))
		corners, _, ok := p.Quad(id)
		if !ok {
			t.Fatalf("%s is not drawn at %d ms", id, ms)
		}
		return corners[0].Add(corners[2]).Mul(0.5)
	}
	for _, c := range []struct {
		id   string
		at   int64
		want geom.Point
	}{
		{"l0", 1000, geom.Point{X: 50, Y: 50}}, {"l0", 1500, geom.Point{X: 20, Y: 50}}, {"l0", 1750, geom.Point{X: 5, Y: 50}}, // its right edge, at 60, has 60 px to go
		{"l1", 1500, geom.Point{X: 50, Y: 105}}, {"l1", 1750, geom.Point{X: 50, Y: 77.5}}, {"l1", 2000, geom.Point{X: 50, Y: 50}}, // its upper edge, at 45, had 55
	} {
		if got := middle(c.id, c.at); got.Sub(c.want).Len() > 1e-6 {
			t.Errorf("%s at %d ms is at %v, want %v", c.id, c.at, got, c.want)
		}
	}
}
