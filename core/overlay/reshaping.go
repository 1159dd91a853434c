package overlay

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/morph"
	"capstan/core/scope"
)

// Correspondence is what of two outlines becomes what, as it is drawn over the page: at their places, or, where they would hide each other, beside each
// other.
type Correspondence struct {
	frame.Reshaping
	Thread  string
	Scene   int // index of the scene that the morph leads into; 0: back to the first
	Matches []morph.Match
	Lost    int         // points and parts that were said and do not fit
	Apart   bool        // they are drawn beside each other
	ShowA   geom.Matrix // from the axes of either to where it is drawn, page px
	ShowB   geom.Matrix
}

// Of what is drawn beside each other: the share of the page that each takes, of width and height, and how far their middles lie from its sides.
const (
	besideWide = 0.4
	besideHigh = 0.7
	besideAt   = 0.27
)

// Of what lies beside each other as it is: which share of the page it is enlarged to, by how much at most.
const (
	around  = 0.86
	nearest = 4.0
)

// CorrespondenceInto returns what becomes what of a thread's outlines in the morph into the scene of an id, or, of the first, back to it; false where no
// outline becomes another.
func CorrespondenceInto(s *scope.Scope, scene, thread string) (*Correspondence, bool) {
	c, ok := placed(s, scene, thread)
	if ok {
		c.Matches, c.Lost = c.Outlines.Matches(c.Said)
	}
	return c, ok
}

// placed is a Correspondence but for what becomes what.
func placed(s *scope.Scope, scene, thread string) (*Correspondence, bool) {
	i := slices.IndexFunc(s.Shown.Doc.Film.Shown(), func(sc *doc.Scene) bool { return sc.ID == scene })
	r, ok := s.Shown.Reshaping(i, thread)
	if !ok {
		return nil, false
	}
	c := &Correspondence{Reshaping: r, Thread: thread, Scene: i, ShowA: r.AtA, ShowB: r.AtB}
	a, b := r.AtA.ApplyBox(r.From.Bounds()), r.AtB.ApplyBox(r.To.Bounds())
	page := s.Page()
	both := a.Intersect(b)
	onto := func(from geom.Point, k float64, to geom.Point) geom.Matrix {
		return geom.Translate(to).Mul(geom.Scale(k, k)).Mul(geom.Translate(from.Mul(-1)))
	}
	if both.W() > 0.25*min(a.W(), b.W()) && both.H() > 0.25*min(a.H(), b.H()) {
		c.Apart = true
		k := min(besideWide*page.W()/max(a.W(), b.W(), 1), besideHigh*page.H()/max(a.H(), b.H(), 1))
		at := func(share float64) geom.Point { return geom.Point{X: page.Min.X + share*page.W(), Y: page.Centre().Y} }
		c.ShowA, c.ShowB = onto(a.Centre(), k, at(besideAt)).Mul(r.AtA), onto(b.Centre(), k, at(1-besideAt)).Mul(r.AtB)
		return c, true
	}
	all := a.Union(b)
	if k := min(around*page.W()/max(all.W(), 1), around*page.H()/max(all.H(), 1), nearest); k > 1 {
		m := onto(all.Centre(), k, page.Centre())
		c.ShowA, c.ShowB = m.Mul(r.AtA), m.Mul(r.AtB)
	}
	return c, true
}

// Marks are the points that are shown, those of all parts in one row.
func (c *Correspondence) Marks() (list []morph.Mark, matches []*morph.Match) {
	for i := range c.Matches {
		for _, m := range c.Matches[i].Marks {
			list, matches = append(list, m), append(matches, &c.Matches[i])
		}
	}
	return
}

// Outline is a Correspondence as the page draws it, in page px.
type Outline struct {
	Scene   string        `json:"scene"` // that the morph leads into
	Thread  string        `json:"thread"`
	From    string        `json:"from"`    // path data of both outlines
	To      string        `json:"to"`      //
	Apart   bool          `json:"apart"`   // they are drawn beside each other, not where they are
	Goes    string        `json:"goes"`    // how points go: straight, turned, bent
	Changed bool          `json:"changed"` // an outline is no longer that of which points were given
	Lost    int           `json:"lost"`    // points and parts that were given and no longer fit
	Parts   []OutlinePart `json:"parts"`
	Marks   []OutlineMark `json:"marks"`
}

// OutlinePart is a part of one outline and its partner of the other.
type OutlinePart struct {
	From  int        `json:"from"` // -1: none
	To    int        `json:"to"`
	Back  bool       `json:"back"`
	Given bool       `json:"given"` // somebody said so
	A     [2]float64 `json:"a"`     // the middles of both
	B     [2]float64 `json:"b"`
}

// OutlineMark is a point of both outlines that is the same.
type OutlineMark struct {
	Part  int        `json:"part"` // in the list of parts
	A     [2]float64 `json:"a"`
	B     [2]float64 `json:"b"`
	Given bool       `json:"given"` // somebody said so
}

// OutlineView is how the outline of a thread becomes that of the next scene; nil where it does not.
func (s *Overlays) OutlineView(scene, thread string) *Outline {
	c, ok := CorrespondenceInto(s.Scope, scene, thread)
	if !ok {
		return nil
	}
	shown := func(p *geom.Path, m geom.Matrix) string {
		q := &geom.Path{}
		q.Append(p, m)
		return q.Data()
	}
	v := &Outline{Scene: scene, Thread: thread, From: shown(c.From, c.ShowA), To: shown(c.To, c.ShowB), Apart: c.Apart, Goes: string(c.Outlines.Goes()), Lost: c.Lost, Parts: []OutlinePart{}, Marks: []OutlineMark{}}
	v.Changed = c.Said != nil && len(c.Said.Parts) > 0 && (c.Said.From != morph.Hash(c.From) || c.Said.To != morph.Hash(c.To))
	for i, m := range c.Matches {
		part := OutlinePart{From: m.From, To: m.To, Back: m.Back, Given: m.Given}
		if q, ok := morph.PartBox(c.From, m.From); ok {
			part.A = geom.Pair(c.ShowA.Apply(q.Centre()))
		}
		if q, ok := morph.PartBox(c.To, m.To); ok {
			part.B = geom.Pair(c.ShowB.Apply(q.Centre()))
		}
		v.Parts = append(v.Parts, part)
		for _, k := range m.Marks {
			v.Marks = append(v.Marks, OutlineMark{i, geom.Pair(c.ShowA.Apply(k.A)), geom.Pair(c.ShowB.Apply(k.B)), k.Given})
		}
	}
	return v
}

// OutlineAt is the outline on its way, at a share of it, as path data in page px; empty where there is none.
func (s *Overlays) OutlineAt(scene, thread string, share float64) string {
	c, ok := placed(s.Scope, scene, thread)
	if !ok {
		return ""
	}
	var p geom.Path
	c.Outlines.At(share, &p)
	l := func(a, b float64) float64 { return a + (b-a)*share }
	a, b := c.ShowA, c.ShowB
	q := &geom.Path{}
	q.Append(&p, geom.Matrix{A: l(a.A, b.A), B: l(a.B, b.B), C: l(a.C, b.C), D: l(a.D, b.D), E: l(a.E, b.E), F: l(a.F, b.F)})
	return q.Data()
}
