package frame_test

import (
	"image"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
)

// becomes is a film in which one layer becomes another in a second, and how many of its pixels are painted at a time.
func becomes(t *testing.T, a, b *doc.Layer, way doc.Strand) func(ms int64) (painted, half int) {
	t.Helper()
	p := doc.NewProject("p", "p", 300, 300, "s0")
	p.Film.Scenes[0].Stay = 1000
	s := doc.NewScene("s1", "s")
	s.Transition = doc.Transition{Kind: doc.Morph, Duration: 1000, Easing: "linear", Threads: map[string]doc.Strand{"a": way}}
	p.Film.Scenes = append(p.Film.Scenes, s)
	for i, l := range []*doc.Layer{a, b} {
		l.ID, l.Thread, l.Name, l.Opacity = []string{"l0", "l1"}[i], "a", "L", 1
		if l.Kind != doc.TextKind {
			l.Place = doc.Place{X: 150, Y: 150, W: 200, H: 200}
		}
		if l.Fill = (doc.Fill{Kind: doc.Solid, Colour: "#000000"}); l.Kind == doc.Group {
			l.Fill, l.Place = doc.Fill{Kind: doc.NoFill}, doc.Place{X: 20, Y: -15, Turn: 12}
		}
		p.Film.Scenes[i].Layers = []*doc.Layer{l}
	}
	f := compiled(t, p)
	return func(ms int64) (painted, half int) {
		img := image.NewRGBA(image.Rect(0, 0, 300, 300))
		if err := raster.NewPainter(f, nil).Paint(img, f.Player().At(motion.Millis(ms), frame.View{Scale: 1})); err != nil {
			t.Fatal(err)
		}
		for i := 0; i < len(img.Pix); i += 4 {
			switch v := img.Pix[i]; {
			case v < 40:
				painted++
			case v > 90 && v < 165:
				half++
			}
		}
		return
	}
}

// Shapes of other kinds, drawn paths of other steps, words, and words letter by letter become each other by their outlines: half way what is seen is whole, not two things half
// clear over each other.
func TestOutlinesBecomeEachOther(t *testing.T) {
	word := func(s string) *doc.Layer {
		return &doc.Layer{Kind: doc.TextKind, Place: doc.Place{X: 40, Y: 60}, Text: &doc.Text{Align: doc.Left, Runs: []doc.Run{{Text: s, Family: "Bungee", Weight: 400, Size: 150}}}}
	}
	kind := func(k string) *doc.Layer { return &doc.Layer{Kind: k} }
	path := func(d string) *doc.Layer { return &doc.Layer{Kind: doc.PathKind, Path: d} }
	group := func() *doc.Layer { // a body, a tail, and what turns inside it
		part := func(id, k string, x, y, w, h, turn float64) *doc.Layer {
			return &doc.Layer{ID: id, Thread: id, Name: id, Kind: k, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"}, Place: doc.Place{X: x, Y: y, W: w, H: h, Turn: turn}}
		}
		inner := part("g3", doc.Group, 0, 0, 0, 0, 20)
		inner.Fill, inner.Children = doc.Fill{Kind: doc.NoFill}, []*doc.Layer{part("g4", doc.Rectangle, 150, 40, 50, 20, 0)}
		return &doc.Layer{Kind: doc.Group, Children: []*doc.Layer{part("g1", doc.Polygon, 120, 130, 120, 150, 10), part("g2", doc.Rectangle, 120, 230, 20, 60, 0), inner}}
	}
	letters := func(list ...string) *doc.Layer {
		g := &doc.Layer{Kind: doc.Group}
		for i, s := range list {
			l := word(s)
			l.ID, l.Thread, l.Name, l.Opacity, l.Fill, l.Place = s, s, s, 1, doc.Fill{Kind: doc.Solid, Colour: "#000000"}, doc.Place{X: 30 + 150*float64(i), Y: 20 + 100*float64(i)}
			g.Children = append(g.Children, l)
		}
		return g
	}
	for name, c := range map[string][2]*doc.Layer{
		"a star a heart":     {kind(doc.Star), kind(doc.Heart)},
		"a rectangle a ring": {kind(doc.Rectangle), kind(doc.Ring)},
		"a ring a sun":       {kind(doc.Ring), kind(doc.Star)},
		"a path another":     {path("M-90 -90L90 -90L90 90L-90 90Z"), path("M0 -90L60 80L-60 80Z")},
		"a letter a cloud":   {word("o"), kind(doc.Cloud)},
		"a cross a word":     {kind(doc.Cross), word("go")},
		"words by letter":    {word("on"), word("no")},
		"a group a heart":    {group(), kind(doc.Heart)},
		"a star a group":     {kind(doc.Star), group()},
		"letters a word":     {letters("o", "n"), word("on")},
		"a word letters":     {word("no"), letters("o", "n")},
		"a line a ring":      {{Kind: doc.PathKind, Path: "M-90 0L90 0", Stroke: &doc.Stroke{Width: 12, Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"}}}, {Kind: doc.Ellipse, Stroke: &doc.Stroke{Width: 12, Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"}}}},
	} {
		at := becomes(t, c[0], c[1], doc.Strand{Letters: true})
		begin, _ := at(999)
		first, _ := at(1001)
		middle, half := at(1500)
		last, _ := at(1999)
		end, _ := at(2001)
		if d := first - begin; d > begin/20+60 || -d > begin/20+60 {
			t.Errorf("%s: as it begins %d pixels are painted, before %d", name, first, begin)
		}
		if d := last - end; d > end/20+60 || -d > end/20+60 {
			t.Errorf("%s: as it ends %d pixels are painted, after %d", name, last, end)
		}
		if least := min(begin, end); middle < least/3 || half > middle/2 {
			t.Errorf("%s: half way %d pixels are painted and %d half clear; at the ends %d and %d", name, middle, half, begin, end)
		}
	}
}
