package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/jpeg"
	"math"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/demo/effecttest"
	"capstan/e2e/browser"
	"capstan/studio/media"
)

// crowd is a scene of n layers, each sixth a path of 200 points; half of them move.
func crowd(n int) *doc.Project {
	p := many(n)
	for i, l := range p.Film.Scenes[0].Layers {
		if i%6 == 0 {
			var d strings.Builder
			for k := range 200 {
				a, r := float64(k)*math.Pi/100, 30+12*math.Sin(float64(k)*0.7)
				fmt.Fprintf(&d, "%c%.2f %.2f", "ML"[min(k, 1)], r*math.Cos(a), r*math.Sin(a))
			}
			l.Kind, l.Path, l.Place.W, l.Place.H = doc.PathKind, d.String()+"Z", 0, 0
		}
		if i%2 == 0 {
			l.Moves = nil
		}
	}
	return p
}

// Dragging one of 300 layers, and playing them, on a canvas of 1280 x 720: the engine's work and the painter's together. What
// stands still is painted once, so that dragging costs at most half of painting all. CAPSTAN_BENCH prints the figures.
func TestPageSpeed(t *testing.T) {
	p := sit(t, startAlone(t))
	film := crowd(300)
	film.Film.Scenes[0].Layers = append(film.Film.Scenes[0].Layers, &doc.Layer{
		ID: "view", Thread: "view", Name: "View", Kind: doc.ViewKind, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 960, Y: 540, W: 1920, H: 1080},
	})
	p.bring(film, media.NewFolder(t.TempDir()))
	type times struct{ Whole, Drag, Engine, View, Play []float64 }
	got := browser.Eval[times](t, p.ctx, `(() => {
		const { engine, paint, Standing } = capstanProbe
		const c = document.createElement('canvas')
		c.width = 1280
		c.height = 720
		const x = c.getContext('2d', { alpha: false })
		const view = { scale: 1280 / 1920, x: 0, y: 0 }
		const ground = (x) => { x.setTransform(1, 0, 0, 1, 0, 0); x.fillStyle = '#fff'; x.fillRect(0, 0, 1280, 720) }
		// Reading a pixel makes the browser carry out what it has only noted down.
		const time = (list, f) => { const t = performance.now(); f(); x.getImageData(0, 0, 1, 1); list.push(performance.now() - t) }
		const rest = { rest: true, scene: 0, time: 0 }
		const whole = [], drag = [], own = [], seen = [], play = []
		for (let i = 0; i < 40; i++) time(whole, () => { ground(x); paint(x, engine.frame(rest, view.scale), view) })
		const dragged = (thread, list, own) => {
			const standing = new Standing()
			engine.begin('move', rest, [thread], '', '', 500, 500)
			for (let i = 0; i < 150; i++) time(list, () => {
				const t = performance.now()
				engine.update(500 + i * 2, 500 + i, false, false)
				const list = engine.frame(rest, view.scale)
				own.push(performance.now() - t)
				standing.paint(x, list, view, '', ground)
			})
			engine.end()
			engine.clearDraft()
		}
		dragged('mt150', drag, own)
		dragged('view', seen, [])
		const film = new Standing()
		for (let i = 0; i < 120; i++) time(play, () => film.paint(x, engine.frame({ rest: false, scene: 0, time: 1000 + i * 33 }, view.scale), view, '', ground))
		const sorted = (v) => v.sort((a, b) => a - b)
		return { Whole: sorted(whole.slice(5)), Drag: sorted(drag.slice(10)), Engine: sorted(own.slice(10)), View: sorted(seen.slice(10)), Play: sorted(play) }
	})()`)
	at := func(v []float64, share float64) float64 { return v[int(float64(len(v)-1)*share)] }
	line := fmt.Sprintf("%-44s %8.2f  %8.2f\n  median %.2f ms, of which the engine %.2f ms (p95 %.2f); all painted anew %.2f ms\n%-44s %8.2f  %8.2f\n%-44s %8.2f  %8.2f\n",
		"dragging one of 300 layers, p95 ms", at(got.Drag, 0.95), 16.0, at(got.Drag, 0.5), at(got.Engine, 0.5), at(got.Engine, 0.95), at(got.Whole, 0.5),
		"dragging the view’s frame over them, p95 ms", at(got.View, 0.95), 16.0,
		"playing 300 layers, frames a second", 1000/at(got.Play, 0.5), 30.0)
	if os.Getenv("CAPSTAN_BENCH") != "" {
		fmt.Print(line)
	} else {
		t.Log("\n" + line)
	}
	if drag, engine, whole := at(got.Drag, 0.5), at(got.Engine, 0.5), at(got.Whole, 0.5); drag-engine > whole/2 {
		t.Errorf("painting while dragging takes %.2f ms, painting all %.2f ms", drag-engine, whole)
	}
}

// What snapping among 500 layers adds to a move, and what selecting 1,000 layers takes, in the page.
func TestArrangingSpeed(t *testing.T) {
	p := sit(t, startAlone(t))
	p.bring(crowd(500), media.NewFolder(t.TempDir()))
	type times struct{ Free, Snapping []float64 }
	got := browser.Eval[times](t, p.ctx, `(() => {
		const { engine } = capstanProbe
		const rest = { rest: true, scene: 0, time: 0 }
		const run = (reach) => {
			const list = []
			engine.begin('move', rest, ['mt150'], '', '', 500, 500)
			for (let i = 0; i < 80; i++) {
				const t = performance.now()
				engine.update(500 + i * 2, 500 + i, false, false, reach)
				list.push(performance.now() - t)
			}
			engine.end()
			engine.clearDraft()
			return list.slice(10).sort((a, b) => a - b)
		}
		run(0)
		return { Free: run(0), Snapping: run(10) }
	})()`)
	mid := func(v []float64) float64 { return v[len(v)/2] }
	p.bring(crowd(1000), media.NewFolder(t.TempDir()))
	p.do(chromedp.Focus(`[data-desk]`))
	p.do(chromedp.Sleep(1500e6)) // small pictures of rows are made when there is time
	// From the key to when the lines around them are on the screen; the first time everything is cold.
	var runs []float64
	for range 6 {
		runs = append(runs, browser.Eval[float64](t, p.ctx, `new Promise((done) => {
			const t = performance.now()
			document.querySelector('[data-desk]').dispatchEvent(new KeyboardEvent('keydown', { key: 'a', ctrlKey: true, bubbles: true, cancelable: true }))
			const look = () => (document.querySelector('[data-outlined="1000"]') ? done(performance.now() - t) : requestAnimationFrame(look))
			requestAnimationFrame(look)
		})`))
		p.key(kb.Escape)
		p.wait(`!document.querySelector('[data-outlined]')`)
	}
	first := runs[0]
	slices.Sort(runs)
	all := mid(runs)
	if n := browser.Eval[int](t, p.ctx, `capstanProbe.engine.selectable({ rest: true, scene: 0, time: 0 }, '').threads.length`); n < 1000 {
		t.Fatalf("%d layers", n)
	}
	line := fmt.Sprintf("%-44s %8.2f  %8.2f\n%-44s %8.2f  %8.2f\n", "snapping among 500 layers, ms a move", mid(got.Snapping)-mid(got.Free), 4.0, "selecting 1,000 layers, ms", all, 100.0)
	t.Logf("selecting 1,000 layers for the first time: %.0f ms", first)
	if os.Getenv("CAPSTAN_BENCH") != "" {
		fmt.Print(line)
	} else {
		t.Log("\n" + line)
	}
	if snapping, free := mid(got.Snapping), mid(got.Free); snapping > 4*free+8 {
		t.Errorf("a move takes %.2f ms while it snaps, %.2f otherwise", snapping, free)
	}
}

// many is a scene of n layers with a move each.
func many(n int) *doc.Project {
	p := doc.NewProject("many", "Many", 1920, 1080, "m-scene")
	s := p.Film.Scenes[0]
	s.Stay = 10000
	for i := 0; i < n; i++ {
		l := &doc.Layer{
			ID: fmt.Sprint("ml", i), Thread: fmt.Sprint("mt", i), Name: fmt.Sprint("Flag ", i), Kind: doc.Rectangle, Opacity: 1, Tint: i % 8,
			Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: float64(i*37%1900 + 10), Y: float64(i*71%1000 + 40), W: 60, H: 40},
		}
		m := &doc.Move{ID: fmt.Sprint("mm", i), Start: doc.Start{When: doc.AtTime, Offset: int64(i * 83 % 8000)}, Duration: 900}
		switch i % 4 {
		case 0:
			m.Kind, m.Effect = doc.Entrance, effect.Fade
		case 1:
			m.Kind, m.Effect, m.Path = doc.MotionPath, doc.Along, &doc.PathParams{D: "M0 0C40 -60 90 -60 140 0"}
		case 2:
			m.Kind, m.Effect, m.Lasts, m.Start.Offset = doc.Loop, effect.Spin, doc.WholeScene, 0
		case 3:
			m.Kind, m.Effect, m.Params = doc.Entrance, effect.Slide, effect.Params{"direction": 270.0}
		}
		l.Moves = []*doc.Move{m}
		s.Layers = append(s.Layers, l)
	}
	return p
}

// quick measures up to three times and fails when no time was within its limits: whatever else the machine does can only make a
// measurement slower, never faster.
func quick(t *testing.T, measure func() (says string, within bool)) {
	t.Helper()
	for range 3 {
		says, within := measure()
		t.Log(says)
		if within {
			return
		}
	}
	t.Error("three times it was slower than that may be")
}

// 1,000 rows: few of them are in the document at a time, and scrolling keeps up with the screen.
func TestAThousandRowsScroll(t *testing.T) {
	p := sit(t, startAlone(t))
	p.bring(many(1000), media.NewFolder(t.TempDir()))
	drawn := browser.Eval[int](t, p.ctx, `document.querySelectorAll('[data-row]').length`)
	if drawn > 60 {
		t.Errorf("%d rows are drawn", drawn)
	}
	quick(t, func() (string, bool) {
		gaps := browser.Eval[[]float64](t, p.ctx, `new Promise(done => {
			const el = document.querySelector('[data-timeline]'), out = []
			let last = performance.now(), n = 0
			el.scrollTop = 0
			const step = () => {
				const now = performance.now()
				out.push(now - last)
				last = now
				el.scrollTop += 60
				if (++n < 120) requestAnimationFrame(step)
				else done(out.slice(2).sort((a, b) => a - b))
			}
			requestAnimationFrame(step)
		})`)
		middle, p95 := gaps[len(gaps)/2], gaps[len(gaps)*95/100]
		return fmt.Sprintf("1,000 rows: a frame while scrolling takes %.1f ms, the 95th percentile %.1f ms", middle, p95), middle <= 34 && p95 <= 100
	})
	p.wait(`[...document.querySelectorAll('[data-row] [data-name]')].some(n => n.dataset.name === 'Flag 720')`)
}

// What is shown of 100 layers with 100 moves is worked out in the page in about a millisecond, and hardly a moment takes two. Each
// moment is asked five times, far apart, and its quickest counts: when others want the processor too, a page is put aside for a
// scheduler's turn (4 to 12 ms) every so often, which says nothing about the moment it falls on.
func TestAtInThePageIsQuick(t *testing.T) {
	p := sit(t, startAlone(t))
	p.bring(many(100), media.NewFolder(t.TempDir()))
	quick(t, func() (string, bool) {
		took := browser.Eval[[]float64](t, p.ctx, `(() => {
			const e = capstanProbe.engine, out = new Array(600).fill(Infinity)
			for (let pass = 0; pass < 6; pass++) {
				for (let i = 0; i < 600; i++) {
					const at = {rest: false, scene: 0, time: (i * 37) % 10000}
					const t = performance.now()
					e.frame(at, 0.33)
					if (pass > 0) out[i] = Math.min(out[i], performance.now() - t)
				}
			}
			return out.sort((a, b) => a - b)
		})()`)
		median, p99 := took[len(took)/2], took[len(took)*99/100]
		return fmt.Sprintf("At of 100 layers in the page: median %.2f ms, 99th percentile of the moments %.2f ms", median, p99), median <= 1 && p99 <= 2
	})
	// So is a page of 200 layers with 400 moves of all kinds, 50 of them by letter.
	p.bring(effecttest.Crowd(200), media.NewFolder(t.TempDir()))
	quick(t, func() (string, bool) {
		took := browser.Eval[[]float64](t, p.ctx, `(() => {
			const e = capstanProbe.engine, out = []
			for (let i = 0; i < 300; i++) {
				const t = performance.now()
				e.frame({rest: false, scene: 0, time: (i * 37) % 10000}, 0.33)
				out.push(performance.now() - t)
			}
			return out.slice(100).sort((a, b) => a - b)
		})()`)
		return fmt.Sprintf("At of 200 layers with every effect in the page: median %.2f ms", took[len(took)/2]), took[len(took)/2] <= 8
	})
}

// Ten photographs of twelve million pixels are taken in while the page goes on, and one of ten of them is dragged. On demand: CAPSTAN_BENCH.
func TestPhotographSpeed(t *testing.T) {
	if os.Getenv("CAPSTAN_BENCH") == "" {
		t.Skip("on demand: CAPSTAN_BENCH=1")
	}
	dir := t.TempDir()
	var names []string
	for i := range 10 {
		img := image.NewRGBA(image.Rect(0, 0, 4000, 3000))
		state := uint32(i + 1)
		for k := range img.Pix {
			state = state*1664525 + 1013904223
			img.Pix[k] = uint8(100+20*i) + uint8(state>>28) + uint8(k/4%4000/40)
		}
		var b bytes.Buffer
		if err := jpeg.Encode(&b, img, &jpeg.Options{Quality: 90}); err != nil {
			t.Fatal(err)
		}
		name := filepath.Join(dir, fmt.Sprintf("photo%d.jpg", i))
		if err := os.WriteFile(name, b.Bytes(), 0o644); err != nil {
			t.Fatal(err)
		}
		names = append(names, name)
	}
	p := sit(t, startAlone(t))
	p.bring(doc.NewProject("photos", "Photos", 1920, 1080, "s"), media.NewFolder(dir))
	browser.Eval[bool](t, p.ctx, `(() => {
		window.frames_ = []
		const tick = (t) => { window.frames_.push(t); requestAnimationFrame(tick) }
		requestAnimationFrame(tick)
		return true
	})()`)
	began := time.Now()
	p.do(chromedp.SetUploadFiles(`[data-picture-input]`, names))
	p.wait(`capstanProbe.engine.film().scenes[0].layers === 10`)
	took := time.Since(began)
	gaps := browser.Eval[[]float64](t, p.ctx, `window.frames_.slice(1).map((v, i) => v - window.frames_[i]).sort((a, b) => a - b)`)
	p.settled()
	drag := browser.Eval[[]float64](t, p.ctx, `(async () => {
		const { engine, paint, Standing } = capstanProbe
		const c = document.createElement('canvas')
		c.width = 1280
		c.height = 720
		const x = c.getContext('2d', { alpha: false })
		const view = { scale: 1280 / 1920, x: 0, y: 0 }
		const ground = (x) => { x.setTransform(1, 0, 0, 1, 0, 0); x.fillStyle = '#fff'; x.fillRect(0, 0, 1280, 720) }
		const rest = { rest: true, scene: 0, time: 0 }
		const standing = new Standing()
		const thread = engine.hit(rest, 960, 540, 1)[0]
		const list = []
		engine.begin('move', rest, [thread], '', '', 500, 500)
		for (let i = 0; i < 150; i++) {
			const t = performance.now()
			engine.update(500 + i * 2, 500 + i, false, false)
			standing.paint(x, engine.frame(rest, view.scale), view, '', ground)
			x.getImageData(0, 0, 1, 1)
			list.push(performance.now() - t)
		}
		engine.end()
		engine.clearDraft()
		return list.slice(10).sort((a, b) => a - b)
	})()`)
	at := func(v []float64, share float64) float64 { return v[int(float64(len(v)-1)*share)] }
	fmt.Printf("%-44s %8.2f  %8.2f\n%-44s %8.2f  %8.2f\n%-44s %8.2f  %8.2f\n",
		"taking in a photograph of 12 MP, s", took.Seconds()/10, 2.0, "frames of the page meanwhile, p95 ms", at(gaps, 0.95), 33.4, "dragging one of ten, p95 ms", at(drag, 0.95), 16.0)
}

// A drawing of 10,000 things comes in within two seconds, and is dragged as a whole within a frame: by its third move, 95 of 100 are painted in 16 ms.
func TestADrawingOfTenThousandThingsIsDragged(t *testing.T) {
	p := sit(t, startAlone(t))
	p.open("/p/kite-day-sticker")
	p.settled()
	var b strings.Builder
	b.WriteString(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1000 1000"><g>`)
	for i := range 10_000 {
		fmt.Fprintf(&b, `<path d="M%d %dl8 1 1 8-7-2z" fill="%s" stroke="#10302e" stroke-width="0.5"/>`, i%100*10, i/100*10, []string{"#d8573a", "#3f7f86", "#e0a03a", "#17403c"}[i*7%11%4])
	}
	b.WriteString(`</g></svg>`)
	file := filepath.Join(t.TempDir(), "Map.svg")
	if err := os.WriteFile(file, []byte(b.String()), 0o644); err != nil {
		t.Fatal(err)
	}
	at := time.Now()
	p.do(chromedp.SetUploadFiles(`[data-picture-input]`, []string{file}))
	p.wait(`[...document.querySelectorAll('[data-row] [data-name]')].some(n => n.dataset.name === 'Map')`)
	came := time.Since(at)
	p.settled()
	quick(t, func() (string, bool) {
		drag := browser.Eval[[]float64](t, p.ctx, `(() => {
			const { engine, Standing } = capstanProbe
			const c = document.createElement('canvas')
			c.width = 1280
			c.height = 720
			const x = c.getContext('2d', { alpha: false })
			const view = { scale: 1, x: 300, y: 100 }
			const ground = (x) => { x.setTransform(1, 0, 0, 1, 0, 0); x.fillStyle = '#fff'; x.fillRect(0, 0, 1280, 720) }
			const rest = { rest: true, scene: 0, time: 0 }
			const thread = engine.rows(rest, false).find(r => r.name === 'Map').thread
			const standing = new Standing(), list = []
			engine.begin('move', rest, [thread], '', '', 200, 200)
			for (let i = 0; i < 120; i++) {
				const t = performance.now()
				engine.update(200 + i, 200 + i / 2, false, false)
				standing.paint(x, engine.frame(rest, view.scale), view, '', ground, true)
				x.getImageData(0, 0, 1, 1)
				list.push(performance.now() - t)
			}
			engine.end()
			engine.clearDraft()
			return list.slice(3).sort((a, b) => a - b)
		})()`)
		median, p95 := drag[len(drag)/2], drag[len(drag)*95/100]
		return fmt.Sprintf("10,000 things came in %.2f s and are dragged in %.1f ms a frame, the 95th percentile %.1f", came.Seconds(), median, p95), p95 <= 16 && came < 4*time.Second
	})
}
