package session_test

import (
	"encoding/json"
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/session"
)

// strip is a scene of three layers with two moves each: a path of 1 s and a fade of 0.5 s that ends with it.
func strip(t *testing.T) *session.Session {
	p := doc.NewProject("p", "P", 1920, 1080, "one")
	s := p.Film.Scenes[0]
	s.Stay = 8000
	for i, id := range []string{"a", "b", "c"} {
		l := &doc.Layer{ID: "l" + id, Thread: "t" + id, Name: "Flag " + id, Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: 500, Y: 300, W: 100, H: 50}}
		l.Moves = []*doc.Move{
			{ID: id + "p", Kind: doc.MotionPath, Effect: doc.Along, Duration: 1000, Start: doc.Start{When: doc.AtTime, Offset: int64(500 * i)}, Path: &doc.PathParams{D: "M0 0L200 50"}},
			{ID: id + "f", Kind: doc.Exit, Effect: doc.Fade, Duration: 500, Start: doc.Start{When: doc.AtTime}, End: &doc.Anchor{When: doc.WhenEnds, Of: id + "p"}},
		}
		s.Layers = append(s.Layers, l)
	}
	n := doc.NewScene("two", "Two")
	n.Layers = []*doc.Layer{{ID: "ld", Thread: "td", Name: "Other", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Moves: []*doc.Move{{ID: "dp", Kind: doc.Entrance, Effect: doc.Wipe, Duration: 400, Start: doc.Start{When: doc.AtTime}}}}}
	p.Film.Scenes = append(p.Film.Scenes, n)
	return open(t, p)
}

func times(s *session.Session, ids ...string) string {
	var out []string
	for _, id := range ids {
		iv := s.Film().Timing(0).Moves[id]
		out = append(out, fmt.Sprintf("%d-%d", iv.Begin, iv.End))
	}
	return strings.Join(out, " ")
}

const sixMoves = `"moves":["ap","af","bp","bf","cp","cf"]`

func refused(t *testing.T, s *session.Session, words, intent, args string) {
	t.Helper()
	c, err := s.Intent(intent, rest, []byte(args))
	if err == nil && c != nil {
		_, err = s.Apply(c)
	}
	if err == nil || !strings.Contains(err.Error(), words) {
		t.Errorf("%s %s: %v, want words with %q", intent, args, err, words)
	}
}

// The tools take moves one by one, layer by layer, or all as one.
func TestToolsTakeMovesTogether(t *testing.T) {
	for _, c := range []struct{ args, want string }{
		{`{"tool":"one-after-another","by":"layer",` + sixMoves + `}`, "0-1000 1000-2000 2000-3000"},
		{`{"tool":"cascade","by":"layer","step":200,` + sixMoves + `}`, "0-1000 200-1200 400-1400"},
		{`{"tool":"together","by":"layer",` + sixMoves + `}`, "0-1000 0-1000 0-1000"},
		{`{"tool":"end-together","by":"layer",` + sixMoves + `}`, "1000-2000 1000-2000 1000-2000"},
		{`{"tool":"reverse","by":"layer",` + sixMoves + `}`, "1000-2000 500-1500 0-1000"},
		{`{"tool":"stretch","by":"all","ms":4000,` + sixMoves + `}`, "0-2000 1000-3000 2000-4000"},
		{`{"tool":"fit","by":"all",` + sixMoves + `}`, "0-4000 2000-6000 4000-8000"},
		{`{"tool":"stretch","by":"move","ms":300,"moves":["ap","bp","cp"]}`, "0-300 500-800 1000-1300"},
	} {
		s := strip(t)
		want(t, s, rest, "time", c.args)
		if got := times(s, "ap", "bp", "cp"); got != c.want {
			t.Errorf("%s: %s, want %s", c.args, got, c.want)
		}
		// The fades end with their paths, whatever was arranged by whole layers.
		if strings.Contains(c.args, `"layer"`) {
			for _, id := range []string{"a", "b", "c"} {
				p, f := s.Film().Timing(0).Moves[id+"p"], s.Film().Timing(0).Moves[id+"f"]
				if p.End != f.End {
					t.Errorf("%s: the path of %s ends at %d, its fade at %d", c.args, id, p.End, f.End)
				}
			}
		}
	}
	// The first of a run stays where it is, also when its begin was solved from its end.
	s := strip(t)
	want(t, s, rest, "time", `{"tool":"cascade","step":100,"moves":["bf","cf","af"]}`)
	if got := times(s, "af", "bf", "cf"); got != "500-1000 600-1100 700-1200" {
		t.Errorf("a cascade of moves with live ends: %s", got)
	}
	s = strip(t)
	refused(t, s, "different scenes", "time", `{"tool":"together","moves":["ap","dp"]}`)
	refused(t, s, "two moves or more", "time", `{"tool":"cascade","moves":["ap"]}`)
	refused(t, s, "no longer there", "time", `{"tool":"cascade","moves":["ap","gone"]}`)
	refused(t, s, "0.01 s or more", "time", `{"tool":"stretch","moves":["ap"],"ms":0}`)
	refused(t, s, "no timing tool", "time", `{"tool":"juggle","moves":["ap","bp"]}`)
}

// End together is live: a longer lead takes the others along.
func TestEndTogetherIsLive(t *testing.T) {
	s := strip(t)
	want(t, s, rest, "time", `{"tool":"end-together","moves":["ap","bp","cp"]}`)
	want(t, s, rest, "bars", `{"moves":["cp"],"part":"end","by":1500}`)
	if got := times(s, "ap", "bp", "cp"); got != "2500-3500 2500-3500 1000-3500" {
		t.Errorf("%s", got)
	}
	refused(t, s, "Drag its other end", "bars", `{"moves":["ap"],"part":"whole","by":100}`)
	want(t, s, rest, "bars", `{"moves":["ap"],"part":"begin","by":-500}`)
	if got := times(s, "ap"); got != "2000-3500" {
		t.Errorf("its begin dragged: %s", got)
	}
	want(t, s, rest, "move.end", `{"move":"ap"}`)
	want(t, s, rest, "bars", `{"moves":["ap"],"part":"whole","by":-100}`)
	if got := times(s, "ap"); got != "1900-3400" {
		t.Errorf("let go and dragged: %s", got)
	}
}

// Bars that hang on each other are dragged together without going twice as far; nothing goes beyond the own transition.
func TestDraggingBarsThatHangOnEachOther(t *testing.T) {
	s := strip(t)
	want(t, s, rest, "hitch", `{"from":"ap","fromPart":"end","to":"bp","toPart":"begin"}`)
	want(t, s, rest, "hitch", `{"from":"bp","fromPart":"begin","to":"cp","toPart":"begin"}`)
	want(t, s, rest, "bars", `{"moves":["cp","ap","bp"],"part":"whole","by":700}`)
	if got := times(s, "ap", "bp", "cp"); got != "700-1700 1700-2700 1700-2700" {
		t.Errorf("%s", got)
	}
	want(t, s, rest, "bars", `{"moves":["bp"],"part":"whole","by":-300}`)
	if got := times(s, "ap", "bp", "cp"); got != "700-1700 1400-2400 1400-2400" {
		t.Errorf("%s", got)
	}
	refused(t, s, "in a ring", "hitch", `{"from":"cp","fromPart":"end","to":"ap","toPart":"begin"}`)
	refused(t, s, "itself", "hitch", `{"from":"cp","fromPart":"end","to":"cp","toPart":"begin"}`)
	refused(t, s, "different scenes", "hitch", `{"from":"cp","fromPart":"end","to":"dp","toPart":"begin"}`)
	want(t, s, rest, "bars", `{"moves":["ap"],"part":"whole","by":-90000}`)
	if got := times(s, "ap"); got != "0-1000" {
		t.Errorf("dragged beyond the begin: %s", got)
	}
	// Typed beyond that it is refused; come about by another edit it is marked.
	refused(t, s, "or later", "move.set", `{"move":"ap","patch":{"start":{"offset":-100}}}`)
	want(t, s, rest, "bars.nudge", `{"moves":["ap"],"part":"whole","frames":1}`)
	if got := times(s, "ap"); got != "33-1033" {
		t.Errorf("a frame at 30 a second: %s", got)
	}
	want(t, s, rest, "bars.nudge", `{"moves":["ap"],"part":"whole","frames":1}`)
	if got := times(s, "ap"); got != "67-1067" {
		t.Errorf("frames lie on the film's grid: %s", got)
	}
}

func TestMovesAreCopiedToOtherLayers(t *testing.T) {
	s := strip(t)
	paste := func(m session.Moment, c session.CopiedMoves, threads string, step int) {
		t.Helper()
		want(t, s, m, "moves.paste", fmt.Sprintf(`{"sets":%s,"begins":%s,"threads":%s,"step":%d}`, marshal(t, c.Sets), marshal(t, c.Begins), threads, step))
	}
	begins := func(scene int, thread string) (out []int64) {
		l := s.Document().Film.Scenes[scene].Thread(thread)
		for _, m := range l.Moves {
			out = append(out, s.Film().Timing(scene).Moves[m.ID].Begin)
		}
		return
	}
	want(t, s, rest, "moves.clear", `{"threads":["tb","tc"]}`)
	// Staggered: each further layer a step later; the hitch inside the set hangs on the copy.
	c := s.CopyMoves(rest, []string{"ta"}, nil)
	if len(c.Sets) != 1 || len(c.Sets[0]) != 2 || c.Begins["af"] != 500 {
		t.Fatalf("%+v", c)
	}
	paste(rest, c, `["tb","tc"]`, 250)
	if b, c := fmt.Sprint(begins(0, "tb")), fmt.Sprint(begins(0, "tc")); b != "[0 500]" || c != "[250 750]" {
		t.Errorf("staggered: %s and %s", b, c)
	}
	// Into another scene, without what a fade alone hangs on: its resolved time.
	fade := s.CopyMoves(rest, nil, []string{"af"})
	paste(session.Moment{Rest: true, Scene: 1}, fade, `["td"]`, 0)
	if got := fmt.Sprint(begins(1, "td")); got != "[0 500]" {
		t.Errorf("in another scene: %s", got)
	}
	// Those of several layers go to as many, one by one.
	both := s.CopyMoves(rest, []string{"ta", "tc"}, nil)
	want(t, s, rest, "moves.clear", `{"threads":["ta","tc"]}`)
	paste(rest, both, `["ta","tc"]`, 0)
	if a, c := fmt.Sprint(begins(0, "ta")), fmt.Sprint(begins(0, "tc")); a != "[0 500]" || c != "[250 750]" {
		t.Errorf("pairwise: %s and %s", a, c)
	}
	if _, err := s.Intent("moves.paste", rest, []byte(`{"sets":[],"begins":{},"threads":["ta"],"step":0}`)); err == nil {
		t.Error("nothing was pasted")
	}
}

// What lasts as long as something else, and what ends with the scene, stays so through other edits.
func TestLastingMovesStayWhereTheyAre(t *testing.T) {
	s := strip(t)
	refused(t, s, "nothing can start when it ends", "move.set", `{"move":"ap","patch":{"lasts":"thread"}}`) // its fade hangs on its end
	want(t, s, rest, "move.delete", `{"move":"af"}`)
	want(t, s, rest, "move.set", `{"move":"ap","patch":{"lasts":"thread"}}`)
	refused(t, s, "as long as its thread", "bars", `{"moves":["ap"],"part":"whole","by":100}`)
	for _, r := range s.Rows(rest) {
		if r.Thread == "ta" && (r.Bars[0].Begin != 0 || r.Bars[0].End != 8000 || !r.Bars[0].Whole) {
			t.Errorf("its bar: %+v", r.Bars[0])
		}
	}
	// An exit that ends with the scene goes on doing so when its time is typed, and when it becomes one by unit.
	want(t, s, rest, "add.text", `{"text":"Kite Day"}`)
	title := s.Document().Film.Scenes[0].Layers[3]
	want(t, s, rest, "move.add", fmt.Sprintf(`{"threads":[%q],"kind":"exit","effect":"fade"}`, title.Thread))
	id := s.Document().Film.Scenes[0].Layers[3].Moves[0].ID
	if got := times(s, id); got != "7600-8000" {
		t.Errorf("a new exit: %s", got)
	}
	want(t, s, rest, "move.set", fmt.Sprintf(`{"move":%q,"patch":{"duration":900}}`, id))
	if got := times(s, id); got != "7100-8000" {
		t.Errorf("its time typed: %s", got)
	}
	want(t, s, rest, "move.unit", fmt.Sprintf(`{"move":%q,"unit":"letter"}`, id))
	if m := s.Document().Film.Scenes[0].Layers[3].Moves[0]; times(s, id) != "7000-8000" || m.Overlap != 0.6 {
		t.Errorf("by letter: %s, %+v", times(s, id), m)
	}
	want(t, s, rest, "move.unit", fmt.Sprintf(`{"move":%q,"unit":""}`, id))
	if m := s.Document().Film.Scenes[0].Layers[3].Moves[0]; m.Unit != "" || m.Overlap != 0 {
		t.Errorf("as a whole again: %+v", m)
	}
}

func TestOppositeDirections(t *testing.T) {
	s := strip(t)
	want(t, s, rest, "moves.mirror", `{"moves":["ap"]}`)
	if d := thread(t, s, 0, "ta").Moves[0].Path.D; d != "M 0 0L -200 50" {
		t.Errorf("a path mostly to the right: %s", d)
	}
	want(t, s, session.Moment{Rest: true, Scene: 1}, "moves.mirror", `{"moves":["dp"]}`)
	if d := thread(t, s, 1, "td").Moves[0].Wipe.Direction; d != 180 {
		t.Errorf("a wipe: %v", d)
	}
	refused(t, s, "either way", "moves.mirror", `{"moves":["af"]}`)
	want(t, s, rest, "moves.turn", `{"moves":["dp"]}`)
	if k := thread(t, s, 1, "td").Moves[0].Kind; k != doc.Exit {
		t.Errorf("an entrance turned: %s", k)
	}
	refused(t, s, "Only an entrance", "moves.turn", `{"moves":["ap"]}`)
}

func TestSnappingNamesWhatABarMayHangOn(t *testing.T) {
	s := strip(t)
	want(t, s, rest, "cue.add", `{"at":4000}`)
	if got := s.SnapBar(rest, []string{"ap"}, "whole", 1480, 40); got.By != 1500 || got.When != doc.WhenEnds || got.Of != "bp" || got.Part != "begin" {
		t.Errorf("%+v", got)
	}
	if got := s.SnapBar(rest, []string{"ap"}, "whole", 3990, 40); got.By != 4000 || got.When != doc.AtCue || !strings.Contains(got.Words, "at cue Cue 1") {
		t.Errorf("%+v", got)
	}
	// What hangs on a dragged bar goes along: it is nothing to snap to.
	if got := s.SnapBar(rest, []string{"ap"}, "end", -480, 40); got.Of == "af" {
		t.Errorf("%+v", got)
	}
	// Several that go together do not snap to each other.
	if got := s.SnapBar(rest, []string{"ap", "bp"}, "whole", 480, 40); got.Of == "bp" || got.Of == "bf" {
		t.Errorf("%+v", got)
	}
}

func TestScenesAreSetTogether(t *testing.T) {
	s := strip(t)
	three, _ := s.Intent("scene.duplicate", session.Moment{Rest: true, Scene: 1}, []byte(`{}`))
	if _, err := s.Apply(three); err != nil {
		t.Fatal(err)
	}
	ids := []string{}
	for _, h := range s.FilmView().Scenes {
		ids = append(ids, h.ID)
	}
	if own := s.OwnScenes(ids, "stay"); len(own) != 1 || own[0] != "one" {
		t.Errorf("a scene of 8 s among two of 4 s: %v", own)
	}
	want(t, s, rest, "scene.stay", fmt.Sprintf(`{"ids":%s,"stay":1200}`, marshal(t, ids)))
	want(t, s, rest, "scene.transition", fmt.Sprintf(`{"ids":%s,"patch":{"kind":"push","direction":90}}`, marshal(t, ids)))
	v := s.FilmView()
	for i, h := range v.Scenes {
		if h.Stay != 1200 || i > 0 && (h.Transition != doc.Push || h.Into != 700 || h.Direction != 90) {
			t.Errorf("%+v", h)
		}
	}
	want(t, s, rest, "film.closing", `{"patch":{"kind":"morph"}}`)
	if v = s.FilmView(); v.Closing == nil || v.Closing.Duration != 700 || v.Length != 3*1200+3*700 {
		t.Errorf("%+v, length %d", v.Closing, v.Length)
	}
	want(t, s, rest, "film.closing", `{"patch":{"kind":"cut"}}`)
	if v = s.FilmView(); v.Closing != nil || v.Length != 3*1200+2*700 {
		t.Errorf("%+v, length %d", v.Closing, v.Length)
	}
	// A stay typed for a scene with waits is the stay that is seen.
	want(t, s, rest, "cue.add", `{"at":500}`)
	q := s.FilmView().Scenes[0].Cues[0]
	if _, err := s.Apply([]byte(fmt.Sprintf(`{"op":"cue.set","scene":"one","id":%q,"patch":{"wait":2000}}`, q.ID))); err != nil {
		t.Fatal(err)
	}
	want(t, s, rest, "scene.stay", `{"ids":["one"],"stay":5000}`)
	if h := s.FilmView().Scenes[0]; h.Stay != 5000 {
		t.Errorf("stay %d", h.Stay)
	}
}

func TestAMoveSaysItsMomentsAndTheSceneItsStory(t *testing.T) {
	s := strip(t)
	for what, want := range map[string]float64{"start": 500, "end": 1500, "rest": 500} {
		if got, ok := s.MomentOf("bp", what); !ok || got != want {
			t.Errorf("%s of the path: %v", what, got)
		}
	}
	if a := s.Span(rest, []string{"ap", "cf"}); a != [2]int64{0, 2000} {
		t.Errorf("span %v", a)
	}
	story := strings.Join(s.Summary(0), "\n")
	for _, w := range []string{"Scene 1, Scene 1, begins at 0.00 s of the film and stays 8.00 s.", "At 0.50 s Flag b travels 206 px to the right over 1.00 s.", "At 0.50 s Flag a fades out over 0.50 s.", "At 8.00 s the scene ends."} {
		if !strings.Contains(story, w) {
			t.Errorf("no %q in\n%s", w, story)
		}
	}
	if i, j := strings.Index(story, "Flag a travels"), strings.Index(story, "Flag c travels"); i < 0 || j < i {
		t.Error("it is not in the order of time")
	}
	g := s.Ghosts(rest, []string{"ta"})
	if len(g) < 8 || g[0].Corners == g[1].Corners || g[1].Time-g[0].Time != g[2].Time-g[1].Time {
		t.Errorf("%d ghosts", len(g))
	}
}

// The points of a free path: dragged with their handles, added without changing the line, taken out again.
func TestFreePathsHavePoints(t *testing.T) {
	s := strip(t)
	want(t, s, rest, "path.bend", `{"move":"ap","shape":"free"}`)
	d := func() *geom.Path {
		p, err := geom.ParseData(thread(t, s, 0, "ta").Moves[0].Path.D)
		if err != nil {
			t.Fatal(err)
		}
		return p
	}
	before := geom.NewMeasure(d()).Length()
	v := s.OverlayView(rest, []string{"ta"})
	if n := len(v.Paths[0].Knots); n != 7 { // three points, four handles
		t.Fatalf("%d knots", n)
	}
	want(t, s, rest, "path.knot.add", `{"move":"ap","x":560,"y":310}`)
	if got := geom.NewMeasure(d()).Length(); math.Abs(got-before) > before*1e-3 || len(d().Points) != 10 {
		t.Errorf("a point more makes the line %.3f instead of %.3f px long", got, before)
	}
	// The middle point takes its handles along; a handle turns the one across.
	v = s.OverlayView(rest, []string{"ta"})
	var knot session.Knot
	for _, k := range v.Paths[0].Knots {
		if k.Index == 3 {
			knot = k
		}
	}
	was := d()
	at := geom.Point{X: knot.At[0], Y: knot.At[1]}
	if err := s.Begin(session.DragPath, rest, []string{"ta"}, "knot3", "ap", at); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Update(at.Add(geom.Point{X: 10, Y: -20}), session.Modifiers{}); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Apply(s.End()); err != nil {
		t.Fatal(err)
	}
	for _, k := range []int{2, 3, 4} {
		if got := d().Points[k].Sub(was.Points[k]); math.Abs(got.X-10) > 0.01 || math.Abs(got.Y+20) > 0.01 {
			t.Errorf("point %d went by %v", k, got)
		}
	}
	want(t, s, rest, "path.knot.remove", `{"move":"ap","index":3}`)
	if n := len(d().Points); n != 7 {
		t.Errorf("%d points are left", n)
	}
	refused(t, s, "keeps its begin and its end", "path.knot.remove", `{"move":"ap","index":0}`)
}

func TestThePivotIsDraggedAndTyped(t *testing.T) {
	s := strip(t)
	want(t, s, rest, "set", `{"threads":["ta"],"patch":{"place":{"flipX":true,"turn":30}}}`)
	corners := func() [4][2]float64 { return s.OverlayView(rest, []string{"ta"}).Boxes[0].Corners }
	before := corners()
	want(t, s, rest, "pivot", `{"threads":["ta"],"x":0,"y":1}`)
	after := corners()
	for i := range before {
		if math.Hypot(after[i][0]-before[i][0], after[i][1]-before[i][1]) > 1e-3 {
			t.Errorf("the layer moved: %v, %v", before[i], after[i])
		}
	}
	if p := s.Selection(rest, []string{"ta"})[0].Pivot; math.Abs(p[0]) > 1e-6 || math.Abs(p[1]-1) > 1e-6 {
		t.Errorf("the pivot stands at %v of the box", p)
	}
	b := s.OverlayView(rest, []string{"ta"}).Boxes[0]
	if err := s.Begin(session.DragPivot, rest, []string{"ta"}, "", "", geom.Point{X: b.Pivot[0], Y: b.Pivot[1]}); err != nil {
		t.Fatal(err)
	}
	r, err := s.Update(geom.Point{X: 501, Y: 302}, session.Modifiers{})
	if err != nil || !strings.Contains(r.Words, "the middle") {
		t.Errorf("near the middle it snaps: %q %v", r.Words, err)
	}
}

// 1,000 moves on one layer, every one hung on the one before: resolved, shown, and refused in words where they would close a ring.
func TestAThousandMovesOnALayer(t *testing.T) {
	p := doc.NewProject("p", "P", 1920, 1080, "one")
	l := &doc.Layer{ID: "l", Thread: "t", Name: "Flag", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}}
	for i := 0; i < 1000; i++ {
		m := &doc.Move{ID: fmt.Sprint("m", i), Kind: doc.MotionPath, Effect: doc.Along, Duration: 10, Start: doc.Start{When: doc.AtTime}, Path: &doc.PathParams{D: "M0 0L1 0"}}
		if i > 0 {
			m.Start = doc.Start{When: doc.WhenEnds, Of: fmt.Sprint("m", i-1)}
		}
		l.Moves = append(l.Moves, m)
	}
	p.Film.Scenes[0].Layers, p.Film.Scenes[0].AutoStay = []*doc.Layer{l}, true
	began := time.Now()
	s := open(t, p)
	if got := s.FilmView().Length; got != 10500 {
		t.Errorf("the film lasts %d ms", got)
	}
	rows := s.Rows(rest)
	if len(rows[0].Bars) != 1000 || rows[0].Bars[999].Lane != 999 {
		t.Errorf("%d bars", len(rows[0].Bars))
	}
	refused(t, s, "in a ring", "hitch", `{"from":"m999","fromPart":"end","to":"m0","toPart":"begin"}`)
	if took := time.Since(began); took > 5*time.Second {
		t.Errorf("it took %v", took)
	}
	// Times that are too long or too short are refused by the field they are in.
	refused(t, s, "duration", "move.set", `{"move":"m5","patch":{"duration":0}}`)
	refused(t, s, "duration", "move.set", `{"move":"m5","patch":{"duration":7200000}}`)
	refused(t, s, "start.of", "move.set", `{"move":"m5","patch":{"start":{"when":"begins","of":"gone"}}}`)
}

// Whatever tools are used in whatever order, the hitches stay free of rings, and what a tool promises holds.
func TestRandomToolsKeepTheirPromise(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 32))
	ids := []string{"ap", "af", "bp", "bf", "cp", "cf"}
	tools := []string{"together", "end-together", "one-after-another", "cascade", "spread", "reverse", "stretch", "fit"}
	done := 0
	for round := 0; round < 60; round++ {
		s := strip(t)
		for k := 0; k < 12; k++ {
			list := append([]string{}, ids...)
			r.Shuffle(len(list), func(i, j int) { list[i], list[j] = list[j], list[i] })
			list = list[:2+r.IntN(5)]
			tool := tools[r.IntN(len(tools))]
			by := []string{"move", "layer", "all"}[r.IntN(3)]
			args := fmt.Sprintf(`{"tool":%q,"by":%q,"moves":%s,"ms":%d}`, tool, by, marshal(t, list), 500+r.IntN(3000))
			c, err := s.Intent("time", rest, []byte(args))
			if err == nil && c != nil {
				_, err = s.Apply(c)
			}
			if err != nil {
				continue // refused in words; nothing has changed
			}
			done++
			at := s.Film().Timing(0)
			if _, err := motion.Resolve(s.Document().Film.Scenes[0], 0); err != nil {
				t.Fatalf("%s leaves hitches that cannot be resolved: %v", args, err)
			}
			if by != "move" {
				continue
			}
			for i, id := range list {
				a, b := at.Moves[list[0]], at.Moves[id]
				switch {
				case tool == "together" && a.Begin != b.Begin && b.Begin != 0, tool == "end-together" && a.End != b.End:
					t.Fatalf("%s: %s and %s: %+v, %+v", args, list[0], id, a, b)
				case tool == "fit" && i > 0 && (b.Begin != 0 || b.End != at.Stay):
					t.Fatalf("%s: %s lasts from %d to %d", args, id, b.Begin, b.End)
				}
			}
		}
	}
	if done < 250 {
		t.Errorf("only %d tools did anything", done)
	}
}

func marshal(t *testing.T, v any) string {
	t.Helper()
	raw, err := json.Marshal(v)
	if err != nil {
		t.Fatal(err)
	}
	return string(raw)
}

// One update of a dragged bar in the demo: the draft and the rows, as the page asks for them.
func BenchmarkDragBar(b *testing.B) {
	s := opener(b)
	id := s.Document().Film.Scenes[0].Thread("t-title").Moves[0].ID
	b.ReportAllocs()
	for i := 0; b.Loop(); i++ {
		c, err := s.Intent("bars", rest, []byte(fmt.Sprintf(`{"moves":[%q],"part":"whole","by":%d}`, id, 10+i%100*10)))
		if err != nil {
			b.Fatal(err)
		}
		if err := s.Draft(c); err != nil {
			b.Fatal(err)
		}
		s.Rows(rest)
	}
}

// crowd is a scene of n layers; half of them travel a path.
func crowd(n int) *doc.Project {
	p := doc.NewProject("crowd", "Crowd", 1920, 1080, "c")
	for i := range n {
		l := &doc.Layer{ID: fmt.Sprint("ml", i), Thread: fmt.Sprint("mt", i), Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: float64(i), W: 60, H: 40}}
		if i%2 == 0 {
			l.Moves = []*doc.Move{{ID: fmt.Sprint("mm", i), Kind: doc.MotionPath, Effect: doc.Along, Duration: 900, Start: doc.Start{When: doc.AtTime}, Path: &doc.PathParams{D: "M0 0C40 -60 90 -60 140 0"}}}
		}
		p.Film.Scenes[0].Layers = append(p.Film.Scenes[0].Layers, l)
	}
	return p
}

// Dragging one of 300 layers.
func BenchmarkDragInACrowd(b *testing.B) {
	t := &testing.T{}
	s := open(t, crowd(300))
	if err := s.Begin(session.DragLayers, rest, []string{"mt150"}, "", "", geom.Point{}); err != nil {
		b.Fatal(err)
	}
	b.ReportAllocs()
	for i := 0; b.Loop(); i++ {
		if _, err := s.Update(geom.Point{X: float64(i % 300)}, session.Modifiers{}); err != nil {
			b.Fatal(err)
		}
	}
}
