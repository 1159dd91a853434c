package frame

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/geom"
	"capstan/core/morph"
	"capstan/core/state"
)

// drawing is how a layer, or a piece of a text, is drawn with a pen whose own lines are so wide.
type drawing struct {
	line    float64    // px
	lines   []line     // one after another
	length  float64    // px, of all in the layer's own axes
	fills   bool       // something is filled
	weight  float64    // length at rest, in px of the page: its share among the layers of a group
	middle  geom.Point // at rest, on the page
	pointer string
	tool    []shape    // what is drawn for that
	pieces  []*drawing // of a text whose moves divide it
}

// line is a part of an outline that is drawn in one go.
type line struct {
	path    *geom.Path
	measure *geom.Measure
	from    float64 // px of lines before it
	whole   uint32  // its stroke
	shape   int     // of the layer, that it belongs to
	pen     geom.Pen
	paint   Paint
	own     bool   // of the layer's own stroke: it stays
	side    string // of it
	of      uint32 // the outline whose side that is
}

// mostLines is into how many parts the outlines of one layer are divided at most: that many subpaths are each drawn by themselves, of more several
// at a time.
const mostLines = 1000

// drawn is how far a node is drawn; without a pen it is all there.
type drawn struct {
	pen         *effect.Pen
	lines, fill float64
}

// pens returns those that a layer's moves draw with.
func pens(l *doc.Layer) (list []effect.Pen) {
	for _, m := range l.Moves {
		if c := m.Comes(); c != nil && c.Pen != nil {
			list = append(list, c.Pen(m.Full()))
		}
	}
	return
}

// compileDrawings prepares the layers that are drawn, by themselves or with a group they are in, and notes what follows the tips.
func (f *Film) compileDrawings(s *scene, list []*layer, within []effect.Pen, to geom.Matrix) {
	for _, l := range list {
		of := append(slices.Clip(within), pens(l.doc)...)
		if len(of) == 0 && len(l.children) == 0 {
			continue
		}
		m := to.Mul(l.at(restPose))
		for i := range of {
			if k := s.byThread[of[i].Layer]; k != nil && !l.within(k) {
				if s.pointers == nil {
					s.pointers = map[*layer]bool{}
				}
				s.pointers[k] = true
			}
			if len(l.children) > 0 || l.drawingWith(&of[i]) != nil {
				continue
			}
			d := f.drawingOf(l, l.shapes, of[i].Line, m, l.box)
			d.pointer, d.tool = of[i].Pointer, f.tool(of[i].Pointer, s)
			for k := range l.pieces {
				p := f.drawingOf(l, l.pieces[k].shapes, of[i].Line, m, l.pieces[k].box)
				p.tool = d.tool
				d.pieces = append(d.pieces, p)
			}
			l.drawings = append(l.drawings, d)
		}
		f.compileDrawings(s, l.children, of, m)
	}
}

// within reports whether a layer is g, or lies in it.
func (l *layer) within(g *layer) bool {
	for ; l != nil; l = l.parent {
		if l == g {
			return true
		}
	}
	return false
}

// drawingWith returns how a layer is drawn with a pen; nil where it is not prepared for it.
func (l *layer) drawingWith(pen *effect.Pen) *drawing {
	for _, d := range l.drawings {
		if d.line == pen.Line && d.pointer == pen.Pointer {
			return d
		}
	}
	return nil
}

// drawingOf divides outlines, in a layer's own axes, which m maps to the page at rest, into the lines they are drawn by. Those of a layer with a stroke
// are that stroke; those of one without are lines in its own colour. A picture is uncovered by one line (see band).
func (f *Film) drawingOf(l *layer, shapes []shape, width float64, m geom.Matrix, box geom.Box) *drawing {
	d := &drawing{line: width, middle: m.ApplyBox(box).Centre()}
	add := func(p *geom.Path, name string, v line) {
		measure := f.Geometry.measure(name, p)
		if v.path, v.measure, v.from = p, measure, d.length; measure.Length() > 0 {
			d.length += measure.Length()
		}
		d.lines = append(d.lines, v)
	}
	if kinds[l.doc.Kind].paint != nil {
		p, pen := band(box)
		add(p, fmt.Sprint("band", box), line{pen: pen})
	} else {
		stroked := slices.ContainsFunc(shapes, func(s shape) bool { return s.of != 0 })
		for i := range shapes {
			s := &shapes[i]
			d.fills = d.fills || s.of == 0 && !s.paint.Clear()
			if stroked != (s.of != 0) || s.paint.Clear() {
				continue
			}
			v := line{shape: i, paint: s.paint, own: stroked, side: s.side, of: s.of, pen: geom.Pen{Width: width, Cap: geom.RoundCap, Join: geom.RoundJoin}}
			outline := s.key
			if stroked {
				outline, v.pen = s.of, pen(l.doc.Stroke, l.doc.Stroke.Width)
			}
			whole := f.Geometry.Path(outline)
			if t := v.pen.Trim; t != nil {
				whole = whole.Part(t[0], t[1])
				v.pen.Trim = nil
			}
			parts := whole.Subpaths(mostLines)
			for k, part := range parts {
				name := fmt.Sprint("d", outline, "/", k, "/", len(parts), v.pen)
				v.whole = f.Geometry.key(name, func() *geom.Path { return part.Stroke(v.pen) })
				add(part, name, v)
			}
		}
	}
	d.weight = d.length * math.Sqrt(math.Abs(m.A*m.D-m.B*m.C))
	return d
}

// band is the course by which a picture is uncovered, as a hand would rub it in: a zigzag from its upper left downwards, eight strokes or more, each
// a little off by a number hashed from its place (NoiseAt), and the pen whose width covers all of the box by then.
func band(box geom.Box) (*geom.Path, geom.Pen) {
	rows := int(min(200, max(8, math.Ceil(box.H()/120))))
	step := box.H() / float64(rows)
	p := &geom.Path{}
	p.Move(geom.Point{X: box.Min.X, Y: box.Min.Y - step})
	for i := 0; i <= rows+2; i++ {
		x := box.Max.X
		if i%2 == 1 {
			x = box.Min.X
		}
		y := box.Min.Y + (float64(i)-0.5)*step
		p.Line(geom.Point{X: x, Y: y + 0.2*step*(NoiseAt(uint32(rows), false, float64(i), 0)-0.5)})
	}
	return p, geom.Pen{Width: 2.6 * step, Cap: geom.RoundCap, Join: geom.RoundJoin}
}

// draw notes how far node i, and all that is in it, is drawn, and where the tip is.
func (p *Player) draw(i int, d effect.Drawn) {
	if d.Pen == nil {
		return
	}
	p.parts = p.parts[:0]
	total, fills := 0.0, false
	for k := i; k < p.nodes[i].end; k++ {
		n := &p.nodes[k]
		if n.mask != "" && k > i {
			k = n.end - 1
			continue
		}
		of := n.drawing(d.Pen)
		if of == nil {
			continue
		}
		fills = fills || of.fills
		weight := of.weight
		if d.Pen.Equal {
			weight = 1
		}
		total += weight
		p.parts = append(p.parts, drawnPart{k, of, weight})
	}
	switch d.Pen.Order {
	case "front":
		slices.Reverse(p.parts)
	case "left":
		slices.SortStableFunc(p.parts, func(a, b drawnPart) int { return cmp.Compare(a.of.middle.X, b.of.middle.X) })
	case "top":
		slices.SortStableFunc(p.parts, func(a, b drawnPart) int { return cmp.Compare(a.of.middle.Y, b.of.middle.Y) })
	}
	if total == 0 { // nothing has a length: all take as long
		for k := range p.parts {
			p.parts[k].weight = 1
		}
		total = float64(len(p.parts))
	}
	lines, fill := d.Shares(fills)
	gone, tipped := lines*total, false
	for k := range p.parts {
		q := &p.parts[k]
		n := &p.nodes[q.node]
		share := 1.0
		if gone < q.weight {
			share = gone / q.weight
			if !tipped && lines < 1 {
				p.tip(n, q.of, share, d.Pen, lines)
				tipped = true
			}
		}
		gone = max(0, gone-q.weight)
		if lines >= 1 {
			share = 1
		}
		if n.draw.pen != nil { // drawn with its group, too
			share, fill := min(share, n.draw.lines), min(fill, n.draw.fill)
			n.draw = drawn{d.Pen, share, fill}
			continue
		}
		n.draw = drawn{d.Pen, share, fill}
	}
	for k := i; k < p.nodes[i].end; k++ { // the plates of texts come with the filling
		if n := &p.nodes[k]; n.kind == textNode && n.draw.pen == nil {
			n.draw = drawn{d.Pen, 1, fill}
		}
	}
}

// drawnPart is one of what is drawn one after another.
type drawnPart struct {
	node   int
	of     *drawing
	weight float64
}

// drawing returns how a node is drawn with a pen; nil where it has no outlines of its own. In a morph it is drawn as on the side it goes to, where
// it is drawn there.
func (n *node) drawing(pen *effect.Pen) *drawing {
	d, _ := n.drawnAs(pen)
	return d
}

func (n *node) drawnAs(pen *effect.Pen) (*drawing, *layer) {
	for _, l := range [2]*layer{n.other, n.layer} {
		if l == nil {
			continue
		}
		switch d := l.drawingWith(pen); {
		case d == nil:
		case n.kind == leafNode:
			return d, l
		case n.kind == pieceNode && n.piece < len(d.pieces):
			return d.pieces[n.piece], l
		}
	}
	return nil, nil
}

// at returns the line that is being drawn when a share of all is, and how far that one is.
func (d *drawing) at(share float64) (i int, of float64) {
	want := share * d.length
	i, found := slices.BinarySearchFunc(d.lines, want, func(l line, want float64) int { return cmp.Compare(l.from, want) })
	if !found {
		i--
	}
	i = max(0, min(i, len(d.lines)-1))
	if length := d.lines[i].measure.Length(); length > 0 {
		of = min(1, (want-d.lines[i].from)/length)
	}
	return
}

// drawnLeaf writes a leaf as far as it is drawn. One that changes its form on the way to another scene is that form less and less, and more and more
// what is drawn there.
func (p *Player) drawnLeaf(n *node, v View, alpha float64, m geom.Matrix) {
	d, as := n.drawnAs(n.draw.pen)
	if d == nil || len(d.lines) == 0 {
		p.finished(n, v, alpha*n.draw.fill, m)
		return
	}
	if n.other != nil && (n.sized || n.grown != 0 || n.other.doc.Path != n.layer.doc.Path) {
		e := min(1, max(0, n.share))
		if as == n.layer {
			e = 1 - e
		}
		p.finished(n, v, alpha*n.draw.lines*(1-e), m)
		alpha *= e
		if n.grown != 0 {
			m = m.Mul(geom.Scale(1/n.grown, 1/n.grown))
		}
		if w, h := as.box.W(), as.box.H(); n.size != (geom.Point{}) && w > 0 && h > 0 && n.kind == leafNode {
			m = m.Mul(geom.Scale(n.size.X/w, n.size.Y/h))
		}
	}
	if alpha <= 0 {
		return
	}
	if kinds[as.doc.Kind].paint != nil {
		p.rubbed(n, d, v, alpha, m)
		return
	}
	shapes, others := as.shapes, n.layer.shapes
	if n.kind == pieceNode {
		shapes = as.pieces[n.piece].shapes
		if n.piece < len(n.layer.pieces) {
			others = n.layer.pieces[n.piece].shapes
		}
	}
	paint := func(i int, own *Paint) Paint {
		if as == n.layer || len(others) != len(shapes) {
			return own.Sized(m, v.Scale)
		}
		c := morph.Paints(&others[i].paint, own, n.share)
		return c.Sized(m, v.Scale)
	}
	if n.draw.fill > 0 {
		for i := range shapes {
			if s := &shapes[i]; s.of == 0 && !s.paint.Clear() {
				c := paint(i, &s.paint)
				p.list.fill(p.film.Geometry, s.key, m, &c, alpha*n.draw.fill)
			}
		}
	}
	if !d.lines[0].own { // the line it lends itself goes as the filling comes
		if alpha *= 1 - n.draw.fill; alpha <= 0 {
			return
		}
	}
	last, share := d.at(n.draw.lines)
	if n.draw.lines >= 1 {
		last, share = len(d.lines)-1, 1
	}
	for i := range d.lines[:last+1] {
		s := &d.lines[i]
		c := paint(s.shape, &s.paint)
		if i == last && share < 1 {
			p.drawnPartly(s, share, m, &c, alpha)
			continue
		}
		p.sided(s, m, func() { p.list.fill(p.film.Geometry, s.whole, m, &c, alpha) })
	}
}

func (p *Player) drawnPartly(s *line, share float64, m geom.Matrix, c *Paint, alpha float64) {
	if share > 0 {
		stroke := s.path.PartOf(s.measure, 0, share).Stroke(s.pen)
		p.sided(s, m, func() { p.list.outline(stroke, m, c, alpha) })
	}
}

// sided writes what inside does on the side of the outline that a line keeps to.
func (p *Player) sided(s *line, m geom.Matrix, inside func()) {
	if s.side == "" {
		inside()
		return
	}
	l := &p.list
	l.op(OpClip, s.of, outsideCode(s.side))
	k := l.openBox()
	l.matrix(m)
	inside()
	l.op(OpEnd)
	l.closeBox(k)
}

// finished writes a leaf as it is when all of it is drawn.
func (p *Player) finished(n *node, v View, alpha float64, m geom.Matrix) {
	if alpha <= 0 {
		return
	}
	was := n.draw
	n.draw = drawn{}
	p.leafIn(n, v, alpha, m)
	n.draw = was
}

// rubbed writes a picture as far as its band has uncovered it.
func (p *Player) rubbed(n *node, d *drawing, v View, alpha float64, m geom.Matrix) {
	if n.draw.lines >= 1 {
		p.finished(n, v, alpha, m)
		return
	}
	if n.draw.lines <= 0 {
		return
	}
	l, s := &p.list, &d.lines[0]
	l.op(OpMask, 0)
	k := l.openBox()
	l.num(0)
	p.finished(n, v, alpha, m)
	shown := l.reach
	l.op(OpNext)
	l.reach = geom.EmptyBox()
	l.outline(s.path.PartOf(s.measure, 0, n.draw.lines).Stroke(s.pen), m, &state.White, 1)
	l.op(OpEnd)
	if l.reach = shown.Intersect(l.reach); l.reach.Empty() {
		l.reach = geom.EmptyBox()
	}
	l.closeBox(k)
}

// Lines returns how long all lines are that a layer is drawn by, in px of its own axes, and 0 for an unknown layer.
func (f *Film) Lines(scene int, id string) (length float64) {
	l := f.scenes[scene].byID[id]
	if l == nil {
		return 0
	}
	return f.lines(l, 1)
}

func (f *Film) lines(l *layer, scale float64) (length float64) {
	if kinds[l.doc.Kind].paint != nil {
		p, _ := band(l.box)
		return scale * geom.NewMeasure(p).Length()
	}
	stroked := slices.ContainsFunc(l.shapes, func(s shape) bool { return s.of != 0 })
	for i := range l.shapes {
		switch s := &l.shapes[i]; {
		case s.paint.Clear() || stroked != (s.of != 0):
		case stroked:
			length += scale * geom.NewMeasure(f.Geometry.Path(s.of)).Length()
		default:
			length += scale * geom.NewMeasure(f.Geometry.Path(s.key)).Length()
		}
	}
	for _, c := range l.children {
		if !c.doc.Hidden && c.doc.Mask == "" {
			length += f.lines(c, scale)
		}
	}
	return length
}
