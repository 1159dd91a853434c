package geom

import "math"

// Polygons returns an outline as closed polygons: 24 chords a curve, which lie within a thousandth of its size of it.
func Polygons(p *Path) (list [][]Point) {
	p.EachClosed(func(s Segment) {
		if s.First {
			list = append(list, []Point{s.P0})
		}
		at := &list[len(list)-1]
		for k := 1; k < 24 && !s.Line; k++ {
			*at = append(*at, s.At(float64(k)/24))
		}
		*at = append(*at, s.P3)
	})
	return
}

// Of a silhouette: how many samples it has at most, and how far they lie apart otherwise.
const (
	mostSamples = 4096
	apart       = 0.5
)

// Silhouette adds to a list how far polygons, mapped by m, reach to the right on level lines, 0.5 apart from their top to their foot: Y is the
// line and X the furthest point on it, or, left, the furthest to the left. A line that meets none of them has the X of the nearest that does.
func Silhouette(list []Point, polygons [][]Point, m Matrix, left bool) []Point {
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, s := range polygons {
		for _, q := range s {
			y := m.Apply(q).Y
			lo, hi = min(lo, y), max(hi, y)
		}
	}
	if hi < lo {
		return list
	}
	n := min(max(int(math.Ceil((hi-lo)/apart)), 1), mostSamples-1)
	step, sign := (hi-lo)/float64(n), 1.0
	if left {
		sign = -1
	}
	first := len(list)
	for i := range n + 1 {
		list = append(list, Point{X: math.Inf(-1), Y: lo + float64(i)*step})
	}
	out := list[first:]
	for _, s := range polygons {
		for i := range s {
			a, b := m.Apply(s[i]), m.Apply(s[(i+1)%len(s)])
			if a.Y > b.Y {
				a, b = b, a
			}
			if step <= 0 || b.Y-a.Y < 1e-12 { // it lies along one line, the nearest of those there are
				k := 0
				if step > 0 {
					k = min(max(int(math.Round((a.Y-lo)/step)), 0), n)
				}
				out[k].X = max(out[k].X, sign*a.X, sign*b.X)
				continue
			}
			for k := max(int(math.Ceil((a.Y-lo)/step-1e-9)), 0); k <= n && out[k].Y <= b.Y+1e-9; k++ {
				out[k].X = max(out[k].X, sign*(a.X+(b.X-a.X)*min(1, max(0, (out[k].Y-a.Y)/(b.Y-a.Y)))))
			}
		}
	}
	last := -1
	for i := range out {
		if math.IsInf(out[i].X, -1) {
			continue
		}
		for k := last + 1; k < i; k++ {
			if last >= 0 && k-last <= i-k {
				out[k].X = out[last].X
			} else {
				out[k].X = out[i].X
			}
		}
		last = i
	}
	for k := last + 1; k <= n; k++ { // the first and the last line meet a corner each, but for rounding
		out[k].X = out[max(last, 0)].X
	}
	for i := range out {
		out[i].X *= sign
	}
	return list
}
