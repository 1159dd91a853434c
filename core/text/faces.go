package text

import (
	"slices"
	"unicode"

	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/segmenter"
	"github.com/go-text/typesetting/shaping"
	"golang.org/x/image/math/fixed"
)

// emojiStyle asks for the picture of a sign that has a letter's form too (variation selector 16, UTS 51).
const emojiStyle = '\ufe0f'

// stackMap picks the first face of a run's stack that has a rune.
type stackMap struct {
	press   *press
	stack   []*font.Face
	more    func() []*font.Face // asked only where the stack lacks something
	missing func(rune)
}

func (m stackMap) ResolveFace(r rune) *font.Face {
	for _, f := range m.all() {
		if _, ok := f.NominalGlyph(r); ok {
			return f
		}
	}
	m.missing(r)
	return m.stack[0]
}

// plain reports whether the first face has all of what is to be set.
func (m stackMap) plain(runes []rune) bool {
	for _, r := range runes {
		if _, ok := m.stack[0].NominalGlyph(r); !ok && !unicode.IsSpace(r) || r == emojiStyle {
			return false
		}
	}
	return true
}

func (m stackMap) all() []*font.Face {
	if m.more == nil {
		return m.stack
	}
	return slices.Concat(m.stack, m.more())
}

// oneFace sets a whole stretch in one face.
type oneFace struct{ face *font.Face }

func (f oneFace) ResolveFace(rune) *font.Face { return f.face }

// split cuts a run of text into parts of one face, script and direction. What is read as one letter (a grapheme cluster, UAX 29: a letter
// and its marks, a keycap, a family of signs) stays in one face: the first that sets all of it, composed or not; where none does, each character
// is set in the first that has it. Spaces take the face of what is before them, at the begin of a run that of what follows.
func (m stackMap) split(in shaping.Input) []shaping.Input {
	var seg shaping.Segmenter
	runes := in.Text[in.RunStart:in.RunEnd]
	if m.plain(runes) {
		return seg.Split(in, m)
	}
	var out []shaping.Input
	from := in.RunStart
	var now *font.Face
	emit := func(to int, by shaping.Fontmap) {
		if to > from {
			part := in
			part.RunStart, part.RunEnd = from, to
			out = append(out, seg.Split(part, by)...)
			from = to
		}
	}
	var letters segmenter.Segmenter
	letters.Init(runes)
	for it := letters.GraphemeIterator(); it.Next(); {
		g := it.Grapheme()
		begin := in.RunStart + g.Offset
		if !slices.ContainsFunc(g.Text, func(r rune) bool { return !unicode.IsSpace(r) }) {
			continue // with what is before or after it
		}
		face := m.setting(g.Text, in)
		if face == nil {
			if now != nil {
				emit(begin, oneFace{now})
			}
			emit(begin+len(g.Text), m)
			now = nil
			continue
		}
		if now != nil && face != now {
			emit(begin, oneFace{now})
		}
		now = face
	}
	if now != nil {
		emit(in.RunEnd, oneFace{now})
	}
	emit(in.RunEnd, m)
	return out
}

// setting returns the first face that sets all of a letter, nil for none.
func (m stackMap) setting(letter []rune, in shaping.Input) *font.Face {
	faces := m.all()
	if slices.Contains(letter, emojiStyle) && m.more != nil {
		signs := m.more()
		slices.Reverse(signs)
		faces = slices.Concat(signs, m.stack)
	}
	for _, f := range faces {
		has := true
		for _, r := range letter {
			if _, ok := f.NominalGlyph(r); !ok {
				has = false
				break
			}
		}
		if has {
			return f
		}
	}
	if len(letter) == 1 {
		return nil
	}
	// The face may have it composed, or do without a sign that only joins others: what the shaper makes of it tells.
	for _, f := range faces {
		in.Text, in.RunStart, in.RunEnd, in.Face, in.Size = letter, 0, len(letter), f, fixed.I(int(f.Upem()))
		var seg shaping.Segmenter
		has := true
		for _, part := range seg.Split(in, oneFace{f}) {
			has = guarded(func() {
				for _, g := range m.press.shaper.Shape(part).Glyphs {
					has = has && g.GlyphID != 0
				}
			}) && has
		}
		if has {
			return f
		}
	}
	return nil
}
