package session_test

import (
	"fmt"
	"image"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
)

// Turned over, the page looks as in a mirror; turned over again it is as before. So it is for a quarter turn, four times.
func TestFlipsAndTurnsGoAsOne(t *testing.T) {
	for seed := range uint64(6) {
		p, names := scattered(seed)
		for _, down := range []bool{false, true} {
			s := open(t, p)
			before := shotOf(t, s, rest)
			boxes := bounds(s, names)
			all := geom.EmptyBox()
			for _, b := range boxes {
				all = all.Union(b)
			}
			args := fmt.Sprintf(`{"threads":["a0","a1","a2","a3","a4"],"down":%v}`, down)
			want(t, s, rest, "flip", args)
			for i, b := range bounds(s, names) {
				m := boxes[i]
				if down {
					m.Min.Y, m.Max.Y = 2*all.Centre().Y-boxes[i].Max.Y, 2*all.Centre().Y-boxes[i].Min.Y
				} else {
					m.Min.X, m.Max.X = 2*all.Centre().X-boxes[i].Max.X, 2*all.Centre().X-boxes[i].Min.X
				}
				if b.Min.Sub(m.Min).Len() > near || b.Max.Sub(m.Max).Len() > near {
					t.Errorf("seed %d: layer %d lies in %v, in a mirror it would in %v", seed, i, b, m)
				}
			}
			want(t, s, rest, "flip", args)
			if n := differs(before, shotOf(t, s, rest), 24); n > 40 {
				t.Errorf("seed %d: turned over twice, %d pixels differ", seed, n)
			}
		}
		s := open(t, p)
		before := shotOf(t, s, rest)
		for range 4 {
			want(t, s, rest, "turn.by", `{"threads":["a0","a1","a2","a3","a4"],"degrees":90}`)
		}
		if n := differs(before, shotOf(t, s, rest), 24); n > 60 {
			t.Errorf("seed %d: turned four times by a quarter, %d pixels differ", seed, n)
		}
	}
	// An upright page whose middle is the middle of the layers: in the mirror, pixel for pixel.
	l := shapeOf("a", doc.Rectangle, 120, 100, 60, 20)
	l.Place.Turn = 30
	s := open(t, with(l, shapeOf("b", doc.Ellipse, 200, 140, 30, 50)))
	want(t, s, rest, "align", `{"threads":["a"],"edge":"centre","to":"page"}`)
	want(t, s, rest, "align", `{"threads":["b"],"edge":"centre","to":"page"}`)
	before := shotOf(t, s, rest)
	want(t, s, rest, "flip", `{"threads":["a","b"]}`)
	if n := differs(mirrored(before), shotOf(t, s, rest), 24); n > 20 {
		t.Errorf("%d pixels are not as in a mirror", n)
	}
}

func mirrored(img *image.RGBA) *image.RGBA {
	out := image.NewRGBA(img.Rect)
	for y := range img.Rect.Dy() {
		for x := range img.Rect.Dx() {
			out.SetRGBA(img.Rect.Dx()-1-x, y, img.RGBAAt(x, y))
		}
	}
	return out
}
