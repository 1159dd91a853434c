package svg

import (
	"fmt"
	"math"
	"strings"

	"capstan/core/doc"
	"capstan/core/geom"
)

// painted makes layers of an outline, in its own axes, with the markers on it.
func (w *walker) painted(n *node, s state, p *geom.Path) []*doc.Layer {
	out := w.drawnOutline(n, s, p)
	switch n.name {
	case "path", "line", "polyline", "polygon":
		width := 1.0
		if v, ok := s.g.length(s.style["stroke-width"], diagonal); ok {
			width = v
		}
		out = append(out, w.markers(n, s, p, width)...)
	}
	return out
}

// drawnOutline makes layers of an outline: one with its fill and its stroke, or one of each where one layer cannot have both.
func (w *walker) drawnOutline(n *node, s state, p *geom.Path) []*doc.Layer {
	name := named(n, map[string]string{"path": "Path", "rect": "Rectangle", "circle": "Circle", "ellipse": "Ellipse", "line": "Line", "polyline": "Line", "polygon": "Polygon"}[n.name])
	local := p.Bounds()
	at := placed(p, s.m)
	if at.Bounds().Empty() && s.style["stroke"] == "" {
		return nil
	}
	fill, fills := w.fill(n, s, "fill", local)
	stroke, strokes := w.fill(n, s, "stroke", local)
	if fill.pattern != nil {
		tiles, shows := w.pattern(fill.pattern, n, s, p, name, s.style["fill-rule"] == "evenodd", share(s.style["fill-opacity"], 1))
		t := s
		t.style = inherited(s.style, map[string]string{"fill": "none"})
		if line := w.drawnOutline(n, t, p); shows {
			return append(tiles, line...)
		} else {
			return line
		}
	}
	width := 1.0
	if v, ok := s.g.length(s.style["stroke-width"], diagonal); ok {
		width = v
	}
	strokes = strokes && width > 0
	if !fills && !strokes {
		return nil
	}
	if l := w.exact(n, s, name, fill, stroke, fills, strokes, width); l != nil && s.style["paint-order"] == "" {
		return []*doc.Layer{l}
	}
	outline := at
	if fills && s.style["fill-rule"] == "evenodd" && strings.Count(p.Data(), "M") > 0 {
		flat, err := w.nonzero(at)
		if err != nil {
			w.lost.add("the even-odd rule of an outline that cannot be told apart", n)
			flat = at
		}
		if len(flat.Points) == 0 {
			fills = false
		} else if !strokes {
			outline = flat
		} else if !sameLines(flat, at) {
			// The stroke goes along all lines of the outline, the fill needs others: two layers.
			a := w.path(name, flat)
			a.Fill = w.shares(fill, local, s.m, flat.Bounds(), n)
			b := w.stroked(n, s, name+" line", p, at, stroke, width, local)
			return append([]*doc.Layer{a}, b...)
		}
	}
	if strokes && !similar(s.m) {
		// A stroke that is pressed flat with its shape is an outline of its own.
		var out []*doc.Layer
		if fills {
			a := w.path(name, outline)
			a.Fill = w.shares(fill, local, s.m, outline.Bounds(), n)
			out = append(out, a)
		}
		return append(out, w.stroked(n, s, name+" line", p, at, stroke, width, local)...)
	}
	if strokes && !fills {
		return w.stroked(n, s, name, p, at, stroke, width, local)
	}
	l := w.path(name, outline)
	if fills {
		l.Fill = w.shares(fill, local, s.m, outline.Bounds(), n)
	}
	if strokes {
		l.Stroke = w.strokeOf(n, s, stroke, width, local, outline.Bounds())
		if strings.HasPrefix(s.style["paint-order"], "stroke") || strings.HasPrefix(s.style["paint-order"], "markers stroke") {
			line := w.layer(l.Kind, name+" line")
			line.Place, line.Path, line.Stroke = l.Place, l.Path, l.Stroke
			l.Stroke = nil
			return []*doc.Layer{line, l}
		}
	}
	return []*doc.Layer{l}
}

// sameLines reports whether two outlines have the same points, so that one may stand for the other.
func sameLines(a, b *geom.Path) bool { return len(a.Points) == len(b.Points) && a.Data() == b.Data() }

// similar reports whether a matrix keeps angles, so that strokes keep their form.
func similar(m geom.Matrix) bool {
	k := math.Abs(m.A) + math.Abs(m.B) + math.Abs(m.C) + math.Abs(m.D)
	return math.Abs(m.A*m.C+m.B*m.D) < 1e-6*k*k && math.Abs(m.A*m.A+m.B*m.B-m.C*m.C-m.D*m.D) < 1e-6*k*k
}

// stroked is a line alone: a layer with a stroke, or, where that would be pressed flat, of its outline.
func (w *walker) stroked(n *node, s state, name string, p, at *geom.Path, stroke fill, width float64, local geom.Box) []*doc.Layer {
	fixed := s.style["vector-effect"] == "non-scaling-stroke"
	if similar(s.m) || fixed {
		l := w.path(name, at)
		l.Stroke = w.strokeOf(n, s, stroke, width, local, at.Bounds())
		return []*doc.Layer{l}
	}
	v := w.strokeOf(n, s, stroke, width, local, local)
	pen := geom.Pen{Width: width, Dash: nil}
	pen.Cap, pen.Join, pen.MiterLimit = v.Cap, v.Join, v.MiterLimit
	k := math.Sqrt(math.Abs(s.m.Det()))
	for _, d := range v.Dash {
		pen.Dash = append(pen.Dash, d/max(k, 1e-9))
	}
	pen.DashOffset = v.DashOffset / max(k, 1e-9)
	var stroker geom.Stroker
	flat := placed(stroker.Stroke(p, pen), s.m)
	if len(flat.Points) == 0 {
		return nil
	}
	l := w.path(name, flat)
	l.Fill = w.shares(stroke, local, s.m, flat.Bounds(), n)
	return []*doc.Layer{l}
}

// strokeOf is a stroke on an outline whose box on the group is given.
func (w *walker) strokeOf(n *node, s state, paint fill, width float64, local, box geom.Box) *doc.Stroke {
	k := math.Sqrt(math.Abs(s.m.Det()))
	if s.style["vector-effect"] == "non-scaling-stroke" {
		k = 1
	}
	v := &doc.Stroke{Fill: w.shares(paint, local, s.m, box, n), Width: round4(width * k)}
	switch s.style["stroke-linecap"] {
	case "round", "square":
		v.Cap = s.style["stroke-linecap"]
	}
	switch s.style["stroke-linejoin"] {
	case "round", "bevel":
		v.Join = s.style["stroke-linejoin"]
	}
	if m := numbers(s.style["stroke-miterlimit"]); len(m) == 1 && m[0] >= 1 && m[0] != 4 {
		v.MiterLimit = m[0]
	}
	if d := s.style["stroke-dasharray"]; d != "" && d != "none" {
		sum := 0.0
		for _, part := range strings.FieldsFunc(d, func(c rune) bool { return c == ',' || c == ' ' || c == '\t' || c == '\n' }) {
			x, ok := s.g.length(part, diagonal)
			if !ok || x < 0 {
				v.Dash = nil
				sum = 0
				break
			}
			v.Dash, sum = append(v.Dash, round4(x*k)), sum+x
		}
		if len(v.Dash)%2 == 1 {
			v.Dash = append(v.Dash, v.Dash...)
		}
		if len(v.Dash) > doc.MaxDashes {
			w.lost.add("dashes of more than so many lengths", n)
			v.Dash = v.Dash[:doc.MaxDashes]
		}
		if sum == 0 {
			v.Dash = nil
		} else if x, ok := s.g.length(s.style["stroke-dashoffset"], diagonal); ok {
			v.DashOffset = round4(x * k)
		}
	}
	return v
}

// fill is what something is filled with, where a gradient still lies in the axes of the element.
type fill struct {
	kind    string
	colour  string
	pattern *node // in place of all that
	radial  bool
	m       geom.Matrix // from the gradient's axes to those of the element
	a, b    geom.Point  // where it begins and ends, or its middle and its focus
	r       float64
	stops   []doc.Stop
}

// fill reads a paint; false: none.
func (w *walker) fill(n *node, s state, property string, local geom.Box) (f fill, paints bool) {
	v := strings.TrimSpace(s.style[property])
	if v == "" {
		if property == "stroke" {
			return fill{}, false
		}
		v = "#000"
	}
	opacity := share(s.style[property+"-opacity"], 1)
	current, _ := readColour(s.style["color"], colour{a: 1})
	if s.style["color"] == "" {
		current = colour{a: 1}
	}
	if v == "none" {
		return fill{}, false
	}
	if strings.HasPrefix(v, "url(") {
		end := strings.IndexByte(v, ')')
		if end < 0 {
			return fill{}, false
		}
		otherwise := strings.TrimSpace(v[end+1:])
		if to := w.reference(v[:end+1], n); to != nil {
			switch to.name {
			case "linearGradient", "radialGradient":
				if f, ok := w.gradient(to, s, local, opacity, current, n); ok {
					return f, f.kind != doc.NoFill
				}
				return fill{}, false
			case "pattern":
				if property == "fill" {
					return fill{kind: doc.Solid, pattern: to}, true
				}
				w.lost.add("a pattern along a line", n)
			default:
				w.lost.add("a paint of an unknown kind", n)
			}
		}
		if otherwise == "" || otherwise == "none" {
			return fill{}, false
		}
		v = otherwise
	}
	if v == "context-fill" || v == "context-stroke" { // of what a marker stands on, or a use shows
		if v = s.style[v]; v == "" || strings.HasPrefix(v, "url(") || strings.HasPrefix(v, "context") {
			return fill{}, false
		}
	}
	c, ok := readColour(v, current)
	if !ok {
		w.lost.add("a colour that cannot be read", n)
		return fill{}, false
	}
	c.a *= opacity
	if c.a == 0 {
		return fill{}, false
	}
	return fill{kind: doc.Solid, colour: c.hex()}, true
}

func (c colour) hex() string {
	if a := uint8(math.Round(255 * c.a)); a < 255 {
		return fmt.Sprintf("#%02x%02x%02x%02x", c.r, c.g, c.b, a)
	}
	return fmt.Sprintf("#%02x%02x%02x", c.r, c.g, c.b)
}

// gradient reads a gradient for an element whose box is given, in its axes. What it does not say itself it has from the one it refers to.
func (w *walker) gradient(n *node, s state, local geom.Box, opacity float64, current colour, from *node) (fill, bool) {
	at := map[string]string{}
	var stops []*node
	seen := map[*node]bool{}
	radial := n.name == "radialGradient"
	for g := n; g != nil; {
		if seen[g] {
			w.lost.add("gradients that refer to each other in a ring", from)
			break
		}
		seen[g] = true
		for name, v := range g.at {
			if _, ok := at[name]; !ok && (name != "href" || g == n) {
				at[name] = v
			}
		}
		if v := g.style["transform"]; v != "" && at["gradientTransform"] == "" {
			at["gradientTransform"] = v
		}
		if len(stops) == 0 {
			for _, c := range g.children {
				if c.name == "stop" && len(stops) <= doc.MaxStops {
					stops = append(stops, c)
				}
			}
		}
		if g.at["href"] == "" {
			break
		}
		to := w.reference(g.at["href"], from)
		if to == nil || to.name != "linearGradient" && to.name != "radialGradient" {
			break
		}
		g = to
	}
	f := fill{kind: doc.Linear, radial: radial}
	if radial {
		f.kind = doc.Radial
	}
	if len(stops) > doc.MaxStops {
		w.lost.add("colours of a gradient beyond the first 32", from)
		stops = stops[:doc.MaxStops]
	}
	last := 0.0
	for _, c := range stops {
		style := inherited(map[string]string{"color": s.style["color"]}, c.style)
		o := share(c.at["offset"], 0)
		last = max(last, o)
		v, ok := readColour(style["stop-color"], current)
		if !ok {
			v = colour{a: 1}
		}
		v.a *= share(style["stop-opacity"], 1) * opacity
		f.stops = append(f.stops, doc.Stop{At: last, Colour: v.hex()})
	}
	switch {
	case len(f.stops) == 0:
		return fill{kind: doc.NoFill}, true
	case len(f.stops) == 1:
		return fill{kind: doc.Solid, colour: f.stops[0].Colour}, true
	}
	user := at["gradientUnits"] == "userSpaceOnUse"
	g := against{w: 1, h: 1, font: s.g.font}
	if user {
		g = s.g
	}
	num := func(name, otherwise string, side int) float64 {
		v := at[name]
		if v == "" {
			v = otherwise
		}
		x, ok := g.length(v, side)
		if !ok {
			x, _ = g.length(otherwise, side)
		}
		return x
	}
	m, ok := transform(at["gradientTransform"], g)
	if !ok {
		w.lost.add("a transform that cannot be read", from)
	}
	if !user {
		if local.W() == 0 || local.H() == 0 {
			return fill{}, false
		}
		m = geom.Matrix{A: local.W(), D: local.H(), E: local.Min.X, F: local.Min.Y}.Mul(m)
	}
	f.m = m
	if !radial {
		f.a = geom.Point{X: num("x1", "0%", across), Y: num("y1", "0%", down)}
		f.b = geom.Point{X: num("x2", "100%", across), Y: num("y2", "0%", down)}
		if f.a == f.b || m.Det() == 0 {
			return fill{kind: doc.Solid, colour: f.stops[len(f.stops)-1].Colour}, true
		}
		w.spread(&f, at["spreadMethod"], local, from)
		return f, true
	}
	f.a = geom.Point{X: num("cx", "50%", across), Y: num("cy", "50%", down)}
	f.r = num("r", "50%", diagonal)
	f.b = f.a
	if at["fx"] != "" {
		f.b.X = num("fx", "50%", across)
	}
	if at["fy"] != "" {
		f.b.Y = num("fy", "50%", down)
	}
	if f.r <= 0 || m.Det() == 0 {
		return fill{kind: doc.Solid, colour: f.stops[len(f.stops)-1].Colour}, true
	}
	w.spread(&f, at["spreadMethod"], local, from)
	return f, true
}

// spread makes a gradient that goes on again and again one that is as long as what it fills, a box in its own axes.
func (w *walker) spread(f *fill, method string, local geom.Box, from *node) {
	if method != "repeat" && method != "reflect" {
		return
	}
	inv, ok := f.m.Inverse()
	lo, hi := math.Inf(1), math.Inf(-1)
	d := f.b.Sub(f.a)
	for _, c := range local.Corners() {
		q := inv.Apply(c).Sub(f.a)
		t := q.Len() / f.r
		if !f.radial {
			t = (q.X*d.X + q.Y*d.Y) / (d.X*d.X + d.Y*d.Y)
		}
		lo, hi = min(lo, math.Floor(t+1e-6)), max(hi, math.Ceil(t-1e-6))
	}
	if f.radial {
		lo = 0
	}
	n := int(hi - lo)
	if n == 1 && lo == 0 {
		return
	}
	if !ok || !(hi-lo >= 1 && hi-lo < doc.MaxStops) || n*len(f.stops) > doc.MaxStops || f.radial && d != (geom.Point{}) {
		w.lost.add("a gradient that goes on again and again", from)
		return
	}
	var stops []doc.Stop
	for k := range n {
		for i := range f.stops {
			s := f.stops[i]
			if method == "reflect" && (int(lo)+k)%2 != 0 {
				s = f.stops[len(f.stops)-1-i]
				s.At = 1 - s.At
			}
			s.At = min(1, (float64(k)+s.At)/float64(n))
			stops = append(stops, s)
		}
	}
	f.stops = stops
	if f.radial {
		f.r *= float64(n)
		return
	}
	f.a, f.b = f.a.Add(d.Mul(lo)), f.a.Add(d.Mul(hi))
}

// ellipse is what a matrix makes of a circle of radius 1: its half axes, and where the longer points to, in degrees.
func ellipse(m geom.Matrix) (long, short, turn float64) {
	// Of M times its transpose: the squares of the half axes, and their directions.
	a, b, d := m.A*m.A+m.C*m.C, m.A*m.B+m.C*m.D, m.B*m.B+m.D*m.D
	half, off := (a+d)/2, math.Hypot((a-d)/2, b)
	return math.Sqrt(half + off), math.Sqrt(max(0, half-off)), math.Atan2(2*b, a-d) / 2 * 180 / math.Pi
}

// shares is a fill as a layer has it, whose box on the group is given: gradients lie in shares of that.
func (w *walker) shares(f fill, local geom.Box, to geom.Matrix, box geom.Box, n *node) doc.Fill {
	if f.kind != doc.Linear && f.kind != doc.Radial {
		return doc.Fill{Kind: f.kind, Colour: f.colour}
	}
	// The box of a layer of a path is that of its outline; a line that is level or upright has none each way.
	bw, bh := box.W(), box.H()
	if bw <= 0 {
		bw = 1
	}
	if bh <= 0 {
		bh = 1
	}
	share := func(p geom.Point) [2]float64 {
		of := func(v float64) float64 { return math.Max(-doc.MaxShares, math.Min(doc.MaxShares, v)) }
		return [2]float64{of((p.X - box.Min.X) / bw), of((p.Y - box.Min.Y) / bh)}
	}
	m := to.Mul(f.m)
	g := &doc.Gradient{Stops: f.stops}
	out := doc.Fill{Kind: f.kind, Gradient: g}
	if !f.radial {
		// How far along it a point lies is an even function of the place, whatever the axes: its slope gives its ends as they are seen.
		inv, ok := m.Inverse()
		d := f.b.Sub(f.a)
		l := d.X*d.X + d.Y*d.Y
		slope := geom.Point{X: (d.X*inv.A + d.Y*inv.B) / l, Y: (d.X*inv.C + d.Y*inv.D) / l}
		k := slope.X*slope.X + slope.Y*slope.Y
		if !ok || k == 0 || math.IsNaN(k) {
			return doc.Fill{Kind: doc.Solid, Colour: f.stops[len(f.stops)-1].Colour}
		}
		from := m.Apply(f.a)
		g.From, g.To = share(from), share(from.Add(slope.Mul(1/k)))
		return out
	}
	middle := m.Apply(f.a)
	long, short, turn := ellipse(m)
	g.From, g.To = share(middle), share(middle.Add(geom.Rotate(turn).Apply(geom.Point{X: f.r * long})))
	if ratio := short / long; ratio < 1-1e-6 {
		g.Ratio = max(round4(ratio), 1.0/doc.MaxShares)
	}
	if f.a != f.b {
		focus := share(m.Apply(f.b))
		g.Focus = &focus
	}
	return out
}
