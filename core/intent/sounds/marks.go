package sounds

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

// Of marks that are made: how near to one that is there another is not made, in ms, and of how many words a voice has marks from the first.
const (
	sameMark   = 5
	wordsAtOne = 200
)

// MarkAsked is what is asked about marks, by name.
var MarkAsked = intent.Table{
	// A mark at the playhead.
	"mark.add": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		ID string `json:"id"` // of the sound
	}) (edit.Command, error) {
		q, sc := s.Doc.Film.Sound(c.ID)
		if q == nil {
			return nil, words.New("sound.gone")
		}
		begin, end := heard(s, q, sc)
		at := int64(m.Time)
		if sc != nil {
			i, _ := s.Doc.Scene(sc.ID)
			at -= s.Film.Order.Begin(i)
		}
		if m.Rest || at < begin || at > end {
			return nil, words.New("mark.outside", q.Name)
		}
		n := doc.SoundMark{ID: s.NewID(), At: q.From + int64(math.Round(float64(at-begin)*q.Rate())), Name: fmt.Sprint(len(q.Marks) + 1)}
		return marked(q, append(slices.Clip(q.Marks), n)), nil
	}),
	// Marks where words begin, or on beats; or none at all: moves that begin at one keep their times.
	"mark.all": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		ID string `json:"id"`
		Of string `json:"of"` // words, beats; empty: none
	}) (edit.Command, error) {
		return each(s, []string{c.ID}, func(q *doc.Sound, _ *doc.Scene) edit.Command {
			switch c.Of {
			case "words":
				return marked(q, wordMarks(s, q.Marks, q.Spoken))
			case "beats":
				list := slices.Clone(q.Marks)
				for i, at := range q.Beats {
					if !slices.ContainsFunc(q.Marks, func(m doc.SoundMark) bool { return near(m.At, at) }) {
						list = append(list, doc.SoundMark{ID: s.NewID(), At: at, Name: fmt.Sprint("Beat ", i+1)})
					}
				}
				return marked(q, list)
			}
			return marked(q, nil)
		})
	}),
	"mark.set": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		ID   string `json:"id"`
		Mark string `json:"mark"`
		Name string `json:"name"`
		By   int64  `json:"by"` // ms
	}) (edit.Command, error) {
		return each(s, []string{c.ID}, func(q *doc.Sound, _ *doc.Scene) edit.Command {
			list := slices.Clone(q.Marks)
			for i := range list {
				if list[i].ID == c.Mark {
					list[i].Name = cmp.Or(c.Name, list[i].Name)
					list[i].At = max(0, list[i].At+int64(math.Round(float64(c.By)*q.Rate())))
				}
			}
			return marked(q, list)
		})
	}),
	"mark.delete": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		ID   string `json:"id"`
		Mark string `json:"mark"`
	}) (edit.Command, error) {
		return each(s, []string{c.ID}, func(q *doc.Sound, _ *doc.Scene) edit.Command {
			return marked(q, slices.DeleteFunc(slices.Clone(q.Marks), func(m doc.SoundMark) bool { return m.ID == c.Mark }))
		})
	}),
}

func near(a, b int64) bool { return max(a-b, b-a) <= sameMark }

// marked gives a sound its marks.
func marked(q *doc.Sound, list []doc.SoundMark) edit.Command {
	if slices.Equal(list, q.Marks) {
		return nil
	}
	return &edit.SetSound{ID: q.ID, Patch: edit.Fields{"marks": inOrder(list)}}
}

func inOrder(list []doc.SoundMark) any {
	if len(list) == 0 {
		return nil
	}
	list = slices.Clone(list) // too many are refused, none is left out
	slices.SortStableFunc(list, func(a, b doc.SoundMark) int { return cmp.Compare(a.At, b.At) })
	return list
}

// wordMarks are the marks of a voice with one at each of its words; those that stand at a word already move to where that is said now, one after another, and are gone
// where it is said no longer.
func wordMarks(s *intent.Desk, old []doc.SoundMark, of *doc.Spoken) (list []doc.SoundMark) {
	had := map[string][]doc.SoundMark{}
	for _, m := range old {
		if m.Word {
			had[m.Name] = append(had[m.Name], m)
		} else {
			list = append(list, m)
		}
	}
	if of == nil {
		return list
	}
	for _, w := range of.Words {
		m := doc.SoundMark{Name: cmp.Or(w.Text, "…"), Word: true}
		if same := had[m.Name]; len(same) > 0 {
			m.ID, had[m.Name] = same[0].ID, same[1:]
		} else {
			m.ID = s.NewID()
		}
		m.At = w.At
		list = append(list, m)
	}
	return list
}

// respoken are the marks of a voice that says other words now: at words where it had such.
func respoken(s *intent.Desk, q *doc.Sound, of *doc.Spoken) []doc.SoundMark {
	if !slices.ContainsFunc(q.Marks, func(m doc.SoundMark) bool { return m.Word }) {
		return q.Marks
	}
	return wordMarks(s, q.Marks, of)
}
