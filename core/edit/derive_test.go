package edit

import "testing"

// Ids as stores hold them already.
func TestDerivedIDsStayAsTheyAre(t *testing.T) {
	if got := derive("seed", "s1-l1"); got != "cjrnthwwsr23" {
		t.Errorf("the id of a copy is %s", got)
	}
}
