package session_test

import (
	"image"
	"image/color"
	"math"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/geom"
	"capstan/core/scope"
	"capstan/core/session"
)

// cutOut is a plate with a round layer in front of it, and something behind both.
func cutOut() *doc.Project {
	plate, hole := shapeOf("plate", doc.Rectangle, 160, 120, 200, 120), shapeOf("hole", doc.Ellipse, 160, 120, 90, 60)
	plate.Fill.Colour, hole.Fill.Colour = "#17403c", "#f3dca6"
	return with(shapeOf("behind", doc.Rectangle, 160, 120, 300, 40), plate, hole)
}

// A layer within a mask is what the mask covers of it, as if it had the mask's outline; punched out it is the rest. The outline of an
// ellipse filled with the plate's colour is the reference.
func TestAMaskShowsWhatItCoversAndAPunchedOneTheRest(t *testing.T) {
	s := open(t, cutOut())
	whole := shotOf(t, s, rest)
	want(t, s, rest, "set", `{"threads":["hole"],"patch":{"fill":{"colour":"#17403c"}}}`)
	want(t, s, rest, "delete", `{"threads":["plate"]}`)
	round := shotOf(t, s, rest)

	s = open(t, cutOut())
	want(t, s, rest, "mask", `{"threads":["plate","hole"],"how":"inside"}`)
	if n := differs(round, shotOf(t, s, rest), 1); n > 0 {
		t.Errorf("%d pixels are not those of an ellipse of the plate's colour", n)
	}
	want(t, s, rest, "mask", `{"threads":["hole"],"how":"outside"}`)
	punched := shotOf(t, s, rest)
	// What shows in the hole is what lies behind, and outside of it the plate.
	for _, c := range []struct{ x, y int }{{160, 120}, {160, 145}, {80, 100}, {160, 65}, {300, 120}} {
		in := c.x == 160 && c.y != 65
		ref := whole
		if in {
			ref = shotOf(t, open(t, with(shapeOf("behind", doc.Rectangle, 160, 120, 300, 40))), rest)
		}
		if a, b := punched.RGBAAt(c.x, c.y), ref.RGBAAt(c.x, c.y); a != b {
			t.Errorf("punched out, at %d %d there is %v, want %v", c.x, c.y, a, b)
		}
	}
	// Clicks go through what is hidden: to the layer behind in the hole, to the plate beside it.
	if h := s.Hit(rest, geom.Point{X: 160, Y: 120}, 1); len(h) != 1 || h[0] != "behind" {
		t.Errorf("pressed in the hole: %v", h)
	}
	if h := s.Hit(rest, geom.Point{X: 80, Y: 100}, 1); len(h) != 2 || h[1] != "plate" {
		t.Errorf("pressed beside it: %v", h)
	}
	// Selected by itself, the mask is seized where it covers and nowhere else; what is no mask is found as ever.
	for _, c := range []struct {
		selected string
		x, y     float64
		want     string
	}{{"hole", 160, 120, "hole"}, {"hole", 80, 100, "plate"}, {"plate", 160, 120, "behind"}, {"nobody", 160, 120, "behind"}} {
		hit := s.Hit(rest, geom.Point{X: c.x, Y: c.y}, 1, c.selected)
		if len(hit) == 0 || hit[len(hit)-1] != c.want {
			t.Errorf("with %s selected, at %v, %v: %v, want %s", c.selected, c.x, c.y, hit, c.want)
		}
	}
	// A layer like others again it is painted.
	want(t, s, rest, "mask", `{"threads":["hole"],"how":""}`)
	if n := differs(whole, shotOf(t, s, rest), 0); n > 0 {
		t.Errorf("without masks %d pixels differ", n)
	}
}

// Of a masked group the box is what shows; ungrouped, the mask is a layer like others; beside its group it cannot be one.
func TestMasksBelongToGroups(t *testing.T) {
	s := open(t, cutOut())
	refused(t, s, "needs something to mask", "mask", `{"threads":["hole"],"how":"inside"}`)
	want(t, s, rest, "mask", `{"threads":["plate","hole"],"how":"inside"}`)
	g := s.Document().Film.Scenes[0].Layers[1]
	if b := bounds(s, []string{g.Thread})[0]; b.W() != 90 || b.H() != 60 {
		t.Errorf("the group is %v × %v, want the mask's 90 × 60", b.W(), b.H())
	}
	want(t, s, rest, "order.before", `{"threads":["hole"],"target":"behind","where":"above"}`)
	if m := thread(t, s, 0, "hole").Mask; m != "" {
		t.Errorf("taken out of its group it is still a mask: %q", m)
	}
	s = open(t, cutOut())
	want(t, s, rest, "mask", `{"threads":["plate","hole"],"how":"outside"}`)
	whole := shotOf(t, open(t, cutOut()), rest)
	want(t, s, rest, "ungroup", `{"threads":["`+s.Document().Film.Scenes[0].Layers[1].Thread+`"]}`)
	if n := differs(whole, shotOf(t, s, rest), 0); n > 0 {
		t.Errorf("ungrouped, %d pixels differ from before it was a group", n)
	}
	if _, err := s.Apply(sent(`{"op":"layer.set","set":[{"id":"behind","patch":{"mask":"inside"}}]}`)); err == nil {
		t.Error("a layer beside all groups became a mask")
	}
}

// A mask that enters shows nothing before; one that only the next scene has comes by degrees, so that nothing jumps at either end of a morph.
func TestMasksInTime(t *testing.T) {
	p := cutOut()
	sc := p.Film.Scenes[0]
	hole, plate := sc.Layers[2], sc.Layers[1]
	hole.Mask = doc.Inside
	hole.Moves = []*doc.Move{{ID: "in", Kind: doc.Entrance, Effect: effect.AtOnce, Start: doc.Start{When: doc.AtTime, Offset: 500}}}
	g := &doc.Layer{ID: "g", Thread: "g", Name: "Window", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Children: []*doc.Layer{plate, hole}}
	sc.Layers = []*doc.Layer{sc.Layers[0], g}
	sc.Stay = 1000
	s := open(t, p)
	empty := shotOf(t, open(t, with(sc.Layers[0])), rest)
	if n := differs(empty, shotOf(t, s, scope.Moment{Time: 499}), 0); n > 0 {
		t.Errorf("before the mask has entered %d pixels of its group show", n)
	}
	if n := differs(empty, shotOf(t, s, scope.Moment{Time: 500}), 40); n < 2000 {
		t.Errorf("when it has entered only %d pixels show", n)
	}
	// The next scene has the plate without a mask.
	next := doc.NewScene("s2", "Next")
	next.Transition = doc.Transition{Kind: doc.Morph, Duration: 600, Easing: "linear"}
	b := sc.Layers[0].Clone()
	b.ID = "behind2"
	w := g.Clone()
	w.ID, w.Children = "g2", w.Children[:1]
	w.Children[0].ID = "plate2"
	next.Layers = []*doc.Layer{b, w}
	p.Film.Scenes = append(p.Film.Scenes, next)
	s = open(t, p)
	at := func(ms float64) *image.RGBA { return shotOf(t, s, scope.Moment{Time: ms}) }
	if n := differs(at(999.9), at(1000), 1); n > 0 {
		t.Errorf("when the morph begins %d pixels jump", n)
	}
	if n := differs(at(1599.9), at(1600), 1); n > 0 {
		t.Errorf("when it ends %d pixels jump", n)
	}
	// Where the next scene has the mask as a layer like others, or punched out, it ceases to be the one and becomes the other by degrees.
	half := at(1300)
	for _, as := range []string{"", doc.Outside} {
		k := hole.Clone()
		k.ID, k.Mask, k.Moves = "hole2", as, nil
		w.Children = []*doc.Layer{w.Children[0], k}
		s = open(t, p)
		for _, ms := range []float64{1000, 1300, 1600} {
			if n := differs(at(ms-0.01), at(ms), 1); n > 0 {
				t.Errorf("as %q: at %v ms %d pixels jump", as, ms, n)
			}
		}
		if n := differs(half, at(1300), 8); as == "" && n == 0 {
			t.Error("half way it is not seen")
		}
	}
	w.Children = w.Children[:1]
	s = open(t, p)
	// Half way what lies outside of the mask shows by half: of the plate's #17403c over white.
	if c := at(1300).RGBAAt(80, 80); c.R < 0x88 || c.R > 0x8e || c.G < 0x9c || c.G > 0xa2 {
		t.Errorf("half way there is %v outside of the mask, want half of #17403c over white", c)
	}
}

// A scene that goes on from one whose mask has not entered, or has left, begins as that ends: nothing in the mask shows.
func TestContinuedScenesKeepMasks(t *testing.T) {
	for _, moves := range [][]*doc.Move{
		nil,
		{{ID: "m", Kind: doc.Entrance, Effect: effect.AtOnce, Start: doc.Start{When: doc.AtTime, Offset: 5000}}},
		{{ID: "m", Kind: doc.Exit, Effect: effect.AtOnce, Start: doc.Start{When: doc.AtTime, Offset: 300}}},
	} {
		p := cutOut()
		sc := p.Film.Scenes[0]
		sc.Layers[2].Mask, sc.Layers[2].Moves = doc.Inside, moves
		sc.Layers = []*doc.Layer{sc.Layers[0], {ID: "g", Thread: "g", Name: "Window", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Children: sc.Layers[1:]}}
		sc.Stay = 1000
		s := open(t, p)
		want(t, s, rest, "scene.continue", `{}`)
		begin := float64(s.Shown.Order.Begin(1))
		if n := differs(shotOf(t, s, scope.Moment{Time: 999.9}), shotOf(t, s, scope.Moment{Time: begin}), 0); n > 0 {
			t.Errorf("%d moves of the mask: %d pixels differ between the end and the begin of what goes on", len(moves), n)
		}
	}
}

// A mask is no part: what comes by part comes without a pause for it.
func TestAMaskIsNoPart(t *testing.T) {
	p := cutOut()
	sc := p.Film.Scenes[0]
	sc.Layers[0].Mask = doc.Outside
	g := &doc.Layer{ID: "g", Thread: "g", Name: "Parts", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Children: sc.Layers,
		Moves: []*doc.Move{{ID: "m", Kind: doc.Entrance, Effect: effect.AtOnce, Unit: doc.ByPart, Duration: 1000, Start: doc.Start{When: doc.AtTime}}}}
	sc.Layers = []*doc.Layer{g}
	s := open(t, p)
	// Two parts at equal steps: one at once, the second at half of the time. The mask punches from the begin.
	shot := shotOf(t, s, scope.Moment{Time: 100})
	if c := shot.RGBAAt(160, 80); c.R != 0x17 {
		t.Errorf("the first part is not there at once: %v", c)
	}
	if c := shot.RGBAAt(160, 120); c.R != 0xff {
		t.Errorf("where the mask is there is %v", c)
	}
	if c := shotOf(t, s, scope.Moment{Time: 990}).RGBAAt(160, 95); c.R != 0xf3 {
		t.Errorf("the second part is not there: %v", c)
	}
}

// A masked group is combined, and becomes a drawn path, as it is seen.
func TestAMaskedGroupIsCombinedAsItIsSeen(t *testing.T) {
	for _, how := range []string{"inside", "outside"} {
		s := open(t, cutOut())
		want(t, s, rest, "mask", `{"threads":["plate","hole"],"how":"`+how+`"}`)
		before := shotOf(t, s, rest)
		want(t, s, rest, "outline", `{"threads":["`+s.Document().Film.Scenes[0].Layers[1].Thread+`"]}`)
		if l := s.Document().Film.Scenes[0].Layers[1]; l.Kind != doc.PathKind {
			t.Fatalf("it is a %s", l.Kind)
		}
		if n := differs(before, shotOf(t, s, rest), 2); n > 0 {
			t.Errorf("%s: as a drawn path %d pixels differ", how, n)
		}
	}
}

// What scrolls is masked in each of its copies, and pressed there.
func TestAMaskedGroupThatScrollsIsPressedInItsCopies(t *testing.T) {
	plate, hole := shapeOf("plate", doc.Rectangle, 0, 0, 40, 40), shapeOf("hole", doc.Ellipse, 0, 0, 40, 40)
	hole.Mask = doc.Inside
	g := &doc.Layer{ID: "g", Thread: "g", Name: "Row", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 60, Y: 120}, Children: []*doc.Layer{plate, hole},
		Moves: []*doc.Move{{ID: "m", Kind: doc.Loop, Effect: effect.Scroll, Lasts: doc.WholeScene, Start: doc.Start{When: doc.AtTime}, Params: effect.Params{"direction": 0.0, "speed": 100.0, "gap": 10.0}}}}
	s := open(t, with(g))
	m := scope.Moment{Time: 100} // 10 px on
	shot := shotOf(t, s, m)
	for k := range 3 {
		x := 70 + 50*k
		for _, c := range []struct {
			x, y int
			in   bool
		}{{x, 120, true}, {x + 18, 138, false}, {x + 25, 120, false}} {
			seen := shot.RGBAAt(c.x, c.y).B < 200
			if hit := s.Hit(m, geom.Point{X: float64(c.x) + 0.5, Y: float64(c.y) + 0.5}, 0.1); len(hit) > 0 != c.in || seen != c.in {
				t.Errorf("copy %d at %d, %d: seen %v, pressed %v, want %v", k, c.x, c.y, seen, hit, c.in)
			}
		}
	}
}

// A window is cut out of what lies beneath it by one request, in whatever order layers lie, also several at once and one more in the same plate: there shows
// what lies behind, and everything else stays as it was.
func TestWindowsAreCutInWhatLiesBeneath(t *testing.T) {
	behind := func() *doc.Layer { return shapeOf("behind", doc.Rectangle, 160, 120, 300, 200) }
	bare := shotOf(t, open(t, with(behind())), rest)
	for _, c := range []struct {
		name    string
		windows int
		threads string
		all     string
	}{{"one", 1, `"w0"`, "false"}, {"six at once", 6, `"w0","w1","w2","w3","w4","w5"`, "false"}, {"through all", 1, `"w0"`, "true"}} {
		list := []*doc.Layer{behind(), shapeOf("plate", doc.Rectangle, 160, 120, 240, 160), shapeOf("aside", doc.Rectangle, 20, 20, 20, 20)}
		list[1].Fill.Colour = "#17403c"
		for i := range c.windows {
			list = append(list, shapeOf([]string{"w0", "w1", "w2", "w3", "w4", "w5"}[i], doc.Ellipse, 70+float64(i)*36, 120, 24, 24))
		}
		s := open(t, with(list...))
		whole := shotOf(t, open(t, with(list[:3]...)), rest)
		if c.all == "true" {
			bare = shotOf(t, open(t, with()), rest)
		}
		want(t, s, rest, "window", `{"threads":[`+c.threads+`],"all":`+c.all+`}`)
		got := shotOf(t, s, rest)
		for i := range c.windows {
			x := 70 + i*36
			if a, b := got.RGBAAt(x, 120), bare.RGBAAt(x, 120); a != b {
				t.Errorf("%s: in window %d shows %v, want %v", c.name, i, a, b)
			}
		}
		for _, p := range [][2]int{{20, 20}, {88, 160}, {160, 60}, {52, 120}} {
			if a, b := got.RGBAAt(p[0], p[1]), whole.RGBAAt(p[0], p[1]); a != b {
				t.Errorf("%s: at %v there is %v, want %v", c.name, p, a, b)
			}
		}
	}
	s := open(t, with(shapeOf("alone", doc.Ellipse, 160, 120, 90, 60)))
	if _, err := s.Intent("window", rest, []byte(`{"threads":["alone"]}`)); err == nil {
		t.Error("a window is cut out of nothing")
	}
	// One more in the same plate is a second mask of the same group.
	s = open(t, with(shapeOf("plate", doc.Rectangle, 160, 120, 240, 160), shapeOf("w0", doc.Ellipse, 100, 120, 24, 24), shapeOf("w1", doc.Ellipse, 220, 120, 24, 24)))
	want(t, s, rest, "window", `{"threads":["w0"]}`)
	want(t, s, rest, "window", `{"threads":["w1"]}`)
	if sc := s.Doc.Film.Scenes[0]; len(sc.Layers) != 1 || len(sc.Layers[0].Children) != 3 || sc.Layers[0].Children[2].Mask != doc.Outside {
		t.Errorf("a second window made %d layers", len(sc.Layers))
	}
}

// A layer that is seen through another shows as within a mask of the same outline, follows that wherever it moves, in time, too, and is whole again where that
// is hidden or gone. By its light it is as opaque as SVG's luminanceToAlpha says. The pointer goes through what is not seen.
func TestALayerIsSeenThroughAnother(t *testing.T) {
	make := func(more func(plate, hole *doc.Layer)) *session.Session {
		plate, hole := shapeOf("plate", doc.Rectangle, 160, 120, 200, 120), shapeOf("hole", doc.Ellipse, 160, 120, 90, 60)
		plate.Fill.Colour, hole.Fill.Colour = "#17403c", "#808080"
		plate.Through = &doc.Through{Thread: "hole"}
		more(plate, hole)
		return open(t, with(hole, plate))
	}
	none := func(_, _ *doc.Layer) {}
	s := make(none)
	plate := color.RGBA{0x17, 0x40, 0x3c, 255}
	at := func(s *session.Session, m scope.Moment, x, y int) color.RGBA { return shotOf(t, s, m).RGBAAt(x, y) }
	ground := at(s, rest, 5, 5)
	if a, b := at(s, rest, 160, 120), at(s, rest, 80, 100); a != plate || b != ground {
		t.Errorf("it shows %v where it should, and %v beside that", a, b)
	}
	if h := s.Hit(rest, geom.Point{X: 80, Y: 100}, 1); len(h) > 0 {
		t.Errorf("what is not seen is pressed: %v", h)
	}
	want(t, s, rest, "set", `{"threads":["hole"],"patch":{"place":{"x":90}}}`)
	if a, b := at(s, rest, 90, 120), at(s, rest, 160, 120); a != plate || b != ground {
		t.Errorf("the other went on, and it shows %v and %v", a, b)
	}
	want(t, s, rest, "set", `{"threads":["hole"],"patch":{"hidden":true}}`)
	if a := at(s, rest, 230, 160); a != plate {
		t.Errorf("through what is hidden it shows %v", a)
	}
	want(t, s, rest, "delete", `{"threads":["hole"]}`)
	if a := at(s, rest, 230, 160); a != plate {
		t.Errorf("through what is gone it shows %v", a)
	}
	// In time: the other comes after a second.
	s = make(func(_, hole *doc.Layer) {
		hole.Moves = []*doc.Move{{ID: "m", Kind: doc.Entrance, Effect: effect.Fade, Duration: 10, Start: doc.Start{When: doc.AtTime, Offset: 1000}}}
	})
	if a, b := at(s, scope.Moment{Time: 500}, 160, 120), at(s, scope.Moment{Time: 1500}, 160, 120); a != ground || b != plate {
		t.Errorf("before the other comes there is %v, afterwards %v", a, b)
	}
	// By light: 0x80 grey under the plate, which covers 0x80/255 of it.
	for _, outside := range []bool{false, true} {
		s = make(func(plate, hole *doc.Layer) { plate.Through.Light, plate.Through.Outside = true, outside })
		a := 128.0 / 255
		if outside {
			a = 1 - a
		}
		got := at(s, rest, 160, 120)
		for k, v := range [][2]uint8{{got.R, plate.R}, {got.G, plate.G}, {got.B, plate.B}} {
			if want := a*float64(v[1]) + (1-a)*128; math.Abs(float64(v[0])-want) > 1.5 {
				t.Errorf("by light, outside %v, channel %d is %d, not %.1f", outside, k, v[0], want)
			}
		}
	}
	// In a ring nothing could be painted.
	p := with(shapeOf("a", doc.Rectangle, 9, 9, 9, 9), shapeOf("b", doc.Rectangle, 9, 9, 9, 9))
	p.Film.Scenes[0].Layers[0].Through, p.Film.Scenes[0].Layers[1].Through = &doc.Through{Thread: "b"}, &doc.Through{Thread: "a"}
	if p.Validate() == nil {
		t.Error("two layers are seen through each other")
	}
}

// What is put behind windows that were cut at once is masked by them: it is seen nowhere else.
func TestWhatIsPutBehindAWindowIsMaskedByIt(t *testing.T) {
	plate := shapeOf("plate", doc.Rectangle, 160, 120, 80, 60)
	plate.Fill.Colour = "#17403c"
	s := open(t, with(plate, shapeOf("w0", doc.Ellipse, 142, 120, 28, 28), shapeOf("w1", doc.Ellipse, 178, 120, 28, 28)))
	want(t, s, rest, "window", `{"threads":["w0","w1"]}`)
	before := shotOf(t, s, rest)
	group := s.Doc.Film.Scenes[0].Layers[0]
	s.SetBehind(group.Thread, group.Children[1].Thread)
	want(t, s, rest, "add.text", `{"at":[160,90],"text":"MMMMMMMM"}`)
	want(t, s, rest, "set", `{"threads":["`+s.Doc.Film.Scenes[0].Layers[0].Thread+`"],"patch":{"text":{"plate":{"colour":"#d8573a","padding":60}}}}`)
	after := shotOf(t, s, rest)
	if n := differs(before, after, 2); n < 400 || n > 1500 {
		t.Errorf("%d pixels are others", n)
	}
	if a, b := before.RGBAAt(60, 120), after.RGBAAt(60, 120); a != b {
		t.Errorf("beside the plate there is %v, not %v", b, a)
	}
}
