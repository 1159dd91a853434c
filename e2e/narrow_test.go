package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"

	"capstan/e2e/browser"
)

// On a screen 1024 wide, what stands in the bars of the editor stays inside of them, also while a tool has something to say.
func TestBarsFitANarrowScreen(t *testing.T) {
	p := sit(t, startStudio(t))
	for _, width := range []int64{1024, 1280} {
		p.do(chromedp.EmulateViewport(width, 768))
		p.open("/p/kite-day-opener")
		p.settled()
		for _, tool := range []string{"Freehand", "Pen", "Rectangle"} {
			p.press(`[role=toolbar] [aria-label="` + tool + `"]`)
			p.wait(`document.querySelector('[role=toolbar] [role=status]')`)
			out := browser.Eval[[]string](t, p.ctx, `[...document.querySelectorAll('[role=toolbar], header')].flatMap(bar => {
				const b = bar.getBoundingClientRect()
				return [...bar.querySelectorAll('*')].filter(e => { const r = e.getBoundingClientRect(); return r.width > 0 && (r.right > b.right + 1 || r.left < b.left - 1) })
					.map(e => e.tagName + ' ' + (e.ariaLabel ?? e.textContent))
			})`)
			if len(out) > 0 {
				t.Errorf("%d wide, %s: %v stand out", width, tool, out)
			}
		}
	}
}
