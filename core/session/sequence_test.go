package session_test

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/intent/moves"
	"capstan/core/scope"
	"capstan/core/session"
)

// grid is four tiles in two columns and two rows, stacked b, d, a, c from the back, each with an entrance at 0 and an exit before the scene's end.
func grid(t *testing.T) *session.Session {
	t.Helper()
	var list []*doc.Layer
	for _, id := range []string{"b", "d", "a", "c"} {
		k := float64(strings.Index("abcd", id))
		l := shapeOf(id, doc.Rectangle, 60+120*math.Mod(k, 2), 60+100*math.Floor(k/2), 40, 30)
		l.Moves = []*doc.Move{
			{ID: id + "i", Kind: doc.Entrance, Effect: effect.Fade, Duration: 400, Start: doc.Start{When: doc.AtTime}},
			{ID: id + "o", Kind: doc.Exit, Effect: effect.Fade, Duration: 300, Start: doc.Start{When: doc.BeforeSceneEnd, Offset: 300}},
		}
		list = append(list, l)
	}
	p := with(list...)
	p.Film.Scenes[0].Stay = 4000
	return open(t, p)
}

// begins are the times at which a, b, c and d come, or go.
func begins(s *session.Session, which string) (out [4]int64) {
	for i, id := range []string{"a", "b", "c", "d"} {
		out[i] = s.Shown.Timing(0).Moves[id+which].Begin
	}
	return
}

func TestCascadesGoInTheOrderAskedFor(t *testing.T) {
	const in = `"moves":["ci","ai","di","bi"]`
	for order, want4 := range map[string][4]int64{
		`"order":"front",`:                {100, 300, 0, 200},
		`"order":"back",`:                 {200, 0, 300, 100},
		`"order":"left",`:                 {100, 300, 0, 200},
		`"order":"top",`:                  {100, 200, 0, 300},
		`"order":"selected",`:             {100, 300, 0, 200},
		`"order":"columns",`:              {0, 100, 0, 100},
		`"order":"rows",`:                 {0, 0, 100, 100},
		`"order":"outwards",`:             {0, 0, 0, 0},
		`"order":"point","from":[60,60],`: {0, 200, 100, 300},
		`"order":"right",`:                {200, 0, 300, 100},
	} {
		s := grid(t)
		want(t, s, rest, "time", `{"tool":"cascade","step":100,`+order+in+`}`)
		got := begins(s, "i")
		if order == `"order":"left",` || order == `"order":"right",` || order == `"order":"top",` {
			// Those that lie as far keep the order they had; only the two groups are told apart.
			left := []bool{got[0] < 200, got[1] < 200, got[2] < 200, got[3] < 200}
			if want := map[string][]bool{`"order":"left",`: {true, false, true, false}, `"order":"right",`: {false, true, false, true}, `"order":"top",`: {true, true, false, false}}[order]; !slices.Equal(left, want) {
				t.Errorf("%s: %v", order, got)
			}
			continue
		}
		if got != want4 {
			t.Errorf("%s: a, b, c, d begin at %v, want %v", order, got, want4)
		}
	}
	// At random is the same for the same seed, and each has its own place.
	s := grid(t)
	want(t, s, rest, "time", `{"tool":"cascade","step":100,"order":"shuffled","seed":5,`+in+`}`)
	got := begins(s, "i")
	sorted := got
	slices.Sort(sorted[:])
	if sorted != [4]int64{0, 100, 200, 300} {
		t.Errorf("at random: %v", got)
	}
	refused(t, s, "no order", "time", `{"tool":"cascade","order":"sideways",`+in+`}`)
}

// Exits that hang on the scene's end go before it: the last one ends with the scene, also when the scene becomes longer.
func TestExitsGoBeforeTheScenesEnd(t *testing.T) {
	const out = `"moves":["ao","bo","co","do"]`
	for _, c := range []struct{ args, want string }{
		{`{"tool":"cascade","step":200,"order":"selected",` + out + `}`, "[3100 3300 3500 3700]"},
		{`{"tool":"one-after-another","order":"selected",` + out + `}`, "[2800 3100 3400 3700]"},
	} {
		s := grid(t)
		want(t, s, rest, "time", c.args)
		if got := fmt.Sprint(begins(s, "o")); got != c.want {
			t.Errorf("%s: %s, want %s", c.args, got, c.want)
		}
		want(t, s, rest, "scene.stay", `{"ids":["s"],"stay":5000}`)
		if at := s.Shown.Timing(0).Moves["do"].End; at != 5000 {
			t.Errorf("%s: in a scene of 5 s the last ends at %d", c.args, at)
		}
	}
	refused(t, grid(t), "the scene stays", "time", `{"tool":"cascade","step":2000,`+out+`}`)
	// Reversed together with entrances, each kind is reversed by itself, and the film is as long as it was.
	s := grid(t)
	want(t, s, rest, "time", `{"tool":"cascade","step":100,"order":"selected","moves":["ai","bi","ci","di"]}`)
	want(t, s, rest, "time", `{"tool":"cascade","step":100,"order":"selected",`+out+`}`)
	want(t, s, rest, "time", `{"tool":"reverse","moves":["ai","bi","ci","di","ao","bo","co","do"]}`)
	if i, o := begins(s, "i"), begins(s, "o"); i != [4]int64{300, 200, 100, 0} || o != [4]int64{3700, 3600, 3500, 3400} || s.Shown.Order.Length != 4000 {
		t.Errorf("reversed: they come at %v and go at %v, the film lasts %d", i, o, s.Shown.Order.Length)
	}
	refused(t, grid(t), "all begin together", "time", `{"tool":"spread","moves":["ai","bi","ci"]}`)
}

// What a move may hang on: possible ones first, nearest first; those that would close a ring say why, and none that is offered is refused.
func TestOfferedTargetsAreNeverRefused(t *testing.T) {
	s := strip(t)
	for _, id := range []string{"ap", "af", "bp", "bf", "cp", "cf"} {
		for _, part := range []string{"start", "end"} {
			for _, when := range []string{doc.WhenBegins, doc.WhenEnds} {
				possible := true
				for _, v := range moves.Targets(s.Desk, id, part, when) {
					args := fmt.Sprintf(`{"move":%q,"when":%q,"of":%q}`, id, when, v.Move)
					c, err := s.Intent("move."+part, rest, []byte(args))
					u := strip(t)
					if err == nil {
						_, err = u.Apply(c)
					}
					if (err == nil) != (v.Why == "") {
						t.Errorf("%s of %s %s %s: offered with %q, and %v", part, id, when, v.Move, v.Why, err)
					}
					if v.Why == "" && !possible {
						t.Errorf("%s of %s %s: %s comes behind what is not possible", part, id, when, v.Move)
					}
					possible = v.Why == ""
				}
			}
		}
	}
	// Nearest first: af begins at 500, as bp does.
	if v := moves.Targets(s.Desk, "cf", "start", doc.WhenEnds); len(v) != 5 || v[0].Move != "bp" && v[0].Move != "bf" || v[0].Name != "Path of Flag b" && v[0].Name != "Fade, out of Flag b" {
		t.Errorf("%+v", v)
	}
	// A move that hangs its begin elsewhere keeps its live end: its length follows.
	want(t, s, rest, "move.start", `{"move":"bf","when":"begins","of":"bp"}`)
	if got := times(s, "bp", "bf"); got != "500-1500 500-1500" {
		t.Errorf("hung at both ends: %s", got)
	}
	want(t, s, rest, "bars", `{"moves":["bp"],"part":"end","by":500}`)
	if got := times(s, "bf"); got != "500-2000" {
		t.Errorf("its live end was lost: %s", got)
	}
}

// Several moves: what they share, one change to all that have such a field, and sums and factors from what each is.
func TestSeveralMovesChangeAsOne(t *testing.T) {
	s := strip(t)
	want(t, s, rest, "move.add", `{"threads":["ta"],"kind":"loop","effect":"rock"}`)
	rock := thread(t, s, 0, "ta").Moves[2].ID
	all := fmt.Sprintf(`["ap","bp","cf",%q]`, rock)
	v := s.SharedView([]string{"ap", "bp", "cf", rock})
	if !slices.Contains(v.Mixed, "duration") || !slices.Contains(v.Mixed, "effect") || len(v.Kinds) != 3 {
		t.Errorf("%+v", v)
	}
	if v := s.SharedView([]string{"ap", "bp"}); slices.Contains(v.Mixed, "duration") || !slices.Contains(v.Mixed, "start.offset") || !strings.Contains(string(v.Move), `"duration":1000`) {
		t.Errorf("two paths: %+v %s", v.Mixed, v.Move)
	}
	want(t, s, rest, "moves.set", `{"moves":`+all+`,"patch":{"duration":800,"easing":"linear","params":{"angle":-9}}}`)
	want(t, s, rest, "moves.change", `{"moves":`+all+`,"field":"duration","how":"*","by":1.5}`)
	want(t, s, rest, "moves.change", `{"moves":`+all+`,"field":"duration","how":"+","by":-200}`)
	want(t, s, rest, "moves.change", `{"moves":`+all+`,"field":"params.angle","how":"*","by":2}`)
	for _, id := range []string{"ap", "bp", "cf", rock} {
		m, _ := s.Document().Film.Scenes[0].Move(id)
		if m.Duration != 1000 || m.Easing != "linear" || (m.Params != nil) != (id == rock) || m.Params != nil && m.Params.Number("angle") != -18 {
			t.Errorf("%s: %d ms, %q, %+v", id, m.Duration, m.Easing, m.Params)
		}
	}
	refused(t, s, "beyond what it can be", "moves.change", `{"moves":["ap","bp"],"field":"duration","how":"+","by":-995}`)
	refused(t, s, "such a number", "moves.change", `{"moves":["ap","bp"],"field":"scroll.speed","how":"+","by":5}`)
	refused(t, s, "or later", "moves.change", `{"moves":["ap","bp"],"field":"start.offset","how":"+","by":-100}`)
	// There and back once is two passes, and one again.
	for _, c := range []struct {
		patch string
		want  float64
	}{{`{"alternate":true}`, 2}, {`{"alternate":null}`, 0}, {`{"alternate":true,"repeat":5}`, 5}, {`{"alternate":null}`, 5}} {
		want(t, s, rest, "move.set", `{"move":"cp","patch":`+c.patch+`}`)
		if m, _ := s.Document().Film.Scenes[0].Move("cp"); m.Repeat != c.want {
			t.Errorf("%s: %v passes, want %v", c.patch, m.Repeat, c.want)
		}
	}
}

// Scrolls come round whole times in a scene, or in the film; wide layers scroll slowly at first; a mirrored rock begins to its other side.
func TestScrollsAndRocks(t *testing.T) {
	wide, small := shapeOf("w", doc.Rectangle, 160, 40, 300, 20), shapeOf("n", doc.Rectangle, 160, 90, 50, 20)
	s := open(t, with(wide, small))
	want(t, s, rest, "move.add", `{"threads":["w","n"],"kind":"loop","effect":"scroll"}`)
	w, n := thread(t, s, 0, "w").Moves[0], thread(t, s, 0, "n").Moves[0]
	if w.Full().Number("speed") != 40 || n.Full().Number("speed") != 120 {
		t.Errorf("speeds %v and %v, want 40 for the wide one and 120", w.Full().Number("speed"), n.Full().Number("speed"))
	}
	want(t, s, rest, "scroll.rounds", fmt.Sprintf(`{"moves":[%q,%q],"rounds":4}`, w.ID, n.ID))
	stay := s.Shown.Timing(0).Stay
	for id, side := range map[string]float64{"w": 300, "n": 50} {
		if m := thread(t, s, 0, id).Moves[0]; math.Abs(m.Params.Number("speed")-side*4*1000/float64(stay)) > 1e-3 {
			t.Errorf("%s: %v px/s for four rounds of %v px in %d ms", id, m.Params.Number("speed"), side, stay)
		}
	}
	refused(t, s, "slower than", "scroll.rounds", fmt.Sprintf(`{"moves":[%q],"rounds":0.000001}`, n.ID))
	// A copy in the next scene gets the numbers of the one before, where it has the same move.
	want(t, s, rest, "scene.continue", `{}`)
	want(t, s, rest, "move.set", fmt.Sprintf(`{"move":%q,"patch":{"params":{"speed":77,"gap":-10}}}`, n.ID))
	want(t, s, rest, "carry.all", `{"threads":["n"],"next":true}`)
	if m := thread(t, s, 1, "n").Moves[0]; m.Params.Number("speed") != 77 || m.Params.Number("gap") != -10 || m.Continues == "" {
		t.Errorf("carried on: %+v, goes on from %q", m.Params, m.Continues)
	}
	want(t, s, rest, "move.add", `{"threads":["n"],"kind":"loop","effect":"rock"}`)
	rock := thread(t, s, 0, "n").Moves[1].ID
	want(t, s, rest, "moves.mirror", fmt.Sprintf(`{"moves":[%q]}`, rock))
	if a := thread(t, s, 0, "n").Moves[1].Params.Number("angle"); a != -4 {
		t.Errorf("the other way: %v", a)
	}
}

// A layer is cut off the scene before; a copied scene leaves its cues behind and gets a name of its own; copies are numbered.
func TestThreadsAreCutAndCopiesAreNumbered(t *testing.T) {
	s := open(t, series())
	second := scope.Moment{Rest: true, Scene: 1}
	refused(t, s, "goes on from the scene before", "thread.cut", `{"threads":["a"]}`)
	want(t, s, second, "thread.cut", `{"threads":["a"]}`)
	if l := in(s, 0); l == nil || in(s, 1) != nil || in(s, 3) != nil {
		t.Error("the thread goes on behind the cut")
	}
	p := s.Document().Film.Scenes
	if p[1].Layers[0].Thread != p[3].Layers[0].Thread {
		t.Error("behind the cut the layers are no longer one thread")
	}
	s = open(t, series())
	want(t, s, rest, "cue.add", `{"at":500}`)
	want(t, s, rest, "move.add", `{"threads":["a"],"kind":"entrance","effect":"fade"}`)
	move, cue := in(s, 0).Moves[0].ID, s.Document().Film.Scenes[0].Cues[0].ID
	want(t, s, rest, "move.start", fmt.Sprintf(`{"move":%q,"when":"cue","of":%q}`, move, cue))
	want(t, s, rest, "scene.duplicate", `{}`)
	want(t, s, second, "scene.duplicate", `{"new":true}`)
	p = s.Document().Film.Scenes
	if d := p[1]; len(d.Cues) != 0 || d.Name == p[0].Name || d.Layers[0].Thread != "a" || d.Layers[0].Moves[0].Start != (doc.Start{When: doc.AtTime, Offset: 500}) {
		t.Errorf("the copy: cues %v, called %q, %+v", d.Cues, d.Name, d.Layers[0].Moves[0].Start)
	}
	if d := p[2]; d.Layers[0].Thread == "a" || p[3].Layers[0].Thread != "a" || d.Name == p[1].Name {
		t.Errorf("as new: %q is of thread %s, the one behind of %s", d.Name, d.Layers[0].Thread, p[3].Layers[0].Thread)
	}
	s = open(t, with(shapeOf("a", doc.Ellipse, 50, 60, 40, 20)))
	want(t, s, rest, "copies", `{"threads":["a"],"along":"row","n":3}`)
	var called []string
	for _, l := range s.Document().Film.Scenes[0].Layers[0].Children {
		called = append(called, l.Name)
	}
	if got := strings.Join(called, ", "); got != "a 1, a 2, a 3" {
		t.Errorf("copies are called %s", got)
	}
}
