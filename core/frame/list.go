package frame

import (
	"math"

	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/paint"
)

// Op is a primitive of a display list. Each op stands in List.Codes followed by the codes it takes, and
// takes its numbers from List.Numbers in the same order.
type Op = uint32

// The primitives. m is a Matrix as six numbers (A..F) from local px to page px; colours are four
// numbers r g b a in 0..1, not premultiplied.
const (
	OpFill     Op = 1 // codes: key. numbers: m, colour
	OpOutline  Op = 2 // codes: verb count, verbs. numbers: m, colour, coordinates: an outline for this frame only
	OpPicture  Op = 3 // codes: picture, mip, key of its outline. numbers: m, box (x y w h), crop (l t r b), alpha
	OpGroup    Op = 4 // numbers: opacity. What follows up to OpEnd is painted by itself, then laid over
	OpEnd      Op = 5
	OpMix      Op = 6 // numbers: p. (1-p) x what follows up to OpNext + p x what follows that up to OpEnd
	OpNext     Op = 7
	OpClipPage Op = 8 // numbers: box (x y w h). What follows up to OpEnd is cut to it
	// OpVeil shows a part of what follows up to OpEnd. codes: n reveals (1 or 2). numbers: m, then for each its opacity o and
	// a wipe (dx dy edge softness inverted). At the local point q a wipe is clamp((edge - d.q) / softness, 0, 1), over one
	// device px when softness is less than that; inverted: 1 - that. One reveal shows a = o x wipe, two a + b (1 - a).
	OpVeil Op = 9
	// OpWipe shows (1-a) x what follows up to OpNext + a x what follows that up to OpEnd. numbers: m, one wipe as in OpVeil,
	// which is a.
	OpWipe Op = 10
)

// List says what to paint, back to front, in page px. It holds no pixels and no document.
type List struct {
	Width, Height float64 // the page
	Codes         []uint32
	Numbers       []float64
}

func (l *List) reset(w, h float64) {
	l.Width, l.Height = w, h
	l.Codes, l.Numbers = l.Codes[:0], l.Numbers[:0]
}

func (l *List) op(codes ...uint32) { l.Codes = append(l.Codes, codes...) }

func (l *List) num(v ...float64) { l.Numbers = append(l.Numbers, v...) }

func (l *List) matrix(m geom.Matrix) { l.num(m.A, m.B, m.C, m.D, m.E, m.F) }

func (l *List) fill(key uint32, m geom.Matrix, c paint.Colour, alpha float64) {
	l.op(OpFill, key)
	l.matrix(m)
	l.num(c.R, c.G, c.B, c.A*alpha)
}

func (l *List) outline(p *geom.Path, m geom.Matrix, c paint.Colour, alpha float64) {
	l.op(OpOutline, uint32(len(p.Verbs)))
	for _, v := range p.Verbs {
		l.Codes = append(l.Codes, uint32(v))
	}
	l.matrix(m)
	l.num(c.R, c.G, c.B, c.A*alpha)
	for _, q := range p.Points {
		l.num(q.X, q.Y)
	}
}

// wipe writes the numbers of a wipe across a box.
func (l *List) wipe(r *motion.Reveal, box geom.Box) {
	if r.Share == 1 && !r.Inverted || r.Share == 0 && r.Inverted {
		l.num(0, 0, 1, 1, 0) // everything
		return
	}
	v := geom.Rotate(r.Direction).ApplyVector(geom.Point{X: 1})
	from, to := math.Inf(1), math.Inf(-1)
	for _, c := range box.Corners() {
		u := c.X*v.X + c.Y*v.Y
		from, to = min(from, u), max(to, u)
	}
	inverted := 0.0
	if r.Inverted {
		inverted = 1
	}
	l.num(v.X, v.Y, from+r.Share*(to-from+r.Softness), r.Softness, inverted)
}
