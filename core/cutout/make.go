package cutout

import (
	"image"
	"math"
	"slices"
	"sync"

	"capstan/core/doc"
	"capstan/core/paint"
	"capstan/core/words"
)

// Source is a picture that is cut out, with the small copy in which a foreground is looked for. It may be asked by several at once.
type Source struct {
	img    *image.RGBA
	small  *image.RGBA
	scale  int           // how many times as large the picture is
	copies []*image.RGBA // the picture, and copies each half as large, down to the small one

	mu   sync.Mutex
	last *doc.Cutout // that a border was looked for by last
	mask *image.Gray // what came of it
	told *words.Fault
	rest []Side // what came of it in the small copy; nil: there was nothing to be told apart
}

// working is how wide or high the small copy is at most, in pixels.
const working = 640

// NewSource makes one of a picture, which must not change.
func NewSource(img *image.RGBA) *Source {
	s := &Source{img: img, small: img, scale: 1, copies: []*image.RGBA{img}}
	for max(s.small.Rect.Dx(), s.small.Rect.Dy()) > working && min(s.small.Rect.Dx(), s.small.Rect.Dy()) > 1 {
		s.small, s.scale = halved(s.small), 2*s.scale
		s.copies = append(s.copies, s.small)
	}
	return s
}

// halved averages pixels two by two.
func halved(img *image.RGBA) *image.RGBA {
	w, h := img.Rect.Dx()/2, img.Rect.Dy()/2
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	for y := range h {
		a, b, to := img.Pix[2*y*img.Stride:], img.Pix[(2*y+1)*img.Stride:], out.Pix[y*out.Stride:]
		for i := range 4 * w {
			k := i + i&^3
			to[i] = uint8((uint32(a[k]) + uint32(a[k+4]) + uint32(b[k]) + uint32(b[k+4]) + 2) / 4)
		}
	}
	return out
}

// Mask works out how much of each pixel of a picture a cut-out keeps. told is what should be known of it, in words; it is nil where there is nothing to say. It fails
// where strokes ask for more than can be drawn.
func (s *Source) Mask(c *doc.Cutout) (mask *image.Gray, told *words.Fault, err error) {
	size := s.img.Rect.Size()
	if effort(c.Strokes, size) > mostEffort {
		return nil, nil, words.New("cutout.much")
	}
	if c.Looked() {
		mask, told = s.again(c)
	} else {
		mask = full(size)
	}
	if len(c.Keys) > 0 {
		k := Key{Tolerance: c.Tolerance, Softness: c.Softness}
		for _, v := range c.Keys {
			colour, err := paint.Parse(v.Colour)
			if err != nil {
				continue // validation refuses it
			}
			k.Colours = append(k.Colours, colour)
			if c.Joined {
				k.Spots = append(k.Spots, image.Pt(int(math.Floor(v.At[0])), int(math.Floor(v.At[1]))))
			}
		}
		cover := k.Cover(s.img)
		for i, v := range cover.Pix {
			mask.Pix[i] = uint8((uint32(mask.Pix[i])*uint32(v) + 127) / 255)
		}
	}
	painted(mask, c.Strokes)
	if c.Spread != 0 {
		mask = spread(mask, c.Spread)
	}
	if c.Soften > 0 {
		softened(mask, c.Soften)
	}
	if c.Inverted {
		inverted(mask)
	}
	if told == nil {
		told = oneSided(mask)
	}
	return mask, told, nil
}

// Filled is a cut-out with what goes without saying: keys have the colour of where they were picked, what is said of the first one is what keys begin with, and
// strokes have as few points as draw the same.
func (s *Source) Filled(c *doc.Cutout) *doc.Cutout {
	out := *c
	out.Keys = slices.Clone(c.Keys)
	for i := range out.Keys {
		if k := &out.Keys[i]; k.Colour == "" {
			k.Colour = s.colourAt(int(math.Floor(k.At[0])), int(math.Floor(k.At[1]))).String()
		}
	}
	if len(out.Keys) > 0 && out.Tolerance == 0 && out.Softness == 0 {
		out.Tolerance, out.Softness = KeyTolerance, KeySoftness
	}
	if len(out.Keys) == 0 {
		out.Tolerance, out.Softness, out.Joined = 0, 0, false
	}
	out.Strokes = tidied(c.Strokes)
	return &out
}

// colourAt is the mean colour of the nine pixels around one.
func (s *Source) colourAt(x, y int) paint.Colour {
	var sum [3]float64
	n := 0.0
	for v := max(0, y-1); v < min(s.img.Rect.Dy(), y+2); v++ {
		for u := max(0, x-1); u < min(s.img.Rect.Dx(), x+2); u++ {
			c := at(s.img, v*s.img.Rect.Dx()+u, s.img.Rect.Dx())
			for k := range sum {
				sum[k] += c[k]
			}
			n += 255
		}
	}
	n = max(n, 1)
	return paint.Colour{R: sum[0] / n, G: sum[1] / n, B: sum[2] / n, A: 1}
}

// oneSided says where all is kept, or nothing.
func oneSided(mask *image.Gray) *words.Fault {
	least, most := uint8(255), uint8(0)
	for _, v := range mask.Pix {
		least, most = min(least, v), max(most, v)
	}
	switch {
	case most == 0:
		return words.New("cutout.nothing")
	case least == 255:
		return words.New("cutout.all")
	}
	return nil
}

func full(size image.Point) *image.Gray {
	m := image.NewGray(image.Rectangle{Max: size})
	for i := range m.Pix {
		m.Pix[i] = 255
	}
	return m
}

// rounds is how often colours are learned and a border is looked for at most.
const rounds = 5

// again is looked, or what came of it last where no stroke and no side has changed since.
func (s *Source) again(c *doc.Cutout) (*image.Gray, *words.Fault) {
	s.mu.Lock()
	defer s.mu.Unlock()
	by := &doc.Cutout{Ground: c.Ground}
	for _, v := range c.Strokes {
		if v.How != doc.CutPaint && v.How != doc.CutRub {
			by.Strokes = append(by.Strokes, v)
		}
	}
	if s.last == nil || !s.last.Equal(by) {
		s.mask, s.told, s.rest = s.looked(by)
		s.last = by
	}
	out := image.NewGray(s.mask.Rect)
	copy(out.Pix, s.mask.Pix)
	return out, s.told
}

// looked finds the border between what strokes and sides say is kept and dropped. rest is what is kept and dropped in the small copy.
func (s *Source) looked(c *doc.Cutout) (mask *image.Gray, told *words.Fault, rest []Side) {
	size, small := s.img.Rect.Size(), s.small.Rect.Size()
	sides := begun(small, float64(s.scale), c)
	alone := c.Ground == "" // strokes correct what was proposed, and do not begin anew
	var m *model
	if half := image.Pt(small.X/2, small.Y/2); min(half.X, half.Y) > 40 {
		// Both sides are learned in copies half and a quarter as large, where that is soon done.
		copy := halved(s.small)
		coarse := begun(half, float64(2*s.scale), c)
		if quarter := image.Pt(half.X/2, half.Y/2); min(quarter.X, quarter.Y) > 40 {
			m = segment(halved(copy), begun(quarter, float64(4*s.scale), c), rounds, alone, nil)
		}
		if m != nil {
			m = segment(copy, coarse, 2, alone, m)
		} else {
			m = segment(copy, coarse, rounds, alone, nil)
		}
		if m != nil {
			for i, kept := range m.sharpened(s.small, coarse, half, 2, sides, true) {
				if sides[i] < Drop {
					sides[i] = MaybeDrop
					if kept {
						sides[i] = MaybeKeep
					}
				}
			}
		}
	} else {
		m = segment(s.small, sides, rounds, alone, nil)
	}
	if m == nil {
		kept := full(size)
		for _, v := range sides {
			if v == Keep || v == MaybeKeep {
				return kept, words.New("cutout.kept-only"), nil
			}
		}
		clear(kept.Pix)
		return kept, words.New("cutout.dropped-only"), nil
	}
	if crossed(c.Strokes, small, float64(s.scale)) {
		told = words.New("cutout.crossed")
	}
	if part := s.changed(c, sides); part.Empty() {
		mask = s.fine(m, sides, c.Strokes)
	} else {
		mask = s.mended(m, sides, c.Strokes, part)
	}
	return mask, told, sides
}

// fine finds the border that the small copy has in the picture, and makes it soft.
func (s *Source) fine(m *model, sides []Side, strokes []doc.CutStroke) *image.Gray {
	known, kept := s.up(m, sides, strokes)
	mask := matted(s.img, kept, windows(s.scale), 1e-4)
	s.faded(mask, sides)
	for i, v := range known {
		switch v {
		case Keep:
			mask.Pix[i] = 255
		case Drop:
			mask.Pix[i] = 0
		}
	}
	return mask
}

// up finds the border of the small copy in each larger one, and in the picture. known is what strokes say of its pixels.
func (s *Source) up(m *model, sides []Side, strokes []doc.CutStroke) (known []Side, kept []bool) {
	size := s.small.Rect.Size()
	for k := len(s.copies) - 2; k >= 0; k-- {
		img := s.copies[k]
		known = said(strokes, img.Rect.Size(), float64(int(1)<<k))
		kept = m.sharpened(img, sides, size, 2, known, false)
		if size = img.Rect.Size(); k > 0 {
			sides = make([]Side, len(kept))
			for i, v := range kept {
				if v {
					sides[i] = MaybeKeep
				}
			}
		}
	}
	if kept == nil { // the picture is the small copy
		known, kept = said(strokes, size, 1), make([]bool, len(sides))
		for i, v := range sides {
			kept[i] = v == Keep || v == MaybeKeep
		}
	}
	return known, kept
}

// windows is the radius of those in which a border is made soft.
func windows(scale int) int { return min(6, 2+scale) }

// begun is what is known and taken of the pixels of a copy that is scale times as small: what strokes say; sides that are ground are dropped for sure, and what is begun with is that all else is kept;
// where strokes say both, only what they say counts at first.
func begun(size image.Point, scale float64, c *doc.Cutout) []Side {
	sides := said(c.Strokes, size, scale)
	if sides == nil {
		sides = make([]Side, size.X*size.Y)
	}
	keeps, drops := false, false
	for _, s := range sides {
		keeps, drops = keeps || s == Keep, drops || s == Drop
	}
	ground := c.Ground
	if keeps && !drops && ground == "" {
		ground = "ltrb" // where it is not kept
	}
	rim := max(1, min(size.X, size.Y)/50)
	for _, side := range ground {
		r := image.Rectangle{Max: size}
		switch side {
		case 'l':
			r.Max.X = rim
		case 't':
			r.Max.Y = rim
		case 'r':
			r.Min.X = size.X - rim
		case 'b':
			r.Min.Y = size.Y - rim
		}
		for y := r.Min.Y; y < r.Max.Y; y++ {
			for x := r.Min.X; x < r.Max.X; x++ {
				if i := y*size.X + x; sides[i] < Drop {
					sides[i] = Drop
				}
			}
		}
	}
	for i, s := range sides {
		if s == MaybeDrop {
			sides[i] = MaybeKeep
		}
	}
	return sides
}

// crossed reports whether a stroke says the opposite of most of an earlier one's pixels.
func crossed(strokes []doc.CutStroke, size image.Point, scale float64) bool {
	if len(strokes) < 2 {
		return false
	}
	sides := make([]Side, size.X*size.Y)
	over := false
	for i := range strokes {
		s := &strokes[i]
		if s.How != doc.CutKeep && s.How != doc.CutDrop {
			continue
		}
		side := Drop
		if s.How == doc.CutKeep {
			side = Keep
		}
		against, all := map[int]bool{}, map[int]bool{}
		covered(s, size, scale, func(i int, _ float64) {
			if all[i] = true; sides[i] >= Drop && sides[i] != side {
				against[i] = true
			}
			sides[i] = side
		})
		over = over || 2*len(against) > len(all)
	}
	return over
}
