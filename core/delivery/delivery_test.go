package delivery_test

import (
	"fmt"
	"testing"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/text"
	"capstan/core/words"
)

// A GIF rests at its end only where the film does not go round, its end does not meet its start, or it is asked to (docs/motion.md, 9).
func TestRestOfAGIF(t *testing.T) {
	film := func(change func(*doc.Project)) *frame.Film {
		p := doc.NewProject("p", "Rest", 100, 100, "s")
		tile := &doc.Layer{ID: "a", Thread: "a", Name: "a", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: 50, Y: 50, W: 20, H: 10}}
		p.Film.Scenes[0].Layers, p.Film.Scenes[0].Stay = []*doc.Layer{tile}, 2000
		change(p)
		f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
		if err != nil {
			t.Fatal(err)
		}
		return f
	}
	give := func(p *doc.Project, m doc.Move) {
		m.ID, m.Start.When = "m", doc.AtTime
		p.Film.Scenes[0].Layers[0].Moves = []*doc.Move{&m}
	}
	asked := int64(300)
	for name, c := range map[string]struct {
		change func(*doc.Project)
		want   int64
	}{
		"still": {func(*doc.Project) {}, 0},
		"spins twice": {func(p *doc.Project) {
			give(p, doc.Move{Kind: doc.Loop, Effect: effect.Spin, Duration: 1000, Lasts: doc.WholeScene})
		}, 0},
		"spins by a third more": {func(p *doc.Project) {
			give(p, doc.Move{Kind: doc.Loop, Effect: effect.Spin, Duration: 1500, Lasts: doc.WholeScene})
		}, 1000},
		"enters": {func(p *doc.Project) { give(p, doc.Move{Kind: doc.Entrance, Effect: effect.Fade, Duration: 500}) }, 1000},
		"enters, and goes round": {func(p *doc.Project) {
			give(p, doc.Move{Kind: doc.Entrance, Effect: effect.Fade, Duration: 500})
			p.Film.Loop = true
		}, 0},
		"goes round and is asked to rest": {func(p *doc.Project) { p.Film.Loop, p.Film.EndPause = true, &asked }, 300},
	} {
		f := film(c.change)
		if got := delivery.EndPause(f, "gif", false); got != c.want {
			t.Errorf("%s: rests %d ms, want %d", name, got, c.want)
		}
		if delivery.EndPause(f, "gif", true) != 0 || delivery.EndPause(f, "mp4", false) != 0 {
			t.Errorf("%s: rests where nothing begins again", name)
		}
	}
}

// Whoever asks, the same is too much.
func TestWhatIsTooMuchIsRefused(t *testing.T) {
	p := doc.NewProject("p", "Long", 1600, 900, "s")
	for i := range 12 {
		s := doc.NewScene(fmt.Sprint("s", i), "s")
		s.Stay = doc.MaxTime
		p.Film.Scenes = append(p.Film.Scenes, s)
	}
	long, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		t.Fatal(err)
	}
	p = doc.NewProject("p", "Short", 1600, 900, "s")
	p.Film.Scenes[0].Stay = doc.MaxTime
	hour, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		t.Fatal(err)
	}
	rate := func(num, den int64) doc.Rate { return doc.Rate{Num: num, Den: den} }
	for key, asks := range map[string][]delivery.Ask{
		"":                  {{Format: "mp4", Height: 900}, {Format: "gif", Width: 64, Rate: rate(60, 1)}, {Format: "svg", From: 5, To: 5 + delivery.MaxPiece}, {Format: "png", Width: 8192, From: 3600000}, {Format: "gif", Height: 100, From: 1000, To: 2000, Rate: rate(1, 1000)}},
		"export.rate":       {{Format: "mp4", Rate: rate(276701161105643280, 9223372036854776)}, {Format: "gif", Rate: rate(1, 1001)}, {Format: "mp4", Rate: rate(241, 1)}, {Format: "mp4", Rate: rate(-1, -1)}},
		"export.height":     {{Format: "gif", Height: 1000000}, {Format: "gif", Height: 15}, {Format: "gif", Width: -100}},
		"export.too-large":  {{Format: "mp4", Width: 8192}, {Format: "png", Height: 8192}},
		"export.piece-long": {{Format: "svg"}, {Format: "html", To: delivery.MaxPiece + 1}},
		"export.format":     {{Format: "avi"}, {}},
		"export.still":      {{Format: "png", From: 3600001}, {Format: "png", From: -1}},
		"export.range":      {{Format: "gif", From: 3600001}, {Format: "gif", From: 20, To: 20}, {Format: "mp4", To: 3600001}, {Format: "mp4", From: -1}},
	} {
		for _, a := range asks {
			if _, err := delivery.Of(hour, a); err == nil != (key == "") || key != "" && !words.Is(err, key) {
				t.Errorf("%+v: %v, want %s", a, err, key)
			}
		}
	}
	if _, err := delivery.Of(long, delivery.Ask{Format: "gif", Height: 100, Rate: rate(1, 1)}); !words.Is(err, "export.too-long") {
		t.Errorf("eleven hours and more: %v", err)
	}
	if _, err := delivery.Of(long, delivery.Ask{Format: "gif", Height: 100, To: delivery.MaxLength, Rate: rate(50, 1)}); err != nil {
		t.Error(err)
	}
	if _, err := delivery.Of(long, delivery.Ask{Format: "mp4", Height: 100, To: delivery.MaxLength, Rate: rate(61, 1)}); !words.Is(err, "export.frames") {
		t.Errorf("ten hours at 61 a second: %v", err)
	}
}
