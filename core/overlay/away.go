package overlay

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/scope"
)

// Away is where a layer is when a move of it begins or ends that has it elsewhere than at rest.
type Away struct {
	Move    string        `json:"move"`
	At      int64         `json:"at"`      // ms on the scene's clock
	Corners [4][2]float64 `json:"corners"` // of its box, page px
}

// How many layers and moves it is shown of at most, beyond which outlines hide each other, and from how many px on a layer counts as elsewhere.
const (
	mostAwayLayers = 4
	mostAwayMoves  = 24
	elsewhere      = 1.0
)

// away returns where slides, bounces and changes begin or end, for layers of a scene: an entrance begins there, an exit ends, a change comes to
// stay there. A path's ends lie on its line. A view shows another part of the page at each time: seen through it, nothing of this is told.
func (s *Overlays) away(m scope.Moment, scene int, layers []*doc.Layer) []Away {
	list := []Away{}
	if len(layers) > mostAwayLayers || !m.Rest && s.Scene(m).View() != nil {
		return list
	}
	t := s.Shown.Timing(scene)
	for _, l := range layers {
		box, _ := s.Shown.Box(scene, l.ID)
		at := s.Shown.Ancestry(scene, l.ID).Mul(s.Shown.RestMatrix(scene, l.ID))
		seen := [][4]geom.Point{geom.Quad(box, at)}
		for _, mv := range l.Moves[:min(len(l.Moves), mostAwayMoves)] {
			iv := t.Moves[mv.ID]
			moment := iv.Begin
			switch mv.Kind {
			case doc.Exit:
				moment = iv.End - 1 // it is gone at its end
			case doc.Change:
				moment = iv.End
			case doc.Entrance:
			default:
				continue
			}
			if moment < 0 || moment > t.Stay || l.Is().Looks {
				continue
			}
			q, ok := s.Shown.StandsAt(scene, l.ID, motion.Millis(moment))
			if !ok || near(seen, q, mv.Kind == doc.Change) {
				continue
			}
			seen = append(seen, q)
			a := Away{Move: mv.ID, At: moment}
			for k, p := range q {
				a.Corners[k] = geom.Pair(p)
			}
			list = append(list, a)
		}
	}
	return list
}

// near reports whether a layer stands where it does in one of a list: with its middle, or with all of its corners.
func near(list [][4]geom.Point, q [4]geom.Point, corners bool) bool {
	for _, o := range list {
		far := q[0].Add(q[2]).Sub(o[0].Add(o[2])).Len() / 2
		for k := range q {
			if corners {
				far = max(far, q[k].Sub(o[k]).Len())
			}
		}
		if far < elsewhere {
			return true
		}
	}
	return false
}
