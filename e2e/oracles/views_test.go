package oracles

import (
	"bytes"
	"fmt"
	"image"
	"image/draw"
	"image/png"
	"os/exec"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/likeness"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/text"
)

// What a view shows is what SVG 2, section 8.6, shows of the same scene through viewBox, its contents turned back about the middle of that, as librsvg
// paints it; one that is 1 % off is told.
func TestViewsAgreeWithViewBoxes(t *testing.T) {
	const w, h = 480, 360
	p := doc.NewProject("p", "p", w, h, "s")
	s := p.Film.Scenes[0]
	var svg strings.Builder
	fill := func(c string) doc.Fill { return doc.Fill{Kind: doc.Solid, Colour: c} }
	s.Background = fill("#ffffff")
	for i := range 24 {
		x, y, size, turn := float64(40+i%6*80), float64(50+i/6*85), float64(26+i*2), float64(i*17)
		c := []string{"#d8573a", "#17403c", "#e0a03a", "#3f7f86"}[i%4]
		l := &doc.Layer{ID: fmt.Sprint("l", i), Thread: fmt.Sprint("l", i), Name: "l", Opacity: 1, Fill: fill(c)}
		switch i % 3 {
		case 0:
			l.Kind, l.Corner, l.Place = doc.Rectangle, 6, doc.Place{X: x, Y: y, W: size, H: size / 2, Turn: turn}
			fmt.Fprintf(&svg, `<rect x="%v" y="%v" width="%v" height="%v" rx="6" fill="%s" transform="translate(%v %v) rotate(%v)"/>`, -size/2, -size/4, size, size/2, c, x, y, turn)
		case 1:
			l.Kind, l.Place = doc.Ellipse, doc.Place{X: x, Y: y, W: size, H: size * 0.7, Turn: turn}
			fmt.Fprintf(&svg, `<ellipse rx="%v" ry="%v" fill="%s" transform="translate(%v %v) rotate(%v)"/>`, size/2, size*0.35, c, x, y, turn)
		case 2:
			l.Kind, l.Place, l.Fill = doc.PathKind, doc.Place{X: x, Y: y}, doc.Fill{Kind: doc.NoFill}
			l.Path = "M-20 10C-10 -30 12 30 22 -12"
			l.Stroke = &doc.Stroke{Fill: fill(c), Width: 5, Cap: "round"}
			fmt.Fprintf(&svg, `<path d="%s" fill="none" stroke="%s" stroke-width="5" stroke-linecap="round" transform="translate(%v %v)"/>`, l.Path, c, x, y)
		}
		s.Layers = append(s.Layers, l)
	}
	v := &doc.Layer{ID: "v", Thread: "v", Name: "v", Kind: doc.ViewKind, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}}
	s.Layers = append(s.Layers, v)
	seen := func(at doc.Place) *image.RGBA {
		v.Place = at
		f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
		if err != nil {
			t.Fatal(err)
		}
		img := image.NewRGBA(image.Rect(0, 0, w, h))
		if err := raster.NewPainter(f, nil).Paint(img, f.Player().At(motion.Millis(500), frame.View{Scale: 1})); err != nil {
			t.Fatal(err)
		}
		return img
	}
	alike := func(a, b *image.RGBA) float64 {
		sum, n := 0.0, 0.0
		for y := 0; y < h; y += 8 {
			for x := 0; x < w; x += 8 {
				sum, n = sum+likeness.Block(a, b, x, y), n+1
			}
		}
		return sum / n
	}
	for _, at := range []doc.Place{{X: 240, Y: 180, W: 480, H: 360}, {X: 200, Y: 150, W: 240, H: 180}, {X: 260, Y: 190, W: 160, H: 120, Turn: 30}, {X: 240, Y: 180, W: 720, H: 540, Turn: -110}, {X: 100.5, Y: 90.25, W: 311, H: 233.25, Turn: 7}} {
		file := fmt.Sprintf(`<svg xmlns="http://www.w3.org/2000/svg" width="%d" height="%d" viewBox="%v %v %v %v"><g transform="rotate(%v %v %v)">%s</g></svg>`,
			w, h, at.X-at.W/2, at.Y-at.H/2, at.W, at.H, -at.Turn, at.X, at.Y, svg.String())
		cmd := exec.Command("rsvg-convert", "--format", "png", "--background-color", "white")
		cmd.Stdin = strings.NewReader(file)
		raw, err := cmd.Output()
		if err != nil {
			t.Fatal(err)
		}
		m, err := png.Decode(bytes.NewReader(raw))
		if err != nil {
			t.Fatal(err)
		}
		theirs := image.NewRGBA(m.Bounds())
		draw.Draw(theirs, theirs.Rect, m, image.Point{}, draw.Src)
		off := at
		off.X += at.W / 100
		if got, wrong := alike(theirs, seen(at)), alike(theirs, seen(off)); got < 0.99 || wrong >= 0.99 {
			t.Errorf("through %+v: SSIM %.4f; 1 %% off %.4f", at, got, wrong)
		}
	}
}
