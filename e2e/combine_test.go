package e2e

import (
	"image"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/e2e/browser"
	"capstan/studio/media"
)

// A plate with a sun and words in front of it, on the sky.
func plateAndWords() *doc.Project {
	p := doc.NewProject("punch", "Punch", 640, 400, "s1")
	solid := func(c string) doc.Fill { return doc.Fill{Kind: doc.Solid, Colour: c} }
	p.Film.Scenes[0].Background = solid("#9cc9d8")
	p.Film.Scenes[0].Layers = []*doc.Layer{
		{ID: "l1", Thread: "plate", Name: "Plate", Kind: doc.Rectangle, Opacity: 1, Fill: solid("#17403c"), Corner: 24, Place: doc.Place{X: 320, Y: 200, W: 480, H: 200}},
		{ID: "l2", Thread: "sun", Name: "Sun", Kind: doc.Ellipse, Opacity: 1, Fill: solid("#f2c14e"), Place: doc.Place{X: 500, Y: 120, W: 150, H: 150}},
		{ID: "l3", Thread: "words", Name: "Words", Kind: doc.TextKind, Opacity: 1, Fill: solid("#f6f2e9"), Place: doc.Place{X: 300, Y: 150}, Text: &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: "KITE DAY", Family: "Shrikhand", Weight: 400, Size: 76}}},
			Moves: []*doc.Move{{ID: "m1", Kind: doc.Entrance, Effect: effect.Fade, Duration: 500, Start: doc.Start{When: doc.AtTime}}}},
	}
	return p
}

// hover moves the pointer over an element, without a press.
func (p *person) hover(selector string) {
	p.t.Helper()
	x, y := p.middle(selector)
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x, y))
}

func (p *person) page(w, h int) *image.RGBA { return p.pixels(0, 0, true, w, h, "#fff") }

func differing(a, b *image.RGBA, by int) (n int) {
	for i := 0; i < len(a.Pix); i += 4 {
		for k := range 3 {
			if d := int(a.Pix[i+k]) - int(b.Pix[i+k]); d > by || -d > by {
				n++
				break
			}
		}
	}
	return
}

// Words and a sun are punched out of a plate: seen before it is done, done, taken apart, undone.
func TestCombiningIsSeenBeforeItIsDone(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(plateAndWords(), media.NewFolder(t.TempDir()))
	p.click(20, 20)
	p.key("a", chromedp.ModifierCtrl)
	p.wait(`document.querySelector('[aria-label="Cut away"]')`)
	before := p.page(640, 400)
	p.hover(`[aria-label="Cut away"]`)
	p.wait(`document.querySelector('[data-preview="cut"]')`)
	sky := before.RGBAAt(10, 10)
	seen := p.page(640, 400)
	if seen.RGBAAt(500, 130) != sky {
		t.Error("the preview does not cut the sun out of the plate")
	}
	if n := browser.Eval[int](t, p.ctx, `Number(document.documentElement.dataset.revision)`); n != 0 {
		t.Errorf("looking made revision %d", n)
	}
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, 300, 700))
	p.wait(`!document.querySelector('[data-preview]')`)
	if n := differing(before, p.page(640, 400), 0); n > 0 {
		t.Errorf("after looking, %d pixels differ", n)
	}
	p.press(`[aria-label="Cut away"]`)
	p.settled()
	if n := differing(seen, p.page(640, 400), 0); n > 0 {
		t.Errorf("%d pixels are not as they were shown", n)
	}
	if !strings.Contains(strings.Join(p.notices(), " "), "The moves of “Words” were dropped") {
		t.Errorf("says %q", p.notices())
	}
	// The browser's own fill agrees on what is inside: asked at places over all of the page.
	checkInFill(p, "plate")
	p.pressWord("Take apart")
	p.settled()
	if n := differing(before, p.page(640, 400), 2); n > 0 {
		t.Errorf("taken apart, %d pixels differ", n)
	}
	p.undo()
	p.undo()
	if n := differing(before, p.page(640, 400), 0); n > 0 {
		t.Errorf("undone, %d pixels differ", n)
	}
}

// checkInFill asks Chromium's isPointInFill of a drawn path whether points are inside, and holds the pixels against it.
func checkInFill(p *person, thread string) {
	p.t.Helper()
	img := p.page(640, 400)
	ink := img.RGBAAt(100, 250)
	in := browser.Eval[[]bool](p.t, p.ctx, `(() => {
		const l = capstanProbe.engine.copy({rest: true, scene: 0, time: 0}, ['`+thread+`']).layers[0]
		const e = document.createElementNS('http://www.w3.org/2000/svg', 'path'); e.setAttribute('d', l.path)
		const s = document.createElementNS('http://www.w3.org/2000/svg', 'svg'); s.append(e); document.body.append(s)
		const out = []
		for (let y = 0; y < 100; y++) for (let x = 0; x < 160; x++) out.push(e.isPointInFill(new DOMPoint(x * 4 + 2.5 - l.place.x, y * 4 + 2.5 - l.place.y)))
		s.remove()
		return out
	})()`)
	wrong, inside := 0, 0
	for i, v := range in {
		x, y := i%160*4+2, i/160*4+2
		c := img.RGBAAt(x, y)
		if v {
			inside++
		}
		clear := c != ink && c == img.RGBAAt(10, 10)
		if v && clear || !v && c == ink {
			wrong++
		}
	}
	if wrong > 0 || inside < 3000 {
		p.t.Errorf("of %d points inside, %d are painted otherwise", inside, wrong)
	}
}

// Shapes that lie apart have nothing in common, and it is said; all the ways by keyboard.
func TestNothingIsLeftAndTheKeyboardCombines(t *testing.T) {
	p := sit(t, startStudio(t))
	film := plateAndWords()
	film.Film.Scenes[0].Layers = film.Film.Scenes[0].Layers[:2]
	film.Film.Scenes[0].Layers[1].Place.X, film.Film.Scenes[0].Layers[1].Place.Y = 600, 40
	film.Film.Scenes[0].Layers[1].Place.W, film.Film.Scenes[0].Layers[1].Place.H = 60, 60
	p.bring(film, media.NewFolder(t.TempDir()))
	p.click(20, 390)
	p.key("a", chromedp.ModifierCtrl)
	p.wait(`document.querySelector('[aria-label="Keep overlap"]')`)
	before := p.page(640, 400)
	p.press(`[aria-label="Keep overlap"]`)
	p.wait(`[...document.querySelectorAll('[data-notice]')].some(e => e.innerText.includes('Nothing is left: the shapes do not overlap. Nothing was changed.'))`)
	if n := differing(before, p.page(640, 400), 0); n > 0 {
		t.Errorf("%d pixels changed", n)
	}
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, 300, 700))
	p.tabTo(`[aria-label="Unite"]`, true)
	p.wait(`document.querySelector('[data-preview="unite"]')`)
	p.key("\r")
	p.settled()
	p.wait(`document.querySelectorAll('[data-row]').length === 1 || document.querySelectorAll('[data-name]').length === 1`)
	if c := p.page(640, 400).RGBAAt(600, 40); c != p.page(640, 400).RGBAAt(320, 200) {
		t.Error("the sun has not got the look of the plate")
	}
}

// Layers painted into one picture look the same; they are inside it and come back.
func TestMergedIntoAPictureAndTakenApart(t *testing.T) {
	p := sit(t, startStudio(t))
	film := plateAndWords()
	film.Film.Scenes[0].Layers[1].Shadow = &doc.Shadow{X: 6, Y: 8, Blur: 7, Colour: "#00000080"}
	film.Film.Scenes[0].Layers[2].Moves = nil
	p.bring(film, media.NewFolder(t.TempDir()))
	p.click(20, 20)
	p.key("a", chromedp.ModifierCtrl)
	before := p.page(640, 400)
	p.pressWord("Merge into a picture")
	p.wait(`document.querySelector('aside').innerText.includes('Made of Plate, Sun, Words')`)
	p.settled()
	after := p.page(640, 400)
	// Painted at twice the size and made smaller again: edges are a little softer.
	if n := differing(before, after, 40); n > 640*400/100 {
		t.Errorf("%d pixels differ", n)
	}
	p.pressWord("Take apart")
	p.settled()
	if n := differing(before, p.page(640, 400), 2); n > 0 {
		t.Errorf("taken apart, %d pixels differ", n)
	}
}
