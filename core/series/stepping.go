package series

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/ink"
	"capstan/core/paint"
)

// Step brings a layer of a scene some steps further, but for its size.
func Step(l *doc.Layer, by doc.Step, steps float64, sc *doc.Scene) {
	l.Place.X, l.Place.Y, l.Place.Turn = l.Place.X+steps*by.X, l.Place.Y+steps*by.Y, l.Place.Turn+steps*by.Turn
	bring(l, geom.Point{X: steps * by.X, Y: steps * by.Y}, steps*by.Turn)
	l.Opacity = min(max(l.Opacity+steps*by.Opacity, 0), 1)
	l.Fill = Hued(l.Fill, by, steps, sc)
}

// Hued is a plain colour some steps further; other fills stay as they are.
func Hued(f doc.Fill, by doc.Step, steps float64, sc *doc.Scene) doc.Fill {
	if f.Kind != doc.Solid || by.Hue == 0 && by.Light == 0 {
		return f
	}
	c, err := paint.Parse(ink.Code(f.Colour, f.Role, f.Tone, sc))
	if err != nil {
		return f
	}
	return doc.Fill{Kind: doc.Solid, Colour: c.Shifted(steps*by.Hue, steps*by.Light, 0).String()}
}
