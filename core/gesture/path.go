package gesture

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/scope"
	"capstan/core/words"
)

// bentPath is a motion path whose ends, middle or points are dragged.
type bentPath struct {
	hold
	move *doc.Move
	line scope.Line
}

func (s *Drags) bendPath(b begun) (drag, error) {
	sc := s.Scene(b.moment)
	for _, gr := range b.grips {
		mv, on := sc.Move(b.of)
		if mv == nil || on != gr.layer || mv.Path == nil {
			continue
		}
		n, ok := s.Line(b.scene, gr.layer, mv)
		if !ok {
			continue
		}
		b.grips = []grip{gr}
		return &bentPath{b.hold, mv, n}, nil
	}
	return nil, words.New("gesture.nothing")
}

func (g *bentPath) to(at geom.Point, mod Modifiers) (edit.Command, Readout) {
	if strings.HasPrefix(g.handle, "knot") {
		return g.moveKnot(at, mod)
	}
	return g.bend(at, mod)
}

// bend drags one end of a motion path, or its middle. Dragging the end that is the rest pose moves the layer, and the other end
// stays where it is.
func (g *bentPath) bend(at geom.Point, mod Modifiers) (edit.Command, Readout) {
	gr := g.grips[0]
	inv, ok := g.line.Page().Inverse()
	if !ok {
		return nil, Readout{}
	}
	q := inv.Apply(at)
	p := &geom.Path{Verbs: append([]geom.Verb(nil), g.line.Path.Verbs...), Points: append([]geom.Point(nil), g.line.Path.Points...)}
	n := len(p.Points)
	a, b := p.Points[0], p.Points[n-1]
	rest := g.move.Path.Rest
	if g.handle == "mid" {
		c := q.Mul(2).Sub(a.Add(b).Mul(0.5))
		curve := &geom.Path{}
		curve.Move(a)
		curve.Quad(c, b)
		return g.setPath(gr, curve, nil), Readout{Words: "bent"}
	}
	other := a
	i, near := n-1, n-2
	if g.handle == "from" {
		other, i, near = b, 0, 1
	}
	switch d := q.Sub(other); {
	case g.move.Path.Axis == doc.Level:
		q.Y = other.Y
	case g.move.Path.Axis == doc.Upright:
		q.X = other.X
	case mod.Shift:
		if math.Abs(d.X) >= math.Abs(d.Y) {
			q.Y = other.Y
		} else {
			q.X = other.X
		}
	}
	d := q.Sub(p.Points[i])
	p.Points[i] = q
	if n > 2 {
		p.Points[near] = p.Points[near].Add(d)
	}
	length := geom.NewMeasure(p).Length()
	words := Readout{Words: fmt.Sprintf("%.0f px", length)}
	restEnd := (g.handle == "from" && rest != doc.Arrives && rest != doc.Passes) || (g.handle == "to" && rest == doc.Arrives)
	if !restEnd {
		return g.setPath(gr, p, nil), words
	}
	// Path points count from the rest pose: the layer moves by d, so the line's points move by -d.
	for k := range p.Points {
		p.Points[k] = p.Points[k].Sub(d)
	}
	return g.setPath(gr, p, &d), words
}

func (g *bentPath) setPath(gr grip, p *geom.Path, by *geom.Point) edit.Command {
	line := edit.Fields{"d": p.Data()}
	if g.move.Path.Axis != "" && len(p.Points) > 2 { // bent, it is free of its axis
		line["axis"] = nil
	}
	set := &edit.SetMoves{Set: []edit.Part{{
		ID: g.move.ID, Patch: edit.Fields{"path": line},
	}}}
	if by == nil {
		return set
	}
	l := gr.layer
	return edit.All(set, edit.SetPlaces([]edit.Part{
		edit.PlaceOf(l.ID, edit.Fields{"x": l.Place.X + by.X, "y": l.Place.Y + by.Y}),
	}))
}

// moveKnot drags one point of a free path. A point takes its handles along; a handle turns the one across it with it where the line
// goes through smoothly, but with Alt.
func (g *bentPath) moveKnot(at geom.Point, mod Modifiers) (edit.Command, Readout) {
	gr := g.grips[0]
	inv, ok := g.line.Page().Inverse()
	k, err := strconv.Atoi(strings.TrimPrefix(g.handle, "knot"))
	old := g.line.Path
	if !ok || err != nil || k < 0 || k >= len(old.Points) {
		return nil, Readout{}
	}
	p := &geom.Path{Verbs: append([]geom.Verb(nil), old.Verbs...), Points: append([]geom.Point(nil), old.Points...)}
	q := inv.Apply(at)
	d := q.Sub(p.Points[k])
	before, handle, of := neighbours(p, k)
	p.Points[k] = q
	switch {
	case !handle:
		for _, h := range before {
			p.Points[h] = p.Points[h].Add(d)
		}
	case len(before) == 1 && !mod.Alt && smooth(old.Points[of], old.Points[k], old.Points[before[0]]):
		c := p.Points[of]
		if l := q.Sub(c).Len(); l > 1e-9 {
			p.Points[before[0]] = c.Sub(q.Sub(c).Mul(old.Points[before[0]].Sub(c).Len() / l))
		}
	}
	return g.setPath(gr, p, nil), Readout{Words: fmt.Sprintf("%.0f px", geom.NewMeasure(p).Length())}
}

// neighbours says what belongs to point k: for a point the line goes through its handles; for a handle the handle across its point, and
// that point.
func neighbours(p *geom.Path, k int) (others []int, handle bool, of int) {
	i := 0
	for n, v := range p.Verbs {
		next := i + geom.PointsOf[v]
		follows := n+1 < len(p.Verbs) && p.Verbs[n+1] == geom.CubicTo
		if k < next {
			switch {
			case v == geom.CubicTo && k == i: // leaves the point before
				if n > 0 && p.Verbs[n-1] == geom.CubicTo {
					others = append(others, i-2)
				}
				return others, true, i - 1
			case v == geom.CubicTo && k == i+1: // arrives at this step's end
				if follows {
					others = append(others, next)
				}
				return others, true, i + 2
			}
			if v == geom.CubicTo {
				others = append(others, i+1)
			}
			if follows {
				others = append(others, next)
			}
			return others, false, k
		}
		i = next
	}
	return nil, false, k
}

// smooth reports whether two handles lie on one line through their point.
func smooth(c, a, b geom.Point) bool {
	u, v := a.Sub(c), b.Sub(c)
	l := u.Len() * v.Len()
	return l > 0 && u.X*v.X+u.Y*v.Y < -0.999*l
}
