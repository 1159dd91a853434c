// Package text turns font bytes and runs of text into shaped, laid-out outlines. Nothing else in Capstan
// measures or draws text: page and file show the same outlines.
package text

import (
	"bytes"
	"errors"
	"fmt"
	"slices"
	"sort"
	"sync/atomic"

	"capstan/core/geom"
	"capstan/core/typeface"

	"github.com/go-text/typesetting/font"
	ot "github.com/go-text/typesetting/font/opentype"
)

// Book holds font files by family. A family is a stack of subset files (latin, latin-ext, …) in
// several weights. The zero Book is empty and ready. Once its
// files are added, texts may be set with it by several goroutines at a time; each waits for its turn, and for that of its copies.
type Book struct {
	families map[string][]*entry
	serial   int
	drawn    map[drawn]*geom.Path // in use while a text is set
	shaped   map[string]kept      // by what a paragraph says and how
	runes    int                  // in shaped
	press    *press               // shared with copies; nil before there are files
}

type entry struct {
	weight int
	italic bool
	order  int
	data   []byte     // until it is used
	face   *font.Face // nil before, and for a file that turned out to be broken
}

// Add puts a TTF, OTF or WOFF file into the family; what is no font file is refused. Its glyphs are read when it is first
// used. Files of one weight stack in the order they are added: a rune is taken from the first that has it.
func (b *Book) Add(family string, weight int, italic bool, data []byte) error {
	if err := typeface.Bounded(data); err != nil {
		return err
	}
	err := errors.New("its tables point outside of it")
	guarded(func() {
		var l *ot.Loader
		if l, err = ot.NewLoader(bytes.NewReader(data)); err == nil && !l.HasTable(ot.MustNewTag("cmap")) {
			err = errors.New("it maps no characters")
		}
	})
	if err != nil {
		return fmt.Errorf("this font file cannot be read: %w", err)
	}
	if b.families == nil {
		b.families = map[string][]*entry{}
	}
	b.press = b.pressed()
	b.serial = int(serials.Add(1))
	b.families[family] = append(b.families[family], &entry{weight, italic, b.serial, data, nil})
	b.shaped = nil
	return nil
}

// serials counts all files that were ever added, so that no two books that differ have the same serial.
var serials atomic.Int64

// Copy returns a book with the same files, to which others can be added while b stays as it is.
func (b *Book) Copy() *Book {
	out := &Book{families: make(map[string][]*entry, len(b.families)), serial: b.serial, press: b.pressed()}
	for name, list := range b.families {
		out.families[name] = slices.Clip(list)
	}
	return out
}

// pressed returns the book's press; an empty book sets nothing, so any will do.
func (b *Book) pressed() *press {
	if b.press == nil {
		return new(press)
	}
	return b.press
}

// Remove takes a family out.
func (b *Book) Remove(family string) {
	delete(b.families, family)
	b.shaped = nil
	b.serial = int(serials.Add(1))
}

// Has reports whether any file of the family was added.
func (b *Book) Has(family string) bool { return len(b.families[family]) > 0 }

// Weight returns the weight of the family nearest to the asked one; the asked one where the family is unknown.
func (b *Book) Weight(family string, asked int) int {
	best, least := asked, -1
	for _, e := range b.families[family] {
		d := e.weight - asked
		if d < 0 {
			d = -d
		}
		if least < 0 || d < least {
			best, least = e.weight, d
		}
	}
	return best
}

// guarded runs what reads a font, and reports false where that stumbled: the font library trusts what tables say of each other, and a
// file that is damaged, or made to harm, must not take more than its own glyphs along.
func guarded(f func()) (ok bool) {
	defer func() { ok = recover() == nil }()
	f()
	return
}

// Families that set what the chosen one has no letters for. They ship with Capstan.
const (
	Fallback = "Noto Sans"
	Signs    = "Noto Emoji" // pictures among letters, in the colour of the words
)

// Serial changes whenever a font is added; layouts made under an older one may lack glyphs.
func (b *Book) Serial() int { return b.serial }

// fallback returns the faces of the families that have what others lack; none before they are there.
func (b *Book) fallback(weight int, italic bool) (out []*font.Face) {
	for _, f := range []string{Fallback, Signs} {
		if b.Has(f) {
			out = append(out, b.Stack(f, weight, italic)...)
		}
	}
	return
}

// Stack returns the faces to set a family in: the files of the asked slope, if the family has it, and of the weight
// nearest to the asked one. An unknown family gives the first known one by name, so that words
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
	far := func(e *entry) int {
		d := e.weight - weight
		if d < 0 {
			d = -d
		}
		if e.italic != italic {
			d += 10000
		}
		return d
	}
	least := far(list[0])
	for _, e := range list {
		least = min(least, far(e))
	}
	var out []*font.Face
	for _, e := range list {
		if far(e) != least {
			continue
		}
		if e.data != nil {
			guarded(func() {
				if f, err := font.ParseTTF(bytes.NewReader(e.data)); err == nil {
					mend(f)
					e.face = f
				}
			})
			e.data = nil
		}
		if e.face != nil {
			out = append(out, e.face)
		}
	}
	return out
}
