package ink

import (
	"capstan/core/doc"
	"capstan/core/paint"
)

// Ink is a colour of a document that may come from a role.
type Ink struct {
	Colour, Role *string
	Tone         *int
}

// OfFill calls f for every colour of a fill.
func OfFill(v *doc.Fill, f func(Ink)) {
	if v.Kind == doc.Solid {
		f(Ink{&v.Colour, &v.Role, &v.Tone})
	}
	if v.Graded() && v.Gradient != nil {
		for i := range v.Gradient.Stops {
			s := &v.Gradient.Stops[i]
			f(Ink{&s.Colour, &s.Role, &s.Tone})
		}
	}
}

// OfLayer calls f for every colour of a layer itself.
func OfLayer(l *doc.Layer, f func(Ink)) {
	OfFill(&l.Fill, f)
	if l.Stroke != nil {
		OfFill(&l.Stroke.Fill, f)
	}
	if l.Text != nil && l.Text.Plate != nil {
		f(Ink{&l.Text.Plate.Colour, &l.Text.Plate.Role, &l.Text.Plate.Tone})
	}
	if l.Shadow != nil {
		f(Ink{&l.Shadow.Colour, &l.Shadow.Role, &l.Shadow.Tone})
	}
	if l.Glow != nil {
		f(Ink{&l.Glow.Colour, &l.Glow.Role, &l.Glow.Tone})
	}
	if l.Adjust != nil && l.Adjust.Toned != nil {
		for i := range l.Adjust.Toned.Tones {
			k := &l.Adjust.Toned.Tones[i]
			f(Ink{&k.Colour, &k.Role, &k.Tone})
		}
	}
}

// Each calls f for every colour of a scene, which it may change only where the scene is the caller's own.
func Each(sc *doc.Scene, f func(Ink)) {
	OfFill(&sc.Background, f)
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		OfLayer(l, f)
		return true
	})
}

// Resolved returns the colour an ink has in a scene, as a code.
func Resolved(k Ink, sc *doc.Scene) string { return Code(*k.Colour, *k.Role, *k.Tone, sc) }

// Code returns the colour that a colour, a role and a tone have in a scene, as a code.
func Code(colour, role string, tone int, sc *doc.Scene) string {
	c, ok := sc.Roles[role]
	if !ok || role == "" {
		return colour
	}
	v, err := paint.Parse(c)
	if err != nil {
		return colour
	}
	return v.Tone(tone).String()
}

// Shown returns a copy of a layer's own fields whose colours are those it has in its scene.
func Shown(l *doc.Layer, sc *doc.Scene) *doc.Layer {
	head := *l
	head.Moves, head.Children, head.Made = nil, nil, nil
	c := head.Clone()
	OfLayer(c, func(k Ink) { *k.Colour = Resolved(k, sc) })
	return c
}

// Painted returns the background of a scene in the colours it has.
func Painted(sc *doc.Scene) doc.Fill {
	c := (&doc.Scene{Background: sc.Background}).Clone()
	OfFill(&c.Background, func(k Ink) { *k.Colour = Resolved(k, sc) })
	return c.Background
}
