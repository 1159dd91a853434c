package sounds

import (
	"cmp"
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

// VolumeAsked is what is asked about how loud sounds are, by name.
var VolumeAsked = intent.Table{
	// The volume in per cent of the recording: 50 % is -6.02 dB.
	"sound.percent": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		IDs     []string `json:"ids"`
		Percent float64  `json:"percent"`
	}) (edit.Command, error) {
		gain := math.Round(200*math.Log10(max(c.Percent, 0)/100)) / 10
		gain = min(max(gain, doc.MinGain), doc.MaxGain)
		return each(s, c.IDs, func(q *doc.Sound, _ *doc.Scene) edit.Command {
			return &edit.SetSound{ID: q.ID, Patch: edit.Fields{"gain": gain}}
		})
	}),
	// The length of a fade is changed by so many ms, as far as what is heard lets it.
	"sound.fade": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		ID   string `json:"id"`
		Part string `json:"part"` // in or out
		By   int64  `json:"by"`
	}) (edit.Command, error) {
		return each(s, []string{c.ID}, func(q *doc.Sound, sc *doc.Scene) edit.Command {
			begin, end := heard(s, q, sc)
			field, now := "fadeIn", q.FadeIn
			if c.Part == "out" {
				field, now = "fadeOut", q.FadeOut
			}
			return &edit.SetSound{ID: q.ID, Patch: edit.Fields{field: max(0, min(now+c.By, end-begin))}}
		})
	}),
	// A point of the course of a volume, where none is at that time.
	"point.add": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		ID   string  `json:"id"`
		At   int64   `json:"at"`   // ms since the sound began
		Gain float64 `json:"gain"` // dB
	}) (edit.Command, error) {
		return each(s, []string{c.ID}, func(q *doc.Sound, _ *doc.Scene) edit.Command {
			n := doc.VolumePoint{At: max(0, c.At), Gain: min(max(c.Gain, doc.MinGain), doc.MaxGain)}
			list := slices.DeleteFunc(slices.Clone(q.Points), func(p doc.VolumePoint) bool { return p.At == n.At })
			list = append(list, n)
			slices.SortFunc(list, func(a, b doc.VolumePoint) int { return cmp.Compare(a.At, b.At) })
			return pointed(q, list)
		})
	}),
	// A point is moved, between those beside it.
	"point.move": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		ID     string  `json:"id"`
		Index  int     `json:"index"`
		By     int64   `json:"by"`     // ms
		Louder float64 `json:"louder"` // dB
	}) (edit.Command, error) {
		return point(s, c.ID, c.Index, func(q *doc.Sound, most int64) []doc.VolumePoint {
			list := slices.Clone(q.Points)
			least := int64(0)
			if c.Index > 0 {
				least = list[c.Index-1].At + 1
			}
			if c.Index+1 < len(list) {
				most = list[c.Index+1].At - 1
			}
			p := &list[c.Index]
			p.At, p.Gain = max(least, min(p.At+c.By, max(most, least))), min(max(p.Gain+c.Louder, doc.MinGain), doc.MaxGain)
			return list
		})
	}),
	"point.delete": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		ID    string `json:"id"`
		Index int    `json:"index"`
	}) (edit.Command, error) {
		return point(s, c.ID, c.Index, func(q *doc.Sound, _ int64) []doc.VolumePoint {
			return slices.Delete(slices.Clone(q.Points), c.Index, c.Index+1)
		})
	}),
}

// point is what becomes of the points of a sound of which one is changed; most is how long it is heard, in ms.
func point(s *intent.Desk, id string, index int, do func(q *doc.Sound, most int64) []doc.VolumePoint) (edit.Command, error) {
	q, sc := s.Doc.Film.Sound(id)
	if q == nil || index < 0 || index >= len(q.Points) {
		return nil, words.New("sound.gone")
	}
	begin, end := heard(s, q, sc)
	return pointed(q, do(q, end-begin)), nil
}

func pointed(q *doc.Sound, list []doc.VolumePoint) edit.Command {
	var to any = list
	if len(list) == 0 {
		to = nil
	}
	return &edit.SetSound{ID: q.ID, Patch: edit.Fields{"points": to}}
}
