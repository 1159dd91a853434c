package ink

import (
	"capstan/core/doc"
	"capstan/core/paint"
)

// Contrast is how well words stand out from their plate.
type Contrast struct {
	Ratio float64 `json:"ratio"` // 1..21
	Words string  `json:"words"` // the words in the nearest colour that makes it 4.5 on the plate as it is: a tone of theirs, white or ink; empty: none does
	Fix   string  `json:"fix"`   // the plate's colour, in the nearest tone that makes it 4.5; empty where it is
}

// PlateContrast measures a text in one colour against its plate; nil where it has none.
func PlateContrast(l *doc.Layer, sc *doc.Scene) *Contrast {
	if l.Text == nil || l.Text.Plate == nil || l.Fill.Kind != doc.Solid {
		return nil
	}
	v := l.Text.Plate
	words, err1 := paint.Parse(Code(l.Fill.Colour, l.Fill.Role, l.Fill.Tone, sc))
	plate, err2 := paint.Parse(Code(v.Colour, v.Role, v.Tone, sc))
	if err1 != nil || err2 != nil {
		return nil
	}
	c := &Contrast{Ratio: paint.Contrast(words, plate)}
	if c.Ratio < Enough {
		c.Fix, c.Words = ReadableOn(plate, words).String(), WordsOn(words, plate)
	}
	return c
}
