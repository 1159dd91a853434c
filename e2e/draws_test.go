package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/e2e/browser"
)

// A scene is drawn by one press: its layers one after another, as one bar whose inner borders are dragged, the total unchanged; then a sign turns over.
func TestTheSceneIsDrawn(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	x, y := p.middle(`[data-scene="2"]`)
	p.do(chromedp.MouseClickXY(x, y, chromedp.ButtonRight))
	p.wait(`document.querySelector('[role=menu]')`)
	before := p.stored()
	p.pressWordIn(`[role=menuitem]`, "Draw the scene")
	p.settled()
	drawn := `capstanProbe.engine.rows({ rest: true, scene: 2, time: 0 }).flatMap(r => r.bars.filter(b => b.scene === 2 && b.name?.startsWith('Draw on')))`
	if n := browser.Eval[int](t, p.ctx, drawn+`.length`); n != 9 {
		t.Errorf("%d of 9 layers are drawn", n)
	}
	p.press(`[data-row="t-plate"] [data-name]`)
	p.press(`[data-bar][aria-label*="Draw on"][aria-label*="Plate"] [data-part=whole]`)
	p.wait(`document.querySelector('[data-run]')`)
	parts := func() []float64 {
		return browser.Eval[[]float64](t, p.ctx, `[...document.querySelectorAll('[data-run] button')].map(e => Math.round(e.getBoundingClientRect().width * 10) / 10)`)
	}
	says := func() string {
		return browser.Eval[string](t, p.ctx, `document.querySelector('[data-run]').previousSibling.textContent`)
	}
	was, all := parts(), says()
	if len(was) != 9 {
		t.Fatalf("the bar has %d parts: %v", len(was), was)
	}
	x, y = p.middle(`[data-border="0"]`)
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, x, y, chromedp.ButtonLeft))
	for by := 2.0; by <= 12; by += 2 {
		p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x+by, y, chromedp.ButtonLeft))
	}
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, x+12, y, chromedp.ButtonLeft))
	p.settled()
	if is := parts(); is[0] < was[0]+6 || is[1] > was[1]-6 || is[2] != was[2] || says() != all {
		t.Errorf("dragged by 12 px: from %v to %v, %q to %q", was, is, all, says())
	}
	p.do(chromedp.Focus(`[data-border="3"]`))
	p.key(kb.ArrowRight)
	p.settled()
	if says() != all {
		t.Errorf("by a key all of it is %q, not %q", says(), all)
	}
	p.undo()
	p.undo()
	p.undo()
	if p.stored() != before {
		t.Error("three undone steps leave something behind")
	}

	// Two sides of a sign.
	p.do(chromedp.Focus(`[data-desk]`))
	p.press(`[data-row="t-day"] [data-name]`)
	x, y = p.middle(`[data-row="t-where"] [data-name]`)
	p.do(chromedp.MouseClickXY(x, y, chromedp.ButtonModifiers(chromedp.ModifierCtrl)))
	p.settled()
	p.pressWord("Turn over")
	p.settled()
	for _, b := range []string{`[data-bar][aria-label*="Hinge, out, Day"]`, `[data-bar][aria-label*="Hinge, in, Where"]`} {
		p.wait(fmt.Sprintf(`document.querySelector('%s')`, b))
	}
}
