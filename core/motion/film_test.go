package motion

import (
	"math"
	"testing"

	"capstan/core/doc"
)

func morphs(goesOn ...bool) *doc.Film {
	f := &doc.Film{Scenes: []*doc.Scene{{Stay: 1000}}}
	for _, on := range goesOn {
		f.Scenes = append(f.Scenes, &doc.Scene{Transition: doc.Transition{Kind: doc.Morph, Duration: 500, GoesOn: on}})
	}
	return f
}

func stays(f *doc.Film) []int64 {
	var out []int64
	for _, s := range f.Scenes {
		out = append(out, s.Stay)
	}
	return out
}

// docs/motion.md, section 6: in a run of morphs x = T clamp(ease(u)); the segment holding x, and the share in it, are shown, while
// loops stay on film time.
func TestRunsOfMorphsMoveAsOne(t *testing.T) {
	f := morphs(false, true, true)
	o := NewOrder(f, stays(f))
	if run := o.RunOf(2); len(run) != 3 || run[0] != 1 || run[2] != 3 {
		t.Fatalf("run %v", run)
	}
	square := func(x float64) float64 { return x * x }
	for _, c := range []struct {
		ms    int64
		scene int
		share float64
	}{
		{1000, 1, 0}, {1750, 1, 0.75}, // u = 1/2, x = 375 of 1500 ms
		{2100, 2, (1500*(1100.0/1500)*(1100.0/1500) - 500) / 500}, {2400, 3, (1500*(1400.0/1500)*(1400.0/1500) - 1000) / 500},
	} {
		w := o.At(Millis(c.ms))
		got, e := o.InRun(w, Millis(c.ms), square)
		if got.Scene != c.scene || got.From != c.scene-1 {
			t.Errorf("at %d ms it shows the morph into scene %d", c.ms, got.Scene)
		}
		within(t, "share", e, c.share, 1e-9)
		// Loops: the clock of the scene before stays on film time.
		within(t, "time since that morph's own begin", got.Since.Ms(), float64(c.ms-1000-500*int64(c.scene-1)), 1e-9)
	}
	// By itself, each is eased in and out.
	f = morphs(false, false)
	o = NewOrder(f, stays(f))
	w := o.At(Millis(1250))
	if got, e := o.InRun(w, Millis(1250), square); got.Scene != 1 || e != 0.25 || o.RunOf(1) != nil {
		t.Errorf("%+v %v", got, e)
	}
	// A scene that stays breaks the run, and so does another kind of transition.
	f = morphs(false, true, true)
	f.Scenes[1].Stay = 10
	f.Scenes[3].Transition.Kind = doc.Crossfade
	o = NewOrder(f, stays(f))
	if o.RunOf(1) != nil || o.RunOf(3) != nil {
		t.Errorf("%v %v", o.RunOf(1), o.RunOf(3))
	}
}

func TestTheClosingMorphGoesOnARun(t *testing.T) {
	f := morphs(false, true)
	f.Loop, f.Closing = true, &doc.Transition{Kind: doc.Morph, Duration: 500, GoesOn: true}
	o := NewOrder(f, stays(f))
	if run := o.RunOf(0); len(run) != 3 || run[2] != 0 {
		t.Fatalf("run %v", run)
	}
	at := Millis(2250)
	w, e := o.InRun(o.At(at), at, Linear)
	if w.Scene != 0 || w.From != 2 || e != 0.5 {
		t.Errorf("%+v %v", w, e)
	}
}

// Section 5: paths may last as long as the thread lives: the clock is the film time of its run of scenes.
func TestPathsLastAsLongAsTheThread(t *testing.T) {
	m := straight("p", at(0), 0)
	m.Lasts = doc.WholeThread
	layer := func(moves ...*doc.Move) []*doc.Layer {
		return []*doc.Layer{{ID: "l", Thread: "kite", Kind: doc.Rectangle, Moves: moves}}
	}
	f := morphs(false, false, false, false)
	f.Scenes[1].Stay, f.Scenes[1].Layers = 1000, layer()
	f.Scenes[2].Stay, f.Scenes[2].Layers = 2000, layer(m)
	f.Scenes[4].Layers = layer() // after a gap: another life
	o := NewOrder(f, stays(f))
	l := LastingPaths(f, o)
	// It lives from 1.5 s to 5.0 s of the film.
	for i, want := range map[int]int64{1: 0, 2: -1500} {
		iv := l[i]["kite"][0].Interval
		if iv.Begin != want || iv.End != want+3500 {
			t.Errorf("on the clock of scene %d: %+v", i, iv)
		}
	}
	if len(l[4]["kite"]) != 0 || len(l[0]["kite"]) != 0 {
		t.Error("it lasts beyond the thread")
	}
	r := resolve(t, f.Scenes[2], 500)
	k := NewTrack(f.Scenes[2].Layers[0], r, Extent{}, l[2]["kite"])
	within(t, "half way through its life", k.At(Clock{At: Millis(250), Stay: 2000}, nil).Offset.X, 150, 1e-9)
	within(t, "in the transition, on film time", k.At(Clock{At: Millis(-250), Side: Entering, Stay: 2000}, nil).Offset.X, 300*1250.0/3500, 1e-9)
}

// Section 2: as long as the scene keeps its distance; with the option it keeps its speed and goes on along its end.
func TestPathsThatLastTheScene(t *testing.T) {
	m := straight("p", at(0), 1000)
	m.Lasts = doc.WholeScene
	s := scene(4000, m)
	k := NewTrack(s.Layers[0], resolve(t, s, 0), Extent{}, nil)
	within(t, "distance kept", k.At(Clock{At: Millis(2000), Stay: 4000}, nil).Offset.X, 150, 1e-9)
	m.Keeps = "speed"
	k = NewTrack(s.Layers[0], resolve(t, s, 0), Extent{}, nil)
	within(t, "speed kept", k.At(Clock{At: Millis(2500), Stay: 4000}, nil).Offset.X, 750, 1e-9)
}

func TestLiveEndsCanStretch(t *testing.T) {
	a := straight("a", at(0), 3000)
	b := straight("b", at(500), 1000)
	b.End = &doc.Anchor{When: doc.WhenEnds, Of: "a", Stretches: true}
	iv := resolve(t, scene(9000, a, b), 0).Moves["b"]
	if iv.Begin != 500 || iv.End != 3000 || iv.Pass != 2500 {
		t.Errorf("%+v", iv)
	}
	b.Repeat = 2
	if iv = resolve(t, scene(9000, a, b), 0).Moves["b"]; iv.Pass != 1250 || iv.Passes != 2 {
		t.Errorf("%+v", iv)
	}
}

// A film of 200 scenes costs the same to find one's way in as one of two.
func BenchmarkOrderAt(b *testing.B) {
	for _, n := range []int{2, 200} {
		f := &doc.Film{}
		for range n {
			f.Scenes = append(f.Scenes, &doc.Scene{Stay: 1000})
		}
		o := NewOrder(f, stays(f))
		b.Run(map[int]string{2: "2", 200: "200"}[n], func(b *testing.B) {
			for i := int64(0); b.Loop(); i++ {
				o.At(Millis(i * 37 % o.Length))
			}
		})
	}
}

// Section 11: eight scenes that do not stay, seven morphs and a closing one of 0.12 s: 0.96 s a cycle, 2.08 steps a second;
// 24 x 0.12 = 2.88 s without drift; four stays of 1.5 s and three morphs of 0.7 s: 8.1 s.
func TestLengthsOfShortScenes(t *testing.T) {
	build := func(n int, stay, into, closing int64) *Order {
		f := &doc.Film{Loop: true}
		stays := make([]int64, n)
		for i := range stays {
			s := &doc.Scene{Stay: stay}
			if i > 0 {
				s.Transition = doc.Transition{Kind: doc.Morph, Duration: into}
			}
			f.Scenes = append(f.Scenes, s)
			stays[i] = stay
		}
		if closing > 0 {
			f.Closing = &doc.Transition{Kind: doc.Morph, Duration: closing}
		}
		return NewOrder(f, stays)
	}
	if o := build(8, 0, 120, 120); o.Length != 960 {
		t.Errorf("eight poses last %d ms", o.Length)
	} else if w := o.At(Millis(420)); !w.Into || w.From != 3 || w.Scene != 4 || w.Share != 0.5 {
		t.Errorf("at 0.42 s: %+v", w)
	} else if steps := 2 / (float64(o.Length) / 1000); math.Abs(steps-2.08) > 0.005 {
		t.Errorf("%.2f steps a second", steps)
	}
	if o := build(24, 0, 120, 120); o.Length != 2880 || Frames(o.Length, 24, 1) != 69 || Frames(o.Length, 60, 1) != 173 {
		t.Errorf("24 poses last %d ms", o.Length)
	}
	if o := build(4, 1500, 700, 0); o.Length != 8100 {
		t.Errorf("four turns last %d ms", o.Length)
	}
}
