package anim

import (
	"image"

	"capstan/core/paint"
)

// Dither is how colours between those of a palette are drawn.
type Dither string

// Kinds of dither.
const (
	Flat      Dither = "none"      // each pixel by the nearest colour
	Ordered   Dither = "ordered"   // two colours in a pattern that stands still: what rests does not crawl
	BlueNoise Dither = "noise"     // the same, in a pattern without lines
	Diffused  Dither = "diffusion" // errors go over to the pixels beside and below
)

// Dithers are the kinds of dither.
var Dithers = []Dither{Flat, Ordered, BlueNoise, Diffused}

// Pen draws frames with a palette. It remembers how colours are drawn, and belongs to one goroutine.
type Pen struct {
	palette *Palette
	dither  Dither
	matte   matte
	cache   []choice
	carry   [2][]([3]float64)
}

// Pen returns a new pen; what is half clear is laid on matte.
func (p *Palette) Pen(d Dither, on paint.Colour) *Pen {
	return &Pen{palette: p, dither: d, matte: matted(on), cache: make([]choice, 1<<14)}
}

// Drawn is how many bytes a pixel has that a pen has drawn: its colour, and the index that it is drawn by.
const Drawn = 4

// choice is how one colour is drawn: by palette entry a, and by b where the dither is below share/64.
type choice struct {
	colour uint32 // 1<<24 | rgb: 0 marks an empty slot
	a, b   uint8
	share  uint8
}

func (p *Pen) lookup(rgb uint32) choice {
	slot := &p.cache[(rgb*0x9E3779B1)>>18]
	if slot.colour != 1<<24|rgb {
		*slot = p.palette.choose(rgb, p.dither == Ordered || p.dither == BlueNoise)
	}
	return *slot
}

// Limits of mixtures.
const (
	closeEnough = 1e-6 // squared distance in OKLab from which on a mixture is not looked for
	grain       = 0.05 // distance in OKLab beyond which two colours side by side would show as grain
	calm        = 0.02 // how much of the squared distance of a pair counts against it
)

// choose finds the nearest entry a and, for a dither, the entry b for which a mixture of both comes nearest.
func (p *Palette) choose(rgb uint32, mixes bool) choice {
	c := labOf(rgb)
	a := nearest(p.labs, c)
	best := apart(&p.labs[a], &c)
	out := choice{1<<24 | rgb, uint8(a + 1), uint8(a + 1), 0}
	if best < closeEnough || !mixes {
		return out
	}
	at := &p.labs[a]
	for i := range p.labs {
		// The share t of entry i that brings a + t (i - a) nearest to c.
		den := apart(&p.labs[i], at)
		if i == a || den > grain*grain || den == 0 {
			continue
		}
		num := 0.0
		for k := range c {
			num += (c[k] - at[k]) * (p.labs[i][k] - at[k])
		}
		if num <= 0 {
			continue
		}
		t := min(num/den, 0.5)
		d := 0.0
		for k := range c {
			e := c[k] - at[k] - t*(p.labs[i][k]-at[k])
			d += e * e
		}
		if d += den * t * calm; d < best {
			best = d
			out.b, out.share = uint8(i+1), uint8(t*64+0.5)
		}
	}
	return out
}

// bayer is the 8 x 8 ordered dither matrix (Bayer, 1973).
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

// Draw draws a part of a frame into dst, which holds the whole one in Drawn bytes a pixel. By diffusion the whole frame is drawn.
func (p *Pen) Draw(dst []uint8, img *image.RGBA, box image.Rectangle) {
	if p.dither == Diffused {
		p.diffuse(dst, img)
		return
	}
	w := img.Rect.Dx()
	threshold, mask := &bayer, 7
	noise := p.dither == BlueNoise
	var last choice
	for y := box.Min.Y; y < box.Max.Y; y++ {
		row := img.Pix[y*img.Stride+4*box.Min.X : y*img.Stride+4*box.Max.X]
		out := dst[Drawn*(y*w+box.Min.X):][:len(row)]
		for i := 0; i+3 < len(row); i += 4 {
			s, o := row[i:i+4:i+4], out[i:i+4:i+4]
			if s[3] < half {
				o[0], o[1], o[2], o[3] = 0, 0, 0, through
				continue
			}
			rgb := p.matte.over(s)
			if last.colour != 1<<24|rgb {
				last = p.lookup(rgb)
			}
			o[0], o[1], o[2], o[3] = uint8(rgb>>16), uint8(rgb>>8), uint8(rgb), last.a
			if last.share == 0 {
				continue
			}
			x := box.Min.X + i/4
			var t uint8
			if noise {
				t = blueNoise()[y%noiseSide*noiseSide+x%noiseSide]
			} else {
				t = threshold[y&mask<<3|x&mask]
			}
			if t < last.share {
				o[3] = last.b
			}
		}
	}
}

// diffuse draws a whole frame by error diffusion, in turns from left and right (Floyd and Steinberg, 1976; on linear steps of sRGB bytes).
func (p *Pen) diffuse(dst []uint8, img *image.RGBA) {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	for i := range p.carry {
		if len(p.carry[i]) != w+2 {
			p.carry[i] = make([][3]float64, w+2)
		}
		clear(p.carry[i])
	}
	for y := range h {
		now, under := p.carry[y&1], p.carry[1-y&1]
		clear(under)
		from, to, step := 0, w, 1
		if y&1 == 1 {
			from, to, step = w-1, -1, -1
		}
		for x := from; x != to; x += step {
			s, o := img.Pix[y*img.Stride+4*x:][:4:4], dst[Drawn*(y*w+x):][:4:4]
			if s[3] < half {
				o[0], o[1], o[2], o[3] = 0, 0, 0, through
				continue
			}
			rgb := p.matte.over(s)
			o[0], o[1], o[2] = uint8(rgb>>16), uint8(rgb>>8), uint8(rgb)
			want := [3]float64{}
			asked := uint32(0)
			for c := range 3 {
				want[c] = float64(o[c]) + now[x+1][c]
				asked = asked<<8 | uint32(max(0, min(255, want[c]+0.5)))
			}
			o[3] = p.lookup(asked).a
			got := p.palette.colours[o[3]-1]
			for c := range 3 {
				// Errors beyond what can be made good are not carried on.
				e := max(-24, min(24, want[c]-float64(got[c])))
				now[x+1+step][c] += e * 7 / 16
				under[x+1-step][c] += e * 3 / 16
				under[x+1][c] += e * 5 / 16
				under[x+1+step][c] += e / 16
			}
		}
	}
}
