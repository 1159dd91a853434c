package combine

import (
	"math"
	"sort"
	"strings"

	"capstan/core/geom"
)

// line is a closed line of edges, with what is kept on its left.
type line []step

// step is an edge in a line, which may run along it backwards.
type step struct {
	edge int
	back bool
}

// inside says which areas winding numbers lie in.
func (a *arrangement) inside(w []int, to []bool) []bool {
	to = to[:0]
	for i, n := range w {
		if a.evenOdd[i] {
			to = append(to, n%2 != 0)
		} else {
			to = append(to, n != 0)
		}
	}
	return to
}

// sets returns the sets of areas that some place lies in, without the empty one, in the order of their foremost members.
func (a *arrangement) sets() [][]bool {
	a.sides()
	seen := map[string][]bool{}
	var keys []string
	note := func(w []int) {
		set := a.inside(w, nil)
		k := make([]byte, len(set)) // from the front, so that sets sort by it
		for i, in := range set {
			if in {
				k[len(set)-1-i] = 1
			}
		}
		if key := string(k); seen[key] == nil && strings.IndexByte(key, 1) >= 0 {
			seen[key] = set
			keys = append(keys, key)
		}
	}
	var w []int
	for i := range a.edges {
		note(a.left[i])
		w = a.right(i, a.left[i], w)
		note(w)
	}
	sort.Strings(keys)
	out := make([][]bool, len(keys))
	for i, k := range keys {
		out[i] = seen[k]
	}
	return out
}

// trace strings the edges together that have what is kept on one side only. ErrUnclear: they leave gaps.
func (a *arrangement) trace(keeps func(inside []bool) bool) ([]line, error) {
	a.sides()
	var steps []step
	var buf []bool
	var w []int
	balance := make([]int, len(a.spots.at))
	first := make([]int, len(a.spots.at)+1) // of the steps that leave each vertex, in out
	for i := range a.edges {
		e := &a.edges[i]
		buf = a.inside(a.left[i], buf)
		l := keeps(buf)
		w = a.right(i, a.left[i], w)
		buf = a.inside(w, buf)
		if r := keeps(buf); l == r {
			continue
		}
		from, to := e.from, e.to
		if !l {
			from, to = to, from
		}
		steps = append(steps, step{i, !l})
		first[from+1]++
		balance[from]++
		balance[to]--
	}
	for _, b := range balance {
		if b != 0 {
			return nil, ErrUnclear
		}
	}
	for v := range balance {
		first[v+1] += first[v]
	}
	out := make([]int, len(steps))
	filled := make([]int, len(balance))
	for i, s := range steps {
		from, _ := a.ends(s)
		out[first[from]+filled[from]] = i
		filled[from]++
	}
	var lines []line
	used := make([]bool, len(steps))
	for i := range steps {
		if used[i] {
			continue
		}
		var l line
		for k := i; ; {
			used[k] = true
			l = append(l, steps[k])
			_, v := a.ends(steps[k])
			if k = a.next(steps, steps[k], out[first[v]:first[v+1]], used, i); k == i {
				break
			}
			if k < 0 {
				return nil, ErrUnclear
			}
		}
		lines = append(lines, l)
	}
	return lines, nil
}

func (a *arrangement) ends(s step) (from, to int) {
	e := &a.edges[s.edge]
	if s.back {
		return e.to, e.from
	}
	return e.from, e.to
}

// next returns the step that bounds the same part on its left as the one that arrives: of those that leave the vertex, the first
// one met when turning to the right from where that came from. first may be taken again; -1: there is none.
func (a *arrangement) next(steps []step, came step, out []int, used []bool, first int) int {
	best, turn := -1, math.Inf(1)
	radius := math.Inf(1)
	if len(out) > 1 {
		// All edges are parted at half the distance that the nearest of their other ends lies at.
		radius = a.chord(came)
		for _, k := range out {
			radius = min(radius, a.chord(steps[k]))
		}
		radius /= 2
	}
	for _, k := range out {
		if used[k] && k != first {
			continue
		}
		if len(out) == 1 {
			return k
		}
		back := a.angle(step{came.edge, !came.back}, radius)
		w := math.Mod(back-a.angle(steps[k], radius), 2*math.Pi)
		if w < 0 {
			w += 2 * math.Pi
		}
		if w < turn {
			best, turn = k, w
		}
	}
	return best
}

func (a *arrangement) chord(s step) float64 {
	e := &a.edges[s.edge]
	return e.p[3].Sub(e.p[0]).Len()
}

// angle returns the direction from where a step begins to where it is a radius away.
func (a *arrangement) angle(s step, radius float64) float64 {
	e := &a.edges[s.edge]
	seg := e.segment()
	if s.back {
		seg.P0, seg.P1, seg.P2, seg.P3 = seg.P3, seg.P2, seg.P1, seg.P0
	}
	lo, hi := 0.0, 1.0
	for range 40 {
		t := (lo + hi) / 2
		if seg.At(t).Sub(seg.P0).Len() > radius {
			hi = t
		} else {
			lo = t
		}
		if seg.Line {
			break
		}
	}
	if seg.Line {
		hi = 1
	}
	d := seg.At(hi).Sub(seg.P0)
	return math.Atan2(d.Y, d.X)
}

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

// connected sorts closed lines by the part of the plane they bound: an outline with the holes in it. To the left of the leftmost
// vertex of a hole lies what it is a hole in, bounded by the nearest line there.
func (a *arrangement) connected(lines []line) [][]line {
	owner := make([]int, len(lines))
	var all []step
	var of []int
	for i, l := range lines {
		owner[i] = i
		for _, s := range l {
			all, of = append(all, s), append(of, i)
		}
	}
	var root func(i int) int
	root = func(i int) int {
		for owner[i] != i {
			i = owner[i]
		}
		return i
	}
	for i, l := range lines {
		area, leftmost := 0.0, a.edges[l[0].edge].from
		origin := a.spots.at[leftmost]
		for _, s := range l {
			p := a.edges[s.edge].p
			d := under(p, origin)
			if s.back {
				d = -d
			}
			area += d
			if from, _ := a.ends(s); a.spots.at[from].X < a.spots.at[leftmost].X {
				leftmost = from
			}
		}
		if area > 0 {
			continue
		}
		q := a.spots.at[leftmost]
		near, hit := math.Inf(-1), -1
		for k, s := range all {
			e := &a.edges[s.edge]
			if of[k] == i || (e.p[0].Y <= q.Y) == (e.p[3].Y <= q.Y) || min(e.p[0].X, e.p[3].X) >= q.X {
				continue
			}
			if x := e.segment().At(e.solve(q.Y, true)).X; x < q.X && x > near {
				near, hit = x, of[k]
			}
		}
		if hit >= 0 {
			owner[root(i)] = root(hit)
		}
	}
	groups := make([][]line, len(lines))
	for i, l := range lines {
		groups[root(i)] = append(groups[root(i)], l)
	}
	var out [][]line
	for _, g := range groups {
		if g != nil {
			out = append(out, g)
		}
	}
	return out
}
