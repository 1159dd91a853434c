package cutout

import (
	"image"
	"math/rand/v2"
	"testing"

	"capstan/core/doc"
)

// sized is a composite of hair, the slowest kind, with the grain of a camera.
func sized(w, h int) composite {
	for _, c := range composites(w/4, h/4, false) {
		if c.name == "hair, noise" {
			out := composite{img: image.NewRGBA(image.Rect(0, 0, w, h)), cover: make([]float64, w*h)}
			r := rand.New(rand.NewPCG(4, 4))
			for y := range h {
				for x := range w {
					i := y/4*(w/4) + x/4
					out.cover[y*w+x] = c.cover[i]
					p := out.img.Pix[4*(y*w+x):]
					for k := range 3 {
						p[k] = uint8(min(255, max(0, int(c.img.Pix[4*i+k])+r.IntN(9)-4)))
					}
					p[3] = 255
				}
			}
			return out
		}
	}
	return composite{}
}

// BenchmarkStroke is what a stroke takes on 3 megapixels: the limit is a second.
func BenchmarkStroke(b *testing.B) {
	c := sized(2000, 1500)
	cut := &doc.Cutout{Strokes: c.rubbed(6, rand.New(rand.NewPCG(6, 6)))}
	s := NewSource(c.img)
	for b.Loop() {
		s.last = nil // else what came of it last is taken
		_, _, _ = s.Mask(cut)
	}
}

// BenchmarkStrokeMore is what a small stroke after others takes on 3 megapixels: the limit is 0.3 seconds.
func BenchmarkStrokeMore(b *testing.B) {
	c := sized(2000, 1500)
	cut := &doc.Cutout{Strokes: c.rubbed(6, rand.New(rand.NewPCG(6, 6)))}
	s := NewSource(c.img)
	_, _, _ = s.Mask(cut)
	last, mask, rest := s.last, s.mask, s.rest
	more := *cut
	more.Strokes = append(more.Strokes, doc.CutStroke{How: doc.CutDrop, Width: 10, Points: [][2]float64{{100, 100}, {180, 120}}})
	for b.Loop() {
		s.last, s.mask, s.rest = last, mask, rest
		_, _, _ = s.Mask(&more)
	}
}

// BenchmarkPropose is what a first proposal takes on 12 megapixels, from the pixels on: the limit is three seconds.
func BenchmarkPropose(b *testing.B) {
	c := sized(4000, 3000)
	for b.Loop() {
		s := NewSource(c.img)
		ground, _ := s.Propose()
		_, _, _ = s.Mask(&doc.Cutout{Ground: ground})
	}
}

func BenchmarkLift(b *testing.B) {
	c := sized(2000, 1500)
	s := NewSource(c.img)
	mask, _, _ := s.Mask(&doc.Cutout{Ground: "ltrb"})
	for b.Loop() {
		Lift(c.img, mask)
	}
}
