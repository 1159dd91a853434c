package e2e

import (
	"fmt"
	"image/color"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/motion"
)

// On the page, as in files, no line shows where things adjoin: the pages of a push and of a wipe, and the copies of a scroll without a gap, level,
// turned and between pixels, over black and over white. With a gap of half a pixel lines do show.
func TestNoSeamsOnThePage(t *testing.T) {
	kite := doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}
	p := doc.NewProject("seams", "Seams", 240, 180, "s0")
	p.Film.Scenes = nil
	scene := func(id string, into doc.Transition, layers ...*doc.Layer) {
		s := doc.NewScene(id, id)
		s.Background, s.Transition, s.Stay, s.Layers = kite, into, 300, layers
		if len(layers) > 0 {
			s.Background = doc.Fill{Kind: doc.NoFill}
		}
		p.Film.Scenes = append(p.Film.Scenes, s)
	}
	band := func(id string, turn, gap float64) *doc.Layer {
		return &doc.Layer{ID: id, Thread: id, Name: id, Kind: doc.Rectangle, Opacity: 1, Fill: kite, Place: doc.Place{X: 117.3, Y: 90, W: 47.7, H: 900, Turn: turn}, Moves: []*doc.Move{
			{ID: id + "m", Kind: doc.Loop, Effect: effect.Scroll, Lasts: doc.WholeScene, Start: doc.Start{When: doc.AtTime}, Params: effect.Params{"speed": 171.0, "gap": gap}},
		}}
	}
	cut := doc.Transition{Kind: doc.Cut}
	scene("s0", cut)
	for _, direction := range []float64{0, 90, 180, 270} {
		scene("push"+string(rune('a'+int(direction/90))), doc.Transition{Kind: effect.Push, Duration: 700, Easing: "linear", Params: effect.Params{"direction": direction}})
	}
	scene("wipe", doc.Transition{Kind: effect.Wipe, Duration: 700, Easing: "linear", Params: effect.Params{"direction": 33.0}})
	scene("level", cut, band("b", 0, 0))
	scene("turned", cut, band("c", 21, 0))
	shaded := band("e", 21, 0)
	shaded.Fill = doc.Fill{Kind: doc.Linear, Gradient: &doc.Gradient{To: [2]float64{1, 0}, Stops: []doc.Stop{{Colour: kite.Colour}, {At: 1, Colour: kite.Colour}}}}
	scene("shaded", cut, shaded)
	scene("apart", cut, band("d", 0, 0.5))
	tiles := &doc.Layer{ID: "g", Thread: "g", Name: "g", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 119.3, Y: 90.1, Turn: 17}}
	for i := range 49 {
		id := fmt.Sprint("t", i)
		tiles.Children = append(tiles.Children, &doc.Layer{ID: id, Thread: id, Name: id, Kind: doc.Rectangle, Opacity: 1, Fill: kite, Place: doc.Place{X: float64(i%7-3) * 51, Y: float64(i/7-3) * 51, W: 51, H: 51}})
	}
	scene("tiles", cut, tiles)
	b := compileFor(t, p, nil)
	studio := sit(t, startStudio(t))
	studio.bring(p, nil)
	want := color.RGBA{0xd8, 0x57, 0x3a, 255}
	seen := map[string]int{}
	for ms := int64(37); ms < b.film.Order.Length; ms += 97 {
		i := b.film.Order.At(motion.Millis(ms)).Scene
		for _, ground := range []string{"#000", "#fff"} {
			img := studio.pixels(0, float64(ms), false, 240, 180, ground)
			// But the last row: Chromium leaves out some of a pixel there where two edges of one outline meet.
			for k := 0; k < len(img.Pix)-img.Stride; k += 4 {
				// What Chromium says two turned edges cover comes to 94 percent of a pixel at least; without adding it is 75.
				if far(img.Pix[k], want.R)+far(img.Pix[k+1], want.G)+far(img.Pix[k+2], want.B) > 30 {
					seen[p.Film.Scenes[i].ID]++
				}
			}
		}
	}
	for _, s := range p.Film.Scenes {
		if n := seen[s.ID]; (n > 0) != (s.ID == "apart") {
			t.Errorf("%s: %d pixels let the ground through", s.ID, n)
		}
	}
}

func far(a, b uint8) int { return max(int(a)-int(b), int(b)-int(a)) }
