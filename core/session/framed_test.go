package session_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/display"
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/gesture"
	"capstan/core/motion"
	"capstan/core/overlay"
)

// Dragged by its handles in its frame, a picture always covers that; the frame goes over a picture that stays, the picture under a frame that
// stays, whichever way the two are turned and flipped; and what is painted is what is drawn over the page.
func TestFramesStayCovered(t *testing.T) {
	r := rand.New(rand.NewPCG(25, 2))
	near := func(a, b [4][2]float64) bool {
		for i := range a {
			if math.Hypot(a[i][0]-b[i][0], a[i][1]-b[i][1]) > 0.06 {
				return false
			}
		}
		return true
	}
	handles := []string{"picture", "zoom", "turn", "n", "e", "s", "w", "nw", "ne", "se", "sw"}
	for i := range 24 {
		s := pictured(t, doc.Place{X: 160, Y: 120, W: 100 + 80*r.Float64(), H: 60 + 60*r.Float64(), Turn: 360 * r.Float64(), FlipX: i%2 == 0, FlipY: i%3 == 0})
		view := func() *overlay.Crop { return s.OverlayView(rest, []string{"a"}).Crop }
		want(t, s, rest, "crop.zoom", fmt.Sprintf(`{"threads":["a"],"zoom":%v}`, 1.2+r.Float64()))
		for range 12 {
			was, h := view(), handles[r.IntN(len(handles))]
			from := geom.Point{X: was.Frame[2][0], Y: was.Frame[2][1]}
			if err := s.Begin("crop", rest, []string{"a"}, h, "", from); err != nil {
				t.Fatal(err)
			}
			to := from.Add(geom.Point{X: 160 * (r.Float64() - 0.5), Y: 160 * (r.Float64() - 0.5)})
			if _, err := s.Update(to, gesture.Modifiers{Shift: r.IntN(3) == 0}); err != nil {
				t.Fatal(err)
			}
			if c := s.End(); c != nil {
				if _, err := s.Apply(c); err != nil {
					t.Fatalf("%d %s: %v", i, h, err)
				}
			}
			is := view()
			m := geom.Matrix{A: is.Place[0], B: is.Place[1], C: is.Place[2], D: is.Place[3], E: is.Place[4], F: is.Place[5]}
			inv, ok := m.Inverse()
			if !ok {
				t.Fatalf("%d %s: it is flat", i, h)
			}
			for _, c := range is.Frame {
				if q := inv.Apply(geom.Point{X: c[0], Y: c[1]}); min(q.X, q.Y) < -1e-3 || max(q.X, q.Y) > 1+1e-3 {
					t.Fatalf("%d %s: a corner of the frame lies at %v of the picture", i, h, q)
				}
			}
			switch h {
			case "picture", "zoom", "turn":
				if !near(was.Frame, is.Frame) {
					t.Fatalf("%d %s: the frame goes from %v to %v", i, h, was.Frame, is.Frame)
				}
			default:
				if !near(was.Whole, is.Whole) {
					t.Fatalf("%d %s: the picture goes from %v to %v %+v %+v", i, h, was.Whole, is.Whole, thread(t, s, 0, "a").Place, *thread(t, s, 0, "a").Picture.Crop)
				}
			}
			list := s.Film.Player().AtRest(0, frame.View{Scale: 1})
			if l := thread(t, s, 0, "a"); l.Picture.Turn != 0 {
				k := len(list.Numbers) - 9 - 6
				if list.Codes[len(list.Codes)-1] != display.OpEnd || !closeTo(list.Numbers[k:k+6], is.Place[:]) {
					t.Fatalf("%d %s: painted at %v, drawn at %v", i, h, list.Numbers[k:k+6], is.Place)
				}
			}
		}
	}
}

func closeTo(a, b []float64) bool {
	for i := range a {
		if math.Abs(a[i]-b[i]) > 0.02 {
			return false
		}
	}
	return true
}

// A crop, a turn in the frame and adjustments are what a change can name: the layer comes to exactly what one looks like that rests so.
func TestChangesCropAndAdjust(t *testing.T) {
	s := pictured(t, doc.Place{X: 160, Y: 120, W: 200, H: 100})
	want(t, s, rest, "move.add", `{"threads":["a"],"kind":"change","effect":"becomes"}`)
	m := thread(t, s, 0, "a").Moves[0]
	to := doc.Becomes{
		Adjust:  &doc.Adjust{Brightness: 0.2, Hue: 30, Toned: &doc.Toned{Amount: 0.5, Tones: []doc.Tone{{Colour: "#17403c"}}}},
		Picture: &doc.PictureUse{Media: thread(t, s, 0, "a").Picture.Media, Crop: &doc.Crop{0.2, 0.2, 0.6, 0.7}},
	}
	if _, err := s.Apply(edit.SetMove(m.ID, edit.Fields{"change": doc.ChangeParams{To: to}})); err != nil {
		t.Fatal(err)
	}
	// What is done while it is edited goes into the change, and leaves the layer at rest as it is.
	if err := s.Changing([]string{m.ID}); err != nil {
		t.Fatal(err)
	}
	run(t, s, "crop.turn", `{"threads":["a"],"turn":5}`)
	if v := thread(t, s, 0, "a"); v.Picture.Turn != 0 || v.Moves[0].Change.To.Picture.Turn != 5 || v.Moves[0].Change.To.Adjust == nil {
		t.Errorf("at rest it is turned by %v, after it by %+v", v.Picture.Turn, v.Moves[0].Change.To.Picture)
	}
	s.Changing(nil)
	end := s.Film.Timing(0).Moves[m.ID].End
	list := s.Film.Player().At(motion.Millis(end), frame.View{Scale: 1})
	is := fmt.Sprint(list.Codes, list.Numbers)
	if to.Picture = thread(t, s, 0, "a").Moves[0].Change.To.Picture; to.Picture.Turn != 5 {
		t.Fatal("the turn is gone")
	}
	rests := pictured(t, doc.Place{X: 160, Y: 120, W: 200, H: 100})
	if _, err := rests.Apply(&edit.SetLayers{Set: []edit.Part{{ID: thread(t, rests, 0, "a").ID, Patch: edit.Fields{"adjust": to.Adjust, "picture": to.Picture}}}}); err != nil {
		t.Fatal(err)
	}
	list = rests.Film.Player().AtRest(0, frame.View{Scale: 1})
	if as := fmt.Sprint(list.Codes, list.Numbers); as != is {
		t.Errorf("it becomes\n%s\nwhere one that rests so is\n%s", is, as)
	}
}

// A picture seen within a shape stays where it is; the shape lies over all of it, turned with it, in a group with nothing else, and can be taken off.
func TestPicturesAreSeenWithinShapes(t *testing.T) {
	s := pictured(t, doc.Place{X: 150, Y: 110, W: 120, H: 80, Turn: 20})
	was := s.OverlayView(rest, []string{"a"}).Crop
	want(t, s, rest, "mask.shape", `{"threads":["a"],"kind":"heart"}`)
	g := s.Document().Film.Scenes[0].Layers[0]
	if g.Kind != doc.Group || len(g.Children) != 2 || g.Children[0].Picture == nil || g.Children[1].Mask != doc.Inside {
		t.Fatalf("it is %+v", g)
	}
	mask := g.Children[1]
	if is := s.OverlayView(rest, []string{"a"}).Crop; !closeTo(is.Place[:], was.Place[:]) {
		t.Errorf("it goes from %v to %v", was.Place, is.Place)
	}
	box, _ := s.Film.Box(0, mask.ID)
	m := s.Film.Ancestry(0, mask.ID).Mul(s.Film.RestMatrix(0, mask.ID))
	for i, c := range box.Corners() {
		if p := m.Apply(c); math.Hypot(p.X-was.Frame[i][0], p.Y-was.Frame[i][1]) > 0.02 {
			t.Errorf("corner %d of the mask lies at %v, of the frame at %v", i, p, was.Frame[i])
		}
	}
	refused(t, s, "not seen within", "mask.shape", `{"threads":["a"],"kind":"line"}`)
	refused(t, s, "not seen within", "mask.shape", `{"threads":["a"],"kind":"group"}`)
}
