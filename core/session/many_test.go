package session_test

import (
	"math"
	"testing"

	"capstan/core/doc"
	"capstan/core/scope"
)

// What is said of many layers in few words is what is said of each by itself: their looks, places, moves and later scenes.
func TestManyLayersAreToldAsOne(t *testing.T) {
	s := opener(t)
	for i := range s.Document().Film.Scenes {
		m := scope.Moment{Rest: true, Scene: i}
		var threads []string
		doc.Walk(s.Document().Film.Scenes[i].Layers, func(l, _ *doc.Layer) bool { threads = append(threads, l.Thread); return true })
		v := s.ManyView(m, threads)
		whole := s.Selection(m, threads)
		if len(v.Look) != len(whole) || len(v.Looks) >= len(whole) {
			t.Fatalf("scene %d: %d looks of %d layers, %d told one by one", i+1, len(v.Looks), len(v.Look), len(whole))
		}
		for k, w := range whole {
			n, look := v.Numbers[7*k:7*k+7], v.Looks[v.Look[k]].Layer
			if v.Layers[3*k] != w.Layer.ID || v.Layers[3*k+1] != w.Layer.Thread || v.Layers[3*k+2] != w.Layer.Name {
				t.Errorf("%v instead of %s", v.Layers[3*k:3*k+3], w.Layer.ID)
			}
			for j, want := range append(w.Box[:], w.Layer.Place.Turn, float64(w.Count), float64(w.Later)) {
				if math.Abs(n[j]-want) > 0.0051 {
					t.Errorf("%s: number %d is %v, want %v", w.Layer.Name, j, n[j], want)
				}
			}
			a, _ := doc.Encode([]any{look.Kind, look.Opacity, look.Fill, look.Stroke, look.Blend, look.Shape, look.Text, look.Mask, look.Locked})
			b, _ := doc.Encode([]any{w.Layer.Kind, w.Layer.Opacity, w.Layer.Fill, w.Layer.Stroke, w.Layer.Blend, w.Layer.Shape, w.Layer.Text, w.Layer.Mask, w.Layer.Locked})
			if string(a) != string(b) {
				t.Errorf("%s looks like %s, not %s", w.Layer.Name, b, a)
			}
			if len(v.Moves[k]) != 5*len(w.Moves) {
				t.Errorf("%s has %d moves, told are %v", w.Layer.Name, len(w.Moves), v.Moves[k])
			}
		}
		// The lines around them are those of each, and the box that of all.
		around, corners := s.CrowdView(m, threads)
		o := s.OverlayView(m, threads)
		if len(corners) != 8*len(o.Boxes) || around.Corners != o.Around.Corners {
			t.Errorf("scene %d: %d corners of %d boxes, around %v and %v", i+1, len(corners)/2, len(o.Boxes), around.Corners, o.Around.Corners)
			continue
		}
		for k, b := range o.Boxes {
			if corners[8*k] != b.Corners[0][0] || corners[8*k+7] != b.Corners[3][1] {
				t.Errorf("box %d", k)
			}
		}
	}
}
