package cutout

import (
	"image"
	"image/color"
	"math"
	"testing"

	"capstan/core/paint"
)

// A soft disc of known cover over a plain ground, with a hole that shows it: keyed everywhere the hole is clear, from a spot it stays; its cover is right to
// two hundredths on the mean.
func TestColoursAreKeyed(t *testing.T) {
	const w, h = 160, 120
	ground, thing := paint.Colour{R: 0.2, G: 0.7, B: 0.3, A: 1}, paint.Colour{R: 0.85, G: 0.3, B: 0.2, A: 1}
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	known := make([]float64, w*h)
	for y := range h {
		for x := range w {
			d := math.Hypot(float64(x)-80, float64(y)-60)
			a := min(1, max(0, (45-d)/3)) * min(1, max(0, (d-12)/3))
			known[y*w+x] = a
			mix := func(f, b float64) uint8 { return uint8(math.Round(255 * (a*f + (1-a)*b))) }
			img.SetRGBA(x, y, color.RGBA{mix(thing.R, ground.R), mix(thing.G, ground.G), mix(thing.B, ground.B), 255})
		}
	}
	key := Key{Colours: []paint.Colour{ground}, Tolerance: KeyTolerance, Softness: KeySoftness}
	all := key.Cover(img)
	key.Spots = []image.Point{{X: 2, Y: 2}, {X: -5, Y: 900}}
	outer := key.Cover(img)
	sum := 0.0
	for i, a := range known {
		sum += math.Abs(a - float64(all.Pix[i])/255)
	}
	if mean := sum / float64(len(known)); mean > 0.02 {
		t.Errorf("the cover is %.4f off on the mean", mean)
	}
	middle := 60*w + 80
	if all.Pix[middle] != 0 || outer.Pix[middle] != 255 || outer.Pix[0] != 0 {
		t.Errorf("the hole has %d, from outside %d; the ground %d", all.Pix[middle], outer.Pix[middle], outer.Pix[0])
	}
}
