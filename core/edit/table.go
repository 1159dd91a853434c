package edit

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/words"
)

// SetTable gives the project the table that its variants are made of; without one it has none.
type SetTable struct {
	Table *doc.Table `json:"table,omitzero"`
}

// Op is its name on the wire.
func (c *SetTable) Op() string { return "table.set" }

func (c *SetTable) apply(e *editor) error {
	e.p.Table = c.Table
	return nil
}

// SetCell changes one cell of the project's table, both counted from 0; row -1 are the names of the columns.
type SetCell struct {
	Row    int    `json:"row"`
	Column int    `json:"column"`
	Text   string `json:"text"`
}

// Op is its name on the wire.
func (c *SetCell) Op() string { return "table.cell" }

func (c *SetCell) apply(e *editor) error {
	t := e.p.Table
	if t == nil || c.Row < -1 || c.Row >= len(t.Rows) || c.Column < 0 || c.Column >= len(t.Columns) {
		return words.New("table.cell")
	}
	next := &doc.Table{Columns: t.Columns, Rows: slices.Clone(t.Rows)}
	if c.Row < 0 {
		next.Columns = slices.Clone(t.Columns)
		next.Columns[c.Column] = c.Text
	} else {
		next.Rows[c.Row] = slices.Clone(t.Rows[c.Row])
		next.Rows[c.Row][c.Column] = c.Text
	}
	e.p.Table = next
	return nil
}
