package frame_test

import (
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"math"
	"slices"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/demo/effecttest"
	"capstan/library"
)

// stage is a small film for one effect: a page of 160 by 120 with one layer on it, for which move is made.
type stage struct {
	t    *testing.T
	p    *doc.Project
	a    frame.Assets
	film *frame.Film
}

// layers are what effects are tried on, by what is peculiar to them.
var layers = map[string]func() *doc.Layer{
	"a turned, mirrored rectangle": func() *doc.Layer {
		return &doc.Layer{Kind: doc.Rectangle, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: 60, Y: 30, W: 60, H: 40, Turn: 25, FlipX: true}}
	},
	"a text": func() *doc.Layer {
		return &doc.Layer{Kind: doc.TextKind, Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"}, Place: doc.Place{X: 40, Y: 40},
			Text: &doc.Text{Align: doc.Left, LineHeight: 1, Runs: []doc.Run{{Text: "Kite day", Family: "Archivo", Weight: 700, Size: 20}}}}
	},
	"a group": func() *doc.Layer {
		part := func(id string, x float64) *doc.Layer {
			return &doc.Layer{ID: id, Thread: id, Name: id, Kind: doc.Ellipse, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#e0a03a"}, Place: doc.Place{X: x, Y: 5, W: 18, H: 24}}
		}
		return &doc.Layer{Kind: doc.Group, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 50, Y: 40}, Children: []*doc.Layer{part("b", 0), part("c", 25), part("d", 50)}}
	},
}

func newStage(t *testing.T, l *doc.Layer, moves ...*doc.Move) *stage {
	t.Helper()
	fonts, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	s := &stage{t: t, p: doc.NewProject("p", "Stage", 160, 120, "s"), a: frame.Assets{Fonts: fonts}}
	l.ID, l.Thread, l.Name, l.Opacity, l.Moves = "l", "l", "l", 1, moves
	s.p.Film.Scenes[0].Stay = 4000
	s.p.Film.Scenes[0].Background = doc.Fill{Kind: doc.Solid, Colour: "#ffffff"}
	s.p.Film.Scenes[0].Layers = []*doc.Layer{l}
	return s
}

// at is the picture at a time, ms.
func (s *stage) at(ms float64) *image.RGBA {
	s.t.Helper()
	if s.film == nil {
		if err := s.p.Validate(); err != nil {
			s.t.Fatal(err)
		}
		f, err := frame.Compile(s.p, s.a, nil)
		if err != nil {
			s.t.Fatal(err)
		}
		s.film = f
	}
	img := image.NewRGBA(image.Rect(0, 0, 160, 120))
	if err := raster.NewPainter(s.film, nil).Paint(img, s.film.Player().At(motion.Seconds(ms/1000), frame.View{Scale: 1})); err != nil {
		s.t.Fatal(err)
	}
	return img
}

// apart is the most that two pictures differ by in a colour of a pixel, and the mean.
func apart(a, b *image.RGBA) (most int, mean float64) {
	for i := range a.Pix {
		d := int(a.Pix[i]) - int(b.Pix[i])
		most = max(most, d, -d)
		mean += math.Abs(float64(d))
	}
	return most, mean / float64(len(a.Pix))
}

func blank() *image.RGBA {
	img := image.NewRGBA(image.Rect(0, 0, 160, 120))
	draw.Draw(img, img.Bounds(), image.NewUniform(color.White), image.Point{}, draw.Src)
	return img
}

// tried calls f with every layer and unit that an effect of a kind can have.
func tried(kind string, f func(e *effect.Effect, on, unit string)) {
	for _, e := range effect.All() {
		if !slices.Contains(e.Kinds(), kind) {
			continue
		}
		for on := range layers {
			units := []string{""}
			if kind != doc.Loop && e.Comes.ByUnit || kind == doc.Loop && e.Goes.ByUnit {
				units = append(units, map[string][]string{"a text": {doc.ByLetter, doc.ByWord, doc.ByLine}, "a group": {doc.ByPart}}[on]...)
			}
			for _, unit := range units {
				f(e, on, unit)
			}
		}
	}
}

// Every entrance begins with nothing and ends at rest, to the last byte; an exit is at rest before and gone after; one that goes back the way it
// came is the entrance backwards (docs/motion.md, section 3).
func TestEveryEntranceBeginsWithNothingAndEndsAtRest(t *testing.T) {
	tried(doc.Entrance, func(e *effect.Effect, on, unit string) {
		name := strings.TrimSpace(fmt.Sprint(e.Words, " of ", on, " ", unit))
		move := func(kind string) *doc.Move {
			m := &doc.Move{ID: "m", Kind: kind, Effect: e.Name, Start: doc.Start{When: doc.AtTime, Offset: 500}, Duration: 1000, Easing: "linear", Unit: unit, Overlap: 0.3, Back: kind == doc.Exit}
			if m.Timeless() {
				m.Duration = 0
			}
			return m
		}
		rest := newStage(t, layers[on]()).at(0)
		in, out := newStage(t, layers[on](), move(doc.Entrance)), newStage(t, layers[on](), move(doc.Exit))
		if !e.Comes.Sudden {
			if d, _ := apart(in.at(500), blank()); d > 1 {
				t.Errorf("%s: as it begins %d of 255 of it show", name, d)
			}
		}
		for _, c := range []struct {
			what string
			got  *image.RGBA
			want *image.RGBA
		}{
			{"before it comes", in.at(499), blank()}, {"when it has come", in.at(1500), rest}, {"before it goes", out.at(499), rest}, {"when it has gone", out.at(1500), blank()},
		} {
			if d, _ := apart(c.got, c.want); d > 0 {
				t.Errorf("%s: %s it differs by %d", name, c.what, d)
			}
		}
		if e.Comes.Sudden || unit != "" {
			return // by unit the first comes first and goes first
		}
		seen := false
		for _, ms := range []float64{100, 250, 500, 750, 900} {
			a, b := in.at(500+ms), out.at(1500-ms)
			if d, _ := apart(a, b); d > 1 {
				t.Errorf("%s: %v ms after it begins it differs by %d from the way out backwards", name, ms, d)
			}
			d, _ := apart(a, blank())
			r, _ := apart(a, rest)
			seen = seen || d > 20 && r > 20
		}
		if !seen {
			t.Errorf("%s: on its way nothing is seen of it", name)
		}
	})
}

// fresh are the parameters of a new move on the stage.
func fresh(e *effect.Effect, kind string) effect.Params {
	p := e.Fresh(e.Offer(kind, ""), effect.Setting{PageW: 160, PageH: 120})
	if e.Param("gap") != nil { // copies of one colour that adjoin are a strip that stands
		p = effect.Params{"gap": 30.0}
	}
	return p
}

// Every loop that comes round is where it was after a cycle, to the last byte, and does something in between; one that has ended is at rest, or
// stays as it ended.
func TestEveryLoopComesRound(t *testing.T) {
	tried(doc.Loop, func(e *effect.Effect, on, unit string) {
		if e.Goes.Parted && on != "a group" || e.Goes.Round != nil {
			return
		}
		name := strings.TrimSpace(fmt.Sprint(e.Words, " of ", on, " ", unit))
		m := &doc.Move{ID: "m", Kind: doc.Loop, Effect: e.Name, Start: doc.Start{When: doc.AtTime}, Lasts: doc.WholeScene, Unit: unit, Overlap: 0.3, Seed: 7, Params: fresh(e, doc.Loop)}
		if e.Goes.Cycle == nil && !m.Runs() {
			m.Duration = 700
		}
		s := newStage(t, layers[on](), m)
		s.p.Film.Scenes[0].Stay = 60000
		first := s.at(90)
		cycle := float64(s.film.Cycle(0, m, "l"))
		if cycle == 0 && e.Goes.Line == nil {
			t.Errorf("%s has no cycle", name)
		}
		moved := 0
		for _, ms := range []float64{90, 233.3, 410, 640, 900} {
			was := s.at(ms)
			if d, _ := apart(first, was); d > 8 {
				moved++
			}
			if d, _ := apart(was, s.at(ms+3*cycle)); cycle > 0 && d > 0 {
				t.Errorf("%s: at %v ms and three cycles later it differs by %d", name, ms, d)
			}
		}
		if moved == 0 && e.Goes.Line == nil {
			t.Errorf("%s: nothing moves", name)
		}
	})
}

// What an effect has made of a layer when a transition begins or ends goes on without a jump, whichever kind it is, for moves that begin before,
// in and after it. Only what is at once may jump.
func TestEveryEffectGoesThroughTransitions(t *testing.T) {
	try := func(e *effect.Effect, m doc.Move, kind string) {
		for _, offset := range []int64{-300, 0, 2950} {
			a, b := layers["a group"](), layers["a group"]()
			s := newStage(t, a)
			next := doc.NewScene("t", "Next")
			next.Transition, next.Stay, next.Background = doc.Transition{Kind: kind, Duration: 600}, 3000, s.p.Film.Scenes[0].Background
			s.p.Film.Scenes[0].Stay = 3000
			b.ID, b.Thread, b.Name, b.Opacity, b.Place.X = "k", "l", "l", 1, 70
			for _, k := range b.Children {
				k.ID += "k"
			}
			one, two := m, m
			one.ID, two.ID, one.Start, two.Start = "m", "n", doc.Start{When: doc.AtTime, Offset: max(offset, 0)}, doc.Start{When: doc.AtTime, Offset: offset}
			a.Moves, b.Moves = []*doc.Move{&one}, []*doc.Move{&two}
			next.Layers = []*doc.Layer{b}
			s.p.Film.Scenes = append(s.p.Film.Scenes, next)
			for _, ms := range []float64{3000, 3600} {
				if _, d := apart(s.at(ms-0.5), s.at(ms+0.5)); d > 1.2 {
					t.Errorf("%s (%s) that begins at %d jumps by %.2f on average where a %s begins or ends at %v ms", e.Words, m.Kind, offset, d, kind, ms)
				}
			}
			s.at(3300)
		}
	}
	for _, e := range effect.All() {
		for _, kind := range []string{doc.Crossfade, doc.Morph, effect.Wipe, effect.Iris, effect.Push} {
			if e.Comes != nil && !e.Comes.Sudden {
				try(e, doc.Move{Kind: doc.Entrance, Effect: e.Name, Duration: 700}, kind)
				try(e, doc.Move{Kind: doc.Exit, Effect: e.Name, Duration: 700}, kind)
			}
			if g := e.Goes; g != nil && g.Manner != effect.Blinks {
				m := doc.Move{Kind: doc.Loop, Effect: e.Name, Lasts: doc.WholeScene, Seed: 3, Params: fresh(e, doc.Loop)}
				if g.Cycle == nil && !m.Runs() {
					m.Duration = 1100
				}
				try(e, m, kind)
			}
		}
	}
}

func crowded(t testing.TB, n int) *frame.Film {
	t.Helper()
	fonts, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	p := effecttest.Crowd(n)
	if err := p.Validate(); err != nil {
		t.Fatal(err)
	}
	f, err := frame.Compile(p, frame.Assets{Fonts: fonts}, nil)
	if err != nil {
		t.Fatal(err)
	}
	return f
}

func TestNoEffectAllocatesOnceWarm(t *testing.T) {
	pl := crowded(t, 100).Player()
	for k := range int64(300) {
		pl.At(motion.FrameTime(k, 30, 1), frame.View{Scale: 1})
	}
	for _, ms := range []int64{500, 2500, 4100, 7700} {
		if n := testing.AllocsPerRun(10, func() { pl.At(motion.Millis(ms), frame.View{Scale: 1}) }); n > 0 {
			t.Errorf("at %d ms: %v allocations", ms, n)
		}
	}
}

// 200 layers with 400 moves of all kinds, 50 of them by letter: below a millisecond each.
func BenchmarkAtOfEveryEffect(b *testing.B) {
	pl := crowded(b, 200).Player()
	b.ReportAllocs()
	for i := int64(0); b.Loop(); i++ {
		pl.At(motion.Millis(i*37%10000), frame.View{Scale: 1})
	}
}
