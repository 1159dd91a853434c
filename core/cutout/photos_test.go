package cutout

import (
	"image"
	"image/color"
	"image/draw"
	_ "image/jpeg"
	"math"
	"math/rand/v2"
	"os"
	"path/filepath"
	"slices"
	"testing"

	"capstan/core/doc"
)

// photographs are those of the Debian package mate-backgrounds, at most 700 px wide.
func photographs(t *testing.T) (list []*image.RGBA, names []string) {
	files, _ := filepath.Glob("/usr/share/backgrounds/mate/nature/*.jpg")
	if len(files) < 10 {
		t.Fatal("the photographs are missing; run scripts/deps.sh test")
	}
	for _, name := range files {
		f, err := os.Open(name)
		if err != nil {
			t.Fatal(err)
		}
		img, _, err := image.Decode(f)
		f.Close()
		if err != nil {
			t.Fatal(err)
		}
		m := image.NewRGBA(image.Rect(0, 0, img.Bounds().Dx(), img.Bounds().Dy()))
		draw.Draw(m, m.Rect, img, img.Bounds().Min, draw.Src)
		for m.Rect.Dx() > 700 {
			m = halved(m)
		}
		list, names = append(list, m), append(names, filepath.Base(name))
	}
	return
}

// figures are subjects by how much they cover of a pixel, in shares of the height; half of them touch the border, and two of six are skylines.
var figures = []struct {
	name  string
	cover func(x, y, wide, px float64, r [8]float64) float64
}{
	{"a balloon", func(x, y, wide, px float64, r [8]float64) float64 {
		return edge(0.2+0.08*r[0]-math.Hypot(x-wide*(0.35+0.3*r[1]), (y-0.45)/1.15), px)
	}},
	{"a boat", func(x, y, wide, px float64, r [8]float64) float64 {
		x -= wide * (0.4 + 0.2*r[1])
		hull := min(edge(0.3-math.Abs(x)-0.6*(y-0.62), px), edge(y-0.62, px), edge(0.74-y, px))
		sail := min(edge(y-0.2, px), edge(0.6-y, px), edge(x+0.02, px), edge((y-0.2)*0.6-x, px))
		return max(hull, sail, min(edge(0.012-math.Abs(x+0.03), px), edge(y-0.15, px), edge(0.63-y, px)))
	}},
	{"a bust", func(x, y, wide, px float64, r [8]float64) float64 {
		x -= wide * (0.35 + 0.3*r[1])
		return max(edge(0.17-math.Hypot(x, (y-0.4)/1.2), px), edge(0.34-math.Hypot(x, (y-1.02)*0.9), px), min(edge(0.07-math.Abs(x), px), edge(y-0.5, px)))
	}},
	{"a skyline", func(x, y, wide, px float64, r [8]float64) float64 {
		k := int(x / (0.09 + 0.05*r[0]))
		return edge(y-(0.5+0.2*math.Mod(math.Abs(math.Sin(float64(k)*12.9898+r[1]))*43758.5453, 1)), px)
	}},
	{"hills", func(x, y, wide, px float64, r [8]float64) float64 {
		return edge(y-(0.55+0.08*math.Sin(4*x+6*r[0])+0.04*math.Sin(11*x+9*r[1])), px)
	}},
	{"a kite", func(x, y, wide, px float64, r [8]float64) float64 {
		x, y = x-wide*(0.3+0.4*r[1]), y-0.42
		x, y = x*math.Cos(0.4)-y*math.Sin(0.4), x*math.Sin(0.4)+y*math.Cos(0.4)
		lean := 0.9
		if y > 0 {
			lean = 0.55
		}
		return edge((0.22-math.Abs(y)*lean-math.Abs(x)*1.1)*0.8, px)
	}},
}

// edge is the cover of what is so far inside, in shares of the height that px of a pixel is.
func edge(inside, px float64) float64 { return min(1, max(0, inside/px+0.5)) }

// over lays a figure over a photograph: shaded, striped, with the grain of a camera.
func over(photo *image.RGBA, k int, r *rand.Rand) composite {
	w, h := photo.Rect.Dx(), photo.Rect.Dy()
	c := composite{name: figures[k].name, img: image.NewRGBA(photo.Rect), cover: make([]float64, w*h)}
	var rs [8]float64
	for i := range rs {
		rs[i] = r.Float64()
	}
	var tones [3][3]float64
	base := [3]float64{40 + 190*r.Float64(), 40 + 190*r.Float64(), 40 + 190*r.Float64()}
	for i := range tones {
		for j := range 3 {
			tones[i][j] = min(250, max(5, base[j]+(r.Float64()-0.5)*110))
		}
	}
	px := 1 / float64(h)
	for y := range h {
		for x := range w {
			fx, fy := float64(x)*px, float64(y)*px
			a := figures[k].cover(fx, fy, float64(w)*px, px, rs)
			c.cover[y*w+x] = a
			tone := tones[(int(fx*14)+int(fy*9))%3]
			g := at(photo, y*w+x, w)
			var p [3]uint8
			for j := range p {
				f := tone[j]*(0.8+0.3*fx) + 6*math.Sin(fy*90)
				p[j] = uint8(min(255, max(0, a*(f+r.NormFloat64()*3)+(1-a)*g[j]+0.5)))
			}
			c.img.SetRGBA(x, y, color.RGBA{p[0], p[1], p[2], 255})
		}
	}
	return c
}

// Of sixty subjects over photographs, by nothing but a press: the median of what is found and what is there (intersection over union) is 0.85 at least.
func TestAForegroundIsProposed(t *testing.T) {
	photos, names := photographs(t)
	var all []float64
	for n := range 60 {
		r := rand.New(rand.NewPCG(uint64(n), 60))
		c := over(photos[n%len(photos)], n/10%len(figures), r)
		s := NewSource(c.img)
		ground, clear := s.Propose()
		mask, _, err := s.Mask(&doc.Cutout{Ground: ground})
		if err != nil {
			t.Fatal(err)
		}
		iou, _, _ := c.off(mask)
		all = append(all, iou)
		t.Logf("%-10s %-18s ground %-4s clear %.2f IoU %.3f", c.name, names[n%len(photos)], ground, clear, iou)
	}
	slices.Sort(all)
	t.Logf("median %.3f, lower quarter %.3f", all[30], all[15])
	if all[30] < 0.85 {
		t.Errorf("the median is %.3f", all[30])
	}
}
