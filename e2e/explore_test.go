package e2e

import (
	"testing"
	"os"
	"path/filepath"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

func TestExplore(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/p/kite-day-opener")
	p.settled()
	p.pressWord("Stages")
	p.wait(`document.querySelector('[aria-label="Name of the stage"]')`)
	p.shot("x-stages-empty")
	p.do(chromedp.KeyEvent("before the colours"+kb.Enter))
	p.wait(`document.querySelector('[data-stage]')`)
	p.key(kb.Escape)
	p.click(1420, 250)
	p.do(chromedp.Focus(`[data-desk]`))
	for range 12 { p.key(kb.ArrowDown, chromedp.ModifierShift) }
	p.settled()
	p.pressWord("Stages")
	p.wait(`document.querySelector('[data-stage]')`)
	p.do(chromedp.Sleep(800*1e6))
	p.shot("x-stages")
	p.pressWord("Return to this stage")
	p.do(chromedp.Sleep(500*1e6))
	p.shot("x-returned")
	p.pressWord("Export film")
	p.pressWord("PNG still")
	p.pressWord("Export PNG")
	p.wait(`document.querySelector('[data-state=done]')`)
	p.pressWord("GIF")
	p.choose("Size", "240")
	p.pressWord("Export GIF")
	p.wait(`document.querySelectorAll('[data-state=done]').length === 2`)
	p.press(`[data-export] button[aria-expanded]`)
	p.do(chromedp.Sleep(800*1e6))
	p.shot("x-exports")
	p.key(kb.Escape)
	// the sky's file goes missing
	m, _ := filepath.Glob(filepath.Join(s.dir, "media", "*"))
	for _, f := range m { os.RemoveAll(f) }
	p.open("/p/kite-day-opener")
	p.settled()
	p.do(chromedp.Sleep(500*1e6))
	p.click(60, 500)
	p.do(chromedp.Sleep(500*1e6))
	p.shot("x-missing")
	p.open("/")
	p.do(chromedp.Sleep(900*1e6))
	p.shot("x-start")
}
