package e2e

import (
	"bytes"
	"context"
	"math/rand/v2"
	"strconv"
	"sync"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/studio/media"
)

// steps are what somebody does with the keyboard alone, at random.
func (p *person) steps(seed uint64, n int) error {
	r := rand.New(rand.NewPCG(seed, 1))
	keys := []func(context.Context) error{
		press(kb.Tab), press(kb.ArrowRight), press(kb.ArrowDown), press(kb.ArrowLeft), press(kb.ArrowUp), press(kb.ArrowRight, chromedp.ModifierShift),
		press("d", chromedp.ModifierCtrl), press("z", chromedp.ModifierCtrl), press("z", chromedp.ModifierCtrl, chromedp.ModifierShift), press(kb.Delete),
	}
	for range n {
		k := r.IntN(len(keys) + 4)
		if k >= len(keys) {
			k = 1 + k%4 // mostly nudges
		}
		if k == len(keys)-1 && r.IntN(3) > 0 {
			k = 6 // what is deleted does not outnumber what is copied
		}
		if err := keys[k](p.ctx); err != nil {
			return err
		}
	}
	return nil
}

func press(keys string, mods ...chromedp.Modifier) func(context.Context) error {
	return func(ctx context.Context) error {
		return chromedp.Do(ctx, chromedp.KeyEvent(keys, chromedp.KeyModifiers(mods...)))
	}
}

// Two people at the same project, two hundred keys between them and nobody waiting for the other: in the end both see what is
// stored.
func TestTwoWindowsEndUpAlike(t *testing.T) {
	s := startStudio(t)
	a := sit(t, s)
	id := a.bring(plain(), media.NewFolder(t.TempDir()))
	b := sit(t, s)
	b.open("/p/" + id)
	b.settled()
	var both sync.WaitGroup
	for i, p := range []*person{a, b} {
		p.do(chromedp.Focus(`[data-desk]`))
		both.Go(func() {
			if err := p.steps(uint64(i+1), 100); err != nil {
				t.Error(err)
			}
		})
	}
	both.Wait()
	rev, _ := s.revision(id)
	for end := 0; end < 50; end++ {
		a.wait(`document.documentElement.dataset.pending === '0'`)
		b.wait(`document.documentElement.dataset.pending === '0'`)
		if now, _ := s.revision(id); now == rev {
			break
		} else {
			rev = now
		}
	}
	if rev < 40 {
		t.Errorf("only %d revisions came of two hundred keys", rev)
	}
	var seen [2][]byte
	for i, p := range []*person{a, b} {
		p.front()
		p.wait(`Number(document.documentElement.dataset.revision) >= ` + strconv.FormatInt(rev, 10))
		p.settled()
		seen[i] = p.pixels(0, 0, true, 320, 240, "#fff").Pix
	}
	if !bytes.Equal(seen[0], seen[1]) {
		t.Error("the windows show different pages")
	}
	// And a third that comes now sees the same.
	c := sit(t, s)
	c.open("/p/" + id)
	c.settled()
	if !bytes.Equal(c.pixels(0, 0, true, 320, 240, "#fff").Pix, seen[0]) {
		t.Error("what is stored is not what the windows show")
	}
}

// Undo of what another window has changed since is refused in words, and the step before it can still be undone.
func TestUndoIsRefusedWhereAnotherWindowWorkedSince(t *testing.T) {
	s := startStudio(t)
	a := sit(t, s)
	id := a.bring(plain(), media.NewFolder(t.TempDir()))
	b := sit(t, s)
	b.open("/p/" + id)
	b.settled()
	a.click(160, 120)
	a.set("Opacity", "60")
	a.settled()
	a.set("Turn", "20")
	a.settled()
	b.front()
	b.wait(`document.documentElement.dataset.revision === '2'`)
	b.click(160, 120)
	b.set("Turn", "45")
	b.settled()
	a.front()
	a.wait(`document.documentElement.dataset.revision === '3'`)
	a.undo()
	a.wait(`[...document.querySelectorAll('[data-notice=failed]')].some(n => n.innerText.includes('was changed again since') && n.innerText.includes('Nothing was undone'))`)
	if v := a.number("Turn"); v != 45 {
		t.Errorf("it is turned by %v", v)
	}
	a.undo()
	if v := a.number("Opacity"); v != 100 {
		t.Errorf("the step before: opacity %v", v)
	}
	if v := a.number("Turn"); v != 45 {
		t.Errorf("it is turned by %v after undoing the step before", v)
	}
}

// Closing the tab at the end of a drag, at once, loses nothing.
func TestClosingTheTabAtOnceAfterADragLosesNothing(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	id := p.bring(plain(), media.NewFolder(t.TempDir()))
	p.click(160, 120)
	p.drag(120, 90, 160, 120) // beside the pivot in its middle
	if err := chromedp.Do(p.ctx, chromedp.Navigate("about:blank")); err != nil {
		t.Fatal(err)
	}
	q := sit(t, s)
	q.open("/p/" + id)
	q.settled()
	q.click(200, 150)
	if x := q.number("Across: middle, from the left"); x != 200 {
		t.Errorf("the next window finds it at %v", x)
	}
}
