package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/png"
	"math"
	"os"
	"path/filepath"
	"testing"

	"capstan/e2e/browser"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// A picture from disk by the file dialog's input; a file that is none is refused in words, and nothing is lost.
func TestPicturesComeFromDisk(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/p/kite-day-opener")
	p.settled()
	dir := t.TempDir()
	good, bad := filepath.Join(dir, "Gull.png"), filepath.Join(dir, "notes.png")
	m := image.NewRGBA(image.Rect(0, 0, 200, 100))
	for i := range m.Pix {
		m.Pix[i] = []uint8{20, 160, 40, 255}[i%4]
	}
	var b bytes.Buffer
	if err := png.Encode(&b, m); err != nil {
		t.Fatal(err)
	}
	if os.WriteFile(good, b.Bytes(), 0o644) != nil || os.WriteFile(bad, []byte("no picture at all"), 0o644) != nil {
		t.Fatal("no files")
	}
	p.do(chromedp.SetUploadFiles(`[data-picture-input]`, []string{bad}))
	p.wait(`document.querySelector('[data-notice=failed]')?.innerText.includes('no picture that can be taken in')`)
	p.do(chromedp.SetUploadFiles(`[data-picture-input]`, []string{good}))
	p.wait(`document.querySelector('[data-name="Gull"]')`)
	p.settled()
	if c := p.pixels(0, 0, true, 480, 270, "#000").RGBAAt(240, 135); !near(c, "#14a028", 3) {
		t.Errorf("in the middle of the page is %v", c)
	}
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("z", chromedp.ModifierCtrl)
	p.settled()
	p.wait(`!document.querySelector('[data-name="Gull"]')`)
}

// Grouping and the rows: group by keyboard, name it, lock and hide it, put it behind everything.
func TestLayersAreGroupedNamedLockedHiddenAndReordered(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/p/kite-day-opener")
	p.settled()
	p.press(`[data-row="t-title"] [data-name]`)
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, 5, 5))
	p.do(chromedp.Click(`[data-row="t-sub"] [data-name]`))
	at := browser.Eval[[]float64](t, p.ctx, `(() => { const r = document.querySelector('[data-row="t-title"] [data-name]').getBoundingClientRect(); return [r.left + 40, r.top + 10] })()`)
	p.do(chromedp.MouseClickXY(at[0], at[1], chromedp.ButtonModifiers(chromedp.ModifierShift)))
	p.do(chromedp.Focus(`[data-desk]`))
	before := p.pixels(0, 0, true, 480, 270, "#000")
	p.key("g", chromedp.ModifierCtrl)
	p.settled()
	p.wait(`document.querySelector('[data-name="Group"]')`)
	if d := compare(before, p.pixels(0, 0, true, 480, 270, "#000"), before.Rect); d.max > 2 {
		t.Errorf("grouping changed the picture by up to %.0f", d.max)
	}
	p.set("Layer name", "Heading")
	p.settled()
	p.wait(`document.querySelector('[data-name="Heading"]')`)
	p.pressWord("Hide Heading")
	p.settled()
	hidden := p.pixels(0, 0, true, 480, 270, "#000")
	if d := compare(before, hidden, image.Rect(40, 100, 240, 160)); d.mean < 10 {
		t.Errorf("hidden words still show: mean difference %.1f", d.mean)
	}
	p.pressWord("Show Heading")
	p.pressWord("Lock Heading")
	p.settled()
	p.key(kb.Escape)
	p.click(500, 500)
	p.settled()
	if n := browser.Eval[int](t, p.ctx, `document.querySelectorAll('[data-row] [aria-pressed=true][data-name]').length`); n != 0 {
		t.Errorf("a locked group was caught by the pointer")
	}
	p.pressWord("Unlock Heading")
	p.press(`[data-name="Heading"]`)
	p.pressWord("Unlock Sky") // nothing goes behind a locked ground
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.PageDown, chromedp.ModifierCtrl)
	p.settled()
	p.wait(`capstanProbe.engine.rows({rest: true, scene: 0, time: 0}).filter(r => r.here && !r.parent).at(-1).name === 'Heading'`)
	if d := compare(hidden, p.pixels(0, 0, true, 480, 270, "#000"), hidden.Rect); d.max > 2 {
		t.Errorf("behind the sky the words still show: %.0f", d.max)
	}
	p.key("g", chromedp.ModifierCtrl, chromedp.ModifierShift)
	p.settled()
	p.wait(`!document.querySelector('[data-name="Heading"]') && document.querySelector('[data-name="Title"]')`)
}

// Bars are dragged by the whole and by an end, and say their times; a scene's edge changes its stay.
func TestTimesAreDraggedInTheTimeline(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/p/kite-day-opener")
	p.settled()
	perMs := browser.Eval[float64](t, p.ctx, `(() => { const a = document.querySelector('[data-scene="0"]').getBoundingClientRect(); return (a.width + 1) / 4600 })()`)
	bar := func(part string) []float64 {
		return browser.Eval[[]float64](t, p.ctx, fmt.Sprintf(`(() => { const r = document.querySelector('[data-bar][aria-label^="Fade, in, Title"] [data-part=%s]').getBoundingClientRect(); return [r.left + r.width / 2, r.top + r.height / 2] })()`, part))
	}
	label := func() string {
		return browser.Eval[string](t, p.ctx, `document.querySelector('[data-bar][aria-label^="Fade, in, Title"]').getAttribute('aria-label').split(', scene ')[0]`)
	}
	at := bar("whole")
	p.do(chromedp.DragAndDropXY(at[0], at[1], at[0]+500*perMs, at[1]))
	p.settled()
	if got := label(); got != "Fade, in, Title: at 1.40 s · 0.90 s" {
		t.Errorf("dragged by half a second: %q", got)
	}
	at = bar("end")
	p.do(chromedp.DragAndDropXY(at[0], at[1], at[0]+300*perMs, at[1]))
	p.settled()
	if got := label(); got != "Fade, in, Title: at 1.40 s · 1.20 s" {
		t.Errorf("its end dragged by 0.3 s: %q", got)
	}
	edge := browser.Eval[[]float64](t, p.ctx, `(() => { const r = document.querySelector('[data-edge="Stay of Lift-off"]').getBoundingClientRect(); return [r.left + r.width / 2, r.top + r.height / 2] })()`)
	p.do(chromedp.DragAndDropXY(edge[0], edge[1], edge[0]-1000*perMs, edge[1]))
	p.settled()
	if _, document := s.revision("kite-day-opener"); math.Abs(document["film"].(map[string]any)["scenes"].([]any)[0].(map[string]any)["stay"].(float64)-3600) > 15 {
		t.Errorf("the stay is %v", document["film"].(map[string]any)["scenes"].([]any)[0].(map[string]any)["stay"])
	}
	// Undo three times: all is as it was.
	p.do(chromedp.Focus(`[data-desk]`))
	for range 3 {
		p.key("z", chromedp.ModifierCtrl)
		p.settled()
	}
	if got := label(); got != "Fade, in, Title: at 0.90 s · 0.90 s" {
		t.Errorf("undone: %q", got)
	}
}
