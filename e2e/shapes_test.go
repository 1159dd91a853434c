package e2e

import (
	"context"
	"image/color"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/core/doc"
	"capstan/e2e/browser"
	"capstan/studio/media"
)

// blank is an empty page of 320 by 240.
func blank() *doc.Project {
	p := doc.NewProject("blank", "Blank", 320, 240, "bl")
	p.Film.Scenes[0].Background = doc.Fill{Kind: doc.Solid, Colour: "#ffffff"}
	return p
}

// dragWith drags with keys held.
func (p *person) dragWith(mods chromedp.Modifier, x0, y0, x1, y1 float64) {
	p.t.Helper()
	ax, ay := p.at(x0, y0)
	bx, by := p.at(x1, y1)
	event := func(kind input.DispatchMouseEventType, x, y float64, buttons int64) {
		p.do(chromedp.Func(func(ctx context.Context, _ *chromedp.Target) error {
			_, err := chromedp.Call(ctx, input.DispatchMouseEvent, input.DispatchMouseEventParams{Type: kind, X: x, Y: y, Button: "left", Buttons: buttons, ClickCount: 1, Modifiers: int64(mods)})
			return err
		}))
	}
	event(input.DispatchMouseEventTypeMousePressed, ax, ay, 1)
	for k := 1; k <= 6; k++ {
		event(input.DispatchMouseEventTypeMouseMoved, ax+(bx-ax)*float64(k)/6, ay+(by-ay)*float64(k)/6, 1)
	}
	event(input.DispatchMouseEventTypeMouseReleased, bx, by, 0)
	p.settled()
}

func (p *person) pick(shape string) {
	p.t.Helper()
	if shape != "Rectangle" && shape != "Ellipse" { // these have a place of their own on the rail
		p.pressWord("Shapes")
	}
	p.pressWord(shape)
}

var paper = color.RGBA{255, 255, 255, 255}

// Every shape, picked from the rail and drawn with the mouse: it is where it should be, and not where it should not.
func TestEveryShapeIsDrawn(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(blank(), media.NewFolder(t.TempDir()))
	// Shares of the drawn box, 200 by 160 from 60, 40, that are covered and that are not.
	for _, c := range []struct {
		name    string
		in, out [][2]float64
	}{
		{"Rectangle", [][2]float64{{0.5, 0.5}, {0.02, 0.02}, {0.98, 0.98}}, nil},
		{"Ellipse", [][2]float64{{0.5, 0.5}, {0.5, 0.02}, {0.02, 0.5}}, [][2]float64{{0.05, 0.05}, {0.95, 0.95}}},
		{"Line", [][2]float64{{0.5, 0.5}, {0.1, 0.1}, {0.9, 0.9}}, [][2]float64{{0.1, 0.5}, {0.5, 0.1}}},
		{"Arrow", [][2]float64{{0.1, 0.5}, {0.95, 0.5}}, [][2]float64{{0.1, 0.1}, {0.95, 0.1}, {0.95, 0.9}}},
		{"Ring", [][2]float64{{0.5, 0.05}, {0.05, 0.5}}, [][2]float64{{0.5, 0.5}, {0.05, 0.05}}},
		{"Sector", [][2]float64{{0.6, 0.4}, {0.75, 0.25}}, [][2]float64{{0.25, 0.25}, {0.5, 0.75}, {0.97, 0.03}}},
		{"Bubble", [][2]float64{{0.5, 0.5}, {0.22, 1.1}}, [][2]float64{{0.01, 0.01}, {0.7, 1.1}}},
		{"Cross", [][2]float64{{0.5, 0.5}, {0.5, 0.03}, {0.03, 0.5}}, [][2]float64{{0.1, 0.1}, {0.9, 0.1}, {0.1, 0.9}}},
		{"Cloud", [][2]float64{{0.5, 0.5}}, [][2]float64{{0.01, 0.01}, {0.99, 0.99}}},
		{"Wave band", [][2]float64{{0.5, 0.5}, {0.02, 0.5}}, [][2]float64{{0.01, 0.01}}},
		{"Ribbon", [][2]float64{{0.5, 0.3}, {0.1, 0.9}}, [][2]float64{{0.5, 0.9}}},
	} {
		p.pick(c.name)
		p.drag(60, 40, 260, 200)
		p.settled()
		img := p.pixels(0, 0, true, 320, 240, "#fff")
		look := func(list [][2]float64, want bool) {
			for _, q := range list {
				at := img.RGBAAt(int(60+200*q[0]), int(40+160*q[1]))
				if (at != paper) != want {
					t.Errorf("%s: at %v of its box the page shows %v", c.name, q, at)
				}
			}
		}
		look(c.in, true)
		look(c.out, false)
		p.undo()
		if got := p.colourAt(160, 120); got != paper {
			t.Errorf("%s is still there after undo: %v", c.name, got)
		}
	}
	// Those that keep their proportions are drawn with equal sides.
	for _, c := range []struct {
		name string
		mods chromedp.Modifier
		x, y float64 // the middle
		w, h float64
	}{
		{"Polygon", 0, 160, 140, 200, 200}, {"Star", 0, 160, 140, 200, 200}, {"Heart", 0, 160, 140, 200, 200},
		{"Star", chromedp.ModifierShift, 160, 120, 200, 160}, {"Rectangle", chromedp.ModifierShift, 160, 140, 200, 200},
		{"Rectangle", chromedp.ModifierAlt, 60, 40, 400, 320}, {"Ellipse", chromedp.ModifierShift | chromedp.ModifierAlt, 60, 40, 400, 400},
	} {
		p.pick(c.name)
		p.dragWith(c.mods, 60, 40, 260, 200)
		if x, y, w, h := p.number("Across: middle, from the left"), p.number("Down: middle, from the top"), p.number("Wide"), p.number("High"); x != c.x || y != c.y || w != c.w || h != c.h {
			t.Errorf("%s with keys %d: %v by %v about %v, %v; want %v by %v about %v, %v", c.name, c.mods, w, h, x, y, c.w, c.h, c.x, c.y)
		}
		p.undo()
	}
}

// A ring on the shape is dragged, its number typed, and both undone.
func TestRingsChangeTheirNumbers(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(blank(), media.NewFolder(t.TempDir()))
	p.pick("Ring")
	p.dragWith(chromedp.ModifierShift, 60, 40, 220, 200)
	if v := p.number("Hole"); v != 60 {
		t.Errorf("a new ring has a hole of %v %%", v)
	}
	x, y := p.middle(`[data-ring=hole]`)
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x, y))
	p.wait(`[...document.querySelectorAll('svg text')].some(t => t.textContent === 'Hole 60 %')`)
	p.drag(140+48, 120, 140+20, 120)
	p.settled()
	if v := p.number("Hole"); v < 24 || v > 26 {
		t.Errorf("dragged to 20 of 80 px it has %v %%", v)
	}
	if c := p.colourAt(140+40, 120); c == paper {
		t.Error("half way out the ring is still open")
	}
	p.set("Hole", "90")
	p.settled()
	if c := p.colourAt(140+40, 120); c != paper {
		t.Error("a hole of 90 % is filled half way out")
	}
	p.undo()
	p.undo()
	if v := p.number("Hole"); v != 60 {
		t.Errorf("undone, the hole has %v %%", v)
	}
	// Numbers beyond their range are refused.
	p.set("Hole", "400")
	p.settled()
	if v := p.number("Hole"); v != 60 {
		t.Errorf("400 %% became %v", v)
	}
}

// Roles: a scene is given some, one is changed and recolours its users; tones follow; a colour is picked from the page.
func TestRolesAndColoursInTheField(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(plain(), media.NewFolder(t.TempDir()))
	red := p.colourAt(160, 120)
	p.pressWord("Colour roles")
	p.pressWord("Give this scene roles")
	p.settled()
	if c := p.colourAt(160, 120); c != red {
		t.Errorf("with roles the sail is %v, was %v", c, red)
	}
	// Another accent, typed.
	p.press(`[data-role=accent] [aria-label^="Role accent"]`)
	p.code("#3f7f86")
	if c := p.colourAt(160, 120); c != (color.RGBA{0x3f, 0x7f, 0x86, 255}) {
		t.Errorf("the accent is #3f7f86, the sail %v", c)
	}
	// Two steps darker than the accent; then the accent changes, and the sail with it.
	p.click(160, 120)
	p.press(`[aria-label^="Fill:"]`)
	p.press(`[aria-label="2 steps darker"]`)
	p.settled()
	p.key(kb.Escape)
	dark := p.colourAt(160, 120)
	if int(dark.G) >= 0x7f || int(dark.B) <= int(dark.R) {
		t.Errorf("two steps darker it is %v", dark)
	}
	p.wait(`document.querySelector('[aria-label^="Fill:"]').ariaLabel === 'Fill: accent −2'`)
	p.click(20, 20)
	p.press(`[data-role=accent] [aria-label^="Role accent"]`)
	p.code("#d8573a")
	if c := p.colourAt(160, 120); int(c.R) < int(c.B)+60 || c == red {
		t.Errorf("a tone of red is %v", c)
	}
	// Put aside, and picked from the page.
	p.click(160, 120)
	p.press(`[aria-label^="Fill:"]`)
	p.code("#00ff00")
	p.press(`[aria-label^="Fill:"]`)
	p.pressWord("Put this colour aside")
	p.settled()
	p.pressWord("Pick a colour from the page")
	p.wait(`document.body.innerText.includes('Press the page where the colour is')`)
	p.click(20, 20)
	p.settled()
	if c := p.colourAt(160, 120); c != paper {
		t.Errorf("picked from the white page, the sail is %v", c)
	}
	p.press(`[aria-label^="Fill:"]`)
	p.wait(`document.querySelector('[aria-label="Put aside: #00ff00"]') && document.querySelector('[aria-label="Used last: #ffffff"]')`)
}

// code types a colour into the open colour field.
func (p *person) code(hex string) {
	p.t.Helper()
	field := `label:has(> input.font-mono) input`
	p.do(chromedp.WaitVisible(field), chromedp.Focus(field))
	p.do(chromedp.KeyEvent("a", chromedp.KeyModifiers(chromedp.ModifierCtrl)), chromedp.KeyEvent(hex))
	// Not by chromedp.KeyEvent: it goes on to send the character to whatever has the focus by then, which no keyboard does.
	browser.Eval[bool](p.t, p.ctx, `document.activeElement.dispatchEvent(new KeyboardEvent("keydown", {key: "Enter", bubbles: true, cancelable: true})) || true`)
	p.wait("!document.querySelector('" + field + "')")
	p.settled()
}

// A picture on an empty page is offered as its ground; a look is copied; things are laid out around a centre; a marker counts.
func TestGroundLooksCopiesAndMarkers(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(blank(), media.NewFolder(t.TempDir()))
	file := filepath.Join(t.TempDir(), "cloth.png")
	if err := os.WriteFile(file, pngFile(t, 100, 100), 0o644); err != nil {
		t.Fatal(err)
	}
	p.do(chromedp.SetUploadFiles(`[data-picture-input]`, []string{file}))
	p.wait(`document.querySelector('[data-name="cloth"]')`)
	p.pressWord("Make it the ground")
	p.settled()
	if w, h := p.number("Wide"), p.number("High"); w != 320 || h != 320 {
		t.Errorf("the ground is %v by %v on a page of 320 by 240", w, h)
	}
	for _, q := range [][2]int{{1, 1}, {318, 1}, {1, 238}, {318, 238}} {
		if c := p.colourAt(q[0], q[1]); c.R != 0 {
			t.Errorf("the ground bares %v", q)
		}
	}
	// It is locked: a press on the page goes through it.
	p.key(kb.Escape)
	p.click(100, 100)
	p.wait(`!document.querySelector('[aria-label="Layer name"]')`)
	// A look, copied from a star to a rectangle.
	p.pick("Star")
	p.dragWith(0, 20, 20, 80, 80)
	p.press(`[aria-label^="Fill:"]`)
	p.code("#f3dca6")
	p.set("Opacity", "50")
	p.settled()
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("k")
	p.pick("Rectangle")
	p.dragWith(0, 200, 150, 300, 220)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("k", chromedp.ModifierShift)
	p.settled()
	if c := p.colourAt(250, 185); !alike(c, color.RGBA{0x79, 0x6e, 0x53, 255}, 3) {
		t.Errorf("half see-through straw on black is %v", c)
	}
	// Six of it around a centre.
	p.set("Opacity", "100")
	p.set("Wide", "20")
	p.set("High", "20")
	p.set("Across: middle, from the left", "160")
	p.set("Down: middle, from the top", "60")
	p.settled()
	p.pressWord("Copies in a row, a grid, a ring …")
	p.pressWord("Around a centre")
	p.set("Radius", "60")
	p.set("How many", "6")
	p.pressWord("Lay out 6")
	p.settled()
	for k, q := range [][2]int{{160, 60}, {212, 90}, {212, 150}, {160, 180}, {108, 150}, {108, 90}} {
		if c := p.colourAt(q[0], q[1]); c.R < 200 {
			t.Errorf("nothing of the ring at place %d: %v", k, c)
		}
	}
	if n := p.notices(); len(n) > 1 {
		t.Errorf("the page says %v", n)
	}
	p.wait(`document.querySelector('[data-name="Rectangle × 6"]')`)
	p.undo()
	if c := p.colourAt(160, 180); c.R != 0 {
		t.Error("undo leaves copies")
	}
	// A marker in two scenes.
	p.pressWord("Shapes")
	p.pressWord("Marker: Bars")
	p.settled()
	p.key(kb.Escape)
	before := p.pixels(0, 0, true, 320, 240, "#fff")
	p.click(5, 5)
	p.pressWord("Continue scene")
	p.settled()
	after := p.pixels(0, 0, true, 320, 240, "#fff")
	if same := func() bool {
		for i := range before.Pix {
			if before.Pix[i] != after.Pix[i] {
				return false
			}
		}
		return true
	}(); same {
		t.Error("the marker of the first scene does not know of the second")
	}
}
