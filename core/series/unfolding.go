package series

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/motion"
)

// Unlink lets loops of a scene that go on loops which the scene before has no more go on by themselves, from where they are in their cycles: phases
// says where that is. into is how long the transition into the scene lasts.
func Unlink(s, before *doc.Scene, phases map[string]int64, into int64) error {
	t, err := motion.Resolve(s, into)
	if err != nil {
		return err
	}
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			if _, has := phases[m.ID]; !has {
				continue
			}
			if o, _ := before.Move(m.Continues); o == nil {
				m.Continues = ""
				BeginAt(m, t.Moves[m.ID].Begin-phases[m.ID], into)
			}
		}
		return true
	})
	return nil
}

// Steps returns when the steps of a scene begin that do so after its first: each is what goes on without a pause, in ms of the scene's clock. into
// is how long the transition into the scene lasts.
func Steps(s *doc.Scene, into int64) ([]int64, error) {
	t, err := motion.Resolve(s, into)
	if err != nil {
		return nil, err
	}
	var list []motion.Interval
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			iv := t.Moves[m.ID]
			if !iv.Whole && m.Lasts == "" && !m.TiedIn(s) && iv.Begin < t.Stay {
				list = append(list, iv)
			}
		}
		return !l.Hidden
	})
	slices.SortFunc(list, func(a, b motion.Interval) int {
		if a.Begin != b.Begin {
			return int(a.Begin - b.Begin)
		}
		return int(a.End - b.End)
	})
	var steps []int64
	begin, end := int64(-1), int64(-1)
	for _, iv := range list {
		if len(steps) > 0 || end >= 0 {
			if iv.Begin < end || iv.Begin == begin {
				end = max(end, iv.End)
				continue
			}
		}
		if begin, end = iv.Begin, max(iv.End, iv.Begin); begin > 0 {
			steps = append(steps, begin)
		}
	}
	return steps, nil
}

// leaps reports whether a change is done as it begins.
func leaps(m *doc.Move) bool { return m.Kind == doc.Change && m.Easing == "step-start" }

// IntoTransition makes the first step of a scene the transition into it, where a morph tells the same.
func IntoTransition(s *doc.Scene) error {
	t, err := motion.Resolve(s, 0)
	if err != nil {
		return err
	}
	lasts, easing, any, plain := int64(0), "", false, true
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			iv := t.Moves[m.ID]
			if iv.Whole || m.Lasts == doc.WholeThread || m.TiedIn(s) || lies(m, iv.Begin) {
				continue
			}
			for _, name := range namedOf(m) { // what follows others does so by its own moves
				plain = plain && name == ""
			}
			d, by := iv.End-iv.Begin, m.Easing
			switch {
			case iv.Begin != 0 || m.Begun != 0 || m.Unit != "":
				plain = false
			case m.Timeless() || leaps(m):
				d, by = 0, "at once"
			case m.Kind == doc.Change:
				plain = plain && !m.Alternate && m.Repeat <= 1 && m.Change.To.Scale == nil && m.Change.To.Apart == nil
			case m.Comes() == nil || !m.Comes().Morphs:
				plain = false
			}
			if by == "" {
				by = motion.DefaultEasing(m)
			}
			plain = plain && (!any || d == lasts && by == easing)
			lasts, easing, any = d, by, true
		}
		return true
	})
	if !any || !plain || lasts > doc.MaxTime || slices.ContainsFunc(s.Cues, func(q doc.Cue) bool { return q.At < lasts }) {
		return nil
	}
	named := namedBy(s.Layers)
	var settle func(list []*doc.Layer) []*doc.Layer
	settle = func(list []*doc.Layer) []*doc.Layer {
		var out []*doc.Layer
		for _, l := range list {
			gone := false
			var kept []*doc.Move
			for _, m := range l.Moves {
				switch {
				case t.Moves[m.ID].Whole || m.Lasts == doc.WholeThread || m.TiedIn(s):
					if kept = append(kept, m); m.Continues == "" && m.Lasts != doc.WholeThread { // its clock begins later now
						BeginAt(m, t.Moves[m.ID].Begin-lasts, lasts)
					}
				case m.Kind == doc.Exit:
					gone = true
				case lies(m, t.Moves[m.ID].Begin):
					kept = append(kept, m)
				case m.Kind == doc.Change:
					*l = *l.After(&m.Change.To)
				}
			}
			l.Moves = kept
			if gone && !unseen(l, named) {
				continue
			}
			if l.Kind == doc.Group {
				if l.Children = settle(l.Children); !slices.ContainsFunc(l.Children, func(k *doc.Layer) bool { return k.Mask == "" }) {
					continue
				}
			}
			out = append(out, l)
		}
		return out
	}
	if s.Layers = settle(s.Layers); s.Layers == nil {
		s.Layers = []*doc.Layer{}
	}
	if lasts > 0 {
		s.Transition = doc.Transition{Kind: doc.Morph, Duration: lasts, Easing: easing}
		s.Stay -= lasts
		for k := range s.Cues {
			s.Cues[k].At -= lasts
		}
	}
	return nil
}

// namedOf returns the threads that a move names.
func namedOf(m *doc.Move) (list []string) {
	m.Clone().RenameThreads(func(t string) string {
		list = append(list, t)
		return t
	})
	return
}
