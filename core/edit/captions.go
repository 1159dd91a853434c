package edit

import (
	"cmp"
	"slices"

	"capstan/core/doc"
)

// cutCaptions leaves a scene that was cut at a time of its clock the captions that begin before that, and hands the others on.
func cutCaptions(s, later *doc.Scene, at int64) {
	all := s.Captions
	s.Captions, later.Captions = nil, nil
	for _, c := range all {
		if c.From < at {
			s.Captions = append(s.Captions, c)
			continue
		}
		c.From, c.To = c.From-at, c.To-at
		later.Captions = append(later.Captions, c)
	}
}

// foldCaptions gives a scene that others were folded into their captions. origins are when their clocks began on its own.
func foldCaptions(into *doc.Scene, scenes []*doc.Scene, origins []int64) {
	for k, s := range scenes[1:] {
		for _, c := range s.Captions {
			c.From, c.To = c.From+origins[k+1], c.To+origins[k+1]
			into.Captions = append(slices.Clip(into.Captions), c)
		}
	}
	into.Captions = Apart(into.Captions)
}

// Apart puts captions in the order of their times. Where two would be shown at once the first ends as the second begins; those that begin together are one, the
// words of each in lines of their own.
func Apart(list []doc.Caption) (out []doc.Caption) {
	list = slices.Clone(list)
	slices.SortStableFunc(list, func(a, b doc.Caption) int { return cmp.Compare(a.From, b.From) })
	for _, c := range list {
		if len(out) > 0 {
			last := &out[len(out)-1]
			if c.From-last.From < doc.MinDuration {
				last.To, last.Text = max(last.To, c.To), string(first([]rune(last.Text+"\n"+c.Text), doc.MaxCaption))
				continue
			}
			last.To = min(last.To, c.From)
		}
		out = append(out, c)
	}
	return out
}

func first[V any](list []V, n int) []V { return list[:min(len(list), n)] }
