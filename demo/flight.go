package demo

import (
	"fmt"

	"capstan/core/doc"
)

// flight are five scenes through which a kite flies at even speed, on a smooth curve through its places in them: their morphs move as one.
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
		kite := m.kite(at[0], at[1], at[2], 0.8, red, rust, straw)
		kite.Thread = "f-kite"
		s.Layers = append(s.Layers, hills, kite)
		out = append(out, s)
	}
	out[0].Transition = doc.Transition{Kind: doc.Crossfade, Duration: 600}
	return out
}
