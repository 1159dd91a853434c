package demo

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/geom"
)

// Sticker is the sticker: a gull on a clear ground that flies on the spot with a kite's tail, and goes round.
func Sticker() *doc.Project {
	p := doc.NewProject("kite-day-sticker", "Kite Day: gull sticker", 512, 512, "flies")
	p.Film.Rate = doc.Rate{Num: 25, Den: 1}
	p.Film.Clear, p.Film.Under, p.Film.Loop = true, sail, true
	s := p.Film.Scenes[0]
	s.Name, s.Stay = "Flies", 1600
	s.Background = doc.Fill{Kind: doc.NoFill}
	m := &maker{scene: "flies"}

	bow := func(n int, x, y, turn float64, colour string) *doc.Layer {
		b := m.path(fmt.Sprint("k-bow", n), fmt.Sprint("Bow ", n), "M0 0L-27.2 -16L-24 16ZM0 0L27.2 -16L24 16Z", colour, x, y)
		b.Place.Turn, b.Place.Pivot = turn, &[2]float64{0, 0}
		m.rock(b, 14, 800)
		return b
	}
	line := m.path("k-line", "Line", "M0 0C-20.8 36.8 19.2 60.8 -3.2 97.6C-22.4 126.4 11.2 140.8 1.6 164.8", "", 0, 0)
	line.Fill = doc.Fill{Kind: doc.NoFill}
	line.Stroke = &doc.Stroke{Fill: fill(spruce), Width: 6, Cap: geom.RoundCap}
	tail := m.group("k-tail", "Kite tail", 270, 286, 1, line, bow(1, 2, 58, 20, red), bow(2, -3, 106, -16, amber), bow(3, 2, 157, 12, red))
	tail.Place.Pivot = &[2]float64{0, 0}
	m.rock(tail, 9, 1600)

	wing := func(thread, name, near string, x, y, lean float64, tip string) *doc.Layer {
		g := m.group(thread, name, x, y, 3,
			m.path(thread+"-tip", "Tip", "M-94.4 -96C-120 -120 -148.8 -132.8 -177.6 -131.2C-156.8 -112 -140.8 -89.6 -124.8 -65.6Z", tip, 0, 0),
			m.path(thread+"-blade", "Blade", "M27.2 -4.8C12.8 -44.8 -38.4 -94.4 -102.4 -104C-120 -92.8 -121.6 -80 -116.8 -67.2C-92.8 -22.4 -57.6 12.8 -14.4 20.8Z", near, 0, 0),
		)
		g.Place.Turn, g.Place.Pivot = lean, &[2]float64{0, 0}
		m.rock(g, 26, 800)
		return g
	}
	far := wing("k-far", "Far wing", "#b9cfd2", 266, 228, 34, "#5f9da1")
	near := wing("k-near", "Near wing", sail, 245, 240, 4, spruce)
	body := m.path("k-body", "Body", "M-92.8 11.2C-83.2 -28.8 -35.2 -46.4 20.8 -36.8C38.4 -62.4 73.6 -70.4 92.8 -49.6C102.4 -36.8 99.2 -20.8 84.8 -12.8C76.8 27.2 32 49.6 -16 46.4C-49.6 43.2 -78.4 33.6 -126.4 46.4C-113.6 33.6 -102.4 25.6 -92.8 11.2Z", "#fff9ec", 256, 249)
	beak := m.path("k-beak", "Beak", "M0 0C17.6 0 32 6.4 40 16C25.6 16 11.2 17.6 -1.6 16Z", amber, 346, 203)
	eye := m.ellipse("k-eye", "Eye", spruce, 338, 209, 11, 11)
	bird := m.group("k-gull", "Gull", 0, 13, 2, far, tail, body, beak, eye, near)
	bird.Moves = append(bird.Moves, &doc.Move{ID: m.id("m"), Kind: doc.Loop, Effect: effect.Bob, Start: at(0), Duration: 800, Lasts: doc.WholeScene, Params: effect.Params{"by": 9.0}})
	s.Layers = []*doc.Layer{bird}
	return p
}
