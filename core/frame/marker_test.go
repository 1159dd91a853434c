package frame_test

import (
	"testing"

	"capstan/core/display"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/text"
)

// counted is the marks of a scene that are shown in full, and all of them.
func marks(f *frame.Film, scene int) (full, all int) {
	l := f.Player().AtRest(scene, frame.View{Scale: 1})
	n := 0
	for c := 0; c < len(l.Codes); {
		if l.Codes[c] != display.OpFill {
			return -1, -1
		}
		c += 3 // op, key, paint 0
		if n > 0 {
			all++
			if l.Numbers[n+9] == 1 {
				full++
			}
		}
		n += 10
	}
	return
}

// A marker follows the scenes its thread lives in, also when others come or go elsewhere in the film.
func TestMarkersFollowTheirThread(t *testing.T) {
	p := doc.NewProject("p", "p", 320, 240, "s0")
	scene := func(id string) *doc.Scene {
		s := *p.Film.Scenes[0]
		s.ID, s.Layers = id, nil
		s.Transition = doc.Transition{Kind: doc.Cut}
		return &s
	}
	mark := func(s *doc.Scene) *doc.Scene {
		s.Layers = []*doc.Layer{{ID: s.ID + "m", Thread: "m", Name: "Marker", Kind: doc.MarkerKind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#17403c"},
			Place: doc.Place{X: 160, Y: 200, W: 100, H: 8}, Marker: &doc.Marker{Style: doc.Dots}}}
		return s
	}
	p.Film.Scenes = []*doc.Scene{mark(scene("a")), scene("b"), mark(scene("c")), mark(scene("d"))}
	f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		t.Fatal(err)
	}
	for i, want := range []int{3, 0, 3, 3} {
		if full, all := marks(f, i); all != want || full != min(want, 1) {
			t.Errorf("scene %d has %d marks, %d in full; want %d", i, all, full, want)
		}
	}
	// One more scene with it: the others are the same value, and are made anew.
	q := *p
	q.Film.Scenes = append(append([]*doc.Scene{}, p.Film.Scenes...), mark(scene("e")))
	if f, err = frame.Compile(&q, frame.Assets{Fonts: &text.Book{}}, f); err != nil {
		t.Fatal(err)
	}
	for i, want := range []int{4, 0, 4, 4, 4} {
		if _, all := marks(f, i); all != want {
			t.Errorf("with another scene, scene %d has %d marks, want %d", i, all, want)
		}
	}
}
