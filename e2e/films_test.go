package e2e

import (
	"bytes"
	"fmt"
	"image/color"
	"image/gif"
	"math"
	"testing"

	"capstan/e2e/browser"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// maker is somebody who builds a film by the interface alone, and counts what it takes: every press, drag, key and value typed. What is
// chosen from a list of the browser's own is chosen for them, since no test can reach into that.
type maker struct {
	*person
	actions int
}

// begins opens a new project of a format.
func begins(t *testing.T, s *studio, format string) *maker {
	m := &maker{person: sit(t, s)}
	m.open("/")
	m.word(format)
	m.wait(`location.pathname.startsWith('/p/') && document.querySelector('[data-page]')`)
	m.settled()
	return m
}

func (m *maker) takes(film string, most int) {
	m.t.Helper()
	m.t.Logf("%s: %d actions", film, m.actions)
	if m.actions > most {
		m.t.Errorf("%s took %d actions, %d at most", film, m.actions, most)
	}
}

// did counts an action and waits until it is carried out.
func (m *maker) did() { m.t.Helper(); m.actions++; m.settled() }

// word presses what has these words.
func (m *maker) word(words string) { m.t.Helper(); m.pressWord(words); m.did() }

// on presses what a selector finds, brought into view.
func (m *maker) on(selector string) {
	m.t.Helper()
	m.wait(fmt.Sprintf(`document.querySelector('%s')`, selector))
	browser.Eval[bool](m.t, m.ctx, fmt.Sprintf(`(document.querySelector('%s').scrollIntoView({block: 'center'}), true)`, selector))
	x, y := m.middle(selector)
	m.do(chromedp.MouseClickXY(x, y))
	m.did()
}

// row presses the name of a row, with keys held or not.
func (m *maker) row(name string, mods ...chromedp.Modifier) {
	m.t.Helper()
	x, y := m.middle(row(name))
	m.do(chromedp.MouseClickXY(x, y, chromedp.ButtonModifiers(mods...)))
	m.did()
}

// draws draws with a tool from the rail, between two points of the page.
func (m *maker) draws(tool string, x0, y0, x1, y1 float64) {
	m.t.Helper()
	m.word(tool)
	m.drags(x0, y0, x1, y1)
}

func (m *maker) drags(x0, y0, x1, y1 float64) {
	m.t.Helper()
	m.dragWith(0, x0, y0, x1, y1)
	m.actions++
}

// types types a value into the field of that name.
func (m *maker) types(name, value string) {
	m.t.Helper()
	sel := fmt.Sprintf(`[aria-label=%q]`, name)
	m.wait(fmt.Sprintf(`document.querySelector('%s')`, sel))
	browser.Eval[bool](m.t, m.ctx, fmt.Sprintf(`(document.querySelector('%s').scrollIntoView({block: 'center'}), true)`, sel))
	x, y := m.middle(sel)
	m.do(chromedp.MouseClickXY(x, y), chromedp.KeyEvent(value+kb.Enter))
	m.did()
}

// picks picks a value of a list.
func (m *maker) picks(name, value string) { m.t.Helper(); m.choose(name, value); m.did() }

// keys presses keys on the page.
func (m *maker) keys(key string, mods ...chromedp.Modifier) {
	m.t.Helper()
	m.key(key, mods...)
	m.did()
}

// colours gives what is selected, or the scene, a colour by its code.
func (m *maker) colours(field, code string) {
	m.t.Helper()
	m.on(fmt.Sprintf(`[aria-label^="%s:"]`, field))
	m.code(code)
	m.actions++
}

// writes puts words on the page at a point.
func (m *maker) writes(words string, x, y float64) {
	m.t.Helper()
	m.word("Text")
	m.click(x, y)
	m.actions++
	m.wait(`document.activeElement?.matches('[data-words]')`)
	m.do(chromedp.KeyEvent(words))
	m.actions++
	m.keys(kb.Escape)
}

// moves gives what is selected a move from the gallery.
func (m *maker) moves(name string) {
	m.t.Helper()
	m.on(`button.border-dashed.w-full`)
	m.word(name)
}

func (m *maker) colour(ms float64, x, y int) color.RGBA {
	m.t.Helper()
	film := browser.Eval[[]int](m.t, m.ctx, `(f => [f.width, f.height])(capstanProbe.engine.film())`)
	return m.pixels(0, ms, false, film[0]/4, film[1]/4, "#fff").RGBAAt(x/4, y/4)
}

func (m *maker) shows(what string, ms float64, x, y int, want color.RGBA) {
	m.t.Helper()
	if got := m.colour(ms, x, y); !alike(got, want, 12) {
		m.t.Errorf("%s: at %.0f ms %d, %d is %v, want %v", what, ms, x, y, got, want)
	}
}

func hex(code string) color.RGBA {
	var c color.RGBA
	fmt.Sscanf(code, "#%02x%02x%02x", &c.R, &c.G, &c.B)
	c.A = 255
	return c
}

// Four cards come from the left one after another and go before the scene ends, the last with it.
func TestTheCards(t *testing.T) {
	m := begins(t, startStudio(t), "Wide")
	m.colours("Background", "#f0ddb2")
	m.draws("Rectangle", 120, 340, 480, 740)
	m.colours("Fill", "#3f7f86")
	m.word("Copies in a row, a grid, a ring …")
	m.types("How many", "4")
	m.types("Gap", "80")
	m.word("Lay out 4")
	m.keys("g", chromedp.ModifierCtrl, chromedp.ModifierShift)
	m.moves("Slide in")
	m.picks("Order in which they are taken", "left")
	m.types("Step between them", "0.3")
	m.word("Cascade")
	m.moves("Fade out")
	m.word("Cascade")
	m.keys(kb.Escape)
	m.keys(kb.Escape)
	m.types("Stay in seconds", "5")
	m.takes("the cards", 60)
	card, ground := hex("#3f7f86"), hex("#f0ddb2")
	m.shows("before the cards", 0, 1700, 540, ground)
	m.shows("the first card", 620, 300, 540, card)
	m.shows("the last has not come", 620, 1620, 540, ground)
	for i := range 4 {
		m.shows("all cards", 2400, 300+440*i, 540, card)
	}
}

// A window in a wall: behind it clouds scroll by, and a kite crosses on a path; it is seen inside the window alone.
func TestTheWindow(t *testing.T) {
	m := begins(t, startStudio(t), "Wide")
	m.colours("Background", "#8ec6da")
	m.draws("Ellipse", 300, 300, 700, 460)
	m.colours("Fill", "#fffdf8")
	m.moves("Scroll")
	m.types("Rounds in the scene", "1")
	m.draws("Rectangle", -200, -40, 2120, 1120)
	m.colours("Fill", "#17403c")
	m.draws("Ellipse", 560, 240, 1360, 840)
	m.row("Rectangle", chromedp.ModifierCtrl)
	m.word("Punch out")
	m.keys(kb.Escape)
	m.types("Stay in seconds", "4")
	m.takes("the window", 45)
	m.shows("the wall", 0, 100, 100, hex("#17403c"))
	m.shows("the sky in the window", 0, 960, 700, hex("#8ec6da"))
	m.shows("a cloud comes by", 1600, 900, 380, hex("#fffdf8"))
	m.shows("the wall hides it", 1600, 100, 380, hex("#17403c"))
}

// A wheel of four kites turns by quarters and goes round: back to the first scene it goes on, never back.
func TestTheWheel(t *testing.T) {
	m := begins(t, startStudio(t), "Square")
	m.draws("Ellipse", 340, 140, 740, 540)
	m.word("Copies in a row, a grid, a ring …")
	m.on(`[aria-label="Around a centre"]`)
	m.types("How many", "4")
	m.types("Radius", "260")
	m.word("Lay out 4")
	m.types("Across: middle, from the left", "540")
	m.types("Down: middle, from the top", "540")
	m.keys("g", chromedp.ModifierCtrl, chromedp.ModifierShift)
	m.keys(kb.Escape)
	m.row("Ellipse 1")
	m.colours("Fill", "#d8573a")
	m.keys("a", chromedp.ModifierCtrl)
	m.keys("g", chromedp.ModifierCtrl)
	m.keys(kb.Escape)
	m.types("Stay in seconds", "0.5")
	for i := 1; i < 4; i++ {
		m.word("Continue scene")
		m.row("Group")
		m.types("Turn", fmt.Sprint(90*i))
		m.keys(kb.Escape)
	}
	m.tick("Begins again at its end")
	m.did()
	m.picks("Closing transition", "morph")
	m.takes("the wheel", 200)
	// The marked kite stands up, right, down, left, and half way between on its way on; never where it was.
	red := hex("#d8573a")
	at := func(turn float64) (int, int) {
		s, c := math.Sincos(turn * math.Pi / 180)
		return int(540 + 260*s), int(540 - 260*c)
	}
	for i := range 4 {
		x, y := at(float64(90 * i))
		m.shows("at rest", float64(i)*1200+250, x, y, red)
		x, y = at(float64(90*i) + 45)
		m.shows("on its way on", float64(i)*1200+500+350, x, y, red)
	}
	if by := browser.Eval[float64](t, m.ctx, `capstanProbe.engine.rows({rest: true, scene: 0, time: 0})[0].spans.find(s => s.strand && s.scene === 0).by`); by != 90 {
		t.Errorf("back to the first scene it turns by %v", by)
	}
}

// A bus drives in on two wheels that spin as it goes, stops, and drives on.
func TestTheBus(t *testing.T) {
	m := begins(t, startStudio(t), "Wide")
	m.colours("Background", "#f0ddb2")
	m.draws("Rectangle", 500, 400, 1300, 760)
	m.colours("Fill", "#d8573a")
	m.draws("Rectangle", 560, 450, 700, 580)
	m.colours("Fill", "#8ec6da")
	m.word("Copies in a row, a grid, a ring …")
	m.types("How many", "4")
	m.types("Gap", "40")
	m.word("Lay out 4")
	m.keys(kb.Escape)
	m.draws("Ellipse", 600, 680, 780, 860)
	m.colours("Fill", "#1a2421")
	m.draws("Rectangle", 680, 690, 700, 850)
	m.colours("Fill", "#fffdf8")
	m.row("Ellipse", chromedp.ModifierCtrl)
	m.keys("g", chromedp.ModifierCtrl)
	m.moves("Spin")
	m.types("Duration", "1")
	m.keys("d", chromedp.ModifierCtrl)
	m.types("Across: middle, from the left", "1110")
	m.types("Down: middle, from the top", "770")
	m.keys("a", chromedp.ModifierCtrl)
	m.keys("g", chromedp.ModifierCtrl)
	m.word("Motion path")
	m.drags(-500, 600, 900, 600)
	m.types("Duration", "2")
	m.word("Motion path")
	m.drags(900, 600, 2400, 600)
	m.types("Start", "3")
	m.types("Duration", "2")
	m.keys(kb.Escape)
	m.keys(kb.Escape)
	m.types("Stay in seconds", "5")
	m.takes("the bus", 180)
	m.shows("it is not there yet", 0, 900, 640, hex("#f0ddb2"))
	m.shows("it has stopped", 2500, 900, 640, hex("#d8573a"))
	m.shows("its window", 2500, 630, 515, hex("#8ec6da"))
	m.shows("it has driven on", 5000, 900, 640, hex("#f0ddb2"))
	if a, b := m.colour(2500, 690, 700), m.colour(2750, 690, 700); a == b {
		t.Errorf("a quarter of a turn later its wheel shows %v still", a)
	}
	// As a GIF of 480 px across it goes round every 6.00 s, a second of which it rests at its end.
	m.pressWord("Export film")
	m.press(`[data-kind=gif]`)
	m.set("Wide, px; an even number", "480")
	m.pressWord("Export GIF")
	m.wait(`document.querySelector('[data-state=done]')`)
	g, err := gif.DecodeAll(bytes.NewReader(m.s.fetch("/api/exports/" + browser.Eval[string](t, m.ctx, `document.querySelector('[data-state=done]').dataset.export`) + "/file")))
	if err != nil {
		t.Fatal(err)
	}
	all := 0
	for _, d := range g.Delay {
		all += d
	}
	if all != 600 || g.Config.Width != 480 || g.LoopCount != 0 {
		t.Errorf("a pass of %d hundredths, %d px across, again %d times", all, g.Config.Width, g.LoopCount)
	}
}

// An upright reel: a gradient behind it, words on a plate that come word by word, then others in the scene that follows.
func TestTheReel(t *testing.T) {
	m := begins(t, startStudio(t), "Upright")
	m.on(`[aria-label="Linear gradient"]`)
	m.drags(540, 1728, 540, 1400) // the end of the gradient, on the page
	m.writes("Bring a long tail", 540, 800)
	m.tick("On a plate")
	m.did()
	m.colours("Plate", "#17403c")
	if browser.Eval[bool](t, m.ctx, `!!document.querySelector('[data-contrast] button')`) {
		m.word("Make readable")
	}
	m.moves("Wipe in")
	m.picks("Unit", "word")
	m.keys(kb.Escape)
	m.keys(kb.Escape)
	m.word("Continue scene")
	m.row("Bring a long tail")
	m.do(chromedp.Focus(`[data-desk]`))
	m.keys(kb.Enter)
	m.do(chromedp.KeyEvent("a", chromedp.KeyModifiers(chromedp.ModifierCtrl)), chromedp.KeyEvent("Saturday at ten"))
	m.actions += 2
	m.keys(kb.Escape)
	m.takes("the reel", 70)
	plate := hex("#17403c")
	seen := func(ms float64) (n int) {
		img := m.pixels(0, ms, false, 270, 480, "#fff")
		for y := 180; y < 220; y++ {
			for x := range 270 {
				if alike(img.RGBAAt(x, y), plate, 6) {
					n++
				}
			}
		}
		return
	}
	if early, half, whole := seen(0), seen(450), seen(1500); early != 0 || half < whole/10 || half > whole*9/10 {
		t.Errorf("the plate covers %d px at first, %d half way and %d at last", early, half, whole)
	}
	if words := browser.Eval[[]string](t, m.ctx, `[0, 1].map(scene => capstanProbe.engine.selection({rest: true, scene, time: 0}, [capstanProbe.engine.rows({rest: true, scene, time: 0})[0].thread])[0].layer.text.runs[0].text)`); words[0] != "Bring a long tail" || words[1] != "Saturday at ten" {
		t.Errorf("the scenes say %q", words)
	}
	if a, b := m.colour(0, 540, 20), m.colour(0, 540, 1900); alike(a, b, 10) {
		t.Errorf("from the top to the foot the gradient goes from %v to %v", a, b)
	}
}
