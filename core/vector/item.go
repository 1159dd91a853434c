package vector

import (
	"errors"
	"hash/maphash"
	"math"
	"slices"

	"capstan/core/display"
	"capstan/core/frame"
)

// item is one primitive of a display list with all that lies in it.
type item struct {
	op      display.Op
	kind    uint64 // equal for what one element may show at different times
	codes   []uint32
	numbers []float64
	inside  [2][]item
	layer   *frame.Stretch // that all of it is; its op is opLayer then
	// Of what SVG has no words for, all of it as it stands in the list:
	allCodes   []uint32
	allNumbers []float64
}

var errList = errors.New("vector: the display list breaks off")

// opLayer is no primitive: it holds what one layer writes.
const opLayer display.Op = 1 << 20

// read takes a display list apart, by layers where these are given. It keeps no part of it.
func read(l *display.List, layers []frame.Stretch) ([]item, error) {
	r := reader{codes: slices.Clone(l.Codes), numbers: slices.Clone(l.Numbers), layers: layers}
	items, err := r.level()
	if err == nil && r.c < len(r.codes) {
		err = errList
	}
	return items, err
}

type reader struct {
	codes   []uint32
	numbers []float64
	c, n    int
	layers  []frame.Stretch // that are not begun yet
}

// level reads up to the end of the list, or past what ends the stretch that was begun.
func (r *reader) level() ([]item, error) { return r.upTo(len(r.codes)) }

func (r *reader) upTo(end int) ([]item, error) {
	var items []item
	for r.c < end {
		for len(r.layers) > 0 && r.layers[0].From == r.layers[0].To { // nothing of it is seen
			r.layers = r.layers[1:]
		}
		if len(r.layers) > 0 && r.layers[0].From == r.c {
			it := item{op: opLayer, layer: &r.layers[0]}
			r.layers = r.layers[1:]
			inner, err := r.upTo(it.layer.To)
			if err != nil {
				return nil, err
			}
			it.inside[0] = inner
			it.kind = it.sort()
			items = append(items, it)
			continue
		}
		if op := r.codes[r.c]; op == display.OpEnd || op == display.OpNext {
			return items, nil
		}
		c, n := r.c, r.n
		endC, endN, stretches, ok := display.Head(r.codes, r.numbers, c, n)
		if !ok {
			return nil, errList
		}
		it := item{op: r.codes[c], codes: r.codes[c+1 : endC], numbers: r.numbers[n:endN]}
		r.c, r.n = endC, endN
		for i := range stretches {
			inner, err := r.level()
			if err != nil {
				return nil, err
			}
			if r.c >= len(r.codes) {
				return nil, errList
			}
			r.c++
			it.inside[i] = inner
		}
		if it.painted() {
			for len(r.layers) > 0 && r.layers[0].From < r.c {
				r.layers = r.layers[1:]
			}
			it.allCodes, it.allNumbers, it.inside = r.codes[c:r.c], r.numbers[n:r.n], [2][]item{}
		}
		it.kind = it.sort()
		items = append(items, it)
	}
	return items, nil
}

// painted reports whether SVG cannot say an item: it is painted, and shown as pictures.
func (it *item) painted() bool {
	switch it.op {
	case display.OpProject, display.OpTile:
		return true
	case display.OpVeil, display.OpWipe:
		for c, left := 1, it.codes[0]; left > 0; left-- {
			if it.codes[c] == display.VeilNoise {
				return true
			}
			c += 1 + display.VeilTerms[it.codes[c]].Codes
		}
	}
	return false
}

var seed = maphash.MakeSeed()

// sort is what stays the same while one element shows it.
func (it *item) sort() uint64 {
	var h maphash.Hash
	h.SetSeed(seed)
	put := func(v uint32) { maphash.WriteComparable(&h, v) }
	put(it.op)
	switch {
	case it.allCodes != nil: // whatever it is, it is a picture
	case it.op == display.OpPicture:
		put(it.codes[0]) // which of its sizes may change
	case it.op == display.OpOutline:
		for _, v := range it.paintCodes() {
			put(v)
		}
	case it.op == display.OpVeil || it.op == display.OpWipe:
		n := 4
		for c, left := 1, it.codes[0]; left > 0; left-- {
			of := display.VeilTerms[it.codes[c]]
			for _, v := range it.codes[c : c+1+of.Codes] {
				put(v)
			}
			if n += of.Numbers; of.Numbers > 0 { // whether it shows what it covers, or what it does not
				put(uint32(it.numbers[n-1]))
			}
			c += 1 + of.Codes
		}
	default:
		codes := it.codes
		if k := it.paintCodes(); len(k) == 3 { // of a texture, which of its sizes
			codes = codes[:len(codes)-1]
		}
		for _, v := range codes {
			put(v)
		}
	}
	return h.Sum64()
}

// paintCodes are the codes of the paint of an outline: its kind, and what follows it.
func (it *item) paintCodes() []uint32 {
	switch it.op {
	case display.OpFill:
		return it.codes[1:]
	case display.OpOutline:
		return it.codes[1+it.codes[0]:]
	}
	return nil
}

// jumps reports whether one list cannot be what another becomes a moment later: it shows other things, or they stand far from where they were.
func jumps(a, b []item) bool {
	if len(a) != len(b) {
		return true
	}
	for i := range a {
		x, y := &a[i], &b[i]
		if x.kind != y.kind || jumps(x.inside[0], y.inside[0]) || jumps(x.inside[1], y.inside[1]) {
			return true
		}
		for k := range min(len(x.numbers), len(y.numbers)) {
			v, w := x.numbers[k], y.numbers[k]
			if d := math.Abs(v - w); d > farApart || d > faintApart && math.Abs(v) <= 1 && math.Abs(w) <= 1 {
				return true
			}
		}
	}
	return false
}

// How far numbers of two looks lie apart between which another is taken: px, and shares and colours.
const (
	farApart   = 8
	faintApart = 0.1
)
