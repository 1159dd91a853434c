package vector

import (
	"fmt"
	"image"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/words"
	"capstan/demo/effecttest"
	"capstan/library"
)

func write(t *testing.T, p *doc.Project, change func(o *Options)) (*Piece, error) {
	t.Helper()
	fonts, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	f, err := frame.Compile(p, frame.Assets{Fonts: fonts}, nil)
	if err != nil {
		t.Fatal(err)
	}
	o := Options{Width: p.Film.Width, Height: p.Film.Height, To: f.Order.Length, Rate: 30, RateDen: 1,
		PNG: func(img *image.RGBA) (string, error) { return fmt.Sprint("data:", img.Rect, len(img.Pix)), nil }}
	if change != nil {
		change(&o)
	}
	return Write(f, o)
}

// A move with an easing of CSS is two keyframes with that easing, and none for what is at rest before and after it.
func TestAMoveIsItsEasing(t *testing.T) {
	for _, easing := range []string{"linear", "ease-in", "ease-out", "ease-in-out", "cubic-bezier(0.2,0.8,0.3,1.2)"} {
		f, err := motion.ParseEasing(easing)
		if err != nil {
			t.Fatal(err)
		}
		c := &curve{}
		for ms := 0.0; ms <= 2000; ms += step {
			p := f(min(1, max(0, (ms-500)/700)))
			c.at, c.v, c.breaks = append(c.at, ms), append(c.v, []float64{300 * p, 40 * p}), append(c.breaks, false)
		}
		c.near = func(k int, v []float64) bool { return math.Hypot(v[0]-c.v[k][0], v[1]-c.v[k][1]) < 0.15 }
		keys := c.keys()
		if len(keys) != 4 || keys[1].at != 500 || keys[2].at != 1200 {
			t.Errorf("%s becomes %d keyframes: %v", easing, len(keys), keys)
			continue
		}
		g := keys[1].ease.easing()
		for x := 0.0; x <= 1; x += 0.01 {
			if math.Abs(g(x)-f(x)) > 0.001 {
				t.Errorf("%s is written as %v, which is %.4f off at %.2f", easing, keys[1].ease, g(x)-f(x), x)
				break
			}
		}
	}
}

// Half a sine is one easing within a thousandth, so that what swings is two keyframes a cycle.
func TestASwingIsTwoKeyframesACycle(t *testing.T) {
	c := &curve{}
	for ms := 0.0; ms <= 6000; ms += step {
		c.at, c.v, c.breaks = append(c.at, ms), append(c.v, []float64{60 * math.Cos(2*math.Pi*ms/2400)}), append(c.breaks, false)
	}
	c.near = func(k int, v []float64) bool { return math.Abs(v[0]-c.v[k][0]) < 0.15 }
	if keys := c.keys(); len(keys) != 6 {
		t.Errorf("two and a half cycles are %d keyframes", len(keys))
	}
}

// Any path is read back as it was, within half a step of its last digit.
func TestPathsAreReadBack(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	w := &writer{near: 0.15}
	for range 500 {
		p := &geom.Path{}
		at := func() geom.Point { return geom.Point{X: r.NormFloat64() * 300, Y: r.NormFloat64() * 3} }
		for range 1 + r.IntN(3) {
			p.Move(at())
			for range r.IntN(9) {
				if r.IntN(2) == 0 {
					p.Line(at())
				} else {
					p.Cubic(at(), at(), at())
				}
			}
			if r.IntN(2) == 0 {
				p.Close()
			}
		}
		d := w.data(p, 1)
		q, err := geom.ParseData(d)
		if err != nil || len(q.Points) != len(p.Points) || fmt.Sprint(q.Verbs) != fmt.Sprint(p.Verbs) {
			t.Fatalf("%s: %v", d, err)
		}
		for i := range p.Points {
			if p.Points[i].Sub(q.Points[i]).Len() > 0.75*math.Pow(10, -float64(w.places())) {
				t.Fatalf("%v became %v in %s", p.Points[i], q.Points[i], d)
			}
		}
	}
}

// A place stands for the matrix it was made of, and goes on from the place before: turns add up, what is mirrored stays so.
func TestPlacesAreTheirMatrices(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	pivot := geom.Point{X: 30, Y: -20}
	for range 500 {
		m := geom.Matrix{A: r.NormFloat64(), B: r.NormFloat64(), C: r.NormFloat64(), D: r.NormFloat64(), E: 100 * r.NormFloat64(), F: 100 * r.NormFloat64()}
		var before []float64
		if r.IntN(2) == 0 {
			before = []float64{0, 0, 900 * r.NormFloat64(), 0, 1, 1}
		}
		v := place(m, pivot, before)
		n := matrix(v, pivot)
		for _, d := range []float64{n.A - m.A, n.B - m.B, n.C - m.C, n.D - m.D, (n.E - m.E) / 100, (n.F - m.F) / 100} {
			if math.Abs(d) > 1e-6 {
				t.Fatalf("%v became %v", m, n)
			}
		}
		if before != nil && math.Abs(v[placeTurn]-before[placeTurn]) > 90+1e-9 {
			t.Errorf("it turns from %.0f to %.0f", before[placeTurn], v[placeTurn])
		}
	}
}

// The same film gives the same bytes, has no script, and names nothing outside of itself.
func TestPiecesAreTheSameAndAlone(t *testing.T) {
	a, err := write(t, effecttest.Crowd(44), nil)
	if err != nil {
		t.Fatal(err)
	}
	if b, err := write(t, effecttest.Crowd(44), nil); err != nil || a.SVG != b.SVG {
		t.Errorf("the second time it is another, %v", err)
	}
	page := Page(a, `"</title>`, false)
	for _, text := range []string{a.SVG, strings.Replace(page, "<script>"+player, "", 1)} {
		for _, bad := range []string{"<script", "http://", "https://", "url(http", "@import", `"</title>`} {
			if strings.Contains(strings.ReplaceAll(text, "http://www.w3.org/2000/svg", ""), bad) {
				t.Errorf("it holds %s", bad)
			}
		}
	}
}

// What becomes too large is refused in words, and stopping stops.
func TestTooLargePiecesAreRefused(t *testing.T) {
	_, err := write(t, effecttest.Crowd(20), func(o *Options) { o.MostBytes = 50_000 })
	if f, ok := err.(*words.Fault); !ok || f.Key != "export.piece" {
		t.Errorf("too large: %v", err)
	}
	stop := fmt.Errorf("stop")
	if _, err := write(t, effecttest.Crowd(20), func(o *Options) { o.Stop = func() error { return stop } }); err != stop {
		t.Errorf("stopped: %v", err)
	}
}
