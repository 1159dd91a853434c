package cutout

import (
	"image"
	"math"
)

// Edges out of focus fade over many pixels, where a cut is at one, and rather on the outer side: what is half covered is unlike both sides. Across the border of
// the small copy it is measured over how much the colours go from one side’s to the other’s; where that is far, the cover is how far they have gone.

// span is how far to either side of a border is looked, in pixels of the small copy.
const span = 14

// From fadesFrom pixels of the small copy on an edge fades, from fadesSurely on nothing else is thought of.
const (
	fadesFrom   = 3.5
	fadesSurely = 6
)

// profile is what was measured at a pixel of a border.
type profile struct {
	at         image.Point
	wide       float64    // over how many pixels the edge fades
	fore, back [3]float64 // colours of both sides
}

// profiles measures the border that sides of a picture have, every few pixels.
func profiles(img *image.RGBA, sides []Side) (list []profile) {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	kept := func(x, y int) bool {
		s := sides[y*w+x]
		return s == Keep || s == MaybeKeep
	}
	for y := 1; y < h-1; y++ {
		for x := 1; x < w-1; x++ {
			if (x+y)%2 > 0 || !kept(x, y) || kept(x-1, y) && kept(x+1, y) && kept(x, y-1) && kept(x, y+1) {
				continue
			}
			var nx, ny float64 // into what is kept
			for dy := -3; dy <= 3; dy++ {
				for dx := -3; dx <= 3; dx++ {
					if u, v := x+dx, y+dy; u >= 0 && v >= 0 && u < w && v < h && kept(u, v) {
						nx, ny = nx+float64(dx), ny+float64(dy)
					}
				}
			}
			n := math.Hypot(nx, ny)
			if n == 0 {
				continue
			}
			var line [2*span + 1][3]float64
			whole := true
			for j := -span; j <= span && whole; j++ {
				u, v := x+int(math.Round(nx/n*float64(j))), y+int(math.Round(ny/n*float64(j)))
				if whole = u >= 0 && v >= 0 && u < w && v < h && (j > 2) == (j > 2 && kept(u, v)) && (j < -2) == (j < -2 && !kept(u, v)); whole {
					line[j+span] = at(img, v*w+u, w)
				}
			}
			if !whole {
				continue // something thin, or the side of the picture
			}
			p := profile{at: image.Pt(x, y)}
			const ends = 5
			for j := range ends {
				for k := range 3 {
					p.back[k] += line[j][k] / ends
					p.fore[k] += line[2*span-j][k] / ends
				}
			}
			if apart(p.fore, p.back) < 900 {
				continue
			}
			step, before := 0.0, 0.0
			for j, c := range line {
				t := p.share(c)
				p.wide += 4 * t * (1 - t) * 1.5 // of a straight ramp this adds up to its length
				if j > 0 {
					step = max(step, math.Abs(t-before))
				}
				before = t
			}
			p.wide = min(p.wide, 1.5/max(step, 0.01)) // a ramp has no steps, as textures and sharp edges have
			list = append(list, p)
		}
	}
	return list
}

// share is how far a colour has gone from the back to the fore, 0..1.
func (p *profile) share(c [3]float64) float64 {
	var dot, all float64
	for k := range 3 {
		d := p.fore[k] - p.back[k]
		dot, all = dot+(c[k]-p.back[k])*d, all+d*d
	}
	return min(1, max(0, dot/all))
}

// faded makes edges of a mask that fade in the small copy fade as they do.
func (s *Source) faded(mask *image.Gray, sides []Side) {
	w, h := s.small.Rect.Dx(), s.small.Rect.Dy()
	list := profiles(s.small, sides)
	fades := false
	for _, p := range list {
		fades = fades || p.wide > fadesFrom
	}
	if !fades {
		return
	}
	type mean struct {
		n, wide, far float64
		fore, back   [3]float64
	}
	field := make([]mean, w*h)
	for _, p := range list {
		for y := max(0, p.at.Y-span); y <= min(h-1, p.at.Y+span); y++ {
			for x := max(0, p.at.X-span); x <= min(w-1, p.at.X+span); x++ {
				d := math.Hypot(float64(x-p.at.X), float64(y-p.at.Y))
				v := math.Exp(-d * d / 40)
				m := &field[y*w+x]
				if m.n == 0 || d < m.far {
					m.far = d
				}
				m.n += v
				m.wide += v * p.wide
				for k := range 3 {
					m.fore[k] += v * p.fore[k]
					m.back[k] += v * p.back[k]
				}
			}
		}
	}
	// How much the cover is that of a fading edge, and what it is then.
	how, cover := make([]float64, w*h), make([]float64, w*h)
	for i := range field {
		m := &field[i]
		cover[i] = 0
		if s := sides[i]; s == Keep || s == MaybeKeep {
			cover[i] = 1
		}
		if m.n < 1e-6 {
			continue
		}
		p := profile{wide: m.wide / m.n}
		for k := range 3 {
			p.fore[k], p.back[k] = m.fore[k]/m.n, m.back[k]/m.n
		}
		how[i] = smooth((p.wide-fadesFrom)/(fadesSurely-fadesFrom)) * (1 - smooth((m.far-0.8*p.wide)/(0.3*p.wide)))
		if how[i] > 0 {
			cover[i] = p.share(at(s.small, i, w))
		}
	}
	averaged(cover, w, h)
	averaged(how, w, h)
	size := mask.Rect.Size()
	for y := range size.Y {
		for x := range size.X {
			u, v := (float64(x)+0.5)/float64(s.scale)-0.5, (float64(y)+0.5)/float64(s.scale)-0.5
			k := between(how, w, h, u, v)
			if k <= 0 {
				continue
			}
			p := &mask.Pix[y*mask.Stride+x]
			*p = uint8(math.Round(float64(*p)*(1-k) + 255*between(cover, w, h, u, v)*k))
		}
	}
}

func smooth(t float64) float64 {
	t = min(1, max(0, t))
	return t * t * (3 - 2*t)
}

// averaged makes each value the mean of the nine around it: textures of what is kept leave holes otherwise.
func averaged(v []float64, w, h int) {
	was := append([]float64(nil), v...)
	for y := range h {
		for x := range w {
			sum, n := 0.0, 0.0
			for b := max(0, y-1); b <= min(h-1, y+1); b++ {
				for a := max(0, x-1); a <= min(w-1, x+1); a++ {
					sum, n = sum+was[b*w+a], n+1
				}
			}
			v[y*w+x] = sum / n
		}
	}
}

// between is what lies between the middles of pixels.
func between(v []float64, w, h int, x, y float64) float64 {
	x, y = min(float64(w-1), max(0, x)), min(float64(h-1), max(0, y))
	i, k := int(x), int(y)
	i1, k1 := min(i+1, w-1), min(k+1, h-1)
	fx, fy := x-float64(i), y-float64(k)
	a := v[k*w+i]*(1-fx) + v[k*w+i1]*fx
	b := v[k1*w+i]*(1-fx) + v[k1*w+i1]*fx
	return a*(1-fy) + b*fy
}
