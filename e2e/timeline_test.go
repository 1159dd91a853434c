package e2e

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"capstan/e2e/browser"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// words returns what a bar says it does.
func (p *person) words(bar string) string {
	p.t.Helper()
	p.wait(fmt.Sprintf(`document.querySelector('%s')`, bar))
	_, w, _ := strings.Cut(browser.Eval[string](p.t, p.ctx, fmt.Sprintf(`document.querySelector('%s').getAttribute('aria-label')`, bar)), ": ")
	w, _, _ = strings.Cut(w, ", scene ")
	return w
}

// perMs is how many px of the timeline a millisecond of the film takes.
func (p *person) perMs() float64 {
	return browser.Eval[float64](p.t, p.ctx, `(() => { const s = document.querySelector('[aria-current=true][data-scene]'); const f = capstanProbe.engine.film().scenes[Number(s.dataset.scene)]; return (s.getBoundingClientRect().width + 1) / f.stay })()`)
}

func (p *person) undo() {
	p.t.Helper()
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("z", chromedp.ModifierCtrl)
	p.settled()
}

func (p *person) shiftPress(selector string) {
	p.t.Helper()
	x, y := p.middle(selector)
	p.do(chromedp.MouseClickXY(x, y, chromedp.ButtonModifiers(chromedp.ModifierShift)))
	p.settled()
}

// atTheDate opens the demo's third scene, alone and on its clock.
func atTheDate(t *testing.T) *person {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	p.press(`[data-scene="2"]`)
	p.settled()
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("z")
	p.wait(`document.querySelectorAll('[data-scene]').length === 1 && document.querySelector('[data-clock]')`)
	return p
}

var day, where, hint, plate, badge = bar("Fade, in", "Day"), bar("Fade, in", "Where"), bar("Fade, in", "Hint"), bar("Fade, in", "Plate"), bar("At once, in", "Badge")

// Several bars go together; with Ctrl one hangs on what it snaps to; a frame selects bars; and each of it is one step to undo.
func TestBarsAreDraggedTogetherAndHung(t *testing.T) {
	p := atTheDate(t)
	if w := p.words(where); w != "when Fade, in of Day begins + 0.35 s · 0.60 s" {
		t.Fatal(w)
	}
	// Two bars dragged by the first: the one that hangs on the other keeps its gap.
	p.press(day + ` [data-part=whole]`)
	p.shiftPress(where + ` [data-part=whole]`)
	p.pull(day+` [data-part=whole]`, "", 500*p.perMs(), 0, chromedp.ModifierAlt)
	if a, b := p.words(day), p.words(where); a != "at 0.70 s · 0.60 s" || b != "when Fade, in of Day begins + 0.35 s · 0.60 s" {
		t.Errorf("dragged together: %s; %s", a, b)
	}
	p.undo()
	if a := p.words(day); a != "at 0.20 s · 0.60 s" {
		t.Errorf("undone: %s", a)
	}
	// With Ctrl the plate hangs on the end of the day.
	end := browser.Eval[float64](t, p.ctx, fmt.Sprintf(`document.querySelector('%s [data-part=whole]').getBoundingClientRect().right`, day))
	begin := browser.Eval[float64](t, p.ctx, fmt.Sprintf(`document.querySelector('%s [data-part=whole]').getBoundingClientRect().left`, plate))
	p.press(plate + ` [data-part=whole]`)
	p.pull(plate+` [data-part=whole]`, "", end-begin+2, 0, chromedp.ModifierCtrl)
	if w := p.words(plate); w != "when Fade, in of Day ends · 0.50 s" {
		t.Errorf("hung with Ctrl: %s", w)
	}
	p.undo()
	if w := p.words(plate); w != "at -0.30 s · 0.50 s" {
		t.Errorf("undone: %s", w)
	}
	// A frame around the three bars of the cascade selects them.
	ax, ay := p.middle(hint + ` [data-part=whole]`)
	_, by := p.middle(day + ` [data-part=whole]`)
	right := ax + 260
	left := []chromedp.MouseOption{chromedp.ButtonType("left"), chromedp.ClickCount(1)}
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, right, ay-8, left...))
	for i := 1.0; i <= 6; i++ {
		p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, right+(ax-500-right)*i/6, ay-8+(by+8-ay+8)*i/6, left...))
	}
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, ax-500, by+8, left...))
	p.settled()
	chosen := browser.Eval[[]string](t, p.ctx, `[...document.querySelectorAll('[data-bar][aria-pressed=true]')].map(b => b.getAttribute('aria-label').split(':')[0])`)
	if slices.Sort(chosen); strings.Join(chosen, "; ") != "Fade, in, Day; Fade, in, Hint; Fade, in, Where" {
		t.Errorf("framed: %v", chosen)
	}
}

// A cascade's member is dragged past another: the order changes, the gaps and the whole stay. The tools, each with its undo.
func TestTimingToolsAndRuns(t *testing.T) {
	p := atTheDate(t)
	clocks := func() string {
		var out []string
		for _, b := range []string{day, where, hint} {
			a, e := p.clock(b)
			out = append(out, fmt.Sprintf("%.2f-%.2f", a, e))
		}
		return strings.Join(out, " ")
	}
	before := clocks()
	if before != "0.20-0.80 0.55-1.15 0.90-1.50" {
		t.Fatal(before)
	}
	p.press(day + ` [data-part=whole]`)
	p.pull(day+` [data-part=whole]`, "", 480*p.perMs(), 0, chromedp.ModifierAlt)
	if got := clocks(); got != "0.55-1.15 0.20-0.80 0.90-1.50" {
		t.Errorf("dragged past one: %s", got)
	}
	p.undo()
	all := func() {
		p.press(`[data-row="t-day"] [data-name]`)
		p.shiftPress(`[data-row="t-where"] [data-name]`)
		p.shiftPress(`[data-row="t-hint"] [data-name]`)
	}
	for _, c := range []struct{ tool, want string }{
		{"Start together", "0.20-0.80 0.20-0.80 0.20-0.80"},
		{"End together", "0.90-1.50 0.90-1.50 0.90-1.50"},
		{"One after another", "0.20-0.80 0.80-1.40 1.40-2.00"},
		{"Cascade", "0.20-0.80 0.35-0.95 0.50-1.10"},
		{"Reverse order", "0.90-1.50 0.55-1.15 0.20-0.80"},
		{"Spread over", "0.20-0.80 0.55-1.15 0.90-1.50"},
		{"Fit to scene", "0.00-3.00 0.00-3.00 0.00-3.00"},
		{"Stretch to", "0.20-2.20 0.55-2.55 0.90-2.90"},
	} {
		all()
		p.pressWord(c.tool)
		p.settled()
		if got := clocks(); got != c.want {
			t.Errorf("%s: %s, want %s", c.tool, got, c.want)
		}
		if c.tool == "Spread over" {
			continue // they were at equal steps already
		}
		p.undo()
		if got := clocks(); got != before {
			t.Fatalf("%s undone: %s", c.tool, got)
		}
	}
	// Entrances become exits, and a row is cleared.
	all()
	p.pressWord("Swap in and out")
	p.settled()
	p.wait(`document.querySelector('[data-bar][aria-label^="Fade, out, Where"]')`)
	p.undo()
	all()
	p.pressWord("Clear all moves of these layers")
	p.wait(`!document.querySelector('[data-bar][aria-label*="Where"]')`)
	p.undo()
	if got := clocks(); got != before {
		t.Errorf("cleared and undone: %s", got)
	}
}

// Cues are made at the playhead, dragged, named, waited at; moves hang on them, and the scene may end at one.
func TestCuesAreFlags(t *testing.T) {
	p := atTheDate(t)
	ruler := `[data-ruler]`
	r := browser.Eval[[]float64](t, p.ctx, `(() => { const s = document.querySelector('[data-scene]').getBoundingClientRect(), r = document.querySelector('[data-ruler]').getBoundingClientRect(); return [s.left, r.top + 10] })()`)
	p.do(chromedp.MouseClickXY(r[0]+1000*p.perMs(), r[1]))
	p.do(chromedp.Focus(ruler))
	p.key("c")
	p.settled()
	p.wait(`document.querySelectorAll('[data-cue]').length === 2`)
	flag := `[data-cue][aria-label^="Cue Cue 2"]`
	at := browser.Eval[string](t, p.ctx, fmt.Sprintf(`document.querySelector('%s').ariaLabel`, flag))
	if !strings.Contains(at, "1.0 s on the clock of The date") && !strings.Contains(at, "1.00 s") && !strings.Contains(at, "0.99 s") && !strings.Contains(at, "1.01 s") {
		t.Errorf("the flag: %s", at)
	}
	// Named by a double press.
	x, y := p.middle(flag)
	p.do(chromedp.MouseClickXY(x, y, chromedp.ClickCount(1)), chromedp.MouseClickXY(x, y, chromedp.ClickCount(2)))
	p.wait(`document.activeElement?.ariaLabel === 'Name of the cue'`)
	p.do(chromedp.KeyEvent("Borrow" + kb.Enter))
	p.settled()
	p.wait(`document.querySelector('[data-cue][aria-label^="Cue Borrow"]')`)
	// The badge hangs on it, by the list of starts.
	p.press(badge + ` [data-part=whole]`)
	p.settled()
	id := browser.Eval[string](t, p.ctx, `document.querySelector('[data-cue][aria-label^="Cue Borrow"]').dataset.cue`)
	p.choose("Cue", id)
	p.settled()
	if w := p.words(badge); w != "at cue Borrow" {
		t.Errorf("the badge: %s", w)
	}
	// Dragged half a second on, what hangs on it goes along.
	p.pull(`[data-cue][aria-label^="Cue Borrow"]`, "", 500*p.perMs(), 0)
	b, _ := p.clock(badge)
	if math.Abs(b-1.5) > 0.03 {
		t.Errorf("the badge comes at %v", b)
	}
	// A wait makes the stay longer, and the scene may end at the cue.
	p.key(kb.Escape)
	p.key(kb.Escape)
	p.settled()
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.Escape)
	p.wait(`document.querySelector('[aria-label="Wait at cue Borrow"]')`)
	p.set("Wait at cue Borrow", "2")
	p.settled()
	p.wait(`document.querySelector('[data-scene]').title.startsWith('The date, 5.0 s.')`)
	p.choose("When the scene ends", id)
	p.settled()
	stay := browser.Eval[string](t, p.ctx, `document.querySelector('[data-scene]').title`)
	if !strings.HasPrefix(stay, "The date, 3.") {
		t.Errorf("ended at the cue: %s", stay)
	}
	p.undo()
	p.wait(`document.querySelector('[data-scene]').title.startsWith('The date, 5.0 s.')`)
}

// Scenes are dragged to another place, selected together, set together with a question about those set by themselves; narrow ones
// gather into a tile that opens.
func TestScenesAlongTime(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	names := func() string {
		return browser.Eval[string](t, p.ctx, `capstanProbe.engine.film().scenes.map(s => s.name).join('; ')`)
	}
	x0, y0 := p.middle(`[data-scene="0"]`)
	x1, _ := p.middle(`[data-scene="1"]`)
	left := []chromedp.MouseOption{chromedp.ButtonType("left"), chromedp.ClickCount(1)}
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, x0, y0, left...))
	for i := 1.0; i <= 8; i++ {
		p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x0+(x1+20-x0)*i/8, y0, left...))
	}
	p.wait(`document.querySelector('[data-gap]')`)
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, x1+20, y0, left...))
	p.settled()
	if got := names(); got != "Over the water; Lift-off; The date" {
		t.Errorf("dragged: %s", got)
	}
	p.undo()
	if got := names(); got != "Lift-off; Over the water; The date" {
		t.Errorf("undone: %s", got)
	}
	// All scenes are to stay 2 s. Each has a stay of its own, so it asks.
	p.press(`[data-scene="1"]`)
	p.pressWord("Set the stay for all")
	p.set("Stay in seconds", "2")
	p.wait(`document.querySelector('[role=alert]')?.innerText.includes('of their own') || document.querySelector('[role=alert]')?.innerText.includes('of its own')`)
	p.pressWordIn(`[role=alert] button`, "too")
	p.settled()
	stays := func() string {
		return browser.Eval[string](t, p.ctx, `capstanProbe.engine.film().scenes.map(s => s.stay).join(' ')`)
	}
	if got := stays(); got != "2000 2000 2000" {
		t.Errorf("set for all: %s", got)
	}
	p.undo()
	if got := stays(); got != "4600 3200 3000" {
		t.Errorf("undone: %s", got)
	}
	// Two selected scenes are set alike; they had no common stay, the one that is shown counts.
	p.press(`[data-scene="1"]`)
	p.shiftPress(`[data-scene="2"]`)
	p.pressWord("Set the stay for 2 selected")
	p.set("Stay in seconds", "0.05")
	if browser.Eval[bool](t, p.ctx, `!!document.querySelector('[role=alert] button')`) {
		p.pressWordIn(`[role=alert] button`, "too")
	}
	p.settled()
	p.wait(`capstanProbe.engine.film().scenes.slice(1).every(s => s.stay === 50)`)
	// Eight copies of a short scene gather into a tile; a press shows them all.
	p.press(`[data-scene="1"]`)
	p.set("Transition in seconds", "0.05")
	p.settled()
	for i := 0; i < 6; i++ {
		p.pressWord("Duplicate scene")
		p.settled()
	}
	p.wait(`document.querySelector('[data-tile]')`)
	p.shot("tile")
	label := browser.Eval[string](t, p.ctx, `document.querySelector('[data-tile]').ariaLabel`)
	if !strings.HasPrefix(label, "7 scenes, ") {
		t.Errorf("tile: %s", label)
	}
	p.press(`[data-tile]`)
	p.wait(`!document.querySelector('[data-tile]') && document.querySelectorAll('[data-scene]').length === 9`)
	wide := browser.Eval[float64](t, p.ctx, `document.querySelector('[data-scene="3"]').getBoundingClientRect().width`)
	if wide < 20 {
		t.Errorf("opened, a scene is %v px wide", wide)
	}
}

// Rows are found by name, looked at alone, shown for the whole film, and open to a lane a move.
func TestRowsAreFoundAndLookedAtAlone(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	rows := func() string {
		return browser.Eval[string](t, p.ctx, `[...document.querySelectorAll('[data-row] [data-name]')].map(n => n.dataset.name).join('; ')`)
	}
	p.do(chromedp.Focus(`[aria-label="Find rows"]`), chromedp.KeyEvent("tail"))
	p.wait(`document.querySelectorAll('[data-row]').length === 1`)
	if got := rows(); got != "Tail" {
		t.Errorf("sought: %s", got)
	}
	p.key(kb.Escape)
	p.wait(`document.querySelectorAll('[data-row]').length > 5`)
	// Alone: the page shows the kite and nothing else of the layers.
	sky := p.pixels(0, 0, true, 192, 108, "#000").RGBAAt(20, 10)
	p.pressWord("Look at Red kite alone")
	p.settled()
	alone := p.pixels(0, 0, true, 192, 108, "#000")
	if got := alone.RGBAAt(20, 10); got == sky || !near(got, "#8ec6da", 2) {
		t.Errorf("with the kite alone the sky's picture shows: %v", got)
	}
	if got := alone.RGBAAt(140, 35); !near(got, "#d8573a", 40) && !near(got, "#b5412a", 40) && !near(got, "#f3dca6", 40) {
		t.Errorf("with the kite alone it does not show: %v", got)
	}
	p.pressWord("Show all layers again, not Red kite alone")
	p.settled()
	if got := p.pixels(0, 0, true, 192, 108, "#000").RGBAAt(20, 10); got != sky {
		t.Errorf("all again: %v", got)
	}
	// A second move opens the row to two lanes.
	high := func() float64 {
		return browser.Eval[float64](t, p.ctx, `document.querySelector('[data-row="t-title"]').getBoundingClientRect().height`)
	}
	p.press(`[data-row="t-title"] [data-name]`)
	p.pressWord("Add a move")
	p.pressWord("Rock")
	p.settled()
	if h := high(); h != 50 {
		t.Errorf("with two moves the selected row is %v px high", h)
	}
	p.press(`[data-row="t-kite"] [data-name]`)
	if h := high(); h != 25 {
		t.Errorf("not selected it is %v px high", h)
	}
	p.pressWord("this scene")
	if got := rows(); !strings.Contains(got, "Badge") {
		t.Errorf("all rows of the film: %s", got)
	}
}

// Playing: a scene, between marks, at half speed; the first moving frame comes within 100 ms.
func TestWaysToPlay(t *testing.T) {
	p := sit(t, startAlone(t))
	p.open("/p/kite-day-opener")
	p.settled()
	p.do(chromedp.Focus(`[data-desk]`))
	time := func() float64 {
		return browser.Eval[float64](t, p.ctx, `(() => { const [m, s] = document.querySelector('[data-time]').innerText.split(':').map(Number); return m * 60 + s })()`)
	}
	// From the press to the first frame that shows another time, by the page's own clock; the median of several.
	var waits []float64
	for range 5 {
		p.key(kb.Home)
		p.settled()
		waits = append(waits, browser.Eval[float64](t, p.ctx, `new Promise(done => {
			const root = document.documentElement, was = root.dataset.painted, t0 = performance.now()
			const o = new MutationObserver(() => { const [, at] = root.dataset.painted.split('/'); if (root.dataset.painted !== was && Number(at) > 0) { o.disconnect(); done(performance.now() - t0) } })
			o.observe(root, {attributes: true})
			document.querySelector('[aria-label=Play]').click()
		})`))
		p.press(`[aria-label=Pause]`)
	}
	slices.Sort(waits)
	t.Logf("from play to the first moving frame: %.0f ms (%v)", waits[2], waits)
	if waits[2] > 100 {
		t.Errorf("it takes %.0f ms from play to the first moving frame", waits[2])
	}
	// The second scene alone: from 5.8 s to 9.0 s of the film.
	p.press(`[data-scene="1"]`)
	p.pressWord("Ways to play")
	p.pressWord("Speed 2")
	p.key(kb.Escape)
	p.do(chromedp.Focus(`[data-desk]`))
	began := browser.Eval[float64](t, p.ctx, `performance.now()`)
	p.key("s")
	p.wait(`document.querySelector('[aria-label=Pause]')`)
	if at := time(); at < 5.8 || at > 7.5 {
		t.Errorf("playing the scene begins at %v", at)
	}
	p.wait(`document.querySelector('[aria-label=Play]')`)
	took := browser.Eval[float64](t, p.ctx, `performance.now()`) - began
	if at := time(); at != 9 || took < 1500 || took > 2800 {
		t.Errorf("at twice the speed the scene of 3.2 s took %.0f ms and ended at %v", took, at)
	}
	// Between two marks, round and round.
	r := browser.Eval[[]float64](t, p.ctx, `(() => { const r = document.querySelector('[data-ruler]').getBoundingClientRect(); return [r.left, r.top + 8] })()`)
	k := p.perMs()
	for i, ms := range []float64{1000, 1600} {
		p.do(chromedp.MouseClickXY(r[0]+ms*k, r[1]))
		p.key("m")
		p.wait(fmt.Sprintf(`document.querySelector('[data-marks]')?.getBoundingClientRect().width > %d`, 10*i))
	}
	p.key("b")
	p.wait(`document.querySelector('[aria-label=Pause]')`)
	browser.Eval[bool](t, p.ctx, `new Promise(r => setTimeout(() => r(true), 1200))`)
	if at := time(); at < 0.97 || at > 1.63 {
		t.Errorf("after several rounds between the marks it is at %v", at)
	}
	p.key(" ", chromedp.ModifierShift)
	p.wait(`document.querySelector('[aria-label=Play]')`)
	if at := time(); math.Abs(at-1.6) > 0.04 {
		t.Errorf("stopped, it is back at %v", at)
	}
	// Start, end and rest of a move by one key.
	p.press(bar("Path", "Red kite") + ` [data-part=whole]`)
	for key, want := range map[string]float64{"[": 0.3, "]": 3.2, "r": 3.2} {
		p.key(key)
		if at := time(); at != want {
			t.Errorf("%s goes to %v, want %v", key, at, want)
		}
	}
	// Ghosts appear for what is selected.
	p.key("g")
	p.wait(`document.querySelectorAll('[data-ghost]').length > 4`)
	// The scene in words.
	p.key("w")
	p.wait(`document.querySelector('[role=dialog]')?.innerText.includes('At 0.90 s Title fades in over 0.90 s.')`)
}

// Menus at the pointer: layers are copied and pasted still; a bar's live end is let go of; and the keyboard runs a menu too.
func TestMenusAtThePointer(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	menu := func(selector, word string) {
		t.Helper()
		x, y := p.middle(selector)
		p.do(chromedp.MouseClickXY(x, y, chromedp.ButtonRight))
		p.wait(`document.querySelector('[role=menu]')`)
		p.pressWordIn(`[role=menuitem]`, word)
		p.settled()
	}
	bars := func(thread string, scene int) int {
		return browser.Eval[int](t, p.ctx, fmt.Sprintf(`capstanProbe.engine.rows({rest: true, scene: %d, time: 0}).find(r => r.thread === %q)?.bars.filter(b => b.scene === %d).length ?? -1`, scene, thread, scene))
	}
	menu(`[data-row="t-title"] [data-name]`, "Copy")
	p.press(`[data-scene="2"]`)
	menu(`[data-row="t-badge"] [data-name]`, "Paste still")
	if n := bars("t-title", 2); n != 0 {
		t.Errorf("pasted still, it has %d moves", n)
	}
	p.undo()
	menu(`[data-row="t-badge"] [data-name]`, "Paste")
	if n := bars("t-title", 2); n != 1 {
		t.Errorf("pasted, it has %d moves", n)
	}
	// By the keys of a menu: the second entry from the end deletes it here.
	p.do(chromedp.Focus(`[data-row="t-title"] [data-name]`))
	x, y := p.middle(`[data-row="t-title"] [data-name]`)
	p.do(chromedp.MouseClickXY(x, y, chromedp.ButtonRight))
	p.wait(`document.activeElement?.matches('[role=menuitem]')`)
	p.key(kb.ArrowUp)
	p.key(kb.ArrowUp)
	p.key(kb.Enter)
	p.settled()
	if n := bars("t-title", 2); n > 0 {
		t.Errorf("deleted from this scene, it still has %d moves there", n)
	}
	p.wait(`document.querySelector('[data-scene="2"]') && !document.querySelector('[role=menu]')`)
	// A scene by its menu.
	menu(`[data-scene="1"]`, "Blank scene before")
	if got := browser.Eval[string](t, p.ctx, `capstanProbe.engine.film().scenes.map(s => s.layers).join(' ')`); !strings.Contains(got, " 0 ") {
		t.Errorf("layers a scene: %s", got)
	}
}
