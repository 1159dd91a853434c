package text

import (
	"math"

	"capstan/core/doc"
	"capstan/core/geom"

	"github.com/go-text/typesetting/font"
)

// placeOnRing sets lines on circles about the origin, the first on the ring itself. The middle of every letter, by its advance, lies
// on the circle its line stands on, and it is turned to the tangent there.
func (s *setter) placeOnRing(r *doc.TextRing) {
	way := 1.0 // clockwise
	if r.Flip {
		way = -1
	}
	reach, depth := 0.0, 0.0
	for i := range s.lines {
		l := &s.lines[i]
		s.begin(l)
		circle := r.Radius - way*depth
		foot := circle + s.offset(l, r)
		depth += l.height
		if foot < 1 {
			foot = 1 // more lines than there is room for: they gather in the middle
		}
		reach = math.Max(reach, foot+math.Max(l.ascent, l.descent))
		glyphs := l.seen()
		spacing, length := s.spaced(glyphs, r.Share, foot)
		begin := 0.0
		switch s.text.Align {
		case doc.Centre:
			begin = -length / 2
		case doc.Right:
			begin = -length
		}
		at, _, _ := stands(r, foot, begin)
		s.foot(at.Apply(geom.Point{Y: -l.ascent}), at.Apply(geom.Point{Y: l.descent}))
		x := begin
		for k := range glyphs {
			g := &glyphs[k]
			em := g.size / g.Upem
			wide := g.Advance * em
			on, angle, turn := stands(r, foot, x+wide/2)
			m := on.Mul(geom.Matrix{A: em, D: -em, E: g.DX*em - wide/2, F: -g.rise - g.DY*em})
			own := geom.Box{Min: geom.Point{X: -wide / 2, Y: -l.ascent}, Max: geom.Point{X: wide / 2, Y: l.descent}}
			box := on.ApplyBox(own)
			own.Min.X, own.Max.X = own.Min.X-spacing/2, own.Max.X+spacing/2
			corners := own.Corners()
			for n := range corners {
				corners[n] = on.Apply(corners[n])
			}
			if !g.space {
				s.out.Lines = append(s.out.Lines, box)
				s.out.Feet = append(s.out.Feet, foot)
			}
			s.glyph(stood{g: g, m: m, box: box, corners: corners, spot: spot{on.Apply(geom.Point{X: g.kept()*em - wide/2}), turn, from(r, angle-way*wide/2/foot, circle), spacing}})
			x += wide + spacing
		}
		s.end(l)
	}
	s.out.Box = geom.BoxAt(geom.Point{}, 2*reach, 2*reach)
}

// stands returns the axes of what stands on a ring, x px along the circle its feet are on; the angle of that place, radians; and how
// the axes are turned, degrees.
func stands(r *doc.TextRing, foot, x float64) (on geom.Matrix, angle, turn float64) {
	way := 1.0
	if r.Flip {
		way = -1
	}
	angle = r.Start*math.Pi/180 + way*x/foot
	turn = angle*180/math.Pi + way*90
	sin, cos := math.Sincos(angle)
	return geom.Translate(geom.Point{X: foot * cos, Y: foot * sin}).Mul(geom.Rotate(turn)), angle, turn
}

// from is the ring that a stretch of a text would stand on by itself, aligned left.
func from(r *doc.TextRing, angle, radius float64) *doc.TextRing {
	return &doc.TextRing{Radius: math.Max(radius, 1), Start: angle * 180 / math.Pi, Inside: r.Inside, Flip: r.Flip}
}

// offset is how far from the ring the feet of a line stand: outside of it letters stand on it or reach down to it, within it they
// hang from it or stand on it.
func (s *setter) offset(l *line, r *doc.TextRing) float64 {
	switch {
	case r.Inside && !r.Flip:
		return -s.capHeight(l)
	case !r.Inside && r.Flip:
		return s.capHeight(l)
	}
	return 0
}

// capHeight is the height of a line's tallest capitals, px.
func (s *setter) capHeight(l *line) float64 {
	most := 0.0
	for _, g := range l.glyphs {
		h := 0.7 // of the size, where a family does not tell
		if v := float64(g.face.LineMetric(font.CapHeight)); v > 0 {
			h = v / g.Upem
		}
		most = math.Max(most, h*g.size)
	}
	return most
}

// spaced returns the space after each letter, and the length of the line on a circle. A line that fills a share of the circle does
// so from the begin of its first letter to the end of its last; one that fills all of it has a space after its last, too.
func (s *setter) spaced(glyphs []Glyph, share, radius float64) (spacing, length float64) {
	for _, g := range glyphs {
		length += g.Advance / g.Upem * g.size
	}
	gaps := float64(len(glyphs) - 1)
	if share <= 0 {
		return s.spacing(), length + math.Max(gaps, 0)*s.spacing()
	}
	if share >= 1 {
		gaps++
	}
	want := share * 2 * math.Pi * radius
	if gaps <= 0 {
		return 0, length
	}
	return (want - length) / gaps, want
}

// seen are a line's glyphs without the spaces at its end.
func (l *line) seen() []Glyph {
	n := len(l.glyphs)
	for n > 0 && l.glyphs[n-1].space {
		n--
	}
	return l.glyphs[:n]
}

// spaces is how many spaces stand between the letters of a line.
func (l *line) spaces() (n int) {
	for _, g := range l.seen() {
		if g.space {
			n++
		}
	}
	return
}

// stack sets every letter on a line of its own; a space is half a line.
func (s *setter) stack(glyphs []Glyph) {
	for i := 0; i < len(glyphs); {
		k := i + 1
		for k < len(glyphs) && glyphs[k].Cluster == glyphs[i].Cluster {
			k++
		}
		l := s.finish(glyphs[i:k], glyphs[i].run)
		l.from, l.to = glyphs[i].Cluster, glyphs[i].next
		if glyphs[i].space {
			l.glyphs, l.width = nil, 0
			l.ascent, l.descent, l.height = l.ascent/2, l.descent/2, l.height/2
		}
		s.lines = append(s.lines, l)
		i = k
	}
}
