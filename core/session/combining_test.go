package session_test

import (
	"image"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/geom"
	"capstan/core/intent/joining"
	"capstan/core/raster"
	"capstan/core/scope"
	"capstan/core/session"
)

func shotOf(t testing.TB, s *session.Session, m scope.Moment) *image.RGBA {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, s.Document().Film.Width, s.Document().Film.Height))
	if err := raster.NewPainter(s.Shown, nil).Paint(img, s.Frame(m, 1)); err != nil {
		t.Fatal(err)
	}
	return img
}

// differs counts the pixels that differ by more than by, in any channel.
func differs(a, b *image.RGBA, by int) (n int) {
	for i := 0; i < len(a.Pix); i += 4 {
		for k := range 3 {
			if d := int(a.Pix[i+k]) - int(b.Pix[i+k]); d > by || -d > by {
				n++
				break
			}
		}
	}
	return
}

func words(id, say string, x, y, size float64) *doc.Layer {
	return &doc.Layer{ID: id, Thread: id, Name: id, Kind: doc.TextKind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: x, Y: y},
		Text: &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: say, Family: "Archivo", Weight: 700, Size: size}}}}
}

func entrance(id string, at int64) *doc.Move {
	return &doc.Move{ID: id, Kind: doc.Entrance, Effect: effect.Fade, Start: doc.Start{When: doc.AtTime, Offset: at}, Duration: 500}
}

func layerOf(s *session.Session, thread string) *doc.Layer {
	return s.Document().Film.Scenes[0].Thread(thread)
}

// A plate, a disc that is turned and mirrored, and a star in a turned group: whatever axes they are in, the page shows the same.
func pile() *doc.Project {
	plate := shapeOf("a", doc.Rectangle, 130, 120, 160, 110)
	plate.Place.Turn, plate.Corner = 12, 18
	oval := shapeOf("b", doc.Sector, 190, 100, 120, 90)
	oval.Place.Turn, oval.Place.FlipX = 30, true
	star := shapeOf("c", doc.Star, 10, 5, 90, 90)
	group := &doc.Layer{ID: "g", Thread: "g", Name: "g", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 175, Y: 130, Turn: -40}, Children: []*doc.Layer{star}}
	return with(plate, oval, group)
}

func TestUnitedLayersOfOneColourLookAsTheyDid(t *testing.T) {
	for _, front := range []string{`["a","b"]`, `["b","a","c"]`, `["a","g","b"]`} {
		s := open(t, pile())
		before := shotOf(t, s, rest)
		want(t, s, rest, "combine", `{"threads":`+front+`,"how":"unite"}`)
		// Edges that lay under others are gone, so a pixel on them may be a little fuller.
		if n := differs(before, shotOf(t, s, rest), 24); n > 0 {
			t.Errorf("%s: %d pixels differ", front, n)
		}
		if l := layerOf(s, "a"); l == nil || l.Kind != doc.PathKind || l.Made == nil || layerOf(s, "b") != nil {
			t.Errorf("%s: the rearmost is %+v", front, l)
		}
	}
}

func TestWhatWasCombinedCanBeTakenApart(t *testing.T) {
	for _, how := range []string{"unite", "cut", "overlap", "drop"} {
		s := open(t, pile())
		before := shotOf(t, s, rest)
		want(t, s, rest, "combine", `{"threads":["a","b","g"],"how":"`+how+`"}`)
		want(t, s, rest, "apart", `{"threads":["a"]}`)
		if n := differs(before, shotOf(t, s, rest), 2); n > 0 {
			t.Errorf("%s: %d pixels differ", how, n)
		}
		for _, id := range []string{"a", "b", "c", "g"} {
			if layerOf(s, id) == nil {
				t.Errorf("%s: %s did not come back", how, id)
			}
		}
	}
}

// Moved, turned and made larger in the meantime, the parts come back where the whole is.
func TestPartsComeBackWhereTheWholeIs(t *testing.T) {
	s := open(t, pile())
	want(t, s, rest, "combine", `{"threads":["a","b","g"],"how":"unite"}`)
	want(t, s, rest, "place", `{"threads":["a"],"x":150,"turn":55}`)
	if _, err := s.Apply(sent(`{"op":"layer.scale","id":"a","x":140,"y":100,"kx":1.2,"ky":1.2}`)); err != nil {
		t.Fatal(err)
	}
	before := shotOf(t, s, rest)
	want(t, s, rest, "apart", `{"threads":["a"]}`)
	if n := differs(before, shotOf(t, s, rest), 60); n > 30 {
		t.Errorf("%d pixels differ", n)
	}
	// Again, while others have their ids by now: these are new.
	s = open(t, pile())
	want(t, s, rest, "combine", `{"threads":["a","b"],"how":"unite"}`)
	want(t, s, rest, "duplicate", `{"threads":["a"]}`)
	want(t, s, rest, "apart", `{"threads":["a"]}`)
	copied := s.Document().Film.Scenes[0].Layers[2]
	want(t, s, rest, "apart", `{"threads":["`+copied.Thread+`"]}`)
	if n := len(s.Document().Film.Scenes[0].Layers); n != 5 {
		t.Errorf("%d layers, want both pairs and the group", n)
	}
}

func TestTheRearmostKeepsItsMovesAndTheOthersLoseTheirs(t *testing.T) {
	p := pile()
	list := p.Film.Scenes[0].Layers
	list[0].Moves = []*doc.Move{entrance("m1", 300)}
	list[1].Moves = []*doc.Move{entrance("m2", 400)}
	list[2].Children[0].Moves = []*doc.Move{entrance("m3", 700)}
	other := shapeOf("d", doc.Ellipse, 40, 40, 30, 30)
	other.Moves = []*doc.Move{{ID: "m4", Kind: doc.Entrance, Effect: effect.Fade, Duration: 500, Start: doc.Start{When: doc.WhenEnds, Of: "m2", Offset: 100}}}
	p.Film.Scenes[0].Layers = append(list, other)
	s := open(t, p)
	if got := joining.CombiningView(s.Desk, rest, []string{"a", "b", "g"}, "unite").Drops; got != "“b”, “g”" {
		t.Errorf("names %s", got)
	}
	want(t, s, rest, "combine", `{"threads":["a","b","g"],"how":"unite"}`)
	l := layerOf(s, "a")
	if len(l.Moves) != 1 || l.Moves[0].ID != "m1" || l.ID != "a" || s.Document().Film.Scenes[0].Layers[0] != l {
		t.Errorf("the rearmost: %+v", l)
	}
	// What hung on a move that is gone begins when it did.
	if m := layerOf(s, "d").Moves[0]; m.Start.When != doc.AtTime || m.Start.Offset != 1000 {
		t.Errorf("begins %+v", m.Start)
	}
	want(t, s, rest, "apart", `{"threads":["a"]}`)
	if l := layerOf(s, "a"); l.Kind != doc.Rectangle || len(l.Moves) != 1 || l.Corner != 18 {
		t.Errorf("taken apart: %+v", l)
	}
}

func TestWordsArePunchedOutOfAPlate(t *testing.T) {
	plate := shapeOf("a", doc.Rectangle, 160, 120, 280, 120)
	s := open(t, with(plate, words("b", "KITE DAY", 160, 90, 52)))
	before := shotOf(t, s, rest)
	want(t, s, rest, "combine", `{"threads":["b","a"],"how":"cut"}`)
	after := shotOf(t, s, rest)
	if n := differs(before, after, 100); n < 3000 {
		t.Errorf("only %d pixels show the ground", n)
	}
	// The holes of letters are full: the middle of the D.
	if l := layerOf(s, "a"); strings.Count(l.Path, "M") < 9 {
		t.Errorf("%d lines: a plate, seven letters and the holes of two", strings.Count(l.Path, "M"))
	}
	want(t, s, rest, "apart", `{"threads":["a"]}`)
	if n := differs(before, shotOf(t, s, rest), 2); n > 0 {
		t.Errorf("%d pixels differ", n)
	}
	if l := layerOf(s, "b"); l == nil || l.Text == nil || l.Text.String() != "KITE DAY" {
		t.Errorf("the words: %+v", l)
	}
}

func TestBrokenUpEveryPartIsALayerAndThePageLooksTheSame(t *testing.T) {
	p := pile()
	list := p.Film.Scenes[0].Layers
	list[0].Fill.Colour = "#17403c"
	list[1].Fill = doc.Fill{Kind: doc.Linear, Gradient: &doc.Gradient{From: [2]float64{0, 0}, To: [2]float64{1, 1}, Stops: []doc.Stop{{Colour: "#d8573a"}, {At: 1, Colour: "#f2c14e"}}}}
	list[1].Place.FlipX = false
	s := open(t, p)
	before := shotOf(t, s, rest)
	want(t, s, rest, "break", `{"threads":["a","b","g"]}`)
	if n := differs(before, shotOf(t, s, rest), 70); n > 60 {
		t.Errorf("%d pixels differ", n) // along the seams, where two edges cover a pixel in part
	}
	seen := map[string]bool{}
	layers := s.Document().Film.Scenes[0].Layers
	if len(layers) < 6 {
		t.Errorf("%d parts", len(layers))
	}
	for _, l := range layers {
		if seen[l.Thread] || l.Kind != doc.PathKind || l.Thread == "a" {
			t.Errorf("%+v", l)
		}
		seen[l.Thread] = true
	}
}

func TestWhatCannotBeCombinedIsRefusedInWords(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Ellipse, 60, 60, 50, 50), shapeOf("b", doc.Ellipse, 200, 60, 50, 50),
		&doc.Layer{ID: "m", Thread: "m", Name: "Marks", Kind: doc.MarkerKind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"}, Place: doc.Place{X: 60, Y: 60, W: 40, H: 10}, Marker: &doc.Marker{Style: doc.Dots}}))
	refused(t, s, "Nothing is left: the shapes do not overlap. Nothing was changed.", "combine", `{"threads":["a","b"],"how":"overlap"}`)
	refused(t, s, "two layers or more", "combine", `{"threads":["a"],"how":"unite"}`)
	refused(t, s, "“Marks” is no shape, path or text", "combine", `{"threads":["a","m"],"how":"unite"}`)
	refused(t, s, "weld", "combine", `{"threads":["a","b"],"how":"weld"}`)
	refused(t, s, "made of other layers", "apart", `{"threads":["a"]}`)
	refused(t, s, "stroke", "outline.stroke", `{"threads":["a"]}`)
}

func TestTextsAndShapesBecomePathsThatLookTheSame(t *testing.T) {
	p := pile()
	p.Film.Scenes[0].Layers = append(p.Film.Scenes[0].Layers, words("t", "Quay", 80, 40, 48))
	s := open(t, p)
	before := shotOf(t, s, rest)
	want(t, s, rest, "outline", `{"threads":["t","b","g"]}`)
	if n := differs(before, shotOf(t, s, rest), 8); n > 0 {
		t.Errorf("%d pixels differ", n)
	}
	for _, id := range []string{"t", "b", "g"} {
		if l := layerOf(s, id); l.Kind != doc.PathKind || l.Made == nil {
			t.Errorf("%s: %+v", id, l)
		}
	}
	want(t, s, rest, "apart", `{"threads":["t"]}`)
	if l := layerOf(s, "t"); l.Text == nil || l.Text.String() != "Quay" {
		t.Errorf("the words: %+v", l)
	}
}

func TestAStrokeBecomesAnAreaOfFewCurves(t *testing.T) {
	for name, c := range map[string]struct {
		kind string
		st   doc.Stroke
		most int
	}{
		"a thick ring":             {doc.Ellipse, doc.Stroke{Width: 14}, 26},
		"inside a rectangle":       {doc.Rectangle, doc.Stroke{Width: 9, Side: doc.Inside}, 10},
		"outside of a star":        {doc.Star, doc.Stroke{Width: 8, Side: doc.Outside, Join: geom.RoundJoin}, 60},
		"a line with an arrowhead": {doc.Line, doc.Stroke{Width: 8, EndHead: geom.TriangleHead}, 20},
		"a dashed ring":            {doc.Ellipse, doc.Stroke{Width: 6, Dash: []float64{20, 14}}, 160},
	} {
		t.Run(strings.ReplaceAll(name, " ", "_"), func(t *testing.T) {
			l := shapeOf("a", c.kind, 160, 120, 180, 130)
			l.Fill = doc.Fill{Kind: doc.NoFill}
			st := c.st
			st.Fill = doc.Fill{Kind: doc.Solid, Colour: "#17403c"}
			l.Stroke = &st
			s := open(t, with(l))
			before := shotOf(t, s, rest)
			want(t, s, rest, "outline.stroke", `{"threads":["a"]}`)
			if n := differs(before, shotOf(t, s, rest), 24); n > 4 {
				t.Errorf("%d pixels differ", n)
			}
			k := layerOf(s, "a")
			if k.Kind != doc.PathKind || k.Stroke != nil || k.Fill.Colour != "#17403c" {
				t.Errorf("%+v", k)
			}
			if n := s.Outline(rest, "a").Count(); n > c.most {
				t.Errorf("%d points, want %d or fewer", n, c.most)
			}
			want(t, s, rest, "apart", `{"threads":["a"]}`)
			if n := differs(before, shotOf(t, s, rest), 2); n > 0 {
				t.Errorf("taken apart: %d pixels differ", n)
			}
		})
	}
	// With a fill, the stroke becomes a layer in front of it.
	l := shapeOf("a", doc.Ellipse, 160, 120, 180, 130)
	l.Stroke = &doc.Stroke{Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"}, Width: 10}
	s := open(t, with(l))
	before := shotOf(t, s, rest)
	want(t, s, rest, "outline.stroke", `{"threads":["a"]}`)
	if n := differs(before, shotOf(t, s, rest), 24); n > 0 {
		t.Errorf("%d pixels differ", n)
	}
	if list := s.Document().Film.Scenes[0].Layers; len(list) != 2 || list[0].Kind != doc.Ellipse || list[0].Stroke != nil || list[1].Kind != doc.PathKind {
		t.Errorf("%d layers", len(list))
	}
}

func TestALineIsDrawnBetweenTwoShares(t *testing.T) {
	l := shapeOf("a", doc.Line, 160, 120, 200, 0)
	l.Fill = doc.Fill{Kind: doc.NoFill}
	l.Stroke = &doc.Stroke{Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"}, Width: 10, Trim: &[2]float64{0.25, 0.75}}
	s := open(t, with(l))
	img := shotOf(t, s, rest)
	first, last := 0, 0
	for x := range 320 {
		if img.RGBAAt(x, 120).R < 128 {
			if first == 0 {
				first = x
			}
			last = x
		}
	}
	// From 60 to 260 in all: a quarter further in at both ends.
	if first != 110 || last != 209 {
		t.Errorf("drawn from %d to %d", first, last)
	}
	l.Stroke.Trim = &[2]float64{0.75, 0.25}
	if _, err := s.Apply(sent(`{"op":"layer.set","set":[{"id":"a","patch":{"stroke":{"trim":[0.75,0.25]}}}]}`)); err == nil {
		t.Error("a line that ends before it begins was taken")
	}
}
