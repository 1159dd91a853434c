package morph_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/geom"
	"capstan/core/morph"
)

func outline(t testing.TB, d string) *geom.Path {
	t.Helper()
	p, err := geom.ParseData(d)
	if err != nil {
		t.Fatal(err)
	}
	return p
}

func becomes(a, b *geom.Path) *morph.Outlines { return morph.NewOutlines(a, b, nil) }

// area is the signed area of an outline, its curves told by chords.
func area(p *geom.Path) (sum float64) {
	p.EachClosed(func(s geom.Segment) {
		was := s.P0
		for k := 1; k <= 32; k++ {
			q := s.At(float64(k) / 32)
			sum += (was.X*q.Y - was.Y*q.X) / 2
			was = q
		}
	})
	return
}

const (
	square = "M-50 -50L50 -50L50 50L-50 50Z"
	disc   = "M50 0C50 27.6 27.6 50 0 50C-27.6 50 -50 27.6 -50 0C-50 -27.6 -27.6 -50 0 -50C27.6 -50 50 -27.6 50 0Z"
	ring   = disc + "M20 0C20 -11 11 -20 0 -20C-11 -20 -20 -11 -20 0C-20 11 -11 20 0 20C11 20 20 11 20 0Z"
	hand   = "M-10 60L-10 -20L-40 -50L-30 -60L0 -30L30 -60L40 -50L10 -20L10 60Z"
)

func mapped(p *geom.Path, m geom.Matrix) *geom.Path {
	out := &geom.Path{}
	out.Append(p, m)
	return out
}

// closed reports whether all parts of an outline end where they begin.
func closed(p *geom.Path) bool {
	whole := true
	for _, s := range p.Subpaths(1000) {
		n := 0
		s.EachClosed(func(geom.Segment) { n++ })
		s.Each(func(geom.Segment) { n-- })
		whole = whole && n == 0
	}
	return whole
}

// Of all of the corpus: both ends are the outlines as they are, exactly, and near them it is near them; nothing is no number; and the way back is the
// way there, turned round.
func TestOutlinesBeginAndEndAsTheyAre(t *testing.T) {
	all := corpus(t)
	for i, a := range all {
		b := all[(i*7+3)%len(all)]
		o, back := becomes(a, b), becomes(b, a)
		var p, q geom.Path
		for at, want := range map[float64]*geom.Path{0: a, 1: b} {
			if o.At(at, &p); p.Data() != want.Data() {
				t.Errorf("%d at %v is not the outline as it is", i, at)
			}
			o.At(math.Abs(at-1e-7), &p)
			if got, want := math.Abs(area(&p)), math.Abs(area(want)); math.Abs(got-want) > 0.01*want+0.5 && closed(a) && closed(b) {
				t.Errorf("%d near %v has an area of %.1f, want %.1f", i, at, got, want)
			}
			if g, w := p.Bounds(), want.Bounds(); g.Min.Sub(w.Min).Len() > 0.1 || g.Max.Sub(w.Max).Len() > 0.1 {
				t.Errorf("%d near %v lies in %v, want %v", i, at, g, w)
			}
		}
		for _, at := range []float64{-0.1, 0.25, 0.5, 0.9, 1.1} {
			o.At(at, &p)
			back.At(1-at, &q)
			for k, v := range p.Points {
				if math.IsNaN(v.X + v.Y) {
					t.Fatalf("%d at %v: no number", i, at)
				}
				if v.Sub(q.Points[k]).Len() > 1e-9 {
					t.Fatalf("%d at %v: there %v, back %v", i, at, v, q.Points[k])
				}
			}
		}
	}
}

// Convex outlines never cross themselves on their way to others.
func TestConvexOutlinesDoNotCrossThemselves(t *testing.T) {
	r := rand.New(rand.NewPCG(28, 5))
	convex := func() *geom.Path {
		p, n := &geom.Path{}, 3+r.IntN(9)
		m := geom.Rotate(r.Float64() * 360).Mul(geom.Scale(20+80*r.Float64(), 20+80*r.Float64()))
		at := make([]float64, n)
		for i := range at {
			at[i] = 2 * math.Pi * (float64(i) + 0.9*r.Float64()) / float64(n)
		}
		for i, v := range at {
			s, c := math.Sincos(v)
			q := m.Apply(geom.Point{X: c, Y: s})
			if i == 0 {
				p.Move(q)
			} else if r.IntN(2) > 0 {
				p.Line(q)
			} else { // an arc of the ellipse, by its tangents
				was := at[i-1]
				k := 4.0 / 3 * math.Tan((v-was)/4)
				s0, c0 := math.Sincos(was)
				p.Cubic(m.Apply(geom.Point{X: c0 - k*s0, Y: s0 + k*c0}), m.Apply(geom.Point{X: c + k*s, Y: s - k*c}), q)
			}
		}
		p.Close()
		return p
	}
	for i := range 400 {
		a, b := convex(), convex()
		for _, rings := range ofOurs(becomes(a, b), 0.1, 0.25, 0.5, 0.75, 0.9) {
			if n := crossings(rings); n > 0 {
				t.Errorf("%d: %s to %s crosses itself %d times", i, a.Data(), b.Data(), n)
			}
		}
	}
}

// What is the same turned and scaled, or nearly, is turned and scaled: a hand does not shrink on its way round, nor does an icon of many parts; areas are
// within a tenth of the straight mixture. Corners stay corners: a square that becomes a larger one is a square half way.
func TestWhatIsTurnedStaysRigid(t *testing.T) {
	r := rand.New(rand.NewPCG(28, 6))
	all := append(corpus(t), outline(t, hand))
	for i, a := range all {
		turn, size := r.Float64()*300-150, 0.7+r.Float64()
		b := mapped(a, geom.Rotate(turn).Mul(geom.Scale(size, size)))
		for k := range b.Points {
			b.Points[k].X += 1.5 * math.Sin(b.Points[k].Y/30)
		}
		o := becomes(a, b)
		for _, at := range []float64{0.25, 0.5, 0.75} {
			var p geom.Path
			o.At(at, &p)
			want := (1-at)*math.Abs(area(a)) + at*math.Abs(area(b))
			if got := math.Abs(area(&p)); math.Abs(got-want) > 0.1*want {
				t.Errorf("%d turned by %.0f, %.2f times as large, at %v its area is %.0f of %.0f", i, turn, size, at, got, want)
			}
		}
	}
	var p geom.Path
	becomes(outline(t, square), outline(t, "M-100 -100L100 -100L100 100L-100 100Z")).At(0.5, &p)
	if got := math.Abs(area(&p)); math.Abs(got-150*150) > 1 {
		t.Errorf("half way to twice the size a square has an area of %.0f", got)
	}
}

// A hole is born inside, and shrinks there; a part that one side alone has grows from the nearest point of the other.
func TestPartsAreBornAndGo(t *testing.T) {
	var p geom.Path
	becomes(outline(t, disc), outline(t, ring)).At(0.01, &p)
	if got, want := area(&p), area(outline(t, disc)); math.Abs(got-want) > 0.01*want || len(p.Verbs) < 10 {
		t.Errorf("a hole begins with an area of %.1f of %.1f", got, want)
	}
	two := square + "M80 -10L100 -10L100 10L80 10Z"
	becomes(outline(t, square), outline(t, two)).At(0.001, &p)
	if b := p.Bounds(); b.Max.X > 52 {
		t.Errorf("the second part begins at %v, not at the edge of the first", b.Max.X)
	}
}

// Whatever outlines become each other, what lies between is finite, and does not leave the box of both by more than its half.
func TestRandomOutlinesStayWithinReason(t *testing.T) {
	r := rand.New(rand.NewPCG(2, 8))
	some := func() *geom.Path {
		p := &geom.Path{}
		for range 1 + r.IntN(4) {
			pt := func() geom.Point { return geom.Point{X: r.Float64()*200 - 100, Y: r.Float64()*200 - 100} }
			p.Move(pt())
			for range 1 + r.IntN(7) {
				if r.IntN(2) == 0 {
					p.Line(pt())
				} else {
					p.Cubic(pt(), pt(), pt())
				}
			}
			if r.IntN(3) > 0 {
				p.Close()
			}
		}
		return p
	}
	odd := []*geom.Path{{}, outline(t, "M5 5"), outline(t, "M5 5L5 5Z"), outline(t, "M0 0L50 0L0 0Z"), outline(t, "M0 0C0 0 0 0 0 0Z"), outline(t, "M-40 0L40 0"), many(5000, 1), outline(t, "M0 -50L40 50L-40 50Z")}
	for i := range 300 {
		a, b := some(), some()
		if i < len(odd)*len(odd) {
			a, b = odd[i/len(odd)], odd[i%len(odd)]
		}
		o := becomes(a, b)
		box := a.Bounds().Union(b.Bounds())
		if len(a.Points)+len(b.Points) == 0 {
			box = geom.Box{}
		}
		wide := math.Hypot(box.W(), box.H()) / 2
		for _, at := range []float64{0.1, 0.5, 0.9} {
			var p geom.Path
			o.At(at, &p)
			for _, q := range p.Points {
				if math.IsNaN(q.X+q.Y) || q.Sub(box.Centre()).Len() > 2*wide+300 {
					t.Fatalf("%s to %s: at %v a point lies at %v", a.Data(), b.Data(), at, q)
				}
			}
		}
	}
}

// Words become words by their letters: each letter goes once, the second e to the second e.
func TestWordsBecomeWordsByLetter(t *testing.T) {
	word := func(s string, y float64) (list []morph.Letter) {
		for i, c := range s {
			d := square
			if c == 'e' {
				d = disc
			}
			list = append(list, morph.Letter{Name: string(c), Path: mapped(outline(t, d), geom.Translate(geom.Point{X: 130 * float64(i), Y: y}))})
		}
		return
	}
	var p geom.Path
	morph.NewLetters(word("eke", 0), word("keep", 400)).At(0.5, &p)
	// Half way the first e lies between places 0 and 1, k between 1 and 0, the second e stays in its column; p grows from it.
	var middles []geom.Point
	p.Each(func(s geom.Segment) {
		if s.First {
			middles = append(middles, geom.Point{})
		}
		m := &middles[len(middles)-1]
		*m = m.Add(s.P0.Add(s.P3).Mul(1.0 / 8)) // each has four segments
	})
	for _, want := range []geom.Point{{X: 65, Y: 200}, {X: 260, Y: 200}, {X: 325, Y: 200}} {
		near := false
		for _, m := range middles {
			near = near || m.Sub(want).Len() < 5
		}
		if !near {
			t.Errorf("half way no letter lies at %v: %v", want, middles)
		}
	}
	if len(middles) != 4 {
		t.Errorf("%d letters are on their way", len(middles))
	}
}

// many is an outline of so many segments that wander about a circle.
func many(n int, seed uint64) *geom.Path {
	r := rand.New(rand.NewPCG(seed, 28))
	p := &geom.Path{}
	for i := range n {
		s, c := math.Sincos(2 * math.Pi * float64(i) / float64(n))
		k := 80 + 20*math.Sin(float64(i)*float64(3+seed))*r.Float64()
		if q := (geom.Point{X: k * c, Y: k * s}); i == 0 {
			p.Move(q)
		} else {
			p.Line(q)
		}
	}
	p.Close()
	return p
}

func benchmark(b *testing.B, n int) {
	x, y := many(n, 1), many(n, 2)
	for b.Loop() {
		becomes(x, y)
	}
}

func BenchmarkOutlines200(b *testing.B)  { benchmark(b, 200) }
func BenchmarkOutlines5000(b *testing.B) { benchmark(b, 5000) }

func BenchmarkOutlinesAt200(b *testing.B) {
	o := becomes(many(200, 1), many(200, 2))
	var p geom.Path
	for b.Loop() {
		o.At(0.4, &p)
	}
}
