package e2e

import (
	"testing"

	"capstan/e2e/browser"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// In the pairs of two scenes a line is pressed, and its layer is new in the later one; what could go on as what is offered; layers are joined from
// the offer, by dragging from one page to the other, and from the list; each is one step to undo.
func TestPairsAreJoinedAndCut(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	p.press(`[data-scene="1"]`)
	p.settled()
	p.key(kb.Escape)
	was := p.stored()
	p.pressWord("Pairs: what goes on as what …")
	title := browser.Eval[string](t, p.ctx, `document.querySelector('[aria-label^="Cut “Title”"]').dataset.pair`)
	line := `[data-pair="` + title + `"]`
	x, y := p.middle(line)
	p.do(chromedp.MouseClickXY(x, y))
	p.settled()
	p.wait(`!document.querySelector('` + line + `') && document.querySelector('[data-offered]').innerText.includes('the same words')`)
	p.press(`[data-offered] button`)
	p.settled()
	if p.stored() != was {
		t.Error("cut and joined again it is not what it was")
	}
	// By the keyboard it is cut, by the mouse joined.
	browser.Eval[bool](t, p.ctx, `(document.querySelector('`+line+`').focus(), true)`)
	p.key(kb.Enter)
	p.settled()
	p.wait(`document.querySelector('[data-offered]')`)
	x, y = p.middle(`[data-mate="` + title + `"]`)
	later := `[data-mate="` + browser.Eval[string](t, p.ctx, `document.querySelector('[data-offered]').dataset.offered`) + `"]`
	to, down := p.middle(later)
	p.pullXY(x-20, y, to-x+20, down-y-4)
	p.settled()
	if p.stored() != was {
		t.Errorf("dragged onto its like it is not what it was: %v", p.notices())
	}
	// Another layer of the first scene: the one that was cut goes on as that.
	browser.Eval[bool](t, p.ctx, `(document.querySelector('`+line+`').focus(), true)`)
	p.key(kb.Enter)
	p.settled()
	p.wait(`document.querySelector('[data-loose]')`)
	name := browser.Eval[string](t, p.ctx, `document.querySelector('[data-loose] [data-choice]').dataset.choice`)
	p.choose(name, "t-sub")
	p.settled()
	p.wait(`document.querySelector('[data-pair="t-sub"]')`)
	p.key(kb.Escape)
	p.undo()
	p.undo()
	if p.stored() != was {
		t.Error("undone it is not what it was")
	}
	// What the second scene does not have goes out by a side of the page, unfaded: half way the bunting's line is over the lower edge.
	p.press(`[data-scene="0"]`)
	p.settled()
	p.press(`[data-row="` + browser.Eval[string](t, p.ctx, `[...document.querySelectorAll('[data-row]')].find(r => r.innerText.startsWith('Bunting')).dataset.row`) + `"] [data-name]`)
	p.settled()
	p.look(`document.querySelector('[data-wing]')`)
	before := p.pixels(0, 5200, false, 480, 270, "#fff")
	p.choose("How it goes out with the morph", "bottom")
	p.settled()
	p.wait(`document.querySelector('[data-flight=bottom]')?.textContent.includes('↓')`)
	after := p.pixels(0, 5200, false, 480, 270, "#fff")
	differs := 0
	for i := range before.Pix {
		if before.Pix[i] != after.Pix[i] {
			differs++
		}
	}
	if differs < 400 {
		t.Errorf("half way of the morph %d bytes are others", differs)
	}
}
