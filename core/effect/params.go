package effect

import (
	"maps"
	"math"
	"slices"
)

// Params are the parameters of a move or transition by name: numbers, words, yes or no, lists of numbers. One that is missing is as its Param
// says. What belongs to no parameter is kept, and looked at by nobody.
type Params map[string]any

// Number returns a number, 0 where there is none.
func (p Params) Number(name string) float64 {
	n, _ := number(p[name])
	return n
}

// Word returns a word, "" where there is none.
func (p Params) Word(name string) string {
	s, _ := p[name].(string)
	return s
}

// Is returns whether it is so.
func (p Params) Is(name string) bool {
	b, _ := p[name].(bool)
	return b
}

// Numbers returns a list of numbers.
func (p Params) Numbers(name string) (list []float64) {
	switch of := p[name].(type) {
	case []float64:
		return of
	case []any:
		for _, v := range of {
			if n, ok := number(v); ok {
				list = append(list, n)
			}
		}
	}
	return
}

func number(v any) (float64, bool) {
	switch n := v.(type) {
	case float64:
		return n, !math.IsNaN(n) && !math.IsInf(n, 0)
	case int:
		return float64(n), true
	case int64:
		return float64(n), true
	}
	return 0, false
}

// Clone returns a copy that shares no list with p.
func (p Params) Clone() Params {
	out := maps.Clone(p)
	for k, v := range out {
		switch list := v.(type) {
		case []any:
			out[k] = slices.Clone(list)
		case []float64:
			out[k] = slices.Clone(list)
		}
	}
	return out
}

// Equal reports whether two sets say the same.
func (p Params) Equal(o Params) bool {
	if len(p) != len(o) {
		return false
	}
	for k, v := range p {
		w, ok := o[k]
		if !ok || !sameValue(v, w, 0) {
			return false
		}
	}
	return true
}

func sameValue(v, w any, depth int) bool {
	a, isA := number(v)
	b, isB := number(w)
	switch {
	case isA && isB:
		return a == b
	case isA || isB || depth > 8:
		return false
	}
	switch v := v.(type) {
	case nil:
		return w == nil
	case string, bool:
		return v == w
	case []float64:
		return sameValue(anys(v), w, depth)
	case []any:
		if f, ok := w.([]float64); ok {
			w = anys(f)
		}
		l, ok := w.([]any)
		return ok && slices.EqualFunc(v, l, func(a, b any) bool { return sameValue(a, b, depth+1) })
	case map[string]any:
		m, ok := w.(map[string]any)
		return ok && maps.EqualFunc(v, m, func(a, b any) bool { return sameValue(a, b, depth+1) })
	}
	return false
}

func anys(list []float64) (out []any) {
	for _, v := range list {
		out = append(out, v)
	}
	return
}
