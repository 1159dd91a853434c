package demo

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/geom"
)

// HarbourCut lifts the harbour off its sky, as it was done on the page: which side is ground, and strokes where that was not enough.
func HarbourCut(harbour string) *doc.Cutout {
	line := func(how string, width float64, at ...float64) doc.CutStroke {
		s := doc.CutStroke{How: how, Width: width}
		for i := 0; i < len(at); i += 2 {
			s.Points = append(s.Points, [2]float64{at[i], at[i+1]})
		}
		return s
	}
	const drop, keep = doc.CutDrop, doc.CutKeep
	return &doc.Cutout{Of: harbour, Ground: "t", Strokes: []doc.CutStroke{
		line(drop, 30, 100, 140, 420, 190), line(drop, 30, 720, 100, 930, 120), line(drop, 30, 480, 380, 610, 385), line(drop, 30, 1100, 330, 1250, 335), // clouds
		line(drop, 20, 1520, 420, 1545, 440), line(drop, 20, 1660, 410, 1800, 420),
		line(drop, 40, 1460, 240, 1520, 260),                                                                                                             // the sun
		line(drop, 30, 340, 470, 320, 560), line(drop, 26, 730, 225, 790, 350), line(drop, 20, 760, 280, 790, 370), line(drop, 30, 1200, 180, 1170, 270), // kites
		line(drop, 20, 1690, 140, 1700, 200), line(drop, 24, 1360, 460, 1360, 520),
		line(keep, 30, 200, 640, 900, 640, 1400, 690, 1850, 680), line(keep, 30, 100, 900, 1800, 1100), line(keep, 10, 1590, 350, 1590, 690), // hills, water, lighthouse
		line(keep, 16, 1030, 760, 1040, 870), line(keep, 16, 940, 915, 1080, 920), line(keep, 8, 50, 685, 70, 685), line(keep, 8, 110, 650, 130, 650), line(keep, 8, 400, 676, 416, 676),
	}}
}

// Lifted is the upright piece with depth: the harbour lifted off its sky, a kite and bands of light between them; then a window in a plate, with the water going
// by behind it. harbour and behind are the pictures of HarbourCut and of what lies behind it, mask is that of the cut.
func Lifted(harbour, behind, mask string, facts, behindFacts, maskFacts *doc.Media) *doc.Project {
	p := doc.NewProject("kite-day-lifted", "Kite Day at Fennel Quay: between sky and sea", 1080, 1350, "between")
	p.Film.Rate = doc.Rate{Num: 30, Den: 1}
	p.Media = map[string]*doc.Media{harbour: facts, behind: behindFacts, mask: maskFacts}
	p.Film.Scenes = []*doc.Scene{between(harbour, behind, mask), throughTheWindow(harbour)}
	return p
}

func between(harbour, behind, mask string) *doc.Scene {
	m := &maker{scene: "between"}
	s := doc.NewScene("between", "Between sky and sea")
	s.Stay, s.Background = 4200, fill("#7fbcd6")
	s.Roles = map[string]string{"ground": "#7fbcd6", "accent": "#f2b85f", "accent tone": "#fff3d0", "words": "#0c2523"}
	part := func(thread, name, media string) *doc.Layer {
		l := m.layer(thread, name, doc.Picture, 5)
		l.Picture = &doc.PictureUse{Media: media, Crop: &doc.Crop{0.49, 0, 1, 1}}
		l.Place = doc.Place{X: 540, Y: 675, W: 0.51 * harbourWide * 1350 / harbourHigh, H: 1350}
		return l
	}
	ground := part("l-behind", "Harbour behind", behind)
	front := part("l-harbour", "Harbour in front", harbour)
	front.Picture.Cut = HarbourCut(harbour)
	front.Picture.Cut.Mask = mask
	m.along(front, "M0 26C0 16 0 8 0 0", doc.Arrives, 0, 2600, "ease-out")
	var bands []*doc.Layer
	for i := range 5 {
		turn := 20 * float64(i-2)
		l := m.rect(fmt.Sprint("l-band", i), fmt.Sprint("Band ", i+1), "#f2b85f", 0, -800, 150, 1600, 0)
		l.Place.X, l.Place.Y = around(turn, 800)
		l.Place.Turn, l.Place.Pivot = turn, &[2]float64{0, 800}
		l.Feather, l.Opacity = 25, 0.55
		role := "accent"
		if i%2 == 1 {
			role = "accent tone"
		}
		l.Fill = inRole(role, 0)
		l.Fill.Colour = s.Roles[role]
		m.fade(l, doc.Entrance, at(int64(200+300*i)), 900)
		m.rock(l, 4, 4200)
		bands = append(bands, l)
	}
	light := m.group("l-light", "Light bands", 540, 1180, 3, bands...)
	light.Blend = "screen"
	kite := m.kite(300, 585, 16, 1, red, rust, straw)
	kite.Thread, kite.Name = "l-kite", "Kite"
	m.along(kite, "M90 420C40 330 -30 160 0 0", doc.Arrives, 300, 2400, "ease-out")
	title := m.text("l-title", "Title", "between\nsky and sea", "Shrikhand", 400, 96, 540, 1010, sail, 3)
	title.Text.Align = doc.Centre
	v := m.fade(title, doc.Entrance, at(900), 700)
	v.Effect, v.Params = effect.Slide, effect.Params{"direction": 270.0, "distance": 90.0}
	s.Layers = []*doc.Layer{ground, light, kite, front, title}
	return s
}

func throughTheWindow(harbour string) *doc.Scene {
	m := &maker{scene: "window"}
	s := doc.NewScene("window", "Through the window")
	s.Stay, s.Background = 3600, fill(sea)
	s.Transition = doc.Transition{Kind: doc.Crossfade, Duration: 700}
	water := m.layer("l-water", "Water going by", doc.Picture, 5)
	water.Picture = &doc.PictureUse{Media: harbour, Crop: &doc.Crop{0.05, 0.55, 1, 1}}
	water.Place = doc.Place{X: 700, Y: 600, W: 0.95 * harbourWide * 1.4, H: 0.45 * harbourHigh * 1.4}
	m.along(water, "M0 0L-420 0", doc.Departs, 0, 3600, "linear")
	plate := m.rect("l-plate", "Boathouse wall", "#17403c", 540, 675, 1080, 1350, 0)
	window := m.ellipse("l-window", "Window", sail, 540, 590, 640, 640)
	window.Mask = doc.Outside
	wall := m.group("l-wall", "Boathouse wall with a window", 0, 0, 3, plate, window)
	rim := m.shape("l-rim", "Rim", doc.Ring, fill(amber), 540, 590, 720, 720, doc.Shape{Hole: 0.88})
	says := m.text("l-says", "Says", "from the boathouse", "Fredoka", 600, 74, 540, 1040, straw, 3)
	says.Text.Align = doc.Centre
	m.fade(says, doc.Entrance, at(700), 600)
	s.Layers = []*doc.Layer{water, wall, rim, says}
	return s
}

// around is where the middle of a band lies whose lower end is at 0 and that is turned by degrees.
func around(degrees, far float64) (x, y float64) {
	p := geom.Rotate(degrees).ApplyVector(geom.Point{Y: -far})
	return p.X, p.Y
}
