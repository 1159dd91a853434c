package svg

import (
	"math"

	"capstan/core/geom"
)

// maxPoints is how many points an outline may have.
const maxPoints = 200_000

// readPath reads path data with all its commands. What follows a mistake is left out, and whole is false (SVG 2, section 9.5.4).
func readPath(s string) (p *geom.Path, whole bool) {
	p = &geom.Path{}
	r := &scanner{s: s}
	var at, start, control geom.Point // control: of the curve before
	var letter, before byte
	curve := byte(0) // c or q, where the segment before was one
	for {
		r.blank()
		if r.i >= len(s) {
			return p, true
		}
		if c := s[r.i]; c >= 'A' && c <= 'Z' || c >= 'a' && c <= 'z' {
			letter = c
			r.i++
		} else if letter == 0 || letter == 'Z' || letter == 'z' {
			return p, false
		} else if letter == 'M' {
			letter = 'L'
		} else if letter == 'm' {
			letter = 'l'
		}
		if before == 0 && letter != 'M' && letter != 'm' || len(p.Points) > maxPoints {
			return p, false
		}
		before = letter
		relative := letter >= 'a'
		good := true
		num := func() float64 {
			v, ok := r.number()
			good = good && ok
			return v
		}
		point := func() geom.Point {
			q := geom.Point{X: num(), Y: num()}
			if relative {
				q = q.Add(at)
			}
			return q
		}
		// After a closed line another begins where that did.
		if n := len(p.Verbs); n > 0 && p.Verbs[n-1] == geom.Close && letter != 'M' && letter != 'm' && letter != 'Z' && letter != 'z' {
			p.Move(start)
		}
		was := curve
		curve = 0
		switch letter | 0x20 {
		case 'm':
			q := point()
			if good {
				p.Move(q)
				at, start = q, q
			}
		case 'l':
			if q := point(); good {
				p.Line(q)
				at = q
			}
		case 'h', 'v':
			q := at
			v := num()
			switch {
			case letter == 'h':
				q.X += v
			case letter == 'H':
				q.X = v
			case letter == 'v':
				q.Y += v
			default:
				q.Y = v
			}
			if good {
				p.Line(q)
				at = q
			}
		case 'c', 's':
			a := at
			if letter|0x20 == 'c' {
				a = point()
			} else if was == 'c' {
				a = at.Mul(2).Sub(control)
			}
			b, q := point(), geom.Point{}
			if q = point(); good {
				p.Cubic(a, b, q)
				at, control, curve = q, b, 'c'
			}
		case 'q', 't':
			a := at
			if letter|0x20 == 'q' {
				a = point()
			} else if was == 'q' {
				a = at.Mul(2).Sub(control)
			}
			if q := point(); good {
				p.Quad(a, q)
				at, control, curve = q, a, 'q'
			}
		case 'a':
			rx, ry, turn := num(), num(), num()
			large, ok1 := r.flag()
			sweep, ok2 := r.flag()
			good = good && ok1 && ok2
			if q := point(); good {
				arc(p, at, q, rx, ry, turn, large, sweep)
				at = q
			}
		case 'z':
			p.Close()
			at = start
		default:
			return p, false
		}
		if !good {
			return p, false
		}
	}
}

// arc adds an elliptical arc as cubics of at most a quarter each (SVG 2, appendix B.2; the error of such a cubic is below 3/10,000 of its radius).
func arc(p *geom.Path, from, to geom.Point, rx, ry, turn float64, large, sweep bool) {
	rx, ry = math.Abs(rx), math.Abs(ry)
	if from == to {
		return
	}
	if rx == 0 || ry == 0 {
		p.Line(to)
		return
	}
	sin, cos := math.Sincos(turn * math.Pi / 180)
	dx, dy := (from.X-to.X)/2, (from.Y-to.Y)/2
	x1, y1 := cos*dx+sin*dy, -sin*dx+cos*dy
	if k := x1*x1/(rx*rx) + y1*y1/(ry*ry); k > 1 {
		rx, ry = rx*math.Sqrt(k), ry*math.Sqrt(k)
	}
	f := 0.0
	if d := rx*rx*y1*y1 + ry*ry*x1*x1; d > 0 {
		f = math.Sqrt(max(0, (rx*rx*ry*ry-d)/d))
	}
	if large == sweep {
		f = -f
	}
	cx, cy := f*rx*y1/ry, -f*ry*x1/rx
	a := math.Atan2((y1-cy)/ry, (x1-cx)/rx)
	b := math.Atan2((-y1-cy)/ry, (-x1-cx)/rx)
	sweepBy := b - a
	if sweep && sweepBy < 0 {
		sweepBy += 2 * math.Pi
	} else if !sweep && sweepBy > 0 {
		sweepBy -= 2 * math.Pi
	}
	n := int(math.Ceil(math.Abs(sweepBy)/(math.Pi/2) - 1e-9))
	m := geom.Matrix{A: cos * rx, B: sin * rx, C: -sin * ry, D: cos * ry, E: cos*cx - sin*cy + (from.X+to.X)/2, F: sin*cx + cos*cy + (from.Y+to.Y)/2}
	step := sweepBy / float64(n)
	k := 4.0 / 3 * math.Tan(step/4)
	for i := range n {
		s0, c0 := math.Sincos(a + float64(i)*step)
		s1, c1 := math.Sincos(a + float64(i+1)*step)
		end := m.Apply(geom.Point{X: c1, Y: s1})
		if i == n-1 {
			end = to
		}
		p.Cubic(m.Apply(geom.Point{X: c0 - k*s0, Y: s0 + k*c0}), m.Apply(geom.Point{X: c1 + k*s1, Y: s1 - k*c1}), end)
	}
}
