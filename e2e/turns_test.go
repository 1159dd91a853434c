package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp"

	"capstan/e2e/browser"
)

// Layers are there for a while, take turns and all come in by a press each; a text runs as a band; a wheel that seems to stand is told, and turned at
// a speed at which it is not: with the pointer, and undone.
func TestTurnsBandsAndWheels(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-talk")
	p.press(`[data-scene="1"]`)
	p.settled()
	unfold := func() {
		for range 2 { // what lies in a fold can be unfolded once that is
			p.look(`document.querySelector('[data-choice="How they go"]')`)
		}
	}
	p.press(row("wind"))
	p.settled()
	unfold()
	p.set("Only from", "1")
	p.set("Only to", "2.5")
	p.pressWord("Show only then")
	p.settled()
	p.wait(`document.querySelector('[data-bar][aria-label^="At once, in, wind: at 1.00 s"]') && document.querySelector('[data-bar][aria-label^="At once, out, wind: at 2.50 s"]')`)

	p.shiftPress(row("a line"))
	p.settled()
	unfold()
	p.choose("How they come", "scale")
	p.choose("How they go", "focus")
	p.pressWord("In turn")
	p.settled()
	p.wait(`document.querySelector('[data-bar][aria-label^="Scale, in, a line: when Focus, out of wind ends"]')`)

	p.press(`[data-scene="2"]`)
	p.settled()
	p.press(row("Closing words"))
	p.settled()
	p.do(chromedp.ScrollIntoView(`[aria-label="Angle of the band"]`))
	p.set("Angle of the band", "-6")
	p.pressWord("Running band")
	p.settled()
	p.wait(`document.querySelector('[data-bar][aria-label^="Scroll, Closing words"]')`)

	// A pinwheel has four sails of either colour: at 60 ms a turn they pass by two at a time.
	p.press(`[data-scene="1"]`)
	p.settled()
	p.press(row("Pinwheel 4"))
	p.settled()
	p.pressWord("Add a move")
	p.pressWord("Spin")
	p.settled()
	p.set("Duration", "0.13")
	p.settled()
	if said := browser.Eval[string](t, p.ctx, `document.querySelector('[data-wheel]')?.innerText ?? ''`); !strings.Contains(said, "its 4 equal parts make that it seems to stand") {
		t.Errorf("a turn in 0.13 s: %q", said)
	}
	p.press(`[data-wheel] button`)
	p.settled()
	p.wait(`!document.querySelector('[data-wheel]')`)
	for range 20 {
		if browser.Eval[bool](t, p.ctx, `!!document.querySelector('[data-bar][aria-label^="Clock, in, wind"]')`) {
			break
		}
		p.undo()
	}
	p.wait(`!document.querySelector('[data-bar][aria-label^="Spin"]') && document.querySelector('[data-bar][aria-label^="Clock, in, wind"]')`)
}
