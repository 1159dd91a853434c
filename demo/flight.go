package demo

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/effect"
)

// The gull that the kite becomes, its wings raised and lowered.
const (
	raised  = "M-190 -86C-146 -128 -82 -112 -26 -30C-12 -42 12 -42 26 -30C82 -112 146 -128 190 -86C136 -98 92 -74 58 6C74 22 66 40 40 38C26 58 -26 58 -40 38C-66 40 -74 22 -58 6C-92 -74 -136 -98 -190 -86Z"
	lowered = "M-190 74C-160 6 -92 -50 -26 -34C-12 -46 12 -46 26 -34C92 -50 160 6 190 74C150 28 96 2 58 8C74 24 66 42 40 40C26 60 -26 60 -40 40C-66 42 -74 24 -58 8C-96 2 -150 28 -190 74Z"
)

// flight are five scenes through which a kite flies at even speed, on a smooth curve through its places in them, and becomes a gull on its way: their
// morphs move as one.
func flight() []*doc.Scene {
	places := [][3]float64{{210, 1500, -38}, {330, 690, -8}, {760, 420, 24}, {830, 1010, 40}, {400, 1240, 4}}
	grounds := []string{"#f3dca6", "#f2c9a1", "#e9b48c", "#c98f7e", "#8ec6da"}
	var out []*doc.Scene
	for i, at := range places {
		m := &maker{scene: fmt.Sprint("flight", i)}
		s := doc.NewScene(m.scene, fmt.Sprint("Flight ", i+1))
		s.Background, s.Stay = fill(grounds[i]), 0
		if i == 0 || i == len(places)-1 {
			s.Stay = 700
		}
		if i > 0 {
			s.Transition = doc.Transition{Kind: doc.Morph, Duration: []int64{0, 900, 700, 700, 900}[i], GoesOn: i > 1}
		}
		if i == 1 {
			s.Transition.Easing, s.Transition.Curve = "linear", true
		}
		hills := m.shape("f-hills", "Hills", doc.Wave, fill(sea), 540-140*float64(i), 1930, 2600, 620, doc.Shape{Count: 5, Depth: 0.3})
		flies := m.kite(at[0], at[1], at[2], 0.8, red, rust, straw)
		if i > 1 {
			flies = m.path("f-kite", "Gull", []string{raised, lowered}[i%2], sail, at[0], at[1])
			flies.Place.Turn = at[2] / 2
		}
		flies.Thread = "f-kite"
		s.Layers = append(s.Layers, hills, flies)
		out = append(out, s)
	}
	gust(out[len(out)-1])
	out[0].Transition = doc.Transition{Kind: doc.Crossfade, Duration: 600}
	return out
}

// gust lets letters shiver, draw together, burst apart and come back.
func gust(s *doc.Scene) {
	m := &maker{scene: s.ID + "-gust"}
	l := m.text("f-gust", "Gust", "what\na gust!", "Bungee", 400, 150, 540, 560, spruce, 3)
	l.Text.Align = doc.Centre
	s.Stay = 4200
	in := m.fade(l, doc.Entrance, at(0), 400)
	in.Unit, in.Overlap = doc.ByLetter, 0.6
	m.becomes(l, at(1000), 900, "ease-in", doc.Becomes{Apart: to(0.45)})
	m.becomes(l, at(1900), 350, "cubic-bezier(0.1,0.8,0.3,1.2)", doc.Becomes{Apart: to(1.45)})
	m.becomes(l, at(2900), 700, "ease-in-out", doc.Becomes{Apart: to(1)})
	m.goes(l, effect.Shiver, 900, nil).Unit = doc.ByLetter
	s.Layers = append(s.Layers, l)
}
