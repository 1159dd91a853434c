package edit_test

import (
	"bytes"
	"encoding/json"
	"math/rand/v2"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/motion"
	"capstan/core/patch"
)

// timings returns when every move begins and ends, by scene.
func timings(t *testing.T, p *doc.Project) map[string]motion.Interval {
	t.Helper()
	out := map[string]motion.Interval{}
	for i, s := range p.Film.Scenes {
		into := int64(0)
		if i > 0 {
			into = s.Transition.Duration
		}
		r, err := motion.Resolve(s, into)
		if err != nil {
			t.Fatalf("the hitches of %s cannot be resolved: %v", s.Name, err)
		}
		for id, iv := range r.Moves {
			out[id] = iv
		}
	}
	return out
}

// Any sequence of timing edits keeps the hitches free of rings; undoing them all gives back the document byte for byte; on the way,
// putting layers in another order changes no time, and removing a move changes that of no other outside its run.
func TestTimingEditsKeepTheGraphWhole(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	for round := 0; round < 25; round++ {
		p := opener()
		first := raw(t, p)
		var undo []patch.Patch
		for i := 0; i < 25; i++ {
			c := some(r, p)
			q, patch, err := carry(p, c)
			if err != nil {
				continue
			}
			before, after := timings(t, p), timings(t, q)
			var op struct {
				Op, Parent string
				IDs        []string
			}
			json.Unmarshal([]byte(c), &op)
			inRun := map[string]bool{}
			for _, s := range p.Film.Scenes {
				for _, run := range s.Runs {
					for _, id := range run.Moves {
						inRun[id] = true
					}
				}
			}
			for id, iv := range after {
				was, ok := before[id]
				switch {
				case !ok:
				case op.Op == "layer.order" && iv != was:
					t.Fatalf("%s: %s was %+v and is %+v", c, id, was, iv)
				case op.Op == "move.delete" && !inRun[op.IDs[0]] && (iv.Begin != was.Begin || iv.End != was.End):
					t.Fatalf("%s: %s was %+v and is %+v", c, id, was, iv)
				}
			}
			undo = append(undo, patch)
			p = q
		}
		for i := len(undo) - 1; i >= 0; i-- {
			var err error
			if p, err = undo[i].Inverse().Apply(p); err != nil {
				t.Fatal(err)
			}
		}
		if !bytes.Equal(raw(t, p), first) {
			t.Fatal("undoing everything does not give the document back")
		}
	}
}

func titles(n int) *doc.Project {
	p := doc.NewProject("p", "P", 1920, 1080, "s")
	s := p.Film.Scenes[0]
	for i := 0; i < n; i++ {
		id := string(rune('a' + i))
		s.Layers = append(s.Layers, &doc.Layer{
			ID: "l" + id, Thread: "t" + id, Name: "Flag " + id, Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{W: 10, H: 10},
			Moves: []*doc.Move{{ID: id, Kind: doc.Entrance, Effect: effect.Fade, Start: doc.Start{When: doc.AtTime, Offset: 100}, Duration: int64(500 + 100*i)}},
		})
	}
	return p
}

// docs/motion.md, section 2: dragging a member of a run past another re-orders it, gaps kept, total unchanged; removing one closes
// its gap. Section 11: with the first moved to the end of the run the total is the same.
func TestRunsKeepTheirGaps(t *testing.T) {
	p := apply(t, titles(4), `{"op":"run.make","scene":"s","id":"r","when":"ends","moves":["a","b","c","d"],"gaps":[50,100,150]}`)
	at := timings(t, p)
	if at["d"].End != 100+500+50+600+100+700+150+800 {
		t.Fatalf("the last ends at %d", at["d"].End)
	}
	p = apply(t, p, `{"op":"run.order","scene":"s","id":"r","moves":["b","c","d","a"]}`)
	now := timings(t, p)
	if now["b"].Begin != 100 || now["a"].End != at["d"].End || now["c"].Begin-now["b"].End != 50 || now["d"].Begin-now["c"].End != 100 || now["a"].Begin-now["d"].End != 150 {
		t.Errorf("%+v", now)
	}
	p = apply(t, p, `{"op":"move.delete","ids":["c"]}`)
	now = timings(t, p)
	if now["d"].Begin != now["b"].End+50 || now["a"].Begin != now["d"].End+150 {
		t.Errorf("the gap is not closed: %+v", now)
	}
	p = apply(t, p, `{"op":"layer.delete","ids":["lb"]}`)
	if now = timings(t, p); now["d"].Begin != 100 || len(p.Film.Scenes[0].Runs[0].Moves) != 2 {
		t.Errorf("the first of the run is gone: %+v, %v", now, p.Film.Scenes[0].Runs)
	}
	// A member that is hung elsewhere leaves the run; a run of one is none.
	p = apply(t, p, `{"op":"move.set","set":[{"id":"a","patch":{"start":{"when":"at","of":null,"offset":0}}}]}`)
	if len(p.Film.Scenes[0].Runs) != 0 {
		t.Errorf("%v", p.Film.Scenes[0].Runs)
	}
	if _, _, err := carry(titles(2), `{"op":"run.make","scene":"s","id":"r","when":"ends","moves":["a","a"],"gaps":[0]}`); err == nil {
		t.Error("a run that holds a move twice was taken")
	}
}

// Section 1: cue k is passed at its time and all waits up to it; what hangs on it keeps its time when it goes.
func TestCuesCarryWaits(t *testing.T) {
	p := apply(t, titles(2), `{"op":"cue.add","scene":"s","id":"q2","name":"Fly","at":3000,"wait":500}`)
	p = apply(t, p, `{"op":"cue.add","scene":"s","id":"q1","name":"Lift","at":1000,"wait":2000}`)
	p = apply(t, p, `{"op":"move.set","set":[{"id":"a","patch":{"start":{"when":"cue","of":"q1","offset":0}}},{"id":"b","patch":{"start":{"when":"cue","of":"q2","offset":-200}}}]}`)
	if at := timings(t, p); at["a"].Begin != 3000 || at["b"].Begin != 5300 {
		t.Errorf("%+v", at)
	}
	stay := func(p *doc.Project) int64 { r, _ := motion.Resolve(p.Film.Scenes[0], 0); return r.Stay }
	if got := stay(p); got != 6500 {
		t.Errorf("the stay grows by all waits: %d", got)
	}
	p = apply(t, p, `{"op":"scene.set","ids":["s"],"patch":{"endsAtCue":"q2"}}`)
	if got := stay(p); got != 5500 {
		t.Errorf("a scene that ends at a cue stays %d", got)
	}
	p = apply(t, p, `{"op":"cue.delete","scene":"s","id":"q2"}`)
	if at := timings(t, p); at["b"].Begin != 5300 || stay(p) != 5500 || p.Film.Scenes[0].EndsAtCue != "" {
		t.Errorf("%+v, stay %d", at, stay(p))
	}
	for _, c := range []string{`{"op":"cue.add","scene":"s","id":"q3","name":"When?"}`, `{"op":"cue.set","scene":"s","id":"gone","patch":{"at":5}}`, `{"op":"cue.add","scene":"s","id":"q4","name":"","at":-5}`} {
		if _, _, err := carry(p, c); err == nil {
			t.Errorf("%s was taken", c)
		}
	}
}

// Hitches in a copy hang on the copies; those that point outside stay where their target is in that scene, else become times.
func TestCopiesAreHungAnew(t *testing.T) {
	p := titles(2)
	p = apply(t, p, `{"op":"move.set","set":[{"id":"b","patch":{"start":{"when":"ends","of":"a","offset":40}}}]}`)
	p = apply(t, p, `{"op":"scene.duplicate","from":"s","id":"n","seed":"x","name":"n"}`)
	c := p.Film.Scenes[1]
	if b := c.Layers[1].Moves[0]; b.Start.Of != c.Layers[0].Moves[0].ID || b.Start.Offset != 40 {
		t.Errorf("in a copied scene: %+v", b.Start)
	}
	layer, _ := json.Marshal(p.Film.Scenes[0].Layers[1])
	q := apply(t, p, `{"op":"scene.add","id":"e","index":2,"name":"e"}`)
	q = apply(t, q, `{"op":"layer.paste","scene":"e","layers":[%s],"seed":"y","dx":0,"dy":0,"begins":{"b":640}}`, layer)
	if b := q.Film.Scenes[2].Layers[0].Moves[0]; b.Start != (doc.Start{When: doc.AtTime, Offset: 640}) {
		t.Errorf("without its target: %+v", b.Start)
	}
	q = apply(t, p, `{"op":"layer.duplicate","ids":["lb"],"seed":"z","dx":0,"dy":0}`)
	if b := q.Film.Scenes[0].Layers[2].Moves[0]; b.Start.Of != "a" {
		t.Errorf("with its target in the scene: %+v", b.Start)
	}
}
