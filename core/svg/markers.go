package svg

import (
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
)

// vertex is a corner of an outline with the directions in which its line comes to it and leaves it, radians.
type vertex struct {
	at       geom.Point
	in, out  float64
	has, had bool // it is left; it is come to
}

// mostVertices is how many markers one outline has at most.
const mostVertices = 2000

// vertices are where markers stand on an outline (SVG 2, section 13.7): each begin and end of a segment. What closes a subpath leads to where that began.
func vertices(p *geom.Path) (list []vertex) {
	i, first := 0, 0
	var at geom.Point
	direction := func(a, b geom.Point) (float64, bool) {
		d := b.Sub(a)
		return math.Atan2(d.Y, d.X), d != geom.Point{}
	}
	lead := func(to geom.Point, leaves, comes float64, ok bool) {
		if n := len(list); n > 0 && ok {
			list[n-1].out, list[n-1].has = leaves, true
		}
		list = append(list, vertex{at: to, in: comes, had: ok})
		at = to
	}
	for _, v := range p.Verbs {
		q := p.Points[i : i+geom.PointsOf[v]]
		i += len(q)
		switch v {
		case geom.MoveTo:
			first = len(list)
			list = append(list, vertex{at: q[0]})
			at = q[0]
		case geom.LineTo:
			d, ok := direction(at, q[0])
			lead(q[0], d, d, ok)
		case geom.CubicTo:
			a, okA := direction(at, q[0])
			if !okA {
				if a, okA = direction(at, q[1]); !okA {
					a, okA = direction(at, q[2])
				}
			}
			b, okB := direction(q[1], q[2])
			if !okB {
				if b, okB = direction(q[0], q[2]); !okB {
					b = a
				}
			}
			lead(q[2], a, b, okA)
		case geom.Close:
			if first >= len(list) {
				continue
			}
			begin := &list[first]
			if d, ok := direction(at, begin.at); ok {
				lead(begin.at, d, d, true)
			}
			last := &list[len(list)-1]
			last.out, last.has = begin.out, begin.has
			begin.in, begin.had = last.in, last.had
		}
	}
	return list
}

// angle is how a marker that turns itself stands at a vertex: half way between the directions before and after it.
func (v *vertex) angle() float64 {
	switch {
	case v.has && v.had:
		s, c := math.Sincos(v.in)
		t, d := math.Sincos(v.out)
		if math.Hypot(c+d, s+t) < 1e-9 {
			return v.in + math.Pi/2
		}
		return math.Atan2(s+t, c+d)
	case v.has:
		return v.out
	}
	return v.in
}

// markers are what stands on the corners of an outline, given in its own axes.
func (w *walker) markers(n *node, s state, p *geom.Path, width float64) (out []*doc.Layer) {
	of := map[string]*node{}
	for _, name := range []string{"marker-start", "marker-mid", "marker-end"} {
		if v := s.style[name]; v != "" && v != "none" {
			if to := w.reference(v, n); to != nil && to.name == "marker" && !slices.Contains(w.using, to) {
				of[name] = to
			}
		}
	}
	if len(of) == 0 {
		return nil
	}
	list := vertices(p)
	if len(list) > mostVertices {
		w.lost.add("markers on a line of very many corners", n)
		list = list[:mostVertices]
	}
	for i := range list {
		name := "marker-mid"
		if i == 0 {
			name = "marker-start"
		} else if i == len(list)-1 {
			name = "marker-end"
		}
		if to := of[name]; to != nil && !w.stopped() {
			out = append(out, w.marker(to, s, &list[i], i == 0, width)...)
		}
	}
	return out
}

func (w *walker) marker(to *node, s state, v *vertex, first bool, width float64) []*doc.Layer {
	w.using = append(w.using, to)
	defer func() { w.using = w.using[:len(w.using)-1] }()
	num := func(name string, otherwise float64) float64 {
		if v, ok := s.g.length(to.at[name], across); ok {
			return v
		}
		return otherwise
	}
	turn := 0.0
	switch o := to.at["orient"]; o {
	case "auto", "auto-start-reverse":
		if turn = v.angle() * 180 / math.Pi; first && o == "auto-start-reverse" {
			turn += 180
		}
	default:
		if list := numbers(o); len(list) > 0 {
			turn = list[0]
		}
	}
	t := s
	t.style = inherited(map[string]string{}, to.style)
	t.style["color"] = s.style["color"]
	t.style["fill"], t.style["stroke"] = to.style["fill"], to.style["stroke"]
	for _, name := range []string{"fill", "stroke"} {
		t.style["context-"+name] = s.style[name]
	}
	t.m = s.m.Mul(geom.Translate(v.at)).Mul(geom.Rotate(turn))
	if to.at["markerUnits"] != "userSpaceOnUse" {
		t.m = t.m.Mul(geom.Scale(width, width))
	}
	wide, high := num("markerWidth", 3), num("markerHeight", 3)
	if wide <= 0 || high <= 0 {
		return nil
	}
	ref := geom.Point{X: num("refX", 0), Y: num("refY", 0)}
	box := numbers(to.at["viewBox"])
	inner, shows := viewBox(box, to.at["preserveAspectRatio"], 0, 0, wide, high)
	if !shows {
		return nil
	}
	t.m = t.m.Mul(geom.Translate(inner.Apply(ref).Mul(-1)))
	outer := t.m
	t.m = t.m.Mul(inner)
	t.g.w, t.g.h = wide, high
	if len(box) == 4 {
		t.g.w, t.g.h = box[2], box[3]
	}
	out := w.children(to, t)
	if v := to.style["overflow"]; v == "visible" || v == "auto" {
		return out
	}
	return w.cut(out, geom.Box{Max: geom.Point{X: wide, Y: high}}, outer, "Marker")
}
