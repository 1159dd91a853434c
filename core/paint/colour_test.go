package paint

import (
	"math"
	"testing"
)

// Worked values of WCAG 2.2: black on white is 21:1; #767676 is the lightest grey that reaches 4.5:1 on white (common
// practice).
func TestContrast(t *testing.T) {
	for _, c := range []struct {
		a, b string
		want float64
	}{{"#000", "#fff", 21}, {"#fff", "#fff", 1}, {"#767676", "#ffffff", 4.54}, {"#777777", "#ffffff", 4.48}, {"#ff0000", "#ffffff", 4.0}} {
		a, _ := Parse(c.a)
		b, _ := Parse(c.b)
		if got := Contrast(a, b); math.Abs(got-c.want) > 0.005 {
			t.Errorf("%s on %s: %.3f, want %.2f", c.a, c.b, got, c.want)
		}
	}
}

// CSS Color 4, section 9.3 examples: lime is oklab(86.644% -0.2339 0.1795), and white has L = 1.
func TestOKLabOfKnownColours(t *testing.T) {
	lime, _ := Parse("#00ff00")
	v := lime.Lab()
	if math.Abs(v.L-0.86644) > 2e-4 || math.Abs(v.A+0.2339) > 2e-4 || math.Abs(v.B-0.1795) > 2e-4 {
		t.Errorf("lime is %+v", v)
	}
	if v := White.Lab(); math.Abs(v.L-1) > 1e-6 || math.Abs(v.A)+math.Abs(v.B) > 1e-6 {
		t.Errorf("white is %+v", v)
	}
}

func TestMixKeepsItsEndsExactly(t *testing.T) {
	a, b := Colour{0.123456, 0.7, 0.2, 0.4}, Colour{0.9, 0.1, 0.33333, 1}
	if Mix(a, b, 0) != a || Mix(a, b, 1) != b {
		t.Error("an end of a mixture is not its colour")
	}
	// Mixing with a clear colour must not darken: premultiplied.
	c := Mix(Colour{1, 0, 0, 1}, Colour{0, 0, 0, 0}, 0.5)
	if math.Abs(c.R-1) > 1e-3 || math.Abs(c.A-0.5) > 1e-9 {
		t.Errorf("half of red and nothing is %+v", c)
	}
}

func TestParseRefusesWhatIsNoColour(t *testing.T) {
	for _, s := range []string{"", "red", "#12", "#12345", "#ggg", "#1234567", "123456", "#12345678a"} {
		if _, err := Parse(s); err == nil {
			t.Errorf("%q was read", s)
		}
	}
	if c, err := Parse("#8ec6da80"); err != nil || c.String() != "#8ec6da80" {
		t.Errorf("%v, %v", c, err)
	}
}
