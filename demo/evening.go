package demo

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/shape"
)

// Evening is the upright piece: one drawn picture of the harbour, of which each of three scenes shows another part, from noon to dusk by its
// adjustments alone. harbour is the hash of the picture that Harbour makes.
func Evening(harbour string, facts *doc.Media) *doc.Project {
	p := doc.NewProject("kite-day-evening", "Kite Day at Fennel Quay: noon to dusk", 1080, 1350, "midday")
	p.Film.Rate = doc.Rate{Num: 30, Den: 1}
	if facts != nil {
		p.Media = map[string]*doc.Media{harbour: facts}
	}
	p.Film.Scenes = nil
	hours := []struct {
		id, name, hour string
		crop           doc.Crop
		turn           float64
		adjust         *doc.Adjust
		ink, plate     string
	}{
		{"midday", "Noon", "noon", doc.Crop{0.49, 0, 1, 1}, 0, nil, spruce, sail},
		{"four", "Four o’clock", "four o’clock", doc.Crop{0.3, 0.3, 0.656, 1}, -3, &doc.Adjust{Brightness: 0.02, Contrast: 0.12, Warmth: 0.55, Saturation: 0.1}, rust, straw},
		{"dusk", "Dusk", "dusk", doc.Crop{0.02, 0.04, 0.48, 0.94}, 0, &doc.Adjust{
			Brightness: -0.12, Contrast: 0.1, Warmth: 0.4,
			Toned: &doc.Toned{Amount: 0.72, Tones: []doc.Tone{{Colour: "#12303f"}, {Colour: "#f2a65f"}}},
		}, straw, "#0c2523"},
	}
	for i, h := range hours {
		m := &maker{scene: h.id}
		s := doc.NewScene(h.id, h.name)
		s.Stay, s.Background = 2600, fill(sea)
		if i > 0 {
			s.Transition = doc.Transition{Kind: doc.Morph, Duration: 1500}
		}
		view := m.layer("e-harbour", "Harbour", doc.Picture, 5)
		crop := h.crop
		// As high as the page; its width follows from the part, so that nothing is stretched.
		w := (crop[2] - crop[0]) * harbourWide / ((crop[3] - crop[1]) * harbourHigh) * 1350
		view.Picture = &doc.PictureUse{Media: harbour, Crop: &crop, Turn: h.turn}
		view.Place = doc.Place{X: 540, Y: 675, W: w, H: 1350}
		view.Adjust = h.adjust
		if f, ok := shape.FramedOf(view); ok {
			crop = f.Covered().Crop() // turned, it would bare corners of the page
		}
		hour := m.text("e-hour", h.hour, h.hour, "Shrikhand", 400, 108, 540, 1106, h.ink, 3)
		hour.Text.Align = doc.Centre
		hour.Text.Plate = &doc.Plate{Colour: h.plate, Padding: 30, Corner: 34}
		v := m.fade(hour, doc.Entrance, at(int64(250+250*min(i, 1))), 700)
		v.Effect, v.Params = effect.Slide, effect.Params{"direction": 270.0, "distance": 120.0}
		s.Layers = []*doc.Layer{view, hour}
		if i < 2 {
			m.fade(hour, doc.Exit, doc.Start{When: doc.BeforeSceneEnd, Offset: 500}, 400)
		}
		if i == 2 {
			for n, q := range [][3]float64{{250, 330, 46}, {560, 210, 62}, {830, 390, 40}} {
				light := m.ellipse(fmt.Sprint("e-light", n), fmt.Sprint("Lantern ", n+1), "#fff3d0", q[0], q[1], q[2], 1.2*q[2])
				light.Glow = &doc.Glow{Blur: q[2] / 2, Colour: amber}
				m.fade(light, doc.Entrance, at(int64(700+300*n)), 600)
				m.along(light, fmt.Sprintf("M0 60C%g 40 %g 20 0 0", 20-q[2], q[2]-20), "", int64(700+300*n), 1900, "ease-out")
				s.Layers = append(s.Layers, light)
			}
		}
		p.Film.Scenes = append(p.Film.Scenes, s)
	}
	return p
}

// harbourFilm is what Harbour paints.
func harbourFilm() *doc.Project {
	p := doc.NewProject("harbour", "Harbour", harbourWide, harbourHigh, "harbour")
	m := &maker{scene: "h"}
	s := p.Film.Scenes[0]
	s.Background = doc.Fill{Kind: doc.Linear, Gradient: &doc.Gradient{From: [2]float64{0.5, 0}, To: [2]float64{0.5, 0.72}, Stops: []doc.Stop{{At: 0, Colour: "#7fbcd6"}, {At: 0.7, Colour: "#cfe6e4"}, {At: 1, Colour: "#f7ecd2"}}}}
	add := func(l ...*doc.Layer) { s.Layers = append(s.Layers, l...) }
	sun := m.ellipse("sun", "Sun", "#fff6dc", 1490, 250, 150, 150)
	sun.Glow = &doc.Glow{Blur: 60, Colour: "#fff3d0"}
	add(sun)
	for i, c := range [][4]float64{{260, 170, 420, 130}, {820, 110, 320, 96}, {1180, 330, 260, 80}, {1660, 420, 360, 110}, {540, 380, 240, 70}} {
		l := m.shape(fmt.Sprint("cloud", i), "Cloud", doc.Cloud, fill("#fdf8ea"), c[0], c[1], c[2], c[3], doc.Shape{Count: 7 + 2*(i%3)})
		l.Opacity, l.Blur = 0.85, 1.5
		add(l)
	}
	add(
		m.path("far", "Far hills", "M0 0C220 -120 420 -60 620 -90C900 -130 1080 -30 1300 -60C1520 -90 1680 -20 1900 -50L1900 200L0 200Z", "#9fbfbb", 0, 680),
		m.path("hills", "Hills", "M0 0C160 -60 330 -110 520 -50C700 0 900 -20 1060 -40C1300 -70 1560 10 1900 -30L1900 200L0 200Z", "#6f9f97", 0, 740),
	)
	for i := range 16 { // the town
		x, high := 60+float64(i)*58, 60+float64((i*37)%70)
		colour := []string{"#e9dcc0", "#d9b48a", "#c98f6b", "#efe5cf", "#b9c9bd"}[i%5]
		add(m.rect(fmt.Sprint("house", i), "House", colour, x, 760-high/2, 54, high, 2),
			m.path(fmt.Sprint("roof", i), "Roof", "M-31 0L0 -30L31 0Z", []string{rust, "#8a4a35", spruce}[i%3], x, 760-high))
		for k := range 2 {
			add(m.rect(fmt.Sprintf("pane%d-%d", i, k), "Window", "#4f6f70", x-11+22*float64(k), 770-high, 9, 13, 1))
		}
	}
	water := m.rect("water", "Water", sea, 950, 990, 1900, 480, 0)
	water.Fill = doc.Fill{Kind: doc.Linear, Gradient: &doc.Gradient{From: [2]float64{0.5, 0}, To: [2]float64{0.5, 1}, Stops: []doc.Stop{{At: 0, Colour: "#8fc0c0"}, {At: 0.4, Colour: "#4f8f98"}, {At: 1, Colour: "#23555e"}}}}
	add(water)
	for i := range 34 { // light on the water
		y := 775 + float64(i)*13
		glint := m.rect(fmt.Sprint("glint", i), "Glint", "#fdf6e3", float64((i*419)%1900), y, 40+float64((i*53)%120), 3+float64(i)/9, 3)
		glint.Opacity = 0.35
		add(glint)
	}
	// The lighthouse on its rock, and the quay.
	add(m.path("rock", "Rock", "M-170 0C-140 -60 -80 -70 -40 -96C20 -120 90 -84 130 -50C160 -30 180 -10 190 0Z", "#4a5f5c", 1590, 800),
		m.path("tower", "Tower", "M-46 0L-30 -300L30 -300L46 0Z", "#fdf6e3", 1590, 716))
	for i := range 3 {
		w := 42 - 5*float64(i)
		add(m.path(fmt.Sprint("band", i), "Band", fmt.Sprintf("M%g 0L%g -44L%g -44L%g 0Z", -w, -w+2.4, w-2.4, w), red, 1590, 690-100*float64(i)))
	}
	add(m.rect("lamp", "Lamp", "#fff3d0", 1590, 396, 40, 44, 4), m.path("cap", "Cap", "M-36 0L0 -44L36 0Z", spruce, 1590, 374), m.rect("rim", "Rim", spruce, 1590, 420, 84, 10, 3))
	for i := range 7 {
		add(m.rect(fmt.Sprint("pile", i), "Pile", "#2b3f3d", 70+float64(i)*120, 1050, 22, 190, 6))
	}
	add(m.rect("deck", "Quay", "#3b5450", 400, 960, 860, 26, 4), m.rect("deck2", "Planks", "#58736e", 400, 952, 860, 8, 2))
	for i, b := range [][3]float64{{1010, 900, 1}, {1330, 850, 0.6}, {1760, 1010, 1.25}, {640, 1080, 1.1}} {
		x, y, k := b[0], b[1], b[2]
		add(m.path(fmt.Sprint("hull", i), "Hull", fmt.Sprintf("M%g 0C%g %g %g %g %g 0Z", -90*k, -70*k, 52*k, 70*k, 52*k, 96*k), []string{rust, spruce, "#7a3b2c", "#2f5d62"}[i], x, y),
			m.path(fmt.Sprint("sail", i), "Sail", fmt.Sprintf("M0 %gL0 %gC%g %g %g %g %g %gZ", -8*k, -190*k, 40*k, -150*k, 66*k, -70*k, 74*k, -8*k), []string{sail, straw, red, "#efe5cf"}[i], x+4*k, y),
			m.rect(fmt.Sprint("mast", i), "Mast", spruce, x, y-98*k, 4*k, 200*k, 0))
	}
	for i, k := range [][4]float64{{1180, 210, 20, 74}, {1360, 480, -16, 50}, {330, 520, 14, 58}, {760, 300, -22, 66}, {1700, 170, 12, 44}} {
		kite := m.sailcloth(i+1, k[0], k[1], k[2], k[3], fill([]string{red, amber, rust, spruce, red}[i]))
		add(kite)
	}
	for i, g := range [][3]float64{{980, 520, 1}, {1060, 480, 0.7}, {1440, 560, 0.8}, {480, 250, 0.9}, {90, 620, 0.8}} {
		wing := m.path(fmt.Sprint("gull", i), "Gull", fmt.Sprintf("M%g %gC%g %g %g %g 0 0C%g %g %g %g %g %g", -38*g[2], -8*g[2], -26*g[2], -26*g[2], -8*g[2], -14*g[2], 8*g[2], -14*g[2], 26*g[2], -26*g[2], 38*g[2], -8*g[2]), sail, g[0], g[1])
		wing.Fill = doc.Fill{Kind: doc.NoFill}
		wing.Stroke = &doc.Stroke{Fill: fill("#fdf6e3"), Width: 5, Cap: "round"}
		add(wing)
	}
	front := m.shape("front", "Near water", doc.Wave, fill("#1c4a53"), 950, 1190, 2100, 150, doc.Shape{Count: 9, Depth: 0.16})
	front.Opacity = 0.8
	add(front)
	return p
}
