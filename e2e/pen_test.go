package e2e

import (
	"math"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/e2e/browser"
	"capstan/studio/media"
)

// A triangle by three presses and one on the first; a curve by dragging; a line by hand; all seen on the page and undone.
func TestThePenAndTheHandDraw(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(blank(), media.NewFolder(t.TempDir()))
	p.pressWord("Pen")
	for _, q := range [][2]float64{{60, 60}, {260, 60}, {160, 200}} {
		p.click(q[0], q[1])
	}
	p.wait(`document.querySelector('[data-pen="3"]')`)
	p.click(60, 60)
	p.settled()
	if c := p.colourAt(160, 100); c == paper {
		t.Error("the triangle is not filled")
	}
	if c := p.colourAt(80, 180); c != paper {
		t.Error("beside the triangle the page is not clear")
	}
	p.wait(`document.querySelector('[data-name="Drawing"]') && !document.querySelector('[data-pen]')`)
	p.undo()
	if c := p.colourAt(160, 100); c != paper {
		t.Error("undo leaves the triangle")
	}
	// Two points, the second dragged: a curve that bulges. Backspace takes back, Enter ends.
	p.pressWord("Pen")
	p.click(60, 180)
	p.drag(260, 180, 300, 120)
	p.click(20, 20)
	p.key(kb.Backspace)
	p.wait(`document.querySelector('[data-pen="2"]')`)
	p.key(kb.Enter)
	p.settled()
	below := false
	img := p.pixels(0, 0, true, 320, 240, "#fff")
	for y := 185; y < 235; y++ {
		for x := 120; x < 260; x++ {
			below = below || img.RGBAAt(x, y) != paper
		}
	}
	if !below {
		t.Error("the dragged handle bends nothing")
	}
	p.undo()
	// By hand: half a circle, few points.
	p.pressWord("Freehand")
	var path [][2]float64
	for k := 0; k <= 30; k++ {
		sin, cos := math.Sincos(math.Pi * float64(k) / 30)
		path = append(path, [2]float64{160 - 80*cos, 150 - 80*sin})
	}
	p.scribble(path)
	p.settled()
	if c := p.colourAt(160, 70); c == paper {
		t.Error("nothing at the top of the half circle")
	}
	p.wait(`[...document.querySelectorAll('aside *')].some(e => /^\d+ points/.test(e.textContent))`)
	if n := browser.Eval[int](t, p.ctx, `Number(/(\d+) points/.exec(document.querySelector('aside').innerText)[1])`); n > 9 {
		t.Errorf("a half circle by hand has %d points", n)
	}
}

// scribble drags the pointer along points of the page.
func (p *person) scribble(path [][2]float64) {
	p.t.Helper()
	x, y := p.at(path[0][0], path[0][1])
	left := chromedp.ButtonType("left")
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, x, y, left, chromedp.ClickCount(1)))
	for _, q := range path[1:] {
		x, y = p.at(q[0], q[1])
		p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x, y, left))
	}
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, x, y, left, chromedp.ClickCount(1)))
}

// A rectangle's points: entered by a double press, dragged, one added, one made smooth, one taken out by key; left by Escape.
func TestPointsAreDraggedAddedAndTakenOut(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(plain(), media.NewFolder(t.TempDir()))
	p.click(120, 90)
	x, y := p.at(120, 90)
	p.do(chromedp.MouseClickXY(x, y, chromedp.ClickCount(2)))
	p.wait(`document.querySelector('[data-points="4"]')`)
	p.drag(80, 60, 20, 20)
	p.settled()
	if c := p.colourAt(60, 45); c == paper {
		t.Error("the dragged corner took nothing along")
	}
	// The right edge is pressed twice: a point more; then dragged out.
	x, y = p.at(240, 120)
	p.do(chromedp.MouseClickXY(x, y), chromedp.MouseClickXY(x, y, chromedp.ClickCount(2)))
	p.wait(`document.querySelector('[data-points="5"]')`)
	p.drag(240, 120, 300, 120)
	p.settled()
	if c := p.colourAt(285, 120); c == paper {
		t.Error("the new point was not dragged out")
	}
	p.shot("points")
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.Delete)
	p.wait(`document.querySelector('[data-points="4"]')`)
	if c := p.colourAt(285, 120); c != paper {
		t.Error("the point that was taken out still stands out")
	}
	p.undo()
	p.click(300, 120)
	p.pressWord("Smooth")
	p.settled()
	p.wait(`document.querySelector('[data-handles="2"]')`)
	p.undo()
	// Two corners that lie across are put above one another: the rectangle leans.
	p.click(240, 60)
	x, y = p.at(80, 180)
	p.do(chromedp.MouseClickXY(x, y, chromedp.ButtonModifiers(chromedp.ModifierShift)))
	p.pressWord("Column")
	p.settled()
	if right, left := p.colourAt(230, 70), p.colourAt(90, 170); right != paper || left != paper {
		t.Error("two corners in a column leave the rectangle as wide as it was")
	}
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.Escape)
	p.wait(`!document.querySelector('[data-points]')`)
	for range 5 {
		p.undo()
	}
	if c := p.colourAt(60, 45); c != paper {
		t.Error("undone, the corner is still there")
	}
	p.wait(`document.querySelector('aside').innerText.includes('rectangle')`)
}
