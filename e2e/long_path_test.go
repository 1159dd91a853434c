package e2e

import (
	"fmt"
	"image/color"
	"math"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"

	"capstan/core/doc"
	"capstan/e2e/browser"
	"capstan/studio/media"
)

// ring is a closed path of n curves.
func ring(n int) *doc.Project {
	p := blank()
	p.Film.Width, p.Film.Height = 1280, 720
	var s strings.Builder
	at := func(i, spread, r float64) string {
		a := (i + spread) / float64(n) * 2 * math.Pi
		return fmt.Sprintf(" %.3f %.3f", r*math.Cos(a), r*math.Sin(a))
	}
	s.WriteString("M" + at(0, 0, 300))
	for i := range n {
		s.WriteString("C" + at(float64(i), 0.3, 304) + at(float64(i), 0.6, 296) + at(float64(i), 1, 300))
	}
	s.WriteString("Z")
	p.Film.Scenes[0].Layers = []*doc.Layer{{ID: "l", Thread: "long", Name: "Long", Kind: doc.PathKind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: 640, Y: 360}, Path: s.String()}}
	return p
}

// Dragging one of a thousand points: what the engine, the painter and the reading of the points take a frame.
func TestAThousandPointsFollowThePointer(t *testing.T) {
	p := sit(t, startAlone(t))
	p.bring(ring(1000), media.NewFolder(t.TempDir()))
	p.click(560, 300)
	p.pressWord("Open points")
	p.wait(`document.querySelector('[data-points="1000"]')`)
	quick(t, func() (string, bool) {
		got := browser.Eval[[]float64](t, p.ctx, `(() => {
			const { engine, paint } = capstanProbe
			const rest = { rest: true, scene: 0, time: 0 }
			const c = document.createElement('canvas'); c.width = 1280; c.height = 720
			const x = c.getContext('2d')
			const out = []
			engine.begin('points', rest, ['long'], '0.5', '0.5', 940, 360)
			for (let i = 0; i < 150; i++) {
				const t = performance.now()
				engine.update(940 + i, 360 + i / 2, false, false, 5)
				const l = engine.frame(rest, 1)
				x.clearRect(0, 0, 1280, 720)
				paint(x, l, { scale: 1, x: 0, y: 0 })
				engine.outlineOf(rest, 'long')
				x.getImageData(0, 0, 1, 1)
				out.push(performance.now() - t)
			}
			engine.end(); engine.clearDraft()
			return out.slice(10).sort((a, b) => a - b)
		})()`)
		median, p95 := got[len(got)/2], got[len(got)*95/100]
		return fmt.Sprintf("a point of 1,000: median %.1f ms, p95 %.1f ms a frame", median, p95), p95 <= 16
	})
	// With a real pointer it goes where it is dragged to, and what was drawn while it was dragged is what is stored.
	x0, y0 := p.at(940, 360)
	x1, y1 := p.at(1140, 380)
	left := chromedp.ButtonType("left")
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, x0, y0, left, chromedp.ClickCount(1)))
	for k := 1; k <= 8; k++ {
		p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x0+(x1-x0)*float64(k)/8, y0+(y1-y0)*float64(k)/8, left, chromedp.ButtonModifiers(chromedp.ModifierCtrl)))
	}
	p.wait(`[...document.querySelectorAll('[data-desk] div')].some(e => e.innerText === '+200, +20')`)
	during := p.pixels(0, 0, true, 1280, 720, "#fff")
	p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, x1, y1, left, chromedp.ClickCount(1)))
	p.settled()
	after := p.pixels(0, 0, true, 1280, 720, "#fff")
	if n := differing(during, after, 0); n > 0 {
		t.Errorf("%d pixels are not as they were while it was dragged", n)
	}
	red := color.RGBA{0xd8, 0x57, 0x3a, 255}
	spike := 0
	for x := 960; x < 1140; x++ {
		for y := 350; y < 400; y++ {
			if after.RGBAAt(x, y) == red {
				spike++
				break
			}
		}
	}
	if spike < 50 {
		t.Errorf("the dragged point pulls the line out over %d px", spike)
	}
}

// A point that is dragged near the height and width of others snaps there, which is drawn and said; not while Ctrl is held.
func TestPointsSnapToOthers(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(plain(), media.NewFolder(t.TempDir()))
	p.click(120, 90)
	p.pressWord("Open points")
	p.wait(`document.querySelector('[data-points="4"]')`)
	// The rectangle's corners are (80, 60), (240, 60), (240, 180), (80, 180).
	pull := func(x, y float64, mods ...chromedp.Modifier) {
		x0, y0 := p.at(80, 60)
		x1, y1 := p.at(x, y)
		left := chromedp.ButtonType("left")
		p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, x0, y0, left, chromedp.ClickCount(1)))
		for k := 1; k <= 4; k++ {
			p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x0+(x1-x0)*float64(k)/4, y0+(y1-y0)*float64(k)/4, left, chromedp.ButtonModifiers(mods...)))
		}
	}
	drop := func(x, y float64) {
		x1, y1 := p.at(x, y)
		p.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, x1, y1, chromedp.ButtonType("left"), chromedp.ClickCount(1)))
		p.settled()
	}
	first := func() (at [2]float64) {
		v := browser.Eval[[]float64](t, p.ctx, `[...capstanProbe.engine.outlineOf({rest: true, scene: 0, time: 0}, capstanProbe.engine.rows({rest: true, scene: 0, time: 0})[0].thread).slice(2, 4)]`)
		return [2]float64{v[0], v[1]}
	}
	pull(120, 61.5)
	p.wait(`document.querySelector('[data-snap="1"]')`)
	p.wait(`[...document.querySelectorAll('[data-desk] div')].some(e => e.innerText === 'beside a point')`)
	drop(120, 61.5)
	if at := first(); at[1] != 60 || math.Abs(at[0]-120) > 1 {
		t.Errorf("let go at (120, 61.5) it lies at %v", at)
	}
	p.undo()
	pull(238.6, 178.8)
	drop(238.6, 178.8)
	if at := first(); at != [2]float64{240, 180} {
		t.Errorf("let go near a point it lies at %v", at)
	}
	p.undo()
	pull(120, 61.5, chromedp.ModifierCtrl)
	p.wait(`document.querySelector('[data-snap="0"]')`)
	drop(120, 61.5)
	if at := first(); at[1] == 60 {
		t.Errorf("with Ctrl it snaps all the same: %v", at)
	}
}

// A stretch is bent by the lozenge at its middle; a frame selects points, Ctrl A all of them; handles part and join again.
func TestStretchesAreBentAndPointsSelectedByAFrame(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(plain(), media.NewFolder(t.TempDir()))
	p.click(120, 90)
	p.pressWord("Open points")
	p.wait(`document.querySelector('[data-points="4"]')`)
	// The upper edge runs from (80, 60) to (240, 60).
	p.drag(160, 60, 160, 20)
	p.settled()
	if c := p.colourAt(160, 30); c == paper {
		t.Error("the upper edge is not bent")
	}
	if n := browser.Eval[int](t, p.ctx, `Number(document.querySelector('[data-points]').dataset.points)`); n != 4 {
		t.Errorf("bending made %d points of four", n)
	}
	p.undo()
	// A frame about both points on the left, which are dragged together then.
	p.drag(60, 40, 110, 200)
	p.wait(`document.querySelector('aside').innerText.includes('2 selected')`)
	p.drag(80, 180, 40, 180)
	p.settled()
	if up, down := p.colourAt(50, 70), p.colourAt(50, 170); up == paper || down == paper {
		t.Errorf("not both points went along: %v %v", up, down)
	}
	p.undo()
	p.key("a", chromedp.ModifierCtrl)
	p.wait(`document.querySelector('aside').innerText.includes('4 selected')`)
	// Smooth, a handle pulled takes the other along; parted, it does not; joined, it does again.
	p.click(240, 60)
	p.pressWord("Smooth")
	p.settled()
	handles := func() [4]float64 {
		v := browser.Eval[[]float64](t, p.ctx, `[...capstanProbe.engine.outlineOf({rest: true, scene: 0, time: 0}, capstanProbe.engine.rows({rest: true, scene: 0, time: 0})[0].thread).slice(11, 15)]`)
		return [4]float64(v)
	}
	before := handles()
	p.pressWord("Part")
	p.drag(before[0], before[1], before[0]-20, before[1]+30)
	p.settled()
	after := handles()
	if after[2] != before[2] || after[3] != before[3] || after[0] == before[0] {
		t.Errorf("parted, its handles went from %v to %v", before, after)
	}
	p.pressWord("Join")
	p.settled()
	j := handles()
	in, out := [2]float64{240 - j[0], 60 - j[1]}, [2]float64{j[2] - 240, j[3] - 60}
	if cross := in[0]*out[1] - in[1]*out[0]; math.Abs(cross) > 1 {
		t.Errorf("joined, its handles do not lie on one line: %v", j)
	}
}

// Half of a line is drawn, from a quarter on; its stroke becomes an area.
func TestALineIsDrawnInPartAndBecomesAnArea(t *testing.T) {
	p := sit(t, startStudio(t))
	film := plain()
	l := film.Film.Scenes[0].Layers[0]
	l.Kind, l.Fill, l.Place.W, l.Place.H, l.Place.X, l.Place.Y = doc.Line, doc.Fill{Kind: doc.NoFill}, 200, 0, 160, 120
	l.Stroke = &doc.Stroke{Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"}, Width: 12}
	p.bring(film, media.NewFolder(t.TempDir()))
	p.click(160, 120)
	p.settled()
	p.set("Drawn from", "25")
	p.set("Drawn to", "75")
	p.settled()
	for x, drawn := range map[int]bool{80: false, 105: false, 115: true, 205: true, 215: false, 250: false} {
		if got := p.colourAt(x, 120) != paper; got != drawn {
			t.Errorf("at %d: drawn %v, want %v", x, got, drawn)
		}
	}
	before := p.page(320, 240)
	p.pressWord("Outline the stroke")
	p.settled()
	if n := differing(before, p.page(320, 240), 30); n > 4 {
		t.Errorf("%d pixels differ", n)
	}
	p.wait(`document.querySelector('aside').innerText.includes('drawn path')`)
}
