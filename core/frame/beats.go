package frame

import (
	"slices"

	"capstan/core/doc"
)

// BeatsOf are the film times, in ms, at which beats of a sound fall that is heard from begin to end; of one that loops those of its first round.
func BeatsOf(q *doc.Sound, begin, end int64) (list []int64) {
	for _, b := range q.Beats {
		at := begin + int64(float64(b-q.From)/q.Rate()+0.5)
		if b >= q.From && at >= begin && at < end {
			list = append(list, at)
		}
	}
	return list
}

// Beats are the film times, in ms, at which beats of any sound fall that is not muted.
func (f *Film) Beats() (list []int64) {
	for _, q := range f.Doc.Film.Sounds {
		if !q.Muted {
			list = append(list, BeatsOf(q, q.Start.Offset, min(q.Start.Offset+q.Length, f.Order.Length))...)
		}
	}
	for i, sc := range f.Doc.Film.Shown() {
		for _, q := range sc.Sounds {
			if t, ok := f.Timing(i).Sounds[q.ID]; ok && !q.Muted {
				at := f.Order.Begin(i)
				list = append(list, BeatsOf(q, at+t.Begin, min(at+t.End, f.Order.Length))...)
			}
		}
	}
	slices.Sort(list)
	return slices.Compact(list)
}
