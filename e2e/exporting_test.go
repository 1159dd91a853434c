package e2e

import (
	"bytes"
	"encoding/base64"
	"fmt"
	"image/gif"
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"

	"capstan/e2e/browser"
)

// A part of the film becomes a GIF that keeps to a size, played three times, and a still in the same press; the settings are saved, used again,
// and the file is held beside the page.
func TestWhatIsExportedIsWhatWasAskedFor(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-post")
	p.settled()
	p.pressWord("Export film")
	p.press(`[data-kind=gif]`)
	p.choose("Part of the film", "1")
	p.set("How long a frame stays, ms, in place of a rate", "100")
	// The second frame is held, the fifth dropped.
	p.pressWord("Frame by frame …")
	p.press(`[data-frame='1']`)
	p.set("How long the selected frames are shown, ms; 0 drops them", "300")
	p.press(`[data-frame='4']`)
	p.key(kb.Delete)
	p.set("Size the file is kept to, KB; 0: any", "90")
	p.choose("Plays", "times")
	p.set("How often it plays", "2")
	p.pressWord("More: name, title, colours …")
	p.set("Title in the file", "At noon")
	p.set("Pattern of the file’s name: {project} {scene} {kind} {size} {version} {date}", "{kind}-{version}")
	p.wait(`/35 frames, a pass lasts .*about \d+ KB/.test(document.querySelector('[data-plan]').innerText)`)
	p.pressWord("Save as preset")
	p.set("Name of the preset", "Noon, small")
	p.pressWord("In this project")
	p.wait(`document.querySelector('[data-choice=Preset]').innerText.includes('Noon, small')`)
	p.pressWord("PNG still")
	p.pressWord("Export 2 files")
	p.wait(`document.querySelectorAll('[data-export][data-state=done]').length === 2`)
	row := `[...document.querySelectorAll('[data-export]')].find(e => e.innerText.startsWith('gif'))`
	raw := browser.Eval[string](t, p.ctx, fmt.Sprintf(`fetch('/api/exports/' + %s.dataset.export + '/file').then(r => r.arrayBuffer()).then(b => btoa([...new Uint8Array(b)].map(v => String.fromCharCode(v)).join('')))`, row))
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
	if len(data) > 90_000 || g.LoopCount != 1 || all != 370 && all != 470 || !bytes.Contains(data, []byte("At noon")) {
		t.Errorf("%d bytes, again %d times, %d hundredths", len(data), g.LoopCount, all)
	}
	if name := browser.Eval[string](t, p.ctx, row+`.querySelector('span[title]').title`); name != "gif-v1.gif" {
		t.Errorf("it is called %s", name)
	}
	// Another kind is chosen, and the settings come back from what was made, and from the preset.
	p.press(`[data-kind=mp4]`)
	p.choose("Quality of the file", "light")
	p.press(`[aria-label="Use the settings of gif-v1.gif"]`)
	p.wait(`document.querySelector('[data-choice=Preset]').innerText.includes('Noon, small')`)
	p.press(`[aria-label="Show gif-v1.gif"]`)
	p.pressWord("Compare with the page")
	p.wait(`document.querySelector('[data-compared] img')?.naturalWidth > 0`)
	likeness := browser.Eval[float64](t, p.ctx, `parseFloat(document.querySelector('[data-compared]').innerText.match(/Likeness ([\d.]+)/)[1])`)
	if likeness < 90 {
		t.Errorf("it is %.1f %% like the page", likeness)
	}
	p.press(`[aria-label="Delete the preset Noon, small"]`)
	p.wait(`!document.querySelector('[data-choice=Preset]').innerText.includes('Noon, small')`)
}

// A clear WebM plays on its card, clear where the page is; its description is proposed from the words of the scenes, and markup that shows it in a web
// page has that, its size and its name.
func TestOverlaysArePlayedAndEmbedded(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-sticker")
	p.settled()
	p.pressWord("Export film")
	p.press(`[data-kind=overlay]`)
	p.choose("Size", "240")
	p.pressWord("More: name, title, colours …")
	p.set("Description in the file, for people who do not see it", "A gull with a tail of bows")
	p.pressWord("Export WebM, clear")
	p.wait(`document.querySelector('[data-export][data-state=done]')`)
	p.pressWord("Show")
	p.wait(`document.querySelector('[data-export] video')?.videoWidth === 240`)
	if alpha := browser.Eval[int](t, p.ctx, `new Promise(r => {
		const v = document.querySelector('[data-export] video')
		const look = () => {
			const c = document.createElement('canvas')
			c.width = c.height = 240
			const x = c.getContext('2d')
			x.drawImage(v, 0, 0)
			r(x.getImageData(2, 2, 1, 1).data[3])
		}
		if (v.readyState >= 2) look()
		else v.addEventListener('loadeddata', look)
	})`); alpha > 12 {
		t.Errorf("a corner of the video has a cover of %d", alpha)
	}
	p.pressWord("Markup")
	markup := browser.Eval[string](t, p.ctx, `document.querySelector('[data-markup] textarea').value`)
	for _, want := range []string{`<video src="`, `.webm"`, `width="240"`, `aria-label="A gull with a tail of bows"`} {
		if !strings.Contains(markup, want) {
			t.Errorf("%s is not in %s", want, markup)
		}
	}
	// A web page says how large it becomes and what it is made of, plays on its card, and stands still beside the page.
	p.press(`[data-kind=html]`)
	p.wait(`/KB as servers send it/.test(document.querySelector('[data-plan]').textContent) && /are (moves|outlines)/.test(document.querySelector('[data-limits]').textContent)`)
	p.choose("How it starts", "pressed")
	p.pressWord("Export Web page")
	p.wait(`document.querySelectorAll('[data-export][data-state=done]').length === 2`)
	p.pressWord("Hide")
	p.pressWord("Show")
	p.wait(`document.querySelector('[data-export] img')?.naturalWidth > 0`)
	p.pressWord("Compare with the page")
	p.wait(`document.querySelector('[data-compared] img')?.naturalWidth > 0`)
	p.pressWord("Markup")
	if markup := browser.Eval[string](t, p.ctx, `document.querySelector('[data-markup] textarea').value`); !strings.Contains(markup, "<iframe src=") || !strings.Contains(markup, `title="A gull with a tail of bows"`) {
		t.Errorf("the markup of a page is %s", markup)
	}
}
