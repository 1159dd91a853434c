package e2e

import (
	"bytes"
	"context"
	"encoding/base64"
	"fmt"
	"image/gif"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/e2e/browser"
	"capstan/studio/media"

	"github.com/chromedp/cdproto/input"
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
	browser.Eval[bool](t, p.ctx, `([...document.querySelectorAll('[role=dialog] [role=switch]')][0].click(), true)`)
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

// A press on a layer's middle is the layer's: the pivot is seized only once it is shown on purpose, and a tool in hand comes before every handle.
// Escape lets any drag go, on the page and in the timeline, and everything is as it was.
func TestPressesAndDragsBelongToWhatIsMeant(t *testing.T) {
	p := bricks(t, 2)
	p.do(chromedp.Focus(`[data-desk]`))
	p.click(30, 120)
	p.settled()
	before := p.stored()
	// A motion path is drawn from the middle, where the pivot lies.
	p.press(`[aria-label="Motion path"]`)
	p.drag(30, 120, 230, 60)
	p.settled()
	p.wait(`document.querySelector('[data-bar][data-kind=path]')`)
	if at := browser.Eval[string](t, p.ctx, `JSON.stringify(capstanProbe.engine.selection({rest: true, scene: 0, time: 0}, ['tile-1'])[0].layer.place.pivot ?? null)`); at != "null" {
		t.Errorf("the pivot was moved to %s", at)
	}
	p.undo()
	if p.stored() != before {
		t.Fatal("undone it is not what it was")
	}
	// Every kind of drag, let go by Escape half way.
	p.click(30, 120)
	p.pressWord("Add a move")
	p.pressWord("Fade in")
	p.settled()
	p.do(chromedp.Focus(`[data-desk]`))
	before = p.stored()
	for _, from := range []string{`[data-desk] canvas`, `[data-handle=se]`, `[data-handle=turn]`, `[data-bar] [data-part=whole]`, `[data-bar] [data-part=end]`, `[data-edge]`, `[data-scene="0"]`, `[data-row] [data-name]`, `[data-ruler]`, `[data-hitch=end]`} {
		x, y := p.middle(from)
		if strings.Contains(from, "canvas") {
			x, y = p.at(30, 120)
		}
		press := func(kind input.DispatchMouseEventType, x, y float64) {
			p.do(chromedp.MouseEvent(kind, x, y, chromedp.ButtonLeft, chromedp.ClickCount(1)))
		}
		time := browser.Eval[string](t, p.ctx, `document.querySelector('[data-time]').innerText`)
		press(input.DispatchMouseEventTypeMousePressed, x, y)
		for i := 1.0; i <= 4; i++ {
			press(input.DispatchMouseEventTypeMouseMoved, x+15*i, y+6*i)
		}
		p.key(kb.Escape)
		press(input.DispatchMouseEventTypeMouseMoved, x+90, y+30)
		press(input.DispatchMouseEventTypeMouseReleased, x+90, y+30)
		p.settled()
		if p.stored() != before {
			t.Fatalf("%s: dragged, and let go by Escape, the project is another", from)
		}
		if now := browser.Eval[string](t, p.ctx, `document.querySelector('[data-time]').innerText`); from == `[data-ruler]` && now != time {
			t.Errorf("the playhead stands at %s, it was at %s", now, time)
		}
		p.press(row("Tile 1"))
		p.press(`[data-bar] [data-part=whole]`)
		p.settled()
	}
	// The pivot, shown by its key, is dragged; let go of the key, presses go through it.
	p.do(chromedp.Focus(`[data-desk]`))
	p.click(30, 120)
	p.do(chromedp.Func(func(ctx context.Context, _ *chromedp.Target) error {
		_, err := chromedp.Call(ctx, input.DispatchKeyEvent, input.DispatchKeyEventParams{Type: input.DispatchKeyEventTypeKeyDown, Key: "p", Code: "KeyP", Text: "p"})
		return err
	}))
	p.wait(`document.querySelector('[data-handle=pivot]')`)
	p.drag(30, 120, 50, 140)
	p.settled()
	if p.stored() == before {
		t.Error("the pivot was not moved")
	}
	p.do(chromedp.Func(func(ctx context.Context, _ *chromedp.Target) error {
		_, err := chromedp.Call(ctx, input.DispatchKeyEvent, input.DispatchKeyEventParams{Type: input.DispatchKeyEventTypeKeyUp, Key: "p", Code: "KeyP"})
		return err
	}))
	p.wait(`!document.querySelector('[data-handle=pivot]')`)
}

// The closing transition is a stretch of the timeline: pressed, its fields are there; dragged, it lasts longer; its strands say how threads turn,
// and are told otherwise. A GIF of such a film has no rest at its end, of another size than the page, under a name of its own.
func TestFilmsThatGoRound(t *testing.T) {
	d := blank()
	for i := range 2 {
		sc := d.Film.Scenes[0]
		if i > 0 {
			sc = doc.NewScene("second", "Second")
			sc.Transition = doc.Transition{Kind: doc.Morph, Duration: 500}
			d.Film.Scenes = append(d.Film.Scenes, sc)
		}
		sc.Stay = 500
		sc.Layers = []*doc.Layer{{ID: fmt.Sprint("l", i), Thread: "wing", Name: "Wing", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#2f6f9f"}, Place: doc.Place{X: 160, Y: 120, W: 120, H: 30, Turn: float64(90 * i)}}}
	}
	d.Film.Loop, d.Film.Closing = true, &doc.Transition{Kind: doc.Morph, Duration: 500}
	p := sit(t, startStudio(t))
	p.bring(d, media.NewFolder(t.TempDir()))
	p.press(`[data-closing]`)
	p.wait(`document.querySelector('[data-closing-fields]').getBoundingClientRect().top < document.querySelector('[aria-label=Inspector]').getBoundingClientRect().bottom`)
	p.pull(`[data-edge^="Transition back"]`, "", 0.5*500*p.perMs(), 0)
	p.settled()
	if ms := browser.Eval[float64](t, p.ctx, `capstanProbe.engine.film().closing.duration`); math.Abs(ms-750) > 40 {
		t.Errorf("dragged by 0.25 s it lasts %v ms", ms)
	}
	p.press(`[data-bars=wing] [data-strand="0"] rect`)
	p.wait(`document.querySelector('[data-turns-by]')?.innerText === '↻ 270°'`)
	p.choose("Which way it turns back to the first scene", "numbered")
	p.wait(`document.querySelector('[data-turns-by]')?.innerText === '↺ 90°'`)
	p.set("Whole turns more", "1")
	p.wait(`document.querySelector('[data-turns-by]')?.innerText === '↺ 450°'`)
	p.set("Whole turns more", "500")
	p.wait(`document.querySelector('[data-notice=failed]')?.innerText.includes('100 or less')`)
	p.undo() // and the message goes with what it was about
	p.wait(`!document.querySelector('[data-notice=failed]')`)
	// It waits for half of the way back, and then goes evenly.
	p.choose("Its easing back to the first scene", "linear")
	p.set("What it waits of the morph back to the first scene", "50")
	p.settled()
	length := browser.Eval[float64](t, p.ctx, `capstanProbe.engine.film().length`)
	back := browser.Eval[float64](t, p.ctx, `capstanProbe.engine.film().closing.duration`)
	at := func(share float64) []uint8 { return p.pixels(0, length-back*(1-share), false, 160, 120, "#fff").Pix }
	if first := at(0.02); !bytes.Equal(first, at(0.45)) || bytes.Equal(first, at(0.7)) {
		t.Error("it does not wait for half of the morph")
	}
	p.undo()
	p.undo()

	p.pressWord("Export film")
	p.press(`[data-kind=gif]`)
	rest := `[aria-label="Rest of the last frame before it begins again"]`
	p.wait(`document.querySelector('` + rest + `').value === '0.00'`)
	p.set("Wide, px; an even number", "151")
	p.wait(`document.querySelector('[data-notice=failed]')?.innerText.includes('Type 150 or 152')`)
	p.set("Wide, px; an even number", "152")
	for i := range 2 {
		p.pressWord("Export GIF")
		p.wait(fmt.Sprintf(`document.querySelectorAll('[data-export][data-state=done]').length === %d`, i+1))
		if i == 0 {
			p.set("Rest of the last frame before it begins again", "0.7")
			p.settled()
		}
	}
	// The newest comes first.
	for i, want := range []struct {
		name string
		rest int
	}{{"blank-152x114-2.gif", 70}, {"blank-152x114.gif", 0}} {
		id := browser.Eval[string](t, p.ctx, fmt.Sprintf(`document.querySelectorAll('[data-export]')[%d].dataset.export`, i))
		name := browser.Eval[string](t, p.ctx, fmt.Sprintf(`document.querySelectorAll('[data-export]')[%d].querySelector('span[title]').title`, i))
		raw := browser.Eval[string](t, p.ctx, fmt.Sprintf(`fetch('/api/exports/%s/file').then(r => r.arrayBuffer()).then(b => btoa(String.fromCharCode(...new Uint8Array(b))))`, id))
		data, err := base64.StdEncoding.DecodeString(raw)
		if err != nil {
			t.Fatal(err)
		}
		g, err := gif.DecodeAll(bytes.NewReader(data))
		if err != nil {
			t.Fatal(err)
		}
		all := 0
		for _, d := range g.Delay {
			all += d
		}
		length := int(math.Round(browser.Eval[float64](t, p.ctx, `capstanProbe.engine.film().length`) / 10))
		if g.Config.Width != 152 || g.Config.Height != 114 || all != length+want.rest {
			t.Errorf("export %d: %d x %d, a pass of %d hundredths, the film has %d", i, g.Config.Width, g.Config.Height, all, length)
		}
		if name != want.name {
			t.Errorf("export %d is called %s, want %s", i, name, want.name)
		}
	}
}

// The background becomes a gradient, its end is dragged on the page, and the file of it is what the page shows; a picture becomes the ground.
func TestGradientsBehindAScene(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(blank(), media.NewFolder(t.TempDir()))
	p.press(`[aria-label="Linear gradient"]`)
	p.settled()
	p.do(chromedp.WaitVisible(`[data-handle="gradient-to"]`))
	before := p.colourAt(160, 230)
	p.undone("the end of the background's gradient", func() {
		x, y := p.middle(`[data-handle="gradient-to"]`)
		p.dragged(nil, [2]float64{x, y}, [2]float64{x, y - 120})
		if now := p.colourAt(160, 130); alike(now, p.colourAt(160, 20), 20) {
			t.Errorf("half way down it is %v still", now)
		}
	})
	if now := p.colourAt(160, 230); now != before {
		t.Errorf("undone its foot is %v, it was %v", now, before)
	}
	file := filepath.Join(t.TempDir(), "cloth.png")
	if err := os.WriteFile(file, pngFile(t, 64, 64), 0o644); err != nil {
		t.Fatal(err)
	}
	p.do(chromedp.SetUploadFiles(`[data-ground-input]`, []string{file}))
	p.wait(`document.querySelector('[data-row] [aria-label^="Unlock"]')`)
	if box := browser.Eval[[]float64](t, p.ctx, `capstanProbe.engine.selection({rest: true, scene: 0, time: 0}, [capstanProbe.engine.rows({rest: true, scene: 0, time: 0})[0].thread])[0].box`); box[2] < 320 || box[3] < 240 {
		t.Errorf("the ground is %v by %v", box[2], box[3])
	}
}
