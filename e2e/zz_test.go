package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

func TestZZ(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	p.pick("Star")
	p.dragWith(0, 900, 500, 1500, 1000)
	p.settled()
	p.undo()
	p.press(`[data-name="Water"]`)
	p.shiftPress(`[data-name="Cloud 3"]`)
	p.do(chromedp.Sleep(300e6))
	p.key("o")
	p.do(chromedp.Sleep(300e6))
	p.shot("zz-order")
	p.key(kb.Escape)
	p.key(kb.Escape)
	p.pick("Rectangle")
	p.dragWith(0, 560, 380, 1300, 900)
	p.settled()
	p.press(`[data-name="Place"]`)
	p.shiftPress(`[data-name="Rectangle"]`)
	p.key(kb.PageUp)
	p.pressWord("Punch out")
	p.do(chromedp.Sleep(900e6))
	p.shot("zz-punch")
	p.undo()
	p.press(`[data-name="Place"]`)
	p.shiftPress(`[data-name="Rectangle"]`)
	p.key(kb.PageUp)
	p.pressWord("Show within")
	p.do(chromedp.Sleep(900e6))
	p.shot("zz-within")
	p.do(chromedp.MouseClickXY(400, 300, chromedp.ClickCount(2)))
	p.do(chromedp.Sleep(900e6))
	p.shot("zz-entered")
}
