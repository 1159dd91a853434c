package motion

import (
	"errors"
	"math"
	"math/rand/v2"
	"reflect"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
)

func at(ms int64) doc.Start                     { return doc.Start{When: doc.AtTime, Offset: ms} }
func when(w, of string, offset int64) doc.Start { return doc.Start{When: w, Of: of, Offset: offset} }

func scene(stay int64, moves ...*doc.Move) *doc.Scene {
	l := &doc.Layer{ID: "l", Thread: "l", Name: "Kite", Kind: doc.Rectangle, Opacity: 1, Moves: moves}
	return &doc.Scene{ID: "s", Stay: stay, Layers: []*doc.Layer{l}}
}

func resolve(t *testing.T, s *doc.Scene, into int64) *Timing {
	t.Helper()
	r, err := Resolve(s, into)
	if err != nil {
		t.Fatal(err)
	}
	return r
}

func straight(id string, start doc.Start, ms int64) *doc.Move {
	return &doc.Move{ID: id, Kind: doc.MotionPath, Effect: doc.Along, Start: start, Duration: ms, Easing: "linear", Path: &doc.PathParams{D: "M0 0L300 0"}}
}

func fade(id, kind string, start doc.Start, ms int64) *doc.Move {
	return &doc.Move{ID: id, Kind: kind, Effect: effect.Fade, Start: start, Duration: ms, Easing: "linear"}
}

func within(t *testing.T, what string, got, want, by float64) {
	t.Helper()
	if math.Abs(got-want) > by {
		t.Errorf("%s is %v, want %v", what, got, want)
	}
}

// docs/motion.md, section 11: two paths of 6 s, one 0.5 s later, end at 6.00 and 6.50; at 3.00 they stand at 50 % and 41.7 %.
func TestTwoPathsHalfASecondApart(t *testing.T) {
	s := scene(8000, straight("a", at(0), 6000), straight("b", when(doc.WhenBegins, "a", 500), 6000))
	r := resolve(t, s, 0)
	if a, b := r.Moves["a"].End, r.Moves["b"].End; a != 6000 || b != 6500 {
		t.Fatalf("they end at %d and %d", a, b)
	}
	for id, want := range map[string]float64{"a": 0.5, "b": 0.41667} {
		_, x := r.Moves[id].Progress(Millis(3000), false)
		within(t, id+" at 3.00", x, want, 1e-4)
	}
}

// Section 11: there and back with a fade that ends when the path ends.
func TestThereAndBackWithAFadeThatEndsWithIt(t *testing.T) {
	p := straight("p", at(0), 3000)
	p.Repeat, p.Alternate = 2, true
	out := fade("f", doc.Exit, at(0), 2500)
	out.End = &doc.Anchor{When: doc.WhenEnds, Of: "p"}
	s := scene(7000, p, out)
	r := resolve(t, s, 0)
	if r.Moves["p"].End != 6000 || r.Moves["f"].Begin != 3500 {
		t.Fatalf("path ends at %d, fade begins at %d", r.Moves["p"].End, r.Moves["f"].Begin)
	}
	k := NewTrack(s.Layers[0], r, Extent{}, nil)
	for ms, want := range map[int64]float64{1500: 0.5, 3500: 0.8333, 4750: 0.41667} {
		within(t, "place", k.At(Clock{At: Millis(ms), Stay: 7000}, nil).Offset.X/300, want, 1e-4)
	}
	within(t, "opacity at 4.75", k.At(Clock{At: Millis(4750), Stay: 7000}, nil).Opacity, 0.5, 1e-9)
	if k.At(Clock{At: Millis(6000), Stay: 7000}, nil).Present {
		t.Error("at its end the exit has hidden the layer: intervals are half-open")
	}
}

// Section 11: fades 2, 2, 1, d, d, d one after another end at 5 + 3d.
func TestOneAfterAnotherAddsUp(t *testing.T) {
	const d = 700
	var moves []*doc.Move
	for i, ms := range []int64{2000, 2000, 1000, d, d, d} {
		m := fade(string(rune('a'+i)), doc.Entrance, at(0), ms)
		if i > 0 {
			m.Start = when(doc.WhenEnds, string(rune('a'+i-1)), 0)
		}
		moves = append(moves, m)
	}
	if got := resolve(t, scene(9000, moves...), 0).Moves["f"].End; got != 5000+3*d {
		t.Errorf("the last ends at %d", got)
	}
}

func TestRingsOfHitchesAreRefusedByName(t *testing.T) {
	a, b := fade("a", doc.Entrance, when(doc.WhenEnds, "b", 0), 500), straight("b", when(doc.WhenBegins, "a", 0), 500)
	_, err := Resolve(scene(4000, a, b), 0)
	var ring *Cycle
	if !errors.As(err, &ring) || !strings.Contains(err.Error(), "Fade, in of “Kite”") || !strings.Contains(err.Error(), "Path of “Kite”") {
		t.Fatalf("got %v", err)
	}
	self := fade("a", doc.Entrance, when(doc.WhenBegins, "a", 0), 500)
	if _, err := Resolve(scene(4000, self), 0); !errors.As(err, &ring) {
		t.Fatalf("a move hung on itself: %v", err)
	}
	// Hanging on each other's different ends is no ring: a begins with b, b repeats until a third begins.
	c := straight("c", at(0), 500)
	c.Until = "d"
	if _, err := Resolve(scene(4000, c, fade("d", doc.Entrance, when(doc.WhenBegins, "c", 900), 500)), 0); err != nil {
		t.Errorf("no ring, yet refused: %v", err)
	}
}

func TestWhatLastsTheWholeSceneHasNoEndToHangOn(t *testing.T) {
	spin := &doc.Move{ID: "s", Kind: doc.Loop, Effect: effect.Spin, Duration: 1000, Lasts: "scene", Start: at(0)}
	_, err := Resolve(scene(4000, spin, fade("f", doc.Entrance, when(doc.WhenEnds, "s", 0), 500)), 0)
	if err == nil || !strings.Contains(err.Error(), "whole scene") {
		t.Errorf("got %v", err)
	}
}

func TestBeginsReachBackIntoTheOwnTransitionAndNoFurther(t *testing.T) {
	r := resolve(t, scene(4000, fade("a", doc.Entrance, at(-300), 500), fade("b", doc.Entrance, at(-900), 500)), 700)
	if a, b := r.Moves["a"], r.Moves["b"]; a.Begin != -300 || a.Early || b.Begin != -700 || !b.Early {
		t.Errorf("a %+v, b %+v", a, b)
	}
}

func TestPresenceComesGoesAndComesAgain(t *testing.T) {
	s := scene(9000,
		fade("in", doc.Entrance, at(1000), 1000), fade("out", doc.Exit, at(4000), 1000),
		&doc.Move{ID: "again", Kind: doc.Entrance, Effect: effect.AtOnce, Start: at(7000)},
		fade("idle", doc.Exit, at(6000), 500), // does nothing: the layer is absent
	)
	k := NewTrack(s.Layers[0], resolve(t, s, 0), Extent{}, nil)
	for _, c := range []struct {
		ms      int64
		present bool
		opacity float64
	}{{0, false, 0}, {999, false, 0}, {1500, true, 0.5}, {2000, true, 1}, {3999, true, 1}, {4250, true, 0.75}, {5000, false, 0}, {6200, false, 0}, {6999, false, 0}, {7000, true, 1}, {9000, true, 1}} {
		p := k.At(Clock{At: Millis(c.ms), Stay: 9000}, nil)
		if p.Present != c.present || c.present && math.Abs(p.Opacity-c.opacity) > 1e-9 {
			t.Errorf("at %d ms: %+v, want present %v, opacity %v", c.ms, p, c.present, c.opacity)
		}
	}
}

// What Idle says changes nothing can be taken away without a trace.
func TestIdleMovesChangeNothing(t *testing.T) {
	r := rand.New(rand.NewPCG(18, 12))
	seen := func(p Pose) float64 {
		if !p.Present {
			return 0
		}
		return p.Opacity
	}
	told := 0
	for range 400 {
		var moves []*doc.Move
		for i := range 2 + r.IntN(4) {
			kind := []string{doc.Entrance, doc.Exit}[r.IntN(2)]
			moves = append(moves, fade(string(rune('a'+i)), kind, at(int64(1+r.IntN(40))*100+int64(i)), int64(2+r.IntN(12))*100))
		}
		s := scene(9000, moves...)
		timing := resolve(t, s, 0)
		whole := NewTrack(s.Layers[0], timing, Extent{}, nil)
		for i, m := range moves {
			less := scene(9000, append(append([]*doc.Move(nil), moves[:i]...), moves[i+1:]...)...)
			k := NewTrack(less.Layers[0], timing, Extent{}, nil)
			same := true
			for ms := int64(50); ms < 6000 && same; ms += 100 {
				c := Clock{At: Millis(ms), Stay: 9000}
				a, b := whole.At(c, nil), k.At(c, nil)
				same = math.Abs(seen(a)-seen(b)) < 1e-9
			}
			if !Idle(s.Layers[0], timing, m.ID) {
				continue
			}
			if told++; !same {
				t.Fatalf("%s of %v is not idle", m.ID, timing.Moves)
			}
		}
	}
	if told < 100 {
		t.Errorf("only %d were idle", told)
	}
}

func TestAnEntranceThatOverlapsAnExitNeverJumps(t *testing.T) {
	s := scene(5000, fade("out", doc.Exit, at(1000), 1000), fade("in", doc.Entrance, at(1500), 1000))
	k := NewTrack(s.Layers[0], resolve(t, s, 0), Extent{}, nil)
	last := 1.0
	for ms := int64(900); ms < 3000; ms++ {
		a := k.At(Clock{At: Millis(ms), Stay: 5000}, nil).Opacity
		if math.Abs(a-last) > 0.0015 {
			t.Fatalf("opacity jumps from %v to %v at %d ms", last, a, ms)
		}
		last = a
	}
	within(t, "opacity in the overlap at 1.75 s", k.At(Clock{At: Millis(1750), Stay: 5000}, nil).Opacity, 1-(1-0.25)*(1-0.25), 1e-9)
}

func TestArrivingPathsHoldTheirOffsetFromClockZero(t *testing.T) {
	p := straight("p", at(1000), 1000)
	p.Path.Rest = doc.Arrives
	s := scene(4000, p)
	k := NewTrack(s.Layers[0], resolve(t, s, 0), Extent{}, nil)
	for ms, want := range map[int64]float64{0: -300, 1000: -300, 1500: -150, 2000: 0, 4000: 0} {
		within(t, "offset", k.At(Clock{At: Millis(ms), Stay: 4000}, nil).Offset.X, want, 1e-9)
	}
}

func TestAFiniteSpinKeepsItsEndValue(t *testing.T) {
	spin := &doc.Move{ID: "s", Kind: doc.Loop, Effect: effect.Spin, Duration: 1000, Repeat: 2.25, Start: at(500)}
	s := scene(6000, spin)
	k := NewTrack(s.Layers[0], resolve(t, s, 0), Extent{}, nil)
	for ms, want := range map[int64]float64{0: 0, 500: 0, 750: 90, 1500: 360, 2750: 810, 6000: 810} {
		within(t, "turn", k.At(Clock{At: Millis(ms), Stay: 6000}, nil).Loops.Turn, want, 1e-9)
	}
}

// Frames one period apart are equal to the last bit, at every rate (section 1).
func TestFramesOnePeriodApartAreEqual(t *testing.T) {
	spin := &doc.Move{ID: "s", Kind: doc.Loop, Effect: effect.Spin, Duration: 1000, Lasts: "scene", Start: at(0)}
	s := scene(60000, spin)
	k := NewTrack(s.Layers[0], resolve(t, s, 0), Extent{}, nil)
	for _, fps := range []int64{24, 25, 30, 50, 60} {
		for i := int64(0); i < fps; i++ {
			a := k.At(Clock{At: FrameTime(i, fps, 1), Stay: 60000}, nil)
			b := k.At(Clock{At: FrameTime(i+7*fps, fps, 1), Stay: 60000}, nil)
			if !reflect.DeepEqual(a, b) {
				t.Fatalf("%d fps, frame %d: %v and seven turns later %v", fps, i, a.Loops.Turn, b.Loops.Turn)
			}
		}
	}
	if a, b := k.At(Clock{At: FrameTime(12, 24, 1)}, nil), k.At(Clock{At: FrameTime(30, 60, 1)}, nil); !reflect.DeepEqual(a, b) {
		t.Error("24 and 60 fps differ at the same time")
	}
}

func TestContinuedSpinsKeepTheirPhase(t *testing.T) {
	mk := func(id, continues string, pass int64) (*doc.Scene, *Track) {
		m := &doc.Move{ID: id, Kind: doc.Loop, Effect: effect.Spin, Duration: pass, Lasts: "scene", Start: at(0), Continues: continues}
		s := scene(1700, m)
		return s, NewTrack(s.Layers[0], resolve(t, s, 600), Extent{}, nil)
	}
	_, a := mk("a", "", 1000)
	_, b := mk("b", "a", 1000)
	_, c := mk("c", "b", 1000)
	Link(a, b, 1700, 600)
	Link(b, c, 1700, 600)
	// Film time 1700 + 600 + 1700 + 600 = 4600 at c's clock 0.
	within(t, "turn at c's clock 0", c.At(Clock{At: Millis(0), Stay: 1700}, nil).Loops.Turn, 360*0.6, 1e-9)
	// Across the transition both sides are one function of time.
	for tau := int64(0); tau <= 600; tau += 50 {
		from := Clock{At: Millis(1700 + tau), Side: Leaving, Stay: 1700}
		into := Clock{At: Millis(tau - 600), Side: Entering, Stay: 1700}
		got := LoopsBetween(a, b, from, into, even(tau, 600), nil, nil).Turn
		within(t, "turn in the transition", got, 360*(float64((1700+tau)%1000)/1000), 1e-9)
		within(t, "turn of the coming side", b.At(into, nil).Loops.Turn, got, 1e-9)
	}
}

func TestFilmTimeIsHalfOpen(t *testing.T) {
	f := &doc.Film{Scenes: []*doc.Scene{{Stay: 1000}, {Stay: 500, Transition: doc.Transition{Kind: doc.Morph, Duration: 400}}, {Stay: 300}}}
	o := NewOrder(f, []int64{1000, 500, 300})
	if o.Length != 2200 {
		t.Fatalf("length %d", o.Length)
	}
	for _, c := range []struct {
		ms    int64
		scene int
		into  bool
		clock float64
	}{{-5, 0, false, 0}, {0, 0, false, 0}, {999, 0, false, 999}, {1000, 1, true, -400}, {1399, 1, true, -1}, {1400, 1, false, 0}, {1899, 1, false, 499}, {1900, 2, false, 0}, {2200, 2, false, 300}, {9999, 2, false, 300}} {
		w := o.At(Millis(c.ms))
		if w.Scene != c.scene || w.Into != c.into || w.Clock.Ms() != c.clock {
			t.Errorf("at %d: %+v", c.ms, w)
		}
	}
}

func TestAClosingTransitionLeadsBackToTheStart(t *testing.T) {
	f := &doc.Film{Loop: true, Closing: &doc.Transition{Kind: doc.Morph, Duration: 120}, Scenes: []*doc.Scene{{}, {Transition: doc.Transition{Kind: doc.Morph, Duration: 120}}}}
	o := NewOrder(f, []int64{0, 0})
	if o.Length != 240 {
		t.Fatalf("length %d", o.Length)
	}
	if w := o.At(Millis(180)); !w.Into || w.From != 1 || w.Scene != 0 || w.Share != 0.5 {
		t.Errorf("in the closing transition: %+v", w)
	}
	if w := o.At(Millis(240)); w.Into || w.Scene != 0 || w.Clock.Ms() != 0 {
		t.Errorf("at the length: %+v", w)
	}
}

// Section 1 and 11: n = max(1, floor(L fps + 1/2)); 12.7 s at 30000/1001 is 381 frames (380.62).
func TestFrameCounts(t *testing.T) {
	for _, c := range []struct{ ms, num, den, want int64 }{
		{12700, 30, 1, 381}, {12700, 30000, 1001, 381}, {1000, 24, 1, 24}, {10, 24, 1, 1}, {20, 24, 1, 1}, {2880, 24, 1, 69}, {3600000, 240, 1, 864000}, {50, 30, 1, 2},
	} {
		if got := Frames(c.ms, c.num, c.den); got != c.want {
			t.Errorf("%d ms at %d/%d: %d frames, want %d", c.ms, c.num, c.den, got, c.want)
		}
	}
}

// Section 1: auto stay = end of the finite moves + 0.5 s, or the time to read the words, or 2 s.
func TestAutoStay(t *testing.T) {
	if got := resolve(t, &doc.Scene{AutoStay: true}, 0).Stay; got != 2000 {
		t.Errorf("an empty scene stays %d", got)
	}
	s := scene(0, straight("p", at(500), 3000))
	s.AutoStay = true
	if got := resolve(t, s, 0).Stay; got != 4000 {
		t.Errorf("3.5 s of moves: %d", got)
	}
	out := fade("f", doc.Exit, at(3000), 800)
	late := fade("g", doc.Exit, doc.Start{When: doc.BeforeSceneEnd, Offset: 400}, 400)
	s = scene(0, out)
	s.AutoStay = true
	if got := resolve(t, s, 0).Stay; got != 3800 {
		t.Errorf("an exit needs no tail: %d", got)
	}
	s = scene(0, straight("p", at(0), 1000), late)
	s.AutoStay = true
	r := resolve(t, s, 0)
	if r.Stay != 1500 || r.Moves["g"].Begin != 1100 {
		t.Errorf("moves hung on the scene's end do not count: stay %d, fade at %d", r.Stay, r.Moves["g"].Begin)
	}
	words := &doc.Layer{ID: "w", Thread: "w", Kind: doc.TextKind, Text: &doc.Text{Runs: []doc.Run{{Text: "one two three four five six seven eight nine"}}}}
	s = &doc.Scene{AutoStay: true, Layers: []*doc.Layer{words}}
	if got := resolve(t, s, 0).Stay; got != 3500 {
		t.Errorf("nine words: %d", got)
	}
}

func TestEasingRefusesWhatCSSRefuses(t *testing.T) {
	for _, s := range []string{"", "bounce", "cubic-bezier(1.1,0,0,1)", "cubic-bezier(0,0,0)", "steps(0)", "steps(1,jump-none)", "steps(2,sideways)", "linear(0)", "linear(0 10% 20% 30%, 1)", "cubic-bezier(a,b,c,d)"} {
		if _, err := ParseEasing(s); err == nil {
			t.Errorf("%q was taken", s)
		}
	}
}

// CSS Easing Functions Level 2, section 2.3: the jump table of steps().
func TestStepsJumpWhereTheySay(t *testing.T) {
	for _, c := range []struct {
		s    string
		x    float64
		want float64
	}{
		{"steps(4)", 0.24, 0}, {"steps(4)", 0.25, 0.25}, {"steps(4)", 1, 1}, {"steps(4,jump-start)", 0, 0.25}, {"steps(4,jump-start)", 0.99, 1},
		{"steps(4,jump-none)", 0.3, 1.0 / 3}, {"steps(4,jump-both)", 0, 0.2}, {"steps(4,jump-both)", 0.99, 0.8}, {"step-start", 0, 1}, {"step-end", 0.999, 0},
	} {
		e, err := ParseEasing(c.s)
		if err != nil {
			t.Fatal(err)
		}
		within(t, c.s, e(c.x), c.want, 1e-12)
	}
}

func BenchmarkTrackAt(b *testing.B) {
	s := scene(9000, straight("p", at(0), 6000), fade("f", doc.Entrance, at(0), 600), &doc.Move{ID: "s", Kind: doc.Loop, Effect: effect.Spin, Duration: 1000, Lasts: "scene", Start: at(0)})
	r, _ := Resolve(s, 0)
	k := NewTrack(s.Layers[0], r, Extent{}, nil)
	b.ReportAllocs()
	for i := 0; b.Loop(); i++ {
		k.At(Clock{At: FrameTime(int64(i%180), 30, 1), Stay: 9000}, nil)
	}
}
