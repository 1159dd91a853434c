package demo

import (
	"fmt"

	"capstan/core/combine"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/text"
	"capstan/library"
)

// hows are the ways in which art of the demo is combined.
var hows = map[string]combine.How{doc.MadeUnited: combine.Unite, doc.MadeCut: combine.CutAway, doc.MadeDropped: combine.DropOverlap}

// fonts are those that ship; art with words in it needs them.
func fonts() *text.Book {
	b, err := library.Book()
	if err != nil {
		panic(fmt.Sprintf("demo: the fonts that ship cannot be read: %v", err)) // they are part of the program
	}
	return b
}

// combined makes layers one, as a person does with the same word: the rearmost becomes a path, all are kept inside it.
func combined(how string, list ...*doc.Layer) *doc.Layer {
	p := doc.NewProject("art", "Art", 1080, 1080, "s")
	p.Film.Scenes[0].Layers = list
	f, err := frame.Compile(p, frame.Assets{Fonts: fonts()}, nil)
	if err != nil {
		panic(fmt.Sprintf("demo: %v", err)) // the art is part of the program, and a test compiles it
	}
	inv, _ := f.RestMatrix(0, list[0].ID).Inverse()
	var areas []combine.Area
	var kept []*doc.Layer
	for _, l := range list {
		own, err := f.Outline(0, l.ID)
		if err != nil {
			panic(fmt.Sprintf("demo: %v", err))
		}
		q := &geom.Path{}
		q.Append(own, inv.Mul(f.RestMatrix(0, l.ID)))
		areas = append(areas, combine.Area{Path: q})
		k := l.Clone()
		at := inv.Apply(geom.Point{X: l.Place.X, Y: l.Place.Y})
		k.Place.X, k.Place.Y, k.Place.Turn = at.X, at.Y, l.Place.Turn-list[0].Place.Turn
		kept = append(kept, k)
	}
	out, err := combine.Areas(hows[how], areas...)
	if err != nil {
		panic(fmt.Sprintf("demo: %v", err))
	}
	l := *list[0]
	l.Kind, l.Path, l.Shape, l.Corner, l.Text = doc.PathKind, out.Data(), nil, 0, nil
	l.Place.W, l.Place.H = 0, 0
	l.Made = &doc.Made{How: how, Of: kept}
	return &l
}

// quay is a pier on piles, drawn of planks and posts and united.
func (m *maker) quay(x, y float64) *doc.Layer {
	wood := inRole("ground tone", -4)
	part := func(name string, x, y, w, h, corner float64) *doc.Layer {
		l := m.shape("p-quay-"+name, "Plank", doc.Rectangle, wood, x, y, w, h, doc.Shape{})
		l.Corner = corner
		return l
	}
	deck := part("deck", x, y, 560, 26, 6)
	deck.Thread, deck.Name = "p-quay", "Quay"
	list := []*doc.Layer{deck, part("rail", x+10, y-58, 500, 9, 4)}
	for i, at := range []float64{-240, -130, -10, 110, 230} {
		list = append(list, part(fmt.Sprint("pile", i), x+at, y+110, 24, 240, 8), part(fmt.Sprint("post", i), x+at, y-34, 12, 60, 4))
	}
	return combined(doc.MadeUnited, list...)
}

// sailcloth is a small kite with a hole where a sun was dropped out of its overlap with the sail, and a string that is drawn on.
func (m *maker) sailcloth(n int, x, y, turn, size float64, f doc.Fill) *doc.Layer {
	name := fmt.Sprint("p-small", n)
	sail := m.path(name+"-sail", "Sail", fmt.Sprintf("M0 %gL%g %gL0 %gL%g %gZ", -size, size*0.7, -size*0.1, size*1.3, -size*0.7, -size*0.1), red, x, y)
	sail.Fill = f
	sun := m.ellipse(name+"-sun", "Sun", red, x, y-size*0.1, size*0.62, size*0.62)
	spar := m.rect(name+"-spar", "Spar", red, x, y+size*0.15, size*0.06, size*2.6, 0)
	kite := combined(doc.MadeDropped, sail, sun, spar)
	kite.Place.X, kite.Place.Y = 0, 0
	line := m.path(name+"-string", "String", fmt.Sprintf("M0 %gC%g %g %g %g %g %g", size*1.3, -size*0.8, size*2, size*0.9, size*2.6, size*0.1, size*3.6), red, 0, 0)
	line.Fill = doc.Fill{Kind: doc.NoFill}
	line.Stroke = &doc.Stroke{Fill: inRole("words", 0), Width: 4, Cap: geom.RoundCap, Trim: &[2]float64{0, 0.92}}
	g := m.group(name, fmt.Sprint("Small kite ", n), x, y, 1, line, kite)
	g.Place.Turn = turn
	return g
}

// plate is a plate with words punched out of it: what lies behind shows through them.
func (m *maker) plate(words string, x, y, w, h float64) *doc.Layer {
	plate := m.shape("p-plate", "Plate", doc.Rectangle, inRole("accent", 0), x, y, w, h, doc.Shape{})
	plate.Corner = 26
	says := m.text("p-plate-words", "Words", words, "Archivo", 700, 58, x, y-h/2+24, sail, 3)
	says.Text.Align = doc.Centre
	return combined(doc.MadeCut, plate, says)
}
