package e2e

import (
	"context"
	"fmt"
	"math"
	"strconv"
	"strings"
	"testing"

	"capstan/e2e/browser"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// number reads a field of the inspector.
func (p *person) number(name string) float64 {
	p.t.Helper()
	v, err := strconv.ParseFloat(browser.Eval[string](p.t, p.ctx, fmt.Sprintf(`document.querySelector('[aria-label="%s"]').value`, name)), 64)
	if err != nil {
		p.t.Fatal(err)
	}
	return v
}

// middle returns where the middle of an element lies in the window.
func (p *person) middle(selector string) (float64, float64) {
	p.t.Helper()
	p.wait(fmt.Sprintf(`document.querySelector('%s')`, selector))
	v := browser.Eval[[]float64](p.t, p.ctx, fmt.Sprintf(`(() => { const r = document.querySelector('%s').getBoundingClientRect(); return [r.left + r.width / 2, r.top + r.height / 2] })()`, selector))
	return v[0], v[1]
}

func (p *person) dragBy(selector string, dx, dy float64) {
	p.t.Helper()
	x, y := p.middle(selector)
	p.do(chromedp.DragAndDropXY(x, y, x+dx, y+dy))
	p.settled()
}

// What the pointer does on the desk: handles, the turning arc, a frame around several, the wheel, and moving the page.
func TestHandlesMarqueeZoomAndPan(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/p/kite-day-opener")
	p.settled()
	p.press(`[data-scene="2"]`)
	p.settled()
	p.press(`[data-row="t-plate"] [data-name]`)
	scale := browser.Eval[float64](t, p.ctx, `Number(document.querySelector('[data-page]').dataset.view.split(' ')[0])`)
	w, h, x := p.number("Wide"), p.number("High"), p.number("Across: middle, from the left")
	p.pull(`[data-handle=se]`, "", 40, 20, chromedp.ModifierCtrl) // nothing snaps
	if dw, dh, dx := p.number("Wide")-w, p.number("High")-h, p.number("Across: middle, from the left")-x; math.Abs(dw-40/scale) > 2 || math.Abs(dh-20/scale) > 2 || math.Abs(dx-20/scale) > 2 {
		t.Errorf("the corner dragged by 40, 20 px at %.3f: wider by %v, higher by %v, its middle across by %v", scale, dw, dh, dx)
	}
	p.pull(`[data-handle=w]`, "", -30, 0, chromedp.ModifierCtrl)
	if dw := p.number("Wide") - w; math.Abs(dw-70/scale) > 3 {
		t.Errorf("and its left side by 30 px: wider by %v", dw)
	}
	hx, hy := p.middle(`[data-handle=turn]`)
	cx, cy := p.at(p.number("Across: middle, from the left"), p.number("Down: middle, from the top"))
	r, a := math.Hypot(hx-cx, hy-cy), math.Atan2(hy-cy, hx-cx)+math.Pi/6
	p.do(chromedp.DragAndDropXY(hx, hy, cx+r*math.Cos(a), cy+r*math.Sin(a)))
	p.settled()
	p.shot("turned")
	if turn := p.number("Turn"); math.Abs(turn-30) > 1 {
		t.Errorf("turned by a twelfth of a circle it stands at %v", turn)
	}
	p.key(kb.Escape)

	// A frame around the words and the plate.
	p.drag(200, 120, 1800, 1000)
	p.settled()
	if n := browser.Eval[int](t, p.ctx, `document.querySelectorAll('[data-name][aria-pressed=true]').length`); n < 3 {
		t.Errorf("a frame around everything in the middle selects %d layers", n)
	}
	p.click(20, 1060)
	if n := browser.Eval[int](t, p.ctx, `document.querySelectorAll('[data-name][aria-pressed=true]').length`); n != 0 {
		t.Errorf("a press on the ground leaves %d selected", n)
	}

	// The wheel zooms at the pointer: what lies under it stays there.
	ax, ay := p.at(960, 424)
	p.do(chromedp.Func(func(ctx context.Context, _ *chromedp.Target) error {
		_, err := chromedp.Call(ctx, input.DispatchMouseEvent, input.DispatchMouseEventParams{Type: input.DispatchMouseEventTypeMouseWheel, X: ax, Y: ay, DeltaX: 0.01, DeltaY: -400})
		return err
	}))
	p.wait(`Number(document.querySelector('[data-page]').dataset.view.split(' ')[0]) > ` + fmt.Sprint(scale*1.5))
	if bx, by := p.at(960, 424); math.Abs(bx-ax)+math.Abs(by-ay) > 2.5 {
		t.Errorf("zooming moved the point under the pointer from %v, %v to %v, %v", ax, ay, bx, by)
	}
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("0")
	p.wait(fmt.Sprintf(`Math.abs(Number(document.querySelector('[data-page]').dataset.view.split(' ')[0]) - %v) < 1e-6`, scale))

	// The divider gives the page more room.
	y := browser.Eval[float64](t, p.ctx, `document.querySelector('[data-desk]').clientHeight`)
	p.dragBy(`[role=separator]`, 0, 60)
	if now := browser.Eval[float64](t, p.ctx, `document.querySelector('[data-desk]').clientHeight`); math.Abs(now-y-60) > 2 {
		t.Errorf("the divider dragged down by 60 px makes the desk %v higher", now-y)
	}
}

// A row dragged above another changes what lies in front, in the picture too.
func TestRowsAreDraggedToReorder(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/p/kite-day-opener")
	p.settled()
	order := func() []string {
		return browser.Eval[[]string](t, p.ctx, `[...document.querySelectorAll('[data-row]')].map(r => r.dataset.row)`)
	}
	if o := order(); o[0] != "t-kite" || o[2] != "t-title" {
		t.Fatalf("rows %v", o)
	}
	// Over the kite's tail the words lie behind; dragged above it they lie in front.
	x0, y0 := p.middle(`[data-row="t-title"] [data-name]`)
	x1, y1 := p.middle(`[data-row="t-kite"] [data-name]`)
	p.do(chromedp.DragAndDropXY(x0, y0, x1, y1-9))
	p.settled()
	if o := order(); o[0] != "t-title" || o[1] != "t-kite" {
		t.Errorf("rows %v", o)
	}
	x0, y0 = p.middle(`[data-row="t-sub"] [data-name]`)
	x1, y1 = p.middle(`[data-row="t-kite"] [data-name]`)
	p.do(chromedp.DragAndDropXY(x0, y0, x1, y1))
	p.settled()
	p.pressWord("Unfold Red kite")
	if o := order(); o[1] != "t-kite" || o[2] != "t-sub" {
		t.Errorf("dropped on the middle of the group, the words are in it: %v", o)
	}
	if moved := browser.Eval[float64](t, p.ctx, `(() => { const e = capstanProbe.engine, q = e.overlay({rest: true, scene: 0, time: 0}, ['t-sub']).boxes[0].corners[0]; return Math.hypot(q[0] - 150, q[1] - 716) })()`); moved > 0.5 {
		t.Errorf("and stay where they are on the page, within %v px", moved)
	}
}

// A bar dragged near the end of another snaps to it, and says so in words; its hitch is drawn while its row is selected.
func TestBarsSnapWithWords(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/p/kite-day-opener")
	p.settled()
	perMs := browser.Eval[float64](t, p.ctx, `(() => { const a = document.querySelector('[data-scene="0"]').getBoundingClientRect(); return (a.width + 1) / 4600 })()`)
	x, y := p.middle(`[data-bar][aria-label^="Fade, in, Title"] [data-part=end]`)
	left := chromedp.ButtonType("left")
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, x, y, left, chromedp.ClickCount(1)))
	for i := 1.0; i <= 10; i++ {
		p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x+i/10*(1400*perMs+3), y, left))
	}
	p.wait(`document.body.innerText.includes('ends when Path of Red kite ends')`)
	p.shot("snapping")
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, x+1400*perMs+3, y, left, chromedp.ClickCount(1)))
	p.settled()
	if got := browser.Eval[string](t, p.ctx, `document.querySelector('[data-bar][aria-label^="Fade, in, Title"]').getAttribute('aria-label')`); !strings.HasPrefix(got, "Fade, in, Title: at 0.90 s · 2.30 s, scene 1") {
		t.Errorf("snapped: %s", got)
	}
	p.press(`[data-row="t-sub"] [data-name]`)
	p.settled()
	p.shot("hitch")
	if n := browser.Eval[int](t, p.ctx, `document.querySelectorAll('[data-timeline] svg g[stroke="#4C9AB8"] circle').length`); n != 2 {
		t.Errorf("%d ends of hitches are drawn", n)
	}
}
