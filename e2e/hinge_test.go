package e2e

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"capstan/core/effect"
	"capstan/core/geom"
	"capstan/e2e/browser"
)

// Hinges stand where Chromium has perspective() rotate3d() (CSS Transforms 2), within half a px at every corner; about the wrong edge they do not.
func TestHingesStandWhereTheBrowserHasThem(t *testing.T) {
	p := sit(t, startStudio(t))
	rng := rand.New(rand.NewPCG(3, 23))
	worst, control := 0.0, 0
	for n := range 60 {
		w, h := 40+rng.Float64()*800, 40+rng.Float64()*500
		box := geom.BoxAt(geom.Point{X: 400 * rng.Float64(), Y: 300 * rng.Float64()}, w, h)
		angle, share := rng.Float64()*170-85, 1.2+rng.Float64()*4
		c := box.Centre()
		axes := []struct {
			name  string
			at    geom.Point
			x, y  int
			sense float64 // of CSS, in which a turn about y brings the left side towards the viewer
		}{
			{"left", geom.Point{X: box.Min.X, Y: c.Y}, 0, 1, -1}, {"right", geom.Point{X: box.Max.X, Y: c.Y}, 0, 1, 1}, {"upright", c, 0, 1, -1},
			{"top", geom.Point{X: c.X, Y: box.Min.Y}, 1, 0, 1}, {"bottom", geom.Point{X: c.X, Y: box.Max.Y}, 1, 0, -1}, {"level", c, 1, 0, 1},
		}
		of := axes[n%len(axes)]
		depth := share * max(w, h)
		css := fmt.Sprintf("translate(%fpx, %fpx) perspective(%fpx) rotate3d(%d, %d, 0, %fdeg) translate(%fpx, %fpx)", of.at.X, of.at.Y, depth, of.x, of.y, of.sense*angle, -of.at.X, -of.at.Y)
		for _, q := range box.Corners() {
			want := browser.Eval[[]float64](t, p.ctx, fmt.Sprintf(`(() => { const q = new DOMMatrix(%q).transformPoint({ x: %f, y: %f }); return [q.x / q.w, q.y / q.w] })()`, css, q.X, q.Y))
			seen := func(axis string) float64 {
				tilt := effect.Tilt{Axis: axis, Angle: angle, Depth: share}
				m := tilt.Projection(box)
				at, _ := m.Apply(q)
				return at.Sub(geom.Point{X: want[0], Y: want[1]}).Len()
			}
			worst = max(worst, seen(of.name))
			if seen(axes[(n+1)%len(axes)].name) > 0.5 {
				control++
			}
		}
	}
	if worst > 0.01 || control < 200 {
		t.Errorf("corners are up to %.4f px off; about a wrong edge %d of 240 are", worst, control)
	}
}
