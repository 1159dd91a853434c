package sum_test

import (
	"math"
	"testing"

	"capstan/core/sum"
)

func TestWhatIsTypedIsWorkedOut(t *testing.T) {
	for _, c := range []struct {
		text  string
		whole float64
		own   string
		want  float64
	}{
		{"1080/3", 0, "", 360}, {"50%", 1920, "", 960}, {"50 %", 0, "%", 50}, {"12,5", 0, "", 12.5}, {" -4.25 ", 0, "", -4.25},
		// CSS Values and Units: 1in = 2.54cm = 96px, 1pt = 1/72 in.
		{"4.2in", 0, "", 403.2}, {"2.54cm", 0, "", 96}, {"25.4 mm", 0, "", 96}, {"72pt", 0, "", 96}, {"10px", 0, "", 10},
		{"2*(3+4)-1", 0, "", 13}, {"2+3*4", 0, "", 14}, {"100/4/5", 0, "", 5}, {"-(2+3)", 0, "", -5}, {"3×4", 0, "", 12}, {"7 − 2", 0, "", 5}, {"--3", 0, "", 3},
		{"50% - 20", 1920, "", 940}, {"1.5 s", 0, "s", 1.5}, {"45°/3", 0, "°", 15}, {"1in+10%", 1000, "", 196}, {"1IN", 0, "", 96}, {".5", 0, "", 0.5}, {"5.", 0, "", 5},
	} {
		got, err := sum.Read(c.text, c.whole, c.own)
		if err != nil || math.Abs(got-c.want) > 1e-9 {
			t.Errorf("%q of %v is %v, want %v: %v", c.text, c.whole, got, c.want, err)
		}
	}
	for _, text := range []string{"", "kite", "1+", "(1", "1)", "1/0", "0/0", "1 2", "1.2.3", "3 kites", "*3", "1e400", "()", "5 s"} {
		if v, err := sum.Read(text, 100, ""); err == nil {
			t.Errorf("%q was read as %v", text, v)
		}
	}
}

func TestTimesOfTheFilm(t *testing.T) {
	for text, want := range map[string]float64{"7.4": 7400, "0:07.40": 7400, "1:07,5": 67500, "2.5 s": 2500, "10/4": 2500, " 12:00 ": 720000, "0": 0} {
		if got, err := sum.Time(text); err != nil || math.Abs(got-want) > 1e-6 {
			t.Errorf("%q is %v ms, want %v: %v", text, got, want, err)
		}
	}
	for _, text := range []string{"", "-1", "1:60", "1:-2", "1:2:3", "a:02", "-1:02", "now"} {
		if v, err := sum.Time(text); err == nil {
			t.Errorf("%q was read as %v ms", text, v)
		}
	}
}

func FuzzRead(f *testing.F) {
	f.Add("1080/3+(2in-50%)*3", 1920.0, "px")
	f.Add("((((((((((1", 0.0, "°")
	f.Fuzz(func(t *testing.T, text string, whole float64, own string) {
		if v, err := sum.Read(text, whole, own); err == nil && (math.IsNaN(v) || math.IsInf(v, 0)) {
			t.Errorf("%q is %v", text, v)
		}
	})
}
