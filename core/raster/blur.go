package raster

import (
	"image"
	"math"
)

// A blur is a Gaussian of a deviation in px: three box passes one after another from 2 px on (the approximation given in
// Filter Effects 1, section 9.6, and Canvas implementations use it too), the sampled curve itself below, where boxes
// are too coarse. The sums of all three passes are kept whole and divided once a direction, so each rounds once.

// blurReach is how many px a blur spreads what it blurs, on each side.
func blurReach(sigma float64) int {
	if sigma <= 0 {
		return 0
	}
	if sigma < 2 {
		return int(math.Ceil(3 * sigma))
	}
	if k := coarse(sigma); k > 1 {
		r, _ := wideBox(sigma, k)
		return (3*(r+1) + 2) * k
	}
	return (3*boxWidth(sigma) + 1) / 2
}

// boxWidth is the width d of the boxes: floor(s 3 sqrt(2 pi)/4 + 0.5).
func boxWidth(sigma float64) int { return int(math.Floor(sigma*3*math.Sqrt(2*math.Pi)/4 + 0.5)) }

// four is four values, each in 32 bits of two words: the channels of a pixel, or the covers of four rows or columns. One addition
// or multiplication works on two.
type four struct{ a, b uint64 }

const low32 = 0xFFFFFFFF

// spread makes a pixel's channels a four: red and blue, green and alpha.
func spread(p uint32) four {
	return four{uint64(p)&0xFF | uint64(p)>>16&0xFF<<32, uint64(p)>>8&0xFF | uint64(p)>>24<<32}
}

// pixel makes a pixel of a four again.
func (f four) pixel() uint32 { return uint32(f.a | f.a>>32<<16 | f.b<<8 | f.b>>32<<24) }

// blurrer blurs lines of fours.
type blurrer struct {
	kernel []uint64 // for small deviations: half of it, from the middle, 1<<14 in all
	d      int
	line   []four
	tmp    []four
	plane  []uint32
}

func (b *blurrer) set(sigma float64) {
	b.kernel = b.kernel[:0]
	if sigma >= 2 {
		b.d = boxWidth(sigma)
		return
	}
	n := int(math.Ceil(3 * sigma))
	w := make([]float64, n+1)
	sum := 0.0
	for i := range w {
		w[i] = math.Exp(-float64(i*i) / (2 * sigma * sigma))
		sum += w[i]
		if i > 0 {
			sum += w[i]
		}
	}
	rest := uint64(1 << 14)
	b.kernel = append(b.kernel, 0)
	for i := 1; i <= n; i++ {
		k := uint64(w[i]/sum*(1<<14) + 0.5)
		rest -= 2 * k
		b.kernel = append(b.kernel, k)
	}
	b.kernel[0] = rest
}

// lines returns room for a line of n fours, cleared.
func (b *blurrer) lines(n int) []four {
	if cap(b.line) < n {
		b.line, b.tmp = make([]four, n), make([]four, n)
	}
	clear(b.line[:n])
	return b.line[:n]
}

// run blurs v, which lines returned, in place; its values are bytes before and after. Beyond its ends lies nothing.
func (b *blurrer) run(v []four) {
	n := len(v)
	t := b.tmp[:n]
	if len(b.kernel) > 0 {
		const half = 1<<45 | 1<<13
		const keep = 0xFF<<32 | 0xFF
		for i := range v {
			x, y := v[i].a*b.kernel[0]+half, v[i].b*b.kernel[0]+half
			for k, w := range b.kernel[1:] {
				if j := i - k - 1; j >= 0 {
					x += v[j].a * w
					y += v[j].b * w
				}
				if j := i + k + 1; j < n {
					x += v[j].a * w
					y += v[j].b * w
				}
			}
			t[i] = four{x >> 14 & keep, y >> 14 & keep}
		}
		copy(v, t)
		return
	}
	d, last := b.d, b.d
	l, r := d/2, d/2
	if d%2 == 0 {
		// Two boxes of even width lie half a pixel to either side, the third is a pixel wider.
		r, last = d/2-1, d+1
	}
	if d > widest {
		box(t, v, l, r)
		mean(t, d)
		box(v, t, r, l)
		mean(v, d)
		box(t, v, d/2, d/2)
		mean(t, last)
		copy(v, t)
		return
	}
	box(t, v, l, r)
	box(v, t, r, l)
	box(t, v, d/2, d/2)
	mean(t, d*d*last)
	copy(v, t)
}

// widest is the width of boxes up to which three sums of bytes fit in 32 bits.
const widest = 255

// box writes sums of the values from l before to r after.
func box(dst, src []four, l, r int) {
	n := len(src)
	var a, b uint64
	for i := 0; i < min(r, n); i++ {
		a += src[i].a
		b += src[i].b
	}
	// What comes in and what goes out, without asking at each step whether there is any.
	i := 0
	for ; i < min(l+1, n); i++ {
		if i+r < n {
			a += src[i+r].a
			b += src[i+r].b
		}
		dst[i] = four{a, b}
	}
	for end := n - r; i < end; i++ {
		in, out := &src[i+r], &src[i-l-1]
		a += in.a - out.a
		b += in.b - out.b
		dst[i] = four{a, b}
	}
	for ; i < n; i++ {
		a -= src[i-l-1].a
		b -= src[i-l-1].b
		dst[i] = four{a, b}
	}
}

// mean divides sums of n bytes each by n.
func mean(v []four, n int) {
	scale := (uint64(1)<<40 + uint64(n)/2) / uint64(n)
	const half = 1 << 39
	for i, f := range v {
		if f == (four{}) {
			continue
		}
		v[i] = four{
			(f.a&low32*scale+half)>>40 | (f.a>>32*scale+half)>>40<<32, (f.b&low32*scale+half)>>40 | (f.b>>32*scale+half)>>40<<32,
		}
	}
}

// strip is how many columns are gone down at a time: what is read of each row then fills a line of the cache.
const strip = 16

// blur blurs what is on s, whose dirty box grows by the blur's reach; s must be large enough for it.
func (b *blurrer) blur(s *surface, sigma float64) {
	if sigma <= 0 || s.dirty.Empty() {
		return
	}
	if k := coarse(sigma); k > 1 {
		b.coarsely(s, sigma, k)
		return
	}
	b.set(sigma)
	from := s.dirty
	area := from.Inset(-blurReach(sigma)).Intersect(s.box)
	w, h := area.Dx(), area.Dy()
	for y := from.Min.Y; y < from.Max.Y; y++ {
		v := b.lines(w)
		row := s.row(y, area.Min.X, area.Max.X)
		for x := from.Min.X - area.Min.X; x < from.Max.X-area.Min.X; x++ {
			v[x] = spread(load(row, 4*x))
		}
		b.run(v)
		for x, f := range v {
			store(row, 4*x, f.pixel())
		}
	}
	var columns [strip][]four
	for x0 := area.Min.X; x0 < area.Max.X; x0 += strip {
		n := min(strip, area.Max.X-x0)
		all := b.lines(n * h)
		for k := range n {
			columns[k] = all[k*h : (k+1)*h]
		}
		for y := from.Min.Y; y < from.Max.Y; y++ {
			row := s.row(y, x0, x0+n)
			for k := range n {
				columns[k][y-area.Min.Y] = spread(load(row, 4*k))
			}
		}
		for k := range n {
			b.run(columns[k])
		}
		for y := range h {
			row := s.row(area.Min.Y+y, x0, x0+n)
			for k := range n {
				store(row, 4*k, columns[k][y].pixel())
			}
		}
	}
	s.dirty = area
}

func (b *blurrer) room(n int) {
	if cap(b.plane) < n {
		b.plane = make([]uint32, n)
	}
	b.plane = b.plane[:n]
}

// alphaMap is the cover of a part of a surface.
type alphaMap struct {
	box image.Rectangle
	pix []uint8
}

// alpha returns the cover of s, blurred, over a box that is larger by the blur's reach, cut to within.
func (b *blurrer) alpha(s *surface, sigma float64, within image.Rectangle) *alphaMap {
	area := s.dirty.Inset(-blurReach(sigma)).Intersect(within)
	m := &alphaMap{area, make([]uint8, max(0, area.Dx())*max(0, area.Dy()))}
	if area.Empty() {
		return m
	}
	// What lies outside the box still shines in: the source is read as far as it reaches. Between the passes it spreads
	// beyond that, and back.
	from := s.dirty.Intersect(area.Inset(-blurReach(sigma)))
	full := from.Union(area).Inset(-blurReach(sigma))
	w, h := full.Dx(), full.Dy()
	if sigma > 0 {
		b.set(sigma)
	}
	// Rows four at a time, then columns four at a time. plane holds four columns a word.
	words := (w + 3) / 4
	b.room(words * h)
	clear(b.plane)
	for y := from.Min.Y; y < from.Max.Y; y += 4 {
		n := min(4, from.Max.Y-y)
		v := b.lines(w)
		for k := range n {
			row := s.row(y+k, from.Min.X, from.Max.X)
			out := v[from.Min.X-full.Min.X:]
			for x := 0; x < from.Dx(); x++ {
				out[x].put(k, uint64(row[4*x+3]))
			}
		}
		if sigma > 0 {
			b.run(v)
		}
		for k := range n {
			out := b.plane[(y+k-full.Min.Y)*words:][:words]
			for x, f := range v {
				out[x/4] |= uint32(f.get(k)) << (8 * (x % 4))
			}
		}
	}
	for word := (area.Min.X - full.Min.X) / 4; word < words && full.Min.X+4*word < area.Max.X; word++ {
		v := b.lines(h)
		for y := range h {
			p := b.plane[y*words+word]
			v[y] = four{uint64(p)&0xFF | uint64(p)>>8&0xFF<<32, uint64(p)>>16&0xFF | uint64(p)>>24<<32}
		}
		if sigma > 0 {
			b.run(v)
		}
		for k := range 4 {
			x := full.Min.X + 4*word + k
			if x < area.Min.X || x >= area.Max.X {
				continue
			}
			for y := area.Min.Y; y < area.Max.Y; y++ {
				m.pix[(y-area.Min.Y)*area.Dx()+x-area.Min.X] = uint8(v[y-full.Min.Y].get(k))
			}
		}
	}
	return m
}

// put sets value k of a four that was 0 there; get returns it.
func (f *four) put(k int, v uint64) {
	if k < 2 {
		f.a |= v << (32 * k)
	} else {
		f.b |= v << (32 * (k - 2))
	}
}

func (f *four) get(k int) uint64 {
	if k < 2 {
		return f.a >> (32 * k) & low32
	}
	return f.b >> (32 * (k - 2)) & low32
}

func (m *alphaMap) row(y int) []uint8 {
	w := m.box.Dx()
	return m.pix[(y-m.box.Min.Y)*w : (y-m.box.Min.Y+1)*w]
}

// feather fades the border of what is on s over width px, inwards: its cover a becomes a x max(0, 2 b - 1), b its blurred
// cover. At an edge b is a half.
func (b *blurrer) feather(s *surface, width float64) {
	m := b.alpha(s, featherSigma(width), s.dirty)
	for y := m.box.Min.Y; y < m.box.Max.Y; y++ {
		row := s.row(y, m.box.Min.X, m.box.Max.X)
		for x, c := range m.row(y) {
			store(row, 4*x, scaled(load(row, 4*x), uint32(max(0, 2*int(c)-255))))
		}
	}
}

// featherSigma is the deviation whose blur spreads an edge over width px to either side.
func featherSigma(width float64) float64 { return width / 2.8 }
