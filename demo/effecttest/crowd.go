// Package effecttest makes films in which every effect is at work, for tests and benchmarks.
package effecttest

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/effect"
)

// Crowd is a page of n layers, each with two moves, so that every effect is there as often as any; every fourth is a text, by letter where it can.
func Crowd(n int) *doc.Project {
	p := doc.NewProject("crowd", "Crowd", 1920, 1080, "s")
	p.Film.Scenes[0].Stay = 10000
	var kinds []doc.Move
	for _, e := range effect.All() {
		if e.Comes != nil {
			kinds = append(kinds, doc.Move{Kind: doc.Entrance, Effect: e.Name}, doc.Move{Kind: doc.Exit, Effect: e.Name})
		}
		if e.Goes != nil && !e.Goes.Parted && e.Goes.Manner != effect.Strews {
			kinds = append(kinds, doc.Move{Kind: doc.Loop, Effect: e.Name})
		}
	}
	at := 0
	for i := range n {
		l := &doc.Layer{Kind: doc.Rectangle, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{W: 60, H: 40, Turn: 25, FlipX: true}}
		if i%4 == 3 {
			l = &doc.Layer{Kind: doc.TextKind, Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"},
				Text: &doc.Text{Align: doc.Left, LineHeight: 1, Runs: []doc.Run{{Text: "Kite day", Family: "Archivo", Weight: 700, Size: 20}}}}
		}
		l.ID, l.Name, l.Opacity = fmt.Sprint("l", i), "l", 1
		l.Thread, l.Place.X, l.Place.Y = l.ID, float64(i*97%1900), float64(i*61%1000)
		for k := range 2 {
			m := kinds[at%len(kinds)]
			at++
			m.ID, m.Start = fmt.Sprint("m", i, "-", k), doc.Start{When: doc.AtTime, Offset: int64(i*31%3000) + 3000*int64(k)}
			switch g := m.Goes(); {
			case g == nil && !m.Timeless():
				m.Duration = 2000
			case g != nil:
				m.Lasts = doc.WholeScene
				if g.Cycle == nil && !m.Runs() {
					m.Duration = 1700
				}
			}
			if l.Kind == doc.TextKind && m.ByUnits() {
				if m.Unit, m.Overlap = doc.ByLetter, 0.6; m.Kind != doc.Loop {
					m.Duration = 2000
				}
			}
			l.Moves = append(l.Moves, &m)
		}
		p.Film.Scenes[0].Layers = append(p.Film.Scenes[0].Layers, l)
	}
	return p
}
