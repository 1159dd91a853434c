package motion

import (
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
)

// even is an even passage of into ms that has gone on for since ms.
func even(since, into int64) *Passage {
	return &Passage{P: float64(since) / float64(into), Since: float64(since), Into: float64(into), Length: float64(into), Ease: Linear}
}

// Loops that come round go over into each other without a jump, whatever their cycles, senses and phases, linked or not: between two moments of
// a morph they turn by the faster one's rate, and by what the short way to the coming one's phase takes; both ends are met (docs/motion.md, 5).
func TestLoopsGoOverIntoEachOther(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 5))
	easings := []string{"linear", "ease", "ease-in-out", "cubic-bezier(0.3,0,0.2,1)", "cubic-bezier(0.9,0.1,0.9,0.4)"}
	for n := range 500 {
		scroll := n%3 == 2
		box := geom.Box{Max: geom.Point{X: 20 + r.Float64()*400, Y: 30}}
		mk := func(id, continues string) (*doc.Scene, *Track, float64) {
			m := &doc.Move{ID: id, Kind: doc.Loop, Effect: doc.Spin, Duration: 200 + r.Int64N(3000), Lasts: doc.WholeScene, Start: at(0), Continues: continues, Spin: &doc.SpinParams{Anticlockwise: r.IntN(2) == 0}}
			rate := 1 / float64(m.Duration)
			if scroll {
				m.Effect, m.Duration, m.Scroll = doc.Scroll, 0, &doc.ScrollParams{Direction: float64(180 * r.IntN(2)), Speed: 20 + r.Float64()*400}
				rate = 1 / float64(CycleOfScroll(m, box))
			}
			s := scene(300+r.Int64N(3000), m)
			return s, NewTrack(s.Layers[0], resolve(t, s, 600), Extent{Box: box}, nil), rate
		}
		continues := ""
		if n%2 == 0 {
			continues = "a"
		}
		sa, a, ra := mk("a", "")
		_, b, rb := mk("b", continues)
		into := 200 + r.Int64N(2000)
		Link(a, b, sa.Stay, into)
		ease, err := ParseEasing(easings[r.IntN(len(easings))])
		if err != nil {
			t.Fatal(err)
		}
		phase := func(p Pose) float64 {
			if scroll {
				return p.Scroll.X / p.Period.X
			}
			return p.Turn / 360
		}
		pose := func(us int64) (Pose, float64) {
			x := float64(us) / 1000 / float64(into)
			p := &Passage{P: ease(x), Since: float64(us) / 1000, Into: float64(into), Length: float64(into), Ease: ease}
			since := reduce(us, 1000)
			from := Clock{At: since.Add(sa.Stay), Side: Leaving, Stay: sa.Stay}
			return LoopsBetween(a, b, from, Clock{At: since.Sub(into), Side: Entering, Stay: 5000}, p, nil, nil), p.P
		}
		apart := func(x, y float64) float64 { d := math.Abs(x - y); return math.Abs(d - math.Round(d)) }
		first, _ := pose(0)
		last, _ := pose(into * 1000)
		if d := apart(phase(first), phase(a.At(Clock{At: Millis(sa.Stay), Stay: sa.Stay}))); d > 1e-9 {
			t.Errorf("%d: as the morph begins the loop jumps by %v rounds", n, d)
		}
		if d := apart(phase(last), phase(b.At(Clock{At: Millis(0), Stay: 5000}))); d > 1e-9 {
			t.Errorf("%d: as it ends it jumps by %v rounds", n, d)
		}
		was, p0 := pose(0)
		const steps = 200
		for k := int64(1); k <= steps; k++ {
			us := into * 1000 * k / steps
			is, p1 := pose(us)
			dt := float64(into) / steps
			// The sums over the morph are worked out to 1e-4 of a round.
			if d, most := apart(phase(is), phase(was)), (math.Max(ra, rb))*dt+0.5*math.Abs(p1-p0)+2e-4; d > most && most < 0.5 {
				t.Fatalf("%d: from %v to %v of the morph it goes %v rounds, at most %v", n, p0, p1, d, most)
			}
			was, p0 = is, p1
		}
	}
	// A run of morphs with one easing over all of it: where one segment ends and the next begins the progress is the same, and so are the sums.
	run := Passage{Into: 400, Ease: func(x float64) float64 { return x * x }, Length: 1200, From: -400, X: 400}
	if a, b := run.progress(run.Since-400), run.progress(1000); a != 0 || b != 1 {
		t.Errorf("at its ends the second segment has come to %v and %v", a, b)
	}
}
