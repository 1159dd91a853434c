package sound

import "math"

// Loudness and true peak after ITU-R BS.1770-4: two filters, mean squares over 400 ms every 100 ms, gated at -70 LUFS and 10 LU below the mean of the rest; peaks
// of a signal of four times the rate.

// Measured is how loud a stretch of sound is.
type Measured struct {
	Loudness float64 `json:"loudness"` // LUFS; -Inf where it is silent
	Peak     float64 `json:"peak"`     // dBTP; -Inf likewise
}

// Meter measures what is written to it.
type Meter struct {
	k     [2][2]biquad
	sums  []float64 // of squares, of both channels, over each tenth of a second
	sum   float64
	n     int
	peak  float64
	tails [2][2 * peakHalf]float64 // the last samples of a channel, twice, so that a window of them lies in one piece
	at    int
	tops  [2]float64 // the greatest amplitude since the tails began anew, and in their round before
}

// biquad is a filter of second order in transposed direct form II.
type biquad struct{ b0, b1, b2, a1, a2, s1, s2 float64 }

func (f *biquad) next(x float64) float64 {
	y := f.b0*x + f.s1
	f.s1 = f.b1*x - f.a1*y + f.s2
	f.s2 = f.b2*x - f.a2*y
	return y
}

// NewMeter returns a meter for Rate frames a second.
func NewMeter() *Meter {
	m := &Meter{}
	for c := range m.k {
		// BS.1770-4, tables 1 and 2: coefficients at 48 kHz.
		m.k[c][0] = biquad{b0: 1.53512485958697, b1: -2.69169618940638, b2: 1.19839281085285, a1: -1.69065929318241, a2: 0.73248077421585}
		m.k[c][1] = biquad{b0: 1, b1: -2, b2: 1, a1: -1.99004745483398, a2: 0.99007225036621}
	}
	return m
}

const tenth = Rate / 10

// Write measures frames of left and right in turns.
func (m *Meter) Write(frames []float32) {
	for i := 0; i+1 < len(frames); i += 2 {
		for c := range 2 {
			x := float64(frames[i+c])
			if math.IsNaN(x) || math.IsInf(x, 0) {
				x = 0
			}
			m.tops[0] = max(m.tops[0], x, -x)
			y := m.k[c][1].next(m.k[c][0].next(x))
			m.sum += y * y
			m.tails[c][m.at], m.tails[c][m.at+peakHalf] = x, x
		}
		around := max(m.tops[0], m.tops[1])
		if m.at++; m.at == peakHalf {
			m.at, m.tops = 0, [2]float64{0, m.tops[0]}
		}
		for c := 0; c < 2 && around*overshoot > m.peak; c++ {
			m.peak = max(m.peak, peakIn(m.tails[c][m.at:m.at+peakHalf], m.peak))
		}
		if m.n++; m.n == tenth {
			m.sums = append(m.sums, m.sum)
			m.sum, m.n = 0, 0
		}
	}
}

// Measured returns what was measured so far.
func (m *Meter) Measured() Measured {
	var blocks []float64
	for i := 0; i+4 <= len(m.sums); i++ {
		blocks = append(blocks, (m.sums[i]+m.sums[i+1]+m.sums[i+2]+m.sums[i+3])/(4*tenth))
	}
	if len(blocks) == 0 { // shorter than a block: as if it were one
		sum, n := m.sum, m.n
		for _, v := range m.sums {
			sum, n = sum+v, n+tenth
		}
		if n > 0 {
			blocks = append(blocks, sum/float64(n))
		}
	}
	mean := func(above float64) float64 {
		sum, n := 0.0, 0
		for _, b := range blocks {
			if lufs(b) > above {
				sum, n = sum+b, n+1
			}
		}
		if n == 0 {
			return 0
		}
		return sum / float64(n)
	}
	out := Measured{Loudness: math.Inf(-1), Peak: Decibels(m.peak)}
	if rough := mean(-70); rough > 0 {
		out.Loudness = lufs(mean(max(-70, lufs(rough)-10)))
	}
	return out
}

func lufs(square float64) float64 { return -0.691 + 10*math.Log10(square) }

// peakHalf is how many samples each of the four that stand for one is worked out from.
const peakHalf = 24

// peakPhases are the weights of the three samples between two, and none for that which is there.
var peakPhases = func() (out [3][peakHalf]float64) {
	for ph := range out {
		sum := 0.0
		for i := range peakHalf {
			x := float64(i-peakHalf/2+1) - float64(ph+1)/4
			w := sinc(x) * kaiser(x/(peakHalf/2))
			out[ph][i] = w
			sum += w
		}
		for i := range peakHalf {
			out[ph][i] /= sum
		}
	}
	return out
}()

// overshoot is by how many times what lies between samples is beyond the greatest of those around at most.
var overshoot = func() (most float64) {
	for ph := range peakPhases {
		sum := 0.0
		for _, v := range peakPhases[ph] {
			sum += math.Abs(v)
		}
		most = max(most, sum)
	}
	return most
}()

// peakIn is the greatest amplitude around the middle of so many samples, between them, too, where that is beyond known.
func peakIn(w []float64, known float64) float64 {
	w = w[:peakHalf]
	most := math.Abs(w[peakHalf/2-1])
	around := 0.0
	for _, v := range w {
		around = max(around, math.Abs(v))
	}
	if around*overshoot <= known {
		return most
	}
	for ph := range peakPhases {
		sum := 0.0
		for i, v := range peakPhases[ph][:] {
			sum += v * w[i]
		}
		most = max(most, math.Abs(sum))
	}
	return most
}

// Level is how a score is brought to a loudness.
type Level struct {
	Gain    float64 `json:"gain"`    // dB
	Limited bool    `json:"limited"` // peaks would go beyond Ceiling: they are turned down
}

// Ceiling is what true peaks stay below where a film is brought to a loudness, in dBTP.
const Ceiling = -1

// To returns the level that brings something so loud to a target in LUFS, at most by mostRaised.
func (m Measured) To(target float64) Level {
	if target == 0 || math.IsInf(m.Loudness, 0) {
		return Level{}
	}
	g := min(target-m.Loudness, mostRaised)
	return Level{Gain: g, Limited: m.Peak+g > Ceiling-0.05}
}

// mostRaised is by how many dB a film is made louder at most: what is nearly silent would be noise.
const mostRaised = 30

// Measure mixes all of a score, without its level, and measures it. It gives up with goOn's error, which is asked every second of film.
func Measure(s *Score, src Source, goOn func(done int64) error) (Measured, error) {
	bare := *s
	bare.Level = Level{}
	m, meter := &Mixer{Score: &bare, Source: src}, NewMeter()
	buf := make([]float32, 2*Rate)
	for at := int64(0); at < s.Length; at += Rate {
		if goOn != nil {
			if err := goOn(at); err != nil {
				return Measured{}, err
			}
		}
		part := buf[:2*min(Rate, s.Length-at)]
		m.Mix(at, part)
		meter.Write(part)
	}
	meter.Write(make([]float32, 2*peakHalf)) // peaks near the end
	return meter.Measured(), nil
}
