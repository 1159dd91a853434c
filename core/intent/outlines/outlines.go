// Package outlines is what is asked about outlines that become each other in a morph: which points and which parts of both are the same.
package outlines

import (
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/morph"
	"capstan/core/overlay"
	"capstan/core/scope"
	"capstan/core/words"
)

// Into names an outline on its way: a thread in the morph into a scene; the first: back to it.
type Into struct {
	Scene  string `json:"scene"`
	Thread string `json:"thread"`
}

// reach is from how far, in shares of the page's height, a point is taken for one of an outline.
const reach = 0.06

// Asked is all of it, by name. Points are counted as they are shown (overlay.Outline).
var Asked = intent.Table{
	// One end of a pair is brought to the nearest point of its outline.
	"outline.point": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Into
		Mark  int     `json:"mark"`
		Later bool    `json:"later"` // the end on the later outline
		X     float64 `json:"x"`     // page px, as it is drawn
		Y     float64 `json:"y"`
	}) (edit.Command, error) {
		return changed(s, c.Into, func(v *overlay.Correspondence, said *doc.Reshape) error {
			return setEnd(v, said, c.Mark, c.Later, func(part int, share float64) float64 {
				p, m := v.From, v.ShowA
				if c.Later {
					p, m = v.To, v.ShowB
				}
				if inv, ok := m.Inverse(); ok {
					if at, _, ok := morph.Nearest(p, part, inv.Apply(geom.Point{X: c.X, Y: c.Y})); ok {
						return at
					}
				}
				return share
			})
		})
	}),

	// One end of a pair is moved along its outline, by a share of its length.
	"outline.nudge": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Into
		Mark  int     `json:"mark"`
		Later bool    `json:"later"`
		By    float64 `json:"by"`
	}) (edit.Command, error) {
		return changed(s, c.Into, func(v *overlay.Correspondence, said *doc.Reshape) error {
			return setEnd(v, said, c.Mark, c.Later, func(_ int, share float64) float64 { return wrap(share + c.By) })
		})
	}),

	// A pair of points from one outline to the other; parts that were no pair become one. Without an end it goes in the longest gap between points.
	"outline.pair": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Into
		From *[2]float64 `json:"from"` // page px, as they are drawn
		To   *[2]float64 `json:"to"`
	}) (edit.Command, error) {
		return changed(s, c.Into, func(v *overlay.Correspondence, said *doc.Reshape) error {
			if c.From == nil || c.To == nil {
				return inGap(v, said)
			}
			return join(s, v, said, geom.Point{X: c.From[0], Y: c.From[1]}, geom.Point{X: c.To[0], Y: c.To[1]})
		})
	}),

	// A part becomes another; what either was paired with goes.
	"outline.parts": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Into
		From int `json:"from"`
		To   int `json:"to"`
	}) (edit.Command, error) {
		return changed(s, c.Into, func(v *overlay.Correspondence, said *doc.Reshape) error {
			if c.From < 0 || c.To < 0 || c.From >= morph.Parts(v.From) || c.To >= morph.Parts(v.To) {
				return words.New("outline.point-gone")
			}
			paired(v, said, c.From, c.To)
			return nil
		})
	}),

	// A part goes the other way round.
	"outline.turn": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Into
		Part int `json:"part"` // in the list of parts
	}) (edit.Command, error) {
		return changed(s, c.Into, func(v *overlay.Correspondence, said *doc.Reshape) error {
			if c.Part < 0 || c.Part >= len(v.Matches) || v.Matches[c.Part].From < 0 || v.Matches[c.Part].To < 0 {
				return words.New("outline.point-gone")
			}
			p := paired(v, said, v.Matches[c.Part].From, v.Matches[c.Part].To)
			if p.Back = !p.Back; !p.Follow() { // two points at most go round both ways
				p.Points = p.Points[:min(len(p.Points), 1)]
			}
			return nil
		})
	}),

	// A pair of points that was given is let go.
	"outline.loose": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Into
		Mark int `json:"mark"`
	}) (edit.Command, error) {
		return changed(s, c.Into, func(v *overlay.Correspondence, said *doc.Reshape) error {
			marks, matches := v.Marks()
			if c.Mark < 0 || c.Mark >= len(marks) {
				return words.New("outline.point-gone")
			}
			p := paired(v, said, matches[c.Mark].From, matches[c.Mark].To)
			p.Points = slices.DeleteFunc(p.Points, func(q [2]float64) bool { return q == [2]float64{marks[c.Mark].U, marks[c.Mark].V} })
			return nil
		})
	}),

	// What was said of points and parts goes: they are found anew.
	"outline.forget": intent.Of(func(s *intent.Desk, _ scope.Moment, c *Into) (edit.Command, error) {
		return changed(s, *c, func(_ *overlay.Correspondence, said *doc.Reshape) error {
			*said = doc.Reshape{Way: said.Way}
			return nil
		})
	}),

	// What still fits after an outline has changed is kept as what was said of it.
	"outline.keep": intent.Of(func(s *intent.Desk, _ scope.Moment, c *Into) (edit.Command, error) {
		return changed(s, *c, func(v *overlay.Correspondence, said *doc.Reshape) error {
			for _, m := range v.Matches {
				if m.Given {
					paired(v, said, m.From, m.To)
				}
			}
			parts := morph.Parts
			said.Parts = slices.DeleteFunc(said.Parts, func(p doc.PartPair) bool { return p.From >= parts(v.From) || p.To >= parts(v.To) })
			return nil
		})
	}),

	// How points go: straight, turned, bent; empty: the simplest that is good.
	"outline.way": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Scene   string   `json:"scene"`
		Way     string   `json:"way"`
	}) (edit.Command, error) {
		return setting(s, c.Scene, c.Threads, func(said *doc.Reshape) error {
			said.Way = c.Way
			return nil
		})
	}),
}

// changed is the command that changes what was said of an outline on its way.
func changed(s *intent.Desk, into Into, change func(v *overlay.Correspondence, said *doc.Reshape) error) (edit.Command, error) {
	v, ok := overlay.CorrespondenceInto(s.Scope, into.Scene, into.Thread)
	if !ok {
		return nil, words.New("outline.gone")
	}
	return setting(s, into.Scene, []string{into.Thread}, func(said *doc.Reshape) error {
		if err := change(v, said); err != nil {
			return err
		}
		if said.From, said.To = "", ""; len(said.Parts) > 0 {
			said.From, said.To = morph.Hash(v.From), morph.Hash(v.To)
		}
		return nil
	})
}

// setting is the command that sets what is said of the outlines of threads in the morph into a scene.
func setting(s *intent.Desk, scene string, threads []string, change func(said *doc.Reshape) error) (edit.Command, error) {
	return s.SetStrands(scene, threads, func(own *doc.Strand) error {
		said := own.Outline.Clone()
		if said == nil {
			said = &doc.Reshape{}
		}
		if err := change(said); err != nil {
			return err
		}
		if own.Outline = said; said.Way == "" && len(said.Parts) == 0 {
			own.Outline = nil
		}
		return nil
	})
}

// wrap brings a share of a round into 0..1.
func wrap(u float64) float64 { return u - math.Floor(u) }

// paired is what is said of a pair of parts, said now if it was not: they go round as they do, and the points given of them that fit stay. Other pairs
// of either are let go.
func paired(v *overlay.Correspondence, said *doc.Reshape, from, to int) *doc.PartPair {
	p := doc.PartPair{From: from, To: to}
	for _, m := range v.Matches {
		switch {
		case m.From == from && m.To == to:
			p.Back, p.Points = m.Back, nil
			for _, k := range m.Marks {
				if k.Given {
					p.Points = append(p.Points, [2]float64{k.U, k.V})
				}
			}
		case m.From >= 0 && m.To >= 0 && !slices.ContainsFunc(v.Matches, func(o morph.Match) bool { return o.From == from && o.To == to }):
			p.Back = m.Back // as the others go
		}
	}
	said.Parts = slices.DeleteFunc(said.Parts, func(q doc.PartPair) bool { return q.From == from || q.To == to })
	said.Parts = append(said.Parts, p)
	return &said.Parts[len(said.Parts)-1]
}

// setEnd gives one end of a pair of points another share of its part.
func setEnd(v *overlay.Correspondence, said *doc.Reshape, mark int, later bool, to func(part int, share float64) float64) error {
	marks, matches := v.Marks()
	if mark < 0 || mark >= len(marks) {
		return words.New("outline.point-gone")
	}
	m := matches[mark]
	p := paired(v, said, m.From, m.To)
	q := [2]float64{marks[mark].U, marks[mark].V}
	i := slices.Index(p.Points, q)
	if i < 0 {
		i, p.Points = len(p.Points), append(p.Points, q)
	}
	end := 0
	if later {
		end = 1
	}
	p.Points[i][end] = to([2]int{m.From, m.To}[end], q[end])
	return fits(p)
}

// with adds a pair of points, if it follows the others.
func with(p *doc.PartPair, q [2]float64) error {
	p.Points = append(p.Points, q)
	return fits(p)
}

func fits(p *doc.PartPair) error {
	if !p.Follow() || len(p.Points) > doc.MaxPartPoints {
		return words.New("outline.crossing")
	}
	return nil
}

// join pairs the points of both outlines that lie nearest to two on the page, in whichever order.
func join(s *intent.Desk, v *overlay.Correspondence, said *doc.Reshape, x, y geom.Point) error {
	near := func(p *geom.Path, m geom.Matrix, at geom.Point) (part int, share, far float64) {
		part, far = -1, reach*s.Page().H()
		inv, ok := m.Inverse()
		for i := range morph.Parts(p) {
			u, q, found := morph.Nearest(p, i, inv.Apply(at))
			if d := m.Apply(q).Sub(at).Len(); ok && found && d < far {
				part, share, far = i, u, d
			}
		}
		return
	}
	type end struct {
		part  int
		share float64
	}
	ends := func(x, y geom.Point) (a, b end, far float64) {
		i, u, d := near(v.From, v.ShowA, x)
		j, w, e := near(v.To, v.ShowB, y)
		return end{i, u}, end{j, w}, d + e
	}
	a, b, far := ends(x, y)
	if c, d, other := ends(y, x); a.part < 0 || b.part < 0 || c.part >= 0 && d.part >= 0 && other < far {
		a, b = c, d
	}
	if a.part < 0 || b.part < 0 {
		return words.New("outline.off")
	}
	return with(paired(v, said, a.part, b.part), [2]float64{a.share, b.share})
}

// inGap adds a pair of points in the middle of the longest gap between those that are shown, where they correspond as it is.
func inGap(v *overlay.Correspondence, said *doc.Reshape) error {
	best, most := -1, 0.0
	var at [2]float64
	for i, m := range v.Matches {
		var shares []float64
		for _, q := range m.Marks {
			shares = append(shares, q.U)
		}
		slices.Sort(shares)
		for k, share := range shares {
			gap := 1.0
			if len(shares) > 1 {
				gap = wrap(shares[(k+1)%len(shares)] - share)
			}
			if gap > most {
				u := wrap(share + gap/2)
				if w, ok := v.Outlines.Corresponding(m.From, m.To, u, false); ok {
					best, most, at = i, gap, [2]float64{u, w}
				}
			}
		}
	}
	if best < 0 {
		return words.New("outline.gone")
	}
	return with(paired(v, said, v.Matches[best].From, v.Matches[best].To), at)
}
