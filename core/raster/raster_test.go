package raster_test

import (
	"image"
	"image/color"
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/display"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/text"
)

// page paints a scene of one film on a page of 100 x 80.
func page(t testing.TB, background string, layers ...*doc.Layer) *image.RGBA {
	t.Helper()
	p := doc.NewProject("p", "p", 100, 80, "s")
	p.Film.Scenes[0].Background = doc.Fill{Kind: doc.NoFill}
	if background != "" {
		p.Film.Scenes[0].Background = doc.Fill{Kind: doc.Solid, Colour: background}
	}
	for i, l := range layers {
		l.ID, l.Thread = string(rune('a'+i)), string(rune('a'+i))
	}
	p.Film.Scenes[0].Layers = layers
	return paintFrame(t, p, motion.Millis(0))
}

func paintFrame(t testing.TB, p *doc.Project, at motion.Instant) *image.RGBA {
	t.Helper()
	if err := p.Validate(); err != nil {
		t.Fatal(err)
	}
	f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		t.Fatal(err)
	}
	img := image.NewRGBA(image.Rect(0, 0, p.Film.Width, p.Film.Height))
	if err := raster.NewPainter(f, nil).Paint(img, f.Player().At(at, frame.View{Scale: 1})); err != nil {
		t.Fatal(err)
	}
	return img
}

func shape(kind, colour string, x, y, w, h, turn, opacity float64) *doc.Layer {
	return &doc.Layer{Kind: kind, Opacity: opacity, Fill: doc.Fill{Kind: doc.Solid, Colour: colour}, Place: doc.Place{X: x, Y: y, W: w, H: h, Turn: turn}}
}

func drawn(d string) *doc.Layer {
	return &doc.Layer{Kind: doc.PathKind, Opacity: 1, Path: d, Fill: doc.Fill{Kind: doc.Solid, Colour: "#ffffff"}}
}

func covered(img *image.RGBA) float64 {
	sum := 0.0
	for i := 3; i < len(img.Pix); i += 4 {
		sum += float64(img.Pix[i]) / 255
	}
	return sum
}

// motion.md, section 11: white at 15 % over grey 32 is 65.
func TestWhiteOverGrey(t *testing.T) {
	img := page(t, "#202020", shape(doc.Rectangle, "#ffffff", 50, 40, 40, 40, 0, 0.15))
	if got := img.RGBAAt(50, 40); got != (color.RGBA{65, 65, 65, 255}) {
		t.Errorf("got %v", got)
	}
}

// The sum of all coverage is the area of the shape, whatever way it lies (pixels hold 1/255 steps).
func TestCoverageIsArea(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	for i := 0; i < 60; i++ {
		w, h := 3+r.Float64()*30, 3+r.Float64()*30
		x, y, turn := 35+r.Float64()*30, 35+r.Float64()*10, r.Float64()*360
		for kind, want := range map[string]float64{doc.Rectangle: w * h, doc.Ellipse: math.Pi * w * h / 4} {
			got := covered(page(t, "", shape(kind, "#ffffff", x, y, w, h, turn, 1)))
			if math.Abs(got-want) > want*0.002+0.12 {
				t.Errorf("%s of %.2f x %.2f turned %.0f covers %.2f px, want %.2f", kind, w, h, turn, got, want)
			}
		}
	}
}

func TestTilesLeaveNoSeam(t *testing.T) {
	// Two halves of the page cut along a slanted line cover it wholly: integer coverage of a shared edge adds up.
	img := page(t, "", drawn("M0 0L40.3 0L63.7 80L0 80Z"), drawn("M40.3 0L100 0L100 80L63.7 80Z"))
	for y := 0; y < 80; y++ {
		for x := 0; x < 100; x++ {
			// Laid over each other, a + b - ab is least where both cover half: 191. A seam would go below.
			if a := img.RGBAAt(x, y).A; a < 190 {
				t.Fatalf("a seam of %d at %d, %d", a, x, y)
			}
		}
	}
}

func TestHolesAndWindings(t *testing.T) {
	img := page(t, "", drawn("M10 10L70 10L70 70L10 70ZM30 30L30 50L50 50L50 30Z"))
	if img.RGBAAt(40, 40).A != 0 || img.RGBAAt(20, 20).A != 255 {
		t.Error("a subpath drawn the other way round is a hole")
	}
	same := page(t, "", drawn("M10 10L70 10L70 70L10 70ZM30 30L50 30L50 50L30 50Z"))
	if same.RGBAAt(40, 40).A != 255 {
		t.Error("by the nonzero rule a subpath drawn the same way round is none")
	}
}

func TestWhatLiesOffThePageCostsNothingAndShowsRight(t *testing.T) {
	for _, d := range []string{"M-1000 -1000L2000 -1000L2000 2000L-1000 2000Z", "M-1e6 40L1e6 -1e6L1e6 1e6Z"} {
		img := page(t, "", drawn(d))
		if img.RGBAAt(99, 40).A != 255 {
			t.Errorf("%s does not cover the page's right side", d)
		}
	}
	if got := covered(page(t, "", drawn("M-50 10L-10 10L-10 60L-50 60Z"), drawn("M120 0L200 0L200 80Z"), drawn("M0 90L100 90L50 200Z"))); got != 0 {
		t.Errorf("shapes in the wings cover %v px of the page", got)
	}
	half := page(t, "", drawn("M-20 20L30 20L30 60L-20 60Z"))
	if got := covered(half); math.Abs(got-30*40) > 0.01 {
		t.Errorf("a shape across the left side covers %v", got)
	}
}

// A group's opacity holds for what it makes as a whole: where its layers overlap nothing shines through.
func TestGroupsFadeAsAWhole(t *testing.T) {
	a, b := shape(doc.Rectangle, "#ff0000", 0, 0, 40, 40, 0, 1), shape(doc.Rectangle, "#0000ff", 10, 0, 40, 40, 0, 1)
	a.ID, a.Thread, b.ID, b.Thread = "x", "x", "y", "y"
	g := &doc.Layer{Kind: doc.Group, Opacity: 0.5, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 50, Y: 40}, Children: []*doc.Layer{a, b}}
	img := page(t, "#ffffff", g)
	if got := img.RGBAAt(60, 40); got != (color.RGBA{127, 127, 255, 255}) && got != (color.RGBA{128, 128, 255, 255}) {
		t.Errorf("in the overlap: %v", got)
	}
	if got := img.RGBAAt(35, 40); got.R != 255 || got.G < 127 || got.G > 128 {
		t.Errorf("beside it: %v", got)
	}
}

// motion.md, section 5: in a crossfade, layers that do not change do not dip.
func TestACrossfadeDoesNotDip(t *testing.T) {
	p := doc.NewProject("p", "p", 100, 80, "s")
	for i := 0; i < 2; i++ {
		s := p.Film.Scenes[0]
		if i == 1 {
			s = doc.NewScene("t", "t")
			s.Transition = doc.Transition{Kind: doc.Crossfade, Duration: 1000, Easing: "linear"}
			p.Film.Scenes = append(p.Film.Scenes, s)
		}
		s.Stay, s.Background = 1000, doc.Fill{Kind: doc.Solid, Colour: "#8ec6da"}
		l := shape(doc.Rectangle, []string{"#c83c28", "#28783c"}[i], 70, 40, 20, 20, 0, 1)
		l.ID, l.Thread = string(rune('a'+i)), string(rune('a'+i))
		k := shape(doc.Ellipse, "#17403c", 20, 40, 20, 20, 0, 1)
		k.ID, k.Thread = string(rune('m'+i)), "k"
		s.Layers = []*doc.Layer{l, k}
	}
	for _, ms := range []int64{1000, 1250, 1500, 1777} {
		img := paintFrame(t, p, motion.Millis(ms))
		if got := img.RGBAAt(20, 40); got != (color.RGBA{0x17, 0x40, 0x3c, 255}) {
			t.Errorf("at %d ms the layer that is the same on both sides is %v", ms, got)
		}
		if got := img.RGBAAt(5, 5); got != (color.RGBA{0x8e, 0xc6, 0xda, 255}) {
			t.Errorf("at %d ms the ground is %v", ms, got)
		}
	}
	if got := paintFrame(t, p, motion.Millis(1500)).RGBAAt(70, 40); got != (color.RGBA{0x78, 0x5a, 0x32, 255}) {
		t.Errorf("half way the changing layer is %v, want the mean of both", got)
	}
}

// ITU-R BT.709-6, limited range: white 235, black 16, greys without chroma; the primaries from its matrix.
func TestYUV(t *testing.T) {
	for _, c := range []struct {
		rgb     color.RGBA
		y, u, v uint8
	}{
		{color.RGBA{255, 255, 255, 255}, 235, 128, 128}, {color.RGBA{0, 0, 0, 255}, 16, 128, 128}, {color.RGBA{128, 128, 128, 255}, 126, 128, 128},
		{color.RGBA{255, 0, 0, 255}, 63, 102, 240}, {color.RGBA{0, 255, 0, 255}, 173, 42, 26}, {color.RGBA{0, 0, 255, 255}, 32, 240, 118},
	} {
		img := image.NewRGBA(image.Rect(0, 0, 4, 2))
		for i := 0; i < 8; i++ {
			img.SetRGBA(i%4, i/4, c.rgb)
		}
		out := make([]byte, 12)
		raster.YUV(out, img)
		if out[0] != c.y || out[7] != c.y || out[8] != c.u || out[10] != c.v {
			t.Errorf("%v is %d %d %d, want %d %d %d", c.rgb, out[0], out[8], out[10], c.y, c.u, c.v)
		}
	}
}

func TestBrokenListsAreErrorsNotPanics(t *testing.T) {
	p := doc.NewProject("p", "p", 100, 80, "s")
	f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		t.Fatal(err)
	}
	img := image.NewRGBA(image.Rect(0, 0, 100, 80))
	for _, l := range []*frame.List{
		{Width: 100, Height: 80, Codes: []uint32{display.OpFill, 99999}, Numbers: make([]float64, 10)},
		{Width: 100, Height: 80, Codes: []uint32{display.OpFill}},
		{Width: 100, Height: 80, Codes: []uint32{77}},
		{Width: 100, Height: 80, Codes: []uint32{display.OpPicture, 0, 0, 1}, Numbers: make([]float64, 15)},
	} {
		if err := raster.NewPainter(f, nil).Paint(img, l); err == nil {
			t.Errorf("%v was painted", l.Codes)
		}
	}
}

func TestPicturesAreSampledBilinearly(t *testing.T) {
	p := doc.NewProject("p", "p", 100, 80, "s")
	hash := "aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa"
	p.Media = map[string]*doc.Media{hash: {Name: "n", Width: 2, Height: 1}}
	p.Film.Scenes[0].Background = doc.Fill{Kind: doc.Solid, Colour: "#000000"}
	p.Film.Scenes[0].Layers = []*doc.Layer{{ID: "a", Thread: "a", Kind: doc.Picture, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Picture: &doc.PictureUse{Media: hash}, Place: doc.Place{X: 50, Y: 40, W: 80, H: 40}}}
	f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		t.Fatal(err)
	}
	src := image.NewRGBA(image.Rect(0, 0, 2, 1))
	src.SetRGBA(0, 0, color.RGBA{0, 0, 0, 255})
	src.SetRGBA(1, 0, color.RGBA{200, 200, 200, 255})
	img := image.NewRGBA(image.Rect(0, 0, 100, 80))
	pictures := func(string, int) (*image.RGBA, error) { return src, nil }
	if err := raster.NewPainter(f, pictures).Paint(img, f.Player().At(motion.Millis(0), frame.View{Scale: 1})); err != nil {
		t.Fatal(err)
	}
	// Samples lie at 1/4 and 3/4 of the picture; between them it is a ramp, outside it holds its edge.
	for x, want := range map[int]float64{12: 0, 29: 0, 50: 100 + 2.5, 40: 52.5, 71: 200, 88: 200} {
		if got := float64(img.RGBAAt(x, 40).R); math.Abs(got-want) > 2 {
			t.Errorf("at %d: %v, want %v", x, got, want)
		}
	}
	if img.RGBAAt(9, 40).R+img.RGBAAt(91, 40).R+img.RGBAAt(50, 19).R != 0 {
		t.Error("the picture reaches over its box")
	}
}

func BenchmarkPaint(b *testing.B) {
	p := doc.NewProject("p", "p", 1920, 1080, "s")
	for i := 0; i < 40; i++ {
		l := shape(doc.Ellipse, "#d8573a", 100+float64(i*43), 300+float64(i%7*60), 240, 160, float64(i*9), 0.8)
		l.ID, l.Thread = string(rune('a'+i/26))+string(rune('a'+i%26)), string(rune('a'+i/26))+string(rune('a'+i%26))
		p.Film.Scenes[0].Layers = append(p.Film.Scenes[0].Layers, l)
	}
	f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		b.Fatal(err)
	}
	img := image.NewRGBA(image.Rect(0, 0, 1920, 1080))
	painter, player := raster.NewPainter(f, nil), f.Player()
	b.ReportAllocs()
	for b.Loop() {
		if err := painter.Paint(img, player.At(motion.Millis(0), frame.View{Scale: 1})); err != nil {
			b.Fatal(err)
		}
	}
}
