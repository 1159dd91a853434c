package moves

import (
	"maps"
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/motion"
	"capstan/core/scope"
	"capstan/core/words"
)

// bar is a move with where it lies.
type bar struct {
	move  *doc.Move
	layer *doc.Layer
	scene int
	at    motion.Interval
}

func bars(s *intent.Desk, ids []string) ([]bar, error) {
	var out []bar
	for _, id := range ids {
		m, l, i := s.Move(id)
		if m == nil {
			return nil, words.New("move.gone")
		}
		out = append(out, bar{m, l, i, s.Film.Timing(i).Moves[id]})
	}
	if len(out) == 0 {
		return nil, words.New("moves.nothing")
	}
	return out, nil
}

var barsAsked = intent.Table{
	"bars": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Moves []string `json:"moves"`
		Part  string   `json:"part"` // whole, begin, end
		By    int64    `json:"by"`   // ms
	}) (edit.Command, error) {
		return dragBars(s, c.Moves, c.Part, c.By)
	}),
	"bars.nudge": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Moves  []string `json:"moves"`
		Part   string   `json:"part"`
		Frames int64    `json:"frames"`
		By     int64    `json:"by"` // ms, when frames is 0
	}) (edit.Command, error) {
		list, err := bars(s, c.Moves)
		if err != nil {
			return nil, err
		}
		by := c.By
		if c.Frames != 0 {
			// To the frame beside it, on the film's own grid.
			edge := list[0].at.Begin
			if c.Part == "end" {
				edge = list[0].at.End
			}
			from := s.Film.Order.Begin(list[0].scene) + edge
			by = int64(math.Round(s.Step(float64(from), c.Frames))) - from
		}
		return dragBars(s, c.Moves, c.Part, by)
	}),
	// How long one pass of each move takes; those that last as long as something else are left alone.
	"bars.takes": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Moves []string `json:"moves"`
		Ms    int64    `json:"ms"`
	}) (edit.Command, error) {
		list, err := bars(s, c.Moves)
		if err != nil {
			return nil, err
		}
		var set []edit.Part
		for _, b := range list {
			if b.move.Duration > 0 && b.move.Lasts == "" {
				set = append(set, edit.Part{ID: b.move.ID, Patch: edit.Fields{"duration": c.Ms}})
			}
		}
		if len(set) == 0 {
			return nil, words.New("moves.timeless")
		}
		return &edit.SetMoves{Set: set}, nil
	}),
}

// dragBars moves bars, or one end of each, by a time. What they hang on stays; only offsets and durations change. A single
// one that is dragged past its neighbour in a run changes places with it.
func dragBars(s *intent.Desk, ids []string, part string, by int64) (edit.Command, error) {
	list, err := bars(s, ids)
	if err != nil {
		return nil, err
	}
	if part == "whole" && len(list) == 1 {
		if c := pastNeighbour(s, list[0], by); c != nil {
			return c, nil
		}
	}
	begins, patches, pinned := map[string]int64{}, map[string]edit.Fields{}, 0
	for _, b := range list {
		into := s.Film.Order.Into[b.scene]
		length := b.at.End - b.at.Begin
		ends := b.move.End != nil // its end is where something else says
		if b.move.Lasts == doc.WholeThread {
			pinned++
			continue
		}
		switch part {
		case "whole":
			if ends && !b.move.End.Stretches {
				pinned++
				continue
			}
			begins[b.move.ID] = max(b.at.Begin+by, -into)
		case "begin":
			d := min(max(by, -into-b.at.Begin), length-doc.MinDuration)
			if !ends || b.move.End.Stretches {
				begins[b.move.ID] = b.at.Begin + d
			}
			if b.move.Lasts == "" && !b.move.Timeless() && !(ends && b.move.End.Stretches) {
				patches[b.move.ID] = b.passing(length - d)
			}
		case "end":
			if ends {
				pinned++
				continue
			}
			patches[b.move.ID] = b.lengthened(length + by)
		default:
			return nil, words.New("moves.part", part)
		}
	}
	if pinned == len(list) && list[0].move.Lasts == doc.WholeThread {
		return nil, words.New("move.lasting", motion.Name(list[0].move))
	}
	if pinned == len(list) {
		return nil, words.New("move.hung", motion.Name(list[0].move))
	}
	for id, p := range patches {
		remember(s, id, p)
	}
	return retime(s, begins, patches)
}

// pass returns how long one pass is when the whole lasts length.
func (b bar) pass(length int64) int64 {
	passes := b.at.Passes
	if passes <= 0 || b.move.Runs() {
		passes = 1
	}
	return max(doc.MinDuration, int64(math.Round(float64(length)/passes)))
}

// lengthened returns the change that makes the bar length ms long. What lasted as long as the scene gets a length of its own.
func (b bar) lengthened(length int64) edit.Fields {
	length = max(length, doc.MinDuration)
	switch {
	case b.move.Timeless():
		return edit.Fields{}
	case b.move.Lasts != "" && b.move.Kind == doc.Loop && !b.move.Runs():
		return edit.Fields{"lasts": nil, "repeat": math.Max(0.01, math.Round(float64(length)/float64(max(b.at.Pass, 1))*100)/100)}
	case b.move.Lasts != "":
		return edit.Fields{"lasts": nil, "keeps": nil, "duration": length}
	case b.move.Until != "":
		return edit.Fields{"until": nil, "repeat": math.Max(0.01, math.Round(float64(length)/float64(max(b.at.Pass, 1))*100)/100)}
	}
	return b.passing(length)
}

// passing returns the change by which the passes of a bar take length ms in all: each takes longer or, where the parameters say how long one is,
// there are more.
func (b bar) passing(length int64) edit.Fields {
	if g := b.move.Goes(); g != nil && g.Cycle != nil {
		return edit.Fields{"repeat": math.Max(0.01, math.Round(float64(length)/float64(max(b.at.Pass, 1))*100)/100)}
	}
	return edit.Fields{"duration": b.pass(length)}
}

// pastNeighbour returns the command that gives a member of a run another place there, when it is dragged past the middle of
// another member; nil otherwise.
func pastNeighbour(s *intent.Desk, b bar, by int64) edit.Command {
	sc := s.Doc.Film.Scenes[b.scene]
	t := s.Film.Timing(b.scene)
	for _, r := range sc.Runs {
		k := slices.Index(r.Moves, b.move.ID)
		if k < 0 {
			continue
		}
		middle := func(id string) int64 { return (t.Moves[id].Begin + t.Moves[id].End) / 2 }
		to := k
		for to+1 < len(r.Moves) && middle(b.move.ID)+by > middle(r.Moves[to+1]) {
			to++
		}
		for to > 0 && middle(b.move.ID)+by < middle(r.Moves[to-1]) {
			to--
		}
		if to == k {
			return nil
		}
		order := slices.Insert(slices.Delete(slices.Clone(r.Moves), k, k+1), to, b.move.ID)
		return &edit.OrderRun{Scene: sc.ID, ID: r.ID, Moves: order}
	}
	return nil
}

// retime returns the command that makes moves begin at times on their scenes' clocks, with patches to them besides. Offsets
// change, not what moves hang on; but one whose begin is solved from its end lets go of that.
func retime(s *intent.Desk, begins map[string]int64, patches map[string]edit.Fields) (edit.Command, error) {
	return retimeIn(s, s.Doc, begins, patches)
}

// retimeIn is retime for a document that an edit before has changed.
func retimeIn(s *intent.Desk, p *doc.Project, begins map[string]int64, patches map[string]edit.Fields) (edit.Command, error) {
	var set []edit.Part
	for i, sc := range p.Film.Scenes {
		if !concerned(sc, begins, patches) {
			continue
		}
		c := sc.Clone()
		var touched []string
		var failed error
		doc.Walk(c.Layers, func(l, _ *doc.Layer) bool {
			for _, m := range l.Moves {
				_, timed := begins[m.ID]
				p, patched := patches[m.ID]
				if patched {
					if err := p.Change(m); err != nil {
						failed = err
					}
				}
				if timed || patched {
					touched = append(touched, m.ID)
				}
			}
			return true
		})
		if failed != nil {
			return nil, failed
		}
		// Each round sets right what hangs one hitch deeper.
		for range len(touched) + 1 {
			t, err := motion.Resolve(c, s.Film.Order.Into[i])
			if err != nil {
				return nil, err
			}
			settled := true
			for _, id := range touched {
				want, timed := begins[id]
				if d := want - t.Moves[id].Begin; timed && d != 0 {
					settled = false
					m, _ := c.Move(id)
					delay(m, want, d)
				}
			}
			if settled {
				break
			}
		}
		for _, id := range touched {
			was, _ := sc.Move(id)
			now, _ := c.Move(id)
			p := edit.Fields{}
			maps.Copy(p, patches[id])
			if now.Start != was.Start {
				p["start"] = now.Start
			}
			if was.End != nil && now.End == nil {
				p["end"] = nil
			}
			if len(p) > 0 {
				set = append(set, edit.Part{ID: id, Patch: p})
			}
		}
	}
	if len(set) == 0 {
		return nil, nil
	}
	return &edit.SetMoves{Set: set}, nil
}

// concerned reports whether a scene holds any of the moves that are to be changed.
func concerned(sc *doc.Scene, begins map[string]int64, patches map[string]edit.Fields) bool {
	found := false
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			_, timed := begins[m.ID]
			_, patched := patches[m.ID]
			found = found || timed || patched
		}
		return !found
	})
	return found
}

// delay moves the start of m by d, to want.
func delay(m *doc.Move, want, d int64) {
	switch {
	case m.End != nil && !m.End.Stretches:
		m.End = nil
		m.Start = doc.Start{When: doc.AtTime, Offset: want}
	case m.Start.When == doc.BeforeSceneEnd:
		m.Start.Offset -= d
	default:
		m.Start.Offset += d
	}
}
