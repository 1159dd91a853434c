package raster

import (
	"errors"

	"capstan/core/display"
	"capstan/core/geom"
	"capstan/core/paint"
)

// reader walks through a list; running off its end is an error, not a panic.
type reader struct {
	codes   []uint32
	numbers []float64
	c, n    int // where it stands
	short   bool
}

func (r *reader) more() bool { return r.c < len(r.codes) }

func (r *reader) code() uint32 {
	if r.c >= len(r.codes) {
		r.short = true
		return 0
	}
	r.c++
	return r.codes[r.c-1]
}

func (r *reader) num() float64 {
	if r.n >= len(r.numbers) {
		r.short = true
		return 0
	}
	r.n++
	return r.numbers[r.n-1]
}

func (r *reader) skip(n int) {
	if r.n += n; r.n > len(r.numbers) {
		r.short = true
	}
}

func (r *reader) matrix() geom.Matrix {
	return geom.Matrix{A: r.num(), B: r.num(), C: r.num(), D: r.num(), E: r.num(), F: r.num()}
}

func (r *reader) colour() paint.Colour {
	return paint.Colour{R: r.num(), G: r.num(), B: r.num(), A: r.num()}
}

func (r *reader) box() geom.Box {
	x, y, w, h := r.num(), r.num(), r.num(), r.num()
	return geom.Box{Min: geom.Point{X: x, Y: y}, Max: geom.Point{X: x + w, Y: y + h}}
}

// shown reads the box that what holds others paints in, in px of the device; a box without size is that of nothing.
func (r *reader) shown(view geom.Matrix) geom.Box {
	b := r.box()
	if b.W() <= 0 && b.H() <= 0 {
		return geom.EmptyBox()
	}
	return mapped(view, b)
}

// paintKind is the part of a paint that stands in the codes.
type paintKind struct{ kind, stops, mip uint32 } // of a texture, stops is its picture

func (r *reader) paintKind() paintKind {
	k := paintKind{kind: r.code()}
	if k.kind != 0 {
		k.stops = r.code()
	}
	if k.kind == 3 {
		k.mip = r.code()
	}
	return k
}

// numbersOf says how many numbers a paint takes.
func (k paintKind) numbers() int {
	if k.kind >= uint32(len(display.PaintKinds)) {
		return 0
	}
	of := display.PaintKinds[k.kind]
	return of.Numbers + of.Each*int(k.stops)
}

var errPaint = errors.New("raster: the display list holds a paint that cannot be read")

// ink reads the numbers of a paint for an outline that m maps to device px.
func (p *Painter) ink(r *reader, k paintKind, m geom.Matrix) (ink, error) {
	if k.kind == 0 {
		return ink{colour: premultiplied(r.colour())}, nil
	}
	if k.kind == 3 {
		return p.texture(r, k, m)
	}
	if k.kind > 2 || k.stops < 2 || int(k.stops) > len(r.numbers) {
		return ink{}, errPaint
	}
	axes := m.Mul(r.matrix())
	g := &paint.Gradient{Radial: k.kind == 2}
	if g.Radial {
		g.Focus = [2]float64{r.num(), r.num()}
	}
	alpha := uint32(min(1, max(0, r.num()))*255 + 0.5)
	g.Stops = p.stops[:0]
	for range k.stops {
		g.Stops = append(g.Stops, paint.Stop{At: r.num(), Colour: r.colour()})
	}
	p.stops = g.Stops
	inv, ok := axes.Inverse()
	if !ok {
		// Of a gradient without extent SVG shows the last colour (section 14.2).
		c := g.Stops[len(g.Stops)-1].Colour
		return ink{colour: scaled(premultiplied(c), alpha)}, nil
	}
	return ink{gradient: g, m: inv, alpha: alpha, table: p.tables.of(g)}, nil
}

// skipItem reads past one op with all that is inside it and returns the box it paints in, in px of the device.
func (p *Painter) skipItem(r *reader, view geom.Matrix) (geom.Box, error) {
	if r.c < len(r.codes) && display.Holds(r.codes[r.c]) {
		head := *r
		var ok bool
		if r.c, r.n, ok = display.Skip(r.codes, r.numbers, r.c, r.n); !ok {
			return geom.Box{}, errList
		}
		group := head
		b := head.shown(view)
		if group.code() == display.OpGroup {
			if g := p.group(&group, view); !g.plain() {
				b = b.Grow(effectsRoom)
			}
		}
		return b, nil
	}
	op := r.code()
	switch op {
	case display.OpFill:
		key := r.code()
		k := r.paintKind()
		m := view.Mul(r.matrix())
		r.skip(k.numbers())
		return mapped(m, p.film.Geometry.Bounds(key)), p.broken(r)
	case display.OpOutline:
		n := int(r.code())
		points := 0
		for i := 0; i < n && !r.short; i++ {
			points += geom.PointsOf[r.code()&3]
		}
		k := r.paintKind()
		m := view.Mul(r.matrix())
		b := geom.EmptyBox()
		for range points {
			b = b.Include(m.Apply(geom.Point{X: r.num(), Y: r.num()}))
		}
		r.skip(k.numbers())
		return b, p.broken(r)
	case display.OpPicture:
		r.c += 3
		m := view.Mul(r.matrix())
		b := r.box()
		r.skip(5)
		return mapped(m, b), p.broken(r)
	case display.OpTile:
		w, h, depth := r.code(), r.code(), r.code()
		if w > display.MaxTile || h > display.MaxTile || depth != 1 && depth != 4 {
			return geom.Box{}, errList
		}
		r.c += int(w*h*depth+3) / 4
		m := view.Mul(r.matrix())
		b := r.box()
		r.skip(4)
		return mapped(m, withBorder(b, int(w), int(h))), p.broken(r)
	}
	return geom.Box{}, unknown(op)
}

// mapped is a box that may be empty, mapped.
func mapped(m geom.Matrix, b geom.Box) geom.Box {
	if b.Max.X < b.Min.X {
		return b
	}
	return m.ApplyBox(b)
}

// skipInside reads up to and past the op that ends a group, or a side of one.
func (p *Painter) skipInside(r *reader) error {
	for {
		if !r.more() {
			return errList
		}
		if op := r.codes[r.c]; op == display.OpEnd || op == display.OpNext {
			r.c++
			return nil
		}
		var ok bool
		if r.c, r.n, ok = display.Skip(r.codes, r.numbers, r.c, r.n); !ok {
			return errList
		}
	}
}

func (p *Painter) broken(r *reader) error {
	if r.short || r.c > len(r.codes) || r.n > len(r.numbers) {
		return errList
	}
	return nil
}
