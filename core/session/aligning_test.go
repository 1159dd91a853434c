package session_test

import (
	"fmt"
	"image"
	"math"
	"math/rand/v2"
	"strings"
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

// Turned over, the page looks as in a mirror; turned over again it is as before. So it is for a quarter turn, four times.
func TestFlipsAndTurnsGoAsOne(t *testing.T) {
	for seed := range uint64(6) {
		p, names := scattered(seed)
		for _, down := range []bool{false, true} {
			s := open(t, p)
			before := shotOf(t, s, rest)
			boxes := bounds(s, names)
			all := geom.EmptyBox()
			for _, b := range boxes {
				all = all.Union(b)
			}
			args := fmt.Sprintf(`{"threads":["a0","a1","a2","a3","a4"],"down":%v}`, down)
			want(t, s, rest, "flip", args)
			for i, b := range bounds(s, names) {
				m := boxes[i]
				if down {
					m.Min.Y, m.Max.Y = 2*all.Centre().Y-boxes[i].Max.Y, 2*all.Centre().Y-boxes[i].Min.Y
				} else {
					m.Min.X, m.Max.X = 2*all.Centre().X-boxes[i].Max.X, 2*all.Centre().X-boxes[i].Min.X
				}
				if b.Min.Sub(m.Min).Len() > near || b.Max.Sub(m.Max).Len() > near {
					t.Errorf("seed %d: layer %d lies in %v, in a mirror it would in %v", seed, i, b, m)
				}
			}
			want(t, s, rest, "flip", args)
			if n := differs(before, shotOf(t, s, rest), 24); n > 40 {
				t.Errorf("seed %d: turned over twice, %d pixels differ", seed, n)
			}
		}
		s := open(t, p)
		before := shotOf(t, s, rest)
		for range 4 {
			want(t, s, rest, "turn.by", `{"threads":["a0","a1","a2","a3","a4"],"degrees":90}`)
		}
		if n := differs(before, shotOf(t, s, rest), 24); n > 60 {
			t.Errorf("seed %d: turned four times by a quarter, %d pixels differ", seed, n)
		}
	}
	// An upright page whose middle is the middle of the layers: in the mirror, pixel for pixel.
	l := shapeOf("a", doc.Rectangle, 120, 100, 60, 20)
	l.Place.Turn = 30
	s := open(t, with(l, shapeOf("b", doc.Ellipse, 200, 140, 30, 50)))
	want(t, s, rest, "align", `{"threads":["a"],"edge":"centre","to":"page"}`)
	want(t, s, rest, "align", `{"threads":["b"],"edge":"centre","to":"page"}`)
	before := shotOf(t, s, rest)
	want(t, s, rest, "flip", `{"threads":["a","b"]}`)
	if n := differs(mirrored(before), shotOf(t, s, rest), 24); n > 20 {
		t.Errorf("%d pixels are not as in a mirror", n)
	}
}

func mirrored(img *image.RGBA) *image.RGBA {
	out := image.NewRGBA(img.Rect)
	for y := range img.Rect.Dy() {
		for x := range img.Rect.Dx() {
			out.SetRGBA(img.Rect.Dx()-1-x, y, img.RGBAAt(x, y))
		}
	}
	return out
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

func TestTheOrderOfAFewIsReversed(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Rectangle, 1, 1, 9, 9), shapeOf("x", doc.Rectangle, 1, 1, 9, 9), shapeOf("b", doc.Rectangle, 1, 1, 9, 9), shapeOf("c", doc.Rectangle, 1, 1, 9, 9)))
	want(t, s, rest, "order.reverse", `{"threads":["c","a","b"]}`)
	got := ""
	for _, l := range s.Document().Film.Scenes[0].Layers {
		got += l.ID
	}
	if got != "cxba" {
		t.Errorf("from the back: %s, want cxba", got)
	}
}

// A duplicate that was moved is duplicated as far again; so it is for one dragged off with Alt.
func TestDuplicatesGoOnAsFar(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Rectangle, 40, 40, 20, 20)))
	newest := func() *doc.Layer {
		return s.Document().Film.Scenes[0].Layers[len(s.Document().Film.Scenes[0].Layers)-1]
	}
	want(t, s, rest, "duplicate", `{"threads":["a"]}`)
	b := newest()
	if b.Place.X <= 40 {
		t.Fatalf("the duplicate lies at %v", b.Place)
	}
	want(t, s, rest, "place", `{"threads":["`+b.Thread+`"],"x":75,"y":52}`)
	want(t, s, rest, "duplicate", `{"threads":["`+b.Thread+`"]}`)
	if c := newest(); c.Place.X != 110 || c.Place.Y != 64 {
		t.Errorf("the next lies at %v, want 110, 64", c.Place)
	}
	drag(t, s, rest, session.DragLayers, "a", "", "", geom.Point{X: 40, Y: 40}, geom.Point{X: 40, Y: 140}, session.Modifiers{Alt: true})
	if a := layerOf(s, "a"); a.Place.Y != 40 {
		t.Errorf("what was copied went to %v", a.Place)
	}
	k := s.Document().Film.Scenes[0].Layers[1]
	if k.Place.Y != 140 || k.Place.X != 40 {
		t.Errorf("the copy lies at %v", k.Place)
	}
	want(t, s, rest, "duplicate", `{"threads":["`+k.Thread+`"]}`)
	if n := s.Document().Film.Scenes[0].Layers[2]; n.Place.Y != 240 {
		t.Errorf("the one after it at %v", n.Place)
	}
}

// Dragged near the middle of the page a layer comes to lie on it, and says so; not while Ctrl is held.
func TestADragSnapsAndSaysToWhat(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Rectangle, 40, 40, 20, 20), shapeOf("b", doc.Rectangle, 250, 200, 40, 20)))
	for _, c := range []struct {
		to   geom.Point
		free bool
		want geom.Point
		said string
	}{
		{geom.Point{X: 158, Y: 80}, false, geom.Point{X: 160, Y: 80}, "middle of the page"}, {geom.Point{X: 158, Y: 80}, true, geom.Point{X: 158, Y: 80}, ""},
		{geom.Point{X: 242, Y: 80}, false, geom.Point{X: 240, Y: 80}, "left edge of b"},
	} {
		if err := s.Begin(session.DragLayers, rest, []string{"a"}, "", "", geom.Point{X: 40, Y: 40}); err != nil {
			t.Fatal(err)
		}
		r, err := s.Update(c.to, session.Modifiers{Reach: 5, Free: c.free})
		if err != nil {
			t.Fatal(err)
		}
		b := bounds(s, []string{"a"})[0]
		if b.Centre().Sub(c.want).Len() > near || c.said != "" && (!strings.Contains(r.Words, c.said) || len(r.Lines) == 0) || c.said == "" && len(r.Lines) > 0 {
			t.Errorf("dragged to %v it lies at %v and says %q with %v", c.to, b.Centre(), r.Words, r.Lines)
		}
		s.End()
		s.ClearDraft()
	}
	// A side that is dragged snaps, too: to an edge, and to the size of another.
	if err := s.Begin(session.DragSize, rest, []string{"a"}, "e", "", geom.Point{X: 50, Y: 40}); err != nil {
		t.Fatal(err)
	}
	if r, _ := s.Update(geom.Point{X: 68, Y: 40}, session.Modifiers{Reach: 5}); !strings.Contains(r.Words, "as wide as b") || math.Abs(bounds(s, []string{"a"})[0].W()-40) > near {
		t.Errorf("says %q, is %v", r.Words, bounds(s, []string{"a"})[0])
	}
}

// Several layers are scaled and turned as one: the boxes keep their places among each other.
func TestSeveralAreScaledAndTurnedAsOne(t *testing.T) {
	all := func(list []geom.Box) geom.Box {
		b := geom.EmptyBox()
		for _, v := range list {
			b = b.Union(v)
		}
		return b
	}
	for seed := range uint64(6) {
		p, names := scattered(seed)
		s := open(t, p)
		before := bounds(s, names)
		box := all(before)
		around := s.OverlayView(rest, names).Around
		if around == nil || math.Abs(around.Corners[0][0]-box.Min.X) > near || math.Abs(around.Corners[2][1]-box.Max.Y) > near {
			t.Fatalf("around them is %+v, not %v", around, box)
		}
		do := func(kind, handle string, from, to geom.Point, mod session.Modifiers) {
			t.Helper()
			if err := s.Begin(kind, rest, names, handle, "", from); err != nil {
				t.Fatal(err)
			}
			if _, err := s.Update(to, mod); err != nil {
				t.Fatal(err)
			}
			if _, err := s.Apply(s.End()); err != nil {
				t.Fatal(err)
			}
		}
		// By half from the upper left corner on: the lower right one stays.
		do(session.DragSize, "nw", box.Min, box.Min.Lerp(box.Max, 0.5), session.Modifiers{})
		for i, b := range bounds(s, names) {
			want := geom.Box{Min: box.Max.Lerp(before[i].Min, 0.5), Max: box.Max.Lerp(before[i].Max, 0.5)}
			if b.Min.Sub(want.Min).Len() > 3*near || b.Max.Sub(want.Max).Len() > 3*near {
				t.Errorf("seed %d: layer %d lies in %v, want %v", seed, i, b, want)
			}
		}
		s = open(t, p)
		// From the middle, with Alt.
		do(session.DragSize, "se", box.Max, box.Max.Add(geom.Point{X: box.W() / 2, Y: box.H() / 2}), session.Modifiers{Alt: true})
		if now := all(bounds(s, names)); now.Centre().Sub(box.Centre()).Len() > 6*near || math.Abs(now.W()-2*box.W()) > 6*near {
			t.Errorf("seed %d: from the middle they fill %v, before %v", seed, now, box)
		}
		s = open(t, p)
		c := box.Centre()
		do(session.DragTurn, "", c.Add(geom.Point{X: 50}), c.Add(geom.Point{Y: 50}), session.Modifiers{Shift: true})
		for i, b := range bounds(s, names) {
			m := geom.Rotate(90).About(c).ApplyBox(before[i])
			if b.Centre().Sub(m.Centre()).Len() > 3*near {
				t.Errorf("seed %d: turned by a quarter, layer %d lies about %v, want %v", seed, i, b.Centre(), m.Centre())
			}
		}
	}
}

func TestWhatLiesUnderThePointerAndWhatIsAlike(t *testing.T) {
	front, back := shapeOf("front", doc.Ellipse, 100, 100, 60, 60), shapeOf("back", doc.Rectangle, 100, 100, 90, 90)
	locked := shapeOf("locked", doc.Rectangle, 100, 100, 200, 200)
	locked.Locked = true
	in := shapeOf("in", doc.Ellipse, 0, 0, 40, 40)
	in.Opacity = 0.5
	group := &doc.Layer{ID: "g", Thread: "g", Name: "g", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 100, Y: 100}, Children: []*doc.Layer{in}}
	away := shapeOf("away", doc.Ellipse, -100, -100, 30, 30)
	s := open(t, with(locked, back, group, front, away))
	said := ""
	for _, u := range s.UnderView(rest, geom.Point{X: 100, Y: 100}, 0) {
		said += fmt.Sprint(strings.Join(u.Chain, "/"), u.Locked, " ")
	}
	if said != "frontfalse g/infalse backfalse lockedtrue " {
		t.Errorf("under the pointer: %s", said)
	}
	if v := s.AllView(rest, ""); fmt.Sprint(v.Threads, v.OnPage) != "[back g front away] [back g front]" {
		t.Errorf("all: %v", v)
	}
	if v := s.AllView(rest, "g"); fmt.Sprint(v.Threads) != "[in]" {
		t.Errorf("in the group: %v", v)
	}
	if v := s.Alike(rest, []string{"front"}, "kind"); fmt.Sprint(v) != "[in front away]" {
		t.Errorf("of one kind: %v", v)
	}
	if v := s.Alike(rest, []string{"front"}, "look"); fmt.Sprint(v) != "[back front away]" {
		t.Errorf("of one look: %v", v)
	}
}

func TestAllAreLockedAndUnlocked(t *testing.T) {
	p, _ := scattered(1)
	s := open(t, p)
	want(t, s, rest, "lock.all", `{"on":true}`)
	if v := s.AllView(rest, ""); len(v.Threads) != 0 {
		t.Errorf("not locked: %v", v.Threads)
	}
	want(t, s, rest, "lock.all", `{"on":false}`)
	if v := s.AllView(rest, ""); len(v.Threads) != 5 {
		t.Errorf("free again: %v", v.Threads)
	}
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
