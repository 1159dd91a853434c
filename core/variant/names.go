package variant

import (
	"cmp"
	"slices"
	"strings"

	"capstan/core/doc"
)

// What a column can fill.
const (
	Words   = "words"
	Picture = "picture"
	Role    = "role"
)

// Name is something that a column can fill.
type Name struct {
	Name string `json:"name"`
	Kind string `json:"kind"` // words, picture, role
	Says string `json:"says"` // what the project itself has there
}

// Names are what columns can fill in a project: texts and pictures that have a name for tables, in the order of the scenes, then colour roles.
func Names(p *doc.Project) []Name {
	list := []Name{}
	put := func(n Name) {
		if strings.TrimSpace(n.Name) != "" && !slices.ContainsFunc(list, func(o Name) bool { return o.Kind == n.Kind && doc.SameColumn(o.Name, n.Name) }) {
			list = append(list, n)
		}
	}
	roles := []Name{}
	p.EachFilm(func(_ string, f *doc.Film) {
		for _, s := range f.Shown() {
			doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
				switch {
				case l.Text != nil:
					put(Name{l.Column, Words, l.Text.String()})
				case l.Picture != nil:
					put(Name{l.Column, Picture, mediaName(p, l.Picture.Media)})
				}
				return true
			})
			for role, colour := range s.Roles {
				if !slices.ContainsFunc(roles, func(o Name) bool { return o.Name == role }) {
					roles = append(roles, Name{role, Role, colour})
				}
			}
		}
	})
	slices.SortStableFunc(roles, func(a, b Name) int { return cmp.Compare(a.Name, b.Name) })
	for _, r := range roles {
		put(r)
	}
	return list
}

func mediaName(p *doc.Project, hash string) string {
	if m := p.Media[hash]; m != nil {
		return m.Name
	}
	return ""
}

// Starts is a table that has a column for each name of a project and one row: what the project itself has.
func Starts(p *doc.Project) *doc.Table {
	t := &doc.Table{Columns: []string{}, Rows: [][]string{{}}}
	for _, n := range Names(p) {
		if len(t.Columns) < doc.MaxTableColumns && !slices.ContainsFunc(t.Columns, func(o string) bool { return doc.SameColumn(o, n.Name) }) {
			t.Columns, t.Rows[0] = append(t.Columns, n.Name), append(t.Rows[0], n.Says)
		}
	}
	return t
}

// Fills says, for each column of a project's table, what it fills, for people; empty: nothing. Without are the names that no column has.
func Fills(p *doc.Project) (columns []string, without []Name) {
	columns, without = []string{}, []Name{}
	if p.Table == nil {
		return columns, without
	}
	names := Names(p)
	for _, column := range p.Table.Columns {
		var kinds []string
		for _, n := range names {
			if doc.SameColumn(n.Name, column) {
				kinds = append(kinds, kindWords[n.Kind])
			}
		}
		columns = append(columns, strings.Join(kinds, ", "))
	}
	for _, n := range names {
		if !slices.ContainsFunc(p.Table.Columns, func(c string) bool { return doc.SameColumn(c, n.Name) }) {
			without = append(without, n)
		}
	}
	return columns, without
}

var kindWords = map[string]string{Words: "words", Picture: "picture", Role: "colour role"}
