package geom

// Part returns the stretch of p between two shares of its whole length, 0..1. Subpaths count one after the other, as they are
// drawn; curves stay curves. A closed subpath that is not there whole is open. Nothing is left where to is not above from.
func (p *Path) Part(from, to float64) *Path {
	if from <= 0 && to >= 1 {
		return p
	}
	out := &Path{}
	p.partInto(out, NewMeasure(p), from, to)
	return out
}

// partInto adds that part of p, whose lengths are m, to out.
func (p *Path) partInto(out *Path, m *Measure, from, to float64) {
	if !(to > from) || m.total == 0 {
		return
	}
	lo, hi := from*m.total, to*m.total
	begin, end := 0.0, 0.0  // of the segment at hand
	first, whole := 0, true // of the subpath at hand: its first segment, and whether all of it is there
	open := false
	for i, s := range m.segs {
		begin, end = end, m.ends[i]
		if s.First {
			first, whole, open = i, true, false
		}
		a, b := 0.0, 1.0
		if lo > begin {
			a = 1
			if lo < end {
				a = m.parameter(i, lo-begin)
			}
		}
		if hi < end {
			b = 0
			if hi > begin {
				b = m.parameter(i, hi-begin)
			}
		}
		if whole = whole && a == 0 && b == 1; a < b {
			q := s.between(a, b)
			if !open {
				out.Move(q.P0)
				open = true
			}
			if s.Line {
				out.Line(q.P3)
			} else {
				out.Cubic(q.P1, q.P2, q.P3)
			}
		}
		if last := i == len(m.segs)-1 || m.segs[i+1].First; last && whole && m.closed[first] {
			out.Close()
		}
	}
}

// closedAt says for the first segment of each subpath, by its place among all segments, whether the subpath is closed.
func (p *Path) closedAt() map[int]bool {
	out := map[int]bool{}
	n, first := 0, 0
	var cur, start Point
	i := 0
	for _, v := range p.Verbs {
		switch v {
		case MoveTo:
			start, first = p.Points[i], n
		case Close:
			if cur != start {
				n++
			}
			out[first] = true
			cur = start
		default:
			n++
		}
		if k := PointsOf[v]; k > 0 {
			cur = p.Points[i+k-1]
			i += k
		}
	}
	return out
}

// between returns a segment from one of its parameters to another, by its blossom.
func (s Segment) between(a, b float64) Segment {
	if a == 0 && b == 1 {
		return s
	}
	if s.Line {
		return Segment{P0: s.At(a), P3: s.At(b), Line: true}
	}
	at := func(t, u, v float64) Point {
		p, q, r := s.P0.Lerp(s.P1, t), s.P1.Lerp(s.P2, t), s.P2.Lerp(s.P3, t)
		return p.Lerp(q, u).Lerp(q.Lerp(r, u), v)
	}
	return Segment{P0: at(a, a, a), P1: at(a, a, b), P2: at(a, b, b), P3: at(b, b, b)}
}

// Subpaths returns the subpaths of p in their order, several together where there are more than most.
func (p *Path) Subpaths(most int) (list []*Path) {
	n := 0
	for _, v := range p.Verbs {
		if v == MoveTo {
			n++
		}
	}
	each, seen, i := max(1, (n+most-1)/most), 0, 0
	for _, v := range p.Verbs {
		if v == MoveTo {
			if seen%each == 0 {
				list = append(list, &Path{})
			}
			seen++
		}
		if len(list) == 0 {
			list = append(list, &Path{})
		}
		out := list[len(list)-1]
		out.Verbs = append(out.Verbs, v)
		out.Points = append(out.Points, p.Points[i:i+PointsOf[v]]...)
		i += PointsOf[v]
	}
	return
}
