package cutout

import (
	"image"
	"math"
	"math/bits"
)

// softened makes the edge of a mask fade over so many pixels: it is averaged over a third of them three times, which is nearly a bell as wide as they are.
func softened(mask *image.Gray, px float64) {
	w, h := mask.Rect.Dx(), mask.Rect.Dy()
	n := max(w, h)
	line, next, sum := make([]float64, n), make([]float64, n), make([]float64, n+1)
	along := func(start, step, n int) {
		even := true
		for i := range n {
			line[i] = float64(mask.Pix[start+i*step])
			even = even && line[i] == line[0]
		}
		if even {
			return
		}
		for range 3 {
			for i := range n {
				sum[i+1] = sum[i] + line[i]
			}
			until := func(at float64) float64 { // what is beyond the picture is as its side is
				k := int(math.Floor(at))
				switch {
				case k < 0:
					return at * line[0]
				case k >= n:
					return sum[n] + (at-float64(n))*line[n-1]
				}
				return sum[k] + (at-float64(k))*line[k]
			}
			for i := range n {
				mid := float64(i) + 0.5
				next[i] = (until(mid+px/6) - until(mid-px/6)) / (px / 3)
			}
			line, next = next, line
		}
		for i := range n {
			mask.Pix[start+i*step] = uint8(math.Round(min(255, max(0, line[i]))))
		}
	}
	for y := range h {
		along(y*mask.Stride, 1, w)
	}
	for x := range w {
		along(x, mask.Stride, h)
	}
}

// spread moves the edge of a mask outwards by pixels, below 0 inwards: each pixel gets the most (the least) that there is within a disc around it.
func spread(mask *image.Gray, px float64) *image.Gray {
	if px < 0 {
		inverted(mask)
		out := spread(mask, -px)
		inverted(out)
		return out
	}
	r := int(px)
	a := grown(mask, r)
	share := px - float64(r)
	if share == 0 {
		return a
	}
	for i, v := range grown(mask, r+1).Pix {
		a.Pix[i] = uint8(math.Round(float64(a.Pix[i])*(1-share) + float64(v)*share))
	}
	return a
}

func inverted(mask *image.Gray) {
	for i, v := range mask.Pix {
		mask.Pix[i] = 255 - v
	}
}

// grown is the most of a mask within r of each pixel.
func grown(mask *image.Gray, r int) *image.Gray {
	out := image.NewGray(mask.Rect)
	copy(out.Pix, mask.Pix)
	tiles(mask.Rect.Size(), func() func(image.Rectangle) {
		return func(t image.Rectangle) { grownTile(out, mask, t, r) }
	})
	return out
}

func grownTile(out, mask *image.Gray, t image.Rectangle, r int) {
	wide := t.Inset(-r).Intersect(image.Rectangle{Max: mask.Rect.Size()})
	w := wide.Dx()
	first, even := mask.Pix[wide.Min.Y*mask.Stride+wide.Min.X], true
	for y := wide.Min.Y; y < wide.Max.Y && even; y++ {
		for _, v := range mask.Pix[y*mask.Stride+wide.Min.X : y*mask.Stride+wide.Max.X] {
			even = even && v == first
		}
	}
	if even || r == 0 {
		return
	}
	// Of each row, the most of 1, 2, 4 … pixels from each on: any run is two of these.
	levels := bits.Len(uint(2*r + 1))
	table := make([][]uint8, levels)
	for k := range table {
		table[k] = make([]uint8, w)
	}
	for y := wide.Min.Y; y < wide.Max.Y; y++ {
		copy(table[0], mask.Pix[y*mask.Stride+wide.Min.X:y*mask.Stride+wide.Max.X])
		for k := 1; k < levels; k++ {
			step := 1 << (k - 1)
			for x := range w {
				table[k][x] = max(table[k-1][x], table[k-1][min(w-1, x+step)])
			}
		}
		for to := max(t.Min.Y, y-r); to < min(t.Max.Y, y+r+1); to++ {
			half := int(math.Sqrt(float64(r*r - (to-y)*(to-y))))
			for x := t.Min.X; x < t.Max.X; x++ {
				from, end := max(0, x-wide.Min.X-half), min(w, x-wide.Min.X+half+1)
				k := bits.Len(uint(end-from)) - 1
				v := max(table[k][from], table[k][end-1<<k])
				if p := &out.Pix[to*out.Stride+x]; v > *p {
					*p = v
				}
			}
		}
	}
}
