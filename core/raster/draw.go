package raster

import (
	"errors"
	"fmt"
	"image"
	"math"

	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/paint"
)

// Pictures gives the pixels of a picture, upright and premultiplied, halved mip times.
type Pictures func(media string, mip int) (*image.RGBA, error)

// Painter paints the lists of one film. It keeps its buffers between frames and belongs to one goroutine.
type Painter struct {
	film     *frame.Film
	pictures Pictures
	cov      coverage
	spare    []*layerBuffer
	outline  geom.Path
}

// layerBuffer is a clear buffer with the box of what has been painted into it.
type layerBuffer struct {
	img   *image.RGBA
	dirty image.Rectangle
}

// NewPainter returns a painter for lists of film; pictures may be nil for films without any.
func NewPainter(film *frame.Film, pictures Pictures) *Painter {
	return &Painter{film: film, pictures: pictures}
}

// reader walks through a list; running off its end is an error, not a panic.
type reader struct {
	codes   []uint32
	numbers []float64
	short   bool
}

func (r *reader) code() uint32 {
	if len(r.codes) == 0 {
		r.short = true
		return 0
	}
	c := r.codes[0]
	r.codes = r.codes[1:]
	return c
}

func (r *reader) num() float64 {
	if len(r.numbers) == 0 {
		r.short = true
		return 0
	}
	n := r.numbers[0]
	r.numbers = r.numbers[1:]
	return n
}

func (r *reader) matrix() geom.Matrix {
	return geom.Matrix{A: r.num(), B: r.num(), C: r.num(), D: r.num(), E: r.num(), F: r.num()}
}

func (r *reader) colour() paint.Colour {
	return paint.Colour{R: r.num(), G: r.num(), B: r.num(), A: r.num()}
}

var errList = errors.New("raster: the display list breaks off")

// Paint clears dst and paints the list into it, scaled so that the page fills it.
func (p *Painter) Paint(dst *image.RGBA, l *frame.List) error {
	clear(dst.Pix)
	b := dst.Bounds()
	view := geom.Scale(float64(b.Dx())/l.Width, float64(b.Dy())/l.Height)
	return p.PaintView(dst, l, view)
}

// PaintView paints the list over what is in dst, with view mapping page px to pixels of dst.
func (p *Painter) PaintView(dst *image.RGBA, l *frame.List, view geom.Matrix) error {
	b := dst.Bounds()
	if b.Min != (image.Point{}) {
		return errors.New("raster: a picture to paint on begins at 0, 0")
	}
	p.cov.resize(b.Dx(), b.Dy())
	r := &reader{codes: l.Codes, numbers: l.Numbers}
	_, err := p.run(&layerBuffer{img: dst}, r, view)
	return err
}

// run paints until the list ends or the enclosing group does, and says which op ended it.
func (p *Painter) run(dst *layerBuffer, r *reader, view geom.Matrix) (frame.Op, error) {
	for len(r.codes) > 0 {
		op := r.code()
		switch op {
		case frame.OpFill:
			key := r.code()
			m := view.Mul(r.matrix())
			c := premultiplied(r.colour())
			path := p.film.Geometry.Path(key)
			if path == nil {
				return 0, fmt.Errorf("raster: no outline with key %d", key)
			}
			p.fill(dst, path, m, c)
		case frame.OpOutline:
			n := int(r.code())
			p.outline.Reset()
			for i := 0; i < n; i++ {
				p.outline.Verbs = append(p.outline.Verbs, geom.Verb(r.code()&3))
			}
			m := view.Mul(r.matrix())
			c := premultiplied(r.colour())
			for _, v := range p.outline.Verbs {
				for k := 0; k < geom.PointsOf[v]; k++ {
					p.outline.Points = append(p.outline.Points, geom.Point{X: r.num(), Y: r.num()})
				}
			}
			p.fill(dst, &p.outline, m, c)
		case frame.OpPicture:
			if err := p.picture(dst, r, view); err != nil {
				return 0, err
			}
		case frame.OpGroup:
			opacity := r.num()
			buf := p.take(dst)
			if _, err := p.run(buf, r, view); err != nil {
				return 0, err
			}
			overLayer(dst.img, buf.img, buf.dirty, uint32(min(1, max(0, opacity))*255+0.5))
			dst.dirty = dst.dirty.Union(buf.dirty)
			p.give(buf)
		case frame.OpMix:
			share := min(1, max(0, r.num()))
			a, b := p.take(dst), p.take(dst)
			for _, buf := range []*layerBuffer{a, b} {
				if _, err := p.run(buf, r, view); err != nil {
					return 0, err
				}
			}
			a.dirty = a.dirty.Union(b.dirty)
			mixLayers(a.img, b.img, a.dirty, share)
			overLayer(dst.img, a.img, a.dirty, 255)
			dst.dirty = dst.dirty.Union(a.dirty)
			p.give(a)
			p.give(b)
		case frame.OpWipe:
			m := view.Mul(r.matrix())
			w := r.wipe()
			a, b := p.take(dst), p.take(dst)
			for _, buf := range []*layerBuffer{a, b} {
				if _, err := p.run(buf, r, view); err != nil {
					return 0, err
				}
			}
			a.dirty = a.dirty.Union(b.dirty)
			wipeLayers(a.img, b.img, a.dirty, w.over(m))
			overLayer(dst.img, a.img, a.dirty, 255)
			dst.dirty = dst.dirty.Union(a.dirty)
			p.give(a)
			p.give(b)
		case frame.OpVeil:
			v := veil{count: int(min(r.code(), 2))}
			m := view.Mul(r.matrix())
			for i := 0; i < v.count; i++ {
				v.opacity[i] = r.num()
				v.wipes[i] = r.wipe().over(m)
			}
			buf := p.take(dst)
			if _, err := p.run(buf, r, view); err != nil {
				return 0, err
			}
			v.apply(buf.img, buf.dirty)
			overLayer(dst.img, buf.img, buf.dirty, 255)
			dst.dirty = dst.dirty.Union(buf.dirty)
			p.give(buf)
		case frame.OpClipPage:
			x, y, w, h := r.num(), r.num(), r.num(), r.num()
			buf := p.take(dst)
			if _, err := p.run(buf, r, view); err != nil {
				return 0, err
			}
			at := view.Apply(geom.Point{X: x, Y: y})
			to := view.Apply(geom.Point{X: x + w, Y: y + h})
			clipTo(buf.img, buf.dirty, at, to)
			overLayer(dst.img, buf.img, buf.dirty, 255)
			dst.dirty = dst.dirty.Union(buf.dirty)
			p.give(buf)
		case frame.OpEnd, frame.OpNext:
			return op, nil
		default:
			return 0, fmt.Errorf("raster: unknown primitive %d", op)
		}
		if r.short {
			return 0, errList
		}
	}
	return 0, nil
}

// take returns a clear buffer of the size of dst.
func (p *Painter) take(dst *layerBuffer) *layerBuffer {
	if n := len(p.spare); n > 0 {
		b := p.spare[n-1]
		p.spare = p.spare[:n-1]
		if b.img.Rect == dst.img.Rect {
			return b
		}
	}
	return &layerBuffer{img: image.NewRGBA(dst.img.Rect)}
}

func (p *Painter) give(b *layerBuffer) {
	for y := b.dirty.Min.Y; y < b.dirty.Max.Y; y++ {
		clear(b.img.Pix[y*b.img.Stride+4*b.dirty.Min.X : y*b.img.Stride+4*b.dirty.Max.X])
	}
	b.dirty = image.Rectangle{}
	p.spare = append(p.spare, b)
}

func (b *layerBuffer) touch(y, x0, x1 int) {
	b.dirty = b.dirty.Union(image.Rect(x0, y, x1, y+1))
}

func (p *Painter) fill(dst *layerBuffer, path *geom.Path, m geom.Matrix, c pixel) {
	if c.a == 0 {
		return
	}
	p.cov.add(path, m)
	box := image.Rectangle{Min: image.Point{X: p.cov.w, Y: p.cov.top}, Max: image.Point{Y: p.cov.bottom}}
	p.cov.sweep(func(y, x0, x1 int, a uint32) {
		box.Min.X, box.Max.X = min(box.Min.X, x0), max(box.Max.X, x1)
		solid(dst.img, y, x0, x1, c, a)
	})
	if !box.Empty() {
		dst.dirty = dst.dirty.Union(box)
	}
}

func (p *Painter) picture(dst *layerBuffer, r *reader, view geom.Matrix) error {
	index, mip, key := int(r.code()), int(r.code()), r.code()
	m := view.Mul(r.matrix())
	x, y, w, h := r.num(), r.num(), r.num(), r.num()
	crop := [4]float64{r.num(), r.num(), r.num(), r.num()}
	opacity := uint32(min(1, max(0, r.num()))*255 + 0.5)
	path := p.film.Geometry.Path(key)
	if path == nil || index >= len(p.film.Pictures) || p.pictures == nil {
		return errors.New("raster: the display list names a picture the film does not have")
	}
	src, err := p.pictures(p.film.Pictures[index], mip)
	if err != nil {
		return err
	}
	inv, ok := m.Inverse()
	if !ok || w <= 0 || h <= 0 || opacity == 0 {
		return nil
	}
	sw, sh := float64(src.Rect.Dx()), float64(src.Rect.Dy())
	// device px -> local -> samples of the mip, whose centres lie at half px.
	toSrc := geom.Matrix{
		A: (crop[2] - crop[0]) * sw / w, D: (crop[3] - crop[1]) * sh / h,
		E: crop[0]*sw - x*(crop[2]-crop[0])*sw/w - 0.5, F: crop[1]*sh - y*(crop[3]-crop[1])*sh/h - 0.5,
	}.Mul(inv)
	s := sampler{src: src, m: toSrc}
	s.limit(crop[0]*sw, crop[1]*sh, crop[2]*sw, crop[3]*sh)
	p.cov.add(path, m)
	p.cov.sweep(func(y, x0, x1 int, a uint32) {
		dst.touch(y, x0, x1)
		s.span(dst.img, y, x0, x1, div255(a*opacity))
	})
	return nil
}

// sampler reads a picture bilinearly in 16.16 fixed point; outside its limits it repeats the edge.
type sampler struct {
	src            *image.RGBA
	m              geom.Matrix
	l, t, rgt, bot int // first and last sample that may be read
}

func (s *sampler) limit(l, t, r, b float64) {
	w, h := s.src.Rect.Dx(), s.src.Rect.Dy()
	s.l = min(max(int(math.Floor(l+1e-6)), 0), w-1)
	s.t = min(max(int(math.Floor(t+1e-6)), 0), h-1)
	s.rgt = min(max(int(math.Ceil(r-1e-6))-1, s.l), w-1)
	s.bot = min(max(int(math.Ceil(b-1e-6))-1, s.t), h-1)
}

func (s *sampler) span(dst *image.RGBA, y, x0, x1 int, cov uint32) {
	at := s.m.Apply(geom.Point{X: float64(x0) + 0.5, Y: float64(y) + 0.5})
	u, v := int64(math.Floor(at.X*65536+0.5)), int64(math.Floor(at.Y*65536+0.5))
	du, dv := int64(math.Round(s.m.A*65536)), int64(math.Round(s.m.B*65536))
	row := dst.Pix[y*dst.Stride:]
	for x := x0; x < x1; x++ {
		ix, iy := int(u>>16), int(v>>16)
		fx, fy := uint32(u>>8)&255, uint32(v>>8)&255
		xa, xb := min(max(ix, s.l), s.rgt), min(max(ix+1, s.l), s.rgt)
		ya, yb := min(max(iy, s.t), s.bot)*s.src.Stride, min(max(iy+1, s.t), s.bot)*s.src.Stride
		p, q := s.src.Pix[ya+4*xa:], s.src.Pix[ya+4*xb:]
		r, t := s.src.Pix[yb+4*xa:], s.src.Pix[yb+4*xb:]
		wa, wb, wc, wd := (256-fx)*(256-fy), fx*(256-fy), (256-fx)*fy, fx*fy
		mix := func(i int) uint32 {
			return (uint32(p[i])*wa + uint32(q[i])*wb + uint32(r[i])*wc + uint32(t[i])*wd + 32768) >> 16
		}
		if a := mix(3); a > 0 {
			over(row[4*x:4*x+4:4*x+4], mix(0), mix(1), mix(2), a, cov)
		}
		u += du
		v += dv
	}
}
