package e2e

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/accessibility"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/e2e/browser"
)

// count begins to count the calls to the engine by name.
func (p *person) count() {
	p.t.Helper()
	browser.Eval[bool](p.t, p.ctx, `(() => {
		window.counted = {}
		if (!window.counting) for (const k of Object.keys(capstanEngine)) {
			const f = capstanEngine[k]
			capstanEngine[k] = (...a) => { counted[k] = (counted[k] ?? 0) + 1; return f(...a) }
		}
		window.counting = true
		return true
	})()`)
}

// counted are the calls since, but for those that paint (frame, outline, thumb, only), and what is done while nothing else is (prepare).
func (p *person) counted() map[string]int {
	p.t.Helper()
	return browser.Eval[map[string]int](p.t, p.ctx, `(() => { const { outline, thumb, only, prepare, ...rest } = counted; return rest })()`)
}

// A drag costs one update and one frame a move of the pointer; a typed number one call while it is typed, and one when it is stored; a number
// dragged on its label the same. What is shown while it is, is what is stored then, and Escape gives the old one back.
func TestDragsAndNumbersCostFewCalls(t *testing.T) {
	p := sit(t, startAlone(t))
	p.open("/p/kite-day-opener")
	p.settled()
	p.press(`[data-name="Title"]`)
	p.pressWord("Place")
	c := browser.Eval[[]float64](t, p.ctx, `(() => { const k = capstanProbe.engine.overlay({rest: true, scene: 0, time: 0}, ['t-title']).boxes[0].corners; return [(k[0][0] + k[2][0]) / 2, (k[0][1] + k[2][1]) / 2] })()`)
	x, y := p.at(c[0], c[1])
	o := []chromedp.MouseOption{chromedp.ButtonLeft}
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, x, y, append(o, chromedp.ClickCount(1))...))
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x+20, y, o...))
	p.do(chromedp.Sleep(100e6))
	p.count()
	for i := range 20 {
		p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x+20+float64(2*i), y+float64(i), o...))
	}
	p.do(chromedp.Sleep(100e6))
	if n := p.counted(); n["update"] > 20 || n["update"] < 5 || n["frame"] > n["update"]+1 || len(n) != 2 {
		t.Errorf("20 moves of the pointer ask %v", n)
	}
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, x+60, y+20, o...))
	p.settled()
	p.undo()

	field := `[aria-label="Across: middle, from the left"]`
	across := func() string { return browser.Eval[string](t, p.ctx, `document.querySelector('`+field+`').value`) }
	at := func() float64 {
		return browser.Eval[float64](t, p.ctx, `capstanProbe.engine.selection({rest: true, scene: 0, time: 0}, ['t-title'])[0].refs[4][0]`)
	}
	was, before := across(), at()
	p.do(chromedp.Focus(field))
	browser.Eval[bool](t, p.ctx, `(document.querySelector('`+field+`').select(), true)`)
	p.count()
	p.do(chromedp.KeyEvent("7"))
	p.do(chromedp.Sleep(200e6))
	if n := p.counted(); n["try"] != 1 || n["frame"] > 1 || len(n) > 2 {
		t.Errorf("a typed digit asks %v", n)
	}
	if at() != 7 {
		t.Errorf("while 7 is typed it lies at %v", at())
	}
	p.key(kb.Escape)
	p.settled()
	if across() != was || at() != before {
		t.Errorf("let go it lies at %s, %v, not %s, %v", across(), at(), was, before)
	}
	p.do(chromedp.Focus(field))
	browser.Eval[bool](t, p.ctx, `(document.querySelector('`+field+`').select(), true)`)
	p.do(chromedp.KeyEvent("700"))
	p.count()
	p.key(kb.Enter)
	p.settled()
	if n := p.counted(); n["run"] != 1 || n["frame"] > 2 || len(n)-n["acknowledge"] > 2 {
		t.Errorf("storing it asks %v", n)
	}
	if at() != 700 {
		t.Errorf("it lies at %v", at())
	}
	// On its label: two px a step.
	label := browser.Eval[[]float64](t, p.ctx, `(() => { const r = document.querySelector('label[for="' + document.querySelector('`+field+`').id + '"]').getBoundingClientRect(); return [r.x + 8, r.y + r.height / 2] })()`)
	p.do(chromedp.DragAndDropXY(label[0], label[1], label[0]+40, label[1]))
	p.settled()
	if at() != 720 {
		t.Errorf("dragged on its label it lies at %v", at())
	}
	p.undo()
	if at() != 700 {
		t.Errorf("the drag is undone to %v", at())
	}

	// What a person wants at hand is pinned to the rail, and there after a reload.
	p.key("?")
	p.press(`[aria-label="Pin to the rail: Duplicate"]`)
	p.key(kb.Escape)
	p.press(`[data-pin="Ctrl+D"]`)
	p.wait(`[...document.querySelectorAll('[data-name]')].filter(e => e.dataset.name.startsWith('Title')).length === 2`)
	p.settled()
	p.do(chromedp.Reload())
	p.settled()
	p.wait(`document.querySelector('[data-pin="Ctrl+D"]')`)
	// The desk alone, the timeline alone, and both again.
	high := func(part string) float64 {
		return browser.Eval[float64](t, p.ctx, `document.querySelector('`+part+`')?.clientHeight ?? 0`)
	}
	both := high("[data-desk]")
	p.press(`[data-desk]`)
	p.key("d")
	p.wait(`!document.querySelector('[data-timeline]')?.clientHeight`)
	if high("[data-desk]") < both+200 {
		t.Errorf("alone the desk is %v high, with the timeline %v", high("[data-desk]"), both)
	}
	p.key("d")
	p.press(`[aria-label="The timeline alone (T)"]`)
	p.wait(`!document.querySelector('[data-desk]') && document.querySelector('[data-timeline]').clientHeight > 600`)
	p.pressWord("Desk and timeline")
	p.wait(`document.querySelector('[data-desk]').clientHeight > 100`)
}

// misfits are scroll bars to the side and words that are cut off without saying them elsewhere, in all that is shown.
const misfits = `(() => {
	const out = []
	if (document.documentElement.scrollWidth > innerWidth) out.push('the window scrolls to the side')
	for (const e of document.querySelectorAll('header, [aria-label=Add], [aria-label=Inspector], [aria-label=Inspector] .thin-scroll, [role=dialog]'))
		if (e.scrollWidth > e.clientWidth + 1 && getComputedStyle(e).overflowX !== 'visible') out.push('scrolls to the side: ' + (e.ariaLabel ?? e.tagName))
	for (const e of document.querySelectorAll('header *, [aria-label=Add] *, [aria-label=Inspector] *, [role=dialog] *')) {
		if (![...e.childNodes].some(n => n.nodeType === 3 && n.data.trim()) || !e.getClientRects().length || e.closest('.sr-only')) continue
		const r = e.getBoundingClientRect(), s = getComputedStyle(e)
		const cut = s.overflow !== 'visible' && (e.scrollWidth > e.clientWidth + 1 || e.scrollHeight > e.clientHeight + 3)
		if (cut && !e.closest('[title], [aria-label], [aria-labelledby], label')) out.push('cut off: ' + e.innerText.slice(0, 40))
		if (r.right > innerWidth + 1 || r.left < -1) out.push('beside the window: ' + e.innerText.slice(0, 40))
		const p = e.parentElement.getBoundingClientRect()
		if (s.position === 'static' && (r.right > p.right + 6 || r.left < p.left - 6) && r.width > 0) out.push('over its edge: ' + e.innerText.slice(0, 40))
	}
	return [...new Set(out)]
})()`

// At every size that is promised nothing scrolls to the side and no words are cut off, whatever is selected; below 900 the inspector is a drawer
// (WCAG 1.4.10: 640 x 400 is 1280 x 800 at 200 %, 320 x 256 at 400 %).
func TestEverythingFitsEverySize(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	for _, size := range [][2]int64{{1920, 1080}, {1440, 900}, {1280, 800}, {1024, 700}, {640, 400}, {320, 256}} {
		p.do(chromedp.EmulateViewport(size[0], size[1]))
		p.do(chromedp.Focus(`[data-desk]`))
		p.key(kb.Escape)
		p.key(kb.Escape)
		narrow := size[0] < 900
		if narrow {
			p.wait(`!document.querySelector('[aria-label=Inspector]')`)
			p.pressWord("Inspector")
			p.wait(`document.querySelector('[aria-label=Inspector]')`)
		}
		look := func(state string) {
			t.Helper()
			p.do(chromedp.Sleep(150e6))
			for _, f := range browser.Eval[[]string](t, p.ctx, misfits) {
				t.Errorf("%d x %d, %s: %s", size[0], size[1], state, f)
			}
			if h := browser.Eval[float64](t, p.ctx, `document.querySelector('[data-desk]').clientHeight`); h < 160 {
				t.Errorf("%d x %d, %s: the page has %v px", size[0], size[1], state, h)
			}
		}
		look("a scene")
		for _, name := range []string{"Title", "Red kite"} {
			browser.Eval[bool](t, p.ctx, `(document.querySelector('[data-name="`+name+`"]').click(), true)`)
			p.wait(`document.querySelector('[aria-label="Layer name"]')?.value === '` + name + `'`)
			// All that folds is unfolded.
			browser.Eval[bool](t, p.ctx, `(() => { for (let i = 0; i < 3; i++) document.querySelectorAll('[aria-label=Inspector] [aria-expanded=false]:not([aria-haspopup])').forEach(e => e.click()); return true })()`)
			look(name)
		}
		if narrow {
			p.do(chromedp.Focus(`[data-desk]`))
			p.key("i")
			p.wait(`!document.querySelector('[aria-label=Inspector]')`)
		}
	}
	for _, sheet := range []string{"Stages", "Export film"} {
		p.do(chromedp.EmulateViewport(640, 400))
		p.pressWord(sheet)
		p.wait(`document.querySelector('[role=dialog]')`)
		for _, f := range browser.Eval[[]string](t, p.ctx, misfits) {
			t.Errorf("640 x 400, %s: %s", sheet, f)
		}
		p.key(kb.Escape)
		p.wait(`!document.querySelector('[role=dialog]')`)
	}
}

// The page speaks: what is done is said, what it shows stands in its description as the core tells it, its layers are listed, bars say their
// scene, and the playhead says what the clock says. All of it is read from the accessibility tree, as a screen reader does.
func TestThePageSpeaks(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	said := func(words string) {
		t.Helper()
		p.wait(fmt.Sprintf(`document.querySelector('[data-told]').textContent === %q`, words))
	}
	p.press(`[data-name="Title"]`)
	said("Title selected.")
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.ArrowRight)
	p.wait(`/^Title: \d+ across, \d+ down, \d+ by \d+\.$/.test(document.querySelector('[data-told]').textContent)`)
	p.key("z", chromedp.ModifierCtrl)
	said("Undone.")
	p.key("d", chromedp.ModifierCtrl)
	said("Title selected.") // the duplicate has its name
	p.key("z", chromedp.ModifierCtrl)
	p.key(" ")
	said("Playing.")
	p.key(" ")
	p.wait(`document.querySelector('[data-told]').textContent.startsWith('Paused at 0:0')`)
	p.wait(`document.querySelector('[data-ruler]').getAttribute('aria-valuetext') === document.querySelector('[data-time]').innerText`)
	// Played on into the next scene and stopped, the rows are those of the scene again.
	p.press(`[data-time]`)
	p.do(chromedp.KeyEvent("4.5" + kb.Enter))
	shown := func() string {
		return browser.Eval[string](t, p.ctx, `[...document.querySelectorAll('[data-row] [data-name]')].map(e => e.dataset.name).join()`)
	}
	rows := shown()
	p.key(" ")
	p.wait(`document.querySelector('[data-scene="1"][aria-current=true]')`)
	p.key(" ", chromedp.ModifierShift)
	p.wait(`document.querySelector('[data-scene="0"][aria-current=true]')`)
	if now := shown(); now != rows {
		t.Errorf("played and stopped, the rows are %s, before %s", now, rows)
	}
	p.key(kb.Escape)
	p.key(kb.Escape)
	p.settled()
	p.do(chromedp.Sleep(1000e6))
	words := browser.Eval[[]string](t, p.ctx, `capstanProbe.engine.summary(0)`)
	names := browser.Eval[[]string](t, p.ctx, `capstanProbe.engine.rows({rest: true, scene: 0, time: 0}).filter(r => r.here).map(r => r.name)`)
	scenes := browser.Eval[[]string](t, p.ctx, `capstanProbe.engine.film().scenes.map(s => s.name)`)
	var tree []*accessibility.Node
	p.do(chromedp.Func(func(ctx context.Context, _ *chromedp.Target) error {
		r, err := chromedp.Call(ctx, accessibility.GetFullAXTree, accessibility.GetFullAXTreeParams{})
		tree = r.Nodes
		return err
	}))
	text := func(v *accessibility.Value) string {
		if v == nil {
			return ""
		}
		return strings.Trim(string(v.Value), `"`)
	}
	page, bars, listed := "", 0, map[string]bool{}
	for _, n := range tree {
		switch name := text(n.Name); {
		case text(n.Role) == "application":
			page = text(n.Description)
		case text(n.Role) == "button" && strings.Contains(name, ", scene "):
			bars++
		case text(n.Role) == "StaticText":
			listed[name] = true
		}
	}
	for _, w := range words {
		if !strings.Contains(page, strings.Trim(fmt.Sprintf("%q", w), `"`)) && !strings.Contains(page, w) {
			t.Errorf("the page’s description lacks %q; it is %q", w, page)
		}
	}
	for _, n := range append(names, scenes...) {
		if !listed[n] {
			t.Errorf("%q is not in the tree", n)
		}
	}
	if bars < 8 {
		t.Errorf("%d bars say their scene", bars)
	}
}

// After each of forty actions the keyboard is where a person expects it, and never nowhere.
func TestTheKeyboardIsNeverNowhere(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	page, row, inspector := `[data-desk]`, `[data-name]`, `[aria-label=Inspector] *`
	n := 0
	then := func(what, there string, do func()) {
		t.Helper()
		n++
		do()
		// Where it is must be so for a while: what closes gives it back a moment later.
		if !browser.Eval[bool](t, p.ctx, fmt.Sprintf(`(async () => {
			let held = 0
			for (let i = 0; i < 30 && held < 3; i++) {
				held = document.activeElement?.matches(%q) ? held + 1 : 0
				await new Promise(r => setTimeout(r, 30))
			}
			return held >= 3
		})()`, there)) {
			on := browser.Eval[string](t, p.ctx, `document.activeElement?.outerHTML.slice(0, 120) ?? ''`)
			t.Errorf("after %s the keyboard is at %s", what, on)
			p.do(chromedp.Focus(`[data-desk]`))
		}
	}
	key := func(k string, m ...chromedp.Modifier) func() { return func() { p.key(k, m...) } }
	press := func(s string) func() { return func() { p.press(s) } }
	focus := func(s string) func() { return func() { p.do(chromedp.Focus(s)) } }
	then("opening a project", page+`, body, `+row, func() { p.do(chromedp.Focus(`[data-desk]`)) })
	for _, k := range []string{kb.Tab, kb.ArrowRight, "g", "g", "h", "h", "a", "a", kb.PageUp, "n", "n", "u", "u", "j", "j", "k"} {
		then("the key "+fmt.Sprintf("%q", k), page, key(k))
	}
	then("duplicating", page, key("d", chromedp.ModifierCtrl))
	then("undoing", page, key("z", chromedp.ModifierCtrl))
	then("redoing", page, key("z", chromedp.ModifierCtrl, chromedp.ModifierShift))
	then("deleting", page, key(kb.Delete))
	then("Escape", page, key(kb.Escape))
	then("a press on a row", row, press(`[data-name="Bunting"]`))
	then("down a row", row, key(kb.ArrowDown))
	then("deleting a row from all scenes", row+", "+page, key(kb.Delete))
	then("undoing that", row+", "+page, key("z", chromedp.ModifierCtrl))
	then("a row again", row, focus(`[data-name="Title"]`))
	then("to its bar", `[data-bar]`, key(kb.ArrowRight))
	then("Enter on the bar", inspector, key(kb.Enter))
	then("Escape back to the bar", `[data-bar]`, key(kb.Escape))
	then("deleting the bar", `[data-bar], `+page+`, `+row, key(kb.Delete))
	then("a field", inspector, focus(`[aria-label="Layer name"]`))
	then("Escape in it", page, key(kb.Escape))
	then("setting aside", page, key("x"))
	then("undoing that too", page, key("z", chromedp.ModifierCtrl))
	then("the sheet of keys", `[role=dialog], [role=dialog] *`, key("?"))
	then("closing it", page, key(kb.Escape))
	then("the export", `[role=dialog] *`, func() { p.pressWord("Export film") })
	then("closing that", page+`, header *`, key(kb.Escape))
	then("large view", page, func() { p.do(chromedp.Focus(`[data-desk]`)); p.key("l") })
	then("its first button", `[data-large] button`, key(kb.Tab))
	then("leaving it", page, key(kb.Escape))
	then("the gallery of moves", `[aria-label=Gallery] input`, func() { p.key(kb.Tab); p.key("e") })
	then("leaving the gallery", page, key(kb.Escape))
	if n < 40 {
		t.Errorf("%d actions", n)
	}
}
