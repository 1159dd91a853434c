package svg

import (
	"math"
	"slices"

	"capstan/core/combine"
	"capstan/core/doc"
	"capstan/core/geom"
)

// mostTiles is how many tiles of a pattern one outline shows at most.
const mostTiles = 4000

// pattern fills an outline, in its own axes, with the tiles of a pattern (SVG 2, section 14.3): a group that shows them within the outline. What each tile has
// of one look becomes one layer, so that it stays sharp, and its colours can be changed. false: it shows nothing.
func (w *walker) pattern(to *node, n *node, s state, p *geom.Path, name string, evenOdd bool, opacity float64) ([]*doc.Layer, bool) {
	at := map[string]string{}
	content := to
	seen := map[*node]bool{}
	for g := to; g != nil && !seen[g]; {
		seen[g] = true
		for name, v := range g.at {
			if _, ok := at[name]; !ok && (name != "href" || g == to) {
				at[name] = v
			}
		}
		for _, name := range []string{"width", "height", "x", "y"} {
			if v := g.style[name]; v != "" && at[name] == "" {
				at[name] = v
			}
		}
		if v := g.style["transform"]; v != "" && at["patternTransform"] == "" {
			at["patternTransform"] = v
		}
		if len(content.children) == 0 {
			content = g
		}
		if g.at["href"] == "" {
			break
		}
		next := w.reference(g.at["href"], n)
		if next == nil || next.name != "pattern" {
			break
		}
		g = next
	}
	if slices.Contains(w.using, content) {
		return nil, false
	}
	local := p.Bounds()
	shares := at["patternUnits"] != "userSpaceOnUse"
	g := s.g
	if shares {
		g = against{w: 1, h: 1, font: s.g.font}
	}
	num := func(name string, side int) float64 {
		v, _ := g.length(at[name], side)
		return v
	}
	tile := geom.Box{Min: geom.Point{X: num("x", across), Y: num("y", down)}}
	tile.Max = tile.Min.Add(geom.Point{X: num("width", across), Y: num("height", down)})
	if shares {
		tile = geom.Matrix{A: local.W(), D: local.H(), E: local.Min.X, F: local.Min.Y}.ApplyBox(tile)
	}
	if !(tile.W() > 0 && tile.H() > 0) {
		return nil, false
	}
	turn, ok := transform(at["patternTransform"], s.g)
	inv, can := turn.Inverse()
	if !ok || !can {
		return nil, false
	}
	// The tiles that the outline meets.
	room := inv.ApplyBox(local)
	x0, x1 := math.Floor((room.Min.X-tile.Min.X)/tile.W()), math.Ceil((room.Max.X-tile.Min.X)/tile.W())
	y0, y1 := math.Floor((room.Min.Y-tile.Min.Y)/tile.H()), math.Ceil((room.Max.Y-tile.Min.Y)/tile.H())
	if !((x1-x0)*(y1-y0) <= mostTiles) {
		w.lost.add("a pattern of very many tiles", n)
		return nil, false
	}
	t := s
	t.style = inherited(map[string]string{}, content.style)
	t.m = turn.Mul(geom.Translate(tile.Min)) // as browsers do
	if box := numbers(at["viewBox"]); len(box) == 4 {
		m, shows := viewBox(box, at["preserveAspectRatio"], tile.Min.X, tile.Min.Y, tile.W(), tile.H())
		if !shows {
			return nil, false
		}
		t.m, t.g.w, t.g.h = turn.Mul(m), box[2], box[3]
	} else if at["patternContentUnits"] == "objectBoundingBox" {
		t.m = t.m.Mul(geom.Scale(local.W(), local.H()))
	}
	t.m = s.m.Mul(t.m)
	w.using = append(w.using, content)
	parts := w.children(content, t)
	w.using = w.using[:len(w.using)-1]
	if len(parts) == 0 {
		return nil, false
	}
	edge := placed(geom.Rectangle(tile, 0), s.m.Mul(turn))
	axes := s.m.Mul(turn)
	dx, dy := geom.Point{X: axes.A * tile.W(), Y: axes.B * tile.W()}, geom.Point{X: axes.C * tile.H(), Y: axes.D * tile.H()}
	var steps []geom.Point
	for y := y0; y < y1; y++ {
		for x := x0; x < x1; x++ {
			steps = append(steps, dx.Mul(x).Add(dy.Mul(y)))
		}
	}
	var out []*doc.Layer
	for _, l := range parts {
		list, ok := w.tiled(l, edge, steps)
		if !ok {
			w.lost.add("a part of a pattern that is no outline in one colour", n)
			continue
		}
		out = append(out, list...)
	}
	if len(out) == 0 {
		return nil, false
	}
	shown := placed(p, s.m)
	if evenOdd {
		if q, err := w.nonzero(shown); err == nil {
			shown = q
		}
	}
	made := w.masked(name, out, []*doc.Layer{w.filled("Edge", shown)})
	made.Opacity = round4(opacity)
	return []*doc.Layer{made}, true
}

// tiled lays a layer of a tile side by side, cut to the tile: outlines in one colour as one layer, of copies of the others as many as there is room for.
func (w *walker) tiled(l *doc.Layer, edge *geom.Path, steps []geom.Point) ([]*doc.Layer, bool) {
	if l.Kind == doc.Group && l.Mask == "" && l.Opacity == 1 && l.Blend == "" && l.Blur == 0 && l.Shadow == nil && !slices.ContainsFunc(l.Children, func(c *doc.Layer) bool { return c.Mask != "" }) {
		var out []*doc.Layer
		for _, c := range l.Children {
			list, ok := w.tiled(c, edge, steps)
			if !ok {
				return nil, false
			}
			out = append(out, list...)
		}
		return out, true
	}
	own := outlineOf(l)
	if w.stopped() || own == nil || l.Opacity != 1 || l.Blend != "" || l.Blur != 0 || l.Shadow != nil {
		return nil, false
	}
	to := geom.Translate(geom.Point{X: l.Place.X, Y: l.Place.Y}).Mul(geom.Rotate(l.Place.Turn))
	var out []*doc.Layer
	lay := func(p *geom.Path, fill doc.Fill) bool {
		if fill.Kind == doc.NoFill {
			return true
		}
		if b := p.Bounds(); !within(b, edge.Bounds()) || !upright(edge) {
			q, err := w.areas(combine.KeepOverlap, combine.Area{Path: p}, combine.Area{Path: edge})
			if err != nil {
				return false
			}
			p = q
		}
		if fill.Kind != doc.Solid {
			if len(steps) > 200 {
				return false
			}
			for _, by := range steps {
				c := w.path(l.Name, placed(p, geom.Translate(by)))
				c.Fill = fill
				out = append(out, c)
			}
			return true
		}
		all := &geom.Path{}
		for _, by := range steps {
			if len(all.Points)+len(p.Points) > 20_000 {
				c := w.path(l.Name, all)
				c.Fill = fill
				out, all = append(out, c), &geom.Path{}
			}
			all.Append(p, geom.Translate(by))
		}
		if len(all.Points) > 0 {
			c := w.path(l.Name, all)
			c.Fill = fill
			out = append(out, c)
		}
		return true
	}
	if !lay(placed(own, to), l.Fill) {
		return nil, false
	}
	if v := l.Stroke; v != nil {
		line := own.Stroke(geom.Pen{Width: v.Width, Cap: v.Cap, Join: v.Join, MiterLimit: v.MiterLimit, Dash: v.Dash, DashOffset: v.DashOffset})
		if !lay(placed(line, to), v.Fill) {
			return nil, false
		}
	}
	return out, true
}

func within(b, edge geom.Box) bool {
	e := edge.Grow(1e-6)
	return b.Min.X >= e.Min.X && b.Min.Y >= e.Min.Y && b.Max.X <= e.Max.X && b.Max.Y <= e.Max.Y
}

// upright reports whether a rectangle, as a path, lies level.
func upright(p *geom.Path) bool {
	return len(p.Points) > 1 && (math.Abs(p.Points[0].Y-p.Points[1].Y) < 1e-9 || math.Abs(p.Points[0].X-p.Points[1].X) < 1e-9)
}
