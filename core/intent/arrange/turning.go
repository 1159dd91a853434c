package arrange

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
)

var turningAsked = intent.Table{
	// Layers are turned over as one, left to right or top to bottom as the page has it, about the middle of all of them.
	"flip": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Down    bool     `json:"down"`
	}) (edit.Command, error) {
		list := atRest(s, m, c.Threads)
		mid := united(list).Centre()
		var set []edit.Part
		for _, r := range list {
			p := r.layer.Place
			to := r.box.Centre()
			if c.Down {
				to.Y = 2*mid.Y - to.Y
				p.FlipY = !p.FlipY
			} else {
				to.X = 2*mid.X - to.X
				p.FlipX = !p.FlipX
			}
			// What was turned one way is turned the other.
			p.Turn = -p.Turn - 2*geom.AngleOf(r.outer)
			set = append(set, posed(s, m, &r, p, to))
		}
		if len(set) == 0 {
			return nil, nil
		}
		return edit.SetPlaces(set), nil
	}),
	// Layers are turned as one, about the middle of all of them; one by itself about its pivot.
	"turn.by": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Degrees float64  `json:"degrees"`
	}) (edit.Command, error) {
		list := atRest(s, m, c.Threads)
		if len(list) == 1 {
			turn := list[0].layer.Place.Turn + c.Degrees
			return edit.All(place(s, m, list[0].layer, nil, nil, nil, nil, &turn)...), nil
		}
		about := geom.Rotate(c.Degrees).About(united(list).Centre())
		var set []edit.Part
		for _, r := range list {
			p := r.layer.Place
			p.Turn += c.Degrees
			set = append(set, posed(s, m, &r, p, about.Apply(r.box.Centre())))
		}
		if len(set) == 0 {
			return nil, nil
		}
		return edit.SetPlaces(set), nil
	}),
}

// posed is the change that gives a layer another turn or flips, with the middle of its box at a point of the page.
func posed(s *intent.Desk, m scope.Moment, r *resting, p doc.Place, mid geom.Point) edit.Part {
	box, pivot := s.Shown.Box(s.SceneIndex(m), r.layer.ID)
	x, y := 1.0, 1.0
	if p.FlipX {
		x = -1
	}
	if p.FlipY {
		y = -1
	}
	flip := geom.Scale(x, y).About(pivot)
	at := mid
	if inv, ok := r.outer.Inverse(); ok {
		at = inv.Apply(mid)
	}
	at = at.Sub(geom.Rotate(p.Turn).Mul(flip).Apply(box.Centre()))
	return edit.PlaceOf(r.layer.ID, edit.Fields{"x": at.X, "y": at.Y, "turn": p.Turn, "flipX": p.FlipX, "flipY": p.FlipY})
}
