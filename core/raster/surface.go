package raster

import (
	"encoding/binary"
	"image"
)

// surface is a premultiplied RGBA buffer with its place on the page. What lies outside box, or outside clip where there is
// one, is not painted.
type surface struct {
	pix    []byte
	stride int
	box    image.Rectangle
	clip   *Region
	dirty  image.Rectangle // may hold something
}

func surfaceOf(img *image.RGBA) *surface {
	return &surface{pix: img.Pix, stride: img.Stride, box: img.Rect}
}

// row returns the bytes of the pixels x0..x1 of row y.
func (s *surface) row(y, x0, x1 int) []byte {
	i := (y-s.box.Min.Y)*s.stride + 4*(x0-s.box.Min.X)
	return s.pix[i : i+4*(x1-x0) : i+4*(x1-x0)]
}

// each calls paint for the parts of a run of pixels that may be painted.
func (s *surface) each(y, x0, x1 int, paint func(row []byte, y, x0, x1 int)) {
	if s.clip == nil {
		paint(s.row(y, x0, x1), y, x0, x1)
		return
	}
	for _, r := range s.clip.runs(y) {
		if r[0] >= x1 {
			return
		}
		if a, b := max(x0, r[0]), min(x1, r[1]); a < b {
			paint(s.row(y, a, b), y, a, b)
		}
	}
}

func (s *surface) touch(box image.Rectangle) { s.dirty = s.dirty.Union(box) }

func (s *surface) wipe(box image.Rectangle) {
	box = box.Intersect(s.box)
	for y := box.Min.Y; y < box.Max.Y; y++ {
		clear(s.row(y, box.Min.X, box.Max.X))
	}
}

// surfaces lends clear buffers.
type surfaces struct {
	spare []*surface
	held  int // bytes lent and spare
	most  int // 0: DefaultBytes
}

// take returns a clear surface with the given box.
func (p *surfaces) take(box image.Rectangle) *surface {
	w, h := max(box.Dx(), 0), max(box.Dy(), 0)
	need := 4 * w * h
	best := -1
	for i, s := range p.spare {
		if cap(s.pix) >= need && (best < 0 || cap(s.pix) < cap(p.spare[best].pix)) {
			best = i
		}
	}
	var s *surface
	if best >= 0 {
		s = p.spare[best]
		p.spare[best] = p.spare[len(p.spare)-1]
		p.spare = p.spare[:len(p.spare)-1]
	} else {
		most := p.most
		if most == 0 {
			most = DefaultBytes
		}
		for n := len(p.spare); n > 0 && (n >= 6 || p.held+need > most); n-- { // a small one makes room
			p.held -= cap(p.spare[n-1].pix)
			p.spare = p.spare[:n-1]
		}
		if p.held+need > most {
			panic(ErrMemory)
		}
		p.held += need
		s = &surface{pix: make([]byte, need)}
	}
	s.pix, s.stride, s.box, s.dirty, s.clip = s.pix[:need], 4*w, box, image.Rectangle{}, nil
	return s
}

// give takes a surface back and clears what was painted on it.
func (p *surfaces) give(s *surface) {
	s.wipe(s.dirty)
	p.spare = append(p.spare, s)
}

func load(p []byte, i int) uint32 { return binary.LittleEndian.Uint32(p[i:]) }

func store(p []byte, i int, v uint32) { binary.LittleEndian.PutUint32(p[i:], v) }
