package e2e

import (
	"math"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/e2e/browser"
)

// The scene gets a view: its frame is dragged on the page, it pushes in by one press, and what is seen follows; layers get depths by their order.
func TestTheViewIsDragged(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	p.press(`[data-scene="1"]`)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.Escape)
	before := p.stored()
	p.pressWord("Add a view")
	p.wait(`document.querySelector('[data-frame]')`)
	p.set("Zoom of the view", "200")
	p.settled()
	// By its line, from the upper edge: half the page is seen, in the middle.
	p.drag(700, 270, 700, 400)
	p.settled()
	place := func() []float64 {
		return browser.Eval[[]float64](t, p.ctx, `(() => { const r = capstanProbe.engine.rows({ rest: true, scene: 1, time: 0 })[0]; const l = capstanProbe.engine.selection({ rest: true, scene: 1, time: 0 }, [r.thread])[0].layer; return [l.place.x, l.place.y, l.place.w, l.place.h] })()`)
	}
	v := place()
	if math.Abs(v[0]-960) > 20 || math.Abs(v[1]-670) > 25 || v[2] != 960 || v[3] != 540 {
		t.Errorf("dragged it shows %v", v)
	}
	p.shot("view")
	// What is seen is that part of the page, twice as large.
	rest := p.pixels(1, 8800, true, 960, 540, "#fff")
	seen := p.pixels(1, 8800, false, 960, 540, "#fff")
	near := func(a, b [3]uint8) bool {
		for i := range a {
			if d := int(a[i]) - int(b[i]); d > 12 || d < -12 {
				return false
			}
		}
		return true
	}
	same := 0
	for _, at := range [][2]int{{100, 500}, {200, 510}, {760, 505}, {850, 500}} { // water and quay, which stand still, beside what is said
		a, b := seen.RGBAAt(at[0], at[1]), rest.RGBAAt(int(v[0]+float64(at[0]-480))/2, int(v[1]+float64(at[1]-270))/2)
		if near([3]uint8{a.R, a.G, a.B}, [3]uint8{b.R, b.G, b.B}) {
			same++
		}
	}
	if same < 4 {
		t.Errorf("%d of 4 points are seen as they lie", same)
	}
	p.pressWord("Push in")
	p.settled()
	p.wait(`document.querySelector('[data-bar][aria-label^="Change, View"]')`)
	p.undo()
	// Water in depth.
	p.press(`[data-row="t-water"] [data-name]`)
	p.shiftPress(`[data-row="t-near"] [data-name]`)
	p.pressWord("Depth")
	p.pressWord("Spread in depth")
	p.settled()
	depth := browser.Eval[[]float64](t, p.ctx, `capstanProbe.engine.selection({ rest: true, scene: 1, time: 0 }, ['t-water', 't-near']).map((s) => s.layer.depth || 1)`)
	if depth[0] != 1.6 || depth[1] != 1 {
		t.Errorf("their depths are %v", depth)
	}
	for range 4 {
		p.undo()
	}
	if p.stored() != before {
		t.Error("undone, something is left")
	}
}
