package edit

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/words"
)

// AddMove gives a layer another move.
type AddMove struct {
	Layer string    `json:"layer"`
	Move  *doc.Move `json:"move"`
}

// Op is its name on the wire.
func (c *AddMove) Op() string { return "move.add" }

func (c *AddMove) apply(e *editor) error {
	l, _, s, err := e.layer(c.Layer)
	if err != nil {
		return err
	}
	if c.Move == nil {
		return words.New("move.none")
	}
	l.Moves = append(l.Moves, c.Move.Clone())
	return e.tied(c.Move, l, s)
}

// SetMoves changes fields of moves.
type SetMoves struct {
	Set []Part `json:"set"`
}

// Op is its name on the wire.
func (c *SetMoves) Op() string { return "move.set" }

func (c *SetMoves) apply(e *editor) error {
	for _, set := range c.Set {
		m, l, s, err := e.move(set.ID)
		if err != nil {
			return err
		}
		was := m.TiedIn(s)
		n, err := merged(m, set.Patch, "id")
		if err != nil {
			return err
		}
		if line := FieldsOf(set.Patch["path"]); n.Path != nil && line.Has("d") && !line.Has("along") {
			n.Path.Along = "" // its line is its own now
		}
		if set.Patch.Has("start") && !set.Patch.Has("begun") && m.Begun > 0 {
			n.Begun = 0 // a time before its scene is how long it has gone on
			if early := -e.into(s); n.Start.When == doc.AtTime && n.Start.Offset < early {
				n.Start.Offset, n.Begun = early, early-n.Start.Offset
			}
		}
		*m = *n
		if was {
			continue
		}
		if err := e.tied(m, l, s); err != nil {
			return err
		}
	}
	return nil
}

// tied sees to a move that may have been tied: nothing can hang on one, so what did keeps its times.
func (e *editor) tied(m *doc.Move, l *doc.Layer, s *doc.Scene) error {
	if !m.Tied() {
		return nil
	}
	if err := doc.TieTrouble(s, l); err != nil {
		return err
	}
	if !m.TiedIn(s) {
		return nil
	}
	closeGap(s, m.ID)
	return rehang(s, e.into(s), map[string]bool{m.ID: true})
}

// DeleteMoves takes moves away. What hung on them keeps its times, and a gap in a run closes.
type DeleteMoves struct {
	IDs []string `json:"ids"`
}

// Op is its name on the wire.
func (c *DeleteMoves) Op() string { return "move.delete" }

func (c *DeleteMoves) apply(e *editor) error {
	for _, id := range c.IDs {
		_, l, s, err := e.move(id)
		if err != nil {
			return err
		}
		closeGap(s, id)
		if err := rehang(s, e.into(s), map[string]bool{id: true}); err != nil {
			return err
		}
		if l.Moves = slices.DeleteFunc(l.Moves, func(m *doc.Move) bool { return m.ID == id }); len(l.Moves) == 0 {
			l.Moves = nil
		}
	}
	return nil
}
