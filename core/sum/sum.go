// Package sum reads what is typed where a number is wanted: sums, units of length, shares.
package sum

import (
	"math"
	"strconv"
	"strings"

	"capstan/core/words"
)

// lengths are the units of length in px, at 96 px an inch (CSS Values and Units, absolute lengths).
var lengths = map[string]float64{"px": 1, "in": 96, "cm": 96 / 2.54, "mm": 96 / 25.4, "pt": 96.0 / 72}

// maxDeep is how many brackets may be open.
const maxDeep = 50

// Read works out a sum of + - * / and brackets. Numbers may have a decimal point or comma; a length in in, cm, mm or pt becomes px; n %
// is that share of whole, or n itself where whole is 0. own is the unit of the field, which may be typed and means nothing.
func Read(text string, whole float64, own string) (float64, error) {
	r := reader{rest: strings.ToLower(text), whole: whole, own: strings.ToLower(strings.TrimSpace(own))}
	v, ok := r.sum()
	r.space()
	if !ok || r.rest != "" || math.IsNaN(v) || math.IsInf(v, 0) {
		return 0, words.New("sum.unreadable", strings.TrimSpace(text))
	}
	return v, nil
}

type reader struct {
	rest  string
	whole float64
	own   string
	deep  int
}

func (r *reader) space() { r.rest = strings.TrimLeft(r.rest, " \u00a0\t") }

// take takes one of some signs off the front.
func (r *reader) take(signs ...string) string {
	r.space()
	for _, s := range signs {
		if rest, ok := strings.CutPrefix(r.rest, s); ok {
			r.rest = rest
			return s
		}
	}
	return ""
}

func (r *reader) sum() (float64, bool) {
	v, ok := r.product()
	for ok {
		sign := r.take("+", "-", "−")
		if sign == "" {
			return v, true
		}
		var w float64
		if w, ok = r.product(); sign == "+" {
			v += w
		} else {
			v -= w
		}
	}
	return 0, false
}

func (r *reader) product() (float64, bool) {
	v, ok := r.factor()
	for ok {
		sign := r.take("*", "×", "/", ":")
		if sign == "" {
			return v, true
		}
		var w float64
		w, ok = r.factor()
		if sign == "*" || sign == "×" {
			v *= w
		} else {
			v /= w
		}
	}
	return 0, false
}

func (r *reader) factor() (float64, bool) {
	if r.deep++; r.deep > maxDeep {
		return 0, false
	}
	defer func() { r.deep-- }()
	switch r.take("-", "−", "+", "(") {
	case "-", "−":
		v, ok := r.factor()
		return -v, ok
	case "+":
		return r.factor()
	case "(":
		v, ok := r.sum()
		return v, ok && r.take(")") != ""
	}
	n := 0
	for n < len(r.rest) && (r.rest[n] >= '0' && r.rest[n] <= '9' || r.rest[n] == '.' || r.rest[n] == ',') {
		n++
	}
	v, err := strconv.ParseFloat(strings.Replace(r.rest[:n], ",", ".", 1), 64)
	if err != nil {
		return 0, false
	}
	r.rest = r.rest[n:]
	if r.own != "" && r.own != "%" && r.take(r.own) != "" {
		return v, true
	}
	if r.take("%") != "" {
		if r.whole != 0 {
			v = v * r.whole / 100
		}
		return v, true
	}
	if unit := r.take("px", "in", "cm", "mm", "pt"); unit != "" {
		v *= lengths[unit]
	}
	return v, true
}
