package ink

import (
	"capstan/core/doc"
	"capstan/core/paint"
)

// Readable returns the darker or lighter of two inks that reads best on a fill.
func Readable(f doc.Fill) string {
	const dark, light = "#17403c", "#fdf6e3"
	ground := paint.White
	if c, err := paint.Parse(f.Colour); err == nil && f.Kind == doc.Solid {
		ground = c
	}
	a, _ := paint.Parse(dark)
	b, _ := paint.Parse(light)
	if paint.Contrast(a, ground) >= paint.Contrast(b, ground) {
		return dark
	}
	return light
}

// enough is the contrast that words need to be read (WCAG 2.2, 1.4.3).
const Enough = 4.5

// WordsOn returns the colour nearest to that of words that can be read on a plate: a tone of it, else white or ink; empty where none can.
func WordsOn(words, plate paint.Colour) string {
	reads := func(c paint.Colour) bool { return paint.Contrast(c, plate) >= Enough }
	for k := 1; k <= paint.ToneSteps; k++ {
		for _, c := range []paint.Colour{words.Tone(-k), words.Tone(k)} {
			if reads(c) {
				return c.String()
			}
		}
	}
	for _, code := range []string{"#ffffff", "#1a2421"} {
		if c, err := paint.Parse(code); err == nil && reads(c) {
			return c.String()
		}
	}
	return ""
}

// ReadableOn returns the tone of a colour nearest to it from which words stand out enough; black or white where none does.
func ReadableOn(c, words paint.Colour) paint.Colour {
	for k := 0; k <= paint.ToneSteps; k++ {
		a, b := c.Tone(-k), c.Tone(k)
		x, y := paint.Contrast(a, words), paint.Contrast(b, words)
		if max(x, y) >= Enough {
			if x >= y {
				return a
			}
			return b
		}
	}
	if paint.Contrast(paint.White, words) > paint.Contrast(paint.Black, words) {
		return paint.White
	}
	return paint.Black
}
