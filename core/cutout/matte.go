package cutout

import (
	"image"
	"math"
	"runtime"
	"sync"
)

// tile is how wide and high the parts are in which a mask is worked out: those that hold no border cost nothing.
const tile = 64

// matted makes a soft mask of a hard one: near its border the mask becomes, window by window, the linear function of the picture's colours that comes nearest to
// it (He, Sun and Tang, Guided Image Filtering, 2010, section 3.4 for colours, its use for matting in section 4). Half covered pixels of an edge, of hair and of
// leaves get what they are covered. r is the radius of the windows in pixels, eps how much a slope is distrusted, for colours of 0..1.
func matted(img *image.RGBA, kept []bool, r int, eps float64) *image.Gray {
	out := image.NewGray(image.Rectangle{Max: img.Rect.Size()})
	tiles(out.Rect.Size(), func() func(image.Rectangle) {
		g := &guided{img: img, kept: kept, r: r, eps: eps}
		return func(t image.Rectangle) { g.tile(out, t) }
	})
	return out
}

// tiles calls what each makes, one a processor, with the tiles of a picture, several at once.
func tiles(size image.Point, each func() func(t image.Rectangle)) {
	rows := make(chan int)
	var all sync.WaitGroup
	for range runtime.GOMAXPROCS(0) {
		all.Go(func() {
			f := each()
			for y := range rows {
				for x := 0; x < size.X; x += tile {
					f(image.Rect(x, y, min(x+tile, size.X), min(y+tile, size.Y)))
				}
			}
		})
	}
	for y := 0; y < size.Y; y += tile {
		rows <- y
	}
	close(rows)
	all.Wait()
}

type guided struct {
	img  *image.RGBA
	kept []bool
	r    int
	eps  float64
	sums [13][]float64 // of a tile with what lies around it: p, I, I p, I I
	line []float64
}

func (g *guided) tile(out *image.Gray, t image.Rectangle) {
	all := out.Rect
	wide := t.Inset(-2 * g.r).Intersect(all)
	first, even := g.kept[wide.Min.Y*all.Dx()+wide.Min.X], true
	for y := wide.Min.Y; y < wide.Max.Y && even; y++ {
		for _, v := range g.kept[y*all.Dx()+wide.Min.X : y*all.Dx()+wide.Max.X] {
			if v != first {
				even = false
				break
			}
		}
	}
	if even {
		if first {
			for y := t.Min.Y; y < t.Max.Y; y++ {
				row := out.Pix[y*out.Stride+t.Min.X : y*out.Stride+t.Max.X]
				for i := range row {
					row[i] = 255
				}
			}
		}
		return
	}
	w, h := wide.Dx(), wide.Dy()
	for k := range g.sums {
		g.sums[k] = append(g.sums[k][:0], make([]float64, w*h)...)
	}
	for y := range h {
		for x := range w {
			i := (wide.Min.Y+y)*all.Dx() + wide.Min.X + x
			c := at(g.img, i, all.Dx())
			p := 0.0
			if g.kept[i] {
				p = 1
			}
			k := y*w + x
			a, b, d := c[0]/255, c[1]/255, c[2]/255
			for n, v := range [13]float64{p, a, b, d, a * p, b * p, d * p, a * a, a * b, a * d, b * b, b * d, d * d} {
				g.sums[n][k] = v
			}
		}
	}
	for n := range g.sums {
		g.mean(g.sums[n], w, h)
	}
	s := &g.sums
	for k := range w * h {
		p, a, b, d := s[0][k], s[1][k], s[2][k], s[3][k]
		// Covariances of colours with the mask, and of colours.
		x, y, z := s[4][k]-a*p, s[5][k]-b*p, s[6][k]-d*p
		aa, ab, ad := s[7][k]-a*a+g.eps, s[8][k]-a*b, s[9][k]-a*d
		bb, bd, dd := s[10][k]-b*b+g.eps, s[11][k]-b*d, s[12][k]-d*d+g.eps
		i0, i1, i2 := bb*dd-bd*bd, ad*bd-ab*dd, ab*bd-ad*bb
		det := aa*i0 + ab*i1 + ad*i2
		var u, v, q float64
		if det > 0 {
			u = (i0*x + i1*y + i2*z) / det
			v = (i1*x + (aa*dd-ad*ad)*y + (ab*ad-aa*bd)*z) / det
			q = (i2*x + (ab*ad-aa*bd)*y + (aa*bb-ab*ab)*z) / det
		}
		s[0][k], s[4][k], s[5][k], s[6][k] = p-u*a-v*b-q*d, u, v, q
	}
	for _, n := range []int{0, 4, 5, 6} {
		g.mean(s[n], w, h)
	}
	for y := t.Min.Y; y < t.Max.Y; y++ {
		for x := t.Min.X; x < t.Max.X; x++ {
			c := at(g.img, y*all.Dx()+x, all.Dx())
			k := (y-wide.Min.Y)*w + x - wide.Min.X
			v := s[0][k] + (s[4][k]*c[0]+s[5][k]*c[1]+s[6][k]*c[2])/255
			v = (v-0.5)*steeper + 0.5
			out.Pix[y*out.Stride+x] = uint8(math.Round(255 * min(1, max(0, v))))
		}
	}
}

// steeper is by how much what is nearly kept is taken for kept, and what is nearly dropped for dropped: textures near a border leave traces otherwise.
const steeper = 1.2

// mean makes of each value the mean of those up to r away, each way.
func (g *guided) mean(v []float64, w, h int) {
	if cap(g.line) < w*h+w {
		g.line = make([]float64, w*h+w)
	}
	line := g.line[:w+1]
	for y := range h {
		row := v[y*w : y*w+w]
		line[0] = 0
		for x, c := range row {
			line[x+1] = line[x] + c
		}
		for x := range row {
			from, to := max(0, x-g.r), min(w, x+g.r+1)
			row[x] = (line[to] - line[from]) / float64(to-from)
		}
	}
	// Downwards row by row: the sums of all columns go along.
	was, sum := g.line[w:w+w*h], g.line[:w]
	copy(was, v)
	clear(sum)
	add := func(row []float64) {
		for x, c := range row {
			sum[x] += c
		}
	}
	for y := range min(g.r, h) {
		add(was[y*w : y*w+w])
	}
	for y := range h {
		if to := y + g.r; to < h {
			add(was[to*w : to*w+w])
		}
		if from := y - g.r - 1; from >= 0 {
			for x, c := range was[from*w : from*w+w] {
				sum[x] -= c
			}
		}
		by := 1 / float64(min(h, y+g.r+1)-max(0, y-g.r))
		row := v[y*w : y*w+w]
		for x, c := range sum {
			row[x] = c * by
		}
	}
}
