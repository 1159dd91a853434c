package variant

import (
	"fmt"
	"math"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
)

// room is how far words may reach beyond what they lie on before that is told, in page px.
const room = 1.5

// Fits says of the texts that a row filled which do not fit where those of the film itself did, scene by scene as each rests: in a box of fixed height, on
// the page, on what they lie on. film and filled are both compiled.
func Fits(film, filled *frame.Film) []Trouble {
	var list []Trouble
	told := map[string]bool{}
	a, b := film.Player(), filled.Player()
	page := geom.Box{Max: geom.Point{X: float64(film.Doc.Film.Width), Y: float64(film.Doc.Film.Height)}}
	columns := map[string]string{} // of threads
	for _, s := range film.Doc.Film.Shown() {
		doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
			if l.Text != nil && l.Column != "" {
				columns[l.Thread] = l.Column
			}
			return true
		})
	}
	for i, s := range film.Doc.Film.Shown() {
		a.StandAtRest(i)
		b.StandAtRest(i)
		was, is := standing(a), standing(b)
		for k := range was {
			t := &was[k]
			column := columns[t.layer.Thread]
			now := find(is, t.layer.ID)
			if column == "" || t.layer.Text == nil || now == nil || now.layer.Text.String() == t.layer.Text.String() {
				continue
			}
			tell := func(how string, args ...any) {
				says := fmt.Sprintf(how, args...)
				if told[column+says] {
					return
				}
				told[column+says] = true
				if len(film.Doc.Film.Shown()) > 1 {
					says += " in " + s.Name
				}
				list = append(list, Trouble{column, says})
			}
			if _, over := filled.Fit(i, t.layer.ID); over > room {
				if _, before := film.Fit(i, t.layer.ID); before <= room {
					tell("its words are %.0f px higher than their box", over)
				}
			}
			if by := beyond(now.box, page); by > room && beyond(t.box, page) <= room {
				tell("its words reach %.0f px beyond the page", by)
				continue
			}
			if on := under(was[:k], t.box); on != nil {
				if o := find(is, on.layer.ID); o != nil && beyond(now.box, o.box) > room {
					tell("its words reach %.0f px beyond “%s”", beyond(now.box, o.box), on.layer.Name)
				}
			}
		}
	}
	return list
}

// stood is a layer and the upright box around it on the page.
type stood struct {
	layer *doc.Layer
	box   geom.Box
}

func standing(p *frame.Player) (list []stood) {
	p.EachPlaced(func(l *doc.Layer, corners [4]geom.Point, _ []string) {
		b := geom.EmptyBox()
		for _, q := range corners {
			b = b.Include(q)
		}
		list = append(list, stood{l, b})
	})
	return list
}

func find(list []stood, id string) *stood {
	for i := range list {
		if list[i].layer.ID == id {
			return &list[i]
		}
	}
	return nil
}

// under is the smallest thing below that a box lies on as a whole, if it is not many times as large: a card, not the sky.
func under(below []stood, box geom.Box) (on *stood) {
	area := func(b geom.Box) float64 { return b.W() * b.H() }
	for i := range below {
		o := &below[i]
		if o.layer.Kind == doc.Group || o.layer.Text != nil || beyond(box, o.box) > room || area(o.box) > 30*area(box) {
			continue
		}
		if on == nil || area(o.box) < area(on.box) {
			on = o
		}
	}
	return on
}

// beyond is how far a box reaches out of another.
func beyond(b, of geom.Box) float64 {
	return math.Max(math.Max(of.Min.X-b.Min.X, of.Min.Y-b.Min.Y), math.Max(b.Max.X-of.Max.X, b.Max.Y-of.Max.Y))
}
