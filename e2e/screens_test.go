package e2e

import (
	"bytes"
	"image/png"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"capstan/e2e/browser"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

func (p *person) cards() []string {
	return browser.Eval[[]string](p.t, p.ctx, `[...document.querySelectorAll('main li a')].map(a => a.innerText.trim())`)
}

// The start screen: own sizes, search, order, duplicate, rename, the bin and what it gives back, deleting for good after a question.
func TestProjectsAreMadeFoundCopiedAndDeleted(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/")
	p.wait(`document.querySelectorAll('main li').length === 8`)
	set := func(name, value string) {
		sel := `[aria-label="` + name + `"]`
		p.do(chromedp.Focus(sel))
		browser.Eval[bool](t, p.ctx, `(document.querySelector('`+sel+`').select(), true)`)
		p.do(chromedp.KeyEvent(value))
	}
	set("Width in pixels", "9")
	p.wait(`[...document.querySelectorAll('button')].find(b => b.innerText === 'Make').disabled`)
	set("Width in pixels", "640")
	set("Height in pixels", "200")
	p.pressWord("Make")
	p.wait(`location.pathname.startsWith('/p/')`)
	p.settled()
	if size := browser.Eval[string](t, p.ctx, `document.querySelector('[data-page]').dataset.page`); size != "640 200" {
		t.Errorf("the page is %s", size)
	}
	p.set("Project name", "Tide table")
	p.settled()
	p.pressWord("All projects")
	p.wait(`document.querySelectorAll('main li').length === 9`)
	if got := p.cards(); got[0] != "Tide table" {
		t.Errorf("the last changed comes first: %v", got)
	}
	p.pressWord("Duplicate Tide table")
	p.wait(`document.querySelectorAll('main li').length === 10`)
	set("Search projects", "copy")
	p.wait(`document.querySelectorAll('main li').length === 1`)
	p.pressWord("Put Tide table, copy into the bin")
	p.wait(`document.body.innerText.includes('No project has')`)
	set("Search projects", "")
	p.key(kb.Backspace)
	p.wait(`document.querySelectorAll('main [data-project]').length === 9`)
	// Out of the bin, with another name.
	p.pressWord("Bin: 1 project")
	p.pressWord("Restore Tide table, copy")
	p.wait(`document.querySelectorAll('main [data-project]').length === 10 && !document.querySelector('[data-binned]')`)
	p.pressWord("Rename Tide table, copy")
	p.wait(`document.activeElement.ariaLabel === 'Name of the project'`)
	p.do(chromedp.KeyEvent("A harbour list"), chromedp.KeyEvent(kb.Enter))
	p.wait(`document.querySelector('[data-project="A harbour list"]')`)
	p.choose("Sort projects", "name")
	if got := p.cards(); got[0] != "A harbour list" || got[9] != "Tide table" {
		t.Errorf("by name: %v", got)
	}
	// Escape leaves a name as it was, and so does an empty one.
	p.pressWord("Rename Tide table")
	p.do(chromedp.KeyEvent("x"), chromedp.KeyEvent(kb.Escape))
	p.pressWord("Rename Tide table")
	p.do(chromedp.KeyEvent(kb.Backspace), chromedp.KeyEvent(kb.Enter))
	p.wait(`document.querySelector('[data-project="Tide table"]')`)
	// Gone for good only after a question.
	p.pressWord("Put A harbour list into the bin")
	p.wait(`document.querySelectorAll('main [data-project]').length === 9`)
	p.wait(`document.querySelector('section[aria-label=Bin]')`)
	if !browser.Eval[bool](t, p.ctx, `!!document.querySelector('[data-binned]')`) {
		p.pressWord("Bin: 1 project")
	}
	p.pressWord("Delete A harbour list for good")
	p.pressWord("Keep")
	p.wait(`!document.querySelector('[role=alertdialog]')`)
	p.pressWord("Delete A harbour list for good")
	p.pressWord("Delete for good")
	p.wait(`!document.querySelector('section[aria-label=Bin]')`)
	// The names were stored.
	p.open("/")
	p.wait(`document.querySelectorAll('main [data-project]').length === 9`)
	if got := p.cards(); got[8] != "Tide table" {
		t.Errorf("after loading again, sorted by name as chosen: %v", got)
	}
}

// What every screen owes to people with keyboards and screen readers: each control has a name, and those that are signs are 24 px at
// least (WCAG 2.5.8).
func TestControlsHaveNamesAndSize(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	check := func(where string) {
		t.Helper()
		bad := browser.Eval[[]string](t, p.ctx, `[...document.querySelectorAll('button, a[href], input:not([hidden]), select, textarea, [role=slider], [role=separator], [tabindex="0"]')].filter(e => e.getClientRects().length && !e.closest('[aria-hidden=true]')).flatMap(e => {
			const name = e.getAttribute('aria-label') || e.getAttribute('aria-labelledby') || e.innerText?.trim() || e.closest('label')?.innerText || e.title
			const r = e.getBoundingClientRect(), small = (e.tagName === 'BUTTON' || e.tagName === 'SELECT') && (r.height < 24 || r.width < 24) && e.innerText?.trim().length < 2
			return name && !small ? [] : [e.outerHTML.slice(0, 160) + ' ' + Math.round(r.width) + 'x' + Math.round(r.height)]
		})`)
		for _, b := range bad {
			t.Errorf("%s: %s", where, b)
		}
	}
	p.open("/")
	p.wait(`document.querySelectorAll('main li').length === 8`)
	check("start")
	p.open("/p/kite-day-opener")
	p.settled()
	check("scene")
	p.press(`[data-row="t-title"] [data-name]`)
	p.settled()
	check("layer")
	p.pressWord("Export film")
	p.wait(`document.querySelector('[role=dialog]')`)
	check("export")
	p.key(kb.Escape)
	p.wait(`!document.querySelector('[role=dialog]')`)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("?")
	p.wait(`document.querySelector('[role=dialog]')`)
	check("keys")
}

// A layer is reached, moved, ordered, copied, pasted and deleted without a pointer.
func TestTheKeyboardReachesEverythingOnThePage(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/p/kite-day-opener")
	p.settled()
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.Tab)
	name := func() string {
		return browser.Eval[string](t, p.ctx, `document.querySelector('[data-name][aria-pressed=true]')?.dataset.name ?? ''`)
	}
	if name() != "Red kite" {
		t.Fatalf("Tab selects %q", name())
	}
	p.key(kb.ArrowDown, chromedp.ModifierShift)
	p.key(kb.ArrowDown)
	p.settled()
	if _, d := s.revision("kite-day-opener"); kitePlace(d)["y"].(float64) != 341 {
		t.Errorf("the kite stands at %v", kitePlace(d)["y"])
	}
	p.key("c", chromedp.ModifierCtrl)
	p.key("v", chromedp.ModifierCtrl)
	p.settled()
	p.wait(`document.querySelectorAll('[data-row] [data-name="Red kite"]').length === 2`)
	p.key(kb.Delete)
	p.settled()
	p.wait(`document.querySelectorAll('[data-row] [data-name="Red kite"]').length === 1`)
	// Frame by frame, to the end, and back to rest.
	p.key(kb.Home)
	p.key(".")
	p.wait(`document.querySelector('[data-time]').innerText === '0:00.03'`)
	p.key(kb.End)
	p.wait(`document.querySelector('[data-time]').innerText === '0:12.70'`)
	p.key("a")
	p.wait(`[...document.querySelectorAll('header [aria-pressed=true]')].some(b => b.innerText === 'at rest')`)
	// A bar by arrow keys: one frame.
	p.do(chromedp.Focus(`[data-bar][aria-label^="Fade, in, Day"]`))
	p.key(kb.ArrowRight)
	p.settled()
	if got := browser.Eval[string](t, p.ctx, `document.querySelector('[data-bar][aria-label^="Fade, in, Day"]').getAttribute('aria-label')`); !strings.Contains(got, "at 0.23 s") {
		t.Errorf("a frame later: %s", got)
	}
}

// A bundle goes out of one studio and into another.
func TestABundleTravels(t *testing.T) {
	a, b := startStudio(t), startStudio(t)
	raw := a.fetch("/api/projects/kite-day-opener/bundle")
	file := filepath.Join(t.TempDir(), "opener.capstan")
	if err := os.WriteFile(file, raw, 0o644); err != nil {
		t.Fatal(err)
	}
	if out, errs, err := run(t, "check", file); err != nil || !strings.Contains(out, "no errors") {
		t.Errorf("check: %v %s %s", err, out, errs)
	}
	p := sit(t, b)
	p.open("/")
	p.wait(`document.querySelectorAll('main li').length === 8`)
	p.do(chromedp.SetUploadFiles(`[data-bundle-input]`, []string{file}))
	p.wait(`location.pathname.startsWith('/p/') && !location.pathname.includes('kite-day')`)
	p.settled()
	if n := browser.Eval[int](t, p.ctx, `document.querySelectorAll('[data-scene]').length`); n != 3 {
		t.Errorf("%d scenes arrived", n)
	}
}

// The large view shows the film alone, as large as the window, and comes back to where it began.
func TestTheLargeViewPlaysTheFilmAlone(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/p/kite-day-opener")
	p.settled()
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("l")
	p.wait(`document.querySelector('[data-large]')`)
	p.wait(`document.documentElement.dataset.painted.split('/')[1] > 1300`)
	p.shot("large")
	shot, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	if err != nil {
		t.Fatal(err)
	}
	img, err := png.Decode(bytes.NewReader(shot))
	if err != nil {
		t.Fatal(err)
	}
	// 1280 x 720 of film in 1280 x 800: 40 px of deep water above and below, sky right up to the sides.
	for _, c := range []struct{ x, y int }{{640, 20}, {640, 780}} {
		if r, g, b, _ := img.At(c.x, c.y).RGBA(); r>>8 != 12 || g>>8 != 37 || b>>8 != 35 {
			t.Errorf("at %v beside the film: %d %d %d", c, r>>8, g>>8, b>>8)
		}
	}
	for _, x := range []int{2, 1277} {
		if r, _, b, _ := img.At(x, 60).RGBA(); b>>8 < 180 || r >= b {
			t.Errorf("at %d there is no sky", x)
		}
	}
	p.key(kb.Escape)
	p.wait(`!document.querySelector('[data-large]') && document.querySelector('[data-time]').innerText === '0:00.00'`)
}

// A sticker begins on the start screen with a clear ground: the page is chequered, and its animated PNG clear beside what was drawn, of the page’s size.
func TestAStickerIsClear(t *testing.T) {
	p := begins(t, startStudio(t), "Sticker")
	p.pick("Heart")
	p.drag(120, 120, 400, 400)
	p.settled()
	p.moves("Spin")
	shades := browser.Eval[int](t, p.ctx, `(() => {
		const c = document.querySelector('[data-desk] canvas'), page = document.querySelector('[data-page]').dataset.view.split(' ').map(Number), dpr = devicePixelRatio
		const d = c.getContext('2d').getImageData(page[1] * dpr + 4, page[2] * dpr + 4, 40, 40).data
		const seen = new Set()
		for (let i = 0; i < d.length; i += 4) seen.add(d[i] << 16 | d[i + 1] << 8 | d[i + 2])
		return seen.size
	})()`)
	if shades < 2 {
		t.Error("the ground of the page is of one colour")
	}
	p.pressWord("Export film")
	p.press(`[data-kind=apng]`)
	p.pressWord("Export Animated PNG")
	p.wait(`document.querySelector('[data-state=done]')`)
	file := p.s.fetch("/api/exports/" + browser.Eval[string](t, p.ctx, `document.querySelector('[data-state=done]').dataset.export`) + "/file")
	img, err := png.Decode(bytes.NewReader(file))
	if err != nil {
		t.Fatal(err)
	}
	// The browser’s own decoder finds the frames, their time and what is clear.
	seen := browser.Eval[[]float64](t, p.ctx, `fetch('/api/exports/' + document.querySelector('[data-state=done]').dataset.export + '/file').then(async (r) => {
		const d = new ImageDecoder({ data: await r.arrayBuffer(), type: 'image/png' })
		await d.tracks.ready
		let ms = 0
		for (let i = 0; i < d.tracks.selectedTrack.frameCount; i++) ms += (await d.decode({ frameIndex: i })).image.duration / 1000
		const { image } = await d.decode({ frameIndex: 0 })
		const c = new OffscreenCanvas(512, 512).getContext('2d')
		c.drawImage(image, 0, 0)
		return [ms, image.displayWidth, c.getImageData(5, 5, 1, 1).data[3], c.getImageData(260, 260, 1, 1).data[3]]
	})`)
	if length := browser.Eval[float64](t, p.ctx, `parseFloat([...document.querySelectorAll('[data-plan]')][0].innerText.match(/pass lasts ([\d.]+)/)[1])`); math.Abs(seen[0]-1000*length) > 1 || seen[1] != 512 || seen[2] != 0 || seen[3] != 255 {
		t.Errorf("the browser finds %v ms, %v wide, covers %v and %v; want %v s", seen[0], seen[1], seen[2], seen[3], length)
	}
	_, _, _, corner := img.At(5, 5).RGBA()
	r, g, b, middle := img.At(260, 260).RGBA()
	if img.Bounds().Dx() != 512 || corner != 0 || middle != 0xffff || r < g || r < b {
		t.Errorf("%v wide: a corner has the cover %d, its middle %d %d %d %d", img.Bounds().Dx(), corner, r, g, b, middle)
	}
}
