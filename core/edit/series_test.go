package edit_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/series"
	"capstan/demo"
)

var demos = func() map[string]*doc.Project {
	facts := &doc.Media{Name: "sky.jpg", Type: "image/jpeg", Width: 1920, Height: 1080, Opaque: true}
	hash := strings.Repeat("a", 64)
	return map[string]*doc.Project{
		"opener": demo.Opener(hash, facts), "post": demo.Post(), "evening": demo.Evening(hash, facts), "reel": demo.Reel(), "talk": demo.Talk(), "sticker": demo.Sticker(),
	}
}()

// films paints frames of a project.
type films struct {
	t testing.TB
	f *frame.Film
	p *raster.Painter
}

func filmOf(t testing.TB, p *doc.Project) *films {
	t.Helper()
	f, err := frame.Compile(p, assets, nil)
	if err != nil {
		t.Fatal(err)
	}
	flat := image.NewRGBA(image.Rect(0, 0, 192, 108))
	for i := range flat.Pix {
		flat.Pix[i] = byte(i*7) | 3
	}
	for i := 3; i < len(flat.Pix); i += 4 {
		flat.Pix[i] = 255
	}
	return &films{t, f, raster.NewPainter(f, func(string, int) (*image.RGBA, error) { return flat, nil })}
}

// at paints a quarter of the size.
func (f *films) at(ms int64) []byte {
	f.t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, f.f.Doc.Film.Width/4, f.f.Doc.Film.Height/4))
	if err := f.p.Paint(img, f.f.Player().At(motion.Millis(ms), frame.View{Scale: 0.25})); err != nil {
		f.t.Fatal(err)
	}
	return img.Pix
}

// unlike counts bytes that differ by more than so much.
func unlike(a, b []byte, by int) (n int) {
	if bytes.Equal(a, b) {
		return 0
	}
	for i := range a {
		if d := int(a[i]) - int(b[i]); d > by || -d > by {
			n++
		}
	}
	return
}

// steps reports whether a scene has a marker, which goes by how many scenes there are.
func steps(s *doc.Scene) (found bool) {
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		found = found || l.Kind == doc.MarkerKind
		return true
	})
	return
}

// A scene that is cut in two shows the same at every time.
func TestASceneThatIsCutInTwoShowsTheSame(t *testing.T) {
	for name, p := range demos {
		r := rand.New(rand.NewPCG(1, 2))
		for i, s := range p.Film.Shown() {
			before := filmOf(t, p)
			stay := before.f.Order.Stays[i]
			if steps(s) || stay < 2 {
				continue
			}
			for range 6 {
				at := 1 + r.Int64N(stay-1)
				q := apply(t, p, `{"op":"scene.cut","scene":%q,"at":%d,"id":"later","seed":"x","name":"Later"}`, s.ID, at)
				after := filmOf(t, q)
				if a, b := before.f.Order.Length, after.f.Order.Length; a != b {
					t.Fatalf("%s: scene %s cut at %d: %d ms instead of %d", name, s.Name, at, b, a)
				}
				begin := before.f.Order.Begin(i)
				for k := int64(0); k < 7; k++ {
					ms := begin + at + [...]int64{-at, -at / 2, -1, 0, 1, (stay - at) / 2, stay - at - 1}[k]
					if n := unlike(before.at(ms), after.at(ms), 0); n > 0 {
						t.Errorf("%s: scene %s cut at %d: %d bytes differ at %d of its clock", name, s.Name, at, n, ms-begin)
					}
				}
			}
		}
	}
}

// staysAlike compares two films where nothing is under way between scenes in either, at the middle of each stay of both; bytes may differ by so much.
func staysAlike(t *testing.T, said string, p, q *doc.Project, by int) {
	t.Helper()
	a, b := filmOf(t, p), filmOf(t, q)
	if a.f.Order.Length != b.f.Order.Length {
		t.Errorf("%s: %d ms instead of %d", said, b.f.Order.Length, a.f.Order.Length)
		return
	}
	for _, f := range []*films{a, b} {
		for i := range f.f.Doc.Film.Shown() {
			ms := f.f.Order.Begin(i) + f.f.Order.Stays[i]/2
			if f.f.Order.At(motion.Millis(ms)).Into || a.f.Order.At(motion.Millis(ms)).Into || b.f.Order.At(motion.Millis(ms)).Into {
				continue
			}
			if n := unlike(a.at(ms), b.at(ms), by); n > 0 {
				t.Errorf("%s: %d bytes differ at %d", said, n, ms)
			}
		}
	}
}

// A scene that is unfolded shows in each of its steps what it showed.
func TestASceneIsUnfolded(t *testing.T) {
	for name, p := range demos {
		for _, s := range p.Film.Shown() {
			if steps(s) {
				continue
			}
			if list, err := series.Steps(s, s.Transition.Duration); err != nil || len(list) == 0 {
				continue
			}
			q := apply(t, p, `{"op":"scene.unfold","scene":%q,"seed":"x"}`, s.ID)
			staysAlike(t, name+" "+s.Name, p, q, 0)
		}
	}
}

// Scenes that are folded into one show what they showed while they stayed, and so do the steps that it is unfolded into.
func TestScenesAreFolded(t *testing.T) {
	for name, p := range demos {
		shown := p.Film.Shown()
		for n := 2; n <= min(len(shown), 4); n++ {
			for from := 0; from+n <= len(shown); from++ {
				var ids []string
				for _, s := range shown[from : from+n] {
					if !steps(s) {
						ids = append(ids, s.ID)
					}
				}
				if len(ids) < n {
					continue
				}
				raw, _ := json.Marshal(ids)
				staysAlike(t, fmt.Sprint(name, " ", ids), p, apply(t, p, `{"op":"scene.fold","ids":%s,"seed":"x"}`, raw), 0)
			}
		}
	}
}

// plainly leaves out what cannot be told in another scene: loops that go on others or strew, and wait; comings that are over before they begin.
func plainly(p *doc.Project) *doc.Project {
	q := *p
	q.Film.Scenes = nil
	for _, s := range p.Film.Scenes {
		s = s.Clone()
		doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
			l.Hidden = l.Hidden || l.Kind == doc.MarkerKind // it goes by how many scenes there are
			for _, m := range l.Moves {
				if m.Kind == doc.Loop && m.Lasts == doc.WholeScene {
					m.Start = doc.Start{When: doc.AtTime}
				}
				if m.Kind != doc.Loop {
					m.Until = ""
				}
			}
			return true
		})
		q.Film.Scenes = append(q.Film.Scenes, s)
	}
	return &q
}

// part is a project of some scenes of another.
func part(p *doc.Project, from, to int) *doc.Project {
	q := *p
	q.Film.Scenes, q.Film.Shifts = slices.Clone(p.Film.Scenes[from:to]), nil
	first := *q.Film.Scenes[0]
	first.Transition = doc.Transition{Kind: doc.Cut}
	q.Film.Scenes[0] = &first
	return &q
}

// The same for scenes that random edits have made, there and back. A colour of a role of another scene is written as a code, which rounds it.
func TestRandomSeriesAreFoldedAndUnfolded(t *testing.T) {
	folded, unfolded := 0, 0
	for seed := range uint64(54) {
		r := rand.New(rand.NewPCG(seed, 27))
		p := []*doc.Project{opener(), part(demos["reel"], 3, 6), demos["talk"], part(demos["reel"], 0, 4), demos["evening"]}[seed%5]
		for range 30 {
			c := some(r, p)
			if r.IntN(6) == 0 {
				c = making(r, p)
			}
			if q, _, err := carry(p, c); err == nil {
				p = q
			}
		}
		p = plainly(p)
		var ids []string
		for _, s := range p.Film.Shown() {
			ids = append(ids, s.ID)
		}
		raw, _ := json.Marshal(ids)
		q, _, err := carry(p, fmt.Sprintf(`{"op":"scene.fold","ids":%s,"seed":"x"}`, raw))
		if err != nil {
			continue // a view that goes by itself, or one scene alone
		}
		folded++
		staysAlike(t, fmt.Sprint("folded ", seed), p, q, 1)
		back, _, err := carry(q, fmt.Sprintf(`{"op":"scene.unfold","scene":%q,"seed":"y"}`, ids[0]))
		if err != nil {
			continue // a view that goes by itself, or one scene alone
		}
		unfolded++
		staysAlike(t, fmt.Sprint("unfolded ", seed), q, back, 1)
		for _, s := range p.Film.Shown()[:min(2, len(ids))] {
			if step, _, err := carry(p, fmt.Sprintf(`{"op":"scene.unfold","scene":%q,"seed":"z"}`, s.ID)); err == nil {
				staysAlike(t, fmt.Sprint("unfolded ", seed, " ", s.Name), p, step, 1)
			}
		}
	}
	if folded < 40 || unfolded < 25 {
		t.Errorf("%d of 54 were folded, %d unfolded again", folded, unfolded)
	}
}

// A morph that is split goes on as it did: but for what dissolves, and for pictures, whose adjustments go by numbers, to the eye.
func TestAMorphIsSplit(t *testing.T) {
	for name, p := range demos {
		for i, s := range p.Film.Shown() {
			a := filmOf(t, p)
			if i == 0 || s.Transition.Kind != doc.Morph || steps(s) || len(s.Transition.Threads) > 0 || a.f.Order.RunOf(i) != nil && p.Film.Scenes[a.f.Order.RunOf(i)[0]].Transition.Curve {
				continue // another point on a curve is another curve
			}
			for _, at := range []int64{s.Transition.Duration / 4, s.Transition.Duration / 2} {
				q := apply(t, p, `{"op":"morph.split","scene":%q,"at":%d,"id":"between","seed":"x","name":"Between"}`, s.ID, at)
				b := filmOf(t, q)
				for k := range int64(9) {
					ms := a.f.Order.Starts[i] + s.Transition.Duration*k/8
					x, y := a.at(ms), b.at(ms)
					if n := unlike(x, y, 40); n > len(x)/100 {
						t.Errorf("%s: the morph into %s, split at %d: %d bytes differ at %d", name, s.Name, at, n, s.Transition.Duration*k/8)
					}
				}
			}
		}
	}
}

// One in which an outline becomes another shows at the cut what it did, as a drawn path, and nearly so before and after.
func TestAMorphOfOutlinesIsSplit(t *testing.T) {
	p := doc.NewProject("p", "p", 400, 400, "s0")
	p.Film.Scenes[0].Stay = 500
	s := doc.NewScene("s1", "second")
	s.Transition = doc.Transition{Kind: doc.Morph, Duration: 1000, Easing: "linear"}
	p.Film.Scenes = append(p.Film.Scenes, s)
	for i, kind := range []string{doc.Star, doc.Heart} {
		p.Film.Scenes[i].Layers = []*doc.Layer{{ID: kind, Thread: "a", Name: "A", Kind: kind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: 150 + 100*float64(i), Y: 200, W: 200, H: 200}}}
	}
	q := apply(t, p, `{"op":"morph.split","scene":"s1","at":500,"id":"between","seed":"x","name":"Between"}`)
	if l := q.Film.Scenes[1].Layers[0]; l.Kind != doc.PathKind || l.Opacity != 1 {
		t.Fatalf("between lies %+v", l)
	}
	a, b := filmOf(t, p), filmOf(t, q)
	for k := range int64(9) {
		ms := 500 + 125*k
		most := 0
		if k%4 != 0 {
			most = 100 * 100 * 4 / 50 // of 400 by 400 at a quarter
		}
		if n := unlike(a.at(ms), b.at(ms), 24); n > most {
			t.Errorf("at %d ms %d bytes differ", ms-500, n)
		}
	}
}

// A continued scene begins as the other ends, byte for byte: in all demos, without their loops and with them.
func TestAContinuedSceneBeginsByteForByte(t *testing.T) {
	for name, p := range demos {
		for _, s := range p.Film.Shown() {
			for _, loops := range []bool{false, true} {
				one := *p
				sc := s.Clone()
				sc.Transition, sc.EndsAtCue = doc.Transition{Kind: doc.Cut}, ""
				doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
					l.Moves = slices.DeleteFunc(l.Moves, func(m *doc.Move) bool { return m.Kind == doc.Loop && !loops })
					for _, m := range l.Moves {
						m.Continues = ""
					}
					return true
				})
				one.Film.Scenes, one.Film.Closing, one.Film.Shifts = []*doc.Scene{sc}, nil, nil
				if steps(sc) || sc.Stay == 0 {
					continue
				}
				q := apply(t, &one, `{"op":"scene.continue","from":%q,"id":"next","seed":"x","name":"Next"}`, sc.ID)
				q = apply(t, q, `{"op":"scene.set","ids":["next"],"patch":{"transition":{"kind":"cut","duration":0}}}`)
				a, b := filmOf(t, &one), filmOf(t, q)
				if n := unlike(a.at(a.f.Order.Length), b.at(b.f.Order.Begin(1)), 0); n > 0 {
					t.Errorf("%s: %s, with loops %v: %d bytes differ", name, s.Name, loops, n)
				}
			}
		}
	}
}

// A scroll that has ended is carried on: it stays as far as it was in the scene that goes on, and one that the scene cuts off goes on.
func TestAScrollIsCarriedOn(t *testing.T) {
	for lasts, moved := range map[int64]bool{1500: false, 6000: true} {
		p := doc.NewProject("p", "p", 480, 270, "a")
		p.Film.Scenes[0].Stay = 2000
		p.Film.Scenes[0].Layers = []*doc.Layer{{ID: "l", Thread: "l", Name: "Band", Kind: doc.Star, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: 200, Y: 100, W: 90, H: 90}, Moves: []*doc.Move{
			{ID: "m", Kind: doc.Loop, Effect: "scroll", Start: doc.Start{When: doc.AtTime}, Duration: lasts},
		}}}
		q := apply(t, p, `{"op":"scene.continue","from":"a","id":"next","seed":"x","name":"Next"}`)
		q = apply(t, q, `{"op":"scene.set","ids":["next"],"patch":{"transition":{"kind":"cut","duration":0},"stay":2000}}`)
		a, b := filmOf(t, p), filmOf(t, q)
		if n := unlike(a.at(2000), b.at(2000), 0); n > 0 {
			t.Errorf("of %d ms: %d bytes differ where it goes on", lasts, n)
		}
		if n := unlike(b.at(2000), b.at(3000), 0); n > 0 != moved {
			t.Errorf("of %d ms: %d bytes differ a second later", lasts, n)
		}
	}
}
