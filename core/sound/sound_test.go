package sound

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/text"
)

// tapes are recordings in memory, by their names.
type tapes map[string]tape

type tape struct {
	channels int
	samples  []float32
}

func (t tapes) Read(media string, channels int, from int64, to []float32) bool {
	v := t[media]
	if channels != v.channels || from < 0 || int(from)*channels+len(to) > len(v.samples) {
		panic(fmt.Sprintf("%s is asked for %d samples from %d on", media, len(to), from))
	}
	copy(to, v.samples[int(from)*channels:])
	return true
}

// played is a recording of so many frames, worked out channel by channel.
func played(channels, frames int, f func(i, c int) float64) tape {
	t := tape{channels, make([]float32, channels*frames)}
	for i := range frames {
		for c := range channels {
			t.samples[i*channels+c] = float32(f(i, c))
		}
	}
	return t
}

func sine(hz, amplitude float64) func(i, c int) float64 {
	return func(i, _ int) float64 { return amplitude * math.Sin(2*math.Pi*hz*float64(i)/Rate) }
}

func noise(seed uint64) func(i, c int) float64 {
	r := rand.New(rand.NewPCG(seed, 3))
	return func(int, int) float64 { return r.Float64()*2 - 1 }
}

// scored is the score of a film of one scene with sounds on its clock.
func scored(t *testing.T, ms int64, tapes tapes, sounds ...*doc.Sound) *Score {
	t.Helper()
	p := doc.NewProject("p", "Film", 320, 240, "s")
	p.Film.Scenes[0].Stay = ms
	p.Media = map[string]*doc.Media{}
	for name, v := range tapes {
		p.Media[name] = &doc.Media{Type: "audio/wav", Samples: int64(len(v.samples) / v.channels), Channels: v.channels}
	}
	for i, s := range sounds {
		if s.ID == "" {
			s.ID = fmt.Sprintf("q%d", i)
		}
		if s.Start.When == "" {
			s.Start.When = doc.AtTime
		}
		if s.Length == 0 {
			s.Length = ms
		}
		if s.Use == "" {
			s.Use = doc.Noise
		}
	}
	p.Film.Scenes[0].Sounds = sounds
	f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		t.Fatal(err)
	}
	return Of(f)
}

func mixed(s *Score, src Source) []float32 {
	out := make([]float32, 2*s.Length)
	(&Mixer{Score: s, Source: src}).Mix(0, out)
	return out
}

// power is the mean square of both channels between two frames.
func power(out []float32, from, to int) float64 {
	sum := 0.0
	for _, v := range out[2*from : 2*to] {
		sum += float64(v) * float64(v)
	}
	return sum / float64(2*(to-from))
}

func near(t *testing.T, what string, got, want, by float64) {
	t.Helper()
	if !(math.Abs(got-want) <= by) {
		t.Errorf("%s is %v, want %v", what, got, want)
	}
}

// Sums worked by hand: volume 10 beside 50 is -13.98 dB (common practice); what is mixed is the sum; a crossfade of even power keeps the power of two noises.
func TestWhatIsMixedIsTheSum(t *testing.T) {
	near(t, "10 beside 50", Decibels(10.0/50), -13.98, 0.005)
	src := tapes{"a": played(2, 2*Rate, sine(440, 0.5)), "b": played(1, 2*Rate, sine(997, 0.25)), "n": played(1, Rate, noise(1)), "m": played(1, Rate, noise(2))}
	s := scored(t, 2000, src, &doc.Sound{Media: "a", Gain: Decibels(10.0 / 50)}, &doc.Sound{Media: "b", Pan: 1})
	out := mixed(s, src)
	for _, i := range []int{0, 1, 777, 40001, 95999} {
		a, b := sine(440, 0.1)(i, 0), sine(997, 0.25*math.Sqrt2)(i, 0)
		near(t, fmt.Sprintf("left at %d", i), float64(out[2*i]), a, 2e-7)
		near(t, fmt.Sprintf("right at %d", i), float64(out[2*i+1]), a+b, 2e-7)
	}
	s = scored(t, 1500, src, &doc.Sound{Media: "n", Length: 1000, FadeOut: 500}, &doc.Sound{Media: "m", Start: doc.Start{Offset: 500}, FadeIn: 500, Length: 1000})
	out = mixed(s, src)
	whole := power(out, 0, Rate/2)
	for i := range 5 {
		near(t, "power in a crossfade", power(out, Rate/2+i*4800, Rate/2+(i+1)*4800)/whole, 1, 0.06)
	}
	// Curves at their middles: even power is -3 dB, an even line -6 dB, even decibels half their depth.
	for curve, want := range map[string]float64{doc.EvenPower: -3.0103, doc.EvenLine: -6.0206, doc.EvenLevel: -30} {
		near(t, "the middle of a fade "+curve, Decibels(Faded(curve, 0.5)), want, 0.001)
		near(t, "its begin", Faded(curve, 0), 0, 0)
		near(t, "its end", Faded(curve, 1), 1, 0)
	}
	// A volume in its course: 0 dB at first, -12 in the middle of two points, silence from its end on.
	s = scored(t, 2000, src, &doc.Sound{Media: "a", Length: 1500, Points: []doc.VolumePoint{{At: 200, Gain: 0}, {At: 1200, Gain: -24}}})
	v := func(ms int64) float64 { return Decibels(s.volume(s.Parts[0], Frames(ms))) }
	near(t, "the volume at first", v(100), 0, 1e-9)
	near(t, "between two points", v(700), -12, 1e-9)
	near(t, "after the last", v(1400), -24, 1e-9)
	if out = mixed(s, src); power(out, Rate*3/2, 2*Rate) != 0 || power(out, Rate*3/2-100, Rate*3/2) == 0 {
		t.Error("it does not end where it should, to the sample")
	}
}

// However a film is asked for, in stretches of any lengths, each sample is the same: with loops, other speeds, fades, panning, stepping back and turned down peaks.
func TestAnyStretchIsTheSame(t *testing.T) {
	src := tapes{"a": played(2, 30000, noise(5)), "b": played(1, 12345, noise(6)), "v": played(1, 20000, noise(7))}
	s := scored(t, 3000, src,
		&doc.Sound{Media: "a", Use: doc.Music, Loops: true, FadeIn: 300, FadeOut: 500, Gain: -3, Pan: 0.3},
		&doc.Sound{Media: "b", Loops: true, Speed: 1.37, From: 20, Start: doc.Start{Offset: 111}, Length: 1800, Points: []doc.VolumePoint{{At: 0, Gain: -20}, {At: 900, Gain: 3}}},
		&doc.Sound{Media: "v", Use: doc.Voice, Start: doc.Start{Offset: 1300}, Length: 400, Speed: 0.7, Pan: -0.6},
		&doc.Sound{Media: "a", Loops: true, Speed: 0.8, KeepsPitch: true, From: 35, Start: doc.Start{Offset: 70}, Gain: -9})
	for _, level := range []Level{{}, {Gain: 4, Limited: true}} {
		s.Level = level
		whole := mixed(s, src)
		r := rand.New(rand.NewPCG(8, 8))
		m := &Mixer{Score: s, Source: src}
		for range 200 {
			n := 1 + r.IntN(3000)
			from := r.IntN(int(s.Length) - n)
			part := make([]float32, 2*n)
			m.Mix(int64(from), part)
			if !slices.Equal(part, whole[2*from:2*(from+n)]) {
				t.Fatalf("%d frames from %d on are others, level %v", n, from, level)
			}
		}
		if level.Limited {
			meter := NewMeter()
			meter.Write(whole)
			if p := meter.Measured().Peak; p > Ceiling || p < Ceiling-1 {
				t.Errorf("peaks that are turned down are at %.2f dBTP", p)
			}
		}
	}
	beside := make([]float32, 2000)
	(&Mixer{Score: s, Source: src}).Mix(s.Length-500, beside)
	if power(beside, 520, 1000) != 0 {
		t.Error("something is heard after the end")
	}
}

// Music stands back by so much when a voice begins, comes back after it has ended, and stays where it would have no time to; a voice that is muted does nothing.
func TestMusicStepsBackUnderVoices(t *testing.T) {
	src := tapes{"m": played(2, 10*Rate, noise(1)), "v": played(1, Rate, noise(2))}
	voice := func(at int64, muted bool) *doc.Sound {
		return &doc.Sound{Media: "v", Use: doc.Voice, Start: doc.Start{Offset: at}, Length: 1000, Muted: muted}
	}
	s := scored(t, 10000, src, &doc.Sound{Media: "m", Use: doc.Music}, voice(2000, false), voice(4000, false), voice(8000, true))
	for at, want := range map[int64]float64{0: 0, 1699: 0, 1850: -6, 2000: -12, 2500: -12, 3500: -12, 5000: -12, 5400: -6, 5800: 0, 8500: 0} {
		near(t, fmt.Sprintf("the volume at %d ms", at), Decibels(s.volume(s.Parts[0], Frames(at))), want, 0.001)
	}
}

// A tone that loops goes on at its joint without a click: nowhere is it rougher than a tone is.
func TestLoopsHaveNoClick(t *testing.T) {
	src := tapes{"a": played(1, 20011, sine(331, 0.5))}
	s := scored(t, 3000, src, &doc.Sound{Media: "a", Loops: true})
	out := mixed(s, src)
	bend := 4 * math.Pow(math.Sin(math.Pi*331/Rate), 2) * 0.5 // the greatest second difference of the tone
	for i := 1; i+1 < len(out)/2; i++ {
		d := math.Abs(float64(out[2*i-2]) - 2*float64(out[2*i]) + float64(out[2*i+2]))
		if d > 3*bend {
			t.Fatalf("at frame %d it bends by %.5f; a tone bends by %.5f at most", i, d, bend)
		}
	}
	if power(out, 2*Rate, 3*Rate) < 0.05 {
		t.Error("it does not go on")
	}
}

// What pans keeps its power where it is one channel, and goes over into the other where it is two (Web Audio API 1.1, StereoPannerNode, its sums worked by hand).
func TestPanning(t *testing.T) {
	for pan := -1.0; pan <= 1; pan += 0.25 {
		v := sides(1, pan)
		if pan != 0 {
			near(t, "the power of one channel", v[0]*v[0]+v[1]*v[1], 2, 1e-12)
		}
	}
	for _, c := range []struct {
		pan  float64
		want [4]float64
	}{{-1, [4]float64{1, 0, 1, 0}}, {1, [4]float64{0, 1, 0, 1}}, {0, [4]float64{1, 0, 0, 1}}, {-0.5, [4]float64{1, 0, math.Sqrt2 / 2, math.Sqrt2 / 2}}} {
		for i, v := range sides(2, c.pan) {
			near(t, fmt.Sprintf("share %d at %v", i, c.pan), v, c.want[i], 1e-12)
		}
	}
	// A sound that goes along with a layer is where that is: from the left side to the right.
	p := doc.NewProject("p", "Film", 400, 200, "s")
	sc := p.Film.Scenes[0]
	sc.Stay = 2000
	sc.Layers = []*doc.Layer{{ID: "l", Thread: "l", Name: "Kite", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#ff0000"}, Place: doc.Place{X: 0, Y: 100, W: 20, H: 20},
		Moves: []*doc.Move{{ID: "m", Kind: doc.MotionPath, Effect: doc.Along, Duration: 2000, Easing: "linear", Start: doc.Start{When: doc.AtTime}, Path: &doc.PathParams{D: "M0 0L400 0"}}}}}
	sc.Sounds = []*doc.Sound{{ID: "q", Name: "Wind", Media: "a", Use: doc.Noise, Start: doc.Start{When: doc.WhenBegins, Of: "m"}, End: &doc.Anchor{When: doc.WhenEnds, Of: "m", Stretches: true}, Length: 9000, Along: true}}
	p.Media = map[string]*doc.Media{"a": {Type: "audio/wav", Samples: 2 * Rate, Channels: 1}}
	f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		t.Fatal(err)
	}
	s := Of(f)
	if q := s.Parts[0]; q.Begin != 0 || q.End != 2*Rate {
		t.Errorf("it is heard from %d to %d", q.Begin, q.End)
	}
	for at, want := range map[int64]float64{0: -1, 500: -0.5, 1000: 0, 1500: 0.5} {
		near(t, fmt.Sprintf("where it is at %d ms", at), s.Parts[0].panned(Frames(at)), want, 0.001)
	}
}

// BenchmarkMix mixes 20 tracks for a second of film: what it is to be faster than is a second, a hundredfold.
func BenchmarkMix(b *testing.B) {
	src := tapes{"a": played(2, 3*Rate, noise(5)), "v": played(1, Rate, noise(7))}
	p := doc.NewProject("p", "Film", 320, 240, "s")
	p.Media = map[string]*doc.Media{}
	for name, v := range src {
		p.Media[name] = &doc.Media{Type: "audio/wav", Samples: int64(len(v.samples) / v.channels), Channels: v.channels}
	}
	for i := range 20 {
		q := &doc.Sound{ID: fmt.Sprint("q", i), Media: "a", Use: doc.Music, Loops: true, Length: 4000, FadeIn: 2000, Pan: 0.2, Start: doc.Start{When: doc.AtTime}}
		if i%4 == 0 {
			q.Use, q.Media = doc.Voice, "v"
		}
		p.Film.Sounds = append(p.Film.Sounds, q)
	}
	f, err := frame.Compile(p, frame.Assets{Fonts: &text.Book{}}, nil)
	if err != nil {
		b.Fatal(err)
	}
	m := &Mixer{Score: Of(f), Source: src}
	out := make([]float32, 2*4800)
	for b.Loop() {
		for at := int64(0); at < Rate; at += 4800 {
			m.Mix(at, out)
		}
	}
}

// At another speed at the same pitch a tone has as many waves a second as before and is as loud all along, and what happens in a recording happens so much sooner or
// later.
func TestPitchIsKept(t *testing.T) {
	const hz = 233.0
	clicks := played(1, 4*Rate, func(i, _ int) float64 {
		if i%(Rate/2) < Rate*2/25 { // what is shorter may lie between two grains
			return 0.8
		}
		return 0
	})
	for _, speed := range []float64{0.5, 0.8, 1.25, 2, 3.7} {
		src := tapes{"tone": played(2, 12*Rate, func(i, c int) float64 { return sine(hz, 0.5)(i, c) + sine(3*hz, 0.1)(i, c) }), "clicks": clicks}
		out := mixed(scored(t, 3000, src, &doc.Sound{Media: "tone", Speed: speed, KeepsPitch: true}), src)
		waves, jump := 0, 0.0
		for i := Rate / 10; i < 29*Rate/10; i++ {
			if out[2*i] < 0 && out[2*i+2] >= 0 {
				waves++
			}
			jump = max(jump, math.Abs(float64(out[2*i+2]-out[2*i])))
		}
		near(t, fmt.Sprintf("waves a second at %v times the speed", speed), float64(waves)/2.8, hz, 1)
		natural := 2 * math.Pi * hz / Rate * (0.5 + 3*0.1)
		if jump > 1.5*natural {
			t.Errorf("at %v times the speed it jumps by %.4f where a wave goes by %.4f at most", speed, jump, natural)
		}
		for at := Rate / 10; at+Rate/20 < 29*Rate/10; at += Rate / 20 {
			near(t, fmt.Sprintf("dB at %v times the speed, %d ms", speed, at/48), 10*math.Log10(power(out, at, at+Rate/20)/0.13), 0, 1.5)
		}
		out = mixed(scored(t, 1000, src, &doc.Sound{Media: "clicks", Speed: speed, KeepsPitch: true}), src)
		for k := 0; float64(k)*0.5/speed < 0.95 && k < 8; k++ {
			loud := 0
			for i := max(0, int(float64(k)*0.5/speed*Rate)-Rate/50); i < min(len(out)/2, int(float64(k)*0.5/speed*Rate)+Rate/50); i++ {
				if out[2*i] > 0.3 {
					loud++
				}
			}
			if loud < 40 {
				t.Errorf("at %v times the speed burst %d is not where it should be", speed, k)
			}
		}
	}
}

func BenchmarkPitchKept(b *testing.B) {
	src := tapes{"a": played(2, 10*Rate, noise(5))}
	p := &Part{Sound: &doc.Sound{Media: "a", Loops: true}, Recording: &doc.Media{Samples: 10 * Rate, Channels: 2}}
	out := make([]float32, 2*Rate)
	var scratch []float32
	for b.Loop() {
		p.grains = &grains{speed: 0.8, runs: map[int64][]int16{}}
		p.stretched(src, 0, out, &scratch)
	}
	b.ReportMetric(float64(b.N)/b.Elapsed().Seconds(), "times-as-fast-as-it-plays")
}
