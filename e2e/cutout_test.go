package e2e

import (
	"bytes"
	"image"
	"image/color"
	"image/png"
	"math"
	"testing"

	"capstan/core/cutout"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/e2e/browser"
	"capstan/studio/media"

	"github.com/chromedp/chromedp/kb"
)

// buoys is a picture of a large and a small buoy over water, which lies on a green page; cut is what is cut out of it.
func buoys(t *testing.T, files *media.Folder, cut func(img *image.RGBA) *doc.Cutout) *doc.Project {
	img := image.NewRGBA(image.Rect(0, 0, 480, 360))
	for y := range 360 {
		for x := range 480 {
			c := color.RGBA{uint8(50 + 6*math.Sin(float64(y)/3)), uint8(120 + y/12), 190, 255}
			if math.Hypot(float64(x-240), float64(y-180)) < 90 || math.Hypot(float64(x-80), float64(y-80)) < 32 {
				c = color.RGBA{uint8(205 + x/24), 70, 50, 255}
			}
			img.SetRGBA(x, y, c)
		}
	}
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		t.Fatal(err)
	}
	hash, facts, err := files.Take(&b, "buoys.png")
	if err != nil {
		t.Fatal(err)
	}
	p := doc.NewProject("buoys", "Buoys", 320, 240, "s0")
	p.Media = map[string]*doc.Media{hash: facts}
	p.Film.Scenes[0].Background = doc.Fill{Kind: doc.Solid, Colour: "#30a050"}
	l := &doc.Layer{ID: "a", Thread: "a", Name: "Buoys", Kind: doc.Picture, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 160, Y: 120, W: 240, H: 180}, Picture: &doc.PictureUse{Media: hash}}
	if cut != nil {
		c := cut(img)
		s := cutout.NewSource(img)
		mask, _, err := s.Mask(c)
		if err != nil {
			t.Fatal(err)
		}
		c.Of = hash
		if c.Mask, facts, err = files.TakeMask(mask, "Mask"); err != nil {
			t.Fatal(err)
		}
		l.Picture.Cut, p.Media[c.Mask] = c, facts
	}
	p.Film.Scenes[0].Layers = []*doc.Layer{l}
	return p
}

// A foreground is found by one press, corrected by a stroke, undone and done again, told by a colour, moved, split in two with light between; all on the page.
func TestAForegroundIsLiftedOffItsGround(t *testing.T) {
	p := sit(t, startStudio(t))
	files := media.NewFolder(t.TempDir())
	p.bring(buoys(t, files, nil), files)
	green, water := color.RGBA{0x30, 0xa0, 0x50, 255}, color.RGBA{50, 145, 190, 255}
	red := func(x, y int) bool { c := p.colourAt(x, y); return c.R > 180 && c.G < 100 }
	at := func(what string, x, y int, want color.RGBA) {
		t.Helper()
		if got := p.colourAt(x, y); !alike(got, want, 12) {
			t.Errorf("%s: at %d, %d there is %v, want %v", what, x, y, got, want)
		}
	}
	made := func() {
		p.t.Helper()
		p.wait(`document.querySelector('[data-cut-frame]') && !document.querySelector('[data-cut-frame][data-busy]')`)
		p.settled()
	}
	p.press(`[data-row] [data-name="Buoys"]`)
	p.press(`[data-fold="Cut out"]`)
	at("whole", 50, 180, water)
	p.pressWord("Find the foreground")
	made()
	at("found", 50, 180, green)
	if !red(160, 120) || !red(80, 70) {
		t.Error("a buoy is gone")
	}
	if n := browser.Eval[int](t, p.ctx, `[...document.querySelectorAll('[aria-label="Sides of the picture that are ground"] [aria-pressed="true"]')].length`); n != 4 {
		t.Errorf("%d sides are ground", n)
	}
	// The small one is no part of it.
	p.pressWord("Drop")
	p.drag(72, 70, 90, 70)
	made()
	at("dropped", 80, 70, green)
	if !red(160, 120) {
		t.Error("the other buoy went with it")
	}
	p.undo()
	if !red(80, 70) {
		t.Error("undone, the buoy is not back")
	}
	p.key("z", kb.ModifierCtrl, kb.ModifierShift)
	p.settled()
	at("done again", 80, 70, green)
	// By hand, by its edge, and by its colour.
	p.pressWord("Paint")
	p.drag(50, 200, 70, 200)
	made()
	at("painted", 60, 200, water)
	p.pressWord("Colour")
	p.click(160, 120)
	made()
	at("without its colour", 160, 120, green)
	p.undo()
	p.undo()
	p.set("By how much the edge goes outwards; below 0: inwards", "-20")
	made()
	at("choked", 160, 82, green)
	p.undo()
	// The pointer goes through what is cut away, and finds what is kept.
	p.key(kb.Escape)
	p.wait(`!document.querySelector('[data-cut-frame]')`)
	p.key(kb.Escape)
	p.click(50, 195)
	if got := p.threads(); len(got) != 0 {
		t.Errorf("pressed where nothing is left: %v", got)
	}
	p.click(160, 120)
	if got := p.threads(); len(got) != 1 || got[0] != "Buoys" {
		t.Errorf("pressed on the buoy: %v", got)
	}
	// Behind it the water goes on.
	p.pressWord("Split in two")
	p.wait(`document.querySelector('[data-row] [data-name="Buoys behind"]')`)
	p.settled()
	at("split", 50, 180, water)
	p.pressWord("Light bands")
	p.settled()
	if got := p.rowNames(); got != "Buoys in front,Light bands,Buoys behind" {
		t.Errorf("the rows are %s", got)
	}
	p.press(`[data-row] [data-name="Buoys in front"]`)
	p.key(kb.Delete)
	p.settled()
	if red(160, 120) {
		t.Error("the ground still has the buoy")
	}
}

// Cut-outs look the same on the page and in files, with what follows their edges: feather, shadow, glow; turned, cropped, faint, within masks; before and after.
func TestCutOutsLookTheSameInPageAndFile(t *testing.T) {
	p := sit(t, startStudio(t))
	files := media.NewFolder(t.TempDir())
	cut := func(img *image.RGBA) *doc.Cutout { return &doc.Cutout{Ground: "ltrb", Soften: 3} }
	for name, more := range map[string]func(l *doc.Layer){
		"plain": func(*doc.Layer) {},
		"turned, cropped, faint": func(l *doc.Layer) {
			l.Place.Turn, l.Opacity, l.Picture.Crop = 17, 0.7, &doc.Crop{0.1, 0.1, 0.8, 0.9}
		},
		"with shadow and glow": func(l *doc.Layer) {
			l.Shadow, l.Glow = &doc.Shadow{X: 8, Y: 10, Blur: 4, Colour: "#00000090"}, &doc.Glow{Blur: 6, Colour: "#f3dca6"}
		},
		"feathered": func(l *doc.Layer) { l.Feather = 14 },
	} {
		project := buoys(t, files, cut)
		more(project.Film.Scenes[0].Layers[0])
		b := compileFor(t, project, files)
		p.bring(project, files)
		page := p.page(320, 240)
		file := b.paint(t, b.film.Player().AtRest(0, frame.View{Scale: 1}), color.RGBA{255, 255, 255, 255}, geom.Identity)
		if n := differing(page, file, 24); n > 60 {
			t.Errorf("%s: %d pixels differ", name, n)
		}
		whole := buoys(t, files, nil)
		more(whole.Film.Scenes[0].Layers[0])
		w := compileFor(t, whole, files)
		if n := differing(page, w.paint(t, w.film.Player().AtRest(0, frame.View{Scale: 1}), color.RGBA{255, 255, 255, 255}, geom.Identity), 24); n < 8000 {
			t.Errorf("%s: only %d pixels differ from the whole picture", name, n)
		}
	}
}

// A window is cut in what lies beneath by one press; what is added next goes behind and shows in it.
func TestAWindowIsCutAndFilled(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(overlapping(), media.NewFolder(t.TempDir()))
	p.press(`[data-row] [data-name="Sun"]`)
	p.pressWord("Place")
	p.pressWord("Beneath")
	p.settled()
	if got := p.colourAt(160, 100); !alike(got, color.RGBA{255, 255, 255, 255}, 2) && !alike(got, color.RGBA{0x4c, 0x9a, 0xb8, 255}, 2) {
		t.Errorf("in the window there is %v", got)
	}
	plate := p.colourAt(90, 60)
	p.key("r")
	p.drag(60, 50, 260, 190)
	p.settled()
	if got := p.colourAt(90, 60); got != plate {
		t.Errorf("what was added lies in front: %v", got)
	}
	if got := p.colourAt(160, 100); alike(got, color.RGBA{255, 255, 255, 255}, 2) {
		t.Error("what was added does not show in the window")
	}
}
