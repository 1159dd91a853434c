package vector

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"capstan/core/display"
	"capstan/core/geom"
)

// veil writes what is shown in part, or what one thing shows of another.
func (w *writer) veil(b *strings.Builder, t *track) error {
	shows, err := w.terms(t)
	if err != nil {
		return err
	}
	if t.op == display.OpVeil {
		e := &element{}
		if shows != "" {
			e.set("mask", "url(#"+w.maskOf(shows)+")")
		}
		if blended(t.inside[0]) {
			e.style = append(e.style, "isolation:isolate")
		}
		return w.wrapped(b, e, func() error { return w.level(b, t.inside[0]) })
	}
	// (1-a) of one and a of the other, added.
	outer, one, other := &element{}, &element{}, &element{}
	outer.style = append(outer.style, "isolation:isolate")
	other.style = append(other.style, "mix-blend-mode:plus-lighter")
	if shows == "" {
		one.style = append(one.style, "display:none")
	} else {
		one.set("mask", "url(#"+w.maskOf(w.inverted(shows))+")")
		other.set("mask", "url(#"+w.maskOf(shows)+")")
	}
	return w.wrapped(b, outer, func() error {
		if err := w.wrapped(b, one, func() error { return w.level(b, t.inside[0]) }); err != nil {
			return err
		}
		return w.wrapped(b, other, func() error { return w.level(b, t.inside[1]) })
	})
}

// inverted is what of a page something does not cover, given in white.
func (w *writer) inverted(shows string) string {
	return w.whole() + `<g style="` + black + `">` + shows + "</g>"
}

// terms writes in white what a veil shows; empty: everything.
func (w *writer) terms(t *track) (string, error) {
	codes := t.reads[0].codes
	c, n := 1, 4
	var parts []string
	for range codes[0] {
		kind := codes[c]
		of := display.VeilTerms[kind]
		switch kind {
		case display.VeilOver, display.VeilTimes:
			if len(parts) < 2 {
				return "", errList
			}
			a, b := parts[len(parts)-2], parts[len(parts)-1]
			parts = parts[:len(parts)-1]
			if kind == display.VeilOver {
				parts[len(parts)-1] = a + b
			} else {
				parts[len(parts)-1] = `<g mask="url(#` + w.maskOf(b) + `)">` + a + "</g>"
			}
		default:
			key := uint32(0)
			if of.Codes > 0 {
				key = codes[c+1]
			}
			parts = append(parts, w.reveal(t, kind, key, n))
		}
		c, n = c+1+of.Codes, n+of.Numbers
	}
	if len(parts) == 0 {
		return "", nil
	}
	return parts[len(parts)-1], nil
}

// far is how large half a plane is, as often as what its edge is soft over; and a sector, in px.
const (
	far   = 30000
	rings = 32 // of equal cover that a soft border is made of
)

// reveal writes one reveal in white. Its numbers stand from n on: a matrix, its opacity, its own, and whether it is inverted.
func (w *writer) reveal(t *track, kind display.VeilTerm, key uint32, n int) string {
	own := n + 7
	last := n + display.VeilTerms[kind].Numbers - 1
	inverted := t.reads[0].numbers[last] != 0
	var shape string
	num := func(r *reading, k int) float64 { return r.numbers[own+k] }
	m := matrixAt(n)
	page := math.Hypot(w.page().W(), w.page().H())
	switch kind {
	case display.VeilHalf:
		if inverted {
			shape = w.front(t, func(r *reading) (geom.Matrix, float64, float64, float64, float64) {
				return m(r), num(r, 0), num(r, 1), num(r, 2), num(r, 3)
			}, true)
			inverted = false
			break
		}
		shape = w.front(t, func(r *reading) (geom.Matrix, float64, float64, float64, float64) {
			return m(r), num(r, 0), num(r, 1), num(r, 2), num(r, 3)
		}, false)
	case display.VeilDoors:
		// Both sides of the middle, each cut off there.
		for _, side := range []float64{1, -1} {
			cut := &element{}
			cut.set("x", decimal(-0.6/w.scale, 3)) // both sides meet without a seam
			cut.set("y", decimal(-page, 0))
			cut.set("width", decimal(2*page, 0))
			cut.set("height", decimal(2*page, 0))
			w.moved(cut, t, func(r *reading) geom.Matrix {
				dx, dy := side*num(r, 0), side*num(r, 1)
				return m(r).Mul(geom.Matrix{A: dx, B: dy, C: -dy, D: dx}).Mul(geom.Translate(geom.Point{X: side * num(r, 2)}))
			}, geom.Box{Min: geom.Point{Y: -page / 2}, Max: geom.Point{X: page, Y: page / 2}})
			var c strings.Builder
			w.open(cut, &c, "rect")
			id := w.define(`<clipPath id="%s">` + c.String() + "/></clipPath>")
			shape += `<g clip-path="url(#` + id + `)">` + w.front(t, func(r *reading) (geom.Matrix, float64, float64, float64, float64) {
				return m(r), side * num(r, 0), side * num(r, 1), side*num(r, 2) + num(r, 3), num(r, 4)
			}, false) + "</g>"
		}
	case display.VeilBox, display.VeilDiamond, display.VeilEllipse:
		shape = w.round(t, kind, m, own)
	case display.VeilSector:
		shape = w.sector(t, m, own, 2*page)
	case display.VeilOutline:
		path := w.film.Geometry.Path(key)
		if path == nil {
			path = &geom.Path{}
		}
		e := &element{}
		e.set("d", w.data(path, 1))
		e.set("fill", "#fff")
		w.moved(e, t, m, path.Bounds())
		var b strings.Builder
		w.open(e, &b, "path")
		shape = b.String() + "/>"
	}
	if inverted {
		shape = `<g mask="url(#` + w.maskOf(w.inverted(shape)) + `)">` + w.whole() + "</g>"
	}
	e := &element{}
	w.share(e, "opacity", t.curveOf(func(r *reading) []float64 { return r.numbers[n+6 : n+7] }, nearShare).keys())
	if e.none() {
		return shape
	}
	var b strings.Builder
	w.open(e, &b, "g")
	return b.String() + ">" + shape + "</g>"
}

// front is half a plane that ends softly: of a reading, its axes, its direction, where it ends along that, and over what. At least it ends over a px of the
// piece.
func (w *writer) front(t *track, of func(r *reading) (m geom.Matrix, dx, dy, edge, soft float64), inverted bool) string {
	stops := `<stop stop-color="#fff"/><stop offset="1" stop-color="#fff" stop-opacity="0"/>`
	if inverted {
		stops = `<stop stop-color="#fff" stop-opacity="0"/><stop offset="1" stop-color="#fff"/>`
	}
	g := w.define(`<linearGradient id="%s" gradientUnits="userSpaceOnUse" x1="-1" x2="0">` + stops + "</linearGradient>")
	e := &element{}
	e.set("x", fmt.Sprint(-far))
	e.set("y", fmt.Sprint(-far))
	e.set("width", fmt.Sprint(2*far))
	e.set("height", fmt.Sprint(2*far))
	e.set("fill", "url(#"+g+")")
	w.moved(e, t, func(r *reading) geom.Matrix {
		m, dx, dy, edge, softness := of(r)
		px := 1 / max(w.scale*m.MaxScale(), 1e-9)
		soft := max(softness, px)
		if dx == 0 && dy == 0 { // everything
			dx, edge = 1, far/4*soft
		}
		m = m.Mul(geom.Matrix{A: dx, B: dy, C: -dy, D: dx}).Mul(geom.Translate(geom.Point{X: edge + (soft-softness)/2}))
		return m.Mul(geom.Scale(soft, 1))
	}, geom.Box{Min: geom.Point{X: -1, Y: -w.page().H() / 2}, Max: geom.Point{Y: w.page().H() / 2}})
	var b strings.Builder
	w.open(e, &b, "rect")
	return b.String() + "/>"
}

// round is a box, a diamond or an ellipse that grows; where its border is soft, many that lie in each other and cover more and more.
func (w *writer) round(t *track, kind display.VeilTerm, m func(r *reading) geom.Matrix, own int) string {
	d := "M-1 -1L1 -1 1 1 -1 1Z"
	switch kind {
	case display.VeilDiamond:
		d = "M0 -1L1 0 0 1 -1 0Z"
	case display.VeilEllipse:
		d = "M1 0A1 1 0 0 1 -1 0 1 1 0 0 1 1 0Z"
	}
	soft := slices.ContainsFunc(t.reads, func(r reading) bool { return r.numbers[own+6] > 1.5/w.scale })
	count := 1
	if soft {
		count = rings
	}
	var b strings.Builder
	for k := range count {
		e := &element{}
		e.set("d", d)
		e.set("fill", "#fff")
		if count > 1 {
			e.set("fill-opacity", decimal(1/float64(count-k), 4))
		}
		w.moved(e, t, func(r *reading) geom.Matrix {
			v := r.numbers[own:] // cx cy rx ry unit edge softness
			size := 0.0
			if v[4] != 0 {
				size = max(0, (v[5]-v[6]*(float64(k)+0.5)/float64(count))/v[4])
				if count == 1 {
					size = max(0, v[5]/v[4])
				}
			}
			return m(r).Mul(geom.Matrix{A: max(1e-6, v[2]*size), D: max(1e-6, v[3]*size), E: v[0], F: v[1]})
		}, geom.Box{Min: geom.Point{X: -1, Y: -1}, Max: geom.Point{X: 1, Y: 1}})
		w.open(e, &b, "path")
		b.WriteString("/>")
	}
	return b.String()
}

// sector is a piece of a disc of a radius, by a polygon whose corners go round with it.
func (w *writer) sector(t *track, m func(r *reading) geom.Matrix, own int, radius float64) string {
	const corners = 16
	path := &geom.Path{Verbs: []geom.Verb{geom.MoveTo}}
	for range corners + 1 {
		path.Verbs = append(path.Verbs, geom.LineTo)
	}
	path.Verbs = append(path.Verbs, geom.Close)
	points := func(r *reading) []float64 {
		v := r.numbers[own:] // cx cy start sweep
		out := []float64{v[0], v[1]}
		for k := range corners + 1 {
			s, c := math.Sincos((v[2] + min(360, max(-360, v[3]))*float64(k)/corners) * math.Pi / 180)
			out = append(out, v[0]+radius*s, v[1]-radius*c)
		}
		return out
	}
	draw := func(v []float64) string {
		path.Points = path.Points[:0]
		for k := 0; k < len(v); k += 2 {
			path.Points = append(path.Points, geom.Point{X: v[k], Y: v[k+1]})
		}
		return w.data(path, 1)
	}
	e := &element{}
	e.set("fill", "#fff")
	keys := t.curveOf(points, 2*w.near).keys()
	e.set("d", draw(valueAt(keys, float64(w.o.Still))))
	if !allSame(keys) {
		w.animate(e, "d", keys, func(v []float64) string { return "path('" + draw(v) + "')" })
		e.style = e.style[:len(e.style)-1]
	}
	w.moved(e, t, m, w.page())
	var b strings.Builder
	w.open(e, &b, "path")
	return b.String() + "/>"
}
