package cutout

import (
	"image"
	"image/color"
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/doc"
)

// half is a picture that is red on the left and blue on the right.
func half(w, h int) *image.RGBA {
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			c := color.RGBA{200, 60, 50, 255}
			if x >= w/2 {
				c = color.RGBA{40, 90, 190, 255}
			}
			img.SetRGBA(x, y, c)
		}
	}
	return img
}

func line(how string, width float64, points ...[2]float64) doc.CutStroke {
	return doc.CutStroke{How: how, Width: width, Points: points}
}

// By hand, a brush covers what lies within half its width, fading over its soft share; a box and an outline cover what lies in them. An edge is moved by as many
// pixels as said, and fades over as many; turned round, all is the other way.
func TestMasksAreMadeAsSaid(t *testing.T) {
	s := NewSource(half(100, 80))
	mask := func(c doc.Cutout) func(x, y int) int {
		m, _, err := s.Mask(s.Filled(&c))
		if err != nil {
			t.Fatal(err)
		}
		return func(x, y int) int { return int(m.GrayAt(x, y).Y) }
	}
	rub := line(doc.CutRub, 20, [2]float64{20, 40}, [2]float64{80, 40})
	box := doc.CutStroke{How: doc.CutRub, Form: "box", Points: [][2]float64{{60, 50}, {30, 20}}}
	area := doc.CutStroke{How: doc.CutRub, Form: "area", Points: [][2]float64{{10, 10}, {60, 10}, {10, 60}}}
	soft := rub
	soft.Soft = 1
	for _, c := range []struct {
		name string
		cut  doc.Cutout
		at   [][3]int // x, y and what is there
	}{
		{"a brush", doc.Cutout{Strokes: []doc.CutStroke{rub}}, [][3]int{{50, 40, 0}, {50, 31, 0}, {50, 29, 255}, {11, 40, 0}, {8, 40, 255}, {89, 40, 0}, {91, 40, 255}}},
		{"a soft brush", doc.Cutout{Strokes: []doc.CutStroke{soft}}, [][3]int{{50, 40, 0}, {50, 30, 115}, {50, 20, 255}, {50, 26, 217}}},
		{"a box", doc.Cutout{Strokes: []doc.CutStroke{box}}, [][3]int{{30, 20, 0}, {59, 49, 0}, {29, 30, 255}, {60, 30, 255}}},
		{"an outline", doc.Cutout{Strokes: []doc.CutStroke{area}}, [][3]int{{12, 12, 0}, {30, 30, 0}, {40, 40, 255}}},
		{"painted back", doc.Cutout{Strokes: []doc.CutStroke{box, line(doc.CutPaint, 8, [2]float64{40, 40})}}, [][3]int{{40, 40, 255}, {50, 40, 0}}},
		{"spread", doc.Cutout{Strokes: []doc.CutStroke{box}, Spread: 5}, [][3]int{{34, 30, 255}, {36, 30, 0}}},
		{"choked", doc.Cutout{Strokes: []doc.CutStroke{box}, Spread: -5}, [][3]int{{25, 30, 0}, {24, 30, 255}}},
		{"choked by half a pixel", doc.Cutout{Strokes: []doc.CutStroke{box}, Spread: -0.5}, [][3]int{{29, 30, 128}, {28, 30, 255}}},
		{"softened", doc.Cutout{Strokes: []doc.CutStroke{box}, Soften: 12}, [][3]int{{30, 30, 109}, {22, 30, 255}, {37, 30, 0}}},
		{"turned round", doc.Cutout{Strokes: []doc.CutStroke{box}, Inverted: true}, [][3]int{{30, 20, 255}, {29, 30, 0}}},
		{"a key", doc.Cutout{Keys: []doc.CutKey{{At: [2]float64{10, 10}}}}, [][3]int{{10, 10, 0}, {70, 10, 255}}},
	} {
		at := mask(c.cut)
		for _, p := range c.at {
			if got := at(p[0], p[1]); math.Abs(float64(got-p[2])) > 10 {
				t.Errorf("%s: at %d %d there is %d, not %d", c.name, p[0], p[1], got, p[2])
			}
		}
	}
	for key, c := range map[string]doc.Cutout{
		"cutout.all": {Strokes: []doc.CutStroke{line(doc.CutPaint, 4, [2]float64{3, 3})}}, "cutout.nothing": {Strokes: []doc.CutStroke{{How: doc.CutRub, Form: "box", Points: [][2]float64{{-9, -9}, {200, 200}}}}},
		"cutout.kept-only": {Strokes: []doc.CutStroke{{How: doc.CutKeep, Form: "box", Points: [][2]float64{{0, 0}, {100, 80}}}}},
		"cutout.crossed":   {Strokes: []doc.CutStroke{line(doc.CutKeep, 9, [2]float64{10, 9}, [2]float64{40, 9}), line(doc.CutDrop, 9, [2]float64{12, 9}, [2]float64{38, 9}), line(doc.CutDrop, 9, [2]float64{80, 9})}},
	} {
		if _, told, err := s.Mask(&c); err != nil || told == nil || told.Key != key {
			t.Errorf("of %s it says %v, %v", key, told, err)
		}
	}
	many := doc.Cutout{}
	for range doc.MaxCutStrokes {
		many.Strokes = append(many.Strokes, line(doc.CutRub, 4000, make([][2]float64, 50)...))
	}
	if _, _, err := NewSource(half(2000, 1500)).Mask(&many); err == nil {
		t.Error("strokes over more than can be worked out are begun")
	}
}

// Whatever strokes say, in and beside a picture of any size, a mask of its size comes of it.
func TestAnyStrokesMakeAMask(t *testing.T) {
	r := rand.New(rand.NewPCG(9, 31))
	for range 150 {
		w, h := 1+r.IntN(90), 1+r.IntN(70)
		img := image.NewRGBA(image.Rect(0, 0, w, h))
		for i := range img.Pix {
			img.Pix[i] = uint8(r.IntN(3) * 100)
		}
		c := doc.Cutout{Ground: []string{"", "", "t", "ltrb", "lb"}[r.IntN(5)], Spread: float64(r.IntN(9) - 4), Soften: float64(r.IntN(3)) * 2.5, Inverted: r.IntN(2) == 0}
		for range r.IntN(5) {
			s := doc.CutStroke{How: doc.CutHows[r.IntN(len(doc.CutHows))], Form: []string{"", "area", "box"}[r.IntN(3)], Width: r.Float64() * 40, Soft: r.Float64()}
			for range 2 + r.IntN(4)*len(s.Form)%7 {
				s.Points = append(s.Points, [2]float64{r.Float64()*200 - 60, r.Float64()*200 - 60})
			}
			s.Points = s.Points[:2]
			c.Strokes = append(c.Strokes, s)
		}
		s := NewSource(img)
		m, _, err := s.Mask(s.Filled(&c))
		if err != nil || m.Rect.Size() != img.Rect.Size() {
			t.Fatalf("%v %+v", err, c)
		}
		if lifted := Lift(img, m); lifted.Rect.Size() != m.Rect.Size() {
			t.Fatal("a cut-out is of another size")
		}
		s.Propose()
	}
}

// Half covered pixels of a cut-out have the colour of what is kept, not what shone in from the ground.
func TestTheGroundIsTakenOutOfEdges(t *testing.T) {
	for _, c := range composites(240, 180, true)[:3] {
		mask := image.NewGray(c.img.Rect)
		for i, v := range c.cover {
			mask.Pix[i] = uint8(math.Round(255 * v))
		}
		out := Lift(c.img, mask)
		green, n := 0.0, 0.0 // the ground is green, the subject is not
		for i, v := range mask.Pix {
			if v > 60 && v < 200 {
				p := out.Pix[4*i:]
				green, n = green+math.Max(0, float64(p[1])-float64(p[0]))/float64(p[3]), n+1
			}
		}
		if green/n > 0.03 {
			t.Errorf("%s: %.3f of its edge is still green", c.name, green/n)
		}
	}
}
