package view

import (
	"fmt"
	"slices"
	"sort"
	"strings"

	"capstan/core/doc"
	"capstan/core/motion"
	"capstan/core/words"
)

// Words says in words when a move begins and how long it lasts: "when Path of Kite begins · 0.60 s".
func Words(sc *doc.Scene, m *doc.Move, t *motion.Timing) string {
	iv := t.Moves[m.ID]
	var s string
	name := func(id string) string {
		o, l := sc.Move(id)
		if o == nil {
			return "a move"
		}
		_, own := sc.Move(m.ID)
		if own == l {
			return motion.Name(o)
		}
		return motion.Name(o) + " of " + l.Name
	}
	if m.End == nil || m.End.Stretches || m.Lasts != "" || m.Until != "" { // else its begin comes from its end
		s = startWords(sc, m, name)
	}
	switch {
	case m.Timeless():
	case m.Lasts == doc.WholeThread:
		s = "as long as its thread lives"
	case m.Runs() && m.Lasts != "":
		s += " · whole scene"
	case m.Kind == doc.Loop && iv.Whole:
		s += " · " + cycled(m) + words.Seconds(iv.Pass) + " · whole scene"
	case m.Lasts != "":
		s += " · as long as the scene"
	case m.Runs():
		s += " · " + words.Seconds(iv.End-iv.Begin)
	case m.Kind == doc.Loop:
		s += fmt.Sprintf(" · %.4g × %s", iv.Passes, words.Seconds(iv.Pass))
	case m.Repeat > 1:
		s += fmt.Sprintf(" · %g × %s", m.Repeat, words.Seconds(iv.Pass))
	default:
		s += " · " + words.Seconds(iv.End-iv.Begin)
	}
	if m.Unit != "" {
		s += " · by " + m.Unit
	}
	if m.Until != "" {
		s += " · until " + name(m.Until) + " begins"
	}
	if m.End != nil {
		switch m.End.When {
		case doc.WhenBegins:
			s += " · ends when " + name(m.End.Of) + " begins"
		case doc.WhenEnds:
			s += " · ends when " + name(m.End.Of) + " ends"
		default:
			s += " · ends with the scene"
		}
	}
	return strings.TrimPrefix(s, " · ")
}

// cycled says what a loop does in a cycle, before how long that is.
func cycled(m *doc.Move) string {
	if g := m.Goes(); g != nil {
		return g.Told
	}
	return ""
}

// told are the Words of a layer's move, and what is odd about it.
func told(sc *doc.Scene, l *doc.Layer, m *doc.Move, t *motion.Timing) string {
	s := Words(sc, m, t)
	if m.Change != nil {
		if list := Changed(m); len(list) > 0 {
			return s + " · " + strings.Join(list, ", ") + takesOver(l, m, t)
		}
		return s + " · changes nothing yet"
	}
	if m.Path != nil && m.Path.Along != "" {
		if o := sc.Thread(m.Path.Along); o != nil {
			s += " · along " + o.Name
		} else {
			s += " · what it went along is gone: it keeps its line"
		}
	}
	if m.TiedIn(sc) {
		return tiedWords(sc, m)
	}
	if m.Tied() {
		s += " · what drove it is gone: it goes by its own time"
	}
	if t.Moves[m.ID].Early {
		s += " · as early as it can"
	}
	if g := m.Goes(); g != nil && g.Round != nil && !m.NamesMove() && !travels(sc, l) {
		return s + " · changes nothing: nothing takes it along"
	}
	if g := m.Goes(); g != nil && g.Parted && len(l.Children) == 0 {
		return s + " · changes nothing: there are no layers in it"
	}
	if motion.Idle(l, t, m.ID) {
		if m.Kind == doc.Exit {
			return s + " · changes nothing: it is gone by then"
		}
		return s + " · changes nothing: it is there by then"
	}
	return s
}

// changedWords are the fields a change names, as they are called.
var changedWords = map[string]string{"x": "place", "y": "place", "w": "size", "h": "size", "fill": "colour", "path": "outline", "text": "words"}

// Changed says what a change names, each once: "place, opacity".
func Changed(m *doc.Move) (list []string) {
	for _, c := range changes(m) {
		list = append(list, c.Words)
	}
	return
}

// takesOver says what a change takes over from one that has begun earlier and still goes on: of a field that both name the later begin decides.
func takesOver(l *doc.Layer, m *doc.Move, t *motion.Timing) string {
	own := t.Moves[m.ID]
	for _, o := range l.Moves {
		iv := t.Moves[o.ID]
		if o == m || o.Change == nil || iv.End <= own.Begin || iv.Begin > own.Begin || iv.Begin == own.Begin && slices.Index(l.Moves, o) > slices.Index(l.Moves, m) {
			continue
		}
		names := Changed(o)
		for _, name := range Changed(m) {
			if slices.Contains(names, name) {
				return " · takes over the " + name + " from the change at " + words.Seconds(iv.Begin)
			}
		}
	}
	return ""
}

// tiedWords says what drives the edges of a move: "tied to the leading edge of Bar".
func tiedWords(sc *doc.Scene, m *doc.Move) string {
	var list []string
	for _, t := range m.Ties().Sides {
		if t.Mirror {
			continue
		}
		edge := "leading"
		if t.Nearest {
			edge = "trailing"
		}
		if name := fmt.Sprintf("the %s edge of %s", edge, sc.Thread(t.Layer).Name); len(list) == 0 || list[0] != name {
			list = append(list, name)
		}
	}
	return "tied to " + strings.Join(list, " and ")
}

// travels reports whether a layer, or a group around it, is taken along a line.
func travels(sc *doc.Scene, l *doc.Layer) bool {
	for l != nil {
		for _, m := range l.Moves {
			if m.Drifts() {
				return true
			}
		}
		_, l = sc.Layer(l.ID)
	}
	return false
}

func startWords(sc *doc.Scene, m *doc.Move, name func(string) string) string {
	switch m.Start.When {
	case doc.WhenBegins:
		return "when " + name(m.Start.Of) + " begins" + offset(m.Start.Offset)
	case doc.WhenEnds:
		return "when " + name(m.Start.Of) + " ends" + offset(m.Start.Offset)
	case doc.BeforeSceneEnd:
		return words.Seconds(m.Start.Offset) + " before the scene ends"
	case doc.WhenHeard, doc.WhenSilent:
		q, mark := sc.Heard(m.Start.Of)
		switch {
		case q == nil:
		case m.Start.When == doc.WhenSilent:
			return "when " + q.Name + " falls silent" + offset(m.Start.Offset)
		case mark == nil:
			return "when " + q.Name + " is heard" + offset(m.Start.Offset)
		default:
			return fmt.Sprintf("at “%s” of %s%s", mark.Name, q.Name, offset(m.Start.Offset))
		}
	case doc.AtCue:
		for _, q := range sc.Cues {
			if q.ID == m.Start.Of {
				return "at cue " + q.Name + offset(m.Start.Offset)
			}
		}
	}
	return "at " + words.Seconds(m.Start.Offset)
}

func offset(ms int64) string {
	switch {
	case ms > 0:
		return " + " + words.Seconds(ms)
	case ms < 0:
		return " − " + words.Seconds(-ms)
	}
	return ""
}

func sortByCount(list []string, count map[string]int) {
	sort.SliceStable(list, func(i, j int) bool { return count[list[i]] > count[list[j]] })
}
