package motion

import (
	"math"
	"sort"

	"capstan/core/doc"
	"capstan/core/geom"
)

// nearlyAs is by how many px distances may differ that count as the same place in an order.
const nearlyAs = 0.5

// PlaceRanks returns the place in time of each of some boxes by where they lie, and how many places there are: outwards from the middle of
// all of them, by column from the left, by row from the top, or by their distance from a point. What lies as far shares a place; boxes are in
// one column, or row, while the middle of each is less than half the usual width, or height, further than that of the one before. False: it
// is no such order.
func PlaceRanks(order string, boxes []geom.Box, from geom.Point) (rank []int, places int, ok bool) {
	if len(boxes) == 0 {
		return nil, 0, false
	}
	all := geom.EmptyBox()
	for _, b := range boxes {
		c := b.Centre()
		all = all.Union(geom.Box{Min: c, Max: c})
	}
	usual := func(side func(geom.Box) float64) float64 {
		sides := make([]float64, len(boxes))
		for i, b := range boxes {
			sides[i] = side(b)
		}
		sort.Float64s(sides)
		return max(sides[len(sides)/2]/2, nearlyAs)
	}
	var key func(geom.Point) float64
	near := nearlyAs
	switch order {
	case doc.Outwards:
		middle := all.Centre()
		key = func(p geom.Point) float64 { return p.Sub(middle).Len() }
	case doc.FromPoint:
		key = func(p geom.Point) float64 { return p.Sub(from).Len() }
	case doc.ByColumn:
		key = func(p geom.Point) float64 { return p.X }
		near = usual(geom.Box.W)
	case doc.ByRow:
		key = func(p geom.Point) float64 { return p.Y }
		near = usual(geom.Box.H)
	default:
		return nil, 0, false
	}
	keys := make([]float64, len(boxes))
	index := make([]int, len(boxes))
	for i, b := range boxes {
		keys[i], index[i] = key(b.Centre()), i
	}
	sort.SliceStable(index, func(a, b int) bool { return keys[index[a]] < keys[index[b]] })
	rank = make([]int, len(boxes))
	last := math.Inf(-1)
	for _, i := range index {
		if keys[i]-last >= near {
			places++
		}
		last = keys[i]
		rank[i] = places - 1
	}
	return rank, places, true
}
