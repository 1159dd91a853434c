package svg

import (
	"math"
	"slices"
	"strings"

	"capstan/core/doc"
)

// seen is what a step of a filter makes: the thing itself, its cover in a colour, or a colour everywhere, laid over each other from the back.
type seen struct {
	graphic bool   // the thing itself; else only its cover
	flood   bool   // everywhere
	tint    colour // of a cover or a flood
	blur    float64
	x, y    float64
	colours *[12]float64 // a map of the colours of the thing, by rows; nil: none
	linear  bool         // it is of linear light
	feather float64
}

// filter is what a filter does to a layer: it changes its colours, blurs it and casts a shadow, in this order; nil where it does nothing, or what it does is told.
func (w *walker) filter(n *node, s state) func(l *doc.Layer) {
	v := n.style["filter"]
	if v == "" || v == "none" {
		return nil
	}
	var made []seen
	ok := false
	if strings.HasPrefix(v, "url(") {
		to := w.reference(v, n)
		if to == nil || to.name != "filter" {
			return nil
		}
		made, ok = steps(to, s)
	} else {
		made, ok = functions(v, s)
	}
	if !ok || len(made) == 0 {
		w.lost.add("a filter", n)
		return nil
	}
	thing := made[len(made)-1]
	casts := made[:len(made)-1]
	if !thing.graphic || thing.x != 0 || thing.y != 0 || len(casts) > 2 || slices.ContainsFunc(casts, func(v seen) bool { return v.graphic || v.flood }) {
		w.lost.add("a filter", n)
		return nil
	}
	k := math.Sqrt(math.Abs(s.m.Det()))
	length := func(v float64) float64 { return min(doc.MaxEffect, round4(v*k)) }
	return func(l *doc.Layer) {
		if thing.colours != nil {
			if recoloured(l, thing.colours, thing.linear) {
				w.lost.add("colours of a picture that a filter changes", n)
			}
		}
		l.Blur, l.Feather = length(thing.blur), length(thing.feather)
		for _, c := range casts {
			if c.x == 0 && c.y == 0 && l.Glow == nil && len(casts) > 1 {
				l.Glow = &doc.Glow{Blur: length(c.blur), Colour: c.tint.hex()}
			} else if l.Shadow == nil {
				l.Shadow = &doc.Shadow{X: round4(s.m.A*c.x + s.m.C*c.y), Y: round4(s.m.B*c.x + s.m.D*c.y), Blur: length(c.blur), Colour: c.tint.hex()}
			} else {
				w.lost.add("a second shadow", n)
			}
		}
	}
}

// steps follows the primitives of a filter (Filter Effects 1, section 9).
func steps(to *node, s state) ([]seen, bool) {
	if to.at["primitiveUnits"] == "objectBoundingBox" {
		return nil, false
	}
	number := func(n *node, name string, otherwise float64) float64 {
		if v := numbers(n.at[name]); len(v) > 0 {
			return v[0]
		}
		return otherwise
	}
	results := map[string][]seen{"SourceGraphic": {{graphic: true}}, "SourceAlpha": {{tint: colour{a: 1}}}, "BackgroundImageFix": {}}
	last := results["SourceGraphic"]
	input := func(name string) ([]seen, bool) {
		if name == "" {
			return last, true
		}
		v, ok := results[name]
		return slices.Clone(v), ok
	}
	for _, f := range to.children {
		if !strings.HasPrefix(f.name, "fe") {
			continue
		}
		in, ok := input(f.at["in"])
		if !ok {
			return nil, false
		}
		in = slices.Clone(in)
		under, _ := input(f.at["in2"])
		flood := func() colour {
			c, ok := readColour(f.style["flood-color"], colour{a: 1})
			if !ok {
				c = colour{a: 1}
			}
			c.a *= share(f.style["flood-opacity"], 1)
			return c
		}
		linear := to.style["color-interpolation-filters"] != "sRGB" && f.style["color-interpolation-filters"] != "sRGB"
		switch f.name {
		case "feGaussianBlur":
			for i := range in {
				in[i].blur = math.Hypot(in[i].blur, max(0, number(f, "stdDeviation", 0)))
			}
		case "feOffset":
			for i := range in {
				in[i].x, in[i].y = in[i].x+number(f, "dx", 0), in[i].y+number(f, "dy", 0)
			}
		case "feFlood":
			in = []seen{{flood: true, tint: flood()}}
		case "feDropShadow":
			c := seen{tint: flood(), x: number(f, "dx", 2), y: number(f, "dy", 2), blur: number(f, "stdDeviation", 2)}
			in = append([]seen{c}, in...)
		case "feColorMatrix":
			for i := range in {
				if !in[i].mapped(f, linear) {
					return nil, false
				}
			}
		case "feComponentTransfer":
			if in, ok = transferred(f, in); !ok {
				return nil, false
			}
		case "feComposite":
			switch f.at["operator"] {
			case "", "over":
				in = append(under, in...)
			case "in":
				if len(in) == 1 && len(under) == 1 && in[0].flood && !under[0].flood {
					c := under[0]
					c.graphic, c.tint = false, in[0].tint
					in = []seen{c}
				} else if len(in) == 1 && len(under) == 1 && in[0].graphic && under[0].graphic && under[0].feather > 0 {
					in[0].feather = under[0].feather
				} else {
					return nil, false
				}
			default:
				return nil, false
			}
		case "feBlend":
			if m := f.at["mode"]; m != "" && m != "normal" {
				return nil, false
			}
			in = append(under, in...)
		case "feMerge":
			in = nil
			for _, c := range f.children {
				if c.name == "feMergeNode" {
					v, ok := input(c.at["in"])
					if !ok {
						return nil, false
					}
					in = append(in, v...)
				}
			}
		default:
			return nil, false
		}
		in = slices.DeleteFunc(in, func(v seen) bool { return !v.graphic && v.tint.a <= 0 })
		last = in
		if r := f.at["result"]; r != "" {
			results[r] = in
		}
	}
	return last, true
}

// mapped changes the colours of what is seen by a feColorMatrix; false where that is more than a map of colours.
func (v *seen) mapped(f *node, linear bool) bool {
	m := [20]float64{1, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 1, 0}
	list := numbers(f.at["values"])
	switch f.at["type"] {
	case "", "matrix":
		if len(list) == 20 {
			copy(m[:], list)
		}
	case "saturate":
		k := 1.0
		if len(list) > 0 {
			k = list[0]
		}
		put(&m, saturated(k))
	case "hueRotate":
		angle := 0.0
		if len(list) > 0 {
			angle = list[0]
		}
		put(&m, turned(angle))
	default:
		return false
	}
	if m[15] != 0 || m[16] != 0 || m[17] != 0 || m[19] != 0 {
		return false
	}
	if !v.graphic {
		c := [3]float64{float64(v.tint.r) / 255, float64(v.tint.g) / 255, float64(v.tint.b) / 255}
		var out [3]uint8
		for i := range out {
			x := m[5*i+4] + m[5*i+3]
			for k := range c {
				x += m[5*i+k] * light(c[k], linear)
			}
			out[i] = uint8(math.Round(255 * min(1, max(0, dark(x, linear)))))
		}
		v.tint = colour{out[0], out[1], out[2], v.tint.a * m[18]}
		return true
	}
	if m[18] != 1 || m[3] != 0 || m[8] != 0 || m[13] != 0 || v.colours != nil {
		return false
	}
	v.colours, v.linear = &[12]float64{m[0], m[1], m[2], m[4], m[5], m[6], m[7], m[9], m[10], m[11], m[12], m[14]}, linear
	return true
}

func put(m *[20]float64, by [9]float64) {
	for i := range 3 {
		copy(m[5*i:5*i+3], by[3*i:3*i+3])
	}
}

// saturated and turned are the maps of feColorMatrix (Filter Effects 1, section 9.6).
func saturated(s float64) [9]float64 {
	return [9]float64{0.213 + 0.787*s, 0.715 - 0.715*s, 0.072 - 0.072*s, 0.213 - 0.213*s, 0.715 + 0.285*s, 0.072 - 0.072*s, 0.213 - 0.213*s, 0.715 - 0.715*s, 0.072 + 0.928*s}
}

func turned(angle float64) [9]float64 {
	s, c := math.Sincos(angle * math.Pi / 180)
	return [9]float64{
		0.213 + c*0.787 - s*0.213, 0.715 - c*0.715 - s*0.715, 0.072 - c*0.072 + s*0.928,
		0.213 - c*0.213 + s*0.143, 0.715 + c*0.285 + s*0.140, 0.072 - c*0.072 - s*0.283,
		0.213 - c*0.213 - s*0.787, 0.715 - c*0.715 + s*0.715, 0.072 + c*0.928 + s*0.072,
	}
}

// transferred follows a feComponentTransfer where it makes covers fainter, or a border soft.
func transferred(f *node, in []seen) ([]seen, bool) {
	for _, c := range f.children {
		if c.name == "" {
			continue
		}
		one := func(name string, otherwise float64) float64 {
			if v := numbers(c.at[name]); len(v) > 0 {
				return v[0]
			}
			return otherwise
		}
		if c.at["type"] == "identity" {
			continue
		}
		if c.name != "feFuncA" || c.at["type"] != "linear" {
			return nil, false
		}
		slope, plus := one("slope", 1), one("intercept", 0)
		for i := range in {
			switch v := &in[i]; {
			case plus == 0 && !v.graphic && slope >= 0 && slope <= 1:
				v.tint.a *= slope
			case slope == 2 && plus == -1 && v.blur > 0:
				v.feather, v.blur = 2.8*v.blur, 0
			default:
				return nil, false
			}
		}
	}
	return in, true
}

// functions follows the functions that CSS has for filters (Filter Effects 1, section 6).
func functions(text string, s state) ([]seen, bool) {
	made := []seen{{graphic: true}}
	for text = strings.TrimSpace(text); text != ""; text = strings.TrimSpace(text) {
		name, rest, ok := strings.Cut(text, "(")
		if !ok {
			return nil, false
		}
		end, deep := -1, 1
		for i, c := range rest {
			if c == '(' {
				deep++
			} else if c == ')' {
				if deep--; deep == 0 {
					end = i
					break
				}
			}
		}
		if end < 0 {
			return nil, false
		}
		inside := strings.TrimSpace(rest[:end])
		text = rest[end+1:]
		amount := share(inside, 1)
		if v := numbers(inside); len(v) > 0 && !strings.HasSuffix(inside, "%") {
			amount = v[0] // above 1, too
		}
		thing := &made[len(made)-1]
		same := [9]float64{1, 0, 0, 0, 1, 0, 0, 0, 1}
		colours := func(m [9]float64, plus float64) {
			by := [12]float64{m[0], m[1], m[2], plus, m[3], m[4], m[5], plus, m[6], m[7], m[8], plus}
			if thing.colours != nil {
				by = after(by, *thing.colours)
			}
			thing.colours = &by
		}
		times := func(k float64) [9]float64 {
			m := same
			for i := range m {
				m[i] *= k
			}
			return m
		}
		switch strings.TrimSpace(name) {
		case "blur":
			v, _ := s.g.length(inside, across)
			thing.blur = math.Hypot(thing.blur, max(0, v))
		case "drop-shadow":
			c := seen{tint: colour{a: 1}}
			var lengths []float64
			for _, part := range fieldsOutside(inside) {
				if v, ok := s.g.length(part, across); ok {
					lengths = append(lengths, v)
				} else if v, ok := readColour(part, colour{a: 1}); ok {
					c.tint = v
				} else {
					return nil, false
				}
			}
			if len(lengths) < 2 {
				return nil, false
			}
			c.x, c.y = lengths[0], lengths[1]
			if len(lengths) > 2 {
				c.blur = lengths[2]
			}
			if c.tint.a > 0 {
				made = append([]seen{c}, made...)
			}
		case "brightness":
			colours(times(amount), 0)
		case "contrast":
			colours(times(amount), 0.5-0.5*amount)
		case "invert":
			a := min(1, max(0, amount))
			colours(times(1-2*a), a)
		case "saturate":
			colours(saturated(amount), 0)
		case "grayscale":
			colours(saturated(1-min(1, max(0, amount))), 0)
		case "hue-rotate":
			v := numbers(inside)
			if len(v) == 0 {
				return nil, false
			}
			colours(turned(v[0]), 0)
		case "sepia":
			k := 1 - min(1, max(0, amount))
			colours([9]float64{0.393 + 0.607*k, 0.769 - 0.769*k, 0.189 - 0.189*k, 0.349 - 0.349*k, 0.686 + 0.314*k, 0.168 - 0.168*k, 0.272 - 0.272*k, 0.534 - 0.534*k, 0.131 + 0.869*k}, 0)
		default:
			return nil, false
		}
	}
	return made, true
}

// fieldsOutside are the parts of a text between blanks that lie in no brackets.
func fieldsOutside(s string) (parts []string) {
	deep, from := 0, 0
	for i, c := range s + " " {
		switch {
		case c == '(':
			deep++
		case c == ')':
			deep--
		case (c == ' ' || c == '\n' || c == '\t') && deep == 0:
			if i > from {
				parts = append(parts, s[from:i])
			}
			from = i + 1
		}
	}
	return parts
}

// after is the map that does first, then next.
func after(next, first [12]float64) (m [12]float64) {
	for i := range 3 {
		m[4*i+3] = next[4*i+3]
		for k := range 3 {
			for j := range 3 {
				m[4*i+j] += next[4*i+k] * first[4*k+j]
			}
			m[4*i+3] += next[4*i+k] * first[4*k+3]
		}
	}
	return m
}

// light and dark lead from sRGB to linear light and back (sRGB, IEC 61966-2-1).
func light(v float64, linear bool) float64 {
	switch {
	case !linear:
		return v
	case v <= 0.04045:
		return v / 12.92
	}
	return math.Pow((v+0.055)/1.055, 2.4)
}

func dark(v float64, linear bool) float64 {
	switch {
	case !linear:
		return v
	case v <= 0.0031308:
		return 12.92 * v
	}
	return 1.055*math.Pow(v, 1/2.4) - 0.055
}

// recoloured maps the colours of a layer and all in it, and reports whether there are some that it cannot map.
func recoloured(l *doc.Layer, m *[12]float64, linear bool) (pictures bool) {
	paint := func(code *string) {
		c, ok := readColour(*code, colour{})
		if !ok {
			return
		}
		in := [3]float64{light(float64(c.r)/255, linear), light(float64(c.g)/255, linear), light(float64(c.b)/255, linear)}
		var out [3]uint8
		for i := range out {
			v := m[4*i]*in[0] + m[4*i+1]*in[1] + m[4*i+2]*in[2] + m[4*i+3]
			out[i] = uint8(math.Round(255 * min(1, max(0, dark(v, linear)))))
		}
		*code = colour{out[0], out[1], out[2], c.a}.hex()
	}
	each(l, func(l *doc.Layer) {
		pictures = pictures || l.Kind == doc.Picture || l.Fill.Kind == doc.Texture
		for _, f := range fills(l) {
			if f.Kind == doc.Solid {
				paint(&f.Colour)
			} else if f.Graded() {
				f.Gradient.Stops = slices.Clone(f.Gradient.Stops)
				for i := range f.Gradient.Stops {
					paint(&f.Gradient.Stops[i].Colour)
				}
			}
		}
		if l.Shadow != nil {
			paint(&l.Shadow.Colour)
		}
	})
	return pictures
}

// each calls f for a layer and all in it.
func each(l *doc.Layer, f func(l *doc.Layer)) {
	f(l)
	for _, c := range l.Children {
		each(c, f)
	}
}

// fills are the fills of a layer, of its stroke too.
func fills(l *doc.Layer) []*doc.Fill {
	if l.Stroke != nil {
		return []*doc.Fill{&l.Fill, &l.Stroke.Fill}
	}
	return []*doc.Fill{&l.Fill}
}
