// Package display is the display list: what to paint, back to front, as flat codes and numbers. It holds no pixels, no document and no time; frame
// writes it, raster and the page read it, each by the one schema that is declared here.
package display

import (
	"capstan/core/geom"
	"capstan/core/state"
)

// Op is a primitive of a display list. Each op stands in List.Codes followed by the codes it takes, and
// takes its numbers from List.Numbers in the same order.
type Op = uint32

// The primitives. m is a Matrix as six numbers (A..F) from local px to page px; a box is four numbers x y w h in page
// px and bounds what is painted inside. All that holds others begins with the box it paints in.
//
// A paint is, in codes: 0; or 1 (linear) or 2 (radial) and the number n of stops; or 3 (a texture), picture and mip. In
// numbers: for 0 a colour r g b a in 0..1, not premultiplied; for 3 the matrix from a tile of 1 by 1 to local px, and the
// opacity; else the matrix from the gradient's axes to local px, for radial ones the focus x y, the opacity, and n times:
// share r g b a (see paint.Gradient).
const (
	OpFill     Op = 1 // codes: key, paint. numbers: m, paint
	OpOutline  Op = 2 // codes: verb count, verbs, paint. numbers: m, coordinates, paint: an outline for this frame only
	OpPicture  Op = 3 // codes: picture, mip, key of its outline. numbers: m, box (x y w h, local), crop (l t r b), alpha
	OpGroup    Op = 4 // codes: blend. numbers: box, box of what is in it, opacity, blur, feather, shadow, sharpness and its deviation, twelve of a map of colours. What follows up to OpEnd is one
	OpEnd      Op = 5
	OpMix      Op = 6 // numbers: box, p. (1-p) x what follows up to OpNext + p x what follows that up to OpEnd
	OpNext     Op = 7
	OpClipPage Op = 8 // numbers: box, clip (x y w h). What follows up to OpEnd is cut to it
	// OpVeil shows a part of what follows up to OpEnd. codes: n terms, 0 for everything, and these (see VeilTerm). numbers: box, those of the terms.
	OpVeil Op = 9
	// OpWipe shows (1-a) x what follows up to OpNext + a x what follows that up to OpEnd, a being what a veil shows. codes and numbers as of OpVeil.
	OpWipe Op = 10
	// OpClip cuts what follows up to OpEnd to the inside of an outline, antialiased. codes: key, 1 for the outside
	// instead. numbers: box, m.
	OpClip Op = 11
	// OpMask shows what follows up to OpNext as far as what follows that up to OpEnd covers. codes: MaskOutside for where it does not
	// cover instead, MaskLight for as far as it is light (its cover times its luminance, as masks of SVG). numbers: box, feather (px of a soft border, inwards).
	OpMask Op = 12
	// OpProject shows what follows up to OpEnd, painted flat, through a 3 x 3 matrix: it maps the local box to the page, and
	// each local px is painted with scale samples. numbers: box, local box (x y w h), nine numbers by rows, scale. Inside, m
	// maps to the local axes.
	OpProject Op = 13
	// OpTile shows pixels worked out by the core, for what neither outlines nor pictures can do. codes: width, height, 1 for covers or
	// 4 for premultiplied RGBA, then the bytes by rows, four a code, the first lowest. numbers: m, box (x y w h, local), colour:
	// of the covers, or for RGBA its opacity as a of it. Bilinear, and nothing beyond its edges.
	OpTile Op = 14
)

// What a mask counts, as bits.
const (
	MaskOutside = 1 << iota
	MaskLight
)

// MaxTile bounds the sides of a tile, in samples.
const MaxTile = 2048

// What a list says of looks is told as states have it.
type (
	Blend   = state.Blend
	Shadow  = state.Shadow
	Effects = state.Effects
	Paint   = state.Paint
	Texture = state.Texture
)

// The blends of lists that are named here; the others follow in the order of doc.Blends.
const (
	Normal = state.Normal
	Added  = state.Added
)

// List says what to paint, back to front, in page px. It holds no pixels and no document.
type List struct {
	Width, Height float64 // the page
	Codes         []uint32
	Numbers       []float64
	Depth         int `json:"-"` // how many groups and the like lie in each other at most

	open  int      // groups and the like that have been begun
	Reach geom.Box `json:"-"` // of what has been written since the enclosing box was begun
}

func (l *List) Reset(w, h float64) {
	l.Width, l.Height = w, h
	l.Codes, l.Numbers = l.Codes[:0], l.Numbers[:0]
	l.Reach = geom.EmptyBox()
	l.Depth, l.open = 0, 0
}

func (l *List) Op(codes ...uint32) {
	l.Codes = append(l.Codes, codes...)
	switch codes[0] {
	case OpGroup, OpMix, OpClipPage, OpVeil, OpWipe, OpClip, OpMask, OpProject:
		l.open++
		l.Depth = max(l.Depth, l.open)
	case OpEnd:
		l.open--
	}
}

func (l *List) Num(v ...float64) { l.Numbers = append(l.Numbers, v...) }

func (l *List) Matrix(m geom.Matrix) { l.Num(m.A, m.B, m.C, m.D, m.E, m.F) }

// covers notes that something is painted in the box b, mapped by m.
func (l *List) Covers(m geom.Matrix, b geom.Box) {
	if b.Max.X >= b.Min.X {
		l.Reach = l.Reach.Union(m.ApplyBox(b))
	}
}

// Mark is a box whose numbers are written when what it bounds is known.
type Mark struct {
	at    int
	outer geom.Box
}

func (l *List) OpenBox() Mark {
	k := Mark{len(l.Numbers), l.Reach}
	l.Num(0, 0, 0, 0)
	l.Reach = geom.EmptyBox()
	return k
}

func (l *List) CloseBox(k Mark) {
	if b := l.Reach; b.Max.X >= b.Min.X {
		copy(l.Numbers[k.at:], []float64{b.Min.X, b.Min.Y, b.W(), b.H()})
	}
	l.Reach = l.Reach.Union(k.outer)
}

func (l *List) paintCodes(p *Paint) {
	switch {
	case p.Texture != nil:
		l.Op(3, p.Texture.Picture, p.Mip)
	case p.Gradient == nil:
		l.Op(0)
	case p.Gradient.Radial:
		l.Op(2, uint32(len(p.Gradient.Stops)))
	default:
		l.Op(1, uint32(len(p.Gradient.Stops)))
	}
}

func (l *List) paintNumbers(p *Paint, alpha float64) {
	if p.Texture != nil {
		l.Matrix(p.Axes)
		l.Num(alpha)
		return
	}
	g := p.Gradient
	if g == nil {
		c := p.Colour
		l.Num(c.R, c.G, c.B, c.A*alpha)
		return
	}
	l.Matrix(p.Axes)
	if g.Radial {
		l.Num(g.Focus[0], g.Focus[1])
	}
	l.Num(alpha)
	for _, s := range g.Stops {
		l.Num(s.At, s.Colour.R, s.Colour.G, s.Colour.B, s.Colour.A)
	}
}

func (l *List) Fill(key uint32, bounds geom.Box, m geom.Matrix, p *Paint, alpha float64) {
	l.Op(OpFill, key)
	l.paintCodes(p)
	l.Matrix(m)
	l.paintNumbers(p, alpha)
	l.Covers(m, bounds)
}

func (l *List) Outline(o *geom.Path, m geom.Matrix, p *Paint, alpha float64) {
	l.Op(OpOutline, uint32(len(o.Verbs)))
	for _, v := range o.Verbs {
		l.Codes = append(l.Codes, uint32(v))
	}
	l.paintCodes(p)
	l.Matrix(m)
	for _, q := range o.Points {
		l.Num(q.X, q.Y)
		l.Reach = l.Reach.Include(m.Apply(q))
	}
	l.paintNumbers(p, alpha)
}

func (l *List) Group(e *Effects) Mark {
	l.Op(OpGroup, e.Blend)
	l.Num(0, 0, 0, 0) // written at its end
	k := l.OpenBox()
	s := &e.Shadow
	l.Num(e.Opacity, e.Blur, e.Feather, s.X, s.Y, s.Blur, s.Colour.R, s.Colour.G, s.Colour.B, s.Colour.A)
	if e.Adjust.None() {
		l.Num(0, 0)
		l.Num(state.SameColours[:]...)
		return k
	}
	m := e.Adjust.Colours()
	l.Num(e.Adjust.Sharpness, state.SharpSigma)
	l.Num(m[:]...)
	return k
}

func (l *List) EndGroup(k Mark, e *Effects) {
	l.Op(OpEnd)
	outer := k.outer
	k.outer = geom.EmptyBox()
	l.CloseBox(k)
	if l.Reach.Max.X >= l.Reach.Min.X {
		left, up, right, down := e.Reach()
		l.Reach.Min = l.Reach.Min.Sub(geom.Point{X: left, Y: up})
		l.Reach.Max = l.Reach.Max.Add(geom.Point{X: right, Y: down})
		copy(l.Numbers[k.at-4:], []float64{l.Reach.Min.X, l.Reach.Min.Y, l.Reach.W(), l.Reach.H()})
	}
	l.Reach = l.Reach.Union(outer)
}
