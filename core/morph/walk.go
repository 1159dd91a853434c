package morph

import (
	"math"
	"slices"
	"sort"

	"capstan/core/geom"
)

// knot is a point of a stretch of a subpath that can be held for the same as one of another.
type knot struct {
	share float64    // 0 at the begin of the stretch, 1 at its end
	at    geom.Point // about the middle of its subpath, as large as 1
	turn  float64    // of a corner, radians; 0: it is none
}

// mostKnots is how many corners of a subpath are looked at, the sharpest.
const mostKnots = 96

// stretch is a stretch of a subpath as knots: at n even shares of it, and its corners, in the place of the nearest of these or beside them.
func (r *ring) stretch(u0, u1 float64, n int, size float64) []knot {
	list := make([]knot, n+1)
	for k := range list {
		t := float64(k) / float64(n)
		list[k] = knot{share: t, at: r.along(u0 + t*(u1-u0))}
	}
	corners := r.turnings
	if len(corners) > mostKnots {
		corners = slices.Clone(corners)
		sort.SliceStable(corners, func(i, j int) bool { return math.Abs(corners[i].turn) > math.Abs(corners[j].turn) })
		corners = corners[:mostKnots]
	}
	for _, c := range corners {
		t := wrap(c.share-u0) / (u1 - u0)
		switch {
		case u1-u0 <= 1e-9 || t > 1+1e-9:
			continue
		case t < 1e-9 || t > 1-1e-9: // at both ends of a whole round, else at the one
			if list[0].at.Sub(r.along(c.share)).Len() < 1e-6 {
				list[0].turn = c.turn
			}
			if list[n].at.Sub(r.along(c.share)).Len() < 1e-6 {
				list[n].turn = c.turn
			}
			continue
		}
		v := knot{t, r.along(c.share), c.turn}
		if k := int(math.Round(t * float64(n))); k > 0 && k < n && list[k].turn == 0 {
			list[k] = v
		} else {
			list = append(list, v)
		}
	}
	sort.SliceStable(list, func(i, j int) bool { return list[i].share < list[j].share })
	for i := range list {
		list[i].at = list[i].at.Sub(r.centre).Mul(1 / size)
	}
	return list
}

// along is the point at a share, which of a ring goes on beyond 1.
func (r *ring) along(share float64) geom.Point {
	if r.closed {
		share = wrap(share)
	}
	return r.at(share)
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

// strides are by how many knots both sides go on at a time: one does not go on by more than three times as much as the other.
var strides = [7][2]int{{1, 1}, {1, 2}, {2, 1}, {1, 3}, {3, 1}, {2, 3}, {3, 2}}

// lagging is how far the shares of what corresponds may lie apart.
const lagging = 0.25

// walk finds which knots of two stretches correspond, first to first and last to last, at the least cost (dynamic time warping, Sakoe and Chiba 1978,
// with limited slopes, in a band): their shares, but for those of the ends. b is turned by radians before distances are measured.
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
	cost[0] = unmatched * math.Abs(a[0].turn-b[0].turn)
	passedA, passedB := sums(a), sums(b)
	first := 1
	for i := 1; i < n; i++ {
		share := a[i].share
		for first < m-1 && b[first].share < share-lagging {
			first++
		}
		row := cost[i*m : (i+1)*m]
		for j := first; j < m && b[j].share <= share+lagging; j++ {
			d := a[i].at.Sub(turned[j])
			far := (d.X*d.X + d.Y*d.Y) / 2
			best, by := math.Inf(1), int8(0)
			for s, v := range &strides {
				k, l := i-v[0], j-v[1]
				if k < 0 || l < 0 {
					continue
				}
				da, db := a[i].share-a[k].share, b[j].share-b[l].share
				c := cost[k*m+l] + (da+db)*far + unmatched*(passedA[i]-passedA[k+1]+passedB[j]-passedB[l+1])
				if c < best && da+db > 0 {
					c += uneven * (da - db) * (da - db) / (da + db)
				}
				if c < best {
					best, by = c, int8(s)
				}
			}
			row[j], came[i*m+j] = best+unmatched*math.Abs(a[i].turn-b[j].turn), by
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
