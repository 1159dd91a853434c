package raster_test

import (
	"image"
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/text"
)

// A turned picture is the mean of what each pixel covers of it, and the border of a soft one that of its rule (docs/motion.md, section 4: cover
// blurred by three boxes, a x max(0, 2 b - 1)), as sums in float64 have them.
func TestPicturesAndSoftBordersAreExact(t *testing.T) {
	const w, h = 96, 80
	hash := "aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa"
	src := image.NewRGBA(image.Rect(0, 0, 64, 48))
	r := rand.New(rand.NewPCG(71, 72))
	a, b := 0.1+r.Float64()/8, 0.1+r.Float64()/8
	value := func(x, y float64) float64 { return 128 + 60*math.Sin(a*x)*math.Cos(b*y) + 50*math.Sin(b*(x+y)) }
	for i := range src.Pix {
		src.Pix[i] = uint8(value(float64(i/4%64)+0.5, float64(i/4/64)+0.5) + 0.5)
		if i%4 == 3 {
			src.Pix[i] = 255
		}
	}
	for name, c := range map[string]struct {
		place             doc.Place
		feather           float64
		mean, worst, edge float64
	}{
		"turned":           {doc.Place{X: 47.3, Y: 40.6, W: 61, H: 45, Turn: 27}, 0, 0.6, 3, 12},
		"larger":           {doc.Place{X: 47.3, Y: 40.6, W: 140, H: 105, Turn: -12}, 0, 0.6, 3, 12},
		"with soft border": {doc.Place{X: 47.3, Y: 40.6, W: 70.8, H: 55.4}, 14, 0.6, 4, 4},
	} {
		p := doc.NewProject("p", "p", w, h, "s")
		p.Media = map[string]*doc.Media{hash: {Name: "n", Width: 64, Height: 48}}
		p.Film.Scenes[0].Background = doc.Fill{Kind: doc.Solid, Colour: "#000000"}
		p.Film.Scenes[0].Layers = []*doc.Layer{{ID: "a", Thread: "a", Kind: doc.Picture, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Picture: &doc.PictureUse{Media: hash}, Place: c.place, Feather: c.feather}}
		f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
		if err != nil {
			t.Fatal(err)
		}
		img := image.NewRGBA(image.Rect(0, 0, w, h))
		pictures := func(string, int) (*image.RGBA, error) { return src, nil }
		if err := raster.NewPainter(f, pictures).Paint(img, f.Player().At(motion.Millis(0), frame.View{Scale: 1})); err != nil {
			t.Fatal(err)
		}
		back, _ := geom.Translate(geom.Point{X: c.place.X, Y: c.place.Y}).Mul(geom.Rotate(c.place.Turn)).Inverse()
		soft := softened(w, h, c.place, c.feather)
		sum, n := 0.0, 0.0
		for y := range h {
			for x := range w {
				const over = 8
				light, cover := 0.0, 0.0
				for k := range over * over {
					q := back.Apply(geom.Point{X: float64(x) + (float64(k%over)+0.5)/over, Y: float64(y) + (float64(k/over)+0.5)/over})
					u, v := q.X/c.place.W+0.5, q.Y/c.place.H+0.5
					if u < 0 || u > 1 || v < 0 || v > 1 {
						continue
					}
					cover++
					light += value(math.Min(63.5, math.Max(0.5, u*64)), math.Min(47.5, math.Max(0.5, v*48)))
				}
				d := math.Abs(light/(over*over)*soft(x, y) - float64(img.RGBAAt(x, y).R))
				limit := c.worst
				if cover > 0 && cover < over*over {
					limit = c.edge
				}
				if d > limit {
					t.Errorf("%s: at %d, %d it is %d, off by %.1f", name, x, y, img.RGBAAt(x, y).R, d)
				}
				if cover > 0 {
					sum += d
					n++
				}
			}
		}
		if sum/n > c.mean {
			t.Errorf("%s: off by %.2f on average", name, sum/n)
		}
	}
}

// softened returns the share that a soft border leaves of each pixel of an upright box.
func softened(w, h int, p doc.Place, feather float64) func(x, y int) float64 {
	if feather == 0 {
		return func(int, int) float64 { return 1 }
	}
	d := int(math.Floor(feather/2.8*3*math.Sqrt(2*math.Pi)/4 + 0.5)) // Filter Effects 1, section 9.6
	line := func(n int, from, to float64) []float64 {
		v := make([]float64, n)
		for i := range v {
			v[i] = max(0, min(float64(i+1), to)-max(float64(i), from))
		}
		box := func(l, r int) {
			was := append([]float64(nil), v...)
			for i := range v {
				v[i] = 0
				for j := max(0, i-l); j <= min(n-1, i+r); j++ {
					v[i] += was[j] / float64(l+r+1)
				}
			}
		}
		if d%2 == 1 {
			box(d/2, d/2)
			box(d/2, d/2)
		} else {
			box(d/2, d/2-1)
			box(d/2-1, d/2)
		}
		box(d/2, d/2)
		return v
	}
	across, down := line(w, p.X-p.W/2, p.X+p.W/2), line(h, p.Y-p.H/2, p.Y+p.H/2)
	return func(x, y int) float64 { return max(0, 2*across[x]*down[y]-1) }
}
