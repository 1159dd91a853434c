package morph

import (
	"math"
	"slices"
	"sort"

	"capstan/core/geom"
)

// anchors are shares of both lengths that correspond, rising on both sides; they come round after 1.
type anchors [][2]float64

// What it costs that points correspond: their squared distance counts as it is, beside it how unevenly the shares of both lengths go on (unevens, tried
// in turn), and how much a corner is bent that is none on the other side.
const unmatched = 0.012

var unevens = []float64{0.02, 0.005, 0.1, 1}

// mostStarts is from how many starts a way round is looked for, mostWays how many of these ways are looked at closely.
const (
	mostStarts = 4
	mostWays   = 2
)

// follow finds how one subpath becomes another that goes the same way round, as they are compared. What is given corresponds.
// Of ways that cost little that is taken which crosses itself least on its way.
func (c comparison) follow(a, b *ring, given anchors) (best passage) {
	fewest := math.MaxInt
	look := func(v anchors) {
		p := pass(a, b, v)
		if n := c.crossings(&p); n < fewest {
			best, fewest = p, n
		}
	}
	if len(given) > 0 {
		for _, uneven := range unevens {
			if v, _ := c.chain(a, b, given, uneven); fewest > 0 {
				look(v)
			}
		}
		return
	}
	if v := cornerByCorner(a, b, c.turn); v != nil {
		if look(v); fewest == 0 {
			return
		}
	}
	type way struct {
		start [2]float64
		v     anchors
		cost  float64
	}
	try := func(uneven float64, starts [][2]float64) (ways []way) {
		for _, s := range starts {
			v, cost := c.chain(a, b, anchors{s}, uneven)
			ways = append(ways, way{s, v, cost})
		}
		sort.SliceStable(ways, func(i, j int) bool { return ways[i].cost < ways[j].cost })
		for _, w := range ways[:min(len(ways), mostWays)] {
			if fewest > 0 {
				look(w.v)
			}
		}
		return
	}
	var cheap [][2]float64
	for _, w := range try(unevens[0], c.startsOf(a, b)) {
		cheap = append(cheap, w.start)
	}
	for _, u := range unevens[1:] {
		if fewest > 0 {
			try(u, cheap[:min(len(cheap), mostWays)])
		}
	}
	return
}

// chain finds what corresponds between shares that are given to correspond, of rings also from the last round to the first, and what all of it costs.
func (c comparison) chain(a, b *ring, given anchors, uneven float64) (anchors, float64) {
	c.pause()
	var out anchors
	total := 0.0
	for i, g := range given {
		next := [2]float64{given[0][0] + 1, given[0][1] + 1}
		if i+1 < len(given) {
			next = given[i+1]
		}
		du, dv := next[0]-g[0], next[1]-g[1]
		n := max(8, int(math.Ceil(sampled*max(du, dv))))
		v, cost := walk(a.stretch(g[0], next[0], n, c.fa.size), b.stretch(g[1], next[1], n, c.fb.size), c.turn, uneven)
		total += cost
		if v = v.plain(); len(v) == 0 || v[0][0] != 0 {
			v = anchors{{0, 0}}
		}
		for _, q := range v {
			out = append(out, [2]float64{g[0] + du*q[0], g[1] + dv*q[1]})
		}
	}
	return out, total
}

// cornerByCorner lets corners of polygons with as many go to each other, in the order round in which the sum of their squared distances is least; nil
// where they are no such polygons.
func cornerByCorner(a, b *ring, turn float64) anchors {
	n := len(a.segs)
	if !a.closed || !b.closed || n != len(b.segs) || n < 3 || n > sampled || !a.straight() || !b.straight() {
		return nil
	}
	sin, cos := math.Sincos(turn)
	best, least := 0, math.Inf(1)
	for k := range n {
		sum := 0.0
		for i, s := range a.segs {
			p, q := s.P0.Sub(a.centre), b.segs[(i+k)%n].P0.Sub(b.centre)
			d := p.Sub(geom.Point{X: q.X*cos - q.Y*sin, Y: q.X*sin + q.Y*cos})
			sum += d.X*d.X + d.Y*d.Y
		}
		if sum < least*(1-1e-12) {
			best, least = k, sum
		}
	}
	var out anchors
	for i := range n {
		q := [2]float64{a.begins(i), b.begins((i + best) % n)}
		if i+best >= n {
			q[1]++
		}
		out = append(out, q)
	}
	return out
}

// straight reports whether a subpath is of lines alone.
func (r *ring) straight() bool {
	return !slices.ContainsFunc(r.segs, func(s geom.Segment) bool { return !s.Line })
}

// begins is the share at which a segment begins.
func (r *ring) begins(i int) float64 {
	if i == 0 {
		return 0
	}
	return r.ends[i-1]
}

// startsOf are pairs of shares from which a way round may begin, the nearest first: where both lie nearest, and corners beside that.
func (c comparison) startsOf(a, b *ring) [][2]float64 {
	switch {
	case !a.closed && !b.closed:
		return [][2]float64{{0, 0}}
	case !b.closed: // where the line begins, the ring is opened
		out := c.back().startsOf(b, a)
		for i := range out {
			out[i][0], out[i][1] = out[i][1], out[i][0]
		}
		return out
	}
	first := 0.0
	if a.closed {
		first = a.sharpest()
	}
	var fits [sampled]float64
	for k := range sampled {
		fits[k] = c.apart(a, b, k)
	}
	var minima []int
	for k := range sampled {
		if fits[k] <= fits[(k+1)%sampled] && fits[k] < fits[(k+sampled-1)%sampled] {
			minima = append(minima, k)
		}
	}
	if len(minima) == 0 {
		minima = []int{0}
	}
	sort.SliceStable(minima, func(i, j int) bool { return fits[minima[i]] < fits[minima[j]] })
	corners := b.turnings
	var out [][2]float64
	for _, k := range minima {
		if len(out) >= mostStarts {
			break
		}
		share := wrap(first + float64(k)/sampled)
		out = append(out, [2]float64{first, share})
		for _, k := range corners {
			if math.Abs(math.Remainder(k.share-share, 1)) < 0.03 && len(out) < mostStarts+3 {
				out = append(out, [2]float64{first, k.share})
			}
		}
	}
	return out
}

// sharpest is the share at which a subpath turns most; 0 where it has no corner.
func (r *ring) sharpest() (share float64) {
	most := 0.0
	for _, c := range r.turnings {
		if v := math.Abs(c.turn); v > most+1e-9 {
			most, share = v, c.share
		}
	}
	return
}

// crossings is how often a subpath crosses itself on its way.
func (c comparison) crossings(p *passage) (n int) {
	sin, cos := math.Sincos(c.turn)
	r := make([]geom.Point, len(p.a))
	for _, at := range judged {
		c.pause()
		for i, q := range p.b {
			r[i] = p.a[i].Lerp(geom.Point{X: q.X*cos - q.Y*sin, Y: q.X*sin + q.Y*cos}, at)
		}
		n += crossings(edges(r), 1000)
	}
	return
}

// plain leaves out what lies on the line between its neighbours within a five-hundredth; the last neighbour is the end, {1, 1}.
func (v anchors) plain() anchors {
	if len(v) == 0 {
		return v
	}
	keep := make([]bool, len(v))
	keep[0] = true
	at := func(k int) [2]float64 {
		if k == len(v) {
			return [2]float64{1, 1}
		}
		return v[k]
	}
	var cut func(i, j int)
	cut = func(i, j int) {
		far, k := 0.002, -1
		p, q := at(i), at(j)
		for m := i + 1; m < j; m++ {
			want := p[1]
			if q[0] > p[0] {
				want += (q[1] - p[1]) * (v[m][0] - p[0]) / (q[0] - p[0])
			}
			if d := math.Abs(v[m][1] - want); d > far {
				far, k = d, m
			}
		}
		if k >= 0 {
			keep[k] = true
			cut(i, k)
			cut(k, j)
		}
	}
	cut(0, len(v))
	out := anchors{}
	for i := range v {
		if keep[i] {
			out = append(out, v[i])
		}
	}
	return out
}
