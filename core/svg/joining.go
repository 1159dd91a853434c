package svg

import (
	"math"
	"slices"
	"strconv"

	"capstan/core/doc"
	"capstan/core/geom"
)

// Drawings of more layers than this are brought together: maps, charts and icons are made of thousands of things of few looks.
const manyLayers = 300

// joined brings together what one layer can show: opaque outlines of one look, each as far back as nothing between them lies over it, so that the picture stays
// as it is. It goes down into plain groups. What has a name of its own stays by itself, as long as a scene has room for all.
func (w *walker) joined(group *doc.Layer) {
	if count(group) <= manyLayers {
		return
	}
	w.join(group, false)
	if count(group) >= doc.MaxLayers {
		w.lost.add("names of things that were brought together, since they are so many", nil)
		w.join(group, true)
	}
}

func (w *walker) join(group *doc.Layer, named bool) {
	for _, c := range group.Children {
		if c.Kind == doc.Group {
			w.join(c, named)
		}
	}
	if len(group.Children) < 20 {
		return
	}
	type bucket struct {
		layer  *doc.Layer
		path   *geom.Path
		joined int
		simple bool // all of it goes one way round
	}
	all := geom.EmptyBox()
	boxes := make([]geom.Box, len(group.Children))
	for i, l := range group.Children {
		boxes[i] = boxOf(l, geom.Identity)
		all = all.Union(boxes[i])
	}
	over := newCover(all, boxes)
	var out []*bucket
	of := make([]int, len(boxes)) // the bucket of each
	last := map[string]int{}      // of each look, its frontmost bucket
	for i, l := range group.Children {
		if w.stopped() {
			return
		}
		look, p := lookOf(l), outlineOf(l)
		if !named && !slices.Contains(unnamed, l.Name) {
			look = ""
		}
		k, ok := last[look]
		ok = ok && look != "" && p != nil && len(out[k].path.Points)+len(p.Points) <= mostJoined
		if ok {
			// What goes one way round, without a line of its own, may lie over its like.
			simple := l.Stroke == nil && (l.Kind == doc.Rectangle || l.Kind == doc.Ellipse) && out[k].simple
			ok = over.clear(i, func(f int) bool { return of[f] < k || of[f] == k && simple })
		}
		if !ok {
			b := &bucket{layer: l, simple: l.Kind == doc.Rectangle || l.Kind == doc.Ellipse}
			if look != "" && p != nil {
				b.path = placed(p, axesOf(l))
				last[look] = len(out)
			}
			k = len(out)
			out = append(out, b)
		} else {
			out[k].path.Append(p, axesOf(l))
			out[k].joined++
			out[k].simple = out[k].simple && (l.Kind == doc.Rectangle || l.Kind == doc.Ellipse)
		}
		of[i] = k
		over.put(i)
	}
	group.Children = nil
	for _, b := range out {
		if l := b.layer; b.joined > 0 {
			made := w.path(l.Name+" and "+strconv.Itoa(b.joined)+" more", b.path)
			made.Fill, made.Stroke = l.Fill, l.Stroke
			b.layer = made
		}
		group.Children = append(group.Children, b.layer)
	}
}

// unnamed are the names of what has none.
var unnamed = []string{"Path", "Rectangle", "Circle", "Ellipse", "Line", "Polygon", "Path line", "Rectangle line", "Circle line", "Ellipse line", "Polygon line"}

// mostJoined is how many points one layer is made of, that was brought together.
const mostJoined = 8000

// axesOf leads from the axes of a layer to those of what it lies in.
func axesOf(l *doc.Layer) geom.Matrix {
	return geom.Translate(geom.Point{X: l.Place.X, Y: l.Place.Y}).Mul(geom.Rotate(l.Place.Turn))
}

// lookOf is the same for layers that one can show, if they lie apart; empty: it stays a layer of its own.
func lookOf(l *doc.Layer) string {
	if l.Opacity != 1 || l.Blend != "" || l.Mask != "" || l.Blur != 0 || l.Feather != 0 || l.Shadow != nil || l.Glow != nil || len(l.Children) > 0 {
		return ""
	}
	for _, f := range fills(l) {
		if f.Kind != doc.Solid && f.Kind != doc.NoFill || len(f.Colour) > 7 {
			return ""
		}
	}
	raw, err := doc.Encode(struct {
		Fill   doc.Fill
		Stroke *doc.Stroke
	}{l.Fill, l.Stroke})
	if err != nil {
		return ""
	}
	return string(raw)
}

// cover knows what lies where, by squares of a raster; what is as large as very many of them is looked at each time.
type cover struct {
	box   geom.Box
	boxes []geom.Box
	cells [coverSide * coverSide][]int32
	large []int32
}

const (
	coverSide  = 128
	coverLarge = 300
)

func newCover(box geom.Box, boxes []geom.Box) *cover { return &cover{box: box, boxes: boxes} }

// squares are those that a box touches, from and to each way.
func (c *cover) squares(b geom.Box) (x0, y0, x1, y1 int) {
	at := func(v, from, size float64) int {
		if !(size > 0) {
			return 0
		}
		return int(min(coverSide-1, max(0, math.Floor((v-from)/size*coverSide))))
	}
	return at(b.Min.X, c.box.Min.X, c.box.W()), at(b.Min.Y, c.box.Min.Y, c.box.H()), at(b.Max.X, c.box.Min.X, c.box.W()), at(b.Max.Y, c.box.Min.Y, c.box.H())
}

// clear reports whether all that the i-th box lies over is as it may be.
func (c *cover) clear(i int, may func(f int) bool) bool {
	b := c.boxes[i]
	good := func(list []int32) bool {
		for _, f := range list {
			o := c.boxes[f].Intersect(b)
			if o.Max.X-o.Min.X > -1e-6 && o.Max.Y-o.Min.Y > -1e-6 && !may(int(f)) {
				return false
			}
		}
		return true
	}
	if !good(c.large) {
		return false
	}
	x0, y0, x1, y1 := c.squares(b)
	for y := y0; y <= y1; y++ {
		for x := x0; x <= x1; x++ {
			if !good(c.cells[y*coverSide+x]) {
				return false
			}
		}
	}
	return true
}

func (c *cover) put(i int) {
	x0, y0, x1, y1 := c.squares(c.boxes[i])
	if (x1-x0+1)*(y1-y0+1) > coverLarge {
		c.large = append(c.large, int32(i))
		return
	}
	for y := y0; y <= y1; y++ {
		for x := x0; x <= x1; x++ {
			k := y*coverSide + x
			c.cells[k] = append(c.cells[k], int32(i))
		}
	}
}
