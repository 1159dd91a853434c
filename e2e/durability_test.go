package e2e

import (
	"encoding/json"
	"math"
	"os"
	"path/filepath"
	"testing"

	"capstan/e2e/browser"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

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
	p.nudge()
	p.wait(`document.querySelector('[data-knot=open]') && document.body.innerText.includes('does not answer')`)
	s.start()
	p.wait(`document.querySelector('[data-knot=tied]')`)
	p.settled()
	if _, document := s.revision("kite-day-opener"); kitePlace(document)["x"].(float64) != 1421 {
		t.Errorf("the kite stands at %v", kitePlace(document)["x"])
	}
}

// nudge moves what is selected a pixel to the right.
func (p *person) nudge() {
	p.t.Helper()
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.ArrowRight)
}

// A session that is lost, since its secret was made anew, costs no edit: the page gets another one, goes on, and hears of others again.
func TestALostSessionCostsNoEdit(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/p/kite-day-opener")
	p.settled()
	p.click(1420, 250)
	p.nudge()
	p.settled()
	s.kill()
	if err := os.Remove(filepath.Join(s.dir, "session")); err != nil {
		t.Fatal(err)
	}
	p.key(kb.ArrowRight)
	s.start()
	p.settled()
	if rev, document := s.revision("kite-day-opener"); kitePlace(document)["x"].(float64) != 1422 || rev != 2 {
		t.Errorf("revision %d, the kite stands at %v", rev, kitePlace(document)["x"])
	}
	if status, v := s.post("/api/projects/kite-day-opener/commands", map[string]any{"base": 2, "window": "other", "id": "x", "command": map[string]any{"op": "project.rename", "name": "Heard"}}); status != 200 {
		t.Fatalf("%d %v", status, v)
	}
	p.wait(`document.documentElement.dataset.revision === '3'`)
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
	a.nudge()
	a.settled()
	b.front()
	b.wait(`document.documentElement.dataset.revision === '1'`)
	b.click(1420, 250)
	b.nudge()
	b.settled()
	if _, document := s.revision("kite-day-opener"); kitePlace(document)["x"].(float64) != 1422 {
		t.Errorf("both windows moved it by one: %v", kitePlace(document)["x"])
	}
}

// Closing the tab while the server is away loses nothing: the next window brings it back, once.
func TestWhatWaitedComesBackInTheNextWindow(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	p.open("/p/kite-day-opener")
	p.settled()
	p.click(1420, 250)
	p.nudge()
	p.settled()
	s.kill()
	p.nudge()
	p.key(kb.ArrowDown)
	p.wait(`document.querySelector('[data-knot=open]')`)
	p.wait(`document.documentElement.dataset.kept === '2'`) // until then the browser would ask
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
