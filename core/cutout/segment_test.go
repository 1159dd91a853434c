package cutout

import (
	"image"
	"image/color"
	"math"
	"math/rand/v2"
	"testing"
)

// subject is a thing over a ground, and where it is.
func subject(kind string, r *rand.Rand) (img *image.RGBA, is []bool) {
	const w, h = 200, 150
	img, is = image.NewRGBA(image.Rect(0, 0, w, h)), make([]bool, w*h)
	noise := func(v float64) uint8 { return uint8(min(255, max(0, v+r.NormFloat64()*6))) }
	for y := range h {
		for x := range w {
			fx, fy := float64(x), float64(y)
			var inside bool
			switch kind {
			case "a disc":
				inside = math.Hypot(fx-100, fy-75) < 45
			case "a ring":
				d := math.Hypot(fx-100, fy-75)
				inside = d < 50 && d > 24
			case "a skyline":
				inside = fy > 70+20*math.Sin(fx/9)+float64(x/25%3)*14
			case "a mast":
				inside = math.Abs(fx-100) < 3 && fy > 20 || math.Hypot(fx-100, fy-110) < 25
			}
			is[y*w+x] = inside
			c := color.RGBA{noise(90 + 0.5*fy), noise(150 + 0.4*fy), noise(200), 255}
			if inside {
				c = color.RGBA{noise(190 - 0.2*fx), noise(80 + 0.3*fy), noise(50), 255}
				if (x/12+y/12)%3 == 0 {
					c = color.RGBA{noise(240), noise(220), noise(190), 255}
				}
			}
			img.SetRGBA(x, y, c)
		}
	}
	return img, is
}

// By three strokes of each side, what is kept is what there was, for nineteen of twenty pixels of either (intersection over union).
func TestStrokesPartAPicture(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 1))
	for _, kind := range []string{"a disc", "a ring", "a skyline", "a mast"} {
		img, is := subject(kind, r)
		w, h := img.Rect.Dx(), img.Rect.Dy()
		sides := make([]Side, w*h)
		said := 0
		for said < 6 { // strokes of 30 px, as a hand would rub them
			x0, y0 := 15+r.IntN(w-60), 5+r.IntN(h-10)
			side := is[y0*w+x0]
			if side != (said%2 == 0) {
				continue
			}
			for x := x0; x < x0+30 && is[y0*w+x] == side; x++ {
				if sides[y0*w+x] = Drop; side {
					sides[y0*w+x] = Keep
				}
			}
			said++
		}
		before := append([]Side(nil), sides...)
		if !Segment(img, sides, 6) {
			t.Errorf("%s has no two sides", kind)
		}
		both, any := 0, 0
		for i, s := range sides {
			kept := s == Keep || s == MaybeKeep
			if kept && is[i] {
				both++
			}
			if kept || is[i] {
				any++
			}
			if before[i] >= Drop && s != before[i] {
				t.Fatalf("%s: what was said has been changed", kind)
			}
		}
		if iou := float64(both) / float64(any); iou < 0.95 {
			t.Errorf("%s: IoU %.3f", kind, iou)
		}
	}
}

// All of one side, and pictures of one colour or of one pixel, are told, or end as they began.
func TestOddPicturesAreParted(t *testing.T) {
	flat := image.NewRGBA(image.Rect(0, 0, 20, 10))
	all := make([]Side, 200)
	for i := range all {
		all[i] = Keep
	}
	if Segment(flat, all, 3) {
		t.Error("all that is kept has two sides")
	}
	one := make([]Side, 200)
	one[0], one[199] = Keep, Drop
	if !Segment(flat, one, 3) || one[0] != Keep || one[199] != Drop {
		t.Error("what was said of a flat picture is not kept")
	}
	if Segment(image.NewRGBA(image.Rect(0, 0, 1, 1)), []Side{Drop}, 3) || Segment(image.NewRGBA(image.Rectangle{}), nil, 3) {
		t.Error("one pixel and none have two sides")
	}
}
