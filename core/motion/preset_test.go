package motion_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/geom"
	"capstan/core/motion"
)

// Lines by numbers follow their formulas: an arc the parabola 4 h s (1 - s) over the straight way, as a thing thrown does, to 1e-9; a wave h sin(2 pi
// n s) to a thousandth of its height; an ellipse x²/a² + y²/b² = 1 to 3e-4, from where it begins, in its sense. Read back from the data that is
// stored, they have the numbers they were made with; with a point pulled out they are free.
func TestPresetsFollowTheirFormulas(t *testing.T) {
	r := rand.New(rand.NewPCG(24, 2))
	for range 300 {
		a := geom.Point{X: r.Float64() * 500, Y: r.Float64() * 500}
		b := a.Add(geom.Point{X: 100 + r.Float64()*800, Y: r.Float64()*600 - 300})
		d := b.Sub(a)
		whole := func(n float64) float64 { return math.Round(r.Float64() * n) }
		for _, s := range []motion.Preset{
			{Shape: motion.Straight}, {Shape: motion.Arc, Height: whole(400) - 200}, {Shape: motion.Wave, Height: 5 + whole(100), Count: 0.5 + whole(12)/2},
			{Shape: motion.Ellipse, Width: 20 + whole(600), Height: 20 + whole(600), Start: whole(359), Back: r.IntN(2) == 0},
		} {
			p := s.Path(a, b)
			first := geom.Point{}
			each(p, func(q geom.Point, step, along float64) {
				along += step
				switch s.Shape {
				case motion.Ellipse:
					sin, cos := math.Sincos(s.Start * math.Pi / 180)
					middle := a.Sub(geom.Point{X: sin * s.Width / 2, Y: -cos * s.Height / 2})
					x, y := (q.X-middle.X)/(s.Width/2), (q.Y-middle.Y)/(s.Height/2)
					if off := math.Hypot(x, y); math.Abs(off-1) > 3e-4 {
						t.Fatalf("%+v: %v is at %.5f of the ellipse", s, q, off)
					}
					if first == (geom.Point{}) && along > 0.1 {
						first = geom.Point{X: x*cos + y*sin, Y: 1}
						if (first.X < 0) != s.Back {
							t.Fatalf("%+v: it goes the other way round", s)
						}
					}
				default:
					across := (d.X*(q.Y-a.Y) - d.Y*(q.X-a.X)) / d.Len() // below the way
					share := (d.X*(q.X-a.X) + d.Y*(q.Y-a.Y)) / (d.Len() * d.Len())
					want, near := 0.0, 1e-9
					if s.Shape == motion.Arc {
						want = 4 * s.Height * share * (1 - share)
					}
					if s.Shape == motion.Wave {
						want, near = s.Height*math.Sin(2*math.Pi*s.Count*share), 1e-3*s.Height
					}
					if math.Abs(-across-want) > near {
						t.Fatalf("%+v: at %.3f it is %.4f high, want %.4f", s, share, -across, want)
					}
				}
			})
			read, err := geom.ParseData(p.Data())
			if err != nil {
				t.Fatal(err)
			}
			if got := motion.PresetOf(read); got.Shape != s.Shape || math.Abs(got.Height-s.Height) > 0.02 || got.Count != s.Count || math.Abs(got.Width-s.Width) > 0.02 ||
				math.Abs(math.Mod(got.Start-s.Start+540, 360)-180) > 0.1 || got.Back != s.Back {
				t.Fatalf("%+v is read back as %+v", s, got)
			}
			if n := len(read.Points); n > 4 {
				read.Points[3].X += 9
				if got := motion.PresetOf(read); got.Shape != motion.Free && s.Count != 0.5 { // half a wave with its crest aside is one still
					t.Fatalf("%+v with a point pulled out is taken for %+v", s, got)
				}
			}
		}
	}
}

// each calls f with points of a path's steps, which step that is and how far along it.
func each(p *geom.Path, f func(q geom.Point, step, along float64)) {
	at, i := p.Points[0], 1
	for n, v := range p.Verbs[1:] {
		pts := p.Points[i : i+geom.PointsOf[v]]
		for _, u := range []float64{0.2, 0.45, 0.7, 1} {
			q := at.Mul(1 - u).Add(pts[0].Mul(u))
			if len(pts) == 3 {
				w := 1 - u
				q = at.Mul(w * w * w).Add(pts[0].Mul(3 * w * w * u)).Add(pts[1].Mul(3 * w * u * u)).Add(pts[2].Mul(u * u * u))
			}
			f(q, float64(n), u)
		}
		at, i = pts[len(pts)-1], i+len(pts)
	}
}
