package frame_test

import (
	"math"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/text"
)

// round is a looping film of one tile in scenes of one second, turned so far in each, with even morphs of a second between them and back.
func round(t *testing.T, turns []float64, change func(*doc.Film)) *frame.Film {
	t.Helper()
	p := doc.NewProject("p", "Round", 100, 100, "s0")
	p.Film.Scenes = nil
	morph := doc.Transition{Kind: doc.Morph, Duration: 1000, Easing: "linear"}
	for i, turn := range turns {
		s := doc.NewScene("s"+string(rune('0'+i)), "")
		s.Stay = 1000
		if i > 0 {
			s.Transition = morph
		}
		s.Layers = []*doc.Layer{{ID: "l" + string(rune('0'+i)), Thread: "a", Name: "a", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: 50, Y: 50, W: 20, H: 10, Turn: turn}}}
		p.Film.Scenes = append(p.Film.Scenes, s)
	}
	p.Film.Loop, p.Film.Closing = true, &morph
	if change != nil {
		change(&p.Film)
	}
	f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		t.Fatal(err)
	}
	return f
}

// turnAt is how far the tile is turned at a time, 0..360.
func turnAt(t *testing.T, f *frame.Film, ms int64) float64 {
	t.Helper()
	p := f.Player()
	p.Stand(motion.Millis(ms))
	m, _, ok := p.Axes("l" + string(rune('0'+f.Order.At(motion.Millis(ms)).From)))
	if !ok {
		if m, _, ok = p.Axes("l0"); !ok {
			t.Fatalf("nothing is drawn at %d ms", ms)
		}
	}
	return math.Round(math.Mod(geom.AngleOf(m)+720, 360)*100) / 100
}

// Which way threads turn through morphs (docs/motion.md, section 6): at a quarter of each way.
func TestThreadsTurnTheWayThatIsSaid(t *testing.T) {
	strand := func(scene int, s doc.Strand) func(*doc.Film) {
		return func(f *doc.Film) {
			if scene == 0 {
				c := *f.Closing
				c.Threads = map[string]doc.Strand{"a": s}
				f.Closing = &c
				return
			}
			f.Scenes[scene].Transition.Threads = map[string]doc.Strand{"a": s}
		}
	}
	quarters := []float64{0, 90, 180, 270}
	for name, c := range map[string]struct {
		turns  []float64
		change func(*doc.Film)
		at     int64 // ms
		want   float64
	}{
		"quarter turns close on":              {quarters, nil, 7250, 292.5},
		"closing by number":                   {quarters, strand(0, doc.Strand{Turn: doc.TurnNumbered}), 7250, 202.5},
		"closing with a turn more":            {quarters, strand(0, doc.Strand{Turns: 1}), 7250, 270 + 450.0/4 - 360},
		"anticlockwise quarters close on":     {[]float64{0, -90, -180, -270}, nil, 7250, 67.5},
		"to and fro closes by number":         {[]float64{0, 90, 45}, nil, 5250, 45 - 45.0/4},
		"by number":                           {[]float64{0, 270}, nil, 1250, 67.5},
		"the short way":                       {[]float64{0, 270}, strand(1, doc.Strand{Turn: doc.TurnShort}), 1250, 337.5},
		"the short way of a half is one":      {[]float64{0, 180}, strand(1, doc.Strand{Turn: doc.TurnShort}), 1250, 45},
		"clockwise where numbers fall":        {[]float64{350, 10}, strand(1, doc.Strand{Turn: doc.TurnClockwise}), 1250, 355},
		"anticlockwise where they rise":       {[]float64{10, 350}, strand(1, doc.Strand{Turn: doc.TurnAnticlockwise}), 1250, 5},
		"two turns more":                      {[]float64{0, 90}, strand(1, doc.Strand{Turns: 2}), 1250, 202.5},
		"a turn more where it stands":         {[]float64{30, 30}, strand(1, doc.Strand{Turns: 1}), 1250, 120},
		"a turn back where it stands":         {[]float64{30, 30}, strand(1, doc.Strand{Turn: doc.TurnAnticlockwise, Turns: 1}), 1250, 300},
		"morphs the short way close the same": {[]float64{0, 270}, strand(1, doc.Strand{Turn: doc.TurnShort}), 3250, 270 - 270.0/4},
	} {
		f := round(t, c.turns, c.change)
		if got := turnAt(t, f, c.at); math.Abs(got-c.want) > 0.01 {
			t.Errorf("%s: turned by %v at %d ms, want %v", name, got, c.at, c.want)
		}
		if got := turnAt(t, f, f.Order.Length); got != math.Mod(c.turns[0]+720, 360) {
			t.Errorf("%s: ends turned by %v", name, got)
		}
	}
}
