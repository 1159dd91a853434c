// Package browser starts the headless Chromium that tests drive: it is both what users use and an independent
// implementation of the standards Capstan follows.
package browser

import (
	"context"
	"os"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

// Tests that run side by side have a browser each, because one browser gives the focus to one page. A browser whose
// test is over serves the next one.
var (
	lock    sync.Mutex
	idle    []context.Context
	all     []context.Context
	holding = map[*testing.T]context.Context{}
)

// options start Chromium without a sandbox (tests run as root), without its own network services, at one device
// pixel a CSS pixel and with sRGB colours.
func options() []chromedp.ExecAllocatorOption {
	opts := append([]chromedp.ExecAllocatorOption{}, chromedp.DefaultExecAllocatorOptions[:]...)
	return append(opts,
		chromedp.NoSandbox, chromedp.DisableGPU, chromedp.WindowSize(1280, 800),
		chromedp.Flag("disable-quic", true), chromedp.Flag("disable-background-networking", true),
		chromedp.Flag("disable-component-update", true), chromedp.Flag("disable-sync", true),
		chromedp.Flag("force-device-scale-factor", "1"), chromedp.Flag("force-color-profile", "srgb"),
		chromedp.Flag("hide-scrollbars", false),
		// A microphone that the browser simulates, and is allowed to listen to.
		chromedp.Flag("use-fake-device-for-media-stream", true), chromedp.Flag("use-fake-ui-for-media-stream", true),
		// A person with a mouse: headless Chromium has none, and pages show by themselves then what hovering shows.
		chromedp.Flag("blink-settings", "primaryHoverType=2,availableHoverTypes=2,primaryPointerType=4,availablePointerTypes=4"),
	)
}

// New opens a page in a context of its own: no cookies or storage are shared between tests. All pages of a test are
// in one browser, which is its alone until it ends. A missing Chromium fails the test; nothing is skipped.
func New(t *testing.T) context.Context {
	t.Helper()
	page, closePage := chromedp.NewContext(of(t), chromedp.WithNewBrowserContext())
	if err := chromedp.Do(page, chromedp.EmulateViewport(1280, 800)); err != nil {
		t.Fatal(err)
	}
	ctx, stop := context.WithTimeout(page, 3*time.Minute)
	t.Cleanup(func() {
		stop()
		closePage()
	})
	return ctx
}

// of is the browser of a test: the one it has, one that is idle, or a new one.
func of(t *testing.T) context.Context {
	t.Helper()
	lock.Lock()
	defer lock.Unlock()
	if held := holding[t]; held != nil {
		return held
	}
	var taken context.Context
	if n := len(idle); n > 0 {
		taken, idle = idle[n-1], idle[:n-1]
	} else {
		allocator, _ := chromedp.NewExecAllocator(context.Background(), options()...)
		taken, _ = chromedp.NewContext(allocator)
		if err := chromedp.Do(taken); err != nil {
			t.Fatalf("Chromium does not start (make test installs it): %v", err)
		}
		all = append(all, taken)
	}
	holding[t] = taken
	t.Cleanup(func() {
		lock.Lock()
		defer lock.Unlock()
		delete(holding, t)
		idle = append(idle, taken)
	})
	return taken
}

// Stop ends the browsers; call it from TestMain after the tests.
func Stop() {
	for _, b := range all {
		if err := chromedp.Cancel(b); err != nil {
			os.Stderr.WriteString("Chromium did not end by itself: " + err.Error() + "\n")
		}
	}
}

// Eval runs JavaScript on a page and returns its value; promises are awaited.
func Eval[T any](t *testing.T, ctx context.Context, script string) T {
	t.Helper()
	v, err := chromedp.Run(ctx, chromedp.Evaluate[T](script, chromedp.EvalAwaitPromise))
	if err != nil {
		t.Fatalf("%.200s: %v", script, err)
	}
	return v
}
