package e2e

import (
	"math"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/e2e/browser"
)

// From a time on a layer is something else: it is moved, made fainter and coloured as it is to be then, at rest it stays as it was. Then one is
// emphasised in one press, and the film shows both.
func TestALayerIsChanged(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	p.press(`[data-scene="1"]`)
	p.press(`[data-row="t-small"] [data-name]`)
	before := p.stored()
	// The playhead to 2.2 s of the scene, where the kite is shown.
	p.press(`[aria-label^="The playhead is at"]`)
	p.set("Time of the playhead", "8")
	p.settled()
	x, y := p.middle(`[data-row="t-small"] [data-name]`)
	p.do(chromedp.MouseClickXY(x, y, chromedp.ButtonRight))
	p.wait(`document.querySelector('[role=menu]')`)
	p.pressWordIn(`[role=menuitem]`, "Change from here")
	p.settled()
	p.wait(`document.querySelector('[data-after]')`)
	if said := browser.Eval[string](t, p.ctx, `document.querySelector('[data-after]').textContent`); !strings.HasPrefix(said, "after the change at 2.20 s") {
		t.Errorf("it says %q", said)
	}
	p.drag(1480, 300, 1540, 180)
	p.settled()
	p.set("Opacity", "50")
	p.settled()
	p.shot("change")
	place := func() [2]float64 {
		return [2]float64(browser.Eval[[]float64](t, p.ctx, `(() => { const l = capstanProbe.engine.selection({ rest: true, scene: 1, time: 0 }, ['t-small'])[0].layer; return [l.place.x, l.place.y] })()`))
	}
	if at := place(); math.Abs(at[0]-1540) > 20 || math.Abs(at[1]-180) > 20 {
		t.Errorf("shown after the change it stands at %v", at)
	}
	bar := `[data-bar][aria-label^="Change, Small kite"]`
	if w := p.words(bar); !strings.Contains(w, "at 2.20 s · 0.60 s · place, opacity") {
		t.Errorf("its bar says %q", w)
	}
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.Escape) // lets go of the bar
	p.key(kb.Escape)
	p.wait(`!document.querySelector('[data-after]')`)
	p.press(`[data-row="t-small"] [data-name]`)
	if at := place(); at != [2]float64{1480, 300} {
		t.Errorf("at rest it stands at %v", at)
	}
	// In the film it is there after the change, fainter, and not where it was; before it, it is as it was.
	dark := func(ms float64, x, y int) int {
		c := p.pixels(1, ms, false, 960, 540, "#fff").RGBAAt(x, y)
		return 765 - int(c.R) - int(c.G) - int(c.B)
	}
	if was, is := dark(7900, 740, 214), dark(8900, 740, 214); is > was-60 {
		t.Errorf("where it was it is %d dark before and %d after", was, is)
	}
	if was, is := dark(7900, 770, 42), dark(8900, 770, 42); is < was+60 {
		t.Errorf("where it comes to it is %d dark before and %d after", was, is)
	}
	// The place is left out of it: it stays, and fades.
	p.press(bar + ` [data-part=whole]`)
	p.press(`[aria-label="Leave place as it is"]`)
	p.settled()
	if w := p.words(bar); !strings.HasSuffix(w, "· opacity") {
		t.Errorf("its bar says %q", w)
	}
	p.press(`[data-row="t-title"] [data-name]`)
	x, y = p.middle(`[data-row="t-title"] [data-name]`)
	p.do(chromedp.MouseClickXY(x, y, chromedp.ButtonRight))
	p.wait(`document.querySelector('[role=menu]')`)
	p.pressWordIn(`[role=menuitem]`, "Emphasise")
	p.settled()
	if w := p.words(`[data-bar][aria-label^="Change, Title"]`); !strings.Contains(w, "2 × 0.40 s · scale") {
		t.Errorf("emphasised it says %q", w)
	}
	// Both meet: the one that begins later begins earlier, and goes on ending with the other.
	title := `[data-bar][aria-label^="Change, Title"]`
	p.press(bar + ` [data-part=whole]`)
	x, y = p.middle(title + ` [data-part=whole]`)
	p.do(chromedp.MouseClickXY(x, y, chromedp.ButtonModifiers(chromedp.ModifierShift)))
	p.do(chromedp.MouseClickXY(x, y, chromedp.ButtonRight))
	p.wait(`document.querySelector('[role=menu]')`)
	p.pressWordIn(`[role=menuitem]`, "Begin “Small kite” 2.00 s earlier")
	p.settled()
	if ends := browser.Eval[[]float64](t, p.ctx, `['t-small', 't-title'].map((l) => capstanProbe.engine.selection({ rest: true, scene: 1, time: 0 }, [l])[0].moves.find((m) => m.kind === 'change').finish)`); ends[0] != ends[1] {
		t.Errorf("they end at %v", ends)
	}
	for range 6 {
		p.undo()
	}
	if p.stored() != before {
		t.Error("undone, something is left")
	}
}
