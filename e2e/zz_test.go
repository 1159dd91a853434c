package e2e

import (
	"testing"
	"time"

	"capstan/studio/media"

	"github.com/chromedp/chromedp"
)

func TestZZ(t *testing.T) {
	p := sit(t, startStudio(t))
	files := media.NewFolder(t.TempDir())
	p.bring(buoys(t, files, nil), files)
	p.press(`[data-row] [data-name="Buoys"]`)
	p.press(`[data-fold="Cut out"]`)
	p.pressWord("Find the foreground")
	p.do(chromedp.Sleep(2 * time.Second))
	p.drag(120, 120, 190, 130)
	p.do(chromedp.Sleep(1 * time.Second))
	p.pressWord("Drop")
	p.drag(72, 70, 90, 70)
	p.do(chromedp.Sleep(1 * time.Second))
	p.pressWord("Colour")
	p.click(60, 180)
	p.do(chromedp.Sleep(1 * time.Second))
	p.shot("b")
	p.do(chromedp.EmulateViewport(1024, 700))
	p.do(chromedp.Sleep(1 * time.Second))
	p.shot("c")
}
