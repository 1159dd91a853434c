package vector

import (
	"math"

	"capstan/core/motion"
)

// A curve is what changes of one property: numbers at times, going evenly from each to the next.
type curve struct {
	at     []float64 // ms, rising
	v      [][]float64
	breaks []bool // nobody sees what happens between the one before and this
	// near reports whether numbers are as good as those of the k-th reading.
	near func(k int, v []float64) bool
}

// key is a keyframe: numbers at a time, and how it goes on from there.
type key struct {
	at   float64
	v    []float64
	ease ease
}

// ease is how a property goes from one keyframe to the next.
type ease struct {
	bezier [4]float64 // of a cubic-bezier; all 0: evenly
}

// named are easings that are looked for first: those that CSS Easing Functions Level 2 names, which people use most.
var named = []ease{{[4]float64{0.42, 0, 0.58, 1}}, {[4]float64{0, 0, 0.58, 1}}, {[4]float64{0.42, 0, 1, 1}}, {[4]float64{0.25, 0.1, 0.25, 1}}}

// keys are the keyframes that show a curve: as few as go, each as far as one easing reaches. Most moves are one: an easing of CSS, or a part of one, is
// a cubic-bezier, and so is half a sine within a thousandth.
func (c *curve) keys() []key {
	var out []key
	last := len(c.at) - 1
	for i := 0; i < last; {
		j, e := c.reach(i)
		out = append(out, key{c.at[i], c.v[i], e})
		i = j
	}
	return append(out, key{at: c.at[last], v: c.v[last]})
}

// reach is how far one easing goes from the i-th reading.
func (c *curve) reach(i int) (int, ease) {
	last := len(c.at) - 1
	end := i + 1
	if c.breaks[end] {
		return end, ease{}
	}
	if same(c.v[i], c.v[end]) {
		for end < last && !c.breaks[end+1] && same(c.v[i], c.v[end+1]) {
			end++
		}
		return end, ease{}
	}
	// First as far as it moves without rest, then as far as it goes one way.
	for end < last && !c.breaks[end+1] && !same(c.v[end], c.v[end+1]) {
		end++
	}
	if e, ok := c.eased(i, end, true); ok {
		return end, e
	}
	turn := i + 1
	for turn < end && dot(c.v[turn-1], c.v[turn], c.v[turn+1]) > 0 {
		turn++
	}
	if turn < end {
		if e, ok := c.eased(i, turn, true); ok {
			return turn, e
		}
	}
	good, with := i+1, ease{}
	step := 2
	for i+step < end {
		e, ok := c.eased(i, i+step, false)
		if !ok {
			break
		}
		good, with, step = i+step, e, 2*step
	}
	for low, high := good+1, min(i+step, end); low < high; {
		middle := (low + high) / 2
		if e, ok := c.eased(i, middle, false); ok {
			good, with, low = middle, e, middle+1
		} else {
			high = middle
		}
	}
	return good, with
}

func same(a, b []float64) bool {
	for k := range a {
		if math.Abs(a[k]-b[k]) > 1e-7 {
			return false
		}
	}
	return true
}

// dot says whether a way goes on or turns back at b.
func dot(a, b, c []float64) (sum float64) {
	for k := range a {
		sum += (b[k] - a[k]) * (c[k] - b[k])
	}
	return sum
}

// eased finds the easing by which it goes from the i-th reading to the j-th; where it is not likely to be a whole move, less pains are taken.
func (c *curve) eased(i, j int, likely bool) (ease, bool) {
	if j == i+1 {
		return ease{}, true
	}
	from, to, n := c.v[i], c.v[j], len(c.v[i])
	length := 0.0
	for k := range n {
		length += (to[k] - from[k]) * (to[k] - from[k])
	}
	v := make([]float64, n)
	at := func(p float64) []float64 {
		for k := range n {
			v[k] = from[k] + p*(to[k]-from[k])
		}
		return v
	}
	if length == 0 {
		return ease{}, false
	}
	xs, ps := make([]float64, 0, j-i-1), make([]float64, 0, j-i-1)
	for r := i + 1; r < j; r++ {
		p := 0.0
		for k := range n {
			p += (c.v[r][k] - from[k]) * (to[k] - from[k])
		}
		if p /= length; !c.near(r, at(p)) {
			return ease{}, false
		}
		xs, ps = append(xs, (c.at[r]-c.at[i])/(c.at[j]-c.at[i])), append(ps, p)
	}
	holds := func(e ease) bool {
		f := e.easing()
		for r := range xs {
			if !c.near(i+1+r, at(f(xs[r]))) {
				return false
			}
		}
		return true
	}
	if holds(ease{}) {
		return ease{}, true
	}
	for _, e := range named {
		if holds(e) {
			return e, true
		}
	}
	e, ok := fitted(xs, ps, likely)
	if !ok {
		return e, false
	}
	return e, holds(e)
}

func (e ease) easing() motion.Easing {
	if e == (ease{}) {
		return motion.Linear
	}
	return motion.Bezier(e.bezier[0], e.bezier[1], e.bezier[2], e.bezier[3])
}

// samplesOfFit is how many of the points of a curve decide its easing.
const samplesOfFit = 24

// fitted is the cubic-bezier that lies nearest to points, by least squares: Gauss and Newton's steps, damped (Marquardt 1963), from a gentle curve, with
// what lies outside of what CSS allows cut off. Its numbers are rounded to a thousandth, as they will be written.
func fitted(xs, ps []float64, pains bool) (ease, bool) {
	stride := max(1, len(xs)/samplesOfFit)
	best, bestSum := ease{}, math.Inf(1)
	starts, rounds := [][4]float64{{0.3, 0.1, 0.7, 0.9}, {0.1, 0.5, 0.5, 1}, {0.5, 0, 0.9, 0.5}}, 25
	if !pains {
		starts, rounds = starts[:1], 8
	}
	for _, start := range starts {
		e, sum := descend(start, xs, ps, stride, rounds)
		if sum < bestSum {
			best, bestSum = e, sum
		}
		if bestSum < 1e-7*float64(len(xs)/stride+1) {
			break
		}
	}
	for k, v := range best.bezier {
		best.bezier[k] = math.Round(v*1000) / 1000
	}
	return best, bestSum < math.Inf(1)
}

func descend(v [4]float64, xs, ps []float64, stride, rounds int) (ease, float64) {
	damp := 1e-3
	sum := misses(v, xs, ps, stride, nil, nil)
	for range rounds {
		var a [4][4]float64
		var g [4]float64
		misses(v, xs, ps, stride, &a, &g)
		for k := range 4 {
			a[k][k] = a[k][k]*(1+damp) + 1e-12
		}
		d, ok := solve(a, g)
		if !ok {
			break
		}
		next := v
		for k := range 4 {
			next[k] += d[k]
		}
		next[0], next[2] = min(1, max(0, next[0])), min(1, max(0, next[2]))
		next[1], next[3] = min(20, max(-20, next[1])), min(20, max(-20, next[3]))
		s := misses(next, xs, ps, stride, nil, nil)
		if !(s < sum) {
			if damp *= 8; damp > 1e6 {
				break
			}
			continue
		}
		small := sum-s < 1e-9*sum
		v, sum, damp = next, s, damp/6
		if small || sum < 1e-12 {
			break
		}
	}
	return ease{v}, sum
}

// misses sums the squares by which a cubic-bezier misses points, and where asked for what its steps are made of: normal equations.
func misses(v [4]float64, xs, ps []float64, stride int, a *[4][4]float64, g *[4]float64) (sum float64) {
	for r := 0; r < len(xs); r += stride {
		u := parameter(v[0], v[2], xs[r])
		w := 1 - u
		b1, b2 := 3*w*w*u, 3*w*u*u
		miss := ps[r] - (b1*v[1] + b2*v[3] + u*u*u)
		sum += miss * miss
		if a == nil {
			continue
		}
		dx := 3*w*w*v[0] + 6*w*u*(v[2]-v[0]) + 3*u*u*(1-v[2])
		dy := 3*w*w*v[1] + 6*w*u*(v[3]-v[1]) + 3*u*u*(1-v[3])
		slope := 0.0
		if dx > 1e-6 {
			slope = dy / dx
		}
		j := [4]float64{-slope * b1, b1, -slope * b2, b2}
		for k := range 4 {
			g[k] += j[k] * miss
			for l := range 4 {
				a[k][l] += j[k] * j[l]
			}
		}
	}
	return sum
}

// parameter is where on a cubic-bezier x is reached.
func parameter(x1, x2, x float64) float64 {
	lo, hi, u := 0.0, 1.0, x
	for range 40 {
		w := 1 - u
		miss := 3*w*w*u*x1 + 3*w*u*u*x2 + u*u*u - x
		if math.Abs(miss) < 1e-9 {
			break
		}
		if miss > 0 {
			hi = u
		} else {
			lo = u
		}
		d := 3*w*w*x1 + 6*w*u*(x2-x1) + 3*u*u*(1-x2)
		if next := u - miss/d; d > 1e-6 && next > lo && next < hi {
			u = next
		} else {
			u = (lo + hi) / 2
		}
	}
	return u
}

// solve solves four equations by elimination with pivots.
func solve(a [4][4]float64, g [4]float64) ([4]float64, bool) {
	for c := range 4 {
		p := c
		for r := c + 1; r < 4; r++ {
			if math.Abs(a[r][c]) > math.Abs(a[p][c]) {
				p = r
			}
		}
		if math.Abs(a[p][c]) < 1e-300 {
			return g, false
		}
		a[c], a[p], g[c], g[p] = a[p], a[c], g[p], g[c]
		for r := c + 1; r < 4; r++ {
			f := a[r][c] / a[c][c]
			for k := c; k < 4; k++ {
				a[r][k] -= f * a[c][k]
			}
			g[r] -= f * g[c]
		}
	}
	for c := 3; c >= 0; c-- {
		for k := c + 1; k < 4; k++ {
			g[c] -= a[c][k] * g[k]
		}
		g[c] /= a[c][c]
	}
	return g, true
}
