// Package e2e drives the built application as a person does: real server, real page, real browser, mouse and
// keyboard. What it checks is what a person would see: pixels, files read back, words.
package e2e

import (
	"context"
	"fmt"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"sync"
	"syscall"
	"testing"
	"time"

	"capstan/e2e/browser"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

var binary string

func TestMain(m *testing.M) {
	dir, err := os.MkdirTemp("", "capstan-e2e")
	if err != nil {
		panic(err)
	}
	binary = filepath.Join(dir, "capstan")
	build := exec.Command("go", "build", "-o", binary, "capstan/cmd/capstan")
	build.Stderr = os.Stderr
	if err := build.Run(); err != nil {
		panic(err)
	}
	code := m.Run()
	browser.Stop()
	os.RemoveAll(dir)
	os.Exit(code)
}

// studio is a running Capstan with a data folder of its own.
type studio struct {
	t    *testing.T
	dir  string
	url  string
	addr string
	cmd  *exec.Cmd
}

// seeding makes the data folder of a first start, which every test gets a copy of.
var seeding sync.Once

// besides tells whether a test runs beside others already.
var besides sync.Map

// startStudio starts the binary with the demo data and waits until it answers. The test runs beside others from here
// on: most of its time it waits for the page.
func startStudio(t *testing.T) *studio {
	t.Helper()
	if _, already := besides.LoadOrStore(t, true); !already {
		t.Parallel()
	}
	return startAlone(t)
}

// startAlone is startStudio for a test that measures time, and has the machine for itself.
func startAlone(t *testing.T) *studio {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	addr := l.Addr().String()
	l.Close()
	s := &studio{t: t, dir: t.TempDir(), addr: addr, url: "http://" + addr}
	from := filepath.Join(filepath.Dir(binary), "seeded")
	seeding.Do(func() {
		first := &studio{t: t, dir: from, addr: addr, url: s.url}
		first.start()
		first.cmd.Process.Signal(syscall.SIGTERM)
		first.cmd.Wait()
	})
	if err := os.CopyFS(s.dir, os.DirFS(from)); err != nil {
		t.Fatal(err)
	}
	s.start()
	t.Cleanup(s.kill)
	return s
}

func (s *studio) start() {
	s.t.Helper()
	s.cmd = exec.Command(binary, "demo", "--data", s.dir, "--addr", s.addr)
	s.cmd.Stderr = os.Stderr
	if err := s.cmd.Start(); err != nil {
		s.t.Fatal(err)
	}
	// The first takes pictures and sounds in, while other packages are tested.
	for end := time.Now().Add(90 * time.Second); time.Now().Before(end); time.Sleep(10 * time.Millisecond) {
		if r, err := http.Get(s.url + "/healthz"); err == nil {
			r.Body.Close()
			return
		}
	}
	s.t.Fatal("the server does not answer")
}

// kill ends the server as a power cut would.
func (s *studio) kill() {
	if s.cmd != nil && s.cmd.Process != nil {
		s.cmd.Process.Signal(syscall.SIGKILL)
		s.cmd.Wait()
		s.cmd = nil
	}
}

// person is somebody at the page.
type person struct {
	t   *testing.T
	ctx context.Context
	s   *studio
}

func sit(t *testing.T, s *studio) *person { return &person{t, browser.New(t), s} }

func (p *person) do(steps ...chromedp.Action[chromedp.Void]) {
	p.t.Helper()
	if err := chromedp.Do(p.ctx, steps...); err != nil {
		p.shot("failure")
		p.t.Fatalf("%v; the page says: %v", err, p.notices())
	}
}

func (p *person) notices() []string {
	v, _ := chromedp.Run(p.ctx, chromedp.Evaluate[[]string](`[...document.querySelectorAll('[data-notice],[role=alert]')].map(n => n.innerText)`))
	return v
}

// shot keeps a picture of the page when CAPSTAN_SHOTS names a folder for it.
func (p *person) shot(name string) {
	dir := os.Getenv("CAPSTAN_SHOTS")
	if dir == "" {
		return
	}
	png, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	if err != nil {
		p.t.Log(err)
		return
	}
	if err := os.WriteFile(filepath.Join(dir, name+".png"), png, 0o644); err != nil {
		p.t.Log(err)
	}
}

// front brings the window to the front: browsers do not paint the others.
func (p *person) front() {
	p.t.Helper()
	p.do(chromedp.Func(func(ctx context.Context, _ *chromedp.Target) error {
		_, err := chromedp.Call(ctx, page.BringToFront, cdp.Empty{})
		return err
	}))
}

// wait waits until a JavaScript expression is true.
func (p *person) wait(expr string) {
	p.t.Helper()
	_, err := chromedp.Run(p.ctx, chromedp.Poll[bool](fmt.Sprintf("!!(%s)", expr), chromedp.WithPollingInterval(40*time.Millisecond), chromedp.WithPollingTimeout(40*time.Second)))
	if err != nil {
		p.shot("failure")
		p.t.Fatalf("never came true: %s (%v); the page says: %v", expr, err, p.notices())
	}
}

// settled waits until the page is painted and every command is acknowledged.
func (p *person) settled() {
	p.t.Helper()
	p.wait(`document.documentElement.dataset.pending === '0' && document.documentElement.dataset.painted`)
	browser.Eval[bool](p.t, p.ctx, `new Promise(r => setTimeout(() => r(true), 40))`)
}

func (p *person) open(path string) {
	p.t.Helper()
	p.do(chromedp.Navigate(p.s.url + path))
}

// press clicks what a CSS selector finds.
func (p *person) press(selector string) {
	p.t.Helper()
	p.do(chromedp.Click(selector))
}

// look unfolds what is folded in the inspector where what is looked for is not on the screen: a person looks there.
func (p *person) look(find string) {
	p.t.Helper()
	browser.Eval[bool](p.t, p.ctx, fmt.Sprintf(`(async () => {
		for (let i = 0; i < 12; i++) {
			if (%s) return true
			await new Promise(r => setTimeout(r, 40))
		}
		document.querySelectorAll('[data-fold][aria-expanded=false]').forEach(e => e.click())
		return false
	})()`, find))
}

// pressWord clicks the button, link, menu item or card of a gallery with exactly these words.
func (p *person) pressWord(words string) {
	p.t.Helper()
	find := fmt.Sprintf(`[...document.querySelectorAll('button,a,[role=menuitem],[role=radio],[data-offer]')].find(b => (b.innerText.trim() === %q || b.innerText.trim().startsWith(%q + '\n') || b.getAttribute('aria-label') === %q || b.dataset.offer && b.title === %q) && b.getClientRects().length)`, words, words, words, words)
	p.look(find)
	p.wait(find)
	// Nobody aims at what still moves, as it does while a screen comes up.
	at := browser.Eval[[]float64](p.t, p.ctx, fmt.Sprintf(`(async () => {
		for (let was = ''; ; ) {
			const e = %s
			e?.scrollIntoView({block: 'nearest'})
			const r = e?.getBoundingClientRect()
			if (r && was === (was = r.left + ' ' + r.top) && document.fonts.status === 'loaded') return [r.left + r.width / 2, r.top + r.height / 2]
			await new Promise(r => setTimeout(r, 30))
		}
	})()`, find))
	// The pointer travels there first: some controls appear under it only.
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, at[0], at[1]))
	browser.Eval[bool](p.t, p.ctx, `new Promise(r => setTimeout(() => r(true), 30))`)
	p.do(chromedp.MouseClickXY(at[0], at[1]))
}

func (p *person) key(keys string, mods ...chromedp.Modifier) {
	p.t.Helper()
	p.do(chromedp.KeyEvent(keys, chromedp.KeyModifiers(mods...)))
}

// at returns where a point of the page (page px) lies in the window.
func (p *person) at(x, y float64) (float64, float64) {
	p.t.Helper()
	v := browser.Eval[[]float64](p.t, p.ctx, `(() => {
		const d = document.querySelector('[data-desk]').getBoundingClientRect()
		const [w, h] = document.querySelector('[data-page]').dataset.page.split(' ').map(Number)
		const [s, px, py] = document.querySelector('[data-page]').dataset.view.split(' ').map(Number)
		return [d.left, d.top, s, px, py, w, h]
	})()`)
	return v[0] + v[3] + x*v[2], v[1] + v[4] + y*v[2]
}

// drag drags from one page point to another.
func (p *person) drag(x0, y0, x1, y1 float64) {
	p.t.Helper()
	ax, ay := p.at(x0, y0)
	bx, by := p.at(x1, y1)
	p.do(chromedp.DragAndDropXY(ax, ay, bx, by))
}

// click presses a page point.
func (p *person) click(x, y float64) {
	p.t.Helper()
	ax, ay := p.at(x, y)
	p.do(chromedp.MouseClickXY(ax, ay))
}

// set types a value into a field found by its accessible name.
func (p *person) set(name, value string) {
	p.t.Helper()
	sel := fmt.Sprintf(`[aria-label=%q]`, name)
	p.look(`document.querySelector('` + sel + `')`)
	p.do(chromedp.WaitVisible(sel), chromedp.Focus(sel))
	browser.Eval[bool](p.t, p.ctx, fmt.Sprintf(`(document.querySelector('%s').select(), true)`, sel))
	p.do(chromedp.KeyEvent(value + kb.Enter))
}

// choose picks an option of a list by its value.
func (p *person) choose(name, value string) {
	p.t.Helper()
	sel := fmt.Sprintf(`[data-choice=%q]`, name)
	p.look(`document.querySelector('` + sel + `')`)
	p.do(chromedp.WaitVisible(sel))
	browser.Eval[bool](p.t, p.ctx, `(document.querySelector('`+sel+`').scrollIntoView({block: 'nearest'}), true)`)
	p.press(sel)
	p.press(fmt.Sprintf(`[role=option][data-value=%q]`, value))
	// The list gives the keyboard back a moment after it has closed.
	p.wait(`!document.querySelector('[role=option][data-value]') && (document.activeElement !== document.body || !document.querySelector('` + sel + `'))`)
}
