package e2e

import (
	"fmt"
	"math"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/e2e/browser"
)

// Moves are within reach: the parts of the inspector are gone to in one press, and it opens where one was with that kind of layer; a move is
// added in two presses, from the rail, by a key, and on a row where it is pressed twice, from there on.
func TestMovesAreWithinReach(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	// at waits until a part of the column is at its top, or the column at its end with the part in it.
	at := func(part string) {
		t.Helper()
		p.wait(fmt.Sprintf(`(() => {
			const e = document.querySelector('[data-part=%s]'), c = e?.parentElement
			if (!e || document.querySelector('nav [aria-current]').innerText !== %[1]q) return false
			const top = e.getBoundingClientRect().top - c.getBoundingClientRect().top
			return Math.abs(top) < 2 || top > 0 && top < c.clientHeight && c.scrollTop + c.clientHeight >= c.scrollHeight - 1
		})()`, part))
	}
	p.press(`[data-name="Red kite"]`)
	at("Look")
	p.pressWord("Scenes")
	at("Scenes")
	p.wait(`[...document.querySelectorAll('[aria-label=Inspector] button')].some(b => b.innerText === 'Carry to all')`) // unfolded with it
	p.press(`[data-name="Title"]`)
	p.pressWord("Look")
	at("Look")
	p.press(`[data-name="Red kite"]`)
	at("Scenes")

	had := browser.Eval[int](t, p.ctx, `document.querySelectorAll('[data-bar]').length`)
	added := func(how string, begins float64) {
		t.Helper()
		had++
		p.wait(fmt.Sprintf(`document.querySelectorAll('[data-bar]').length === %d`, had))
		// Its fields are at the top of the column.
		p.wait(`(() => { const c = document.querySelector('[data-card]'); if (!c) return false; const r = c.getBoundingClientRect(), o = c.closest('.thin-scroll').getBoundingClientRect(); return r.top >= o.top && (r.top < o.top + 40 || r.bottom <= o.bottom) })()`)
		var v float64
		said := browser.Eval[string](t, p.ctx, `document.querySelector('[data-when] b').innerText`)
		if _, err := fmt.Sscanf(said, "%f", &v); err != nil || math.Abs(v-begins) > 0.03 {
			t.Errorf("%s: it begins at %q, not %v", how, said, begins)
		}
	}
	p.pressWord("Move")
	p.pressWord("Fade in")
	added("from the rail", 0)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("e")
	p.wait(`document.activeElement?.matches('[aria-label=Gallery] input')`)
	p.key(kb.ArrowDown)
	p.key(kb.Enter)
	added("by a key", 0)

	// Half a second before the title's fade, on its row.
	fade := bar("Fade, in", "Title")
	begin, end := p.clock(fade)
	spot := browser.Eval[[]float64](t, p.ctx, fmt.Sprintf(`(() => { const r = document.querySelector('%s [data-part=whole]').getBoundingClientRect(); return [r.left, r.right, r.top + r.height / 2] })()`, fade))
	p.key(kb.Escape)
	p.do(chromedp.MouseClickXY(spot[0]-0.5*(spot[1]-spot[0])/(end-begin), spot[2], chromedp.ClickCount(2)))
	p.pressWord("Spin")
	added("on a row", begin-0.5)

	// The keyboard is never nowhere: after a field that is left, what was deleted, the large view.
	there := `document.activeElement?.matches('[data-desk]')`
	p.do(chromedp.Focus(`[aria-label="Layer name"]`))
	p.key(kb.Escape)
	p.wait(there)
	p.do(chromedp.Focus(`[data-name="Bunting"]`))
	p.key(kb.Delete)
	p.wait(`!document.querySelector('[data-name="Bunting"]')`)
	p.wait(there)
	p.key("l")
	p.wait(`document.querySelector('[data-large]')`)
	p.key(kb.Escape)
	p.wait(`!document.querySelector('[data-large]')`)
	p.wait(there)

	// The border between page and timeline: pressed twice, all rows are seen, if the window has the room.
	p.do(chromedp.EmulateViewport(1280, 1800))
	x, y := p.middle(`[role=separator]`)
	p.do(chromedp.MouseClickXY(x, y, chromedp.ClickCount(2)))
	p.wait(`(() => { const v = document.querySelector('[data-timeline]'); return Math.abs(v.querySelector('[data-rows]').getBoundingClientRect().bottom - innerHeight) < 3 })()`)
	// In a low window it leaves the page its room.
	p.do(chromedp.EmulateViewport(1280, 500))
	p.wait(`document.querySelector('[data-desk]').clientHeight >= 160`)
}
