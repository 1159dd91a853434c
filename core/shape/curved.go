package shape

import (
	"math"

	"capstan/core/geom"
)

// ring is an ellipse with a hole of the same proportions, drawn the other way round.
func (s Spec) ring() *geom.Path {
	p := geom.Ellipse(geom.BoxAt(geom.Point{}, s.W, s.H))
	if h := s.Shape.Hole; h > 0 {
		hole := &geom.Path{}
		arc(hole, geom.Point{}, h*s.W/2, h*s.H/2, 0, -360)
		hole.Close()
		p.Append(hole, geom.Identity)
	}
	return p
}

// sector is a slice of an ellipse or of a ring; an open one is its outer arc.
func (s Spec) sector() *geom.Path {
	v := &s.Shape
	rx, ry := s.W/2, s.H/2
	p := &geom.Path{}
	switch {
	case v.Open:
		arc(p, geom.Point{}, rx, ry, v.Start, v.Sweep)
		if v.Sweep >= 360 {
			p.Close()
		}
		return p
	case v.Sweep >= 360:
		return s.ring()
	}
	arc(p, geom.Point{}, rx, ry, v.Start, v.Sweep)
	if v.Hole > 0 {
		arc(p, geom.Point{}, v.Hole*rx, v.Hole*ry, v.Start+v.Sweep, -v.Sweep)
	} else {
		p.Line(geom.Point{})
	}
	p.Close()
	return p
}

// heart touches all four sides of its box. Its two halves are mirror images, of two cubics each.
func (s Spec) heart() *geom.Path {
	p := &geom.Path{}
	at := func(x, y float64) geom.Point { return geom.Point{X: x * s.W, Y: y * s.H} }
	p.Move(at(0, 0.5))
	p.Cubic(at(-0.12, 0.36), at(-0.5, 0.14), at(-0.5, -0.2))
	p.Cubic(at(-0.5, -0.38), at(-0.38, -0.5), at(-0.25, -0.5))
	p.Cubic(at(-0.13, -0.5), at(-0.04, -0.43), at(0, -0.3))
	p.Cubic(at(0.04, -0.43), at(0.13, -0.5), at(0.25, -0.5))
	p.Cubic(at(0.38, -0.5), at(0.5, -0.38), at(0.5, -0.2))
	p.Cubic(at(0.5, 0.14), at(0.12, 0.36), at(0, 0.5))
	p.Close()
	return p
}

// humpsAside are how far a cloud's humps bulge, alternately, in lengths of their chords.
var humpsAside = [3]float64{0.52, 0.66, 0.58}

// cloud is a ring of humps about an ellipse, stretched to touch all sides of the box.
func (s Spec) cloud() *geom.Path {
	n := s.Shape.Count
	raw := &geom.Path{}
	point := func(i int) geom.Point {
		sin, cos := math.Sincos(2*math.Pi*(float64(i)+0.5)/float64(n) + math.Pi/2)
		return geom.Point{X: cos, Y: 0.62 * sin}
	}
	raw.Move(point(0))
	for i := range n {
		a, b := point(i), point(i+1)
		v := b.Sub(a)
		out := geom.Point{X: v.Y, Y: -v.X}.Mul(humpsAside[i%3])
		raw.Cubic(a.Add(out.Mul(4.0/3)), b.Add(out.Mul(4.0/3)), b)
	}
	raw.Close()
	return s.filling(raw)
}

// filling stretches an outline so that it touches all sides of the box.
func (s Spec) filling(raw *geom.Path) *geom.Path {
	b := raw.Bounds()
	if b.Empty() {
		return raw
	}
	p := &geom.Path{}
	p.Append(raw, geom.Scale(s.W/b.W(), s.H/b.H()).Mul(geom.Translate(b.Centre().Mul(-1))))
	return p
}

// wave is a band whose upper and lower edges rise and fall alike. A half wave between crest and trough is one cubic with level ends;
// its handles of 0.3642 wave halves come within 0.6 percent of a cosine.
func (s Spec) wave() *geom.Path {
	n := 2 * s.Shape.Count // half waves
	swing := s.Shape.Depth * s.H / 2
	half := s.H/2 - swing
	step := s.W / float64(n)
	h := 0.3642 * step
	edge := func(p *geom.Path, y float64, from, by int) {
		x := func(i int) float64 { return -s.W/2 + step*float64(i) }
		up := func(i int) float64 { return y + swing*(1-2*float64(i%2)) }
		to(p, geom.Point{X: x(from), Y: up(from)})
		for k := range n {
			i := from + by*k
			j := i + by
			d := h * float64(by)
			p.Cubic(geom.Point{X: x(i) + d, Y: up(i)}, geom.Point{X: x(j) - d, Y: up(j)}, geom.Point{X: x(j), Y: up(j)})
		}
	}
	p := &geom.Path{}
	edge(p, -half, 0, 1)
	edge(p, half, n, -1)
	p.Close()
	return p
}
