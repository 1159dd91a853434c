package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/core/doc"
	"capstan/e2e/browser"
	"capstan/studio/media"
)

// tick presses the box that has these words beside it.
func (p *person) tick(words string) {
	p.t.Helper()
	p.look(fmt.Sprintf(`[...document.querySelectorAll('label')].some(e => e.innerText.trim() === %q)`, words))
	at := browser.Eval[[]float64](p.t, p.ctx, fmt.Sprintf(`(() => {
		const l = [...document.querySelectorAll('label')].find(e => e.innerText.trim() === %q)
		l.scrollIntoView({ block: 'center' })
		const r = l.getBoundingClientRect()
		return [r.x + r.width / 2, r.y + r.height / 2]
	})()`, words))
	p.do(chromedp.MouseClickXY(at[0], at[1]))
}

// scrollTo brings the box that has these words beside it into view.
func (p *person) scrollTo(words string) {
	p.t.Helper()
	browser.Eval[bool](p.t, p.ctx, fmt.Sprintf(`[...document.querySelectorAll('label')].find(e => e.innerText.trim() === %q).scrollIntoView({ block: 'center' }), true`, words))
}

func motto() *doc.Project {
	p := plateAndWords()
	l := p.Film.Scenes[0].Layers[2]
	l.Fill.Colour, l.Moves, l.Place.X, l.Place.Y = "#f6f2e9", nil, 320, 160
	l.Text.Runs[0] = doc.Run{Text: "KITE DAY AT FENNEL QUAY", Family: "Archivo", Weight: 700, Size: 34}
	p.Film.Scenes[0].Layers = []*doc.Layer{l}
	return p
}

// On a plate in a tone of the sky, which is told to be readable; another colour is not, and is mended by a press.
func TestWordsStandOnAReadablePlate(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(motto(), media.NewFolder(t.TempDir()))
	p.click(320, 178)
	p.settled()
	sky := p.page(640, 400).RGBAAt(320, 150)
	p.tick("On a plate")
	p.settled()
	plate := p.page(640, 400).RGBAAt(320, 157)
	if plate == sky {
		t.Error("nothing lies behind the words")
	}
	p.wait(`Number(document.querySelector('[data-contrast]').dataset.contrast) >= 4.5`)
	p.press(`[aria-label^="Plate:"]`)
	p.code("e8e0d0")
	p.settled()
	p.wait(`Number(document.querySelector('[data-contrast]').dataset.contrast) < 2`)
	p.pressWord("Make readable")
	p.settled()
	p.wait(`Number(document.querySelector('[data-contrast]').dataset.contrast) >= 4.5`)
	p.tick("On a plate")
	p.settled()
	if c := p.page(640, 400).RGBAAt(320, 157); c != sky {
		t.Errorf("the plate is still there: %v", c)
	}
}

// On a ring, spread over all of it, split into letters that stay where they are, joined again.
func TestWordsGoRoundARingAndAreSplitAndJoined(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(motto(), media.NewFolder(t.TempDir()))
	p.click(320, 178)
	p.settled()
	p.tick("On a ring")
	p.settled()
	p.set("Radius of the ring", "120")
	p.set("Share of the ring it fills; 0: as it comes", "100")
	p.settled()
	ring := p.page(640, 400)
	middle := p.number("Across: middle, from the left")
	if middle < 318 || middle > 322 {
		t.Errorf("its middle has moved to %v", middle)
	}
	// Letters stand in all four quarters about its middle, none near it.
	cx, cy := int(middle), int(p.number("Down: middle, from the top"))
	sky := ring.RGBAAt(5, 5)
	quarters, inner := map[[2]bool]int{}, 0
	for y := range 400 {
		for x := range 640 {
			if ring.RGBAAt(x, y) == sky {
				continue
			}
			quarters[[2]bool{x > cx, y > cy}]++
			if (x-cx)*(x-cx)+(y-cy)*(y-cy) < 100*100 {
				inner++
			}
		}
	}
	if len(quarters) != 4 || inner > 60 { // but for the tail of the Q
		t.Errorf("letters by quarter %v, %d pixels within", quarters, inner)
	}
	p.pressWord("Letters")
	p.settled()
	if n := differing(ring, p.page(640, 400), 60); n > 10 {
		t.Errorf("split, %d pixels differ", n)
	}
	p.pressWord("Join again")
	p.settled()
	if n := differing(ring, p.page(640, 400), 0); n > 0 {
		t.Errorf("joined, %d pixels differ", n)
	}
	p.tick("On a ring")
	p.settled()
	if n := len(browser.Eval[[]string](t, p.ctx, `[...document.querySelectorAll('[data-name]')].map(e => e.innerText)`)); n != 1 {
		t.Errorf("%d rows", n)
	}
}

// A family is picked from the list, where the words stand in each; it is loaded then and set on the page.
func TestAFamilyIsPickedInTheWordsOfTheText(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(motto(), media.NewFolder(t.TempDir()))
	p.click(320, 178)
	p.settled()
	before := p.page(640, 400)
	p.press(`[aria-label^="Family:"]`)
	p.wait(`document.querySelectorAll('[data-family]').length >= 14`)
	if s := browser.Eval[string](t, p.ctx, `document.querySelector('[data-family="Caveat"]').innerText`); !strings.Contains(s, "KITE DAY") {
		t.Errorf("Caveat is shown by %q", s)
	}
	p.wait(`getComputedStyle(document.querySelector('[data-family="Caveat"] span:last-child')).fontFamily.includes('Caveat')`)
	p.press(`[data-family="Bungee"]`)
	p.settled()
	p.wait(`document.querySelector('[aria-label^="Family:"]').innerText.includes('Bungee')`)
	if n := differing(before, p.page(640, 400), 60); n < 1000 {
		t.Errorf("only %d pixels differ", n)
	}
	// Cases are a setting: the words stay as they were typed.
	p.choose("Case", "lower")
	p.settled()
	if s := browser.Eval[string](t, p.ctx, `document.querySelector('aside p span').title`); s != "KITE DAY AT FENNEL QUAY" {
		t.Errorf("the words are %q", s)
	}
}

// A stretch that is selected among the words gets a weight and a colour of its own, and keeps them while other words are typed.
func TestAStretchOfTheWordsIsSetByItself(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(motto(), media.NewFolder(t.TempDir()))
	p.click(320, 178)
	p.settled()
	before := p.page(640, 400)
	p.pressWord("Edit words")
	p.do(chromedp.KeyEvent(kb.Home, chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	for range 4 {
		p.do(chromedp.KeyEvent(kb.ArrowRight, chromedp.KeyModifiers(chromedp.ModifierShift)))
	}
	p.wait(`document.querySelector('aside').innerText.includes('of the selected words')`)
	p.press(`[aria-label^="Colour of the stretch:"]`)
	p.code("d8573a")
	p.settled()
	p.choose("Weight", "900")
	p.settled()
	runs := func() string {
		return browser.Eval[string](t, p.ctx, `capstanProbe.engine.copy({rest: true, scene: 0, time: 0}, [capstanProbe.engine.rows({rest: true, scene: 0, time: 0})[0].thread]).layers[0].text.runs.map(r => [r.text, r.weight, r.colour ?? ''].join()).join('|')`)
	}
	if got := runs(); got != "KITE,900,#d8573a| DAY AT FENNEL QUAY,700," {
		t.Errorf("runs %s", got)
	}
	red := 0
	img := p.page(640, 400)
	for i := 0; i < len(img.Pix); i += 4 {
		if img.Pix[i] == 0xd8 && img.Pix[i+1] == 0x57 && img.Pix[i+2] == 0x3a {
			red++
		}
	}
	if red < 300 || differing(before, img, 40) < 300 {
		t.Errorf("%d pixels are in the colour of the stretch", red)
	}
	// Typing at the end leaves the stretch alone.
	p.do(chromedp.Focus(`[data-words]`), chromedp.KeyEvent(kb.End, chromedp.KeyModifiers(chromedp.ModifierCtrl)), chromedp.KeyEvent("!"))
	p.do(chromedp.Focus(`[data-desk]`))
	p.settled()
	if got := runs(); got != "KITE,900,#d8573a| DAY AT FENNEL QUAY!,700," {
		t.Errorf("after typing %s", got)
	}
}
