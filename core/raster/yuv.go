package raster

import "image"

// YUV converts opaque pixels to planar 4:2:0 by BT.709 in limited range (16..235, 16..240): a full-size plane
// of Y, then Cb and Cr at half size, each chroma sample the mean of its four pixels. Sides must be even;
// dst is w*h*3/2 bytes. Clear parts come out over black.
func YUV(dst []byte, src *image.RGBA) {
	w, h := src.Rect.Dx(), src.Rect.Dy()
	luma, cb, cr := dst[:w*h], dst[w*h:w*h*5/4], dst[w*h*5/4:w*h*3/2]
	// Coefficients of ITU-R BT.709-6, section 3, scaled by 219/255 (luma) and 224/255 (chroma), in 16.16;
	// the chroma rows add up to 0, so greys stay grey.
	const (
		yr, yg, yb = 11966, 40254, 4064
		ur, ug, ub = -6596, -22188, 28784
		vr, vg, vb = 28784, -26145, -2639
	)
	for y := 0; y < h; y += 2 {
		a := src.Pix[y*src.Stride : y*src.Stride+4*w]
		b := src.Pix[(y+1)*src.Stride : (y+1)*src.Stride+4*w]
		la, lb := luma[y*w:(y+1)*w], luma[(y+1)*w:(y+2)*w]
		c := y / 2 * (w / 2)
		for x := 0; x < w; x += 2 {
			i := 4 * x
			p := a[i : i+8 : i+8]
			q := b[i : i+8 : i+8]
			la[x] = uint8((yr*int(p[0]) + yg*int(p[1]) + yb*int(p[2]) + 16<<16 + 32768) >> 16)
			la[x+1] = uint8((yr*int(p[4]) + yg*int(p[5]) + yb*int(p[6]) + 16<<16 + 32768) >> 16)
			lb[x] = uint8((yr*int(q[0]) + yg*int(q[1]) + yb*int(q[2]) + 16<<16 + 32768) >> 16)
			lb[x+1] = uint8((yr*int(q[4]) + yg*int(q[5]) + yb*int(q[6]) + 16<<16 + 32768) >> 16)
			r := int(p[0]) + int(p[4]) + int(q[0]) + int(q[4])
			g := int(p[1]) + int(p[5]) + int(q[1]) + int(q[5])
			bl := int(p[2]) + int(p[6]) + int(q[2]) + int(q[6])
			cb[c+x/2] = uint8((ur*r + ug*g + ub*bl + 128<<18 + 131072) >> 18)
			cr[c+x/2] = uint8((vr*r + vg*g + vb*bl + 128<<18 + 131072) >> 18)
		}
	}
}
