package session

import (
	"fmt"
	"sort"
	"strings"

	"capstan/core/doc"
	"capstan/core/motion"
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
	case m.Effect == doc.AtOnce && m.Unit == "":
	case m.Lasts == doc.WholeThread:
		s = "as long as its thread lives"
	case m.Effect == doc.Scroll && iv.Whole:
		s += " · whole scene"
	case m.Kind == doc.Loop && iv.Whole:
		s += " · " + map[string]string{doc.Spin: "a turn in ", doc.Rock: "to and fro in "}[m.Effect] + seconds(m.Duration) + " · whole scene"
	case m.Lasts != "":
		s += " · as long as the scene"
	case m.Effect == doc.Scroll:
		s += " · " + seconds(iv.End-iv.Begin)
	case m.Kind == doc.Loop:
		s += fmt.Sprintf(" · %.4g × %s", iv.Passes, seconds(iv.Pass))
	case m.Repeat > 1:
		s += fmt.Sprintf(" · %g × %s", m.Repeat, seconds(iv.Pass))
	default:
		s += " · " + seconds(iv.End-iv.Begin)
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

// told are the Words of a layer's move, and what is odd about it.
func told(sc *doc.Scene, l *doc.Layer, m *doc.Move, t *motion.Timing) string {
	s := Words(sc, m, t)
	if t.Moves[m.ID].Early {
		s += " · as early as it can"
	}
	if motion.Idle(l, t, m.ID) {
		if m.Kind == doc.Exit {
			return s + " · changes nothing: it is gone by then"
		}
		return s + " · changes nothing: it is there by then"
	}
	return s
}

func startWords(sc *doc.Scene, m *doc.Move, name func(string) string) string {
	switch m.Start.When {
	case doc.WhenBegins:
		return "when " + name(m.Start.Of) + " begins" + offset(m.Start.Offset)
	case doc.WhenEnds:
		return "when " + name(m.Start.Of) + " ends" + offset(m.Start.Offset)
	case doc.BeforeSceneEnd:
		return seconds(m.Start.Offset) + " before the scene ends"
	case doc.AtCue:
		for _, q := range sc.Cues {
			if q.ID == m.Start.Of {
				return "at cue " + q.Name + offset(m.Start.Offset)
			}
		}
	}
	return "at " + seconds(m.Start.Offset)
}

func seconds(ms int64) string { return fmt.Sprintf("%.2f s", float64(ms)/1000) }

func offset(ms int64) string {
	switch {
	case ms > 0:
		return " + " + seconds(ms)
	case ms < 0:
		return " − " + seconds(-ms)
	}
	return ""
}

// flat encodes a MoveView as the move's own fields with the view's beside them.
func flat(v MoveView) ([]byte, error) {
	raw, err := doc.Encode(v.Move)
	if err != nil {
		return nil, err
	}
	more, err := doc.Encode(struct {
		Name    string      `json:"name"`
		Words   string      `json:"words"`
		Begin   int64       `json:"begin"`
		Finish  int64       `json:"finish"`
		Early   bool        `json:"early"`
		Before  string      `json:"before"`
		Units   []string    `json:"units"`
		Film    int64       `json:"film"`
		Cut     int64       `json:"cut"`
		Easing  string      `json:"easingUsed"`
		Speed   float64     `json:"speed"`
		Profile []float64   `json:"profile"`
		Reach   *[2]float64 `json:"reach"`
		Rounds  *[2]float64 `json:"rounds"`
	}{v.Name, v.Words, v.Begin, v.End, v.Early, v.Before, v.Units, v.Film, v.Cut, v.Easing, v.Speed, v.Profile, v.Reach, v.Rounds})
	if err != nil {
		return nil, err
	}
	// A move has fields always: one object goes on in the other.
	return append(append(raw[:len(raw)-1:len(raw)-1], ','), more[1:]...), nil
}

func sortByCount(list []string, count map[string]int) {
	sort.SliceStable(list, func(i, j int) bool { return count[list[i]] > count[list[j]] })
}
