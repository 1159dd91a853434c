package demo_test

import (
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
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
		"opener": func() *doc.Project { return demo.Opener(strings.Repeat("a", 64), facts) }, "post": demo.Post, "reel": demo.Reel, "talk": demo.Talk,
	} {
		p := make()
		if err := p.Validate(); err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		if _, err := frame.Compile(p, frame.Assets{Fonts: fonts}, nil); err != nil {
			t.Errorf("%s: %v", name, err)
		}
		a, _ := p.Write()
		b, _ := make().Write()
		if string(a) != string(b) {
			t.Errorf("%s is another one each time", name)
		}
	}
}
