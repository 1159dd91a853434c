package e2e

import (
	"fmt"
	"image/color"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/e2e/browser"
	"capstan/studio/media"
)

// overlapping is a page of a plate with a round layer over it, which fades in after a second, and a wide one behind both.
func overlapping() *doc.Project {
	p := doc.NewProject("window", "Window", 320, 240, "one")
	layer := func(id, name, kind, colour string, x, y, w, h float64) *doc.Layer {
		return &doc.Layer{ID: id, Thread: name, Name: name, Kind: kind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: colour}, Place: doc.Place{X: x, Y: y, W: w, H: h}}
	}
	sun := layer("c", "Sun", doc.Ellipse, "#f3dca6", 160, 120, 80, 80)
	sun.Moves = []*doc.Move{{ID: "m", Kind: doc.Entrance, Effect: effect.AtOnce, Start: doc.Start{When: doc.AtTime, Offset: 1000}}}
	p.Film.Scenes[0].Layers = []*doc.Layer{layer("a", "Sea", doc.Rectangle, "#4c9ab8", 160, 120, 300, 60), layer("b", "Plate", doc.Rectangle, "#17403c", 160, 120, 180, 150), sun}
	return p
}

// The front one of two layers becomes a mask, either way, by the panel; it says what it is in its row; presses go through the hole; as a
// layer like others it is seen again.
func TestAMaskIsMadeOfTheFrontLayer(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(overlapping(), media.NewFolder(t.TempDir()))
	sea, plate, sun := color.RGBA{0x4c, 0x9a, 0xb8, 255}, color.RGBA{0x17, 0x40, 0x3c, 255}, color.RGBA{0xf3, 0xdc, 0xa6, 255}
	at := func(what string, x, y int, want color.RGBA) {
		t.Helper()
		if got := p.colourAt(x, y); !alike(got, want, 1) {
			t.Errorf("%s: at %d, %d there is %v, want %v", what, x, y, got, want)
		}
	}
	p.press(`[data-row] [data-name="Plate"]`)
	p.shiftPress(`[data-row] [data-name="Sun"]`)
	p.pressWord("Punch out")
	p.settled()
	at("punched out", 160, 120, sea)
	at("punched out", 90, 60, plate)
	// A press in the hole finds what lies behind.
	p.key(kb.Escape)
	p.click(160, 120)
	if got := p.threads(); len(got) != 1 || got[0] != "Sea" {
		t.Errorf("pressed in the hole: %v", got)
	}
	// Entered by two presses on the plate, the mask is chosen in its row and shows the plate inside instead.
	p.press(`[aria-label="Unfold Group"]`)
	p.wait(`document.querySelector('[data-row] [aria-label="A mask: it is punched out of the others"]')`)
	p.press(`[data-row] [data-name="Sun"]`)
	// It is not painted, but while it is selected it is seized where it lies.
	p.dragWith(chromedp.ModifierCtrl, 160, 100, 190, 110)
	p.settled()
	if s := p.placeOf("Sun"); s != "30 10 80 80 0" {
		t.Errorf("the mask was dragged to %s in its group, want 30 10", s)
	}
	p.undo()
	p.choose("What it is to its group", "inside")
	p.settled()
	at("within", 160, 100, plate)
	at("within", 90, 60, color.RGBA{255, 255, 255, 255})
	at("within", 50, 120, sea)
	p.wait(`document.querySelector('[data-row] [aria-label="A mask: the others show inside it"]')`)
	p.choose("What it is to its group", "")
	p.settled()
	at("like the others", 160, 100, sun)
	for range 3 {
		p.undo()
	}
	p.wait(`!document.querySelector('[data-row] [data-name="Group"]')`)
	at("undone", 160, 100, sun)
	// Only what is on at the playhead, at the begin of the scene: the sun has not come yet.
	p.key("n")
	p.wait(`document.querySelector('[aria-label="At rest, show all layers again (N)"]')`)
	at("only what is on now", 160, 100, plate)
	p.key("n")
	at("all again", 160, 100, sun)
}

// Set aside by its key a layer leaves the film; the card behind the last scene shows it; there it is changed, and brought back as it is then.
func TestWhatIsSetAsideIsSeenChangedAndBroughtBack(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(overlapping(), media.NewFolder(t.TempDir()))
	p.press(`[data-row] [data-name="Plate"]`)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("x")
	p.wait(`document.body.innerText.includes('“Plate” is set aside')`)
	p.wait(`!document.querySelector('[data-row] [data-name="Plate"]')`)
	if c := p.colourAt(90, 60); c != (color.RGBA{255, 255, 255, 255}) {
		t.Errorf("where it was there is %v", c)
	}
	length := browser.Eval[float64](t, p.ctx, `capstanProbe.engine.film().length`)
	p.press(`[data-aside]`)
	p.wait(`document.querySelector('[data-row] [data-name="Plate"]')`)
	p.click(90, 60)
	p.set("Wide", "60")
	p.settled()
	// Played, the film never goes there: at its end the last scene is shown.
	p.key(kb.Escape)
	p.key(kb.End)
	p.wait(`!document.querySelector('[data-aside]').matches('[aria-current=true]')`)
	if n := browser.Eval[float64](t, p.ctx, `capstanProbe.engine.film().length`); n != length {
		t.Errorf("the film lasts %v ms, it lasted %v", n, length)
	}
	p.press(`[data-aside]`)
	p.pressWord("Bring all back")
	p.wait(`document.body.innerText.includes('is back in the film')`)
	p.press(`[data-scene="0"]`)
	p.settled()
	if s := p.placeOf("Plate"); s != "160 120 60 150 0" {
		t.Errorf("brought back it lies at %s", s)
	}
	// What is empty is deleted from its card.
	p.press(`[data-aside]`)
	p.pressWord("Delete")
	p.wait(`!document.querySelector('[data-aside]')`)
	p.settled()
}

// The first and the last frame of a layer's moves stand on the page, faintly, with their times.
func TestFirstAndLastFramesAreShown(t *testing.T) {
	p := sit(t, startStudio(t))
	project := overlapping()
	project.Film.Scenes[0].Layers[0].Moves = []*doc.Move{{ID: "p", Kind: doc.MotionPath, Effect: doc.Along, Start: doc.Start{When: doc.AtTime, Offset: 300}, Duration: 900, Path: &doc.PathParams{D: "M0 0L0 80"}}}
	p.bring(project, media.NewFolder(t.TempDir()))
	p.press(`[data-row] [data-name="Sea"]`)
	p.do(chromedp.Focus(`[data-desk]`))
	seen := func() color.RGBA { // of the screen, left of the plate, where the path ends
		p.settled()
		x, y := p.at(30, 215)
		v := browser.Eval[[]float64](t, p.ctx, fmt.Sprintf(`(() => {
			const c = document.querySelector('[data-desk] canvas'), r = c.getBoundingClientRect()
			return [...c.getContext('2d').getImageData(%v - r.left, %v - r.top, 1, 1).data]
		})()`, x, y))
		return color.RGBA{uint8(v[0]), uint8(v[1]), uint8(v[2]), 255}
	}
	blank := seen()
	p.key("h")
	p.wait(`document.querySelectorAll('[data-end]').length === 2`)
	if times := browser.Eval[string](t, p.ctx, `[...document.querySelectorAll('[data-end]')].map(e => e.dataset.end + ' ' + e.textContent).join()`); times != "300 0.30,1200 1.20" {
		t.Errorf("the ends are at %s", times)
	}
	// 40 % of #4c9ab8 over white.
	if c := seen(); c == blank || !alike(c, color.RGBA{0xb7, 0xd7, 0xe3, 255}, 3) {
		t.Errorf("where it ends there is %v, before %v", c, blank)
	}
	p.key("h")
	p.wait(`!document.querySelector('[data-end]')`)
	if c := seen(); c != blank {
		t.Errorf("without it there is %v", c)
	}
}
