package shape

import (
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
)

// LineFrom is the place of a line between two points; equal: at steps of 15 degrees.
func LineFrom(from, to geom.Point, equal, centred bool) doc.Place {
	d := to.Sub(from)
	turn := math.Atan2(d.Y, d.X) * 180 / math.Pi
	l := d.Len()
	if equal {
		turn = math.Round(turn/15) * 15
	}
	sin, cos := math.Sincos(turn * math.Pi / 180)
	mid := from.Add(geom.Point{X: cos * l / 2, Y: sin * l / 2})
	if centred {
		mid, l = from, 2*l
	}
	return doc.Place{X: mid.X, Y: mid.Y, W: l, Turn: turn}
}
