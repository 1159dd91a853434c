package demo_test

import (
	"image"
	"slices"
	"strings"
	"testing"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/demo"
	"capstan/library"
)

// The demo projects are sound, can be shown, and are the same at every start.
func TestDemoProjectsAreSound(t *testing.T) {
	fonts, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	facts := &doc.Media{Name: "sky.jpg", Type: "image/jpeg", Bytes: 1, Width: 1920, Height: 1080, Opaque: true}
	for name, make := range map[string]func() *doc.Project{
		"opener": func() *doc.Project { return demo.Opener(strings.Repeat("a", 64), facts) }, "post": demo.Post, "evening": func() *doc.Project { return demo.Evening(strings.Repeat("a", 64), facts) }, "reel": demo.Reel, "talk": demo.Talk, "sticker": demo.Sticker, "drawings": demo.Drawings,
		"lifted": func() *doc.Project {
			return demo.Lifted(strings.Repeat("a", 64), strings.Repeat("b", 64), strings.Repeat("c", 64), facts, facts, facts)
		},
	} {
		p := make()
		if err := p.Validate(); err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		f, err := frame.Compile(p, frame.Assets{Fonts: fonts}, nil)
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		if p.Film.Loop { // one that goes round closes: the frame after its last is its first, byte for byte
			if c := delivery.Closes(f); !c.Closes {
				t.Errorf("%s: %s", name, c.Words)
			}
			painted := func(ms int64) []byte {
				img := image.NewRGBA(image.Rect(0, 0, p.Film.Width, p.Film.Height))
				if err := raster.NewPainter(f, nil).Paint(img, f.Player().At(motion.Millis(ms), frame.View{Scale: 1})); err != nil {
					t.Fatal(err)
				}
				return img.Pix
			}
			if !slices.Equal(painted(0), painted(f.Order.Length)) {
				t.Errorf("%s: its end is painted otherwise than its start", name)
			}
		}
		if len(demo.Presets()[p.ID]) == 0 {
			t.Errorf("%s has no preset", name)
		}
		for _, v := range demo.Presets()[p.ID] {
			if _, err := delivery.Of(f, v.Ask); err != nil {
				t.Errorf("%s: %s: %v", name, v.Name, err)
			}
		}
		a, _ := p.Write()
		b, _ := make().Write()
		if string(a) != string(b) {
			t.Errorf("%s is another one each time", name)
		}
	}
}
