package doc

import (
	"reflect"
	"slices"
)

// Becoming is the only effect of a change.
const Becoming = "becomes"

// ChangeParams says what a change makes of its layer.
type ChangeParams struct {
	To Becomes `json:"to"`
}

// Becomes are the fields of a layer that a change names, with what they come to at its end: absolute rest values in the units of the document.
// What is missing stays as it is.
type Becomes struct {
	X       *float64    `json:"x,omitzero"` // of its place, in its parent's axes
	Y       *float64    `json:"y,omitzero"`
	W       *float64    `json:"w,omitzero"`
	H       *float64    `json:"h,omitzero"`
	Turn    *float64    `json:"turn,omitzero"`
	Scale   *float64    `json:"scale,omitzero"` // how many times as large as at rest, about its pivot
	Apart   *float64    `json:"apart,omitzero"` // how many times as far from its pivot as at rest its letters, or a group's parts, lie
	Opacity *float64    `json:"opacity,omitzero"`
	Fill    *Fill       `json:"fill,omitzero"`
	Stroke  *Stroke     `json:"stroke,omitzero"` // of width 0: none
	Corner  *float64    `json:"corner,omitzero"`
	Blur    *float64    `json:"blur,omitzero"`
	Feather *float64    `json:"feather,omitzero"`
	Shadow  *Shadow     `json:"shadow,omitzero"`
	Glow    *Glow       `json:"glow,omitzero"`
	Adjust  *Adjust     `json:"adjust,omitzero"`
	Picture *PictureUse `json:"picture,omitzero"` // another part of it, or another picture, into which it dissolves
	Shape   *Shape      `json:"shape,omitzero"`
	Path    *string     `json:"path,omitzero"`
	Text    *Text       `json:"text,omitzero"`
}

// numbers pairs the numbers that a change may name with the layer's own.
func (b *Becomes) numbers(l *Layer) [][2]any {
	return [][2]any{
		{&b.X, &l.Place.X}, {&b.Y, &l.Place.Y}, {&b.W, &l.Place.W}, {&b.H, &l.Place.H}, {&b.Turn, &l.Place.Turn},
		{&b.Opacity, &l.Opacity}, {&b.Corner, &l.Corner}, {&b.Blur, &l.Blur}, {&b.Feather, &l.Feather},
	}
}

// After returns a layer as it is when it has become that; moves and what is in it are its own.
func (l *Layer) After(b *Becomes) *Layer {
	out := *l
	for _, pair := range b.numbers(&out) {
		if v := *pair[0].(**float64); v != nil {
			*pair[1].(*float64) = *v
		}
	}
	if b.Fill != nil {
		out.Fill = *b.Fill
	}
	if b.Stroke != nil {
		if out.Stroke = b.Stroke; b.Stroke.Width <= 0 {
			out.Stroke = nil
		}
	}
	if b.Shadow != nil {
		out.Shadow = b.Shadow
	}
	if b.Glow != nil {
		out.Glow = b.Glow
	}
	if b.Adjust != nil {
		if out.Adjust = b.Adjust; b.Adjust.None() {
			out.Adjust = nil
		}
	}
	if b.Picture != nil {
		out.Picture = b.Picture
	}
	if b.Shape != nil {
		out.Shape = b.Shape
	}
	if b.Path != nil {
		out.Path = *b.Path
	}
	if b.Text != nil {
		out.Text = b.Text
	}
	return &out
}

// Difference returns what a layer has to become to be as another one is in all that a change can name.
func Difference(from, to *Layer) *Becomes {
	b := &Becomes{}
	a, c := *from, *to
	other := &Becomes{}
	was, is := b.numbers(&a), other.numbers(&c)
	for i := range was {
		if v := *is[i][1].(*float64); v != *was[i][1].(*float64) {
			*was[i][0].(**float64) = &v
		}
	}
	if !sameFill(&from.Fill, &to.Fill) {
		f := to.Fill.clone()
		b.Fill = &f
	}
	if !from.Stroke.Equal(to.Stroke) {
		if b.Stroke = to.Stroke; b.Stroke == nil {
			none := *from.Stroke
			none.Width = 0
			b.Stroke = &none
		}
	}
	if !same(from.Shadow, to.Shadow) {
		if b.Shadow = to.Shadow; b.Shadow == nil {
			none := *from.Shadow
			none.Colour, none.Role = clearOf(none.Colour), ""
			b.Shadow = &none
		}
	}
	if !same(from.Glow, to.Glow) {
		if b.Glow = to.Glow; b.Glow == nil {
			none := *from.Glow
			none.Colour, none.Role = clearOf(none.Colour), ""
			b.Glow = &none
		}
	}
	if !from.Adjust.Equal(to.Adjust) {
		if b.Adjust = to.Adjust; b.Adjust == nil {
			b.Adjust = &Adjust{}
		}
	}
	if to.Picture != nil && !from.Picture.Equal(to.Picture) {
		b.Picture = to.Picture
	}
	if !from.Shape.Equal(to.Shape) && to.Shape != nil {
		b.Shape = to.Shape
	}
	if from.Path != to.Path {
		d := to.Path
		b.Path = &d
	}
	if to.Text != nil && !sameText(from.Text, to.Text) {
		b.Text = to.Text
	}
	return b
}

// clearOf is a colour that cannot be seen.
func clearOf(colour string) string {
	if len(colour) < 7 {
		return "#00000000"
	}
	return colour[:7] + "00"
}

// Names returns which fields a change names, in the order of the format.
func (b *Becomes) Names() (names []string) {
	v := reflect.ValueOf(b).Elem()
	for i := range v.NumField() {
		if !v.Field(i).IsNil() {
			name := v.Type().Field(i).Tag.Get("json")
			names = append(names, name[:len(name)-len(",omitzero")])
		}
	}
	return
}

// Moves reports whether it names where a layer stands, or how large it is as a whole.
func (b *Becomes) Moves() bool {
	return b.X != nil || b.Y != nil || b.Turn != nil || b.Scale != nil || b.W != nil || b.H != nil
}

// Parts reports whether it names what can go unit by unit: where they stand, and words.
func (b *Becomes) Parts() bool { return b.X != nil || b.Y != nil || b.Apart != nil || b.Text != nil }

// Looks reports whether it names what a layer looks like: its outlines, words or paints.
func (b *Becomes) Looks() bool {
	return b.Fill != nil || b.Stroke != nil || b.Corner != nil || b.Shape != nil || b.Path != nil || b.Text != nil || b.W != nil || b.H != nil || b.Picture != nil
}

// Effects reports whether it names what is done to a layer as a whole, but for its opacity.
func (b *Becomes) Effects() bool {
	return b.Blur != nil || b.Feather != nil || b.Shadow != nil || b.Glow != nil || b.Adjust != nil
}

// Clone returns a copy that shares nothing that an edit may change.
func (b Becomes) Clone() Becomes {
	for _, pair := range b.numbers(&Layer{}) {
		p := pair[0].(**float64)
		*p = copied(*p)
	}
	b.Scale, b.Apart, b.Path, b.Stroke, b.Shadow, b.Glow = copied(b.Scale), copied(b.Apart), copied(b.Path), copied(b.Stroke), copied(b.Shadow), copied(b.Glow)
	b.Adjust = b.Adjust.Clone()
	if b.Fill != nil {
		f := b.Fill.clone()
		b.Fill = &f
	}
	if b.Stroke != nil {
		b.Stroke.Fill, b.Stroke.Dash, b.Stroke.Trim = b.Stroke.Fill.clone(), slices.Clone(b.Stroke.Dash), copied(b.Stroke.Trim)
	}
	l := (&Layer{Shape: b.Shape, Text: b.Text, Picture: b.Picture}).Clone()
	b.Shape, b.Text, b.Picture = l.Shape, l.Text, l.Picture
	return b
}

// becomes checks what a change names: the layer has to be sound when it has become that.
func (c *checker) becomes(at string, m *Move, l *Layer, s *Scene) {
	if m.Change == nil {
		c.fail(at+".change", "is missing")
		return
	}
	b := &m.Change.To
	if b.Scale != nil {
		c.number(at+".change.to.scale", *b.Scale, 0, MaxScale)
	}
	if b.Apart != nil {
		c.number(at+".change.to.apart", *b.Apart, 0, MaxScale)
		if len(l.Is().Units) == 0 {
			c.fail(at+".change.to.apart", "is for texts and groups")
		}
	}
	if l.Kind == Group && (b.Looks()) {
		c.fail(at+".change.to", "names what a group does not have: its layers change by themselves")
	}
	if b.Text != nil && l.Kind != TextKind || b.Path != nil && l.Kind != PathKind || b.Shape != nil && !l.IsShape() || b.Picture != nil && l.Kind != Picture {
		c.fail(at+".change.to", "names what this kind of layer does not have")
	}
	if c.err == nil {
		c.head(at+".change.to", l.After(b), s)
	}
}

// MaxScale is how many times as large a change may make a layer.
const MaxScale = 1000
