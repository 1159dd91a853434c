package anim

import (
	"bytes"
	"compress/lzw"
	"image"
	"image/color"
	"image/draw"
	"image/gif"
	"io"
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/paint"
)

// Whatever pixels may be written as, Go's reader finds a way of writing them that is allowed: runs, noise, and more codes than the table has.
func TestCodesReadBackAsOneOfWhatIsAllowed(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	z := &packer{}
	for round := range 60 {
		n, size := 1+r.IntN(40000), uint(2+r.IntN(7))
		w := &row{pix: make([]uint8, n), free: make([]bool, n)}
		if round%2 == 0 {
			w.near = make([]shades, n)
		}
		v := uint8(1)
		for i := range n {
			if r.IntN(1+round) == 0 {
				v = uint8(r.IntN(1 << size))
			}
			w.pix[i], w.free[i] = v, r.IntN(3) == 0
			if w.near != nil {
				w.near[i] = []shades{0, 0x030201, 0x0102}[r.IntN(3)]
			}
		}
		chosen := make([]uint8, n)
		packed := z.pack(w, size, chosen)
		got, err := io.ReadAll(lzw.NewReader(bytes.NewReader(packed), lzw.LSB, int(size)))
		if err != nil || !bytes.Equal(got, chosen) {
			t.Fatalf("round %d: %d of %d indices, %v", round, len(got), n, err)
		}
		for i, v := range chosen {
			if !w.may(i, v) {
				t.Fatalf("round %d: pixel %d is written as %d", round, i, v)
			}
		}
	}
}

// sticker paints n frames of a half-clear-edged disc that goes its way over clear ground, and of a bar that comes and goes.
func sticker(n int) (out []*image.RGBA) {
	for k := range n {
		m := image.NewRGBA(image.Rect(0, 0, 64, 48))
		for y := range 48 {
			for x := range 64 {
				cover := math.Max(0, math.Min(1, 9.5-math.Hypot(float64(x-12-4*k), float64(y-24))))
				a := uint8(255*cover + 0.5)
				m.SetRGBA(x, y, color.RGBA{uint8(float64(200) * cover), uint8(float64(3*x) * cover), uint8(90 * cover), a})
			}
		}
		if k%3 == 1 {
			draw.Draw(m, image.Rect(0, 40, 64, 44), image.NewUniform(color.RGBA{20, 80, 60, 255}), image.Point{}, draw.Src)
		}
		out = append(out, m)
	}
	return
}

// On clear ground, what was covered is clear again when it is left; what is half clear is laid on the chosen colour. Held against Go's reader.
func TestClearGroundIsClearAgain(t *testing.T) {
	frames := sticker(9)
	on := paint.Colour{R: 1, G: 1, B: 1, A: 1}
	for _, d := range []Dither{Flat, Ordered, BlueNoise, Diffused} {
		for _, loss := range []float64{0, 8} {
			var c Census
			for _, f := range frames {
				c.Add(f, on, 1)
			}
			p := c.Palette(255)
			var b bytes.Buffer
			g, pen := NewGIF(&b, 64, 48, p, Timing{RateNum: 10, RateDen: 1, Length: 900, EndPause: 700_000}, 9, loss), p.Pen(d, on)
			for _, f := range frames {
				drawn := make([]uint8, Drawn*64*48)
				pen.Draw(drawn, f, f.Rect)
				if err := g.Add(drawn, f.Rect); err != nil {
					t.Fatal(err)
				}
			}
			if err := g.Close(); err != nil {
				t.Fatal(err)
			}
			read, err := gif.DecodeAll(&b)
			if err != nil {
				t.Fatal(err)
			}
			shown := play(read)
			if len(shown) != 10 { // the last one rests in two parts
				t.Fatalf("%s: %d pictures", d, len(shown))
			}
			for k, f := range frames {
				for i := 0; i < len(f.Pix); i += 4 {
					got, a := shown[k].Pix[i:i+4], uint32(f.Pix[i+3])
					if clear := a < 128; clear != (got[3] == 0) {
						t.Fatalf("%s, loss %v: frame %d, byte %d: cover %d is shown by %d", d, loss, k, i, a, got[3])
					}
					for c := range 3 {
						want := min(255, int(f.Pix[i+c])+int(255-a))
						if a >= 128 && abs(want-int(got[c])) > 60 {
							t.Fatalf("%s, loss %v: frame %d, byte %d: %d instead of %d", d, loss, k, i, got[c], want)
						}
					}
				}
			}
		}
	}
}

// Of 255 colours or fewer, each is exactly itself; what rests does not crawl, whatever the dither; and a loss makes files smaller within its bound.
func TestFewColoursAreExactAndALossIsBounded(t *testing.T) {
	ramp := func(n, shift int) *image.RGBA {
		m := image.NewRGBA(image.Rect(0, 0, 256, 64))
		for i := range 256 * 64 {
			v := (i%256 + shift) * (n - 1) / 255 % n
			m.SetRGBA(i%256, i/256, color.RGBA{uint8(v), uint8(255 - v), uint8(v / 2), 255})
		}
		return m
	}
	few := ramp(200, 0)
	var c Census
	c.Add(few, paint.White, 1)
	p := c.Palette(255)
	drawn := make([]uint8, Drawn*256*64)
	p.Pen(Ordered, paint.White).Draw(drawn, few, few.Rect)
	for i := range 256 * 64 {
		if got := p.colours[drawn[4*i+3]-1]; !bytes.Equal(got[:], few.Pix[4*i:4*i+3]) {
			t.Fatalf("pixel %d is %v, want %v", i, got, few.Pix[4*i:4*i+3])
		}
	}
	p = c.Palette(40)
	size := func(loss float64) int {
		var b bytes.Buffer
		g, pen := NewGIF(&b, 256, 64, p, Timing{RateNum: 10, RateDen: 1, Length: 2000}, 20, loss), p.Pen(Flat, paint.White)
		for k := range 20 {
			f := ramp(256, k)
			pen.Draw(drawn, f, f.Rect)
			if err := g.Add(drawn, f.Rect); err != nil {
				t.Fatal(err)
			}
			for i, v := range g.shown {
				lab := labOf(uint32(f.Pix[4*i])<<16 | uint32(f.Pix[4*i+1])<<8 | uint32(f.Pix[4*i+2]))
				if far := math.Sqrt(apart(&p.labs[v-1], &lab)) - math.Sqrt(apart(&p.labs[nearest(p.labs, lab)], &lab)); far > loss/1000+1e-9 {
					t.Fatalf("loss %v: pixel %d is %.4f further than it need be", loss, i, far)
				}
			}
		}
		if err := g.Close(); err != nil {
			t.Fatal(err)
		}
		return b.Len()
	}
	if a, b := size(0), size(20); b*10 > a*9 {
		t.Errorf("%d bytes exact, %d with a loss", a, b)
	}
}

// The pattern has each threshold as often, and less of what changes slowly than chance would have: sums over blocks of 8 x 8 differ little.
func TestBlueNoiseIsEven(t *testing.T) {
	var often [64]int
	n := blueNoise()
	for _, v := range n {
		often[v]++
	}
	for v, k := range often {
		if k != noiseSide*noiseSide/64 {
			t.Fatalf("threshold %d is there %d times", v, k)
		}
	}
	worst := 0
	for by := 0; by < noiseSide; by += 8 {
		for bx := 0; bx < noiseSide; bx += 8 {
			sum := 0
			for i := range 64 {
				sum += int(n[(by+i/8)*noiseSide+bx+i%8])
			}
			worst = max(worst, abs(sum-64*63/2))
		}
	}
	if worst > 100 { // by chance a block lies 150 off as often as not
		t.Errorf("a block is %d off", worst)
	}
}
