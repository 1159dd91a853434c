package doc

import "slices"

// Adjust is what is done to the colours of all that a layer shows, before its blur and shadow; the zero value leaves them. What each number does to a
// pixel is said by state.Adjust.
type Adjust struct {
	Brightness float64 `json:"brightness,omitzero"` // -1..1
	Contrast   float64 `json:"contrast,omitzero"`   // -1..1
	Saturation float64 `json:"saturation,omitzero"` // -1..1; -1: greys
	Hue        float64 `json:"hue,omitzero"`        // degrees, -360..360
	Warmth     float64 `json:"warmth,omitzero"`     // -1..1; below 0: cooler
	Sharpness  float64 `json:"sharpness,omitzero"`  // 0..1
	Toned      *Toned  `json:"toned,omitzero"`
}

// Toned gives what a layer shows the hue of one tone, or runs from one tone where it is dark to another where it is light.
type Toned struct {
	Amount float64 `json:"amount"` // 0..1
	Tones  []Tone  `json:"tones"`  // one, or two with the dark one first
}

// Tone is a colour by itself.
type Tone struct {
	Colour string `json:"colour"`        // #rrggbb
	Role   string `json:"role,omitzero"` // a colour role of the scene, before Colour
	Tone   int    `json:"tone,omitzero"` // -5..5: steps darker or lighter than the role
}

// None reports whether it leaves every colour as it is.
func (a *Adjust) None() bool {
	return a == nil || a.Brightness == 0 && a.Contrast == 0 && a.Saturation == 0 && a.Hue == 0 && a.Warmth == 0 && a.Sharpness == 0 && (a.Toned == nil || a.Toned.Amount == 0)
}

// Clone returns a copy that shares nothing that an edit may change.
func (a *Adjust) Clone() *Adjust {
	c := copied(a)
	if c != nil && c.Toned != nil {
		c.Toned = copied(c.Toned)
		c.Toned.Tones = slices.Clone(c.Toned.Tones)
	}
	return c
}

// Equal reports whether two say the same.
func (a *Adjust) Equal(b *Adjust) bool {
	if a == nil || b == nil {
		return a == b
	}
	x, y := *a, *b
	x.Toned, y.Toned = nil, nil
	if x != y || (a.Toned == nil) != (b.Toned == nil) {
		return false
	}
	return a.Toned == nil || a.Toned.Amount == b.Toned.Amount && slices.Equal(a.Toned.Tones, b.Toned.Tones)
}

func (c *checker) adjust(at string, a *Adjust, s *Scene) {
	if a == nil {
		return
	}
	c.number(at+".brightness", a.Brightness, -1, 1)
	c.number(at+".contrast", a.Contrast, -1, 1)
	c.number(at+".saturation", a.Saturation, -1, 1)
	c.number(at+".hue", a.Hue, -360, 360)
	c.number(at+".warmth", a.Warmth, -1, 1)
	c.number(at+".sharpness", a.Sharpness, 0, 1)
	if v := a.Toned; v != nil {
		c.number(at+".toned.amount", v.Amount, 0, 1)
		if len(v.Tones) < 1 || len(v.Tones) > 2 {
			c.fail(at+".toned.tones", "has %d tones; it must be one or two", len(v.Tones))
		}
		for _, k := range v.Tones {
			c.ink(at+".toned.tones", k.Colour, k.Role, k.Tone, s.Roles)
		}
	}
}
