package demo

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/effect"
)

// Talk returns the short talk “How a kite flies”: wind, what a kite needs, and the evening.
func Talk() *doc.Project {
	p := doc.NewProject("kite-day-talk", "Kite Day at Fennel Quay: how a kite flies", 1920, 1080, "wind")
	p.Film.Scenes = []*doc.Scene{wind(), needs(), evening()}
	return p
}

// move gives a layer an entrance or exit.
func (m *maker) move(l *doc.Layer, kind, name string, start doc.Start, ms int64, params effect.Params) *doc.Move {
	v := &doc.Move{ID: m.id("m"), Kind: kind, Effect: name, Start: start, Duration: ms, Params: params}
	l.Moves = append(l.Moves, v)
	return v
}

// goes lets a layer go on through the whole scene; ms is a cycle, 0 where the parameters say how long that is.
func (m *maker) goes(l *doc.Layer, name string, ms int64, params effect.Params) *doc.Move {
	v := &doc.Move{ID: m.id("m"), Kind: doc.Loop, Effect: name, Start: at(0), Duration: ms, Lasts: doc.WholeScene, Params: params, Seed: int64(m.n)}
	l.Moves = append(l.Moves, v)
	return v
}

// A gull’s way as acting one leaves it: a line of few points, and an easing that glides and halts.
const (
	actedWay    = "M-1750 334C-1646 289 -1550 249 -1436 249C-1432 249 -1429 251 -1425 251C-1401 251 -1379 255 -1356 260C-1343 263 -1329 264 -1315 268C-1307 270 -1299 275 -1291 277C-1137 323 -1000 430 -834 430C-815 430 -827 432 -807 431C-699 423 -610 374 -521 318C-501 306 -484 290 -465 277C-377 215 -291 149 -198 90C-137 51 -68 24 0 0"
	actedEasing = "linear(0 0%, 0.05256 3.41%, 0.08853 5.974%, 0.1047 7.256%, 0.134 9.821%, 0.1544 11.97%, 0.1685 13.67%, 0.1828 15.82%, 0.1998 19.23%, 0.2286 28.21%, 0.2423 31.21%, 0.2495 32.49%, 0.2617 34.18%, 0.284 36.74%, 0.3078 38.9%, 0.3419 41.46%, 0.3809 44.03%, 0.4744 49.56%, 0.5788 55.97%, 0.6051 57.69%, 0.6417 60.26%, 0.6588 61.54%, 0.6789 63.26%, 0.7009 65.38%, 0.7118 66.67%, 0.7273 68.79%, 0.7469 72.64%, 0.7621 76.92%, 0.7765 80.33%, 0.7883 82.49%, 0.8058 85.05%, 0.8339 88.03%, 0.8746 91.46%, 0.9102 94.03%, 1 100%)"
)

// gull is a bird in four poses of its wings, one shown at a time.
func (m *maker) gull(n int, x, y, s float64) *doc.Layer {
	pose := func(k int, tip, mid float64) *doc.Layer {
		d := fmt.Sprintf("M%g %gC%g %g %g %g 0 0C%g %g %g %g %g %gC%g %g %g %g 0 %gC%g %g %g %g %g %gZ",
			-60*s, tip*s, -40*s, mid*s, -16*s, mid*s, 16*s, mid*s, 40*s, mid*s, 60*s, tip*s,
			38*s, (mid+10)*s, 16*s, (mid+14)*s, 12*s, -16*s, (mid+14)*s, -38*s, (mid+10)*s, -60*s, tip*s)
		return m.path(fmt.Sprintf("g-gull%d-%d", n, k), fmt.Sprintf("Pose %d", k+1), d, sail, 0, 0)
	}
	g := m.group(fmt.Sprintf("g-gull%d", n), fmt.Sprintf("Gull %d", n), x, y, 4, pose(0, -26, -22), pose(1, -4, -14), pose(2, 22, -4), pose(3, -2, -12))
	m.goes(g, effect.FlipBook, 0, effect.Params{"each": 120.0})
	return g
}

func wind() *doc.Scene {
	m := &maker{scene: "wind"}
	s := doc.NewScene("wind", "First, wind")
	s.Stay, s.Background = 4400, fill("#8ec6da")
	var clouds []*doc.Layer
	for i, c := range [][3]float64{{330, 210, 1}, {1120, 140, 0.7}, {1650, 290, 1.15}} {
		l := m.cloud(i+1, c[0], c[1], c[2])
		m.goes(l, effect.Sail, 4400, effect.Params{"by": 60 + 40*c[2]})
		clouds = append(clouds, l)
	}
	title := m.text("t-title", "Title", "How a kite flies", "Shrikhand", 400, 190, 200, 470, spruce, 0)
	in := m.move(title, doc.Entrance, effect.Bounce, at(300), 1900, nil)
	in.Unit, in.Overlap = doc.ByLetter, 0.75
	sub := m.text("t-sub", "First, wind", "first of all it needs wind", "Fredoka", 500, 64, 214, 700, spruce, 0)
	words := m.move(sub, doc.Entrance, effect.Focus, doc.Start{When: doc.WhenEnds, Of: in.ID, Offset: -500}, 900, effect.Params{"blur": 18.0})
	words.Unit, words.Overlap = doc.ByWord, 0.5
	gull := m.gull(1, 1500, 420, 1)
	m.along(gull, actedWay, doc.Arrives, 200, 3900, actedEasing)
	other := m.gull(2, 1230, 330, 0.65)
	m.along(other, "M-1500 300C-1000 120 -600 330 0 0", doc.Arrives, 500, 3900, "linear")
	m.goes(other, effect.Bob, 1300, effect.Params{"by": 10.0})
	petal := m.path("t-petals", "Petals", "M0 -16C14 -12 16 6 0 18C-12 6 -12 -10 0 -16Z", dusk, 960, -60)
	m.goes(petal, effect.Flocks, 4400, effect.Params{"way": "fall", "spread": 2100.0, "distance": 1150.0, "life": 5200.0, "rate": 7.0, "turn": 540.0})
	// One pan of the view: the clouds are farther away than the water, the quay is near; the words stay.
	harbour := m.harbour()
	for _, l := range clouds {
		l.Depth = 2.6
	}
	for i, depth := range []float64{1.6, 1.3, 0} {
		harbour[i].Depth = depth
	}
	title.Stays, sub.Stays = true, true
	view := m.view()
	m.becomes(view, at(0), 4400, "linear", doc.Becomes{X: to(1080)})
	s.Layers = append(s.Layers, clouds...)
	s.Layers = append(s.Layers, harbour...)
	s.Layers = append(s.Layers, title, sub, gull, other, petal, view)
	return s
}

func needs() *doc.Scene {
	m := &maker{scene: "needs"}
	s := doc.NewScene("needs", "What it needs")
	s.Stay, s.Background = 5200, fill(straw)
	s.Transition = doc.Transition{Kind: effect.Iris, Duration: 900, Params: effect.Params{"softness": 40.0}}
	s.Cues = []doc.Cue{{ID: "needs-line", Name: "A line", At: 1500}, {ID: "needs-tail", Name: "A tail", At: 2400}}
	disc := func(n int, words, colour string, x float64) *doc.Layer {
		t := m.text(fmt.Sprint("n-words", n), words, words, "Fredoka", 600, 62, 0, 0, sail, 0)
		t.Text.Align = doc.Centre
		t.Place.Y = -38
		return m.group(fmt.Sprint("n-disc", n), words, x, 420, n, m.ellipse(fmt.Sprint("n-plate", n), "Plate", colour, 0, 0, 400, 400), t)
	}
	wind, line, tail := disc(1, "wind", deep, 420), disc(2, "a line", rust, 960), disc(3, "a tail", spruce, 1500)
	m.move(wind, doc.Entrance, effect.Clock, at(500), 800, nil)
	m.move(line, doc.Entrance, effect.Iris, doc.Start{When: doc.AtCue, Of: "needs-line"}, 700, effect.Params{"shape": "diamond"})
	m.move(tail, doc.Entrance, effect.BarnDoors, doc.Start{When: doc.AtCue, Of: "needs-tail"}, 700, effect.Params{"softness": 30.0})
	m.goes(tail, effect.Rock, 2600, effect.Params{"angle": 3.0})
	wheel := m.pinwheel(4, 1560, 928, 0.95, red, amber)
	m.along(wheel, "M-1700 0L0 0", doc.Arrives, 200, 4200, "ease-out")
	m.goes(wheel, effect.Roll, 0, effect.Params{"radius": 92.0})
	s.Layers = append(s.Layers, m.harbour()...)
	s.Layers = append(s.Layers, wheel, wind, line, tail)
	return s
}

func evening() *doc.Scene {
	m := &maker{scene: "dusk"}
	s := doc.NewScene("dusk", "Until the lamps are lit")
	s.Stay, s.Background = 4600, fill("#24505c")
	s.Transition = doc.Transition{Kind: effect.BarnDoors, Duration: 900, Params: effect.Params{"from": "outside"}}
	lantern := func(n int, x, y, size float64) *doc.Layer {
		light := m.ellipse(fmt.Sprint("d-light", n), "Light", amber, 0, 0, 3.1*size, 3.1*size)
		light.Opacity, light.Feather = 0.5, 1.3*size
		m.goes(light, effect.Waver, 1200, effect.Params{"by": 0.45})
		glass := m.rect(fmt.Sprint("d-glass", n), "Glass", straw, 0, 0, size, 1.3*size, 0.3*size)
		m.goes(glass, effect.Swell, 1800, effect.Params{"by": 0.03})
		cap := m.rect(fmt.Sprint("d-cap", n), "Cap", spruce, 0, -0.75*size, 1.1*size, 0.24*size, 0.1*size)
		g := m.group(fmt.Sprint("d-lantern", n), fmt.Sprintf("Lantern %d", n), x, y, 6, light, glass, cap)
		g.Place.Pivot = &[2]float64{0, -0.9 * size}
		m.goes(g, effect.Rock, 2400, effect.Params{"angle": 5.0, "phase": 0.3 * float64(n)})
		return g
	}
	buoy := m.ellipse("d-buoy", "Buoy light", red, 1480, 900, 34, 34)
	m.goes(buoy, effect.Blink, 0, nil)
	words := m.text("d-words", "Closing words", "and somebody\nto hold on", "Shrikhand", 400, 170, 840, 300, straw, 1)
	words.Text.Align, words.Text.LineHeight = doc.Centre, 1.15
	in := m.move(words, doc.Entrance, effect.Scale, at(500), 900, nil)
	in.Unit, in.Overlap = doc.ByLine, 0.4
	kite := m.kite(1680, 270, 20, 0.7, red, rust, straw)
	m.move(kite, doc.Entrance, effect.Scale, at(200), 350, effect.Params{"from": 1.4}).Easing = "ease-in"
	m.rock(kite.Children[0], 9, 1800)
	m.goes(kite, effect.Shiver, 2000, nil)
	s.Layers = append(s.Layers, m.harbour()...)
	s.Layers = append(s.Layers, buoy, lantern(1, 250, 770, 110), lantern(2, 660, 800, 80), lantern(3, 1240, 770, 95), words, kite)
	return s
}
