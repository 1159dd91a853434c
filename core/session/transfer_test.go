package session_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/intent/arrange"
	"capstan/core/intent/moves"
	"capstan/core/scope"
)

// Pasted into a scene that lacks it, a layer keeps its thread, unless it is pasted as new; pasted in place it does not move aside.
func TestPastingInPlaceAndAsNew(t *testing.T) {
	third := scope.Moment{Rest: true, Scene: 2}
	for _, c := range []struct {
		where  scope.Moment
		args   string
		thread bool
		x      float64
	}{
		{third, ``, true, 40}, {third, `,"new":true`, false, 40}, {rest, ``, false, 45}, {rest, `,"place":true`, false, 40},
	} {
		s := open(t, series())
		raw, err := doc.Encode(arrange.Copy(s.Desk, rest, []string{"a"}))
		if err != nil {
			t.Fatal(err)
		}
		want(t, s, c.where, "paste", string(raw[:len(raw)-1])+c.args+"}")
		list := s.Document().Film.Scenes[c.where.Scene].Layers
		l := list[len(list)-1]
		if (l.Thread == "a") != c.thread || l.Place.X != c.x {
			t.Errorf("scene %d%s: thread %s at %v", c.where.Scene+1, c.args, l.Thread, l.Place.X)
		}
	}
}

// The rule of docs/motion.md, section 6, as a table: a pasted tree keeps all its threads in a scene where none of them lives, else all are new;
// within the scene, from another project and as new, all are new.
func TestThreadsOfWhatIsPasted(t *testing.T) {
	for _, c := range []struct {
		what      string
		into      int
		args      string
		from      string // another project
		kept, new int    // threads of the two layers that were copied
	}{
		{"into a scene without them", 2, ``, "", 2, 0},
		{"into an earlier one", 1, ``, "", 2, 0},
		{"where one of them lives", 3, ``, "", 0, 2},
		{"within their scene", 0, ``, "", 0, 2},
		{"as new", 2, `,"new":true`, "", 0, 2},
		{"still", 2, `,"still":true`, "", 2, 0},
		{"from another project", 2, ``, "other", 0, 2},
	} {
		p := series()
		g := &doc.Layer{ID: "g", Thread: "g", Name: "Pair", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Children: []*doc.Layer{shapeOf("k", doc.Ellipse, 5, 5, 10, 10)}}
		p.Film.Scenes[0].Layers = append(p.Film.Scenes[0].Layers, g)
		k := shapeOf("k", doc.Ellipse, 60, 60, 10, 10)
		k.ID = "k3"
		p.Film.Scenes[3].Layers = append(p.Film.Scenes[3].Layers, k)
		s := open(t, p)
		copied := arrange.Copy(s.Desk, rest, []string{"g"})
		if c.from != "" {
			copied.From = c.from
		}
		raw, err := doc.Encode(copied)
		if err != nil {
			t.Fatal(err)
		}
		m := scope.Moment{Rest: true, Scene: c.into}
		want(t, s, m, "paste", string(raw[:len(raw)-1])+c.args+"}")
		list := s.Document().Film.Scenes[c.into].Layers
		kept, fresh := 0, 0
		doc.Walk(list[len(list)-1:], func(l, _ *doc.Layer) bool {
			if l.Thread == "g" || l.Thread == "k" {
				kept++
			} else {
				fresh++
			}
			return true
		})
		if kept != c.kept || fresh != c.new {
			t.Errorf("%s: %d threads kept and %d new, want %d and %d", c.what, kept, fresh, c.kept, c.new)
		}
	}
}

// Between projects the pictures and fonts that layers use come along, and no others.
func TestMediaComeAlongBetweenProjects(t *testing.T) {
	shown, other, face := strings.Repeat("a", 64), strings.Repeat("b", 64), strings.Repeat("c", 64)
	p := with(shapeOf("a", doc.Picture, 60, 60, 80, 40), words("w", "Kite", 160, 100, 30))
	p.Film.Scenes[0].Layers[0].Picture, p.Film.Scenes[0].Layers[0].Fill = &doc.PictureUse{Media: shown}, doc.Fill{Kind: doc.NoFill}
	p.Film.Scenes[0].Layers[1].Text.Runs[0].Family = "Fennel"
	p.Media = map[string]*doc.Media{
		shown: {Name: "quay.png", Type: "image/png", Width: 80, Height: 40}, other: {Name: "unused.png", Type: "image/png", Width: 8, Height: 4},
		face: {Name: "fennel.ttf", Type: "font/ttf", Family: "Fennel", Weight: 400},
	}
	from := open(t, p)
	raw, err := doc.Encode(arrange.Copy(from.Desk, rest, []string{"a", "w"}))
	if err != nil {
		t.Fatal(err)
	}
	to := doc.NewProject("elsewhere", "Elsewhere", 400, 300, "s1")
	s := open(t, to)
	want(t, s, rest, "paste", string(raw))
	media := s.Document().Media
	if len(media) != 2 || media[shown] == nil || media[face] == nil || media[shown].Name != "quay.png" {
		t.Errorf("with the layers came %v", media)
	}
	if n := len(s.Document().Film.Scenes[0].Layers); n != 2 {
		t.Errorf("%d layers were pasted", n)
	}
	// Pasted once more, what is there is not added again.
	want(t, s, rest, "paste", string(raw))
	if n := len(s.Document().Media); n != 2 {
		t.Errorf("%d media after the second time", n)
	}
}

func TestPastingKeepsThreadsWhereTheyAreFree(t *testing.T) {
	s := opener(t)
	copied, _ := json.Marshal(arrange.Copy(s.Desk, rest, []string{"t-bunting"}))
	want(t, s, scope.Moment{Rest: true, Scene: 2}, "paste", string(copied))
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

func TestMovesAreCopiedToOtherLayers(t *testing.T) {
	s := strip(t)
	paste := func(m scope.Moment, c moves.CopiedMoves, threads string, step int) {
		t.Helper()
		want(t, s, m, "moves.paste", fmt.Sprintf(`{"sets":%s,"begins":%s,"threads":%s,"step":%d}`, marshal(t, c.Sets), marshal(t, c.Begins), threads, step))
	}
	begins := func(scene int, thread string) (out []int64) {
		l := s.Document().Film.Scenes[scene].Thread(thread)
		for _, m := range l.Moves {
			out = append(out, s.Shown.Timing(scene).Moves[m.ID].Begin)
		}
		return
	}
	want(t, s, rest, "moves.clear", `{"threads":["tb","tc"]}`)
	// Staggered: each further layer a step later; the hitch inside the set hangs on the copy.
	c := moves.CopyMoves(s.Desk, rest, []string{"ta"}, nil)
	if len(c.Sets) != 1 || len(c.Sets[0]) != 2 || c.Begins["af"] != 500 {
		t.Fatalf("%+v", c)
	}
	paste(rest, c, `["tb","tc"]`, 250)
	if b, c := fmt.Sprint(begins(0, "tb")), fmt.Sprint(begins(0, "tc")); b != "[0 500]" || c != "[250 750]" {
		t.Errorf("staggered: %s and %s", b, c)
	}
	// Into another scene, without what a fade alone hangs on: its resolved time.
	fade := moves.CopyMoves(s.Desk, rest, nil, []string{"af"})
	paste(scope.Moment{Rest: true, Scene: 1}, fade, `["td"]`, 0)
	if got := fmt.Sprint(begins(1, "td")); got != "[0 500]" {
		t.Errorf("in another scene: %s", got)
	}
	// Those of several layers go to as many, one by one.
	both := moves.CopyMoves(s.Desk, rest, []string{"ta", "tc"}, nil)
	want(t, s, rest, "moves.clear", `{"threads":["ta","tc"]}`)
	paste(rest, both, `["ta","tc"]`, 0)
	if a, c := fmt.Sprint(begins(0, "ta")), fmt.Sprint(begins(0, "tc")); a != "[0 500]" || c != "[250 750]" {
		t.Errorf("pairwise: %s and %s", a, c)
	}
	if _, err := s.Intent("moves.paste", rest, []byte(`{"sets":[],"begins":{},"threads":["ta"],"step":0}`)); err == nil {
		t.Error("nothing was pasted")
	}
}
