package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"capstan/e2e/browser"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// tabTo presses Tab until what a selector finds has the keyboard; back goes the other way.
func (p *person) tabTo(selector string, back bool) {
	p.t.Helper()
	for range 140 {
		if browser.Eval[bool](p.t, p.ctx, fmt.Sprintf(`!!document.activeElement?.matches('%s')`, selector)) {
			return
		}
		if back {
			p.key(kb.Tab, chromedp.ModifierShift)
		} else {
			p.key(kb.Tab)
		}
	}
	p.shot("failure")
	p.t.Fatalf("%s is not reached by Tab", selector)
}

// tabToWord presses Tab until the button with these words has the keyboard.
func (p *person) tabToWord(words string) {
	p.t.Helper()
	for range 140 {
		if browser.Eval[string](p.t, p.ctx, `document.activeElement?.innerText?.trim() ?? ''`) == words {
			return
		}
		p.key(kb.Tab)
	}
	p.t.Fatalf("%s is not reached by Tab", words)
}

// typeInto reaches a field by Tab and types a value.
func (p *person) typeInto(name, value string, back bool) {
	p.t.Helper()
	p.tabTo(fmt.Sprintf(`[aria-label="%s"]`, name), back)
	p.do(chromedp.KeyEvent(value + kb.Tab)) // Enter would give the keyboard back to the page
	p.settled()
}

// A film is made from the start screen to its file without touching the mouse: two shapes, moves from the menu, times typed and nudged, a hitch, a live end, a cue, a
// cascade's tool, a second scene, playing, exporting, and undoing all of it.
func TestTimingByKeyboardAlone(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/")
	p.wait(`document.querySelector('button')`)
	p.tabTo(`button`, false)
	for range 60 {
		if browser.Eval[bool](t, p.ctx, `document.activeElement?.innerText?.startsWith('Wide')`) {
			break
		}
		p.key(kb.Tab)
	}
	p.key(kb.Enter)
	p.wait(`location.pathname.startsWith('/p/')`)
	p.settled()
	for _, k := range []string{"1", "2"} {
		p.key(k)
		p.key(kb.Enter)
		p.settled()
	}
	p.wait(`document.querySelector('[data-name="Ellipse"]') && document.querySelector('[data-name="Rectangle"]')`)

	// The ellipse is selected; it gets a slide from the gallery.
	menu := func(word string) {
		t.Helper()
		p.key("e")
		p.wait(`document.activeElement?.matches('[aria-label=Gallery] input')`)
		p.do(chromedp.KeyEvent(word))
		p.wait(`document.querySelector('[data-offer]')?.title.startsWith('` + word + `')`)
		p.key(kb.Enter)
		p.settled()
		p.wait(`!document.querySelector('[aria-label=Gallery]') && document.activeElement !== document.body`)
	}
	menu("Slide in")
	p.wait(`document.querySelector('[data-bar][aria-label^="Slide, in, Ellipse"]')`)
	p.typeInto("Start", "0.5", true)
	p.typeInto("Duration", "1.2", false)
	slide, fade := bar("Slide, in", "Ellipse"), bar("Fade, in", "Rectangle")
	if w := p.words(slide); w != "at 0.50 s · 1.20 s" {
		t.Errorf("typed: %s", w)
	}

	// By its row to the rectangle, which fades in when the slide ends.
	p.tabTo(`[data-row] [data-name]`, false)
	p.key(kb.ArrowDown)
	p.wait(`document.activeElement?.dataset.name === 'Rectangle'`)
	p.key(kb.Enter)
	p.settled()
	menu("Fade in")
	p.tabTo(`[data-choice="Starts"]`, true)
	pick := func(words string) {
		t.Helper()
		p.key(" ")
		p.wait(`document.querySelector('[role=option]')`)
		p.do(chromedp.KeyEvent(words))
		p.key(kb.Enter)
		browser.Eval[bool](t, p.ctx, `new Promise(r => setTimeout(() => r(true), 60))`)
		p.settled()
	}
	pick("when … e")
	if w := p.words(fade); w != "when Slide, in of Ellipse ends · 0.60 s" {
		// Lists choose by their first letters, which are alike here; the arrows go on from there.
		p.key(kb.ArrowDown)
		p.settled()
		if w = p.words(fade); !strings.HasPrefix(w, "when Slide, in of Ellipse ends") {
			t.Errorf("hung: %s", w)
		}
	}

	// Along the row to the bar: a frame later, a tenth of a second longer; then both are undone.
	p.tabTo(`[data-row] [data-name]`, false)
	for range 4 {
		name := browser.Eval[string](t, p.ctx, `document.activeElement?.dataset.name ?? ''`)
		if name == "Rectangle" {
			break
		}
		p.key(kb.ArrowDown)
		// The next row takes the focus when the page has answered: asked before, a busy machine is pressed past the row.
		p.wait(`document.activeElement?.dataset.name && document.activeElement.dataset.name !== ` + strconv.Quote(name))
	}
	p.wait(`document.activeElement?.dataset.name === 'Rectangle'`)
	p.key(kb.ArrowRight)
	p.wait(`document.activeElement?.matches('[data-bar]')`)
	p.key(kb.ArrowRight)
	p.settled()
	if w := p.words(fade); w != "when Slide, in of Ellipse ends + 0.03 s · 0.60 s" {
		t.Errorf("nudged by a frame: %s", w)
	}
	p.key(kb.ArrowRight, chromedp.ModifierCtrl, chromedp.ModifierShift)
	p.settled()
	if w := p.words(fade); w != "when Slide, in of Ellipse ends + 0.03 s · 0.70 s" {
		t.Errorf("its end nudged: %s", w)
	}
	p.key("z", chromedp.ModifierCtrl)
	p.settled()
	p.key("z", chromedp.ModifierCtrl)
	p.settled()
	if w := p.words(fade); w != "when Slide, in of Ellipse ends · 0.60 s" {
		t.Errorf("undone: %s", w)
	}

	// Both bars are chosen by keyboard and start together.
	p.key(kb.ArrowUp, chromedp.ModifierShift)
	p.wait(fmt.Sprintf(`document.activeElement?.matches('%s')`, slide))
	p.wait(`document.querySelectorAll('[data-bar][aria-pressed=true]').length === 2`)
	for range 3 {
		p.key(kb.F6)
		if browser.Eval[bool](t, p.ctx, `!!document.activeElement?.closest('[aria-label=Inspector]')`) {
			break
		}
	}
	for range 140 {
		if browser.Eval[bool](t, p.ctx, `document.activeElement?.innerText === 'Start together'`) {
			break
		}
		p.key(kb.Tab)
	}
	p.key(kb.Enter)
	p.settled()
	if w := p.words(fade); w != "when Slide, in of Ellipse begins · 0.60 s" {
		t.Errorf("started together: %s", w)
	}

	// A cue at the playhead, moved by its arrows; a second scene, and the film plays and stops.
	p.tabTo(`[data-ruler]`, false)
	p.key(kb.ArrowRight, chromedp.ModifierShift)
	p.key("c")
	p.settled()
	p.tabTo(`[data-cue]`, false)
	p.key(kb.ArrowRight)
	p.settled()
	p.wait(`document.querySelector('[data-cue]').ariaLabel.includes('0.2 s')`)
	p.tabTo(`[data-scene]`, false)
	p.key(kb.Tab)
	p.tabTo(`[aria-label="Add a scene"]`, false)
	p.key(kb.Enter)
	p.wait(`document.activeElement?.matches('[role=menu]')`)
	p.key(kb.ArrowDown)
	p.key(kb.Enter)
	p.settled()
	p.wait(`document.querySelectorAll('[data-scene]').length === 2`)
	p.tabTo(`[data-scene]`, true)
	p.key(kb.Home)
	p.key("f")
	p.wait(`document.querySelector('[aria-label=Pause]')`)
	p.wait(`document.querySelector('[data-time]').innerText > '0:00.30'`)
	p.key(" ", chromedp.ModifierShift)
	p.wait(`document.querySelector('[aria-label=Play]')`)

	// The film goes to a file, which another decoder reads: the ellipse slides in, and the next scene goes on from there.
	p.tabToWord("Export film")
	p.key(kb.Enter)
	p.wait(`document.querySelector('[role=dialog] button')`)
	p.tabToWord("Export MP4")
	p.key(kb.Enter)
	p.wait(`document.querySelector('[data-state=done] a[download]')`)
	seconds := browser.Eval[float64](t, p.ctx, `(([, m, s]) => 60 * m + +s)(document.querySelector('[aria-label=Timeline]').innerText.match(/\/\s*(\d+):([\d.]+)/))`)
	file := filepath.Join(t.TempDir(), "film.mp4")
	if err := os.WriteFile(file, p.s.fetch(browser.Eval[string](t, p.ctx, `new URL(document.querySelector('[data-state=done] a[download]').href).pathname`)), 0o644); err != nil {
		t.Fatal(err)
	}
	frames := decode(t, file, 320, 180, 30)
	if len(frames) != int(seconds*30+0.5) || frames[0].RGBAAt(160, 90) == frames[60].RGBAAt(160, 90) || frames[len(frames)-1].RGBAAt(160, 90) != frames[60].RGBAAt(160, 90) {
		t.Errorf("%d frames of %v s: %v, %v, %v in the middle", len(frames), seconds, frames[0].RGBAAt(160, 90), frames[60].RGBAAt(160, 90), frames[len(frames)-1].RGBAAt(160, 90))
	}
	p.key(kb.Escape)
	p.wait(`!document.querySelector('[role=dialog]')`)
	p.tabTo(`[data-scene]`, false)

	// Everything is undone, down to the empty page.
	for range 30 {
		p.key("z", chromedp.ModifierCtrl)
		p.settled()
		if browser.Eval[bool](t, p.ctx, `document.querySelectorAll('[data-row]').length === 0`) {
			break
		}
	}
	if n := browser.Eval[int](t, p.ctx, `document.querySelectorAll('[data-row], [data-cue]').length + document.querySelectorAll('[data-scene]').length`); n != 1 {
		t.Errorf("undone, %d things are left besides the scene", n-1)
	}
}
