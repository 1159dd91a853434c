package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/e2e/browser"
	"capstan/studio/media"
)

// offered waits until the gallery is open and has the keyboard.
func (p *person) offered() {
	p.t.Helper()
	p.wait(`document.activeElement?.matches('[aria-label=Gallery] input')`)
}

// pointAt moves the pointer onto a card by the begin of its name.
func (p *person) pointAt(card string) {
	p.t.Helper()
	find := fmt.Sprintf(`[data-offer][title^=%q]`, card)
	p.wait(`document.querySelector('` + find + `')`)
	browser.Eval[bool](p.t, p.ctx, `(document.querySelector('`+find+`').scrollIntoView({ block: 'nearest', inline: 'nearest' }), true)`)
	x, y := p.middle(find)
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x, y))
}

// What a person sees of whether the film plays: the button says Pause.
const (
	plays = `document.querySelector('[aria-label=Pause]')`
	rests = `!document.querySelector('[aria-label=Pause]') && document.querySelector('header').innerText.includes('at rest')`
)

// The gallery by mouse: what is pointed at plays on the page, and leaves nothing behind; a press adds it; a move is replaced where it stands, its times
// and hitches kept.
func TestMovesAreChosenByWhatTheyLookLike(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	p.press(`[data-row="t-title"] [data-name]`)
	before := p.stored()
	p.pressWord("Move")
	p.offered()
	// Small films move, each its own way: over a second every card in view has changed.
	moved := browser.Eval[[]int](t, p.ctx, `(async () => {
		const cards = [...document.querySelectorAll('[data-offer] canvas')].slice(0, 6)
		const hash = (c) => c.toDataURL().length + c.toDataURL().slice(-400)
		const seen = cards.map(() => new Set())
		for (let i = 0; i < 12; i++) {
			await new Promise(r => setTimeout(r, 100))
			cards.forEach((c, k) => seen[k].add(hash(c)))
		}
		return seen.map(s => s.size)
	})()`)
	for i, n := range moved {
		if n < 3 {
			t.Errorf("small film %d shows %d pictures in 1.2 s", i, n)
		}
	}
	p.pointAt("Slide in")
	p.wait(plays)
	p.pointAt("Scale in")
	p.wait(plays)
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, 300, 250))
	p.wait(rests)
	if now := p.stored(); now != before {
		t.Error("pointing at cards has changed the project")
	}
	bars := func() int {
		return browser.Eval[int](t, p.ctx, `document.querySelectorAll('[data-bar][aria-label*="Title"]').length`)
	}
	n := bars()
	p.pressWord("Hinge in")
	p.wait(`!document.querySelector('[aria-label=Gallery]')`)
	p.settled()
	if bars() != n+1 {
		t.Errorf("%d bars, then %d", n, bars())
	}

	// In its place an iris: it begins and lasts as the hinge did.
	p.set("Start", "1.25")
	p.set("Duration", "0.85")
	p.settled()
	p.pressWord("Replace …")
	p.offered()
	if kinds := browser.Eval[string](t, p.ctx, `[...document.querySelectorAll('[aria-label=Gallery] [role=listbox]')].map(e => document.getElementById(e.getAttribute('aria-labelledby')).firstChild.textContent).join()`); kinds != "Comes in" {
		t.Errorf("in place of an entrance there are %s", kinds)
	}
	p.pressWord("Iris in")
	p.settled()
	p.wait(`document.querySelector('[data-bar][aria-label*="Iris, in, Title"]')`)
	if w := p.words(bar("Iris, in", "Title")); w != "at 1.25 s · 0.85 s" {
		t.Errorf("replaced: %s", w)
	}
	if bars() != n+1 {
		t.Errorf("replaced there are %d bars, not %d", bars(), n+1)
	}
	// While its length is dragged it plays, over and over.
	x, y := p.middle(`label[title^="Duration"]`)
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, x, y, chromedp.ButtonLeft))
	for by := 4.0; by <= 40; by += 4 {
		p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x+by, y, chromedp.ButtonLeft))
	}
	p.wait(plays)
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, x+40, y, chromedp.ButtonLeft))
	p.wait(rests)
	p.settled()
	p.undo()
	// As an exit, mirrored, and as one was last given.
	p.pressWord("As an exit")
	p.settled()
	p.wait(`document.querySelector('[data-bar][aria-label*="Iris, out, Title"]')`)

	// Transitions, as they look on the two scenes: a press makes it so.
	p.press(`[data-scene="2"]`)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.Escape)
	p.pressWord("See them on these scenes …")
	p.offered()
	p.pointAt("Clock")
	p.wait(plays)
	p.pressWord("Clock")
	p.settled()
	if kind := browser.Eval[string](t, p.ctx, `capstanProbe.engine.film().scenes[2].transition`); kind != "clock" {
		t.Errorf("the transition is %s", kind)
	}
}

// The same by keyboard alone; Escape leaves all as it was; a search that finds nothing, and one of 10,000 letters, are said; several layers get theirs
// together, or one after another.
func TestTheGalleryByKeyboard(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	p.do(chromedp.Focus(`[data-name="Title"]`))
	p.key(kb.Enter)
	before := p.stored()
	p.key("e")
	p.offered()
	p.key(kb.ArrowDown)
	p.wait(`document.activeElement?.matches('[data-offer]')`)
	first := browser.Eval[string](t, p.ctx, `document.activeElement.title`)
	p.key(kb.ArrowRight)
	p.wait(plays)
	p.key(kb.ArrowDown)
	p.key(kb.End)
	p.key(kb.Home)
	p.key(kb.ArrowUp)
	if now := browser.Eval[string](t, p.ctx, `document.activeElement.title`); now != first {
		t.Errorf("from %s about and back to %s", first, now)
	}
	p.audit("the gallery")
	p.key(kb.Escape)
	p.wait(rests + ` && document.activeElement?.matches('[data-name="Title"]')`)
	if p.stored() != before {
		t.Error("Escape has left something behind")
	}
	p.key("e")
	p.offered()
	p.do(chromedp.KeyEvent("qqqq"))
	p.wait(`document.querySelector('[aria-label=Gallery]').innerText.includes('Nothing is called that')`)
	browser.Eval[bool](t, p.ctx, `(() => {
		const f = document.activeElement
		Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(f, 'spin '.repeat(2000))
		return f.dispatchEvent(new Event('input', { bubbles: true }))
	})()`)
	p.wait(`document.querySelector('[data-offer]')?.title.startsWith('Spin')`)
	p.key("a", chromedp.ModifierCtrl)
	p.do(chromedp.KeyEvent("wiggel"))
	p.wait(`document.querySelector('[data-offer]')?.title.startsWith('Shiver')`)
	p.key(kb.Enter)
	p.settled()
	p.wait(`document.querySelector('[data-bar][aria-label*="Shiver, Title"]')`)

	p.key("a", chromedp.ModifierCtrl)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("a", chromedp.ModifierCtrl)
	p.key("e")
	p.offered()
	p.press(`[data-choice="Several layers"]`)
	p.wait(`document.querySelector('[role=option]')`)
	p.pressWordIn(`[role=option]`, "one after another")
	p.pressWord("Fade in")
	p.settled()
	if hung := browser.Eval[int](t, p.ctx, `capstanProbe.engine.rows({ rest: true, scene: 0, time: 0 }).flatMap(r => r.bars).filter(b => b.words?.startsWith('when Fade, in')).length`); hung < 5 {
		t.Errorf("%d of all layers fade in when another has", hung)
	}
}

// A drawing of 2,000 paths that is drawn on is worked out in the page within 4 ms a frame, or twice the time that it takes standing.
func TestADrawingIsQuick(t *testing.T) {
	p := sit(t, startAlone(t))
	project := doc.NewProject("drawing", "Drawing", 1920, 1080, "drawing-scene")
	g := &doc.Layer{ID: "art", Thread: "art", Name: "Art", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}}
	for i := range 1999 {
		id := fmt.Sprint("line", i)
		g.Children = append(g.Children, &doc.Layer{
			ID: id, Thread: id, Name: id, Kind: doc.PathKind, Opacity: 1, Path: "M0 0C5 -9 20 30 28 4", Fill: doc.Fill{Kind: doc.NoFill},
			Stroke: &doc.Stroke{Width: 3, Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"}}, Place: doc.Place{X: float64(i % 60 * 32), Y: float64(i/60*32) + 10},
		})
	}
	g.Moves = []*doc.Move{{ID: "draws", Kind: doc.Entrance, Effect: effect.DrawOn, Start: doc.Start{When: doc.AtTime}, Duration: 4000, Params: effect.Params{"pointer": effect.Pencil}}}
	project.Film.Scenes[0].Layers, project.Film.Scenes[0].Stay = []*doc.Layer{g}, 5000
	p.bring(project, media.NewFolder(t.TempDir()))
	quick(t, func() (string, bool) {
		ms := browser.Eval[[]float64](t, p.ctx, `(() => {
			const median = (at) => {
				const list = []
				for (let i = 0; i < 100; i++) {
					const t = performance.now()
					capstanProbe.engine.frame({ rest: false, scene: 0, time: at(i) }, 1)
					list.push(performance.now() - t)
				}
				return list.sort((a, b) => a - b)[50]
			}
			return [median((i) => 40 * i), median((i) => 4100 + i)]
		})()`)
		// On a busy machine all takes longer: then it is held to what the same paths take when they stand there.
		return fmt.Sprintf("At of 2,000 paths: %.2f ms (4), standing %.2f", ms[0], ms[1]), ms[0] <= 4 || ms[0] <= 2*ms[1]
	})
}

// While the gallery is open with 300 layers behind it the page plays on at 30 frames a second or more, and the first small films are there within 150 ms
// of the key.
func TestTheGalleryIsQuick(t *testing.T) {
	p := sit(t, startAlone(t))
	p.bring(many(300), media.NewFolder(t.TempDir()))
	p.do(chromedp.Focus(`[data-desk]`))
	browser.Eval[bool](t, p.ctx, `(document.querySelector('[data-name]').click(), true)`)
	p.do(chromedp.Sleep(1500e6))
	quick(t, func() (string, bool) {
		ms := browser.Eval[float64](t, p.ctx, `new Promise((done) => {
			document.querySelector('[data-desk]').focus()
			const t = performance.now()
			document.querySelector('[data-desk]').dispatchEvent(new KeyboardEvent('keydown', { key: 'e', bubbles: true, cancelable: true }))
			const look = () => {
				const c = document.querySelector('[data-offer] canvas')
				if (c && c.width > 0 && c.getContext('2d').getImageData(0, 0, c.width, c.height).data.some((v) => v > 0)) done(performance.now() - t)
				else requestAnimationFrame(look)
			}
			requestAnimationFrame(look)
		})`)
		p.pointAt("Slide in")
		p.wait(plays)
		rate := browser.Eval[float64](t, p.ctx, `new Promise((done) => {
			const t = performance.now()
			let n = 0
			let last = -1
			const look = () => {
				const now = document.querySelector('[role=slider][aria-label=Playhead]').getAttribute('aria-valuenow')
				if (now !== last) n++
				last = now
				if (performance.now() - t > 2000) done(n / (performance.now() - t) * 1000)
				else requestAnimationFrame(look)
			}
			requestAnimationFrame(look)
		})`)
		p.do(chromedp.Focus(`[aria-label=Gallery] input`))
		p.key(kb.Escape)
		p.wait(`!document.querySelector('[aria-label=Gallery]')`)
		return fmt.Sprintf("first small film after %.0f ms (150); the page plays at %.0f frames a second (30)", ms, rate), ms <= 150 && rate >= 30
	})
}
