package sound

import (
	"math"
	"math/rand/v2"
	"testing"
)

// struck is a track with a beat: drums on it, softer ones between, over chords and noise. beats are when they are, in frames.
func struck(pace, seconds float64, seed uint64) (samples []float32, beats []int64) {
	r := rand.New(rand.NewPCG(seed, 11))
	samples = make([]float32, int(seconds*Rate))
	drum := func(at int64, loud, hz float64) {
		for i := range int64(Rate / 8) {
			if k := at + i; k < int64(len(samples)) {
				t := float64(i) / Rate
				samples[k] += float32(loud * math.Exp(-t*40) * (math.Sin(2*math.Pi*hz*t) + 0.4*(r.Float64()*2-1)))
			}
		}
	}
	first := int64((0.1 + 0.5*r.Float64()) * Rate)
	for n := 0; ; n++ {
		at := first + int64(math.Round(float64(n)*60/pace*Rate)) + int64(r.IntN(240)-120) // by hand, up to 2.5 ms off
		if at >= int64(len(samples))-Rate/4 {
			break
		}
		beats = append(beats, at)
		drum(at, 0.5+0.2*r.Float64(), []float64{70, 190}[n%2])
		if r.IntN(3) > 0 {
			drum(at+int64(30/pace*Rate), 0.12, 900)
		}
	}
	hz := 110 * math.Pow(2, float64(r.IntN(12))/12)
	for i := range samples {
		t := float64(i) / Rate
		samples[i] += float32(0.06*(math.Sin(2*math.Pi*hz*t)+math.Sin(2*math.Pi*hz*1.5*t)) + 0.01*(r.Float64()*2-1))
	}
	return samples, beats
}

// Of tracks with known beats from 72 to 168 a minute, 19 of 20 are found within 20 ms, and no more than there are; silence, a tone and noise have none that matter.
func TestBeatsAreFound(t *testing.T) {
	for i := range 13 {
		pace := 72 + 8*float64(i)
		samples, want := struck(pace, 16, uint64(i))
		got := Beats(samples)
		hit := 0
		for _, w := range want {
			for _, g := range got {
				if d := g - w; d < Rate/50 && d > -Rate/50 {
					hit++
					break
				}
			}
		}
		t.Logf("%3.0f a minute: %d of %d, %d found", pace, hit, len(want), len(got))
		if 20*hit < 19*len(want) || len(got) > len(want)+2 {
			t.Errorf("%.0f a minute: %d of %d beats are found, of %d", pace, hit, len(want), len(got))
		}
	}
	if got := Beats(make([]float32, 10*Rate)); len(got) > 0 {
		t.Errorf("silence has %d beats", len(got))
	}
	if got := Beats(make([]float32, 100)); len(got) > 0 {
		t.Errorf("a moment has %d beats", len(got))
	}
}
