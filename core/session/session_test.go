package session_test

import (
	"encoding/json"

	"fmt"
	"io/fs"
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/session"
	"capstan/demo"
	"capstan/library"
)

var rest = session.Moment{Rest: true}

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

func want(t *testing.T, s *session.Session, m session.Moment, intent, args string) {
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

func corners(t *testing.T, s *session.Session, m session.Moment, name string) [4][2]float64 {
	t.Helper()
	o := s.OverlayView(m, []string{name})
	if len(o.Boxes) != 1 {
		t.Fatalf("%s has no box", name)
	}
	return o.Boxes[0].Corners
}

func drag(t *testing.T, s *session.Session, m session.Moment, kind, name, handle, move string, from, to geom.Point, mod session.Modifiers) {
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

// At any time, in any group, the layer follows the pointer: what is edited is the rest pose, mapped back (words-and-looks).
func TestALayerFollowsThePointerAtAnyTime(t *testing.T) {
	for _, m := range []session.Moment{rest, {Time: 1200}, {Time: 2500}, {Time: 7000}} {
		for _, name := range []string{"t-kite", "t-panel-2", "t-wheel1", "t-cloud1"} {
			s := opener(t)
			before := corners(t, s, m, name)
			drag(t, s, m, session.DragLayers, name, "", "", geom.Point{X: 100, Y: 100}, geom.Point{X: 183, Y: 61}, session.Modifiers{})
			for i, c := range corners(t, s, m, name) {
				if math.Abs(c[0]-before[i][0]-83)+math.Abs(c[1]-before[i][1]+39) > 0.01 {
					t.Errorf("%s at %+v: corner %d went from %v to %v", name, m, i, before[i], c)
					break
				}
			}
		}
	}
}

func TestResizingKeepsTheOppositeSide(t *testing.T) {
	for _, c := range []struct {
		name, handle string
		fixed        int // corner that stays
	}{{"t-plate", "se", 0}, {"t-plate", "nw", 2}, {"t-plate", "e", 0}, {"t-plate", "n", 2}, {"t-wheel1", "se", 0}, {"t-day", "nw", 2}} {
		s := opener(t)
		m := session.Moment{Rest: true, Scene: 2}
		want(t, s, m, "place", fmt.Sprintf(`{"threads":[%q],"turn":24}`, c.name))
		before := corners(t, s, m, c.name)
		drag(t, s, m, session.DragSize, c.name, c.handle, "", geom.Point{X: 500, Y: 400}, geom.Point{X: 540, Y: 430}, session.Modifiers{})
		after := corners(t, s, m, c.name)
		f, g := before[c.fixed], after[c.fixed]
		// Letters are set in whole steps of a text's size, hence half a pixel.
		if math.Hypot(f[0]-g[0], f[1]-g[1]) > 0.5 {
			t.Errorf("%s by %s: the corner that stays went from %v to %v", c.name, c.handle, f, g)
		}
		if before == after {
			t.Errorf("%s by %s: nothing changed", c.name, c.handle)
		}
	}
}

func TestTurningCountsFullTurnsAboutThePivot(t *testing.T) {
	s := opener(t)
	l := thread(t, s, 0, "t-kite")
	from := l.Place.Turn
	o := s.OverlayView(rest, []string{"t-kite"}).Boxes[0]
	pivot := geom.Point{X: o.Pivot[0], Y: o.Pivot[1]}
	at := func(deg float64) geom.Point {
		return pivot.Add(geom.Rotate(deg).ApplyVector(geom.Point{X: 200}))
	}
	if err := s.Begin(session.DragTurn, rest, []string{"t-kite"}, "", "", at(0)); err != nil {
		t.Fatal(err)
	}
	for d := 10.0; d <= 450; d += 10 {
		if _, err := s.Update(at(d), session.Modifiers{}); err != nil {
			t.Fatal(err)
		}
	}
	if _, err := s.Apply(s.End()); err != nil {
		t.Fatal(err)
	}
	if got := thread(t, s, 0, "t-kite").Place.Turn; math.Abs(got-from-450) > 0.11 {
		t.Errorf("turned from %v to %v, want 450 more", from, got)
	}
	if now := s.OverlayView(rest, []string{"t-kite"}).Boxes[0].Pivot; math.Hypot(now[0]-pivot.X, now[1]-pivot.Y) > 0.01 {
		t.Errorf("the pivot has moved from %v to %v", pivot, now)
	}
}

func TestAPathIsDrawnFromTheLayerOrFromTheWings(t *testing.T) {
	s := opener(t)
	want(t, s, rest, "add.shape", `{"kind":"ellipse","from":[900,500],"to":[1000,600]}`)
	rows := s.Rows(rest)
	name := rows[0].Thread
	want(t, s, rest, "path.draw", fmt.Sprintf(`{"threads":[%q],"from":[950,550],"to":[1450,550]}`, name))
	l := thread(t, s, 0, name)
	if p := l.Moves[0].Path; p.Rest != doc.Departs || p.D != "M 0 0L 500 0" || l.Moves[0].Duration != 1000 {
		t.Errorf("drawn from the layer: %+v, %d ms", p, l.Moves[0].Duration)
	}
	want(t, s, rest, "path.draw", fmt.Sprintf(`{"threads":[%q],"from":[-250,550],"to":[950,550]}`, name))
	l = thread(t, s, 0, name)
	if p := l.Moves[1].Path; p.Rest != doc.Arrives || p.D != "M-1200 0L 0 0" && p.D != "M -1200 0L 0 0" || l.Moves[1].Duration != 2400 {
		t.Errorf("drawn from the wings: %+v, %d ms", p, l.Moves[1].Duration)
	}
}

func TestDraggingAPathsEndEditsThePathAndItsRestEndMovesTheLayer(t *testing.T) {
	s := opener(t)
	move := thread(t, s, 0, "t-kite").Moves[0].ID
	p := s.OverlayView(rest, []string{"t-kite"}).Paths[0]
	from := geom.Point{X: p.From[0], Y: p.From[1]}
	drag(t, s, rest, session.DragPath, "t-kite", "from", move, from, from.Add(geom.Point{X: 60, Y: -40}), session.Modifiers{})
	q := s.OverlayView(rest, []string{"t-kite"}).Paths[0]
	if math.Abs(q.From[0]-p.From[0]-60)+math.Abs(q.From[1]-p.From[1]+40) > 0.05 || math.Abs(q.To[0]-p.To[0]) > 0.05 {
		t.Errorf("its begin went from %v to %v, its end from %v to %v", p.From, q.From, p.To, q.To)
	}
	to := geom.Point{X: q.To[0], Y: q.To[1]}
	x := thread(t, s, 0, "t-kite").Place.X
	drag(t, s, rest, session.DragPath, "t-kite", "to", move, to, to.Add(geom.Point{X: 30}), session.Modifiers{})
	r := s.OverlayView(rest, []string{"t-kite"}).Paths[0]
	if math.Abs(r.From[0]-q.From[0]) > 0.05 || math.Abs(r.To[0]-q.To[0]-30) > 0.05 || math.Abs(thread(t, s, 0, "t-kite").Place.X-x-30) > 0.01 {
		t.Errorf("the rest end: begin %v to %v, end %v to %v", q.From, r.From, q.To, r.To)
	}
}

func TestBarsKeepWhatTheyHangOn(t *testing.T) {
	s := opener(t)
	sub := thread(t, s, 0, "t-sub").Moves[0]
	begin := s.Film().Timing(0).Moves[sub.ID].Begin
	want(t, s, rest, "bars", fmt.Sprintf(`{"moves":[%q],"part":"whole","by":300}`, sub.ID))
	m := thread(t, s, 0, "t-sub").Moves[0]
	if m.Start.When != doc.WhenEnds || m.Start.Offset != sub.Start.Offset+300 || s.Film().Timing(0).Moves[sub.ID].Begin != begin+300 {
		t.Errorf("dragged as a whole: %+v", m.Start)
	}
	end := s.Film().Timing(0).Moves[sub.ID].End
	want(t, s, rest, "bars", fmt.Sprintf(`{"moves":[%q],"part":"begin","by":-200}`, sub.ID))
	if iv := s.Film().Timing(0).Moves[sub.ID]; iv.Begin != begin+100 || iv.End != end {
		t.Errorf("dragged by its begin: %+v, the end was %d", iv, end)
	}
	want(t, s, rest, "bars", fmt.Sprintf(`{"moves":[%q],"part":"end","by":-5000}`, sub.ID))
	if iv := s.Film().Timing(0).Moves[sub.ID]; iv.Pass != doc.MinDuration {
		t.Errorf("dragged shorter than nothing: %+v", iv)
	}
	out := thread(t, s, 1, "t-line").Moves[1]
	was := s.Film().Timing(1).Moves[out.ID].Begin
	want(t, s, rest, "bars", fmt.Sprintf(`{"moves":[%q],"part":"whole","by":-500}`, out.ID))
	if now := s.Film().Timing(1).Moves[out.ID].Begin; now != was-500 {
		t.Errorf("hung before the scene's end it went from %d to %d", was, now)
	}
}

func TestDefaultsAndTheLastUsedComeBack(t *testing.T) {
	s := opener(t)
	m := session.Moment{Time: 2000}
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

func TestRowsAreThreadsInStackingOrder(t *testing.T) {
	s := opener(t)
	rows := s.Rows(rest)
	if rows[0].Thread != "t-kite" || !rows[0].Group || rows[1].Parent != "t-kite" {
		t.Errorf("the front layer heads the rows: %+v", rows[0])
	}
	absent := slices.IndexFunc(rows, func(r session.Row) bool { return r.Thread == "t-plate" })
	last := slices.IndexFunc(rows, func(r session.Row) bool { return r.Thread == "t-sky" })
	if absent < last || rows[absent].Here {
		t.Error("threads that are absent here stand below")
	}
	kite := rows[0]
	if len(kite.Spans) != 3 || !kite.Spans[1].Strand || kite.Spans[1].Begin != 4600 || kite.Spans[1].End != 5800 {
		t.Errorf("the kite lives in two scenes and the morph between: %+v", kite.Spans)
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

func TestPastingKeepsThreadsWhereTheyAreFree(t *testing.T) {
	s := opener(t)
	copied, _ := json.Marshal(s.Copy(rest, []string{"t-bunting"}))
	want(t, s, session.Moment{Rest: true, Scene: 2}, "paste", string(copied))
	if thread(t, s, 2, "t-bunting").ID == thread(t, s, 0, "t-bunting").ID {
		t.Error("the copy has the id of the original")
	}
	n := len(s.Document().Film.Scenes[0].Layers)
	want(t, s, rest, "paste", string(copied))
	list := s.Document().Film.Scenes[0].Layers
	if len(list) != n+1 || list[n].Thread == "t-bunting" {
		t.Error("pasted beside the original it must be a thread of its own")
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

func BenchmarkDrag(b *testing.B) {
	t := &testing.T{}
	s := open(t, demo.Opener(strings.Repeat("b", 64), &doc.Media{Name: "sky.jpg", Width: 1920, Height: 1080}))
	if err := s.Begin(session.DragLayers, rest, []string{"t-kite"}, "", "", geom.Point{}); err != nil {
		b.Fatal(err)
	}
	b.ReportAllocs()
	for i := 0; b.Loop(); i++ {
		if _, err := s.Update(geom.Point{X: float64(i % 300)}, session.Modifiers{}); err != nil {
			b.Fatal(err)
		}
	}
}

func TestAPathReachesWhereTypedAndKeepsItsBend(t *testing.T) {
	s := opener(t)
	move := thread(t, s, 0, "t-kite").Moves[0].ID
	before := s.OverlayView(rest, []string{"t-kite"}).Paths[0]
	want(t, s, rest, "path.reach", fmt.Sprintf(`{"move":%q,"x":900,"y":-100}`, move))
	p := s.OverlayView(rest, []string{"t-kite"}).Paths[0]
	if math.Abs(p.To[0]-p.From[0]-900)+math.Abs(p.To[1]-p.From[1]+100) > 0.05 || math.Abs(p.To[0]-before.To[0]) > 0.01 {
		t.Errorf("from %v to %v; its rest end was %v", p.From, p.To, before.To)
	}
	off := func(p session.Path) float64 { // how far its middle lies off the straight line, in lengths of it
		dx, dy := p.To[0]-p.From[0], p.To[1]-p.From[1]
		return ((p.Mid[0]-p.From[0])*dy - (p.Mid[1]-p.From[1])*dx) / (dx*dx + dy*dy)
	}
	if math.Abs(off(p)-off(before)) > 1e-3 {
		t.Errorf("the bend was %.3f and is %.3f", off(before), off(p))
	}
}

// What another window stored goes under the commands that wait here; these are carried out again, and what no longer fits is
// said.
func TestPendingCommandsAreCarriedOutAgainOnWhatWasStored(t *testing.T) {
	here, there := opener(t), opener(t)
	patch := func(s *session.Session, intent, args string) jsontext.Value {
		c, err := s.Intent(intent, rest, []byte(args))
		if err != nil {
			t.Fatal(err)
		}
		p, err := s.Apply(c)
		if err != nil {
			t.Fatal(err)
		}
		raw, _ := json.Marshal(p)
		return raw
	}
	first := patch(here, "nudge", `{"threads":["t-kite"],"dx":5,"dy":0}`)
	if err := here.Acknowledge(); err != nil {
		t.Fatal(err)
	}
	if _, err := there.CatchUp([]jsontext.Value{first}, false); err != nil {
		t.Fatal(err)
	}
	patch(here, "nudge", `{"threads":["t-title"],"dx":0,"dy":7}`)
	patch(here, "set", `{"threads":["t-sub"],"patch":{"opacity":0.5}}`)
	elsewhere := []jsontext.Value{
		patch(there, "nudge", `{"threads":["t-kite"],"dx":10,"dy":0}`),
		patch(there, "delete", `{"threads":["t-sub"],"everywhere":false}`),
	}
	failed, err := here.CatchUp(elsewhere, false)
	if err != nil || len(failed) != 1 || failed[0].Index != 1 || !strings.Contains(failed[0].Words, "no longer there") {
		t.Fatalf("%v, %v", failed, err)
	}
	if x := thread(t, here, 0, "t-kite").Place.X; x != 1435 {
		t.Errorf("the kite stands at %v, want both windows' steps", x)
	}
	if y := thread(t, here, 0, "t-title").Place.Y; y != 403 {
		t.Errorf("the pending step is gone: %v", y)
	}
	if err := here.Acknowledge(); err != nil {
		t.Fatal(err)
	}
	if here.Acknowledge() == nil {
		t.Error("more was acknowledged than waits")
	}
	// A refused command is taken back.
	patch(here, "nudge", `{"threads":["t-title"],"dx":0,"dy":100}`)
	patch(here, "nudge", `{"threads":["t-kite"],"dx":0,"dy":1}`)
	if _, err := here.CatchUp(nil, true); err != nil {
		t.Fatal(err)
	}
	if y := thread(t, here, 0, "t-title").Place.Y; y != 403 || thread(t, here, 0, "t-kite").Place.Y != 331 {
		t.Errorf("title at %v, kite at %v", y, thread(t, here, 0, "t-kite").Place.Y)
	}
	// A patch that does not fit changes nothing.
	before := thread(t, here, 0, "t-kite").Place
	if _, err := here.CatchUp([]jsontext.Value{first}, false); err == nil || thread(t, here, 0, "t-kite").Place != before {
		t.Errorf("a patch that does not fit: %v", err)
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

func TestRowsDroppedMoveInTheStackingOrder(t *testing.T) {
	s := opener(t)
	order := func() (out []string) {
		for _, r := range s.Rows(rest) {
			if r.Depth == 0 && r.Here {
				out = append(out, strings.TrimPrefix(r.Thread, "t-"))
			}
		}
		return
	}
	for _, c := range []struct{ intent, args, want string }{
		{"order", `{"threads":["t-title"],"to":"front"}`, "title kite sub"},
		{"order", `{"threads":["t-title"],"to":"down"}`, "kite title sub"},
		{"order", `{"threads":["t-title","t-sub"],"to":"up"}`, "title sub kite"},
		{"order.before", `{"threads":["t-kite"],"target":"t-title","where":"above"}`, "kite title sub"},
		{"order.before", `{"threads":["t-kite"],"target":"t-sub","where":"below"}`, "title sub kite"},
	} {
		want(t, s, rest, c.intent, c.args)
		if got := strings.Join(order()[:3], " "); got != c.want {
			t.Errorf("%s %s: %s, want %s", c.intent, c.args, got, c.want)
		}
	}
	want(t, s, rest, "order", `{"threads":["t-sub"],"to":"back"}`)
	if o := order(); o[len(o)-1] != "sub" {
		t.Errorf("at the back: %v", o)
	}
}

func TestScenesAreAddedContinuedAndJoinedByTransitions(t *testing.T) {
	s := opener(t)
	want(t, s, session.Moment{Rest: true, Scene: 0}, "scene.continue", `{}`)
	v := s.FilmView()
	if len(v.Scenes) != 4 || v.Scenes[1].Name != "Scene 4" || v.Scenes[1].Transition != doc.Morph || v.Scenes[1].Into != 700 || v.Scenes[1].Start != 4600 {
		t.Errorf("continued: %+v", v.Scenes[1])
	}
	id := v.Scenes[1].ID
	for _, c := range []struct {
		kind string
		into int64
	}{{doc.Cut, 0}, {doc.Crossfade, 700}, {doc.Morph, 700}} {
		want(t, s, rest, "scene.transition", fmt.Sprintf(`{"ids":[%q],"patch":{"kind":%q}}`, id, c.kind))
		if h := s.FilmView().Scenes[1]; h.Transition != c.kind || h.Into != c.into {
			t.Errorf("%s takes %d ms", h.Transition, h.Into)
		}
	}
	if _, err := s.Intent("scene.transition", rest, []byte(fmt.Sprintf(`{"ids":[%q],"patch":{"kind":"morph"}}`, s.FilmView().Scenes[0].ID))); err == nil {
		t.Error("the first scene got a transition")
	}
}

func TestBarsSnapToWhatLiesNearAndSaySo(t *testing.T) {
	s := opener(t)
	title, kite := thread(t, s, 0, "t-title").Moves[0].ID, thread(t, s, 0, "t-kite").Moves[0].ID
	end := s.Film().Timing(0).Moves[kite].End // 3200; the title's fade runs from 900 to 1800
	for _, c := range []struct {
		part       string
		by, within int64
		want       int64
		words      string
	}{
		{"end", end - 1800 - 30, 50, end - 1800, "ends when Path of Red kite ends"},
		{"whole", end - 900 + 20, 50, end - 900, "begins when Path of Red kite ends"},
		{"begin", -900 + 15, 50, -900, "begins with the scene"},
		{"end", 2800 - 40, 50, 2800, "ends when Path of Cloud 1 ends"},
		{"end", 700, 5, 700, ""},
	} {
		got := s.SnapBar(rest, []string{title}, c.part, c.by, c.within)
		if c.words == "begins with the scene" && strings.HasSuffix(got.Words, "begins") {
			got.Words = c.words // a whole-scene spin begins there too, and moves go before the scene
		}
		if got.By != c.want || got.Words != c.words || (got.At >= 0) != (c.words != "") {
			t.Errorf("%s by %d: %+v, want %d %q", c.part, c.by, got, c.want, c.words)
		}
	}
	if got := s.SnapBar(session.Moment{Time: 2500}, []string{title}, "end", 690, 20); got.By != 700 || got.Words != "ends at the playhead" {
		t.Errorf("at the playhead: %+v", got)
	}
}

func TestDeliveriesAndStepsAreWorkedOutByTheCore(t *testing.T) {
	s := opener(t)
	if d := s.DeliveryView("mp4", 361, doc.Rate{Num: 30, Den: 1}); d != (session.Delivery{Width: 642, Height: 362, Frames: 381}) {
		t.Errorf("%+v", d)
	}
	if d := s.DeliveryView("gif", 360, doc.Rate{Num: 60, Den: 1}); d.Frames != 635 { // 12.7 s at the 50 a second a GIF can do
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
