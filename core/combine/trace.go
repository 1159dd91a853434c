package combine

import (
	"math"
	"sort"
	"strings"
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
	root := func(i int) int {
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
