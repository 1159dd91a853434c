package oracles

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/doc"
	"capstan/core/motion"
)

// hung is a move of a random graph, in the words of Web Animations.
type hung struct {
	Duration   int64
	Iterations float64
	Alternate  bool
	When, Of   int // When: 0 at a time, 1 when Of begins, 2 when Of ends, 3 ends when Of ends, 4 ends when Of begins
	Offset     int64
	At         []int64
}

// Hitches resolved by us, and by a page that gives every move to Chromium as an animation and asks it when that ends: begins and
// ends equal, and progress and current iteration to 1e-6 (Web Animations Level 1, section 4.5 to 4.9; SMIL 3.0, timing by events).
func TestHitchGraphsAgreeWithWebAnimations(t *testing.T) {
	r := rand.New(rand.NewPCG(25, 26))
	var graphs [][]hung
	for g := 0; g < 60; g++ {
		n := 2 + r.IntN(12)
		list := make([]hung, n)
		for i := range list {
			m := hung{Duration: 10 + r.Int64N(3000), Iterations: []float64{1, 1, 2, 3, 1.5}[r.IntN(5)], Alternate: r.IntN(3) == 0, Offset: r.Int64N(1200) - 300}
			active := int64(math.Round(float64(m.Duration) * m.Iterations))
			m.Iterations = float64(active) / float64(m.Duration)
			if i > 0 {
				m.When, m.Of = r.IntN(5), r.IntN(i)
			}
			if m.When == 0 {
				m.Offset = max(m.Offset, 0)
			}
			for k := 0; k < 12; k++ {
				m.At = append(m.At, r.Int64N(12000))
			}
			list[i] = m
		}
		graphs = append(graphs, list)
	}
	type answer struct {
		Begin, End float64
		Progress   []float64
		Iteration  []float64
	}
	got := ask[[]answer](t, `graph => {
		const done = []
		for (const m of graph) {
			const of = done[m.Of]
			const make = delay => {
				const a = document.createElement('div').animate(null, {duration: m.Duration, delay, iterations: m.Iterations, direction: m.Alternate ? 'alternate' : 'normal', fill: 'both'})
				a.pause()
				return a
			}
			const length = make(0).effect.getComputedTiming().activeDuration
			let begin = [() => m.Offset, () => of.begin + m.Offset, () => of.end + m.Offset, () => of.end - length, () => of.begin - length][m.When]()
			begin = Math.max(begin, -20000)
			const a = make(begin)
			const t = a.effect.getComputedTiming()
			done.push({a, begin, end: begin + t.activeDuration, m})
		}
		return done.map(d => ({Begin: d.begin, End: d.end,
			Progress: d.m.At.map(x => { d.a.currentTime = x; return d.a.effect.getComputedTiming().progress }),
			Iteration: d.m.At.map(x => { d.a.currentTime = x; return d.a.effect.getComputedTiming().currentIteration })}))
	}`, graphs)
	checked := 0
	for g, list := range graphs {
		s := &doc.Scene{ID: "s", Stay: 60000}
		for i, m := range list {
			v := &doc.Move{
				ID: fmt.Sprint("m", i), Kind: doc.MotionPath, Effect: doc.Along, Easing: "linear", Duration: m.Duration, Repeat: m.Iterations, Alternate: m.Alternate,
				Path: &doc.PathParams{D: "M0 0L1 0"}, Start: doc.Start{When: doc.AtTime, Offset: m.Offset},
			}
			switch of := fmt.Sprint("m", m.Of); m.When {
			case 1:
				v.Start = doc.Start{When: doc.WhenBegins, Of: of, Offset: m.Offset}
			case 2:
				v.Start = doc.Start{When: doc.WhenEnds, Of: of, Offset: m.Offset}
			case 3:
				v.End = &doc.Anchor{When: doc.WhenEnds, Of: of}
			case 4:
				v.End = &doc.Anchor{When: doc.WhenBegins, Of: of}
			}
			// The order of rows must not matter: some hang on what comes after them.
			l := &doc.Layer{ID: fmt.Sprint("l", i), Thread: fmt.Sprint("t", i), Kind: doc.Rectangle, Opacity: 1, Moves: []*doc.Move{v}}
			if i%2 == 0 {
				s.Layers = append(s.Layers, l)
			} else {
				s.Layers = append([]*doc.Layer{l}, s.Layers...)
			}
		}
		timing, err := motion.Resolve(s, 20000)
		if err != nil {
			t.Fatal(err)
		}
		for i, m := range list {
			iv, a := timing.Moves[fmt.Sprint("m", i)], got[g][i]
			if math.Abs(float64(iv.Begin)-a.Begin) > 1e-6 || math.Abs(float64(iv.End)-a.End) > 1e-6 {
				t.Fatalf("graph %d, move %d: %d to %d, Chromium says %v to %v", g, i, iv.Begin, iv.End, a.Begin, a.End)
			}
			for k, at := range m.At {
				n, x := iv.Progress(motion.Millis(at), m.Alternate)
				// On the border of a pass Chromium, which counts in floating point, may stand on its other side.
				if since := at - iv.Begin; since >= 0 && (at == iv.End || since%m.Duration == 0) {
					continue
				}
				checked++
				if math.Abs(x-a.Progress[k]) > 1e-6 || float64(n) != a.Iteration[k] {
					t.Errorf("graph %d, move %d (%+v) at %d: pass %d, progress %v; Chromium says %v, %v", g, i, iv, at, n, x, a.Iteration[k], a.Progress[k])
				}
			}
		}
	}
	if checked < 3000 {
		t.Errorf("only %d times were checked", checked)
	}
}
