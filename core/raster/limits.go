package raster

import (
	"errors"
	"image"
)

// Limits bound what a painter takes. The zero value is what single small pictures need.
type Limits struct {
	Bytes int          // of the surfaces it holds at once; 0: DefaultBytes
	Stop  func() error // asked before each primitive; its error ends the painting
}

// DefaultBytes is enough for a page of 4096 x 4096 px with groups four deep.
const DefaultBytes = 384 << 20

// ErrMemory says that a picture needs more surfaces than its painter may hold.
var ErrMemory = errors.New("raster: this picture needs more memory than it may take")

// Within sets a painter's limits.
func (p *Painter) Within(l Limits) {
	if l.Bytes == 0 {
		l.Bytes = DefaultBytes
	}
	p.surfaces.most, p.stop = l.Bytes, l.Stop
}

// caught turns the panic by which surfaces run out into its error; others go on.
func (p *Painter) caught(err *error) {
	switch r := recover(); r {
	case nil:
	case ErrMemory:
		*err = ErrMemory
		p.surfaces.spare, p.surfaces.held = nil, 0 // what was lent is lost
	default:
		panic(r)
	}
}

// bands paints a surface in stretches of rows, so few at a time that surfaces one in the other, depth deep, take half of what the painter may
// hold. Where an edge crosses from one into the next a pixel may differ by one step of 255.
func (p *Painter) bands(s *surface, depth int, paint func(*surface) error) (err error) {
	defer p.caught(&err)
	most := p.surfaces.most
	if most == 0 {
		most = DefaultBytes
	}
	// Of a pixel: 8 bytes of coverage, and of each level up to three surfaces.
	rows := max(64, most/2/(max(1, s.box.Dx())*(8+4*(3*depth+1))))
	if rows >= s.box.Dy() {
		return paint(s)
	}
	for y := s.box.Min.Y; y < s.box.Max.Y; y += rows {
		part := *s
		part.box.Min.Y, part.box.Max.Y = y, min(y+rows, s.box.Max.Y)
		part.pix, part.dirty = s.pix[(y-s.box.Min.Y)*s.stride:], image.Rectangle{}
		if err := paint(&part); err != nil {
			return err
		}
		s.touch(part.dirty)
	}
	return nil
}
