package morph

import (
	"math"
	"slices"

	"capstan/core/geom"
)

// knot is a point of a subpath that can be held for the same as one of another.
type knot struct {
	share float64
	at    geom.Point // about the middle of its subpath, as large as 1
	turn  float64    // of a corner, radians; 0: it is none
}

// mostKnots is how many corners of a subpath are looked at, the sharpest.
const mostKnots = 96

// knots are points at even shares of a subpath's length, and its corners in the place of the nearest of these.
func (r *ring) knots(size float64) []knot {
	list := make([]knot, sampled)
	for k := range list {
		list[k] = knot{share: float64(k) / sampled, at: r.samples[k]}
	}
	corners := r.corners()
	if len(corners) > mostKnots {
		slices.SortStableFunc(corners, func(a, b corner) int { return sign(math.Abs(b.turn) - math.Abs(a.turn)) })
		corners = corners[:mostKnots]
	}
	for _, c := range corners {
		n := knot{c.share, r.at(c.share), c.turn}
		if k := int(math.Round(c.share*sampled)) % sampled; list[k].turn == 0 && (k > 0 || r.closed) {
			list[k] = n
		} else {
			list = append(list, n)
		}
	}
	slices.SortStableFunc(list, func(a, b knot) int { return sign(a.share - b.share) })
	for i := range list {
		list[i].at = list[i].at.Sub(r.centre).Mul(1 / size)
	}
	return list
}

func sign(v float64) int {
	switch {
	case v < 0:
		return -1
	case v > 0:
		return 1
	}
	return 0
}

// from is the knots in order from the one at k on, once round, the first again at the end.
func from(list []knot, k int) []knot {
	out := make([]knot, 0, len(list)+1)
	for i := range list {
		n := list[(k+i)%len(list)]
		if k+i >= len(list) {
			n.share++
		}
		out = append(out, n)
	}
	last := out[0]
	last.share++
	return append(out, last)
}

// What it costs that points correspond: their squared distance counts as it is, beside it how unevenly the shares of both lengths go on, and how much
// a corner is bent that is none on the other side.
const bent = 0.012

// unevens is how much it costs that the shares of one length go on faster than those of the other: what is tried in turn.
var unevens = []float64{0.02, 0.005, 0.1, 1}

// strides are by how many knots both sides go on at a time: one does not go on by more than three times as much as the other.
var strides = [7][2]int{{1, 1}, {1, 2}, {2, 1}, {1, 3}, {3, 1}, {2, 3}, {3, 2}}

// lagging is how far the shares of what corresponds may lie apart, counted from the first.
const lagging = 0.25

// walk finds which knots of two lists correspond, first to first and last to last, at the least cost (dynamic time warping, Sakoe and Chiba 1978, with
// limited slopes, in a band). b is turned by radians before distances are measured. Where there is no way from end to end the cost is infinite.
func walk(a, b []knot, turn, uneven float64) (anchors, float64) {
	n, m := len(a), len(b)
	sin, cos := math.Sincos(turn)
	turned := make([]geom.Point, m)
	for j, k := range b {
		turned[j] = geom.Point{X: k.at.X*cos - k.at.Y*sin, Y: k.at.X*sin + k.at.Y*cos}
	}
	cost, came := make([]float64, n*m), make([]int8, n*m)
	for i := range cost {
		cost[i] = math.Inf(1)
	}
	cost[0] = 0
	passedA, passedB := sums(a), sums(b)
	first := 1
	for i := 1; i < n; i++ {
		share := a[i].share - a[0].share
		for first < m-1 && b[first].share-b[0].share < share-lagging {
			first++
		}
		row := cost[i*m : (i+1)*m]
		for j := first; j < m && b[j].share-b[0].share <= share+lagging; j++ {
			d := a[i].at.Sub(turned[j])
			far := (d.X*d.X + d.Y*d.Y) / 2
			best, by := math.Inf(1), int8(0)
			for s, v := range &strides {
				k, l := i-v[0], j-v[1]
				if k < 0 || l < 0 {
					continue
				}
				da, db := a[i].share-a[k].share, b[j].share-b[l].share
				c := cost[k*m+l] + (da+db)*far + bent*(passedA[i]-passedA[k+1]+passedB[j]-passedB[l+1])
				if c < best && da+db > 0 {
					c += uneven * (da - db) * (da - db) / (da + db)
				}
				if c < best {
					best, by = c, int8(s)
				}
			}
			row[j], came[i*m+j] = best+bent*math.Abs(a[i].turn-b[j].turn), by
		}
	}
	total := cost[n*m-1]
	if math.IsInf(total, 1) {
		return nil, total
	}
	var out anchors
	for i, j := n-1, m-1; i > 0 && j > 0; {
		v := strides[came[i*m+j]]
		i, j = i-v[0], j-v[1]
		out = append(out, [2]float64{a[i].share, b[j].share})
	}
	slices.Reverse(out)
	return out, total
}

// sums are how much is turned at all knots before each.
func sums(list []knot) []float64 {
	out := make([]float64, len(list)+1)
	for i, k := range list {
		out[i+1] = out[i] + math.Abs(k.turn)
	}
	return out
}

// mostStarts is from how many starts a way round is looked for, mostWays how many of these ways are looked at closely.
const (
	mostStarts = 6
	mostWays   = 2
)

// follow finds how one subpath becomes another that goes the same way round, turned by radians before they are compared.
func follow(a, b *ring, fa, fb frame, turn float64) passage {
	ka, kb := a.knots(fa.size), b.knots(fb.size)
	i := 0
	if a.closed && b.closed {
		i = sharpest(ka)
	}
	starts := []int{0}
	switch {
	case b.closed:
		starts = startsOf(a, b, ka, kb, i, fa, fb, turn)
	case a.closed:
		starts = startsOf(b, a, kb, ka, 0, fb, fa, -turn)
	}
	type way struct {
		from int
		v    anchors
		cost float64
	}
	var best passage
	fewest := math.MaxInt
	var cheap []int // starts, the cheapest first
	try := func(uneven float64, starts []int) {
		var ways []way
		for _, k := range starts {
			la, lb := from(ka, i), from(kb, k)
			if a.closed && !b.closed {
				la, lb = from(ka, k), from(kb, 0)
			}
			if !a.closed {
				la[len(la)-1].at = a.samples[len(a.samples)-1].Sub(a.centre).Mul(1 / fa.size)
			}
			if !b.closed {
				lb[len(lb)-1].at = b.samples[len(b.samples)-1].Sub(b.centre).Mul(1 / fb.size)
			}
			if v, cost := walk(la, lb, turn, uneven); v != nil {
				ways = append(ways, way{k, v, cost})
			}
		}
		slices.SortStableFunc(ways, func(x, y way) int { return sign(x.cost - y.cost) })
		for i, w := range ways {
			if cheap = append(cheap, w.from); i >= mostWays {
				break
			}
			p := pass(a, b, w.v.plain())
			if n := p.crossings(); n < fewest {
				best, fewest = p, n
			}
			if fewest == 0 {
				return
			}
		}
	}
	try(unevens[0], starts)
	for _, u := range unevens[1:] {
		if fewest > 0 {
			try(u, cheap[:min(len(cheap), mostWays)])
		}
	}
	if best.a == nil {
		best = pass(a, b, anchors{{ka[i].share, kb[starts[0]].share}})
	}
	return best
}

// crossings is how often a subpath crosses itself on its way.
func (p *passage) crossings() (n int) {
	r := make([]geom.Point, len(p.a))
	for _, at := range judged {
		for i := range r {
			r[i] = p.a[i].Lerp(p.b[i], at)
		}
		n += crossings(edges(r), 1000)
	}
	return
}

// sharpest is the knot that turns most.
func sharpest(list []knot) (k int) {
	for i := range list {
		if math.Abs(list[i].turn) > math.Abs(list[k].turn)+1e-9 {
			k = i
		}
	}
	return
}

// startsOf are the knots of b, turned by radians, that may be where a's knot i is, the nearest first, and the corners beside them.
func startsOf(a, b *ring, ka, kb []knot, i int, fa, fb frame, turn float64) []int {
	var fits [sampled]float64
	for k := range sampled {
		fits[k] = apart(a, b, k, fa, fb, turn)
	}
	at := func(k float64) float64 { return wrap(ka[i].share + k/sampled) }
	near := func(share float64) (best int) {
		for j := range kb {
			if around(kb[j].share, share) < around(kb[best].share, share)-1e-12 {
				best = j
			}
		}
		return
	}
	var out []int
	add := func(j int) {
		if !slices.Contains(out, j) {
			out = append(out, j)
		}
	}
	with := func(k int) { // the knot there, and corners beside it
		share := at(float64(k))
		add(near(share))
		for j := range kb {
			if kb[j].turn != 0 && around(kb[j].share, share) < 0.03 {
				add(j)
			}
		}
	}
	var minima []int
	for k := range sampled {
		if fits[k] <= fits[(k+1)%sampled] && fits[k] < fits[(k+sampled-1)%sampled] {
			minima = append(minima, k)
		}
	}
	slices.SortStableFunc(minima, func(x, y int) int { return sign(fits[x] - fits[y]) })
	for _, k := range minima {
		if len(out) < mostStarts {
			with(k)
		}
	}
	if len(out) == 0 {
		with(0)
	}
	return out
}

// around is how far two shares of a ring lie apart.
func around(u, v float64) float64 { return math.Abs(math.Remainder(u-v, 1)) }

// plain leaves out what lies on the line between its neighbours within a five-hundredth of the length.
func (v anchors) plain() anchors {
	keep := make([]bool, len(v))
	keep[0] = true
	var cut func(i, j int)
	at := func(k int) [2]float64 {
		if k == len(v) {
			return [2]float64{v[0][0] + 1, v[0][1] + 1}
		}
		return v[k]
	}
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
