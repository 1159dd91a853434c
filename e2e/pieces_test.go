package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/draw"
	"image/png"
	"math"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/likeness"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/demo"
	"capstan/e2e/browser"
	"capstan/studio/export"
	"capstan/studio/media"

	"github.com/chromedp/chromedp"
)

// pieces shows files to a browser from a folder.
type pieces struct {
	*person
	dir, at string
}

func showPieces(t *testing.T) *pieces {
	dir := t.TempDir()
	server := httptest.NewServer(http.FileServer(http.Dir(dir)))
	t.Cleanup(server.Close)
	return &pieces{&person{t, browser.New(t), nil}, dir, server.URL + "/"}
}

// make makes a file of a film.
func (p *pieces) make(b both, a delivery.Ask, name string) delivery.Plan {
	p.t.Helper()
	plan, err := delivery.Of(b.film, a)
	if err != nil {
		p.t.Fatal(err)
	}
	if err := export.Make(p.t.Context(), b.film, b.files.Pixels, plan, filepath.Join(p.dir, name), func(int64, int64) {}); err != nil {
		p.t.Fatal(err)
	}
	return plan
}

// open shows a file in a window of a size.
func (p *pieces) show(name string, w, h int) {
	p.t.Helper()
	p.do(chromedp.EmulateViewport(int64(w), int64(h)), chromedp.Navigate(p.at+name))
}

// seen is what the window shows.
func (p *pieces) seen() *image.RGBA {
	p.t.Helper()
	raw, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	if err != nil {
		p.t.Fatal(err)
	}
	m, err := png.Decode(bytes.NewReader(raw))
	if err != nil {
		p.t.Fatal(err)
	}
	out := image.NewRGBA(m.Bounds())
	draw.Draw(out, out.Rect, m, image.Point{}, draw.Src)
	return out
}

// standing shows a piece as a picture in a page, standing still at a time, in ms: browsers draw pictures without layers, which are a little soft where they
// move, and nothing can be asked of what is in one, so that the time is written into the file.
func (p *pieces) standing(svg string, ms float64) *image.RGBA {
	p.t.Helper()
	svg = strings.Replace(svg, "</style>", fmt.Sprintf("*{animation-delay:%gms!important;animation-play-state:paused!important}</style>", -ms), 1)
	name := fmt.Sprintf("at-%g.svg", ms)
	if err := os.WriteFile(filepath.Join(p.dir, name), []byte(svg), 0o644); err != nil {
		p.t.Fatal(err)
	}
	browser.Eval[bool](p.t, p.ctx, fmt.Sprintf(`new Promise(done => {
		document.body.style.margin = 0
		const img = new Image()
		img.style.display = 'block'
		img.onload = () => { document.body.replaceChildren(img); requestAnimationFrame(() => requestAnimationFrame(() => done(true))) }
		img.onerror = () => done(false)
		img.src = %q
	})`, name))
	return p.seen()
}

// painted is a frame of a film over white.
func (b both) painted(t *testing.T, ms float64, w, h int) *image.RGBA {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	scale := float64(w) / float64(b.film.Doc.Film.Width)
	if err := raster.NewPainter(b.film, b.files.Pixels).Paint(img, b.film.Player().At(motion.Seconds(ms/1000), frame.View{Scale: scale})); err != nil {
		t.Fatal(err)
	}
	out := image.NewRGBA(img.Rect)
	draw.Draw(out, out.Rect, image.White, image.Point{}, draw.Src)
	draw.Draw(out, out.Rect, img, image.Point{}, draw.Over)
	return out
}

// whereItMoves is the likeness of two pictures on the blocks in which a film changes from 100 ms before a time to 100 ms after it.
func (b both) whereItMoves(t *testing.T, ms float64, got, want *image.RGBA) float64 {
	t.Helper()
	w, h := want.Rect.Dx(), want.Rect.Dy()
	before, after := b.painted(t, max(0, ms-100), w, h), b.painted(t, min(ms+100, float64(b.film.Order.Length)), w, h)
	sum, n := 0.0, 0.0
	for y := 0; y+8 <= h; y += 8 {
		for x := 0; x+8 <= w; x += 8 {
			if likeness.Block(before, want, x, y) < 0.999 || likeness.Block(after, want, x, y) < 0.999 {
				sum, n = sum+likeness.Block(got, want, x, y), n+1
			}
		}
	}
	if n == 0 {
		return 1
	}
	return sum / n
}

// The demo's films as SVG, played by Chromium, look as their frames do, at ten times of each.
func TestWebPiecesPlayAsTheFilmDoes(t *testing.T) {
	files := media.NewFolder(t.TempDir())
	sky, facts, err := files.Take(bytes.NewReader(demo.Sky()), "sky.jpg")
	if err != nil {
		t.Fatal(err)
	}
	p := showPieces(t)
	if err := os.WriteFile(filepath.Join(p.dir, "blank.html"), []byte("<!doctype html><body>"), 0o644); err != nil {
		t.Fatal(err)
	}
	for name, project := range map[string]*doc.Project{
		"opener": demo.Opener(sky, facts), "post": demo.Post(), "reel": demo.Reel(), "talk": demo.Talk(), "sticker": demo.Sticker(),
	} {
		b := compileFor(t, project, files)
		film := &b.film.Doc.Film
		plan := p.make(b, delivery.Ask{Format: delivery.SVG, Height: min(540, film.Height)}, name+".svg")
		w, h := plan.Width, plan.Height
		raw, err := os.ReadFile(filepath.Join(p.dir, name+".svg"))
		if err != nil {
			t.Fatal(err)
		}
		p.show("blank.html", w, h)
		for k := range 10 {
			ms := math.Round(float64(b.film.Order.Length) * (float64(k) + 0.43) / 10)
			got, want := p.standing(string(raw), ms), b.painted(t, ms, w, h)
			all, moving := likeness.SSIM(got, want), b.whereItMoves(t, ms, got, want)
			if all < 0.97 || moving < 0.97 {
				t.Errorf("%s at %.0f ms: SSIM %.4f, where it moves %.4f", name, ms, all, moving)
				keepPair(t, fmt.Sprint(name, "-", ms), got, want)
			}
		}
		t.Logf("%s: %d KB, %d keyframes", name, len(raw)/1000, strings.Count(string(raw), "@keyframes"))
	}
}
