package raster

import (
	"encoding/binary"
	"image"
)

// YUV converts opaque pixels to planar 4:2:0 by BT.709 in limited range (16..235, 16..240): a full-size plane
// of Y, then Cb and Cr at half size, each chroma sample the mean of its four pixels. Sides must be even;
// dst is w*h*3/2 bytes. Clear parts come out over black.
func YUV(dst []byte, src *image.RGBA) { yuvBox(dst, src, src.Rect) }

// YUVTiles is YUV for the tiles of a region alone; the rest of dst stays.
func YUVTiles(dst []byte, src *image.RGBA, r *Region) {
	r.Each(func(b image.Rectangle) { yuvBox(dst, src, b) })
}

// Coefficients of ITU-R BT.709-6, section 3, scaled by 219/255 (luma) and 224/255 (chroma), in 16.16;
// the chroma rows add up to 0, so greys stay grey.
const (
	yr, yg, yb = 11966, 40254, 4064
	ur, ug, ub = -6596, -22188, 28784
	vr, vg, vb = 28784, -26145, -2639
)

func yuvBox(dst []byte, src *image.RGBA, box image.Rectangle) {
	w, h := src.Rect.Dx(), src.Rect.Dy()
	luma, cb, cr := dst[:w*h], dst[w*h:w*h*5/4], dst[w*h*5/4:w*h*3/2]
	n := box.Dx()
	for y := box.Min.Y; y < box.Max.Y; y += 2 {
		i := y*src.Stride + 4*box.Min.X
		a := src.Pix[i : i+4*n : i+4*n]
		b := src.Pix[i+src.Stride : i+src.Stride+4*n : i+src.Stride+4*n]
		la, lb := luma[y*w+box.Min.X:][:n:n], luma[(y+1)*w+box.Min.X:][:n:n]
		c := y/2*(w/2) + box.Min.X/2
		u, v := cb[c:][:n/2:n/2], cr[c:][:n/2:n/2]
		var was, wasLow uint64
		for k := range u {
			// Four pixels at a time, two above two.
			p, q := binary.LittleEndian.Uint64(a[8*k:]), binary.LittleEndian.Uint64(b[8*k:])
			if k > 0 && p == was && q == wasLow { // flat parts repeat
				la[2*k], la[2*k+1], lb[2*k], lb[2*k+1] = la[2*k-2], la[2*k-1], lb[2*k-2], lb[2*k-1]
				u[k], v[k] = u[k-1], v[k-1]
				continue
			}
			was, wasLow = p, q
			la[2*k], la[2*k+1] = lumaOf(uint32(p)), lumaOf(uint32(p>>32))
			lb[2*k], lb[2*k+1] = lumaOf(uint32(q)), lumaOf(uint32(q>>32))
			// Even bytes are reds and blues, odd ones greens and alphas.
			even, odd := p&laneMask+q&laneMask, p>>8&laneMask+q>>8&laneMask
			r, g, bl := int(even&0xFFFF+even>>32&0xFFFF), int(odd&0xFFFF+odd>>32&0xFFFF), int(even>>16&0xFFFF+even>>48)
			u[k] = uint8((ur*r + ug*g + ub*bl + 128<<18 + 131072) >> 18)
			v[k] = uint8((vr*r + vg*g + vb*bl + 128<<18 + 131072) >> 18)
		}
	}
}

func lumaOf(p uint32) uint8 {
	return uint8((yr*(p&255) + yg*(p>>8&255) + yb*(p>>16&255) + 16<<16 + 32768) >> 16)
}
