package delivery_test

import (
	"strings"
	"testing"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/text"
)

// A film closes where its end is its start and it lasts whole frames; else it says by name what does not, or which stay would do.
func TestAFilmSaysWhetherItCloses(t *testing.T) {
	wheel := func(name string, cycle int64) *doc.Layer {
		return &doc.Layer{ID: name, Thread: name, Name: name, Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"}, Place: doc.Place{X: 100, Y: 100, W: 40, H: 20},
			Moves: []*doc.Move{{ID: "m" + name, Kind: doc.Loop, Effect: "spin", Start: doc.Start{When: doc.AtTime}, Duration: cycle, Lasts: doc.WholeScene}}}
	}
	for _, c := range []struct {
		stay   int64
		cycles map[string]int64
		closes bool
		words  string
		better int64
	}{
		{4000, map[string]int64{"Wheel": 2000}, true, "It closes", -1},
		{4000, map[string]int64{"Wheel": 2000, "Vane": 3000}, false, "at its end Vane differ", -1},
		{1000, map[string]int64{"Wheel": 1000}, true, "It closes", -1},
		{1010, map[string]int64{"Wheel": 1010}, false, "a stay of 1.000 s would", 1000},
	} {
		p := doc.NewProject("p", "P", 320, 240, "s")
		p.Film.Loop, p.Film.Rate = true, doc.Rate{Num: 25, Den: 1}
		p.Film.Scenes[0].Stay = c.stay
		for name, cycle := range c.cycles {
			p.Film.Scenes[0].Layers = append(p.Film.Scenes[0].Layers, wheel(name, cycle))
		}
		f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
		if err != nil {
			t.Fatal(err)
		}
		if got := delivery.Closes(f); got.Closes != c.closes || !strings.Contains(got.Words, c.words) || got.Stay != c.better {
			t.Errorf("%d ms, %v: %+v", c.stay, c.cycles, got)
		}
	}
}
