package store_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/session"
	"capstan/studio/store"
)

// window is an editor's window as the page drives it: commands are carried out at once, and sent in order whenever the network
// lets it.
type window struct {
	t        *testing.T
	name     string
	s        *store.Store
	session  *session.Session
	revision int64
	pending  []edit.Command
	sent     int
	refused  int // pending commands that no longer fitted what the other window did
}

func newWindow(t *testing.T, s *store.Store, name string) *window {
	t.Helper()
	p, rev, err := s.Load("p")
	if err != nil {
		t.Fatal(err)
	}
	raw, _ := p.Write()
	w := &window{t: t, name: name, s: s, session: session.New(), revision: rev}
	if err := w.session.Open(raw); err != nil {
		t.Fatal(err)
	}
	return w
}

func (w *window) try(c edit.Command) bool {
	patch, err := w.session.Apply(c)
	if err != nil || len(patch) == 0 {
		return false
	}
	w.pending = append(w.pending, c)
	return true
}

// send sends the oldest pending command, or catches up where it is stale.
func (w *window) send() {
	if len(w.pending) == 0 {
		return
	}
	c, err := w.s.Apply("p", w.revision, w.name, fmt.Sprint(w.name, w.sent), json.RawMessage(w.pending[0]))
	var stale *store.Stale
	switch {
	case errors.As(err, &stale):
		w.follow(stale.Since, stale.Revision)
	case err != nil:
		w.t.Fatalf("the server refuses what the window took: %v", err)
	default:
		w.sent++
		w.revision = c.Revision
		w.pending = w.pending[1:]
		if err := w.session.Acknowledge(); err != nil {
			w.t.Fatal(err)
		}
	}
}

func (w *window) follow(since []store.Change, to int64) {
	patches := make([]jsontext.Value, len(since))
	for i, c := range since {
		patches[i] = jsontext.Value(c.Patch)
	}
	failed, err := w.session.CatchUp(patches, false)
	if err != nil {
		w.t.Fatal(err)
	}
	w.revision = to
	gone := map[int]bool{}
	for _, f := range failed {
		gone[f.Index] = true
		w.refused++
	}
	var left []edit.Command
	for i, c := range w.pending {
		if !gone[i] {
			left = append(left, c)
		}
	}
	w.pending = left
	w.sent += len(gone) // their ids are used up
}

// Two windows that edit the same project at random, with answers that come late, end up with the same document.
func TestTwoWindowsConverge(t *testing.T) {
	for seed := range uint64(5) {
		r := rand.New(rand.NewPCG(seed, 9))
		s := open(t, t.TempDir())
		if _, err := s.Create(doc.NewProject("p", "p", 320, 240, "s")); err != nil {
			t.Fatal(err)
		}
		windows := []*window{newWindow(t, s, "a"), newWindow(t, s, "b")}
		made := 0
		for made < 200 {
			w := windows[r.IntN(2)]
			if r.IntN(3) > 0 {
				if w.try(randomCommand(r, w)) {
					made++
				}
			} else {
				w.send()
			}
		}
		for len(windows[0].pending)+len(windows[1].pending) > 0 {
			windows[r.IntN(2)].send()
		}
		want, rev, err := s.Load("p")
		if err != nil {
			t.Fatal(err)
		}
		whole, _ := want.Write()
		for _, w := range windows {
			since, to, err := s.Since("p", w.revision)
			if err != nil {
				t.Fatal(err)
			}
			w.follow(since, to)
			if got, _ := w.session.Document().Write(); string(got) != string(whole) || w.revision != rev {
				t.Errorf("seed %d: window %s shows another document than is stored\n%s\n%s", seed, w.name, got, whole)
			}
		}
		if seed == 0 && (rev < 100 || windows[0].refused+windows[1].refused == 0) {
			t.Errorf("revision %d, %d refused: the windows were never in each other's way", rev, windows[0].refused+windows[1].refused)
		}
	}
}

func randomCommand(r *rand.Rand, w *window) edit.Command {
	p := w.session.Document()
	var ids []string
	for _, sc := range p.Film.Scenes {
		doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool { ids = append(ids, l.ID); return true })
	}
	id := fmt.Sprintf("%s%d", w.name, r.IntN(1e9))
	if len(ids) < 3 || r.IntN(8) == 0 {
		return edit.Command(fmt.Sprintf(`{"op":"layer.add","scene":"s","layers":[{"id":%q,"thread":%q,"name":"Sail","kind":"rectangle","opacity":1,"fill":{"kind":"none"},"place":{"x":%d,"y":9,"w":50,"h":40},"moves":[]}]}`, id, id, r.IntN(300)))
	}
	some := ids[r.IntN(len(ids))]
	switch r.IntN(8) {
	case 0:
		return edit.Command(fmt.Sprintf(`{"op":"layer.delete","ids":[%q]}`, some))
	case 1:
		return edit.Command(fmt.Sprintf(`{"op":"layer.duplicate","ids":[%q],"seed":%q,"dx":4,"dy":4}`, some, id))
	case 2:
		return edit.Command(fmt.Sprintf(`{"op":"project.rename","name":%q}`, id))
	case 3:
		return edit.Command(fmt.Sprintf(`{"op":"layer.order","ids":[%q],"index":0}`, some))
	case 4:
		return edit.Command(fmt.Sprintf(`{"op":"move.add","layer":%q,"move":{"id":%q,"kind":"entrance","effect":"fade","duration":300,"start":{"when":"at","offset":%d}}}`, some, id, r.IntN(900)))
	}
	return edit.Command(fmt.Sprintf(`{"op":"layer.set","set":[{"id":%q,"patch":{"place":{"x":%d}}}]}`, some, r.IntN(300)))
}
