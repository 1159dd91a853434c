package ink

import (
	"capstan/core/paint"
)

// Tone is a colour a good step darker, or lighter where it is dark: OKLab lightness moves, hue and chroma stay.
func Tone(code string) string {
	c, err := paint.Parse(code)
	if err != nil {
		return code // validation will say so
	}
	v := c.Lab()
	if v.L > 0.45 {
		v.L -= 0.22
	} else {
		v.L += 0.25
	}
	return v.Colour().String()
}

// Tones returns the tones of a colour from the darkest to the lightest, the colour itself in the middle.
func Tones(code string) []string {
	c, err := paint.Parse(code)
	if err != nil {
		return []string{}
	}
	list := make([]string, 0, 2*paint.ToneSteps+1)
	for k := -paint.ToneSteps; k <= paint.ToneSteps; k++ {
		list = append(list, c.Tone(k).String())
	}
	return list
}
