package raster

import (
	"errors"
	"image"
	"slices"

	"capstan/core/display"
	"capstan/core/frame"
	"capstan/core/geom"
)

// Survey is a display list cut into its items, each with the box of px it may paint in. It keeps its own copy of the list.
type Survey struct {
	codes   []uint32
	numbers []float64
	items   []surveyed
	w, h    int
	depth   int
	page    [2]float64
}

// surveyed is one item: what stands from c0, n0 up to c1, n1.
type surveyed struct {
	c0, c1, n0, n1 int
	box            image.Rectangle
	covers         bool // hides everything under it
}

// Survey cuts a list that fills w x h px into items.
func (p *Painter) Survey(s *Survey, l *frame.List, w, h int) error {
	s.codes, s.numbers = append(s.codes[:0], l.Codes...), append(s.numbers[:0], l.Numbers...)
	s.items, s.w, s.h, s.depth, s.page = s.items[:0], w, h, l.Depth, [2]float64{l.Width, l.Height}
	r := &reader{codes: s.codes, numbers: s.numbers}
	bounds := image.Rect(0, 0, w, h)
	view := s.view()
	for r.more() {
		it := surveyed{c0: r.c, n0: r.n}
		box, err := p.skipItem(r, view)
		if err = errors.Join(err, p.broken(r)); err != nil {
			return err
		}
		it.c1, it.n1 = r.c, r.n
		it.box = device(box).Intersect(bounds)
		it.covers = it.box == bounds && p.covers(&reader{codes: s.codes, numbers: s.numbers, c: it.c0, n: it.n0}, view, bounds)
		s.items = append(s.items, it)
	}
	return nil
}

func (s *Survey) view() geom.Matrix {
	return geom.Scale(float64(s.w)/s.page[0], float64(s.h)/s.page[1])
}

// Equal reports whether two lists show the same.
func (s *Survey) Equal(o *Survey) bool {
	return s.w == o.w && s.h == o.h && slices.Equal(s.codes, o.codes) && slices.Equal(s.numbers, o.numbers)
}

// Set makes s a copy of o.
func (s *Survey) Set(o *Survey) {
	s.codes, s.numbers, s.items = append(s.codes[:0], o.codes...), append(s.numbers[:0], o.numbers...), append(s.items[:0], o.items...)
	s.w, s.h, s.depth, s.page = o.w, o.h, o.depth, o.page
}

func sameItem(a *Survey, i int, b *Survey, k int) bool {
	x, y := &a.items[i], &b.items[k]
	return slices.Equal(a.codes[x.c0:x.c1], b.codes[y.c0:y.c1]) && slices.Equal(a.numbers[x.n0:x.n1], b.numbers[y.n0:y.n1])
}

// common returns how many items both begin with.
func common(a, b *Survey) int {
	if a.w != b.w || a.h != b.h || a.page != b.page {
		return 0
	}
	n := 0
	for n < len(a.items) && n < len(b.items) && sameItem(a, n, b, n) {
		n++
	}
	return n
}

// Damage adds the tiles in which two lists may differ. A pixel is the same where the items that touch it are the same, in
// the same order, so the boxes of all items that are not matched count, and any matching in order is right: equal
// begins, equal ends, and between them item by item where there are as many, else by the next that is equal.
func Damage(r *Region, a, b *Survey) {
	if a.w != b.w || a.h != b.h || a.page != b.page {
		r.All()
		return
	}
	from := common(a, b)
	ea, eb := len(a.items), len(b.items)
	for ea > from && eb > from && sameItem(a, ea-1, b, eb-1) {
		ea, eb = ea-1, eb-1
	}
	hurt := func(s *Survey, i int) { r.Add(s.items[i].box) }
	if ea-from == eb-from {
		for i := from; i < ea; i++ {
			if !sameItem(a, i, b, i) {
				hurt(a, i)
				hurt(b, i)
			}
		}
		return
	}
	i := from
	for k := from; k < eb; k++ {
		match := -1
		for j := i; j < min(ea, i+64); j++ {
			if sameItem(a, j, b, k) {
				match = j
				break
			}
		}
		if match < 0 {
			hurt(b, k)
			continue
		}
		for ; i < match; i++ {
			hurt(a, i)
		}
		i++
	}
	for ; i < ea; i++ {
		hurt(a, i)
	}
}

// covers reports whether an item is a rectangle or picture that hides all of bounds.
func (p *Painter) covers(r *reader, view geom.Matrix, bounds image.Rectangle) bool {
	var key uint32
	var m geom.Matrix
	switch r.code() {
	case display.OpFill:
		key = r.code()
		kind := r.paintKind()
		m = view.Mul(r.matrix())
		if k, err := p.ink(r, kind, m); err != nil || !k.opaque() {
			return false
		}
	case display.OpPicture:
		index := int(r.code())
		r.code()
		key = r.code()
		m = view.Mul(r.matrix())
		r.skip(8)
		if index >= len(p.film.Pictures) || r.num() < 1 || !p.film.Opaque(uint32(index)) {
			return false
		}
	default:
		return false
	}
	path := p.film.Geometry.Path(key)
	return path != nil && m.B == 0 && m.C == 0 && upright(path) && encloses(m.ApplyBox(path.Bounds()), bounds)
}

// upright reports whether a path is a rectangle with upright sides.
func upright(p *geom.Path) bool {
	if len(p.Verbs) != 5 || len(p.Points) != 4 || p.Verbs[4] != geom.Close {
		return false
	}
	for i, q := range p.Points {
		if n := p.Points[(i+1)%4]; p.Verbs[i] == geom.CubicTo || (q.X != n.X) == (q.Y != n.Y) {
			return false
		}
	}
	return true
}

func encloses(b geom.Box, r image.Rectangle) bool {
	return b.Min.X <= float64(r.Min.X) && b.Min.Y <= float64(r.Min.Y) && b.Max.X >= float64(r.Max.X) && b.Max.Y >= float64(r.Max.Y)
}
