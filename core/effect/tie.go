package effect

import (
	"math"

	"capstan/core/geom"
)

// Tie is one edge of a front that another layer drives, on the page: what lies before the driver's edge along a direction shows, x . v <= E.
type Tie struct {
	Layer   string     // the driver, by its thread
	Toward  geom.Point // v, of length 1, in the page's axes
	Nearest bool       // E is the driver's trailing edge, the least corner . v; else its leading one
	Offset  float64    // page px, added to E
	Soft    float64    // page px over which the edge fades, E in the middle
	Outline bool       // measured at what the driver covers; else at the box it paints in
	Follows bool       // the edge has the driver's outline: on each line along v its furthest point, elsewhere that of the nearest line that meets it
	Keeps   bool       // it never goes back: E is the furthest since clock 0
	Mirror  bool       // E is as far beyond the middle of what is uncovered as the other side's is before it
}

// Ties are the edges that uncover something.
type Ties struct {
	Sides  []Tie
	Either bool // what lies before either of two shows; else what lies before both
}

// What the edge of a tie is measured at.
const (
	tieBox     = "box"
	tieOutline = "outline"
	tieFollows = "follows"
)

// tied are the parameters of one edge that can be driven; of a second one their names end so. which says which of two it is.
func tied(second, words, which string) []Param {
	n := func(name string) string { return name + second }
	needs := n("tie")
	list := []Param{
		{Name: n("tie"), Control: Layer, Words: words, Label: "Layer that drives the edge" + which, Times: 1},
		choice(n("tieEdge"), "At its", "Which edge of the other layer"+which, Option{Value: "leading", Words: "leading edge"}, Option{Value: "trailing", Words: "trailing edge"}).needs(needs),
		num(n("tieOffset"), "Ahead by", "How far the edge is ahead of the other layer's"+which, "px", 0, -20000, 20000).needs(needs),
		choice(n("tieAt"), "Follows", "What of the other layer the edge keeps to"+which, Option{Value: tieBox, Words: "its box"},
			Option{Value: tieOutline, Words: "its outermost point"}, Option{Value: tieFollows, Words: "its outline"}).needs(needs),
		choice(n("tieKeeps"), "Back", "When the other layer turns back"+which, Option{Words: "follows back"}, Option{Value: true, Words: "never back"}).needs(needs),
	}
	for i := range list {
		list[i].NoUnit, list[i].NoPage = true, true
	}
	return list
}

// tieOf is the edge that parameters tell of; ok is false where nothing drives it.
func tieOf(p Params, second string, toward geom.Point) (t Tie, ok bool) {
	t = Tie{
		Layer: p.Word("tie" + second), Toward: toward, Nearest: p.Word("tieEdge"+second) == "trailing", Offset: p.Number("tieOffset" + second),
		Soft: p.Number("softness"), Keeps: p.Is("tieKeeps" + second),
	}
	at := p.Word("tieAt" + second)
	t.Outline, t.Follows = at == tieOutline || at == tieFollows, at == tieFollows
	return t, t.Layer != ""
}

// wipeTies is the one edge of a wipe.
func wipeTies(p Params) Ties {
	if t, ok := tieOf(p, "", unit(p.Number("direction"))); ok {
		return Ties{Sides: []Tie{t}}
	}
	return Ties{}
}

// doorTies are the two edges of doors: from the middle each goes outwards, from outside inwards. Where one is driven the other mirrors it.
func doorTies(p Params) Ties {
	v := geom.Point{X: 1}
	if p.Word("stand") == "level" {
		v = geom.Point{Y: 1}
	}
	a, one := tieOf(p, "", v)
	b, two := tieOf(p, "2", v.Mul(-1))
	switch {
	case !one && !two:
		return Ties{}
	case !one:
		a = Tie{Layer: b.Layer, Toward: v, Mirror: true}
	case !two:
		b = Tie{Layer: a.Layer, Toward: v.Mul(-1), Mirror: true}
	}
	return Ties{Sides: []Tie{a, b}, Either: p.Word("from") == "outside"}
}

// tieWipe ties a wipe, which then goes the way its driver does: straight along an axis where that nearly is.
func tieWipe(_ Params, thread string, travel geom.Point) Params {
	p := Params{"tie": thread}
	if travel.Len() > 0.5 {
		d := math.Atan2(travel.Y, travel.X) * 180 / math.Pi
		if near := math.Round(d/45) * 45; math.Abs(d-near) < 10 {
			d = near
		}
		p["direction"] = math.Mod(math.Round(d*100)/100+360, 360)
	}
	return p
}

// tieDoor ties the door that goes the way of its driver; of one that goes neither way that which nothing drives yet.
func tieDoor(p Params, thread string, travel geom.Point) Params {
	along := travel.X
	if p.Word("stand") == "level" {
		along = travel.Y
	}
	if along < -0.5 || along <= 0.5 && p.Word("tie") != "" {
		return Params{"tie2": thread}
	}
	return Params{"tie": thread}
}

// Untied are the parameters that say what drives an edge, each taken away.
func (e *Effect) Untied() Params {
	p := Params{}
	for _, q := range e.Params {
		if up := e.Param(q.Needs); q.Control == Layer || up != nil && up.Control == Layer {
			p[q.Name] = nil
		}
	}
	return p
}

// Ties returns what drives the edges of an entrance or exit; without sides it goes by its own time.
func (e *Effect) Ties(p Params) Ties {
	if e == nil || e.Comes == nil || e.Comes.Ties == nil {
		return Ties{}
	}
	return e.Comes.Ties(e.Complete(p))
}

// Edge is what shows before an edge on the page, or beyond it where it hides: a field in the page's axes.
func Edge(t *Tie, at float64, hides bool) Field {
	f := field(Half, t.Toward.X, t.Toward.Y, at+t.Soft/2, t.Soft, 0)
	if hides {
		f.N[f.Count-1] = 1
	}
	return f
}

// Layers returns the threads of the layers that drive the edges, each once.
func (t Ties) Layers() (list []string) {
	for i := range t.Sides {
		if l := t.Sides[i].Layer; len(list) == 0 || list[0] != l {
			list = append(list, l)
		}
	}
	return
}
