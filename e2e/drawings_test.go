package e2e

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"capstan/e2e/browser"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
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
	if !strings.Contains(said, "a script") || strings.Contains(said, "a pattern") {
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

// What is selected, or the page, is shown as the SVG it will be, by key; texts as outlines or as words; it is saved under the name it has, and copied.
func TestLayersGoOutAsSVG(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-drawings")
	p.settled()
	made := func(holds string) string {
		p.t.Helper()
		p.wait(`document.querySelector('[data-drawing] img')`)
		var text string
		for range 100 {
			text = browser.Eval[string](t, p.ctx, `window.blob.text()`)
			if strings.Contains(text, holds) {
				return text
			}
			time.Sleep(50 * time.Millisecond)
		}
		t.Fatalf("it never holds %s, but is %.600s", holds, text)
		return ""
	}
	browser.Eval[bool](t, p.ctx, `(() => {
		const make = URL.createObjectURL
		URL.createObjectURL = (b) => { window.blob = b; return make(b) }
		return true
	})()`)
	p.press(`[data-row] [data-name="Gull on a post"]`)
	p.key("C")
	if text := made(`id="Gull_on_a_post"`); strings.Contains(text, "lantern") || strings.Contains(text, "<rect") || !strings.Contains(text, `stroke="#185163"`) {
		t.Errorf("the gull alone is %s", text)
	}
	browser.Eval[bool](t, p.ctx, `(() => {
		navigator.clipboard.writeText = async (s) => { window.copied = s }
		HTMLAnchorElement.prototype.click = function () { window.saved = this.download }
		return true
	})()`)
	p.pressWord("Copy")
	p.wait(`window.copied?.includes('Gull_on_a_post')`)
	p.pressWord("Save")
	p.wait(`window.saved === 'Gull on a post.svg'`)
	p.choose("What", "page")
	made(`id="Paper_lantern"`)
	p.choose("Texts", "words")
	if text := made("<text"); !strings.Contains(text, ">somebody</tspan>") || !strings.Contains(text, "Shrikhand") {
		t.Errorf("with its words it is %s", text)
	}
	p.pressWord("Save")
	p.wait(`window.saved === 'Somebody to draw it.svg'`)
	p.key(kb.Escape)
	p.wait(`!document.querySelector('[data-drawing]')`)
}
