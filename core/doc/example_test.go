package doc_test

import (
	"fmt"

	"capstan/core/doc"
)

// A project is made, checked, written and read again.
func Example() {
	p := doc.NewProject("kite-day", "Kite Day", 1920, 1080, "first")
	p.Film.Scenes[0].Layers = []*doc.Layer{{
		ID: "kite", Thread: "kite", Name: "Kite", Kind: doc.Rectangle, Opacity: 1,
		Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: 960, Y: 300, W: 120, H: 160},
	}}
	raw, err := p.Write()
	if err != nil {
		fmt.Println(err)
		return
	}
	q, err := doc.Read(raw)
	fmt.Println(q.Name, len(q.Film.Scenes[0].Layers), err)
	q.Film.Scenes[0].Layers[0].Opacity = 2
	fmt.Println(q.Validate())
	// Output:
	// Kite Day 1 <nil>
	// This would break a rule: film.scenes[0].layers[0].opacity is 2; it must be 0 to 1. Nothing was changed. Choose a value within the rule.
}
