package svg

import (
	"math"
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/geom"
)

// grouped gives what was made of an element the element's own opacity, clip path, mask, filter and blend.
func (w *walker) grouped(n *node, s state, out []*doc.Layer) []*doc.Layer {
	if len(out) == 0 {
		return out
	}
	if out = w.clipped(n, s, out); len(out) == 0 {
		return out
	}
	out = w.behindMask(n, s, out)
	if len(out) == 0 {
		return out
	}
	own := n.style
	opacity := share(own["opacity"], 1)
	blend, blends := w.blend(n)
	effects := w.filter(n, s)
	id := n.at["id"] != ""
	plain := opacity == 1 && !blends && effects == nil
	if plain && (n.name != "g" && n.name != "a" || len(out) == 1 && !id) {
		return out
	}
	l := out[0]
	if len(out) > 1 || n.name == "g" && id && l.Kind != doc.Group || l.Opacity != 1 || l.Mask != "" || l.Blend != "" || l.Blur != 0 || l.Feather != 0 || l.Shadow != nil || l.Glow != nil {
		if s.deep > doc.MaxDepth-4 && plain {
			return out
		}
		l = w.layer(doc.Group, named(n, "Group"))
		l.Children = out
	} else if id {
		l.Name = named(n, l.Name)
	}
	l.Opacity = round4(l.Opacity * opacity)
	if blends {
		l.Blend = blend
	}
	if effects != nil {
		effects(l)
	}
	return []*doc.Layer{l}
}

func (w *walker) blend(n *node) (string, bool) {
	v := n.style["mix-blend-mode"]
	if v == "" || v == "normal" {
		return "", false
	}
	name := map[string]string{"color-dodge": "colourDodge", "color-burn": "colourBurn", "hard-light": "hardLight", "soft-light": "softLight", "plus-lighter": "added"}[v]
	if name == "" {
		name = v
	}
	if !slices.Contains(doc.Blends, name) {
		w.lost.add("a blend “"+v+"”", n)
		return "", false
	}
	return name, true
}

// clipped cuts layers to the clip path of an element.
func (w *walker) clipped(n *node, s state, out []*doc.Layer) []*doc.Layer {
	v := n.style["clip-path"]
	if v == "" || v == "none" {
		return out
	}
	if !strings.HasPrefix(v, "url(") {
		w.lost.add("a clip path that is told as a shape", n)
		return out
	}
	to := w.reference(v, n)
	if to == nil || to.name != "clipPath" || slices.Contains(w.using, to) {
		return out
	}
	w.using = append(w.using, to)
	defer func() { w.using = w.using[:len(w.using)-1] }()
	t := s
	t.style = map[string]string{"fill": "#000", "stroke": "none"}
	if to.at["clipPathUnits"] == "objectBoundingBox" {
		t.m = s.m.Mul(w.boxAxes(n, s))
	}
	if m, ok := transform(to.style["transform"], s.g); ok {
		t.m = t.m.Mul(m)
	}
	by := &geom.Path{}
	for _, c := range to.children {
		w.clipping(c, t, by)
	}
	if len(by.Points) == 0 {
		return nil // what is clipped to nothing is not seen
	}
	out = []*doc.Layer{w.masked(named(n, "Clipped"), out, []*doc.Layer{w.filled("Edge", by)})}
	return w.clipped(to, s, out) // a clip path may be clipped itself
}

// filled is an outline in black, which covers.
func (w *walker) filled(name string, p *geom.Path) *doc.Layer {
	l := w.path(name, p)
	l.Fill = doc.Fill{Kind: doc.Solid, Colour: "#000000"}
	return l
}

// clipping adds what an element of a clip path covers.
func (w *walker) clipping(n *node, s state, to *geom.Path) {
	if n.name == "" || n.style["display"] == "none" {
		return
	}
	if w.drawn++; w.drawn > maxDrawn {
		return
	}
	s.style = inherited(s.style, n.style)
	if m, ok := transform(n.style["transform"], s.g); ok {
		s.m = s.m.Mul(m)
	}
	if n.name == "use" {
		x, _ := s.g.length(s.style["x"], across)
		y, _ := s.g.length(s.style["y"], down)
		s.m = s.m.Mul(geom.Translate(geom.Point{X: x, Y: y}))
		if t := w.reference(n.at["href"], n); t != nil && !slices.Contains(w.using, t) {
			w.using = append(w.using, t)
			w.clipping(t, s, to)
			w.using = w.using[:len(w.using)-1]
		}
		return
	}
	switch n.name {
	case "path", "rect", "circle", "ellipse", "polyline", "polygon":
	case "text":
		w.lost.add("words that clip", n)
		return
	default:
		return
	}
	p := w.outline(n, s)
	if p == nil {
		return
	}
	p = placed(p, s.m)
	if s.style["clip-rule"] == "evenodd" {
		if q, err := w.nonzero(p); err == nil {
			p = q
		}
	}
	to.Append(p, geom.Identity)
}

// boxAxes maps a box of 1 by 1 to that of an element, in its own axes.
func (w *walker) boxAxes(n *node, s state) geom.Matrix {
	b := geom.EmptyBox()
	var add func(n *node, in state, m geom.Matrix)
	add = func(n *node, in state, m geom.Matrix) {
		if w.stopped() {
			return
		}
		in.style = inherited(in.style, n.style)
		if p := w.outlineOf(n, in); p != nil {
			b = b.Union(m.ApplyBox(p.Bounds()))
		}
		for _, c := range n.children {
			if c.name == "" {
				continue
			}
			t, _ := transform(c.style["transform"], in.g)
			add(c, in, m.Mul(t))
		}
	}
	add(n, s, geom.Identity)
	if b.Empty() {
		return geom.Identity
	}
	return geom.Matrix{A: b.W(), D: b.H(), E: b.Min.X, F: b.Min.Y}
}

// outlineOf is outline for what may be no shape; nil then.
func (w *walker) outlineOf(n *node, s state) *geom.Path {
	switch n.name {
	case "path", "rect", "circle", "ellipse", "line", "polyline", "polygon":
		return w.outline(n, s)
	}
	return nil
}

// image makes a picture of one that lies in the file.
func (w *walker) image(n *node, s state) []*doc.Layer {
	href := strings.TrimSpace(n.at["href"])
	if !strings.HasPrefix(href, "data:") {
		w.lost.add("a picture from elsewhere, which is never fetched", n)
		return nil
	}
	if w.o.Picture == nil {
		w.lost.add("a picture", n)
		return nil
	}
	hash, pw, ph, err := w.o.Picture(href)
	if err != nil || pw < 1 || ph < 1 {
		w.lost.add("a picture that cannot be read", n)
		return nil
	}
	x, _ := s.g.length(s.style["x"], across)
	y, _ := s.g.length(s.style["y"], down)
	width, okW := s.g.length(s.style["width"], across)
	height, okH := s.g.length(s.style["height"], down)
	if !okW && !okH {
		width, height = float64(pw), float64(ph)
	} else if !okW {
		width = height * float64(pw) / float64(ph)
	} else if !okH {
		height = width * float64(ph) / float64(pw)
	}
	aspect := n.at["preserveAspectRatio"]
	m, shows := viewBox([]float64{0, 0, float64(pw), float64(ph)}, aspect, x, y, width, height)
	if !shows {
		return nil
	}
	l := w.layer(doc.Picture, named(n, "Picture"))
	l.Picture = &doc.PictureUse{Media: hash}
	w.media[hash] = &doc.Media{Name: "picture", Type: "image/png", Bytes: 1, Width: pw, Height: ph}
	m = s.m.Mul(m)
	if !placeBox(l, m, float64(pw), float64(ph)) {
		w.lost.add("a picture that is slanted", n)
	}
	if strings.Contains(aspect, "slice") {
		edge := geom.Rectangle(geom.Box{Min: geom.Point{X: x, Y: y}, Max: geom.Point{X: x + width, Y: y + height}}, 0)
		return []*doc.Layer{w.masked(l.Name, []*doc.Layer{l}, []*doc.Layer{w.filled("Edge", placed(edge, s.m))})}
	}
	return []*doc.Layer{l}
}

// placeBox lays a layer so that a box from 0, 0 of a size is mapped by m; false where that is slanted, which a place cannot be.
func placeBox(l *doc.Layer, m geom.Matrix, w, h float64) bool {
	c := m.Apply(geom.Point{X: w / 2, Y: h / 2})
	sx, sy := math.Hypot(m.A, m.B), math.Hypot(m.C, m.D)
	l.Place = doc.Place{X: round4(c.X), Y: round4(c.Y), W: round4(w * sx), H: round4(h * sy), Turn: round4(math.Atan2(m.B, m.A) * 180 / math.Pi), FlipY: m.Det() < 0}
	return math.Abs(m.A*m.C+m.B*m.D) < 1e-3*sx*sy
}
