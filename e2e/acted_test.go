package e2e

import (
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"

	"capstan/e2e/browser"
)

// A path is acted: the layer is dragged as it is to go, and goes so; a notice says of how few points it is.
func TestAPathIsActed(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	p.press(`[data-scene="1"]`)
	p.press(`[data-row="t-small"] [data-name]`)
	before := p.stored()
	p.pressWord("Add a move")
	p.offered()
	p.pressWord("Act a path")
	x, y := p.at(1480, 300)
	left := []chromedp.MouseOption{chromedp.ButtonType("left"), chromedp.ClickCount(1)}
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, x, y, left...))
	began := time.Now()
	for i := range 30 {
		p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x+float64(i)*4, y+float64(i%10), left...))
		time.Sleep(15 * time.Millisecond) // it is acted, in time
	}
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, x+116, y+9, left...))
	took := time.Since(began).Milliseconds()
	p.settled()
	bar := `[data-bar][aria-label^="Path, Small kite"]`
	p.wait(`document.querySelector('` + bar + `')`)
	if all := strings.Join(p.notices(), " "); !strings.Contains(all, "Acted:") {
		t.Errorf("it says %q", all)
	}
	lasts := browser.Eval[float64](t, p.ctx, `capstanProbe.engine.selection({ rest: true, scene: 1, time: 0 }, ['t-small'])[0].moves.find((m) => m.kind === 'path').duration`)
	if lasts < 350 || lasts > float64(took)+50 {
		t.Errorf("acted in %d ms it takes %v", took, lasts)
	}
	// It has gone where it was dragged, and rests where it did.
	end := browser.Eval[[]float64](t, p.ctx, `capstanProbe.engine.overlay({ rest: true, scene: 1, time: 0 }, ['t-small']).paths[0].to`)
	scale := p.perPage()
	if d := end[0] - 1480 - 116/scale; d < -8 || d > 8 {
		t.Errorf("it goes to %v, by %.0f px on the screen", end, 116.0)
	}
	p.undo()
	if p.stored() != before {
		t.Error("undone, something is left")
	}
}

// perPage is how many px of the screen a px of the page takes.
func (p *person) perPage() float64 {
	return browser.Eval[float64](p.t, p.ctx, `Number(document.querySelector('[data-page]').dataset.view.split(' ')[0])`)
}
