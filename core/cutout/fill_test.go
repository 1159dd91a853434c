package cutout

import (
	"image"
	"image/color"
	"math"
	"math/rand/v2"
	"testing"
)

// A hole between two grounds of their own textures goes on as they do: the line between them too, as rough within its rim as around it, and joined to it.
func TestHolesAreContinuedWithTheirTexture(t *testing.T) {
	const w, h, cx, cy, far = 400, 300, 200, 155, 55
	img, mask := image.NewRGBA(image.Rect(0, 0, w, h)), image.NewGray(image.Rect(0, 0, w, h))
	known := image.NewRGBA(img.Rect)
	r := rand.New(rand.NewPCG(1, 2))
	for y := range h {
		for x := range w {
			v := 25*math.Sin(float64(x)/5)*math.Cos(float64(y)/4) + r.NormFloat64()*9
			c := color.RGBA{uint8(120 + v), uint8(150 + v/2), uint8(90 + 60*float64(y)/h), 255}
			if y > 165 {
				c = color.RGBA{uint8(60 + v/3), uint8(90 + v/3), 150, 255}
			}
			known.SetRGBA(x, y, c)
			if math.Hypot(float64(x-cx), float64(y-cy)) < far {
				c, mask.Pix[y*w+x] = color.RGBA{220, 60, 40, 255}, 255
			}
			img.SetRGBA(x, y, c)
		}
	}
	out, err := Ground(t.Context(), img, mask)
	if err != nil {
		t.Fatal(err)
	}
	// Roughness is the variance of what pixels differ from those beside them.
	rough := func(from, to float64) float64 {
		sum, n := 0.0, 0.0
		for y := range h {
			for x := 1; x < w; x++ {
				if d := math.Hypot(float64(x-cx), float64(y-cy)); d >= from && d < to {
					v := float64(out.RGBAAt(x, y).R) - float64(out.RGBAAt(x-1, y).R)
					sum, n = sum+v*v, n+1
				}
			}
		}
		return sum / n
	}
	if k := rough(far-16, far-2) / rough(far+6, far+24); k < 0.5 || k > 2 {
		t.Errorf("its rim is %.2f times as rough as what is around it", k)
	}
	wrong, edge := 0, 0.0
	for y := range h {
		for x := range w {
			d := math.Hypot(float64(x-cx), float64(y-cy))
			a, b := out.RGBAAt(x, y), known.RGBAAt(x, y)
			if d > far+rim+2 && a != b {
				t.Fatalf("at %d %d, beside the hole, %v has become %v", x, y, b, a)
			}
			if d < far && (a.B > a.G+15) != (b.B > b.G+15) { // which of the grounds it is
				wrong++
			}
			if math.Abs(d-far-rim) < 1 {
				edge = max(edge, math.Abs(float64(a.R)-float64(b.R)))
			}
		}
	}
	if n := 9503; wrong > n/12 {
		t.Errorf("%d of %d px are of the other ground", wrong, n)
	}
	if edge > 75 {
		t.Errorf("at its border it jumps by %.0f", edge)
	}
	// Odd ones: nothing is cut, all is, and what is too small for any patch.
	for name, m := range map[string]*image.Gray{"nothing": image.NewGray(img.Rect), "all": full(img.Rect.Size())} {
		if out, err := Ground(t.Context(), img, m); err != nil || name == "nothing" && out.RGBAAt(200, 155) != img.RGBAAt(200, 155) || name == "all" && out.RGBAAt(200, 155).A != 0 {
			t.Errorf("%s is cut: %v", name, err)
		}
	}
	for _, size := range []image.Point{{1, 1}, {5, 3}, {9, 9}, {300, 2}} {
		m := image.NewGray(image.Rectangle{Max: size})
		m.Pix[len(m.Pix)/2] = 255
		if _, err := Ground(t.Context(), image.NewRGBA(m.Rect), m); err != nil {
			t.Errorf("%v: %v", size, err)
		}
	}
}
