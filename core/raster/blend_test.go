package raster

import (
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/doc"
)

// blendOf is B(Cb, Cs) as W3C Compositing and Blending 1, section 9.1, writes it, by name and apart from the painter's own.
func blendOf(name string, cb, cs float64) float64 {
	switch name {
	case "multiply":
		return cb * cs
	case "screen":
		return 1 - (1-cb)*(1-cs)
	case "overlay":
		return blendOf("hard-light", cs, cb)
	case "darken":
		return math.Min(cb, cs)
	case "lighten":
		return math.Max(cb, cs)
	case "colour-dodge":
		if cb == 0 {
			return 0
		} else if cs == 1 {
			return 1
		}
		return math.Min(1, cb/(1-cs))
	case "colour-burn":
		if cb == 1 {
			return 1
		} else if cs == 0 {
			return 0
		}
		return 1 - math.Min(1, (1-cb)/cs)
	case "hard-light":
		if cs <= 0.5 {
			return blendOf("multiply", cb, 2*cs)
		}
		return blendOf("screen", cb, 2*cs-1)
	case "soft-light":
		if cs <= 0.5 {
			return cb - (1-2*cs)*cb*(1-cb)
		}
		d := math.Sqrt(cb)
		if cb <= 0.25 {
			d = ((16*cb-12)*cb + 4) * cb
		}
		return cb + (2*cs-1)*(d-cb)
	case "difference":
		return math.Abs(cb - cs)
	case "exclusion":
		return cb + cs - 2*cb*cs
	}
	return cs
}

// Blended pixels are within a step of section 5.8: Cs = (1 - ab) Cs + ab B(Cb, Cs), then source-over (section 5.1).
func TestBlendsFollowTheFormulas(t *testing.T) {
	r := rand.New(rand.NewPCG(71, 72))
	if len(modes) != len(doc.Blends) {
		t.Fatalf("%d modes for %d names", len(modes), len(doc.Blends))
	}
	random := func() (uint32, [4]float64) {
		a := r.IntN(256)
		if r.IntN(3) == 0 {
			a = []int{0, 1, 255}[r.IntN(3)]
		}
		p := uint32(a) << 24
		var c [4]float64
		c[3] = float64(a) / 255
		for k := range 3 {
			v := r.IntN(a + 1)
			p |= uint32(v) << (8 * k)
			if a > 0 {
				c[k] = float64(v) / float64(a)
			}
		}
		return p, c
	}
	for i, name := range doc.Blends {
		for range 4000 {
			d, cb := random()
			s, cs := random()
			got := over(d, s)
			if i > 0 && s>>24 > 0 {
				got = blended(d, s, modes[i])
			}
			ao := cs[3] + cb[3]*(1-cs[3])
			for k := range 4 {
				want := ao
				if k < 3 {
					mixed := (1-cb[3])*cs[k] + cb[3]*blendOf(name, cb[k], cs[k])
					want = cs[3]*mixed + cb[3]*cb[k]*(1-cs[3])
				}
				if v := float64(got >> (8 * k) & 255); math.Abs(v-want*255) > 1 {
					t.Fatalf("%s of %08x over %08x: channel %d is %v, want %.2f", name, s, d, k, v, want*255)
				}
			}
		}
	}
}

// Runs of pixels come out as single ones do, whatever their length and place.
func TestRunsAreExact(t *testing.T) {
	r := rand.New(rand.NewPCG(73, 74))
	for range 3000 {
		n := r.IntN(9)
		row, want := make([]byte, 4*n), make([]byte, 4*n)
		for i := 0; i < n; i++ {
			a := uint32(r.IntN(256))
			v := a<<24 | uint32(r.IntN(int(a)+1)) | uint32(r.IntN(int(a)+1))<<8 | uint32(r.IntN(int(a)+1))<<16
			store(row, 4*i, v)
			store(want, 4*i, v)
		}
		if n == 0 {
			continue
		}
		a := uint32(r.IntN(256))
		s := a<<24 | uint32(r.IntN(int(a)+1))<<8
		cov := uint32(r.IntN(256))
		for i := 0; i < n; i++ {
			p := scaled(s, cov)
			for k := 0; k < 4; k++ {
				src := p >> (8 * k) & 255
				want[4*i+k] = uint8(src + div255(uint32(want[4*i+k])*(255-p>>24)))
			}
		}
		if solid(row, s, cov); string(row) != string(want) {
			t.Fatalf("%08x at %d: %v, want %v", s, cov, row, want)
		}
	}
	for x := uint32(0); x <= 255*255; x++ {
		if got := div255(x); got != uint32(math.Floor(float64(x)/255+0.5)) {
			t.Fatalf("%d / 255 is %d", x, got)
		}
	}
}
