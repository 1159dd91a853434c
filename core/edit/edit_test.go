package edit_test

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/patch"
	"capstan/core/words"
	"capstan/demo"
	"capstan/library"
)

const sky = "bbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbb"

var assets = func() frame.Assets {
	b, err := library.Book()
	if err != nil {
		panic(err)
	}
	return frame.Assets{Fonts: b}
}()

func opener() *doc.Project {
	return demo.Opener(sky, &doc.Media{Name: "sky.jpg", Type: "image/jpeg", Width: 1920, Height: 1080})
}

func raw(t testing.TB, p *doc.Project) []byte {
	t.Helper()
	b, err := p.Write()
	if err != nil {
		t.Fatal(err)
	}
	return b
}

// carry carries out a command as it comes over the wire.
func carry(p *doc.Project, raw string) (*doc.Project, patch.Patch, error) {
	c, err := edit.Read([]byte(raw))
	if err != nil {
		return nil, nil, err
	}
	return edit.Apply(p, c, assets)
}

func apply(t *testing.T, p *doc.Project, format string, args ...any) *doc.Project {
	t.Helper()
	q, _, err := carry(p, fmt.Sprintf(format, args...))
	if err != nil {
		t.Fatalf("%s: %v", fmt.Sprintf(format, args...), err)
	}
	return q
}

// making returns commands that make other scenes of scenes.
func making(r *rand.Rand, p *doc.Project) string {
	s, other := p.Film.Scenes[r.IntN(len(p.Film.Scenes))], p.Film.Scenes[r.IntN(len(p.Film.Scenes))]
	id, thread, into := fmt.Sprintf("r%d", r.Uint64()), "t", s.ID
	if len(s.Layers) > 0 {
		thread = s.Layers[r.IntN(len(s.Layers))].Thread
	}
	for _, o := range p.Film.Shown() {
		if o.Transition.Kind == doc.Morph {
			into = o.ID
		}
	}
	return []string{
		fmt.Sprintf(`{"op":"scene.cut","scene":%q,"at":%d,"id":"f%s","seed":%q,"name":"f"}`, s.ID, r.IntN(4000), id, id),
		fmt.Sprintf(`{"op":"morph.split","scene":%q,"at":%d,"id":"b%s","seed":%q,"name":"b"}`, into, r.IntN(700), id, id),
		fmt.Sprintf(`{"op":"scene.unfold","scene":%q,"seed":%q}`, s.ID, id),
		fmt.Sprintf(`{"op":"scene.fold","ids":[%q,%q],"seed":%q}`, s.ID, other.ID, id),
		fmt.Sprintf(`{"op":"scene.copy","from":%q,"id":"t%s","seed":%q,"name":"t","index":%d,"template":%v}`, s.ID, id, id, r.IntN(4), r.IntN(2) == 0),
		fmt.Sprintf(`{"op":"shift.keep","id":"h%s","thread":%q,"scenes":[%q,%q],"step":{"x":%d,"size":1.1,"hue":20}}`, id, thread, s.ID, other.ID, r.IntN(90)),
		fmt.Sprintf(`{"op":"scene.paste","scenes":[%s],"ids":["p%s"],"seed":%q,"index":%d,"new":%v}`, encoded(s), id, id, r.IntN(4), r.IntN(2) == 0),
	}[r.IntN(7)]
}

func encoded(v any) []byte {
	raw, err := doc.Encode(v)
	if err != nil {
		panic(err)
	}
	return raw
}

// some returns commands that make sense for the document as it is, chosen at random.
func some(r *rand.Rand, p *doc.Project) string {
	s := p.Film.Scenes[r.IntN(len(p.Film.Scenes))]
	var layers []*doc.Layer
	var moves []*doc.Move
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool { layers = append(layers, l); moves = append(moves, l.Moves...); return true })
	id := fmt.Sprintf("r%d", r.Uint64())
	if len(layers) == 0 {
		return fmt.Sprintf(`{"op":"layer.add","scene":%q,"layers":[{"id":"%s","thread":"%s","name":"n","kind":"rectangle","opacity":1,"fill":{"kind":"colour","colour":"#123456"},"place":{"x":1,"y":2,"w":3,"h":4}}]}`, s.ID, id, id)
	}
	l := layers[r.IntN(len(layers))]
	k := layers[r.IntN(len(layers))]
	other := p.Film.Scenes[r.IntN(len(p.Film.Scenes))]
	before := l.Thread // of a layer in the scene before, where there is one
	if i, _ := p.Scene(s.ID); i > 0 && len(p.Film.Scenes[i-1].Layers) > 0 {
		before = p.Film.Scenes[i-1].Layers[r.IntN(len(p.Film.Scenes[i-1].Layers))].Thread
	}
	list := []string{
		fmt.Sprintf(`{"op":"layer.set","set":[{"id":%q,"patch":{"place":{"x":%v,"turn":%v},"opacity":%v,"name":"n%d"}}]}`, l.ID, r.NormFloat64()*500, r.Float64()*720, r.Float64(), r.IntN(9)),
		fmt.Sprintf(`{"op":"layer.set","set":[{"id":%q,"patch":{"hidden":true,"fill":{"kind":"colour","colour":"#0a0b0c"}}}]}`, l.ID),
		fmt.Sprintf(`{"op":"layer.delete","ids":[%q]}`, l.ID),
		fmt.Sprintf(`{"op":"layer.duplicate","ids":[%q],"seed":%q,"dx":10,"dy":20}`, l.ID, id),
		fmt.Sprintf(`{"op":"layer.group","ids":[%q,%q],"id":"%s","thread":"%s","name":"g","x":%v,"y":3}`, l.ID, k.ID, id, id, r.Float64()*100),
		fmt.Sprintf(`{"op":"layer.ungroup","ids":[%q]}`, l.ID),
		fmt.Sprintf(`{"op":"layer.group","ids":[%q,%q],"id":"w%s","thread":"w%s","name":"w","x":1,"y":3,"mask":%q}`, l.ID, k.ID, id, id, []string{"inside", "outside"}[r.IntN(2)]),
		fmt.Sprintf(`{"op":"layer.set","set":[{"id":%q,"patch":{"mask":"outside"}}]}`, l.ID),
		fmt.Sprintf(`{"op":"scene.add","id":"x%s","index":%d,"name":"aside","aside":true}`, id, r.IntN(4)),
		fmt.Sprintf(`{"op":"layer.scale","id":%q,"kx":%v,"ky":%v,"x":5,"y":6,"grows":["strokes"]}`, l.ID, r.Float64()+0.5, r.Float64()+0.5),
		fmt.Sprintf(`{"op":"layer.order","ids":[%q],"parent":"","index":%d}`, l.ID, r.IntN(5)),
		fmt.Sprintf(`{"op":"layer.order","ids":[%q],"parent":%q,"index":0}`, l.ID, k.ID),
		fmt.Sprintf(`{"op":"layer.scale","id":%q,"kx":%v,"ky":%v,"x":5,"y":6}`, l.ID, r.Float64()+0.5, r.Float64()+0.5),
		fmt.Sprintf(`{"op":"move.add","layer":%q,"move":{"id":%q,"kind":"entrance","effect":"fade","start":{"when":"at","offset":%d},"duration":500}}`, l.ID, id, r.IntN(900)),
		fmt.Sprintf(`{"op":"scene.continue","from":%q,"id":"c%s","seed":%q,"name":"c"}`, s.ID, id, id),
		fmt.Sprintf(`{"op":"scene.duplicate","from":%q,"id":"d%s","seed":%q,"name":"d"}`, s.ID, id, id),
		fmt.Sprintf(`{"op":"scene.delete","ids":[%q]}`, s.ID),
		fmt.Sprintf(`{"op":"scene.order","ids":[%q],"index":%d}`, s.ID, r.IntN(4)),
		fmt.Sprintf(`{"op":"scene.set","ids":[%q,%q],"patch":{"stay":%d,"name":"s"}}`, s.ID, other.ID, 500+r.IntN(4000)),
		fmt.Sprintf(`{"op":"scene.add","id":"a%s","index":%d,"name":"blank"}`, id, r.IntN(4)),
		fmt.Sprintf(`{"op":"film.set","patch":{"rate":{"num":%d,"den":1},"loop":true}}`, 24+r.IntN(30)),
		fmt.Sprintf(`{"op":"project.rename","name":"p%d"}`, r.IntN(100)),
		fmt.Sprintf(`{"op":"project.set","patch":{"palette":["#%06x"],"roleSets":[{"id":"o%s","name":"o","roles":{"ground":"#%06x"}}]}}`, r.IntN(1<<24), id, r.IntN(1<<24)),
		fmt.Sprintf(`{"op":"layer.copies","ids":[%q],"seed":%q,"about":[0,%d],"at":[[0,0,90],[%d,3,0]],"id":"k%s","thread":"k%s","name":"k","x":1,"y":2}`, l.ID, id, r.IntN(100), r.IntN(100), id, id),
		fmt.Sprintf(`{"op":"thread.cut","scene":%q,"ids":[%q],"seed":%q,"alone":%v}`, s.ID, l.ID, id, r.IntN(2) == 0),
		fmt.Sprintf(`{"op":"thread.join","scene":%q,"pairs":[{"from":%q,"to":%q}]}`, s.ID, before, k.Thread),
		fmt.Sprintf(`{"op":"layer.set","set":[{"id":%q,"patch":{"glow":{"blur":%d,"colour":"#ffffff"},"fill":{"kind":"colour","colour":"#102030","role":"ground","tone":%d}}}]}`, l.ID, r.IntN(9), r.IntN(11)-5),
		fmt.Sprintf(`{"op":"scene.set","ids":[%q],"patch":{"roles":{"ground":"#%06x"}}}`, s.ID, r.IntN(1<<24)),
	}
	if len(moves) > 0 {
		m, o := moves[r.IntN(len(moves))], moves[r.IntN(len(moves))]
		list = append(list,
			fmt.Sprintf(`{"op":"move.delete","ids":[%q]}`, m.ID),
			fmt.Sprintf(`{"op":"move.set","set":[{"id":%q,"patch":{"start":{"when":"begins","of":%q,"offset":%d}}}]}`, m.ID, o.ID, r.IntN(500)),
			fmt.Sprintf(`{"op":"move.set","set":[{"id":%q,"patch":{"start":{"when":"ends","of":%q,"offset":%d}}}]}`, m.ID, o.ID, r.IntN(500)-250),
			fmt.Sprintf(`{"op":"move.set","set":[{"id":%q,"patch":{"end":{"when":"ends","of":%q,"stretches":%v}}}]}`, m.ID, o.ID, r.IntN(2) == 0),
			fmt.Sprintf(`{"op":"move.set","set":[{"id":%q,"patch":{"start":{"when":"scene-end","of":null,"offset":%d},"until":%q}}]}`, m.ID, r.IntN(500), o.ID),
			fmt.Sprintf(`{"op":"run.make","scene":%q,"id":"u%s","when":"ends","moves":[%q,%q],"gaps":[%d]}`, s.ID, id, m.ID, o.ID, r.IntN(300)),
			fmt.Sprintf(`{"op":"run.make","scene":%q,"id":"v%s","when":"begins","moves":[%q,%q,%q],"gaps":[%d,0]}`, s.ID, id, m.ID, o.ID, moves[r.IntN(len(moves))].ID, r.IntN(300)),
		)
	}
	for _, run := range s.Runs {
		order := slices.Clone(run.Moves)
		r.Shuffle(len(order), func(i, j int) { order[i], order[j] = order[j], order[i] })
		ids, _ := json.Marshal(order)
		list = append(list, fmt.Sprintf(`{"op":"run.order","scene":%q,"id":%q,"moves":%s}`, s.ID, run.ID, ids), fmt.Sprintf(`{"op":"move.delete","ids":[%q]}`, order[0]))
	}
	list = append(list, fmt.Sprintf(`{"op":"cue.add","scene":%q,"id":"q%s","name":"q","at":%d,"wait":%d}`, s.ID, id, r.IntN(4000), r.IntN(2)*700))
	for _, q := range s.Cues {
		list = append(list,
			fmt.Sprintf(`{"op":"cue.set","scene":%q,"id":%q,"patch":{"at":%d}}`, s.ID, q.ID, r.IntN(4000)),
			fmt.Sprintf(`{"op":"cue.delete","scene":%q,"id":%q}`, s.ID, q.ID),
			fmt.Sprintf(`{"op":"scene.set","ids":[%q],"patch":{"endsAtCue":%q}}`, s.ID, q.ID),
		)
		if len(moves) > 0 {
			list = append(list, fmt.Sprintf(`{"op":"move.set","set":[{"id":%q,"patch":{"start":{"when":"cue","of":%q,"offset":0}}}]}`, moves[r.IntN(len(moves))].ID, q.ID))
		}
	}
	return list[r.IntN(len(list))]
}

// Whatever is edited, the inverse patch gives back the document byte for byte, the command gives the same document on another
// machine, and a refusal changes nothing.
func TestEveryCommandHasItsInverse(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 12))
	done, refused := map[string]int{}, 0
	p := opener()
	var film *frame.Film
	for i := 0; i < 900; i++ {
		if i%30 == 0 {
			p = opener()
		}
		before := raw(t, p)
		c := some(r, p)
		if i%4 == 0 {
			c = making(r, p)
		}
		q, patch, err := carry(p, c)
		if err != nil {
			refused++
			var a *words.Fault
			var b *doc.Invalid
			var ring *motion.Cycle
			if !errors.As(err, &a) && !errors.As(err, &b) && !errors.As(err, &ring) && !strings.Contains(err.Error(), "Nothing was changed") {
				t.Fatalf("%s: refused without words: %v", c, err)
			}
			if !bytes.Equal(before, raw(t, p)) {
				t.Fatalf("%s was refused and changed the document", c)
			}
			continue
		}
		if !bytes.Equal(before, raw(t, p)) {
			t.Fatalf("%s changed the document it was applied to", c)
		}
		var op struct{ Op string }
		json.Unmarshal([]byte(c), &op)
		done[op.Op]++
		after := raw(t, q)
		fresh, err := doc.Read(before)
		if err != nil {
			t.Fatal(err)
		}
		k, err := edit.Read([]byte(c))
		if err != nil {
			t.Fatal(err)
		}
		sent, err := edit.Write(k)
		if err != nil {
			t.Fatal(err)
		}
		other, _, err := carry(fresh, string(sent))
		if err != nil || !bytes.Equal(raw(t, other), after) {
			t.Fatalf("%s gives another document on another machine: %v", c, err)
		}
		back, err := patch.Inverse().Apply(q)
		if err != nil || !bytes.Equal(raw(t, back), before) {
			t.Fatalf("%s: its inverse does not give the document back: %v", c, err)
		}
		again, err := patch.Apply(back)
		if err != nil || !bytes.Equal(raw(t, again), after) {
			t.Fatalf("%s: doing it again after undoing gives something else: %v", c, err)
		}
		if film, err = frame.Compile(q, assets, film); err != nil {
			t.Fatalf("%s leaves a film that cannot be shown: %v", c, err)
		}
		p = q
	}
	for _, op := range []string{"layer.set", "layer.delete", "layer.duplicate", "layer.group", "layer.ungroup", "layer.order", "layer.scale", "move.add", "move.set", "move.delete", "scene.continue", "scene.duplicate", "scene.cut", "scene.unfold", "scene.fold", "morph.split", "scene.copy", "shift.keep", "scene.paste", "scene.delete", "scene.order", "run.make", "run.order", "cue.add", "cue.set", "cue.delete", "scene.set", "scene.add", "film.set", "project.rename", "project.set", "layer.copies"} {
		if done[op] == 0 {
			t.Errorf("%s was never carried out", op)
		}
	}
	if refused > 500 {
		t.Errorf("%d of 900 were refused", refused)
	}
}

func TestUndoIsRefusedWhereLaterWorkTouchedTheSame(t *testing.T) {
	p := opener()
	q, patch, err := carry(p, `{"op":"scene.set","ids":["lift-off"],"patch":{"stay":1000}}`)
	if err != nil {
		t.Fatal(err)
	}
	elsewhere := apply(t, q, `{"op":"scene.set","ids":["the-date"],"patch":{"stay":1234}}`)
	if _, err := patch.Inverse().Apply(elsewhere); err != nil {
		t.Errorf("later work elsewhere is no obstacle: %v", err)
	}
	same := apply(t, q, `{"op":"scene.set","ids":["lift-off"],"patch":{"stay":2000}}`)
	if _, err := patch.Inverse().Apply(same); err == nil || !strings.Contains(err.Error(), "Nothing was undone") {
		t.Errorf("got %v", err)
	}
}

func TestRefusalsSayWhy(t *testing.T) {
	p := opener()
	for c, words := range map[string]string{
		`{"op":"layer.paint"}`: "no command",
		`{"op":"scene.set","ids":["lift-off"],"patch":{"stay":-5}}`:                  "stay",
		`{"op":"scene.set","ids":["lift-off"],"stay":5}`:                             "unknown field",
		`{"op":"scene.delete","ids":["lift-off","over-the-water","the-date"]}`:       "at least one scene",
		`{"op":"layer.set","set":[{"id":"s1-l1","patch":{"id":"x"}}]}`:               "cannot be changed",
		`{"op":"layer.set","set":[{"id":"nobody","patch":{"opacity":1}}]}`:           "no longer there",
		`{"op":"layer.set","set":[{"id":"s1-l5","patch":{"opacity":7}}]}`:            "opacity",
		`{"op":"batch","commands":[{"op":"project.rename","name":"x"},{"op":"no"}]}`: "no command",
		`[]`:                                  "no command",
		`{"op":"project.rename","name":"  "}`: "needs a name",
		`{"op":"film.set","patch":{"scenes":[]}}`: "cannot be changed",
	} {
		if q, _, err := carry(p, c); err == nil || q != nil || !strings.Contains(err.Error(), words) {
			t.Errorf("%s: %v", c, err)
		}
	}
	if p.Name != "Kite Day at Fennel Quay: opener" {
		t.Error("half a batch was carried out")
	}
}

// docs/motion.md, section 6: a continued scene begins as the other ends; nothing enters twice.
func TestAContinuedSceneBeginsAsTheOtherEnds(t *testing.T) {
	p := opener()
	for _, s := range p.Film.Scenes { // loops off: the check of section 6
		doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
			kept := l.Moves[:0:0]
			for _, m := range l.Moves {
				if m.Kind != doc.Loop {
					kept = append(kept, m)
				}
			}
			l.Moves = kept
			return true
		})
	}
	for _, from := range []string{"lift-off", "over-the-water", "the-date"} {
		q := apply(t, p, `{"op":"scene.continue","from":%q,"id":"next","seed":"x","name":"Next"}`, from)
		q = apply(t, q, `{"op":"scene.set","ids":["next"],"patch":{"transition":{"kind":"morph","duration":700}}}`)
		f, err := frame.Compile(q, assets, nil)
		if err != nil {
			t.Fatal(err)
		}
		i, s := q.Scene("next")
		doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
			if len(l.Moves) > 0 {
				t.Errorf("%s still has moves", l.Name)
			}
			return true
		})
		o := f.Order
		end := paint(f, motion.Millis(o.Starts[i]))
		start := paint(f, motion.Millis(o.Begin(i)))
		if worst := differ(end, start); worst > 1e-3 {
			t.Errorf("continuing %s, a number jumps by %v", from, worst)
		}
	}
}

func paint(f *frame.Film, at motion.Instant) []float64 {
	return append([]float64(nil), f.Player().At(at, frame.View{Scale: 1}).Numbers...)
}

func differ(a, b []float64) float64 {
	if len(a) != len(b) {
		return math.Inf(1)
	}
	worst := 0.0
	for i := range a {
		worst = max(worst, math.Abs(a[i]-b[i]))
	}
	return worst
}

func TestContinuedLoopsAreLinkedAndRunOn(t *testing.T) {
	q := apply(t, opener(), `{"op":"scene.continue","from":"the-date","id":"next","seed":"x","name":"Next"}`)
	_, s := q.Scene("next")
	linked := 0
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			if m.Kind == doc.Loop && strings.HasPrefix(m.Continues, "s3-m") {
				linked++
			}
		}
		return true
	})
	if linked != 3 {
		t.Fatalf("%d loops are linked, want two spins and the scroll", linked)
	}
	// A longer stay before keeps them in step: the phase is worked out when the film is.
	q = apply(t, q, `{"op":"scene.set","ids":["the-date"],"patch":{"stay":3333}}`)
	q = apply(t, q, `{"op":"scene.set","ids":["next"],"patch":{"transition":{"kind":"morph","duration":700}}}`)
	f, err := frame.Compile(q, assets, nil)
	if err != nil {
		t.Fatal(err)
	}
	i, _ := q.Scene("next")
	begin := f.Order.Begin(i)
	x, y := paint(f, motion.Instant{Num: begin*1000 - 1, Den: 1000}), paint(f, motion.Millis(begin))
	if worst := differ(x, y); worst > 1e-2 {
		t.Errorf("at the end of the morph a number jumps by %v", worst)
	}
}

func TestDuplicatesKeepTheirInnerHitches(t *testing.T) {
	q := apply(t, opener(), `{"op":"scene.duplicate","from":"lift-off","id":"copy","seed":"x","name":"Copy"}`)
	_, a := q.Scene("lift-off")
	_, b := q.Scene("copy")
	seen := 0
	doc.Walk(a.Layers, func(l, _ *doc.Layer) bool {
		k := b.Thread(l.Thread)
		if k == nil || k.ID == l.ID || len(k.Moves) != len(l.Moves) {
			t.Fatalf("%s has no copy of its own", l.Name)
		}
		for i, m := range l.Moves {
			if m.Start.Of == "" {
				continue
			}
			seen++
			target, on := b.Move(k.Moves[i].Start.Of)
			old, was := a.Move(m.Start.Of)
			if target == nil || on.Thread != was.Thread || target.ID == old.ID {
				t.Errorf("%s of the copy hangs on %v", m.ID, k.Moves[i].Start)
			}
		}
		return true
	})
	if seen == 0 {
		t.Fatal("no hitches in the demo")
	}
}

func TestRemovingAMoveReHangsAtTheResolvedTime(t *testing.T) {
	p := opener()
	_, s := p.Scene("lift-off")
	title := s.Thread("t-title").Moves[0]
	sub := s.Thread("t-sub").Moves[0]
	before, err := motion.Resolve(s, 0)
	if err != nil {
		t.Fatal(err)
	}
	q := apply(t, p, `{"op":"move.delete","ids":[%q]}`, title.ID)
	_, s = q.Scene("lift-off")
	m, _ := s.Move(sub.ID)
	if m.Start.When != doc.AtTime || m.Start.Offset != before.Moves[sub.ID].Begin {
		t.Errorf("it starts %+v, was at %d", m.Start, before.Moves[sub.ID].Begin)
	}
}

func TestGroupingAndUngroupingMoveNothing(t *testing.T) {
	p := opener()
	before := boxes(t, p)
	q := apply(t, p, `{"op":"layer.group","ids":[%q,%q],"id":"g","thread":"g","name":"Pair","x":700,"y":500}`,
		p.Film.Scenes[0].Thread("t-title").ID, p.Film.Scenes[0].Thread("t-panel-2").ID)
	q = apply(t, q, `{"op":"layer.set","set":[{"id":"g","patch":{"opacity":1}}]}`)
	q = apply(t, q, `{"op":"layer.ungroup","ids":["g"]}`)
	after := boxes(t, q)
	for id, b := range before {
		for i := range b {
			if math.Abs(b[i]-after[id][i]) > 1e-6 {
				t.Errorf("%s has moved from %v to %v", id, b, after[id])
				break
			}
		}
	}
}

func boxes(t *testing.T, p *doc.Project) map[string][8]float64 {
	t.Helper()
	f, err := frame.Compile(p, assets, nil)
	if err != nil {
		t.Fatal(err)
	}
	pl := f.Player()
	pl.StandAtRest(0)
	out := map[string][8]float64{}
	doc.Walk(p.Film.Scenes[0].Layers, func(l, _ *doc.Layer) bool {
		if q, _, ok := pl.Quad(l.ID); ok && l.Kind != doc.Group {
			out[l.ID] = [8]float64{q[0].X, q[0].Y, q[1].X, q[1].Y, q[2].X, q[2].Y, q[3].X, q[3].Y}
		}
		return true
	})
	return out
}

func BenchmarkApply(b *testing.B) {
	p := opener()
	for b.Loop() {
		if _, _, err := carry(p, `{"op":"layer.set","set":[{"id":"s1-l11","patch":{"place":{"x":5}}}]}`); err != nil {
			b.Fatal(err)
		}
	}
}

func BenchmarkCompileAfterEdit(b *testing.B) {
	p := opener()
	f, _ := frame.Compile(p, assets, nil)
	q, _, err := carry(p, `{"op":"layer.set","set":[{"id":"s1-l11","patch":{"place":{"x":5}}}]}`)
	if err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		if _, err := frame.Compile(q, assets, f); err != nil {
			b.Fatal(err)
		}
	}
}

// Who made a picture is said of its file: taken in again, it keeps that; undone, it is gone. What is too long, or of no file, is refused.
func TestPicturesAreCredited(t *testing.T) {
	p := opener()
	q := apply(t, p, `{"op":"media.credit","hash":%q,"source":" A. Painter ","licence":"CC BY"}`, sky)
	q = apply(t, q, `{"op":"media.add","hash":%q,"media":{"name":"again.jpg","type":"image/jpeg","bytes":1,"width":1920,"height":1080,"source":"the file"}}`, sky)
	if m := q.Media[sky]; m.Source != "A. Painter" || m.Licence != "CC BY" || m.Name != "again.jpg" || p.Media[sky].Source != "" {
		t.Errorf("%+v, and %+v before", m, p.Media[sky])
	}
	for _, c := range []string{fmt.Sprintf(`{"op":"media.credit","hash":%q,"source":%q}`, sky, strings.Repeat("x", 301)), `{"op":"media.credit","hash":"none"}`} {
		if _, _, err := carry(p, c); err == nil {
			t.Errorf("%.60s is carried out", c)
		}
	}
}
