package e2e

import (
	"context"
	"encoding/base64"
	"fmt"
	"image/png"
	"slices"
	"strings"
	"testing"

	"capstan/e2e/browser"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// A title gets a name for tables, a table is pasted, what does not fit and what is missing is told, a cell is edited in place and undone, rows are chosen and
// exported in one press, each named by its row and filled from it.
func TestVariantsAreMadeFromATable(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-post")
	p.settled()
	p.press(`[data-row="p-title"] [data-name]`)
	p.look(`document.querySelector('[aria-label^="Name for tables"]')`)
	p.set("Name for tables: a column of this name fills it in variants", "Title")
	p.settled()
	p.pressWord("Export film")
	p.pressWord("Variants from a table …")
	p.wait(`document.querySelectorAll('[data-variant]').length === 4`)
	// As from the clipboard: tabs and line ends are no keys.
	paste := func(text string) {
		p.wait(`document.querySelector('[aria-label^="Table as text"]')`)
		p.do(chromedp.Focus(`[aria-label^="Table as text"]`), chromedp.Func(func(ctx context.Context, _ *chromedp.Target) error {
			_, err := chromedp.Call(ctx, input.InsertText, input.InsertTextParams{Text: text})
			return err
		}))
		p.pressWord("Take over")
	}
	p.wait(`[...document.querySelectorAll('[data-variant] img')].every(i => i.complete)`)
	p.pressWord("Paste a table …")
	paste("when;title\n\"broken;1\n")
	p.wait(`document.querySelector('[role=dialog]').textContent.includes('a quote stands where none may')`)
	browser.Eval[bool](t, p.ctx, `(document.querySelector('[aria-label^="Table as text"]').select(), true)`)
	paste("when\tTITLE\tground\tphoto\nMonday\tKite Day\t#ff0000\tx\nTuesday\tKites for everybody, all day long\tgreenish\ty\nFriday\tKites\t#0000ff\tz\n")
	p.wait(`document.querySelectorAll('[data-variant]').length === 3`)
	troubles := func(row int) string {
		return browser.Eval[string](t, p.ctx, fmt.Sprintf(`[...document.querySelectorAll('[data-variant="%d"] p')].map(e => e.textContent).join(' | ')`, row))
	}
	if got := troubles(1); got != "" {
		t.Errorf("the first row: %s", got)
	}
	if got := troubles(2); !strings.Contains(got, "Title: its words reach") || !strings.Contains(got, "“greenish” is no colour") {
		t.Errorf("the second row: %s", got)
	}
	if !browser.Eval[bool](t, p.ctx, `[...document.querySelectorAll('th span')].some(e => e.textContent === 'fills nothing')`) {
		t.Error("a column that fills nothing is not told")
	}
	p.set("ground, row 2", "#00ff00")
	p.settled()
	p.wait(`!document.querySelector('[data-variant="2"]').textContent.includes('no colour')`)
	p.press(`[aria-label="Export variant 1, Monday"]`)
	p.shot("zz-variants")
	p.pressWord("Export 2 variants …")
	p.press(`[data-kind=png]`)
	p.choose("Size", "240")
	p.pressWord("Export 2 files")
	p.wait(`document.querySelectorAll('[data-export][data-state=done]').length === 2`)
	type made struct{ Name, Bytes string }
	list := browser.Eval[[]made](t, p.ctx, `(async () => {
		const all = (await (await fetch('/api/projects/kite-day-post/exports')).json()).exports
		return Promise.all(all.map(async e => {
			const b = new Uint8Array(await (await fetch('/api/exports/' + e.id + '/file')).arrayBuffer())
			return {name: e.name, bytes: btoa([...b].map(v => String.fromCharCode(v)).join(''))}
		}))
	})()`)
	slices.SortFunc(list, func(a, b made) int { return strings.Compare(a.Name, b.Name) })
	for i, want := range []struct {
		row string
		g   uint32
	}{{"friday", 0}, {"tuesday", 255}} {
		img, err := png.Decode(base64.NewDecoder(base64.StdEncoding, strings.NewReader(list[i].Bytes)))
		if err != nil {
			t.Fatal(err)
		}
		r, g, b, _ := img.At(4, 4).RGBA()
		if !strings.Contains(list[i].Name, "-"+want.row+"-") || g>>8 != want.g || b>>8 != 255-want.g || r>>8 != 0 {
			t.Errorf("%s has a ground of %d %d %d", list[i].Name, r>>8, g>>8, b>>8)
		}
	}
	p.key(kb.Escape)
	p.undo()
	p.pressWord("Export film")
	p.pressWord("Variants from a table …")
	p.wait(`document.querySelector('[data-variant="2"]')?.textContent.includes('no colour')`)
}
