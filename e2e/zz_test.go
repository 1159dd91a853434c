package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
)

func TestZZ(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	p.do(chromedp.Sleep(800e6))
	p.shot("a")
	p.press(`[data-name="Red kite"]`)
	p.do(chromedp.Sleep(400e6))
	p.shot("b")
	p.press(`[data-bar]:not([data-bar=""]) [data-part=whole]`)
	p.do(chromedp.Sleep(400e6))
	p.shot("c")
	p.key("d")
	p.do(chromedp.Sleep(400e6))
	p.shot("d")
	p.key("d")
	p.key("t")
	p.do(chromedp.Sleep(400e6))
	p.shot("e")
}
