package e2e

import (
	"fmt"
	"math"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/core/doc"
	"capstan/e2e/browser"
	"capstan/studio/media"
)

// evenWords is a text in a family whose letters are all 0.612 of their size wide (the advance that Space Mono states), turned by 30 degrees:
// where each letter stands follows without any of our own code.
func evenWords(words string) *doc.Project {
	p := motto()
	l := p.Film.Scenes[0].Layers[0]
	l.Name, l.Place.Turn = words, 30
	l.Text.Align = doc.Centre
	l.Text.Runs = []doc.Run{{Text: words, Family: "Space Mono", Weight: 400, Size: 40}}
	return p
}

// letterAt is the point of the page at a share of the width of letter k of n.
func letterAt(k float64, n int) (x, y float64) {
	sin, cos := math.Sincos(math.Pi / 6)
	u, v := (k-float64(n)/2)*0.612*40, 30.0
	return 320 + u*cos - v*sin, 160 + u*sin + v*cos
}

func (p *person) marked() string {
	return browser.Eval[string](p.t, p.ctx, `(() => { const e = document.querySelector('[data-words]'); return e.value.slice(0, e.selectionStart) + '[' + e.value.slice(e.selectionStart, e.selectionEnd) + ']' + e.value.slice(e.selectionEnd) })()`)
}

// apart lets so much time go by that the next press is no second one.
func (p *person) apart() { p.do(chromedp.Sleep(500e6)) }

// Pressed twice a text takes the caret; it goes to where it is pressed, though the text is turned, and what is typed stands there.
func TestWordsAreEditedWhereTheyStand(t *testing.T) {
	const words = "KITE DAY 24"
	n := len(words)
	p := sit(t, startStudio(t))
	p.bring(evenWords(words), media.NewFolder(t.TempDir()))
	at := func(k float64) (float64, float64) { return p.at(letterAt(k, n)) }
	twice := func(k float64, times int) {
		x, y := at(k)
		p.do(chromedp.MouseClickXY(x, y))
		for i := 2; i <= times; i++ {
			p.do(chromedp.MouseClickXY(x, y, chromedp.ClickCount(i)))
		}
	}
	twice(6.5, 2)
	p.wait(`document.activeElement?.matches('[data-words]')`)
	if s := p.marked(); s != "KITE [DAY] 24" {
		t.Errorf("pressed twice on a word: %s", s)
	}
	p.apart()
	for k := range n {
		for _, c := range []struct {
			share float64
			want  int
		}{{0.3, k}, {0.7, k + 1}} {
			p.do(chromedp.MouseClickXY(at(float64(k) + c.share)))
			if got := browser.Eval[int](t, p.ctx, `document.querySelector('[data-words]').selectionStart`); got != c.want {
				t.Errorf("pressed %.1f into letter %d, the caret is before letter %d", c.share, k, got)
			}
			// It is drawn at the edge of that letter, along the turned line.
			x, y := p.at(letterAt(float64(c.want), n))
			off := browser.Eval[float64](t, p.ctx, fmt.Sprintf(`(() => {
				const [a, b] = document.querySelector('[data-caret]').dataset.caret.split(' ').map(p => p.split(',').map(Number))
				const r = document.querySelector('[data-desk]').getBoundingClientRect(), [x, y] = [%f - r.x, %f - r.y]
				const l = Math.hypot(b[0] - a[0], b[1] - a[1])
				return Math.abs((x - a[0]) * (b[1] - a[1]) - (y - a[1]) * (b[0] - a[0])) / l
			})()`, x, y))
			if off > 1 {
				t.Errorf("the caret before letter %d is drawn %.1f px off", c.want, off)
			}
		}
	}
	p.apart()
	twice(1.5, 3)
	if s := p.marked(); s != "[KITE DAY 24]" {
		t.Errorf("pressed three times: %s", s)
	}
	// Dragging marks, back and forth.
	p.apart()
	x0, y0 := at(5.1)
	x1, y1 := at(8.1)
	p.do(chromedp.DragAndDropXY(x0, y0, x1, y1))
	if s := p.marked(); s != "KITE [DAY] 24" {
		t.Errorf("dragged over a word: %s", s)
	}
	before := p.page(640, 400)
	p.do(chromedp.KeyEvent("NIGHT"))
	p.wait(`document.querySelector('[data-words]').value === 'KITE NIGHT 24'`)
	if differing(before, p.page(640, 400), 60) < 100 {
		t.Error("the page does not show what is typed")
	}
	p.key(kb.Escape)
	p.settled()
	if s := browser.Eval[string](t, p.ctx, `document.querySelector('aside').innerText`); !strings.Contains(s, "KITE NIGHT 24") {
		t.Errorf("the inspector says %q", s)
	}
}

// Every word that is typed is a step to undo; what is pasted is one; the caret goes along.
func TestWordsAreUndoneByWord(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(evenWords("KITE"), media.NewFolder(t.TempDir()))
	p.click(320, 190)
	p.settled()
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.Enter)
	p.wait(`document.activeElement?.matches('[data-words]')`)
	p.do(chromedp.KeyEvent(" day at noon"))
	shows := func(want string) {
		t.Helper()
		p.wait(fmt.Sprintf(`document.querySelector('[data-words]').value === %q`, want))
	}
	shows("KITE day at noon")
	for _, want := range []string{"KITE day at ", "KITE day ", "KITE "} {
		p.key("z", chromedp.ModifierCtrl)
		shows(want)
		if s := p.marked(); s != want+"[]" {
			t.Errorf("after undoing the caret is at %s", s)
		}
	}
	p.key("z", chromedp.ModifierCtrl, chromedp.ModifierShift)
	shows("KITE day ")
	// Pasted words come plain, and go as one.
	browser.Eval[bool](t, p.ctx, `document.execCommand('insertText', false, 'by the quay')`)
	shows("KITE day by the quay")
	p.do(chromedp.KeyEvent(kb.Backspace), chromedp.KeyEvent(kb.Backspace))
	shows("KITE day by the qu")
	p.key("z", chromedp.ModifierCtrl)
	shows("KITE day by the quay")
	// What was stored is there after a reload, without having left the words.
	p.settled()
	was := browser.Eval[string](t, p.ctx, `document.documentElement.dataset.revision`)
	p.do(chromedp.KeyEvent(" now"))
	p.wait(`document.documentElement.dataset.pending === '0' && Number(document.documentElement.dataset.revision) === ` + was + ` + 2`)
	p.do(chromedp.Reload())
	p.wait(`document.querySelector('[data-name="KITE day by the quay now"]')`)
}

// In a text that wraps the caret goes up, down, to the begin and the end of the lines as they are seen; a text without words goes.
func TestTheCaretGoesByTheLinesThatAreSeen(t *testing.T) {
	project := evenWords("aaaa bbbb cccc")
	l := project.Film.Scenes[0].Layers[0]
	l.Text.Wrap, l.Place.W, l.Place.Turn = true, 0.612*40*5+2, 0
	p := sit(t, startStudio(t))
	p.bring(project, media.NewFolder(t.TempDir()))
	p.click(320, 190)
	p.settled()
	p.pressWord("Edit words")
	p.wait(`document.activeElement?.matches('[data-words]')`)
	for _, c := range []struct {
		key  string
		mods []chromedp.Modifier
		want string
	}{
		{kb.Home, nil, "aaaa bbbb []cccc"}, {kb.ArrowUp, nil, "aaaa []bbbb cccc"}, {kb.End, nil, "aaaa bbbb[] cccc"}, {kb.ArrowUp, nil, "aaaa[] bbbb cccc"},
		{kb.ArrowUp, nil, "[]aaaa bbbb cccc"}, {kb.ArrowDown, nil, "aaaa bbbb[] cccc"}, // the column is kept
		{kb.ArrowDown, []chromedp.Modifier{chromedp.ModifierShift}, "aaaa bbbb[ cccc]"}, {kb.ArrowLeft, nil, "aaaa bbbb[] cccc"},
	} {
		p.key(c.key, c.mods...)
		p.wait(fmt.Sprintf(`(() => { const e = document.querySelector('[data-words]'); return e.value.slice(0, e.selectionStart) + '[' + e.value.slice(e.selectionStart, e.selectionEnd) + ']' + e.value.slice(e.selectionEnd) })() === %q`, c.want))
	}
	p.key("a", chromedp.ModifierCtrl)
	p.key(kb.Delete)
	p.wait(`document.querySelector('[data-words]').value === ''`)
	p.key(kb.Escape)
	p.settled()
	p.wait(`!document.querySelector('[data-name]')`)
	p.undo()
	p.wait(`document.querySelector('[data-name]')`)
}

// An input method writes by candidates: they are seen on the page, and what is chosen in the end is one step.
func TestAnInputMethodWritesOnThePage(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(evenWords("KITE "), media.NewFolder(t.TempDir()))
	p.click(320, 190)
	p.settled()
	p.pressWord("Edit words")
	p.wait(`document.activeElement?.matches('[data-words]')`)
	was := browser.Eval[string](t, p.ctx, `document.documentElement.dataset.revision`)
	before := p.page(640, 400)
	for _, candidate := range []string{"d", "da", "dá", "dáy"} {
		if _, err := chromedp.Call(p.ctx, input.ImeSetComposition, input.ImeSetCompositionParams{Text: candidate, SelectionStart: int64(len([]rune(candidate))), SelectionEnd: int64(len([]rune(candidate)))}); err != nil {
			t.Fatal(err)
		}
		p.wait(fmt.Sprintf(`document.querySelector('[data-words]').value === %q`, "KITE "+candidate))
	}
	if differing(before, p.page(640, 400), 60) < 100 {
		t.Error("the page does not show the candidates")
	}
	if now := browser.Eval[string](t, p.ctx, `document.documentElement.dataset.revision`); now != was {
		t.Errorf("a candidate was stored: revision %s", now)
	}
	if _, err := chromedp.Call(p.ctx, input.InsertText, input.InsertTextParams{Text: "dáy"}); err != nil {
		t.Fatal(err)
	}
	p.wait(`document.documentElement.dataset.pending === '0' && Number(document.documentElement.dataset.revision) === ` + was + ` + 1`)
	p.key("z", chromedp.ModifierCtrl)
	p.wait(`document.querySelector('[data-words]').value === 'KITE '`)
}

// A text of nearly 20,000 characters can be written on; one more than may be is refused in words, and nothing is lost.
func TestALongTextStaysEditable(t *testing.T) {
	project := motto()
	l := project.Film.Scenes[0].Layers[0]
	l.Text.Wrap, l.Place.W, l.Place.Y = true, 600, 5
	l.Text.Runs[0] = doc.Run{Text: strings.Repeat("bring a long tail to Fennel Quay. ", 588), Family: "Archivo", Weight: 400, Size: 5}
	long := len(l.Text.Runs[0].Text)
	p := sit(t, startStudio(t))
	p.bring(project, media.NewFolder(t.TempDir()))
	p.click(320, 100)
	p.settled()
	p.pressWord("Edit words")
	p.wait(`document.activeElement?.matches('[data-words]')`)
	began := time.Now()
	p.do(chromedp.KeyEvent("kites "))
	p.wait(fmt.Sprintf(`document.querySelector('[data-words]').value.length === %d`, long+6))
	t.Logf("six keys in %v", time.Since(began))
	p.settled()
	browser.Eval[bool](t, p.ctx, `document.execCommand('insertText', false, 'x'.repeat(200))`)
	p.wait(`document.body.innerText.includes('the most is 20000')`)
	p.wait(fmt.Sprintf(`document.querySelector('[data-words]').value.length === %d`, long+6))
	p.key(kb.Escape)
	p.settled()
	if n := browser.Eval[int](t, p.ctx, `document.querySelector('aside p span').title.length`); n != long+6 {
		t.Errorf("%d characters are left, want %d", n, long+6)
	}
}

// The box of a text keeps its height, with the lines where they are told to stand, and is filled by the words.
func TestWordsFillTheirBox(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(motto(), media.NewFolder(t.TempDir()))
	p.click(320, 178)
	p.settled()
	p.choose("Box", "fixed")
	p.settled()
	top := p.number("Down: middle, from the top") - p.number("High")/2
	p.set("High", "160")
	p.settled()
	p.set("Down: middle, from the top", fmt.Sprint(top+80))
	p.settled()
	// inked is from which to which row of the page letters are.
	sky := p.page(640, 400).RGBAAt(5, 5)
	inked := func() (from, to int) {
		img := p.page(640, 400)
		from = 400
		for y := range 400 {
			for x := range 640 {
				if img.RGBAAt(x, y) != sky {
					from, to = min(from, y), y
				}
			}
		}
		return
	}
	a, b := inked()
	p.choose("Where the lines stand in it", "bottom")
	p.settled()
	if c, d := inked(); c-a < 110 || d > int(top)+160 {
		t.Errorf("at the foot the letters reach from %d to %d, from the top from %d to %d", c, d, a, b)
	}
	p.choose("Box", "fit")
	p.settled()
	p.wait(`Number(document.querySelector('[data-fit]').dataset.fit) > 1`)
	if c, d := inked(); d-c < 100 || c < int(top)-1 || d > int(top)+161 {
		t.Errorf("filling it they reach from %d to %d, the box from %.0f to %.0f", c, d, top, top+160)
	}
	// The lower edge is dragged up: the words become smaller, the upper edge stays.
	x, y := p.middle(`[data-handle=s]`)
	p.pullXY(x, y, 0, -60)
	p.settled()
	if c, d := inked(); c < int(top)-1 || float64(d) > top+p.number("High")+1 || p.number("High") > 130 {
		t.Errorf("dragged smaller they reach from %d to %d in a box %v high", c, d, p.number("High"))
	}
}
