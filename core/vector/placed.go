package vector

import (
	"math"

	"capstan/core/geom"
)

// A place is a matrix as turns and lengths, which go evenly where the numbers of a matrix do not:
// translate(x y) rotate(turn) skewX(skew) scale(sx sy) translate(-pivot).
const (
	placeX = iota
	placeY
	placeTurn // degrees, not reduced
	placeSkew // degrees
	placeSX
	placeSY
	placeNumbers
)

// place takes a matrix apart about a pivot, in local px. before is the place of a moment ago: turns go on from it, and a mirrored side stays mirrored.
func place(m geom.Matrix, pivot geom.Point, before []float64) []float64 {
	p := m.Apply(pivot)
	sx, sy, turn, skew := math.Hypot(m.A, m.B), 0.0, 0.0, 0.0
	if before != nil {
		turn, skew = before[placeTurn], before[placeSkew]
	}
	if sx > 1e-9 {
		turn = math.Atan2(m.B, m.A) * 180 / math.Pi
		sy = m.Det() / sx
		skew = 0
		if shear := (m.A*m.C + m.B*m.D) / sx; math.Abs(sy) > 1e-9 {
			skew = math.Atan2(shear, math.Abs(sy)) * 180 / math.Pi
			if sy < 0 {
				skew = -skew
			}
		}
	} else {
		sx = 0
		s, c := math.Sincos(turn * math.Pi / 180)
		sy = -s*m.C + c*m.D
	}
	if before != nil {
		// Half a turn more with both sides mirrored is the same.
		near := func(t float64) float64 { return t + 360*math.Round((before[placeTurn]-t)/360) }
		a, b := near(turn), near(turn+180)
		if turn = a; math.Abs(b-before[placeTurn]) < math.Abs(a-before[placeTurn])-1e-9 {
			turn, sx, sy = b, -sx, -sy
		}
	}
	return []float64{p.X, p.Y, turn, skew, sx, sy}
}

// matrix is the map that a place stands for.
func matrix(v []float64, pivot geom.Point) geom.Matrix {
	s, c := math.Sincos(v[placeTurn] * math.Pi / 180)
	t := math.Tan(v[placeSkew] * math.Pi / 180)
	sx, sy := v[placeSX], v[placeSY]
	m := geom.Matrix{A: c * sx, B: s * sx, C: (c*t - s) * sy, D: (s*t + c) * sy, E: v[placeX], F: v[placeY]}
	return m.Mul(geom.Translate(geom.Point{X: -pivot.X, Y: -pivot.Y}))
}

// still is the point of a moving thing that moves least: the one about which it turns and grows, where there is one. Of
// sum |A c + t - mean|^2 it is the least, with a small pull towards the middle.
func still(ms []geom.Matrix, middle geom.Point) geom.Point {
	n := float64(len(ms))
	var mean geom.Matrix
	for _, m := range ms {
		mean.A, mean.B, mean.C, mean.D, mean.E, mean.F = mean.A+m.A/n, mean.B+m.B/n, mean.C+m.C/n, mean.D+m.D/n, mean.E+m.E/n, mean.F+m.F/n
	}
	pull := 1e-9 * n
	a, b, d := pull, 0.0, pull
	var g, h float64
	for _, m := range ms {
		m.A, m.B, m.C, m.D, m.E, m.F = m.A-mean.A, m.B-mean.B, m.C-mean.C, m.D-mean.D, m.E-mean.E, m.F-mean.F
		e := m.Apply(middle)
		a, b, d = a+m.A*m.A+m.B*m.B, b+m.A*m.C+m.B*m.D, d+m.C*m.C+m.D*m.D
		g, h = g-m.A*e.X-m.B*e.Y, h-m.C*e.X-m.D*e.Y
	}
	det := a*d - b*b
	if det <= 0 {
		return middle
	}
	return middle.Add(geom.Point{X: (g*d - b*h) / det, Y: (a*h - b*g) / det})
}
