package demo

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"math"
	"math/rand/v2"

	"capstan/core/doc"
)

// The sounds of the demo are made here, by sums and a generator of numbers, so that nothing foreign ships.

const second = doc.SampleRate

// Recording is a sound of the demo: a WAV file, and what it is called.
type Recording struct {
	Name string
	Data func() []byte
}

// Recordings are the sounds of the demo, by what they are here.
var Recordings = map[string]Recording{
	"tune": {"Fennel Quay tune.wav", func() []byte { return wav(tuneSound()) }},
	"wind": {"Wind.wav", func() []byte { return wav(windSound()) }},
	"gull": {"Gull.wav", func() []byte { return wav(gullSound()) }},
}

// Line is what is spoken in the opener.
var Line = doc.Spoken{Text: "Come and fly with us. Forty kites, one quay.", Voice: "en-gb", Variant: "f2", Rate: 0.95, Pause: 250}

// wav is a file of 16 bits a sample, one channel.
func wav(samples []float64) []byte {
	var b bytes.Buffer
	put := func(v any) { _ = binary.Write(&b, binary.LittleEndian, v) }
	n := uint32(2 * len(samples))
	b.WriteString("RIFF")
	put(36 + n)
	b.WriteString("WAVEfmt ")
	put([]uint32{16, 1 | 1<<16, second, 2 * second, 2 | 16<<16})
	b.WriteString("data")
	put(n)
	for _, v := range samples {
		put(int16(math.Round(32767 * min(1, max(-1, v)))))
	}
	return b.Bytes()
}

// tuneSound is a melody in G on plucked strings over slow chords, 100 beats a minute.
func tuneSound() []float64 {
	const beat = 0.6
	out := make([]float64, 14*second)
	hz := func(step float64) float64 { return 196 * math.Pow(2, step/12) } // steps from G
	melody := []struct{ at, step float64 }{
		{0, 12}, {1, 16}, {1.5, 19}, {2, 21}, {3, 19}, {4, 16}, {4.5, 14}, {5, 12}, {6, 14}, {7, 16}, {7.5, 19}, {8, 24}, {9, 21}, {9.5, 19}, {10, 16}, {11, 14},
		{12, 12}, {12.5, 14}, {13, 16}, {14, 19}, {15, 21}, {15.5, 23}, {16, 24}, {17, 19}, {18, 16}, {19, 14}, {20, 12},
	}
	r := rand.New(rand.NewPCG(12, 5))
	for _, n := range melody {
		pluck(out, n.at*beat, hz(n.step), 0.34, r)
	}
	for bar, chord := range [][]float64{{0, 4, 7}, {-3, 0, 4}, {5, 9, 12}, {2, 5, 9}, {0, 4, 7}} {
		for _, step := range chord {
			pad(out, float64(bar)*4*beat, 4.4*beat, hz(step), 0.045)
		}
		pluck(out, float64(bar)*4*beat, hz(chord[0])/2, 0.3, r)
	}
	return brought(out, 0.7)
}

// brought makes samples so loud that the greatest is so high.
func brought(out []float64, to float64) []float64 {
	most := 0.0
	for _, v := range out {
		most = max(most, math.Abs(v))
	}
	for i := range out {
		out[i] *= to / most
	}
	return out
}

// pluck adds a plucked string (Karplus and Strong, 1983): noise that goes round a loop as long as its wave, and is smoothed each time.
func pluck(out []float64, at, hz, loud float64, r *rand.Rand) {
	n := int(second/hz + 0.5)
	loop := make([]float64, n)
	for i := range loop {
		loop[i] = r.Float64()*2 - 1
	}
	before := 0.0
	for i := range int(2.2 * second) {
		k := int(at*second) + i
		if k >= len(out) {
			return
		}
		v := loop[i%n]
		loop[i%n] = 0.497 * (v + loop[(i+1)%n])
		before += 0.5 * (v - before)
		out[k] += loud * before
	}
}

// pad adds a soft tone that swells and goes.
func pad(out []float64, at, long, hz, loud float64) {
	for i := range int(long * second) {
		k := int(at*second) + i
		if k >= len(out) {
			return
		}
		t := float64(i) / second
		swell := math.Pow(math.Sin(math.Pi*t/long), 0.7)
		out[k] += loud * swell * (math.Sin(2*math.Pi*hz*t) + 0.4*math.Sin(4*math.Pi*hz*t+0.3) + 0.3*math.Sin(2*math.Pi*hz*1.004*t))
	}
}

// windSound is noise through a filter that swells.
func windSound() []float64 {
	const long = 4
	r := rand.New(rand.NewPCG(3, 9))
	out := make([]float64, long*second)
	var low, band float64
	for i := range out {
		t := float64(i) / second
		hz := 420 + 260*math.Sin(2*math.Pi*t/long) + 90*math.Sin(2*math.Pi*3*t/long)
		f := 2 * math.Sin(math.Pi*hz/second)
		low += f * band
		band += f * (r.Float64()*2 - 1 - low - 0.35*band)
		out[i] = band * (0.7 + 0.3*math.Sin(2*math.Pi*t/long-1))
	}
	return brought(out, 0.5)
}

// gullSound is three cries, each a tone that rises and falls.
func gullSound() []float64 {
	out := make([]float64, second*3/2)
	for _, at := range []float64{0.02, 0.48, 0.86} {
		phase := 0.0
		for i := range second * 2 / 5 {
			t := float64(i) / (0.4 * second)
			phase += 2 * math.Pi * (900 + 750*math.Sin(math.Pi*math.Pow(t, 0.6)) + 40*math.Sin(60*t)) / second
			loud := 0.3 * math.Sin(math.Pi*t) * math.Exp(-2*t)
			if k := int(at*second) + i; k < len(out) {
				out[k] += loud * (math.Sin(phase) + 0.5*math.Sin(2*phase) + 0.25*math.Sin(3*phase))
			}
		}
	}
	return brought(out, 0.6)
}

// Sounded gives the opener its sounds: a tune under all of it, wind that goes along with the kite, and a gull. taken are the recordings as they were taken in, by
// what they are here; said is what the voice among them, where there is one, was made of.
func Sounded(p *doc.Project, taken map[string]string, facts map[string]*doc.Media, said *doc.Spoken) *doc.Project {
	for name, hash := range taken {
		p.Media[hash] = facts[name]
	}
	length := int64(0)
	for i, s := range p.Film.Scenes {
		length += s.Stay
		if i > 0 {
			length += s.Transition.Duration
		}
	}
	p.Film.Sounds = []*doc.Sound{{ID: "tune", Name: "Tune", Media: taken["tune"], Use: doc.Music, Start: at(0), Length: length, FadeIn: 200, FadeOut: 1500, Gain: -3}}
	for _, s := range p.Film.Scenes[:2] {
		kite := s.Thread("t-kite")
		if kite == nil {
			continue
		}
		for _, m := range kite.Moves {
			if m.Kind == doc.MotionPath {
				s.Sounds = append(s.Sounds, &doc.Sound{
					ID: s.ID + "-wind", Name: "Wind", Media: taken["wind"], Use: doc.Noise, Start: doc.Start{When: doc.WhenBegins, Of: m.ID}, End: &doc.Anchor{When: doc.WhenEnds, Of: m.ID, Stretches: true},
					Length: m.Duration, Loops: true, FadeIn: 250, FadeOut: int64(0.3 * float64(m.Duration)), Gain: -8, Along: true,
				})
			}
		}
	}
	if v := facts["voice"]; v != nil {
		p.Film.Captions = &doc.Captioned{}
		voice := &doc.Sound{
			ID: "voice", Name: "Come and fly with us", Media: taken["voice"], Use: doc.Voice, Start: at(300), Length: max(doc.MinDuration, v.Samples*1000/second), Spoken: said, Gain: -1,
		}
		for i, w := range said.Words {
			voice.Marks = append(voice.Marks, doc.SoundMark{ID: fmt.Sprint("voice-word-", i), At: w.At, Name: w.Text, Word: true})
		}
		p.Film.Scenes[1].Sounds = append(p.Film.Scenes[1].Sounds, voice)
	}
	p.Film.Scenes[1].Sounds = append(p.Film.Scenes[1].Sounds, &doc.Sound{ID: "gull", Name: "Gull", Media: taken["gull"], Use: doc.Noise, Start: at(1500), Length: 1500, Gain: -14, Pan: 0.5})
	return p
}
