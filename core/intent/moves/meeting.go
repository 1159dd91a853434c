package moves

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/intent"
	"capstan/core/motion"
	"capstan/core/words"
)

// Meeting is a way for two moves to end together, live: move.end with its fields brings it about.
type Meeting struct {
	Move      string `json:"move"`      // the later one
	Of        string `json:"of"`        // the one whose end it meets
	Stretches bool   `json:"stretches"` // its length follows, not its begin
	Words     string `json:"words"`     // "Stretch “Kite” by 0.30 s"
}

// Meetings returns how two moves can be made to end together: by stretching or shortening the one that begins later, or by delaying it or beginning
// it earlier. What cannot be, as where that hangs on the other already the other way round, is done to the other one, or left out.
func Meetings(s *intent.Desk, ids []string) []Meeting {
	list := []Meeting{}
	two, err := bars(s, ids)
	if err != nil || len(two) != 2 || two[0].scene != two[1].scene {
		return list
	}
	for _, b := range two {
		if b.move.Lasts != "" || b.move.Until != "" || b.move.Timeless() || b.move.TiedIn(s.Doc.Film.Scenes[b.scene]) {
			return list
		}
	}
	first, later := two[0], two[1]
	if later.at.Begin < first.at.Begin || later.at.Begin == first.at.Begin && later.at.End < first.at.End {
		first, later = later, first
	}
	if !hangs(s, later.move.ID, itsEnd, doc.WhenEnds, first.move.ID) {
		if first, later = later, first; !hangs(s, later.move.ID, itsEnd, doc.WhenEnds, first.move.ID) {
			return list
		}
	}
	name := "“" + later.layer.Name + "”"
	if later.layer == first.layer {
		name = "“" + motion.Name(later.move) + "”"
	}
	by := first.at.End - later.at.End
	ways := [2]struct{ on, back, same string }{
		{"Delay %s by %s", "Begin %s %s earlier", "%s: its begin follows"},
		{"Stretch %s by %s", "Shorten %s by %s", "%s: its length follows"},
	}
	for i, way := range ways {
		m := Meeting{Move: later.move.ID, Of: first.move.ID, Stretches: i == 1}
		end := later.move.End
		switch {
		case end != nil && end.When == doc.WhenEnds && end.Of == m.Of && end.Stretches == m.Stretches:
			continue // it does
		case m.Stretches && first.at.End-later.at.Begin < doc.MinDuration:
			continue // nothing of it would be left
		case !m.Stretches && later.at.Begin+by < -s.Film.Order.Into[later.scene]:
			continue // it would begin before its scene does
		case by > 0:
			m.Words = fmt.Sprintf(way.on, name, words.Seconds(by))
		case by < 0:
			m.Words = fmt.Sprintf(way.back, name, words.Seconds(-by))
		default:
			m.Words = fmt.Sprintf(way.same, name)
		}
		list = append(list, m)
	}
	return list
}
