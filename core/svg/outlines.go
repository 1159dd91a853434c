package svg

import (
	"strings"

	"capstan/core/geom"
)

// outline is the path of a basic shape, in its own axes; nil where it draws nothing.
func (w *walker) outline(n *node, s state) *geom.Path {
	num := func(name string, side int) float64 {
		v, _ := s.g.length(s.style[name], side)
		return v
	}
	switch n.name {
	case "path":
		d := s.style["d"]
		if v, ok := strings.CutPrefix(d, "path("); ok {
			d = strings.Trim(strings.TrimSuffix(v, ")"), `"' `)
		}
		p, whole := readPath(d)
		if !whole {
			w.lost.add("what follows a mistake in path data", n)
		}
		if len(p.Points) == 0 {
			return nil
		}
		return p
	case "rect":
		x, y, width, height := num("x", across), num("y", down), num("width", across), num("height", down)
		if width <= 0 || height <= 0 {
			return nil
		}
		rx, ry := s.corners(width, height)
		return roundedRectangle(x, y, width, height, rx, ry)
	case "circle", "ellipse":
		cx, cy := num("cx", across), num("cy", down)
		rx, ry := num("r", diagonal), 0.0
		if ry = rx; n.name == "ellipse" {
			var okX, okY bool
			rx, okX = s.g.length(s.style["rx"], across)
			ry, okY = s.g.length(s.style["ry"], down)
			if !okX {
				rx = ry
			}
			if !okY {
				ry = rx
			}
		}
		if rx <= 0 || ry <= 0 {
			return nil
		}
		return geom.Ellipse(geom.BoxAt(geom.Point{X: cx, Y: cy}, 2*rx, 2*ry))
	case "line":
		p := &geom.Path{}
		a := func(name string, side int) float64 {
			v, _ := s.g.length(n.at[name], side)
			return v
		}
		p.Move(geom.Point{X: a("x1", across), Y: a("y1", down)})
		p.Line(geom.Point{X: a("x2", across), Y: a("y2", down)})
		return p
	}
	v := numbers(n.at["points"])
	if len(v) < 4 {
		return nil
	}
	p := &geom.Path{}
	p.Move(geom.Point{X: v[0], Y: v[1]})
	for i := 2; i+1 < len(v); i += 2 {
		p.Line(geom.Point{X: v[i], Y: v[i+1]})
	}
	if n.name == "polygon" {
		p.Close()
	}
	return p
}

func roundedRectangle(x, y, w, h, rx, ry float64) *geom.Path {
	if rx == 0 || ry == 0 {
		return geom.Rectangle(geom.Box{Min: geom.Point{X: x, Y: y}, Max: geom.Point{X: x + w, Y: y + h}}, 0)
	}
	p := &geom.Path{}
	at := func(a, b float64) geom.Point { return geom.Point{X: a, Y: b} }
	p.Move(at(x+rx, y))
	p.Line(at(x+w-rx, y))
	arc(p, at(x+w-rx, y), at(x+w, y+ry), rx, ry, 0, false, true)
	p.Line(at(x+w, y+h-ry))
	arc(p, at(x+w, y+h-ry), at(x+w-rx, y+h), rx, ry, 0, false, true)
	p.Line(at(x+rx, y+h))
	arc(p, at(x+rx, y+h), at(x, y+h-ry), rx, ry, 0, false, true)
	p.Line(at(x, y+ry))
	arc(p, at(x, y+ry), at(x+rx, y), rx, ry, 0, false, true)
	p.Close()
	return p
}

// corners are how far the corners of a rectangle of a size are round, across and down: one that is not said is as the other, and none is more than half.
func (s state) corners(width, height float64) (rx, ry float64) {
	rx, okX := s.g.length(s.style["rx"], across)
	ry, okY := s.g.length(s.style["ry"], down)
	if !okX {
		rx = ry
	}
	if !okY {
		ry = rx
	}
	return min(max(0, rx), width/2), min(max(0, ry), height/2)
}
