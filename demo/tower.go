package demo

import (
	"fmt"

	"capstan/core/doc"
)

// towerStep is how far the tall picture goes down from scene to scene.
const towerStep = 1360

// tower are three scenes in which a picture that is taller than the page is seen in steps, from its foot to its lamp; a marker says how far.
func tower() ([]*doc.Scene, doc.Shift) {
	says := []string{"the east steps", "the boathouse stair", "the lamp, at dusk"}
	shift := doc.Shift{ID: "tower-shift", Thread: "l-tower", Step: doc.Step{Y: towerStep}}
	var out []*doc.Scene
	for i, words := range says {
		m := &maker{scene: fmt.Sprint("tower", i)}
		s := doc.NewScene(m.scene, fmt.Sprint("Tower ", i+1))
		s.Background, s.Stay = fill("#24505c"), 1300
		s.Transition = doc.Transition{Kind: doc.Morph, Duration: 900}
		if i == 0 {
			s.Transition = doc.Transition{Kind: doc.Crossfade, Duration: 600}
		}
		sky := m.rect("l-sky", "Night", "#24505c", 0, -1400, 1300, 5200, 0)
		sky.Fill = doc.Fill{Kind: doc.Linear, Gradient: &doc.Gradient{From: [2]float64{0.5, 0}, To: [2]float64{0.5, 1}, Stops: []doc.Stop{{At: 0, Colour: "#1d2f45"}, {At: 0.6, Colour: "#24505c"}, {At: 1, Colour: "#c98f7e"}}}}
		parts := []*doc.Layer{sky, m.rect("l-sea", "Sea", sea, 0, 1080, 1300, 500, 0), m.rect("l-rock", "Steps", quay, 0, 860, 900, 260, 60)}
		for k := range 9 {
			w := 420 - 18*float64(k)
			parts = append(parts, m.rect(fmt.Sprint("l-course", k), fmt.Sprint("Course ", k+1), []string{sail, rust}[k%2], 0, 620-340*float64(k), w, 342, 4))
			if k%3 == 1 {
				parts = append(parts, m.rect(fmt.Sprint("l-window", k), "Window", "#f3dca6", 0, 600-340*float64(k), 84, 140, 42))
			}
		}
		parts = append(parts, m.rect("l-gallery", "Gallery", spruce, 0, -2320, 420, 60, 10), m.rect("l-room", "Lamp room", amber, 0, -2450, 210, 210, 12), m.rect("l-roof", "Roof", rust, 0, -2600, 260, 100, 40))
		picture := m.group("l-tower", "Tower", 540, 900+towerStep*float64(i), 3, parts...)
		mark := m.layer("l-marker", "Marker", doc.MarkerKind, 6)
		mark.Marker, mark.Fill, mark.Place = &doc.Marker{Style: doc.Dots}, fill(straw), doc.Place{X: 110, Y: 1790, W: 132, H: 26}
		line := m.phrase("l-says", words, 110, 1620, 72, spruce, sail)
		s.Layers = append(s.Layers, picture, line, mark)
		shift.Scenes = append(shift.Scenes, s.ID)
		out = append(out, s)
	}
	return out, shift
}
