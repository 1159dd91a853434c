package sound

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"testing"

	"capstan/core/doc"
)

func raw(samples []float32) []byte {
	var b bytes.Buffer
	_ = binary.Write(&b, binary.LittleEndian, samples)
	return b.Bytes()
}

// sox runs sox on samples, and returns what it makes of them.
func sox(t *testing.T, samples []float32, channels int, effects ...string) []float32 {
	t.Helper()
	name := filepath.Join(t.TempDir(), "in.f32")
	if err := os.WriteFile(name, raw(samples), 0o600); err != nil {
		t.Fatal(err)
	}
	form := []string{"-t", "f32", "-r", fmt.Sprint(Rate), "-c", fmt.Sprint(channels)}
	out, err := exec.Command("sox", append(append(append(append([]string{"-D"}, form...), name), append(form, "-")...), effects...)...).Output()
	if err != nil {
		t.Fatalf("sox (Debian's package): %v", err)
	}
	list := make([]float32, len(out)/4)
	_ = binary.Read(bytes.NewReader(out), binary.LittleEndian, list)
	return list
}

// Fades, volumes and speeds are those that sox makes: its fades q (a quarter of a sine) and t (straight), vol in dB, speed with rate -v.
func TestFadesAndSpeedsAreThoseOfSox(t *testing.T) {
	tone := func(i, c int) float64 { return sine(440, 0.3)(i, c) + sine(3100, 0.2)(i, c) }
	src := tapes{"a": played(1, 2*Rate, tone)}
	left := func(s *Score) []float32 {
		out := mixed(s, src)
		one := make([]float32, len(out)/2)
		for i := range one {
			one[i] = out[2*i]
		}
		return one
	}
	for _, c := range []struct {
		name    string
		sound   doc.Sound
		effects []string
		from    int // frames at either end that are not looked at
	}{
		{"a quarter of a sine", doc.Sound{FadeIn: 500, FadeOut: 700}, []string{"fade", "q", "0.5", "2", "0.7"}, 0},
		{"straight", doc.Sound{FadeIn: 500, FadeOut: 700, Curve: doc.EvenLine}, []string{"fade", "t", "0.5", "2", "0.7"}, 0},
		{"-7.5 dB", doc.Sound{Gain: -7.5}, []string{"vol", "-7.5dB"}, 0},
		{"faster", doc.Sound{Speed: 1.25, Length: 1600}, []string{"speed", "1.25", "rate", "-v", fmt.Sprint(Rate)}, 600},
		{"slower", doc.Sound{Speed: 0.8, Length: 2000}, []string{"speed", "0.8", "rate", "-v", fmt.Sprint(Rate)}, 600},
	} {
		c.sound.Media = "a"
		got, want := left(scored(t, 2000, src, &c.sound)), sox(t, src["a"].samples, 1, c.effects...)
		n := min(len(got), len(want))
		if c.sound.Length > 0 {
			n = min(n, int(Frames(c.sound.Length)))
		}
		worst := 0.0
		for i := c.from; i < n-c.from; i++ {
			worst = max(worst, math.Abs(float64(got[i]-want[i])))
		}
		t.Logf("%s: %.1f dB off at most", c.name, Decibels(worst))
		if n < Rate || worst > Amplitude(-70) {
			t.Errorf("%s: %.1f dB off over %d frames", c.name, Decibels(worst), n)
		}
	}
}

var measuredBy = regexp.MustCompile(`lavfi\.r128\.(I|true_peaks_ch0|true_peaks_ch1)=(\S+)`)

// ebur128 is what ffmpeg measures of frames.
func ebur128(t *testing.T, frames []float32) (m Measured) {
	t.Helper()
	cmd := exec.Command("ffmpeg", "-hide_banner", "-nostdin", "-loglevel", "error", "-f", "f32le", "-ar", fmt.Sprint(Rate), "-ac", "2", "-i", "pipe:0",
		"-af", "ebur128=metadata=1:peak=true,ametadata=print:file=-", "-f", "null", "-")
	cmd.Stdin = bytes.NewReader(raw(frames))
	out, err := cmd.Output()
	if err != nil {
		t.Fatalf("ffmpeg: %v", err)
	}
	peak := 0.0
	for _, v := range measuredBy.FindAllSubmatch(out, -1) {
		n, _ := strconv.ParseFloat(string(v[2]), 64)
		if string(v[1]) == "I" {
			m.Loudness = n
		} else {
			peak = max(peak, n)
		}
	}
	m.Peak = Decibels(peak)
	return m
}

func measured(frames []float32) Measured {
	m := NewMeter()
	m.Write(frames)
	m.Write(make([]float32, 2*peakHalf))
	return m.Measured()
}

// steps are tones of 1 kHz, each so many dB below full scale in both channels for so many seconds.
func steps(pairs ...float64) []float32 {
	var out []float32
	for k := 0; k < len(pairs); k += 2 {
		f := sine(1000, Amplitude(pairs[k]))
		for i := range int(pairs[k+1] * Rate) {
			v := float32(f(i, 0))
			out = append(out, v, v)
		}
	}
	return out
}

// Loudness is what EBU Tech 3341 asks for of its test signals 1 to 5 (from memory), and what ffmpeg's ebur128 measures of thirty made up ones.
func TestLoudnessIsAsMeasuredByOthers(t *testing.T) {
	for _, c := range []struct {
		signal []float32
		want   float64
	}{
		{steps(-23, 20), -23}, {steps(-33, 20), -33}, {steps(-36, 10, -23, 60, -36, 10), -23}, {steps(-72, 10, -36, 10, -23, 60, -36, 10, -72, 10), -23}, {steps(-26, 20, -20, 20.1, -26, 20), -23},
	} {
		near(t, "the loudness of a test signal", measured(c.signal).Loudness, c.want, 0.1)
	}
	// True peaks: tones of a quarter of the rate at half of full scale, between whose samples their peaks lie (from memory, signals 15 to 18: -6 dBTP, +0.2 -0.4).
	for _, phase := range []float64{0, 45, 60, 67.5} {
		tone := make([]float32, 2*Rate)
		for i := range tone {
			tone[i] = float32(0.5 * math.Sin(math.Pi/2*float64(i/2)+phase*math.Pi/180) * math.Min(1, float64(i)/9600))
		}
		if p := measured(tone).Peak; p < -6.02-0.4 || p > -6.02+0.2 {
			t.Errorf("a tone of phase %v has its peak at %.2f dBTP", phase, p)
		}
	}
	if m := measured(make([]float32, 2*Rate)); !math.IsInf(m.Loudness, -1) || !math.IsInf(m.Peak, -1) || m.To(-14) != (Level{}) {
		t.Errorf("silence is %v", m)
	}
	r := rand.New(rand.NewPCG(30, 128))
	for n := range 30 {
		frames := make([]float32, 2*Rate*(3+r.IntN(3)))
		for range 1 + r.IntN(5) {
			from, long := r.IntN(len(frames)/2), 2000+r.IntN(3*Rate)
			hz, amp, side := 40*math.Pow(400, r.Float64()), math.Pow(10, -2*r.Float64()), r.Float64()
			rough, before := r.IntN(2) == 0, [3]float64{}
			for i := from; i < min(from+long, len(frames)/2); i++ {
				v := amp * math.Sin(2*math.Pi*hz*float64(i)/Rate)
				if rough {
					// Smoothed: what lies at half of the rate each meter takes for something else.
					before = [3]float64{amp * (r.Float64()*2 - 1), before[0], before[1]}
					v = (before[0] + 2*before[1] + before[2]) / 4
				}
				v *= math.Min(1, math.Min(float64(i-from), float64(min(from+long, len(frames)/2)-i))/500)
				frames[2*i] += float32(v * side)
				frames[2*i+1] += float32(v * (1 - side))
			}
		}
		got, want := measured(frames), ebur128(t, frames)
		near(t, fmt.Sprintf("the loudness of signal %d", n), got.Loudness, want.Loudness, 0.1)
		if want.Peak > -30 { // ffmpeg tells three decimals of an amplitude
			near(t, fmt.Sprintf("the true peak of signal %d", n), got.Peak, want.Peak, 0.2)
		}
	}
}
