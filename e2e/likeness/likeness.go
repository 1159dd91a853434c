// Package likeness says how much alike two pictures are.
package likeness

import "image"

// SSIM is the structural similarity of luma in a block of 8 x 8 px from x0, y0 (Wang, Bovik, Sheikh and Simoncelli, 2004).
func SSIM(a, b *image.RGBA, x0, y0 int) float64 {
	var sa, sb, saa, sbb, sab float64
	luma := func(m *image.RGBA, x, y int) float64 {
		i := m.PixOffset(x, y)
		return 0.2126*float64(m.Pix[i]) + 0.7152*float64(m.Pix[i+1]) + 0.0722*float64(m.Pix[i+2])
	}
	for y := y0; y < y0+8; y++ {
		for x := x0; x < x0+8; x++ {
			p, q := luma(a, x, y), luma(b, x, y)
			sa, sb, saa, sbb, sab = sa+p, sb+q, saa+p*p, sbb+q*q, sab+p*q
		}
	}
	const n, c1, c2 = 64, 0.01 * 255 * 0.01 * 255, 0.03 * 255 * 0.03 * 255
	ma, mb := sa/n, sb/n
	va, vb, cov := saa/n-ma*ma, sbb/n-mb*mb, sab/n-ma*mb
	return (2*ma*mb + c1) * (2*cov + c2) / ((ma*ma + mb*mb + c1) * (va + vb + c2))
}
