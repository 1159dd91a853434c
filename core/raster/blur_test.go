package raster

import (
	"image"
	"math"
	"math/rand/v2"
	"testing"
)

func sprinkled(w, h int) *surface {
	r := rand.New(rand.NewPCG(81, 82))
	s := (&surfaces{}).take(image.Rect(-3, 5, w-3, h+5))
	s.dirty = image.Rect(w/4-3, h/4+5, 3*w/4-3, 3*h/4+5)
	for y := s.dirty.Min.Y; y < s.dirty.Max.Y; y++ {
		row := s.row(y, s.dirty.Min.X, s.dirty.Max.X)
		for i := 0; i < len(row); i += 4 {
			a := r.IntN(256)
			store(row, i, uint32(a)<<24|uint32(r.IntN(a+1))|uint32(r.IntN(a+1))<<8|uint32(r.IntN(a+1))<<16)
		}
	}
	return s
}

// A blurred field is the field weighed by the sampled Gaussian, worked out straight from its formula
// (Filter Effects 1, section 9.6: three boxes stay within 3 % of it).
func TestBlursAreGaussian(t *testing.T) {
	for _, sigma := range []float64{0.4, 0.8, 1.5, 1.99, 2, 3.3, 4.9, 5, 9, 10, 20} {
		s := sprinkled(120, 90)
		before := append([]byte(nil), s.pix...)
		n := int(math.Ceil(4 * sigma))
		weight := make([]float64, 2*n+1)
		sum := 0.0
		for i := range weight {
			weight[i] = math.Exp(-float64((i-n)*(i-n)) / (2 * sigma * sigma))
			sum += weight[i]
		}
		(&blurrer{}).blur(s, sigma)
		worst := 0.0
		for y := 10; y < 80; y += 3 {
			for x := 10; x < 110; x += 3 {
				want := 0.0
				for dy := -n; dy <= n; dy++ {
					for dx := -n; dx <= n; dx++ {
						if px, py := x+dx, y+dy; px >= 0 && py >= 0 && px < 120 && py < 90 {
							want += float64(before[4*(py*120+px)+3]) * weight[dx+n] * weight[dy+n] / sum / sum
						}
					}
				}
				worst = max(worst, math.Abs(want-float64(s.pix[4*(y*120+x)+3])))
			}
		}
		limit := 1.5
		if sigma >= 2 {
			limit = 8 // 3 % on noise, which is as bad as it gets
		}
		if worst > limit {
			t.Errorf("a blur of %v px is up to %.1f off", sigma, worst)
		}
	}
}

// All the cover there was is there afterwards, spread out; nothing lies beyond the reach.
func TestBlursKeepTheSum(t *testing.T) {
	for _, sigma := range []float64{0.7, 2, 4.5, 8, 13} {
		s := sprinkled(160, 120)
		total := func() (n float64) {
			for i := 3; i < len(s.pix); i += 4 {
				n += float64(s.pix[i])
			}
			return
		}
		was := total()
		(&blurrer{}).blur(s, sigma)
		if now := total(); math.Abs(now-was) > was*0.004 {
			t.Errorf("a blur of %v px: %v of %v is left", sigma, now, was)
		}
		for y := s.box.Min.Y; y < s.box.Max.Y; y++ {
			for x := s.box.Min.X; x < s.box.Max.X; x++ {
				if !image.Pt(x, y).In(s.dirty) && load(s.row(y, x, x+1), 0) != 0 {
					t.Fatalf("a blur of %v px reaches %d, %d, beyond %v", sigma, x, y, s.dirty)
				}
			}
		}
	}
}

func BenchmarkBlur(b *testing.B) {
	s := sprinkled(1920, 1080)
	pix, dirty := append([]byte(nil), s.pix...), s.dirty
	b.SetBytes(int64(dirty.Dx() * dirty.Dy()))
	b12 := &blurrer{}
	for b.Loop() {
		copy(s.pix, pix)
		s.dirty = dirty
		b12.blur(s, 12)
	}
}
