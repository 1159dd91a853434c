package frame_test

import (
	"fmt"
	"image"
	"math"
	"slices"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/motion"
)

func num(v float64) *float64 { return &v }

func change(id string, at, ms int64, easing string, to doc.Becomes) *doc.Move {
	return &doc.Move{ID: id, Kind: doc.Change, Effect: doc.Becoming, Start: doc.Start{When: doc.AtTime, Offset: at}, Duration: ms, Easing: easing, Change: &doc.ChangeParams{To: to}}
}

func card() *doc.Layer {
	return &doc.Layer{Kind: doc.Rectangle, Corner: 4, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Stroke: &doc.Stroke{Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"}, Width: 3}, Place: doc.Place{X: 40, Y: 40, W: 30, H: 20}}
}

// When a change is over its layer looks, to the byte, as one that rests so; before it, as it rests itself; at both ends of a morph, too. Whatever
// it names: place, size, colours, gradients, strokes, effects, numbers of shapes, words.
func TestAChangeEndsAsALayerThatIsSo(t *testing.T) {
	gradient := doc.Fill{Kind: doc.Linear, Gradient: &doc.Gradient{To: [2]float64{1, 0}, Stops: []doc.Stop{{Colour: "#ffffff"}, {At: 1, Colour: "#24505c"}}}}
	text := func(words string, size float64) *doc.Text {
		return &doc.Text{Align: doc.Left, LineHeight: 1, Runs: []doc.Run{{Text: words, Family: "Archivo", Weight: 700, Size: size}}}
	}
	words := func() *doc.Layer {
		return &doc.Layer{Kind: doc.TextKind, Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"}, Place: doc.Place{X: 20, Y: 30}, Text: text("Kite", 24)}
	}
	star := func() *doc.Layer {
		return &doc.Layer{Kind: doc.Star, Fill: doc.Fill{Kind: doc.Solid, Colour: "#e0a03a"}, Place: doc.Place{X: 60, Y: 60, W: 50, H: 50}}
	}
	line := func() *doc.Layer {
		return &doc.Layer{Kind: doc.PathKind, Path: "M0 0L40 0L20 30Z", Fill: doc.Fill{Kind: doc.Solid, Colour: "#e0a03a"}, Place: doc.Place{X: 40, Y: 40}}
	}
	d := "M0 0L60 10L10 40Z"
	for name, c := range map[string]struct {
		layer func() *doc.Layer
		to    doc.Becomes
	}{
		"place":      {card, doc.Becomes{X: num(110), Y: num(80), Turn: num(30)}},
		"size":       {card, doc.Becomes{W: num(60), H: num(44), Corner: num(9)}},
		"colour":     {card, doc.Becomes{Fill: &doc.Fill{Kind: doc.Solid, Colour: "#3f7f86"}, Opacity: num(0.6)}},
		"gradient":   {card, doc.Becomes{Fill: &gradient}},
		"stroke":     {card, doc.Becomes{Stroke: &doc.Stroke{Fill: doc.Fill{Kind: doc.Solid, Colour: "#f3dca6"}, Width: 8}}},
		"no stroke":  {card, doc.Becomes{Stroke: &doc.Stroke{Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"}}}},
		"blur":       {card, doc.Becomes{Blur: num(4)}},
		"shadow":     {card, doc.Becomes{Shadow: &doc.Shadow{X: 4, Y: 4, Blur: 3, Colour: "#00000080"}}},
		"shape":      {star, doc.Becomes{Shape: &doc.Shape{Count: 9}}},
		"outline":    {line, doc.Becomes{Path: &d}},
		"words":      {words, doc.Becomes{Text: text("Gull", 24)}},
		"their size": {words, doc.Becomes{Text: text("Kite", 36), Y: num(20)}},
	} {
		m := change("m", 1000, 600, "", c.to)
		s := newStage(t, c.layer(), m)
		rests := newStage(t, c.layer())
		rests.p.Film.Scenes[0].Layers[0] = rests.p.Film.Scenes[0].Layers[0].After(&c.to)
		fresh := newStage(t, c.layer())
		if got := s.at(900); !slices.Equal(got.Pix, fresh.at(900).Pix) {
			t.Errorf("%s: before it begins it is not as at rest", name)
		}
		if got := s.at(1700); !slices.Equal(got.Pix, rests.at(1700).Pix) {
			t.Errorf("%s: after it ends %d bytes are not as of a layer that rests so", name, off(got, rests.at(1700)))
		}
		if half := s.at(1300); slices.Equal(half.Pix, s.at(900).Pix) || slices.Equal(half.Pix, s.at(1700).Pix) {
			t.Errorf("%s: half way it is as at an end", name)
		}
		// Through a morph it goes from what it has become, to what it is at rest.
		next := s.p.Film.Scenes[0].Clone()
		next.ID, next.Transition, next.Layers[0].ID, next.Layers[0].Moves[0].ID = "s2", doc.Transition{Kind: doc.Morph, Duration: 800}, "l2", "m2"
		s.p.Film.Scenes, s.film = append(s.p.Film.Scenes, next), nil
		if got := s.at(4000); !slices.Equal(got.Pix, rests.at(1700).Pix) {
			t.Errorf("%s: a morph begins %d bytes beside what it has become", name, off(got, rests.at(1700)))
		}
		if got := s.at(4800); !slices.Equal(got.Pix, fresh.at(0).Pix) {
			t.Errorf("%s: a morph ends %d bytes beside what it is at rest", name, off(got, fresh.at(0)))
		}
	}
}

func off(a, b *image.RGBA) (n int) {
	for i := range a.Pix {
		if a.Pix[i] != b.Pix[i] {
			n++
		}
	}
	return
}

// At any time a field is mix(what the changes begun earlier make of it, to, p): held against that sum for changes that follow, overlap, come back
// and are cut off, in numbers that can be read off the layer's corners.
func TestChangesAddUp(t *testing.T) {
	back := change("b", 1000, 400, "linear", doc.Becomes{X: num(100)})
	back.Repeat, back.Alternate = 2, true
	for _, c := range []struct {
		name  string
		moves []*doc.Move
		at    float64
		x, w  float64
	}{
		{"half way", []*doc.Move{change("a", 1000, 400, "linear", doc.Becomes{X: num(100)})}, 1200, 70, 30},
		{"one after another", []*doc.Move{change("a", 1000, 400, "linear", doc.Becomes{X: num(100)}), change("b", 2000, 400, "linear", doc.Becomes{X: num(60), W: num(50)})}, 2200, 80, 40},
		{"the later begin decides, from where the layer has got to", []*doc.Move{change("b", 1200, 400, "linear", doc.Becomes{X: num(120)}), change("a", 1000, 400, "linear", doc.Becomes{X: num(100)})}, 1300, 40 + 45 + (120-85)*0.25, 30},
		{"each names its own", []*doc.Move{change("a", 1000, 400, "linear", doc.Becomes{X: num(100)}), change("b", 1100, 400, "linear", doc.Becomes{W: num(70)})}, 1300, 85, 50},
		{"there and back", []*doc.Move{back}, 1600, 70, 30},
		{"and it is as it was", []*doc.Move{back, change("c", 2500, 400, "linear", doc.Becomes{W: num(70)})}, 2700, 40, 50},
		{"scaled about its pivot", []*doc.Move{change("a", 1000, 400, "linear", doc.Becomes{Scale: num(2)})}, 1200, 40, 45},
		{"cut off by the scene's end", []*doc.Move{change("a", 3900, 400, "linear", doc.Becomes{X: num(100)})}, 4000, 55, 30},
	} {
		s := newStage(t, card(), c.moves...)
		s.at(0)
		pl := s.film.Player()
		pl.Stand(motion.Seconds(c.at / 1000))
		q, _, _ := pl.Quad("l")
		x, w := (q[0].X+q[1].X)/2, q[1].X-q[0].X
		if math.Abs(x-c.x) > 1e-6 || math.Abs(w-c.w) > 1e-6 {
			t.Errorf("%s, at %.0f ms: in the middle at %.3f, %.3f wide; want %.3f and %.3f", c.name, c.at, x, w, c.x, c.w)
		}
	}
	// Once warm nothing is allocated, words that dissolve and colours that overlap included.
	s := newStage(t, card(), change("a", 500, 2000, "", doc.Becomes{Fill: &doc.Fill{Kind: doc.Solid, Colour: "#3f7f86"}}), change("b", 900, 2000, "", doc.Becomes{Fill: &doc.Fill{Kind: doc.Solid, Colour: "#e0a03a"}, X: num(90), Turn: num(90)}))
	s.at(0)
	pl := s.film.Player()
	play := func() {
		for k := range int64(40) {
			pl.At(motion.FrameTime(k*3, 30, 1), frame.View{Scale: 1})
		}
	}
	play()
	if n := testing.AllocsPerRun(3, play); n > 0 {
		t.Errorf("%v allocations once warm", n)
	}
	// A path goes on from where a change has brought its layer; an entrance and a loop go on top.
	s = newStage(t, card(), change("a", 1000, 400, "linear", doc.Becomes{X: num(100)}), along("pp", "M0 0L0 30", 1000, "linear"), &doc.Move{ID: "sp", Kind: doc.Loop, Effect: effect.Spin, Start: doc.Start{When: doc.AtTime}, Duration: 4000, Lasts: doc.WholeScene})
	s.at(0)
	pl = s.film.Player()
	pl.Stand(motion.Millis(2000))
	if q, _, _ := pl.Quad("l"); math.Abs((q[0].X+q[2].X)/2-100) > 1e-6 || math.Abs((q[0].Y+q[2].Y)/2-70) > 1e-6 || math.Abs(q[0].X-q[1].X-30) > 1e-6 {
		t.Errorf("changed, brought along and turned by 180° it stands at %v", q)
	}
}

// A change of place that goes unit by unit brings each there in its turn (docs/motion.md, section 3), and has them apart about the pivot of the
// whole; with the later one begun while the earlier goes on. Without a unit all lie apart at once. There and back, all is as it was.
func TestPartsGoApartInTurn(t *testing.T) {
	group := func(moves ...*doc.Move) *stage {
		g := &doc.Layer{Kind: doc.Group, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 20, Y: 30}}
		for i := range 4 {
			g.Children = append(g.Children, &doc.Layer{
				ID: fmt.Sprint("part", i), Thread: fmt.Sprint("part", i), Name: "part", Kind: doc.Rectangle, Opacity: 1,
				Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: float64(10 + 20*i), Y: 10, W: 10, H: 10},
			})
		}
		return newStage(t, g, moves...)
	}
	gone := change("gone", 1000, 1000, "linear", doc.Becomes{X: num(60)})
	gone.Unit, gone.Overlap = doc.ByPart, 0.5
	apart := change("apart", 1500, 1000, "ease-out", doc.Becomes{Apart: num(1.8)})
	apart.Unit, apart.Order = doc.ByPart, doc.Backwards
	s, at := group(gone, apart), group(change("all", 0, 1000, "linear", doc.Becomes{Apart: num(0.5)}))
	ease, err := motion.ParseEasing("ease-out")
	if err != nil {
		t.Fatal(err)
	}
	share := func(ms, begin, o float64, rank int) float64 {
		d := 1 / (1 + 3*(1-o))
		return min(1, max(0, ((ms-begin)/1000-float64(rank)*(1-o)*d)/d))
	}
	for ms := 0.0; ms < 3000; ms += 37 {
		for i := range 4 {
			x0 := float64(10 + 20*i)
			want := 20 + 40*share(ms, 1000, 0.5, i) + 40 + (x0-40)*(1+0.8*ease(share(ms, 1500, 0, 3-i)))
			if got := middle(s.quad(fmt.Sprint("part", i), ms)); math.Abs(got.X-want) > 1e-6 || math.Abs(got.Y-40) > 1e-6 {
				t.Fatalf("at %.0f ms part %d is at %v, want %.3f", ms, i, got, want)
			}
			want = 20 + 40 + (x0-40)*(1-0.5*min(1, ms/1000))
			if got := middle(at.quad(fmt.Sprint("part", i), ms)); math.Abs(got.X-want) > 1e-6 {
				t.Fatalf("at %.0f ms, all at once, part %d is at %v, want %.3f", ms, i, got, want)
			}
		}
	}
	back := change("back", 0, 400, "", doc.Becomes{Apart: num(3)})
	back.Repeat, back.Alternate = 2, true
	if s, rests := group(back), group(); !slices.Equal(s.at(900).Pix, rests.at(900).Pix) {
		t.Error("there and back, it is not as it was")
	}
}

// Other words come letter by letter: what has its turn yet to come is as it was, what has had it as it will be, what is the same in both never dips.
// A word with letters more brings them at the end.
func TestWordsChangeByLetter(t *testing.T) {
	text := func(words string) *doc.Text {
		return &doc.Text{Align: doc.Left, LineHeight: 1, Runs: []doc.Run{{Text: words, Family: "Archivo", Weight: 700, Size: 24}}}
	}
	words := func(w string) *doc.Layer {
		return &doc.Layer{Kind: doc.TextKind, Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"}, Place: doc.Place{X: 20, Y: 30}, Text: text(w)}
	}
	m := change("m", 1000, 1000, "linear", doc.Becomes{Text: text("Kits up")})
	m.Unit = doc.ByLetter
	s := newStage(t, words("Kite"), m)
	before, after := newStage(t, words("Kite")).at(0), newStage(t, words("Kits up")).at(0)
	differ := func(a, b *image.RGBA) (from, to int) {
		from = -1
		for x := range a.Rect.Dx() {
			for y := range a.Rect.Dy() {
				// Mixed in eight bits, the same comes to the same but for a rounding.
				if p, q := a.RGBAAt(x, y), b.RGBAAt(x, y); max(p.R, q.R)-min(p.R, q.R) > 1 || max(p.G, q.G)-min(p.G, q.G) > 1 || max(p.B, q.B)-min(p.B, q.B) > 1 {
					if to = x; from < 0 {
						from = x
					}
				}
			}
		}
		return
	}
	first, _ := differ(before, after)
	if first < 20 {
		t.Fatalf("the words differ from %d on", first)
	}
	for _, c := range []struct {
		ms        float64
		was, is   bool // as before, as after
		untouched int  // px from the left
	}{{1000, true, false, 0}, {1400, true, false, 0}, {1850, false, false, first}, {2000, false, true, 0}} {
		got := s.at(c.ms)
		a, _ := differ(got, before)
		b, _ := differ(got, after)
		if (a < 0) != c.was || (b < 0) != c.is || c.untouched > 0 && min(a, b) < c.untouched {
			t.Errorf("at %.0f ms it differs from before from %d px on, from after from %d; they do from %d", c.ms, a, b, first)
		}
	}
	pl := s.film.Player()
	play := func() {
		for k := range int64(30) {
			pl.At(motion.FrameTime(24+k, 25, 1), frame.View{Scale: 1})
		}
	}
	play()
	if n := testing.AllocsPerRun(3, play); n > 0 {
		t.Errorf("%v allocations once warm", n)
	}
}
