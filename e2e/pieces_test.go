package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/draw"
	"image/png"
	"math"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"capstan/core/delivery"
	"capstan/core/display"
	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/likeness"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/demo"
	"capstan/demo/effecttest"
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
	if err := os.WriteFile(filepath.Join(dir, "blank.html"), []byte("<!doctype html><body>"), 0o644); err != nil {
		t.Fatal(err)
	}
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
	if err := export.Make(p.t.Context(), b.film, b.files, plan, filepath.Join(p.dir, name), func(int64, int64) {}); err != nil {
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

// Films of the demo, and one of all effects, as SVG, shown by Chromium as pictures, look as their frames do.
func TestWebPiecesPlayAsTheFilmDoes(t *testing.T) {
	t.Parallel()
	files := media.NewFolder(t.TempDir())
	sky, facts, err := files.Take(bytes.NewReader(demo.Sky()), "sky.jpg")
	if err != nil {
		t.Fatal(err)
	}
	p := showPieces(t)
	for _, of := range []struct {
		name  string
		film  *doc.Project
		times int
	}{{"opener", demo.Opener(sky, facts), 10}, {"reel", demo.Reel(), 10}, {"crowd", effecttest.Crowd(44), 5}} {
		name := of.name
		b := compileFor(t, of.film, files)
		film := &b.film.Doc.Film
		plan := p.make(b, delivery.Ask{Format: delivery.SVG, Height: min(480, film.Height)}, name+".svg")
		w, h := plan.Width, plan.Height
		raw, err := os.ReadFile(filepath.Join(p.dir, name+".svg"))
		if err != nil {
			t.Fatal(err)
		}
		p.show("blank.html", w, h)
		for k := range of.times {
			ms := math.Round(float64(b.film.Order.Length) * (float64(k) + 0.43) / float64(of.times))
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

// movers are shapes that move in all the ways that need no more than a matrix, with easings of all kinds.
func movers() *doc.Project {
	p := doc.NewProject("movers", "Movers", 960, 540, "s")
	p.Film.Scenes[0].Stay = 6000
	easings := []string{"linear", "ease-in", "ease-out", "cubic-bezier(0.3,-0.4,0.6,1.5)", "steps(5)", "linear(0, 0.6 30%, 0.5 60%, 1)"}
	for i := range 36 {
		id := fmt.Sprint("m", i)
		l := &doc.Layer{ID: id, Thread: id, Name: id, Kind: []string{doc.Rectangle, doc.Ellipse}[i%2], Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#3f7f86"},
			Place: doc.Place{X: float64(80 + i%9*100), Y: float64(80 + i/9*120), W: float64(30 + i), H: 40, Turn: float64(i * 13)}}
		m := doc.Move{ID: "v" + id, Start: doc.Start{When: doc.AtTime, Offset: int64(i * 37)}, Duration: int64(900 + i*61), Easing: easings[i%len(easings)]}
		switch i % 6 {
		case 0:
			m.Kind, m.Effect, m.Lasts = doc.Loop, effect.Spin, doc.WholeScene
		case 1:
			m.Kind, m.Effect, m.Lasts, m.Params = doc.Loop, effect.Rock, doc.WholeScene, effect.Params{"angle": 40.0}
		case 2:
			m.Kind, m.Effect, m.Path = doc.MotionPath, doc.Along, &doc.PathParams{D: "M0 0C60 -140 160 -140 220 0", Rest: doc.Departs, TurnAlong: i%4 == 0}
		case 3:
			m.Kind, m.Effect = doc.Entrance, "slide"
		case 4:
			m.Kind, m.Effect = doc.Exit, "scale"
		default:
			m.Kind, m.Effect, m.Lasts = doc.Loop, "bob", doc.WholeScene
		}
		l.Moves = []*doc.Move{&m}
		p.Film.Scenes[0].Layers = append(p.Film.Scenes[0].Layers, l)
	}
	return p
}

// Corners of what moves lie within half a pixel of where the film has them, at any moment; with another easing they do not.
func TestWebPiecesMoveAsTheFilmDoes(t *testing.T) {
	t.Parallel()
	p := showPieces(t)
	b := compileFor(t, movers(), media.NewFolder(t.TempDir()))
	p.make(b, delivery.Ask{Format: delivery.SVG}, "movers.svg")
	raw, err := os.ReadFile(filepath.Join(p.dir, "movers.svg"))
	if err != nil {
		t.Fatal(err)
	}
	wrong := regexp.MustCompile(`cubic-bezier\([^)]*\)`).ReplaceAllString(string(raw), "linear")
	if err := os.WriteFile(filepath.Join(p.dir, "wrong.svg"), []byte(wrong), 0o644); err != nil {
		t.Fatal(err)
	}
	r := rand.New(rand.NewPCG(29, 11))
	times := make([]float64, 40)
	for i := range times {
		times[i] = math.Round(r.Float64()*5.99e6) / 1000
	}
	off := func(name string) (worst float64) {
		p.show(name, 960, 540)
		boxes := browser.Eval[[][][4]float64](t, p.ctx, fmt.Sprintf(`%v.map(ms => {
			for (const a of document.getAnimations()) { a.pause(); a.currentTime = ms }
			return [...document.querySelectorAll('svg > path, svg > use')].filter(e => getComputedStyle(e).visibility === 'visible')
				.map(e => e.getBoundingClientRect()).map(r => [r.x, r.y, r.width, r.height])
		})`, strings.ReplaceAll(fmt.Sprint(times), " ", ",")))
		player := b.film.Player()
		for i, ms := range times {
			l := player.At(motion.Seconds(ms/1000), frame.View{Scale: 1})
			var want []geom.Box
			for c, n := 0, 0; c < len(l.Codes); {
				v := l.Numbers[n:]
				want = append(want, geom.Matrix{A: v[0], B: v[1], C: v[2], D: v[3], E: v[4], F: v[5]}.ApplyBox(b.film.Geometry.Bounds(l.Codes[c+1])))
				c, n, _ = display.Skip(l.Codes, l.Numbers, c, n)
			}
			if len(want) != len(boxes[i]) {
				t.Fatalf("%s at %g ms shows %d things, the film %d", name, ms, len(boxes[i]), len(want))
			}
			for k, w := range want {
				g := boxes[i][k]
				for _, d := range []float64{g[0] - w.Min.X, g[1] - w.Min.Y, g[0] + g[2] - w.Max.X, g[1] + g[3] - w.Max.Y} {
					worst = max(worst, math.Abs(d))
				}
			}
		}
		return worst
	}
	right, control := off("movers.svg"), off("wrong.svg")
	t.Logf("corners are off by %.3f px at most, with wrong easings by %.1f", right, control)
	if right > 0.5 || control < 2 {
		t.Errorf("corners are off by %.3f px, with wrong easings by %.1f", right, control)
	}
}

// A page stands still until it is started where that was asked for, and for people who ask for little motion, who see the still; it is paused and played by
// its button. It asks nothing of anybody. A picture plays to its end and stays there.
func TestWebPagesAreStartedAndStopped(t *testing.T) {
	t.Parallel()
	p := showPieces(t)
	b := compileFor(t, movers(), media.NewFolder(t.TempDir()))
	still := int64(3000)
	p.make(b, delivery.Ask{Format: delivery.HTML, Poster: &still, Title: "Movers & <more>"}, "page.html")
	p.make(b, delivery.Ask{Format: delivery.HTML, Poster: &still, Waits: true}, "waits.html")
	p.make(b, delivery.Ask{Format: delivery.SVG, Passes: 1, From: 2000, To: 2300}, "once.svg")
	states := func() string {
		return browser.Eval[string](t, p.ctx, `[...new Set(document.getAnimations().map(a => a.playState))].join() + ' ' + document.querySelector('button').textContent`)
	}
	looks := func(what string, got *image.RGBA, ms float64) {
		t.Helper()
		w := min(got.Rect.Dx(), 900) // the button lies in a corner
		part := image.Rect(0, 0, w, 480)
		if s := likeness.SSIM(got.SubImage(part).(*image.RGBA), b.painted(t, ms, 960, 540).SubImage(part).(*image.RGBA)); s < 0.97 {
			t.Errorf("%s does not look as the film at %g ms: SSIM %.3f", what, ms, s)
		}
	}
	p.show("page.html", 960, 540)
	if s := states(); s != "running Pause" {
		t.Errorf("a page that starts by itself: %s", s)
	}
	if title := browser.Eval[string](t, p.ctx, `document.title + ' ' + performance.getEntriesByType('resource').length`); title != "Movers & <more> 0" {
		t.Errorf("its title, and what it asks for: %s", title)
	}
	p.do(chromedp.MouseClickXY(400, 300))
	if s := states(); s != "paused Play" {
		t.Errorf("paused: %s", s)
	}
	p.do(chromedp.MouseClickXY(920, 512)) // its button
	if s := states(); s != "running Pause" {
		t.Errorf("played again: %s", s)
	}
	p.show("waits.html", 960, 540)
	if s := states(); s != " Play" {
		t.Errorf("a page that waits: %s", s)
	}
	looks("a page that waits", p.seen(), 3000)
	p.do(chromedp.MouseClickXY(400, 300))
	if s := states(); s != "running Pause" {
		t.Errorf("started by a press: %s", s)
	}
	p.show("once.svg", 960, 540)
	p.wait(`document.getAnimations().length > 0 && document.getAnimations().every(a => a.playState === 'finished')`)
	looks("what has played once", p.seen(), 2300)
	p.littleMotion()
	p.show("page.html", 960, 540)
	if s := states(); s != " Play" {
		t.Errorf("with little motion: %s", s)
	}
	looks("with little motion", p.seen(), 3000)
}
