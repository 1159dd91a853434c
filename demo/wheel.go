package demo

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/geom"
)

// The four hours of the wheel, each in its own colours.
var hours = []struct {
	name, words string
	roles       map[string]string
}{
	{"Ten o’clock", "kites at ten", map[string]string{"ground": "#8ec6da", "accent": red, "words": spruce}},
	{"Noon", "wheels at noon", map[string]string{"ground": "#f3dca6", "accent": rust, "words": spruce}},
	{"Four o’clock", "cocoa at four", map[string]string{"ground": "#f2c9a1", "accent": sea, "words": spruce}},
	{"Dusk", "lanterns at dusk", map[string]string{"ground": "#24505c", "accent": amber, "words": sail}},
}

// byLetter lets the words of the hour become those of the next letter by letter.
var byLetter = map[string]doc.Strand{"w-says": {Letters: true}}

// badges are the four on the wheel: a kite, a pinwheel, a cup and a lantern. Each is turned so that it stands upright when it is on top.
func (m *maker) badges() []*doc.Layer {
	role := func(name string, tone int) doc.Fill {
		return doc.Fill{Kind: doc.Solid, Colour: hours[0].roles[name], Role: name, Tone: tone}
	}
	signs := [][]*doc.Layer{
		{m.shape("w-sail", "Sail", doc.Polygon, role("accent", 0), 0, -4, 132, 164, doc.Shape{Count: 4}), m.shape("w-spar", "Spar", doc.Rectangle, role("words", 0), 0, -4, 6, 160, doc.Shape{}), m.shape("w-cross", "Cross spar", doc.Rectangle, role("words", 0), 0, -4, 130, 6, doc.Shape{})},
		{m.shape("w-vanes", "Vanes", doc.Star, role("accent", 0), 0, 0, 150, 150, doc.Shape{Count: 6, Depth: 0.62}), m.shape("w-pin", "Pin", doc.Ellipse, role("words", 0), 0, 0, 30, 30, doc.Shape{})},
		{m.shape("w-cup", "Cup", doc.Rectangle, role("accent", 0), -8, 12, 104, 96, doc.Shape{}), m.shape("w-ear", "Ear", doc.Ring, role("accent", 0), 56, 8, 62, 62, doc.Shape{Hole: 0.6}), m.shape("w-steam", "Steam", doc.Wave, role("words", 0), -8, -66, 90, 20, doc.Shape{Count: 3, Depth: 0.4})},
		{m.shape("w-paper", "Paper", doc.Ellipse, role("accent", 0), 0, 0, 110, 130, doc.Shape{}), m.shape("w-cap", "Cap", doc.Rectangle, role("words", 0), 0, -66, 50, 16, doc.Shape{}), m.shape("w-foot", "Foot", doc.Rectangle, role("words", 0), 0, 66, 42, 14, doc.Shape{})},
	}
	signs[2][0].Corner = 24
	var out []*doc.Layer
	for i, parts := range signs {
		turn := 90 * float64(-i)
		at := geom.Rotate(turn).Apply(geom.Point{Y: -330})
		plate := m.shape(fmt.Sprint("w-plate", i), "Plate", doc.Ellipse, role("ground", 4), 0, 0, 250, 250, doc.Shape{})
		rim := m.shape(fmt.Sprint("w-rim", i), "Rim", doc.Ring, role("words", 0), 0, 0, 250, 250, doc.Shape{Hole: 0.94})
		g := m.group(fmt.Sprint("w-badge", i), []string{"Kite badge", "Pinwheel badge", "Cocoa badge", "Lantern badge"}[i], at.X, at.Y, i, append([]*doc.Layer{plate, rim}, parts...)...)
		g.Place.Turn = turn
		out = append(out, g)
	}
	return out
}

// hour is a scene of the wheel: it has turned a quarter further, and the colours are those of the hour.
func hour(n int) *doc.Scene {
	h := hours[n]
	m := &maker{scene: fmt.Sprint("hour", n)}
	s := doc.NewScene(m.scene, h.name)
	s.Stay, s.Roles = 1200, h.roles
	s.Background = doc.Fill{Kind: doc.Solid, Colour: h.roles["ground"], Role: "ground"}
	if n > 0 {
		s.Transition = doc.Transition{Kind: doc.Morph, Duration: 800, Threads: byLetter}
	}
	band := m.shape("w-band", "Band", doc.Ring, doc.Fill{Kind: doc.Solid, Colour: red, Role: "accent", Tone: 2}, 0, 0, 760, 760, doc.Shape{Hole: 0.86})
	hub := m.shape("w-hub", "Hub", doc.Ellipse, doc.Fill{Kind: doc.Solid, Colour: red, Role: "words"}, 0, 0, 90, 90, doc.Shape{})
	wheel := m.group("w-wheel", "Wheel", 540, 1040, 2, append([]*doc.Layer{band, hub}, m.badges()...)...)
	wheel.Place.Turn = 90 * float64(n)
	says := m.text("w-says", "Hour", h.words, "Caveat", 700, 150, 540, 330, spruce, 5)
	says.Text.Align, says.Fill = doc.Centre, doc.Fill{Kind: doc.Solid, Colour: spruce, Role: "words"}
	s.Layers = append(s.Layers, wheel, says)
	return s
}
