package morph

import "capstan/core/geom"

// Letter is one letter of a text as it is drawn.
type Letter struct {
	Name string // which letter it is
	Path *geom.Path
}

// NewLetters plans how words become other words letter by letter: a letter that both have goes to where it is in the other, the second e to the second
// e; of those that are left the first becomes the first, and so on; what remains of one side alone grows from the nearest letter, or shrinks to it.
func NewLetters(a, b []Letter) *Outlines {
	o := &Outlines{a: &geom.Path{}, b: &geom.Path{}, way: GoesStraight, grow: 1}
	for _, l := range a {
		o.a.Append(l.Path, geom.Identity)
	}
	for _, l := range b {
		o.b.Append(l.Path, geom.Identity)
	}
	takenA, takenB := make([]bool, len(a)), make([]bool, len(b))
	become := func(i, j int) {
		takenA[i], takenB[j] = true, true
		o.each = append(o.each, NewOutlines(a[i].Path, b[j].Path, nil))
	}
	for i, l := range a {
		for j, m := range b {
			if !takenB[j] && m.Name == l.Name {
				become(i, j)
				break
			}
		}
	}
	j := 0
	for i := range a {
		for j < len(b) && takenB[j] {
			j++
		}
		if !takenA[i] && j < len(b) {
			become(i, j)
		}
	}
	for i, l := range a {
		if !takenA[i] {
			o.parts = append(o.parts, alone(l.Path, b, true)...)
		}
	}
	for j, l := range b {
		if !takenB[j] {
			o.parts = append(o.parts, alone(l.Path, a, false)...)
		}
	}
	return o
}

// alone lets a letter that one side alone has shrink to the middle of the nearest letter of the other, or grow from it.
func alone(p *geom.Path, others []Letter, goes bool) (parts []passage) {
	middle := p.Bounds().Centre()
	at, nearest := middle, -1.0
	for _, l := range others {
		if c := l.Path.Bounds().Centre(); nearest < 0 || c.Sub(middle).Len() < nearest {
			at, nearest = c, c.Sub(middle).Len()
		}
	}
	for _, r := range ringsOf(p) {
		v := r.shrinking(at)
		if !goes {
			v.a, v.b = v.b, v.a
		}
		parts = append(parts, v)
	}
	return
}
