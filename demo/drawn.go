package demo

import (
	"embed"
	"fmt"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/ink"
	"capstan/core/svg"
)

//go:embed drawings
var drawings embed.FS

// Drawings returns two drawings that came in as SVG: drawn on by day, one after the other, and then seen by the light of lanterns, in other roles.
func Drawings() *doc.Project {
	p := doc.NewProject("kite-day-drawings", "Kite Day at Fennel Quay: two drawings", 1920, 1080, "drawn")
	p.RoleSets = []*doc.RoleSet{{ID: "roles-noon", Name: "Noon", Roles: noon}, {ID: "roles-lanterns", Name: "Lanterns", Roles: lanterns}}
	p.Film.Scenes = []*doc.Scene{drawn(false), drawn(true)}
	return p
}

// drawing is a drawing that came in as SVG, so high on the page, whose colours follow the roles they are drawn in. Its threads are the same in every scene.
func (m *maker) drawing(name, thread string, x, y, high float64) *doc.Layer {
	in, err := drawings.Open("drawings/" + name + ".svg")
	if err != nil {
		panic(fmt.Sprintf("demo: %v", err)) // it is embedded above
	}
	defer in.Close()
	d, err := svg.Read(in, svg.Options{Name: name, Page: [2]float64{10 * high, high / 0.8}, ID: func() string { return m.id("d") }})
	if err != nil || len(d.Lost) > 0 {
		panic(fmt.Sprintf("demo: %v %v", err, d)) // it was drawn for this, and a test reads it
	}
	g := d.Group
	if len(g.Children) == 1 && g.Children[0].Kind == doc.Group {
		g = g.Children[0]
	}
	ink.Within(g, func(k ink.Ink) { ink.Follows(noon)(k) })
	n := 0
	doc.Walk([]*doc.Layer{g}, func(l, _ *doc.Layer) bool {
		l.Thread = fmt.Sprint(thread, "-", n)
		n++
		return true
	})
	g.Place.X, g.Place.Y = x, y
	return g
}

// drawn is a scene of two drawings: by day they are drawn on, by the light of lanterns they are seen in other roles.
func drawn(late bool) *doc.Scene {
	id, name, words, roles := "drawn", "Somebody to draw it", "somebody\nto draw it", noon
	if late {
		id, name, words, roles = "lit", "By lantern light", "by lantern\nlight", lanterns
	}
	m := &maker{scene: id}
	s := doc.NewScene(id, name)
	s.Stay, s.Roles, s.Background = 6000, roles, inRole("ground", 0)
	s.Transition = doc.Transition{Kind: doc.Cut}
	gull, lantern := m.drawing("gull", "x-gull", 620, 700, 640), m.drawing("lantern", "x-lantern", 1480, 500, 780)
	title := m.text("x-words-"+id, "Words", words, "Shrikhand", 400, 120, 620, 70, sail, 2)
	title.Fill = inRole("words", 0)
	title.Text.Align, title.Text.LineHeight = doc.Centre, 1.15
	if late {
		s.Stay = 3000
		s.Transition = doc.Transition{Kind: doc.Morph, Duration: 1600}
		m.move(title, doc.Entrance, effect.Fade, at(100), 600, nil)
	} else {
		m.move(title, doc.Exit, effect.Fade, at(5300), 500, nil)
		first := m.move(gull, doc.Entrance, effect.DrawOn, at(700), 2600, effect.Params{"pointer": "pencil"})
		m.move(lantern, doc.Entrance, effect.DrawOn, doc.Start{When: doc.WhenEnds, Of: first.ID}, 2000, effect.Params{"pointer": "pencil"})
	}
	s.Layers = append(s.Layers, gull, lantern, title)
	return s
}
