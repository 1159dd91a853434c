package svg

import (
	"math"
	"strconv"
	"strings"

	"golang.org/x/image/colornames"

	"capstan/core/geom"
)

// numbers reads numbers with commas or blanks between them, as far as they go.
func numbers(s string) (list []float64) {
	for r := (scanner{s: s}); ; {
		v, ok := r.number()
		if !ok {
			return list
		}
		list = append(list, v)
	}
}

// scanner reads path data and lists of numbers (SVG 2, section 9.3.9).
type scanner struct {
	s string
	i int
}

func (r *scanner) blank() {
	for r.i < len(r.s) && (r.s[r.i] == ' ' || r.s[r.i] == ',' || r.s[r.i] == '\n' || r.s[r.i] == '\t' || r.s[r.i] == '\r' || r.s[r.i] == '\f') {
		r.i++
	}
}

func (r *scanner) number() (float64, bool) {
	r.blank()
	i, digits := r.i, 0
	at := func() byte {
		if i < len(r.s) {
			return r.s[i]
		}
		return 0
	}
	if at() == '+' || at() == '-' {
		i++
	}
	for at() >= '0' && at() <= '9' {
		i, digits = i+1, digits+1
	}
	if at() == '.' {
		for i++; at() >= '0' && at() <= '9'; i++ {
			digits++
		}
	}
	if digits == 0 {
		return 0, false
	}
	if e := i; at() == 'e' || at() == 'E' {
		if i++; at() == '+' || at() == '-' {
			i++
		}
		if at() < '0' || at() > '9' {
			i = e
		}
		for at() >= '0' && at() <= '9' {
			i++
		}
	}
	v, err := strconv.ParseFloat(strings.TrimPrefix(r.s[r.i:i], "+"), 64)
	if err != nil || math.IsInf(v, 0) || math.Abs(v) > 1e9 {
		return 0, false
	}
	r.i = i
	return v, true
}

// flag reads a 0 or 1, which needs nothing between it and what follows.
func (r *scanner) flag() (bool, bool) {
	r.blank()
	if r.i < len(r.s) && (r.s[r.i] == '0' || r.s[r.i] == '1') {
		r.i++
		return r.s[r.i-1] == '1', true
	}
	return false, false
}

// against is what lengths are measured by.
type against struct {
	w, h float64 // the nearest viewport
	font float64 // px
}

// Which side of a viewport shares are of.
const (
	across = iota
	down
	diagonal
)

// length reads a length in user units; ok is false where there is none.
func (g against) length(s string, side int) (v float64, ok bool) {
	s = strings.TrimSpace(s)
	r := scanner{s: s}
	v, ok = r.number()
	if !ok {
		return 0, false
	}
	switch strings.ToLower(strings.TrimSpace(s[r.i:])) {
	case "", "px":
	case "%":
		of := g.w
		switch side {
		case down:
			of = g.h
		case diagonal:
			of = math.Hypot(g.w, g.h) / math.Sqrt2
		}
		v *= of / 100
	case "em":
		v *= g.font
	case "rem":
		v *= 16
	case "ex", "ch":
		v *= g.font / 2
	case "in":
		v *= 96
	case "cm":
		v *= 96 / 2.54
	case "mm":
		v *= 96 / 25.4
	case "q":
		v *= 96 / 101.6
	case "pt":
		v *= 96.0 / 72
	case "pc":
		v *= 16
	case "vw":
		v *= g.w / 100
	case "vh":
		v *= g.h / 100
	default:
		return 0, false
	}
	return v, true
}

// share reads an opacity.
func share(s string, otherwise float64) float64 {
	s = strings.TrimSpace(s)
	r := scanner{s: s}
	v, ok := r.number()
	if !ok {
		return otherwise
	}
	if strings.HasSuffix(s, "%") {
		v /= 100
	}
	return min(1, max(0, v))
}

// colour is a colour in 0..255 and its opacity.
type colour struct {
	r, g, b uint8
	a       float64
}

// readColour reads a colour of CSS; current is that of currentColor.
func readColour(s string, current colour) (colour, bool) {
	s = strings.ToLower(strings.TrimSpace(s))
	if s == "currentcolor" {
		return current, true
	}
	if s == "transparent" {
		return colour{}, true
	}
	if h, ok := strings.CutPrefix(s, "#"); ok {
		if len(h) == 3 || len(h) == 4 {
			var long strings.Builder
			for _, c := range h {
				long.WriteRune(c)
				long.WriteRune(c)
			}
			h = long.String()
		}
		if len(h) == 6 {
			h += "ff"
		}
		v, err := strconv.ParseUint(h, 16, 32)
		if err != nil || len(h) != 8 {
			return colour{}, false
		}
		return colour{uint8(v >> 24), uint8(v >> 16), uint8(v >> 8), float64(uint8(v)) / 255}, true
	}
	if c, ok := colornames.Map[s]; ok {
		return colour{c.R, c.G, c.B, 1}, true
	}
	name, rest, ok := strings.Cut(s, "(")
	if !ok {
		return colour{}, false
	}
	parts := strings.FieldsFunc(strings.TrimSuffix(rest, ")"), func(c rune) bool { return c == ',' || c == ' ' || c == '/' || c == '\t' || c == '\n' })
	if len(parts) != 3 && len(parts) != 4 {
		return colour{}, false
	}
	v := make([]float64, 4)
	v[3] = 1
	for i, p := range parts {
		r := scanner{s: p}
		n, ok := r.number()
		if !ok {
			return colour{}, false
		}
		percent := strings.HasSuffix(p, "%")
		switch {
		case i == 3 && percent:
			n /= 100
		case i < 3 && percent && strings.HasPrefix(name, "rgb"):
			n *= 2.55
		}
		v[i] = n
	}
	byteOf := func(x float64) uint8 { return uint8(math.Round(min(255, max(0, x)))) }
	switch name {
	case "rgb", "rgba":
		return colour{byteOf(v[0]), byteOf(v[1]), byteOf(v[2]), min(1, max(0, v[3]))}, true
	case "hsl", "hsla":
		// CSS Color 4, section 7.1.
		h, sat, l := math.Mod(math.Mod(v[0], 360)+360, 360), min(1, max(0, v[1]/100)), min(1, max(0, v[2]/100))
		f := func(n float64) float64 {
			k := math.Mod(n+h/30, 12)
			return 255 * (l - sat*min(l, 1-l)*max(-1, min(k-3, 9-k, 1)))
		}
		return colour{byteOf(f(0)), byteOf(f(8)), byteOf(f(4)), min(1, max(0, v[3]))}, true
	}
	return colour{}, false
}

// transform reads a list of transforms; what cannot be read counts as none, with ok false.
func transform(s string, g against) (m geom.Matrix, ok bool) {
	m = geom.Identity
	s = strings.TrimSpace(s)
	if s == "" || s == "none" {
		return m, true
	}
	for s != "" {
		name, rest, found := strings.Cut(s, "(")
		inner, after, closed := strings.Cut(rest, ")")
		if !found || !closed {
			return geom.Identity, false
		}
		s = strings.TrimLeft(after, " ,\n\t\r")
		v, ok := terms(inner, g)
		if !ok {
			return geom.Identity, false
		}
		var n geom.Matrix
		at := func(i int, otherwise float64) float64 {
			if i < len(v) {
				return v[i]
			}
			return otherwise
		}
		tan := func(deg float64) float64 { return math.Tan(deg * math.Pi / 180) }
		switch name = strings.TrimSpace(name); {
		case name == "matrix" && len(v) == 6:
			n = geom.Matrix{A: v[0], B: v[1], C: v[2], D: v[3], E: v[4], F: v[5]}
		case name == "translate" && len(v) >= 1:
			n = geom.Translate(geom.Point{X: v[0], Y: at(1, 0)})
		case name == "translateX" && len(v) == 1:
			n = geom.Translate(geom.Point{X: v[0]})
		case name == "translateY" && len(v) == 1:
			n = geom.Translate(geom.Point{Y: v[0]})
		case name == "scale" && len(v) >= 1:
			n = geom.Scale(v[0], at(1, v[0]))
		case name == "scaleX" && len(v) == 1:
			n = geom.Scale(v[0], 1)
		case name == "scaleY" && len(v) == 1:
			n = geom.Scale(1, v[0])
		case name == "rotate" && len(v) == 3:
			n = geom.Rotate(v[0]).About(geom.Point{X: v[1], Y: v[2]})
		case name == "rotate" && len(v) >= 1:
			n = geom.Rotate(v[0])
		case name == "skewX" && len(v) == 1:
			n = geom.Matrix{A: 1, C: tan(v[0]), D: 1}
		case name == "skewY" && len(v) == 1:
			n = geom.Matrix{A: 1, B: tan(v[0]), D: 1}
		default:
			return geom.Identity, false
		}
		m = m.Mul(n)
	}
	return m, true
}

// terms reads the numbers of a transform; angles may say their unit.
func terms(s string, g against) (list []float64, ok bool) {
	for _, p := range strings.FieldsFunc(s, func(c rune) bool { return c == ',' || c == ' ' || c == '\n' || c == '\t' || c == '\r' }) {
		for p != "" {
			r := scanner{s: p}
			v, found := r.number()
			if !found {
				return nil, false
			}
			rest := p[r.i:]
			unit := strings.TrimRight(rest, "0123456789.+-eE")
			switch {
			case rest == "" || rest[0] == '-' || rest[0] == '.' || rest[0] == '+':
				unit = ""
			case unit == "deg":
			case unit == "rad":
				v *= 180 / math.Pi
			case unit == "turn":
				v *= 360
			default:
				if v, found = g.length(p, across); !found {
					return nil, false
				}
				unit = rest
			}
			list, p = append(list, v), rest[len(unit):]
		}
	}
	return list, true
}

// viewBox maps a viewBox into a viewport (SVG 2, section 8.2); ok is false where it shows nothing.
func viewBox(box []float64, aspect string, x, y, w, h float64) (m geom.Matrix, ok bool) {
	if len(box) != 4 {
		return geom.Translate(geom.Point{X: x, Y: y}), true
	}
	if box[2] <= 0 || box[3] <= 0 || w <= 0 || h <= 0 {
		return geom.Identity, false
	}
	sx, sy := w/box[2], h/box[3]
	words := strings.Fields(strings.ReplaceAll(aspect, "defer", ""))
	align, meet := "xMidYMid", true
	if len(words) > 0 {
		align = words[0]
	}
	if len(words) > 1 {
		meet = words[1] != "slice"
	}
	if align != "none" {
		k := min(sx, sy)
		if !meet {
			k = max(sx, sy)
		}
		sx, sy = k, k
	}
	tx, ty := x-box[0]*sx, y-box[1]*sy
	part := func(s string) float64 {
		switch {
		case strings.Contains(align, s+"Mid"):
			return 0.5
		case strings.Contains(align, s+"Max"):
			return 1
		}
		return 0
	}
	if align != "none" {
		tx += (w - box[2]*sx) * part("x")
		ty += (h - box[3]*sy) * part("Y")
	}
	return geom.Matrix{A: sx, D: sy, E: tx, F: ty}, true
}
