package session

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/shape"
)

// outermost leaves out layers inside others of the list.
func outermost(sc *doc.Scene, list []*doc.Layer) []*doc.Layer {
	chosen := map[string]bool{}
	for _, l := range list {
		chosen[l.ID] = true
	}
	var out []*doc.Layer
	for _, l := range list {
		inner := false
		for _, p := sc.Layer(l.ID); p != nil; _, p = sc.Layer(p.ID) {
			inner = inner || chosen[p.ID]
		}
		if !inner {
			out = append(out, l)
		}
	}
	return out
}

// proportional says whether a layer keeps its proportions when it is resized.
func proportional(l *doc.Layer) bool {
	return l.Kind == doc.Group || l.Kind == doc.Picture || l.Kind == doc.TextKind || shape.Square(l.Kind)
}

func setPlaces(list []edit.Part) edit.Command {
	return &edit.SetLayers{Set: list}
}

func placeOf(id string, place edit.Fields) edit.Part {
	return edit.Part{ID: id, Patch: edit.Fields{"place": place}}
}

// scaled is the command that scales one layer and puts it at a place. Of groups what grows along is as wanted; of others the letters of a text.
func scaled(l *doc.Layer, kx, ky, x, y float64, grows []string) edit.Command {
	c := &edit.ScaleLayer{ID: l.ID, KX: kx, KY: ky, X: x, Y: y}
	if l.Kind == doc.Group {
		c.Grows = &grows
	}
	return c
}
