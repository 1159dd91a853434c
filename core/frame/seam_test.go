package frame_test

import (
	"image"
	"image/color"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/text"
)

// What adjoins shows no line between: the pages of a push, the copies of a scroll without a gap, at whatever place between pixels, over dark and
// over light. A gap of half a pixel shows.
func TestNoSeamsBetweenWhatAdjoins(t *testing.T) {
	kite := color.RGBA{0xd8, 0x57, 0x3a, 255}
	solid := func(code string) doc.Fill { return doc.Fill{Kind: doc.Solid, Colour: code} }
	scroll := func(gap float64, more ...func(l *doc.Layer)) func(p *doc.Project) {
		return func(p *doc.Project) {
			l := &doc.Layer{ID: "a", Thread: "a", Name: "a", Kind: doc.Rectangle, Opacity: 1, Fill: solid("#d8573a"), Place: doc.Place{X: 37, Y: 40, W: 47, H: 500}}
			l.Moves = []*doc.Move{{ID: "m", Kind: doc.Loop, Effect: doc.Scroll, Start: doc.Start{When: doc.AtTime}, Lasts: doc.WholeScene, Scroll: &doc.ScrollParams{Direction: 180, Speed: 31, Gap: gap}}}
			for _, f := range more {
				f(l)
			}
			p.Film.Scenes[0].Layers, p.Film.Scenes[0].Stay = []*doc.Layer{l}, 2000
		}
	}
	// Of one colour, but no plain outlines.
	gradient := func(l *doc.Layer) {
		l.Fill = doc.Fill{Kind: doc.Linear, Gradient: &doc.Gradient{To: [2]float64{1, 0}, Stops: []doc.Stop{{Colour: "#d8573a"}, {At: 1, Colour: "#d8573a"}}}}
	}
	group := func(l *doc.Layer) {
		c := *l
		c.ID, c.Thread, c.Moves, c.Place.X, c.Place.Y = "c", "c", nil, 0, 0
		l.Kind, l.Fill, l.Children, l.Place.W, l.Place.H = doc.Group, doc.Fill{Kind: doc.NoFill}, []*doc.Layer{&c}, 0, 0
	}
	turned := func(l *doc.Layer) { l.Place.Turn, l.Place.H = 23, 900 }
	push := func(direction float64) func(p *doc.Project) {
		return func(p *doc.Project) {
			next := doc.NewScene("next", "Next")
			next.Transition = doc.Transition{Kind: doc.Push, Duration: 1900, Direction: direction, Easing: "linear"}
			next.Background, p.Film.Scenes[0].Background, p.Film.Scenes[0].Stay = solid("#d8573a"), solid("#d8573a"), 100
			p.Film.Scenes = append(p.Film.Scenes, next)
		}
	}
	for name, c := range map[string]struct {
		change func(p *doc.Project)
		seams  bool
	}{
		"scroll": {scroll(0), false}, "scroll with a gap of half a pixel": {scroll(0.5), true}, "scroll whose copies overlap": {scroll(-5), false},
		"scroll of a gradient": {scroll(0, gradient), false}, "of a group": {scroll(0, group), false}, "turned": {scroll(0, turned, gradient), false},
		"of a group with a gap": {scroll(0.5, group), true},
		"push to the right":     {push(0), false}, "push down": {push(90), false}, "push to the left": {push(180), false}, "push up": {push(270), false},
	} {
		for _, ground := range []color.RGBA{{0, 0, 0, 255}, {255, 255, 255, 255}} {
			p := doc.NewProject("p", "Seam", 97, 83, "s")
			p.Film.Scenes[0].Background = doc.Fill{Kind: doc.NoFill}
			c.change(p)
			f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
			if err != nil {
				t.Fatal(err)
			}
			found := 0
			for ms := int64(130); ms < 1990; ms += 61 {
				img := image.NewRGBA(image.Rect(0, 0, 97, 83))
				for i := range img.Pix {
					img.Pix[i] = []uint8{ground.R, ground.G, ground.B, 255}[i%4]
				}
				if err := raster.NewPainter(f, nil).Paint(img, f.Player().At(motion.Millis(ms), frame.View{Scale: 1})); err != nil {
					t.Fatal(err)
				}
				for y := range 83 {
					for x := range 97 {
						// Sums of cover are rounded to a step of 255.
						if c := img.RGBAAt(x, y); max(far(c.R, kite.R), far(c.G, kite.G), far(c.B, kite.B)) > 2 {
							found++
						}
					}
				}
			}
			if (found > 0) != c.seams {
				t.Errorf("%s over %v: %d pixels are not covered", name, ground, found)
			}
		}
	}
}

func far(a, b uint8) int { return max(int(a)-int(b), int(b)-int(a)) }
