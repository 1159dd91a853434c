package morph

import "math"

// Of finding by how much an outline is turned: how many parts, the largest, say which turns may be meant, how many of these there are at most, how far
// apart, and how many parts, the largest, say which of them is.
const (
	partsAsked  = 3
	mostTurns   = 12
	turnsApart  = math.Pi / 36
	partsJudged = 12
)

// turnBetween is by how many radians an outline has to be turned to be much like another, the least of these; 0 where it is not, or is nearly as much
// like it as it is.
func turnBetween(from, to []ring) float64 {
	if len(from) == 0 || len(to) == 0 {
		return 0
	}
	from, to = largestOf(from, partsJudged), largestOf(to, partsJudged)
	still := unlikeness(from, to, 0)
	best, least := 0.0, math.Inf(1)
	for _, turn := range turnsMeant(from, to) {
		left := unlikeness(from, to, turn)
		if v := left + 0.03*(turn/math.Pi)*(turn/math.Pi); left < min(still/3-0.01, alikeEnough) && v < least {
			best, least = turn, v
		}
	}
	return best
}

// largestOf are the largest subpaths of an outline.
func largestOf(list []ring, most int) []ring {
	var out []ring
	for _, i := range bySize(list)[:min(len(list), most)] {
		out = append(out, list[i])
	}
	return out
}

// turnsMeant are the turns by which large parts are much like each other, or lie alike about the middle.
func turnsMeant(from, to []ring) (list []float64) {
	add := func(turn float64) {
		for _, t := range list {
			if math.Abs(math.Remainder(t-turn, 2*math.Pi)) < turnsApart {
				return
			}
		}
		if math.Abs(turn) > 1e-3 && len(list) < mostTurns {
			list = append(list, turn)
		}
	}
	for k := range min(len(from), len(to), partsAsked) {
		a, b := &from[k], &to[k]
		if a.closed && b.closed && a.area*b.area < 0 {
			b = b.reversed()
		}
		var left, by [sampled]float64
		n := sampled
		if !a.closed || !b.closed {
			n = 1
		}
		for i := range n {
			left[i], by[i] = turned(a, b, i)
		}
		for i := range n {
			if left[i] < alikeEnough && left[i] <= left[(i+1)%n] && left[i] <= left[(i+n-1)%n] {
				add(-by[i])
			}
		}
	}
	fa, fb := frameOf(from, 0), frameOf(to, 0)
	for i := range min(len(from), partsAsked) {
		for j := range min(len(to), partsAsked) {
			p, q := from[i].centre.Sub(fa.middle), to[j].centre.Sub(fb.middle)
			if p.Len() > 0.02*fa.size && q.Len() > 0.02*fb.size {
				add(math.Remainder(math.Atan2(p.Y, p.X)-math.Atan2(q.Y, q.X), 2*math.Pi))
			}
		}
	}
	return
}

// unlikeness is which share of the squared distances from the middle two outlines lie apart, when one is turned by radians and both are as large.
func unlikeness(from, to []ring, turn float64) float64 {
	fa, fb := frameOf(from, turn), frameOf(to, 0)
	c := comparison{fa, fb, turn, nil}
	pairs, _, _ := pairRings(from, to, fa, fb, nil)
	sum, weight := 0.0, 0.0
	for _, p := range pairs {
		a, b := &from[p.from], &to[p.to]
		if a.closed && b.closed && a.area*b.area < 0 {
			b = b.reversed()
		}
		least := math.Inf(1)
		for k := range sampled {
			if k > 0 && !b.closed {
				break
			}
			least = min(least, c.apart(a, b, k))
		}
		d := fa.to(a.centre, fb).Sub(b.centre).Mul(1 / fb.size)
		sum, weight = sum+(least/sampled+d.X*d.X+d.Y*d.Y)*a.length, weight+a.length
	}
	if weight == 0 {
		return 1
	}
	return 6 * sum / weight // frames are as large as their points' mean square is a sixth
}
