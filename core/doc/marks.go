package doc

import "math"

// Limits of marks.
const (
	MaxMarks  = 1000 // of a sound
	MaxWords  = 2000 // of a voice
	MaxMarked = 100  // characters of a mark's name
)

// SoundMark is a moment of a recording that moves of its scene can begin at.
type SoundMark struct {
	ID   string `json:"id"`
	At   int64  `json:"at"` // ms into the recording
	Name string `json:"name"`
	Word bool   `json:"word,omitzero"` // it stands where a word begins, and moves with that as the voice is spoken anew
}

// Word is where in its recording a voice says a word.
type Word struct {
	At   int64  `json:"at"` // ms
	Text string `json:"text"`
}

// OnSound reports whether it hangs on a sound, or on a mark of one.
func (s Start) OnSound() bool { return s.When == WhenHeard || s.When == WhenSilent }

// Heard finds the sound of a scene that is or has a mark of this id; nil: there is none. The mark is nil where the sound itself is meant.
func (s *Scene) Heard(id string) (*Sound, *SoundMark) {
	for _, q := range s.Sounds {
		if q == nil {
			continue // validation says so
		}
		if q.ID == id {
			return q, nil
		}
		for i := range q.Marks {
			if q.Marks[i].ID == id {
				return q, &q.Marks[i]
			}
		}
	}
	return nil, nil
}

// Holds reports whether a scene has what a start on a sound hangs on.
func (s *Scene) Holds(at Start) bool {
	q, m := s.Heard(at.Of)
	return q != nil && (m == nil || at.When == WhenHeard)
}

// MarksHeard are the marks of a sound that is heard from begin to end, with the times at which it first comes to them in At, in ms of the clock of begin and end.
func (s *Sound) MarksHeard(begin, end int64) (list []SoundMark) {
	for _, m := range s.Marks {
		if m.At = begin + int64(math.Round(float64(m.At-s.From)/s.Rate())); m.At >= begin && m.At < end {
			list = append(list, m)
		}
	}
	return list
}

// hooks are what a move of a scene can hang on beside other moves, by their ids: cue, sound, or mark.
type hooks map[string]string

// marks checks those of a sound.
func (c *checker) marks(at string, s *Sound) {
	c.most(at+".marks", len(s.Marks), MaxMarks)
	for i, m := range s.Marks {
		at := c.at("%s.marks[%d]", at, i)
		c.id(at+".id", m.ID)
		c.name(at+".name", m.Name)
		if m.At < 0 || m.At > MaxSoundTime || i > 0 && m.At < s.Marks[i-1].At {
			c.fail(at+".at", "must be a time of 0 to %d ms, none before the mark before it", int64(MaxSoundTime))
		}
	}
}
