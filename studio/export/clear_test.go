package export_test

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/draw"
	"image/jpeg"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/text"
	"capstan/studio/export"
)

// sticker is a film on a clear ground: half-clear and opaque shapes, with edges of a colour, that move.
func sticker(t *testing.T, clear bool) *frame.Film {
	t.Helper()
	p := doc.NewProject("sticker", "Sticker", 128, 96, "s")
	p.Film.Clear, p.Film.Under, p.Film.Rate = clear, "#f3dca6", doc.Rate{Num: 25, Den: 1}
	s := p.Film.Scenes[0]
	s.Stay, s.Background = 600, doc.Fill{Kind: doc.Solid, Colour: "#3f7f86"}
	for i, c := range []string{"#d8573a80", "#17403c"} {
		s.Layers = append(s.Layers, &doc.Layer{
			ID: fmt.Sprint("l", i), Thread: fmt.Sprint("l", i), Name: "l", Kind: doc.Ellipse, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: c},
			Place: doc.Place{X: 50 + 30*float64(i), Y: 48, W: 50, H: 40}, Moves: []*doc.Move{{
				ID: fmt.Sprint("m", i), Kind: doc.Loop, Effect: effect.Rock, Start: doc.Start{When: doc.AtTime}, Duration: 400, Lasts: doc.WholeScene, Params: effect.Params{"angle": 20.0},
			}},
		})
	}
	f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		t.Fatal(err)
	}
	return f
}

func made(t *testing.T, f *frame.Film, format string) (string, delivery.Plan) {
	t.Helper()
	o, err := delivery.Of(f, delivery.Ask{Format: format})
	if err != nil {
		t.Fatal(err)
	}
	return madeBy(t, f, o), o
}

func madeBy(t *testing.T, f *frame.Film, o delivery.Plan) string {
	t.Helper()
	out := filepath.Join(t.TempDir(), "file."+o.Format)
	if err := export.Make(context.Background(), f, nil, o, out, none); err != nil {
		t.Fatal(err)
	}
	return out
}

// holdClear holds the frames of a file, as ffmpeg reads them, to what was painted.
func holdClear(t *testing.T, f *frame.Film, format string) {
	t.Helper()
	file, o := made(t, f, format)
	raw, err := exec.Command("ffmpeg", "-v", "error", "-i", file, "-f", "rawvideo", "-pix_fmt", "rgba", "-r", "25", "-").Output()
	if err != nil {
		t.Fatal(err)
	}
	size := 4 * o.Width * o.Height
	if int64(len(raw)) != int64(size)*o.Frames(f) {
		t.Fatalf("ffmpeg finds %d bytes, %d frames of %d were made", len(raw), o.Frames(f), size)
	}
	half := 0
	for k := range o.Frames(f) {
		img := image.NewRGBA(image.Rect(0, 0, o.Width, o.Height))
		at := motion.FrameTime(k, o.RateNum, o.RateDen)
		if err := raster.NewPainter(f, nil).Paint(img, f.Player().At(at, frame.View{Scale: 1})); err != nil {
			t.Fatal(err)
		}
		own := raw[int(k)*size : int(k+1)*size]
		for i := 0; i < size; i += 4 {
			a := int(img.Pix[i+3])
			if format == delivery.GIF {
				if int(own[i+3]) != a/128*255 {
					t.Fatalf("frame %d: a cover of %d became %d in a GIF", k, a, own[i+3])
				}
				for c, under := range []int{0xf3, 0xdc, 0xa6} {
					if d := int(own[i+c]) - int(img.Pix[i+c]) - under*(255-a)/255; a >= 128 && max(d, -d) > 40 {
						t.Fatalf("frame %d: %v became %v in a GIF", k, img.Pix[i:i+4], own[i:i+4])
					}
				}
				if a > 0 && a < 255 {
					half++
				}
				continue
			}
			if int(own[i+3]) != a {
				t.Fatalf("frame %d: a cover of %d became %d", k, a, own[i+3])
			}
			if a > 0 && a < 255 {
				half++
			}
			for c := range 3 {
				if d := int(own[i+c])*a/255 - int(img.Pix[i+c]); d < -1 || d > 1 {
					t.Fatalf("frame %d: a colour of %v became %v", k, img.Pix[i:i+4], own[i:i+4])
				}
			}
		}
	}
	if half < 1000 {
		t.Errorf("only %d half-clear pixels were held to it", half)
	}
}

// A clear ground stays clear in an animated PNG, as ffmpeg reads it: every pixel of every frame has the cover that was painted, and its colour
// undivided by it within what bytes say. In a GIF it is clear where less than half is covered, and what is half clear lies on the film's colour. Files that cannot be clear are filled with that colour.
func TestAClearGround(t *testing.T) {
	f := sticker(t, true)
	for _, format := range []string{delivery.APNG, delivery.GIF} {
		holdClear(t, f, format)
	}
	for format, decode := range map[string]func([]byte) (image.Image, error){
		delivery.JPEG: func(b []byte) (image.Image, error) { return jpeg.Decode(bytes.NewReader(b)) },
		delivery.MP4:  nil,
	} {
		name, _ := made(t, f, format)
		data, err := os.ReadFile(name)
		if err != nil {
			t.Fatal(err)
		}
		var img image.Image
		if decode != nil {
			img, err = decode(data)
		} else {
			var raw []byte
			raw, err = exec.Command("ffmpeg", "-v", "error", "-i", name, "-frames:v", "1", "-f", "rawvideo", "-pix_fmt", "rgba", "-").Output()
			img = &image.RGBA{Pix: raw, Stride: 4 * 128, Rect: image.Rect(0, 0, 128, 96)}
		}
		if err != nil {
			t.Fatal(err)
		}
		c := image.NewRGBA(image.Rect(0, 0, 1, 1))
		draw.Draw(c, c.Rect, img, image.Pt(3, 3), draw.Src)
		for i, want := range []uint8{0xf3, 0xdc, 0xa6} {
			if d := int(c.Pix[i]) - int(want); d < -6 || d > 6 {
				t.Errorf("%s: a clear corner is filled with %v", format, c.Pix[:3])
				break
			}
		}
	}
}
