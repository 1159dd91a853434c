package e2e

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"capstan/e2e/browser"

	"github.com/chromedp/chromedp"
)

// lanternSVG is a lantern drawn for Capstan, with what a drawing cannot bring along.
const lanternSVG = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 140">
<style>.rim{fill:#17403c}.pane{fill:url(#light)}</style>
<defs><radialGradient id="light"><stop stop-color="#fff3d0"/><stop offset="1" stop-color="#e0a03a"/></radialGradient><pattern id="p" width="4" height="4"><rect width="2" height="2"/></pattern></defs>
<g id="Lantern"><rect class="rim" x="38" y="6" width="24" height="10" rx="3"/><path class="pane" d="M30 20h40c24 30 24 70 0 100H30C6 90 6 50 30 20z"/>
<g id="Ribs" fill="none" stroke="#d8573a" stroke-width="3"><path d="M50 20v100"/><path d="M38 20c-14 30-14 70 0 100M62 20c14 30 14 70 0 100"/></g>
<rect class="rim" x="34" y="120" width="32" height="8"/><circle cx="50" cy="134" r="4" fill="url(#p) teal"/></g>
<script>document.title = 'not here'</script></svg>`

// A drawing comes in by a file as a group of layers with the names it had, in the middle of the page and as large as it can be seen; what it could not keep is
// said; it is moved as one and undone as one. Pasted as text it comes, too.
func TestDrawingsComeInAsLayers(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-sticker")
	p.settled()
	file := filepath.Join(t.TempDir(), "Lantern.svg")
	if err := os.WriteFile(file, []byte(lanternSVG), 0o644); err != nil {
		t.Fatal(err)
	}
	before := p.page(512, 512)
	p.do(chromedp.SetUploadFiles(`[data-picture-input]`, []string{file}))
	p.wait(`[...document.querySelectorAll('[data-row] [data-name]')].some(n => n.dataset.name === 'Lantern')`)
	p.settled()
	img := p.page(512, 512)
	if r, g, b, _ := img.At(256, 250).RGBA(); r>>8 < 180 || b>>8 > 90 || g>>8 > 200 {
		t.Errorf("the middle of the lantern is %d %d %d, no rib", r>>8, g>>8, b>>8)
	}
	p.pressWord("Show")
	p.wait(`document.querySelector('[data-losses]')`)
	said := browser.Eval[string](t, p.ctx, `document.querySelector('[data-losses]').textContent`)
	if !strings.Contains(said, "a script") || !strings.Contains(said, "a pattern") {
		t.Errorf("what it lost is told as %s", said)
	}
	p.shot("zz-losses")
	p.press(`[aria-label="Close"]`)
	p.wait(`!document.querySelector('[data-losses]')`)
	p.undo()
	if n := differing(before, p.page(512, 512), 0); n > 0 {
		t.Errorf("undone, %d pixels differ", n)
	}
	// As text from the clipboard.
	browser.Eval[bool](t, p.ctx, `(() => {
		window.pasted = new DataTransfer()
		pasted.setData('text/plain', `+"`"+lanternSVG+"`"+`)
		return true
	})()`)
	p.do(chromedp.Focus(`[data-desk]`))
	browser.Eval[bool](t, p.ctx, `(() => {
		document.activeElement.dispatchEvent(new KeyboardEvent('keydown', {key: 'v', code: 'KeyV', ctrlKey: true, bubbles: true}))
		document.dispatchEvent(new ClipboardEvent('paste', {clipboardData: pasted, bubbles: true}))
		return true
	})()`)
	p.wait(`[...document.querySelectorAll('[data-row] [data-name]')].some(n => n.dataset.name === 'Drawing')`)
	// What is none is refused in words.
	if err := os.WriteFile(file, []byte("<svg><g></svg>"), 0o644); err != nil {
		t.Fatal(err)
	}
	p.do(chromedp.SetUploadFiles(`[data-picture-input]`, []string{file}))
	p.wait(`document.body.textContent.includes('This drawing is damaged')`)
}
