package frame_test

import (
	"image"
	"image/color"
	"io/fs"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/text"
	"capstan/library"
)

// The plate of words that come one by one comes with them: half way none of it stands where a word is not yet, and once all have come it is
// whole again, to the pixel.
func TestPlatesComeWithTheirWords(t *testing.T) {
	book := &text.Book{}
	for _, f := range library.FontFiles() {
		if f.Family != "Archivo" {
			continue
		}
		data, err := fs.ReadFile(library.Fonts(), f.File)
		if err != nil {
			t.Fatal(err)
		}
		if err := book.Add(f.Family, f.Weight, f.Italic, data); err != nil {
			t.Fatal(err)
		}
	}
	for _, unit := range []string{doc.ByLine, doc.ByWord, doc.ByLetter} {
		p := doc.NewProject("p", "Plate", 400, 160, "s")
		p.Film.Scenes[0].Stay = 3000
		l := &doc.Layer{ID: "a", Thread: "a", Name: "a", Kind: doc.TextKind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#ffffff"}, Place: doc.Place{X: 200, Y: 20}}
		l.Text = &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: "bring a tail\nbring a kite", Family: "Archivo", Weight: 600, Size: 40}}, Plate: &doc.Plate{Colour: "#d8573a", Padding: 8}}
		l.Moves = []*doc.Move{{ID: "m", Kind: doc.Entrance, Effect: effect.AtOnce, Start: doc.Start{When: doc.AtTime, Offset: 500}, Duration: 1000, Unit: unit}}
		p.Film.Scenes[0].Layers = []*doc.Layer{l}
		f, err := frame.Compile(p, frame.Assets{Fonts: book}, nil)
		if err != nil {
			t.Fatal(err)
		}
		paint := func(ms int64) *image.RGBA {
			img := image.NewRGBA(image.Rect(0, 0, 400, 160))
			if err := raster.NewPainter(f, nil).Paint(img, f.Player().At(motion.Millis(ms), frame.View{Scale: 1})); err != nil {
				t.Fatal(err)
			}
			return img
		}
		orange := func(img *image.RGBA, box image.Rectangle) (n int) {
			for y := box.Min.Y; y < box.Max.Y; y++ {
				for x := box.Min.X; x < box.Max.X; x++ {
					if c := img.RGBAAt(x, y); c == (color.RGBA{0xd8, 0x57, 0x3a, 255}) {
						n++
					}
				}
			}
			return
		}
		all := image.Rect(0, 0, 400, 160)
		whole := paint(2000)
		if n := orange(paint(100), all); n > 0 {
			t.Errorf("by %s: %d px of the plate stand before any word has come", unit, n)
		}
		half := paint(980) // units begin at 500 ms: those of the upper line have come
		lower := image.Rect(0, 80, 400, 160)
		if n, m := orange(half, all), orange(whole, all); n < m/4 || n > m*3/4 {
			t.Errorf("by %s: half way %d of %d px of the plate stand", unit, n, m)
		}
		if n := orange(half, lower); n > orange(whole, lower)/8 {
			t.Errorf("by %s: %d px of the plate stand behind words that have not come", unit, n)
		}
		// What has come is without seams: the upper line is as it is when all have.
		for y := 24; y < 60; y++ {
			for x := 150; x < 250; x++ {
				if half.RGBAAt(x, y) != whole.RGBAAt(x, y) {
					t.Fatalf("by %s: at %d, %d it is %v, and %v when all words have come", unit, x, y, half.RGBAAt(x, y), whole.RGBAAt(x, y))
				}
			}
		}
	}
}

// A wipe goes over all that a layer paints: at its begin nothing of the stroke or the plate stands, and a slide brings them off the page.
func TestEntrancesBeginWithNothing(t *testing.T) {
	wide := &doc.Stroke{Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"}, Width: 24}
	for name, change := range map[string]func(l *doc.Layer){
		"stroke": func(l *doc.Layer) { l.Stroke = wide },
		"shadow": func(l *doc.Layer) { l.Shadow = &doc.Shadow{X: -20, Y: -20, Blur: 4, Colour: "#000000"} },
		"glow":   func(l *doc.Layer) { l.Glow = &doc.Glow{Blur: 8, Colour: "#d8573a"} },
		"group": func(l *doc.Layer) {
			k := *l
			k.ID, k.Thread, k.Moves, k.Place.X, k.Place.Y, k.Stroke = "k", "k", nil, 0, 0, wide
			l.Kind, l.Fill, l.Children, l.Place = doc.Group, doc.Fill{Kind: doc.NoFill}, []*doc.Layer{&k}, doc.Place{X: 80, Y: 60}
		},
	} {
		for _, how := range []string{effect.Wipe, effect.Slide} {
			for _, direction := range []float64{0, 90, 180, 270, 45} {
				p := doc.NewProject("p", "Begin", 160, 120, "s")
				l := &doc.Layer{ID: "a", Thread: "a", Name: "a", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: 80, Y: 60, W: 60, H: 40, Turn: 20}}
				change(l)
				l.Moves = []*doc.Move{{ID: "m", Kind: doc.Entrance, Effect: how, Start: doc.Start{When: doc.AtTime}, Duration: 1000, Params: effect.Params{"direction": direction}}}
				p.Film.Scenes[0].Layers, p.Film.Scenes[0].Background = []*doc.Layer{l}, doc.Fill{Kind: doc.Solid, Colour: "#ffffff"}
				f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
				if err != nil {
					t.Fatal(err)
				}
				img := image.NewRGBA(image.Rect(0, 0, 160, 120))
				if err := raster.NewPainter(f, nil).Paint(img, f.Player().At(motion.Millis(0), frame.View{Scale: 1})); err != nil {
					t.Fatal(err)
				}
				for i, v := range img.Pix {
					if v < 254 {
						t.Errorf("%s, %s to %v: as it begins %d, %d is %v", name, how, direction, i/4%160, i/4/160, img.RGBAAt(i/4%160, i/4/160))
						break
					}
				}
			}
		}
	}
}
