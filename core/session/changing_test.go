package session_test

import (
	"fmt"
	"math"
	"reflect"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/gesture"
	"capstan/core/session"
)

func changed(t *testing.T, s *session.Session, name string) doc.Becomes {
	t.Helper()
	for _, m := range thread(t, s, 0, name).Moves {
		if m.Change != nil {
			return m.Change.To
		}
	}
	return doc.Becomes{}
}

// run is an intent carried out as the page does it.
func run(t *testing.T, s *session.Session, intent, args string) *session.Done {
	t.Helper()
	d, err := s.Run(intent, []byte(args), session.Row{}, false)
	if err != nil {
		t.Fatalf("%s: %v", intent, err)
	}
	return d
}

// What is done to a layer that is shown as it is after a change becomes what that names, by whatever it is done: a drag, a number, a colour; its
// rest stays. Another layer that is moved along changes at rest. Undone, all is as it was.
func TestTheSecondStateIsEdited(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Rectangle, 100, 100, 40, 20), shapeOf("b", doc.Rectangle, 200, 100, 40, 20)))
	s.Watch(session.Watched{Moment: rest, Threads: []string{"a"}})
	run(t, s, "move.add", `{"threads":["a"],"kind":"change","effect":"becomes","at":1400}`)
	id := thread(t, s, 0, "a").Moves[0].ID
	before := marshal(t, s.Document())
	if err := s.Changing([]string{id}); err != nil {
		t.Fatal(err)
	}
	if v := s.All(); v.After == nil || v.After.Words != "after the change at 1.40 s" {
		t.Fatalf("it says %+v", v.After)
	}
	// Dragged by 50 px with another one, and made half as opaque.
	s.Watch(session.Watched{Moment: rest, Threads: []string{"a", "b"}})
	if err := s.Begin("move", rest, []string{"a", "b"}, "", "", geom.Point{X: 100, Y: 100}); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Update(geom.Point{X: 150, Y: 110}, gesture.Modifiers{}); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Carry(s.EndDrag(), session.Row{}, false); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Carry(&edit.SetLayers{Set: []edit.Part{{ID: thread(t, s, 0, "a").ID, Patch: edit.Fields{"opacity": 0.5}}}}, session.Row{}, false); err != nil {
		t.Fatal(err)
	}
	to := changed(t, s, "a")
	if a, b := thread(t, s, 0, "a").Place, thread(t, s, 0, "b").Place; a.X != 100 || a.Y != 100 || b.X != 250 || b.Y != 110 {
		t.Errorf("at rest they lie at %v and %v", a, b)
	}
	if strings.Join(to.Names(), " ") != "x y opacity" || *to.X != 150 || *to.Y != 110 || *to.Opacity != 0.5 || thread(t, s, 0, "a").Opacity != 1 {
		t.Errorf("it becomes %s %+v", to.Names(), to)
	}
	if q := corners(t, s, rest, "a"); q[0] != [2]float64{130, 100} {
		t.Errorf("shown after the change its corner is at %v", q[0])
	}
	// Put back by hand it names that no more.
	if _, err := s.Carry(edit.SetPlaces([]edit.Part{edit.PlaceOf(thread(t, s, 0, "a").ID, edit.Fields{"y": 100.0})}), session.Row{}, false); err != nil {
		t.Fatal(err)
	}
	if to = changed(t, s, "a"); strings.Join(to.Names(), " ") != "x opacity" {
		t.Errorf("put back it names %v", to.Names())
	}
	if err := s.Changing(nil); err != nil {
		t.Fatal(err)
	}
	if q := corners(t, s, rest, "a"); q[0] != [2]float64{80, 90} || s.All().After != nil {
		t.Errorf("at rest its corner is at %v", q[0])
	}
	for range 3 {
		if _, err := s.Back(false); err != nil {
			t.Fatal(err)
		}
	}
	if marshal(t, s.Document()) != before {
		t.Error("undone, something is left")
	}
	// A change that is deleted while it is edited is edited no more.
	if err := s.Changing([]string{id}); err != nil {
		t.Fatal(err)
	}
	run(t, s, "move.delete", fmt.Sprintf(`{"move":%q}`, id))
	if v := s.All(); v.After != nil {
		t.Errorf("deleted, it says %+v", v.After)
	}
}

// What a layer has to become to be as another is what makes it so, for every field that a change can name; grouped, scaled, copied and continued
// it comes to lie where it did.
func TestChangesGoAlongWithTheirLayers(t *testing.T) {
	a := shapeOf("a", doc.Rectangle, 100, 100, 40, 20)
	b := a.Clone()
	b.Place.X, b.Place.W, b.Place.Turn, b.Opacity, b.Corner, b.Blur, b.Feather = 160, 60, 30, 0.5, 6, 3, 4
	b.Fill = doc.Fill{Kind: doc.Solid, Colour: "#3f7f86"}
	b.Stroke = &doc.Stroke{Fill: b.Fill, Width: 4}
	b.Shadow, b.Glow = &doc.Shadow{X: 2, Y: 3, Colour: "#102030"}, &doc.Glow{Blur: 3, Colour: "#f0c040"}
	diff := doc.Difference(a, b)
	if got := a.After(diff); !reflect.DeepEqual(got, b) {
		t.Errorf("it becomes %+v, not %+v", got, b)
	}
	if n := len(diff.Names()); n != 11 {
		t.Errorf("%d fields differ: %v", n, diff.Names())
	}
	end := func(s *session.Session, name string) [4][2]float64 {
		m := rest
		m.Rest, m.Time = false, float64(s.Film.Order.Stays[0]-1)
		return corners(t, s, m, name)
	}
	x, y := 220.0, 160.0
	a.Moves = []*doc.Move{{ID: "ch", Kind: doc.Change, Effect: doc.Becoming, Start: doc.Start{When: doc.AtTime}, Duration: 200, Change: &doc.ChangeParams{To: doc.Becomes{X: &x, Y: &y, Turn: diff.Turn}}}}
	s := open(t, with(a, shapeOf("b", doc.Rectangle, 30, 30, 20, 20)))
	was := end(s, "a")
	same := func(how, name string, want [4][2]float64) {
		t.Helper()
		for k, q := range end(s, name) {
			if d := math.Hypot(q[0]-want[k][0], q[1]-want[k][1]); d > 0.01 {
				t.Errorf("%s, corner %d ends at %v, not %v", how, k, q, want[k])
			}
		}
	}
	s.Watch(session.Watched{Moment: rest, Threads: []string{"a", "b"}})
	run(t, s, "group", `{"threads":["a","b"]}`)
	same("grouped", "a", was)
	g := s.Document().Film.Scenes[0].Layers[0]
	run(t, s, "ungroup", fmt.Sprintf(`{"threads":[%q]}`, g.Thread))
	same("and ungrouped", "a", was)
	if _, err := s.Carry(&edit.ContinueScene{From: s.Document().Film.Scenes[0].ID, ID: "next", Seed: "n", Name: "Next"}, session.Row{}, false); err != nil {
		t.Fatal(err)
	}
	next := s.Document().Film.Scenes[1].Thread("a")
	if len(next.Moves) > 0 || next.Place.X != x || next.Place.Y != y || next.Place.Turn != 30 {
		t.Errorf("continued it rests at %+v with %d moves", next.Place, len(next.Moves))
	}
}

// One change in place of another goes when that did; of two that overlap the later says what it takes over.
func TestChangesSayWhatTheyTakeOver(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Rectangle, 100, 100, 40, 20)))
	s.Watch(session.Watched{Moment: rest, Threads: []string{"a"}})
	run(t, s, "move.add", `{"threads":["a"],"kind":"change","effect":"becomes","variant":"emphasise","at":200}`)
	m := thread(t, s, 0, "a").Moves[0]
	if m.Duration != 400 || m.Repeat != 2 || !m.Alternate || *m.Change.To.Scale != 1.12 {
		t.Errorf("emphasised it is %+v", m)
	}
	run(t, s, "move.effect", fmt.Sprintf(`{"move":%q,"effect":"becomes","variant":"dim"}`, m.ID))
	if m = thread(t, s, 0, "a").Moves[0]; m.Alternate || m.Duration != 400 || m.Change.To.Scale != nil || *m.Change.To.Opacity != 0.35 {
		t.Errorf("dimmed in its place it is %+v", m)
	}
	run(t, s, "move.add", `{"threads":["a"],"kind":"change","effect":"becomes","variant":"dim","at":400}`)
	bars := s.Rows(rest)[0].Bars
	if len(bars) != 2 || strings.Contains(bars[0].Words, "takes over") || !strings.HasSuffix(bars[1].Words, "opacity · takes over the opacity from the change at 0.20 s") {
		t.Errorf("they say %q and %q", bars[0].Words, bars[1].Words)
	}
}
