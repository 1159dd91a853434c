package motion

import (
	"math"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/geom"
)

// Going is what loops make of a layer at a time.
type Going = effect.Going

// Crossing is how one page takes the place of another, of transitions by an effect of pages.
type Crossing struct {
	Pushes bool    // both pages are moved
	Toward float64 // where to, degrees clockwise from the right
	front  *effect.Front
}

// CrossingOf returns how a transition goes from page to page; the zero one for those that go by no effect.
func CrossingOf(t *doc.Transition) Crossing {
	pages, params := t.Pages()
	switch {
	case pages == nil:
		return Crossing{}
	case pages.Push != nil:
		d := pages.Push(params)
		return Crossing{true, d, effect.Straight(math.Round(d/45) * 45)} // pages that are pushed share an edge
	}
	return Crossing{front: pages.Front(params)}
}

// Uncovers reports whether the next page is uncovered over the first.
func (c *Crossing) Uncovers() bool { return c.front != nil }

// At returns what is uncovered of the next page at eased progress e.
func (c *Crossing) At(e float64) Reveal {
	return Reveal{Opacity: 1, Front: c.front, Share: min(1, max(0, e))}
}

// Field returns what a reveal shows of a box.
func (r *Reveal) Field(box geom.Box) effect.Field {
	if r.Tie != nil {
		return effect.Edge(r.Tie, r.Edge, r.Inverted)
	}
	if r.Front == nil {
		return effect.Whole
	}
	return r.Front.At(box, r.Share, r.Inverted)
}
