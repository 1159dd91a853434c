package e2e

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

func TestZZ(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	p.shot("a")
	f := filepath.Join(t.TempDir(), "c.srt")
	os.WriteFile(f, []byte("1\n00:00:00,500 --> 00:00:02,000\nThe harbour wakes.\n\n2\n00:00:01,800 --> 00:00:02,400\nAnd everyone who has a kite brings it along.\n\n3\n00:00:05,000 --> 00:00:04,000\nx\n\n4\n00:01:00,000 --> 00:01:04,000\nLater\n"), 0o600)
	p.do(chromedp.SetUploadFiles(`[data-caption-input]`, []string{f}))
	p.wait(`document.querySelector('[data-caption=own]')`)
	p.settled()
	p.press(`[data-caption=own]`)
	time.Sleep(300 * time.Millisecond)
	p.shot("b")
	_ = kb.Enter
}

func TestZY(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	p.press(`[data-sound-name="Come and fly with us"]`)
	p.settled()
	p.shot("m1")
	p.do(chromedp.ScrollIntoView(`[data-marks]`))
	time.Sleep(200 * time.Millisecond)
	p.shot("m2")
}
