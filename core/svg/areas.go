package svg

import (
	"capstan/core/combine"
	"capstan/core/geom"
	"capstan/core/words"
)

// mostTangled is how many pairs of segments of outlines that are combined may come near each other: how long that takes goes by their crossings.
const mostTangled = 15_000

// areas combines outlines; an error where they are so tangled that it would take seconds.
func (w *walker) areas(how combine.How, of ...combine.Area) (*geom.Path, error) {
	if w.stopped() {
		return nil, w.err
	}
	if tangled(of) > mostTangled {
		return nil, words.New("drawing.slow")
	}
	return combine.Areas(how, of...)
}

// nonzero is a path that fills by the nonzero rule what p fills by the even-odd rule.
func (w *walker) nonzero(p *geom.Path) (*geom.Path, error) {
	return w.areas(combine.Unite, combine.Area{Path: p, EvenOdd: true})
}

// tangled is about how many pairs of segments of outlines have boxes that overlap; of very many segments a part is looked at.
func tangled(of []combine.Area) int {
	var boxes []geom.Box
	for _, a := range of {
		i := 0
		var at geom.Point
		for _, v := range a.Path.Verbs {
			q := a.Path.Points[i : i+geom.PointsOf[v]]
			i += len(q)
			if v != geom.MoveTo && len(q) > 0 {
				b := geom.EmptyBox().Include(at)
				for _, p := range q {
					b = b.Include(p)
				}
				boxes = append(boxes, b)
			}
			if len(q) > 0 {
				at = q[len(q)-1]
			}
		}
	}
	const most = 1500
	step := (len(boxes) + most - 1) / most
	near := 0
	for i := 0; i < len(boxes); i += max(1, step) {
		for k := i + max(1, step); k < len(boxes); k += max(1, step) {
			if o := boxes[i].Intersect(boxes[k]); o.Max.X >= o.Min.X && o.Max.Y >= o.Min.Y {
				near++
			}
		}
	}
	return near * max(1, step) * max(1, step)
}
