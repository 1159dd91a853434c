package oracles

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/text"
)

// Web Animations Level 1, section 5.4 (composite: replace, the first keyframe left to the underlying value), by Chromium: what several changes of
// one layer come to that follow each other, overlap, come back and name other fields.
func TestChangesAgreeWithWebAnimations(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 32))
	type change struct {
		Begin, Duration, Passes int64
		Alternate               bool
		Easing                  string
		X, W, Turn              *float64
	}
	type c struct {
		Changes []change
		At      []int64
	}
	easings := []string{"linear", "ease-in-out", "cubic-bezier(0.3,1.4,0.6,1)", "steps(4, jump-end)"}
	var cases []c
	for range 120 {
		v := c{}
		for range 1 + r.IntN(4) {
			ch := change{Begin: 10 * r.Int64N(200), Duration: 100 + 10*r.Int64N(100), Passes: 1 + r.Int64N(3), Alternate: r.IntN(2) == 0, Easing: easings[r.IntN(len(easings))]}
			num := func(lo, hi float64) *float64 {
				if r.IntN(3) == 0 {
					return nil
				}
				n := math.Round(lo + r.Float64()*(hi-lo))
				return &n
			}
			ch.X, ch.W, ch.Turn = num(-500, 500), num(50, 400), num(-300, 300)
			v.Changes = append(v.Changes, ch)
		}
		// Of animations the one made last lies on top: ours lie in the order of their begins.
		slices.SortStableFunc(v.Changes, func(a, b change) int { return int(a.Begin - b.Begin) })
		for range 12 {
			v.At = append(v.At, 5+10*r.Int64N(480))
		}
		cases = append(cases, v)
	}
	got := ask[[][3]float64](t, `c => { const el = document.createElement('div'); el.style.cssText = 'position:absolute;left:100px;width:200px;rotate:20deg'; document.body.append(el)
		const all = c.Changes.map(k => { const to = {}; if (k.X !== null) to.left = k.X + 'px'; if (k.W !== null) to.width = k.W + 'px'; if (k.Turn !== null) to.rotate = k.Turn + 'deg'
			const a = el.animate([to], {duration: k.Duration, delay: k.Begin, iterations: k.Passes, direction: k.Alternate ? 'alternate' : 'normal', easing: k.Easing, fill: 'both'}); a.pause(); return a })
		const out = c.At.map(t => { for (const a of all) a.currentTime = t; const s = getComputedStyle(el); return [parseFloat(s.left), parseFloat(s.width), s.rotate === 'none' ? 0 : parseFloat(s.rotate)] })
		el.remove(); return out }`, cases)
	for i, c := range cases {
		l := &doc.Layer{ID: "l", Thread: "l", Name: "l", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 100, W: 200, H: 100, Turn: 20}}
		for k, ch := range c.Changes {
			m := &doc.Move{ID: string(rune('a' + k)), Kind: doc.Change, Effect: doc.Becoming, Start: doc.Start{When: doc.AtTime, Offset: ch.Begin}, Duration: ch.Duration, Repeat: float64(ch.Passes), Alternate: ch.Alternate, Easing: ch.Easing, Change: &doc.ChangeParams{To: doc.Becomes{X: ch.X, W: ch.W, Turn: ch.Turn}}}
			l.Moves = append(l.Moves, m)
		}
		p := doc.NewProject("p", "P", 640, 480, "s")
		p.Film.Scenes[0].Stay, p.Film.Scenes[0].Layers = 10000, []*doc.Layer{l}
		f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
		if err != nil {
			t.Fatal(err)
		}
		pl := f.Player()
		for k, at := range c.At {
			// Chromium counts in floating point, so on the border of a pass or a step it may stand on the other side: either will do, in each field.
			var near [3]bool
			var says [3]float64
			for _, d := range []int64{0, -1, 1} {
				pl.Stand(motion.Instant{Num: at*1_000_000 + d, Den: 1_000_000})
				q, _, _ := pl.Quad("l")
				w := q[1].Sub(q[0]).Len()
				says = [3]float64{(q[0].X + q[2].X) / 2, w, math.Atan2(q[1].Y-q[0].Y, q[1].X-q[0].X) * 180 / math.Pi}
				// Lengths are laid out in 64ths of a px there.
				near[0] = near[0] || math.Abs(says[0]-got[i][k][0]) <= 0.05
				near[1] = near[1] || math.Abs(w-max(got[i][k][1], 0)) <= 0.05
				near[2] = near[2] || w < 0.01 || math.Abs(math.Remainder(says[2]-got[i][k][2], 360)) <= 0.01
			}
			if near != [3]bool{true, true, true} {
				t.Errorf("%d at %d ms: at, wide and turned %v; Chromium says %v", i, at, says, got[i][k])
				break
			}
		}
	}
}
