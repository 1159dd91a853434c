package e2e

import (
	"os"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// TestScreenshots refreshes the pictures of the main views from the demo data. It runs on demand: make screenshots.
func TestScreenshots(t *testing.T) {
	if os.Getenv("CAPSTAN_SHOTS") == "" {
		t.Skip("on demand: make screenshots")
	}
	p := sit(t, startStudio(t))
	p.open("/")
	p.wait(`document.querySelector('img[src*=thumbnail]')?.complete`)
	p.shot("start")
	p.open("/p/kite-day-opener")
	p.settled()
	p.do(chromedp.Sleep(700e6))
	p.shot("editor-at-rest")
	p.click(1420, 250)
	p.settled()
	p.do(chromedp.Sleep(700e6))
	p.shot("editor-selected")
	// A stage beside what came of it.
	p.pressWord("Stages")
	p.do(chromedp.KeyEvent("kite on the right" + kb.Enter))
	p.wait(`document.querySelector('[data-stage]')`)
	p.key(kb.Escape)
	p.set("Across: middle, from the left", "900")
	p.settled()
	p.pressWord("Stages")
	p.wait(`document.querySelector('figure img')?.naturalWidth > 0`)
	p.wait(`!document.querySelector('[data-notice]')`)
	p.shot("stages")
	p.key(kb.Escape)
	p.undo()
	p.key(kb.Escape)
	// A gradient on the shape, with a stroke and a shadow.
	p.press(`[data-scene="2"]`)
	p.settled()
	p.click(500, 700)
	p.settled()
	p.press(`[aria-label="Linear gradient"]`)
	p.settled()
	p.press(`[aria-label="Add a colour"]`)
	p.settled()
	p.press(`[aria-label="Stroke in one colour"]`)
	p.settled()
	p.pressWord("Cast one")
	p.settled()
	x, y := p.middle(`[data-handle="gradient-to"]`)
	p.pullXY(x, y, 90, -30)
	p.do(chromedp.Sleep(700e6))
	p.shot("look-gradient")
	for range 6 {
		p.undo()
	}
	p.settled()
	// Rings on a star, and the colour field of a scene with roles.
	p.open("/p/kite-day-post")
	p.settled()
	p.pick("Star")
	p.dragWith(0, 120, 330, 330, 540)
	p.settled()
	x, y = p.middle(`[data-ring=depth]`)
	p.do(chromedp.MouseEvent("mouseMoved", x, y), chromedp.Sleep(700e6))
	p.shot("shape-rings")
	p.undo()
	p.click(500, 600)
	p.press(`[aria-label^="Fill:"]`)
	p.do(chromedp.Sleep(700e6))
	p.shot("colour-roles")
	p.key(kb.Escape)
	p.open("/p/kite-day-opener")
	p.settled()
	// One scene on its clock, with its cascade, its cue, and the hitches of a bar.
	p.press(`[data-scene="2"]`)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("z")
	p.wait(`document.querySelectorAll('[data-scene]').length === 1`)
	p.press(where + ` [data-part=whole]`)
	p.settled()
	p.do(chromedp.Sleep(700e6))
	p.shot("scene-hitches")
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("z")
	p.pressWord("Export film")
	p.pressWord("Export MP4")
	p.wait(`document.querySelector('[data-state=running]') && document.querySelector('[role=progressbar]')?.ariaValueNow > 20`)
	p.shot("export-running")
	p.key(kb.Escape)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.Home)
	p.key("l")
	p.wait(`document.documentElement.dataset.painted.split("/")[1] > 2000`)
	p.shot("large-view")
}
