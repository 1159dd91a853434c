package edit

import (
	"capstan/core/doc"
	"capstan/core/geom"
)

// SetPath is the command that gives a drawn path another line.
func SetPath(id string, p *geom.Path) Command {
	return &SetLayers{Set: []Part{{ID: id, Patch: Fields{"path": p.Data()}}}}
}

// SetMove is the command that changes fields of one move.
func SetMove(id string, patch Fields) Command {
	return &SetMoves{Set: []Part{{ID: id, Patch: patch}}}
}

// SetPlaces is the command that changes where layers are, of a list made with PlaceOf.
func SetPlaces(list []Part) Command {
	return &SetLayers{Set: list}
}

// PlaceOf says what becomes of a layer's place.
func PlaceOf(id string, place Fields) Part {
	return Part{ID: id, Patch: Fields{"place": place}}
}

// Scaled is the command that scales one layer and puts it at a place. Of groups what grows along is as wanted; of others the letters of a text.
func Scaled(l *doc.Layer, kx, ky, x, y float64, grows []string) Command {
	c := &ScaleLayer{ID: l.ID, KX: kx, KY: ky, X: x, Y: y}
	if l.Kind == doc.Group {
		c.Grows = &grows
	}
	return c
}

// Pivoted returns the change that moves a layer's pivot and leaves the layer where it is: a flipped one is flipped about it.
func Pivoted(l *doc.Layer, was, to geom.Point) Fields {
	patch := Fields{"pivot": []float64{to.X, to.Y}}
	d := geom.Point{}
	if l.Place.FlipX {
		d.X = 2 * (to.X - was.X)
	}
	if l.Place.FlipY {
		d.Y = 2 * (to.Y - was.Y)
	}
	if d != (geom.Point{}) {
		d = geom.Rotate(l.Place.Turn).ApplyVector(d)
		patch["x"], patch["y"] = l.Place.X-d.X, l.Place.Y-d.Y
	}
	return patch
}
