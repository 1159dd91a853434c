package raster

import (
	"encoding/binary"
	"image"
)

// straightOf is a pixel's colour as it is without its alpha (0..255 each), which is what video with alpha holds; black where it is clear.
func straightOf(p []byte) (r, g, b uint32) {
	a := uint32(p[3])
	switch a {
	case 255:
		return uint32(p[0]), uint32(p[1]), uint32(p[2])
	case 0:
		return 0, 0, 0
	}
	half := a / 2
	return min(255, (255*uint32(p[0])+half)/a), min(255, (255*uint32(p[1])+half)/a), min(255, (255*uint32(p[2])+half)/a)
}

// YUVATiles converts pixels of the tiles of a region to planar 4:2:0 with alpha: planes as of YUV, then one of alpha at full size (0..255). Colours are
// straight, not multiplied by alpha; a chroma sample is the mean of its four pixels, each as strong as it is opaque, so that what is clear bleeds into
// no edge. Sides must be even; dst is w*h*5/2 bytes.
func YUVATiles(dst []byte, src *image.RGBA, r *Region) {
	w, h := src.Rect.Dx(), src.Rect.Dy()
	luma, cb, cr, alpha := dst[:w*h], dst[w*h:w*h*5/4], dst[w*h*5/4:w*h*3/2], dst[w*h*3/2:w*h*5/2]
	r.Each(func(box image.Rectangle) {
		for y := box.Min.Y; y < box.Max.Y; y += 2 {
			for x := box.Min.X; x < box.Max.X; x += 2 {
				var sr, sg, sb, sa int // as they are in src, multiplied by alpha
				for k := range 4 {
					i, j := x+k&1, y+k>>1
					p := src.Pix[j*src.Stride+4*i:][:4:4]
					sr, sg, sb, sa = sr+int(p[0]), sg+int(p[1]), sb+int(p[2]), sa+int(p[3])
					r, g, b := straightOf(p)
					luma[j*w+i], alpha[j*w+i] = lumaOf(r|g<<8|b<<16), p[3]
				}
				u, v := uint8(128), uint8(128)
				if sa > 0 {
					// Of four pixels in 0..1020, as yuvBox has them.
					r, g, b := 1020*sr/sa, 1020*sg/sa, 1020*sb/sa
					u = uint8((ur*r + ug*g + ub*b + 128<<18 + 131072) >> 18)
					v = uint8((vr*r + vg*g + vb*b + 128<<18 + 131072) >> 18)
				}
				cb[y/2*(w/2)+x/2], cr[y/2*(w/2)+x/2] = u, v
			}
		}
	})
}

// YUVA444P10Tiles converts pixels of the tiles of a region to planar 4:4:4 of ten bits in sixteen, little-endian, by BT.709 in limited range (64..940,
// 64..960), with alpha (0..1023): planes of Y, Cb, Cr and alpha. Colours are straight. dst is w*h*8 bytes.
func YUVA444P10Tiles(dst []byte, src *image.RGBA, r *Region) {
	w, h := src.Rect.Dx(), src.Rect.Dy()
	n := 2 * w * h
	planes := [4][]byte{dst[:n], dst[n : 2*n], dst[2*n : 3*n], dst[3*n : 4*n]}
	r.Each(func(box image.Rectangle) {
		var last uint32
		var as [4]uint16
		first := true
		for y := box.Min.Y; y < box.Max.Y; y++ {
			for x := box.Min.X; x < box.Max.X; x++ {
				p := src.Pix[y*src.Stride+4*x:][:4:4]
				if v := binary.LittleEndian.Uint32(p); first || v != last { // flat parts repeat
					first, last = false, v
					as = tenBits(p)
				}
				for k, v := range as {
					binary.LittleEndian.PutUint16(planes[k][2*(y*w+x):], v)
				}
			}
		}
	})
}

// tenBits are Y, Cb, Cr and alpha of a pixel in ten bits.
func tenBits(p []byte) [4]uint16 {
	r32, g32, b32 := straightOf(p)
	r, g, b := int64(r32), int64(g32), int64(b32)
	// The rows of yuvBox, times four.
	y := (4*(yr*r+yg*g+yb*b) + 64<<16 + 32768) >> 16
	u := (4*(ur*r+ug*g+ub*b) + 512<<16 + 32768) >> 16
	v := (4*(vr*r+vg*g+vb*b) + 512<<16 + 32768) >> 16
	return [4]uint16{uint16(y), uint16(u), uint16(v), uint16((1023*uint32(p[3]) + 127) / 255)}
}

// NRGBATiles converts pixels of the tiles of a region to red, green, blue and alpha, four bytes each, as image.NRGBA has them.
func NRGBATiles(dst []byte, src *image.RGBA, r *Region) { straightTiles(dst, src, r, 0, 2) }

// BGRATiles converts pixels of the tiles of a region to blue, green, red and alpha, four bytes each; colours are straight.
func BGRATiles(dst []byte, src *image.RGBA, r *Region) { straightTiles(dst, src, r, 2, 0) }

func straightTiles(dst []byte, src *image.RGBA, r *Region, red, blue int) {
	w := src.Rect.Dx()
	r.Each(func(box image.Rectangle) {
		for y := box.Min.Y; y < box.Max.Y; y++ {
			for x := box.Min.X; x < box.Max.X; x++ {
				p := src.Pix[y*src.Stride+4*x:][:4:4]
				r, g, b := straightOf(p)
				to := dst[4*(y*w+x):][:4:4]
				to[red], to[1], to[blue], to[3] = uint8(r), uint8(g), uint8(b), p[3]
			}
		}
	})
}
