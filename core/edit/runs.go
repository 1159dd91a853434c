package edit

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/words"
)

// MakeRun lines moves of a scene up: each but the first hangs on the one before it.
type MakeRun struct {
	Scene string   `json:"scene"`
	ID    string   `json:"id"`
	When  string   `json:"when"` // ends: one after another; begins: a cascade
	Moves []string `json:"moves"`
	Gaps  []int64  `json:"gaps"` // ms, before every move but the first
}

// Op is its name on the wire.
func (c *MakeRun) Op() string { return "run.make" }

func (c *MakeRun) apply(e *editor) error {
	s, err := e.scene(c.Scene)
	if err != nil {
		return err
	}
	if len(c.Moves) < 2 || len(c.Gaps) != len(c.Moves)-1 {
		return words.New("run.few")
	}
	leaveRuns(s, c.Moves)
	s.Runs = append(s.Runs, doc.MoveRun{ID: c.ID, When: c.When, Moves: slices.Clone(c.Moves)})
	for i, id := range c.Moves {
		m, _ := s.Move(id)
		if m == nil {
			return words.New("run.moves")
		}
		m.End = nil
		if i > 0 {
			m.Start = doc.Start{When: c.When, Of: c.Moves[i-1], Offset: c.Gaps[i-1]}
		}
	}
	return nil
}

// OrderRun puts the moves of a run in another order; the gaps between them stay where they are.
type OrderRun struct {
	Scene string   `json:"scene"`
	ID    string   `json:"id"`
	Moves []string `json:"moves"` // the same moves in their new order
}

// Op is its name on the wire.
func (c *OrderRun) Op() string { return "run.order" }

func (c *OrderRun) apply(e *editor) error {
	s, err := e.scene(c.Scene)
	if err != nil {
		return err
	}
	return orderRun(s, c.ID, c.Moves)
}

// leaveRuns takes moves out of the runs they are in; who follows them there stays where it hangs.
func leaveRuns(s *doc.Scene, moves []string) {
	for i := range s.Runs {
		r := &s.Runs[i]
		r.Moves = slices.DeleteFunc(r.Moves, func(id string) bool { return slices.Contains(moves, id) })
	}
}

// orderRun puts a run in another order. The gaps stay where they are and the first move begins where the first one did, so the
// length of the whole is unchanged.
func orderRun(s *doc.Scene, id string, order []string) error {
	i := slices.IndexFunc(s.Runs, func(r doc.MoveRun) bool { return r.ID == id })
	if i < 0 {
		return words.New("run.gone")
	}
	r := &s.Runs[i]
	a, b := slices.Sorted(slices.Values(r.Moves)), slices.Sorted(slices.Values(order))
	if !slices.Equal(a, b) {
		return words.New("run.order")
	}
	starts := make([]doc.Start, len(r.Moves))
	for k, id := range r.Moves {
		m, _ := s.Move(id)
		starts[k] = m.Start
	}
	r.Moves = slices.Clone(order)
	for k, id := range order {
		m, _ := s.Move(id)
		m.Start = starts[k]
		if k > 0 {
			m.Start.Of = order[k-1]
		}
	}
	return nil
}

// closeGap takes a move that is about to go out of its run: who came after it takes its place.
func closeGap(s *doc.Scene, id string) {
	for i := range s.Runs {
		r := &s.Runs[i]
		k := slices.Index(r.Moves, id)
		if k < 0 {
			continue
		}
		if k+1 < len(r.Moves) {
			gone, _ := s.Move(id)
			next, _ := s.Move(r.Moves[k+1])
			next.Start = gone.Start
		}
		r.Moves = slices.Delete(r.Moves, k, k+1)
	}
}

// tidyRuns keeps of every run the stretches in which each move still hangs on the one before it.
func tidyRuns(s *doc.Scene) {
	if len(s.Runs) == 0 {
		return
	}
	var out []doc.MoveRun
	for _, r := range s.Runs {
		var part []string
		best := []string{}
		for _, id := range r.Moves {
			m, _ := s.Move(id)
			if m == nil || len(part) > 0 && (m.Start.When != r.When || m.Start.Of != part[len(part)-1]) {
				part = nil
			}
			if m != nil {
				part = append(part, id)
			}
			if len(part) > len(best) {
				best = slices.Clone(part)
			}
		}
		if len(best) > 1 {
			out = append(out, doc.MoveRun{ID: r.ID, When: r.When, Moves: best})
		}
	}
	s.Runs = out
}
