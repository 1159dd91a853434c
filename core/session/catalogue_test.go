package session_test

import (
	"fmt"
	"image"
	"math"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/fields"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/raster"
)

// An effect of one's own goes from a command to pixels, bar, fields and sentence: nothing but its own few lines knows of it.
func TestAnEffectOfOnesOwn(t *testing.T) {
	defer effect.Add(effect.Effect{
		Name: "test-drop", Words: "Drop", Rank: 999,
		Params: []effect.Param{{Name: "high", Control: effect.Number, Words: "From", Label: "How high it hangs", Unit: "px", Times: 1, Least: 0, Most: 500, Step: 1, Usual: 40.0}},
		Comes: &effect.Comes{Says: [2]string{"drops in", "is pulled up"}, Rule: func(of effect.Of) func(effect.Moment) effect.Shown {
			return func(at effect.Moment) effect.Shown {
				return effect.Shown{Opacity: 1, Offset: geom.Point{Y: -of.Params.Number("high") * (1 - at.P)}}
			}
		}},
	})()
	s := open(t, with(shapeOf("a", doc.Rectangle, 50, 50, 20, 20)))
	want1(t, s, "move.add", `{"threads":["a"],"kind":"entrance","effect":"test-drop","at":0}`)
	m := thread(t, s, 0, "a").Moves[0]
	want1(t, s, "move.set", fmt.Sprintf(`{"move":%q,"patch":{"params":{"high":30},"easing":"linear"}}`, m.ID))
	if _, err := s.Intent("move.set", rest, []byte(fmt.Sprintf(`{"move":%q,"patch":{"params":{"high":501}}}`, m.ID))); err == nil {
		if c, _ := s.Intent("move.set", rest, []byte(fmt.Sprintf(`{"move":%q,"patch":{"params":{"high":501}}}`, m.ID))); c != nil {
			if _, err := s.Apply(c); err == nil || !strings.Contains(err.Error(), "high is 501; it must be 0 to 500") {
				t.Errorf("too high: %v", err)
			}
		}
	}
	f, err := frame.Compile(s.Document(), s.Assets(), nil)
	if err != nil {
		t.Fatal(err)
	}
	img := image.NewRGBA(image.Rect(0, 0, 320, 240))
	if err := raster.NewPainter(f, nil).Paint(img, f.Player().At(motion.Millis(300), frame.View{Scale: 1})); err != nil {
		t.Fatal(err)
	}
	if at, gone := img.RGBAAt(50, 35), img.RGBAAt(50, 55); at == gone || img.RGBAAt(50, 22) == at {
		t.Errorf("half way it hangs 15 px up: %v there, %v at its place", at, gone)
	}
	bar := s.Rows(rest)[0].Bars[0]
	if bar.Name != "Drop, in" || bar.End != 600 || len(s.Profile(bar.Profile)) == 0 {
		t.Errorf("its bar: %+v", bar)
	}
	if text := strings.Join(s.Summary(0), " "); !strings.Contains(text, "drops in over 0.60 s") {
		t.Error(text)
	}
	if list := fields.Effects()["test-drop"]; len(list) != 1 || list[0].Path != "params.high" || list[0].Usual != 40.0 {
		t.Errorf("its fields: %+v", list)
	}
	found := false
	for _, o := range fields.Moves() {
		for _, v := range o.Moves {
			found = found || v.Effect == "test-drop" && v.Name == "Drop in"
		}
	}
	if !found {
		t.Error("it is not offered")
	}
}

// A move by an effect that this version does not know is kept, is called by its name, and plays as nothing.
func TestAnUnknownEffectIsKeptAndPlaysAsNothing(t *testing.T) {
	l := shapeOf("a", doc.Rectangle, 50, 50, 20, 20)
	l.Moves = []*doc.Move{
		{ID: "m", Kind: doc.Entrance, Effect: "from-later", Start: doc.Start{When: doc.AtTime, Offset: 300}, Duration: 500, Unit: doc.ByLetter, Params: effect.Params{"by": 4.0}},
		{ID: "n", Kind: doc.Loop, Effect: "of-tomorrow", Start: doc.Start{When: doc.AtTime}, Lasts: doc.WholeScene},
	}
	s := open(t, with(l))
	bar := s.Rows(rest)[0].Bars[0]
	if !bar.Unknown || bar.Name != "from-later, in" || bar.Begin != 300 || bar.End != 800 {
		t.Errorf("its bar: %+v", bar)
	}
	still := open(t, with(shapeOf("a", doc.Rectangle, 50, 50, 20, 20)))
	for _, ms := range []int64{0, 400, 900} {
		a, b := s.Film.Player().At(motion.Millis(ms), frame.View{Scale: 1}), still.Film.Player().At(motion.Millis(ms), frame.View{Scale: 1})
		if fmt.Sprint(a.Codes, a.Numbers) != fmt.Sprint(b.Codes, b.Numbers) {
			t.Errorf("at %d ms it does something", ms)
		}
	}
	want1(t, s, "move.set", `{"move":"m","patch":{"duration":700}}`)
	if m := thread(t, s, 0, "a").Moves[0]; m.Effect != "from-later" || !m.Params.Equal(l.Moves[0].Params) || m.Duration != 700 {
		t.Errorf("it is no longer what it was: %+v", m)
	}
	if text := strings.Join(s.Summary(0), " "); !strings.Contains(text, "“of-tomorrow”, which this Capstan does not know") {
		t.Error(text)
	}
}

// Bad parameters are refused in words, and the document stays as it was.
func TestBadParametersAreRefusedInWords(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Rectangle, 50, 50, 20, 20)))
	want1(t, s, "move.add", `{"threads":["a"],"kind":"loop","effect":"flock"}`)
	want1(t, s, "move.add", `{"threads":["a"],"kind":"loop","effect":"roll"}`)
	want1(t, s, "move.add", `{"threads":["a"],"kind":"entrance","effect":"iris"}`)
	moves := thread(t, s, 0, "a").Moves
	before, _ := s.Document().Write()
	for _, c := range [][3]string{
		{moves[0].ID, `{"rate":500,"life":600000}`, "300000 copies at once; there can be 1000"},
		{moves[0].ID, `{"rate":1e6}`, "it must be 0.1 to 500"}, {moves[0].ID, `{"way":"sideways"}`, "must be one of rise, fall, burst"},
		{moves[1].ID, `{"radius":-1}`, "it must be 0 to 100000"}, {moves[1].ID, `{"radius":"wide"}`, "must be a number"},
		{moves[2].ID, `{"shape":["ellipse"]}`, "must be one of"}, {moves[2].ID, `{"softness":{"px":3}}`, "no fields"},
	} {
		command, err := s.Intent("move.set", rest, []byte(fmt.Sprintf(`{"move":%q,"patch":{"params":%s}}`, c[0], c[1])))
		if err == nil {
			_, err = s.Apply(command)
		}
		if err == nil || !strings.Contains(err.Error(), c[2]) {
			t.Errorf("%s: %v", c[1], err)
		}
	}
	for _, c := range []string{`{"threads":["a"],"kind":"loop","effect":"flip-book"}`, `{"threads":["a"],"kind":"loop","effect":"iris"}`, `{"threads":["a"],"kind":"exit","effect":"spin"}`} {
		if _, err := s.Intent("move.add", rest, []byte(c)); err == nil {
			t.Errorf("%s is taken", c)
		}
	}
	// Nothing blinks for a year.
	long := shapeOf("b", doc.Ellipse, 0, 0, 9, 9)
	long.Moves = []*doc.Move{{ID: "x", Kind: doc.Loop, Effect: effect.Blink, Start: doc.Start{When: doc.AtTime}, Repeat: 100000, Params: effect.Params{"on": 300000.0, "off": 300000.0}}}
	if err := with(long).Validate(); err == nil || !strings.Contains(err.Error(), "makes the move last 16667 hours") {
		t.Errorf("a very long blink: %v", err)
	}
	// Flocks in flocks are copies of copies.
	g := &doc.Layer{ID: "g", Thread: "g", Name: "g", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}}
	many := effect.Params{"rate": 300.0, "life": 3000.0}
	strews := func(id string) []*doc.Move {
		return []*doc.Move{{ID: id, Kind: doc.Loop, Effect: effect.Flocks, Duration: 4000, Lasts: doc.WholeScene, Start: doc.Start{When: doc.AtTime}, Params: many}}
	}
	inner := shapeOf("i", doc.Ellipse, 0, 0, 9, 9)
	g.Moves, g.Children, inner.Moves = strews("x"), []*doc.Layer{inner}, strews("y")
	if err := with(g).Validate(); err == nil || !strings.Contains(err.Error(), "copies of layers at once by what strews them; there can be 50000") {
		t.Errorf("a flock of flocks: %v", err)
	}
	if after, _ := s.Document().Write(); string(after) != string(before) {
		t.Error("what was refused changed something")
	}
}

// A wheel turns as far as it travels: on its own path and its group's, back when that goes back, or by the ground that scrolls under it
// (docs/motion.md, section 4). On a cart its wheels are given the roll, and a wheel that is a group itself.
func TestAWheelRollsAsFarAsItTravels(t *testing.T) {
	wheel := func(id string, x float64) *doc.Layer { return shapeOf(id, doc.Ellipse, x, 20, 20, 20) }
	cart := &doc.Layer{ID: "cart", Thread: "cart", Name: "Cart", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill},
		Children: []*doc.Layer{shapeOf("box", doc.Rectangle, 30, 5, 80, 20), wheel("w1", 10), wheel("w2", 50)}}
	cart.Moves = []*doc.Move{{ID: "way", Kind: doc.MotionPath, Effect: doc.Along, Easing: "linear", Duration: 1000, Repeat: 2, Alternate: true, Start: doc.Start{When: doc.AtTime}, Path: &doc.PathParams{D: "M0 0L60 0"}}}
	s := open(t, with(cart))
	want1(t, s, "move.add", `{"threads":["cart"],"kind":"loop","effect":"roll"}`)
	if len(thread(t, s, 0, "cart").Moves) != 1 || len(thread(t, s, 0, "w1").Moves) != 1 || len(thread(t, s, 0, "w2").Moves) != 1 {
		t.Fatal("a cart's wheels roll, not the cart")
	}
	turn := func(ms int64) float64 {
		p := s.Film.Player()
		p.Stand(motion.Millis(ms))
		m, outer, _ := p.Axes("w1")
		inv, _ := outer.Inverse()
		m = inv.Mul(m)
		return math.Atan2(m.B, m.A) * 180 / math.Pi
	}
	for ms, px := range map[int64]float64{0: 0, 250: 15, 500: 30, 1000: 60, 1500: 30, 2000: 0, 3000: 0} {
		want := math.Mod(px/10*180/math.Pi+180, 360) - 180
		if got := turn(ms); math.Abs(math.Remainder(got-want, 360)) > 1e-6 {
			t.Errorf("%v px on it has turned %v degrees, want %v", px, got, want)
		}
	}
	// On the ground that scrolls to the left it rolls as if it went right.
	want1(t, s, "move.add", `{"threads":["box"],"kind":"loop","effect":"scroll"}`)
	ground := thread(t, s, 0, "box").Moves[0].ID
	want1(t, s, "move.set", fmt.Sprintf(`{"move":%q,"patch":{"params":{"scroll":%q}}}`, thread(t, s, 0, "w1").Moves[0].ID, ground))
	if got, want := turn(700), math.Remainder(84.0/10*180/math.Pi, 360); math.Abs(got-want) > 0.5 { // its cycle is rounded to ms
		t.Errorf("on ground at 120 px/s it has turned %v degrees in 0.7 s, want %v", got, want)
	}
	// The wheel of a copied scene rolls on the copied ground.
	want1(t, s, "scene.duplicate", `{}`)
	next := s.Document().Film.Scenes[1]
	if on := next.Thread("w1").Moves[0].Params.Word("scroll"); on == ground || on != next.Thread("box").Moves[0].ID {
		t.Errorf("in the copy it rolls on %q", on)
	}
	want1(t, s, "move.delete", fmt.Sprintf(`{"move":%q}`, ground)) // the wheel goes by the cart again
	if got, want := turn(250), 15.0/10*180/math.Pi; math.Abs(got-want) > 1e-6 {
		t.Errorf("without that ground it has turned %v, want %v", got, want)
	}
}

// A wheel whose parts pass by half or more from frame to frame is said to seem something else, with speeds at which it does not (section 10).
func TestHowAWheelSeemsToTurn(t *testing.T) {
	star := shapeOf("a", doc.Star, 50, 50, 40, 40)
	star.Shape = &doc.Shape{Count: 6}
	for ms, says := range map[int64]string{200: "seems to stand", 260: "seems to turn backwards", 180: "more slowly", 1000: ""} {
		star.Moves = []*doc.Move{{ID: "m", Kind: doc.Loop, Effect: effect.Spin, Lasts: doc.WholeScene, Duration: ms, Start: doc.Start{When: doc.AtTime}}}
		s := open(t, with(star))
		w := s.Selection(rest, []string{"a"})[0].Moves[0].Wheel
		switch {
		case says == "" && w != nil, says != "" && (w == nil || !strings.Contains(w.Words, says)):
			t.Errorf("a turn in %d ms at 30 frames a second: %+v", ms, w)
		case w != nil && (w.Cycles[0] != 500 || w.Cycles[1] != 800): // 6 parts in 15 frames, in 24
			t.Errorf("good speeds: %v", w.Cycles)
		}
	}
}

// So is one that rolls too fast.
func TestHowARollingWheelSeemsToTurn(t *testing.T) {
	star := shapeOf("a", doc.Star, 50, 50, 40, 40)
	star.Shape = &doc.Shape{Count: 6}
	for ms, says := range map[int64]string{1000: "where it is fastest", 9000: ""} {
		star.Moves = []*doc.Move{
			{ID: "way", Kind: doc.MotionPath, Effect: doc.Along, Easing: "linear", Duration: ms, Start: doc.Start{When: doc.AtTime}, Path: &doc.PathParams{D: "M0 0L600 0"}},
			{ID: "m", Kind: doc.Loop, Effect: effect.Roll, Lasts: doc.WholeScene, Start: doc.Start{When: doc.AtTime}},
		}
		s := open(t, with(star))
		if w := s.Selection(rest, []string{"a"})[0].Moves[1].Wheel; (w == nil) != (says == "") || w != nil && !strings.Contains(w.Words, says) {
			t.Errorf("600 px in %d ms: %+v", ms, w)
		}
	}
}

// Layers that take turns hang on each other; one that is only there for a while appears and vanishes; what has no entrance gets one.
func TestLayersTakeTurns(t *testing.T) {
	s := open(t, with(shapeOf("ground", doc.Rectangle, 100, 100, 4000, 4000), shapeOf("a", doc.Rectangle, 50, 50, 20, 20), shapeOf("b", doc.Ellipse, 50, 50, 20, 20)))
	want1(t, s, "moves.inTurn", `{"threads":["b","a"],"in":"scale","out":"slide"}`)
	timing := s.Film.Timing(0)
	a, b := thread(t, s, 0, "a").Moves, thread(t, s, 0, "b").Moves
	if b[0].Effect != effect.Scale || b[1].Effect != effect.Slide || timing.Moves[b[0].ID].Begin != 0 || timing.Moves[b[1].ID].Begin != 600+2000 ||
		timing.Moves[a[0].ID].Begin != timing.Moves[b[1].ID].End {
		t.Errorf("%+v %+v", timing.Moves[b[1].ID], timing.Moves[a[0].ID])
	}
	want1(t, s, "moves.only", `{"threads":["a"],"from":500,"to":1500}`)
	want1(t, s, "moves.only", `{"threads":["a"],"from":700,"to":1200}`)
	if list := thread(t, s, 0, "a").Moves; len(list) != 4 || !list[2].Timeless() || list[2].Start.Offset != 700 || list[3].Start.Offset != 1200 {
		t.Errorf("a second time takes the place of the first: %d moves", len(list))
	}
	if _, err := s.Intent("moves.only", rest, []byte(`{"threads":["a"],"from":700,"to":700}`)); err == nil {
		t.Error("it ends as it begins")
	}
	if _, err := s.Intent("moves.bringIn", rest, nil); err == nil {
		t.Error("all have an entrance, or are the ground")
	}
	want1(t, s, "moves.clear", `{"threads":["a","b"]}`)
	want1(t, s, "moves.bringIn", `{}`)
	a, b = thread(t, s, 0, "a").Moves, thread(t, s, 0, "b").Moves
	if len(thread(t, s, 0, "ground").Moves) != 0 || len(a) != 1 || len(b) != 1 || b[0].Start.Offset-a[0].Start.Offset != 150 || a[0].Kind != doc.Entrance {
		t.Error("the layers come in from the rearmost on, the ground is there")
	}
	if text := strings.Join(s.Summary(0), " "); !strings.Contains(text, "fades in") {
		t.Error(text)
	}
}

// The lines of a text take turns where the first stands, each as long as it takes to read; a text becomes a band on its plate, across the page.
func TestLinesTakeTurnsAndATextRunsAsABand(t *testing.T) {
	l := &doc.Layer{ID: "w", Thread: "w", Name: "Words", Kind: doc.TextKind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"},
		Text: &doc.Text{Align: doc.Left, LineHeight: 1.2, Runs: []doc.Run{{Text: "Bring a kite\nand a long tail of string", Family: "Archivo", Weight: 700, Size: 20}}}}
	s := open(t, with(l))
	want1(t, s, "moves.inTurn", `{"threads":["w"]}`)
	group := thread(t, s, 0, "w")
	if group.Kind != doc.Group || len(group.Children) != 2 || group.Children[0].Place.Y != group.Children[1].Place.Y {
		t.Fatalf("the text is %s of %d", group.Kind, len(group.Children))
	}
	timing := s.Film.Timing(0)
	in, out := group.Children[1].Moves[0], group.Children[1].Moves[1]
	if stays := timing.Moves[out.ID].Begin - timing.Moves[in.ID].End; stays != 2500 { // six words
		t.Errorf("the second line stays %d ms", stays)
	}
	s = open(t, with(l))
	want1(t, s, "text.band", `{"thread":"w","angle":-8}`)
	band := thread(t, s, 0, "w")
	m := band.Moves[0]
	if band.Place.Turn != -8 || band.Text.Plate == nil || !band.Text.Plate.Whole || m.Goes() == nil || m.Goes().Pace == nil || m.Params.Number("gap") != 2*band.Text.Plate.Padding {
		t.Errorf("%+v %+v", band.Place, m)
	}
	if _, err := s.Intent("text.band", rest, []byte(`{"thread":"nobody"}`)); err == nil {
		t.Error("nobody runs as a band")
	}
}

// A scene that continues another begins as that ends, whatever moves its layers: loops go on, what has come is there, what drifts stays where it
// has come to. What blinks is one thing or another.
func TestContinuingGoesOnFromEveryEffect(t *testing.T) {
	for _, e := range effect.All() {
		for _, kind := range e.Kinds() {
			if kind == effect.Transition || kind == effect.Loop && (e.Goes.Manner == effect.Blinks || e.Goes.Manner == effect.Strews) {
				continue
			}
			m := &doc.Move{ID: "m", Kind: kind, Effect: e.Name, Start: doc.Start{When: doc.AtTime}, Duration: 900, Seed: 4, Params: e.Fresh(e.Offer(kind, ""), effect.Setting{PageW: 320, PageH: 240})}
			switch {
			case m.Timeless():
				m.Duration = 0
			case kind == effect.Loop:
				m.Lasts = doc.WholeScene
				if m.Runs() {
					m.Duration = 0
				}
			}
			l := shapeOf("a", doc.Rectangle, 150, 100, 60, 40)
			l.Moves = []*doc.Move{m, {ID: "way", Kind: doc.MotionPath, Effect: doc.Along, Start: doc.Start{When: doc.AtTime}, Duration: 800, Path: &doc.PathParams{D: "M0 0L40 10"}}}
			p := with(l)
			p.Film.Scenes[0].Stay = 2000
			s := open(t, p)
			want1(t, s, "scene.continue", `{}`)
			want1(t, s, "scene.transition", fmt.Sprintf(`{"ids":[%q],"patch":{"kind":"cut"}}`, s.Document().Film.Scenes[1].ID))
			paint := func(ms float64) *image.RGBA {
				img := image.NewRGBA(image.Rect(0, 0, 320, 240))
				if err := raster.NewPainter(s.Film, nil).Paint(img, s.Film.Player().At(motion.Seconds(ms/1000), frame.View{Scale: 1})); err != nil {
					t.Fatal(err)
				}
				return img
			}
			a, b := paint(1999.9), paint(2000.1)
			off := 0
			for i := range a.Pix {
				if d := int(a.Pix[i]) - int(b.Pix[i]); d > 24 || d < -24 {
					off++
				}
			}
			if off > 0 {
				t.Errorf("%s (%s): %d bytes jump where the next scene goes on", e.Words, kind, off)
			}
		}
	}
}
