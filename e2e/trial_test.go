package e2e

import (
	"fmt"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/e2e/browser"
	"capstan/studio/media"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

func (p *person) revision() string {
	p.t.Helper()
	return browser.Eval[string](p.t, p.ctx, `document.documentElement.dataset.revision`)
}

func (p *person) rowNames() string {
	p.t.Helper()
	return browser.Eval[string](p.t, p.ctx, `[...document.querySelectorAll('[data-row] [data-name]')].map(n => n.dataset.name).join()`)
}

func row(name string) string { return fmt.Sprintf(`[data-row] [data-name=%q]`, name) }

// bricks opens a project with a number of tiles beside each other, the first in front.
func bricks(t *testing.T, n int) *person {
	t.Helper()
	d := blank()
	for i := range n {
		id := fmt.Sprintf("tile-%d", i+1)
		d.Film.Scenes[0].Layers = append([]*doc.Layer{{ID: id, Thread: id, Name: fmt.Sprint("Tile ", i+1), Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#2f6f9f"}, Place: doc.Place{X: float64(30 + 50*i), Y: 120, W: 40, H: 40}}}, d.Film.Scenes[0].Layers...)
	}
	p := sit(t, startStudio(t))
	p.bring(d, media.NewFolder(t.TempDir()))
	return p
}

// Delete on a row acts on all that are selected; Shift selects from one row to the other, Ctrl one more.
func TestDeleteTakesAllThatAreSelected(t *testing.T) {
	p := bricks(t, 5)
	names := strings.Split(p.rowNames(), ",")
	if len(names) != 5 {
		t.Fatal(names)
	}
	nth := func(i int) string { return fmt.Sprintf(`[role=listitem]:nth-child(%d) [data-name]`, i+1) }
	p.press(nth(0))
	x, y := p.middle(nth(2))
	p.do(chromedp.MouseClickXY(x, y, chromedp.ButtonModifiers(chromedp.ModifierShift)))
	x, y = p.middle(nth(4))
	p.do(chromedp.MouseClickXY(x, y, chromedp.ButtonModifiers(chromedp.ModifierCtrl)))
	p.wait(`document.querySelector('[aria-label=Inspector] h2').innerText === '4 layers'`)
	p.key(kb.Delete)
	p.settled()
	if n := len(strings.Split(p.rowNames(), ",")); n != 1 {
		t.Errorf("four of five were selected and deleted, %d stay", n)
	}
	p.undo()
	if n := len(strings.Split(p.rowNames(), ",")); n != 5 {
		t.Errorf("undone in one step there are %d", n)
	}
}

// Whatever has the keyboard: Escape in a field stores nothing, and keys of one character, arrows and Delete do nothing to the document from where no layer is.
func TestKeysBelongToWhatHasTheKeyboard(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	p.press(`[data-row="t-kite"] [data-name]`)
	p.settled()
	before := p.revision()
	// Every number and name in the inspector, selected layer and scene alike.
	for _, scene := range []bool{false, true} {
		if scene {
			p.do(chromedp.Focus(`[data-desk]`))
			p.key(kb.Escape)
		}
		n := browser.Eval[int](t, p.ctx, `document.querySelectorAll('[aria-label=Inspector] input:not([type=checkbox]):not([type=range]):not(:disabled)').length`)
		if n < 2 {
			t.Fatalf("only %d fields", n)
		}
		for i := range n {
			was := browser.Eval[string](t, p.ctx, fmt.Sprintf(`(() => { const e = [...document.querySelectorAll('[aria-label=Inspector] input:not([type=checkbox]):not([type=range]):not(:disabled)')][%d]; e.focus(); e.select(); return e.value })()`, i))
			p.key("9")
			p.key(kb.Escape)
			p.settled()
			now := browser.Eval[string](t, p.ctx, fmt.Sprintf(`[...document.querySelectorAll('[aria-label=Inspector] input:not([type=checkbox]):not([type=range]):not(:disabled)')][%d].value`, i))
			if p.revision() != before || now != was {
				t.Fatalf("field %d: typed 9 and Escape, %q became %q at revision %s, before %s", i, was, now, p.revision(), before)
			}
		}
	}
	p.press(`[data-row="t-kite"] [data-name]`)
	p.settled()
	for _, on := range []string{`[data-ruler]`, `[data-edge]`, `header button[title^="Keep the project"]`, `[aria-label=Inspector] h2 button`, `[aria-label=Pen]`, `[role=separator]`} {
		for _, key := range []string{kb.ArrowRight, kb.ArrowUp, "x", "c", "o", kb.Delete, kb.Backspace, kb.PageDown} {
			if key == kb.ArrowRight && on == `[data-edge]` || key == "c" && on == `[data-ruler]` {
				continue // there it is the edge's own, and a cue at the playhead is the ruler's
			}
			p.do(chromedp.Focus(on))
			p.key(key)
			p.settled()
			if p.revision() != before {
				t.Fatalf("%q on %s changed the project: %s", key, on, p.revision())
			}
		}
	}
	// A pressed button of the inspector gives the keyboard back, so that arrows nudge again; so does Enter in a field, where Ctrl D duplicates then.
	p.press(`[aria-label^="One back"]`)
	p.wait(`document.activeElement === document.querySelector('[data-desk]')`)
	p.set("Opacity", "50")
	p.settled()
	rows := strings.Count(p.rowNames(), ",")
	p.key("d", chromedp.ModifierCtrl)
	p.settled()
	if n := strings.Count(p.rowNames(), ","); n != rows+1 {
		t.Errorf("Ctrl D after Enter in a field: %d rows more", n-rows)
	}
	// Numbers that cannot be are refused in words, and the old one stays.
	before = p.revision()
	p.set("Opacity", "150")
	p.wait(`document.querySelector('[data-notice]')?.innerText.includes('100 % or less')`)
	if v := browser.Eval[string](t, p.ctx, `document.querySelector('[aria-label=Opacity]').value`); p.revision() != before || v != "50" {
		t.Errorf("150 %% of opacity: %s, revision %s", v, p.revision())
	}
}

// Keys can be given to other things, and those of one character switched off; both stay over a reload.
func TestKeysAreChangedAndSwitchedOff(t *testing.T) {
	p := bricks(t, 2)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("?")
	p.press(`button[aria-label^="J: Safe areas"]`)
	p.key("u")
	p.wait(`document.querySelector('[data-notice]')?.innerText.includes('U is taken: Rulers and guides')`)
	p.press(`button[aria-label^="J: Safe areas"]`)
	p.key("q")
	p.wait(`document.querySelector('button[aria-label^="Q: Safe areas"]')`)
	p.key(kb.Escape)
	p.open(browser.Eval[string](t, p.ctx, `location.pathname`))
	p.settled()
	safe := func() bool { return browser.Eval[bool](t, p.ctx, `!!document.querySelector('[data-area]')`) }
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("j")
	if safe() {
		t.Error("J still shows the safe areas")
	}
	p.key("q")
	if !safe() {
		t.Error("Q does not show them")
	}
	p.press(`[aria-label="Keyboard shortcuts"]`)
	browser.Eval[bool](t, p.ctx, `([...document.querySelectorAll('[role=dialog] input[type=checkbox]')][0].click(), true)`)
	p.key(kb.Escape)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("q")
	if !safe() {
		t.Error("switched off, Q does something still")
	}
	p.key("a", chromedp.ModifierCtrl)
	p.wait(`document.querySelector('[aria-label=Inspector] h2')?.innerText === '2 layers'`)
	p.shot("keys")
}
