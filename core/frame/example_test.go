package frame_test

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/text"
)

// A film is compiled once and answers any time with what is to be painted.
func Example() {
	p := doc.NewProject("kite-day", "Kite Day", 1920, 1080, "first")
	p.Film.Scenes[0].Layers = []*doc.Layer{{
		ID: "kite", Thread: "kite", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: 960, Y: 300, W: 120, H: 160},
		Moves: []*doc.Move{{ID: "in", Kind: doc.Entrance, Effect: effect.Fade, Easing: "linear", Duration: 1000, Start: doc.Start{When: doc.AtTime}}},
	}}
	film, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		fmt.Println(err)
		return
	}
	player := film.Player()
	list := player.At(motion.Millis(250), frame.View{Scale: 1})
	fmt.Println("opacity", list.Numbers[len(list.Numbers)-1])
	id, _, _ := player.Quad("kite")
	fmt.Println("corner", id[0])
	// Output:
	// opacity 0.25
	// corner {900 220}
}
