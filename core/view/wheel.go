package view

import (
	"fmt"
	"math"

	"capstan/core/doc"
)

// Wheel is what a wheel of equal parts seems to do at the film's rate, where that is not what it does (docs/motion.md, section 10).
type Wheel struct {
	Words  string  `json:"words"`
	Cycles []int64 `json:"cycles"` // ms of a turn at which it is seen to turn as it does, the fastest first
}

// Shares of the angle from part to part that a wheel may turn from frame to frame: less than a half, or it seems to turn backwards.
const (
	seenToTurn = 0.4
	seenWell   = 0.25
)

// wheelOf returns what is odd about a loop of scene i that turns its layer, evenly or as it rolls; nil where nothing is.
func (s *Views) wheelOf(i int, l *doc.Layer, m *doc.Move) *Wheel {
	k, r := equalParts(l), s.Shown.Doc.Film.Rate
	perFrame := 1000 * float64(r.Den) / float64(r.Num)
	var turned float64 // in parts, a frame
	switch g := m.Goes(); {
	case k < 2:
		return nil
	case m.Spins() && m.Duration > 0:
		turned = float64(k) * perFrame / float64(m.Duration)
	case g != nil && g.Round != nil:
		turned = s.Shown.FastestTurn(i, l.ID, m.ID) * float64(k) / 360
	}
	off := turned - math.Round(turned)
	var seems string
	switch {
	case turned < 0.5-1e-9:
		return nil
	case math.Abs(off) < 0.04:
		seems = "seems to stand"
	case off < 0:
		seems = "seems to turn backwards"
	default:
		seems = "seems to turn more slowly"
	}
	told := fmt.Sprintf("At %.4g frames a second its %d equal parts make that it %s", float64(r.Num)/float64(r.Den), k, seems)
	if !m.Spins() {
		return &Wheel{fmt.Sprintf("%s where it is fastest. A way that takes %.2g times as long shows it as it is.", told, turned/seenToTurn), []int64{}}
	}
	at := func(share float64) int64 { return int64(math.Ceil(float64(k)*perFrame/share/10)) * 10 }
	return &Wheel{told + ".", []int64{at(seenToTurn), at(seenWell)}}
}

// equalParts is how many parts of a layer look the same when it turns: the points of a star or polygon, the children of a group that are alike.
func equalParts(l *doc.Layer) int {
	switch {
	case l.Kind == doc.Star || l.Kind == doc.Polygon:
		if l.Shape != nil {
			return l.Shape.Count
		}
	case l.Kind == doc.Group:
		most := 0
		for _, a := range l.Children {
			n := 0
			for _, b := range l.Children {
				if a.Like(b) && a.Place.W == b.Place.W && a.Place.H == b.Place.H {
					n++
				}
			}
			most = max(most, n)
		}
		if most > 2 {
			return most
		}
	}
	return 0
}
