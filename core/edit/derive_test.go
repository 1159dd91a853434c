package edit

import (
	standard "crypto/sha256"
	"math/rand/v2"
	"testing"
)

// FIPS 180-4 by the standard library, at every length around the blocks.
func TestDerivedIDsAreSHA256(t *testing.T) {
	r := rand.New(rand.NewPCG(91, 92))
	for n := range 300 {
		b := make([]byte, n)
		for i := range b {
			b[i] = byte(r.IntN(256))
		}
		if sha256(string(b)) != standard.Sum256(b) {
			t.Fatalf("%d bytes: another sum", n)
		}
	}
	// An id as stores hold it already.
	if got := derive("seed", "s1-l1"); got != "cjrnthwwsr23" {
		t.Errorf("the id of a copy is %s", got)
	}
}
