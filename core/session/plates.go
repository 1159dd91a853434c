package session

import (
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/paint"
)

// enough is the contrast that words need to be read (WCAG 2.2, 1.4.3).
const enough = 4.5

// Contrast is how well words stand out from their plate.
type Contrast struct {
	Ratio float64 `json:"ratio"` // 1..21
	Words string  `json:"words"` // the words in the nearest colour that makes it 4.5 on the plate as it is: a tone of theirs, white or ink; empty: none does
	Fix   string  `json:"fix"`   // the plate's colour, in the nearest tone that makes it 4.5; empty where it is
}

// contrast measures a text in one colour against its plate; nil where it has none.
func contrast(l *doc.Layer, sc *doc.Scene) *Contrast {
	if l.Text == nil || l.Text.Plate == nil || l.Fill.Kind != doc.Solid {
		return nil
	}
	v := l.Text.Plate
	words, err1 := paint.Parse(resolved(ink{&l.Fill.Colour, &l.Fill.Role, &l.Fill.Tone}, sc))
	plate, err2 := paint.Parse(resolved(ink{&v.Colour, &v.Role, &v.Tone}, sc))
	if err1 != nil || err2 != nil {
		return nil
	}
	c := &Contrast{Ratio: paint.Contrast(words, plate)}
	if c.Ratio < enough {
		c.Fix, c.Words = readableOn(plate, words).String(), wordsOn(words, plate)
	}
	return c
}

// wordsOn returns the colour nearest to that of words that can be read on a plate: a tone of it, else white or ink; empty where none can.
func wordsOn(words, plate paint.Colour) string {
	reads := func(c paint.Colour) bool { return paint.Contrast(c, plate) >= enough }
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

// readableOn returns the tone of a colour nearest to it from which words stand out enough; black or white where none does.
func readableOn(c, words paint.Colour) paint.Colour {
	for k := 0; k <= paint.ToneSteps; k++ {
		a, b := c.Tone(-k), c.Tone(k)
		x, y := paint.Contrast(a, words), paint.Contrast(b, words)
		if max(x, y) >= enough {
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

// plateBefore is the plate that was taken away last, or the foremost of the scene.
func (s *Session) plateBefore(sc *doc.Scene) *doc.Plate {
	v := s.lastPlate
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		if l.Text != nil && l.Text.Plate != nil && s.lastPlate == nil {
			v = l.Text.Plate
		}
		return true
	})
	return v
}

var platesAsked = table{
	// A plate behind texts: put there as the last one was, or in a readable tone of what lies behind; changed; taken away.
	"text.plate": of(func(s *Session, m Moment, c *struct {
		Threads []string    `json:"threads"`
		On      *bool       `json:"on"`
		Behind  string      `json:"behind"` // the colour that lies behind the words
		Patch   edit.Fields `json:"patch"`
	}) (edit.Command, error) {
		sc := s.scene(m)
		var list []edit.Part
		for _, l := range s.layers(m, c.Threads) {
			if l.Kind != doc.TextKind {
				continue
			}
			var plate any
			switch {
			case c.On != nil && !*c.On:
				if l.Text.Plate == nil {
					continue
				}
				s.lastPlate = l.Text.Plate
			case c.On != nil && l.Text.Plate != nil:
				continue
			case c.On != nil && s.plateBefore(sc) != nil:
				v := s.plateBefore(sc)
				plate = *v
			case c.On != nil:
				words, err := paint.Parse(resolved(ink{&l.Fill.Colour, &l.Fill.Role, &l.Fill.Tone}, sc))
				if err != nil {
					words = paint.Black
				}
				behind, err := paint.Parse(c.Behind)
				if err != nil {
					behind = paint.White
				}
				size := l.Text.Runs[0].Size
				plate = edit.Fields{"colour": readableOn(behind, words).String(), "padding": math.Round(size * 0.22), "corner": math.Round(size * 0.2)}
			default:
				plate = c.Patch
			}
			list = append(list, edit.Part{ID: l.ID, Patch: edit.Fields{"text": edit.Fields{"plate": plate}}})
		}
		if len(list) == 0 {
			return nil, nil
		}
		return &edit.SetLayers{Set: list}, nil
	}),
}
