// Package shape gives the outlines of shapes from a kind, a box and a few numbers, and the handles by which these are dragged.
// Outlines lie in the layer's own axes, the middle of the box at the origin, in page px. Angles are degrees, clockwise on the
// page, 0 to the right. Curves are cubics; circles deviate by less than 3e-4 of their radius.
package shape

import (
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
)

// Part is an outline of a shape with how much darker it is than the shape's fill: folds of a ribbon lie in the shade.
type Part struct {
	Path  *geom.Path
	Shade float64 // 0: the fill itself; 1: black
}

// Spec is a shape: what of a layer decides its outline.
type Spec struct {
	Kind   string
	W, H   float64   // px
	Corner float64   // px
	Shape  doc.Shape // whole: what a layer leaves out is filled in by Of
}

// Of reads the shape of a layer, with what it leaves out by default.
func Of(l *doc.Layer) Spec {
	s := Spec{Kind: l.Kind, W: l.Place.W, H: l.Place.H, Corner: l.Corner}
	if l.Shape != nil {
		s.Shape = *l.Shape
	}
	d := Default(l.Kind)
	v := &s.Shape
	if v.Count == 0 {
		v.Count = d.Count
	}
	if v.Sweep == 0 {
		v.Sweep = d.Sweep
	}
	if v.Tip == nil {
		v.Tip = d.Tip
	}
	if len(v.Bends) < 2 {
		v.Bends = d.Bends
	}
	for _, f := range []struct{ own, usual *float64 }{{&v.Thickness, &d.Thickness}, {&v.Head, &d.Head}, {&v.Base, &d.Base}} {
		if *f.own == 0 {
			*f.own = *f.usual
		}
	}
	if l.Shape == nil { // shares that may be 0 count as given as soon as any number is
		v.Hole, v.Depth = d.Hole, d.Depth
	}
	return s
}

// Default returns the numbers of a new shape of a kind.
func Default(kind string) doc.Shape {
	switch kind {
	case doc.Ring:
		return doc.Shape{Hole: 0.6}
	case doc.Sector:
		return doc.Shape{Start: -90, Sweep: 90}
	case doc.Polygon:
		return doc.Shape{Count: 6}
	case doc.Star:
		return doc.Shape{Count: 5, Depth: 0.55}
	case doc.Arrow:
		return doc.Shape{Thickness: 0.4, Head: 0.8}
	case doc.Bubble:
		return doc.Shape{Tip: &[2]float64{0.2, 1.35}, Base: 0.22}
	case doc.Cross:
		return doc.Shape{Thickness: 0.34}
	case doc.Cloud:
		return doc.Shape{Count: 9}
	case doc.Wave:
		return doc.Shape{Count: 3, Depth: 0.35}
	case doc.Ribbon:
		return doc.Shape{Thickness: 0.5, Bends: [][2]float64{{0.1, 1}, {0.1, 0.3}, {0.9, 0.3}, {0.9, 1}}}
	}
	return doc.Shape{}
}

// Parts returns the outlines of a shape, back to front.
func (s Spec) Parts() []Part {
	if s.Kind == doc.Ribbon {
		return s.ribbon()
	}
	return []Part{{Path: s.Outline()}}
}

// Outline returns the outline of a shape of one part.
func (s Spec) Outline() *geom.Path {
	box := geom.BoxAt(geom.Point{}, s.W, s.H)
	v := &s.Shape
	switch s.Kind {
	case doc.Ellipse:
		return geom.Ellipse(box)
	case doc.Ring:
		return s.ring()
	case doc.Sector:
		return s.sector()
	case doc.Polygon:
		return rounded(s.around(v.Count, func(int) float64 { return 1 }), s.Corner)
	case doc.Star:
		return rounded(s.around(2*v.Count, func(i int) float64 { return 1 - float64(i%2)*v.Depth }), s.Corner)
	case doc.Line:
		p := &geom.Path{}
		p.Move(geom.Point{X: -s.W / 2})
		p.Line(geom.Point{X: s.W / 2})
		return p
	case doc.Arrow:
		return rounded(s.arrow(), s.Corner)
	case doc.Bubble:
		return s.bubble()
	case doc.Cross:
		return rounded(s.cross(), s.Corner)
	case doc.Heart:
		return s.heart()
	case doc.Cloud:
		return s.cloud()
	case doc.Wave:
		return s.wave()
	}
	if v.Corners != nil {
		return fillet(corners(box), v.Corners[:])
	}
	return geom.Rectangle(box, s.Corner)
}

func corners(b geom.Box) []geom.Point {
	c := b.Corners()
	return c[:]
}

// around returns n points on the ellipse in the box, the first at its top, each drawn in to a share of the way from the middle.
func (s Spec) around(n int, share func(i int) float64) []geom.Point {
	list := make([]geom.Point, n)
	for i := range list {
		sin, cos := math.Sincos(2*math.Pi*float64(i)/float64(n) - math.Pi/2)
		k := share(i)
		list[i] = geom.Point{X: k * cos * s.W / 2, Y: k * sin * s.H / 2}
	}
	return list
}

// arrow runs from left to right.
func (s Spec) arrow() []geom.Point {
	v := &s.Shape
	w, h, t := s.W/2, s.H/2, v.Thickness*s.H/2
	heads := 1.0
	if v.Heads == doc.AtBoth {
		heads = 2
	}
	head := min(v.Head*s.H, s.W/heads)
	var left, right float64 // where the shaft begins and ends
	left, right = -w, w-head
	var list []geom.Point
	if v.Heads != "" {
		left = -w + head
	}
	if v.Heads == doc.AtStart {
		right = w
	}
	if v.Heads != "" {
		list = append(list, geom.Point{X: left, Y: t}, geom.Point{X: left, Y: h}, geom.Point{X: -w}, geom.Point{X: left, Y: -h}, geom.Point{X: left, Y: -t})
	} else {
		list = append(list, geom.Point{X: left, Y: t}, geom.Point{X: left, Y: -t})
	}
	if v.Heads == doc.AtStart {
		return append(list, geom.Point{X: right, Y: -t}, geom.Point{X: right, Y: t})
	}
	return append(list, geom.Point{X: right, Y: -t}, geom.Point{X: right, Y: -h}, geom.Point{X: w}, geom.Point{X: right, Y: h}, geom.Point{X: right, Y: t})
}

func (s Spec) cross() []geom.Point {
	w, h := s.W/2, s.H/2
	x, y := w*s.Shape.Thickness, h*s.Shape.Thickness
	at := func(x, y float64) geom.Point { return geom.Point{X: x, Y: y} }
	return []geom.Point{at(-x, -h), at(x, -h), at(x, -y), at(w, -y), at(w, y), at(x, y), at(x, h), at(-x, h), at(-x, y), at(-w, y), at(-w, -y), at(-x, -y)}
}

// Open reports whether the shape is a line that encloses nothing.
func (s Spec) Open() bool { return s.Kind == doc.Line || s.Kind == doc.Sector && s.Shape.Open }
