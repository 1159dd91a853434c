package session_test

import (
	"math"
	"testing"

	"capstan/core/geom"
	"capstan/core/gesture"
)

// Several layers are scaled and turned as one: the boxes keep their places among each other.
func TestSeveralAreScaledAndTurnedAsOne(t *testing.T) {
	all := func(list []geom.Box) geom.Box {
		b := geom.EmptyBox()
		for _, v := range list {
			b = b.Union(v)
		}
		return b
	}
	for seed := range uint64(6) {
		p, names := scattered(seed)
		s := open(t, p)
		before := bounds(s, names)
		box := all(before)
		around := s.OverlayView(rest, names).Around
		if around == nil || math.Abs(around.Corners[0][0]-box.Min.X) > near || math.Abs(around.Corners[2][1]-box.Max.Y) > near {
			t.Fatalf("around them is %+v, not %v", around, box)
		}
		do := func(kind, handle string, from, to geom.Point, mod gesture.Modifiers) {
			t.Helper()
			if err := s.Begin(kind, rest, names, handle, "", from); err != nil {
				t.Fatal(err)
			}
			if _, err := s.Update(to, mod); err != nil {
				t.Fatal(err)
			}
			if _, err := s.Apply(s.End()); err != nil {
				t.Fatal(err)
			}
		}
		// By half from the upper left corner on: the lower right one stays.
		do("size", "nw", box.Min, box.Min.Lerp(box.Max, 0.5), gesture.Modifiers{})
		for i, b := range bounds(s, names) {
			want := geom.Box{Min: box.Max.Lerp(before[i].Min, 0.5), Max: box.Max.Lerp(before[i].Max, 0.5)}
			if b.Min.Sub(want.Min).Len() > 3*near || b.Max.Sub(want.Max).Len() > 3*near {
				t.Errorf("seed %d: layer %d lies in %v, want %v", seed, i, b, want)
			}
		}
		s = open(t, p)
		// From the middle, with Alt.
		do("size", "se", box.Max, box.Max.Add(geom.Point{X: box.W() / 2, Y: box.H() / 2}), gesture.Modifiers{Alt: true})
		if now := all(bounds(s, names)); now.Centre().Sub(box.Centre()).Len() > 6*near || math.Abs(now.W()-2*box.W()) > 6*near {
			t.Errorf("seed %d: from the middle they fill %v, before %v", seed, now, box)
		}
		s = open(t, p)
		c := box.Centre()
		do("turn", "", c.Add(geom.Point{X: 50}), c.Add(geom.Point{Y: 50}), gesture.Modifiers{Shift: true})
		for i, b := range bounds(s, names) {
			m := geom.Rotate(90).About(c).ApplyBox(before[i])
			if b.Centre().Sub(m.Centre()).Len() > 3*near {
				t.Errorf("seed %d: turned by a quarter, layer %d lies about %v, want %v", seed, i, b.Centre(), m.Centre())
			}
		}
	}
}
