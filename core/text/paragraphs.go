package text

import (
	"fmt"
	"slices"
	"strings"
	"unicode"

	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/segmenter"
	"github.com/go-text/typesetting/shaping"
)

// kept is a paragraph that was shaped: its glyphs count runes and runs from its begin.
type kept struct {
	glyphs  []Glyph
	missing []rune
}

// maxKept is how many characters of paragraphs a book keeps shaped.
const maxKept = 200_000

// shaped shapes runes[from:to], or finds them shaped before: while somebody writes, all paragraphs but one are as they were.
func (s *setter) shaped(from, to int) paragraph {
	if from == to {
		return paragraph{from, to, nil}
	}
	var key strings.Builder
	if s.apart() {
		key.WriteString("apart ")
	}
	for i := from; i < to; {
		j := i
		for j < to && s.runOf[j] == s.runOf[i] {
			j++
		}
		r := &s.text.Runs[s.runOf[i]]
		fmt.Fprintf(&key, "%d %s\x00%d %v %v %s\x00%s\x00", s.runOf[i]-s.runOf[from], r.Family, r.Weight, r.Italic, r.Size, r.Raise, string(s.runes[i:j]))
		i = j
	}
	b := s.book
	k, ok := b.shaped[key.String()]
	if !ok {
		were := len(s.out.Missing)
		k.glyphs = s.shape(from, to)
		k.missing = slices.Clone(s.out.Missing[were:])
		s.out.Missing = s.out.Missing[:were]
		for i := range k.glyphs {
			g := &k.glyphs[i]
			g.Cluster, g.next, g.run = g.Cluster-from, g.next-from, g.run-s.runOf[from]
		}
		if b.runes += to - from; b.runes > maxKept || b.shaped == nil {
			b.shaped, b.runes = map[string]kept{}, to-from
		}
		b.shaped[key.String()] = k
	}
	s.out.Missing = append(s.out.Missing, k.missing...)
	p := paragraph{from, to, slices.Clone(k.glyphs)}
	for i := range p.glyphs {
		g := &p.glyphs[i]
		g.Cluster, g.next, g.run = g.Cluster+from, g.next+from, g.run+s.runOf[from]
	}
	return p
}

// shape shapes runes[from:to], one run of the text after the other.
func (s *setter) shape(from, to int) []Glyph {
	breaks := map[int]bool{}
	if to > from {
		var seg segmenter.Segmenter
		seg.Init(s.runes[from:to])
		for it := seg.LineIterator(); it.Next(); {
			l := it.Line()
			end := from + l.Offset + len(l.Text)
			// UAX 14 would break and/or, for the sake of addresses; no browser does.
			if s.runes[end-1] == '/' && end < to && unicode.IsLetter(s.runes[end]) {
				continue
			}
			breaks[end-1] = true
		}
	}
	var features []shaping.FontFeature
	if s.apart() {
		features = unjoined
	}
	var out []Glyph
	levels := s.levels(from, to)
	for i := from; i < to; {
		j := i
		for j < to && s.runOf[j] == s.runOf[i] && levels[j-from] == levels[i-from] {
			j++
		}
		level := levels[i-from]
		first := len(out)
		r := s.text.Runs[s.runOf[i]]
		stack := s.book.Stack(r.Family, r.Weight, r.Italic)
		if len(stack) > 0 {
			more := func() []*font.Face { return s.book.fallback(r.Weight, r.Italic) }
			for _, g := range s.press.shape(stack, more, s.runes, i, j, level%2 == 1, features, func(c rune) { s.out.Missing = append(s.out.Missing, c) }) {
				g.run, g.level = s.runOf[i], level
				g.size, g.rise = raised(&r)
				c := s.runes[g.Cluster]
				g.space = c == ' ' || c == '\t'
				out = append(out, g)
			}
		}
		if level%2 == 1 {
			slices.Reverse(out[first:]) // as it is read; lines are broken so, and then turned to how they look
		}
		i = j
	}
	for i := range out {
		next := to
		if i+1 < len(out) {
			next = out[i+1].Cluster
		}
		out[i].next = next
		for k := out[i].Cluster; k < next && k >= 0; k++ {
			out[i].breakable = out[i].breakable || breaks[k]
		}
	}
	for i := len(out) - 2; i >= 0; i-- { // glyphs of one cluster end together
		if out[i].Cluster == out[i+1].Cluster {
			out[i].next = out[i+1].next
		}
	}
	return out
}
