package delivery

import (
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/paint"
	"capstan/core/state"
)

// Opaque reports whether nothing of a film's page lets through what is under it, at any time: all its scenes have opaque backgrounds.
func Opaque(f *frame.Film) bool {
	film := &f.Doc.Film
	if film.Clear {
		return false
	}
	for _, s := range film.Shown() {
		if !opaque(&s.Background, s) {
			return false
		}
	}
	return true
}

func opaque(b *doc.Fill, s *doc.Scene) bool {
	switch {
	case b.Kind == doc.Solid:
		return state.Colour(b.Colour, b.Role, b.Tone, s).A >= 1
	case b.Graded() && b.Gradient != nil:
		for _, v := range b.Gradient.Stops {
			if state.Colour(v.Colour, v.Role, v.Tone, s).A < 1 {
				return false
			}
		}
		return len(b.Gradient.Stops) > 1
	}
	return false
}

// Under returns the paint that a file in a format is filled with under a film that is not opaque; nil where it stays clear, or nothing of it would
// be seen.
func Under(f *frame.Film, format string) *frame.Paint {
	if Formats[format].Clear || Opaque(f) {
		return nil
	}
	return &frame.Paint{Colour: Matte(f)}
}

// Matte is the colour that what is half clear is laid on in a file that knows no half clear pixels.
func Matte(f *frame.Film) paint.Colour {
	c, err := paint.Parse(f.Doc.Film.Under)
	if err != nil {
		return paint.White
	}
	return c
}
