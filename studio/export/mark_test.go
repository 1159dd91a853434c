package export_test

import (
	"context"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"testing"

	"capstan/core/delivery"
	"capstan/core/words"
	"capstan/studio/export"
)

// A mark lies where it is asked for, a tenth of the page wide, 4 % in from its corner, over film and still alike; all else is as it was.
func TestAMarkLiesInItsCorner(t *testing.T) {
	f, files := opener(t)
	frame := func(ask delivery.Ask) image.Image {
		t.Helper()
		ask.Format, ask.Width, ask.From = delivery.PNG, 960, 3000
		o, err := delivery.Of(f, ask)
		if err != nil {
			t.Fatal(err)
		}
		out := filepath.Join(t.TempDir(), "frame.png")
		if err := export.Make(context.Background(), f, files, o, out, none); err != nil {
			t.Fatal(err)
		}
		in, err := os.Open(out)
		if err != nil {
			t.Fatal(err)
		}
		defer in.Close()
		img, err := png.Decode(in)
		if err != nil {
			t.Fatal(err)
		}
		return img
	}
	plain := frame(delivery.Ask{})
	differs := func(img image.Image) (box image.Rectangle) {
		for y := range img.Bounds().Dy() {
			for x := range img.Bounds().Dx() {
				if img.At(x, y) != plain.At(x, y) {
					box = box.Union(image.Rect(x, y, x+1, y+1))
				}
			}
		}
		return
	}
	sky := f.Pictures[0]
	for corner, want := range map[string]image.Rectangle{
		"lower right": image.Rect(960-38-96, 540-38-54, 960-38, 540-38), "upper left": image.Rect(38, 38, 38+96, 38+54),
	} {
		if got := differs(frame(delivery.Ask{Mark: &delivery.Mark{Picture: sky, Corner: corner}})); got.Intersect(want.Inset(-2)) != got || got.Dx() < 92 || got.Dy() < 40 {
			t.Errorf("%s: a picture lies at %v, want %v", corner, got, want)
		}
		// The soft edge of words goes a little beyond.
		if got := differs(frame(delivery.Ask{Mark: &delivery.Mark{Words: "Fennel Quay", Corner: corner}})); got.Empty() || got.Intersect(want.Inset(-10)) != got || got.Dx() < 40 {
			t.Errorf("%s: words lie at %v, want them within %v", corner, got, want)
		}
	}
	for _, m := range []delivery.Mark{{}, {Words: "x", Corner: "middle"}, {Words: "x", Opacity: 2}, {Picture: "gone"}} {
		if _, err := delivery.Of(f, delivery.Ask{Format: delivery.GIF, Mark: &m}); !words.Is(err, "export.mark") && !words.Is(err, "export.mark-picture") {
			t.Errorf("%+v: %v", m, err)
		}
	}
}
