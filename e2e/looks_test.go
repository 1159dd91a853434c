package e2e

import (
	"fmt"
	"image/color"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/core/doc"
	"capstan/e2e/browser"
	"capstan/studio/media"
)

// plain is a page with one rectangle of 160 x 120 in the middle.
func plain() *doc.Project {
	p := doc.NewProject("plain", "Plain", 320, 240, "pl")
	p.Film.Scenes[0].Layers = []*doc.Layer{{
		ID: "sail", Thread: "sail", Name: "Sail", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"},
		Place: doc.Place{X: 160, Y: 120, W: 160, H: 120},
	}}
	return p
}

func (p *person) colourAt(x, y int) color.RGBA {
	p.t.Helper()
	return p.pixels(0, 0, true, 320, 240, "#fff").RGBAAt(x, y)
}

func alike(a, b color.RGBA, d int) bool {
	diff := func(x, y uint8) bool { return int(x)-int(y) <= d && int(y)-int(x) <= d }
	return diff(a.R, b.R) && diff(a.G, b.G) && diff(a.B, b.B)
}

// handle returns where a handle on the page lies in the window.
func (p *person) handle(name string) (x, y float64) {
	p.t.Helper()
	return p.middle(fmt.Sprintf(`[data-handle="%s"]`, name))
}

func (p *person) pullXY(x, y, dx, dy float64) {
	p.t.Helper()
	p.do(chromedp.DragAndDropXY(x, y, x+dx, y+dy))
	p.settled()
}

// A gradient is chosen, its end dragged on the shape, a colour added on the strip, moved, and dragged away; each a step to undo.
func TestGradientsAreEditedOnTheShapeAndOnAStrip(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(plain(), media.NewFolder(t.TempDir()))
	p.click(160, 120)
	p.press(`[aria-label="Linear gradient"]`)
	p.settled()
	red := color.RGBA{0xd8, 0x57, 0x3a, 255}
	if top := p.colourAt(160, 62); !alike(top, red, 6) {
		t.Errorf("a gradient begins at %v, want the colour that was there", top)
	}
	if bottom := p.colourAt(160, 178); int(bottom.R) > 170 {
		t.Errorf("it ends at %v, want a darker tone", bottom)
	}
	// The end goes to the middle: below, the last colour stays.
	before := p.colourAt(160, 178)
	x, y := p.handle("gradient-to")
	scale := browser.Eval[float64](t, p.ctx, `Number(document.querySelector('[data-page]').dataset.view.split(' ')[0])`)
	p.pullXY(x, y, 0, -48*scale)
	if got := p.colourAt(160, 130); !alike(got, before, 5) {
		t.Errorf("past the dragged end it is %v, want %v", got, before)
	}
	// A press in the middle of the strip adds a colour, which changes nothing yet.
	middle := p.colourAt(160, 96)
	sx, sy := p.middle(`[data-gradient="fill"] [role="group"]`)
	p.do(chromedp.MouseClickXY(sx, sy-6))
	p.settled()
	if n := browser.Eval[int](t, p.ctx, `document.querySelectorAll('[data-gradient="fill"] [data-stop]').length`); n != 3 {
		t.Fatalf("%d colours", n)
	}
	if got := p.colourAt(160, 96); !alike(got, middle, 2) {
		t.Errorf("adding a colour changed %v to %v", middle, got)
	}
	// Given another colour it shows.
	p.press(`[aria-label^="Colour 2: "]`)
	p.wait(`document.querySelector('[aria-label="Colour #ffffff"]')`)
	p.press(`[aria-label="Colour #ffffff"]`)
	p.settled()
	if got := p.colourAt(160, 96); !alike(got, color.RGBA{255, 255, 255, 255}, 12) {
		t.Errorf("in the middle it is %v, want white", got)
	}
	// The keyboard moves it, and dragging it off the strip takes it out.
	p.do(chromedp.Focus(`[data-stop="1"]`))
	p.key(kb.ArrowRight)
	p.settled()
	if v := browser.Eval[string](t, p.ctx, `document.querySelector('[data-stop="1"]').ariaValueNow`); v != "51" {
		t.Errorf("the arrow key moved it to %s %%", v)
	}
	x, y = p.middle(`[data-stop="1"]`)
	p.pullXY(x, y, 5, 70)
	if n := browser.Eval[int](t, p.ctx, `document.querySelectorAll('[data-gradient="fill"] [data-stop]').length`); n != 2 {
		t.Errorf("%d colours after one was dragged away", n)
	}
	for range 6 {
		p.undo()
	}
	if got := p.colourAt(160, 178); !alike(got, red, 1) {
		t.Errorf("undone to the begin it is %v", got)
	}
	// Two colours stay.
	p.press(`[aria-label="Radial gradient"]`)
	p.settled()
	p.do(chromedp.Focus(`[data-stop="1"]`))
	p.key(kb.Delete)
	p.wait(`document.body.innerText.includes('A gradient keeps two colours')`)
	// The focus is dragged out of the middle.
	if c := p.colourAt(160, 120); !alike(c, red, 6) {
		t.Errorf("the middle of a radial gradient is %v", c)
	}
	x, y = p.handle("gradient-focus")
	fx, fy := p.at(120, 120)
	p.pullXY(x, y, fx-x, fy-y)
	if c, m := p.colourAt(120, 120), p.colourAt(160, 120); !alike(c, red, 8) || alike(m, red, 8) {
		t.Errorf("at the focus it is %v, in the middle %v", c, m)
	}
}

// Stroke, blend, blur, feather and shadow change what is seen at once, and typed values are kept within their limits.
func TestLooksShowAtOnce(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(plain(), media.NewFolder(t.TempDir()))
	p.click(160, 120)
	p.press(`[aria-label="Stroke in one colour"]`)
	p.settled()
	p.set("Stroke width", "20")
	p.settled()
	ink := color.RGBA{0x17, 0x40, 0x3c, 255}
	if got := p.colourAt(72, 120); !alike(got, ink, 2) {
		t.Errorf("on the line it is %v, want the stroke", got)
	}
	p.press(`[aria-label="Inside"]`)
	p.settled()
	if out, in := p.colourAt(72, 120), p.colourAt(90, 120); !alike(out, color.RGBA{255, 255, 255, 255}, 2) || !alike(in, ink, 2) {
		t.Errorf("a stroke inside: outside it is %v, inside %v", out, in)
	}
	p.press(`[aria-label="No stroke"]`)
	p.settled()
	p.set("Blur", "8")
	p.settled()
	if got := p.colourAt(80, 120); got.G < 150 || got.G > 190 {
		t.Errorf("at a blurred edge it is %v, want half of it", got)
	}
	p.set("Blur", "900")
	p.settled()
	if v := p.number("Blur"); v != 8 {
		t.Errorf("a blur of 900 is refused, it became %v", v)
	}
	p.set("Blur", "0")
	p.settled()
	p.set("Feather", "30")
	p.settled()
	if edge, in := p.colourAt(82, 120), p.colourAt(120, 120); edge.G < 215 || !alike(in, color.RGBA{0xd8, 0x57, 0x3a, 255}, 1) {
		t.Errorf("feathered, the border is %v, further in %v", edge, in)
	}
	p.set("Feather", "0")
	p.settled()
	p.pressWord("Cast one")
	p.settled()
	p.set("Shadow down", "30")
	p.settled()
	if got := p.colourAt(160, 200); got.R > 200 {
		t.Errorf("under the layer it is %v, want its shadow", got)
	}
	p.choose("Blend", "difference")
	p.settled()
	// White less #d8573a is #27a8c5; the shadow is part of the layer and is blended too.
	if got := p.colourAt(160, 100); !alike(got, color.RGBA{0x27, 0xa8, 0xc5, 255}, 2) {
		t.Errorf("its difference to white is %v", got)
	}
}
