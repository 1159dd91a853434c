package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/core/doc"
	"capstan/e2e/browser"
	"capstan/studio/media"
)

// tiles is a page of three tiles over two scenes.
func tiles() *doc.Project {
	p := doc.NewProject("tiles", "Tiles", 640, 400, "one")
	tile := func(id, name, colour string, x, y, w, h float64) *doc.Layer {
		return &doc.Layer{ID: id, Thread: name, Name: name, Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: colour}, Place: doc.Place{X: x, Y: y, W: w, H: h}}
	}
	p.Film.Scenes[0].Layers = []*doc.Layer{tile("a", "Rust", "#d8573a", 100, 100, 60, 40), tile("b", "Straw", "#f3dca6", 260, 180, 60, 80), tile("c", "Spruce", "#17403c", 500, 300, 80, 60)}
	two := doc.NewScene("two", "Two")
	two.Layers = []*doc.Layer{tile("a2", "Rust", "#d8573a", 300, 300, 60, 40)}
	p.Film.Scenes = append(p.Film.Scenes, two)
	return p
}

// hold presses at a page point, goes to another and stops there, with the button down; the return value lets go.
func (p *person) hold(x0, y0, x1, y1 float64, mods ...chromedp.Modifier) (letGo func()) {
	p.t.Helper()
	ax, ay := p.at(x0, y0)
	bx, by := p.at(x1, y1)
	o := []chromedp.MouseOption{chromedp.ButtonLeft, chromedp.ButtonModifiers(mods...)}
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, ax, ay, append(o, chromedp.ClickCount(1))...))
	for i := 1.0; i <= 10; i++ {
		p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, ax+(bx-ax)*i/10, ay+(by-ay)*i/10, o...))
	}
	return func() {
		p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, bx, by, o...))
		p.settled()
	}
}

// placeOf is where the layer of a thread lies in the first scene, with its size and turn.
func (p *person) placeOf(thread string) string {
	return browser.Eval[string](p.t, p.ctx, fmt.Sprintf(`(() => { const s = capstanProbe.engine.selection({rest: true, scene: 0, time: 0}, [%q])[0]; return s ? [...s.box, s.layer.place.turn ?? 0].map(v => Math.round(v)).join(' ') : '' })()`, thread))
}

func (p *person) threads() []string {
	return browser.Eval[[]string](p.t, p.ctx, `[...document.querySelectorAll('[data-name][aria-pressed=true]')].map(e => e.dataset.name)`)
}

// What is dragged near something comes to lie on it; the line is drawn and named; with Ctrl it goes where the pointer is.
func TestADragSnapsWithLinesAndWords(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(tiles(), media.NewFolder(t.TempDir()))
	letGo := p.hold(100, 100, 318, 141)
	p.wait(`document.querySelector('[data-snapped]')`)
	p.wait(`document.querySelector('[data-desk]').innerText.includes('middle of the page')`)
	letGo()
	if s := p.placeOf("Rust"); !strings.HasPrefix(s, "320 14") {
		t.Errorf("let go near the middle it lies at %s", s)
	}
	p.wait(`!document.querySelector('[data-snapped]')`)
	p.undo()
	p.key(kb.Escape)
	p.hold(85, 90, 303, 121, chromedp.ModifierCtrl)()
	if s := p.placeOf("Rust"); !strings.HasPrefix(s, "318 131") {
		t.Errorf("with Ctrl it lies at %s", s)
	}
	p.undo()
	// Beside another: equal gaps, to the page and to each other, by a guide that is dragged off its ruler.
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("u")
	x, y := p.middle(`[data-ruler=upright]`)
	gx, gy := p.at(400, 200)
	p.do(chromedp.DragAndDropXY(x, y, gx, gy))
	p.settled()
	p.wait(`document.querySelector('[data-guide]')`)
	at := browser.Eval[float64](t, p.ctx, `Number(document.querySelector('[data-guide]').dataset.guide.split(' ')[1])`)
	if at < 398 || at > 402 {
		t.Errorf("the guide stands at %v", at)
	}
	p.key(kb.Escape)
	p.hold(85, 90, at-47, 95)()
	if s := p.placeOf("Rust"); !strings.HasPrefix(s, fmt.Sprintf("%d ", int(at)-30)) {
		t.Errorf("beside the guide at %v it lies at %s", at, s)
	}
	// Dragged back to its ruler the guide is gone.
	gx, gy = p.at(at, 350)
	p.do(chromedp.DragAndDropXY(gx, gy, x, y))
	p.settled()
	p.wait(`!document.querySelector('[data-guide]')`)
	// By number, with sums; the last of them is taken away by its sign.
	p.press(`[aria-label="Rulers, guides, grid, safe areas, ends of moves"]`)
	p.pressWord("Level guide")
	p.settled()
	p.pressWord("Upright guide")
	p.settled()
	p.set("Guide 2, across", "640/4")
	p.settled()
	p.press(`[aria-label="Take guide 1 away"]`)
	p.settled()
	if got := browser.Eval[string](t, p.ctx, `[...document.querySelectorAll('[data-guide]')].map(e => e.dataset.guide).join()`); got != "upright 160" {
		t.Errorf("the guides are %s", got)
	}
}

// Edges, gaps, sums: by the panel, the numbers say so.
func TestLayersAreArrangedByThePanel(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(tiles(), media.NewFolder(t.TempDir()))
	p.click(100, 100)
	p.settled()
	p.set("Across: middle, from the left", "50%")
	p.set("Down: middle, from the top", "400/4+1in")
	p.settled()
	if s := p.placeOf("Rust"); s != "320 196 60 40 0" {
		t.Errorf("by sums it lies at %s, want 320 196", s)
	}
	p.set("Wide", "kites")
	p.wait(`document.body.innerText.includes('is no number')`)
	p.press(`[aria-label="A quarter turn clockwise"]`)
	p.settled()
	if s := p.placeOf("Rust"); s != "320 196 60 40 90" {
		t.Errorf("turned by a quarter: %s", s)
	}
	p.undo()
	p.key("a", chromedp.ModifierCtrl)
	p.wait(`document.querySelector('aside').innerText.includes('3 layers')`)
	p.press(`[aria-label="Upper edges"]`)
	p.settled()
	p.press(`[aria-label="Equal gaps, across"]`)
	p.settled()
	a, b, c := p.placeOf("Rust"), p.placeOf("Straw"), p.placeOf("Spruce")
	// From 230 to 540: sizes 60, 60 and 80 leave 110 for two gaps.
	if b != "260 180 60 80 0" || a != "375 160 60 40 0" || c != "500 170 80 60 0" {
		t.Errorf("in a row: %s | %s | %s", b, a, c)
	}
	p.choose("Align to", "page")
	p.press(`[aria-label="Middles, across"]`)
	p.settled()
	for _, name := range []string{"Rust", "Straw", "Spruce"} {
		if s := p.placeOf(name); !strings.HasPrefix(s, "320 ") {
			t.Errorf("%s lies at %s", name, s)
		}
	}
	for range 3 {
		p.undo()
	}
	if s := p.placeOf("Straw") + p.placeOf("Spruce"); s != "260 180 60 80 0500 300 80 60 0" {
		t.Errorf("undone: %s", s)
	}
}

// Copies are dragged off with Alt and go on as far; several are scaled as one; presses go down the stack; the edit goes to later scenes.
func TestCopiesStacksAndLaterScenes(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(tiles(), media.NewFolder(t.TempDir()))
	p.hold(100, 100, 180, 112, chromedp.ModifierAlt, chromedp.ModifierCtrl)()
	p.wait(`document.querySelectorAll('[data-name^="Rust"]').length === 2`)
	if s := p.placeOf("Rust"); s != "100 100 60 40 0" {
		t.Errorf("what was copied lies at %s", s)
	}
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("d", chromedp.ModifierCtrl)
	p.settled()
	if x, y := p.number("Across: middle, from the left"), p.number("Down: middle, from the top"); x != 260 || y != 124 {
		t.Errorf("the next copy lies at %v, %v, want 260, 124", x, y)
	}
	// It lies over the straw-coloured tile's upper edge: presses go down and begin again.
	p.key(kb.Escape)
	for _, want := range []string{"Straw", "Rust", "Straw"} {
		p.click(275, 142)
		p.do(chromedp.Sleep(700e6))
		p.wait(`document.querySelectorAll('[data-name][aria-pressed=true]').length === 1`)
		if got := p.threads(); len(got) != 1 || !strings.HasPrefix(got[0], want) {
			t.Errorf("selected is %v, want %s", got, want)
		}
	}
	ax, ay := p.at(275, 142)
	p.do(chromedp.MouseClickXY(ax, ay, chromedp.ButtonModifiers(chromedp.ModifierCtrl)))
	p.wait(`[...document.querySelectorAll('[role=menuitem]')].map(e => e.innerText).join() !== ''`)
	if got := browser.Eval[string](t, p.ctx, `[...document.querySelectorAll('[role=menuitem]')].map(e => e.innerText.trim()).join('|')`); got != "Straw|Rust" {
		t.Errorf("the layers here are %s", got)
	}
	p.key(kb.Escape)
	// All as one, by the lower right corner.
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("a", chromedp.ModifierCtrl)
	before := p.placeOf("Spruce")
	x, y := p.middle(`[data-handle=se]`)
	p.do(chromedp.DragAndDropXY(x, y, x+60, y+30))
	p.settled()
	if s := p.placeOf("Spruce"); s == before || p.placeOf("Rust") == "100 100 60 40 0" {
		t.Errorf("scaled together Spruce is %s, before %s", s, before)
	}
	p.undo()
	p.key(kb.Escape)
	// Of the tile that goes on in the next scene, the edit may, too.
	p.click(80, 100)
	p.settled()
	p.set("Turn", "30")
	p.settled()
	p.pressWord("also turn, in 1 later scene")
	p.settled()
	turn := func() float64 {
		return browser.Eval[float64](t, p.ctx, `capstanProbe.engine.selection({rest: true, scene: 1, time: 0}, ['Rust'])[0].layer.place.turn ?? 0`)
	}
	if turn() != 30 {
		t.Errorf("in the next scene it is turned by %v", turn())
	}
	p.undo()
	if turn() != 0 || !strings.HasSuffix(p.placeOf("Rust"), " 30") {
		t.Errorf("undone, it is turned by %v there and lies at %s here", turn(), p.placeOf("Rust"))
	}
}

// touch puts fingers on the page, moves them and lifts them; from and to are page points.
func (p *person) touch(from, to [][2]float64) {
	p.t.Helper()
	points := func(share float64) (list []*input.TouchPoint) {
		for i := range from {
			ax, ay := p.at(from[i][0], from[i][1])
			bx, by := p.at(to[i][0], to[i][1])
			id := float64(i)
			list = append(list, &input.TouchPoint{X: ax + (bx-ax)*share, Y: ay + (by-ay)*share, ID: &id})
		}
		return
	}
	send := func(kind input.DispatchTouchEventType, list []*input.TouchPoint) {
		if _, err := chromedp.Call(p.ctx, input.DispatchTouchEvent, input.DispatchTouchEventParams{Type: kind, TouchPoints: list}); err != nil {
			p.t.Fatal(err)
		}
	}
	// Where the page lies changes while it is zoomed: all points are taken before.
	var steps [][]*input.TouchPoint
	for i := range 11 {
		steps = append(steps, points(float64(i)/10))
	}
	for n := range from {
		send(input.DispatchTouchEventTypeTouchStart, steps[0][:n+1])
	}
	for _, s := range steps[1:] {
		send(input.DispatchTouchEventTypeTouchMove, s)
	}
	send(input.DispatchTouchEventTypeTouchEnd, []*input.TouchPoint{})
}

// A finger drags; two zoom about what lies between them, and drag nothing.
func TestFingersDragAndZoom(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(tiles(), media.NewFolder(t.TempDir()))
	p.touch([][2]float64{{100, 100}}, [][2]float64{{170, 250}})
	p.settled()
	if s := p.placeOf("Rust"); s == "100 100 60 40 0" || !strings.HasPrefix(s, "1") {
		t.Errorf("dragged by a finger it lies at %s", s)
	}
	was := p.placeOf("Straw")
	scale := func() float64 {
		return browser.Eval[float64](t, p.ctx, `Number(document.querySelector('[data-page]').dataset.view.split(' ')[0])`)
	}
	before := scale()
	ax, ay := p.at(260, 180)
	p.touch([][2]float64{{240, 180}, {280, 180}}, [][2]float64{{180, 180}, {340, 180}})
	p.wait(fmt.Sprintf(`Number(document.querySelector('[data-page]').dataset.view.split(' ')[0]) > %f`, before*2))
	if got := scale() / before; got < 3.8 || got > 4.2 {
		t.Errorf("four times as far apart they zoom by %.2f", got)
	}
	if bx, by := p.at(260, 180); bx-ax > 3 || ax-bx > 3 || by-ay > 3 || ay-by > 3 {
		t.Errorf("what lay between them went from %.0f, %.0f to %.0f, %.0f", ax, ay, bx, by)
	}
	if s := p.placeOf("Straw"); s != was {
		t.Errorf("two fingers dragged it to %s", s)
	}
}
