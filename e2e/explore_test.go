package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
)

func TestExplore(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.do(chromedp.EmulateViewport(1280, 800))
	p.open("/p/kite-day-opener")
	p.settled()
	p.shot("x-film")
	p.press(`[data-row="t-kite"] [data-name]`)
	p.settled()
	p.press(`[data-scene="2"]`)
	p.settled()
	p.key("z")
	p.settled()
	p.press(`[data-row="t-where"] [data-name]`)
	p.settled()
	p.press(`[data-bars="t-where"] [data-bar]`)
	p.settled()
	p.shot("x-scene")
}
