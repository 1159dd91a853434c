package gesture

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/pen"
	"capstan/core/scope"
	"capstan/core/words"
)

// maxTargets is the most points of other paths that dragged points snap to.
const maxTargets = 4000

// pulledPoints are points, a handle, or a stretch of a drawn path.
type pulledPoints struct {
	hold
	points  string        // that go with the one that is seized, by commas
	lines   []pen.Contour // as they were
	targets []geom.Point  // on the page, to snap to
	drawn   []pen.Contour // as they are drafted
}

// pullPoints reads the path once, and gathers what its points may snap to: those that stay, and those of the scene's other paths.
func (s *Drags) pullPoints(b begun) (drag, error) {
	h, err := b.held()
	if err != nil {
		return nil, err
	}
	g := &pulledPoints{hold: h, points: b.of}
	gr := g.grips[0]
	if g.lines, err = scope.ContoursOf(gr.layer); err != nil {
		return nil, words.New("path.unreadable", err)
	}
	moved := g.chosen()
	for i, c := range g.lines {
		for k, n := range c.Nodes {
			if !slices.Contains(moved, [2]int{i, k}) {
				g.targets = append(g.targets, gr.own.Apply(n.At))
			}
		}
	}
	doc.Walk(s.Scene(b.moment).Layers, func(l, _ *doc.Layer) bool {
		if l == gr.layer || l.Kind != doc.PathKind || l.Hidden || len(g.targets) > maxTargets {
			return !l.Hidden
		}
		g.targets = append(g.targets, s.PointsOnPage(l)...)
		return true
	})
	return g, nil
}

// chosen are the points that are moved, by line and place.
func (g *pulledPoints) chosen() (list [][2]int) {
	for _, id := range append(strings.Split(g.points, ","), g.handle) {
		if k, ok := pen.SpotOf(id, g.lines); ok && k.Part == "" && !slices.Contains(list, [2]int{k.Contour, k.Node}) {
			list = append(list, [2]int{k.Contour, k.Node})
		}
	}
	return
}

// pull drags points, a handle, or a stretch of a drawn path. handle names what is seized; points those that go with it, by
// commas. A handle takes the one across with it where the line is smooth, but with Alt; with Shift it goes at steps of 15 degrees.
// Points snap to other points and to the height and the width they lie at.
func (g *pulledPoints) pull(at geom.Point, mod Modifiers) ([]pen.Contour, Readout) {
	gr := g.grips[0]
	inv, ok := gr.own.Inverse()
	if !ok {
		return nil, Readout{}
	}
	p, ok := pen.SpotOf(g.handle, g.lines)
	if !ok {
		return nil, Readout{}
	}
	list := slices.Clone(g.lines)
	own := func(i int) *pen.Contour {
		if &list[i].Nodes[0] == &g.lines[i].Nodes[0] {
			list[i].Nodes = slices.Clone(list[i].Nodes)
		}
		return &list[i]
	}
	q, from := inv.Apply(at), inv.Apply(g.from)
	by := q.Sub(from)
	n := &own(p.Contour).Nodes[p.Node]
	var r Readout
	switch p.Part {
	case "in", "out":
		q = towards(n.At, q, mod.Shift)
		pulled, across := &n.In, &n.Out
		if p.Part == "out" {
			pulled, across = &n.Out, &n.In
		}
		was := n.Smooth()
		*pulled = q
		if was && !mod.Alt {
			if d := q.Sub(n.At); d.Len() > 1e-9 {
				*across = n.At.Sub(d.Mul(across.Sub(n.At).Len() / d.Len()))
			}
		}
	case "on":
		bend(&list[p.Contour], p.Node, p.T, by)
	default:
		if mod.Shift {
			by = towards(geom.Point{}, by, true)
		} else if mod.Reach > 0 && !mod.Free {
			var d geom.Point
			d, r = g.snapped(gr.own.Apply(n.At.Add(by)), mod.Reach)
			by = by.Add(inv.ApplyVector(d))
		}
		for _, k := range g.chosen() {
			v := &own(k[0]).Nodes[k[1]]
			*v = v.Moved(by)
		}
	}
	if r.Words == "" {
		r.Words = fmt.Sprintf("%+.0f, %+.0f", by.X, by.Y)
	}
	return list, r
}

// bend moves the place t of a stretch by d: both of its handles go the way that takes it there.
func bend(c *pen.Contour, i int, t float64, d geom.Point) {
	a, b := &c.Nodes[i], &c.Nodes[(i+1)%len(c.Nodes)]
	if a.Out == a.At && b.In == b.At {
		a.Out, b.In = a.At.Lerp(b.At, 1.0/3), a.At.Lerp(b.At, 2.0/3)
	}
	t = min(0.9, max(0.1, t))
	k := 1 / (3 * t * (1 - t))
	a.Out, b.In = a.Out.Add(d.Mul(k)), b.In.Add(d.Mul(k))
}

// snapped returns how a point of the page moves to lie on another, or at its height or width, where one is within reach; with lines
// from the others to where it comes to lie.
func (g *pulledPoints) snapped(at geom.Point, reach float64) (by geom.Point, r Readout) {
	nearest := func(off func(q geom.Point) float64) int {
		best, least, far := -1, reach, math.Inf(1)
		for i, q := range g.targets {
			d := math.Abs(off(q))
			if l := q.Sub(at).Len(); d < least-1e-6 || d < least+1e-6 && l < far {
				best, least, far = i, min(d, least), l
			}
		}
		return best
	}
	if i := nearest(func(q geom.Point) float64 { return q.Sub(at).Len() }); i >= 0 {
		return g.targets[i].Sub(at), Readout{Words: "on a point"}
	}
	x := nearest(func(q geom.Point) float64 { return q.X - at.X })
	y := nearest(func(q geom.Point) float64 { return q.Y - at.Y })
	if x >= 0 {
		by.X = g.targets[x].X - at.X
	}
	if y >= 0 {
		by.Y = g.targets[y].Y - at.Y
	}
	to := at.Add(by)
	for _, i := range [2]int{x, y} {
		if i >= 0 {
			r.Lines = append(r.Lines, [4]float64{g.targets[i].X, g.targets[i].Y, to.X, to.Y})
		}
	}
	switch {
	case x >= 0 && y >= 0:
		r.Words = "under one point, beside another"
	case x >= 0:
		r.Words = "under a point"
		if g.targets[x].Y > to.Y {
			r.Words = "above a point"
		}
	case y >= 0:
		r.Words = "beside a point"
	}
	return
}

// to is not asked: the drag drafts by itself.
func (g *pulledPoints) to(geom.Point, Modifiers) (edit.Command, Readout) { return nil, Readout{} }

func (g *pulledPoints) made() edit.Command {
	if g.drawn == nil {
		return nil
	}
	return edit.SetPath(g.grips[0].layer.ID, pen.Path(g.drawn))
}

// draft shows a path while its points are dragged, without writing it as text and reading it again.
func (g *pulledPoints) draft(s *Drags, at geom.Point, mod Modifiers) (Readout, error) {
	list, r := g.pull(at, mod)
	if list == nil {
		return r, nil
	}
	p := pen.Path(list)
	for i, q := range p.Points {
		if !(math.Abs(q.X) <= doc.MaxPlace && math.Abs(q.Y) <= doc.MaxPlace) {
			return r, nil // dragged out of all bounds: the last draft stays
		}
		p.Points[i] = geom.Point{X: math.Round(q.X*1000) / 1000, Y: math.Round(q.Y*1000) / 1000} // as it will be stored
	}
	s.drafts++
	g.drawn = list
	s.Pulled = scope.Pulled{Path: fmt.Sprintf("draft %d", s.drafts), Lines: list}
	s.Shown.Geometry.KnowPath(s.Pulled.Path, p)
	q, err := edit.DraftPath(s.Doc, g.grips[0].layer.ID, s.Pulled.Path)
	if err != nil {
		return r, err
	}
	return r, s.shows.ShowDraft(q)
}
