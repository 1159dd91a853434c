// Package text turns font bytes and runs of text into shaped, laid-out outlines. Nothing else in Capstan
// measures or draws text: page and file show the same outlines.
package text

import (
	"bytes"
	"fmt"
	"sort"

	"github.com/go-text/typesetting/font"
)

// Book holds font files by family. A family is a stack of subset files (latin, latin-ext, …) in
// several weights. The zero Book is empty and ready. A Book is not safe for concurrent use.
type Book struct {
	families map[string][]entry
	serial   int
}

type entry struct {
	weight int
	italic bool
	order  int
	face   *font.Face
}

// Add reads a TTF, OTF or WOFF file into the family. Files of one weight stack in the order they are
// added: a rune is taken from the first that has it.
func (b *Book) Add(family string, weight int, italic bool, data []byte) error {
	f, err := font.ParseTTF(bytes.NewReader(data))
	if err != nil {
		return fmt.Errorf("this font file cannot be read: %w", err)
	}
	if b.families == nil {
		b.families = map[string][]entry{}
	}
	b.serial++
	b.families[family] = append(b.families[family], entry{weight, italic, b.serial, f})
	return nil
}

// Has reports whether any file of the family was added.
func (b *Book) Has(family string) bool { return len(b.families[family]) > 0 }

// Serial changes whenever a font is added; layouts made under an older one may lack glyphs.
func (b *Book) Serial() int { return b.serial }

// Stack returns the faces to set a family in: those of the nearest weight and the asked slope first,
// then the rest of the family. An unknown family gives the first known one by name, so that words
// are never lost; without any font the stack is empty.
func (b *Book) Stack(family string, weight int, italic bool) []*font.Face {
	list := b.families[family]
	if len(list) == 0 {
		names := make([]string, 0, len(b.families))
		for n := range b.families {
			names = append(names, n)
		}
		if len(names) == 0 {
			return nil
		}
		sort.Strings(names)
		list = b.families[names[0]]
	}
	list = append([]entry(nil), list...)
	far := func(e entry) int {
		d := e.weight - weight
		if d < 0 {
			d = -d
		}
		if e.italic != italic {
			d += 10000
		}
		return d
	}
	sort.SliceStable(list, func(i, j int) bool {
		if a, c := far(list[i]), far(list[j]); a != c {
			return a < c
		}
		return list[i].order < list[j].order
	})
	out := make([]*font.Face, len(list))
	for i, e := range list {
		out[i] = e.face
	}
	return out
}
