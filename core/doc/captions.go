package doc

import (
	"strings"
	"unicode/utf8"
)

// Limits of captions.
const (
	MaxCaptions = 1000 // of a scene
	MaxCaption  = 500  // characters
)

// Caption is some words with their times, ms from a begin that whoever holds them knows.
type Caption struct {
	From int64  `json:"from"`
	To   int64  `json:"to"`
	Text string `json:"text"`
}

// Captioned is how captions are shown in a film.
type Captioned struct {
	Size   float64 `json:"size,omitzero"`   // px of the page; 0: an eighteenth of its height
	Top    bool    `json:"top,omitzero"`    // at the upper side of the page; else at the lower one
	Colour string  `json:"colour,omitzero"` // of the words, #rrggbb; empty: the role words of the scene, or paper
	Plate  string  `json:"plate,omitzero"`  // behind them, #rrggbb or #rrggbbaa; empty: the role ground of the scene, or ink
}

// Speaking reports whether the film has captions: of its own, or of a voice that is not muted and whose words are known.
func (f *Film) Speaking() (is bool) {
	for _, s := range f.Scenes {
		is = is || s != nil && !s.Aside && len(s.Captions) > 0
	}
	f.EachSound(func(s *Sound, sc *Scene) {
		is = is || !s.Muted && s.Spoken != nil && len(s.Spoken.Lines) > 0 && (sc == nil || !sc.Aside)
	})
	return is
}

// captions checks those of a scene's clock.
func (c *checker) captions(at string, list []Caption) {
	c.most(at, len(list), MaxCaptions)
	last := int64(-MaxTime)
	for i, v := range list {
		switch at := c.at("%s[%d]", at, i); {
		case v.From < last:
			c.fail(at, "begins before the one before it has ended")
		case v.To-v.From < MinDuration || v.To > MaxSoundTime:
			c.fail(at, "must last %d ms at least, and end within %d", MinDuration, int64(MaxSoundTime))
		case strings.TrimSpace(v.Text) == "" || utf8.RuneCountInString(v.Text) > MaxCaption:
			c.fail(at+".text", "must have 1 to %d characters", MaxCaption)
		}
		last = v.To
	}
}

// captioned checks how captions are shown.
func (c *checker) captioned(at string, v *Captioned) {
	if v == nil {
		return
	}
	if v.Size != 0 {
		c.number(at+".size", v.Size, 4, 1000)
	}
	if v.Colour != "" {
		c.colour(at+".colour", v.Colour)
	}
	if v.Plate != "" {
		c.colour(at+".plate", v.Plate)
	}
}
