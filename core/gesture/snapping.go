package gesture

import (
	"math"
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/scope"
	"capstan/core/snap"
)

// snapToAids adds guides, grid and safe areas to what a drag snaps to.
func (s *Drags) snapToAids(f *snap.Field, scene int) {
	film := s.Shown.Doc.Film
	w, h := float64(film.Width), float64(film.Height)
	for _, v := range film.Scenes[scene].Guides {
		if v.Axis == doc.Upright {
			f.Guide(snap.Across, v.At, "a guide", 0, h)
		} else {
			f.Guide(snap.Down, v.At, "a guide", 0, w)
		}
	}
	f.Grid(s.Aids.Grid)
	if !s.Aids.Safe {
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

// maxSnapped is how many layers a drag snaps to; of more, the front-most count.
const maxSnapped = 2000

// field returns what a drag of the grips may snap to: the page, what helps to place things, and every layer beside them or at the top that is
// neither dragged nor inside of one that is, nor covers the page.
func (s *Drags) field(g *hold) *snap.Field {
	f := &snap.Field{}
	film := s.Shown.Doc.Film
	w, h := float64(film.Width), float64(film.Height)
	f.Page(w, h)
	s.snapToAids(f, g.scene)
	type found struct {
		box   geom.Box
		layer *doc.Layer
	}
	var list []found
	sc := film.Scenes[g.scene]
	beside := map[string]bool{} // the groups that what is dragged lies in
	for i := range g.grips {
		if _, parent := sc.Layer(g.grips[i].layer.ID); parent != nil {
			beside[parent.ID] = true
		}
	}
	s.Player.EachPlaced(func(l *doc.Layer, c [4]geom.Point, chain []string) {
		if n := len(chain); n > 1 && !beside[chain[n-2]] {
			return // parts of other groups: these count as a whole
		}
		for _, gr := range g.grips {
			if slices.Contains(chain, gr.layer.ID) {
				return
			}
			// What a dragged layer lies in grows with it.
			if l.Kind == doc.Group && scope.Inside(l, gr.layer.ID) {
				return
			}
		}
		b := scope.BoxOf(c)
		if b.W() >= w && b.H() >= h {
			return
		}
		list = append(list, found{b, l})
	})
	points := 0
	for _, v := range list[max(0, len(list)-maxSnapped):] {
		f.Box(v.box, v.layer.Name)
		if v.layer.Place.Pivot != nil {
			if _, pivot, ok := s.Player.Quad(v.layer.ID); ok {
				f.Point(pivot, "pivot of "+v.layer.Name)
			}
		}
		if v.layer.Kind == doc.PathKind && points < maxTargets {
			for _, p := range s.PointsOnPage(v.layer) {
				f.Point(p, "a point of "+v.layer.Name)
				points++
			}
		}
	}
	return f
}

// pageBox is the upright box on the page of what a grip holds, as it was when the drag began.
func (gr *grip) pageBox() geom.Box { return gr.own.ApplyBox(gr.box) }

// snapMove returns how far a drag by d goes on to lie on something; where one axis is locked it snaps along the other alone.
func (g *hold) snapMove(d geom.Point, mod Modifiers) (geom.Point, []snap.Mark) {
	if g.field == nil || mod.Free || mod.Reach <= 0 {
		return d, nil
	}
	b := g.around()
	b = geom.Box{Min: b.Min.Add(d), Max: b.Max.Add(d)}
	var own []geom.Point
	if gr := &g.grips[0]; len(g.grips) == 1 && gr.layer.Place.Pivot != nil {
		own = append(own, gr.onPage.Add(d))
	}
	by, marks := g.field.Move(b, mod.Reach, own...)
	if mod.Shift && d.X == 0 && by.X != 0 || mod.Shift && d.Y == 0 && by.Y != 0 {
		return d, nil
	}
	return d.Add(by), marks
}

// snapSize returns the factors of a resized layer after what is dragged has snapped. It does where the layer stands upright on the page.
// fixed is the point that stays, in its own axes.
func (g *hold) snapSize(gr *grip, kx, ky float64, keep bool, fixed geom.Point, mod Modifiers) (float64, float64, []snap.Mark) {
	m := gr.own
	if g.field == nil || mod.Free || mod.Reach <= 0 || math.Abs(m.B) > 1e-9 || math.Abs(m.C) > 1e-9 || m.A <= 0 || m.D <= 0 {
		return kx, ky, nil
	}
	page, at := gr.pageBox(), m.Apply(fixed)
	type side struct {
		axis       int
		from, size float64
		k          *float64
	}
	var sides []side
	if strings.ContainsAny(g.handle, "ew") || keep && len(g.handle) > 1 {
		sides = append(sides, side{snap.Across, at.X, page.W(), &kx})
	}
	if strings.ContainsAny(g.handle, "ns") || keep && len(g.handle) > 1 {
		sides = append(sides, side{snap.Down, at.Y, page.H(), &ky})
	}
	var marks []snap.Mark
	least := math.Inf(1)
	for _, v := range sides {
		sign := 1.0
		if strings.ContainsRune(g.handle, 'w') && v.axis == snap.Across || strings.ContainsRune(g.handle, 'n') && v.axis == snap.Down {
			sign = -1
		}
		lo, hi := page.Min.Y, page.Max.Y
		if v.axis == snap.Down {
			lo, hi = page.Min.X, page.Max.X
		}
		by, mark, ok := g.field.Edge(v.axis, v.from+sign*v.size**v.k, v.from, lo, hi, mod.Reach)
		if !ok || v.size <= 0 {
			continue
		}
		k := (v.size**v.k + sign*by) / v.size
		if k <= 0 {
			continue
		}
		if !keep {
			*v.k = k
			marks = append(marks, mark)
		} else if math.Abs(by) < least {
			least, kx, ky, marks = math.Abs(by), k, k, []snap.Mark{mark}
		}
	}
	return kx, ky, marks
}

// said adds what something snapped to to what is said at the pointer.
func said(r Readout, marks []snap.Mark) Readout {
	for _, m := range marks {
		r.Words += " · " + m.Words
		r.Lines = append(r.Lines, m.Lines...)
	}
	return r
}
