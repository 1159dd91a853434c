package geom

import "math"

// AtShares is a point given in shares of a box.
func AtShares(box Box, v [2]float64) Point {
	return Point{X: box.Min.X + v[0]*box.W(), Y: box.Min.Y + v[1]*box.H()}
}

// Pair is a point as two numbers.
func Pair(p Point) [2]float64 { return [2]float64{p.X, p.Y} }

// Hundredth is a number as it is written and shown: to two places.
func Hundredth(v float64) float64 { return math.Round(v*100) / 100 }
