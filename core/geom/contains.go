package geom

// Contains reports whether q lies inside p by the nonzero winding rule; open subpaths count as closed.
// Curves are tested as 16 chords, which is within the width of a pointer.
func (p *Path) Contains(q Point) bool {
	winding := 0
	edge := func(a, b Point) {
		if (a.Y <= q.Y) == (b.Y <= q.Y) {
			return
		}
		x := a.X + (q.Y-a.Y)/(b.Y-a.Y)*(b.X-a.X)
		if x <= q.X {
			return
		}
		if b.Y > a.Y {
			winding++
		} else {
			winding--
		}
	}
	p.EachClosed(func(s Segment) {
		if s.Line {
			edge(s.P0, s.P3)
		} else {
			prev := s.P0
			for i := 1; i <= 16; i++ {
				next := s.At(float64(i) / 16)
				edge(prev, next)
				prev = next
			}
		}
	})
	return winding != 0
}
