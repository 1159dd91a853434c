package raster

import (
	"errors"
	"fmt"
	"image"
	"math"

	"capstan/core/display"
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
	surfaces surfaces
	tables   tables
	groups   groupCache
	blurrer  blurrer
	outline  geom.Path
	stops    []paint.Stop
	columns  []uint64 // of samplers
	stop     func() error
}

// NewPainter returns a painter for lists of film; pictures may be nil for films without any.
func NewPainter(film *frame.Film, pictures Pictures) *Painter {
	return &Painter{film: film, pictures: pictures}
}

var errList = errors.New("raster: the display list breaks off")

func unknown(op display.Op) error { return fmt.Errorf("raster: unknown primitive %d", op) }

// Paint clears dst and paints the list into it, scaled so that the page fills it.
func (p *Painter) Paint(dst *image.RGBA, l *frame.List) error {
	clear(dst.Pix)
	return p.PaintView(dst, l, fit(dst.Rect, l))
}

// fit maps the page onto a picture.
func fit(to image.Rectangle, l *frame.List) geom.Matrix {
	return geom.Scale(float64(to.Dx())/l.Width, float64(to.Dy())/l.Height)
}

// PaintView paints the list over what is in dst, with view mapping page px to pixels of dst.
func (p *Painter) PaintView(dst *image.RGBA, l *frame.List, view geom.Matrix) error {
	if dst.Rect.Min != (image.Point{}) {
		return errors.New("raster: a picture to paint on begins at 0, 0")
	}
	return p.bands(surfaceOf(dst), l.Depth, func(s *surface) error {
		return p.run(s, &reader{codes: l.Codes, numbers: l.Numbers}, view)
	})
}

// run paints until the list ends or the enclosing group does.
func (p *Painter) run(dst *surface, r *reader, view geom.Matrix) error {
	for r.more() {
		if op := r.codes[r.c]; op == display.OpEnd || op == display.OpNext {
			r.c++
			return nil
		}
		if err := p.item(dst, r, view); err != nil {
			return err
		}
		if r.short {
			return errList
		}
	}
	return nil
}

// item paints one op with all that is inside it.
func (p *Painter) item(dst *surface, r *reader, view geom.Matrix) error {
	if p.stop != nil {
		if err := p.stop(); err != nil {
			return err
		}
	}
	begin := *r
	op := r.code()
	switch op {
	case display.OpFill:
		key := r.code()
		kind := r.paintKind()
		m := view.Mul(r.matrix())
		ink, err := p.ink(r, kind, m)
		if err != nil {
			return err
		}
		path := p.film.Geometry.Path(key)
		if path == nil {
			return fmt.Errorf("raster: no outline with key %d", key)
		}
		p.fill(dst, path, m, &ink)
	case display.OpOutline:
		return p.ownOutline(dst, r, view)
	case display.OpPicture:
		return p.picture(dst, r, view)
	case display.OpGroup:
		return p.paintGroup(dst, r, view, begin)
	case display.OpMix:
		box := device(r.shown(view))
		share := min(1, max(0, r.num()))
		return p.sides(dst, r, view, box, func(a, b *surface, box image.Rectangle) { mixInto(a, b, box, share) })
	case display.OpWipe:
		var box image.Rectangle
		v, err := p.veil(dst, r, view, func() { box = device(r.shown(view)) })
		defer p.done(&v)
		if err != nil {
			return err
		}
		return p.sides(dst, r, view, box, func(a, b *surface, box image.Rectangle) { wipeInto(a, b, box, &v) })
	case display.OpVeil:
		var box image.Rectangle
		v, err := p.veil(dst, r, view, func() { box = device(r.shown(view)) })
		defer p.done(&v)
		if err != nil {
			return err
		}
		return p.inside(dst, r, view, box, func(s *surface) error { v.apply(s); return nil })
	case display.OpClipPage:
		box := device(r.shown(view))
		page := view.ApplyBox(r.box())
		return p.inside(dst, r, view, device(page).Intersect(box), func(s *surface) error { clipTo(s, page); return nil })
	case display.OpClip:
		path, outside := p.film.Geometry.Path(r.code()), r.code() == 1
		box := device(r.shown(view))
		m := view.Mul(r.matrix())
		if path == nil {
			return errList
		}
		return p.inside(dst, r, view, box, func(s *surface) error {
			mask := p.surfaces.take(s.box)
			p.fill(mask, path, m, &ink{colour: 0xFFFFFFFF})
			cut(s, mask, outside)
			p.surfaces.give(mask)
			return nil
		})
	case display.OpMask:
		how := r.code()
		box := device(r.shown(view))
		soft := distance(r.num() * view.MaxScale())
		// The border of the mask is worked out beyond the page too.
		return p.inside(dst, r, view, box, func(s *surface) error {
			mask := p.surfaces.take(s.box.Inset(-blurReach(featherSigma(soft)) - 1))
			defer p.surfaces.give(mask)
			if err := p.run(mask, r, view); err != nil {
				return err
			}
			if soft > 0 {
				p.blurrer.feather(mask, soft)
			}
			if how&display.MaskLight != 0 {
				lit(mask)
			}
			cut(s, mask, how&display.MaskOutside != 0)
			return nil
		})
	case display.OpTile:
		return p.tile(dst, r, view)
	case display.OpProject:
		return p.project(dst, r, view)
	default:
		return unknown(op)
	}
	return nil
}

// device is the box of px that a box touches, with room for rounding.
func device(b geom.Box) image.Rectangle {
	if !(b.Max.X >= b.Min.X && b.Max.Y >= b.Min.Y) {
		return image.Rectangle{}
	}
	at := func(v float64) int { return int(min(max(v, -1e6), 1e6)) }
	const room = 1.0 / 64
	return image.Rect(at(math.Floor(b.Min.X-room)), at(math.Floor(b.Min.Y-room)), at(math.Ceil(b.Max.X+room)), at(math.Ceil(b.Max.Y+room)))
}

// inside paints what follows up to its end on a surface of its own, lets f change it, and lays it over dst.
func (p *Painter) inside(dst *surface, r *reader, view geom.Matrix, box image.Rectangle, f func(*surface) error) error {
	s := p.surfaces.take(box.Intersect(dst.box))
	defer p.surfaces.give(s)
	if err := p.run(s, r, view); err != nil {
		return err
	}
	if err := f(s); err != nil {
		return err
	}
	layOver(dst, s, 255)
	return nil
}

// sides paints the two sides of a mix or wipe on surfaces of their own, joins them in the first and lays it over dst.
func (p *Painter) sides(dst *surface, r *reader, view geom.Matrix, box image.Rectangle, join func(a, b *surface, box image.Rectangle)) error {
	box = box.Intersect(dst.box)
	a, b := p.surfaces.take(box), p.surfaces.take(box)
	defer p.surfaces.give(a)
	defer p.surfaces.give(b)
	for _, s := range [2]*surface{a, b} {
		if err := p.run(s, r, view); err != nil {
			return err
		}
	}
	a.touch(b.dirty)
	join(a, b, a.dirty)
	layOver(dst, a, 255)
	return nil
}

func (p *Painter) fill(dst *surface, path *geom.Path, m geom.Matrix, k *ink) {
	if k.clear() {
		return
	}
	at := dst.box.Min
	p.cover(dst, path, m)
	box := image.Rectangle{Min: image.Point{X: dst.box.Max.X, Y: at.Y + p.cov.top}, Max: image.Point{X: at.X, Y: at.Y + p.cov.bottom}}
	p.cov.sweep(func(y, x0, x1 int, a uint32) {
		y, x0, x1 = y+at.Y, x0+at.X, x1+at.X
		box.Min.X, box.Max.X = min(box.Min.X, x0), max(box.Max.X, x1)
		if dst.clip == nil {
			k.row(dst.row(y, x0, x1), y, x0, a)
			return
		}
		for _, c := range dst.clip.runs(y) {
			if c[0] >= x1 {
				break
			}
			if l, r := max(x0, c[0]), min(x1, c[1]); l < r {
				k.row(dst.row(y, l, r), y, l, a)
			}
		}
	})
	if !box.Empty() {
		dst.touch(box)
	}
}

// cover accumulates an outline over the box of dst.
func (p *Painter) cover(dst *surface, path *geom.Path, m geom.Matrix) {
	p.cov.resize(dst.box.Dx(), dst.box.Dy())
	if at := dst.box.Min; at != (image.Point{}) {
		m.E -= float64(at.X)
		m.F -= float64(at.Y)
	}
	p.cov.add(path, m)
}

func (p *Painter) ownOutline(dst *surface, r *reader, view geom.Matrix) error {
	n := int(r.code())
	p.outline.Reset()
	for i := 0; i < n && !r.short; i++ {
		p.outline.Verbs = append(p.outline.Verbs, geom.Verb(r.code()&3))
	}
	kind := r.paintKind()
	m := view.Mul(r.matrix())
	for _, v := range p.outline.Verbs {
		for k := 0; k < geom.PointsOf[v]; k++ {
			p.outline.Points = append(p.outline.Points, geom.Point{X: r.num(), Y: r.num()})
		}
	}
	ink, err := p.ink(r, kind, m)
	if err != nil || r.short {
		return errors.Join(err, p.broken(r))
	}
	p.fill(dst, &p.outline, m, &ink)
	return nil
}

// cut takes what is on s down to what is covered on mask, or to what is not.
// lit makes the cover of a mask its luminance (CSS Masking 1, section 7.10.1, the coefficients of SVG’s luminanceToAlpha).
func lit(mask *surface) {
	box := mask.box.Intersect(mask.dirty)
	for y := box.Min.Y; y < box.Max.Y; y++ {
		row := mask.row(y, box.Min.X, box.Max.X)
		for i := 0; i+4 <= len(row); i += 4 {
			row[i+3] = uint8((2125*uint32(row[i]) + 7154*uint32(row[i+1]) + 721*uint32(row[i+2]) + 5000) / 10000)
		}
	}
}

func cut(s, mask *surface, outside bool) {
	box := s.dirty.Intersect(mask.box)
	for y := box.Min.Y; y < box.Max.Y; y++ {
		row, m := s.row(y, box.Min.X, box.Max.X), mask.row(y, box.Min.X, box.Max.X)
		for i := 0; i+4 <= len(row); i += 4 {
			k := uint32(m[i+3])
			if outside {
				k = 255 - k
			}
			if k < 255 {
				store(row, i, scaled(load(row, i), k))
			}
		}
	}
}
