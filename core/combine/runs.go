package combine

import (
	"math"

	"capstan/core/geom"
)

// run is successive edges of a line that are one stretch of one source.
type run struct {
	along    []stretch // candidates
	from, to int
}

// path writes lines. Neighbouring edges of one curve become one again; lines without an area are left out.
func (a *arrangement) path(lines []line) *geom.Path {
	p := &geom.Path{}
	for _, l := range lines {
		runs := a.runs(l)
		if !a.encloses(runs) {
			continue
		}
		for i, r := range runs {
			q, straight := a.curve(&r)
			if i == 0 {
				p.Move(q[0])
			}
			switch {
			case !straight:
				p.Cubic(q[1], q[2], q[3])
			case i < len(runs)-1:
				p.Line(q[3])
			}
		}
		p.Close()
	}
	return p
}

// runs joins the edges of a line where one goes on from the other.
func (a *arrangement) runs(l line) []run {
	// Begin where no edge goes on from the one before, so that no run is cut in two.
	begin := 0
	for i := range l {
		prev, cur := a.runOf(l[(i+len(l)-1)%len(l)]), a.runOf(l[i])
		if a.goesOn(&prev, &cur) == nil {
			begin = i
			break
		}
	}
	var out []run
	for i := range l {
		r := a.runOf(l[(begin+i)%len(l)])
		if n := len(out); n > 0 {
			if both := a.goesOn(&out[n-1], &r); both != nil {
				out[n-1].along, out[n-1].to = both, r.to
				continue
			}
		}
		out = append(out, r)
	}
	return a.straightened(out)
}

func (a *arrangement) runOf(s step) run {
	e := &a.edges[s.edge]
	r := run{from: e.from, to: e.to, along: e.along}
	if s.back {
		r = run{from: e.to, to: e.from}
		for _, st := range e.along {
			r.along = append(r.along, stretch{st.source, st.b, st.a, !st.back})
		}
	}
	return r
}

// goesOn returns the stretches that both runs together are, and nil where they share no source.
func (a *arrangement) goesOn(r, next *run) []stretch {
	var both []stretch
	for _, s := range r.along {
		for _, n := range next.along {
			if s.source == n.source && s.back == n.back && s.b == n.a {
				both = append(both, stretch{s.source, s.a, n.b, s.back})
			}
		}
	}
	return both
}

// straightened joins lines of different areas that go on in one direction.
func (a *arrangement) straightened(list []run) []run {
	at := a.spots.at
	straight := func(r, n *run) bool {
		s, t := &a.sources[r.along[0].source], &a.sources[n.along[0].source]
		if !s.Line || !t.Line || s.area == t.area {
			return false
		}
		d, v := at[n.to].Sub(at[r.from]), at[r.to].Sub(at[r.from])
		l := d.Len()
		on := (d.X*v.X + d.Y*v.Y) / l
		return l > 0 && on > 0 && on < l && math.Abs(cross(d, v)) <= a.eps*l
	}
	out := list[:0:0]
	for _, r := range list {
		if n := len(out); n > 0 && straight(&out[n-1], &r) {
			out[n-1].to = r.to
			out[n-1].along = []stretch{{source: out[n-1].along[0].source, b: math.NaN()}}
			continue
		}
		out = append(out, r)
	}
	if n := len(out); n > 2 && straight(&out[n-1], &out[0]) {
		out[0].from = out[n-1].from
		out[0].along = []stretch{{source: out[0].along[0].source, b: math.NaN()}}
		out = out[:n-1]
	}
	return out
}

func (a *arrangement) curve(r *run) (p [4]geom.Point, straight bool) {
	s := r.along[0]
	src := &a.sources[s.source]
	from, to := a.spots.at[r.from], a.spots.at[r.to]
	if src.Line {
		return fitted(p, from, to, true), true
	}
	return fitted(part(src.Segment, s.a, s.b), from, to, false), false
}

// encloses reports whether runs are more than a line there and back: their area is more than a sliver eps wide.
func (a *arrangement) encloses(runs []run) bool {
	area, length := 0.0, 0.0
	origin := a.spots.at[runs[0].from]
	for i := range runs {
		p, _ := a.curve(&runs[i])
		area += under(p, origin)
		length += p[3].Sub(p[0]).Len()
	}
	return math.Abs(area) > a.eps*max(length, a.eps)/2
}

// under returns the area that a cubic sweeps seen from a point, positive where it turns from x towards y (Green's theorem, as a
// sum over pairs of its points).
func under(p [4]geom.Point, from geom.Point) float64 {
	c := func(i, j int) float64 { return cross(p[i].Sub(from), p[j].Sub(from)) }
	return (6*c(0, 1) + 3*c(0, 2) + c(0, 3) + 3*c(1, 2) + 3*c(1, 3) + 6*c(2, 3)) / 20
}
