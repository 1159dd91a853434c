package cutout

import (
	"bytes"
	"image"
	"image/color"
	"image/draw"
	"image/jpeg"
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/doc"
)

// composite is a drawn subject over a drawn ground, and how much of each pixel it covers (0..1), which is known since both are computed.
type composite struct {
	name  string
	img   *image.RGBA
	cover []float64
}

// composites are twelve kinds; with a flat ground, one that a key takes out. Covers are those of the pixels’ middles, by distance.
func composites(w, h int, flat bool) (list []composite) {
	fw, fh := float64(w), float64(h)
	u := fw / 240 // a length that goes with the size
	disc := func(x, y, cx, cy, r float64) float64 { return min(1, max(0, r-math.Hypot(x-cx, y-cy)+0.5)) }
	blob := func(x, y float64) float64 {
		a := math.Atan2(y-fh/2, x-fw/2)
		r := fh * (0.28 + 0.05*math.Sin(3*a) + 0.03*math.Cos(5*a))
		return min(1, max(0, r-math.Hypot(x-fw/2, y-fh/2)+0.5))
	}
	soft := func(x, y float64) float64 { return min(1, max(0, (fh*0.3-math.Hypot(x-fw/2, y-fh/2))/(8*u)+0.5)) }
	hair := func(x, y float64) float64 {
		v := disc(x, y, fw/2, fh*0.55, fh*0.22)
		for k := range 36 {
			a := float64(k) / 36 * 2 * math.Pi
			dx, dy := x-fw/2, y-fh*0.55
			along, across := dx*math.Cos(a)+dy*math.Sin(a), dy*math.Cos(a)-dx*math.Sin(a)
			across -= 3 * u * math.Sin(along/(14*u)+float64(k))
			if along > 0 && along < fh*0.36 {
				v = max(v, min(1, max(0, 0.7*u-math.Abs(across)+0.5))*min(1, (fh*0.36-along)/(5*u)))
			}
		}
		return v
	}
	holes := func(x, y float64) float64 {
		v := blob(x, y)
		for k := range 5 {
			a := float64(k) * 2 * math.Pi / 5
			v = min(v, 1-disc(x, y, fw/2+fh*0.15*math.Cos(a), fh/2+fh*0.15*math.Sin(a), fh*0.05))
		}
		return v
	}
	lines := func(x, y float64) float64 {
		v := disc(x, y, fw/2, fh*0.7, fh*0.16)
		for k := range 3 {
			cx := fw * (0.35 + 0.15*float64(k))
			if y > fh*0.12 && y < fh*0.8 {
				v = max(v, min(1, max(0, 1.6*u-math.Abs(x-cx)+0.5)))
			}
		}
		return v
	}
	skyline := func(x, y float64) float64 {
		top := fh * (0.55 - 0.12*float64(int(x/(fw/9))*7%5)/4)
		return min(1, max(0, y-top+0.5))
	}
	type kind struct {
		name        string
		cover       func(x, y float64) float64
		near, noise float64 // how near the colours are; how much noise
		jpeg        int
		busy        bool
	}
	for n, k := range []kind{
		{name: "hard", cover: blob}, {name: "soft", cover: soft}, {name: "hair", cover: hair}, {name: "holes", cover: holes}, {name: "thin lines", cover: lines},
		{name: "low contrast", cover: blob, near: 0.6}, {name: "noise", cover: blob, noise: 14}, {name: "JPEG", cover: blob, jpeg: 75},
		{name: "skyline", cover: skyline}, {name: "busy ground", cover: blob, busy: true}, {name: "hair, noise", cover: hair, noise: 8},
		{name: "skyline, JPEG", cover: skyline, jpeg: 75, noise: 6},
	} {
		r := rand.New(rand.NewPCG(uint64(n), 31))
		c := composite{name: k.name, img: image.NewRGBA(image.Rect(0, 0, w, h)), cover: make([]float64, w*h)}
		for y := range h {
			for x := range w {
				a := k.cover(float64(x)+0.5, float64(y)+0.5)
				c.cover[y*w+x] = a
				fx, fy := float64(x)/fw, float64(y)/fh
				ground := [3]float64{70 + 60*fy, 120 + 70*fy, 190 + 20*fx}
				if flat {
					ground = [3]float64{60, 150, 90}
				} else if k.busy {
					v := 40 * math.Sin(float64(x)/(5*u)) * math.Cos(float64(y)/(7*u))
					ground = [3]float64{ground[0] + v, ground[1] + v, ground[2] - v}
				}
				fore := [3]float64{200 - 50*fx, 90 + 40*fy, 50 + 20*fx}
				if (int(float64(x)/(9*u))+int(float64(y)/(9*u)))%3 == 0 {
					fore = [3]float64{225, 190 - 20*fx, 120}
				}
				var p [3]uint8
				for i := range p {
					f := fore[i] + k.near*(ground[i]-fore[i])
					p[i] = uint8(min(255, max(0, a*f+(1-a)*ground[i]+r.NormFloat64()*k.noise+0.5)))
				}
				c.img.SetRGBA(x, y, color.RGBA{p[0], p[1], p[2], 255})
			}
		}
		if k.jpeg > 0 {
			var b bytes.Buffer
			_ = jpeg.Encode(&b, c.img, &jpeg.Options{Quality: k.jpeg})
			back, _ := jpeg.Decode(&b)
			draw.Draw(c.img, c.img.Rect, back, image.Point{}, draw.Src)
		}
		list = append(list, c)
	}
	return list
}

// rubbed are n strokes as a hand would rub them: short lines, half of them where all is the subject, half where nothing is.
func (c *composite) rubbed(n int, r *rand.Rand) (list []doc.CutStroke) {
	w, h := c.img.Rect.Dx(), c.img.Rect.Dy()
	long := w / 6
	for tries := 0; len(list) < n && tries < 100_000; tries++ {
		how, want := doc.CutKeep, 1.0
		if len(list)%2 == 1 {
			how, want = doc.CutDrop, 0
		}
		x, y := r.IntN(w), r.IntN(h)
		a := r.Float64() * 2 * math.Pi
		end := 0
		for s := 0; s <= long; s++ {
			u, v := x+int(float64(s)*math.Cos(a)), y+int(float64(s)*math.Sin(a))
			if u < 0 || v < 0 || u >= w || v >= h || c.cover[v*w+u] != want {
				break
			}
			end = s
		}
		if end < long && (tries < 50_000 || end < long/4) {
			continue
		}
		list = append(list, doc.CutStroke{How: how, Width: 3, Points: [][2]float64{{float64(x), float64(y)}, {float64(x) + float64(end)*math.Cos(a), float64(y) + float64(end)*math.Sin(a)}}})
	}
	return list
}

// off is how far a mask is from what is known: intersection over union of what is more than half covered, the mean error of its cover, and that of its slopes.
func (c *composite) off(mask *image.Gray) (iou, mean, slope float64) {
	w, h := c.img.Rect.Dx(), c.img.Rect.Dy()
	both, any := 0, 0
	at := func(x, y int) float64 { return float64(mask.Pix[y*mask.Stride+x]) / 255 }
	for y := range h {
		for x := range w {
			i := y*w + x
			a, b := at(x, y), c.cover[i]
			mean += math.Abs(a-b) / float64(w*h)
			if a >= 0.5 && b >= 0.5 {
				both++
			}
			if a >= 0.5 || b >= 0.5 {
				any++
			}
			if x > 0 && y > 0 {
				slope += math.Abs(math.Hypot(a-at(x-1, y), a-at(x, y-1))-math.Hypot(b-c.cover[i-1], b-c.cover[i-w])) / float64(w*h)
			}
		}
	}
	return float64(both) / float64(max(1, any)), mean, slope
}

// By six strokes, what is kept is what there is: for 19 of 20 pixels of either.
func TestSixStrokesFindAForeground(t *testing.T) {
	for _, size := range []image.Point{{1000, 750}} {
		for n, c := range composites(size.X, size.Y, false) {
			cut := &doc.Cutout{Strokes: c.rubbed(6, rand.New(rand.NewPCG(uint64(n), 6)))}
			s := NewSource(c.img)
			mask, told, err := s.Mask(cut)
			iou, mean, slope := c.off(mask)
			t.Logf("%-14s IoU %.3f mean %.4f slope %.4f", c.name, iou, mean, slope)
			if err != nil || told != nil || iou < 0.95 || mean > 0.03 || slope > 0.01 {
				t.Errorf("%s: %v %v", c.name, told, err)
			}
		}
	}
}

// Strokes said one after another come to what they come to at once, though each but the first works out only the part of the picture that it changes; and what
// lies far from a stroke stays to the bit.
func TestAStrokeMoreChangesWhatIsNear(t *testing.T) {
	for n, c := range composites(700, 525, false) {
		if n%3 > 0 {
			continue
		}
		cut := &doc.Cutout{Strokes: c.rubbed(6, rand.New(rand.NewPCG(uint64(n), 6)))}
		s := NewSource(c.img)
		before, _, _ := s.Mask(&doc.Cutout{Strokes: cut.Strokes[:5]})
		mask, _, _ := s.Mask(cut)
		whole, _, _ := NewSource(c.img).Mask(cut)
		off, same := 0.0, 0
		for i, v := range mask.Pix {
			off += math.Abs(float64(v)-float64(whole.Pix[i])) / 255 / float64(len(mask.Pix))
			if v == before.Pix[i] {
				same++
			}
		}
		if off > 0.004 || 2*same < len(mask.Pix) {
			t.Errorf("%s: %.4f off what they come to at once; %d pixels stay", c.name, off, same)
		}
	}
}

// By one colour that is picked, with what is near and fading set as a person would for it, the cover is right to two hundredths on the mean.
func TestAKeyFindsAForeground(t *testing.T) {
	for _, c := range composites(480, 360, true) {
		s := NewSource(c.img)
		cut := s.Filled(&doc.Cutout{Keys: []doc.CutKey{{At: [2]float64{4, 4}}}})
		if cut.Tolerance != KeyTolerance || cut.Softness != KeySoftness {
			t.Fatalf("a key begins with %v and %v", cut.Tolerance, cut.Softness)
		}
		switch c.name {
		case "low contrast":
			cut.Tolerance, cut.Softness = 0.02, 0.03
		case "noise":
			cut.Tolerance = 0.1
		}
		mask, told, err := s.Mask(cut)
		iou, mean, slope := c.off(mask)
		t.Logf("%-14s IoU %.3f mean %.4f slope %.4f", c.name, iou, mean, slope)
		if told != nil || err != nil || mean > 0.02 {
			t.Errorf("%s: %.4f off, %v %v", c.name, mean, told, err)
		}
	}
}
