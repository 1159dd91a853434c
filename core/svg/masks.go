package svg

import (
	"math"
	"slices"
	"strings"

	"capstan/core/combine"
	"capstan/core/doc"
	"capstan/core/geom"
)

// behindMask shows layers as far as the mask of an element says.
func (w *walker) behindMask(n *node, s state, out []*doc.Layer) []*doc.Layer {
	v := n.style["mask"]
	if v == "" || v == "none" {
		return out
	}
	to := w.reference(v, n)
	if to == nil || to.name != "mask" || slices.Contains(w.using, to) {
		return out
	}
	w.using = append(w.using, to)
	defer func() { w.using = w.using[:len(w.using)-1] }()
	t := s
	t.style = inherited(map[string]string{}, to.style)
	if to.at["maskContentUnits"] == "objectBoundingBox" {
		t.m = s.m.Mul(w.boxAxes(n, s))
	}
	var by []*doc.Layer
	if to.style["mask-type"] == "alpha" {
		by = w.children(to, t)
	} else {
		by = w.bright(to, t, n)
	}
	if len(by) == 0 {
		return nil
	}
	return w.behindMask(to, s, []*doc.Layer{w.masked(named(n, "Masked"), out, by)})
}

// bright is what a mask shows, which is as much as it is bright, as what covers as much.
func (w *walker) bright(to *node, s state, from *node) []*doc.Layer {
	// What is all made white covers as it is.
	if only := to.only(); only != nil && only.name == "g" && strings.Join(strings.Fields(only.style["filter"]), "") == "brightness(0)invert(1)" {
		kept := only.style["filter"]
		only.style["filter"] = ""
		by := w.element(only, s)
		only.style["filter"] = kept
		return by
	}
	list := w.children(to, s)
	if plainWhite(list) {
		return list
	}
	m := &levels{w: w}
	for _, l := range list {
		if w.stopped() || !m.add(l, geom.Identity) {
			w.lost.add("a mask in shades of grey", from)
			return covering(list)
		}
	}
	var by []*doc.Layer
	for _, a := range m.areas {
		if a.fill.Kind == doc.Solid && a.fill.Colour == "#00000000" || len(a.path.Points) == 0 {
			continue
		}
		l := w.path("Shown", a.path)
		l.Fill = a.fill
		by = append(by, l)
	}
	return by
}

// only is the one element in another; nil where there are more, or none.
func (n *node) only() (one *node) {
	for _, c := range n.children {
		if c.name == "" {
			continue
		}
		if one != nil {
			return nil
		}
		one = c
	}
	return one
}

// brightness is how bright a colour is: what a mask shows of it (CSS Masking 1, section 7.10.1), its own cover with it.
func brightness(code string) float64 {
	c, ok := readColour(code, colour{})
	if !ok {
		return 0
	}
	return (0.2126*float64(c.r) + 0.7152*float64(c.g) + 0.0722*float64(c.b)) / 255 * c.a
}

// plainWhite reports whether all of a list is white, so that it covers as it is.
func plainWhite(list []*doc.Layer) bool {
	white := true
	for _, l := range list {
		each(l, func(l *doc.Layer) {
			if l.Kind == doc.Picture {
				white = false
			}
			for _, f := range fills(l) {
				if f.Kind == doc.Solid {
					c, _ := readColour(f.Colour, colour{})
					white = white && c.r == 255 && c.g == 255 && c.b == 255
				} else if f.Kind != doc.NoFill {
					white = false
				}
			}
		})
	}
	return white
}

// covering makes colours covers as strong as they are bright, where nothing better is known.
func covering(list []*doc.Layer) (out []*doc.Layer) {
	for _, l := range list {
		each(l, func(l *doc.Layer) {
			for _, f := range fills(l) {
				shown(f)
			}
		})
		out = append(out, l)
	}
	return out
}

// shown makes a fill white that covers as much as it was bright.
func shown(f *doc.Fill) {
	of := func(code string) string { return colour{255, 255, 255, brightness(code)}.hex() }
	switch f.Kind {
	case doc.Solid:
		f.Colour = of(f.Colour)
	case doc.Linear, doc.Radial:
		g := *f.Gradient
		g.Stops = slices.Clone(g.Stops)
		for i := range g.Stops {
			g.Stops[i].Colour = of(g.Stops[i].Colour)
		}
		f.Gradient = &g
	}
}

// levels are the parts of a mask, none over another, each as bright as it is.
type levels struct {
	w     *walker
	areas []level
}

type level struct {
	path *geom.Path
	fill doc.Fill
}

// add lays a layer on top; false where it is more than opaque outlines.
func (m *levels) add(l *doc.Layer, to geom.Matrix) bool {
	if l.Mask != "" || l.Blend != "" || l.Blur != 0 || l.Feather != 0 || l.Shadow != nil || l.Opacity != 1 || l.Kind == doc.Picture || l.Kind == doc.TextKind || len(m.areas) > 200 {
		return false
	}
	to = to.Mul(geom.Translate(geom.Point{X: l.Place.X, Y: l.Place.Y})).Mul(geom.Rotate(l.Place.Turn))
	if l.Kind == doc.Group {
		for _, c := range l.Children {
			if !m.add(c, to) {
				return false
			}
		}
		return true
	}
	own := outlineOf(l)
	if own == nil {
		return false
	}
	if l.Fill.Kind != doc.NoFill && !m.lay(placed(own, to), l.Fill, l, to) {
		return false
	}
	if v := l.Stroke; v != nil {
		line := own.Stroke(geom.Pen{Width: v.Width, Cap: v.Cap, Join: v.Join, MiterLimit: v.MiterLimit, Dash: v.Dash, DashOffset: v.DashOffset})
		return m.lay(placed(line, to), v.Fill, l, to)
	}
	return true
}

// lay takes an outline out of all that lies below it, and adds it where it is bright.
func (m *levels) lay(p *geom.Path, f doc.Fill, l *doc.Layer, to geom.Matrix) bool {
	if f.Kind != doc.Solid && (!f.Graded() || l.Place.Turn != 0 || l.Place.FlipY) || f.Kind == doc.Solid && len(f.Colour) > 7 {
		return false
	}
	if f.Graded() && slices.ContainsFunc(f.Gradient.Stops, func(s doc.Stop) bool { return len(s.Colour) > 7 }) {
		return false
	}
	var left []level
	for _, a := range m.areas {
		if b := a.path.Bounds().Intersect(p.Bounds()); b.Max.X >= b.Min.X && b.Max.Y >= b.Min.Y {
			if a.fill.Graded() {
				return false // its box would become another
			}
			q, err := m.w.areas(combine.CutAway, combine.Area{Path: a.path}, combine.Area{Path: p})
			if err != nil {
				return false
			}
			a.path = q
		}
		if len(a.path.Points) > 0 {
			left = append(left, a)
		}
	}
	m.areas = left
	shown(&f)
	if f.Kind == doc.Solid && brightness(f.Colour) < 1.0/512 {
		return true
	}
	m.areas = append(m.areas, level{p, f})
	return true
}

// outlineOf is the outline of a layer in its own axes; nil: it has none that is known here.
func outlineOf(l *doc.Layer) *geom.Path {
	box := geom.BoxAt(geom.Point{}, l.Place.W, l.Place.H)
	switch l.Kind {
	case doc.PathKind:
		if p, err := geom.ParseData(l.Path); err == nil {
			return p
		}
	case doc.Rectangle:
		return geom.Rectangle(box, math.Min(l.Corner, math.Min(box.W(), box.H())/2))
	case doc.Ellipse:
		return geom.Ellipse(box)
	}
	return nil
}
