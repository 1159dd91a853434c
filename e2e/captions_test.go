package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"capstan/e2e/browser"
	"capstan/studio/media"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// captioned are the words and times of the captions in the timeline.
func (p *person) captioned() string {
	return browser.Eval[string](p.t, p.ctx, `[...document.querySelectorAll('[data-caption]')].map(e => e.ariaLabel.replace('Caption ', '')).join('; ')`)
}

// Captions are typed at the playhead, dragged, trimmed and taken out by pointer and keys, each undone as a whole; too fast ones are told; a file of them is read for the
// whole film, and what is wrong in it is said; they are shown in the picture; and a video that was made gets the sound that comes later.
func TestCaptionsAreTypedReadAndShown(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(sailing(), media.NewFolder(t.TempDir()))
	plain := p.pixels(0, 500, false, 320, 180, "#fff")
	p.press(`[aria-label="Sound"]`)
	p.pressWord("Write a caption")
	p.wait(`document.activeElement?.matches('[data-caption-words]')`)
	p.do(chromedp.KeyEvent("Up they go"), chromedp.KeyEvent(kb.Enter))
	p.settled()
	is := func(want string) {
		t.Helper()
		if got := p.captioned(); got != want {
			t.Errorf("captions are %q, want %q", got, want)
		}
	}
	is("“Up they go” from 0.00 to 2.00 s")
	own := `[data-caption=own]`
	p.press(own)
	p.do(chromedp.SendKeys(`[data-caption-words]`, " not"), chromedp.KeyEvent(kb.Escape))
	p.settled()
	is("“Up they go” from 0.00 to 2.00 s")
	p.undone("dragged", func() { p.pull(own, "", 1000*p.perMs(), 0); is("“Up they go” from 1.00 to 3.00 s") })
	p.undone("trimmed", func() {
		p.pull(own+` [data-grip=end]`, "", -1700*p.perMs(), 0)
		is("“Up they go” from 0.00 to 0.30 s, faster than most can read")
		if s := browser.Eval[string](t, p.ctx, `document.querySelector('[data-captions-head]').innerText + document.querySelector('[data-caption-pace]').innerText`); !strings.Contains(s, "1 too fast to read") || !strings.Contains(s, "33.3 characters a second") {
			t.Errorf("of a fast one it says %q", s)
		}
	})
	p.undone("by keys", func() {
		p.do(chromedp.Focus(own))
		p.key(kb.ArrowRight)
		p.settled()
	})
	p.undone("deleted", func() {
		p.do(chromedp.Focus(own))
		p.key(kb.Delete)
		p.settled()
		is("")
	})
	p.undone("without words", func() {
		p.press(own)
		p.do(chromedp.SetValue(`[data-caption-words]`, "x"), chromedp.Focus(`[data-caption-words]`), chromedp.KeyEvent(kb.Backspace), chromedp.KeyEvent(kb.Enter))
		p.wait(`document.body.innerText.includes('A caption without words is not shown')`)
		p.press(`[aria-label="Show captions in the film"]`)
		p.settled()
	})
	file := func(name, text string) {
		f := filepath.Join(t.TempDir(), name)
		if err := os.WriteFile(f, []byte(text), 0o600); err != nil {
			t.Fatal(err)
		}
		p.do(chromedp.SetUploadFiles(`[data-caption-input]`, []string{f}))
	}
	file("none.srt", "no captions at all")
	p.wait(`document.body.innerText.includes('There are no captions in this file')`)
	is("“Up they go” from 0.00 to 2.00 s")
	file("film.srt", "1\n00:00:00,200 --> 00:00:01,500\nUp <i>they</i> go\n\n2\n00:00:01,200 --> 00:00:02,800\nand out over the quay\n\n3\n00:00:03,500 --> 00:00:03,000\nlost\n")
	p.wait(`document.body.innerText.includes('2 captions read; 1 left out')`)
	p.settled()
	is("“Up they go” from 0.20 to 1.20 s; “and out over the quay” from 1.20 to 2.80 s")
	p.press(`[aria-label="Show captions in the film"]`)
	p.settled()
	if n := differing(p.pixels(0, 500, false, 320, 180, "#fff"), plain, 40); n < 200 {
		t.Errorf("with a caption %d pixels are others", n)
	}
	p.shot("captions")

	p.pressWord("Export film")
	p.press(`[data-kind=mp4]`)
	p.pressWord("Export MP4")
	p.wait(`document.querySelector('[data-state=done] a[download]')`)
	p.key(kb.Escape)
	p.do(chromedp.SetUploadFiles(`[data-sound-input]`, []string{toned(t, "Hum.wav", 1.5, 220)}))
	p.wait(`document.querySelector('[data-sound-name="Hum"]')`)
	p.settled()
	p.pressWord("Export film")
	p.wait(`document.querySelector('[data-state=done] a[download]')`)
	browser.Eval[bool](t, p.ctx, `(document.querySelector('[data-state=done]').scrollIntoView(), true)`)
	p.press(`[data-state=done] [aria-expanded]`)
	p.pressWord("New sound")
	p.wait(`document.querySelectorAll('[data-state=done] a[download]').length === 2`)
	p.shot("new-sound")
	for i, want := range []bool{true, false} {
		raw := p.s.fetch(browser.Eval[string](t, p.ctx, fmt.Sprintf(`new URL(document.querySelectorAll('[data-state=done] a[download]')[%d].href).pathname`, i)))
		if has := strings.Contains(string(raw), "mp4a"); has != want {
			t.Errorf("file %d, the newest first, has sound: %v", i, has)
		}
	}
	// Its settings make a file of its own pictures, also when these have changed.
	p.key(kb.Escape)
	p.press(`[aria-label="Show captions in the film no longer"]`)
	p.settled()
	p.pressWord("Export film")
	p.wait(`document.querySelectorAll('[data-state=done] a[download]').length === 2`)
	p.press(`[data-state=done] [aria-label^="Use the settings"]`)
	p.pressWord("Export MP4")
	p.wait(`document.querySelectorAll('[data-state=done] a[download]').length === 3`)
}
