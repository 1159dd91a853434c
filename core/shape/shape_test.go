package shape_test

import (
	"fmt"
	"math"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/shape"
)

func of(kind string, w, h, corner float64, v doc.Shape) shape.Spec {
	return shape.Of(&doc.Layer{Kind: kind, Place: doc.Place{W: w, H: h}, Corner: corner, Shape: &v})
}

// area is the enclosed area with its sign, by Green's theorem over fine chords.
func area(p *geom.Path) float64 {
	sum := 0.0
	p.Each(func(s geom.Segment) {
		const n = 200
		a := s.At(0)
		for i := 1; i <= n; i++ {
			b := s.At(float64(i) / n)
			sum += (a.X*b.Y - b.X*a.Y) / 2
			a = b
		}
	})
	return sum
}

func length(p *geom.Path) float64 { return geom.NewMeasure(p).Length() }

func near(t *testing.T, what string, got, want, share float64) {
	t.Helper()
	if math.Abs(got-want) > share*math.Abs(want)+1e-9 {
		t.Errorf("%s: %v, want %v", what, got, want)
	}
}

// Areas by the formulas of plane geometry: pi a b of an ellipse, n/2 r r sin(2 pi/n) of a regular polygon, n R r sin(pi/n) of a star.
func TestAreasAreThoseOfTheFormulas(t *testing.T) {
	w, h := 320.0, 200.0
	near(t, "ellipse", area(of(doc.Ellipse, w, h, 0, doc.Shape{}).Outline()), math.Pi*w*h/4, 1e-3)
	for _, hole := range []float64{0, 0.25, 0.6, 1} {
		near(t, fmt.Sprint("ring ", hole), area(of(doc.Ring, w, h, 0, doc.Shape{Hole: hole}).Outline()), math.Pi*w*h/4*(1-hole*hole), 1e-3)
		for _, sweep := range []float64{10, 90, 200, 359} {
			near(t, fmt.Sprint("sector ", hole, sweep), area(of(doc.Sector, w, h, 0, doc.Shape{Hole: hole, Start: 33, Sweep: sweep}).Outline()),
				math.Pi*w*h/4*(1-hole*hole)*sweep/360, 1e-3)
		}
	}
	for _, n := range []int{3, 4, 5, 6, 12, 100} {
		r := 100.0
		near(t, fmt.Sprint("polygon ", n), area(of(doc.Polygon, 2*r, 2*r, 0, doc.Shape{Count: n}).Outline()), float64(n)/2*r*r*math.Sin(2*math.Pi/float64(n)), 1e-9)
		near(t, fmt.Sprint("star ", n), area(of(doc.Star, 2*r, 2*r, 0, doc.Shape{Count: n, Depth: 0.4}).Outline()), float64(n)*r*0.6*r*math.Sin(math.Pi/float64(n)), 1e-9)
	}
	near(t, "cross", area(of(doc.Cross, w, h, 0, doc.Shape{Thickness: 0.25}).Outline()), w*h*(2*0.25-0.25*0.25), 1e-9)
	// A shaft of 0.4 heights and a head of 0.5: shaft and triangle.
	near(t, "arrow", area(of(doc.Arrow, w, h, 0, doc.Shape{Thickness: 0.4, Head: 0.5}).Outline()), (w-0.5*h)*0.4*h+0.5*h*h/2, 1e-9)
	near(t, "arrow with two heads", area(of(doc.Arrow, w, h, 0, doc.Shape{Thickness: 0.4, Head: 0.5, Heads: doc.AtBoth}).Outline()), (w-h)*0.4*h+0.5*h*h, 1e-9)
	// A band of parallel edges has the area of its upright thickness.
	near(t, "wave band", area(of(doc.Wave, w, h, 0, doc.Shape{Count: 4, Depth: 0.3}).Outline()), w*h*0.7, 1e-9)
	r := 20.0
	near(t, "rounded rectangle", area(of(doc.Rectangle, w, h, r, doc.Shape{}).Outline()), w*h-(4-math.Pi)*r*r, 1e-4)
	near(t, "four radii", area(of(doc.Rectangle, w, h, 0, doc.Shape{Corners: &[4]float64{10, 20, 30, 0}}).Outline()), w*h-(1-math.Pi/4)*(100+400+900), 1e-4)
}

// Ramanujan's second approximation of an ellipse's perimeter (1914) is exact to 1e-6 at these proportions.
func TestPerimeters(t *testing.T) {
	for _, s := range [][2]float64{{200, 200}, {320, 200}, {500, 100}} {
		a, b := s[0]/2, s[1]/2
		k := 3 * (a - b) * (a - b) / ((a + b) * (a + b))
		near(t, fmt.Sprint("ellipse ", s), length(of(doc.Ellipse, s[0], s[1], 0, doc.Shape{}).Outline()), math.Pi*(a+b)*(1+k/(10+math.Sqrt(4-k))), 5e-4)
	}
	near(t, "arc", length(of(doc.Sector, 200, 200, 0, doc.Shape{Start: -30, Sweep: 132, Open: true}).Outline()), 2*math.Pi*100*132/360, 3e-4)
	near(t, "line", length(of(doc.Line, 77, 0, 0, doc.Shape{}).Outline()), 77, 1e-12)
	// Corners of a square rounded by r: 8 r of edge become 2 pi r of arc.
	near(t, "rounded polygon", length(of(doc.Polygon, 200, 200, 20, doc.Shape{Count: 4}).Outline()), 4*100*math.Sqrt2-8*20+2*math.Pi*20, 1e-3)
}

func TestVerticesLieWhereTheyShould(t *testing.T) {
	p := of(doc.Polygon, 200, 100, 0, doc.Shape{Count: 3}).Outline()
	for i, q := range []geom.Point{{X: 0, Y: -50}, {X: 100 * math.Cos(math.Pi/6), Y: 25}, {X: -100 * math.Cos(math.Pi/6), Y: 25}} {
		if p.Points[i].Sub(q).Len() > 1e-9 {
			t.Errorf("vertex %d at %v, want %v", i, p.Points[i], q)
		}
	}
	star := of(doc.Star, 200, 200, 0, doc.Shape{Count: 5, Depth: 0.6}).Outline()
	for i, q := range star.Points {
		if want := []float64{100, 40}[i%2]; math.Abs(q.Len()-want) > 1e-9 {
			t.Errorf("point %d of the star lies %v from the middle, want %v", i, q.Len(), want)
		}
	}
	b := of(doc.Bubble, 200, 100, 12, doc.Shape{Tip: &[2]float64{0.1, 1.5}, Base: 0.3}).Outline()
	tip := false
	for _, q := range b.Points {
		tip = tip || q.Sub(geom.Point{X: -80, Y: 100}).Len() < 1e-9
	}
	if !tip {
		t.Error("the bubble has no point at its tip")
	}
}

// What fills its box touches all of its sides, and nothing but a bubble's tail leaves it.
func TestShapesKeepToTheirBoxes(t *testing.T) {
	for _, kind := range doc.Shapes {
		v := shape.Default(kind)
		if kind == doc.Bubble {
			v.Tip = &[2]float64{0.3, 0.9}
		}
		for _, s := range [][2]float64{{200, 200}, {300, 120}, {80, 240}} {
			if kind == doc.Line {
				s[1] = 0
			}
			spec := of(kind, s[0], s[1], 0, v)
			box := geom.EmptyBox()
			for _, p := range spec.Parts() {
				box = box.Union(p.Path.Bounds())
			}
			want := geom.BoxAt(geom.Point{}, s[0], s[1]).Grow(0.01)
			if kind == doc.Ribbon || kind == doc.Sector {
				continue // a ribbon's band stands out over its line; a sector is a part of its ellipse
			}
			if box.Min.X < want.Min.X || box.Min.Y < want.Min.Y || box.Max.X > want.Max.X || box.Max.Y > want.Max.Y {
				t.Errorf("%s %v reaches to %v", kind, s, box)
			}
			switch kind {
			case doc.Polygon, doc.Star, doc.Wave:
			default:
				if math.Abs(box.W()-s[0]) > 0.05 || math.Abs(box.H()-s[1]) > 0.05 {
					t.Errorf("%s %v fills %v only", kind, s, box)
				}
			}
		}
	}
}

// A fold is a mirror: both stretches of band end at the same crease, and the band is as wide after it as before.
func TestRibbonsFold(t *testing.T) {
	v := doc.Shape{Thickness: 0.5, Bends: [][2]float64{{0, 0}, {0.6, 0.2}, {0.4, 1}}}
	parts := of(doc.Ribbon, 400, 200, 0, v).Parts()
	if len(parts) != 2 || parts[0].Shade == 0 || parts[1].Shade != 0 {
		t.Fatalf("%d parts: a stretch in front and one in the shade", len(parts))
	}
	back, front := parts[0].Path.Points, parts[1].Path.Points
	shared := 0
	for _, p := range front {
		for _, q := range back {
			if p.Sub(q).Len() < 1e-6 {
				shared++
			}
		}
	}
	if shared != 2 {
		t.Errorf("they share %d points of a crease", shared)
	}
	across := func(p []geom.Point, line geom.Point) float64 { // of the edge a-b..c-e: distance of parallel edges
		d := line.Mul(1 / line.Len())
		v := p[0].Sub(p[1])
		return math.Abs(d.X*v.Y - d.Y*v.X)
	}
	near(t, "width before the fold", across(front, geom.Point{X: 240, Y: 40}), 100, 1e-9)
	near(t, "width after it", across(back, geom.Point{X: -80, Y: 160}), 100, 1e-9)
}

// Whatever the numbers are that a document may hold, outlines are finite and handles do not break them.
func TestDegenerateShapesAreSane(t *testing.T) {
	for _, kind := range doc.Shapes {
		for _, v := range []doc.Shape{
			{}, {Hole: 1, Depth: 1, Thickness: 1, Base: 1, Sweep: 360, Count: 100, Head: 100}, {Count: 1, Sweep: 1e-9, Thickness: 1e-9, Head: 1e-9},
			{Tip: &[2]float64{0.5, 0.5}}, {Tip: &[2]float64{1000, -1000}}, {Bends: [][2]float64{{0, 0}, {0, 0}, {0, 0}}}, {Bends: [][2]float64{{0, 0}, {1, 0}, {0, 0}, {1000, 1000}}},
			{Corners: &[4]float64{1e6, 0, 1e6, 0}}, {Start: -1e6, Sweep: 359.999},
		} {
			for _, s := range [][2]float64{{0, 0}, {1e-3, 1e-3}, {100, 0}, {1e6, 1e6}, {100, 1}} {
				if v.Count > 0 && v.Count < 3 && (kind == doc.Polygon || kind == doc.Star || kind == doc.Cloud) {
					continue // refused by the document
				}
				spec := of(kind, s[0], s[1], 50, v)
				check := func(what string, list []shape.Part) {
					for _, p := range list {
						for _, q := range p.Path.Points {
							if math.IsNaN(q.X) || math.IsNaN(q.Y) || math.IsInf(q.X, 0) || math.IsInf(q.Y, 0) {
								t.Fatalf("%s: %s %v %+v has a point at %v", what, kind, s, v, q)
							}
						}
					}
				}
				check("at rest", spec.Parts())
				for _, h := range spec.Handles() {
					for _, q := range []geom.Point{{}, {X: 1e6, Y: -1e6}, {X: -3, Y: 7}} {
						next := spec.Drag(h.ID, q)
						check("dragged by "+h.ID, next.Parts())
						l := &doc.Layer{ID: "l", Thread: "l", Name: "l", Kind: kind, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Corner: next.Corner, Shape: &next.Shape}
						p := doc.NewProject("p", "p", 100, 100, "s")
						p.Film.Scenes[0].Layers = []*doc.Layer{l}
						if err := p.Validate(); err != nil {
							t.Fatalf("dragging %s of a %s to %v breaks a rule: %v", h.ID, kind, q, err)
						}
					}
				}
			}
		}
	}
}

// Dragging a handle to where it is changes nothing that can be seen; dragging it elsewhere brings it there, where its number can.
func TestHandlesFollowThePointer(t *testing.T) {
	for _, kind := range doc.Shapes {
		spec := of(kind, 240, 200, 24, shape.Default(kind))
		for _, h := range spec.Handles() {
			if kind == doc.Line {
				continue
			}
			back := spec.Drag(h.ID, h.At)
			for _, k := range back.Handles() {
				if k.ID == h.ID && k.At.Sub(h.At).Len() > 2 {
					t.Errorf("%s: taking %s where it is moves it from %v to %v", kind, h.ID, h.At, k.At)
				}
			}
		}
	}
	tip := of(doc.Bubble, 200, 100, 0, shape.Default(doc.Bubble)).Drag("tip", geom.Point{X: 150, Y: -90})
	if *tip.Shape.Tip != [2]float64{1.25, -0.4} {
		t.Errorf("the tip lies at %v", *tip.Shape.Tip)
	}
	if s := of(doc.Star, 200, 200, 0, shape.Default(doc.Star)).Drag("depth", geom.Point{X: 0, Y: -30}); s.Shape.Depth != 0.7 {
		t.Errorf("depth %v", s.Shape.Depth)
	}
	if s := of(doc.Polygon, 200, 200, 0, shape.Default(doc.Polygon)).Drag("count", geom.Point{X: 100, Y: 0}); s.Shape.Count != 4 {
		t.Errorf("a corner a quarter on from the top makes %d sides", s.Shape.Count)
	}
}

func TestShapesOfOneKindBlend(t *testing.T) {
	for _, kind := range doc.Shapes {
		a, b := of(kind, 100, 80, 0, shape.Default(kind)), of(kind, 200, 120, 10, shape.Default(kind))
		b.Shape.Hole, b.Shape.Depth = 0.9, 0.9
		if m := shape.Mix(a, b, 0); fmt.Sprintf("%+v", m.Outline()) != fmt.Sprintf("%+v", a.Outline()) {
			t.Errorf("%s: the begin is not the first", kind)
		}
		if m := shape.Mix(a, b, 1); fmt.Sprintf("%+v", m.Outline()) != fmt.Sprintf("%+v", b.Outline()) {
			t.Errorf("%s: the end is not the second", kind)
		}
		if m := shape.Mix(a, b, 0.5); m.W != 150 || m.H != 100 || m.Corner != 5 {
			t.Errorf("%s half way: %v by %v", kind, m.W, m.H)
		}
	}
}
