package combine

import (
	"encoding/json"
	"math"
	"math/rand/v2"
	"os"
	"os/exec"
	"strings"
	"testing"
)

// Areas against two libraries that are not ours, on 500 seeded pairs: paper (curves) and polygon-clipping (polygons within
// 0.02 px of the curves). Both are development packages of web/, run by node as the build is.
func TestAreasAgreeWithOtherLibraries(t *testing.T) {
	type pair struct {
		A string `json:"a"`
		B string `json:"b"`
	}
	var pairs []pair
	for seed := range uint64(500) {
		r := rand.New(rand.NewPCG(seed, 21))
		a, b := randomArea(r, seed%4 == 0), randomArea(r, seed%4 == 0)
		pairs = append(pairs, pair{a.Path.Data(), b.Path.Data()})
	}
	in, err := json.Marshal(pairs)
	if err != nil {
		t.Fatal(err)
	}
	cmd := exec.Command("node", "testdata/oracles.mjs")
	cmd.Stdin, cmd.Stderr = strings.NewReader(string(in)), os.Stderr
	raw, err := cmd.Output()
	if err != nil {
		t.Fatalf("%v; make deps installs what this needs", err)
	}
	var theirs []struct{ Curves, Polygons map[string]*float64 }
	if err := json.Unmarshal(raw, &theirs); err != nil {
		t.Fatal(err)
	}
	if len(theirs) != len(pairs) {
		t.Fatalf("%d answers", len(theirs))
	}
	// The polygons' library gives up on some pairs that cross themselves; what either says has to be what we say.
	answers := map[string]int{}
	for i, p := range pairs {
		list := areas(t, p.A, p.B)
		whole := areaOf(combined(t, Unite, list...))
		for how, name := range []string{"unite", "cut", "overlap", "drop"} {
			got := areaOf(combined(t, How(how), list...))
			for who, v := range map[string]*float64{"paper": theirs[i].Curves[name], "polygon-clipping": theirs[i].Polygons[name]} {
				if v == nil {
					continue
				}
				answers[who]++
				if math.Abs(*v-got) > whole*1e-3 {
					t.Errorf("pair %d, %s: ours %v, %s %v\n%s\n%s", i, name, got, who, *v, p.A, p.B)
				}
			}
		}
	}
	if answers["paper"] < 1990 || answers["polygon-clipping"] < 1800 {
		t.Errorf("of 2000 questions they answered %v", answers)
	}
}
