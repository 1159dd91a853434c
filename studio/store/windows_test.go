package store_test

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"math/rand/v2"
	"slices"
	"sync"
	"testing"
	"time"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/patch"
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
	retried  int // commands that the server carried out on a newer revision
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
	c, err := w.s.Take(context.Background(), "p", store.Incoming{Base: w.revision, Window: w.name, ID: fmt.Sprint(w.name, w.sent), Command: w.pending[0]})
	var stale *store.Stale
	switch {
	case err == nil && len(c.Since) > 0: // carried out on what others had done meanwhile
		w.sent++
		w.retried++
		w.catchUp(c.Since, c.Now, true)
		w.pending = w.pending[1:]
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

func (w *window) follow(since []store.Change, to int64) { w.catchUp(since, to, false) }

// catchUp takes over what was stored in between; drop says that the oldest pending command is part of it.
func (w *window) catchUp(since []store.Change, to int64, drop bool) {
	patches := make([]patch.Patch, len(since))
	for i, c := range since {
		if err := json.Unmarshal(c.Patch, &patches[i]); err != nil {
			w.t.Fatal(err)
		}
	}
	failed, err := w.session.CatchUp(patches, drop)
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
			since, to, _, err := s.Since("p", w.revision)
			if err != nil {
				t.Fatal(err)
			}
			w.follow(since, to)
			if got, _ := w.session.Document().Write(); string(got) != string(whole) || w.revision != rev {
				t.Errorf("seed %d: window %s shows another document than is stored\n%s\n%s", seed, w.name, got, whole)
			}
		}
		if seed == 0 && (rev < 100 || windows[0].retried+windows[1].retried == 0 || windows[0].refused+windows[1].refused == 0) {
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
		return sent(`{"op":"layer.add","scene":"s","layers":[{"id":%q,"thread":%q,"name":"Sail","kind":"rectangle","opacity":1,"fill":{"kind":"none"},"place":{"x":%d,"y":9,"w":50,"h":40},"moves":[]}]}`, id, id, r.IntN(300))
	}
	some := ids[r.IntN(len(ids))]
	switch r.IntN(8) {
	case 0:
		return sent(`{"op":"layer.delete","ids":[%q]}`, some)
	case 1:
		return sent(`{"op":"layer.duplicate","ids":[%q],"seed":%q,"dx":4,"dy":4}`, some, id)
	case 2:
		return sent(`{"op":"project.rename","name":%q}`, id)
	case 3:
		return sent(`{"op":"layer.order","ids":[%q],"index":0}`, some)
	case 4:
		return sent(`{"op":"move.add","layer":%q,"move":{"id":%q,"kind":"entrance","effect":"fade","duration":300,"start":{"when":"at","offset":%d}}}`, some, id, r.IntN(900))
	}
	return sent(`{"op":"layer.set","set":[{"id":%q,"patch":{"place":{"x":%d}}}]}`, some, r.IntN(300))
}

// Six windows that edit one project as fast as they can, each on the revision it last heard of: none is pushed aside. Another project is edited
// meanwhile as if nothing was.
func TestManyWritersTakeTurns(t *testing.T) {
	s := open(t, t.TempDir())
	for _, id := range []string{"p", "other"} {
		if _, err := s.Create(doc.NewProject(id, id, 320, 240, "s"+id)); err != nil {
			t.Fatal(err)
		}
	}
	end := time.Now().Add(2 * time.Second)
	var all sync.WaitGroup
	took := make([][]time.Duration, 7)
	for w := range took {
		project := "p"
		if w == 6 {
			project = "other"
		}
		all.Go(func() {
			base := int64(0)
			for n := 0; time.Now().Before(end); n++ {
				began := time.Now()
				command := sent(`{"op":"scene.set","ids":["s%s"],"patch":{"name":"%d %d"}}`, project, w, n)
				c, err := s.Take(context.Background(), project, store.Incoming{Base: base, Window: fmt.Sprint(w), ID: fmt.Sprint(w, "-", n), Command: command})
				if err != nil {
					t.Error(err)
					return
				}
				took[w], base = append(took[w], time.Since(began)), c.Now
			}
		})
	}
	all.Wait()
	for w, list := range took {
		slices.Sort(list) // one in ten may meet a disk that is busy with others
		if len(list) < 2 || list[len(list)*9/10] > time.Second {
			t.Errorf("window %d stored %d edits: %v", w, len(list), list)
		}
	}
}
