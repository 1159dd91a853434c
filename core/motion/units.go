package motion

import (
	"capstan/core/doc"
	"capstan/core/geom"
)

// Unit is a part of a layer that moves by itself: its ordinals among the lines, words, letters or parts of the layer.
type Unit struct{ Line, Word, Letter, Part int }

// Counts says how many units of each kind a layer has.
type Counts struct{ Lines, Words, Letters, Parts int }

func (c Counts) of(unit string) int {
	switch unit {
	case doc.ByLine:
		return c.Lines
	case doc.ByWord:
		return c.Words
	case doc.ByLetter:
		return c.Letters
	case doc.ByPart:
		return c.Parts
	}
	return 0
}

func (u *Unit) of(unit string) int {
	switch unit {
	case doc.ByLine:
		return u.Line
	case doc.ByWord:
		return u.Word
	case doc.ByLetter:
		return u.Letter
	}
	return u.Part
}

// Ranks returns the place in time of each of n units, and how many places there are: from the middle, both neighbours
// of the centre share one. A shuffled order is Fisher-Yates from the last unit down, each swapped with one at or before it that
// the next number of splitmix64 (Steele, Lea, Flood 2014), seeded with seed, picks modulo the count.
func Ranks(order string, n int, seed int64) (rank []int, places int) {
	rank = make([]int, n)
	for i := range rank {
		rank[i] = i
	}
	switch order {
	case doc.Backwards:
		for i := range rank {
			rank[i] = n - 1 - i
		}
	case doc.FromMiddle:
		for i := range rank {
			d := 2*i - (n - 1)
			rank[i] = max(d, -d) / 2
		}
		return rank, (n + 1) / 2
	case doc.Shuffled:
		state := uint64(seed)
		next := func() uint64 {
			state += 0x9e3779b97f4a7c15
			z := state
			z = (z ^ z>>30) * 0xbf58476d1ce4e5b9
			z = (z ^ z>>27) * 0x94d049bb133111eb
			return z ^ z>>31
		}
		for i := n - 1; i > 0; i-- {
			k := int(next() % uint64(i+1))
			rank[i], rank[k] = rank[k], rank[i]
		}
	}
	return rank, n
}

// byUnit is the division of a move's time among the units of its layer.
type byUnit struct {
	unit    string
	ranks   []int
	places  int
	overlap float64
}

func newByUnit(m *doc.Move, x *Extent) byUnit {
	n := x.Counts.of(m.Unit)
	if n == 0 {
		return byUnit{}
	}
	u := byUnit{unit: m.Unit, overlap: m.Overlap}
	switch m.Order {
	case doc.Outwards, doc.ByColumn, doc.ByRow, doc.FromPoint:
		from := x.Box.Min
		if m.From != nil {
			from = from.Add(geom.Point{X: m.From[0] * x.Box.W(), Y: m.From[1] * x.Box.H()})
		}
		if x.Units == nil {
			break
		}
		if ranks, places, ok := PlaceRanks(m.Order, x.Units(m.Unit), from); ok && len(ranks) == n {
			u.ranks, u.places = ranks, places
			return u
		}
	}
	u.ranks, u.places = Ranks(m.Order, n, m.Seed)
	return u
}

// place returns the rank of a unit.
func (b *byUnit) place(u *Unit) int {
	if i := u.of(b.unit); i < len(b.ranks) {
		return b.ranks[i]
	}
	return 0
}

// share returns the progress of the unit of a rank when the whole move is at progress q, and whether the unit has begun
// (docs/motion.md, section 3): clamp((q - i (1-o) d) / d) with d = 1 / (1 + (n-1)(1-o)), in shares of the move's duration.
func (b *byUnit) share(q float64, rank int) (p float64, begun bool) {
	d := 1 / (1 + float64(b.places-1)*(1-b.overlap))
	from := float64(rank) * (1 - b.overlap) * d
	// Where one unit ends and the next begins the two sums differ in their last bits.
	const tiny = 1e-12
	if p = (q - from) / d; p > 1-tiny {
		p = 1
	}
	return max(0, p), q >= from-tiny
}

// lag returns by how much of a cycle the unit of a rank is behind.
func (b *byUnit) lag(rank int) float64 {
	return float64(rank) * (1 - b.overlap) / float64(b.places)
}
