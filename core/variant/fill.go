package variant

import (
	"fmt"
	"path"
	"strings"

	"capstan/core/doc"
	"capstan/core/paint"
	"capstan/core/words"
)

// Trouble is something of a variant that is not as its row asks for, in words: a cell that says nothing, a picture that is missing, words that do not fit.
type Trouble struct {
	Column string `json:"column"`
	Says   string `json:"says"`
}

// Fill returns the variant of a project that row of its table makes, from 1, and what of the row could not be done: there the project's own stays. Texts
// keep the look of their first words. A *words.Fault says that there is no such row.
func Fill(p *doc.Project, row int) (*doc.Project, []Trouble, error) {
	t := p.Table
	if t == nil || row < 1 || row > len(t.Rows) {
		n := 0
		if t != nil {
			n = len(t.Rows)
		}
		return nil, nil, words.New("table.variant", row, n)
	}
	f := &filling{p: p}
	names := Names(p)
	for k, column := range t.Columns {
		cell, kinds := t.Rows[row-1][k], map[string]Name{}
		for _, n := range names {
			if doc.SameColumn(n.Name, column) {
				kinds[n.Kind] = n
			}
		}
		for _, n := range kinds {
			if strings.TrimSpace(cell) == "" {
				f.tell(column, "it is empty, and the film’s own “%s” stays", short(n.Says))
				break
			}
		}
		if strings.TrimSpace(cell) == "" {
			continue
		}
		if _, ok := kinds[Words]; ok {
			f.values = append(f.values, value{column: column, words: cell})
		}
		if n, ok := kinds[Picture]; ok {
			if hash := named(p, cell); hash != "" {
				f.values = append(f.values, value{column: column, picture: hash})
			} else {
				f.tell(column, "no picture of this project is called “%s”, and “%s” stays", short(cell), short(n.Says))
			}
		}
		if n, ok := kinds[Role]; ok {
			if c, err := paint.Parse(strings.TrimSpace(cell)); err == nil {
				f.values = append(f.values, value{column: n.Name, role: hex(c)})
			} else {
				f.tell(column, "“%s” is no colour, and %s stays", short(cell), n.Says)
			}
		}
	}
	q := *p
	q.Film = f.film(&p.Film)
	q.Films = nil
	for _, o := range p.Films {
		c := *o
		c.Film = f.film(&o.Film)
		q.Films = append(q.Films, &c)
	}
	if err := q.Validate(); err != nil {
		return nil, f.troubles, err
	}
	return &q, f.troubles, nil
}

// filling is one row being filled in.
type filling struct {
	p        *doc.Project
	values   []value
	troubles []Trouble
}

// value is what a cell is in the place of.
type value struct{ column, words, picture, role string }

func (f *filling) tell(column, how string, args ...any) {
	f.troubles = append(f.troubles, Trouble{column, fmt.Sprintf(how, args...)})
}

// film returns a film with the values in it; what they do not touch is shared.
func (f *filling) film(film *doc.Film) doc.Film {
	out := *film
	// A thread is one thing: where one of its layers has a name, those that say the same go along.
	threads := map[string]map[string]string{} // thread: what it shows: column
	for _, s := range film.Scenes {
		doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
			if l.Column != "" && shows(l) != "" {
				if threads[l.Thread] == nil {
					threads[l.Thread] = map[string]string{}
				}
				threads[l.Thread][shows(l)] = l.Column
			}
			return true
		})
	}
	out.Scenes = make([]*doc.Scene, len(film.Scenes))
	for i, s := range film.Scenes {
		c := s.Clone()
		for _, v := range f.values {
			if _, ok := c.Roles[v.column]; ok && v.role != "" {
				c.Roles[v.column] = v.role
			}
		}
		doc.Walk(c.Layers, func(l, _ *doc.Layer) bool {
			column := l.Column
			if column == "" {
				column = threads[l.Thread][shows(l)]
			}
			for _, v := range f.values {
				if column != "" && doc.SameColumn(column, v.column) {
					f.put(l, v)
				}
			}
			return true
		})
		out.Scenes[i] = c
	}
	return out
}

// shows is what a layer has that a cell can be in the place of.
func shows(l *doc.Layer) string {
	switch {
	case l.Text != nil:
		return "words " + l.Text.String()
	case l.Picture != nil:
		return "picture " + l.Picture.Media
	}
	return ""
}

// put puts a value into a layer of a copy.
func (f *filling) put(l *doc.Layer, v value) {
	switch {
	case l.Text != nil && v.words != "":
		first := l.Text.Runs[0]
		first.Text = v.words
		l.Text.Runs = []doc.Run{first}
	case l.Picture != nil && v.picture != "" && v.picture != l.Picture.Media:
		l.Picture.Media, l.Picture.Crop = v.picture, covering(f.p.Media[v.picture], l.Place)
	}
}

// covering is the middle part of a picture that has the proportions of the box it is shown in.
func covering(m *doc.Media, at doc.Place) *doc.Crop {
	if m == nil || at.W <= 0 || at.H <= 0 || m.Width < 1 || m.Height < 1 {
		return nil
	}
	wide := float64(m.Width) / float64(m.Height) / (at.W / at.H)
	switch {
	case wide > 1.0005:
		return &doc.Crop{0.5 - 0.5/wide, 0, 0.5 + 0.5/wide, 1}
	case wide < 0.9995:
		return &doc.Crop{0, 0.5 - 0.5*wide, 1, 0.5 + 0.5*wide}
	}
	return nil
}

// named finds a picture of a project by its name, with or without its end; empty: there is none.
func named(p *doc.Project, cell string) (hash string) {
	cell = strings.TrimSpace(cell)
	base := func(s string) string { return strings.TrimSuffix(s, path.Ext(s)) }
	for h, m := range p.Media {
		if m.IsFont() || !strings.EqualFold(m.Name, cell) && !strings.EqualFold(base(m.Name), cell) {
			continue
		}
		if hash == "" || h < hash { // always the same of several
			hash = h
		}
	}
	return hash
}

func hex(c paint.Colour) string {
	r, g, b, _ := c.Bytes()
	return fmt.Sprintf("#%02x%02x%02x", r, g, b)
}

// short is a text for a sentence.
func short(s string) string {
	s = strings.Join(strings.Fields(s), " ")
	if r := []rune(s); len(r) > 40 {
		return string(r[:39]) + "…"
	}
	return s
}
