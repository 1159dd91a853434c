package morph

import (
	"fmt"
	"hash/fnv"
	"math"
	"slices"
	"sort"

	"capstan/core/doc"
	"capstan/core/geom"
)

// Match is a part of an outline that becomes one of another, with points that show what goes where.
type Match struct {
	From, To int  // parts of both sides, as they are drawn; -1: the other has no partner
	Back     bool // the later goes the other way round than it is drawn
	Given    bool // somebody said so
	Marks    []Mark
}

// Mark is a point of both outlines that is the same.
type Mark struct {
	A, B  geom.Point
	U, V  float64 // shares of both lengths, from where each is begun to be drawn
	Given bool    // somebody said so
}

// Of a part: how many points are shown that nobody has given, and how near to another, as a share of its length.
const (
	mostMarks = 8
	besides   = 0.03
)

// Matches tells what becomes what, in the order of the earlier outline's parts: of each pair of parts the points that were given, in the
// order in which they were, and of the others those that say most: corners, and between them. lost is how many points and parts were said that do not fit.
func (o *Outlines) Matches(said *doc.Reshape) (list []Match, lost int) {
	from, to := ringsOf(o.a), ringsOf(o.b)
	if said == nil {
		said = &doc.Reshape{}
	}
	used := 0
	for _, p := range o.parts {
		m := Match{From: p.from, To: p.to, Back: p.back, Given: p.given}
		if o.back {
			m.From, m.To = p.to, p.from
		}
		if m.From >= 0 && m.To >= 0 {
			a, b := &from[m.From], &to[m.To]
			var given [][2]float64
			if i := slices.IndexFunc(said.Parts, func(q doc.PartPair) bool { return q.From == m.From && q.To == m.To }); i >= 0 && p.given {
				given = o.kept(&p, said.Parts[i].Points)
				used += 1 + len(given)
			}
			m.Marks = o.marks(&p, a, b, given)
		}
		list = append(list, m)
	}
	for _, q := range said.Parts {
		lost += 1 + len(q.Points)
	}
	sort.SliceStable(list, func(i, j int) bool { // as unsigned, none comes last
		return uint(list[i].From) < uint(list[j].From)
	})
	return list, lost - used
}

// share is the pair of shares, as both parts are drawn, that a pair of shares of a passage stands for.
func (o *Outlines) share(p *passage, q [2]float64) [2]float64 {
	u, v := wrap(q[0]), wrap(q[1])
	if p.back {
		v = wrap(1 - v)
	}
	if o.back {
		u, v = v, u
	}
	return [2]float64{u, v}
}

// kept are those of the given points by which the passage goes.
func (o *Outlines) kept(p *passage, said [][2]float64) (out [][2]float64) {
	for _, q := range said {
		if slices.ContainsFunc(p.pairs, func(v [2]float64) bool {
			s := o.share(p, v)
			return math.Abs(math.Remainder(s[0]-q[0], 1)) < 1e-6 && math.Abs(math.Remainder(s[1]-q[1], 1)) < 1e-6
		}) {
			out = append(out, q)
		}
	}
	return
}

func (o *Outlines) marks(p *passage, a, b *ring, given [][2]float64) (list []Mark) {
	mark := func(q [2]float64, given bool) {
		list = append(list, Mark{A: a.at(q[0]), B: b.at(q[1]), U: q[0], V: q[1], Given: given})
	}
	for _, q := range given {
		mark(q, true)
	}
	beside := func(q [2]float64) bool {
		return slices.ContainsFunc(list, func(m Mark) bool {
			return math.Abs(math.Remainder(m.U-q[0], 1)) < besides || math.Abs(math.Remainder(m.V-q[1], 1)) < besides
		})
	}
	type shown struct {
		at   [2]float64
		says float64
	}
	var more []shown
	// Corners of either, whichever way it was planned.
	x, y := a, b
	if o.back {
		x, y = b, a
	}
	add := func(q [2]float64) {
		s := o.share(p, q)
		more = append(more, shown{s, a.turns(s[0]) + b.turns(s[1])})
	}
	for _, c := range x.turnings {
		add([2]float64{c.share, p.pairs.to(c.share)})
	}
	for _, c := range y.turnings {
		v := c.share
		if p.back {
			v = wrap(1 - v)
		}
		add([2]float64{p.pairs.back(v), v})
	}
	for k := range 4 {
		u := p.pairs[0][0] + float64(k)/4
		more = append(more, shown{o.share(p, [2]float64{u, p.pairs.to(u)}), 0})
	}
	sort.SliceStable(more, func(i, j int) bool { return more[i].says > more[j].says })
	for _, s := range more {
		if len(list)-len(given) < mostMarks && (s.says > 0 || len(list) < 4) && !beside(s.at) {
			mark(s.at, false)
		}
	}
	found := list[len(given):]
	sort.SliceStable(found, func(i, j int) bool { return found[i].U < found[j].U })
	return
}

// turns is how much a part turns at a corner there, radians; 0 where there is none.
func (r *ring) turns(share float64) (most float64) {
	for _, c := range r.turnings {
		if math.Abs(math.Remainder(c.share-share, 1)) < 1e-6 {
			most = max(most, math.Abs(c.turn))
		}
	}
	return
}

// Nearest returns the share of the length of a part of an outline at which it comes nearest to a point, and that point; false where there is no such part.
func Nearest(p *geom.Path, part int, at geom.Point) (share float64, point geom.Point, ok bool) {
	rings := ringsOf(p)
	if part < 0 || part >= len(rings) {
		return 0, geom.Point{}, false
	}
	r := &rings[part]
	const n = 720
	best, far := 0.0, math.Inf(1)
	look := func(u float64) {
		if d := r.along(u).Sub(at).Len(); d < far {
			best, far = u, d
		}
	}
	for k := range n {
		look(float64(k) / n)
	}
	for step := 0.5 / n; step > 1e-6; step /= 2 {
		look(best - step)
		look(best + step)
	}
	// A corner that is as near as can be told is meant.
	for _, c := range r.turnings {
		if math.Abs(math.Remainder(c.share-best, 1)) < 0.006 {
			best = c.share
		}
	}
	if !r.closed {
		best = min(max(best, 0), 1)
	}
	best = wrap(best)
	return best, r.at(best), true
}

// Parts is how many parts an outline has.
func Parts(p *geom.Path) int { return len(ringsOf(p)) }

// Corresponding is the share of a part of the later outline that belongs to one of the earlier's, or the other way; false where the parts are no pair.
func (o *Outlines) Corresponding(from, to int, share float64, later bool) (float64, bool) {
	for i := range o.parts[:o.both] {
		p := &o.parts[i]
		x, y := p.from, p.to
		if o.back {
			x, y = y, x
		}
		if x != from || y != to {
			continue
		}
		if later == o.back { // the share is of the side that was planned from
			v := wrap(p.pairs.to(share))
			if p.back {
				v = wrap(1 - v)
			}
			return v, true
		}
		if p.back {
			share = 1 - share
		}
		return wrap(p.pairs.back(share)), true
	}
	return 0, false
}

// Hash names an outline as it is drawn, whatever its size and place: 16 hexadecimal digits.
func Hash(p *geom.Path) string {
	h := fnv.New64a()
	b := p.Bounds()
	k := 1000 / max(b.W(), b.H(), 1e-9)
	for _, v := range p.Verbs {
		h.Write([]byte{byte(v)})
	}
	for _, q := range p.Points {
		q = q.Sub(b.Min).Mul(k)
		x, y := int32(math.Round(q.X)), int32(math.Round(q.Y))
		h.Write([]byte{byte(x), byte(x >> 8), byte(x >> 16), byte(y), byte(y >> 8), byte(y >> 16)})
	}
	return fmt.Sprintf("%016x", h.Sum64())
}

// PartBox is the box of the points of a part of an outline; false where there is no such part.
func PartBox(p *geom.Path, part int) (geom.Box, bool) {
	rings := ringsOf(p)
	if part < 0 || part >= len(rings) {
		return geom.Box{}, false
	}
	b := geom.EmptyBox()
	for _, q := range rings[part].samples {
		b = b.Include(q)
	}
	return b, true
}
