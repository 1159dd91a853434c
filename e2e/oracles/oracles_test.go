// Package oracles holds the core against Chromium's own implementations of the standards it follows: Web
// Animations, CSS Easing, SVG geometry, CSS Transforms and CSS Color. Random cases go over in batches.
package oracles

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/paint"
	"capstan/e2e/browser"
)

func TestMain(m *testing.M) {
	code := m.Run()
	browser.Stop()
	os.Exit(code)
}

// ask runs a JavaScript function over all cases at once.
func ask[R any](t *testing.T, function string, cases any) []R {
	t.Helper()
	raw, err := json.Marshal(cases)
	if err != nil {
		t.Fatal(err)
	}
	return browser.Eval[[]R](t, browser.New(t), fmt.Sprintf("Promise.all((%s).map(%s))", raw, function))
}

// CSS Easing Functions Level 2, by Chromium: the progress an animation with linear time computes at many times.
func TestEasingsAgreeWithWebAnimations(t *testing.T) {
	r := rand.New(rand.NewPCG(21, 22))
	easings := []string{
		"linear", "ease", "ease-in", "ease-out", "ease-in-out", "step-start", "step-end", "steps(1)", "steps(7, jump-both)", "steps(3, jump-none)", "steps(5, jump-start)",
		"linear(0, 0.25, 1)", "linear(0, 0.9 20%, 0.4 60%, 1)", "linear(0 20%, 0.5 20% 60%, 1)", "linear(-0.2, 1.3 40%, 1)",
		"cubic-bezier(0,0,0,0)", "cubic-bezier(1,1,1,1)", "cubic-bezier(1,0,0,1)", "cubic-bezier(0,1,1,0)", "cubic-bezier(0,2,1,-1)", "cubic-bezier(0.3,1.5,0.6,1)",
	}
	for i := 0; i < 150; i++ {
		easings = append(easings, fmt.Sprintf("cubic-bezier(%.3f,%.3f,%.3f,%.3f)", r.Float64(), r.Float64()*4-1.5, r.Float64(), r.Float64()*4-1.5))
	}
	type c struct {
		Easing string    `json:"easing"`
		At     []float64 `json:"at"`
	}
	var cases []c
	for _, e := range easings {
		v := c{Easing: e}
		for i := 0; i < 30; i++ {
			v.At = append(v.At, math.Round(r.Float64()*1e6)/1e6)
		}
		v.At = append(v.At, 0, 1e-6, 0.5, 1-1e-6)
		cases = append(cases, v)
	}
	got := ask[[]float64](t, `c => { const a = document.createElement('div').animate(null, {duration: 1000000, easing: c.easing, fill: 'both'}); a.pause()
		return c.at.map(x => { a.currentTime = x * 1000000; return a.effect.getComputedTiming().progress }) }`, cases)
	for i, c := range cases {
		e, err := motion.ParseEasing(c.Easing)
		if err != nil {
			t.Fatalf("%s: %v", c.Easing, err)
		}
		for k, x := range c.At {
			// Chromium solves cubic-bezier to 1e-7 of the duration; where the curve is steep that shows.
			if d := math.Abs(e(x) - got[i][k]); d > 2e-5 {
				t.Errorf("%s at %v: %v, Chromium says %v", c.Easing, x, e(x), got[i][k])
			}
		}
	}
}

// Web Animations Level 1: computed progress for random durations, delays, iterations, directions; fill both, as paths
// do.
func TestPassesAgreeWithWebAnimations(t *testing.T) {
	r := rand.New(rand.NewPCG(23, 24))
	type c struct {
		Duration, Delay int64
		Iterations      float64
		Alternate       bool
		Easing          string
		At              []int64
	}
	easings := []string{"linear", "ease-in", "cubic-bezier(0.3,1.5,0.6,1)", "steps(4, jump-end)", "steps(3, start)", "steps(4, jump-both)", "steps(3, jump-none)"}
	var cases []c
	for i := 0; i < 400; i++ {
		v := c{10 + r.Int64N(4000), r.Int64N(3000) - 800, []float64{1, 2, 3, 1.5, 0.25, 2.75}[r.IntN(6)], r.IntN(2) == 0, easings[r.IntN(len(easings))], nil}
		active := int64(math.Round(float64(v.Duration) * v.Iterations))
		v.Iterations = float64(active) / float64(v.Duration) // whole milliseconds, as documents hold them
		for k := 0; k < 8; k++ {
			v.At = append(v.At, r.Int64N(9000)-1000)
		}
		v.At = append(v.At, v.Delay, v.Delay+v.Duration, v.Delay+active, v.Delay+active-1)
		cases = append(cases, v)
	}
	got := ask[[]float64](t, `c => { const a = document.createElement('div').animate(null, {duration: c.Duration, delay: c.Delay, iterations: c.Iterations, direction: c.Alternate ? 'alternate' : 'normal', easing: c.Easing, fill: 'both'}); a.pause()
		return c.At.map(x => { a.currentTime = x; return a.effect.getComputedTiming().progress }) }`, cases)
	for i, c := range cases {
		// What a layer does on a path of 1000 px is the progress: before the begin, after the end, and where steps stand on a step, too.
		m := &doc.Move{ID: "m", Kind: doc.MotionPath, Effect: doc.Along, Easing: c.Easing, Duration: c.Duration, Repeat: c.Iterations, Alternate: c.Alternate, Start: doc.Start{When: doc.AtTime, Offset: c.Delay}, Path: &doc.PathParams{D: "M0 0L1000 0"}}
		l := &doc.Layer{ID: "l", Thread: "l", Kind: doc.Rectangle, Moves: []*doc.Move{m}}
		timing, err := motion.Resolve(&doc.Scene{Stay: 20000, Layers: []*doc.Layer{l}}, 1000)
		if err != nil {
			t.Fatal(err)
		}
		track := motion.NewTrack(l, timing, motion.Extent{}, nil)
		e := func(at motion.Instant) float64 {
			return track.At(motion.Clock{At: at, Stay: 20000}, new(motion.Veils)).Offset.X / 1000
		}
		for k, at := range c.At {
			if at < 0 {
				continue // an animation never ends before 0 there; scene clocks know no such border
			}
			// Chromium counts in floating point, so just on the border of a pass or a step it may stand on the other
			// side; we decide in integers. Either side of the border will do, nothing else.
			ok := false
			var p float64
			for _, d := range []int64{0, -1, 1} {
				p = e(motion.Instant{Num: at*1_000_000 + d, Den: 1_000_000})
				ok = ok || math.Abs(p-got[i][k]) <= 1e-5
			}
			if !ok {
				t.Errorf("%+v at %d: %v, Chromium says %v", c, at, p, got[i][k])
			}
		}
	}
}

// SVG 2, by Chromium: length, and the point at a length, of random and odd paths.
func TestArcLengthAgreesWithSVG(t *testing.T) {
	r := rand.New(rand.NewPCG(25, 26))
	type c struct {
		D  string
		At []float64
	}
	ds := []string{
		"M0 0L100 0", "M0 0C100 0 0 0 100 0", "M0 0C100 100 0 100 100 0", "M0 0C0 0 100 100 100 100", "M0 0L50 0L50 0L50 80Z", "M0 0L10 0M50 50L90 50",
		"M0 0C300 0 -200 0 100 0", "M-1710 560C-1180 640 -760 40 0 0", "M0 0C0 0 0 0 60 60L60 60",
	}
	for i := 0; i < 200; i++ {
		d := "M0 0"
		for k := 0; k <= r.IntN(4); k++ {
			if r.IntN(3) == 0 {
				d += fmt.Sprintf("L%.1f %.1f", r.NormFloat64()*200, r.NormFloat64()*200)
			} else {
				d += fmt.Sprintf("C%.1f %.1f %.1f %.1f %.1f %.1f", r.NormFloat64()*200, r.NormFloat64()*200, r.NormFloat64()*200, r.NormFloat64()*200, r.NormFloat64()*200, r.NormFloat64()*200)
			}
		}
		ds = append(ds, d)
	}
	var cases []c
	for _, d := range ds {
		cases = append(cases, c{d, []float64{0, 0.1, 0.25, 0.5, 0.66, 0.9, 1}})
	}
	got := ask[[]float64](t, `c => { const p = document.createElementNS('http://www.w3.org/2000/svg', 'path'); p.setAttribute('d', c.D); const l = p.getTotalLength()
		return [l, ...c.At.flatMap(x => { const q = p.getPointAtLength(x * l); return [q.x, q.y] })] }`, cases)
	for i, c := range cases {
		p, err := geom.ParseData(c.D)
		if err != nil {
			t.Fatal(err)
		}
		m := geom.NewMeasure(p)
		// Chromium measures chords of a few tenths of a px: its lengths are up to some tenths of a per cent short.
		if want := got[i][0]; math.Abs(m.Length()-want) > 0.004*want+0.05 {
			t.Errorf("%s is %v long, Chromium says %v", c.D, m.Length(), want)
			continue
		}
		for k, share := range c.At {
			q, _ := m.At(share)
			w := geom.Point{X: got[i][1+2*k], Y: got[i][2+2*k]}
			// At a cusp a small difference in length is a small difference in place all the same.
			if q.Sub(w).Len() > 0.006*m.Length()+0.1 {
				t.Errorf("%s at %v: %v, Chromium says %v", c.D, share, q, w)
			}
		}
	}
}

// CSS Transforms 1, by Chromium's DOMMatrix.
func TestMatricesAgreeWithCSSTransforms(t *testing.T) {
	r := rand.New(rand.NewPCG(27, 28))
	type c struct{ X, Y, Turn, SX, SY, PX, PY float64 }
	var cases []c
	for i := 0; i < 300; i++ {
		cases = append(cases, c{r.NormFloat64() * 500, r.NormFloat64() * 500, r.NormFloat64() * 720, r.NormFloat64() * 3, r.NormFloat64() * 3, r.NormFloat64() * 100, r.NormFloat64() * 100})
	}
	got := ask[[]float64](t, `c => { const m = new DOMMatrix().translate(c.X, c.Y).translate(c.PX, c.PY).rotate(c.Turn).translate(-c.PX, -c.PY).scale(c.SX, c.SY); return [m.a, m.b, m.c, m.d, m.e, m.f] }`, cases)
	for i, c := range cases {
		m := geom.Translate(geom.Point{X: c.X, Y: c.Y}).Mul(geom.Rotate(c.Turn).About(geom.Point{X: c.PX, Y: c.PY})).Mul(geom.Scale(c.SX, c.SY))
		for k, v := range []float64{m.A, m.B, m.C, m.D, m.E, m.F} {
			// Chromium takes its arguments in single precision: 1e-7 of what was multiplied and added.
			if math.Abs(v-got[i][k]) > 1e-6*(1+math.Abs(v))+2e-7*float64(k/4)*1000 {
				t.Errorf("%+v: %v, Chromium says %v", c, m, got[i])
				break
			}
		}
	}
}

// CSS Color 4 and 5, by Chromium: color-mix in oklab with premultiplied opacity.
func TestMixturesAgreeWithColorMix(t *testing.T) {
	r := rand.New(rand.NewPCG(29, 30))
	type c struct {
		A, B string
		P    float64
	}
	hex := func() string {
		s := fmt.Sprintf("#%02x%02x%02x", r.IntN(256), r.IntN(256), r.IntN(256))
		if r.IntN(2) == 0 {
			s += fmt.Sprintf("%02x", r.IntN(256))
		}
		return s
	}
	var cases []c
	for i := 0; i < 400; i++ {
		cases = append(cases, c{hex(), hex(), float64(r.IntN(101)) / 100})
	}
	got := ask[[]float64](t, `c => { const e = document.createElement('i'); document.body.append(e); e.style.color = 'color(from color-mix(in oklab, ' + c.B + ' ' + c.P * 100 + '%, ' + c.A + ') srgb r g b / alpha)'
		const v = getComputedStyle(e).color; e.remove(); return v.match(/-?[\d.]+(e-?\d+)?/g).map(Number).concat(1).slice(0, 4) }`, cases)
	for i, c := range cases {
		a, _ := paint.Parse(c.A)
		b, _ := paint.Parse(c.B)
		m := paint.Mix(a, b, c.P)
		w := paint.Colour{R: clip(got[i][0]), G: clip(got[i][1]), B: clip(got[i][2]), A: got[i][3]}
		if m.A < 0.02 {
			continue // hardly there: its colour says nothing
		}
		if d := max(math.Abs(m.R-w.R), math.Abs(m.G-w.G), math.Abs(m.B-w.B), math.Abs(m.A-w.A)); d > 0.004 {
			t.Errorf("%+v: %+v, Chromium says %+v", c, m, w)
		}
	}
}

func clip(v float64) float64 { return math.Max(0, math.Min(1, v)) }
