package motion

import (
	"capstan/core/doc"
	"capstan/core/effect"
)

// tied is an entrance or exit whose edges other layers drive: it shows, or hides, what lies before them at any time, has no begin of its own,
// and does not decide whether its layer is there (docs/motion.md, section 4).
type tied struct {
	effect.Ties
	id   string
	exit bool
}

// tied compiles a move; ok is false for one that goes by its own time, as one does whose drivers are not there.
func (x *Extent) tied(m *doc.Move) (t tied, ok bool) {
	t = tied{m.Ties(), m.ID, m.Kind == doc.Exit && !m.Back}
	for i := range t.Sides {
		if x.Drives == nil || !x.Drives(t.Sides[i].Layer) {
			return t, false
		}
	}
	return t, len(t.Sides) > 0
}

// veil is what the edges show. Where they stand is not known yet: each has its Tie, and who places the drivers gives it its Edge.
func (t *tied) veil(mem *Veils) Veil {
	v := mem.begin()
	join := Times
	if t.Either != t.exit { // what an exit leaves is not what an entrance shows: the ors become ands
		join = Over
	}
	for i := range t.Sides {
		v = append(v, Term{Reveal: Reveal{Opacity: 1, Tie: &t.Sides[i], Inverted: t.exit, Or: join == Over && len(t.Sides) > 1}})
		if i > 0 {
			v = append(v, Term{Join: join})
		}
	}
	return mem.end(v)
}

// EachTie calls f with every edge of the track that another layer drives.
func (k *Track) EachTie(f func(t *effect.Tie)) {
	for i := range k.ties {
		for j := range k.ties[i].Sides {
			f(&k.ties[i].Sides[j])
		}
	}
}

// TieOf returns the edges of a tied move: whether what lies before either shows, and whether it hides that instead. None: it goes by its own time.
func (k *Track) TieOf(move string) (sides []*Tie, either, hides bool) {
	for i := range k.ties {
		if t := &k.ties[i]; t.id == move {
			for j := range t.Sides {
				sides = append(sides, &t.Sides[j])
			}
			return sides, t.Either, t.exit
		}
	}
	return nil, false, false
}
