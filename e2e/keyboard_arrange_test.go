package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/core/doc"
	"capstan/e2e/browser"
	"capstan/studio/media"
)

// A whole scene is arranged without touching the mouse: shapes put down, placed by sums, nudged, aligned, ordered past a named layer, grouped,
// masked, set aside and brought back, looked at closely; each step is undone and done again.
func TestArrangingByKeyboardAlone(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(tiles(), media.NewFolder(t.TempDir()))
	p.do(chromedp.Focus(`[data-desk]`))
	part := func(selector string) {
		t.Helper()
		for range 4 {
			if browser.Eval[bool](t, p.ctx, `!!document.activeElement?.closest('`+selector+`')`) {
				return
			}
			p.key(kb.F6)
		}
		t.Fatalf("%s is not reached by F6", selector)
	}
	page := func() { t.Helper(); part("[data-desk]") }
	// row puts the keyboard on the row of a layer.
	row := func(name string) {
		t.Helper()
		part("[aria-label=Timeline]")
		at := func() string { return browser.Eval[string](t, p.ctx, `document.activeElement?.dataset.name ?? ''`) }
		if at() == "" {
			p.tabTo(`[data-row] [data-name]`, false)
		}
		for _, k := range []string{kb.ArrowDown, kb.ArrowUp} {
			for range 6 {
				if at() == name {
					return
				}
				p.key(k)
				browser.Eval[bool](t, p.ctx, `new Promise(r => setTimeout(() => r(true), 40))`)
			}
		}
		t.Fatalf("the row of %s is not reached: %q", name, at())
	}
	// choose walks to a layer on the page by Tab, or by rows with Ctrl for a second one.
	choose := func(name string) {
		t.Helper()
		page()
		p.key(kb.Escape)
		for range 12 {
			p.key(kb.Tab)
			if got := p.threads(); len(got) == 1 && got[0] == name {
				return
			}
		}
		t.Fatalf("%s is not reached by Tab: %v", name, p.threads())
	}
	also := func(name string) {
		t.Helper()
		row(name)
		p.key(kb.Enter, chromedp.ModifierShift)
		p.settled()
	}
	press := func(name string) {
		t.Helper()
		part("[aria-label=Inspector]")
		p.tabTo(`[aria-label="`+name+`"]`, false)
		p.key(kb.Enter)
		p.settled()
	}
	order := func() string {
		return strings.Join(browser.Eval[[]string](t, p.ctx, `[...document.querySelectorAll('[data-row] [data-name]')].map(e => e.dataset.name)`), " ")
	}

	p.undone("a shape put down", func() { p.key("2"); p.key(kb.Enter); p.settled() })
	choose("Rust")
	p.undone("placed by a sum", func() { page(); p.typeInto("Across: middle, from the left", "640/4", false) })
	choose("Rust")
	p.undone("nudged", func() { page(); p.key(kb.ArrowRight, chromedp.ModifierShift); p.settled() })
	p.undone("turned by number", func() { page(); p.typeInto("Turn", "450", false) })
	choose("Straw")
	p.undone("to the front", func() { page(); p.key(kb.PageUp, chromedp.ModifierCtrl); p.settled() })

	// Behind a layer that is chosen in its row: what comes from behind lies in front of Rust, or behind it.
	choose("Spruce")
	p.undone("behind a named layer", func() {
		page()
		p.key("O", chromedp.ModifierShift)
		p.wait(`document.querySelector('[role=status]')?.innerText.includes('behind')`)
		row("Rust")
		p.key(kb.Enter)
		p.settled()
		if got := order(); got != "Straw Rust Spruce" {
			t.Errorf("behind Rust the rows are %s", got)
		}
	})

	// Several.
	choose("Rust")
	also("Straw")
	p.undone("upper edges aligned", func() { press("Upper edges") })
	p.undone("grouped", func() { page(); p.key("g", chromedp.ModifierCtrl); p.settled() })
	choose("Rust")
	also("Straw")
	p.undone("masked", func() {
		part("[aria-label=Inspector]")
		p.tabTo(`button[title^="The front one becomes a mask"]`, false)
		p.key(kb.Enter)
		p.settled()
		p.wait(`document.querySelector('[data-row] [data-name="Group"]')`)
	})
	choose("Rust")
	p.undone("set aside", func() {
		page()
		p.key("x")
		p.settled()
		p.wait(`document.querySelector('[data-aside]')`)
	})
	// Set aside once more, it is looked at there and comes back.
	choose("Rust")
	page()
	p.key("x")
	p.settled()
	p.tabTo(`[data-aside]`, false)
	p.key(kb.Enter)
	p.wait(`document.querySelector('[data-aside]').getAttribute('aria-current') === 'true'`)
	p.wait(`document.querySelector('aside').innerText.includes('not in the film')`)
	choose("Rust")
	p.undone("brought back", func() { page(); p.key("x"); p.settled() })

	// As large as it fits, the full size, all of the page again.
	p.tabTo(`[data-scene="0"]`, true)
	p.key(kb.Enter)
	choose("Spruce")
	scale := func() float64 {
		return browser.Eval[float64](t, p.ctx, `Number(document.querySelector('[data-page]').dataset.view.split(' ')[0])`)
	}
	fit := scale()
	p.key("9")
	p.wait(`Number(document.querySelector('[data-page]').dataset.view.split(' ')[0]) > 2`)
	p.key("8")
	if scale() != 1 {
		t.Errorf("at full size a px is %v", scale())
	}
	p.key("0")
	if scale() != fit {
		t.Errorf("fitted again it is %v, was %v", scale(), fit)
	}
}

// One project's layers go to another with the picture they show, also in a window that was opened later.
func TestLayersGoToAnotherProject(t *testing.T) {
	p := sit(t, startStudio(t))
	// The demo's opener has a picture, its sky; the post has none of its kind.
	p.open("/p/kite-day-opener")
	p.settled()
	hash := browser.Eval[string](t, p.ctx, `capstanProbe.engine.copy({rest: true, scene: 0, time: 0}, capstanProbe.engine.rows({rest: true, scene: 0, time: 0}).map(r => r.thread)).layers.flatMap(l => l.picture ? [l.picture.media] : [])[0]`)
	sky := browser.Eval[string](t, p.ctx, `capstanProbe.engine.copy({rest: true, scene: 0, time: 0}, capstanProbe.engine.rows({rest: true, scene: 0, time: 0}).map(r => r.thread)).layers.find(l => l.picture).name`)
	p.press(`[data-row] [data-name="` + sky + `"]`)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("c", chromedp.ModifierCtrl)
	p.wait(`document.body.innerText.includes('One layer copied')`)
	p.bring(doc.NewProject("elsewhere", "Elsewhere", 1920, 1080, "one"), media.NewFolder(t.TempDir())) // by its address: nothing of the page stays
	p.do(chromedp.Focus(`[data-desk]`))
	blank := p.pixels(0, 0, true, 320, 180, "#fff").RGBAAt(160, 20)
	p.undone("pasted in another project", func() {
		p.key("v", chromedp.ModifierCtrl)
		p.wait(`document.querySelector('[data-row] [data-name="` + sky + `"]')`)
	})
	p.key("v", chromedp.ModifierCtrl)
	p.wait(`document.querySelector('[data-row] [data-name="` + sky + `"]')`)
	p.settled()
	p.wait(`capstanProbe.engine.pictures().includes('` + hash + `')`)
	if !strings.Contains(p.stored(), `"`+hash+`":{`) {
		t.Error("the project does not know the picture")
	}
	// It is seen, and is there after the page is loaded anew.
	p.open(browser.Eval[string](t, p.ctx, `location.pathname`))
	p.settled()
	p.wait(`document.documentElement.dataset.painted`)
	p.do(chromedp.Sleep(400e6))
	if c := p.pixels(0, 0, true, 320, 180, "#fff").RGBAAt(160, 20); c == blank {
		t.Errorf("where the picture lies there is %v", c)
	}
}
