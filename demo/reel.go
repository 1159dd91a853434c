package demo

import (
	"fmt"
	"strings"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/geom"
)

// Reel is the upright reel: a wheel of badges that turns by the hour, hollow words, phrases on plates, a badge whose words go round a ring, a kite
// that flies through five scenes as one, and a tower seen in steps.
func Reel() *doc.Project {
	p := doc.NewProject("kite-day-reel", "Kite Day at Fennel Quay: upright reel", 1080, 1920, "come")
	p.Film.Rate = doc.Rate{Num: 30, Den: 1}
	come, see := comeAlong(), seeYou()
	come.Transition = doc.Transition{Kind: doc.Crossfade, Duration: 600}
	p.RoleSets = []*doc.RoleSet{}
	for i, h := range hours {
		p.RoleSets = append(p.RoleSets, &doc.RoleSet{ID: fmt.Sprint("roles-hour", i), Name: h.name, Roles: h.roles})
	}
	scenes := []*doc.Scene{hour(0), hour(1), hour(2), come, bringThese(), see}
	scenes = append(scenes, flight()...)
	steps, shift := tower()
	scenes = append(scenes, steps...)
	dusk := hour(3)
	dusk.Transition = doc.Transition{Kind: doc.Crossfade, Duration: 600}
	p.Film.Scenes, p.Film.Shifts = append(scenes, dusk), []doc.Shift{shift}
	// Back to the first hour the wheel goes on as it has turned.
	p.Film.Loop, p.Film.Closing = true, &doc.Transition{Kind: doc.Morph, Duration: 800, Threads: byLetter}
	return p
}

// hollow is a text of which only the outline shows.
func (m *maker) hollow(thread, words, family string, weight int, size, x, y float64, colour string, width float64) *doc.Layer {
	l := m.text(thread, words, words, family, weight, size, x, y, colour, 2)
	l.Text.Align = doc.Centre
	l.Fill = doc.Fill{Kind: doc.NoFill}
	l.Stroke = &doc.Stroke{Fill: fill(colour), Width: width, Join: geom.RoundJoin}
	return l
}

// phrase is a line or two on a plate.
func (m *maker) phrase(thread, words string, x, y, size float64, plate, colour string) *doc.Layer {
	l := m.text(thread, strings.ReplaceAll(words, "\n", " "), words, "Nunito", 800, size, x, y, colour, 3)
	l.Text.Align, l.Text.LineHeight = doc.Left, 1.5
	l.Text.Plate = &doc.Plate{Colour: plate, Padding: size * 0.2, Corner: size * 0.28}
	return l
}

// clubBadge is a sun with the club's name round it, which turns.
func (m *maker) clubBadge(x, y, size float64, continues string) *doc.Layer {
	disc := m.ellipse("r-badge-disc", "Disc", amber, 0, 0, size, size)
	rays := m.shape("r-badge-rays", "Rays", doc.Star, fill(amber), 0, 0, size*1.92, size*1.92, doc.Shape{Count: 24, Depth: 0.1})
	words := m.text("r-badge-words", "Club", "fennel quay kite club · bring a long tail · ", "Archivo", 800, size*0.115, 0, 0, spruce, 4)
	words.Text.Align, words.Text.Runs[0].Case = doc.Centre, doc.UpperCase
	words.Text.Ring = &doc.TextRing{Radius: size * 0.66, Start: -90, Share: 1}
	ring := m.group("r-badge-ring", "Round", 0, 0, 4, rays, words)
	m.spin(ring, 12000, continues, false)
	kite := m.sailcloth(3, 0, -size*0.08, 14, size*0.2, fill(red))
	return m.group("r-badge", "Badge", x, y, 4, ring, disc, kite)
}

func (m *maker) clouds(shift float64) []*doc.Layer {
	var out []*doc.Layer
	for i, c := range [][3]float64{{210, 240, 1.1}, {860, 420, 0.8}, {330, 1250, 0.9}} {
		l := m.cloud(i+1, c[0]+shift*float64(1+i%2), c[1], c[2])
		l.Thread = fmt.Sprint("r-cloud", i)
		m.along(l, "M0 0L60 0", doc.Departs, 0, 3200, "linear")
		out = append(out, l)
	}
	return out
}

// porthole is a round window of the boathouse: sky, water and a kite show inside its glass, which is their mask.
func (m *maker) porthole(x, y, size float64) *doc.Layer {
	sky := m.rect("r-port-sky", "Evening sky", "#8ec6da", 0, 0, 1.3*size, 1.3*size, 0)
	sea := m.shape("r-port-sea", "Evening sea", doc.Wave, fill("#3f7f86"), -0.2*size, 0.42*size, 2.2*size, 0.6*size, doc.Shape{Count: 6, Depth: 0.14})
	m.along(sea, "M0 0L60 0", doc.Departs, 0, 3400, "linear")
	kite := m.sailcloth(9, 0.05*size, -0.1*size, 14, 0.34*size, fill(red))
	kite.Name = "Evening kite"
	m.rock(kite, 8, 1700)
	glass := m.ellipse("r-port-glass", "Glass", sail, 0, 0, size, size)
	glass.Mask = doc.Inside
	rim := m.shape("r-port-rim", "Rim", doc.Ring, fill(amber), 0, 0, 1.16*size, 1.16*size, doc.Shape{Hole: 0.85})
	return m.group("r-porthole", "Porthole", x, y, 4, m.group("r-port-view", "View", 0, 0, 4, sky, sea, kite, glass), rim)
}

// board is a sign with two sides: the first turns away, the second comes round.
func (m *maker) board(x, y float64) []*doc.Layer {
	side := func(thread, name, words, plate, colour string) *doc.Layer {
		says := m.text(thread+"-says", "Says", words, "Fredoka", 600, 104, 0, -72, colour, 5)
		says.Text.Align = doc.Centre
		return m.group(thread, name, x, y, 5, m.rect(thread+"-plate", "Plate", plate, 0, 0, 620, 190, 34), says)
	}
	front, back := side("r-front", "Sign, front", "from noon", rust, sail), side("r-back", "Sign, back", "till dusk", spruce, straw)
	away := &doc.Move{ID: m.id("m"), Kind: doc.Exit, Effect: effect.Hinge, Start: at(1700), Duration: 350, Easing: "ease-in", Params: effect.Params{"axis": "level"}}
	round := &doc.Move{ID: m.id("m"), Kind: doc.Entrance, Effect: effect.Hinge, Start: doc.Start{When: doc.WhenEnds, Of: away.ID}, Duration: 350, Easing: "ease-out", Params: effect.Params{"axis": "level"}}
	front.Moves, back.Moves = append(front.Moves, away), append(back.Moves, round)
	return []*doc.Layer{front, back}
}

// lantern is of paper, and burns away at the end of its scene.
func (m *maker) lantern(n int, x, y, s float64, colour string) *doc.Layer {
	t := func(part string) string { return fmt.Sprintf("r-lantern%d-%s", n, part) }
	paper := m.ellipse(t("paper"), "Paper", colour, 0, 0, 150*s, 170*s)
	l := m.group(fmt.Sprint("r-lantern", n), fmt.Sprint("Lantern ", n), x, y, 6, paper,
		m.ellipse(t("inner"), "Light", "#fff3d0", 0, 10*s, 90*s, 110*s), m.rect(t("cap"), "Cap", spruce, 0, -86*s, 62*s, 18*s, 6), m.rect(t("foot"), "Foot", spruce, 0, 86*s, 50*s, 14*s, 6))
	l.Moves = append(l.Moves, &doc.Move{
		ID: m.id("m"), Kind: doc.Exit, Effect: effect.Embers, Start: doc.Start{When: doc.BeforeSceneEnd, Offset: int64(2000 - 250*n)}, Duration: 1200, Seed: int64(3 + n), Params: effect.Params{"grain": 52 * s},
	})
	return l
}

func comeAlong() *doc.Scene {
	m := &maker{scene: "come"}
	s := doc.NewScene("come", "Come along")
	s.Stay, s.Background = 3200, fill("#8ec6da")
	kite := m.kite(620, 820, 18, 1.5, red, rust, straw)
	m.rock(kite, 4, 2400)
	up := m.hollow("r-kite", "KITE", "Bungee", 400, 330, 540, 250, spruce, 12)
	m.fade(up, doc.Entrance, at(200), 700)
	day := m.text("r-day", "DAY", "DAY", "Bungee", 400, 330, 540, 1160, spruce, 2)
	day.Text.Align = doc.Centre
	in := m.fade(day, doc.Entrance, at(500), 900)
	in.Effect, in.Unit, in.Overlap, in.Params = effect.Slide, doc.ByLetter, 0.5, effect.Params{"direction": 270.0}
	s.Layers = append(s.Layers, m.clouds(0)...)
	s.Layers = append(s.Layers, up, kite, day, m.clubBadge(865, 1035, 195, ""))
	s.Layers = append(s.Layers, m.board(540, 1730)...)
	return s
}

func bringThese() *doc.Scene {
	m := &maker{scene: "bring"}
	s := doc.NewScene("bring", "Bring these")
	s.Stay, s.Background = 3600, fill("#f3dca6")
	s.Transition = doc.Transition{Kind: effect.Push, Duration: 700, Params: effect.Params{"direction": 270.0}}
	head := m.text("r-head", "What to bring", "what to bring", "Caveat", 700, 150, 90, 230, rust, 1)
	tail := m.text("r-sup", "Forty kites", "40", "Literata", 700, 120, 900, 250, spruce, 1)
	again := tail.Text.Runs[0]
	again.Text, again.Raise, again.Size = "kites", doc.Super, 60
	tail.Text.Runs = append(tail.Text.Runs, again)
	tail.Text.Align = doc.Right
	tail.Place.X, tail.Place.Y = 990, 1700
	s.Layers = append(s.Layers, head, tail)
	before := ""
	for i, words := range []string{"a tail longer\nthan you", "somebody who\ncan run", "thirty metres\nof string", "and no plans\nbefore dusk"} {
		l := m.phrase(fmt.Sprint("r-phrase", i), words, 100+float64(i%2)*140, 470+float64(i)*300, 76, []string{rust, spruce}[i%2], sail)
		start := at(250)
		if before != "" {
			start = doc.Start{When: doc.WhenBegins, Of: before, Offset: 420}
		}
		v := m.fade(l, doc.Entrance, start, 600)
		v.Effect, v.Params = effect.Slide, effect.Params{"direction": 0.0, "distance": 160.0}
		before = v.ID
		s.Layers = append(s.Layers, l)
	}
	return s
}

func seeYou() *doc.Scene {
	m := &maker{scene: "see"}
	s := doc.NewScene("see", "See you there")
	s.Stay, s.Background = 3400, fill("#24505c")
	s.Transition = doc.Transition{Kind: doc.Crossfade, Duration: 700}
	badge := m.clubBadge(620, 700, 400, "")
	stacked := m.text("r-sat", "SATURDAY", "SAT", "Oswald", 600, 150, 120, 330, straw, 5)
	stacked.Text.Stacked, stacked.Text.Align = true, doc.Centre
	hollow := m.hollow("r-noon", "noon", "Abril Fatface", 400, 220, 700, 1230, straw, 5)
	m.fade(hollow, doc.Entrance, at(500), 700)
	where := m.text("r-where", "Where", "Fennel Quay, east steps. Kites to borrow at the boathouse; cocoa when the wind drops.", "Bitter", 700, 52, 540, 1560, spruce, 6)
	where.Text.Wrap, where.Place.W, where.Text.Align, where.Text.LineHeight = true, 760, doc.Justified, 1.35
	where.Text.Plate = &doc.Plate{Colour: straw, Padding: 34, Corner: 28, Whole: true}
	words := m.fade(where, doc.Entrance, at(900), 1200)
	words.Unit, words.Overlap = doc.ByWord, 0.5
	s.Layers = append(s.Layers, m.clouds(120)...)
	for _, l := range s.Layers {
		l.Opacity = 0.25
	}
	s.Layers = append(s.Layers, badge, stacked, hollow, where, m.porthole(232, 1290, 250))
	s.Layers = append(s.Layers, m.lantern(1, 560, 190, 1, rust), m.lantern(2, 760, 240, 1.2, amber), m.lantern(3, 950, 180, 0.9, red))
	return s
}
