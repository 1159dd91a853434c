package e2e

import (
	"encoding/json"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"capstan/e2e/browser"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
)

// bar is the selector of a bar by its name and its layer's.
func bar(move, layer string) string {
	return fmt.Sprintf(`[data-bar][aria-label^="%s, %s:"]`, move, layer)
}

// pull drags from what one selector finds to what another does (or by an offset from its middle), slowly enough to be seen on the way.
func (p *person) pull(from, to string, dx, dy float64, mods ...chromedp.Modifier) {
	p.t.Helper()
	x0, y0 := p.middle(from)
	x1, y1 := x0, y0
	if to != "" {
		x1, y1 = p.middle(to)
	}
	x1, y1 = x1+dx, y1+dy
	left := []chromedp.MouseOption{chromedp.ButtonType("left"), chromedp.ClickCount(1), chromedp.ButtonModifiers(mods...)}
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x0, y0))
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, x0, y0, left...))
	for i := 1.0; i <= 8; i++ {
		p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x0+(x1-x0)*i/8, y0+(y1-y0)*i/8, left...))
	}
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, x1, y1, left...))
	p.settled()
}

// clock reads the times of a bar from the inspector, once the bar is pressed: begin and end on the scene's clock, in seconds.
func (p *person) clock(bar string) (begin, end float64) {
	p.t.Helper()
	x, y := p.middle(bar + ` [data-part=whole]`)
	p.do(chromedp.MouseClickXY(x, y))
	p.settled()
	p.wait(`document.querySelector('[data-when] b')`)
	words := browser.Eval[string](p.t, p.ctx, `document.querySelector('[data-when] b').innerText`)
	if _, err := fmt.Sscanf(words, "%f → %f s", &begin, &end); err != nil {
		p.t.Fatalf("%q: %v", words, err)
	}
	return
}

// Four pictures there and back, each beginning when the one before begins to fade; built with the mouse, with live ends. When the
// legs take 4 s instead of 3, nothing else is typed, and the ends are 8.00, 13.50, 19.00 and 24.50: in the timeline, and in the
// file the command line reads.
func TestFourPicturesThereAndBack(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/")
	p.pressWord("Wide")
	p.wait(`location.pathname.startsWith('/p/')`)
	p.settled()
	p.press(`[aria-label=Inspector] [role=switch]`) // as long as its moves and words take
	p.settled()
	for i := 0; i < 4; i++ {
		p.press(`[title="Rectangle (1)"]`)
		y := float64(100 + 240*i)
		p.drag(100, y, 400, y+160)
		p.settled()
	}
	names := []string{"Rectangle", "Rectangle 2", "Rectangle 3", "Rectangle 4"}

	// The first one's moves: a path there and back, and a fade that ends when it ends.
	p.press(`[data-name="Rectangle"]`)
	p.pressWord("Add a move")
	p.pressWord("Straight path")
	p.settled()
	p.set("Duration", "3")
	p.set("Repeat", "2")
	p.wait(`document.querySelector('[data-card]')`)
	p.pressWordIn(`[data-card] label`, "There and back")
	p.settled()
	p.pressWord("Add a move")
	p.pressWord("Fade out")
	p.settled()
	p.set("Duration", "2.5")
	p.settled()
	path, fade := bar("Path", names[0]), bar("Fade, out", names[0])
	p.press(fade + ` [data-part=whole]`)
	p.settled()
	p.pull(fade+` [data-hitch=end]`, path+` [data-part=end]`, 0, 0)
	p.shot("dbg")
	if b, e := p.clock(fade); b != 3.5 || e != 6 {
		t.Fatalf("the fade that ends with the path lasts from %v to %v", b, e)
	}

	// The others get the same, each hung on the fade before.
	p.press(`[data-name="Rectangle"]`)
	p.pressWord("Copy moves")
	for _, n := range names[1:] {
		p.press(fmt.Sprintf(`[data-name=%q]`, n))
		p.settled()
		p.pressWord("Paste moves")
		p.settled()
	}
	for i, n := range names[1:] {
		from, to := bar("Fade, out", names[i]), bar("Path", n)
		p.press(to + ` [data-part=whole]`)
		p.settled()
		p.pull(to+` [data-hitch=begin]`, from+` [data-part=begin]`, 2, 0)
	}
	check := func(begins, ends []float64) {
		t.Helper()
		for i, n := range names {
			if b, e := p.clock(bar("Path", n)); b != begins[i] || e != ends[i] {
				t.Errorf("%s goes from %v to %v, want %v to %v", n, b, e, begins[i], ends[i])
			}
			if _, e := p.clock(bar("Fade, out", n)); e != ends[i] {
				t.Errorf("the fade of %s ends at %v, want %v", n, e, ends[i])
			}
		}
	}
	check([]float64{0, 3.5, 7, 10.5}, []float64{6, 9.5, 13, 16.5})
	stay := func() string {
		return browser.Eval[string](t, p.ctx, `document.querySelector('[data-scene="0"]').title`)
	}
	if got := stay(); !strings.Contains(got, ", 16.5 s.") {
		t.Errorf("the scene stays as long as its moves: %q", got)
	}
	p.shot("four-pictures")

	// The four legs are made 4 s long at once.
	for i, n := range names {
		x, y := p.middle(bar("Path", n) + ` [data-part=whole]`)
		if i == 0 {
			p.do(chromedp.MouseClickXY(x, y))
		} else {
			p.do(chromedp.MouseClickXY(x, y, chromedp.ButtonModifiers(chromedp.ModifierShift)))
		}
	}
	p.set("How long each of them takes", "4")
	p.settled()
	check([]float64{0, 5.5, 11, 16.5}, []float64{8, 13.5, 19, 24.5})
	// What is seen: the last path's bar ends where the scene does.
	gap := browser.Eval[float64](t, p.ctx, fmt.Sprintf(`document.querySelector('[data-scene="0"]').getBoundingClientRect().right - document.querySelector('%s [data-part=whole]').getBoundingClientRect().right`, bar("Path", names[3])))
	if math.Abs(gap) > 3 {
		t.Errorf("the last bar ends %.1f px before the scene", gap)
	}

	// The file says the same.
	id := browser.Eval[string](t, p.ctx, `location.pathname.slice(3)`)
	file := filepath.Join(t.TempDir(), "four.capstan")
	if err := os.WriteFile(file, s.fetch("/api/projects/"+id+"/bundle"), 0o644); err != nil {
		t.Fatal(err)
	}
	out, errs, err := run(t, "inspect", file)
	if err != nil {
		t.Fatal(errs)
	}
	var seen struct {
		Length int64
		Scenes []struct {
			Moves map[string]struct{ Begin, End int64 }
		}
	}
	if err := json.Unmarshal([]byte(out), &seen); err != nil {
		t.Fatal(err)
	}
	ends := map[int64]int{}
	for _, m := range seen.Scenes[0].Moves {
		ends[m.End]++
	}
	for _, want := range []int64{8000, 13500, 19000, 24500} {
		if ends[want] != 2 {
			t.Errorf("inspect: %d moves end at %d, want a path and a fade: %v", ends[want], want, ends)
		}
	}
	if seen.Length != 24500 {
		t.Errorf("inspect: the film lasts %d ms", seen.Length)
	}

	// One step back, and all is as it was.
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("z", chromedp.ModifierCtrl)
	p.settled()
	check([]float64{0, 3.5, 7, 10.5}, []float64{6, 9.5, 13, 16.5})
}

// pressWordIn presses what a selector finds and holds these words.
func (p *person) pressWordIn(selector, words string) {
	p.t.Helper()
	p.look(fmt.Sprintf(`[...document.querySelectorAll('%s')].some(n => n.innerText.includes(%q))`, selector, words))
	at := browser.Eval[[]float64](p.t, p.ctx, fmt.Sprintf(`(() => { const e = [...document.querySelectorAll('%s')].find(n => n.innerText.includes(%q)); e.scrollIntoView({block: 'nearest'}); const r = e.getBoundingClientRect(); return [r.left + 8, r.top + r.height / 2] })()`, selector, words))
	p.do(chromedp.MouseClickXY(at[0], at[1]))
}
