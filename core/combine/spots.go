package combine

import (
	"math"

	"capstan/core/geom"
)

// spots are vertices, none within eps of another. They are found by a grid with cells much wider than eps, so that nearly always
// one cell is looked into.
type spots struct {
	eps, cell float64
	at        []geom.Point
	next      []int // of the same cell, as index + 1
	first     map[[2]int64]int
}

func newSpots(eps float64, n int) spots {
	return spots{eps: eps, cell: 64 * eps, first: make(map[[2]int64]int, n)}
}

// index returns the vertex at q, which is made where there is none.
func (s *spots) index(q geom.Point) int {
	x, y := q.X/s.cell, q.Y/s.cell
	k := [2]int64{int64(math.Floor(x)), int64(math.Floor(y))}
	near := [2]int64{k[0], k[1]} // the cell beside it that is in reach, where there is one
	for i, f := range [2]float64{x - float64(k[0]), y - float64(k[1])} {
		const margin = 1.0 / 64
		if f < margin {
			near[i]--
		} else if f > 1-margin {
			near[i]++
		}
	}
	for i := k[0]; ; i = near[0] {
		for j := k[1]; ; j = near[1] {
			for v := s.first[[2]int64{i, j}]; v > 0; v = s.next[v-1] {
				if s.at[v-1].Sub(q).Len() <= s.eps {
					return v - 1
				}
			}
			if j == near[1] {
				break
			}
		}
		if i == near[0] {
			break
		}
	}
	s.at = append(s.at, q)
	s.next = append(s.next, s.first[k])
	s.first[k] = len(s.at)
	return len(s.at) - 1
}
