package raster_test

import (
	"errors"
	"fmt"
	"image"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/text"
)

// Within a limit of memory a deep picture is painted in stretches and comes out the same to one step of 255; where even that is too much it
// ends in words, and so does one that is stopped. The painter goes on afterwards.
func TestDeepPicturesKeepToTheirLimits(t *testing.T) {
	p := doc.NewProject("p", "Deep", 400, 300, "s")
	list := &p.Film.Scenes[0].Layers
	for i := range 20 {
		id := fmt.Sprint("g", i)
		g := &doc.Layer{ID: id, Thread: id, Kind: doc.Group, Opacity: 0.97, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 2, Y: 3, Turn: 1}, Blur: float64(i % 2)}
		for k := range 2 {
			e := shape(doc.Ellipse, "#d8573a", 190+float64(9*i), 120+float64(40*k), 260, 200, float64(7*i), 0.8)
			e.ID, e.Thread = fmt.Sprint("e", i, "-", k), fmt.Sprint("e", i, "-", k)
			g.Children = append(g.Children, e)
		}
		*list = append(*list, g)
		list = &g.Children
	}
	f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		t.Fatal(err)
	}
	paint := func(painter *raster.Painter, l raster.Limits) (*image.RGBA, error) {
		img := image.NewRGBA(image.Rect(0, 0, 800, 600))
		painter.Within(l)
		return img, painter.Paint(img, f.Player().At(motion.Millis(0), frame.View{Scale: 2}))
	}
	want, err := paint(raster.NewPainter(f, nil), raster.Limits{})
	if err != nil {
		t.Fatal(err)
	}
	painter := raster.NewPainter(f, nil)
	if _, err := paint(painter, raster.Limits{Bytes: 3 << 20}); !errors.Is(err, raster.ErrMemory) {
		t.Errorf("in 3 MB: %v", err)
	}
	for _, bytesAtMost := range []int{60 << 20, 30 << 20} {
		got, err := paint(painter, raster.Limits{Bytes: bytesAtMost})
		if err != nil {
			t.Fatalf("in %d MB: %v", bytesAtMost>>20, err)
		}
		for i := range got.Pix {
			if d := int(got.Pix[i]) - int(want.Pix[i]); d > 1 || d < -1 {
				t.Fatalf("in %d MB byte %d is off by %d", bytesAtMost>>20, i, d)
			}
		}
	}
	asked, enough := 0, errors.New("enough")
	_, err = paint(painter, raster.Limits{Stop: func() error {
		if asked++; asked > 25 {
			return enough
		}
		return nil
	}})
	if !errors.Is(err, enough) || asked != 26 {
		t.Errorf("stopped after %d: %v", asked, err)
	}
}
