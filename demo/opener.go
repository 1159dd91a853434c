// Package demo makes the demo projects: the pieces of Kite Day at Fennel Quay, all made up and drawn for
// Capstan.
package demo

import (
	"fmt"
	"math"
	"strings"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/geom"
)

// Colours of Kite Day.
const (
	spruce = "#17403c"
	sail   = "#fdf6e3"
	red    = "#d8573a"
	rust   = "#b5412a"
	straw  = "#f3dca6"
	amber  = "#e0a03a"
	sea    = "#5f9da1"
	deep   = "#3f7f86"
	quay   = "#27504c"
	dusk   = "#f2c9a1"
)

// maker hands out ids in order, so that the demo is the same at every start.
type maker struct {
	scene string
	n     int
}

func (m *maker) id(kind string) string {
	m.n++
	return fmt.Sprintf("%s-%s%d", m.scene, kind, m.n)
}

func fill(c string) doc.Fill { return doc.Fill{Kind: doc.Solid, Colour: c} }

func (m *maker) layer(thread, name, kind string, tint int) *doc.Layer {
	return &doc.Layer{
		ID: m.id("l"), Thread: thread, Name: name, Kind: kind, Opacity: 1, Tint: tint, Fill: doc.Fill{Kind: doc.NoFill},
	}
}

func (m *maker) path(thread, name, d, colour string, x, y float64) *doc.Layer {
	l := m.layer(thread, name, doc.PathKind, 0)
	l.Path, l.Fill = d, fill(colour)
	l.Place = doc.Place{X: x, Y: y}
	return l
}

func (m *maker) rect(thread, name, colour string, x, y, w, h, corner float64) *doc.Layer {
	l := m.layer(thread, name, doc.Rectangle, 0)
	l.Fill, l.Corner = fill(colour), corner
	l.Place = doc.Place{X: x, Y: y, W: w, H: h}
	return l
}

func (m *maker) ellipse(thread, name, colour string, x, y, w, h float64) *doc.Layer {
	l := m.layer(thread, name, doc.Ellipse, 0)
	l.Fill = fill(colour)
	l.Place = doc.Place{X: x, Y: y, W: w, H: h}
	return l
}

func (m *maker) text(thread, name, words, family string, weight int, size, x, y float64, colour string, tint int) *doc.Layer {
	l := m.layer(thread, name, doc.TextKind, tint)
	l.Text = &doc.Text{Align: doc.Left, Runs: []doc.Run{{Text: words, Family: family, Weight: weight, Size: size}}}
	l.Fill = fill(colour)
	l.Place = doc.Place{X: x, Y: y}
	return l
}

func (m *maker) group(thread, name string, x, y float64, tint int, children ...*doc.Layer) *doc.Layer {
	l := m.layer(thread, name, doc.Group, tint)
	l.Place = doc.Place{X: x, Y: y}
	l.Children = children
	return l
}

func (m *maker) fade(l *doc.Layer, kind string, start doc.Start, ms int64) *doc.Move {
	v := &doc.Move{ID: m.id("m"), Kind: kind, Effect: effect.Fade, Start: start, Duration: ms}
	l.Moves = append(l.Moves, v)
	return v
}

func (m *maker) along(l *doc.Layer, d, rest string, at, ms int64, easing string) *doc.Move {
	v := &doc.Move{
		ID: m.id("m"), Kind: doc.MotionPath, Effect: doc.Along, Start: doc.Start{When: doc.AtTime, Offset: at},
		Duration: ms, Easing: easing, Path: &doc.PathParams{D: d, Rest: rest},
	}
	l.Moves = append(l.Moves, v)
	return v
}

func (m *maker) spin(l *doc.Layer, ms int64, continues string, back bool) *doc.Move {
	v := &doc.Move{
		ID: m.id("m"), Kind: doc.Loop, Effect: effect.Spin, Start: doc.Start{When: doc.AtTime}, Duration: ms, Lasts: "scene",
		Continues: continues, Params: effect.Params{"anticlockwise": back},
	}
	l.Moves = append(l.Moves, v)
	return v
}

// rock lets a layer swing through the whole scene.
func (m *maker) rock(l *doc.Layer, degrees float64, ms int64) {
	l.Moves = append(l.Moves, &doc.Move{
		ID: m.id("m"), Kind: doc.Loop, Effect: effect.Rock, Start: at(0), Duration: ms, Lasts: doc.WholeScene, Params: effect.Params{"angle": degrees},
	})
}

func at(ms int64) doc.Start { return doc.Start{When: doc.AtTime, Offset: ms} }

// kite is four panels of sailcloth about the crossing of its spars, with a tail of bows.
func (m *maker) kite(x, y, turn, scale float64, a, b, c string) *doc.Layer {
	pt := func(px, py float64) string {
		return fmt.Sprintf("%g %g", math.Round(px*scale*10)/10, math.Round(py*scale*10)/10)
	}
	tri := func(p ...string) string { return "M" + strings.Join(p, "L") + "Z" }
	top, right, bottom, left, mid := pt(0, -190), pt(125, -20), pt(0, 260), pt(-125, -20), pt(0, -20)
	string1 := fmt.Sprintf("M%s C%s %s %s C%s %s %s L%s C%s %s %s C%s %s %sZ",
		pt(-4, 255), pt(-60, 330), pt(50, 380), pt(-6, 460), pt(-60, 540), pt(30, 580), pt(-14, 660), pt(-4, 660),
		pt(42, 580), pt(-48, 540), pt(6, 460), pt(62, 380), pt(-48, 330), pt(4, 255))
	bow := func(px, py, r float64) string {
		cos, sin := math.Cos(r), math.Sin(r)
		q := func(dx, dy float64) string { return pt(px+dx*cos-dy*sin, py+dx*sin+dy*cos) }
		return tri(q(0, 0), q(-46, -24), q(-46, 24)) + tri(q(0, 0), q(46, -24), q(46, 24))
	}
	tail := m.group("t-tail", "Tail", 0, 0, 1,
		m.path("t-tail-line", "Line", string1, spruce, 0, 0),
		m.path("t-bow-1", "Bow 1", bow(4, 362, 0.4), red, 0, 0),
		m.path("t-bow-2", "Bow 2", bow(-12, 486, -0.3), amber, 0, 0),
		m.path("t-bow-3", "Bow 3", bow(-14, 610, 0.2), red, 0, 0),
	)
	// The tail swings from where it is tied on.
	tail.Place.Pivot = &[2]float64{0, math.Round(255 * scale)}
	g := m.group("t-kite", "Red kite", x, y, 1,
		tail,
		m.path("t-panel-1", "Upper left panel", tri(top, mid, left), a, 0, 0),
		m.path("t-panel-2", "Upper right panel", tri(top, right, mid), c, 0, 0),
		m.path("t-panel-3", "Lower right panel", tri(mid, right, bottom), a, 0, 0),
		m.path("t-panel-4", "Lower left panel", tri(left, mid, bottom), b, 0, 0),
	)
	g.Place.Turn = turn
	return g
}

func (m *maker) cloud(n int, x, y, s float64) *doc.Layer {
	t := func(part string) string { return fmt.Sprintf("t-cloud%d-%s", n, part) }
	g := m.group(fmt.Sprintf("t-cloud%d", n), fmt.Sprintf("Cloud %d", n), x, y, 4,
		m.ellipse(t("a"), "Puff", "#ffffff", -88*s, 4*s, 150*s, 112*s),
		m.ellipse(t("b"), "Puff", "#ffffff", 0, -34*s, 176*s, 168*s),
		m.ellipse(t("c"), "Puff", "#ffffff", 92*s, 2*s, 150*s, 116*s),
		m.rect(t("d"), "Base", "#ffffff", 0, 33*s, 334*s, 54*s, 27*s),
	)
	g.Opacity = 0.86
	return g
}

// pinwheel is eight sails of paper about a pin.
func (m *maker) pinwheel(n int, x, y, s float64, a, b string) *doc.Layer {
	var sails []*doc.Layer
	for k := 0; k < 8; k++ {
		c := a
		if k%2 == 1 {
			c = b
		}
		p := m.path(fmt.Sprintf("t-wheel%d-%d", n, k), fmt.Sprintf("Sail %d", k+1),
			fmt.Sprintf("M0 0C%g %g %g %g %g %gL%g %gZ", 10*s, -30*s, 60*s, -52*s, 78*s, -98*s, 0.0, -64*s), c, 0, 0)
		p.Place.Turn = float64(45 * k)
		p.Place.Pivot = &[2]float64{0, 0}
		sails = append(sails, p)
	}
	sails = append(sails, m.ellipse(fmt.Sprintf("t-wheel%d-pin", n), "Pin", spruce, 0, 0, 22*s, 22*s))
	g := m.group(fmt.Sprintf("t-wheel%d", n), fmt.Sprintf("Pinwheel %d", n), x, y, 3, sails...)
	g.Place.Pivot = &[2]float64{0, 0}
	return g
}

func (m *maker) bunting(x, y float64) *doc.Layer {
	line := func(t float64) (float64, float64) { return 1140 * t, 150*4*t*(1-t) - 50*t }
	var flags []*doc.Layer
	cord := &geom.Path{}
	for i := 0; i <= 40; i++ {
		px, py := line(float64(i) / 40)
		if i == 0 {
			cord.Move(geom.Point{X: px, Y: py})
		} else {
			cord.Line(geom.Point{X: px, Y: py})
		}
	}
	for i := 40; i >= 0; i-- {
		px, py := line(float64(i) / 40)
		cord.Line(geom.Point{X: px, Y: py + 5})
	}
	cord.Close()
	flags = append(flags, m.path("t-cord", "Cord", cord.Data(), spruce, 0, 0))
	colours := []string{red, sail, amber}
	for i := 0; i < 11; i++ {
		ax, ay := line((float64(i) + 0.28) / 11)
		bx, by := line((float64(i) + 0.82) / 11)
		d := fmt.Sprintf("M%.1f %.1fL%.1f %.1fL%.1f %.1fZ", ax, ay+3, bx, by+3, (ax+bx)/2, (ay+by)/2+62)
		flags = append(flags, m.path(fmt.Sprintf("t-flag%d", i), fmt.Sprintf("Flag %d", i+1), d, colours[i%3], 0, 0))
	}
	return m.group("t-bunting", "Bunting", x, y, 2, flags...)
}

func (m *maker) harbour() []*doc.Layer {
	water := m.path("t-water", "Water", "M-200 0C160 -70 420 -76 800 -30C1180 16 1500 -70 2120 -34L2120 420L-200 420Z", sea, 0, 960)
	water.Locked, water.Tint = true, 5
	near := m.path("t-near", "Near water", "M-200 0C300 40 620 -34 1000 -6C1400 24 1700 -20 2120 8L2120 300L-200 300Z", deep, 0, 1000)
	near.Locked, near.Tint = true, 5
	var parts []*doc.Layer
	for i := 0; i < 9; i++ {
		parts = append(parts, m.rect(fmt.Sprintf("t-post%d", i), fmt.Sprintf("Post %d", i+1), spruce, 80+float64(i)*220, 34, 34, 68, 4))
	}
	parts = append(parts, m.rect("t-planks", "Planks", quay, 960, 0, 2200, 30, 0))
	pier := m.group("t-quay", "Quay", 0, 1030, 6, parts...)
	pier.Locked = true
	return []*doc.Layer{water, near, pier}
}

func (m *maker) sky(hash string) *doc.Layer {
	l := m.layer("t-sky", "Sky", doc.Picture, 7)
	l.Picture = &doc.PictureUse{Media: hash}
	l.Place = doc.Place{X: 960, Y: 540, W: 1920, H: 1080}
	l.Locked = true
	return l
}

// Opener returns the wide opener; sky is the hash of the picture Sky makes.
func Opener(sky string, facts *doc.Media) *doc.Project {
	p := doc.NewProject("kite-day-opener", "Kite Day at Fennel Quay: opener", 1920, 1080, "lift-off")
	p.Media = map[string]*doc.Media{sky: facts}
	p.Film.Scenes = []*doc.Scene{liftOff(sky), overTheWater(sky), theDate(sky)}
	return p
}

func liftOff(sky string) *doc.Scene {
	m := &maker{scene: "s1"}
	s := doc.NewScene("lift-off", "Lift-off")
	s.Stay, s.Background = 4600, fill("#8ec6da")
	cloud1, cloud2, cloud3 := m.cloud(1, 280, 190, 0.9), m.cloud(2, 1010, 130, 0.62), m.cloud(3, 1660, 262, 1.1)
	m.along(cloud1, "M0 0L150 0", doc.Departs, 0, 4600, "linear")
	m.along(cloud2, "M0 0L90 0", doc.Departs, 0, 4600, "linear")
	m.along(cloud3, "M0 0L210 0", doc.Departs, 0, 4600, "linear")

	kite := m.kite(1420, 330, 16, 0.86, red, rust, straw)
	flight := m.along(kite, "M-1710 560C-1180 640 -760 40 0 0", doc.Arrives, 300, 2900, "cubic-bezier(0.3,0.1,0.2,1)")

	title := m.text("t-title", "Title", "Kite Day", "Shrikhand", 400, 250, 132, 396, spruce, 0)
	in := m.fade(title, doc.Entrance, at(900), 900)
	sub := m.text("t-sub", "Place", "at Fennel Quay · bring a long tail", "Fredoka", 500, 60, 150, 716, spruce, 0)
	words := m.fade(sub, doc.Entrance, doc.Start{When: doc.WhenEnds, Of: in.ID, Offset: -200}, 1200)
	words.Effect, words.Unit, words.Overlap = effect.Slide, doc.ByWord, 0.5
	words.Params = effect.Params{"direction": 270.0}

	bunting := m.bunting(800, 830)
	flags := m.fade(bunting, doc.Entrance, doc.Start{When: doc.WhenBegins, Of: flight.ID, Offset: 1500}, 1100)
	flags.Unit, flags.Overlap = doc.ByPart, 0.7
	m.rock(kite.Children[0], 9, 1800)

	wheel1, wheel2 := m.pinwheel(1, 190, 930, 0.9, amber, sail), m.pinwheel(2, 1770, 940, 0.7, red, straw)
	m.spin(wheel1, 3200, "", false)
	m.spin(wheel2, 2400, "", true)

	s.Layers = append(s.Layers, m.sky(sky), cloud1, cloud2, cloud3)
	s.Layers = append(s.Layers, m.harbour()...)
	s.Layers = append(s.Layers, bunting, wheel1, wheel2, title, sub, kite)
	return s
}

func overTheWater(sky string) *doc.Scene {
	m := &maker{scene: "s2"}
	s := doc.NewScene("over-the-water", "Over the water")
	s.Stay, s.Background = 3200, fill("#f2d6b4")
	s.Transition = doc.Transition{Kind: doc.Morph, Duration: 1200}
	bg := m.sky(sky)
	bg.Opacity = 0.55
	cloud1, cloud2, cloud3 := m.cloud(1, 560, 150, 0.9), m.cloud(2, 1240, 220, 0.62), m.cloud(3, 1940, 190, 1.1)

	kite := m.kite(560, 330, -24, 1.0, deep, spruce, straw)
	m.along(kite, "M0 0C90 -50 170 -50 240 10", doc.Departs, 400, 2600, "ease-in-out")
	m.rock(kite.Children[0], 9, 1800)

	title := m.text("t-title", "Title", "Kite Day", "Shrikhand", 400, 140, 1090, 560, spruce, 0)
	line := m.text("t-line", "Invitation", "One quay. Forty kites.\nWind from the south-west.", "Fredoka", 600, 58, 1100, 722, spruce, 0)
	line.Text.LineHeight = 1.25
	m.fade(line, doc.Entrance, at(300), 600)
	m.fade(line, doc.Exit, doc.Start{When: doc.BeforeSceneEnd, Offset: 400}, 400)

	wheel1, wheel2 := m.pinwheel(1, 1480, 960, 0.6, amber, sail), m.pinwheel(2, 1770, 940, 0.7, red, straw)
	m.spin(wheel1, 3200, "", false)
	m.spin(wheel2, 2400, "", true)

	// Two spars cross, and a kite comes to show between them.
	left, right := m.spar(1, 1180, 480), m.spar(2, 1780, -480)
	small := m.diamond("t-small", "Small kite", 1480, 300)
	small.Moves = append(small.Moves, &doc.Move{
		ID: m.id("m"), Kind: doc.Entrance, Effect: effect.BarnDoors, Start: at(700), Duration: 800,
		Params: effect.Params{"tie": left.Thread, "tie2": right.Thread},
	})

	s.Layers = append(s.Layers, bg, cloud1, cloud2, cloud3)
	s.Layers = append(s.Layers, m.harbour()...)
	s.Layers = append(s.Layers, small, left, right, wheel1, wheel2, title, line, kite)
	continueLoops(s, liftOff(sky))
	return s
}

// view shows all of the page until it changes.
func (m *maker) view() *doc.Layer {
	l := m.layer("t-view", "View", doc.ViewKind, 7)
	l.Place = doc.Place{X: 960, Y: 540, W: 1920, H: 1080}
	return l
}

// becomes is a change.
func (m *maker) becomes(l *doc.Layer, start doc.Start, ms int64, easing string, is doc.Becomes) *doc.Move {
	v := &doc.Move{ID: m.id("m"), Kind: doc.Change, Effect: doc.Becoming, Start: start, Duration: ms, Easing: easing, Change: &doc.ChangeParams{To: is}}
	l.Moves = append(l.Moves, v)
	return v
}

func to(v float64) *float64 { return &v }

// spar is a thin upright bar that comes, travels so far to the right, and goes.
func (m *maker) spar(n int, x, far float64) *doc.Layer {
	l := m.rect(fmt.Sprint("t-spar", n), fmt.Sprint("Spar ", n), spruce, x, 300, 10, 380, 5)
	m.fade(l, doc.Entrance, at(100), 300)
	over := m.along(l, fmt.Sprintf("M0 0L%g 0", far), doc.Departs, 300, 1500, "ease-in-out")
	m.fade(l, doc.Exit, doc.Start{When: doc.WhenEnds, Of: over.ID}, 300)
	return l
}

// diamond is a kite without a tail: two sails on either side of its spine.
func (m *maker) diamond(thread, name string, x, y float64) *doc.Layer {
	half := func(part, d, colour string) *doc.Layer {
		return m.path(thread+"-"+part, part+" sail", d, colour, 0, 0)
	}
	return m.group(thread, name, x, y, 3,
		half("Left", "M0 -160L-120 -30L0 160Z", sea), half("Right", "M0 -160L0 160L120 -30Z", deep),
		half("Cross", "M-120 -30L120 -30L0 -4Z", straw))
}

// continueLoops links the whole-scene loops of s to those of the scene before, by thread.
func continueLoops(s, before *doc.Scene) {
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		if o := before.Thread(l.Thread); o != nil {
			for _, a := range o.Moves {
				for _, b := range l.Moves {
					if a.Kind == doc.Loop && b.Kind == doc.Loop && a.Effect == b.Effect {
						b.Continues = a.ID
					}
				}
			}
		}
		return true
	})
}

// strip is a length of bunting that scrolls along without a seam: its flags stand at equal steps.
func (m *maker) strip(x, y float64) *doc.Layer {
	const step = 120
	colours := []string{red, sail, amber}
	flags := []*doc.Layer{m.rect("t-strip-cord", "Cord", straw, step*3, 3, step*6, 6, 0)}
	for i := 0; i < 6; i++ {
		left := float64(i*step) + 22
		d := fmt.Sprintf("M%g 6L%g 6L%g 84Z", left, left+76, left+38)
		flags = append(flags, m.path(fmt.Sprintf("t-strip%d", i), fmt.Sprintf("Flag %d", i+1), d, colours[i%3], 0, 0))
	}
	g := m.group("t-strip", "Bunting strip", x, y, 2, flags...)
	g.Moves = append(g.Moves, &doc.Move{
		ID: m.id("m"), Kind: doc.Loop, Effect: effect.Scroll, Start: at(0), Lasts: doc.WholeScene, Params: effect.Params{"direction": 180.0, "speed": 180.0},
	})
	return g
}

// signature is a length of string and some words, which a pencil draws.
func (m *maker) signature(x, y float64) *doc.Layer {
	words := m.text("t-sign-words", "Words", "the kite club", "Caveat", 700, 104, 40, 0, straw, 1)
	line := m.path("t-sign-string", "String", "M0 0C60 -26 120 24 190 2C300 -34 380 40 470 8C500 -4 516 -28 500 -36C484 -42 474 -16 496 2", straw, 30, 118)
	line.Fill, line.Stroke = doc.Fill{Kind: doc.NoFill}, &doc.Stroke{Fill: fill(amber), Width: 6, Cap: geom.RoundCap, Join: geom.RoundJoin}
	g := m.group("t-sign", "Signature", x, y, 1, words, line)
	g.Moves = append(g.Moves, &doc.Move{
		ID: m.id("m"), Kind: doc.Entrance, Effect: effect.DrawOn, Start: at(1100), Duration: 1700, Params: effect.Params{"pointer": effect.Pencil, "line": 3.0, "size": 230.0},
	})
	return g
}

func theDate(sky string) *doc.Scene {
	m := &maker{scene: "s3"}
	s := doc.NewScene("the-date", "The date")
	s.Stay, s.Background = 3000, fill(spruce)
	s.Transition = doc.Transition{Kind: doc.Crossfade, Duration: 700}
	s.Cues = []doc.Cue{{ID: "s3-free", Name: "Free", At: 1700}}
	for i, x := range []float64{250, 1670} {
		w := m.pinwheel(1+i, x, 250+float64(i)*560, 1.5, amber, sail)
		m.spin(w, []int64{3200, 2400}[i], "", i == 1)
		s.Layers = append(s.Layers, w)
	}
	continueLoops(s, overTheWater(sky))
	plate := m.rect("t-plate", "Plate", straw, 960, 540, 1080, 420, 40)
	m.fade(plate, doc.Entrance, doc.Start{When: doc.AtTime, Offset: -300}, 500)
	day := m.text("t-day", "Day", "Saturday, ten o’clock", "Shrikhand", 400, 88, 960, 424, spruce, 0)
	day.Text.Align = doc.Centre
	first := m.fade(day, doc.Entrance, at(200), 600)
	where := m.text("t-where", "Where", "Fennel Quay Kite Club, east steps", "Fredoka", 500, 58, 960, 576, rust, 0)
	where.Text.Align = doc.Centre
	second := m.fade(where, doc.Entrance, doc.Start{When: doc.WhenBegins, Of: first.ID, Offset: 350}, 600)
	hint := m.text("t-hint", "Hint", "kites to borrow at the boathouse", "Fredoka", 400, 40, 960, 660, deep, 0)
	hint.Text.Align = doc.Centre
	third := m.fade(hint, doc.Entrance, doc.Start{When: doc.WhenBegins, Of: second.ID, Offset: 350}, 600)
	s.Runs = []doc.MoveRun{{ID: "s3-cascade", When: doc.WhenBegins, Moves: []string{first.ID, second.ID, third.ID}}}
	stamp := m.ellipse("t-stamp", "Stamp", red, 0, 0, 250, 250)
	free := m.text("t-free", "Free for all", "free\nfor all", "Fredoka", 700, 62, 0, -66, sail, 0)
	free.Text.Align, free.Text.LineHeight = doc.Centre, 1.05
	badge := m.group("t-badge", "Badge", 1480, 330, 1, stamp, free)
	badge.Place.Turn = -12
	badge.Moves = append(badge.Moves, &doc.Move{
		ID: m.id("m"), Kind: doc.Entrance, Effect: effect.AtOnce, Start: doc.Start{When: doc.AtCue, Of: "s3-free"},
	})
	// It pushes in on the date, over the stay.
	view := m.view()
	m.becomes(view, at(0), 3000, "ease-in-out", doc.Becomes{Y: to(520), W: to(1778), H: to(1000)})
	s.Layers = append(s.Layers, m.strip(120, 968), plate, day, where, hint, badge, m.signature(700, 800), view)
	return s
}
