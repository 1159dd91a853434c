package anim

import (
	"bytes"
	"image"
	"image/color"
	"image/draw"
	"image/gif"
	"math"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"capstan/core/paint"
)

// motion.md, section 9: 24 fps gives delays 4, 4, 5, 4, 4, 4 …; 40 ms are 25 a second (common practice).
func TestDelaysFollowTheFilmWithoutDrift(t *testing.T) {
	delays := func(t Timing, n int64) (d []int64) {
		for k := int64(0); k < n; k++ {
			d = append(d, t.Delay(k, n))
		}
		return
	}
	got := delays(Timing{RateNum: 24, RateDen: 1, Length: 1000}, 24)
	for k, want := range []int64{4, 4, 5, 4, 4, 4} {
		if got[k] != want {
			t.Errorf("frame %d rests %d, want %d", k, got[k], want)
		}
	}
	for _, c := range []struct{ num, den, ms int64 }{{24, 1, 2880}, {30, 1, 12700}, {25, 1, 1000}, {30000, 1001, 10010}, {12, 1, 5000}, {24, 1, 60000}, {25, 1, 60000}, {30, 1, 60000}, {50, 1, 60000}} {
		n := (2*c.ms*c.num + 1000*c.den) / (2000 * c.den)
		sum := int64(0)
		for k, d := range delays(Timing{RateNum: c.num, RateDen: c.den, Length: c.ms, EndPause: 1500}, n) {
			if begins := 100 * float64(int64(k)*c.den) / float64(c.num); math.Abs(float64(sum)-begins) > 0.5 {
				t.Fatalf("at %d/%d frame %d begins at %d hundredths, %.2f in the film", c.num, c.den, k, sum, begins)
			}
			sum += d
		}
		if want := (c.ms+5)/10 + 150; sum != want {
			t.Errorf("%d ms at %d/%d lasts %d hundredths, want %d", c.ms, c.num, c.den, sum, want)
		}
	}
	if n, d := GIFRate(60, 1); n != 50 || d != 1 {
		t.Errorf("60 fps samples at %d/%d", n, d)
	}
	if d := (Timing{RateNum: 50, RateDen: 1, Length: 10}).Delay(0, 1); d != 2 {
		t.Errorf("the shortest delay is %d", d)
	}
}

// film paints n frames of a square that moves over a ground of flat colours and a ramp; some frames are equal.
func film(n int) []*image.RGBA {
	var out []*image.RGBA
	for k := 0; k < n; k++ {
		m := image.NewRGBA(image.Rect(0, 0, 90, 60))
		draw.Draw(m, m.Rect, image.NewUniform(color.RGBA{142, 198, 218, 255}), image.Point{}, draw.Src)
		for x := 0; x < 90; x++ {
			for y := 45; y < 60; y++ {
				m.SetRGBA(x, y, color.RGBA{uint8(40 + 2*x), uint8(120 + x), 140, 255})
			}
		}
		x := k / 2 * 9
		draw.Draw(m, image.Rect(x, 10, x+14, 30), image.NewUniform(color.RGBA{216, 87, 58, 255}), image.Point{}, draw.Src)
		out = append(out, m)
	}
	return out
}

func write(t *testing.T, frames []*image.RGBA, timing Timing) []byte {
	t.Helper()
	var c Census
	for _, f := range frames {
		c.Add(f, paint.White, 1)
	}
	var b bytes.Buffer
	palette := c.Palette(255)
	g, pen := NewGIF(&b, 90, 60, palette, timing, int64(len(frames)), 0), palette.Pen(Ordered, paint.White)
	for _, f := range frames {
		idx := make([]uint8, Drawn*90*60)
		pen.Draw(idx, f, f.Rect)
		if err := g.Add(idx, f.Rect); err != nil {
			t.Fatal(err)
		}
	}
	if err := g.Close(); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

// play lays the pictures of a decoded GIF over each other as GIF89a says.
func play(g *gif.GIF) []*image.RGBA {
	canvas := image.NewRGBA(image.Rect(0, 0, g.Config.Width, g.Config.Height))
	var out []*image.RGBA
	for i, f := range g.Image {
		if i > 0 && g.Disposal[i-1] == gif.DisposalBackground {
			draw.Draw(canvas, g.Image[i-1].Bounds(), image.Transparent, image.Point{}, draw.Src)
		}
		draw.Draw(canvas, f.Bounds(), f, f.Bounds().Min, draw.Over)
		c := image.NewRGBA(canvas.Rect)
		copy(c.Pix, canvas.Pix)
		out = append(out, c)
	}
	return out
}

func TestAGIFReadsBackAsItsFrames(t *testing.T) {
	frames := film(12)
	raw := write(t, frames, Timing{RateNum: 10, RateDen: 1, Length: 1200, EndPause: 1500})
	g, err := gif.DecodeAll(bytes.NewReader(raw))
	if err != nil {
		t.Fatal(err)
	}
	if len(g.Image) != 6 {
		t.Fatalf("%d pictures; each second frame is equal to the one before and joins it", len(g.Image))
	}
	if g.LoopCount != 0 {
		t.Errorf("loop count %d, want 0: for ever", g.LoopCount)
	}
	for i, d := range g.Delay {
		if want := 20; i < 5 && d != want || i == 5 && d != 20+150 {
			t.Errorf("picture %d rests %d", i, d)
		}
	}
	for i, shown := range play(g) {
		want := frames[2*i]
		for _, p := range []image.Point{{5, 5}, {i*9 + 7, 20}, {i*9 + 15, 20}} {
			if shown.RGBAAt(p.X, p.Y) != want.RGBAAt(p.X, p.Y) {
				t.Errorf("picture %d at %v is %v, want %v: flat colours stay exact", i, p, shown.RGBAAt(p.X, p.Y), want.RGBAAt(p.X, p.Y))
			}
		}
		worst := 0
		for k := range want.Pix {
			worst = max(worst, abs(int(want.Pix[k])-int(shown.Pix[k])))
		}
		if worst > 12 {
			t.Errorf("picture %d is up to %d off", i, worst)
		}
	}
	once, err := gif.DecodeAll(bytes.NewReader(write(t, frames, Timing{RateNum: 10, RateDen: 1, Length: 1200, Passes: 1})))
	if err != nil || once.LoopCount != -1 {
		t.Errorf("played once: loop count %d, %v", once.LoopCount, err)
	}
}

func abs(a int) int { return max(a, -a) }

// Two decoders that are not Go's: gifsicle and ffmpeg.
func TestOtherDecodersSeeTheSame(t *testing.T) {
	file := filepath.Join(t.TempDir(), "film.gif")
	frames := film(8)
	if err := os.WriteFile(file, write(t, frames, Timing{RateNum: 10, RateDen: 1, Length: 800, EndPause: 500}), 0o644); err != nil {
		t.Fatal(err)
	}
	info, err := exec.Command("gifsicle", "--info", file).CombinedOutput()
	if err != nil {
		t.Fatalf("%v: %s", err, info)
	}
	for _, want := range []string{"4 images", "loop forever", "delay 0.20s", "delay 0.70s", "disposal asis", "transparent 0"} {
		if !strings.Contains(string(info), want) {
			t.Errorf("gifsicle does not say %q:\n%s", want, info)
		}
	}
	raw, err := exec.Command("ffmpeg", "-v", "error", "-i", file, "-vsync", "passthrough", "-f", "rawvideo", "-pix_fmt", "rgba", "-").Output()
	if err != nil {
		t.Fatal(err)
	}
	const size = 90 * 60 * 4
	if len(raw) != 4*size {
		t.Fatalf("ffmpeg decodes %d bytes, want 4 pictures", len(raw))
	}
	for i := 0; i < 4; i++ {
		worst := 0
		for k, v := range frames[2*i].Pix {
			worst = max(worst, abs(int(v)-int(raw[i*size+k])))
		}
		if worst > 12 {
			t.Errorf("picture %d is up to %d off in ffmpeg", i, worst)
		}
	}
}

func TestLongRestsAreSplit(t *testing.T) {
	frames := film(2)
	g, err := gif.DecodeAll(bytes.NewReader(write(t, frames, Timing{RateNum: 1, RateDen: 1, Length: 2000, EndPause: 655_360 + 10})))
	if err != nil {
		t.Fatal(err)
	}
	sum := 0
	for _, d := range g.Delay {
		sum += d
		if d < 2 {
			t.Errorf("a part rests %d", d)
		}
	}
	if sum != 200+65537 || len(g.Delay) != 2 {
		t.Errorf("delays %v", g.Delay)
	}
}

func TestThePaletteHoldsManyColoursWithinSight(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	m := image.NewRGBA(image.Rect(0, 0, 90, 60))
	for i := 0; i < len(m.Pix); i += 4 {
		m.Pix[i], m.Pix[i+1], m.Pix[i+2], m.Pix[i+3] = uint8(r.IntN(256)), uint8(r.IntN(256)), uint8(r.IntN(256)), 255
	}
	var c Census
	c.Add(m, paint.White, 1)
	p := c.Palette(255)
	if len(p.colours) != 255 {
		t.Fatalf("%d colours", len(p.colours))
	}
	idx := make([]uint8, Drawn*90*60)
	p.Pen(Flat, paint.White).Draw(idx, m, m.Rect)
	sum := 0
	for i := range 90 * 60 {
		for k := 0; k < 3; k++ {
			sum += abs(int(m.Pix[4*i+k]) - int(p.colours[idx[Drawn*i+3]-1][k]))
		}
	}
	// 255 even cells of the cube have sides of 40, so a mean error of 10 a channel would be ideal; 20 is still in sight.
	if mean := float64(sum) / float64(3*90*60); mean > 20 {
		t.Errorf("mean error %.1f a channel", mean)
	}
}

func BenchmarkDraw(b *testing.B) {
	m := image.NewRGBA(image.Rect(0, 0, 854, 480))
	for i := range m.Pix {
		m.Pix[i] = uint8(i / 4 % 854 / 4)
	}
	var c Census
	c.Add(m, paint.White, 7)
	p := c.Palette(255).Pen(Ordered, paint.White)
	idx := make([]uint8, Drawn*854*480)
	b.SetBytes(854 * 480)
	for b.Loop() {
		p.Draw(idx, m, m.Rect)
	}
}
