package points

import (
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/pen"
	"capstan/core/scope"
	"capstan/core/words"
)

// edited is an intent on the points of one drawn path.
func edited[C any](thread func(c *C) string, f func(c *C, list []pen.Contour, own geom.Matrix) ([]pen.Contour, error)) intent.Ask {
	return intent.Of(func(s *intent.Desk, m scope.Moment, c *C) (edit.Command, error) {
		list := s.Layers(m, []string{thread(c)})
		if len(list) != 1 || list[0].Kind != doc.PathKind {
			return nil, words.New("path.gone")
		}
		contours, err := scope.ContoursOf(list[0])
		if err != nil {
			return nil, words.New("path.unreadable", err)
		}
		s.Stand(m)
		own, _, ok := s.Player.Axes(list[0].ID)
		if !ok {
			own = geom.Identity
		}
		out, err := f(c, contours, own)
		if err != nil || out == nil {
			return nil, err
		}
		return edit.SetPath(list[0].ID, pen.Path(out)), nil
	})
}

type chosenPoints struct {
	Thread string   `json:"thread"`
	IDs    []string `json:"ids"`
}

func (c *chosenPoints) thread() string { return c.Thread }

type movedPoints struct {
	chosenPoints
	DX float64 `json:"dx"`
	DY float64 `json:"dy"`
}

type placeOnPage struct {
	Thread string  `json:"thread"`
	X      float64 `json:"x"` // on the page
	Y      float64 `json:"y"`
}

type tolerance struct {
	Thread    string  `json:"thread"`
	Tolerance float64 `json:"tolerance"`
}

// each calls f for every chosen point, the last first, so that those before keep their places.
func (c *chosenPoints) each(list []pen.Contour, f func(k *pen.Contour, i int)) int {
	var spots []pen.Spot
	for _, id := range c.IDs {
		if p, ok := pen.SpotOf(id, list); ok && p.Part == "" && !slices.Contains(spots, p) {
			spots = append(spots, p)
		}
	}
	for len(spots) > 0 {
		last := 0
		for i, p := range spots {
			if p.Contour > spots[last].Contour || p.Contour == spots[last].Contour && p.Node > spots[last].Node {
				last = i
			}
		}
		f(&list[spots[last].Contour], spots[last].Node)
		spots = slices.Delete(spots, last, last+1)
	}
	return len(c.IDs)
}

var pointsAsked = intent.Table{
	"points.remove": edited((*chosenPoints).thread, func(c *chosenPoints, list []pen.Contour, _ geom.Matrix) ([]pen.Contour, error) {
		var refused bool
		c.each(list, func(k *pen.Contour, i int) { refused = !k.Remove(i) || refused })
		if refused {
			return nil, words.New("points.few")
		}
		return list, nil
	}),
	"points.smooth": edited((*chosenPoints).thread, func(c *chosenPoints, list []pen.Contour, _ geom.Matrix) ([]pen.Contour, error) {
		c.each(list, func(k *pen.Contour, i int) { k.MakeSmooth(i) })
		return list, nil
	}),
	"points.corner": edited((*chosenPoints).thread, func(c *chosenPoints, list []pen.Contour, _ geom.Matrix) ([]pen.Contour, error) {
		c.each(list, func(k *pen.Contour, i int) { k.MakeCorner(i) })
		return list, nil
	}),
	"points.join": edited((*chosenPoints).thread, func(c *chosenPoints, list []pen.Contour, _ geom.Matrix) ([]pen.Contour, error) {
		c.each(list, func(k *pen.Contour, i int) { k.Nodes[i].Join() })
		return list, nil
	}),
	"points.close": edited((*chosenPoints).thread, func(c *chosenPoints, list []pen.Contour, _ geom.Matrix) ([]pen.Contour, error) {
		for i := range list {
			list[i].Closed = len(list[i].Nodes) > 1
		}
		return list, nil
	}),
	"points.reverse": edited((*chosenPoints).thread, func(c *chosenPoints, list []pen.Contour, _ geom.Matrix) ([]pen.Contour, error) {
		for i := range list {
			list[i].Reverse()
		}
		return list, nil
	}),
	"points.move": edited((*movedPoints).thread, func(c *movedPoints, list []pen.Contour, own geom.Matrix) ([]pen.Contour, error) {
		inv, ok := own.Inverse()
		if !ok {
			return nil, nil
		}
		by := inv.ApplyVector(geom.Point{X: c.DX, Y: c.DY})
		c.each(list, func(k *pen.Contour, i int) {
			v := &k.Nodes[i]
			*v = v.Moved(by)
		})
		return list, nil
	}),
	// Opens a ring at a point, or divides a line there.
	"points.cut": edited((*chosenPoints).thread, func(c *chosenPoints, list []pen.Contour, _ geom.Matrix) ([]pen.Contour, error) {
		if len(c.IDs) != 1 {
			return nil, words.New("points.one")
		}
		p, ok := pen.SpotOf(c.IDs[0], list)
		if !ok {
			return nil, words.New("points.one")
		}
		return slices.Concat(list[:p.Contour], pen.Cut(list[p.Contour], p.Node), list[p.Contour+1:]), nil
	}),
	"points.insert": edited(func(c *placeOnPage) string { return c.Thread }, func(c *placeOnPage, list []pen.Contour, own geom.Matrix) ([]pen.Contour, error) {
		inv, ok := own.Inverse()
		if !ok {
			return nil, nil
		}
		best, at, t, least := -1, 0, 0.0, math.Inf(1)
		for i := range list {
			if k, u, d := list[i].Nearest(inv.Apply(geom.Point{X: c.X, Y: c.Y})); d < least {
				best, at, t, least = i, k, u, d
			}
		}
		if best < 0 {
			return nil, nil
		}
		list[best].Insert(at, t)
		return list, nil
	}),
	"points.simplify": edited(func(c *tolerance) string { return c.Thread }, func(c *tolerance, list []pen.Contour, _ geom.Matrix) ([]pen.Contour, error) {
		return pen.Simplify(list, tolerated(c.Tolerance)), nil
	}),
	// Shapes become paths with points; undo gives their numbers back.
	"points.begin": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		var list []string
		for _, l := range s.Layers(m, c.Threads) {
			if l.IsShape() {
				list = append(list, l.ID)
			}
		}
		if len(list) == 0 {
			return nil, nil
		}
		return &edit.OutlineShapes{IDs: list}, nil
	}),
}
