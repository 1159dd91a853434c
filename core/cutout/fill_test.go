package cutout

import (
	"image"
	"image/color"
	"image/png"
	"math"
	"math/rand/v2"
	"os"
	"testing"
	"time"
)

func TestZZ(t *testing.T) {
	const w, h = 800, 600
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	mask := image.NewGray(img.Rect)
	r := rand.New(rand.NewPCG(1, 2))
	for y := range h {
		for x := range w {
			v := 30*math.Sin(float64(x)/9)*math.Cos(float64(y)/7) + r.NormFloat64()*9
			c := color.RGBA{uint8(120 + v), uint8(150 + v/2), uint8(90 + 60*float64(y)/h), 255}
			if y > 330 {
				c = color.RGBA{uint8(60 + v/3), uint8(90 + v/3), uint8(150 + 10*math.Sin(float64(y)/5)), 255}
			}
			if math.Hypot(float64(x)-400, float64(y)-310) < 110 {
				c = color.RGBA{220, 60, 40, 255}
				mask.Pix[y*w+x] = 255
			}
			img.SetRGBA(x, y, c)
		}
	}
	at := time.Now()
	out, _ := Ground(t.Context(), img, mask)
	t.Log(time.Since(at))
	f, _ := os.Create("/tmp/zz/fill.png")
	_ = png.Encode(f, out)
	f.Close()
	f, _ = os.Open("/tmp/zz/lift.png")
	f.Close()
}
