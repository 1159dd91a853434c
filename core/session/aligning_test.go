package session_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/session"
)

// scattered is a page with some shapes, turned and flipped, one of them in a turned group.
func scattered(seed uint64) (*doc.Project, []string) {
	r := rand.New(rand.NewPCG(seed, 9))
	var list []*doc.Layer
	var names []string
	for i := range 5 {
		l := shapeOf(fmt.Sprint("a", i), doc.Rectangle, 20+r.Float64()*280, 20+r.Float64()*200, 10+r.Float64()*40, 10+r.Float64()*40)
		l.Place.Turn, l.Place.FlipX = math.Round(r.Float64()*300), r.IntN(2) == 0
		list, names = append(list, l), append(names, l.Thread)
	}
	list[4].Place.X, list[4].Place.Y = 12, -8
	list[4] = &doc.Layer{ID: "g", Thread: "g", Name: "g", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 160, Y: 120, Turn: 25}, Children: []*doc.Layer{list[4]}}
	return with(list...), names
}

// bounds are the upright boxes that threads fill on the page.
func bounds(s *session.Session, threads []string) (out []geom.Box) {
	for _, t := range threads {
		b := geom.EmptyBox()
		for _, c := range s.OverlayView(rest, []string{t}).Boxes[0].Corners {
			b = b.Include(geom.Point{X: c[0], Y: c[1]})
		}
		out = append(out, b)
	}
	return
}

const near = 0.03 // stored places are rounded to a hundredth

func TestAlignedLayersHaveOneEdgeAndStay(t *testing.T) {
	for seed := range uint64(8) {
		p, names := scattered(seed)
		for edge, at := range map[string]func(geom.Box) float64{
			"left": func(b geom.Box) float64 { return b.Min.X }, "centre": func(b geom.Box) float64 { return b.Centre().X }, "right": func(b geom.Box) float64 { return b.Max.X },
			"top": func(b geom.Box) float64 { return b.Min.Y }, "middle": func(b geom.Box) float64 { return b.Centre().Y }, "bottom": func(b geom.Box) float64 { return b.Max.Y },
		} {
			for _, to := range []string{"", "page", "safe", "first"} {
				s := open(t, p)
				before := bounds(s, names)
				all := geom.EmptyBox()
				for _, b := range before {
					all = all.Union(b)
				}
				want1 := map[string]float64{"": at(all), "page": at(geom.Box{Max: geom.Point{X: 320, Y: 240}}), "safe": at(geom.BoxAt(geom.Point{X: 160, Y: 120}, 288, 216)), "first": at(before[0])}[to]
				args := fmt.Sprintf(`{"threads":["a0","a1","a2","a3","a4"],"edge":%q,"to":%q}`, edge, to)
				want(t, s, rest, "align", args)
				for i, b := range bounds(s, names) {
					if math.Abs(at(b)-want1) > near {
						t.Errorf("seed %d, %s to %q: layer %d lies at %.2f, want %.2f", seed, edge, to, i, at(b), want1)
					}
					if math.Abs(b.W()-before[i].W()) > near || math.Abs(b.H()-before[i].H()) > near {
						t.Errorf("seed %d, %s: layer %d has another size", seed, edge, i)
					}
				}
				still(t, s, "align", args)
			}
		}
	}
}

// still reports an intent that changes what it has made.
func still(t *testing.T, s *session.Session, intent, args string) {
	t.Helper()
	before, _ := s.Document().Write()
	c, err := s.Intent(intent, rest, []byte(args))
	if err != nil {
		t.Fatal(err)
	}
	if c != nil {
		if _, err := s.Apply(c); err != nil {
			t.Fatal(err)
		}
	}
	if now, _ := s.Document().Write(); string(now) != string(before) {
		t.Errorf("%s %s done again changes it", intent, args)
	}
}

func TestDistributedLayersHaveEqualGaps(t *testing.T) {
	for seed := range uint64(8) {
		p, names := scattered(seed)
		for _, down := range []bool{false, true} {
			lo := func(b geom.Box) float64 { return map[bool]float64{false: b.Min.X, true: b.Min.Y}[down] }
			hi := func(b geom.Box) float64 { return map[bool]float64{false: b.Max.X, true: b.Max.Y}[down] }
			sorted := func(s *session.Session) []geom.Box {
				list := bounds(s, names)
				for i := range list {
					for k := i + 1; k < len(list); k++ {
						if lo(list[k])+hi(list[k]) < lo(list[i])+hi(list[i]) {
							list[i], list[k] = list[k], list[i]
						}
					}
				}
				return list
			}
			s := open(t, p)
			before := sorted(s)
			args := fmt.Sprintf(`{"threads":["a0","a1","a2","a3","a4"],"down":%v}`, down)
			want(t, s, rest, "distribute", args)
			list := sorted(s)
			gap := lo(list[1]) - hi(list[0])
			sum := 0.0
			for i := 1; i < 5; i++ {
				if d := lo(list[i]) - hi(list[i-1]) - gap; math.Abs(d) > near {
					t.Errorf("seed %d: gap %d is %.3f wider than the first", seed, i, d)
				}
				sum += lo(list[i]) - hi(list[i-1])
			}
			for _, b := range list {
				sum += hi(b) - lo(b)
			}
			if math.Abs(lo(list[0])-lo(before[0])) > near || math.Abs(sum-(hi(before[4])-lo(before[0]))) > 4*near {
				t.Errorf("seed %d: gaps and sizes sum to %.2f, want %.2f", seed, sum, hi(before[4])-lo(before[0]))
			}
			want(t, s, rest, "distribute", fmt.Sprintf(`{"threads":["a0","a1","a2","a3","a4"],"down":%v,"gap":7}`, down))
			list = sorted(s)
			for i := 1; i < 5; i++ {
				if d := lo(list[i]) - hi(list[i-1]); math.Abs(d-7) > near {
					t.Errorf("seed %d: a typed gap of 7 is %.3f", seed, d)
				}
			}
			s = open(t, p)
			want(t, s, rest, "distribute", fmt.Sprintf(`{"threads":["a0","a1","a2","a3","a4"],"down":%v,"centres":true}`, down))
			list = sorted(s)
			step := (lo(list[1]) + hi(list[1]) - lo(list[0]) - hi(list[0])) / 2
			for i := 1; i < 5; i++ {
				if d := (lo(list[i])+hi(list[i])-lo(list[i-1])-hi(list[i-1]))/2 - step; math.Abs(d) > near {
					t.Errorf("seed %d: step %d is %.3f longer", seed, i, d)
				}
			}
		}
	}
	s := open(t, with(shapeOf("a", doc.Rectangle, 10, 10, 5, 5), shapeOf("b", doc.Rectangle, 50, 10, 5, 5)))
	refused(t, s, "one gap", "distribute", `{"threads":["a","b"]}`)
}

func TestSizesBecomeThoseOfTheFirst(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Rectangle, 100, 100, 60, 20), shapeOf("b", doc.Ellipse, 200, 140, 30, 50)))
	size := func() [2]float64 { p := layerOf(s, "b").Place; return [2]float64{p.W, p.H} }
	want(t, s, rest, "same", `{"threads":["a","b"],"what":"width"}`)
	if size() != [2]float64{60, 50} {
		t.Errorf("as wide: %v", size())
	}
	want(t, s, rest, "same", `{"threads":["a","b"],"what":"both"}`)
	if size() != [2]float64{60, 20} || layerOf(s, "b").Place.X != 200 {
		t.Errorf("both: %v", size())
	}
	refused(t, s, "two or more", "same", `{"threads":["a"],"what":"both"}`)
}

// Numbers are those of the reference point, which stays when another size is typed; proportions are kept where that is wanted.
func TestTheReferencePointStays(t *testing.T) {
	for _, turn := range []float64{0, 40} {
		for k := range 9 {
			l := shapeOf("a", doc.Rectangle, 120, 100, 60, 20)
			l.Place.Turn = turn
			s := open(t, with(l))
			ref := fmt.Sprintf(`"ref":[%v,%v]`, float64(k%3)/2, float64(k/3)/2)
			at := func() [2]float64 { return s.Selection(rest, []string{"a"})[0].Refs[k] }
			want(t, s, rest, "place", `{"threads":["a"],"x":150,"y":90,`+ref+`}`)
			if p := at(); math.Abs(p[0]-150) > near || math.Abs(p[1]-90) > near {
				t.Errorf("turned by %v, point %d lies at %v", turn, k, p)
			}
			want(t, s, rest, "place", `{"threads":["a"],"w":90,`+ref+`}`)
			if p, v := at(), layerOf(s, "a").Place; math.Abs(p[0]-150) > near || math.Abs(p[1]-90) > near || v.W != 90 || v.H != 20 {
				t.Errorf("turned by %v and wider, point %d lies at %v of %v", turn, k, p, v)
			}
			want(t, s, rest, "place", `{"threads":["a"],"h":40,"keep":true,`+ref+`}`)
			if p, v := at(), layerOf(s, "a").Place; math.Abs(p[0]-150) > near || math.Abs(p[1]-90) > near || v.W != 180 || v.H != 40 {
				t.Errorf("turned by %v, in proportion point %d lies at %v of %v", turn, k, p, v)
			}
		}
	}
}

// Places spread from the mean of the middles by the percentage and gather back as far; sizes stay.
func TestPlacesSpreadAndGatherByAPercentage(t *testing.T) {
	p, names := scattered(5)
	s := open(t, p)
	before := bounds(s, names)
	var mean geom.Point
	for _, b := range before {
		mean = mean.Add(b.Centre().Mul(1 / float64(len(before))))
	}
	want(t, s, rest, "spread.apart", `{"threads":["a0","a1","a2","a3","a4"],"percent":25}`)
	for i, b := range bounds(s, names) {
		if d := b.Centre().Sub(mean).Sub(before[i].Centre().Sub(mean).Mul(1.25)).Len(); d > near || math.Abs(b.W()-before[i].W()) > near {
			t.Errorf("%s is spread to %v, from %v about %v", names[i], b, before[i], mean)
		}
	}
	want(t, s, rest, "spread.apart", `{"threads":["a0","a1","a2","a3","a4"],"percent":25,"gather":true}`)
	for i, b := range bounds(s, names) {
		if b.Centre().Sub(before[i].Centre()).Len() > near {
			t.Errorf("%s is gathered at %v, it was at %v", names[i], b.Centre(), before[i].Centre())
		}
	}
	refused(t, s, "cannot be read", "spread.apart", `{"threads":["a0","a1"],"percent":0}`)
}
