package cutout

import "image"

// Lift is a picture of which only what its mask keeps is left. Both are of one size. Where the mask is half way, the colour that shone in from the ground is
// taken out (Forte, Approximate Fast Foreground Colour Estimation, 2021): the mean colour of what is kept nearby, put right by what the mixture of it with the
// mean of what is dropped leaves of the pixel.
func Lift(img *image.RGBA, mask *image.Gray) *image.RGBA {
	out := image.NewRGBA(image.Rectangle{Max: img.Rect.Size()})
	tiles(out.Rect.Size(), func() func(image.Rectangle) {
		l := &lifting{img: img, mask: mask}
		return func(t image.Rectangle) { l.tile(out, t) }
	})
	return out
}

// nearby is how far the colours of both sides are looked for, in pixels.
const nearby = 12

type lifting struct {
	img          *image.RGBA
	mask         *image.Gray
	kept, ground [4][]int64 // columns of sums: shares, and colours times these
}

func (l *lifting) tile(out *image.RGBA, t image.Rectangle) {
	half := false
	for y := t.Min.Y; y < t.Max.Y; y++ {
		for x := t.Min.X; x < t.Max.X; x++ {
			v := uint32(l.mask.Pix[l.mask.PixOffset(l.mask.Rect.Min.X+x, l.mask.Rect.Min.Y+y)])
			p, q := l.img.Pix[y*l.img.Stride+4*x:], out.Pix[y*out.Stride+4*x:]
			switch v {
			case 0:
			case 255:
				copy(q[:4], p[:4])
			default:
				half = true
				for k := range 4 {
					q[k] = uint8((uint32(p[k])*v + 127) / 255)
				}
			}
		}
	}
	if half {
		l.edge(out, t)
	}
}

// edge gives pixels of a tile that are half kept the colour of what is kept.
func (l *lifting) edge(out *image.RGBA, t image.Rectangle) {
	wide := t.Inset(-nearby).Intersect(out.Rect)
	w, h := wide.Dx()+1, wide.Dy()+1
	for k := range 4 { // sums over all that is to the left and above
		l.kept[k] = append(l.kept[k][:0], make([]int64, w*h)...)
		l.ground[k] = append(l.ground[k][:0], make([]int64, w*h)...)
	}
	for y := 1; y < h; y++ {
		var kept, ground [4]int64
		for x := 1; x < w; x++ {
			px, py := wide.Min.X+x-1, wide.Min.Y+y-1
			p := l.img.Pix[py*l.img.Stride+4*px:]
			v := int64(l.mask.Pix[l.mask.PixOffset(l.mask.Rect.Min.X+px, l.mask.Rect.Min.Y+py)])
			// Cubed, so that what is surely of one side counts.
			a, b := v*v*v, (255-v)*(255-v)*(255-v)
			kept[0], ground[0] = kept[0]+a, ground[0]+b
			for k := range 3 {
				kept[k+1] += a * int64(p[k])
				ground[k+1] += b * int64(p[k])
			}
			for k := range 4 {
				l.kept[k][y*w+x] = l.kept[k][(y-1)*w+x] + kept[k]
				l.ground[k][y*w+x] = l.ground[k][(y-1)*w+x] + ground[k]
			}
		}
	}
	mean := func(s *[4][]int64, x, y int) (c [3]float64, ok bool) {
		x0, x1 := max(0, x-nearby), min(w-1, x+nearby+1)
		y0, y1 := max(0, y-nearby), min(h-1, y+nearby+1)
		in := func(v []int64) float64 { return float64(v[y1*w+x1] - v[y0*w+x1] - v[y1*w+x0] + v[y0*w+x0]) }
		n := in(s[0])
		if n < 255*255*255 {
			return c, false
		}
		for k := range c {
			c[k] = in(s[k+1]) / n
		}
		return c, true
	}
	for y := t.Min.Y; y < t.Max.Y; y++ {
		for x := t.Min.X; x < t.Max.X; x++ {
			v := l.mask.Pix[l.mask.PixOffset(l.mask.Rect.Min.X+x, l.mask.Rect.Min.Y+y)]
			if v == 0 || v == 255 {
				continue
			}
			fore, ok := mean(&l.kept, x-wide.Min.X, y-wide.Min.Y)
			if !ok {
				continue
			}
			back, ok := mean(&l.ground, x-wide.Min.X, y-wide.Min.Y)
			if !ok {
				back = fore
			}
			p, q := l.img.Pix[y*l.img.Stride+4*x:], out.Pix[y*out.Stride+4*x:]
			a := float64(v) / 255
			for k := range 3 {
				c := fore[k] + a*(float64(p[k])-a*fore[k]-(1-a)*back[k])
				q[k] = uint8(min(float64(q[3]), max(0, c*a+0.5))) // premultiplied: no brighter than it covers
			}
		}
	}
}
