package frame_test

import (
	"math"
	"slices"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/text"
)

// seeing is a stage whose card is seen through a view of a part of the page, 160 by 120.
func seeing(t *testing.T, place doc.Place, moves ...*doc.Move) *stage {
	s := newStage(t, card())
	v := &doc.Layer{ID: "v", Thread: "v", Name: "View", Kind: doc.ViewKind, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: place, Moves: moves}
	s.p.Film.Scenes[0].Layers = append(s.p.Film.Scenes[0].Layers, v)
	return s
}

func (s *stage) quad(id string, ms float64) [4]geom.Point {
	s.t.Helper()
	s.at(0)
	pl := s.film.Player()
	pl.Stand(motion.Seconds(ms / 1000))
	q, _, ok := pl.Quad(id)
	if !ok {
		s.t.Fatalf("%s is not there at %.0f ms", id, ms)
	}
	return q
}

func middle(q [4]geom.Point) geom.Point {
	return geom.Point{X: (q[0].X + q[2].X) / 2, Y: (q[0].Y + q[2].Y) / 2}
}

// A view shows the page as the viewport of an SVG does with viewBox="x-w/2 y-h/2 w h" and its contents turned back about the middle of that (SVG 2,
// section 8.6): a point q of the page is seen at centre + (width / w) R(-turn) (q - (x, y)). At rest the page is whole.
func TestAViewShowsAPart(t *testing.T) {
	for _, v := range []doc.Place{{X: 80, Y: 60, W: 160, H: 120}, {X: 50, Y: 45, W: 80, H: 60}, {X: 40, Y: 40, W: 40, H: 30, Turn: 30}, {X: 100, Y: 90, W: 320, H: 240, Turn: -75}} {
		s := seeing(t, v)
		rests := newStage(t, card()).quad("l", 0)
		for k, q := range s.quad("l", 500) {
			d := geom.Rotate(-v.Turn).ApplyVector(rests[k].Sub(geom.Point{X: v.X, Y: v.Y})).Mul(160 / v.W)
			if want := (geom.Point{X: 80, Y: 60}).Add(d); q.Sub(want).Len() > 1e-9 {
				t.Errorf("through %+v corner %d is seen at %v, not %v", v, k, q, want)
			}
		}
		pl := s.film.Player()
		pl.StandAtRest(0)
		if q, _, _ := pl.Quad("l"); q != rests {
			t.Errorf("at rest it lies at %v", q)
		}
	}
	// The whole page seen is the page, to the byte; hidden, a view shows all.
	plain, whole, hidden := newStage(t, card()), seeing(t, doc.Place{X: 80, Y: 60, W: 160, H: 120}), seeing(t, doc.Place{X: 50, Y: 45, W: 80, H: 60})
	hidden.p.Film.Scenes[0].View().Hidden = true
	for name, s := range map[string]*stage{"whole": whole, "hidden": hidden} {
		if !slices.Equal(s.at(500).Pix, plain.at(500).Pix) {
			t.Errorf("%s, a view is not as none", name)
		}
	}
}

// A zoom is even, z0 (z1 / z0)^p, about the page point that both frames show at one place; that stays where it is seen. Equal zooms pan straight.
func TestAViewZoomsAboutWhatBothFramesShare(t *testing.T) {
	// From all of the page to the quarter of it in its lower right corner: that corner is shared.
	in := seeing(t, doc.Place{X: 80, Y: 60, W: 160, H: 120}, change("z", 1000, 1000, "linear", doc.Becomes{X: num(120), Y: num(90), W: num(80), H: num(60)}))
	corner := &doc.Layer{ID: "c", Thread: "c", Name: "c", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 160, Y: 120, W: 20, H: 20}}
	in.p.Film.Scenes[0].Layers = append(in.p.Film.Scenes[0].Layers, corner)
	for _, p := range []float64{0, 0.25, 0.5, 0.75, 1} {
		q := in.quad("c", 1000+1000*p)
		if m := middle(q); m.Sub(geom.Point{X: 160, Y: 120}).Len() > 1e-9 {
			t.Errorf("at %.2f what both share is seen at %v", p, m)
		}
		if w, want := q[1].X-q[0].X, 20*math.Pow(2, p); math.Abs(w-want) > 1e-9 {
			t.Errorf("at %.2f it is %.4f wide, want %.4f", p, w, want)
		}
	}
	pan := seeing(t, doc.Place{X: 40, Y: 60, W: 80, H: 60}, change("z", 1000, 1000, "linear", doc.Becomes{X: num(120)}))
	for _, p := range []float64{0, 0.3, 1} {
		if m := middle(pan.quad("l", 1000+1000*p)); math.Abs(m.X-(80-160*p)) > 1e-9 || math.Abs(m.Y-(60+2*(40-60))) > 1e-9 {
			t.Errorf("panned by %.1f it is seen at %v", p, m)
		}
	}
}

// Of a pan, layers so many times as far away go so much less (similar triangles), by their own paths, too; one that stays does not go. A morph
// mixes two views, a crossfade shows each side through its own. What slides in comes from off what is seen.
func TestViewsDepthAndTransitions(t *testing.T) {
	s := seeing(t, doc.Place{X: 80, Y: 60, W: 160, H: 120}, change("z", 0, 1000, "linear", doc.Becomes{X: num(128)}))
	scene := s.p.Film.Scenes[0]
	for i, away := range []float64{1.6, 2.6} {
		l := card()
		l.ID, l.Thread, l.Name, l.Opacity, l.Depth = string(rune('m'+i)), string(rune('m'+i)), "far", 1, away
		l.Moves = []*doc.Move{along("p"+l.ID, "M0 0L0 26", 1000, "linear")}
		scene.Layers = append(scene.Layers, l)
	}
	stays := card()
	stays.ID, stays.Thread, stays.Name, stays.Opacity, stays.Stays = "st", "st", "stays", 1, true
	scene.Layers = append(scene.Layers, stays)
	for id, want := range map[string]geom.Point{"l": {X: 40 - 48, Y: 40}, "m": {X: 40 - 48/1.6, Y: 40 + 26/1.6}, "n": {X: 40 - 48/2.6, Y: 50}, "st": {X: 40, Y: 40}} {
		if m := middle(s.quad(id, 2000)); m.Sub(want).Len() > 1e-9 {
			t.Errorf("%s is seen at %v, not %v", id, m, want)
		}
	}
	// Into a scene that shows all of it.
	next := scene.Clone()
	next.ID, next.Transition = "s2", doc.Transition{Kind: doc.Morph, Duration: 1000, Easing: "linear"}
	next.Layers = slices.DeleteFunc(next.Layers, func(l *doc.Layer) bool { return l.Kind == doc.ViewKind })
	for _, l := range next.Layers {
		l.ID += "2"
		for _, m := range l.Moves {
			m.ID += "2"
		}
	}
	s.p.Film.Scenes, s.film = append(s.p.Film.Scenes, next), nil
	if m := middle(s.quad("l", 4500)); m.Sub(geom.Point{X: 40 - 24, Y: 40}).Len() > 1e-9 {
		t.Errorf("half way through a morph it is seen at %v", m)
	}
	s.p.Film.Scenes[1].Transition, s.film = doc.Transition{Kind: doc.Crossfade, Duration: 1000}, nil
	if a, b := middle(s.quad("l", 4500)), middle(s.quad("l2", 4500)); a.X != 40-48 || b.X != 40 {
		t.Errorf("in a crossfade they are seen at %v and %v", a, b)
	}
	// From the left, off a frame that shows the right half alone: it has just left that.
	slide := &doc.Move{ID: "sl", Kind: doc.Entrance, Effect: effect.Slide, Start: doc.Start{When: doc.AtTime, Offset: 500}, Duration: 500, Easing: "linear", Params: effect.Params{"direction": 0.0}}
	in := seeing(t, doc.Place{X: 120, Y: 60, W: 80, H: 60})
	in.p.Film.Scenes[0].Layers[0].Moves = []*doc.Move{slide}
	in.p.Film.Scenes[0].Layers[0].Place.X = 120
	if q := in.quad("l", 500); math.Abs(q[1].X-(-2*1.5)) > 0.01 { // its stroke of 3 px lies half outside
		t.Errorf("it begins with its edge at %v of what is seen", q[1].X)
	}
	// While the frame is dragged, what was made before is kept but for how far it slides.
	dragged := *in.p
	dragged.Film.Scenes = []*doc.Scene{in.p.Film.Scenes[0].Clone()}
	v := *dragged.Film.Scenes[0].View()
	v.Place.X -= 30
	dragged.Film.Scenes[0].Layers = []*doc.Layer{in.p.Film.Scenes[0].Layers[0], &v}
	again, err := frame.Compile(&dragged, frame.Assets{Fonts: &text.Book{}}, in.film)
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		film *frame.Film
		want float64
	}{{again, -2 * 1.5}, {in.film, -2 * 1.5}} { // the film before stays as it was
		kept := c.film.Player()
		kept.Stand(motion.Seconds(0.5))
		if q, _, _ := kept.Quad("l"); math.Abs(q[1].X-c.want) > 0.01 {
			t.Errorf("dragged, its edge begins at %v of what is seen", q[1].X)
		}
	}
	pl := s.film.Player()
	play := func() {
		for k := range int64(40) {
			pl.At(motion.FrameTime(k*4, 30, 1), frame.View{Scale: 1})
		}
	}
	play()
	if n := testing.AllocsPerRun(3, play); n > 0 {
		t.Errorf("%v allocations once warm", n)
	}
}

// A path along another layer's outline has its layer's middle on that, wherever it lies, in a group, too; edited, the line follows; gone, the path
// keeps the line it has.
func TestAPathGoesAlongAnOutline(t *testing.T) {
	ring := bar("r", doc.Ellipse, doc.Place{X: 100, Y: 70, W: 80, H: 80})
	m := along("a", "M0 0L7 0", 1000, "linear")
	m.Path.Along = "r"
	s := newStage(t, card(), m)
	s.p.Film.Scenes[0].Layers = append(s.p.Film.Scenes[0].Layers, ring)
	for _, ms := range []float64{0, 250, 500, 770, 1000} {
		if d := middle(s.quad("l", ms)).Sub(geom.Point{X: 100, Y: 70}).Len(); math.Abs(d-40) > 0.05 {
			t.Errorf("at %.0f ms it is %.2f px from the ring's middle", ms, d)
		}
	}
	ring.Place.X, ring.Place.W, ring.Place.H, s.film = 60, 40, 40, nil
	if d := middle(s.quad("l", 400)).Sub(geom.Point{X: 60, Y: 70}).Len(); math.Abs(d-20) > 0.05 {
		t.Errorf("of a smaller ring it is %.2f px from the middle", d)
	}
	s.p.Film.Scenes[0].Layers, s.film = s.p.Film.Scenes[0].Layers[:1], nil
	if q := middle(s.quad("l", 1000)); q.Sub(geom.Point{X: 47, Y: 40}).Len() > 1e-9 {
		t.Errorf("without it it ends at %v", q)
	}
}
