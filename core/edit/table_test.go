package edit_test

import (
	"testing"

	"capstan/core/words"
)

// The table is changed as a whole and cell by cell, each undone by its patch; cells that there are not are refused, and names that would be twice.
func TestTheTableIsEdited(t *testing.T) {
	p := opener()
	for _, of := range []struct{ command, cell string }{
		{`{"op":"table.set","table":{"columns":["a","b"],"rows":[["1","x"],["","y"]]}}`, "y"},
		{`{"op":"table.cell","row":1,"column":1,"text":"z"}`, "z"},
		{`{"op":"table.cell","row":-1,"column":0,"text":"quay"}`, "z"},
	} {
		q, change, err := carry(p, of.command)
		if err != nil {
			t.Fatal(err)
		}
		if got := q.Table.Rows[1][1]; got != of.cell {
			t.Errorf("%s: the cell says %s", of.command, got)
		}
		back, err := change.Inverse().Apply(q)
		if err != nil || !back.Table.Equal(p.Table) {
			t.Errorf("%s: undone it is %v, %v", of.command, back.Table, err)
		}
		p = q
	}
	for _, c := range []string{`{"op":"table.cell","row":2,"column":0,"text":"z"}`, `{"op":"table.cell","row":0,"column":2,"text":"z"}`, `{"op":"table.cell","row":-2,"column":0,"text":"z"}`} {
		if _, _, err := carry(p, c); !words.Is(err, "table.cell") {
			t.Errorf("%s: %v", c, err)
		}
	}
	for _, c := range []string{`{"op":"table.cell","row":-1,"column":1,"text":" QUAY"}`, `{"op":"table.cell","row":-1,"column":1,"text":" "}`, `{"op":"table.set","table":{"columns":["a"],"rows":[["1","2"]]}}`} {
		if _, _, err := carry(p, c); err == nil {
			t.Errorf("%s is done", c)
		}
	}
	if q, _, err := carry(p, `{"op":"table.set"}`); err != nil || q.Table != nil {
		t.Errorf("taken away: %v", err)
	}
}
