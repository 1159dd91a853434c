package e2e

import (
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/e2e/browser"
	"capstan/studio/media"
)

// Nudges without a pause are one step to undo, a pause begins another; steps of other kinds stay apart; and all of it outlives
// loading the page again, in this window.
func TestSmallStepsAreUndoneAsOneAndOutliveAReload(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(plain(), media.NewFolder(t.TempDir()))
	p.click(160, 120)
	across := func() float64 { return p.number("Across: middle, from the left") }
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(strings.Repeat(kb.ArrowRight, 5))
	p.settled()
	time.Sleep(900 * time.Millisecond) // the pause is what is tested
	p.key(strings.Repeat(kb.ArrowRight, 3))
	p.settled()
	p.set("Opacity", "40")
	p.settled()
	if v := across(); v != 168 {
		t.Fatalf("after eight nudges it lies at %v", v)
	}
	path := browser.Eval[string](t, p.ctx, `location.pathname`)
	p.open(path)
	p.settled()
	p.click(160, 120)
	if v := p.number("Opacity"); v != 40 {
		t.Fatalf("opacity %v after loading again", v)
	}
	p.undo()
	if o, x := p.number("Opacity"), across(); o != 100 || x != 168 {
		t.Errorf("one step back: opacity %v at %v", o, x)
	}
	p.undo()
	if v := across(); v != 165 {
		t.Errorf("two steps back it lies at %v, want 165: three nudges are one step", v)
	}
	p.undo()
	if v := across(); v != 160 {
		t.Errorf("three steps back it lies at %v, want 160: five nudges are one step", v)
	}
	// Forward again, after another load.
	p.open(path)
	p.settled()
	p.click(160, 120)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("z", chromedp.ModifierCtrl, chromedp.ModifierShift)
	p.settled()
	if v := across(); v != 165 {
		t.Errorf("one step forward it lies at %v", v)
	}
	// Another window has steps of its own: none.
	other := sit(t, p.s)
	other.open(path)
	other.settled()
	other.do(chromedp.Focus(`[data-desk]`))
	other.undo()
	other.click(160, 120)
	if v := other.number("Across: middle, from the left"); v != 165 {
		t.Errorf("another window undid what it had not done: %v", v)
	}
}
