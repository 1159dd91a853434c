package e2e

import (
	"fmt"
	"image"
	"image/color"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/studio/media"
)

// moving is a film in which everything of this page moves by wipes, units, scrolls and pages; each scene is a kind of its own.
func moving() *doc.Project {
	p := doc.NewProject("moving", "Moving", 320, 240, "v0")
	p.Film.Scenes = nil
	n := 0
	id := func() string { n++; return fmt.Sprint("v-", n) }
	layer := func(kind, colour string, x, y, w, h, turn float64) *doc.Layer {
		l := &doc.Layer{ID: id(), Kind: kind, Name: kind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: colour}, Place: doc.Place{X: x, Y: y, W: w, H: h, Turn: turn}}
		l.Thread = "t-" + l.ID
		if kind == doc.TextKind {
			l.Place.W, l.Place.H = 0, 0
			l.Text = &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: "Kite Day\nat the quay", Family: "Archivo", Weight: 700, Size: 44}}}
		}
		return l
	}
	scene := func(t doc.Transition, background string, layers ...*doc.Layer) {
		s := doc.NewScene(fmt.Sprint("v", len(p.Film.Scenes)), "s")
		s.Stay, s.Background = 2000, doc.Fill{Kind: doc.Solid, Colour: background}
		s.Layers = layers
		if len(p.Film.Scenes) > 0 {
			s.Transition = t
		}
		p.Film.Scenes = append(p.Film.Scenes, s)
	}
	give := func(l *doc.Layer, m doc.Move) *doc.Layer {
		m.ID = id()
		if m.Start.When == "" {
			m.Start = doc.Start{When: doc.AtTime}
		}
		l.Moves = append(l.Moves, &m)
		return l
	}
	in := func(effect string, m doc.Move) doc.Move {
		m.Kind, m.Effect, m.Duration = doc.Entrance, effect, 2000
		return m
	}
	scene(doc.Transition{}, "#f3dca6",
		give(layer(doc.Rectangle, "#d8573a", 90, 80, 120, 70, 20), in(effect.Wipe, doc.Move{Easing: "linear", Params: effect.Params{"direction": 0.0}})),
		give(layer(doc.Ellipse, "#17403c", 220, 80, 130, 90, 0), in(effect.Wipe, doc.Move{Easing: "linear", Params: effect.Params{"direction": 45.0, "softness": 60.0}})),
		give(layer(doc.TextKind, "#17403c", 160, 130, 0, 0, 0), in(effect.Wipe, doc.Move{Easing: "linear", Unit: doc.ByWord, Overlap: 0.4, Params: effect.Params{"direction": 270.0, "softness": 12.0}})),
	)
	// An exit by a wipe overlapped by an entrance by another: they join.
	both := give(layer(doc.Rectangle, "#3f7f86", 160, 120, 220, 140, 0), doc.Move{Kind: doc.Exit, Effect: effect.Wipe, Duration: 2000, Easing: "linear", Params: effect.Params{"direction": 0.0, "softness": 40.0}})
	both = give(both, doc.Move{Kind: doc.Entrance, Effect: effect.Wipe, Duration: 1500, Easing: "linear", Start: doc.Start{When: doc.AtTime, Offset: 500}, Params: effect.Params{"direction": 90.0}})
	scene(doc.Transition{Kind: effect.Wipe, Duration: 1000, Easing: "linear", Params: effect.Params{"direction": 30.0, "softness": 50.0}}, "#8ec6da", both,
		give(layer(doc.TextKind, "#fdf6e3", 160, 60, 0, 0, -8), in(effect.Slide, doc.Move{Unit: doc.ByLetter, Overlap: 0.6, Order: doc.Shuffled, Seed: 5, Params: effect.Params{"direction": 90.0}})))
	group := layer(doc.Group, "#000000", 60, 60, 0, 0, 0)
	group.Fill, group.Opacity = doc.Fill{Kind: doc.NoFill}, 0.7
	for i := 0; i < 4; i++ {
		group.Children = append(group.Children, layer(doc.Rectangle, "#d8573a", float64(70*i), float64(20*i), 60, 60, float64(9*i)))
	}
	scene(doc.Transition{Kind: effect.Wipe, Duration: 1000, Easing: "linear", Params: effect.Params{"direction": 90.0}}, "#17403c",
		give(group, in(effect.Fade, doc.Move{Unit: doc.ByPart, Overlap: 0.5})),
		give(layer(doc.Rectangle, "#e0a03a", 100, 210, 70, 30, 0), doc.Move{Kind: doc.Loop, Effect: effect.Scroll, Lasts: doc.WholeScene, Params: effect.Params{"direction": 180.0, "speed": 77.0, "gap": 13.0}}),
		give(layer(doc.TextKind, "#fdf6e3", 160, 100, 0, 0, 0), doc.Move{Kind: doc.Loop, Effect: effect.Rock, Duration: 900, Lasts: doc.WholeScene, Unit: doc.ByLetter, Params: effect.Params{"angle": 14.0}}),
	)
	scene(doc.Transition{Kind: effect.Push, Duration: 1000, Easing: "linear", Params: effect.Params{"direction": 180.0}}, "#d8573a", layer(doc.Ellipse, "#fdf6e3", 160, 120, 300, 200, 10))
	return p
}

// Wipes, hard and soft, of layers, units and pages, reveals that join, texts in pieces, scrolls and pushes look the same in page and
// file (references.md: per item over black; gradual fronts within 4 everywhere). What is wrong on purpose is told.
func TestVeilsLookTheSameInPageAndFile(t *testing.T) {
	files := media.NewFolder(t.TempDir())
	project := moving()
	b := compileFor(t, project, files)
	p := sit(t, startStudio(t))
	p.bring(project, files)
	player := b.film.Player()
	var all image.Rectangle = image.Rect(0, 0, 320, 240)
	paint := func(ms float64, view geom.Matrix) *image.RGBA {
		return b.paint(t, player.At(motion.Seconds(ms/1000), frame.View{Scale: 1}), color.RGBA{0, 0, 0, 255}, view)
	}
	for _, ms := range []float64{200, 700, 1000, 1555, 2100, 2400, 2750, 3300, 3700, 4100, 4600, 5200, 5500, 6100, 6600, 7400, 8100, 8500, 8950, 9800} {
		page, file := p.pixels(0, ms, false, 320, 240, "#000"), paint(ms, geom.Identity)
		d := compare(page, file, all)
		if d.mean > 1 || d.p999 > 32 || d.max > 80 {
			t.Errorf("at %.0f ms: mean %.2f, 99.9th percentile %.0f, worst %.0f", ms, d.mean, d.p999, d.max)
		}
	}
	// The soft wipe of a page has no edges: all of the mixture between two plain grounds is within 4.
	for _, ms := range []float64{2250, 2500, 2750} {
		page, file := p.pixels(0, ms, false, 320, 240, "#000"), paint(ms, geom.Identity)
		for _, corner := range []image.Rectangle{image.Rect(2, 2, 30, 30), image.Rect(290, 200, 318, 238)} {
			if d := compare(page, file, corner); d.max > 4 {
				t.Errorf("the soft wipe at %.0f ms, %v: worst %.0f", ms, corner, d.max)
			}
		}
	}
	// Controls: a tenth of a second late, half a pixel off, another order of the letters, a hard edge for a soft one.
	wrong := func(change func(p *doc.Project)) both {
		q := moving()
		change(q)
		return compileFor(t, q, files)
	}
	for name, c := range map[string]struct {
		ms   float64
		film both
		at   float64
	}{
		"a tenth of a second late":     {700, b, 800},
		"another order of the letters": {3700, wrong(func(q *doc.Project) { q.Film.Scenes[1].Layers[1].Moves[0].Seed = 6 }), 3700},
		"a hard edge for a soft one":   {1000, wrong(func(q *doc.Project) { q.Film.Scenes[0].Layers[1].Moves[0].Params["softness"] = 0.0 }), 1000},
		"a page's hard edge":           {2500, wrong(func(q *doc.Project) { q.Film.Scenes[1].Transition.Params["softness"] = 0.0 }), 2500},
		"no gap in a scroll":           {6600, wrong(func(q *doc.Project) { q.Film.Scenes[2].Layers[1].Moves[0].Params["gap"] = 0.0 }), 6600},
		"a push the other way":         {8500, wrong(func(q *doc.Project) { q.Film.Scenes[3].Transition.Params["direction"] = 0.0 }), 8500},
	} {
		page := p.pixels(0, c.ms, false, 320, 240, "#000")
		list := c.film.film.Player().At(motion.Seconds(c.at/1000), frame.View{Scale: 1})
		d := compare(page, c.film.paint(t, list, color.RGBA{0, 0, 0, 255}, geom.Identity), all)
		if d.mean <= 1 && d.p999 <= 32 && d.max <= 80 {
			t.Errorf("%s passes: mean %.2f, 99.9th percentile %.0f, worst %.0f", name, d.mean, d.p999, d.max)
		}
	}
}
