package session_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/geom"
	"capstan/core/gesture"
	"capstan/core/intent/moves"
	"capstan/core/motion"
	"capstan/core/scope"
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
			{ID: id + "f", Kind: doc.Exit, Effect: effect.Fade, Duration: 500, Start: doc.Start{When: doc.AtTime}, End: &doc.Anchor{When: doc.WhenEnds, Of: id + "p"}},
		}
		s.Layers = append(s.Layers, l)
	}
	n := doc.NewScene("two", "Two")
	n.Layers = []*doc.Layer{{ID: "ld", Thread: "td", Name: "Other", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Moves: []*doc.Move{{ID: "dp", Kind: doc.Entrance, Effect: effect.Wipe, Duration: 400, Start: doc.Start{When: doc.AtTime}}}}}
	p.Film.Scenes = append(p.Film.Scenes, n)
	return open(t, p)
}

func times(s *session.Session, ids ...string) string {
	var out []string
	for _, id := range ids {
		iv := s.Shown.Timing(0).Moves[id]
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
				p, f := s.Shown.Timing(0).Moves[id+"p"], s.Shown.Timing(0).Moves[id+"f"]
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

// Two moves meet: of each way the words say what it does, both end together then, and still do when the one they hang on is changed. What hangs on
// the other already is not offered, nor what would leave nothing of a move.
func TestTwoMovesMeet(t *testing.T) {
	for i, c := range []struct{ words, times, after string }{
		{"Begin “Flag b” 0.50 s earlier", "0-1000 0-1000", "0-1400 400-1400"},
		{"Shorten “Flag b” by 0.50 s", "0-1000 500-1000", "0-1400 500-1400"},
	} {
		s := strip(t)
		ways := moves.Meetings(s.Desk, []string{"bp", "ap"})
		if len(ways) != 2 || ways[i].Words != c.words {
			t.Fatalf("%+v", ways)
		}
		want(t, s, rest, "move.end", fmt.Sprintf(`{"move":%q,"when":"ends","of":%q,"stretches":%v}`, ways[i].Move, ways[i].Of, ways[i].Stretches))
		if got := times(s, "ap", "bp"); got != c.times {
			t.Errorf("%s: %s", c.words, got)
		}
		want(t, s, rest, "move.set", `{"move":"ap","patch":{"duration":1400}}`)
		if got := times(s, "ap", "bp"); got != c.after {
			t.Errorf("%s, and the other is made longer: %s", c.words, got)
		}
		for _, w := range moves.Meetings(s.Desk, []string{"ap", "bp"}) {
			if w.Move != "bp" || w.Stretches == ways[i].Stretches {
				t.Errorf("%s: offered again: %+v", c.words, w)
			}
		}
	}
	s := strip(t)
	want(t, s, rest, "move.set", `{"move":"cp","patch":{"start":{"offset":1000}}}`)
	for pair, want := range map[[2]string]int{{"ap", "cp"}: 1, {"ap", "dp"}: 0, {"ap", "ap"}: 0} { // it would be 0 s long; of another scene; itself
		if ways := moves.Meetings(s.Desk, pair[:]); len(ways) != want {
			t.Errorf("%v: %+v", pair, ways)
		}
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
	want(t, s, scope.Moment{Rest: true, Scene: 1}, "moves.mirror", `{"moves":["dp"]}`)
	if d := thread(t, s, 1, "td").Moves[0].Params.Number("direction"); d != 180 {
		t.Errorf("a wipe: %v", d)
	}
	refused(t, s, "either way", "moves.mirror", `{"moves":["af"]}`)
	want(t, s, rest, "moves.turn", `{"moves":["dp"]}`)
	if k := thread(t, s, 1, "td").Moves[0].Kind; k != doc.Exit {
		t.Errorf("an entrance turned: %s", k)
	}
	refused(t, s, "Only an entrance", "moves.turn", `{"moves":["ap"]}`)
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
			at := s.Shown.Timing(0)
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
func BenchmarkDragInACrowd(b *testing.B) { dragged(b, open(b, crowd(300)), "mt150") }

// Dragging the view's frame over 300 layers that slide off the page.
func BenchmarkDragTheView(b *testing.B) {
	p := crowd(300)
	s := &p.Film.Scenes[0].Layers
	for i, l := range *s {
		l.Moves = append(l.Moves, &doc.Move{ID: fmt.Sprint("slide", i), Kind: doc.Entrance, Effect: "slide", Duration: 600, Start: doc.Start{When: doc.AtTime}})
	}
	*s = append(*s, &doc.Layer{ID: "view", Thread: "view", Kind: doc.ViewKind, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 960, Y: 540, W: 1600, H: 900}})
	dragged(b, open(b, p), "view")
}

func dragged(b *testing.B, s *session.Session, thread string) {
	if err := s.Begin("move", rest, []string{thread}, "", "", geom.Point{}); err != nil {
		b.Fatal(err)
	}
	b.ReportAllocs()
	for i := 0; b.Loop(); i++ {
		if _, err := s.Update(geom.Point{X: float64(i % 300)}, gesture.Modifiers{}); err != nil {
			b.Fatal(err)
		}
	}
}

// A move that is given a time of the film starts there, to a hundredth of a second, and within its scene's stay whatever is asked.
func TestAMoveIsAddedWhereItIsAskedFor(t *testing.T) {
	s := open(t, series())
	second := scope.Moment{Rest: true, Scene: 1}
	begin, stay := s.Shown.Order.Begin(1), s.Shown.Timing(1).Stay
	for _, c := range []struct{ at, offset int64 }{{begin + 234, 230}, {begin, 0}, {begin - 50, 0}, {begin + stay, stay - doc.MinDuration}, {1 << 60, stay - doc.MinDuration}, {-1 << 60, 0}} {
		want(t, s, second, "move.add", fmt.Sprintf(`{"threads":["a"],"kind":"exit","effect":"fade","at":%d}`, c.at))
		moves := in(s, 1).Moves
		if m := moves[len(moves)-1]; m.Start.When != doc.AtTime || m.Start.Offset != c.offset/10*10 {
			t.Errorf("at %d of the film, %d of its scene: it starts %s %d, want %d", c.at, c.at-begin, m.Start.When, m.Start.Offset, c.offset)
		}
	}
}
