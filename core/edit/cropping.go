package edit

import (
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/shape"
)

// Framed is the patch after which a picture lies so in its frame, whose middle goes by px of the layer's axes.
func Framed(l *doc.Layer, f shape.Framed, by geom.Point) Part {
	picture := Fields{"crop": nil, "turn": nil}
	crop := f.Crop()
	for k := range crop {
		crop[k] = min(1, max(0, math.Round(crop[k]*1e8)/1e8))
	}
	if crop != doc.Uncropped {
		picture["crop"] = crop
	}
	if f.Turn != 0 {
		picture["turn"] = f.Turn
	}
	patch := Fields{"picture": picture}
	if by != (geom.Point{}) || f.Frame.X != l.Place.W || f.Frame.Y != l.Place.H {
		place := Fields{"w": fine(f.Frame.X), "h": fine(f.Frame.Y)}
		if v := l.Place.Pivot; v != nil { // it stays where it is, in axes whose origin has gone on
			place["pivot"] = [2]float64{v[0] - by.X, v[1] - by.Y}
		}
		if l.Place.FlipX {
			by.X = -by.X
		}
		if l.Place.FlipY {
			by.Y = -by.Y
		}
		by = geom.Rotate(l.Place.Turn).ApplyVector(by)
		place["x"], place["y"] = fine(l.Place.X+by.X), fine(l.Place.Y+by.Y)
		patch["place"] = place
	}
	return Part{ID: l.ID, Patch: patch}
}

// fine rounds a length to a ten-thousandth: of a picture of which little is seen, a hundredth of a px of the frame would be pixels.
func fine(v float64) float64 { return math.Round(v*1e4) / 1e4 }
