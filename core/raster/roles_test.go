package raster_test

import (
	"testing"

	"capstan/core/doc"
	"capstan/core/paint"
)

// A morph between scenes whose roles differ goes through the OKLab mixtures of what the roles mean on either side, tones too.
func TestRolesMorph(t *testing.T) {
	a, b := shape(doc.Rectangle, "#d8573a", 50, 40, 80, 40, 0, 1), shape(doc.Rectangle, "#d8573a", 50, 40, 80, 40, 0, 1)
	a.Fill.Role, b.Fill.Role = "accent", "accent"
	a.Fill.Tone, b.Fill.Tone = -2, -2
	p := turning(a, b)
	from, to := "#d8573a", "#3f7f86"
	p.Film.Scenes[0].Roles, p.Film.Scenes[1].Roles = map[string]string{"accent": from}, map[string]string{"accent": to}
	x, _ := paint.Parse(from)
	y, _ := paint.Parse(to)
	for ms, share := range map[int64]float64{500: 0, 1500: 0.5, 2500: 1} {
		r, g, bl, _ := paint.Mix(x.Tone(-2), y.Tone(-2), share).Bytes()
		got := paintAt(t, p, ms).RGBAAt(50, 40)
		for k, v := range [3][2]uint8{{got.R, r}, {got.G, g}, {got.B, bl}} {
			if d := int(v[0]) - int(v[1]); d > 2 || d < -2 {
				t.Errorf("at %d ms, channel %d: %v, want %v", ms, k, v[0], v[1])
			}
		}
	}
}
