package morph

import (
	"math"

	"capstan/core/geom"
)

// bending lets a subpath go by the lengths of its steps and the turns between them, so that what is bent does not shrink through itself (Sederberg, Gao,
// Wang, Mu: 2-D shape blending, an intrinsic solution to the vertex path problem, 1993). Its steps are those from each point of its segments to the
// next, handles too.
type bending struct {
	length [2][]float64 // of each step, on both sides
	turn   [2][]float64 // from the step before to each, radians; of the first its heading
	slack  []float64    // by how much each step may give way when the last does not end where the first began
	middle [2]geom.Point
	closed bool
}

// bend prepares a passage; turn is by how many radians all of it is turned on its way.
func (p *passage) bend(turn float64) *bending {
	n := len(p.a) - 1
	v := &bending{closed: p.closed}
	for side, pts := range [2][]geom.Point{p.a, p.b} {
		lengths, turns := make([]float64, n), make([]float64, n)
		was, known := 0.0, false
		for i := range n {
			d := pts[i+1].Sub(pts[i])
			lengths[i] = d.Len()
			if lengths[i] < 1e-9 {
				continue
			}
			heading := math.Atan2(d.Y, d.X)
			if turns[i] = heading; known {
				turns[i] = math.Remainder(heading-was, 2*math.Pi)
			} else if i > 0 { // steps without length head where the first with one does
				turns[0], turns[i] = heading, 0
			}
			was, known = heading, true
		}
		v.length[side], v.turn[side] = lengths, turns
		v.middle[side] = p.middle(pts)
	}
	if n == 0 {
		return v
	}
	// The first step turns as all of it does on the mean: each heading follows from it.
	lean := 0.0
	for i := range n {
		v.slack = append(v.slack, max(math.Abs(v.length[0][i]-v.length[1][i]), 0))
		lean = max(lean, v.slack[i])
	}
	for i := range v.slack { // what keeps its length gives way little, but some
		v.slack[i] = max(v.slack[i], 1e-4*max(lean, 1e-9), 1e-4*(v.length[0][i]+v.length[1][i]))
	}
	ha, hb, sin, cos := 0.0, 0.0, 0.0, 0.0
	for i := range n {
		ha, hb = ha+v.turn[0][i], hb+v.turn[1][i]
		w := v.length[0][i] + v.length[1][i]
		s, c := math.Sincos(hb - ha)
		sin, cos = sin+w*s, cos+w*c
	}
	// By the mean way that headings differ, nearest to the turn of the whole, and from there by the way that the differences go round.
	mean := turn + math.Remainder(math.Atan2(sin, cos)-turn, 2*math.Pi)
	off, weight := 0.0, 0.0
	ha, hb = 0, 0
	for i := range n {
		ha, hb = ha+v.turn[0][i], hb+v.turn[1][i]
		w := v.length[0][i] + v.length[1][i]
		off, weight = off+w*(hb-ha), weight+w
	}
	if weight > 0 {
		v.turn[1][0] += 2 * math.Pi * math.Round((mean-off/weight)/(2*math.Pi))
	}
	return v
}

// middle is the mean of the joints of a subpath, each weighing as long as the steps beside it.
func (p *passage) middle(pts []geom.Point) (c geom.Point) {
	sum := 0.0
	for i := 0; i+1 < len(pts); i++ {
		w := pts[i+1].Sub(pts[i]).Len()
		c, sum = c.Add(pts[i].Lerp(pts[i+1], 0.5).Mul(w)), sum+w
	}
	if sum == 0 {
		return pts[0]
	}
	return c.Mul(1 / sum)
}

// at writes the points at a progress into to, which is as long as the passage has points.
func (v *bending) at(p float64, to []geom.Point) {
	n := len(to) - 1
	heading, sum := 0.0, geom.Point{}
	to[0] = geom.Point{}
	var ee, en, nn, sx, sy float64
	for i := range n {
		heading += v.turn[0][i] + (v.turn[1][i]-v.turn[0][i])*p
		sin, cos := math.Sincos(heading)
		l := v.length[0][i] + (v.length[1][i]-v.length[0][i])*p
		to[i+1] = geom.Point{X: l * cos, Y: l * sin} // the step
		sum = sum.Add(to[i+1])
		if v.closed {
			k := v.slack[i] * v.slack[i]
			ee, en, nn = ee+k*cos*cos, en+k*cos*sin, nn+k*sin*sin
		}
	}
	if d := ee*nn - en*en; v.closed && d > 1e-18*(ee+nn)*(ee+nn) {
		// The least change of lengths, against what they may give way, that closes it.
		sx, sy = -(nn*sum.X-en*sum.Y)/d, -(ee*sum.Y-en*sum.X)/d
	}
	heading = 0
	at, middle, weight := geom.Point{}, geom.Point{}, 0.0
	for i := range n {
		if sx != 0 || sy != 0 {
			heading += v.turn[0][i] + (v.turn[1][i]-v.turn[0][i])*p
			sin, cos := math.Sincos(heading)
			k := v.slack[i] * v.slack[i] * (cos*sx + sin*sy)
			to[i+1] = to[i+1].Add(geom.Point{X: k * cos, Y: k * sin})
		}
		w := to[i+1].Len()
		next := at.Add(to[i+1])
		middle, weight = middle.Add(at.Lerp(next, 0.5).Mul(w)), weight+w
		at = next
		to[i+1] = at
	}
	if v.closed && n > 0 { // what is left of it, over all
		gap := to[n].Sub(to[0])
		for i := range to {
			to[i] = to[i].Sub(gap.Mul(float64(i) / float64(n)))
		}
	}
	off := v.middle[0].Lerp(v.middle[1], p)
	if weight > 0 {
		off = off.Sub(middle.Mul(1 / weight))
	}
	for i := range to {
		to[i] = to[i].Add(off)
	}
}
