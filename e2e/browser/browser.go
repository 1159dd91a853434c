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

var (
	once   sync.Once
	parent context.Context
	failed error
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
		// A person with a mouse: headless Chromium has none, and pages show by themselves then what hovering shows.
		chromedp.Flag("blink-settings", "primaryHoverType=2,availableHoverTypes=2,primaryPointerType=4,availablePointerTypes=4"),
	)
}

// New opens a page in a context of its own: no cookies or storage are shared between tests. The one browser of the
// process starts with the first call. A missing Chromium fails the test; nothing is skipped.
func New(t *testing.T) context.Context {
	t.Helper()
	once.Do(func() {
		allocator, _ := chromedp.NewExecAllocator(context.Background(), options()...)
		parent, _ = chromedp.NewContext(allocator)
		failed = chromedp.Do(parent)
	})
	if failed != nil {
		t.Fatalf("Chromium does not start (make test installs it): %v", failed)
	}
	page, closePage := chromedp.NewContext(parent, chromedp.WithNewBrowserContext())
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

// Stop ends the browser; call it from TestMain after the tests.
func Stop() {
	if parent != nil && failed == nil {
		if err := chromedp.Cancel(parent); err != nil {
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
