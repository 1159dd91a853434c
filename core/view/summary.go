package view

import (
	"fmt"
	"math"
	"sort"
	"strings"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/words"
)

// Summary says what happens in scene i, one sentence each in the order of time, for those who read or hear it instead of
// looking at the timeline.
func (s *Views) Summary(i int) []string {
	sc, t := s.Shown.Doc.Film.Scenes[i], s.Shown.Timing(i)
	out := []string{s.opening(i)}
	type said struct {
		at   int64
		text string
	}
	var list []said
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			iv := t.Moves[m.ID]
			list = append(list, said{iv.Begin, sentence(l, m, iv, t.Stay)})
		}
		return true
	})
	for _, q := range sc.Cues {
		text := fmt.Sprintf("cue %s is passed", q.Name)
		if q.Wait > 0 {
			text += fmt.Sprintf(", after a wait of %s", words.Seconds(q.Wait))
		}
		at := motion.CueTime(sc, q.ID)
		list = append(list, said{at, fmt.Sprintf("At %s %s.", words.Seconds(at), text)})
	}
	sort.SliceStable(list, func(a, b int) bool { return list[a].at < list[b].at })
	for _, x := range list {
		out = append(out, x.text)
	}
	if len(list) == 0 {
		out = append(out, "Nothing moves in it.")
	}
	return append(out, fmt.Sprintf("At %s the scene ends.", words.Seconds(t.Stay)))
}

func (s *Views) opening(i int) string {
	sc := s.Shown.Doc.Film.Scenes[i]
	text := fmt.Sprintf("Scene %d, %s, begins at %s of the film and stays %s", i+1, sc.Name, words.Seconds(s.Shown.Order.Begin(i)), words.Seconds(s.Shown.Order.Stays[i]))
	t := sc.Transition
	switch {
	case i == 0:
	case t.Kind == doc.Cut:
		text += "; it begins with a cut"
	default:
		kind := t.Kind
		if e := t.Does(); e != nil {
			kind = strings.ToLower(e.Words)
		}
		text += fmt.Sprintf("; a transition of %s, %s, leads into it", words.Seconds(t.Duration), kind)
	}
	return text + "."
}

// sentence says one move: "At 0.90 s Title fades in over 0.90 s."
func sentence(l *doc.Layer, m *doc.Move, iv motion.Interval, stay int64) string {
	verb := "moves by “" + m.Effect + "”, which this Capstan does not know"
	switch c, g := m.Comes(), m.Goes(); {
	case c != nil && m.Kind == doc.Entrance:
		verb = c.Says[0]
	case c != nil:
		verb = c.Says[1]
	case g != nil:
		verb = g.Says
	case m.Kind == doc.MotionPath:
		verb = "travels" + travel(m)
	case m.Change != nil:
		verb = "changes its " + strings.Join(Changed(m), ", ")
	}
	if m.Unit != "" {
		verb += " " + m.Unit + " by " + m.Unit
	}
	text := fmt.Sprintf("At %s %s %s", words.Seconds(iv.Begin), l.Name, verb)
	switch {
	case m.Lasts == doc.WholeThread:
		text += " as long as its thread lives"
	case iv.Whole:
		text += fmt.Sprintf(" through the whole scene, once in %s", words.Seconds(iv.Pass))
	case m.Kind == doc.Loop && iv.Passes != 1:
		text += fmt.Sprintf(" %.3g times, until %s", iv.Passes, words.Seconds(iv.End))
	case iv.Passes > 1 && m.Alternate:
		text += fmt.Sprintf(" and back, until %s", words.Seconds(iv.End))
	case iv.End > iv.Begin:
		text += " over " + words.Seconds(iv.End-iv.Begin)
	}
	if iv.End > stay && !iv.Whole {
		text += fmt.Sprintf("; the scene ends %s before it does", words.Seconds(iv.End-stay))
	}
	return text + "."
}

// travel says how far and whereto a path goes.
func travel(m *doc.Move) string {
	p, err := geom.ParseData(m.Path.D)
	if err != nil || len(p.Points) < 2 {
		return ""
	}
	ms := geom.NewMeasure(p)
	a, _ := ms.At(0)
	b, _ := ms.At(1)
	d := b.Sub(a)
	words := []string{"to the right", "down right", "down", "down left", "to the left", "up left", "up", "up right"}
	k := (int(math.Round(math.Atan2(d.Y, d.X)/(math.Pi/4))) + 8) % 8
	if d.Len() < 0.5 {
		return fmt.Sprintf(" %.0f px and back to where it began", ms.Length())
	}
	return strings.TrimRight(fmt.Sprintf(" %.0f px %s", ms.Length(), words[k]), " ")
}
