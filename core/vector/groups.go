package vector

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"capstan/core/display"
	"capstan/core/geom"
	"capstan/core/state"
)

// blends are what CSS (Compositing and Blending) calls the blends of lists, by their code.
var blends = func() (names []string) {
	for _, b := range display.Blends {
		name := b
		switch b {
		case "colourDodge":
			name = "color-dodge"
		case "colourBurn":
			name = "color-burn"
		case "hardLight":
			name = "hard-light"
		case "softLight":
			name = "soft-light"
		case "added":
			name = "plus-lighter"
		}
		names = append(names, name)
	}
	return names
}()

// wrapped writes an element around what inner writes; nothing around it where nothing is said of it.
func (w *writer) wrapped(b *strings.Builder, e *element, inner func() error) error {
	if e.none() {
		return inner()
	}
	w.open(e, b, "g")
	b.WriteString(">\n")
	if err := inner(); err != nil {
		return err
	}
	b.WriteString("</g>\n")
	return nil
}

// blended reports whether something in a level is laid on what is under it otherwise than over it.
func blended(l *level) bool {
	return slices.ContainsFunc(l.tracks, func(t *track) bool { return t.op == display.OpGroup && t.reads[0].codes[0] != 0 })
}

// Numbers of a group, after its two boxes.
const (
	groupOpacity = 8 + iota
	groupBlur
	groupFeather
	shadowX
	shadowY
	shadowBlur
	shadowRed
	_
	_
	shadowAlpha
	groupSharpness
	groupSharpSigma
	groupColours
	groupNumbers = groupColours + 12
)

// group writes what is treated as one: adjusted, its border softened, blurred, with its shadow, then laid with its opacity.
func (w *writer) group(b *strings.Builder, t *track) error {
	outer, soft, inner := &element{}, &element{}, &element{}
	blend := t.reads[0].codes[0]
	if int(blend) >= len(blends) {
		return errList
	}
	if blend != 0 {
		outer.style = append(outer.style, "mix-blend-mode:"+blends[blend])
	} else if blended(t.inside[0]) {
		outer.style = append(outer.style, "isolation:isolate")
	}
	w.share(outer, "opacity", t.curveOf(func(r *reading) []float64 { return r.numbers[groupOpacity : groupOpacity+1] }, nearShare).keys())
	w.softened(soft, t)
	if colours := w.tinted(t); colours != nil {
		w.tint = colours
		defer func() { w.tint = nil }()
	} else {
		w.adjusted(inner, t)
	}
	return w.wrapped(b, outer, func() error {
		return w.wrapped(b, soft, func() error {
			return w.wrapped(b, inner, func() error { return w.level(b, t.inside[0]) })
		})
	})
}

// tinted is the map of colours of what stands still and is a picture, whose pixels it can be given; else nil.
func (w *writer) tinted(t *track) *state.Colours {
	v := t.reads[0].numbers
	if !w.stands || v[groupSharpness] != 0 || v[groupFeather] != 0 || len(t.inside[0].tracks) != 1 || t.inside[0].tracks[0].op != display.OpPicture {
		return nil
	}
	c := state.Colours(v[groupColours:groupNumbers])
	return &c
}

// softened says blur and shadow, which CSS animates.
func (w *writer) softened(e *element, t *track) {
	ever := func(n int) bool {
		return slices.ContainsFunc(t.reads, func(r reading) bool { return r.numbers[n] > 0 })
	}
	blurs, casts := ever(groupBlur), ever(shadowAlpha)
	if !blurs && !casts {
		return
	}
	keys := t.curveOf(func(r *reading) []float64 {
		return append([]float64{r.numbers[groupBlur]}, r.numbers[shadowX:shadowAlpha+1]...)
	}, w.near, w.near, w.near, w.near, nearShare, nearShare, nearShare, nearShare).keys()
	w.animate(e, "filter", keys, func(v []float64) string {
		var parts []string
		if blurs {
			parts = append(parts, "blur("+w.px(v[0])+"px)")
		}
		if casts {
			c := v[4:]
			of := func(x float64) string { return decimal(255*x, 1) }
			parts = append(parts, fmt.Sprintf("drop-shadow(%spx %spx %spx rgb(%s %s %s/%s))", w.px(v[1]), w.px(v[2]), w.px(v[3]), of(c[0]), of(c[1]), of(c[2]), decimal(c[3], 4)))
		}
		return strings.Join(parts, " ")
	})
}

// adjusted says colours, sharpness and the softness of a border, which CSS has no words for: by filters of SVG, which change by steps.
func (w *writer) adjusted(e *element, t *track) {
	box := geom.EmptyBox()
	for i := range t.reads {
		v := t.reads[i].numbers
		box = box.Union(geom.Box{Min: geom.Point{X: v[4], Y: v[5]}, Max: geom.Point{X: v[4] + v[6], Y: v[5] + v[7]}})
	}
	box = box.Grow(2)
	var at []float64
	var says []string
	var last []float64
	base, any := "", false
	for i := range t.reads {
		r := &t.reads[i]
		v := append([]float64{r.numbers[groupFeather], r.numbers[groupSharpness]}, r.numbers[groupColours:groupNumbers]...)
		if last == nil || math.Abs(v[0]-last[0]) > w.near || slices.ContainsFunc([]int{1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13}, func(k int) bool { return math.Abs(v[k]-last[k]) > nearShare/2 }) {
			last = v
			f := w.filter(r, box)
			any = any || f != "none"
			at, says = append(at, r.at), append(says, f)
		}
		if r.at <= float64(w.o.Still) || base == "" {
			base = says[len(says)-1]
		}
	}
	if !any {
		return
	}
	e.style = append(e.style, "filter:"+base)
	if name := w.stepped("filter", at, says); name != "" {
		e.moves = append(e.moves, move{name, 1})
	}
}

// filter is the filter of a reading: colours by a matrix, sharpness by what a blur takes away, then the border (a becomes a x max(0, 2 b - 1), b its blurred
// cover).
func (w *writer) filter(r *reading, box geom.Box) string {
	v := r.numbers
	feather, sharp := v[groupFeather], v[groupSharpness]
	var b strings.Builder
	if m := v[groupColours:groupNumbers]; !slices.Equal(m, state.SameColours[:]) {
		fmt.Fprintf(&b, `<feColorMatrix values="`)
		for row := range 3 {
			for col := range 3 {
				b.WriteString(decimal(m[4*row+col], 5) + " ")
			}
			b.WriteString("0 " + decimal(m[4*row+3], 5) + " ")
		}
		b.WriteString(`0 0 0 1 0" result="a"/>`)
	}
	if sharp != 0 {
		in := "SourceGraphic"
		if b.Len() > 0 {
			in = "a"
		}
		fmt.Fprintf(&b, `<feGaussianBlur in="%s" stdDeviation="%s"/><feComposite in="%s" operator="arithmetic" k2="%s" k3="%s" result="a"/>`, in, decimal(v[groupSharpSigma], 3), in, decimal(1+sharp, 4), decimal(-sharp, 4))
	}
	if feather > 0 {
		in := "SourceGraphic"
		if b.Len() > 0 {
			in = "a"
		}
		b.WriteString(featherOf(in, feather))
	}
	if b.Len() == 0 {
		return "none"
	}
	return "url(#" + w.define(fmt.Sprintf(`<filter id="%%s" filterUnits="userSpaceOnUse" x="%s" y="%s" width="%s" height="%s" color-interpolation-filters="sRGB">`,
		decimal(box.Min.X, 0), decimal(box.Min.Y, 0), decimal(box.W()+1, 0), decimal(box.H()+1, 0))+b.String()+"</filter>") + ")"
}

func featherOf(in string, width float64) string {
	return fmt.Sprintf(`<feGaussianBlur in="%s" stdDeviation="%s"/><feComponentTransfer result="f"><feFuncA type="linear" slope="2" intercept="-1"/></feComponentTransfer><feComposite in="%s" in2="f" operator="in"/>`,
		in, decimal(width/2.8, 3), in)
}

// mix writes (1-p) of one and p of another, added.
func (w *writer) mix(b *strings.Builder, t *track) error {
	outer, one, other := &element{}, &element{}, &element{}
	outer.style = append(outer.style, "isolation:isolate")
	share := func(of func(p float64) float64) []key {
		return t.curveOf(func(r *reading) []float64 { return []float64{of(r.numbers[4])} }, nearShare).keys()
	}
	w.share(one, "opacity", share(func(p float64) float64 { return 1 - p }))
	w.share(other, "opacity", share(func(p float64) float64 { return p }))
	if blended(t.inside[0]) {
		one.style = append(one.style, "isolation:isolate")
	}
	other.style = append(other.style, "mix-blend-mode:plus-lighter")
	return w.wrapped(b, outer, func() error {
		if err := w.wrapped(b, one, func() error { return w.level(b, t.inside[0]) }); err != nil {
			return err
		}
		return w.wrapped(b, other, func() error { return w.level(b, t.inside[1]) })
	})
}

// clipPage cuts to a box that may move.
func (w *writer) clipPage(b *strings.Builder, t *track) error {
	r := &element{}
	r.set("width", "1")
	r.set("height", "1")
	w.moved(r, t, func(r *reading) geom.Matrix {
		v := r.numbers[4:]
		return geom.Matrix{A: v[2], D: v[3], E: v[0], F: v[1]}
	}, geom.Box{Max: geom.Point{X: 1, Y: 1}})
	var cut strings.Builder
	w.open(r, &cut, "rect")
	e := &element{}
	if blended(t.inside[0]) {
		e.style = append(e.style, "isolation:isolate")
	}
	e.set("clip-path", "url(#"+w.define(`<clipPath id="%s">`+cut.String()+"/></clipPath>")+")")
	return w.wrapped(b, e, func() error { return w.level(b, t.inside[0]) })
}

// clip cuts to the inside of an outline, or to what lies outside of it.
func (w *writer) clip(b *strings.Builder, t *track) error {
	key, outside := t.reads[0].codes[0], t.reads[0].codes[1] == 1
	path := w.film.Geometry.Path(key)
	if path == nil {
		return nil
	}
	shape := &element{}
	shape.set("d", w.data(path, 1))
	w.moved(shape, t, matrixAt(4), w.film.Geometry.Bounds(key))
	var cut strings.Builder
	w.open(shape, &cut, "path")
	cut.WriteString("/>")
	e := &element{}
	if blended(t.inside[0]) {
		e.style = append(e.style, "isolation:isolate")
	}
	if outside {
		e.set("mask", "url(#"+w.maskOf(w.whole()+cut.String())+")")
	} else {
		e.set("clip-path", "url(#"+w.define(`<clipPath id="%s">`+cut.String()+"</clipPath>")+")")
	}
	return w.wrapped(b, e, func() error { return w.level(b, t.inside[0]) })
}

// whole is the page in white, which in a mask shows everything.
func (w *writer) whole() string {
	p := w.page()
	return fmt.Sprintf(`<rect%s width="%s" height="%s" fill="#fff"/>`, begins(p), decimal(p.W(), 0), decimal(p.H(), 0))
}

// begins says where a box begins, but at 0.
func begins(p geom.Box) string {
	if p.Min == (geom.Point{}) {
		return ""
	}
	return fmt.Sprintf(` x="%s" y="%s"`, decimal(p.Min.X, 0), decimal(p.Min.Y, 0))
}

// maskOf defines a mask over the page: what is white in it shows, as far as it covers.
func (w *writer) maskOf(content string) string {
	p := w.page()
	return w.define(fmt.Sprintf(`<mask id="%%s" maskUnits="userSpaceOnUse" x="%s" y="%s" width="%s" height="%s" color-interpolation="sRGB">`, decimal(p.Min.X, 0), decimal(p.Min.Y, 0), decimal(p.W(), 0), decimal(p.H(), 0)) + content + "</mask>")
}

// As what a mask is made of: anything in white, or in black.
const (
	white = "filter:brightness(0) invert(1)"
	black = "filter:brightness(0)"
)

// mask shows one thing as far as another covers, or does not.
func (w *writer) mask(b *strings.Builder, t *track) error {
	var cover strings.Builder
	if err := w.level(&cover, t.inside[1]); err != nil {
		return err
	}
	content := cover.String()
	feather := 0.0
	for i := range t.reads {
		feather = max(feather, t.reads[i].numbers[4])
	}
	if feather > 0 {
		p := w.page()
		f := w.define(fmt.Sprintf(`<filter id="%%s" filterUnits="userSpaceOnUse" x="%s" y="%s" width="%s" height="%s" color-interpolation-filters="sRGB">`, decimal(p.Min.X, 0), decimal(p.Min.Y, 0), decimal(p.W(), 0), decimal(p.H(), 0)) + featherOf("SourceGraphic", feather) + "</filter>")
		content = `<g filter="url(#` + f + `)">` + content + "</g>"
	}
	switch how := t.reads[0].codes[0]; {
	case how == display.MaskOutside|display.MaskLight: // white less what is light
		content = w.whole() + `<g style="filter:invert(1)">` + content + "</g>"
	case how == display.MaskLight:
	case how == display.MaskOutside:
		content = w.whole() + `<g style="` + black + `">` + content + "</g>"
	default:
		content = `<g style="` + white + `">` + content + "</g>"
	}
	e := &element{}
	e.set("mask", "url(#"+w.maskOf(content)+")")
	return w.wrapped(b, e, func() error { return w.level(b, t.inside[0]) })
}

// mark writes what lies over all.
func (w *writer) mark(b *strings.Builder) error {
	if w.o.Mark == nil {
		return nil
	}
	data, err := w.o.PNG(w.o.Mark)
	if err != nil {
		return err
	}
	w.weights.Pictures += len(data)
	p := w.page()
	fmt.Fprintf(b, `<image width="%s" height="%s" preserveAspectRatio="none" href="%s"/>`+"\n", decimal(p.W(), 0), decimal(p.H(), 0), data)
	return nil
}
