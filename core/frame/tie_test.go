package frame_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
)

// bar is a layer that shows nothing itself and drives edges.
func bar(id, kind string, place doc.Place, moves ...*doc.Move) *doc.Layer {
	return &doc.Layer{ID: id, Thread: id, Name: id, Kind: kind, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: place, Moves: moves}
}

func along(id, d string, ms int64, easing string) *doc.Move {
	return &doc.Move{ID: id, Kind: doc.MotionPath, Effect: doc.Along, Start: doc.Start{When: doc.AtTime}, Duration: ms, Easing: easing, Path: &doc.PathParams{D: d}}
}

func reveal(name string, p effect.Params) *doc.Move {
	return &doc.Move{ID: "m", Kind: doc.Entrance, Effect: name, Start: doc.Start{When: doc.AtTime, Offset: 700}, Duration: 600, Params: p}
}

// sheet is a black stage that an ink layer covers whole, uncovered by m; drivers lie beside it.
func sheet(t *testing.T, m *doc.Move, drivers ...*doc.Layer) *stage {
	s := newStage(t, &doc.Layer{Kind: doc.Rectangle, Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"}, Place: doc.Place{X: 80, Y: 60, W: 200, H: 160}}, m)
	s.p.Film.Scenes[0].Layers = append(s.p.Film.Scenes[0].Layers, drivers...)
	return s
}

// strays counts the pixels more than half a px and a pixel's own reach from an edge that are not as the edge has them.
func strays(s *stage, ms float64, shows func(x, y float64) float64) (n int) {
	img := s.at(ms)
	for y := range 120 {
		for x := range 160 {
			d := shows(float64(x)+0.5, float64(y)+0.5) // px inside what shows
			if dark := img.RGBAAt(x, y).R < 128; math.Abs(d) > 0.5+math.Sqrt2/2 && dark != (d > 0) {
				n++
			}
		}
	}
	return
}

// The edge of a tied wipe lies within half a px of its driver's at any time, whichever way that turns, grows and is eased: held against the
// corners of the driver's box as a pointer finds them.
func TestATiedEdgeKeepsToItsDriver(t *testing.T) {
	r := rand.New(rand.NewPCG(24, 1))
	for k := range 100 {
		v := func(lo, hi float64) float64 { return lo + r.Float64()*(hi-lo) }
		direction, trailing := math.Round(v(0, 360)), r.IntN(2) == 1
		offset := math.Round(v(-9, 9))
		p := effect.Params{"direction": direction, "tie": "d", "tieOffset": offset}
		if trailing {
			p["tieEdge"] = "trailing"
		}
		easing := fmt.Sprintf("cubic-bezier(%.2f, %.2f, %.2f, %.2f)", v(0, 1), v(-0.5, 1.5), v(0, 1), v(-0.5, 1.5))
		path := along("a", fmt.Sprintf("M0 0C%.0f %.0f %.0f %.0f %.0f %.0f", v(-90, 90), v(-90, 90), v(-90, 90), v(-90, 90), v(-90, 90), v(-60, 60)), 1500, easing)
		path.Path.TurnAlong = k%3 == 0
		grow := &doc.Move{ID: "g", Kind: doc.Entrance, Effect: effect.Scale, Start: doc.Start{When: doc.AtTime, Offset: 200}, Duration: 900, Easing: easing, Params: effect.Params{"scale": 0.4}}
		d := bar("d", doc.Rectangle, doc.Place{X: v(30, 100), Y: v(20, 80), W: v(4, 40), H: v(4, 40), Turn: v(-180, 180)}, path, grow)
		s := sheet(t, reveal(effect.Wipe, p), d)
		at := v(200, 1700)
		toward := geom.Rotate(direction).ApplyVector(geom.Point{X: 1})
		s.at(at)
		pl := s.film.Player()
		pl.Stand(motion.Seconds(at / 1000))
		q, _, ok := pl.Quad("d")
		if !ok {
			t.Fatal("the driver is not there")
		}
		edge := math.Inf(-1)
		if trailing {
			edge = math.Inf(1)
		}
		for _, c := range q {
			if u := c.X*toward.X + c.Y*toward.Y; trailing {
				edge = min(edge, u)
			} else {
				edge = max(edge, u)
			}
		}
		if n := strays(s, at, func(x, y float64) float64 { return edge + offset - x*toward.X - y*toward.Y }); n > 0 {
			t.Errorf("film %d, at %.0f ms, %.0f°, %s: %d px are not as the edge has them", k, at, direction, easing, n)
		}
	}
}

// What else a tie can be, as docs/motion.md has it: each at a time, by which pixels show.
func TestTies(t *testing.T) {
	there := along("a", "M0 0L100 0", 1000, "linear")
	back := along("a", "M0 0L100 0", 1000, "linear")
	back.Repeat, back.Alternate = 2, true
	left := along("b", "M0 0L-100 0", 1000, "linear")
	gone := bar("d", doc.Rectangle, doc.Place{X: 30, Y: 60, W: 10, H: 20}, there, &doc.Move{ID: "x", Kind: doc.Exit, Effect: effect.AtOnce, Start: doc.Start{When: doc.AtTime, Offset: 100}})
	d := func(m *doc.Move) *doc.Layer {
		return bar("d", doc.Rectangle, doc.Place{X: 30, Y: 60, W: 10, H: 20}, m)
	}
	e := bar("e", doc.Rectangle, doc.Place{X: 130, Y: 60, W: 10, H: 20}, left)
	disc := bar("d", doc.Ellipse, doc.Place{X: 80, Y: 60, W: 60, H: 60}, along("a", "M0 0L20 0", 1000, "linear"))
	out := reveal(effect.Wipe, effect.Params{"tie": "d"})
	out.Kind = doc.Exit
	for _, c := range []struct {
		name    string
		move    *doc.Move
		drivers []*doc.Layer
		at      float64
		shows   func(x, y float64) float64
	}{
		{"a driver that has gone counts where it stands", reveal(effect.Wipe, effect.Params{"tie": "d"}), []*doc.Layer{gone}, 500, func(x, y float64) float64 { return 85 - x }},
		{"it goes back with its driver", reveal(effect.Wipe, effect.Params{"tie": "d"}), []*doc.Layer{d(back)}, 1500, func(x, y float64) float64 { return 85 - x }},
		{"or never back", reveal(effect.Wipe, effect.Params{"tie": "d", "tieKeeps": true}), []*doc.Layer{d(back)}, 1500, func(x, y float64) float64 { return 135 - x }},
		{"an exit hides what its driver has passed", out, []*doc.Layer{d(there)}, 500, func(x, y float64) float64 { return x - 85 }},
		{"doors with two drivers that cross", reveal(effect.BarnDoors, effect.Params{"tie": "d", "tie2": "e"}), []*doc.Layer{d(there), e}, 800, func(x, y float64) float64 { return min(115-x, x-45) }},
		{"that have not met yet show nothing", reveal(effect.BarnDoors, effect.Params{"tie": "d", "tie2": "e"}), []*doc.Layer{d(there), e}, 300, func(x, y float64) float64 { return -9 }},
		{"one driver moves both doors", reveal(effect.BarnDoors, effect.Params{"tie": "d"}), []*doc.Layer{d(there)}, 800, func(x, y float64) float64 { return 35 - math.Abs(x-80) }},
		{"doors that close in", reveal(effect.BarnDoors, effect.Params{"tie": "d", "tie2": "e", "from": "outside"}), []*doc.Layer{d(there), e}, 200, func(x, y float64) float64 { return max(55-x, x-105) }},
		{"an edge with its driver's outline", reveal(effect.Wipe, effect.Params{"tie": "d", "tieAt": "follows"}), []*doc.Layer{disc}, 500, func(x, y float64) float64 {
			return 90 + math.Sqrt(max(0, 900-(y-60)*(y-60))) - x - min(1, max(0, math.Abs(y-60)-28)) // steep beside its top and foot
		}},
		{"its outermost point", reveal(effect.Wipe, effect.Params{"tie": "d", "tieAt": "outline"}), []*doc.Layer{disc}, 500, func(x, y float64) float64 { return 120 - x }},
		{"without its driver it goes by its own time", reveal(effect.Wipe, effect.Params{"tie": "gone"}), nil, 1100, func(x, y float64) float64 { return -20 + 200*0.7715 - x }},
	} {
		if c.name == "without its driver it goes by its own time" {
			c.move.Easing, c.shows = "linear", func(x, y float64) float64 { return -20 + 200*2.0/3 - x }
		}
		s := sheet(t, c.move, c.drivers...)
		if n := strays(s, c.at, c.shows); n > 0 {
			t.Errorf("%s: %d px are not so", c.name, n)
		}
	}
}

// Two thin bars cross a page of width W from its edges to the far edges of a picture of width w in its middle, evenly in T: doors tied to both
// open from T W/(W+w) on, for T w/(W+w). The sums are docs/motion.md's.
func TestSameEndIsNotTheSameMotion(t *testing.T) {
	for _, c := range []struct{ share, begin float64 }{{0.20, 1250}, {0.30, 1154}, {0.50, 1000}} {
		const page, thin = 160.0, 0.002
		w := c.share * page
		far := page/2 + w/2
		s := sheet(t, reveal(effect.BarnDoors, effect.Params{"tie": "d", "tie2": "e"}),
			bar("d", doc.Rectangle, doc.Place{X: 0, Y: 60, W: thin, H: 20}, along("a", fmt.Sprintf("M0 0L%g 0", far), 1500, "linear")),
			bar("e", doc.Rectangle, doc.Place{X: page, Y: 60, W: thin, H: 20}, along("b", fmt.Sprintf("M0 0L%g 0", -far), 1500, "linear")))
		s.p.Film.Scenes[0].Layers[0].Place = doc.Place{X: page / 2, Y: 60, W: w, H: 60}
		s.at(0)
		curve, ok := s.film.TieCurve(0, "l", "m")
		if !ok || math.Abs(float64(curve.Begin)-c.begin) > 2 || math.Abs(float64(curve.End)-1500) > 1 || curve.Shares[0] > 0.01 || curve.Shares[len(curve.Shares)-1] < 0.99 {
			t.Errorf("w/W %.2f: from %d to %d ms, want %.0f to 1500", c.share, curve.Begin, curve.End, c.begin)
		}
	}
}

// A tied edge goes on through a morph: its driver is where it has got to. Nothing is allocated meanwhile, an edge that never goes back included.
func TestTiesGoOnThroughAMorph(t *testing.T) {
	m := reveal(effect.Wipe, effect.Params{"tie": "d", "tieKeeps": true})
	s := sheet(t, m, bar("d", doc.Rectangle, doc.Place{X: 30, Y: 60, W: 10, H: 20}, along("a", "M0 0L40 0", 1000, "linear")))
	second := s.p.Film.Scenes[0].Clone()
	second.ID, second.Transition = "s2", doc.Transition{Kind: doc.Morph, Duration: 1000, Easing: "linear"}
	for _, l := range second.Layers {
		l.ID += "2"
		for _, m := range l.Moves {
			m.ID += "2"
		}
	}
	second.Layers[1].Place.X, second.Layers[1].Moves = 110, nil
	s.p.Film.Scenes = append(s.p.Film.Scenes, second)
	// From 75 at the end of the first scene to 115 in the second, each side's edge counting by its share: both lie where the driver is.
	if n := strays(s, 4500, func(x, y float64) float64 { return 95 - x }); n > 0 {
		img := s.at(4500)
		t.Errorf("half way %d px are not as the edge has them (%v at 90, %v at 100)", n, img.RGBAAt(90, 60), img.RGBAAt(100, 60))
	}
	pl := s.film.Player()
	play := func() {
		for k := range int64(30) {
			pl.At(motion.FrameTime(k*6, 30, 1), frame.View{Scale: 1})
		}
	}
	play()
	if n := testing.AllocsPerRun(3, play); n > 0 {
		t.Errorf("%v allocations once warm", n)
	}
}
