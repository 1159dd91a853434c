package main

import (
	"bytes"
	"fmt"
	"os"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/demo"
	"capstan/library"
	"capstan/studio/media"
)

// Three films that do not change, so that figures of different days may be compared. Each lasts 5 s: 150 frames at 30 a second.

// maker hands out ids in order.
type maker struct{ n int }

func (m *maker) layer(kind, colour string, x, y, w, h float64) *doc.Layer {
	m.n++
	id := fmt.Sprint("b-", m.n)
	l := &doc.Layer{ID: id, Thread: id, Name: id, Kind: kind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: colour}}
	l.Place = doc.Place{X: x, Y: y, W: w, H: h}
	return l
}

func (m *maker) move(l *doc.Layer, v doc.Move) *doc.Layer {
	m.n++
	v.ID = fmt.Sprint("b-", m.n)
	if v.Start.When == "" {
		v.Start.When = doc.AtTime
	}
	l.Moves = append(l.Moves, &v)
	return l
}

func film(name string, layers ...*doc.Layer) *doc.Project {
	p := doc.NewProject("bench", name, 1920, 1080, "s")
	p.Film.Rate = doc.Rate{Num: 30, Den: 1}
	s := p.Film.Scenes[0]
	s.Stay, s.Background, s.Layers = 5000, doc.Fill{Kind: doc.Solid, Colour: "#8ec6da"}, layers
	return p
}

var colours = []string{"#d8573a", "#e0a03a", "#3f7f86", "#17403c", "#f3dca6"}

// opener is small movers on a still ground: a picture, hills and words that rest, twelve small things that move.
func opener(sky string, facts *doc.Media) *doc.Project {
	m := &maker{}
	ground := m.layer(doc.Picture, "", 960, 540, 1920, 1080)
	ground.Fill, ground.Picture = doc.Fill{Kind: doc.NoFill}, &doc.PictureUse{Media: sky}
	layers := []*doc.Layer{ground}
	for i := range 3 {
		hill := m.layer(doc.Ellipse, []string{"#5f9da1", "#3f7f86", "#27504c"}[i], 300+float64(i)*660, 1120+float64(i%2)*40, 1300, 480)
		layers = append(layers, hill)
	}
	words := m.layer(doc.TextKind, "#17403c", 960, 360, 0, 0)
	words.Text = &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: "Kite Day\nat Fennel Quay", Family: "Shrikhand", Weight: 400, Size: 150}}}
	layers = append(layers, words)
	for i := range 12 {
		x, y := 150+float64(i)*145, 160+float64(i%4)*190
		k := m.layer([]string{doc.Rectangle, doc.Ellipse}[i%2], colours[i%5], x, y, 60+float64(i%3)*16, 60)
		k.Corner = float64(i % 2 * 12)
		switch i % 3 {
		case 0:
			k = m.move(k, doc.Move{Kind: doc.Loop, Effect: effect.Spin, Duration: 2500, Lasts: doc.WholeScene})
		case 1:
			k = m.move(k, doc.Move{Kind: doc.Loop, Effect: effect.Rock, Duration: 1500, Lasts: doc.WholeScene, Params: effect.Params{"angle": 18.0}})
		default:
			k = m.move(k, doc.Move{Kind: doc.MotionPath, Effect: doc.Along, Duration: 4000, Start: doc.Start{When: doc.AtTime, Offset: int64(i) * 60}, Path: &doc.PathParams{D: "M0 0C60 -140 160 -140 220 0", Rest: doc.Departs}})
		}
		layers = append(layers, k)
	}
	p := film("Opener", layers...)
	p.Media = map[string]*doc.Media{sky: facts}
	return p
}

// drift is a picture larger than the page that drifts across it by parts of a pixel, under forty shapes.
func drift(sky string, facts *doc.Media) *doc.Project { return drifting(5000)(sky, facts) }

// drifting is drift for some ms.
func drifting(ms int64) func(sky string, facts *doc.Media) *doc.Project {
	return func(sky string, facts *doc.Media) *doc.Project {
		m := &maker{}
		ground := m.layer(doc.Picture, "", 960, 540, 2304, 1296)
		ground.Fill, ground.Picture = doc.Fill{Kind: doc.NoFill}, &doc.PictureUse{Media: sky}
		m.move(ground, doc.Move{Kind: doc.MotionPath, Effect: doc.Along, Duration: ms, Easing: "linear", Path: &doc.PathParams{D: "M-180 -100L180 100", Rest: doc.Passes, Share: 0.5}})
		layers := []*doc.Layer{ground}
		for i := range 40 {
			k := m.layer([]string{doc.Rectangle, doc.Ellipse}[i%2], colours[i%5], 120+float64(i%10)*185, 200+float64(i/10)*230, 120, 90)
			k.Opacity = 0.7 + 0.1*float64(i%4)
			if i%2 == 0 {
				k = m.move(k, doc.Move{Kind: doc.Loop, Effect: effect.Rock, Duration: 1200 + int64(i)*40, Lasts: doc.WholeScene, Params: effect.Params{"angle": 15.0}})
			}
			layers = append(layers, k)
		}
		p := film("Sky", layers...)
		p.Film.Scenes[0].Stay = ms
		p.Media = map[string]*doc.Media{sky: facts}
		return p
	}
}

// push is a picture and eleven shapes, words among them, that the view pushes in on.
func push(sky string, facts *doc.Media) *doc.Project {
	m := &maker{}
	ground := m.layer(doc.Picture, "", 960, 540, 1920, 1080)
	ground.Fill, ground.Picture = doc.Fill{Kind: doc.NoFill}, &doc.PictureUse{Media: sky}
	layers := []*doc.Layer{ground}
	for i := range 10 {
		layers = append(layers, m.layer([]string{doc.Rectangle, doc.Ellipse, doc.Star}[i%3], colours[i%5], 200+float64(i%5)*380, 400+float64(i/5)*330, 240, 180))
	}
	words := m.layer(doc.TextKind, "#17403c", 960, 120, 0, 0)
	words.Text = &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: "Kite Day", Family: "Shrikhand", Weight: 400, Size: 150}}}
	view := m.layer(doc.ViewKind, "", 960, 540, 1920, 1080)
	view.Fill = doc.Fill{Kind: doc.NoFill}
	w, h := 1920/1.08, 1080/1.08
	m.move(view, doc.Move{Kind: doc.Change, Effect: doc.Becoming, Duration: 5000, Change: &doc.ChangeParams{To: doc.Becomes{W: &w, H: &h}}})
	p := film("Push", append(layers, words, view)...)
	p.Media = map[string]*doc.Media{sky: facts}
	return p
}

// adjusted is a picture that fills the page in other colours, and moves within its frame all along.
func adjusted(sky string, facts *doc.Media) *doc.Project {
	m := &maker{}
	ground := m.layer(doc.Picture, "", 960, 540, 1920, 1080)
	ground.Fill, ground.Picture = doc.Fill{Kind: doc.NoFill}, &doc.PictureUse{Media: sky, Crop: &doc.Crop{0, 0, 0.8, 0.8}}
	ground.Adjust = &doc.Adjust{Brightness: 0.05, Contrast: 0.2, Saturation: 0.3, Warmth: 0.4}
	m.move(ground, doc.Move{Kind: doc.Change, Effect: doc.Becoming, Duration: 5000, Easing: "linear", Change: &doc.ChangeParams{To: doc.Becomes{Picture: &doc.PictureUse{Media: sky, Crop: &doc.Crop{0.1, 0.1, 0.9, 0.9}}}}})
	p := film("Adjusted", ground)
	p.Media = map[string]*doc.Media{sky: facts}
	return p
}

// filling is a picture that fills the page and comes in by an effect, as long as the film.
func filling(name string) func(sky string, facts *doc.Media) *doc.Project {
	return func(sky string, facts *doc.Media) *doc.Project {
		m := &maker{}
		ground := m.layer(doc.Picture, "", 960, 540, 1920, 1080)
		ground.Fill, ground.Picture = doc.Fill{Kind: doc.NoFill}, &doc.PictureUse{Media: sky}
		m.move(ground, doc.Move{Kind: doc.Entrance, Effect: name, Duration: 5000, Easing: "linear", Seed: 7})
		p := film(name, ground)
		p.Media = map[string]*doc.Media{sky: facts}
		return p
	}
}

// compiled is a film with the files it uses.
type compiled struct {
	film  *frame.Film
	files *media.Folder
}

func compile(dir string, make func(string, *doc.Media) *doc.Project) (*compiled, error) {
	files := media.NewFolder(dir)
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return nil, err
	}
	sky, facts, err := files.Take(bytes.NewReader(demo.Sky()), "sky.jpg")
	if err != nil {
		return nil, err
	}
	p := make(sky, facts)
	if err := p.Validate(); err != nil {
		return nil, err
	}
	book, err := library.Book()
	if err != nil {
		return nil, err
	}
	f, err := frame.Compile(p, frame.Assets{Fonts: book}, nil)
	return &compiled{f, files}, err
}
