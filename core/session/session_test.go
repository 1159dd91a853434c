package session_test

import (
	"encoding/json"

	"fmt"
	"io/fs"
	"math"
	"strings"
	"testing"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/gesture"
	"capstan/core/scope"
	"capstan/core/session"
	"capstan/demo"
	"capstan/library"
)

var rest = scope.Moment{Rest: true}

// sent is a command as it comes over the wire.
func sent(raw string) edit.Command {
	c, err := edit.Read([]byte(raw))
	if err != nil {
		panic(err)
	}
	return c
}

func open(t testing.TB, p *doc.Project) *session.Session {
	t.Helper()
	s := session.New()
	for _, f := range library.FontFiles() {
		data, err := fs.ReadFile(library.Fonts(), f.File)
		if err != nil {
			t.Fatal(err)
		}
		if err := s.AddFont(f.Family, f.Weight, f.Italic, data); err != nil {
			t.Fatal(err)
		}
	}
	raw, err := p.Write()
	if err != nil {
		t.Fatal(err)
	}
	if err := s.Open(raw); err != nil {
		t.Fatal(err)
	}
	return s
}

func opener(t testing.TB) *session.Session {
	return open(t, demo.Opener(strings.Repeat("b", 64), &doc.Media{Name: "sky.jpg", Width: 1920, Height: 1080}))
}

func want(t *testing.T, s *session.Session, m scope.Moment, intent, args string) {
	t.Helper()
	c, err := s.Intent(intent, m, []byte(args))
	if err != nil {
		t.Fatalf("%s: %v", intent, err)
	}
	if c == nil {
		t.Fatalf("%s: there is nothing to do", intent)
	}
	if _, err := s.Apply(c); err != nil {
		t.Fatalf("%s: %v", intent, err)
	}
}

func thread(t *testing.T, s *session.Session, scene int, name string) *doc.Layer {
	t.Helper()
	l := s.Document().Film.Scenes[scene].Thread(name)
	if l == nil {
		t.Fatalf("no layer of thread %s", name)
	}
	return l
}

func corners(t *testing.T, s *session.Session, m scope.Moment, name string) [4][2]float64 {
	t.Helper()
	o := s.OverlayView(m, []string{name})
	if len(o.Boxes) != 1 {
		t.Fatalf("%s has no box", name)
	}
	return o.Boxes[0].Corners
}

func drag(t *testing.T, s *session.Session, m scope.Moment, kind, name, handle, move string, from, to geom.Point, mod gesture.Modifiers) {
	t.Helper()
	if err := s.Begin(kind, m, []string{name}, handle, move, from); err != nil {
		t.Fatal(err)
	}
	for i := 1; i <= 8; i++ {
		if _, err := s.Update(from.Lerp(to, float64(i)/8), mod); err != nil {
			t.Fatal(err)
		}
	}
	c := s.End()
	if c == nil {
		t.Fatal("the gesture came to nothing")
	}
	if _, err := s.Apply(c); err != nil {
		t.Fatal(err)
	}
}

func TestDefaultsAndTheLastUsedComeBack(t *testing.T) {
	s := opener(t)
	m := scope.Moment{Time: 2000}
	want(t, s, m, "move.add", `{"threads":["t-bunting"],"kind":"exit","effect":"fade"}`)
	got := thread(t, s, 0, "t-bunting").Moves[1]
	if got.Duration != 400 || got.Start.When != doc.AtTime || got.Start.Offset != 2000 {
		t.Errorf("a new exit at the playhead: %+v", got)
	}
	want(t, s, m, "move.set", fmt.Sprintf(`{"move":%q,"patch":{"duration":900}}`, got.ID))
	want(t, s, rest, "move.add", `{"threads":["t-title"],"kind":"exit","effect":"fade"}`)
	again := thread(t, s, 0, "t-title").Moves[1]
	if again.Duration != 900 || again.Start.When != doc.BeforeSceneEnd || again.Start.Offset != 900 {
		t.Errorf("the next exit, at rest: %+v", again)
	}
}

func TestAlignmentMovesNoSingleLine(t *testing.T) {
	s := opener(t)
	before := corners(t, s, rest, "t-title")
	for _, a := range []string{"centre", "right", "left"} {
		want(t, s, rest, "text.align", fmt.Sprintf(`{"threads":["t-title"],"align":%q}`, a))
		after := corners(t, s, rest, "t-title")
		if math.Abs(after[0][0]-before[0][0]) > 0.01 {
			t.Errorf("aligned %s the line went from %v to %v", a, before[0], after[0])
		}
	}
}

func TestTypedPlacesArePlaces(t *testing.T) {
	s := opener(t)
	for _, name := range []string{"t-kite", "t-title", "t-wheel1", "t-water"} {
		want(t, s, rest, "place", fmt.Sprintf(`{"threads":[%q],"x":333,"y":222}`, name))
		want(t, s, rest, "place", fmt.Sprintf(`{"threads":[%q],"turn":-30}`, name))
		want(t, s, rest, "place", fmt.Sprintf(`{"threads":[%q],"w":250}`, name))
		v := s.Selection(rest, []string{name})[0]
		if math.Abs(v.Box[2]-250) > 0.6 || v.Layer.Place.Turn != -30 {
			t.Errorf("%s: %v, turn %v", name, v.Box, v.Layer.Place.Turn)
		}
	}
	v := s.Selection(rest, []string{"t-title"})[0]
	want(t, s, rest, "place", `{"threads":["t-title"],"x":500,"y":400}`)
	if v = s.Selection(rest, []string{"t-title"})[0]; math.Abs(v.Box[0]-500)+math.Abs(v.Box[1]-400) > 0.01 {
		t.Errorf("its middle is at %v", v.Box)
	}
}

func TestAnEmptyProjectHasEmptyViews(t *testing.T) {
	s := open(t, doc.NewProject("p", "p", 1080, 1080, "s"))
	for name, v := range map[string]any{"rows": s.Rows(rest), "selection": s.Selection(rest, nil), "overlay": s.OverlayView(rest, []string{"nobody"}), "hit": s.Hit(rest, geom.Point{X: 5, Y: 5}, 3)} {
		if raw, _ := json.Marshal(v); strings.Contains(string(raw), "null") {
			t.Errorf("%s: %s", name, raw)
		}
	}
}

func TestAFamilyKeepsTheWeightAsNearlyAsItCan(t *testing.T) {
	s := opener(t)
	for _, c := range []struct {
		family string
		weight int
	}{{"Archivo", 500}, {"Shrikhand", 400}, {"Fredoka", 400}} {
		want(t, s, rest, "text.family", fmt.Sprintf(`{"threads":["t-sub","t-kite"],"family":%q}`, c.family))
		if r := thread(t, s, 0, "t-sub").Text.Runs[0]; r.Family != c.family || r.Weight != c.weight {
			t.Errorf("in %s it is %d", r.Family, r.Weight)
		}
	}
}

func TestDeliveriesAndStepsAreWorkedOutByTheCore(t *testing.T) {
	s := opener(t)
	if d := s.DeliveryView(delivery.Ask{Format: "mp4", Height: 361}); d.Width != 642 || d.Height != 362 || d.Frames != 381 || d.Pass != 12700 || d.Length != 12700 || d.RateNum != 30 || d.RateDen != 1 || len(d.Limits) > 0 {
		t.Errorf("%+v", d)
	}
	if d := s.DeliveryView(delivery.Ask{Format: "gif", Height: 360, Rate: doc.Rate{Num: 60, Den: 1}}); d.Frames != 635 || len(d.Limits) != 2 { // 12.7 s at the 50 a second a GIF can do, which it says with its colours
		t.Errorf("%+v", d)
	}
	for _, c := range []struct {
		from float64
		n    int64
		want float64
	}{{0, 1, 1000.0 / 30}, {40, 1, 2000.0 / 30}, {1000, -1, 29000.0 / 30}, {0, -1, 0}} {
		if got := s.Step(c.from, c.n); math.Abs(got-c.want) > 1e-9 {
			t.Errorf("%d frames on from %v ms: %v, want %v", c.n, c.from, got, c.want)
		}
	}
}
