package moves

import (
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

var pathPointsAsked = intent.Table{
	// A new point on a free path, half way along the step that is nearest to a place on the page.
	"path.knot.add": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Move string  `json:"move"`
		X    float64 `json:"x"`
		Y    float64 `json:"y"`
	}) (edit.Command, error) {
		s.Stand(m)
		mv, l, i := s.Move(c.Move)
		if mv == nil || mv.Path == nil {
			return nil, words.New("path.gone")
		}
		n, ok := s.Line(i, l, mv)
		if !ok {
			return nil, words.New("path.unreadable", "it is damaged")
		}
		inv, ok := n.Page().Inverse()
		if !ok {
			return nil, nil
		}
		return edit.SetMove(c.Move, edit.Fields{"path": edit.Fields{"d": split(n.Path, inv.Apply(geom.Point{X: c.X, Y: c.Y})).Data(), "axis": nil}}), nil
	}),
	"path.knot.remove": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Move  string `json:"move"`
		Index int    `json:"index"`
	}) (edit.Command, error) {
		_, p, err := pathOf(s, c.Move)
		if err != nil {
			return nil, err
		}
		out, ok := without(p, c.Index)
		if !ok {
			return nil, words.New("path.ends")
		}
		return edit.SetMove(c.Move, edit.Fields{"path": edit.Fields{"d": out.Data()}}), nil
	}),
}

// split cuts the step nearest to q in two there, without changing the line (de Casteljau).
func split(p *geom.Path, q geom.Point) *geom.Path {
	best, at, t := -1, 0.0, 0.0
	var from geom.Point
	i := 0
	each := func(f func(n int, from geom.Point, pts []geom.Point, v geom.Verb)) {
		i, from = 0, geom.Point{}
		for n, v := range p.Verbs {
			pts := p.Points[i : i+geom.PointsOf[v]]
			f(n, from, pts, v)
			if len(pts) > 0 {
				from = pts[len(pts)-1]
			}
			i += geom.PointsOf[v]
		}
	}
	each(func(n int, from geom.Point, pts []geom.Point, v geom.Verb) {
		if v != geom.LineTo && v != geom.CubicTo {
			return
		}
		for k := 1; k < 40; k++ {
			u := float64(k) / 40
			d := pointOn(from, pts, u).Sub(q).Len()
			if best < 0 || d < at {
				best, at, t = n, d, u
			}
		}
	})
	out := &geom.Path{}
	each(func(n int, from geom.Point, pts []geom.Point, v geom.Verb) {
		switch {
		case n != best:
			out.Verbs = append(out.Verbs, v)
			out.Points = append(out.Points, pts...)
		case v == geom.LineTo:
			out.Line(from.Lerp(pts[0], t))
			out.Line(pts[0])
		default:
			a, b, c := from.Lerp(pts[0], t), pts[0].Lerp(pts[1], t), pts[1].Lerp(pts[2], t)
			d, e := a.Lerp(b, t), b.Lerp(c, t)
			out.Cubic(a, d, d.Lerp(e, t))
			out.Cubic(e, c, pts[2])
		}
	})
	return out
}

func pointOn(from geom.Point, pts []geom.Point, t float64) geom.Point {
	if len(pts) == 1 {
		return from.Lerp(pts[0], t)
	}
	a, b, c := from.Lerp(pts[0], t), pts[0].Lerp(pts[1], t), pts[1].Lerp(pts[2], t)
	return a.Lerp(b, t).Lerp(b.Lerp(c, t), t)
}

// without takes out a point the line goes through, not the first or the last; the steps on both sides become one.
func without(p *geom.Path, k int) (*geom.Path, bool) {
	out := &geom.Path{}
	i := 0
	done := false
	for n := 0; n < len(p.Verbs); n++ {
		v := p.Verbs[n]
		pts := p.Points[i : i+geom.PointsOf[v]]
		end := i + geom.PointsOf[v] - 1
		i = end + 1
		if k == end && v != geom.MoveTo && n+1 < len(p.Verbs) && (p.Verbs[n+1] == geom.LineTo || p.Verbs[n+1] == geom.CubicTo) {
			w := p.Verbs[n+1]
			next := p.Points[i : i+geom.PointsOf[w]]
			i += geom.PointsOf[w]
			n++
			done = true
			if v == geom.LineTo && w == geom.LineTo {
				out.Line(next[0])
				continue
			}
			a, b := pts[0], next[max(0, len(next)-2)]
			out.Cubic(a, b, next[len(next)-1])
			continue
		}
		out.Verbs = append(out.Verbs, v)
		out.Points = append(out.Points, pts...)
	}
	return out, done
}
