package edit_test

import (
	"bytes"
	"math/rand/v2"
	"testing"

	"capstan/core/doc"
	"capstan/core/edit"
)

// Any run of commands can be undone step by step to the first document and done again to the last, byte for byte.
func TestUndoingAllTheWayBackAndForthAgain(t *testing.T) {
	for seed := range uint64(12) {
		r := rand.New(rand.NewPCG(seed, 5))
		p := opener()
		docs := [][]byte{raw(t, p)}
		var patches []edit.Patch
		for len(patches) < 25 {
			q, patch, err := edit.Apply(p, edit.Command(some(r, p)), assets)
			if err != nil || len(patch) == 0 {
				continue
			}
			p, patches, docs = q, append(patches, patch), append(docs, raw(t, q))
		}
		step := func(patch edit.Patch, want []byte, k int, what string) *doc.Project {
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
