package geom_test

import (
	"math"
	"testing"

	"capstan/core/geom"
)

// inkArea counts what an outline covers by the nonzero rule, on a grid of quarter px.
func inkArea(p *geom.Path) float64 {
	b := p.Bounds().Grow(1)
	n := 0
	const step = 0.25
	for y := b.Min.Y + step/2; y < b.Max.Y; y += step {
		for x := b.Min.X + step/2; x < b.Max.X; x += step {
			if p.Contains(geom.Point{X: x, Y: y}) {
				n++
			}
		}
	}
	return float64(n) * step * step
}

func parse(t *testing.T, d string) *geom.Path {
	t.Helper()
	p, err := geom.ParseData(d)
	if err != nil {
		t.Fatal(err)
	}
	return p
}

// Areas that follow from SVG 2, section 13.5, by school geometry.
func TestStrokesCoverTheirArea(t *testing.T) {
	sq := "M0 0L40 0L40 40L0 40Z"
	for _, c := range []struct {
		name, d string
		pen     geom.Pen
		want    float64
	}{
		{"a line", "M0 0L50 0", geom.Pen{Width: 10}, 500},
		{"with square caps", "M0 0L50 0", geom.Pen{Width: 10, Cap: geom.SquareCap}, 600},
		{"with round caps", "M0 0L50 0", geom.Pen{Width: 10, Cap: geom.RoundCap}, 500 + 25*math.Pi},
		{"a point with round caps", "M9 9Z", geom.Pen{Width: 10, Cap: geom.RoundCap}, 25 * math.Pi},
		{"a point with butt caps", "M9 9Z", geom.Pen{Width: 10}, 0},
		{"a bare move", "M9 9", geom.Pen{Width: 10, Cap: geom.RoundCap}, 0},
		{"a square with miters", sq, geom.Pen{Width: 10}, 50*50 - 30*30},
		{"a square with bevels", sq, geom.Pen{Width: 10, Join: geom.BevelJoin}, 50*50 - 30*30 - 4*12.5},
		{"a square with round joins", sq, geom.Pen{Width: 10, Join: geom.RoundJoin}, 50*50 - 30*30 - 4*(25-25*math.Pi/4)},
		{"a miter beyond its limit", "M0 0L50 0L0 5", geom.Pen{Width: 4}, inkArea(parse(t, "M0 0L50 0L0 5").Stroke(geom.Pen{Width: 4, Join: geom.BevelJoin}))},
		{"dashes", "M0 0L50 0", geom.Pen{Width: 10, Dash: []float64{10, 5}}, 350},
		{"dashes with an offset", "M0 0L50 0", geom.Pen{Width: 10, Dash: []float64{10, 5}, DashOffset: 12}, 320},
		{"an odd pattern", "M0 0L60 0", geom.Pen{Width: 10, Dash: []float64{10}}, 300},
		{"dots", "M0 0L50 0", geom.Pen{Width: 4, Dash: []float64{0, 10}, Cap: geom.RoundCap}, 5 * 4 * math.Pi},
		{"a pattern of nothing", "M0 0L50 0", geom.Pen{Width: 10, Dash: []float64{0, 0}}, 500},
		{"dashes that go on over where a square begins", sq, geom.Pen{Width: 10, Dash: []float64{10, 10}, DashOffset: 5}, 8 * 100},
		{"a dash longer than the square", sq, geom.Pen{Width: 10, Dash: []float64{400, 10}}, 50*50 - 30*30},
		{"a line there and back", "M0 0L50 0L0 0", geom.Pen{Width: 10}, 500},
		{"no width", sq, geom.Pen{}, 0},
	} {
		if got := inkArea(parse(t, c.d).Stroke(c.pen)); math.Abs(got-c.want) > 2.5+c.want*0.01 {
			t.Errorf("%s covers %.1f px, want %.1f", c.name, got, c.want)
		}
	}
}

// A ring is what lies within half a width of a circle, also where the pen is wider than the circle.
func TestStrokesOfCurvesLieAtHalfTheirWidth(t *testing.T) {
	for _, width := range []float64{1, 8, 30, 90} {
		p := geom.Ellipse(geom.BoxAt(geom.Point{}, 60, 60)).Stroke(geom.Pen{Width: width})
		for a := 0.0; a < 360; a += 7 {
			for _, r := range []float64{0.5, 5, 14, 16, 29, 31, 33.8, 34.2, 44, 46, 74, 76} {
				sin, cos := math.Sincos(a * math.Pi / 180)
				if d := math.Abs(r - 30); math.Abs(d-width/2) < 0.1 {
					continue
				} else if got := p.Contains(geom.Point{X: r * cos, Y: r * sin}); got != (d < width/2) {
					t.Fatalf("width %v: the point %v px from the middle at %v degrees is inside: %v", width, r, a, got)
				}
			}
		}
	}
}

// Nothing within half a width of a wild line is left bare, whatever it does; nothing far from it is covered.
func FuzzStroke(f *testing.F) {
	f.Add("M0 0C100 0 -50 10 40 40L41 40L3 3C3 3 3 3 9 9Z", 12.0)
	f.Add("M0 0L10 0L0 0L10 1", 30.0)
	f.Add("M0 0C50 50 50 50 0 0", 3.0)
	f.Fuzz(func(t *testing.T, d string, width float64) {
		p, err := geom.ParseData(d)
		if err != nil || !(width > 0.5 && width < 200) || len(p.Points) > 60 {
			t.Skip()
		}
		for _, q := range p.Points {
			if math.Abs(q.X) > 500 || math.Abs(q.Y) > 500 {
				t.Skip()
			}
		}
		out := p.Stroke(geom.Pen{Width: width, Join: geom.RoundJoin, Cap: geom.RoundCap})
		for _, q := range out.Points {
			if math.IsNaN(q.X) || math.IsNaN(q.Y) {
				t.Fatal("not a number")
			}
		}
		m := geom.NewMeasure(p)
		if m.Length() == 0 {
			t.Skip()
		}
		for i := 0; i <= 40; i++ {
			q, _ := m.At(float64(i) / 40)
			if !out.Contains(q.Add(geom.Point{X: width / 40, Y: width / 50})) {
				t.Fatalf("bare at %v of %s by %v", q, d, width)
			}
		}
		far := p.Bounds()
		for _, q := range p.Points {
			far = far.Include(q) // bounds leave out what goes nowhere
		}
		if far = far.Grow(width/2 + 0.1); out.Bounds().Min.X < far.Min.X || out.Bounds().Max.Y > far.Max.Y {
			t.Fatalf("covers %v, beyond %v", out.Bounds(), far)
		}
	})
}
