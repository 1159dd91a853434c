package doc

import (
	"slices"
	"unicode/utf8"
)

// Limits of what is spoken.
const (
	MaxSpoken = 5000 // characters
	MaxLines  = 400
	MaxPause  = 10000 // ms
)

// Spoken is what a voice was made of by a speech engine: it is spoken anew when that changes.
type Spoken struct {
	Text    string    `json:"text"`
	Voice   string    `json:"voice"`            // language and accent, as the engine calls it, such as en-gb
	Variant string    `json:"variant,omitzero"` // of the voice, as the engine calls it
	Rate    float64   `json:"rate,omitzero"`    // 0.5 to 2 times as fast as the voice speaks; 0 counts as 1
	Pitch   float64   `json:"pitch,omitzero"`   // -1 to 1: lower and higher than the voice
	Pause   int64     `json:"pause,omitzero"`   // ms between sentences
	Lines   []Caption `json:"lines,omitzero"`   // where in the recording each sentence is
	Words   []Word    `json:"words,omitzero"`   // and each word, as well as it is known
}

// clone returns a deep copy.
func (s *Spoken) clone() *Spoken {
	if s == nil {
		return nil
	}
	c := *s
	c.Lines, c.Words = slices.Clone(s.Lines), slices.Clone(s.Words)
	return &c
}

// Equal reports whether two are the same.
func (s *Spoken) Equal(o *Spoken) bool {
	return s == o || s != nil && o != nil && s.Text == o.Text && s.Voice == o.Voice && s.Variant == o.Variant && s.Rate == o.Rate && s.Pitch == o.Pitch && s.Pause == o.Pause && slices.Equal(s.Lines, o.Lines) && slices.Equal(s.Words, o.Words)
}

// Check returns what of it breaks a rule, as a field and why; empty: nothing.
func (s *Spoken) Check() (field, why string) {
	switch {
	case utf8.RuneCountInString(s.Text) > MaxSpoken:
		return ".text", "is longer than 5000 characters"
	case len(s.Voice) > 40 || len(s.Variant) > 40:
		return ".voice", "is no voice"
	case s.Rate != 0 && !(s.Rate >= 0.5 && s.Rate <= 2):
		return ".rate", "is not within 0.5 to 2"
	case !(s.Pitch >= -1 && s.Pitch <= 1):
		return ".pitch", "is not within -1 to 1"
	case s.Pause < 0 || s.Pause > MaxPause:
		return ".pause", "is not within 0 to 10000 ms"
	case len(s.Lines) > MaxLines:
		return ".lines", "are more than 400"
	case len(s.Words) > MaxWords:
		return ".words", "are more than 2000"
	}
	last := int64(0)
	for _, l := range s.Lines {
		if l.From < last || l.To < l.From || l.To > MaxSoundTime || utf8.RuneCountInString(l.Text) > MaxSpoken {
			return ".lines", "overlap, or run backwards"
		}
		last = l.To
	}
	for i, w := range s.Words {
		if w.At < 0 || w.At > MaxSoundTime || i > 0 && w.At < s.Words[i-1].At || utf8.RuneCountInString(w.Text) > MaxMarked {
			return ".words", "run backwards, or are too long"
		}
	}
	return "", ""
}
