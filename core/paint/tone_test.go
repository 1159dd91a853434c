package paint_test

import (
	"math"
	"testing"

	"capstan/core/paint"
)

// lch is OKLCH by the conversion of CSS Color 4, section 9.4 (L, and chroma and hue from a and b).
func lch(c paint.Colour) (l, chroma, hue float64) {
	v := c.Lab()
	return v.L, math.Hypot(v.A, v.B), math.Atan2(v.B, v.A) * 180 / math.Pi
}

func TestTonesAreEqualStepsOfLightnessWithTheHueKept(t *testing.T) {
	for _, code := range []string{"#d8573a", "#17403c", "#8ec6da", "#f3dca6", "#ff0000", "#0000ff", "#00ff00", "#808080"} {
		c, _ := paint.Parse(code)
		l0, c0, h0 := lch(c)
		for k := -5; k <= 5; k++ {
			v := c.Tone(k)
			l, chroma, hue := lch(v)
			to := 0.97
			if k < 0 {
				to = 0.15
			}
			want := l0 + (to-l0)*math.Abs(float64(k))/5
			if math.Abs(l-want) > 2e-3 {
				t.Errorf("%s, step %d: lightness %.4f, want %.4f", code, k, l, want)
			}
			if chroma > c0+2e-3 {
				t.Errorf("%s, step %d: chroma grew from %.4f to %.4f", code, k, c0, chroma)
			}
			if d := math.Remainder(hue-h0, 360); chroma > 0.02 && math.Abs(d) > 1.5 {
				t.Errorf("%s, step %d: the hue turned by %.2f", code, k, d)
			}
			for _, x := range []float64{v.R, v.G, v.B} {
				if x < 0 || x > 1 {
					t.Errorf("%s, step %d lies outside sRGB: %+v", code, k, v)
				}
			}
		}
		if c.Tone(0) != c {
			t.Errorf("%s: step 0 is another colour", code)
		}
	}
	// Values of CSS Color 4's sample conversions, from memory: red is oklch(0.628 0.2577 29.23), blue oklch(0.452 0.3132 264.05).
	for code, want := range map[string][3]float64{"#ff0000": {0.62796, 0.25768, 29.234}, "#0000ff": {0.45201, 0.31321, 264.052 - 360}} {
		c, _ := paint.Parse(code)
		if l, ch, h := lch(c); math.Abs(l-want[0]) > 1e-4 || math.Abs(ch-want[1]) > 1e-4 || math.Abs(h-want[2]) > 0.01 {
			t.Errorf("%s is oklch(%.5f %.5f %.3f)", code, l, ch, h)
		}
	}
}

// WCAG 2.2's worked values: white on black 21, #777777 on white 4.48 (fails AA), #767676 4.54 (passes).
func TestContrastIsWCAGs(t *testing.T) {
	for _, c := range []struct {
		a, b string
		want float64
	}{{"#ffffff", "#000000", 21}, {"#777777", "#ffffff", 4.48}, {"#767676", "#ffffff", 4.54}, {"#d8573a", "#d8573a", 1}} {
		a, _ := paint.Parse(c.a)
		b, _ := paint.Parse(c.b)
		if got := paint.Contrast(a, b); math.Abs(got-c.want) > 0.005 {
			t.Errorf("%s on %s: %.3f, want %.2f", c.a, c.b, got, c.want)
		}
	}
}

func picture(parts map[string]int) []byte {
	var out []byte
	for code, n := range parts {
		c, _ := paint.Parse(code)
		r, g, b, a := c.Bytes()
		for range n {
			out = append(out, r, g, b, a)
		}
	}
	return out
}

func TestRolesComeFromAPicture(t *testing.T) {
	sky := picture(map[string]int{"#8ec6da": 6000, "#17403c": 900, "#d8573a": 300, "#fdf6e3": 500})
	ground, tone, accent, _, words, ok := paint.Roles(sky)
	if !ok || ground.String() != "#8ec6da" {
		t.Errorf("the ground is %v, the largest colour is #8ec6da", ground)
	}
	if accent.String() != "#d8573a" {
		t.Errorf("the accent is %v, the most colourful is #d8573a", accent)
	}
	if words.String() != "#17403c" {
		t.Errorf("the words are %v, what reads best is #17403c", words)
	}
	if tone == ground || paint.Contrast(tone, ground) > 2 {
		t.Errorf("the ground's tone is %v", tone)
	}
	// Where nothing in the picture reads on its ground, a tone does.
	for _, code := range []string{"#808080", "#d8573a", "#000000", "#ffffff", "#f0e0a0"} {
		ground, _, _, _, words, ok := paint.Roles(picture(map[string]int{code: 1000}))
		if !ok || paint.Contrast(ground, words) < 4.5 {
			t.Errorf("words of %v on %v: contrast %.2f", words, ground, paint.Contrast(ground, words))
		}
	}
	if _, _, _, _, _, ok := paint.Roles(make([]byte, 400)); ok {
		t.Error("a clear picture has roles")
	}
	// The same picture gives the same colours, whatever order its pixels come in.
	for range 5 {
		if g, _, a, _, w, _ := paint.Roles(picture(map[string]int{"#8ec6da": 6000, "#17403c": 900, "#d8573a": 300, "#fdf6e3": 500})); g != ground || a != accent || w != words {
			t.Error("another order of pixels gives other roles")
		}
	}
}
