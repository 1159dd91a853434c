package cutout

import (
	"image"
	"math"

	"capstan/core/paint"
)

// Key takes colours out of a picture.
type Key struct {
	Colours   []paint.Colour
	Tolerance float64       // in OKLab: what is nearer to one of them is clear
	Softness  float64       // in OKLab: over so much more it becomes opaque
	Spots     []image.Point // only what is connected to these; none: everywhere
}

// Of a key that nothing is said of.
const (
	KeyTolerance = 0.08
	KeySoftness  = 0.04
)

// Cover is how much of each pixel of a picture stays, 0..255, by rows.
func (k Key) Cover(img *image.RGBA) *image.Alpha {
	out := image.NewAlpha(image.Rectangle{Max: img.Rect.Size()})
	w, h := out.Rect.Dx(), out.Rect.Dy()
	known := map[uint32]uint8{} // by colours: pictures have far fewer than pixels
	for y := range h {
		row := img.Pix[img.PixOffset(img.Rect.Min.X, img.Rect.Min.Y+y):]
		for x := range w {
			code := uint32(row[4*x])<<16 | uint32(row[4*x+1])<<8 | uint32(row[4*x+2])
			v, ok := known[code]
			if !ok {
				v = k.cover(paint.Colour{R: float64(row[4*x]) / 255, G: float64(row[4*x+1]) / 255, B: float64(row[4*x+2]) / 255, A: 1})
				if len(known) < 1<<20 {
					known[code] = v
				}
			}
			out.Pix[y*out.Stride+x] = v
		}
	}
	if len(k.Spots) > 0 {
		connected(out, k.Spots)
	}
	return out
}

func (k Key) cover(c paint.Colour) uint8 {
	least := math.Inf(1)
	for _, o := range k.Colours {
		least = min(least, paint.Apart(c, o))
	}
	switch {
	case least <= k.Tolerance:
		return 0
	case least >= k.Tolerance+k.Softness:
		return 255
	}
	return uint8(math.Round(255 * (least - k.Tolerance) / k.Softness))
}

// connected makes opaque again what is not reached from spots over what is not opaque, from side to side.
func connected(m *image.Alpha, spots []image.Point) {
	w, h := m.Rect.Dx(), m.Rect.Dy()
	reached := make([]bool, w*h)
	var queue []int
	visit := func(x, y int) {
		if x < 0 || y < 0 || x >= w || y >= h {
			return
		}
		if i := y*w + x; !reached[i] && m.Pix[y*m.Stride+x] < 255 {
			reached[i] = true
			queue = append(queue, i)
		}
	}
	for _, p := range spots {
		visit(p.X, p.Y)
	}
	for len(queue) > 0 {
		i := queue[len(queue)-1]
		queue = queue[:len(queue)-1]
		x, y := i%w, i/w
		visit(x-1, y)
		visit(x+1, y)
		visit(x, y-1)
		visit(x, y+1)
	}
	for i, r := range reached {
		if !r {
			m.Pix[i/w*m.Stride+i%w] = 255
		}
	}
}
