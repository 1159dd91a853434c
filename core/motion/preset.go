package motion

import (
	"math"

	"capstan/core/geom"
)

// The lines that a motion path can be made by numbers.
const (
	Straight = "straight"
	Arc      = "arc"     // a parabola
	Wave     = "wave"    // a sine along the straight way
	Ellipse  = "ellipse" // once round
	Free     = "free"    // any other
)

// Preset is the line of a motion path, by its numbers; px. The document holds the line alone: which numbers it has is read from that.
type Preset struct {
	Shape  string  `json:"shape"`
	Height float64 `json:"height"` // of an arc at its middle, and of the first crest of a wave, over the straight way: upwards; of an ellipse all of it
	Count  float64 `json:"count"`  // of waves, by halves
	Width  float64 `json:"width"`  // of an ellipse
	Start  float64 `json:"start"`  // of an ellipse, degrees clockwise from its top: where it begins
	Back   bool    `json:"back"`   // of an ellipse: anticlockwise
}

// MaxWaves is how many waves a path has at most.
const MaxWaves = 100

// A quarter of a sine, from 0 to its crest, as one cubic: its second point, and the x of its third. They leave it by less than a thousandth of its
// height (from memory; TestPresetsFollowTheirFormulas holds them to it).
const (
	sineFrom = 0.512286623256592
	sineTo   = 1.002313685767899
)

// quarter is the share of its radius at which the handles of a quarter of a circle lie: 4/3 (sqrt 2 - 1).
const quarter = 0.5522847498307936

// Path is the line from a to b. Of an ellipse b counts for nothing: it ends where it begins.
func (s *Preset) Path(a, b geom.Point) *geom.Path {
	p := &geom.Path{}
	p.Move(a)
	d := b.Sub(a)
	up := upOf(d)
	at := func(share, high float64) geom.Point { return a.Add(d.Mul(share)).Add(up.Mul(high)) }
	switch s.Shape {
	case Arc:
		p.Quad(at(0.5, 2*s.Height), b)
	case Wave:
		n := int(math.Round(s.Count * 4))
		step := 1 / float64(n) // of the way, a quarter of a wave
		k := step / (math.Pi / 2)
		for i := range n {
			from := float64(i) * step
			sign := s.Height
			if i%4 >= 2 {
				sign = -sign
			}
			end := at(from+step, 0)
			if i == n-1 {
				end = b
			}
			if i%2 == 0 { // rises to a crest
				p.Cubic(at(from+sineFrom*k, sineFrom*sign), at(from+sineTo*k, sign), at(from+step, sign))
			} else {
				p.Cubic(at(from+step-sineTo*k, sign), at(from+step-sineFrom*k, sineFrom*sign), end)
			}
		}
	case Ellipse:
		turn := 90.0
		if s.Back {
			turn = -90
		}
		on := func(deg float64) geom.Point { // on the circle, from its top
			sin, cos := math.Sincos(deg * math.Pi / 180)
			return geom.Point{X: sin, Y: -cos}
		}
		r := geom.Point{X: s.Width / 2, Y: s.Height / 2}
		first := on(s.Start)
		put := func(q geom.Point) geom.Point { q = q.Sub(first); return a.Add(geom.Point{X: q.X * r.X, Y: q.Y * r.Y}) }
		for i := range 4 {
			u, v := on(s.Start+turn*float64(i)), on(s.Start+turn*float64(i+1))
			end := put(v)
			if i == 3 {
				end = a
			}
			p.Cubic(put(u.Add(v.Mul(quarter))), put(v.Add(u.Mul(quarter))), end)
		}
	default:
		p.Line(b)
	}
	return p
}

// upOf is the unit vector across a way that rises; of one straight up or down, to the right of the way up.
func upOf(d geom.Point) geom.Point {
	l := d.Len()
	if l < 1e-9 {
		return geom.Point{Y: -1}
	}
	up := geom.Point{X: d.Y / l, Y: -d.X / l}
	if up.Y > 1e-12 || math.Abs(up.Y) <= 1e-12 && up.X < 0 {
		return up.Mul(-1)
	}
	return up
}

// PresetOf is what a line is, by its numbers.
func PresetOf(p *geom.Path) Preset {
	n := len(p.Points)
	if n < 2 || len(p.Verbs) < 2 || p.Verbs[0] != geom.MoveTo {
		return Preset{Shape: Free}
	}
	for _, v := range p.Verbs[1:] {
		if v != p.Verbs[1] {
			return Preset{Shape: Free}
		}
	}
	a, b := p.Points[0], p.Points[n-1]
	up := upOf(b.Sub(a))
	high := func(q geom.Point) float64 { return q.Sub(a).X*up.X + q.Sub(a).Y*up.Y }
	var s Preset
	switch steps := len(p.Verbs) - 1; {
	case p.Verbs[1] == geom.LineTo && steps == 1:
		return Preset{Shape: Straight}
	case p.Verbs[1] == geom.CubicTo && steps == 1: // any bow counts: it is as high at its middle
		return Preset{Shape: Arc, Height: geom.Hundredth(0.375 * (high(p.Points[1]) + high(p.Points[2])))}
	case p.Verbs[1] == geom.CubicTo && steps == 4 && b.Sub(a).Len() < 0.02:
		s = ellipseOf(a, p.Points[3], p.Points[6], p.Points[9])
	case p.Verbs[1] == geom.CubicTo && steps%2 == 0 && b.Sub(a).Len() >= 0.02:
		s = Preset{Shape: Wave, Height: geom.Hundredth(high(p.Points[3])), Count: float64(steps) / 4}
	default:
		return Preset{Shape: Free}
	}
	// It is that if it lies where that would, to what is written of it.
	made := s.Path(a, b)
	for i, q := range made.Points {
		if q.Sub(p.Points[i]).Len() > 0.05+1e-3*(s.Width+math.Abs(s.Height)) {
			return Preset{Shape: Free}
		}
	}
	return s
}

// ellipseOf is the ellipse with these points a quarter apart.
func ellipseOf(a, b, c, d geom.Point) Preset {
	middle := a.Add(b).Add(c).Add(d).Mul(0.25)
	u, v := a.Sub(middle), b.Sub(middle)
	w, h := math.Hypot(u.X, v.X), math.Hypot(u.Y, v.Y)
	s := Preset{Shape: Ellipse, Width: geom.Hundredth(2 * w), Height: geom.Hundredth(2 * h), Back: u.X*v.Y-u.Y*v.X < 0}
	if w > 0 && h > 0 {
		s.Start = geom.Hundredth(math.Mod(math.Atan2(u.X/w, -u.Y/h)*180/math.Pi+360, 360))
	}
	return s
}
