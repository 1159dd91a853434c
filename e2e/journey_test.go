package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/png"
	"io"
	"math"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"capstan/e2e/browser"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// fetch gets something from the studio as its page would.
func (s *studio) fetch(path string) []byte {
	s.t.Helper()
	token, err := os.ReadFile(filepath.Join(s.dir, "session"))
	if err != nil {
		s.t.Fatal(err)
	}
	r, _ := http.NewRequest("GET", s.url+path, nil)
	r.AddCookie(&http.Cookie{Name: "capstan-session", Value: string(token)})
	resp, err := http.DefaultClient.Do(r)
	if err != nil {
		s.t.Fatal(err)
	}
	defer resp.Body.Close()
	raw, err := io.ReadAll(resp.Body)
	if err != nil || resp.StatusCode != 200 {
		s.t.Fatalf("%s: %d %v %.200s", path, resp.StatusCode, err, raw)
	}
	return raw
}

// decode lets ffmpeg take a file apart into frames at a rate.
func decode(t *testing.T, file string, w, h, fps int) []*image.RGBA {
	t.Helper()
	raw, err := exec.Command("ffmpeg", "-v", "error", "-nostdin", "-i", file, "-r", fmt.Sprint(fps), "-f", "rawvideo", "-pix_fmt", "rgba", "-s", fmt.Sprintf("%dx%d", w, h), "-").Output()
	if err != nil {
		t.Fatal(err)
	}
	var out []*image.RGBA
	for size := 4 * w * h; len(raw) >= size; raw = raw[size:] {
		out = append(out, &image.RGBA{Pix: raw[:size], Stride: 4 * w, Rect: image.Rect(0, 0, w, h)})
	}
	return out
}

func near(a color.RGBA, hex string, by float64) bool {
	var r, g, b int
	fmt.Sscanf(hex, "#%02x%02x%02x", &r, &g, &b)
	return math.Abs(float64(int(a.R)-r)) <= by && math.Abs(float64(int(a.G)-g)) <= by && math.Abs(float64(int(a.B)-b)) <= by
}

// A film of two scenes from an empty project, by mouse and keyboard; played, exported as GIF and MP4, and looked at where a
// person would look.
func TestAFilmFromEndToEnd(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/")
	p.pressWord("Square")
	p.wait(`location.pathname.startsWith('/p/')`)
	p.settled()

	// A rectangle by dragging, an ellipse by keyboard alone, words by both.
	p.press(`[title="Rectangle (1)"]`)
	p.drag(100, 100, 400, 300)
	p.settled()
	p.wait(`document.querySelector('[data-name="Rectangle"]')`)
	if w := browser.Eval[string](t, p.ctx, `document.querySelector('[aria-label="Wide"]').value`); w != "300" && w != "299" && w != "301" {
		t.Errorf("the rectangle is %s wide, want 300", w)
	}
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("2")
	p.key(kb.Enter)
	p.settled()
	p.wait(`document.querySelector('[data-name="Ellipse"]')`)
	p.press(`[title="Text (3)"]`)
	p.click(540, 850)
	p.wait(`document.activeElement?.matches('[data-words]')`)
	p.do(chromedp.KeyEvent("Kite Day"))
	p.key(kb.Escape)
	p.settled()
	p.wait(`document.querySelector('[data-name="Kite Day"]')`)

	// The words fade in, by the menu.
	p.pressWord("Add a move")
	p.pressWord("Fade in")
	p.settled()
	p.wait(`document.querySelector('[data-bar][aria-label*="Fade, in, Kite Day"]')`)

	// The ellipse arrives from the wings, by a path drawn on the page.
	p.click(540, 540)
	p.wait(`document.querySelector('[data-name="Ellipse"]').ariaPressed === 'true'`)
	p.press(`[title="Motion path (5)"]`)
	p.drag(-260, 540, 540, 540)
	p.settled()
	p.wait(`document.querySelector('[data-bar][data-kind=path]')`)

	// The rectangle spins, and an undo and a redo change nothing in the end.
	p.click(250, 200)
	p.pressWord("Add a move")
	p.pressWord("Spin")
	p.settled()
	p.wait(`document.querySelector('[data-bar][data-kind=loop]')`)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("z", chromedp.ModifierCtrl)
	p.settled()
	p.wait(`!document.querySelector('[data-bar][data-kind=loop]')`)
	p.key("z", chromedp.ModifierCtrl, chromedp.ModifierShift)
	p.settled()
	p.wait(`document.querySelector('[data-bar][data-kind=loop]')`)

	// The scene goes on: the ellipse travels down right and takes another colour.
	p.key(kb.Escape)
	p.pressWord("Continue scene")
	p.settled()
	p.wait(`document.querySelectorAll('[data-scene]').length === 2`)
	p.drag(540, 540, 800, 800)
	p.settled()
	p.press(`[aria-label^="Fill: "]`)
	p.do(chromedp.WaitVisible(`input[value="#e0a03a"]`), chromedp.Focus(`input[value="#e0a03a"]`))
	browser.Eval[bool](t, p.ctx, `(document.querySelector('input[value="#e0a03a"]').select(), true)`)
	p.do(chromedp.KeyEvent("#3f7f86" + kb.Enter))
	p.settled()
	p.key(kb.Escape)
	p.press(`[data-scene="1"]`)
	p.set("Stay in seconds", "2")
	p.settled()
	if bars := browser.Eval[int](t, p.ctx, `document.querySelectorAll('[data-bar][data-kind=loop]').length`); bars != 2 {
		t.Errorf("%d spins: the whole-scene spin goes on in the second scene", bars)
	}

	// It plays in real time, with something moving on the page.
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.Home)
	before := browser.Eval[string](t, p.ctx, `document.querySelector('[data-time]').innerText`)
	began := browser.Eval[float64](t, p.ctx, `performance.now()`)
	p.key(" ")
	p.wait(`document.querySelector('[aria-label=Pause]')`)
	p.wait(`document.querySelector('[data-time]').innerText >= '0:01.50'`)
	took := browser.Eval[float64](t, p.ctx, `performance.now()`) - began
	p.key(" ")
	p.wait(`document.querySelector('[aria-label=Play]')`)
	if before != "0:00.00" || took < 1400 || took > 6000 {
		t.Errorf("from %s it took %.0f ms to play 1.5 s", before, took)
	}

	// Both kinds of file.
	p.pressWord("Export film")
	p.choose("Size", "480")
	p.pressWord("Export MP4")
	p.pressWord("GIF")
	p.choose("Size", "360")
	p.choose("Frames a second of the file", "20/1")
	p.pressWord("Export GIF")
	p.wait(`document.querySelectorAll('[data-state=done]').length === 2`)
	links := browser.Eval[[]string](t, p.ctx, `[...document.querySelectorAll('[data-state=done] a[download]')].map(a => new URL(a.href).pathname)`)
	for _, link := range links {
		raw := s.fetch(link)
		size, fps, ext, slack := 480, 30, "mp4", 14.0
		if bytes.HasPrefix(raw, []byte("GIF89a")) {
			size, fps, ext, slack = 360, 20, "gif", 6
		}
		file := filepath.Join(t.TempDir(), "film."+ext)
		if err := os.WriteFile(file, raw, 0o644); err != nil {
			t.Fatal(err)
		}
		look(t, ext, decode(t, file, size, size, fps), size, fps, slack)
	}
}

// look checks the film's frames: 4 s, a morph of 0.7 s, 2 s.
func look(t *testing.T, kind string, frames []*image.RGBA, size, fps int, slack float64) {
	t.Helper()
	if want := 67 * fps / 10; kind == "mp4" && len(frames) != want || len(frames) < want {
		t.Errorf("%s: %d frames, want %d", kind, len(frames), want)
		return
	}
	at := func(sec, x, y float64) color.RGBA {
		k := float64(size) / 1080
		return frames[int(sec*float64(fps)+0.5)].RGBAAt(int(x*k), int(y*k))
	}
	for _, c := range []struct {
		what      string
		sec, x, y float64
		want      string
	}{
		{"the rectangle spins about its middle", 0.1, 250, 200, "#d8573a"},
		{"the ellipse is in the wings", 0.1, 540, 540, "#ffffff"},
		{"the rectangle has turned by a quarter", 1.0, 250, 320, "#d8573a"},
		{"where its end was is ground now", 1.0, 385, 200, "#ffffff"},
		{"the ellipse has arrived", 3.7, 540, 540, "#e0a03a"},
		{"half way through the morph it is half way", 4.35, 670, 670, "#a0925e"},
		{"in the second scene it has the new colour", 6.5, 800, 800, "#3f7f86"},
		{"and has left its place", 6.5, 540, 540, "#ffffff"},
		{"the rectangle still spins", 6.5, 250, 200, "#d8573a"},
	} {
		if got := at(c.sec, c.x, c.y); !near(got, c.want, slack+6*map[bool]float64{true: 1}[c.sec == 4.35]) {
			t.Errorf("%s at %.2f s: %s: %v, want %s", kind, c.sec, c.what, got, c.want)
		}
	}
	ink := func(sec float64) (dark int) {
		for x := 350.0; x < 730; x += 3 {
			for y := 800.0; y < 900; y += 3 {
				if c := at(sec, x, y); int(c.R)+int(c.G)+int(c.B) < 300 {
					dark++
				}
			}
		}
		return
	}
	if a, b := ink(0), ink(2); a > 0 || b < 100 {
		t.Errorf("%s: the words fade in: %d dark points at first, %d later", kind, a, b)
	}
}

func (s *studio) revision(id string) (int64, map[string]any) {
	var v struct {
		Revision int64
		Document map[string]any
	}
	if err := json.Unmarshal(s.fetch("/api/projects/"+id), &v); err != nil {
		s.t.Fatal(err)
	}
	return v.Revision, v.Document
}

// A power cut while somebody works: what was acknowledged is what reopens, and what this window still had goes
// up when the server is back.
func TestNothingAcknowledgedIsLostByKill9(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/p/kite-day-opener")
	p.settled()
	p.click(1420, 250)
	for i := 0; i < 5; i++ {
		p.do(chromedp.Focus(`[data-desk]`))
		p.key(kb.ArrowRight, chromedp.ModifierShift)
		p.settled()
		acked := browser.Eval[int64](t, p.ctx, `Number(document.documentElement.dataset.revision)`)
		p.key(kb.ArrowDown) // on its way, perhaps not acknowledged
		s.kill()
		s.start()
		rev, document := s.revision("kite-day-opener")
		if rev < acked {
			t.Fatalf("revision %d was acknowledged, %d reopens", acked, rev)
		}
		x := kitePlace(document)["x"].(float64)
		if want := 1420 + 10*float64(i+1); math.Abs(x-want) > 0.001 {
			t.Fatalf("the kite stands at %v, want %v", x, want)
		}
		p.settled() // what was on its way arrives once, not twice
	}
	rev, document := s.revision("kite-day-opener")
	if y := kitePlace(document)["y"].(float64); y != 335 || rev != 10 {
		t.Errorf("five steps down went to y = %v (from 330), revision %d", y, rev)
	}
}

func kitePlace(document map[string]any) map[string]any {
	scene := document["film"].(map[string]any)["scenes"].([]any)[0].(map[string]any)
	for _, l := range scene["layers"].([]any) {
		if m := l.(map[string]any); m["thread"] == "t-kite" {
			return m["place"].(map[string]any)
		}
	}
	return nil
}

func TestTheKnotOpensWithWordsWhileTheServerIsAway(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/p/kite-day-opener")
	p.settled()
	p.click(1420, 250)
	p.wait(`document.querySelector('[data-knot=tied]')`)
	s.kill()
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.ArrowRight)
	p.wait(`document.querySelector('[data-knot=open]') && document.body.innerText.includes('does not answer')`)
	s.start()
	p.wait(`document.querySelector('[data-knot=tied]')`)
	p.settled()
	if _, document := s.revision("kite-day-opener"); kitePlace(document)["x"].(float64) != 1421 {
		t.Errorf("the kite stands at %v", kitePlace(document)["x"])
	}
}

func TestASecondWindowFollows(t *testing.T) {
	s := startStudio(t)
	a, b := sit(t, s), sit(t, s)
	for _, p := range []*person{a, b} {
		p.front()
		p.open("/p/kite-day-opener")
		p.settled()
	}
	a.front()
	a.click(1420, 250)
	a.do(chromedp.Focus(`[data-desk]`))
	a.key(kb.ArrowRight)
	a.settled()
	b.front()
	b.wait(`document.documentElement.dataset.revision === '1'`)
	b.click(1420, 250)
	b.do(chromedp.Focus(`[data-desk]`))
	b.key(kb.ArrowRight)
	b.settled()
	if _, document := s.revision("kite-day-opener"); kitePlace(document)["x"].(float64) != 1422 {
		t.Errorf("both windows moved it by one: %v", kitePlace(document)["x"])
	}
}

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
	p.wait(`document.querySelector('[data-notice=failed]')?.innerText.includes('no PNG or JPEG')`)
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
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.PageDown, chromedp.ModifierCtrl)
	p.settled()
	p.wait(`[...document.querySelectorAll('[data-row]')].at(-1).dataset.row === document.querySelector('[data-name="Heading"]').closest('[data-row]').dataset.row`)
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
		return browser.Eval[string](t, p.ctx, `document.querySelector('[data-bar][aria-label^="Fade, in, Title"]').getAttribute('aria-label')`)
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

// An export is cancelled while it runs, and leaves nothing behind.
func TestAnExportIsCancelled(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/p/kite-day-opener")
	p.settled()
	p.pressWord("Export film")
	p.pressWord("Export MP4")
	p.wait(`document.querySelector('[role=progressbar]')?.ariaValueNow > 2`)
	p.press(`[aria-label^="Cancel the export"]`)
	p.wait(`document.querySelector('[data-state=cancelled]')`)
	if left, _ := filepath.Glob(filepath.Join(s.dir, "exports", "*")); len(left) != 0 {
		t.Errorf("left behind: %v", left)
	}
	if left, _ := filepath.Glob(filepath.Join(s.dir, "exports", ".*")); len(left) != 0 {
		t.Errorf("left behind: %v", left)
	}
}

// Closing the tab while the server is away loses nothing: the next window brings it back, once.
func TestWhatWaitedComesBackInTheNextWindow(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/p/kite-day-opener")
	p.settled()
	p.click(1420, 250)
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.ArrowRight)
	p.settled()
	s.kill()
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.ArrowRight)
	p.key(kb.ArrowDown)
	p.wait(`document.querySelector('[data-knot=open]')`)
	p.do(chromedp.Navigate("about:blank"))
	s.start()
	p.open("/p/kite-day-opener")
	p.wait(`document.body.innerText.includes('2 changes that had not been stored were brought back')`)
	p.settled()
	p.open("/p/kite-day-opener")
	p.settled()
	rev, document := s.revision("kite-day-opener")
	if place := kitePlace(document); place["x"].(float64) != 1422 || place["y"].(float64) != 331 || rev != 3 {
		t.Errorf("revision %d, the kite stands at %v, %v", rev, place["x"], place["y"])
	}
}

// Windows of one browser share one event stream and still follow each other.
func TestWindowsOfOneBrowserShareAStream(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/p/kite-day-opener")
	p.settled()
	// Eight windows of the same browser: more than the six connections it allows to a host.
	n := browser.Eval[int](t, p.ctx, `(async () => {
		const windows = []
		for (let i = 0; i < 8; i++) windows.push(window.open('/p/kite-day-opener', 'w' + i))
		const end = Date.now() + 60000
		const ready = () => windows.filter(f => f?.document?.documentElement?.dataset.revision === '0').length
		while (ready() < 8 && Date.now() < end) await new Promise(r => setTimeout(r, 100))
		return ready()
	})()`)
	if n != 8 {
		t.Fatalf("%d of 8 windows opened the project", n)
	}
}
