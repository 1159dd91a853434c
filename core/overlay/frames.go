package overlay

import (
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/scope"
)

// maskShown is how strongly a selected mask is shown over what it masks.
const maskShown = 0.35

// MasksFrame returns a display list with the masks among the selected layers alone, faintly: they are not painted themselves.
func (s *Overlays) MasksFrame(m scope.Moment, threads []string, scale float64) *frame.List {
	s.StandWhole(m)
	s.Player.Clear()
	for _, l := range s.Layers(m, threads) {
		if l.Mask != "" {
			s.Player.AddPlaced(l.ID, maskShown, frame.View{Scale: scale})
		}
	}
	return s.Player.List()
}

// Solo shows only the layers of these threads on the page, with what is in and around them; none: all.
func (s *Overlays) Solo(threads []string) { s.Player.Solo(threads) }

// Frame returns the display list of a moment.
func (s *Overlays) Frame(m scope.Moment, scale float64) *frame.List {
	v := frame.View{Scale: scale, Repeats: faintCopies}
	s.Thin(m)
	if m.Rest {
		return s.Player.AtRest(s.SceneIndex(m), v)
	}
	return s.Player.At(scope.Instant(m.Time), v)
}

// Thumb returns the display list of a small picture of a scene: at rest, with all of its layers.
func (s *Overlays) Thumb(scene int, scale float64) *frame.List {
	return s.Player.Whole(s.SceneIndex(scope.Moment{Rest: true, Scene: scene}), frame.View{Scale: scale, Repeats: faintCopies})
}

// faintCopies is the opacity of the copies of scrolls at rest: enough to see that they come.
const faintCopies = 0.3

// Only returns a display list with just the layer of that id, at rest, and the box it fills on its page; for small
// pictures of single layers.
func (s *Overlays) Only(id string, scale float64) (*frame.List, geom.Box) {
	for i, sc := range s.Shown.Doc.Film.Scenes {
		if l, _ := sc.Layer(id); l != nil {
			return s.Player.Only(i, id, frame.View{Scale: scale})
		}
	}
	return s.Player.Only(0, "", frame.View{Scale: scale})
}
