package e2e

import (
	"context"
	"math"
	"os"
	"testing"

	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/e2e/browser"
)

// audit runs axe-core (Deque, MPL 2.0) over what is shown and reports what it finds.
func (p *person) audit(screen string) {
	p.t.Helper()
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	if err != nil {
		p.t.Fatal(err)
	}
	// As a script of its own: the page's content security policy lets nobody evaluate words.
	browser.Eval[bool](p.t, p.ctx, string(axe)+"; true")
	found := browser.Eval[[]string](p.t, p.ctx, `axe.run(document, {resultTypes: ['violations'], runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'best-practice']}).then(r => r.violations.map(v => v.id + ' (' + v.impact + '): ' + v.help + ' – ' + v.nodes.slice(0, 4).map(n => n.html.slice(0, 160) + ' [' + (n.any[0]?.message ?? '') + ']').join(' | ')))`)
	for _, f := range found {
		p.t.Errorf("%s: %s", screen, f)
	}
}

// Every screen and sheet, as axe-core sees it.
func TestEveryScreenPassesAxe(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/")
	p.wait(`document.querySelector('[data-project]')`)
	p.audit("start")
	p.pressWord("Duplicate Kite Day at Fennel Quay: opener")
	p.wait(`document.querySelectorAll('[data-project]').length === 8`)
	p.pressWord("Put Kite Day at Fennel Quay: opener, copy into the bin")
	p.pressWord("Bin: 1 project")
	p.wait(`document.querySelector('[data-binned]')`)
	p.audit("start, with the bin open")
	p.open("/p/nobody")
	p.wait(`document.querySelector('[role=alert]')`)
	p.audit("a project that is not there")
	p.open("/p/kite-day-opener")
	p.settled()
	p.audit("editor at rest")
	p.click(1420, 250)
	p.wait(`document.querySelector('[aria-label="Across: middle, from the left"]')`)
	p.audit("editor, a group selected")
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("a", chromedp.ModifierCtrl)
	p.settled()
	p.audit("editor, everything selected")
	for _, sheet := range []string{"Stages", "Export film", "Keyboard shortcuts"} {
		p.pressWord(sheet)
		p.wait(`document.querySelector('[role=dialog]')`)
		p.audit(sheet)
		p.key(kb.Escape)
		p.wait(`!document.querySelector('[role=dialog]')`)
	}
	x, y := p.at(1420, 250)
	p.do(chromedp.MouseClickXY(x, y, chromedp.ButtonRight))
	p.wait(`document.querySelector('[role=menu]')`)
	p.audit("the menu at the pointer")
	p.key(kb.Escape)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("l")
	p.wait(`document.querySelector('[data-large]')`)
	p.audit("large view")
}

// littleMotion makes the browser one of a person who asked for little motion.
func (p *person) littleMotion() {
	p.do(chromedp.Func(func(ctx context.Context, _ *chromedp.Target) error {
		_, err := chromedp.Call(ctx, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{Features: []*emulation.MediaFeature{{Name: "prefers-reduced-motion", Value: "reduce"}}})
		return err
	}))
}

// Who asks for less motion gets none from the interface: only the film moves, and only when it is played.
func TestLessMotion(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.littleMotion()
	p.open("/p/kite-day-opener")
	p.settled()
	slow := browser.Eval[[]string](t, p.ctx, `[...document.querySelectorAll('*')].filter(e => { const s = getComputedStyle(e); const long = (v) => v.split(',').some(d => parseFloat(d) > 0.001); return long(s.transitionDuration) || long(s.animationDuration) && s.animationName !== 'none' }).map(e => e.outerHTML.slice(0, 120))`)
	if len(slow) > 0 {
		t.Errorf("%d parts still move: %v", len(slow), slow[:min(3, len(slow))])
	}
	p.pressWord("Export film")
	p.choose("Size", "240")
	p.pressWord("Export MP4")
	p.wait(`document.querySelector('[data-state=done]')`)
	p.press(`[data-export] button[aria-expanded]`)
	p.wait(`document.querySelector('video')?.readyState > 1`)
	if !browser.Eval[bool](t, p.ctx, `document.querySelector('video').paused`) {
		t.Error("an export plays by itself")
	}
	if v := browser.Eval[[]float64](t, p.ctx, `(() => { const v = document.querySelector('video'); return [v.duration, v.videoWidth, v.videoHeight] })()`); math.Abs(v[0]-12.7) > 0.04 || v[1] != 426 || v[2] != 240 {
		t.Errorf("the browser’s player finds %v s of %v x %v", v[0], v[1], v[2])
	}
}
