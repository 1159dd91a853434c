package e2e

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/e2e/browser"
	"capstan/studio/media"
)

// stored is the document as the server has it.
func (p *person) stored() string {
	p.t.Helper()
	p.settled()
	return browser.Eval[string](p.t, p.ctx, `fetch('/api/projects/' + location.pathname.split('/').pop()).then(r => r.json()).then(v => JSON.stringify(v.document))`)
}

// undone does something that changes the document, undoes it and does it again, by keys: each time all of the document is what it was.
func (p *person) undone(what string, do func()) {
	p.t.Helper()
	before := p.stored()
	do()
	after := p.stored()
	if before == after {
		p.t.Errorf("%s: nothing has changed", what)
		return
	}
	p.undo()
	if now := p.stored(); now != before {
		p.t.Errorf("%s: undone, the project is not what it was\n%s\n%s", what, before, now)
	}
	p.key("z", chromedp.ModifierCtrl, chromedp.ModifierShift)
	if now := p.stored(); now != after {
		p.t.Errorf("%s: done again it is something else", what)
	}
	p.undo()
}

// dragged presses in the window, goes by steps of the pointer to other places, says what stands beside it there, and lets go.
func (p *person) dragged(mods []chromedp.Modifier, at ...[2]float64) (said string) {
	p.t.Helper()
	o := []chromedp.MouseOption{chromedp.ButtonLeft, chromedp.ButtonModifiers(mods...)}
	from := at[0]
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, from[0], from[1], append(o, chromedp.ClickCount(1))...))
	for _, to := range at[1:] {
		for i := 1.0; i <= 8; i++ {
			p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, from[0]+(to[0]-from[0])*i/8, from[1]+(to[1]-from[1])*i/8, o...))
		}
		from = to
	}
	said = browser.Eval[string](p.t, p.ctx, `document.querySelector('[data-desk]').innerText.trim()`)
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, from[0], from[1], o...))
	p.settled()
	return said
}

// Whatever is dragged on the page says what it comes to, lands there, and is undone: moving, sizes, turns, the pivot, several as one.
func TestEveryDragSaysWhatItComesTo(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(tiles(), media.NewFolder(t.TempDir()))
	p.key("9") // nothing is selected: nothing happens
	k := browser.Eval[float64](t, p.ctx, `Number(document.querySelector('[data-page]').dataset.view.split(' ')[0])`)
	px := func(x, y float64) [2]float64 { ax, ay := p.at(x, y); return [2]float64{ax, ay} }
	by := func(h string, x, y float64) [2]float64 { ax, ay := p.middle(h); return [2]float64{ax + x*k, ay + y*k} }
	free := []chromedp.Modifier{chromedp.ModifierCtrl}
	with := func(m ...chromedp.Modifier) []chromedp.Modifier { return append(m, chromedp.ModifierCtrl) }
	about := func(deg float64) [2]float64 { // a place of the pointer about Straw's middle
		s, c := math.Sincos(deg * math.Pi / 180)
		return px(260+90*c, 180+90*s)
	}
	handle := func(name string) string { return fmt.Sprintf(`[data-handle="%s"]`, name) }
	one := func() { p.key(kb.Escape); p.do(chromedp.Focus(`[data-desk]`)); p.click(260, 180); p.settled() }
	pivot := func() { one(); p.pressWord("Pivot") }
	several := func() { p.do(chromedp.Focus(`[data-desk]`)); p.key("a", chromedp.ModifierCtrl); p.settled() }
	for _, c := range []struct {
		what  string
		first func()
		drag  func() string
		said  string
		lies  string
	}{
		{"moved", one, func() string { return p.dragged(free, px(245, 160), px(275, 180)) }, "+30, +20", "290 200 60 80 0"},
		{"moved along one axis", one, func() string { return p.dragged(with(chromedp.ModifierShift), px(245, 160), px(285, 170)) }, "+40, +0", "300 180 60 80 0"},
		{"snapped to the page", one, func() string { return p.dragged(nil, px(245, 160), px(304, 130)) }, "middle of the page", "320 150 60 80 0"},
		{"snapped to the edge of another", one, func() string { return p.dragged(nil, px(245, 160), px(146, 210)) }, "of Rust", "160 230 60 80 0"},
		{"as wide as another", one, func() string { return p.dragged(nil, by(handle("e"), 0, 0), by(handle("e"), 19, 0)) }, "as wide as Spruce", "270 180 80 80 0"},
		{"wider by its side", one, func() string { return p.dragged(free, by(handle("e"), 0, 0), by(handle("e"), 40, 7)) }, "100 × 80", "280 180 100 80 0"},
		{"from the middle", one, func() string {
			return p.dragged(with(chromedp.ModifierAlt), by(handle("e"), 0, 0), by(handle("e"), 10, 0))
		}, "80 × 80", "260 180 80 80 0"},
		{"by a corner", one, func() string { return p.dragged(free, by(handle("se"), 0, 0), by(handle("se"), 30, 20)) }, "90 × 100", "275 190 90 100 0"},
		{"in its proportions", one, func() string {
			return p.dragged(with(chromedp.ModifierShift), by(handle("nw"), 0, 0), by(handle("nw"), -60, 0))
		}, "120 × 160", "230 140 120 160 0"},
		{"turned", one, func() string { return p.dragged(free, by(handle("turn"), 0, 0), about(90), about(150)) }, "°", ""},
		{"turned by steps", one, func() string {
			return p.dragged(with(chromedp.ModifierShift), by(handle("turn"), 0, 0), about(80), about(127))
		}, "75.0°", "260 180 60 80 75"},
		{"turned more than once", one, func() string {
			return p.dragged(with(chromedp.ModifierShift), by(handle("turn"), 0, 0), about(90), about(180), about(270), about(0), about(92))
		}, "+1 turns", "260 180 60 80 405"},
		{"its pivot to a corner", pivot, func() string { return p.dragged(nil, by(handle("pivot"), 0, 0), px(231, 141)) }, "on the box", "260 180 60 80 0"},
		{"its pivot to another's edge", pivot, func() string { return p.dragged(nil, by(handle("pivot"), 0, 0), px(131, 101)) }, "of Rust", "260 180 60 80 0"},
		{"all as one", several, func() string { return p.dragged(free, by(handle("se"), 0, 0), by(handle("se"), 94, 50)) }, "120 %", ""},
		{"all as one, about the middle", several, func() string {
			return p.dragged(with(chromedp.ModifierAlt), by(handle("se"), 0, 0), by(handle("se"), 47, 25))
		}, "120 %", ""},
		{"all turned as one", several, func() string {
			return p.dragged(with(chromedp.ModifierShift), by(handle("turn"), 0, 0), px(305, 390), px(100, 390))
		}, "°", ""},
		{"a copy", one, func() string { return p.dragged(with(chromedp.ModifierAlt), px(245, 160), px(335, 100)) }, "a copy, +90, -60", "260 180 60 80 0"},
	} {
		c.first()
		var said, lies string
		p.undone(c.what, func() {
			said = c.drag()
			lies = p.placeOf("Straw")
		})
		if !strings.Contains(said, c.said) {
			t.Errorf("%s: it says %q, want %q", c.what, said, c.said)
		}
		if c.lies != "" && lies != c.lies {
			t.Errorf("%s: it lies at %s, want %s", c.what, lies, c.lies)
		}
	}
}
