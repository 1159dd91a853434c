package frame_test

import (
	"image"
	"image/color"
	"testing"

	"capstan/core/combine"
	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/geom"
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
			l.Moves = []*doc.Move{{ID: "m", Kind: doc.Loop, Effect: effect.Scroll, Start: doc.Start{When: doc.AtTime}, Lasts: doc.WholeScene, Params: effect.Params{"direction": 180.0, "speed": 31.0, "gap": gap}}}
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
			next.Transition = doc.Transition{Kind: effect.Push, Duration: 1900, Easing: "linear", Params: effect.Params{"direction": direction}}
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

// Layers that lie edge to edge show no line between either: the tiles of a grid, however turned and scaled, the parts that curves divide a shape
// into, while they stand and while they go together, in a morph too. What laps is painted as it lies, see-through colours twice.
func TestNoSeamsBetweenLayers(t *testing.T) {
	kite := doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}
	tile := func(id string, x, y, w, h float64) *doc.Layer {
		return &doc.Layer{ID: id, Thread: id, Name: id, Kind: doc.Rectangle, Opacity: 1, Fill: kite, Place: doc.Place{X: x, Y: y, W: w, H: h}}
	}
	grid := func(gap float64) (list []*doc.Layer) {
		for i := range 16 {
			list = append(list, tile("t"+string(rune('a'+i)), -150+float64(i%4)*(100+gap), -150+float64(i/4)*(100+gap), 100, 100))
		}
		return
	}
	divided := func(d ...string) (list []*doc.Layer) {
		var areas []combine.Area
		for _, d := range d {
			p, err := geom.ParseData(d)
			if err != nil {
				t.Fatal(err)
			}
			areas = append(areas, combine.Area{Path: p})
		}
		parts, err := combine.Regions(areas...)
		if err != nil || len(parts) < 2 {
			t.Fatal(err, len(parts))
		}
		for i, r := range parts {
			id := "d" + string(rune('a'+i))
			list = append(list, &doc.Layer{ID: id, Thread: id, Name: id, Kind: doc.PathKind, Opacity: 1, Fill: kite, Path: r.Path.Data()})
		}
		return
	}
	each := func(list []*doc.Layer, f func(i int, l *doc.Layer)) []*doc.Layer {
		for i, l := range list {
			f(i, l)
		}
		return list
	}
	hundred := "M-200 -200L200 -200L200 200L-200 200Z"
	for name, c := range map[string]struct {
		layers []*doc.Layer
		seams  bool
	}{
		"a grid": {grid(0), false}, "a grid with a gap": {grid(0.3), true},
		"turned by themselves": {each(grid(0), func(i int, l *doc.Layer) { l.Place.Turn = float64(i%4) * 90 }), false},
		"coming one by one": {each(grid(0), func(i int, l *doc.Layer) {
			l.Moves = []*doc.Move{{ID: "m" + l.ID, Kind: doc.Entrance, Effect: effect.Fade, Start: doc.Start{When: doc.AtTime}, Duration: 40 + int64(i), Easing: "linear"}}
		}), false},
		"divided by a circle":  {divided(hundred, "M-60 0C-60 -80 60 -80 60 0C60 80 -60 80 -60 0Z"), false},
		"divided by curves":    {divided(hundred, "M-300 -40C-100 90 0 -160 300 30L300 300L-300 300Z", "M-70 -300C60 -100 -90 100 40 300L-300 300L-300 -300Z"), false},
		"see-through, lapping": {[]*doc.Layer{tile("a", -100, 0, 220, 400), tile("b", 100, 0, 220, 400)}, true},
	} {
		if name == "see-through, lapping" {
			for _, l := range c.layers {
				l.Opacity = 0.5
			}
		}
		p := doc.NewProject("p", "Seam", 97, 83, "s")
		p.Film.Scenes[0].Background = doc.Fill{Kind: doc.NoFill}
		g := &doc.Layer{ID: "g", Thread: "g", Name: "g", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 47.3, Y: 41.9, Turn: 11}, Children: c.layers}
		g.Moves = []*doc.Move{{ID: "spin", Kind: doc.Loop, Effect: effect.Spin, Start: doc.Start{When: doc.AtTime}, Lasts: doc.WholeScene, Duration: 3700}}
		p.Film.Scenes[0].Layers, p.Film.Scenes[0].Stay = []*doc.Layer{g}, 1000
		next := p.Film.Scenes[0].Clone()
		next.ID, next.Transition = "next", doc.Transition{Kind: doc.Morph, Duration: 900, Easing: "linear"}
		each(append(next.Layers, next.Layers[0].Children...), func(i int, l *doc.Layer) {
			l.ID += "2"
			if l.Kind != doc.Group {
				l.Moves = nil
			}
		})
		next.Layers[0].Place.X += 3.7
		next.Layers[0].Place.Turn += 40
		p.Film.Scenes = append(p.Film.Scenes, next)
		f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
		if err != nil {
			t.Fatal(err)
		}
		found := 0
		for ms := int64(113); ms < 1890; ms += 151 {
			for _, ground := range []uint8{0, 255} {
				img := image.NewRGBA(image.Rect(0, 0, 97, 83))
				for i := range img.Pix {
					img.Pix[i] = []uint8{ground, ground, ground, 255}[i%4]
				}
				view := geom.Scale(1.37, 1.37).About(geom.Point{X: 48, Y: 41})
				if err := raster.NewPainter(f, nil).PaintView(img, f.Player().At(motion.Millis(ms), frame.View{Scale: 1.37}), view); err != nil {
					t.Fatal(err)
				}
				want := img.RGBAAt(48, 41)
				if !c.seams {
					want = color.RGBA{0xd8, 0x57, 0x3a, 255}
				}
				for i := 0; i < len(img.Pix); i += 4 {
					if max(far(img.Pix[i], want.R), far(img.Pix[i+1], want.G), far(img.Pix[i+2], want.B)) > 3 {
						found++
					}
				}
			}
		}
		if (found > 0) != c.seams {
			t.Errorf("%s: %d pixels are not covered", name, found)
		}
	}
}

func far(a, b uint8) int { return max(int(a)-int(b), int(b)-int(a)) }
