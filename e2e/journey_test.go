package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"io"
	"math"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"capstan/e2e/browser"
	"capstan/studio/api"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// fetch gets something from the studio as its page would.
func (s *studio) fetch(path string) []byte {
	s.t.Helper()
	cookie, err := api.SessionCookie(s.dir, s.addr, "")
	if err != nil {
		s.t.Fatal(err)
	}
	r, _ := http.NewRequest("GET", s.url+path, nil)
	r.AddCookie(cookie)
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
	p.press(`[data-kind=gif]`)
	p.choose("Size", "360")
	p.choose("Frames a second of the file", "20/1")
	p.pressWord("Export GIF")
	p.wait(`document.querySelectorAll('[data-state=done]').length === 2`)
	links := browser.Eval[[]string](t, p.ctx, `[...document.querySelectorAll('[data-state=done] a[download]')].map(a => new URL(a.href).pathname)`)
	// And a still of the frame that is shown.
	p.press(`[data-kind=png]`)
	p.choose("Size", "240")
	p.pressWord("Export PNG")
	p.wait(`document.querySelectorAll('[data-state=done]').length === 3`)
	still := browser.Eval[string](t, p.ctx, `new URL(document.querySelector('[data-state=done] a[download]').href).pathname`)
	if raw := s.fetch(still); !bytes.HasPrefix(raw, []byte("\x89PNG")) {
		t.Errorf("the newest file begins %q", raw[:8])
	}
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
		{"half way through the morph it is half way, by OKLab", 4.35, 670, 670, "#96926c"},
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
