package effect

import "capstan/core/geom"

// Wipe is uncovered by a straight front: u is the distance along the direction, 0..len; the front stands at p (len + s).
const Wipe = "wipe"

var _ = add(Effect{
	Name: Wipe, Words: "Wipe", Rank: 30,
	Finds:  "reveal uncover unveil sweep erase swipe",
	Params: append([]Param{travel(0), softness()}, tied("", "Tied to", "")...),
	Comes:  drivenBy(uncovered("wiped", wipe), wipeTies, tieWipe),
	Pages:  &Pages{Front: wipe, Turns: true, Sign: [2]string{"M-7 -8v16", "M-1 -8v16M3 -4l4 4l-4 4"}},
})

// Straight is a front that goes along a direction, degrees clockwise from the right, with a hard edge.
func Straight(direction float64) *Front { return straight(direction, 0) }

func wipe(p Params) *Front { return straight(p.Number("direction"), p.Number("softness")) }

func straight(direction, s float64) *Front {
	v := unit(direction)
	return &Front{at: func(box geom.Box, share float64) Field {
		from, to := across(box, v)
		return field(Half, v.X, v.Y, from+share*(to-from+s), s, 0)
	}}
}

// drivenBy is an entrance whose edges other layers may drive.
func drivenBy(c *Comes, ties func(Params) Ties, to func(Params, string, geom.Point) Params) *Comes {
	c.Ties, c.TieTo = ties, to
	return c
}

// uncovered is an entrance by a front alone.
func uncovered(how string, front func(Params) *Front) *Comes {
	return &Comes{Says: [2]string{"is " + how + " in", "is " + how + " out"}, ByUnit: true, Still: true, Front: func(of Of) *Front { return front(of.Params) }, Rule: func(Of) func(Moment) Shown {
		return func(at Moment) Shown { return Shown{Opacity: 1, Share: clamp(at.P)} }
	}}
}

// uncoveredBy is uncovered in other words: by doors.
func uncoveredBy(what string, front func(Params) *Front) *Comes {
	c := uncovered("", front)
	c.Says = [2]string{"is uncovered by " + what, "is covered by " + what}
	return c
}
