package doc

import (
	"slices"

	"capstan/core/effect"
	"capstan/core/words"
)

// Ties returns what drives the edges of an entrance or exit; without sides it goes by its own time.
func (m *Move) Ties() effect.Ties {
	if (m.Kind != Entrance && m.Kind != Exit) || len(m.Params) == 0 || m.Unit != "" {
		return effect.Ties{}
	}
	return m.Does().Ties(m.Params)
}

// Tied reports whether a move says that another layer's edge drives it. TiedIn knows whether one does.
func (m *Move) Tied() bool { return len(m.Ties().Sides) > 0 }

// TiedIn reports whether another layer's edge drives a move of a scene: all that do are there.
func (m *Move) TiedIn(s *Scene) bool {
	t := m.Ties()
	for i := range t.Sides {
		if s.Thread(t.Sides[i].Layer) == nil {
			return false
		}
	}
	return len(t.Sides) > 0
}

// Drives reports whether a layer may drive edges of another one: it is not that, not in it and not around it.
func Drives(driver, l *Layer) bool { return driver != l && !driver.Holds(l) && !l.Holds(driver) }

// Holds reports whether a layer lies in a group.
func (l *Layer) Holds(o *Layer) bool {
	return slices.ContainsFunc(l.Children, func(c *Layer) bool { return c == o || c.Holds(o) })
}

// TieTrouble returns what is wrong with the ties of a layer of a scene, in words: it would be driven by itself, by a layer in it or around it, or
// by one that it drives, directly or through others.
func TieTrouble(s *Scene, l *Layer) error {
	drivers := func(l *Layer) (list []*Layer) {
		for _, m := range l.Moves {
			for _, thread := range m.Ties().Layers() {
				if d := s.Thread(thread); d != nil {
					list = append(list, d)
				}
			}
		}
		return
	}
	seen := map[*Layer]bool{}
	var ring func(o *Layer) bool
	ring = func(o *Layer) bool {
		for _, d := range drivers(o) {
			if d == l {
				return true
			}
			if !seen[d] {
				seen[d] = true
				if ring(d) {
					return true
				}
			}
		}
		return false
	}
	for _, d := range drivers(l) {
		switch {
		case d == l:
			return words.New("tie.self", l.Name)
		case d.Holds(l):
			return words.New("tie.around", l.Name, d.Name)
		case l.Holds(d):
			return words.New("tie.within", l.Name, d.Name)
		}
	}
	if ring(l) {
		return words.New("tie.ring", l.Name)
	}
	return nil
}

// RenameThreads gives the layers that parameters of a move name the names that to says. The parameters are the move's own.
func (m *Move) RenameThreads(to func(thread string) string) {
	if m.Path != nil && m.Path.Along != "" {
		m.Path.Along = to(m.Path.Along)
	}
	e := m.Does()
	if e == nil || len(m.Params) == 0 || !e.NamesLayer() {
		return
	}
	for _, q := range e.Params {
		if t := m.Params.Word(q.Name); q.Control == effect.Layer && t != "" {
			m.Params[q.Name] = to(t)
		}
	}
}
