package session

import (
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/snap"
	"capstan/core/words"
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

// Area is a part of the page that something is kept to.
type Area struct {
	Name string     `json:"name"`
	Box  [4]float64 `json:"box"` // left, top, width, height, page px
}

// upright is how much higher than wide a page is that is seen on a phone, whose own signs cover some of it.
const upright = 1.3

// SafeAreas returns the areas of the page: for action and for titles (SMPTE ST 2046-1), and on upright pages what the signs of a phone leave free
// (an eighth above, a fifth below, a sixteenth at the sides: common practice).
func (s *Session) SafeAreas() []Area {
	f := s.shown.Doc.Film
	area := func(name string, b geom.Box) Area {
		hundredth := func(v float64) float64 { return math.Round(v*100) / 100 }
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

// maxGuides is how many guides a scene has at most.
const maxGuides = 100

// setGuides is the command that gives the scene its guides.
func setGuides(sc *doc.Scene, list []doc.Guide) (edit.Command, error) {
	if len(list) > maxGuides {
		return nil, words.New("guides.many", maxGuides)
	}
	var v any = list
	if len(list) == 0 {
		v = nil
	}
	return command("scene.set", map[string]any{"ids": []string{sc.ID}, "patch": map[string]any{"guides": v}}), nil
}

func init() {
	// A guide is put down, moved (index counts from 0), or taken away (no place).
	intent("guide", func(s *Session, m Moment, c *struct {
		Index *int     `json:"index"`
		Axis  string   `json:"axis"` // of a new one: upright, level
		At    *float64 `json:"at"`   // page px
	}) (edit.Command, error) {
		sc := s.scene(m)
		list := append([]doc.Guide(nil), sc.Guides...)
		switch {
		case c.Index == nil && c.At != nil && (c.Axis == doc.Upright || c.Axis == doc.Level):
			list = append(list, doc.Guide{Axis: c.Axis, At: *c.At})
		case c.Index == nil || *c.Index < 0 || *c.Index >= len(list):
			return nil, words.New("intent.unreadable", "guide", c.Axis)
		case c.At == nil:
			list = append(list[:*c.Index], list[*c.Index+1:]...)
		default:
			list[*c.Index].At = *c.At
		}
		return setGuides(sc, list)
	})
	// Guides along the edges and through the middles of layers, or none at all any more.
	intent("guides.of", func(s *Session, m Moment, c *threads) (edit.Command, error) {
		sc := s.scene(m)
		if len(c.Threads) == 0 {
			return setGuides(sc, nil)
		}
		list := append([]doc.Guide(nil), sc.Guides...)
		there := map[doc.Guide]bool{}
		for _, g := range list {
			there[g] = true
		}
		for _, r := range s.atRest(m, c.Threads) {
			for _, name := range []string{"left", "centre", "right", "top", "middle", "bottom"} {
				at, down, _ := edge(r.box, name)
				g := doc.Guide{Axis: map[bool]string{false: doc.Upright, true: doc.Level}[down], At: math.Round(at*100) / 100}
				if !there[g] {
					there[g] = true
					list = append(list, g)
				}
			}
		}
		return setGuides(sc, list)
	})
}
