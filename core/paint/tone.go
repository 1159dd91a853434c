package paint

import "math"

// ToneSteps is how many tones a colour has to either side.
const ToneSteps = 5

// Tone bounds in OKLCH lightness: the lightest and the darkest tones.
const (
	lightest = 0.97
	darkest  = 0.15
)

// Tone returns the colour some steps lighter (step > 0) or darker: equal steps of OKLCH lightness towards 0.97 or 0.15, the hue
// kept, the chroma reduced until the colour lies within sRGB. Step 0, and steps away from a bound that the colour lies beyond,
// give the colour itself. Steps are limited to ToneSteps.
func (c Colour) Tone(step int) Colour {
	step = max(-ToneSteps, min(ToneSteps, step))
	v := c.Lab()
	to := lightest
	if step < 0 {
		to = darkest
	}
	if step == 0 || step > 0 && v.L >= to || step < 0 && v.L <= to {
		return c
	}
	v.L += (to - v.L) * math.Abs(float64(step)) / ToneSteps
	return v.inGamut()
}

// inGamut returns the colour with as much of its chroma as sRGB has at its lightness and hue.
func (v Lab) inGamut() Colour {
	fits := func(k float64) bool {
		w := v
		w.A, w.B = v.A*k, v.B*k
		r, g, b := w.linear()
		const e = 1e-6
		return min(r, g, b) >= -e && max(r, g, b) <= 1+e
	}
	k := 1.0
	if !fits(1) {
		low, high := 0.0, 1.0
		for range 40 {
			if mid := (low + high) / 2; fits(mid) {
				low = mid
			} else {
				high = mid
			}
		}
		k = low
	}
	v.A, v.B = v.A*k, v.B*k
	return v.Colour()
}
