// Package likeness says how much alike two pictures are.
package likeness

import "image"

// step is how far apart the blocks are that SSIM looks at, px: they overlap by half.
const step = 4

// SSIM is the structural similarity of two opaque pictures of one size, 1 where they are equal: the mean over blocks of 8 x 8 px (Wang, Bovik,
// Sheikh and Simoncelli, 2004). Pictures smaller than a block are compared as one of what they have.
func SSIM(a, b *image.RGBA) float64 {
	sum, n := 0.0, 0
	for y := a.Rect.Min.Y; y == a.Rect.Min.Y || y+8 <= a.Rect.Max.Y; y += step {
		for x := a.Rect.Min.X; x == a.Rect.Min.X || x+8 <= a.Rect.Max.X; x += step {
			sum, n = sum+Block(a, b, x, y), n+1
		}
	}
	return sum / float64(n)
}

// Block is the structural similarity of luma in the block of 8 x 8 px from x0, y0.
func Block(a, b *image.RGBA, x0, y0 int) float64 {
	var sa, sb, saa, sbb, sab, n float64
	luma := func(m *image.RGBA, i int) float64 {
		return 0.2126*float64(m.Pix[i]) + 0.7152*float64(m.Pix[i+1]) + 0.0722*float64(m.Pix[i+2])
	}
	for y := y0; y < min(y0+8, a.Rect.Max.Y); y++ {
		i, j := a.PixOffset(x0, y), b.PixOffset(x0, y)
		for x := x0; x < min(x0+8, a.Rect.Max.X); x++ {
			p, q := luma(a, i), luma(b, j)
			sa, sb, saa, sbb, sab, n = sa+p, sb+q, saa+p*p, sbb+q*q, sab+p*q, n+1
			i, j = i+4, j+4
		}
	}
	const c1, c2 = 0.01 * 255 * 0.01 * 255, 0.03 * 255 * 0.03 * 255
	ma, mb := sa/n, sb/n
	va, vb, cov := saa/n-ma*ma, sbb/n-mb*mb, sab/n-ma*mb
	return (2*ma*mb + c1) * (2*cov + c2) / ((ma*ma + mb*mb + c1) * (va + vb + c2))
}

// Banding is how far colours of two opaque pictures of one size lie apart after both were blurred by a box of 7 x 7 px: the mean over pixels and
// channels, 0..255. A dither's grain is blurred away, the steps of a gradient are not.
func Banding(a, b *image.RGBA) float64 {
	const half = 3
	w, h := a.Rect.Dx(), a.Rect.Dy()
	sums := make([]int32, 3*(w+1)*(h+1)) // of differences, over the rectangle from the corner
	for y := range h {
		var row [3]int32
		for x := range w {
			i, j := a.PixOffset(a.Rect.Min.X+x, a.Rect.Min.Y+y), b.PixOffset(b.Rect.Min.X+x, b.Rect.Min.Y+y)
			at := 3 * ((y+1)*(w+1) + x + 1)
			for c := range 3 {
				row[c] += int32(a.Pix[i+c]) - int32(b.Pix[j+c])
				sums[at+c] = sums[at-3*(w+1)+c] + row[c]
			}
		}
	}
	total := 0.0
	for y := range h {
		y0, y1 := max(0, y-half), min(h, y+half+1)
		for x := range w {
			x0, x1 := max(0, x-half), min(w, x+half+1)
			for c := range 3 {
				v := sums[3*(y1*(w+1)+x1)+c] - sums[3*(y0*(w+1)+x1)+c] - sums[3*(y1*(w+1)+x0)+c] + sums[3*(y0*(w+1)+x0)+c]
				total += float64(max(v, -v)) / float64((x1-x0)*(y1-y0))
			}
		}
	}
	return total / float64(3*w*h)
}
