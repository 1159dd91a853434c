package svg_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"capstan/core/doc"
	"capstan/core/likeness"
	"capstan/core/svg"
)

// Drawings of 10,000 things of a few looks, side by side, over each other and each turned, come in soon, as few layers, and look as they did.
func TestVeryManyThingsComeInAsFewLayers(t *testing.T) {
	colours := []string{"#d8573a", "#3f7f86", "#e0a03a", "#17403c"}
	r := rand.New(rand.NewPCG(5, 30))
	for name, of := range map[string]struct {
		most int
		one  func(i int) string
	}{
		"a chart": {40, func(i int) string {
			return fmt.Sprintf(`<rect x="%d" y="%d" width="9" height="9" fill="%s"/>`, i%100*10, i/100*10, colours[r.IntN(4)])
		}},
		"a map": {200, func(i int) string {
			return fmt.Sprintf(`<path d="M%d %dl8 1 1 8-7-2z" fill="%s" stroke="#10302e" stroke-width="0.5"/>`, i%100*10, i/100*10, colours[r.IntN(4)])
		}},
		"dots over dots": {1200, func(i int) string {
			return fmt.Sprintf(`<circle cx="%d" cy="%d" r="4" fill="%s"/>`, r.IntN(1000), r.IntN(1000), colours[i/2500])
		}},
	} {
		var b strings.Builder
		b.WriteString(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1000 1000" width="256" height="256"><g>`)
		for i := range 10_000 {
			b.WriteString(of.one(i))
		}
		b.WriteString(`</g></svg>`)
		at := time.Now()
		d, err := svg.Read(strings.NewReader(b.String()), svg.Options{ID: ids()})
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		took, n := time.Since(at), 0
		var walk func(l *doc.Layer)
		walk = func(l *doc.Layer) {
			n++
			for _, c := range l.Children {
				walk(c)
			}
		}
		walk(d.Group)
		if n > of.most || took > 2*time.Second {
			t.Errorf("%s becomes %d layers in %v", name, n, took)
		}
		got, _, err := painted(b.String())
		if err != nil {
			t.Fatal(err)
		}
		if s := likeness.SSIM(got, byLibrsvg(t, b.String())); s < 0.98 {
			t.Errorf("%s: SSIM %.4f", name, s)
		}
		t.Logf("%s: %d layers in %v", name, n, took)
	}
}
