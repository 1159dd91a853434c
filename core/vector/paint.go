package vector

import (
	"fmt"
	"math"
	"strings"

	"capstan/core/geom"
)

// Kinds of paints by their codes, see display.PaintKinds.
const (
	colourPaint = iota
	linearPaint
	radialPaint
	texturePaint
)

// paint says what a track's outline is filled with, its numbers from n on.
func (w *writer) paint(e *element, as string, t *track, n int, codes []uint32) error {
	switch codes[0] {
	case colourPaint:
		w.coloured(e, as, as+"-opacity", t, n)
		return nil
	case texturePaint:
		return w.textured(e, as, t, n, codes[1])
	}
	return w.graded(e, as, t, n, codes[0] == radialPaint, int(codes[1]))
}

// coloured says a colour of four numbers.
func (w *writer) coloured(e *element, property, opacity string, t *track, n int) {
	rgb := t.curveOf(func(r *reading) []float64 { return r.numbers[n : n+3] }, nearShare).keys()
	alpha := t.curveOf(func(r *reading) []float64 { return r.numbers[n+3 : n+4] }, nearShare).keys()
	if len(rgb) == 1 || allSame(rgb) {
		if s := hex(rgb[0].v); s != "#000000" || property != "fill" {
			e.set(property, s)
		}
	} else {
		w.animate(e, property, rgb, hex)
	}
	w.share(e, opacity, alpha)
}

// share says an opacity; nothing where it is always 1.
func (w *writer) share(e *element, property string, keys []key) {
	if allSame(keys) {
		if v := keys[0].v[0]; math.Abs(v-1) > 1e-6 {
			e.set(property, decimal(v, 4))
		}
		return
	}
	w.animate(e, property, keys, func(v []float64) string { return decimal(v[0], 4) })
}

func allSame(keys []key) bool {
	for _, k := range keys {
		if !same(k.v, keys[0].v) {
			return false
		}
	}
	return true
}

func hex(v []float64) string {
	of := func(x float64) int { return int(math.Round(255 * min(1, max(0, x)))) }
	return fmt.Sprintf("#%02x%02x%02x", of(v[0]), of(v[1]), of(v[2]))
}

// graded fills with a gradient. Where only its colours change they are animated; where its axes do it goes by steps.
func (w *writer) graded(e *element, as string, t *track, n int, radial bool, stops int) error {
	alpha := 6
	if radial {
		alpha = 8
	}
	w.share(e, as+"-opacity", t.curveOf(func(r *reading) []float64 { return r.numbers[n+alpha : n+alpha+1] }, nearShare).keys())
	first := n + alpha + 1
	fixed := func(r *reading) []float64 {
		v := append([]float64(nil), r.numbers[n:n+alpha]...)
		for s := range stops {
			v = append(v, r.numbers[first+5*s])
		}
		return v
	}
	one := true
	for i := range t.reads {
		one = one && same(fixed(&t.reads[i]), fixed(&t.reads[0]))
	}
	if one {
		e.set(as, "url(#"+w.gradient(&t.reads[0], n, radial, stops, func(s int) string {
			stop := &element{}
			w.coloured(stop, "stop-color", "stop-opacity", t, first+5*s+1)
			var b strings.Builder
			stop.set("offset", decimal(t.reads[0].numbers[first+5*s], 5))
			w.open(stop, &b, "stop")
			return b.String() + "/>"
		})+")")
		return nil
	}
	all := func(r *reading) []float64 { return r.numbers[n : first+5*stops] }
	w.paintedBySteps(e, as, t, all, func(r *reading) string {
		return w.gradient(r, n, radial, stops, func(s int) string {
			v := r.numbers[first+5*s:]
			return fmt.Sprintf(`<stop offset="%s" stop-color="%s" stop-opacity="%s"/>`, decimal(v[0], 5), hex(v[1:4]), decimal(v[4], 4))
		})
	})
	return nil
}

// gradient defines a gradient and returns its name.
func (w *writer) gradient(r *reading, n int, radial bool, stops int, stop func(s int) string) string {
	var b strings.Builder
	m := matrixAt(n)(r)
	at := fmt.Sprintf(`id="%%s" gradientUnits="userSpaceOnUse" gradientTransform="matrix(%s %s %s %s %s %s)"`, decimal(m.A, 4), decimal(m.B, 4), decimal(m.C, 4), decimal(m.D, 4), decimal(m.E, 3), decimal(m.F, 3))
	tag := "linearGradient"
	if radial {
		tag = "radialGradient"
		v := r.numbers[n+6:]
		fmt.Fprintf(&b, `<%s %s cx="0" cy="0" r="1" fx="%s" fy="%s">`, tag, at, decimal(v[0], 5), decimal(v[1], 5))
	} else {
		fmt.Fprintf(&b, `<%s %s x1="0" x2="1">`, tag, at)
	}
	for s := range stops {
		b.WriteString(stop(s))
	}
	b.WriteString("</" + tag + ">")
	return w.define(b.String())
}

// paintedBySteps fills with what is defined anew as often as its numbers have changed by what tells.
func (w *writer) paintedBySteps(e *element, as string, t *track, numbers func(r *reading) []float64, define func(r *reading) string) {
	var at []float64
	var says []string
	var last []float64
	base := ""
	for i := range t.reads {
		r := &t.reads[i]
		v := numbers(r)
		if last == nil || farFrom(last, v) {
			last = v
			at, says = append(at, r.at), append(says, "url(#"+define(r)+")")
		}
		if r.at <= float64(w.o.Still) || base == "" {
			base = says[len(says)-1]
		}
	}
	e.set(as, base)
	if name := w.stepped(as, at, says); name != "" {
		e.moves = append(e.moves, move{name, 1})
	}
}

// farFrom reports whether two paints can be told apart: by the axes of a gradient, in px and parts of them, or by its colours.
func farFrom(a, b []float64) bool {
	for k := range a {
		by := nearShare
		if k < 6 {
			by = max(0.2, 0.002*math.Abs(a[k]))
		}
		if math.Abs(a[k]-b[k]) > by {
			return true
		}
	}
	return false
}

// textured fills with a picture laid side by side.
func (w *writer) textured(e *element, as string, t *track, n int, picture uint32) error {
	data, err := w.image(t, picture, func(r *reading) uint32 { return r.codes[len(r.codes)-1] })
	if err != nil {
		return err
	}
	image := w.define(`<image id="%s" width="1" height="1" preserveAspectRatio="none" href="` + data + `"/>`)
	w.share(e, as+"-opacity", t.curveOf(func(r *reading) []float64 { return r.numbers[n+6 : n+7] }, nearShare).keys())
	w.paintedBySteps(e, as, t, func(r *reading) []float64 { return r.numbers[n : n+6] }, func(r *reading) string {
		m := matrixAt(n)(r)
		return w.define(fmt.Sprintf(`<pattern id="%%s" width="1" height="1" patternUnits="userSpaceOnUse" patternTransform="matrix(%s %s %s %s %s %s)"><use href="#%s"/></pattern>`,
			decimal(m.A, 4), decimal(m.B, 4), decimal(m.C, 4), decimal(m.D, 4), decimal(m.E, 3), decimal(m.F, 3), image))
	})
	return nil
}

// image is the address of a picture's pixels, in the largest of its sizes that a track shows.
func (w *writer) image(t *track, picture uint32, mip func(r *reading) uint32) (string, error) {
	least := mip(&t.reads[0])
	for i := range t.reads {
		least = min(least, mip(&t.reads[i]))
	}
	data, err := w.o.Image(w.film.Pictures[picture], int(least), w.tint)
	if err == nil {
		if !w.counted[data] {
			w.counted[data] = true
			w.weights.Pictures += len(data)
		}
	}
	return data, err
}

// picture writes a picture: all of it, laid so that its crop fills its box, cut to its outline.
func (w *writer) picture(b *strings.Builder, t *track) error {
	r := &t.reads[0]
	data, err := w.image(t, r.codes[0], func(r *reading) uint32 { return r.codes[1] })
	if err != nil {
		return err
	}
	// Outlines of boxes that change are new ones; each is cut by its own.
	for i := 0; i < len(t.reads); {
		j := i + 1
		for j < len(t.reads) && t.reads[j].codes[2] == t.reads[i].codes[2] {
			j++
		}
		part := &track{op: t.op, kind: t.kind, reads: append([]reading(nil), t.reads[i:j]...), spans: w.within(t, i, j)}
		part.reads[0].begins = true
		if len(part.spans) > 0 {
			w.cropped(b, part, data)
		}
		i = j
	}
	return nil
}

func (w *writer) cropped(b *strings.Builder, t *track, data string) {
	r := &t.reads[0]
	path := w.film.Geometry.Path(r.codes[2])
	if path == nil {
		return
	}
	href := w.define(`<image id="%s" width="1" height="1" preserveAspectRatio="none" href="` + data + `"/>`)
	outer := &element{}
	box := geom.EmptyBox()
	for i := range t.reads {
		v := t.reads[i].numbers[6:]
		box = box.Union(geom.Box{Min: geom.Point{X: v[0], Y: v[1]}, Max: geom.Point{X: v[0] + v[2], Y: v[1] + v[3]}})
	}
	w.moved(outer, t, matrixAt(0), box)
	w.share(outer, "opacity", t.curveOf(func(r *reading) []float64 { return r.numbers[14:15] }, nearShare).keys())
	outer.set("clip-path", "url(#"+w.define(`<clipPath id="%s"><path d="`+w.data(path, w.largest(t))+`"/></clipPath>`)+")")
	inner := &element{}
	inner.set("href", "#"+href)
	w.visible(inner, t.spans)
	w.moved(inner, t, func(r *reading) geom.Matrix {
		v := r.numbers[6:] // x y w h, then the shares l t r b that are shown
		wide, high := v[2]/max(v[6]-v[4], 1e-9), v[3]/max(v[7]-v[5], 1e-9)
		return geom.Matrix{A: wide, D: high, E: v[0] - v[4]*wide, F: v[1] - v[5]*high}
	}, geom.Box{Max: geom.Point{X: 1, Y: 1}})
	w.open(outer, b, "g")
	b.WriteString(">")
	w.open(inner, b, "use")
	b.WriteString("/></g>\n")
}
