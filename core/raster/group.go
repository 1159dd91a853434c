package raster

import (
	"bytes"
	"image"
	"math"
	"slices"
	"unsafe"

	"capstan/core/display"
	"capstan/core/frame"
	"capstan/core/geom"
)

// group is the head of an OpGroup in device px.
type group struct {
	frame.Effects
	shown geom.Box // what it paints in, its effects with it
	box   geom.Box // of what is in it
	adjusting
}

// effectsRoom is how much farther, in device px, effects may reach here than the list says: blurs are boxes of whole pixels.
const effectsRoom = 6

// group reads the head of a group. Deviations and distances scale with the view.
func (p *Painter) group(r *reader, view geom.Matrix) group {
	k := view.MaxScale()
	g := group{}
	g.Blend = r.code()
	g.shown = r.shown(view)
	g.box = mapped(view, r.box())
	g.Opacity = min(1, max(0, r.num()))
	g.Blur, g.Feather = r.num()*k, r.num()*k
	g.Shadow.X, g.Shadow.Y, g.Shadow.Blur = r.num()*k, r.num()*k, r.num()*k
	g.Shadow.Colour = r.colour()
	g.adjusting = r.adjusting(k)
	g.Blur, g.Feather, g.Shadow.Blur = distance(g.Blur), distance(g.Feather), distance(g.Shadow.Blur)
	for _, v := range []*float64{&g.Shadow.X, &g.Shadow.Y} {
		if *v = min(max(*v, -farthest), farthest); *v != *v {
			*v = 0
		}
	}
	return g
}

// farthest is how far a shadow falls at most, in device px: what casts it is painted from there to where it falls.
const farthest = 4000

// distance cuts off what is no number, or beyond all use for a blur or a soft border.
func distance(v float64) float64 {
	if !(v > 0) {
		return 0
	}
	return min(v, 1000)
}

func (g *group) plain() bool {
	return g.Blur == 0 && g.Feather == 0 && g.Shadow.Colour.A == 0 && g.none()
}

func (p *Painter) paintGroup(dst *surface, r *reader, view geom.Matrix, begin reader) error {
	g := p.group(r, view)
	if r.short {
		return errList
	}
	if g.Blend > display.Added {
		return unknown(display.OpGroup)
	}
	shown := device(g.shown)
	if !g.plain() {
		shown = shown.Inset(-effectsRoom)
	}
	shown = shown.Intersect(dst.box)
	if shown.Empty() || g.Opacity == 0 {
		return p.skipInside(r)
	}
	if dst.clip != nil && !dst.clip.Touches(shown) {
		return p.skipInside(r)
	}
	opacity := uint32(g.Opacity*255 + 0.5)
	lay := func(s *surface) {
		switch g.Blend {
		case display.Normal:
			layOver(dst, s, opacity)
		case display.Added:
			layAdded(dst, s, opacity)
		default:
			layBlended(dst, s, opacity, modes[g.Blend])
		}
	}
	if g.plain() {
		s := p.surfaces.take(shown)
		defer p.surfaces.give(s)
		if err := p.run(s, r, view); err != nil {
			return err
		}
		lay(s)
		return nil
	}
	inside := *r
	if err := p.skipInside(r); err != nil {
		return err
	}
	id := identity(begin, *r, dst.box)
	if s := p.groups.find(id); s != nil {
		lay(s)
		return nil
	}
	s, err := p.effects(&inside, &g, view, shown)
	if err != nil {
		return err
	}
	lay(s)
	if p.groups.keep(id, s) {
		p.surfaces.held -= cap(s.pix) // the cache has a bound of its own
	} else {
		p.surfaces.give(s)
	}
	return nil
}

// effects paints what is in a group, as far as it matters for the part shown, with its effects.
func (p *Painter) effects(r *reader, g *group, view geom.Matrix, shown image.Rectangle) (*surface, error) {
	// What lies beyond shines in by the blurs, and casts shadows in.
	need := shown.Inset(-blurReach(g.Blur) - blurReach(featherSigma(g.Feather)))
	if g.sharp > 0 {
		need = need.Inset(-blurReach(g.sigma))
	}
	if g.Shadow.Colour.A > 0 {
		x, y := int(math.Round(g.Shadow.X)), int(math.Round(g.Shadow.Y))
		need = need.Union(need.Sub(image.Pt(x, y)).Inset(-blurReach(g.Shadow.Blur) - 1))
	}
	box := device(g.box)
	content := p.surfaces.take(box.Inset(-blurReach(g.Blur)).Intersect(need))
	if err := p.run(content, r, view); err != nil {
		p.surfaces.give(content)
		return nil, err
	}
	p.adjust(content, &g.adjusting)
	if g.Feather > 0 {
		p.blurrer.feather(content, g.Feather)
	}
	p.blurrer.blur(content, g.Blur)
	if g.Shadow.Colour.A == 0 {
		return content, nil
	}
	out := p.surfaces.take(shown)
	p.shadow(out, content, g)
	layOver(out, content, 255)
	p.surfaces.give(content)
	return out, nil
}

// shadow paints the shadow of what is on s. It is moved by whole px and the rest by weighing neighbours, after blurring.
func (p *Painter) shadow(out, s *surface, g *group) {
	colour := premultiplied(g.Shadow.Colour)
	dx, dy := math.Floor(g.Shadow.X), math.Floor(g.Shadow.Y)
	fx, fy := uint32((g.Shadow.X-dx)*256+0.5), uint32((g.Shadow.Y-dy)*256+0.5)
	by := image.Pt(int(dx), int(dy))
	m := p.blurrer.alpha(s, g.Shadow.Blur, out.box.Sub(by).Inset(-1))
	if m.box.Empty() {
		return
	}
	empty := make([]uint8, m.box.Dx())
	rowAt := func(y int) []uint8 {
		if y < m.box.Min.Y || y >= m.box.Max.Y {
			return empty
		}
		return m.row(y)
	}
	area := image.Rectangle{Min: m.box.Min, Max: m.box.Max.Add(image.Pt(1, 1))}.Add(by).Intersect(out.box)
	for y := area.Min.Y; y < area.Max.Y; y++ {
		up, here := rowAt(y-by.Y-1), rowAt(y-by.Y)
		row := out.row(y, area.Min.X, area.Max.X)
		at := func(line []uint8, x int) uint32 {
			if x < 0 || x >= len(line) {
				return 0
			}
			return uint32(line[x])
		}
		for x := area.Min.X; x < area.Max.X; x++ {
			i := x - by.X - m.box.Min.X
			a := at(here, i)
			if fx != 0 || fy != 0 {
				a = ((a*(256-fx)+at(here, i-1)*fx)*(256-fy) + (at(up, i)*(256-fx)+at(up, i-1)*fx)*fy + 32768) >> 16
			}
			if a > 0 {
				k := 4 * (x - area.Min.X)
				store(row, k, over(load(row, k), scaled(colour, a)))
			}
		}
	}
	out.touch(area)
}

// groupCache keeps what groups with effects came out as, once the same one has been painted twice: what stands still is
// blurred once.
type groupCache struct {
	kept  []keptGroup
	seen  [][]byte // painted once
	bytes int
}

type keptGroup struct {
	id []byte
	s  *surface
}

// mostKept bounds the memory of a cache, in bytes.
const mostKept = 24 << 20

// identity is all that decides how a group comes out.
func identity(from, to reader, box image.Rectangle) []byte {
	codes, numbers := from.codes[from.c:to.c], from.numbers[from.n:to.n]
	id := make([]byte, 0, 4*len(codes)+8*len(numbers)+32)
	id = append(id, bytesOf(codes)...)
	id = append(id, bytesOf(numbers)...)
	return append(id, bytesOf([]int{box.Min.X, box.Min.Y, box.Max.X, box.Max.Y})...)
}

func bytesOf[T uint32 | float64 | int](v []T) []byte {
	if len(v) == 0 {
		return nil
	}
	return unsafe.Slice((*byte)(unsafe.Pointer(&v[0])), len(v)*int(unsafe.Sizeof(v[0])))
}

func (c *groupCache) find(id []byte) *surface {
	for i := range c.kept {
		if bytes.Equal(c.kept[i].id, id) {
			k := c.kept[i]
			copy(c.kept[1:i+1], c.kept[:i])
			c.kept[0] = k
			return k.s
		}
	}
	return nil
}

// keep takes over a surface that is worth keeping.
func (c *groupCache) keep(id []byte, s *surface) bool {
	i := slices.IndexFunc(c.seen, func(o []byte) bool { return bytes.Equal(o, id) })
	if i < 0 || cap(s.pix) > mostKept {
		if c.seen = append(c.seen, id); len(c.seen) > 64 {
			c.seen = c.seen[1:]
		}
		return false
	}
	c.seen = slices.Delete(c.seen, i, i+1)
	for c.bytes += cap(s.pix); c.bytes > mostKept; {
		last := c.kept[len(c.kept)-1]
		c.bytes -= cap(last.s.pix)
		c.kept = c.kept[:len(c.kept)-1]
	}
	c.kept = slices.Insert(c.kept, 0, keptGroup{id, s})
	return true
}
