package frame

import (
	"math"
	"slices"

	"capstan/core/anim"
	"capstan/core/doc"
	"capstan/core/motion"
)

// even returns the even number nearest to v, 2 or more: what video wants.
func even(v float64) int { return max(2, int(v/2+0.5)*2) }

// Size returns the size of a film's frames at a height, both sides even.
func Size(f *doc.Film, height int) (w, h int) {
	return even(float64(f.Width) * float64(height) / float64(f.Height)), even(float64(height))
}

// SizeAcross is Size at a width.
func SizeAcross(f *doc.Film, width int) (w, h int) {
	return even(float64(width)), even(float64(f.Height) * float64(width) / float64(f.Width))
}

// Delivery returns how many frames a file of the whole film has at a rate; format is mp4, gif, whose rate is limited, or png, a
// still.
func (f *Film) Delivery(format string, rate doc.Rate) int64 {
	if format == "png" {
		return 1
	}
	if format == "gif" {
		rate.Num, rate.Den = anim.GIFRate(rate.Num, rate.Den)
	}
	return motion.Frames(f.Order.Length, rate.Num, rate.Den)
}

// restAtEnd is how long the last frame of a GIF rests whose end does not meet its start, in ms.
const restAtEnd = 1000

// EndPause returns how long, in ms, the last frame of a file rests before it begins again: of a GIF what the document asks for, else nothing
// where it goes round or its end meets its start. Other files, and what plays once, do not rest.
func (f *Film) EndPause(format string, once bool) int64 {
	switch asked := f.Doc.Film.EndPause; {
	case format != "gif" || once:
		return 0
	case asked != nil:
		return *asked
	case f.Doc.Film.Loop || f.Meets():
		return 0
	}
	return restAtEnd
}

// Meets reports whether the film's end shows what its start shows, numbers within 1e-6.
func (f *Film) Meets() bool {
	a, b := f.Player(), f.Player()
	x, y := a.At(motion.Millis(0), View{Scale: 1}), b.At(motion.Millis(f.Order.Length), View{Scale: 1})
	return slices.Equal(x.Codes, y.Codes) && slices.EqualFunc(x.Numbers, y.Numbers, func(p, q float64) bool { return math.Abs(p-q) <= 1e-6 })
}
