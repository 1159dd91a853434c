package combine

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"capstan/core/geom"
)

// wavy is a ring of n curves that go out and in by about a quarter of the amplitude, px.
func wavy(t testing.TB, n int, amplitude, phase float64) *geom.Path {
	var s strings.Builder
	at := func(i, spread, r float64) string {
		a := (i + spread + phase) / float64(n) * 2 * math.Pi
		return fmt.Sprintf(" %f %f", 500+r*math.Cos(a), 500+r*math.Sin(a))
	}
	s.WriteString("M" + at(0, 0, 400))
	for i := range n {
		s.WriteString("C" + at(float64(i), 0.3, 400+amplitude) + at(float64(i), 0.6, 400-amplitude) + at(float64(i), 1, 400))
	}
	return read(t, s.String()+"Z")
}

// Two paths of 500 curves each, with a thousand crossings: at most 15 ms is asked for.
func BenchmarkCombine500(b *testing.B) { combine500(b, 6) }

// The same with curves that turn back four times each, so that there is five times as much to lay over each other.
func BenchmarkCombine500Turning(b *testing.B) { combine500(b, 40) }

func combine500(b *testing.B, amplitude float64) {
	p, q := wavy(b, 500, amplitude, 0), wavy(b, 500, amplitude, 0.37)
	out, err := Areas(Unite, Area{Path: p}, Area{Path: q})
	if err != nil {
		b.Fatal(err)
	}
	b.ReportMetric(float64(len(out.Verbs)), "segments")
	for b.Loop() {
		Areas(Unite, Area{Path: p}, Area{Path: q})
	}
}

func BenchmarkCombineFour(b *testing.B) {
	p, q := read(b, rounded), read(b, at(disc, 30, 40))
	for b.Loop() {
		Areas(CutAway, Area{Path: p}, Area{Path: q})
	}
}
