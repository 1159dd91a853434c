package frame_test

import (
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/text"
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
			give(p, doc.Move{Kind: doc.Loop, Effect: doc.Spin, Duration: 1000, Lasts: doc.WholeScene})
		}, 0},
		"spins by a third more": {func(p *doc.Project) {
			give(p, doc.Move{Kind: doc.Loop, Effect: doc.Spin, Duration: 1500, Lasts: doc.WholeScene})
		}, 1000},
		"enters": {func(p *doc.Project) { give(p, doc.Move{Kind: doc.Entrance, Effect: doc.Fade, Duration: 500}) }, 1000},
		"enters, and goes round": {func(p *doc.Project) {
			give(p, doc.Move{Kind: doc.Entrance, Effect: doc.Fade, Duration: 500})
			p.Film.Loop = true
		}, 0},
		"goes round and is asked to rest": {func(p *doc.Project) { p.Film.Loop, p.Film.EndPause = true, &asked }, 300},
	} {
		f := film(c.change)
		if got := f.EndPause("gif", false); got != c.want {
			t.Errorf("%s: rests %d ms, want %d", name, got, c.want)
		}
		if f.EndPause("gif", true) != 0 || f.EndPause("mp4", false) != 0 {
			t.Errorf("%s: rests where nothing begins again", name)
		}
	}
}
