package anim

import (
	"bytes"
	"image"
	"image/color"
	"image/gif"
	"testing"

	"capstan/core/paint"
)

// A film whose scenes have ramps of other hues gets a palette for each, one of greys alone does not; each frame reads back as near as its own
// palette allows, on clear ground, too.
func TestScenesGetPalettesOfTheirOwn(t *testing.T) {
	ramp := func(hue, k int, clear bool) *image.RGBA {
		m := image.NewRGBA(image.Rect(0, 0, 256, 64))
		for y := range 64 {
			for x := range 256 {
				if clear && (x/16+y/16+k)%5 == 0 {
					continue
				}
				v := [3]uint8{uint8(y), uint8(y), uint8(y)}
				v[hue] = uint8(x)
				v[(hue+1)%3] = uint8(x / 2)
				m.SetRGBA(x, (y+k)%64, color.RGBA{v[0], v[1], v[2], 255})
			}
		}
		return m
	}
	for _, clear := range []bool{false, true} {
		for _, c := range []struct{ hues, tables int }{{3, 3}, {1, 1}} {
			censuses := make([]Census, 3)
			var frames []*image.RGBA
			for i := range censuses {
				for k := range 3 {
					m := ramp(i%c.hues, k, clear)
					frames = append(frames, m)
					censuses[i].Add(m, paint.White, 1)
				}
			}
			list := Palettes(censuses, 64)
			met := map[*Palette]bool{}
			for _, p := range list {
				met[p] = true
			}
			if len(met) != c.tables {
				t.Fatalf("%d palettes for ramps of %d hues", len(met), c.hues)
			}
			var out bytes.Buffer
			g := NewGIF(&out, 256, 64, list[0], Timing{RateNum: 10, RateDen: 1, Length: 900}, 9, 4)
			for k, m := range frames {
				g.Switch(list[k/3])
				drawn := make([]uint8, Drawn*256*64)
				list[k/3].Pen(Flat, paint.White).Draw(drawn, m, m.Rect)
				if err := g.Add(drawn, m.Rect); err != nil {
					t.Fatal(err)
				}
			}
			if err := g.Close(); err != nil {
				t.Fatal(err)
			}
			read, err := gif.DecodeAll(&out)
			if err != nil {
				t.Fatal(err)
			}
			for k, got := range play(read) {
				worst := 0.0
				for i := 0; i < len(got.Pix); i += 4 {
					want := frames[k].Pix[i : i+4]
					if got.Pix[i+3] != want[3] {
						t.Fatalf("frame %d: a cover is %d, want %d", k, got.Pix[i+3], want[3])
					}
					if want[3] > 0 {
						a, b := labOf(uint32(want[0])<<16|uint32(want[1])<<8|uint32(want[2])), labOf(uint32(got.Pix[i])<<16|uint32(got.Pix[i+1])<<8|uint32(got.Pix[i+2]))
						worst = max(worst, apart(&a, &b))
					}
				}
				if worst > 0.13*0.13 {
					t.Errorf("%d hues, clear %v, frame %d: a colour is %v off", c.hues, clear, k, worst)
				}
			}
		}
	}
}
