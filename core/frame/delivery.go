package frame

import (
	"capstan/core/anim"
	"capstan/core/doc"
	"capstan/core/motion"
)

// Size returns the size of a film's frames at a height, both sides even and at least 2 as video wants.
func Size(f *doc.Film, height int) (w, h int) {
	even := func(v float64) int { return max(2, int(v/2+0.5)*2) }
	return even(float64(f.Width) * float64(height) / float64(f.Height)), even(float64(height))
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
