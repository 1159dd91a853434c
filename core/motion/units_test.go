package motion

import (
	"fmt"
	"math"
	"reflect"
	"slices"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/geom"
)

func TestRanksOfUnits(t *testing.T) {
	for _, c := range []struct {
		order  string
		n      int
		want   []int
		places int
	}{
		{"", 3, []int{0, 1, 2}, 3}, {doc.Backwards, 3, []int{2, 1, 0}, 3},
		// From the middle: ceil(units/2) ranks, both neighbours of the centre share one.
		{doc.FromMiddle, 5, []int{2, 1, 0, 1, 2}, 3}, {doc.FromMiddle, 4, []int{1, 0, 0, 1}, 2}, {doc.FromMiddle, 1, []int{0}, 1},
	} {
		if got, places := Ranks(c.order, c.n, 0); !slices.Equal(got, c.want) || places != c.places {
			t.Errorf("%s of %d: %v in %d places", c.order, c.n, got, places)
		}
	}
	a, _ := Ranks(doc.Shuffled, 40, 7)
	b, _ := Ranks(doc.Shuffled, 40, 7)
	c, _ := Ranks(doc.Shuffled, 40, 8)
	if !slices.Equal(a, b) || slices.Equal(a, c) {
		t.Error("a seed names one order, and another seed another")
	}
	slices.Sort(a)
	for i, v := range a {
		if v != i {
			t.Fatalf("a shuffle keeps every rank once: %v", a)
		}
	}
	// From memory: splitmix64 seeded with 1234567 begins 6457827717110365317, 3203168211198807973. Of three units the last
	// changes places with the first (0 modulo 3), the second with itself (1 modulo 2).
	if got, _ := Ranks(doc.Shuffled, 3, 1234567); !slices.Equal(got, []int{2, 1, 0}) {
		t.Errorf("the generator is another: %v", got)
	}
}

// docs/motion.md, section 3: p_i = clamp((q D - i (1-o) d) / d, 0, 1), d = D / (1 + (n-1)(1-o)).
func TestUnitsShareTheTime(t *testing.T) {
	for _, n := range []int{1, 2, 7, 40} {
		for _, o := range []float64{0, 0.25, 0.6, 1} {
			b := byUnit{unit: doc.ByLetter, ranks: make([]int, n), places: n, overlap: o}
			const D = 2.0
			d := D / (1 + float64(n-1)*(1-o))
			for k := 0; k <= 100; k++ {
				q := float64(k) / 100
				for i := 0; i < n; i++ {
					want := min(1, max(0, (q*D-float64(i)*(1-o)*d)/d))
					got, _ := b.share(q, i)
					within(t, fmt.Sprintf("%d units, overlap %v, unit %d at %v", n, o, i, q), got, want, 1e-12)
				}
			}
			if p, _ := b.share(1, n-1); p != 1 {
				t.Errorf("%d units, overlap %v: at its end the last unit is at %v", n, o, p)
			}
			if _, begun := b.share(0, 0); !begun {
				t.Error("the first unit begins with the move")
			}
		}
	}
}

func letters(n int) Extent { return Extent{Line: 50, Counts: Counts{Lines: 1, Words: 2, Letters: n}} }

// Section 3: typing on, letters at once with overlap 0: unit i shows at i D / n.
func TestTypingOn(t *testing.T) {
	m := &doc.Move{ID: "m", Kind: doc.Entrance, Effect: effect.AtOnce, Start: at(500), Duration: 1000, Unit: doc.ByLetter, Easing: "ease-in"}
	s := scene(4000, m)
	k := NewTrack(s.Layers[0], resolve(t, s, 0), letters(8), nil)
	for ms := int64(0); ms <= 2000; ms += 25 {
		c := Clock{At: Millis(ms), Stay: 4000}
		for i := 0; i < 8; i++ {
			want := ms >= 500+int64(i)*125
			p := k.UnitAt(c, Unit{Letter: i}, nil)
			whole := k.At(c, nil)
			if shown := whole.Present && p.Present && p.Opacity > 0; shown != want {
				t.Fatalf("letter %d at %d ms: shown %v", i, ms, shown)
			}
		}
	}
	if k.ByUnit(Clock{At: Millis(400), Stay: 4000}) != "" || k.ByUnit(Clock{At: Millis(800), Stay: 4000}) != doc.ByLetter || k.ByUnit(Clock{At: Millis(1500), Stay: 4000}) != "" {
		t.Error("it is divided only while it is typed")
	}
}

// A unit that has not begun is absent, whatever the easing: with an easing that starts above 0 too.
func TestUnitsThatHaveNotBegunAreAbsent(t *testing.T) {
	m := &doc.Move{ID: "m", Kind: doc.Entrance, Effect: effect.Fade, Start: at(0), Duration: 1000, Unit: doc.ByWord, Easing: "steps(2,jump-start)"}
	s := scene(4000, m)
	k := NewTrack(s.Layers[0], resolve(t, s, 0), Extent{Counts: Counts{Words: 2}}, nil)
	c := Clock{At: Millis(100), Stay: 4000}
	if a, b := k.UnitAt(c, Unit{Word: 0}, nil).Opacity, k.UnitAt(c, Unit{Word: 1}, nil).Opacity; a != 0.5 || b != 0 {
		t.Errorf("%v and %v", a, b)
	}
}

// A slide by unit travels one line height with a fade; an exit is the same backwards in what is left of it.
func TestSlidesByUnit(t *testing.T) {
	in := &doc.Move{ID: "m", Kind: doc.Entrance, Effect: effect.Slide, Start: at(0), Duration: 1000, Unit: doc.ByWord, Easing: "linear", Params: effect.Params{"direction": 270.0}}
	out := &doc.Move{ID: "o", Kind: doc.Exit, Effect: effect.Slide, Start: at(2000), Duration: 1000, Unit: doc.ByWord, Easing: "linear", Params: effect.Params{"direction": 270.0}}
	s := scene(4000, in, out)
	k := NewTrack(s.Layers[0], resolve(t, s, 0), letters(8), nil)
	p := k.UnitAt(Clock{At: Millis(250), Stay: 4000}, Unit{Word: 0}, nil)
	within(t, "offset on the way up", p.Offset.Y, 25, 1e-9)
	within(t, "opacity", p.Opacity, 0.5, 1e-9)
	p = k.UnitAt(Clock{At: Millis(2250), Stay: 4000}, Unit{Word: 0}, nil)
	within(t, "offset going on through", p.Offset.Y, -25, 1e-9)
	if k.At(Clock{At: Millis(3000), Stay: 4000}, nil).Present {
		t.Error("at its end it has left")
	}
}

// For loops the overlap is a phase lag: i (1-o) / n cycles.
func TestRocksByUnitLag(t *testing.T) {
	m := &doc.Move{ID: "m", Kind: doc.Loop, Effect: effect.Rock, Lasts: doc.WholeScene, Start: at(0), Duration: 1000, Unit: doc.ByLetter, Params: effect.Params{"angle": 10.0}}
	s := scene(4000, m)
	k := NewTrack(s.Layers[0], resolve(t, s, 0), letters(4), nil)
	for i := 0; i < 4; i++ {
		at := Clock{At: Millis(int64(1250 + 250*i)), Stay: 4000}
		within(t, "angle", k.UnitAt(at, Unit{Letter: i}, nil).Loops.Turn, 10, 1e-9)
		if k.At(at, nil).Loops.Turn != 0 {
			t.Error("the layer itself does not turn")
		}
	}
}

// Section 3: the other loops are 0 outside their active time, and fade in and out when it is no whole number of cycles.
func TestFiniteRocksComeToRest(t *testing.T) {
	m := &doc.Move{ID: "m", Kind: doc.Loop, Effect: effect.Rock, Start: at(500), Duration: 1000, Repeat: 2, Params: effect.Params{"angle": 10.0}}
	s := scene(4000, m)
	k := NewTrack(s.Layers[0], resolve(t, s, 0), Extent{}, nil)
	for ms, want := range map[int64]float64{0: 0, 500: 0, 750: 10, 1250: -10, 2500: 0, 3000: 0} {
		within(t, fmt.Sprintf("whole cycles at %d", ms), k.At(Clock{At: Millis(ms), Stay: 4000}, nil).Loops.Turn, want, 1e-9)
	}
	m.Repeat = 1.75
	k = NewTrack(s.Layers[0], resolve(t, s, 0), Extent{}, nil)
	within(t, "faded in", k.At(Clock{At: Millis(600), Stay: 4000}, nil).Loops.Turn, 0.5*10*0.5877852522924731, 1e-9)
	within(t, "faded out at its end", k.At(Clock{At: Millis(2249), Stay: 4000}, nil).Loops.Turn, 0, 0.06)
}

// A scroll's cycle is its period over its speed, rounded to ms; its offset is period x frac(t / T).
func TestScrollsComeRound(t *testing.T) {
	m := &doc.Move{ID: "m", Kind: doc.Loop, Effect: effect.Scroll, Lasts: doc.WholeScene, Start: at(0), Params: effect.Params{"direction": 180.0, "speed": 130.0, "gap": 40.0}}
	s := scene(9000, m)
	x := Extent{Box: geom.Box{Max: geom.Point{X: 300, Y: 80}}}
	k := NewTrack(s.Layers[0], resolve(t, s, 0), x, nil)
	const T = 2615 // 340 / 130 s
	if got := CycleOf(m, x); got != T {
		t.Fatalf("cycle %d", got)
	}
	p := k.At(Clock{At: Millis(1000), Stay: 9000}, nil)
	within(t, "offset", p.Loops.Scroll.X, -340*1000.0/T, 1e-9)
	within(t, "period", p.Loops.Period.X, 340, 0)
	if a, b := k.At(Clock{At: Millis(700), Stay: 9000}, nil), k.At(Clock{At: Millis(700 + 2*T), Stay: 9000}, nil); !reflect.DeepEqual(a, b) {
		t.Errorf("two periods later it is elsewhere: %v, %v", a, b)
	}
	// One that runs for a time keeps its end value.
	m.Lasts, m.Duration = "", 1000
	k = NewTrack(s.Layers[0], resolve(t, s, 0), x, nil)
	if a, b := k.At(Clock{At: Millis(1000), Stay: 9000}, nil), k.At(Clock{At: Millis(8000), Stay: 9000}, nil); !reflect.DeepEqual(a, b) || a.Loops.Scroll.X == 0 {
		t.Errorf("%v, %v", a, b)
	}
}

// Wipes have a share, exits go on through or back; an overlap joins, it does not multiply.
func TestWipesOfLayers(t *testing.T) {
	in := &doc.Move{ID: "m", Kind: doc.Entrance, Effect: effect.Wipe, Start: at(0), Duration: 1000, Easing: "linear", Params: effect.Params{"direction": 90.0, "softness": 30.0}}
	out := &doc.Move{ID: "o", Kind: doc.Exit, Effect: effect.Wipe, Start: at(2000), Duration: 1000, Easing: "linear"}
	s := scene(4000, in, out)
	k := NewTrack(s.Layers[0], resolve(t, s, 0), Extent{}, nil)
	p := k.At(Clock{At: Millis(250), Stay: 4000}, nil)
	if r := p.Veil[0].Reveal; len(p.Veil) != 1 || r.Opacity != 1 || r.Share != 0.25 || r.Inverted || r.Front.At(geom.Box{Max: geom.Point{X: 10, Y: 20}}, 0.25, false) != (effect.Field{Shape: effect.Half, N: [8]float64{0, 1, 12.5, 30}, Count: 5}) {
		t.Errorf("coming: %+v", p.Veil)
	}
	if p = k.At(Clock{At: Millis(1500), Stay: 4000}, nil); len(p.Veil) != 0 || p.Opacity != 1 {
		t.Errorf("come: %+v", p)
	}
	p = k.At(Clock{At: Millis(2250), Stay: 4000}, nil)
	if r := p.Veil[0].Reveal; !r.Inverted || r.Share != 0.25 {
		t.Errorf("going on through, a quarter is gone from where it came in: %+v", r)
	}
	out.Back = true
	k = NewTrack(s.Layers[0], resolve(t, s, 0), Extent{}, nil)
	p = k.At(Clock{At: Millis(2250), Stay: 4000}, nil)
	if r := p.Veil[0].Reveal; r.Inverted || r.Share != 0.75 {
		t.Errorf("going back, the last quarter is gone: %+v", r)
	}
	again := fade("a", doc.Entrance, at(2500), 1000)
	s.Layers[0].Moves = append(s.Layers[0].Moves, again)
	k = NewTrack(s.Layers[0], resolve(t, s, 0), Extent{}, nil)
	p = k.At(Clock{At: Millis(2750), Stay: 4000}, nil)
	if len(p.Veil) != 3 || p.Veil[2].Join != Over || p.Veil[1].Opacity != 0.25 || p.Opacity != 1 {
		t.Errorf("coming back before it is gone: %+v", p)
	}
}

func TestLoopsOfEveryKindRunThroughTransitions(t *testing.T) {
	box := geom.Box{Max: geom.Point{X: 200, Y: 50}}
	for _, how := range []string{effect.Spin, effect.Rock, effect.Scroll} {
		mk := func(id, continues string) *Track {
			m := &doc.Move{
				ID: id, Kind: doc.Loop, Effect: how, Lasts: doc.WholeScene, Start: at(0), Continues: continues,
				Params: effect.Params{"angle": 12.0, "speed": 170.0}, Duration: 900,
			}
			s := scene(1700, m)
			return NewTrack(s.Layers[0], resolve(t, s, 600), Extent{Box: box}, nil)
		}
		for _, linked := range []bool{true, false} {
			continues := ""
			if linked {
				continues = "a"
			}
			a, b := mk("a", ""), mk("b", continues)
			Link(a, b, 1700, 600)
			value := func(p effect.Going) float64 { return p.Turn + p.Scroll.X }
			pose := func(tau int64) effect.Going {
				return LoopsBetween(a, b, Clock{At: Millis(1700 + tau), Side: Leaving, Stay: 1700}, Clock{At: Millis(tau - 600), Side: Entering, Stay: 1700}, even(tau, 600), nil, nil)
			}
			within(t, how+" as the transition begins", value(pose(0)), value(a.At(Clock{At: Millis(1700), Stay: 1700}, nil).Loops), 1e-9)
			ends := value(pose(600)) - value(b.At(Clock{At: Millis(0), Stay: 1700}, nil).Loops)
			within(t, how+" as it ends, whole rounds left out", math.Mod(ends, 360), 0, 1e-9)
			if linked {
				within(t, how+" half way is one function of time", value(pose(300)), value(a.At(Clock{At: Millis(2000), Side: Leaving, Stay: 1700}, nil).Loops), 1e-9)
			}
		}
		// On one side only it ends in a state that looks the same as none.
		none := &Track{}
		a := mk("a", "")
		end := LoopsBetween(a, none, Clock{At: Millis(1700), Side: Leaving, Stay: 1700}, Clock{At: Millis(-600), Side: Entering, Stay: 1700}, even(0, 600), nil, nil)
		was := a.At(Clock{At: Millis(1700), Stay: 1700}, nil).Loops
		if d := end.Turn - was.Turn; d != 0 && d != 360 && d != -360 {
			t.Errorf("%s: as the transition begins the turn jumps by %v", how, d)
		}
		if d := end.Scroll.X - was.Scroll.X; d != 0 && d != was.Period.X && d != -was.Period.X {
			t.Errorf("%s: the scroll jumps by %v", how, d)
		}
	}
}

// Orders by place: what lies as far shares a place, columns and rows are as wide as what is in them.
func TestRanksByPlace(t *testing.T) {
	var boxes []geom.Box
	for i := range 6 { // three columns of two, a little crooked
		boxes = append(boxes, geom.BoxAt(geom.Point{X: float64(50*(i%3) + i), Y: float64(40 * (i / 3))}, 20, 20))
	}
	for _, c := range []struct {
		order  string
		want   []int
		places int
	}{
		{doc.ByColumn, []int{0, 1, 2, 0, 1, 2}, 3},
		{doc.ByRow, []int{0, 0, 0, 1, 1, 1}, 2},
		{doc.FromPoint, []int{0, 2, 4, 1, 3, 5}, 6},
	} {
		if got, places, ok := PlaceRanks(c.order, boxes, geom.Point{}); !ok || !slices.Equal(got, c.want) || places != c.places {
			t.Errorf("%s: %v in %d places, want %v in %d", c.order, got, places, c.want, c.places)
		}
	}
	ring := []geom.Box{geom.BoxAt(geom.Point{}, 2, 2)}
	for i := range 8 {
		ring = append(ring, geom.BoxAt(geom.Rotate(float64(i)*45).ApplyVector(geom.Point{X: 30}), 2, 2))
	}
	if got, places, _ := PlaceRanks(doc.Outwards, ring, geom.Point{}); places != 2 || got[0] != 0 || slices.Contains(got[1:], 0) {
		t.Errorf("outwards: %v in %d places", got, places)
	}
	if _, _, ok := PlaceRanks(doc.Backwards, boxes, geom.Point{}); ok {
		t.Error("an order of the list was taken for one by place")
	}
}

// A rock of -a is that of a the other way, and one that is ahead by a share of its cycle is what the other is that much later.
func TestRocksHaveASenseAndAPhase(t *testing.T) {
	turn := func(angle, phase float64, ms int64) float64 {
		m := &doc.Move{ID: "m", Kind: doc.Loop, Effect: effect.Rock, Lasts: doc.WholeScene, Duration: 800, Params: effect.Params{"angle": angle, "phase": phase}}
		l, _ := newLoop(m, Interval{End: 4000, Pass: 800, Passes: 5, Whole: true}, &Extent{})
		return l.at(Clock{At: Millis(ms)}, nil).Turn
	}
	for ms := int64(0); ms < 1600; ms += 70 {
		if a, b := turn(25, 0, ms), turn(-25, 0, ms); math.Abs(a+b) > 1e-9 {
			t.Errorf("at %d ms %v and the other way %v", ms, a, b)
		}
		if a, b := turn(25, 0.25, ms), turn(25, 0, ms+200); math.Abs(a-b) > 1e-9 {
			t.Errorf("at %d ms, a quarter ahead, %v; that is %v 200 ms later", ms, a, b)
		}
	}
}
