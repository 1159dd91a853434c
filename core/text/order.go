package text

import (
	"reflect"
	"slices"
	"unsafe"

	"github.com/go-text/typesetting/bidi"
)

// levels returns the embedding level of each rune of a paragraph by the Unicode Bidirectional Algorithm (UAX 9): even ones run to the
// right, odd ones to the left. The paragraph runs as its first letter does.
func (s *setter) levels(from, to int) []bidi.Level {
	out := make([]bidi.Level, to-from)
	turns := false
	for _, c := range s.runes[from:to] {
		turns = turns || c >= 0x590 // no letter before Hebrew runs to the left
	}
	if !turns {
		return out
	}
	var p bidi.Paragraph
	runs := p.Segment(s.runes[from:to], bidi.Neutral)
	// The library joins runs of one direction, also where their levels differ, as of a number among letters that run to the left and
	// the words after it; the levels themselves it keeps to itself.
	if f := reflect.ValueOf(&runs).Elem().FieldByName("levels"); f.IsValid() && f.Type() == reflect.TypeFor[[]bidi.Level]() && f.Len() == len(out) {
		copy(out, *(*[]bidi.Level)(unsafe.Pointer(f.UnsafeAddr())))
		return out
	}
	for i := range runs.NumRuns() {
		r := runs.Run(i)
		for k := r.Start; k < r.End; k++ {
			out[k] = r.Level
		}
	}
	return out
}

// ordered brings the glyphs of a line from the order in which they are read into that in which they stand from the left (UAX 9, rule
// L2): from the highest level down to the lowest odd one, every stretch of that level or above is turned round.
func ordered(line []Glyph) {
	most := bidi.Level(0)
	for _, g := range line {
		most = max(most, g.level)
	}
	for l := most; l >= 1; l-- {
		for i := 0; i < len(line); {
			if line[i].level < l {
				i++
				continue
			}
			k := i
			for k < len(line) && line[k].level >= l {
				k++
			}
			slices.Reverse(line[i:k])
			i = k
		}
	}
}
