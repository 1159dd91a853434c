package cutout

import (
	"image"
	"slices"

	"capstan/core/doc"
)

// A stroke more changes the border near it, and where colours learned from it tell otherwise. What is kept and dropped in the small copy is found anew as a whole;
// where that is as it was, the mask stays as it is, and only the part around the rest is worked out again.

// apartBy is how far from a change a mask is worked out again, in pixels of the small copy, and how much farther is looked for that: as far as fading edges are
// measured.
const apartBy = span + farReach

// mostMended is the share of a picture beyond which all of it is worked out again.
const mostMended = 0.4

// changed is the box of the small copy in which strokes that came since last, or what they brought about, change anything; it is empty where all has to be made
// anew.
func (s *Source) changed(c *doc.Cutout, sides []Side) (part image.Rectangle) {
	if s.rest == nil || s.last == nil || s.last.Ground != c.Ground || len(s.last.Strokes) >= len(c.Strokes) {
		return part
	}
	had := s.last.Strokes
	if !slices.EqualFunc(had, c.Strokes[:len(had)], doc.CutStroke.Equal) {
		return part
	}
	size := s.small.Rect.Size()
	mark := func(i int) { part = part.Union(image.Rect(i%size.X, i/size.X, i%size.X+1, i/size.X+1)) }
	for i, v := range sides {
		if was := s.rest[i]; (v == Keep || v == MaybeKeep) != (was == Keep || was == MaybeKeep) {
			mark(i)
		}
	}
	for i := range c.Strokes[len(had):] {
		if n := &c.Strokes[len(had)+i]; n.How == doc.CutWithin {
			return image.Rectangle{} // it says something of what lies outside of it
		} else {
			covered(n, size, float64(s.scale), func(i int, _ float64) { mark(i) })
		}
	}
	if part.Empty() {
		return part // beside the picture
	}
	part = part.Inset(-apartBy).Intersect(image.Rectangle{Max: size})
	if float64(part.Dx()*part.Dy()) > mostMended*float64(len(sides)) {
		return image.Rectangle{}
	}
	return part
}

// mended is the mask that was found last, with a part of it, a box of the small copy, worked out again.
func (s *Source) mended(m *model, sides []Side, strokes []doc.CutStroke, part image.Rectangle) *image.Gray {
	wide := part.Inset(-apartBy).Intersect(image.Rectangle{Max: s.small.Rect.Size()})
	sub := &Source{scale: s.scale, img: s.img}
	at := image.Point{}
	for k, img := range s.copies {
		by := s.scale >> k
		r := image.Rectangle{Min: wide.Min.Mul(by), Max: wide.Max.Mul(by)}
		// The last pixels of the small copy stand for what is left over, too.
		if wide.Max.X == s.small.Rect.Dx() {
			r.Max.X = img.Rect.Dx()
		}
		if wide.Max.Y == s.small.Rect.Dy() {
			r.Max.Y = img.Rect.Dy()
		}
		of := img.SubImage(r).(*image.RGBA)
		of.Rect = of.Rect.Sub(r.Min)
		if k == 0 {
			sub.img, at = of, r.Min
		}
		sub.copies, sub.small = append(sub.copies, of), of
	}
	own := make([]Side, 0, wide.Dx()*wide.Dy())
	for y := wide.Min.Y; y < wide.Max.Y; y++ {
		own = append(own, sides[y*s.small.Rect.Dx()+wide.Min.X:y*s.small.Rect.Dx()+wide.Max.X]...)
	}
	moved := slices.Clone(strokes)
	for i := range moved {
		moved[i].Points = slices.Clone(moved[i].Points)
		for k := range moved[i].Points {
			moved[i].Points[k][0] -= float64(at.X)
			moved[i].Points[k][1] -= float64(at.Y)
		}
	}
	fine := sub.fine(m, own, moved)
	mask := image.NewGray(s.mask.Rect)
	copy(mask.Pix, s.mask.Pix)
	to := image.Rectangle{Min: part.Min.Mul(s.scale), Max: part.Max.Mul(s.scale)}
	if part.Max.X == s.small.Rect.Dx() {
		to.Max.X = s.img.Rect.Dx()
	}
	if part.Max.Y == s.small.Rect.Dy() {
		to.Max.Y = s.img.Rect.Dy()
	}
	for y := to.Min.Y; y < to.Max.Y; y++ {
		copy(mask.Pix[y*mask.Stride+to.Min.X:y*mask.Stride+to.Max.X], fine.Pix[(y-at.Y)*fine.Stride+to.Min.X-at.X:])
	}
	return mask
}
