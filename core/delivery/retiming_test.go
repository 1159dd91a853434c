package delivery_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/text"
	"capstan/core/words"
)

// A frame that is held, dropped or given a time moves those behind it, and nothing else: of 200 random timings, files whose frames have times of
// their own show each for exactly that, and those of one rate show at each of their frames what the others do then.
func TestFramesAreTimedByHand(t *testing.T) {
	f := still(t, 2900)
	rng := rand.New(rand.NewPCG(26, 11))
	for round := range 200 {
		ask := delivery.Ask{Format: delivery.GIF, Height: 100, Rate: []doc.Rate{{Num: 25, Den: 1}, {Num: 30, Den: 1}, {Num: 10, Den: 1}, {Num: 30000, Den: 1001}}[round%4], From: int64(round%3) * 200}
		bare, err := delivery.Of(f, ask)
		if err != nil {
			t.Fatal(err)
		}
		n := bare.Frames(f)
		want := make([]float64, n) // ms of each
		each := 1000 * float64(bare.RateDen) / float64(bare.RateNum)
		for k := range want {
			want[k] = each
		}
		want[n-1] = float64(f.Order.Length-bare.From) - float64(n-1)*each
		for _, k := range rng.Perm(int(n))[:rng.IntN(int(n))] {
			ms := []int64{0, 20, 333, 4000}[rng.IntN(4)]
			ask.Times = append(ask.Times, delivery.Hold{Frame: int64(k), MS: ms})
			want[k] = float64(ms)
		}
		p, err := delivery.Of(f, ask)
		if err != nil {
			t.Fatal(err)
		}
		own, at, i := p.Sequence(f), 0.0, int64(0)
		var starts []float64
		var shown []int64
		for k, ms := range want {
			if ms == 0 {
				continue
			}
			if own.Frame(i) != int64(k) || math.Abs(own.Begins(i, p.RateNum, p.RateDen)-at) > 1e-6 {
				t.Fatalf("round %d: the %d-th is frame %d at %v, want %d at %v", round, i, own.Frame(i), own.Begins(i, p.RateNum, p.RateDen), k, at)
			}
			starts, shown = append(starts, at), append(shown, int64(k))
			at += ms
			i++
		}
		if own.Len() != i || math.Abs(float64(own.Length())-at) > 0.501 {
			t.Fatalf("round %d: %d frames in %d ms, want %d in %v", round, own.Len(), own.Length(), i, at)
		}
		ask.Format = delivery.MP4
		if p, err = delivery.Of(f, ask); err != nil {
			t.Fatal(err)
		}
		even := p.Sequence(f)
		if math.Abs(float64(even.Len())*each-at) > each {
			t.Fatalf("round %d: a video of %d frames, for %v ms", round, even.Len(), at)
		}
		for j := range even.Len() {
			i, now := 0, float64(j)*each
			for i+1 < len(starts) && starts[i+1] <= now+1e-6 {
				i++
			}
			if even.Frame(j) != shown[i] {
				t.Fatalf("round %d: at %v ms a video shows frame %d, want %d", round, now, even.Frame(j), shown[i])
			}
		}
	}
}

// What cannot be is said before anything starts.
func TestTimesThatCannotBe(t *testing.T) {
	f := still(t, 60_000)
	all := func(n int, ms int64) (list []delivery.Hold) {
		for k := range n {
			list = append(list, delivery.Hold{Frame: int64(k), MS: ms})
		}
		return list
	}
	for _, c := range []struct {
		format string
		frame  int64 // ms
		times  []delivery.Hold
		want   string
	}{
		{"gif", 100, []delivery.Hold{{Frame: -1, MS: 40}}, "export.hold-gone"},
		{"gif", 100, []delivery.Hold{{Frame: 600, MS: 40}}, "export.hold-gone"},
		{"gif", 100, []delivery.Hold{{Frame: math.MaxInt64, MS: 40}, {Frame: math.MinInt64, MS: 40}}, "export.hold-gone"},
		{"gif", 100, []delivery.Hold{{Frame: 3, MS: 40}, {Frame: 3, MS: 50}}, "export.hold-gone"},
		{"gif", 100, []delivery.Hold{{Frame: 3, MS: -1}}, "export.hold"},
		{"gif", 100, []delivery.Hold{{Frame: 3, MS: 10}}, "export.hold"},
		{"apng", 100, []delivery.Hold{{Frame: 3, MS: math.MaxInt64}}, "export.hold"},
		{"gif", 100, all(600, 0), "export.all-dropped"},
		{"gif", 100, all(600, 600_000), "export.too-long"},
		{"mp4", 5, all(30, 600_000), "export.frames"},
		{"apng", 5, all(20_001, 5), "export.holds"},
		{"png", 0, all(3, -7), ""},
	} {
		_, err := delivery.Of(f, delivery.Ask{Format: c.format, Height: 100, Frame: c.frame, Times: c.times})
		if c.want == "" && err != nil || c.want != "" && !words.Is(err, c.want) {
			t.Errorf("%s, %v: %v, want %s", c.format, c.times[:min(3, len(c.times))], err, c.want)
		}
	}
}

// still is a film of some ms of an empty page.
func still(t *testing.T, ms int64) *frame.Film {
	p := doc.NewProject("p", "Timed", 100, 100, "s")
	p.Film.Scenes[0].Stay = ms
	f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		t.Fatal(err)
	}
	return f
}
