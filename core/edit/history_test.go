package edit_test

import (
	"bytes"
	"math/rand/v2"
	"testing"

	"github.com/go-json-experiment/json"

	"capstan/core/doc"
	"capstan/core/patch"
)

// Any run of commands can be undone step by step to the first document and done again to the last, byte for byte.
func TestUndoingAllTheWayBackAndForthAgain(t *testing.T) {
	for seed := range uint64(12) {
		r := rand.New(rand.NewPCG(seed, 5))
		p := opener()
		docs := [][]byte{raw(t, p)}
		var patches []patch.Patch
		for len(patches) < 25 {
			q, patch, err := carry(p, some(r, p))
			if err != nil || len(patch) == 0 {
				continue
			}
			p, patches, docs = q, append(patches, kept(t, patch)), append(docs, raw(t, q))
		}
		step := func(patch patch.Patch, want []byte, k int, what string) *doc.Project {
			q, err := patch.Apply(p)
			if err != nil || !bytes.Equal(raw(t, q), want) {
				t.Fatalf("seed %d: %s step %d gives another document: %v", seed, what, k, err)
			}
			return q
		}
		for k := len(patches) - 1; k >= 0; k-- {
			p = step(patches[k].Inverse(), docs[k], k, "undoing")
		}
		for k := range patches {
			p = step(patches[k], docs[k+1], k, "redoing")
		}
	}
}

// kept is a patch as windows keep it for undoing: written as JSON, and read again.
func kept(t *testing.T, p patch.Patch) (out patch.Patch) {
	t.Helper()
	b, err := doc.Encode(p)
	if err == nil {
		err = json.Unmarshal(b, &out)
	}
	if err != nil {
		t.Fatal(err)
	}
	return out
}

// A list that has become empty, and words that have, are values like others: a scene gets its last layer back.
func TestWhatHasBecomeEmptyIsUndone(t *testing.T) {
	p := opener()
	before := raw(t, p)
	var all []string
	for _, l := range p.Film.Scenes[0].Layers {
		all = append(all, l.ID)
	}
	c, err := doc.Encode(map[string]any{"op": "layer.delete", "ids": all})
	if err != nil {
		t.Fatal(err)
	}
	q, patch, err := carry(p, string(c))
	if err != nil || len(q.Film.Scenes[0].Layers) != 0 {
		t.Fatalf("%d layers are left: %v", len(q.Film.Scenes[0].Layers), err)
	}
	back, err := kept(t, patch).Inverse().Apply(q)
	if err != nil || !bytes.Equal(raw(t, back), before) {
		t.Errorf("the layers are not back: %v", err)
	}
}
