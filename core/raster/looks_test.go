package raster_test

import (
	"image"
	"image/color"
	"testing"

	"capstan/core/doc"
	"capstan/core/motion"
	"capstan/core/paint"
)

// turning is a film of two scenes of 1 s with one layer that morphs from a to b in 1 s, evenly.
func turning(a, b *doc.Layer) *doc.Project {
	p := doc.NewProject("p", "p", 100, 80, "s")
	t := doc.NewScene("t", "t")
	t.Transition = doc.Transition{Kind: doc.Morph, Duration: 1000, Easing: "linear"}
	p.Film.Scenes = append(p.Film.Scenes, t)
	for i, l := range []*doc.Layer{a, b} {
		l.ID, l.Thread = string(rune('a'+i)), "x"
		s := p.Film.Scenes[i]
		s.Stay, s.Background, s.Layers = 1000, doc.Fill{Kind: doc.Solid, Colour: "#ffffff"}, []*doc.Layer{l}
	}
	return p
}

func width(img *image.RGBA, y, x0, x1 int, is func(color.RGBA) bool) (n int) {
	for x := x0; x < x1; x++ {
		if is(img.RGBAAt(x, y)) {
			n++
		}
	}
	return
}

// Half way from 4 to 12 px a stroke is 8 px wide on all sides, though the shape grows four times as much one way as the other.
func TestStrokesKeepOneWidthInAMorph(t *testing.T) {
	a, b := shape(doc.Rectangle, "#e0a03a", 50, 40, 20, 20, 0, 1), shape(doc.Rectangle, "#e0a03a", 50, 40, 60, 30, 0, 1)
	ink := doc.Fill{Kind: doc.Solid, Colour: "#17403c"}
	a.Stroke, b.Stroke = &doc.Stroke{Fill: ink, Width: 4}, &doc.Stroke{Fill: ink, Width: 12}
	for side, want := range map[string]int{"": 8, doc.Inside: 8, doc.Outside: 8} {
		a.Stroke.Side, b.Stroke.Side = side, side
		img := paintAt(t, turning(a, b), 1500)
		dark := func(c color.RGBA) bool { return c.R < 40 }
		if n := width(img, 40, 0, 50, dark); n != want {
			t.Errorf("%s: on the left it is %d px wide, want %d", side, n, want)
		}
		down := 0
		for y := 0; y < 40; y++ {
			if dark(img.RGBAAt(50, y)) {
				down++
			}
		}
		// The upper edge lies at 27.5: one row on either side is covered by half.
		if down < want-1 || down > want {
			t.Errorf("%s: on top it is %d px wide, want %d", side, down, want)
		}
	}
	// One that only comes grows from nothing.
	a.Stroke, b.Stroke.Side = nil, ""
	if n := width(paintAt(t, turning(a, b), 1500), 40, 0, 50, func(c color.RGBA) bool { return c.R < 40 }); n != 6 {
		t.Errorf("a stroke that comes is %d px wide half way, want 6", n)
	}
}

// A colour becomes a gradient along its line: at each place half way is the OKLab mixture of both.
func TestAColourMorphsIntoAGradient(t *testing.T) {
	a, b := shape(doc.Rectangle, "#d8573a", 50, 40, 80, 40, 0, 1), shape(doc.Rectangle, "", 50, 40, 80, 40, 0, 1)
	b.Fill = doc.Fill{Kind: doc.Linear, Gradient: &doc.Gradient{From: [2]float64{0, 0}, To: [2]float64{1, 0}, Stops: []doc.Stop{{At: 0, Colour: "#17403c"}, {At: 1, Colour: "#f3dca6"}}}}
	img := paintAt(t, turning(a, b), 1500)
	from, _ := paint.Parse("#d8573a")
	for x, code := range map[int]string{10: "#17403c", 89: "#f3dca6"} {
		to, _ := paint.Parse(code)
		r, g, bl, _ := paint.Mix(from, to, 0.5).Bytes()
		got := img.RGBAAt(x, 40)
		for k, v := range [3][2]uint8{{got.R, r}, {got.G, g}, {got.B, bl}} {
			if d := int(v[0]) - int(v[1]); d > 3 || d < -3 {
				t.Errorf("at %d, channel %d: %v, want %v", x, k, v[0], v[1])
			}
		}
	}
}

// A shadow that only the second side has is half as strong half way; blur and feather are in between.
func TestEffectsMorph(t *testing.T) {
	a, b := shape(doc.Rectangle, "#d8573a", 30, 30, 30, 30, 0, 1), shape(doc.Rectangle, "#d8573a", 30, 30, 30, 30, 0, 1)
	b.Shadow = &doc.Shadow{X: 40, Y: 0, Colour: "#000000"}
	img := paintAt(t, turning(a, b), 1500)
	if got := img.RGBAAt(70, 30); got.R < 126 || got.R > 129 {
		t.Errorf("half a shadow is %v", got)
	}
	b.Shadow, b.Blur = nil, 6
	edge := func(ms int64) int { return int(paintAt(t, turning(a, b), ms).RGBAAt(12, 30).G) }
	if sharp, half, soft := edge(500), edge(1500), edge(2500); !(sharp == 255 && half < sharp-5 && soft < half-10) {
		t.Errorf("3 px off the edge it is %d, %d, %d", sharp, half, soft)
	}
}

// What an effect does grows with the group around the layer, and a shadow falls the same way however the layer is turned.
func TestEffectsGrowWithTheLayerAndShadowsDoNotTurn(t *testing.T) {
	l := shape(doc.Rectangle, "#d8573a", 50, 40, 20, 20, 135, 1)
	l.Shadow = &doc.Shadow{X: 0, Y: 30, Colour: "#000000"}
	img := page(t, "#ffffff", l)
	if below, above := img.RGBAAt(50, 70), img.RGBAAt(50, 10); below.R > 4 || above.R < 250 {
		t.Errorf("below it is %v, above %v", below, above)
	}
}

func paintAt(t *testing.T, p *doc.Project, ms int64) *image.RGBA {
	t.Helper()
	return paintFrame(t, p, motion.Millis(ms))
}
