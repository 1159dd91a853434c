package demo

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/shape"
)

// Roles of the square post, by day and by dusk.
var (
	noon     = map[string]string{"ground": "#8ec6da", "ground tone": "#7fb4c7", "accent": red, "accent tone": "#f3dca6", "words": "#fdf6e3"}
	lanterns = map[string]string{"ground": "#24505c", "ground tone": "#1d434e", "accent": amber, "accent tone": "#fdf6e3", "words": "#fdf6e3"}
)

// quays are four variants of the post: four quays, four days.
var quays = &doc.Table{
	Columns: []string{"when", "says", "accent", "accent tone"},
	Rows: [][]string{
		{"Saturday at Fennel Quay", "bring a long tail!", red, straw},
		{"Sunday at Cowrie Quay", "bring a friend!", "#3f7f86", straw},
		{"Monday at Marram Quay", "bring a warm hat!", "#6a4a7c", "#fdf6e3"},
		{"Friday at Lantern Quay", "bring a lantern!", "#b5402a", "#f0c05a"},
	},
}

// inRole is a fill that follows a role of its scene, a few steps lighter or darker.
func inRole(role string, tone int) doc.Fill {
	return doc.Fill{Kind: doc.Solid, Colour: noon[role], Role: role, Tone: tone}
}

func (m *maker) shape(thread, name, kind string, f doc.Fill, x, y, w, h float64, v doc.Shape) *doc.Layer {
	l := m.layer(thread, name, kind, len(thread)%8)
	l.Fill, l.Place = f, doc.Place{X: x, Y: y, W: w, H: h}
	if !v.Equal(&doc.Shape{}) {
		l.Shape = &v
	}
	return l
}

// Post is the square post: a sun of copied rays, a ribbon, a bubble, clouds and water from shapes, a quay, small kites and a plate from
// shapes that were combined, all in colour roles; its second scene is the first by the light of lanterns.
func Post() *doc.Project {
	p := doc.NewProject("kite-day-post", "Kite Day at Fennel Quay: square post", 1080, 1080, "noon")
	p.Film.Rate = doc.Rate{Num: 30, Den: 1}
	p.RoleSets = []*doc.RoleSet{{ID: "roles-noon", Name: "Noon", Roles: noon}, {ID: "roles-lanterns", Name: "Lanterns", Roles: lanterns}}
	p.Palette = []string{red, straw, sea}
	p.Film.Scenes = []*doc.Scene{postScene("noon", "Noon", noon, false), postScene("lanterns", "Lanterns", lanterns, true)}
	p.Film.Scenes[1].Transition = doc.Transition{Kind: doc.Morph, Duration: 1400}
	p.Table = quays
	p.Film.Loop, p.Film.Closing = true, &doc.Transition{Kind: doc.Morph, Duration: 1200}
	return p
}

func postScene(id, name string, roles map[string]string, late bool) *doc.Scene {
	m := &maker{scene: id}
	s := &doc.Scene{ID: id, Name: name, Stay: 3600, Transition: doc.Transition{Kind: doc.Cut}, Roles: roles, Background: inRole("ground", 0)}
	sunY, tip := 330.0, [2]float64{0.16, 1.42}
	if late {
		sunY, tip = 430, [2]float64{0.3, 1.5}
	}
	// The sun: a disc in a ring of rays, which turn.
	rays := m.group("p-rays", "Rays", 0, 0, 2)
	for k := range 12 {
		at := geom.Rotate(30 * float64(k)).Apply(geom.Point{Y: -196})
		ray := m.shape(fmt.Sprint("p-ray", k), "Ray", doc.Polygon, inRole("accent tone", 0), at.X, at.Y, 54, 64, doc.Shape{Count: 3})
		ray.Place.Turn, ray.Corner = 30*float64(k), 6
		rays.Children = append(rays.Children, ray)
	}
	disc := m.ellipse("p-disc", "Disc", noon["accent tone"], 0, 0, 270, 270)
	disc.Fill = doc.Fill{Kind: doc.Radial, Gradient: &doc.Gradient{From: [2]float64{0.5, 0.5}, To: [2]float64{1, 0.5}, Focus: &[2]float64{0.36, 0.36}, Stops: []doc.Stop{
		{At: 0, Colour: "#fff3d0", Role: "accent tone", Tone: 3}, {At: 1, Colour: noon["accent tone"], Role: "accent tone", Tone: -1},
	}}}
	disc.Glow = &doc.Glow{Blur: 26, Colour: "#f3dca6", Role: "accent tone"}
	sun := m.group("p-sun", "Sun", 770, sunY, 2, rays, disc)
	m.spin(rays, 16000, "", false)
	s.Layers = append(s.Layers, sun)
	for i, c := range [][4]float64{{250, 210, 320, 150}, {905, 560, 260, 120}, {560, 120, 200, 90}} {
		cloud := m.shape(fmt.Sprint("p-cloud", i), fmt.Sprint("Cloud ", i+1), doc.Cloud, doc.Fill{Kind: doc.Solid, Colour: "#fdf6e3", Role: "ground", Tone: 4}, c[0], c[1], c[2], c[3], doc.Shape{Count: 7 + 2*i})
		cloud.Opacity = 0.92
		if late {
			cloud.Place.X -= 60
		}
		if i == 0 {
			v := m.along(cloud, "M0 0L70 0", "", 0, 3600, "linear") // behind the plate, so that the sky moves in its words
			v.Alternate, v.Repeat = false, 1
		}
		s.Layers = append(s.Layers, cloud)
	}
	if late {
		for i, q := range [][3]float64{{140, 120, 40}, {420, 330, 26}, {980, 150, 34}, {700, 240, 22}, {300, 90, 24}} {
			star := m.shape(fmt.Sprint("p-star", i), fmt.Sprint("Star ", i+1), doc.Star, inRole("accent tone", 2), q[0], q[1], q[2], q[2], doc.Shape{Count: 4 + i%2, Depth: 0.6})
			star.Glow = &doc.Glow{Blur: 8, Colour: "#fdf6e3", Role: "accent tone"}
			m.fade(star, doc.Entrance, at(int64(300+160*i)), 500)
			s.Layers = append(s.Layers, star)
		}
	}
	s.Layers = append(s.Layers, m.quay(880, 668))
	for i, w := range []struct{ y, tone float64 }{{915, -1}, {1010, -2}} {
		water := m.shape(fmt.Sprint("p-water", i), fmt.Sprint("Water ", i+1), doc.Wave, inRole("ground", int(w.tone)), 540, w.y, 1400, 460, doc.Shape{Count: 5 + i, Depth: 0.1})
		water.Locked = true
		d := "M0 0L90 0"
		if i == 1 {
			d = "M0 0L-80 0"
		}
		v := m.along(water, d, "", 0, 3600, "linear")
		v.Alternate, v.Repeat = false, 1
		s.Layers = append(s.Layers, water)
	}
	kite := m.kite(300, 560, -14, 0.8, red, straw, rust)
	kite.ID, kite.Thread, kite.Name, kite.Tint = m.id("l"), "p-kite", "Kite", 0
	m.rock(kite, 5, 2600)
	s.Layers = append(s.Layers, kite)
	for n, k := range [][4]float64{{530, 400, 18, 52}, {432, 486, -10, 36}} {
		small := m.sailcloth(n+1, k[0], k[1], k[2], k[3], inRole("accent", 1-n))
		if late {
			small.Place.X, small.Place.Y = small.Place.X-30, small.Place.Y-24
		}
		m.rock(small, 6, 1800)
		s.Layers = append(s.Layers, small)
	}
	plate := m.plate("NOON TO DUSK", 290, 226, 480, 112)
	s.Layers = append(s.Layers, plate)
	// A speech bubble, and a ribbon under all of it.
	bubble := m.shape("p-bubble", "Bubble", doc.Bubble, inRole("accent", 0), 700, 640, 470, 150, doc.Shape{Tip: &tip, Base: 0.24})
	bubble.Corner = 44
	bubble.Shadow = &doc.Shadow{X: 0, Y: 8, Blur: 10, Colour: "#0c252360"}
	says := m.text("p-says", "Says", "bring a long tail!", "Fredoka", 600, 46, 700, 606, sail, 3)
	says.Text.Align, says.Column = doc.Centre, "says"
	ribbon := m.shape("p-ribbon", "Ribbon", doc.Ribbon, inRole("accent", 0), 540, 905, 880, 170, shape.Default(doc.Ribbon))
	title := m.text("p-title", "Title", "Kite Day", "Shrikhand", 400, 92, 540, 806, sail, 4)
	title.Text.Align = doc.Centre
	when := m.text("p-when", "When", "Saturday at Fennel Quay", "Archivo", 600, 40, 540, 992, noon["words"], 5)
	when.Text.Align, when.Fill, when.Column = doc.Centre, inRole("words", 0), "when"
	pointer := m.shape("p-arrow", "This way", doc.Arrow, inRole("words", 0), 880, 1016, 120, 60, doc.Shape{Thickness: 0.3, Head: 0.7})
	pointer.Corner = 5
	mark := m.layer("p-marker", "Marker", doc.MarkerKind, 6)
	mark.Marker, mark.Fill, mark.Place = &doc.Marker{Style: doc.Dots}, inRole("words", 0), doc.Place{X: 90, Y: 1040, W: 90, H: 18}
	if !late {
		m.fade(bubble, doc.Entrance, at(700), 500)
		m.fade(says, doc.Entrance, at(900), 500)
	}
	s.Layers = append(s.Layers, bubble, says, ribbon, title, when, pointer, mark)
	return s
}
