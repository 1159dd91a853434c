package e2e

import (
	"testing"

	"capstan/e2e/browser"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

func TestZZ(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	p.shot("z1-scene")
	p.press(`[aria-label="Linear gradient"]`)
	p.settled()
	p.shot("z2-gradient")
	p.press(row("Red kite"))
	p.settled()
	browser.Eval[bool](t, p.ctx, `(document.querySelector('[data-strands]')?.scrollIntoView({block:'center'}), true)`)
	p.shot("z3-kite")
	p.press(`[data-scene="1"]`)
	p.settled()
	p.press(row("Red kite"))
	p.settled()
	browser.Eval[bool](t, p.ctx, `(document.querySelector('[data-strands]')?.scrollIntoView({block:'center'}), true)`)
	p.shot("z4-strand")
	p.press(`[data-scene="2"]`)
	p.settled()
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("a", chromedp.ModifierCtrl)
	p.settled()
	browser.Eval[bool](t, p.ctx, `([...document.querySelectorAll('h2')].find(h => h.innerText === 'Moves').scrollIntoView({block:'start'}), true)`)
	p.shot("z5-kinds")
	p.press(`[aria-label="Moves by kind"] button`)
	p.settled()
	browser.Eval[bool](t, p.ctx, `([...document.querySelectorAll('h2')].find(h => h.innerText === 'Moves').scrollIntoView({block:'start'}), true)`)
	p.shot("z6-shared")
	browser.Eval[bool](t, p.ctx, `([...document.querySelectorAll('h2')].find(h => h.innerText === 'Timing').scrollIntoView({block:'start'}), true)`)
	p.shot("z7-timing")
	p.key(kb.Escape)
	p.key("?")
	p.shot("z8-keys")
	p.key(kb.Escape)
	p.pressWord("Export film")
	p.pressWord("GIF")
	p.shot("z9-export")
}
