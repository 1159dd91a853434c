package combine

import (
	"math"

	"capstan/core/geom"
)

// slabs divide one axis into equal parts and hold the edges that reach into each, so that a ray meets few others.
type slabs struct {
	min, size float64
	first     []int // of each slab in edges, and the end of the last
	edges     []int
}

func (a *arrangement) slabs(vertical bool) *slabs {
	lo, hi := math.Inf(1), math.Inf(-1)
	spans := make([][2]float64, len(a.edges))
	for i := range a.edges {
		l, h := a.edges[i].p[0].Y, a.edges[i].p[3].Y
		if vertical {
			l, h = a.edges[i].p[0].X, a.edges[i].p[3].X
		}
		l, h = min(l, h), max(l, h)
		spans[i] = [2]float64{l, h}
		lo, hi = min(lo, l), max(hi, h)
	}
	n := min(max(len(a.edges)/8, 1), 4096)
	s := &slabs{min: lo, size: (hi - lo) / float64(n), first: make([]int, n+1)}
	if !(s.size > 0) {
		s.size = 1
	}
	for _, v := range spans {
		for k := s.slab(v[0]); k <= s.slab(v[1]); k++ {
			s.first[k]++
		}
	}
	total := 0
	for k := range s.first {
		total += s.first[k]
		s.first[k] = total
	}
	s.edges = make([]int, total)
	for i := len(spans) - 1; i >= 0; i-- {
		for k := s.slab(spans[i][0]); k <= s.slab(spans[i][1]); k++ {
			s.first[k]--
			s.edges[s.first[k]] = i
		}
	}
	return s
}

func (s *slabs) slab(v float64) int { return min(max(int((v-s.min)/s.size), 0), len(s.first)-2) }

// at returns the edges that reach into the slab of a value.
func (s *slabs) at(v float64) []int { k := s.slab(v); return s.edges[s.first[k]:s.first[k+1]] }

// sides counts the winding numbers of every area on the left of every edge: where (-dy, dx) points for an edge that runs along
// (dx, dy). On its right they are lower by how often the area runs along it.
//
// They are counted once for each chain of edges that nothing branches off from, in the middle of its longest edge, along a ray
// across that edge.
func (a *arrangement) sides() {
	if a.left != nil {
		return
	}
	a.left = make([][]int, len(a.edges))
	degree := make([]int, len(a.spots.at))
	at := make([][2]int, len(a.spots.at))
	for i := range a.edges {
		for _, v := range [2]int{a.edges[i].from, a.edges[i].to} {
			if degree[v] < 2 {
				at[v][degree[v]] = i
			}
			degree[v]++
		}
	}
	var rows, columns *slabs
	var chain []int
	turned := make([]bool, len(a.edges)) // against the chain's direction
	for i := range a.edges {
		if a.left[i] != nil {
			continue
		}
		chain = append(chain[:0], i)
		turned[i] = false
		for _, ahead := range [2]bool{true, false} {
			cur := i
			for {
				v := a.edges[cur].to
				if turned[cur] == ahead {
					v = a.edges[cur].from
				}
				if degree[v] != 2 {
					break
				}
				next := at[v][0]
				if next == cur {
					next = at[v][1]
				}
				if next == i || next == cur {
					break
				}
				// Going ahead, an edge that ends where it is entered runs against the chain; going back, one that begins there.
				turned[next] = (a.edges[next].to == v) == ahead
				chain = append(chain, next)
				cur = next
			}
			if len(chain) > 1 && ahead {
				// A ring has been walked round.
				last := chain[len(chain)-1]
				v := a.edges[last].to
				if turned[last] {
					v = a.edges[last].from
				}
				if v == a.edges[i].from && degree[v] == 2 {
					break
				}
			}
		}
		best, length := i, -1.0
		for _, k := range chain {
			e := &a.edges[k]
			if l := e.p[3].Sub(e.p[0]).Len(); l > length {
				best, length = k, l
			}
		}
		e := &a.edges[best]
		d := e.p[3].Sub(e.p[0])
		var left []int
		if vertical := math.Abs(d.X) > math.Abs(d.Y); vertical {
			if columns == nil {
				columns = a.slabs(true)
			}
			left = a.ray(best, columns, true)
		} else {
			if rows == nil {
				rows = a.slabs(false)
			}
			left = a.ray(best, rows, false)
		}
		right := a.right(best, left, nil)
		if turned[best] {
			left, right = right, left
		}
		for _, k := range chain {
			if turned[k] {
				a.left[k] = right
			} else {
				a.left[k] = left
			}
		}
	}
}

// right returns the winding numbers on the right of an edge that has the given ones on its left, in the room of to.
func (a *arrangement) right(i int, left, to []int) []int {
	e := &a.edges[i]
	out := append(to[:0], left...)
	for _, s := range e.along {
		area := a.sources[s.source].area
		if s.back {
			out[area]++
		} else {
			out[area]--
		}
	}
	return out
}

// ray counts the winding numbers on the left of edge i from where a ray against one axis ends to the middle of the edge.
func (a *arrangement) ray(i int, s *slabs, vertical bool) []int {
	e := &a.edges[i]
	from := e.segment().At(0.5)
	w := make([]int, a.count)
	along := func(q geom.Point) (across, on float64) {
		if vertical {
			return q.X, q.Y
		}
		return q.Y, q.X
	}
	v, here := along(from)
	for _, k := range s.at(v) {
		if k == i {
			continue
		}
		o := &a.edges[k]
		v0, on0 := along(o.p[0])
		v1, on1 := along(o.p[3])
		if (v0 <= v) == (v1 <= v) || min(on0, on1) > here {
			continue
		}
		if max(on0, on1) >= here {
			if _, on := along(o.segment().At(o.solve(v, !vertical))); on >= here {
				continue
			}
		}
		// A ray to the right goes from left to right across an edge that runs down; one that runs down, from right to left across
		// an edge that runs to the right.
		grows := v1 > v0
		for _, st := range o.along {
			area := a.sources[st.source].area
			if (grows == st.back) != vertical {
				w[area]++
			} else {
				w[area]--
			}
		}
	}
	// w is what lies before the edge.
	v0, _ := along(e.p[0])
	v1, _ := along(e.p[3])
	if (v1 > v0) == vertical {
		// Before it lies its right.
		for _, st := range e.along {
			area := a.sources[st.source].area
			if st.back {
				w[area]--
			} else {
				w[area]++
			}
		}
	}
	return w
}
