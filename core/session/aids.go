package session

import (
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/snap"
)

// Aids are what helps to place things and is never exported. It belongs to a window, but for guides, which belong to their scene.
type Aids struct {
	Grid float64 `json:"grid"` // px a step; 0: none
	Safe bool    `json:"safe"` // safe areas are shown
}

// SetAids says what is shown, and so is snapped to.
func (s *Session) SetAids(a Aids) {
	if !(a.Grid >= 1) {
		a.Grid = 0
	}
	s.aids = a
}

// SafeTitle and SafeAction are the shares of the page's sides that titles and action keep to (SMPTE ST 2046-1).
const (
	SafeTitle  = 0.90
	SafeAction = 0.93
)

// safeBox is the middle part of the page of that share.
func (s *Session) safeBox(share float64) geom.Box {
	f := s.shown.Doc.Film
	c := s.centre()
	return geom.BoxAt(c, float64(f.Width)*share, float64(f.Height)*share)
}

// Area is a part of the page that something is kept to.
type Area struct {
	Name string     `json:"name"`
	Box  [4]float64 `json:"box"` // left, top, width, height, page px
}

func hundredth(v float64) float64 { return math.Round(v*100) / 100 }

// upright is how much higher than wide a page is that is seen on a phone, whose own signs cover some of it.
const upright = 1.3

// SafeAreas returns the areas of the page: for action and for titles (SMPTE ST 2046-1), and on upright pages what the signs of a phone leave free
// (an eighth above, a fifth below, a sixteenth at the sides: common practice).
func (s *Session) SafeAreas() []Area {
	f := s.shown.Doc.Film
	area := func(name string, b geom.Box) Area {
		return Area{name, [4]float64{hundredth(b.Min.X), hundredth(b.Min.Y), hundredth(b.W()), hundredth(b.H())}}
	}
	out := []Area{area("action", s.safeBox(SafeAction)), area("titles", s.safeBox(SafeTitle))}
	if w, h := float64(f.Width), float64(f.Height); h > upright*w {
		out = append(out, area("free on a phone", geom.Box{Min: geom.Point{X: w / 16, Y: h / 8}, Max: geom.Point{X: w * 15 / 16, Y: h * 4 / 5}}))
	}
	return out
}

// safe is the innermost of the safe areas: what layers are aligned to.
func (s *Session) safe() geom.Box {
	list := s.SafeAreas()
	b := list[len(list)-1].Box
	return geom.Box{Min: geom.Point{X: b[0], Y: b[1]}, Max: geom.Point{X: b[0] + b[2], Y: b[1] + b[3]}}
}

// snapToAids adds guides, grid and safe areas to what a drag snaps to.
func (s *Session) snapToAids(f *snap.Field, scene int) {
	film := s.shown.Doc.Film
	w, h := float64(film.Width), float64(film.Height)
	for _, v := range film.Scenes[scene].Guides {
		if v.Axis == doc.Upright {
			f.Guide(snap.Across, v.At, "a guide", 0, h)
		} else {
			f.Guide(snap.Down, v.At, "a guide", 0, w)
		}
	}
	f.Grid(s.aids.Grid)
	if !s.aids.Safe {
		return
	}
	for _, a := range s.SafeAreas() {
		name := "edge of the area for " + a.Name
		for _, x := range []float64{a.Box[0], a.Box[0] + a.Box[2]} {
			f.Guide(snap.Across, x, name, 0, h)
		}
		for _, y := range []float64{a.Box[1], a.Box[1] + a.Box[3]} {
			f.Guide(snap.Down, y, name, 0, w)
		}
	}
}
