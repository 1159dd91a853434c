package morph

import (
	"math"
	"slices"
	"sort"

	"capstan/core/doc"
	"capstan/core/geom"
)

// Outlines is an outline on its way to another one, of any number of parts: at 0 it is the one, at 1 the other, exactly, and the way back is the same.
// Each subpath goes to the nearest of the other side that is most like it; between two, follow finds what corresponds. Parts that only one side has grow
// from a point of the other, or shrink to it.
type Outlines struct {
	a, b  *geom.Path // as they are
	back  bool       // it was planned from b to a
	parts []passage  // those of both sides first
	both  int        // how many these are
	way   Way
	turn  float64 // radians that all of it turns by
	grow  float64 // times as large
	ca    geom.Point
	cb    geom.Point
	bends []*bending  // of the parts of both sides, where it bends
	each  []*Outlines // of words, letter by letter: of each letter, and parts of those that one side alone has
}

// Way is how the points of an outline go.
type Way string

// Ways for points to go. What is much the same outline turned and scaled is turned and scaled; what would shrink through itself, or cross itself more,
// bends; all else goes straight.
const (
	AsFits       Way = ""         // the simplest of these that is good
	GoesStraight Way = "straight" // in straight lines
	GoesTurned   Way = "turned"   // in straight lines in axes that turn and grow, as the whole of it does on the mean
	GoesBent     Way = "bent"     // by the lengths of its lines and the turns between them
)

// passage is one subpath as cubic segments on both sides, as many points on either.
type passage struct {
	a, b   []geom.Point // P0, and of each segment P1 P2 P3
	closed bool

	from, to int     // which part of either side it is; of what one side alone has the other is -1
	back     bool    // the later goes the other way round than it is drawn
	given    bool    // somebody said that these parts become each other
	pairs    anchors // what corresponds
}

// NewOutlines plans how an outline becomes another. What was said of it, which may be nothing, is taken as far as it fits.
func NewOutlines(a, b *geom.Path, said *doc.Reshape) *Outlines {
	return NewOutlinesPausing(a, b, said, func() {})
}

// NewOutlinesPausing is NewOutlines that calls pause now and then, some hundredths of a second apart at most.
func NewOutlinesPausing(a, b *geom.Path, said *doc.Reshape, pause func()) *Outlines {
	if said == nil {
		said = &doc.Reshape{}
	}
	back, o := before(b, a), (*Outlines)(nil)
	if back {
		o = plan(b, a, mirrored(said), pause)
	} else {
		o = plan(a, b, said, pause)
	}
	o.a, o.b, o.back = a, b, back
	return o
}

// Ends are the outlines that it goes between.
func (o *Outlines) Ends() (from, to *geom.Path) { return o.a, o.b }

// Goes is the way that its points go.
func (o *Outlines) Goes() Way { return o.way }

// before puts any two outlines in an order, so that the way from one to the other is the way back.
func before(a, b *geom.Path) bool {
	if c := slices.Compare(a.Verbs, b.Verbs); c != 0 {
		return c < 0
	}
	return slices.CompareFunc(a.Points, b.Points, func(p, q geom.Point) int {
		if c := sign(p.X - q.X); c != 0 {
			return c
		}
		return sign(p.Y - q.Y)
	}) < 0
}

// mirrored is what was said, of the way back.
func mirrored(said *doc.Reshape) *doc.Reshape {
	m := &doc.Reshape{Way: said.Way}
	for _, p := range said.Parts {
		q := doc.PartPair{From: p.To, To: p.From, Back: p.Back}
		for _, v := range p.Points {
			q.Points = append(q.Points, [2]float64{v[1], v[0]})
		}
		m.Parts = append(m.Parts, q)
	}
	return m
}

func plan(a, b *geom.Path, said *doc.Reshape, pause func()) *Outlines {
	from := ringsOf(a)
	pause()
	to := ringsOf(b)
	pause()
	turn, way := 0.0, Way(said.Way)
	if way == AsFits || way == GoesTurned {
		turn = turnBetween(from, to)
	}
	o := paired(a, b, from, to, turn, said.Parts, pause)
	like := o.rigid()
	if turn != 0 && !like { // the largest parts are alike, but not the whole
		o = paired(a, b, from, to, 0, said.Parts, pause)
		like = o.rigid()
	}
	pause()
	o.choose(way, like, pause)
	return o
}

// largest is the subpath with most area, of those without any the longest.
func largest(list []ring) *ring { return &list[bySize(list)[0]] }

// bySize are the places of subpaths, the one with most area first, of those without any the longest.
func bySize(list []ring) []int {
	order := make([]int, len(list))
	for i := range order {
		order[i] = i
	}
	sort.SliceStable(order, func(i, j int) bool {
		a, b := &list[order[i]], &list[order[j]]
		x, y := math.Abs(a.area), math.Abs(b.area)
		return x > y || x == y && a.length > b.length
	})
	return order
}

// paired pairs the subpaths of both sides, b turned by radians before they are compared.
func paired(a, b *geom.Path, from, to []ring, turn float64, said []doc.PartPair, pause func()) *Outlines {
	o := &Outlines{}
	fa, fb := frameOf(from, turn), frameOf(to, 0)
	pairs, onlyA, onlyB := pairRings(from, to, fa, fb, said)
	o.both = len(pairs)
	// All that is round goes the other way at once: what lies within what is told by which way each goes.
	flip := len(from) > 0 && len(to) > 0 && largest(from).area*largest(to).area < 0
	for _, q := range pairs {
		p := comparison{fa, fb, turn, pause}.joinRings(&from[q.from], &to[q.to], flip, q.said)
		pause()
		p.from, p.to = q.from, q.to
		o.parts = append(o.parts, p)
	}
	for _, i := range onlyA {
		p := from[i].shrinking(born(&from[i], to, b, fa, fb))
		p.from, p.to = i, -1
		o.parts = append(o.parts, p)
	}
	for _, j := range onlyB {
		r := &to[j]
		if flip {
			r = r.reversed()
		}
		p := r.shrinking(born(r, from, a, fb, fa))
		p.a, p.b, p.from, p.to = p.b, p.a, -1, j
		o.parts = append(o.parts, p)
	}
	return o
}

// shrinking is a subpath that becomes a point.
func (r *ring) shrinking(at geom.Point) passage {
	p := passage{a: r.points(), closed: r.closed}
	for range p.a {
		p.b = append(p.b, at)
	}
	return p
}

// rigid finds the turn and growth that brings one side nearest to the other (Procrustes; of the paired parts' ends of segments), and reports whether
// what is left is little, so that it counts as the same outline turned.
func (o *Outlines) rigid() bool {
	o.grow = 1
	var a, b []geom.Point
	for _, p := range o.parts[:o.both] {
		for i := 0; i < len(p.a); i += 3 {
			a, b = append(a, p.a[i]), append(b, p.b[i])
		}
	}
	if len(a) < 3 {
		return false
	}
	mean := func(list []geom.Point) (c geom.Point) {
		for _, q := range list {
			c = c.Add(q)
		}
		return c.Mul(1 / float64(len(list)))
	}
	o.ca, o.cb = mean(a), mean(b)
	dot, cross, aa, bb := 0.0, 0.0, 0.0, 0.0
	for i := range a {
		p, q := a[i].Sub(o.ca), b[i].Sub(o.cb)
		dot, cross = dot+p.X*q.X+p.Y*q.Y, cross+p.X*q.Y-p.Y*q.X
		aa, bb = aa+p.X*p.X+p.Y*p.Y, bb+q.X*q.X+q.Y*q.Y
	}
	if aa <= 0 || bb <= 0 {
		return false
	}
	o.turn, o.grow = math.Atan2(cross, dot), math.Sqrt(bb/aa)
	// The least sum of squares that a turn leaves when both are as large (Umeyama 1991, in the plane).
	left := aa*bb - (dot*dot + cross*cross)
	return left <= alikeEnough*aa*bb && math.Abs(o.turn) > 1e-3
}

// alikeEnough is which share of the squared distances may be left when one outline is turned onto another that counts as the same.
const alikeEnough = 0.05

// shrunk is by which share an outline may be shorter on its way than the mixture of both ends before it counts as shrinking through itself.
const shrunk = 0.15

// detour is how many times as far its points may go on the mean where an outline bends.
const detour = 1.25

// choose decides how the points go: the simplest way that is good, or the one that is asked for.
func (o *Outlines) choose(way Way, like bool, pause func()) {
	if o.way = way; way != AsFits {
		if way == GoesBent {
			o.bend()
		}
		return
	}
	if o.way = GoesStraight; like {
		o.way = GoesTurned
	}
	n := o.judge(pause)
	if n.crossed == 0 && n.short < shrunk {
		return
	}
	simple := o.way
	pause()
	o.bend()
	pause()
	o.way = GoesBent
	if m := o.judge(pause); m.crossed > n.crossed || m.crossed == n.crossed && m.short > n.short/2 || m.far > detour*n.far {
		o.way, o.bends = simple, nil
	}
}

func (o *Outlines) bend() {
	for i := range o.parts[:o.both] {
		o.bends = append(o.bends, o.parts[i].bend(o.turn))
	}
}

// verdict is how good a way is.
type verdict struct {
	crossed int     // how often the outline crosses itself
	short   float64 // by which share it is shorter at most than the mixture of both ends
	far     float64 // how far its points go, each weighing as long as what lies beside it
}

// judge follows the points of an outline.
func (o *Outlines) judge(pause func()) (v verdict) {
	var all [5]geom.Path
	for k, at := range [5]float64{0, judged[0], judged[1], judged[2], 1} {
		o.between(at, &all[k])
	}
	steps := func(p *geom.Path, f func(i int, d float64)) {
		i := 0
		for _, part := range o.parts[:o.both] {
			for k := 1; k < len(part.a); k++ {
				f(i+k, p.Points[i+k].Sub(p.Points[i+k-1]).Len())
			}
			i += len(part.a)
		}
	}
	var length [5]float64
	for k := range all {
		steps(&all[k], func(_ int, d float64) { length[k] += d })
	}
	for k, at := range judged {
		if want := length[0] + (length[4]-length[0])*at; want > 0 {
			v.short = max(v.short, 1-length[k+1]/want)
		}
		pause()
		var rings [][]geom.Point
		i := 0
		for _, part := range o.parts {
			rings = append(rings, all[k+1].Points[i:i+len(part.a)])
			i += len(part.a)
		}
		v.crossed += crossings(edges(rings...), 1000)
	}
	for side, p := range []*geom.Path{&all[0], &all[4]} {
		steps(p, func(i int, d float64) {
			for k := 1; k < len(all) && length[4*side] > 0; k++ {
				v.far += d / length[4*side] * all[k].Points[i].Sub(all[k-1].Points[i]).Len()
			}
		})
	}
	return
}

// At writes the outline at an eased progress, which may leave 0..1.
func (o *Outlines) At(p float64, to *geom.Path) {
	if p == 0 || p == 1 {
		whole := o.a
		if p == 1 {
			whole = o.b
		}
		to.Reset()
		to.Verbs, to.Points = append(to.Verbs, whole.Verbs...), append(to.Points, whole.Points...)
		return
	}
	to.Reset()
	for _, l := range o.each {
		l.add(p, to)
	}
	o.add(p, to)
}

// add adds the outline on its way, also at its ends, where it looks as they do but has other segments.
func (o *Outlines) add(p float64, to *geom.Path) {
	if o.back {
		p = 1 - p
	}
	o.between(p, to)
}

// between adds the outline on its way as it was planned.
func (o *Outlines) between(p float64, to *geom.Path) {
	sin, cos := math.Sincos(-o.turn)
	ps, pc := math.Sincos(o.turn * p)
	grown, back := 1+(o.grow-1)*p, 1/o.grow
	centre := o.ca.Lerp(o.cb, p)
	for k := range o.parts {
		part := &o.parts[k]
		to.Verbs = append(to.Verbs, geom.MoveTo)
		for range len(part.a) / 3 {
			to.Verbs = append(to.Verbs, geom.CubicTo)
		}
		if part.closed {
			to.Verbs = append(to.Verbs, geom.Close)
		}
		first := len(to.Points)
		switch {
		case o.way == GoesBent && k < o.both:
			to.Points = append(to.Points, part.a...)
			o.bends[k].at(p, to.Points[first:])
		case o.way == GoesTurned:
			for i, a := range part.a {
				a, b := a.Sub(o.ca), part.b[i].Sub(o.cb)
				b = geom.Point{X: b.X*cos - b.Y*sin, Y: b.X*sin + b.Y*cos}.Mul(back)
				m := a.Lerp(b, p).Mul(grown)
				to.Points = append(to.Points, geom.Point{X: m.X*pc - m.Y*ps, Y: m.X*ps + m.Y*pc}.Add(centre))
			}
		default:
			for i, a := range part.a {
				to.Points = append(to.Points, a.Lerp(part.b[i], p))
			}
		}
	}
}

// frame is where an outline lies, by which both sides are compared: about its middle, as large as 1, turned.
type frame struct {
	middle geom.Point // of all points, each as long as what lies beside it
	size   float64    // of a square this is its diagonal
	turn   float64    // radians by which the other side, turned, is like it
}

func frameOf(rings []ring, turn float64) frame {
	f := frame{size: 1, turn: turn}
	weight, square := 0.0, 0.0
	for i := range rings {
		r := &rings[i]
		f.middle, weight = f.middle.Add(r.centre.Mul(r.length)), weight+r.length
	}
	if weight <= 0 {
		return f
	}
	f.middle = f.middle.Mul(1 / weight)
	for i := range rings {
		r := &rings[i]
		for _, q := range r.samples {
			d := q.Sub(f.middle)
			square += (d.X*d.X + d.Y*d.Y) * r.length / sampled
		}
	}
	f.size = max(math.Sqrt(6*square/weight), 1e-9) // a square of side 1 has a mean square of 1/3
	return f
}

// to brings a point to where it would be in another frame.
func (f frame) to(q geom.Point, other frame) geom.Point {
	sin, cos := math.Sincos(other.turn - f.turn)
	q = q.Sub(f.middle).Mul(other.size / f.size)
	return geom.Point{X: q.X*cos - q.Y*sin, Y: q.X*sin + q.Y*cos}.Add(other.middle)
}

// born is the point from which a part grows that the other side lacks: where it would lie in the other, of a part that is filled the nearest point of
// the other's outline, of a hole the same where it would lie outside of it.
func born(r *ring, others []ring, outline *geom.Path, own, other frame) geom.Point {
	at := own.to(r.centre, other)
	if len(others) == 0 || r.hole && outline.Contains(at) {
		return at
	}
	best, nearest := math.Inf(1), at
	for i := range others {
		if others[i].hole != r.hole && !r.hole {
			continue
		}
		for _, q := range others[i].samples {
			if d := q.Sub(at).Len(); d < best {
				best, nearest = d, q
			}
		}
	}
	return nearest
}

// Shrinking is an outline on its way into the outline of another thing, to the point of it that is nearest to one, or, the other way, growing from there:
// all parts as one, since it is a part of what becomes the other.
func Shrinking(p, into *geom.Path, at geom.Point, goes bool) *Outlines {
	best, nearest := math.Inf(1), at
	for _, r := range ringsOf(into) {
		for _, q := range r.samples {
			if d := q.Sub(at).Len(); d < best {
				best, nearest = d, q
			}
		}
	}
	o := &Outlines{a: p, b: &geom.Path{}, way: GoesStraight, grow: 1}
	for _, r := range ringsOf(p) {
		o.parts = append(o.parts, r.shrinking(nearest))
	}
	if !goes {
		o.a, o.b, o.back = o.b, o.a, true
	}
	return o
}
