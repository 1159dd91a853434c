// Package anim turns frames into GIF: one palette for the whole film, one dither, only what changes from
// frame to frame, and delays that follow the film's time without drift (docs/motion.md, section 9).
package anim

import (
	"image"
	"sort"
)

// Palette is up to 255 opaque colours. Index 255 is kept for "as before".
type Palette struct{ colours [][3]uint8 }

// Pen draws frames with a palette. It remembers how colours are drawn, and belongs to one goroutine.
type Pen struct {
	palette *Palette
	cache   []choice
}

// Pen returns a new pen.
func (p *Palette) Pen() *Pen { return &Pen{p, make([]choice, 1<<16)} }

// choice is how one colour is drawn: by palette entry a, and by b where the dither is below share/64.
type choice struct {
	colour uint32 // 1<<24 | rgb: 0 marks an empty slot
	a, b   uint8
	share  uint8
}

// Census counts the colours of sample frames.
type Census struct {
	bins map[uint32]*bin
}

type bin struct {
	n   int
	sum [3]int
}

// Add counts the pixels of a frame; step > 1 looks at every step-th only.
func (c *Census) Add(img *image.RGBA, step int) {
	if c.bins == nil {
		c.bins = map[uint32]*bin{}
	}
	var last uint32
	var b *bin
	for i := 0; i+3 < len(img.Pix); i += 4 * step {
		r, g, bl := img.Pix[i], img.Pix[i+1], img.Pix[i+2]
		key := uint32(r>>2)<<12 | uint32(g>>2)<<6 | uint32(bl>>2) | 1<<20
		if key != last {
			last = key
			if b = c.bins[key]; b == nil {
				b = &bin{}
				c.bins[key] = b
			}
		}
		b.n++
		b.sum[0] += int(r)
		b.sum[1] += int(g)
		b.sum[2] += int(bl)
	}
}

type sample struct {
	n int
	c [3]float64
}

type cluster struct {
	s    []sample
	n    int
	mean [3]float64
	axis int
	err  float64 // summed squared distance along axis
}

func newCluster(s []sample) cluster {
	c := cluster{s: s}
	var sq [3]float64
	for _, v := range s {
		c.n += v.n
		for k := range sq {
			c.mean[k] += v.c[k] * float64(v.n)
			sq[k] += v.c[k] * v.c[k] * float64(v.n)
		}
	}
	for k := range sq {
		c.mean[k] /= float64(c.n)
		if e := (sq[k] - c.mean[k]*c.mean[k]*float64(c.n)) * weight[k]; e > c.err {
			c.err, c.axis = e, k
		}
	}
	return c
}

// weight says how much an error in red, green and blue counts: their shares of luma, roughly.
var weight = [3]float64{0.30, 0.59, 0.25}

// Palette chooses at most n <= 255 colours: clusters are split where their variance is largest, at the mean of
// the axis it lies on (after Wan, Wong and Prusinkiewicz, 1990).
func (c *Census) Palette(n int) *Palette {
	all := make([]sample, 0, len(c.bins))
	keys := make([]uint32, 0, len(c.bins))
	for k := range c.bins {
		keys = append(keys, k)
	}
	sort.Slice(keys, func(i, j int) bool { return keys[i] < keys[j] })
	for _, k := range keys {
		b := c.bins[k]
		f := 1 / float64(b.n)
		all = append(all, sample{b.n, [3]float64{float64(b.sum[0]) * f, float64(b.sum[1]) * f, float64(b.sum[2]) * f}})
	}
	if len(all) == 0 {
		all = []sample{{n: 1}}
	}
	list := []cluster{newCluster(all)}
	for len(list) < n {
		worst := 0
		for i := range list {
			if list[i].err > list[worst].err {
				worst = i
			}
		}
		w := list[worst]
		if len(w.s) < 2 || w.err < 1e-6 {
			break
		}
		var lo, hi []sample
		for _, s := range w.s {
			if s.c[w.axis] < w.mean[w.axis] {
				lo = append(lo, s)
			} else {
				hi = append(hi, s)
			}
		}
		if len(lo) == 0 || len(hi) == 0 {
			list[worst].err = 0
			continue
		}
		list[worst] = newCluster(lo)
		list = append(list, newCluster(hi))
	}
	p := &Palette{}
	for _, k := range list {
		// A cluster that is nearly all one colour keeps that colour exactly: flat grounds stay flat.
		top := k.s[0]
		for _, s := range k.s {
			if s.n > top.n {
				top = s
			}
		}
		c := k.mean
		if top.n*2 > k.n {
			c = top.c
		}
		p.colours = append(p.colours, [3]uint8{uint8(c[0] + 0.5), uint8(c[1] + 0.5), uint8(c[2] + 0.5)})
	}
	return p
}

func (p *Palette) distance(i int, c [3]float64) float64 {
	d := 0.0
	for k := range c {
		e := c[k] - float64(p.colours[i][k])
		d += e * e * weight[k]
	}
	return d
}

// choose finds the nearest entry a and the entry b for which a mixture of both comes nearest.
func (p *Palette) choose(rgb uint32) choice {
	c := [3]float64{float64(rgb >> 16), float64(rgb >> 8 & 255), float64(rgb & 255)}
	a := 0
	best := p.distance(0, c)
	for i := range p.colours {
		if d := p.distance(i, c); d < best {
			a, best = i, d
		}
	}
	out := choice{1<<24 | rgb, uint8(a), uint8(a), 0}
	if best < 1 {
		return out
	}
	for i := range p.colours {
		if i == a {
			continue
		}
		// The share t of entry i that brings a + t (i - a) nearest to c.
		num, den := 0.0, 0.0
		for k := range c {
			d := float64(p.colours[i][k]) - float64(p.colours[a][k])
			num += (c[k] - float64(p.colours[a][k])) * d * weight[k]
			den += d * d * weight[k]
		}
		if num <= 0 || den == 0 || den > 40*40 {
			continue // far entries would show as grain
		}
		t := min(num/den, 0.5)
		d := 0.0
		for k := range c {
			e := c[k] - float64(p.colours[a][k]) - t*(float64(p.colours[i][k])-float64(p.colours[a][k]))
			d += e * e * weight[k]
		}
		if d += den * t * 0.02; d < best {
			best = d
			out.b, out.share = uint8(i), uint8(t*64+0.5)
		}
	}
	return out
}

// bayer is the 8 x 8 ordered dither matrix (Bayer, 1973). It does not depend on the frame, so what rests in the film rests
// in the file.
var bayer = func() (m [64]uint8) {
	for y := 0; y < 8; y++ {
		for x := 0; x < 8; x++ {
			v := 0
			for bit := 0; bit < 3; bit++ {
				a, b := x>>bit&1, y>>bit&1
				v = v<<2 | (a^b)<<1 | b
			}
			m[y*8+x] = uint8(v)
		}
	}
	return
}()

// Draw writes the palette indices of a part of an opaque frame. dst holds the whole frame.
func (p *Pen) Draw(dst []uint8, img *image.RGBA, box image.Rectangle) {
	w := img.Rect.Dx()
	var last choice
	for y := box.Min.Y; y < box.Max.Y; y++ {
		row := img.Pix[y*img.Stride+4*box.Min.X : y*img.Stride+4*box.Max.X]
		out := dst[y*w+box.Min.X:][:box.Dx()]
		for x := range out {
			rgb := uint32(row[4*x])<<16 | uint32(row[4*x+1])<<8 | uint32(row[4*x+2])
			if last.colour != 1<<24|rgb {
				slot := &p.cache[(rgb*0x9E3779B1)>>16]
				if slot.colour != 1<<24|rgb {
					*slot = p.palette.choose(rgb)
				}
				last = *slot
			}
			if last.share > 0 && bayer[y&7<<3|(x+box.Min.X)&7] < last.share {
				out[x] = last.b
			} else {
				out[x] = last.a
			}
		}
	}
}
