package motion

import (
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
)

// Profile returns the outline of a move's bar: n+1 heights 0..1 at equal steps from its begin to its end. An entrance
// rises and an exit falls with its eased progress, a motion path is a band as high as its speed. Of a loop it is one
// cycle (see CycleTime), which the bar repeats.
func Profile(m *doc.Move, iv Interval, n int) []float64 {
	ease := easingOf(m.Easing, DefaultEasing(m))
	out := make([]float64, n+1)
	clamp := func(v float64) float64 { return math.Round(min(1, max(0, v))*1000) / 1000 }
	progress := func(share float64) float64 {
		_, x := iv.Progress(Instant{iv.Begin*1000 + int64(share*float64(iv.End-iv.Begin)*1000+0.5), 1000}, m.Alternate)
		return x
	}
	top := 0.0
	for i := range out {
		share := float64(i) / float64(n)
		switch {
		case m.Timeless():
			out[i] = 1
		case m.Comes() != nil && m.Comes().Sudden && m.Kind == doc.Entrance:
			out[i] = clamp(math.Ceil(share*8) / 8)
		case m.Comes() != nil && m.Comes().Sudden:
			out[i] = clamp(1 - math.Ceil(share*8)/8)
		case m.Comes() != nil && m.Comes().Bar != nil && m.Unit == "":
			x := share
			if m.Kind == doc.Exit {
				x = 1 - x
			}
			out[i] = clamp(m.Comes().Bar(m.Full(), x))
		case m.Goes() != nil && m.Goes().Bar != nil:
			out[i] = clamp(m.Goes().Bar(m.Full(), ease(share)))
		case m.Kind == doc.Entrance:
			out[i] = clamp(ease(share))
		case m.Kind == doc.Exit:
			out[i] = clamp(1 - ease(share))
		case m.Kind == doc.Loop:
			x := share
			if m.Alternate {
				x = 1 - math.Abs(1-2*share)
			}
			out[i] = clamp(ease(x))
		case m.Kind == doc.Change: // from one step to the next
			out[i] = clamp(0.25 + 0.75*ease(progress(share)))
		case m.Kind == doc.MotionPath:
			const d = 1e-3
			a, b := max(0, share-d), min(1, share+d)
			out[i] = math.Abs(ease(progress(b))-ease(progress(a))) / (b - a)
			top = max(top, out[i])
		}
	}
	if m.Kind == doc.MotionPath {
		if m.Path == nil || top == 0 {
			return out
		}
		if p, err := geom.ParseData(m.Path.D); err != nil || len(p.Points) == 0 {
			return out
		}
		for i := range out {
			// The band keeps a floor, so that a slow stretch can still be seen and seized.
			out[i] = clamp(0.15 + 0.85*out[i]/top)
		}
	}
	return out
}

// EvenSteps returns where along its line, in shares of its length, a motion path stands at even steps of time: as many
// steps as are easily told apart, at round times.
func EvenSteps(m *doc.Move, iv Interval) []float64 {
	ease := easingOf(m.Easing, DefaultEasing(m))
	if iv.Pass <= 0 {
		return nil
	}
	step := int64(50)
	for _, next := range []int64{100, 200, 250, 500, 1000, 2000, 5000, 10000, 60000} {
		if iv.Pass/step <= 14 {
			break
		}
		step = next
	}
	var out []float64
	for t := step; t < iv.Pass; t += step {
		out = append(out, ease(float64(t)/float64(iv.Pass)))
	}
	return out
}
