package morph

import (
	"math"
	"slices"
	"sort"

	"capstan/core/geom"
)

// ring is one subpath of an outline.
type ring struct {
	segs     []geom.Segment
	ends     []float64    // share of the whole length at the end of each segment
	samples  []geom.Point // at equal shares of the length
	length   float64
	area     float64 // signed
	centre   geom.Point
	closed   bool
	hole     bool // it goes round the other way than the largest
	turnings []corner
}

// sampled is at how many equal shares of their lengths two subpaths are compared.
const sampled = 96

// ringsOf returns the subpaths of an outline; those without length are left out.
func ringsOf(p *geom.Path) []ring {
	var out []ring
	p.Each(func(s geom.Segment) {
		if s.First || len(out) == 0 {
			out = append(out, ring{})
		}
		if s.P0 != s.P3 || !s.Line {
			r := &out[len(out)-1]
			r.segs = append(r.segs, s)
		}
	})
	out = slices.DeleteFunc(out, func(r ring) bool { return len(r.segs) == 0 })
	largest, sign := 0.0, 1.0
	for i := range out {
		out[i].measure()
		if a := math.Abs(out[i].area); a > largest {
			largest, sign = a, math.Copysign(1, out[i].area)
		}
	}
	for i := range out {
		out[i].hole = out[i].closed && out[i].area*sign < 0
	}
	return out
}

// chords is by how many straight lines the length of a segment is told.
const chords = 24

func (r *ring) measure() {
	first, last := r.segs[0].P0, r.segs[len(r.segs)-1].P3
	r.closed = first.Sub(last).Len() < 1e-6
	for _, s := range r.segs {
		was := s.P0
		for k := 1; k <= chords; k++ {
			q := s.At(float64(k) / chords)
			r.length += q.Sub(was).Len()
			was = q
		}
		r.ends = append(r.ends, r.length)
	}
	for i := range r.ends {
		r.ends[i] /= max(r.length, 1e-12)
	}
	for k := range sampled {
		r.samples = append(r.samples, r.at(float64(k)/sampled))
	}
	r.turnings = r.corners()
	for k, q := range r.samples {
		n := r.samples[(k+1)%sampled]
		r.area += (q.X*n.Y - q.Y*n.X) / 2
		r.centre = r.centre.Add(q.Mul(1.0 / sampled))
	}
}

// find returns the segment that a share of the length lies in, and the parameter there.
func (r *ring) find(share float64) (int, float64) {
	i := min(sort.SearchFloat64s(r.ends, share), len(r.segs)-1)
	from := 0.0
	if i > 0 {
		from = r.ends[i-1]
	}
	want, s := (share-from)*r.length, r.segs[i]
	if s.Line {
		return i, min(1, max(0, want/max(s.P3.Sub(s.P0).Len(), 1e-12)))
	}
	was, done := s.P0, 0.0
	for k := 1; k <= chords; k++ {
		q := s.At(float64(k) / chords)
		d := q.Sub(was).Len()
		if done+d >= want || k == chords {
			t := 1.0
			if d > 0 {
				t = min(1, max(0, (want-done)/d))
			}
			return i, (float64(k-1) + t) / chords
		}
		was, done = q, done+d
	}
	return i, 1
}

func (r *ring) at(share float64) geom.Point {
	i, t := r.find(share)
	return r.segs[i].At(t)
}

// points are the segments as points: P0, and of each P1 P2 P3.
func (r *ring) points() []geom.Point {
	out := []geom.Point{r.segs[0].P0}
	for _, s := range r.segs {
		out = append(out, s.P1, s.P2, s.P3)
	}
	return out
}

// reversed is the subpath the other way round.
func (r *ring) reversed() *ring {
	n := &ring{}
	for i := len(r.segs) - 1; i >= 0; i-- {
		s := r.segs[i]
		s.P0, s.P1, s.P2, s.P3 = s.P3, s.P2, s.P1, s.P0
		n.segs = append(n.segs, s)
	}
	n.measure()
	n.hole = r.hole
	return n
}

// part returns the cubic of segment i between two parameters (de Casteljau).
func part(s geom.Segment, t0, t1 float64) geom.Segment {
	cut := func(s geom.Segment, t float64) (l, r geom.Segment) {
		a, b, c := s.P0.Lerp(s.P1, t), s.P1.Lerp(s.P2, t), s.P2.Lerp(s.P3, t)
		d, e := a.Lerp(b, t), b.Lerp(c, t)
		m := d.Lerp(e, t)
		return geom.Segment{P0: s.P0, P1: a, P2: d, P3: m}, geom.Segment{P0: m, P1: e, P2: c, P3: s.P3}
	}
	if t1 < 1 {
		s, _ = cut(s, t1)
		if t1 > 0 {
			t0 /= t1
		}
	}
	if t0 > 0 {
		_, s = cut(s, min(t0, 1))
	}
	return s
}

// corner is where a subpath turns.
type corner struct {
	share float64
	turn  float64 // radians
}

// corners finds the joints of a subpath at which it turns by more than a quarter of a right angle.
func (r *ring) corners() (out []corner) {
	for i, s := range r.segs {
		next := r.segs[(i+1)%len(r.segs)]
		if i == len(r.segs)-1 && !r.closed {
			break
		}
		a, b := heading(s, 1), heading(next, 0)
		turn := math.Remainder(math.Atan2(b.Y, b.X)-math.Atan2(a.Y, a.X), 2*math.Pi)
		if math.Abs(turn) > math.Pi/8 {
			out = append(out, corner{math.Mod(r.ends[i], 1), turn})
		}
	}
	sort.Slice(out, func(i, j int) bool { return out[i].share < out[j].share })
	return out
}

// heading is the direction in which a segment goes at an end; where its handle lies on that end, towards the next point.
func heading(s geom.Segment, t float64) geom.Point {
	list := []geom.Point{s.P0, s.P1, s.P2, s.P3}
	if t == 1 {
		for i := 2; i >= 0; i-- {
			if d := s.P3.Sub(list[i]); d.Len() > 1e-9 {
				return d
			}
		}
	}
	for i := 1; i < 4; i++ {
		if d := list[i].Sub(s.P0); d.Len() > 1e-9 {
			return d
		}
	}
	return geom.Point{X: 1}
}
