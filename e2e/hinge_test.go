package e2e

import (
	"bytes"
	"encoding/base64"
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"image/png"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/chromedp/chromedp"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/likeness"
	"capstan/core/motion"
	"capstan/e2e/browser"
	"capstan/studio/media"
)

// Hinges stand where Chromium has perspective() rotate3d() (CSS Transforms 2), within half a px at every corner; about the wrong edge they do not.
func TestHingesStandWhereTheBrowserHasThem(t *testing.T) {
	p := sit(t, startStudio(t))
	rng := rand.New(rand.NewPCG(3, 23))
	worst, control := 0.0, 0
	for n := range 60 {
		w, h := 40+rng.Float64()*800, 40+rng.Float64()*500
		box := geom.BoxAt(geom.Point{X: 400 * rng.Float64(), Y: 300 * rng.Float64()}, w, h)
		angle, share := rng.Float64()*170-85, 1.2+rng.Float64()*4
		c := box.Centre()
		axes := []struct {
			name  string
			at    geom.Point
			x, y  int
			sense float64 // of CSS, in which a turn about y brings the left side towards the viewer
		}{
			{"left", geom.Point{X: box.Min.X, Y: c.Y}, 0, 1, -1}, {"right", geom.Point{X: box.Max.X, Y: c.Y}, 0, 1, 1}, {"upright", c, 0, 1, -1},
			{"top", geom.Point{X: c.X, Y: box.Min.Y}, 1, 0, 1}, {"bottom", geom.Point{X: c.X, Y: box.Max.Y}, 1, 0, -1}, {"level", c, 1, 0, 1},
		}
		of := axes[n%len(axes)]
		depth := share * max(w, h)
		css := fmt.Sprintf("translate(%fpx, %fpx) perspective(%fpx) rotate3d(%d, %d, 0, %fdeg) translate(%fpx, %fpx)", of.at.X, of.at.Y, depth, of.x, of.y, of.sense*angle, -of.at.X, -of.at.Y)
		for _, q := range box.Corners() {
			want := browser.Eval[[]float64](t, p.ctx, fmt.Sprintf(`(() => { const q = new DOMMatrix(%q).transformPoint({ x: %f, y: %f }); return [q.x / q.w, q.y / q.w] })()`, css, q.X, q.Y))
			seen := func(axis string) float64 {
				tilt := effect.Tilt{Axis: axis, Angle: angle, Depth: share}
				m := tilt.Projection(box)
				at, _ := m.Apply(q)
				return at.Sub(geom.Point{X: want[0], Y: want[1]}).Len()
			}
			worst = max(worst, seen(of.name))
			if seen(axes[(n+1)%len(axes)].name) > 0.5 {
				control++
			}
		}
	}
	if worst > 0.01 || control < 200 {
		t.Errorf("corners are up to %.4f px off; about a wrong edge %d of 240 are", worst, control)
	}
}

// A picture on a hinge looks as Chromium shows the same picture with perspective() rotate3d(): structural similarity over the blocks that either covers
// is 0.97 or more; on the wrong edge it is not.
func TestHingesLookAsTheBrowserShowsThem(t *testing.T) {
	const w, h = 180, 120
	card := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		for x := range w {
			v := 0.5 + 0.5*math.Sin(float64(x)/9)*math.Cos(float64(y)/7)
			card.SetRGBA(x, y, color.RGBA{uint8(60 + 180*v), uint8(40 + x), uint8(200 - y), 255})
		}
	}
	var raw bytes.Buffer
	if err := png.Encode(&raw, card); err != nil {
		t.Fatal(err)
	}
	files := media.NewFolder(t.TempDir())
	hash, facts, err := files.Take(bytes.NewReader(raw.Bytes()), "card.png")
	if err != nil {
		t.Fatal(err)
	}
	ctx := browser.New(t)
	chromium := func(origin, turn string) *image.RGBA {
		html := fmt.Sprintf(`document.body.style.margin = 0; document.body.innerHTML = '<div style="position:absolute;left:70px;top:60px;width:%dpx;height:%dpx;transform-origin:%s;transform:perspective(360px) %s;background:url(data:image/png;base64,%s)"></div>'; true`, w, h, origin, turn, base64.StdEncoding.EncodeToString(raw.Bytes()))
		browser.Eval[bool](t, ctx, html)
		browser.Eval[bool](t, ctx, `new Promise(r => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(() => r(true), 80))))`)
		shot, err := chromedp.Run(ctx, chromedp.CaptureScreenshot())
		if err != nil {
			t.Fatal(err)
		}
		img, err := png.Decode(bytes.NewReader(shot))
		if err != nil {
			t.Fatal(err)
		}
		out := image.NewRGBA(image.Rect(0, 0, 320, 240))
		draw.Draw(out, out.Rect, img, image.Point{}, draw.Src)
		return out
	}
	ours := func(axis string, angle float64) *image.RGBA {
		p := doc.NewProject("p", "p", 320, 240, "s")
		p.Media = map[string]*doc.Media{hash: facts}
		p.Film.Scenes[0].Background = doc.Fill{Kind: doc.Solid, Colour: "#ffffff"}
		l := &doc.Layer{ID: "l", Thread: "l", Name: "l", Opacity: 1, Kind: doc.Picture, Fill: doc.Fill{Kind: doc.NoFill}, Picture: &doc.PictureUse{Media: hash}, Place: doc.Place{X: 70 + w/2, Y: 60 + h/2, W: w, H: h}}
		l.Moves = []*doc.Move{{ID: "m", Kind: doc.Entrance, Effect: effect.Hinge, Start: doc.Start{When: doc.AtTime}, Duration: 1000, Easing: "linear", Params: effect.Params{"axis": axis, "from": 2 * angle}}}
		p.Film.Scenes[0].Layers, p.Film.Scenes[0].Stay = []*doc.Layer{l}, 2000
		b := compileFor(t, p, files)
		return b.paint(t, b.film.Player().At(motion.Seconds(0.5), frame.View{Scale: 1}), color.RGBA{255, 255, 255, 255}, geom.Identity)
	}
	similar := func(a, b *image.RGBA) float64 {
		sum, n := 0.0, 0.0
		for y := 0; y < 240; y += 8 {
			for x := 0; x < 320; x += 8 {
				blank := true
				for _, img := range []*image.RGBA{a, b} {
					for k := range 64 {
						blank = blank && img.RGBAAt(x+k%8, y+k/8) == color.RGBA{255, 255, 255, 255}
					}
				}
				if !blank {
					sum, n = sum+likeness.Block(a, b, x, y), n+1
				}
			}
		}
		return sum / n
	}
	for _, c := range []struct {
		axis, wrong, origin, turn string
		angle                     float64
	}{
		{"left", "right", "0 50%", "rotateY(-40deg)", 40}, {"right", "left", "100% 50%", "rotateY(-30deg)", -30}, {"top", "bottom", "50% 0", "rotateX(35deg)", 35},
		{"upright", "level", "50% 50%", "rotateY(50deg)", -50}, {"level", "upright", "50% 50%", "rotateX(45deg)", 45},
	} {
		want := chromium(c.origin, c.turn)
		if got := similar(ours(c.axis, c.angle), want); got < 0.97 {
			t.Errorf("on its %s: similar by %.4f", c.axis, got)
		}
		if got := similar(ours(c.wrong, c.angle), want); got >= 0.97 {
			t.Errorf("on its %s instead of its %s: similar by %.4f", c.wrong, c.axis, got)
		}
	}
}
