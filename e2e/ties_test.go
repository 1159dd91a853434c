package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// Two spars cross and a kite comes to show between them: untied it keeps its times, and it is tied again by dragging from its bar to the one's
// row and to the other on the page; then it keeps to them at any time, and goes by its own time when one is deleted.
func TestDoorsAreTied(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	p.press(`[data-scene="1"]`)
	p.press(`[data-row="t-small"] [data-name]`)
	bar := `[data-bar][aria-label^="Barn doors, in, Small kite"]`
	p.wait(`document.querySelector('` + bar + ` [data-tied]')`)
	p.shot("tie")
	before := p.stored()
	tiedBegin, tiedEnd := p.clock(bar)
	if tiedBegin < 0.9 || tiedEnd > 1.8 || tiedEnd-tiedBegin < 0.2 {
		t.Errorf("tied it shows itself from %.2f to %.2f s, where the spars cross from 0.3 to 1.8", tiedBegin, tiedEnd)
	}
	if w := p.words(bar); !strings.Contains(w, "tied to the leading edge of Spar 1 and the leading edge of Spar 2") {
		t.Errorf("it says %q", w)
	}
	// Its ends cannot be dragged.
	p.pull(bar+` [data-part=whole]`, "", 60, 0)
	if b, e := p.clock(bar); b != tiedBegin || e != tiedEnd || p.stored() != before {
		t.Errorf("dragged it goes from %.2f to %.2f s", b, e)
	}
	p.pressWord("Untie and keep these times")
	p.settled()
	p.wait(`!document.querySelector('` + bar + ` [data-tied]')`)
	if b, e := p.clock(bar); b != tiedBegin || e != tiedEnd {
		t.Errorf("untied it goes from %.2f to %.2f s, not %.2f to %.2f", b, e, tiedBegin, tiedEnd)
	}
	p.pull(bar+` [data-eye]`, `[data-row="t-spar1"] [data-name]`, 0, 0)
	p.wait(`document.querySelector('` + bar + ` [data-tied]')`)
	x0, y0 := p.middle(bar + ` [data-eye]`)
	x1, y1 := p.at(1780, 300)
	p.dragged(nil, [2]float64{x0, y0}, [2]float64{(x0 + x1) / 2, (y0 + y1) / 2}, [2]float64{x1, y1})
	p.settled()
	if w := p.words(bar); !strings.Contains(w, "Spar 1 and the leading edge of Spar 2") {
		t.Errorf("tied again it says %q", w)
	}
	if b, e := p.clock(bar); b != tiedBegin || e != tiedEnd {
		t.Errorf("tied again it shows from %.2f to %.2f s", b, e)
	}
	p.undo()
	p.undo()
	p.undo()
	if p.stored() != before {
		t.Error("three undone steps leave something behind")
	}

	// Between the spars the kite shows, beyond them the sky does: seen where they have nearly crossed, beside what is there without it.
	shown := func() [2]bool {
		now := p.pixels(1, 5800+1250, false, 960, 540, "#fff")
		whole := p.pixels(1, 5800+2500, false, 960, 540, "#fff")
		near := func(x, y int) bool {
			a, b := now.RGBAAt(x, y), whole.RGBAAt(x, y)
			return max(int(a.R)-int(b.R), int(b.R)-int(a.R)) < 24 && max(int(a.G)-int(b.G), int(b.G)-int(a.G)) < 24
		}
		return [2]bool{near(740, 160), near(688, 138)}
	}
	if s := shown(); !s[0] || s[1] {
		t.Errorf("at 1.25 s its middle shows %v, its left corner %v", s[0], s[1])
	}

	p.press(`[data-row="t-spar1"] [data-name]`)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.Delete)
	p.settled()
	p.wait(`document.querySelector('` + bar + `') && !document.querySelector('` + bar + ` [data-tied]')`)
	p.press(`[data-row="t-small"] [data-name]`)
	if w := p.words(bar); !strings.Contains(w, "what drove it is gone") {
		t.Errorf("without its driver it says %q", w)
	}
	p.undo()
	p.wait(`document.querySelector('` + bar + ` [data-tied]')`)
}
