package scope

import (
	"math"

	"capstan/core/geom"
)

// Aids are what helps to place things and is never exported. It belongs to a window, but for guides, which belong to their scene.
type Aids struct {
	Grid float64 `json:"grid"` // px a step; 0: none
	Safe bool    `json:"safe"` // safe areas are shown
}

// SetAids says what is shown, and so is snapped to.
func (s *Scope) SetAids(a Aids) {
	if !(a.Grid >= 1) {
		a.Grid = 0
	}
	s.Aids = a
}

// SafeTitle and SafeAction are the shares of the page's sides that titles and action keep to (SMPTE ST 2046-1).
const (
	SafeTitle  = 0.90
	SafeAction = 0.93
)

// SafeBox is the middle part of the page of that share.
func (s *Scope) SafeBox(share float64) geom.Box {
	f := s.Shown.Doc.Film
	c := s.Centre()
	return geom.BoxAt(c, float64(f.Width)*share, float64(f.Height)*share)
}

// Area is a part of the page that something is kept to.
type Area struct {
	Name string     `json:"name"`
	Box  [4]float64 `json:"box"` // left, top, width, height, page px
}

// Hundredth rounds a number to a hundredth.
func Hundredth(v float64) float64 { return math.Round(v*100) / 100 }

// upright is how much higher than wide a page is that is seen on a phone, whose own signs cover some of it.
const upright = 1.3

// SafeAreas returns the areas of the page: for action and for titles (SMPTE ST 2046-1), and on upright pages what the signs of a phone leave free
// (an eighth above, a fifth below, a sixteenth at the sides: common practice).
func (s *Scope) SafeAreas() []Area {
	f := s.Shown.Doc.Film
	area := func(name string, b geom.Box) Area {
		return Area{name, [4]float64{Hundredth(b.Min.X), Hundredth(b.Min.Y), Hundredth(b.W()), Hundredth(b.H())}}
	}
	out := []Area{area("action", s.SafeBox(SafeAction)), area("titles", s.SafeBox(SafeTitle))}
	if w, h := float64(f.Width), float64(f.Height); h > upright*w {
		out = append(out, area("free on a phone", geom.Box{Min: geom.Point{X: w / 16, Y: h / 8}, Max: geom.Point{X: w * 15 / 16, Y: h * 4 / 5}}))
	}
	return out
}

// Safe is the innermost of the safe areas: what layers are aligned to.
func (s *Scope) Safe() geom.Box {
	list := s.SafeAreas()
	b := list[len(list)-1].Box
	return geom.Box{Min: geom.Point{X: b[0], Y: b[1]}, Max: geom.Point{X: b[0] + b[2], Y: b[1] + b[3]}}
}

// Page is the page's box, px.
func (s *Scope) Page() geom.Box {
	return geom.Box{Max: geom.Point{X: float64(s.Doc.Film.Width), Y: float64(s.Doc.Film.Height)}}
}
