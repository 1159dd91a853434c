package e2e

import (
	"fmt"
	"image"
	"image/draw"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/demo"
	"capstan/e2e/browser"
	"capstan/library"
)

// finds goes to a scene by its name.
func (p *person) finds(name string) {
	p.t.Helper()
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("Z", chromedp.ModifierShift)
	p.wait(`document.querySelector('[data-scene-finder] input') === document.activeElement`)
	p.do(chromedp.KeyEvent(name))
	p.wait(`document.querySelectorAll('[data-scene-finder] li').length === 1`)
	p.key(kb.Enter)
	p.settled()
}

// A kite becomes a gull: the page and the file show the same at nine times. What becomes what is seen on the page: a number is dragged along its outline,
// a line is drawn from one outline to the other, keys move and let go, and all of it is stored and undone.
func TestWhatBecomesWhatIsCorrectedOnThePage(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-reel")
	p.settled()
	fonts, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	film, err := frame.Compile(demo.Reel(), frame.Assets{Fonts: fonts}, nil)
	if err != nil {
		t.Fatal(err)
	}
	third := browser.Eval[int](t, p.ctx, `capstanProbe.engine.film().scenes.findIndex(s => s.name === 'Flight 3')`)
	from, to := film.Order.Begin(third)-700, film.Order.Begin(third)
	for k := range int64(9) {
		at := from + (to-from)*k/8
		page := p.pixels(third, float64(at), false, 540, 960, "#ffffff")
		file := image.NewRGBA(page.Rect)
		draw.Draw(file, file.Rect, image.White, image.Point{}, draw.Src)
		if err := raster.NewPainter(film, nil).Paint(file, film.Player().At(motion.Millis(at), frame.View{Scale: 0.5})); err != nil {
			t.Fatal(err)
		}
		if d := compare(page, file, page.Rect); d.mean > 1.5 || d.p999 > 32 {
			t.Errorf("at %d ms page and file differ by %.2f on the mean, %.0f at 999 of 1000", at, d.mean, d.p999)
		}
	}
	p.finds("flight 3")
	p.press(`[data-row] [data-name="Gull"]`)
	p.settled()
	p.pressWord("Scenes")
	p.do(chromedp.Focus(`[data-desk]`))
	p.settled()
	p.key("d") // the desk alone: numbers that would hide each other are left out
	p.settled()
	p.pressWord("What becomes what")
	p.wait(`document.querySelectorAll('[data-correspondence] [data-mark]').length >= 8`)
	given := func(n int, when string) {
		t.Helper()
		p.settled()
		if got := browser.Eval[int](t, p.ctx, `document.querySelectorAll('[data-mark][data-given]').length`); got != 2*n {
			t.Errorf("%s %d ends are given, want %d", when, got, 2*n)
		}
	}
	given(0, "at first")
	share := `Number(document.querySelector('[data-travelling]').dataset.share)`
	was := browser.Eval[float64](t, p.ctx, share)
	p.wait(fmt.Sprintf(`Math.abs(%s - %v) > 0.02`, share, was)) // it goes there and back
	// which are the first two numbers that are shown, since those that would hide others are left out.
	shown := func() (one, two string) {
		list := browser.Eval[[]string](t, p.ctx, `[...document.querySelectorAll('[data-mark$=a]')].map(e => e.dataset.mark.slice(0, -1))`)
		if len(list) < 2 {
			t.Fatalf("numbers %v are shown", list)
		}
		return list[0], list[1]
	}
	_, second := shown()
	x, y := p.middle(fmt.Sprintf(`[data-mark="%sb"]`, second))
	p.pull(fmt.Sprintf(`[data-mark="%sb"]`, second), "", -24, 4)
	p.settled()
	given(1, "after a number was dragged")
	p.wait(`document.querySelector('[data-mark="1b"]').getAttribute('aria-pressed') === 'true'`) // given, it is the first, and still selected
	bx, by := p.middle(`[data-mark="1b"]`)
	if d := (bx-x)*(bx-x) + (by-y)*(by-y); d < 25 {
		t.Errorf("it was dragged from %.0f %.0f and lies at %.0f %.0f", x, y, bx, by)
	}
	p.do(chromedp.Focus(`[data-mark="1b"]`))
	p.key(kb.ArrowRight)
	given(1, "after a key")
	p.pressWord("Add a pair")
	given(2, "with a pair more")
	p.open("/p/kite-day-reel") // it is stored
	p.settled()
	p.finds("flight 3")
	p.press(`[data-row] [data-name="Gull"]`)
	p.do(chromedp.Focus(`[data-desk]`))
	p.settled()
	p.key("d")
	p.settled()
	p.pressWord("What becomes what")
	p.wait(`document.querySelectorAll('[data-mark]').length >= 8`)
	given(2, "opened again")
	p.pressWord("Find anew")
	given(0, "found anew")
	// From the middle of the sail's upper edge to the tip of a wing, by a line.
	one, two := shown()
	ax, ay := p.middle(fmt.Sprintf(`[data-mark="%sa"]`, one))
	x, y = p.middle(fmt.Sprintf(`[data-mark="%sa"]`, two))
	ex, ey := p.middle(fmt.Sprintf(`[data-mark="%sb"]`, two))
	p.pullXY((ax+x)/2, (ay+y)/2, ex-(ax+x)/2, ey-(ay+y)/2)
	given(1, "after a line was drawn")
	p.undo()
	given(0, "undone")
	p.key(kb.Escape)
	p.wait(`!document.querySelector('[data-correspondence]')`)
}
