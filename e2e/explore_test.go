package e2e

import (
	"testing"

	"capstan/studio/media"
	"github.com/chromedp/chromedp"
)

func TestExplore(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.bring(plain(), media.NewFolder(t.TempDir()))
	p.pressWord("Shapes")
	p.do(chromedp.Sleep(400*1e6))
	p.shot("x-shapes")
	p.pressWord("Star")
	p.drag(20, 20, 110, 110)
	p.settled()
	p.shot("x-star")
	p.pressWord("Shapes")
	p.pressWord("Bubble")
	p.drag(190, 20, 300, 90)
	p.settled()
	p.pressWord("Shapes")
	p.pressWord("Ribbon")
	p.drag(40, 180, 280, 236)
	p.settled()
	p.shot("x-ribbon")
	p.pressWord("Shapes")
	p.pressWord("Line")
	p.drag(40, 160, 280, 130)
	p.settled()
	p.choose("Head at the end", "triangle")
	p.settled()
	p.shot("x-line")
}
