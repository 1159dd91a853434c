package doc

import (
	"slices"
	"strconv"
	"strings"
)

// Table makes variants of a project: each row is one, whose cells fill what its columns name.
type Table struct {
	Columns []string   `json:"columns"` // names for tables, of texts and pictures, or of colour roles
	Rows    [][]string `json:"rows"`    // each as long as there are columns
}

// Limits of tables.
const (
	MaxTableColumns = 40
	MaxTableRows    = 1000
	MaxTableCell    = 2000 // characters
	MaxColumn       = 80   // characters of a name for tables
)

// Equal reports whether two tables say the same.
func (t *Table) Equal(o *Table) bool {
	if t == nil || o == nil {
		return t == o
	}
	return slices.Equal(t.Columns, o.Columns) && slices.EqualFunc(t.Rows, o.Rows, func(a, b []string) bool { return slices.Equal(a, b) })
}

// SameColumn reports whether two names for tables are one: letters may be large or small, and blanks around them do not count.
func SameColumn(a, b string) bool {
	return strings.EqualFold(strings.TrimSpace(a), strings.TrimSpace(b))
}

// check holds a table to its limits.
func (t *Table) check(c *checker, at string) {
	if t == nil {
		return
	}
	if len(t.Columns) < 1 || len(t.Columns) > MaxTableColumns {
		c.fail(at+".columns", "has %d columns; a table has 1 to %d", len(t.Columns), MaxTableColumns)
	}
	for i, name := range t.Columns {
		if n := len([]rune(strings.TrimSpace(name))); n < 1 || n > MaxColumn {
			c.fail(at+".columns", "names column %d with %d characters; a name has 1 to %d", i+1, n, MaxColumn)
		}
		if k := slices.IndexFunc(t.Columns, func(o string) bool { return SameColumn(o, name) }); k < i {
			c.fail(at+".columns", "names two columns “%s”", name)
		}
	}
	c.most(at+".rows", len(t.Rows), MaxTableRows)
	for i, r := range t.Rows {
		if len(r) != len(t.Columns) {
			c.fail(at+".rows", "has %d cells in row %d, and %d columns", len(r), i+1, len(t.Columns))
		}
		for _, v := range r {
			if len([]rune(v)) > MaxTableCell {
				c.fail(at+".rows", "has a cell of more than %d characters in row %d", MaxTableCell, i+1)
			}
		}
	}
}

// RowName is what a row is called, from 1: its first cell that has something, or its number.
func (t *Table) RowName(row int) string {
	if t != nil && row >= 1 && row <= len(t.Rows) {
		for _, v := range t.Rows[row-1] {
			if v = strings.Join(strings.Fields(v), " "); v != "" {
				return v
			}
		}
	}
	return strconv.Itoa(row)
}
