package effect

import (
	"math"

	"capstan/core/geom"
)

// Hinge comes round an edge or a middle axis of its box, from a quarter turn out of the page, in true perspective.
const Hinge = "hinge"

var _ = add(Effect{
	Name: Hinge, Words: "Hinge", Rank: 62,
	Finds: "flip door turn page swing fold card 3d perspective rotate",
	Params: []Param{
		func() Param {
			q := choice("axis", "Hangs on", "Axis it turns about",
				Option{Value: "left", Words: "its left edge"}, Option{Value: "right", Words: "its right edge"},
				Option{Value: "top", Words: "its upper edge"}, Option{Value: "bottom", Words: "its lower edge"},
				Option{Value: "upright", Words: "its upright middle"}, Option{Value: "level", Words: "its level middle"})
			return q.mirrored(func(v any) any {
				if o := map[any]string{"left": "right", "right": "left", "top": "bottom", "bottom": "top"}[v]; o != "" {
					return o
				}
				return v
			})
		}(),
		func() Param {
			q := num("from", "From", "Angle it comes from, towards the viewer", "°", 90, -180, 180)
			q.Out = "To"
			return q
		}(),
		share("depth", "Seen from", "How far off the viewer is, against its longer side", 2, 110, 2000),
	},
	Comes: &Comes{Says: [2]string{"swings in on a hinge", "swings out on a hinge"}, ByUnit: true, Over: over, Rule: func(of Of) func(Moment) Shown {
		tilt := Tilt{Axis: of.Params.Word("axis"), Depth: of.Params.Number("depth")}
		from := of.Params.Number("from")
		return func(at Moment) Shown {
			t := tilt
			t.Angle = from * (1 - at.P)
			if at.Through {
				t.Angle = -t.Angle
			}
			return Shown{Opacity: 1, Tilt: t, Away: at.X <= 0}
		}
	}},
})

func over(level bool) Params {
	if level {
		return Params{"axis": "level"}
	}
	return Params{"axis": "upright"}
}

// Tilt is a turn out of the page about an axis of a box; the zero Tilt is none.
type Tilt struct {
	Axis  string  // left, right, top, bottom, upright, level
	Angle float64 // degrees; above 0 the side that is free, or the right or lower one, comes towards the viewer
	Depth float64 // how far off the viewer is: times the longer side of the box, and 1 px at least
}

// Projection returns the turn of a box, in the box's axes.
func (t *Tilt) Projection(box geom.Box) geom.Projection {
	c := box.Centre()
	pivot, toward := c, geom.Point{X: 1}
	switch t.Axis {
	case "left":
		pivot.X = box.Min.X
	case "right":
		pivot.X, toward.X = box.Max.X, -1
	case "top":
		pivot.Y, toward = box.Min.Y, geom.Point{Y: 1}
	case "bottom":
		pivot.Y, toward = box.Max.Y, geom.Point{Y: -1}
	case "level":
		toward = geom.Point{Y: 1}
	}
	return geom.Hinged(pivot, toward, t.Angle, max(1, t.Depth*math.Max(box.W(), box.H())))
}

// Tilts are turns out of the page of one thing: two at most, the last of those that there are.
type Tilts [2]Tilt

// None reports whether nothing is turned.
func (t *Tilts) None() bool { return t[0].Angle == 0 && t[1].Angle == 0 }

// And adds a turn, in front of those that are there.
func (t Tilts) And(o Tilt) Tilts {
	if o.Angle == 0 {
		return t
	}
	return Tilts{o, t[0]}
}

// Toward is t on its way to o, at a share: what one side is turned by goes, as that of the other comes.
func (t Tilts) Toward(o Tilts, share float64) Tilts {
	a, b := t[0], o[0]
	a.Angle *= 1 - share
	b.Angle *= share
	return Tilts{}.And(a).And(b)
}

// Projection returns all turns of a box, in the box's axes.
func (t *Tilts) Projection(box geom.Box) geom.Projection {
	p := geom.Flat(geom.Identity)
	for i := range t {
		if t[i].Angle != 0 {
			p = p.Mul(t[i].Projection(box))
		}
	}
	return p
}
