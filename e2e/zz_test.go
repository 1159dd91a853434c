package e2e

import (
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

func TestZZ(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-evening")
	p.press(`[data-row="e-harbour"]`)
	p.press(`[data-fold="Cut out"]`)
	p.pressWord("Find the foreground")
	p.do(chromedp.Sleep(4 * time.Second))
	p.pressWord("Split in two")
	p.do(chromedp.Sleep(6 * time.Second))
	p.shot("b")
	p.pressWord("Light bands")
	p.do(chromedp.Sleep(2 * time.Second))
	p.shot("c")
	p.do(chromedp.Sleep(1 * time.Second))
	p.shot("d")
}
