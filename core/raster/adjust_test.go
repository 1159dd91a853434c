package raster

import (
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/state"
)

// A colour is mapped as its map says, to the level, the quick way and the exact one, with covers and without; what leads far beyond is cut off.
func TestColoursAreMapped(t *testing.T) {
	r := rand.New(rand.NewPCG(25, 6))
	for range 4000 {
		a := state.Adjust{Brightness: 2*r.Float64() - 1, Contrast: 2*r.Float64() - 1, Saturation: 2*r.Float64() - 1, Warmth: 2*r.Float64() - 1, Hue: 360 * r.Float64()}
		c := a.Colours()
		cover := uint32(255)
		if r.IntN(3) == 0 {
			cover = uint32(1 + r.IntN(254))
		}
		v := cover << 24
		for k := range 3 {
			v |= uint32(r.IntN(int(cover)+1)) << (8 * k)
		}
		s := &surface{pix: make([]byte, 4), stride: 4}
		s.box.Max.X, s.box.Max.Y = 1, 1
		s.dirty = s.box
		store(s.pix, 0, v)
		(&Painter{}).adjust(s, &adjusting{colours: c})
		is := load(s.pix, 0)
		for k := range 3 {
			want := c[4*k+3] * float64(cover)
			for j := range 3 {
				want += c[4*k+j] * float64(v>>(8*j)&0xFF)
			}
			want = min(float64(cover), max(0, want))
			if math.Abs(want-float64(is>>(8*k)&0xFF)) > 0.6 || is>>24 != cover {
				t.Fatalf("%08x by %+v: channel %d is %d, not %.2f", v, a, k, is>>(8*k)&0xFF, want)
			}
		}
	}
}
