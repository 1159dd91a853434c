package points

import (
	"math"

	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/pen"
	"capstan/core/scope"
	"capstan/core/words"
)

// placed is what is done to the chosen points as one: put in line, turned, scaled, all on the page.
type placed struct {
	chosenPoints
	Line   string  `json:"line"`   // row: all at one height; column: all one above another
	Degree float64 `json:"degree"` // turned about their middle
	Scale  float64 `json:"scale"`  // about their middle; 0 is not at all
}

// place maps the chosen points of contours that lie under own on the page.
func (c *placed) place(list []pen.Contour, own geom.Matrix) error {
	inv, ok := own.Inverse()
	if !ok {
		return nil
	}
	var all []geom.Point
	c.each(list, func(k *pen.Contour, i int) { all = append(all, own.Apply(k.Nodes[i].At)) })
	if len(all) < 2 {
		return words.New("points.two")
	}
	lo, hi := all[0], all[0]
	for _, q := range all {
		lo = geom.Point{X: min(lo.X, q.X), Y: min(lo.Y, q.Y)}
		hi = geom.Point{X: max(hi.X, q.X), Y: max(hi.Y, q.Y)}
	}
	mid := lo.Lerp(hi, 0.5)
	about := geom.Identity
	if c.Scale != 0 {
		k := min(max(c.Scale, 0.01), 100)
		about = geom.Scale(k, k)
	}
	about = geom.Rotate(c.Degree).Mul(about).About(mid)
	c.each(list, func(k *pen.Contour, i int) {
		v := &k.Nodes[i]
		q := own.Apply(v.At)
		switch c.Line {
		case "row":
			*v = v.Moved(inv.ApplyVector(geom.Point{Y: mid.Y - q.Y}))
		case "column":
			*v = v.Moved(inv.ApplyVector(geom.Point{X: mid.X - q.X}))
		default:
			m := inv.Mul(about).Mul(own)
			*v = pen.Node{At: m.Apply(v.At), In: m.Apply(v.In), Out: m.Apply(v.Out)}
		}
	})
	return nil
}

// Simplified returns how many points a drawn path keeps when it may move by tolerance px; 0 for other layers.
func Simplified(s *intent.Desk, m scope.Moment, thread string, tolerance float64) int {
	list := s.Layers(m, []string{thread})
	if len(list) != 1 {
		return 0
	}
	contours, err := scope.ContoursOf(list[0])
	if err != nil {
		return 0
	}
	n := 0
	for _, c := range pen.Simplify(contours, tolerated(tolerance)) {
		n += len(c.Nodes)
	}
	return n
}

// tolerated limits how far a line may move when it is simplified, px.
func tolerated(tolerance float64) float64 {
	if math.IsNaN(tolerance) {
		return 0.01
	}
	return min(max(tolerance, 0.01), 1000)
}

var pointsPlaceAsked = intent.Table{
	"points.place": edited(func(c *placed) string { return c.Thread }, func(c *placed, list []pen.Contour, own geom.Matrix) ([]pen.Contour, error) {
		return list, c.place(list, own)
	}),
}
