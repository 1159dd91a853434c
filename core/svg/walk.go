package svg

import (
	"io"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/text"
	"capstan/core/words"
)

// Drawing is what a file becomes: a group of layers, whose origin is the middle of its page, as large as it was asked to be.
type Drawing struct {
	Group         *doc.Layer
	Width, Height float64 // px of its page
	Lost          []Loss  // what could not be kept
}

// Options say what a drawing becomes.
type Options struct {
	Name    string
	Page    [2]float64                                              // px: it lands on this, see landed; 0: as large as it says
	Stop    func() error                                            // asked often; what it returns ends the work; nil: nobody does
	ID      func() string                                           // a new id for each layer and thread
	Picture func(address string) (hash string, w, h int, err error) // takes in a picture inside of the file; nil, or an error: it is left out
	Fonts   *text.Book                                              // sets its words; nil: they are left out, and told
	Family  func(names []string) (family string, close bool)        // the family that comes nearest to those that are named; nil: none does
}

// Read makes a group of layers of an SVG. A *words.Fault says why there can be none.
func Read(r io.Reader, o Options) (*Drawing, error) {
	limited := &io.LimitedReader{R: r, N: MaxBytes + 1}
	lost := &losses{}
	root, err := parsed(limited, lost)
	if limited.N <= 0 {
		return nil, words.New("drawing.large", MaxBytes>>20)
	}
	if err != nil {
		return nil, err
	}
	styled(root, lost)
	w := &walker{o: o, lost: lost, ids: map[string]*node{}, media: map[string]*doc.Media{}}
	root.walk(func(n *node) {
		if id := n.at["id"]; id != "" && w.ids[id] == nil {
			w.ids[id] = n
		}
	})
	g := against{w: 300, h: 150, font: 16}
	box := numbers(root.at["viewBox"])
	width, okW := g.length(root.style["width"], across)
	height, okH := g.length(root.style["height"], down)
	if strings.HasSuffix(strings.TrimSpace(root.style["width"]), "%") {
		okW = false
	}
	if strings.HasSuffix(strings.TrimSpace(root.style["height"]), "%") {
		okH = false
	}
	hasBox := len(box) == 4 && box[2] > 0 && box[3] > 0
	switch {
	case okW && okH:
	case okW && hasBox:
		height = width * box[3] / box[2]
	case okH && hasBox:
		width = height * box[2] / box[3]
	case hasBox:
		width, height = box[2], box[3]
	default:
		if !okW {
			width = 300
		}
		if !okH {
			height = 150
		}
	}
	if !(width > 0 && height > 0) || width > doc.MaxPlace || height > doc.MaxPlace {
		return nil, words.New("drawing.size")
	}
	m, shows := viewBox(box, root.at["preserveAspectRatio"], 0, 0, width, height)
	k := 1.0
	if o.Page[0] > 0 && o.Page[1] > 0 {
		k = landed(width, height, o.Page)
	}
	m = geom.Scale(k, k).Mul(geom.Translate(geom.Point{X: -width / 2, Y: -height / 2})).Mul(m)
	g.w, g.h = width, height
	if hasBox {
		g.w, g.h = box[2], box[3]
	}
	group := w.layer(doc.Group, o.Name)
	if shows {
		style := inherited(map[string]string{}, root.style)
		for _, c := range root.children {
			group.Children = append(group.Children, w.element(c, state{m: m, style: style, g: g, deep: 1})...)
			if w.err != nil {
				return nil, w.err
			}
		}
	}
	w.joined(group)
	if w.err != nil {
		return nil, w.err
	}
	group.Children = w.sound(group.Children)
	if len(group.Children) == 0 {
		return nil, words.New("drawing.blank")
	}
	if n := count(group); n > doc.MaxLayers-1 {
		return nil, words.New("drawing.layers", n, doc.MaxLayers-1)
	}
	if err := kept(group, w.media); err != nil {
		return nil, err
	}
	return &Drawing{group, width * k, height * k, lost.list}, nil
}

// landed is by how much a drawing is enlarged on a page: it has at most four fifths of it each way, as a new picture has, and at least three tenths of that,
// since icons are made small.
func landed(w, h float64, page [2]float64) float64 {
	most := [2]float64{0.8 * page[0], 0.8 * page[1]}
	k := min(1, most[0]/w, most[1]/h)
	return max(k, 0.3*min(most[0], most[1])/max(w, h))
}

func count(l *doc.Layer) (n int) {
	for _, c := range l.Children {
		n += count(c)
	}
	return n + 1
}

// walker makes layers of elements.
type walker struct {
	o     Options
	lost  *losses
	ids   map[string]*node
	using []*node // elements that are being used, from the outermost
	drawn int
	media map[string]*doc.Media // pictures that it shows
	err   error
}

// state is what an element is drawn in.
type state struct {
	m     geom.Matrix // its axes to those of the group
	style map[string]string
	g     against
	deep  int
}

// stopped reports whether there is nothing more to do.
func (w *walker) stopped() bool {
	if w.err == nil && w.o.Stop != nil {
		w.err = w.o.Stop()
	}
	return w.err != nil
}

func (w *walker) layer(kind, name string) *doc.Layer {
	id := w.o.ID()
	if name = strings.TrimSpace(name); name == "" {
		name = "Part"
	}
	if r := []rune(name); len(r) > 80 {
		name = string(r[:80])
	}
	return &doc.Layer{ID: id, Thread: id, Name: name, Kind: kind, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}}
}

// named is what a layer made of an element is called: its title, its label, or its id.
func named(n *node, otherwise string) string {
	for _, c := range n.children {
		if c.name == "title" {
			if s := strings.Join(strings.Fields(c.content()), " "); s != "" {
				return s
			}
		}
	}
	if s := strings.TrimSpace(n.at["aria-label"]); s != "" {
		return s
	}
	if id := n.at["id"]; id != "" {
		return spoken(id)
	}
	return otherwise
}

// hexed is a sign that an id cannot have, as drawing programs write it.
var hexed = regexp.MustCompile(`_x([0-9A-Fa-f]{2,4})_`)

// spoken is an id as a name: ids have no blanks, low lines stand for them (common practice).
func spoken(id string) string {
	id = hexed.ReplaceAllStringFunc(id, func(s string) string {
		if v, err := strconv.ParseUint(s[2:len(s)-1], 16, 32); err == nil && unicode.IsPrint(rune(v)) {
			return string(rune(v))
		}
		return s
	})
	if s := strings.TrimSpace(strings.ReplaceAll(id, "_", " ")); s != "" {
		return s
	}
	return id
}

// element makes layers of one element.
func (w *walker) element(n *node, in state) []*doc.Layer {
	if w.err != nil || n.name == "" {
		return nil
	}
	if w.drawn++; w.drawn > maxDrawn {
		w.err = words.New("drawing.many", maxDrawn)
	}
	if w.stopped() {
		return nil
	}
	s := in
	s.style = inherited(in.style, n.style)
	if s.style["display"] == "none" {
		return nil
	}
	if v, ok := in.g.length(n.style["font-size"], across); ok {
		s.g.font = v
		if strings.HasSuffix(n.style["font-size"], "%") {
			s.g.font = in.g.font * v / max(in.g.w, 1e-9)
		}
	}
	if t := n.style["transform"]; t != "" {
		m, ok := transform(t, s.g)
		if !ok {
			w.lost.add("a transform that cannot be read", n)
		}
		s.m = s.m.Mul(m)
	}
	var out []*doc.Layer
	switch n.name {
	case "g", "a":
		out = w.children(n, s)
	case "switch":
		for _, c := range n.children {
			if c.name != "" && c.at["systemLanguage"] == "" && c.at["requiredExtensions"] == "" {
				out = w.element(c, s)
				break
			}
		}
	case "svg":
		out = w.nested(n, s, s.style["width"], s.style["height"])
	case "use":
		out = w.use(n, s)
	case "path", "rect", "circle", "ellipse", "line", "polyline", "polygon":
		if p := w.outline(n, s); p != nil && s.style["visibility"] != "hidden" && s.style["visibility"] != "collapse" {
			out = w.painted(n, s, p)
		}
	case "image":
		out = w.image(n, s)
	case "text":
		out = w.text(n, s)
	case "defs", "symbol", "clipPath", "mask", "linearGradient", "radialGradient", "pattern", "marker", "filter", "style", "title", "desc", "view", "cursor":
		return nil
	default:
		w.lost.add("an element “"+n.name+"” that is not known", n)
		return nil
	}
	return w.grouped(n, s, out)
}

func (w *walker) children(n *node, s state) (out []*doc.Layer) {
	s.deep++
	for _, c := range n.children {
		out = append(out, w.element(c, s)...)
	}
	return out
}

// nested makes layers of an svg in another, or of a symbol that is used.
func (w *walker) nested(n *node, s state, wide, high string) []*doc.Layer {
	x, _ := s.g.length(s.style["x"], across)
	y, _ := s.g.length(s.style["y"], down)
	if n.name == "symbol" {
		x, y = 0, 0
	}
	width, ok := s.g.length(wide, across)
	if !ok {
		width = s.g.w
	}
	height, ok := s.g.length(high, down)
	if !ok {
		height = s.g.h
	}
	box := numbers(n.at["viewBox"])
	m, shows := viewBox(box, n.at["preserveAspectRatio"], x, y, width, height)
	if !shows || width <= 0 || height <= 0 {
		return nil
	}
	outer := s.m
	s.m = s.m.Mul(m)
	s.g.w, s.g.h = width, height
	if len(box) == 4 {
		s.g.w, s.g.h = box[2], box[3]
	}
	out := w.children(n, s)
	if v := s.style["overflow"]; v == "visible" || v == "auto" || len(out) == 0 {
		return out
	}
	return w.cut(out, geom.Box{Min: geom.Point{X: x, Y: y}, Max: geom.Point{X: x + width, Y: y + height}}, outer, named(n, "Frame"))
}

// cut cuts off what reaches out of a box, whose axes m maps to those of the group.
func (w *walker) cut(out []*doc.Layer, box geom.Box, m geom.Matrix, name string) []*doc.Layer {
	inner := geom.EmptyBox()
	for _, l := range out {
		inner = inner.Union(boxOf(l, geom.Identity))
	}
	// Only a box that is level is as large as its own box.
	if edge := m.ApplyBox(box); m.B == 0 && m.C == 0 && inner.Intersect(edge.Grow(1e-3)) == inner || len(out) == 0 {
		return out
	}
	return []*doc.Layer{w.masked(name, out, []*doc.Layer{w.filled("Edge", placed(geom.Rectangle(box, 0), m))})}
}

// use makes layers of what a use shows.
func (w *walker) use(n *node, s state) []*doc.Layer {
	to := w.reference(n.at["href"], n)
	if to == nil {
		return nil
	}
	if slices.Contains(w.using, to) || len(w.using) > 60 {
		w.lost.add("a use of what it lies in itself", n)
		return nil
	}
	x, _ := s.g.length(s.style["x"], across)
	y, _ := s.g.length(s.style["y"], down)
	s.m = s.m.Mul(geom.Translate(geom.Point{X: x, Y: y}))
	w.using = append(w.using, to)
	defer func() { w.using = w.using[:len(w.using)-1] }()
	if to.name == "symbol" || to.name == "svg" {
		t := s
		t.style = inherited(s.style, to.style)
		wide, high := s.style["width"], s.style["height"]
		if wide == "" {
			wide = to.style["width"]
		}
		if high == "" {
			high = to.style["height"]
		}
		return w.grouped(to, t, w.nested(to, t, wide, high))
	}
	inner := s
	inner.style = inherited(map[string]string{}, s.style)
	return w.element(to, inner)
}

// reference finds what a reference in the file itself is to.
func (w *walker) reference(href string, from *node) *node {
	href = strings.TrimSpace(href)
	if s, ok := strings.CutPrefix(href, "url("); ok {
		href = strings.Trim(strings.TrimSuffix(strings.TrimSpace(s), ")"), ` "'`)
	}
	id, ok := strings.CutPrefix(href, "#")
	if !ok {
		if href != "" {
			w.lost.add("something from elsewhere, which is never fetched", from)
		}
		return nil
	}
	n := w.ids[id]
	if n == nil {
		w.lost.add("a reference to what is not there", from)
	}
	return n
}

// placed is a path in other axes.
func placed(p *geom.Path, m geom.Matrix) *geom.Path {
	out := &geom.Path{}
	out.Append(p, m)
	return out
}

// path is a layer of an outline in the axes of the group: its place is the middle of the outline.
func (w *walker) path(name string, p *geom.Path) *doc.Layer {
	l := w.layer(doc.PathKind, name)
	c := p.Bounds().Centre()
	if math.IsNaN(c.X) || math.IsInf(c.X, 0) {
		c = geom.Point{}
	}
	l.Place.X, l.Place.Y = round4(c.X), round4(c.Y)
	l.Path = placed(p, geom.Translate(geom.Point{X: -l.Place.X, Y: -l.Place.Y})).Data()
	return l
}

func round4(v float64) float64 { return math.Round(v*1e4)/1e4 + 0 } // never below 0 by nothing

// masked is a group that shows what covers it.
func (w *walker) masked(name string, content, by []*doc.Layer) *doc.Layer {
	g := w.layer(doc.Group, name)
	var m *doc.Layer
	if len(by) == 1 {
		m = by[0]
	} else {
		m = w.layer(doc.Group, "Mask")
		m.Children = by
	}
	m.Mask = doc.Inside
	g.Children = append([]*doc.Layer{m}, content...)
	return g
}

// boxOf is the upright box of a layer and all in it, as it stands in the axes m is to.
func boxOf(l *doc.Layer, m geom.Matrix) geom.Box {
	m = m.Mul(geom.Translate(geom.Point{X: l.Place.X, Y: l.Place.Y})).Mul(geom.Rotate(l.Place.Turn))
	b := geom.EmptyBox()
	for _, c := range l.Children {
		b = b.Union(boxOf(c, m))
	}
	switch {
	case l.Path != "":
		if p, err := geom.ParseData(l.Path); err == nil {
			own := p.Bounds()
			if l.Stroke != nil {
				own = own.Grow(l.Stroke.Width / 2)
			}
			b = b.Union(m.ApplyBox(own))
		}
	case l.Place.W > 0 && l.Place.H > 0:
		b = b.Union(m.ApplyBox(geom.BoxAt(geom.Point{}, l.Place.W, l.Place.H)))
	}
	return b
}
