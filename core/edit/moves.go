package edit

import (
	"slices"

	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/words"
)

func init() {
	op("move.add", func(e *editor, c *struct {
		Layer string    `json:"layer"`
		Move  *doc.Move `json:"move"`
	}) error {
		l, _, _, err := e.layer(c.Layer)
		if err != nil {
			return err
		}
		if c.Move == nil {
			return words.New("move.none")
		}
		l.Moves = append(l.Moves, c.Move)
		return nil
	})
	op("move.set", func(e *editor, c *struct {
		Set []struct {
			ID    string         `json:"id"`
			Patch jsontext.Value `json:"patch"`
		} `json:"set"`
	}) error {
		for _, set := range c.Set {
			m, _, _, err := e.move(set.ID)
			if err != nil {
				return err
			}
			n, err := merged(m, set.Patch, "id")
			if err != nil {
				return err
			}
			*m = *n
		}
		return nil
	})
	op("move.delete", func(e *editor, c *struct {
		IDs []string `json:"ids"`
	}) error {
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
	})
}
