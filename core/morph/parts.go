package morph

import (
	"math"
	"sort"

	"capstan/core/doc"
)

// partner is a part of either side that become each other.
type partner struct {
	from, to int
	said     *doc.PartPair // where somebody said so
}

// mostAssigned is up to how many pairs of parts the least sum is looked for; beyond it the most alike are paired first.
const mostAssigned = 10_000

// pairRings pairs the subpaths of both sides: those of which it was said, of the others those that together lie nearest and are most alike in size.
// Holes go to holes.
func pairRings(from, to []ring, fa, fb frame, said []doc.PartPair) (pairs []partner, onlyA, onlyB []int) {
	a, b := make([]bool, len(from)), make([]bool, len(to))
	take := func(i, j int, by *doc.PartPair) {
		a[i], b[j] = true, true
		pairs = append(pairs, partner{i, j, by})
	}
	for k := range said {
		if p := &said[k]; p.From < len(from) && p.To < len(to) && !a[p.From] && !b[p.To] {
			take(p.From, p.To, p)
		}
	}
	for _, hole := range []bool{false, true} {
		var rows, columns []int
		for i := range from {
			if !a[i] && from[i].hole == hole {
				rows = append(rows, i)
			}
		}
		for j := range to {
			if !b[j] && to[j].hole == hole {
				columns = append(columns, j)
			}
		}
		cost := func(i, j int) float64 {
			x, y := &from[rows[i]], &to[columns[j]]
			d := fa.to(x.centre, fb).Sub(y.centre).Mul(1 / fb.size)
			s := math.Sqrt(math.Abs(x.area))/fa.size - math.Sqrt(math.Abs(y.area))/fb.size
			return d.X*d.X + d.Y*d.Y + s*s
		}
		for i, j := range assign(len(rows), len(columns), cost) {
			if j >= 0 {
				take(rows[i], columns[j], nil)
			}
		}
	}
	sort.SliceStable(pairs, func(i, j int) bool { return pairs[i].from < pairs[j].from })
	for i, used := range a {
		if !used {
			onlyA = append(onlyA, i)
		}
	}
	for j, used := range b {
		if !used {
			onlyB = append(onlyB, j)
		}
	}
	return
}

// assign gives each of n rows one of m columns, or each column a row where there are fewer, so that the sum of costs is least: of each row the column,
// -1 for none. (Kuhn 1955, with potentials and shortest ways after Jonker and Volgenant 1987.)
func assign(n, m int, cost func(i, j int) float64) []int {
	out := make([]int, n)
	for i := range out {
		out[i] = -1
	}
	if n > m {
		for j, i := range assign(m, n, func(j, i int) float64 { return cost(i, j) }) {
			if i >= 0 {
				out[i] = j
			}
		}
		return out
	}
	if n*m > mostAssigned {
		greedy(out, m, cost)
		return out
	}
	u, v := make([]float64, n+1), make([]float64, m+1)
	row, way := make([]int, m+1), make([]int, m+1) // of each column, from 1
	for i := 1; i <= n; i++ {
		row[0] = i
		at := 0
		least, used := make([]float64, m+1), make([]bool, m+1)
		for j := range least {
			least[j] = math.Inf(1)
		}
		for {
			used[at] = true
			r, delta, next := row[at], math.Inf(1), 0
			for j := 1; j <= m; j++ {
				if used[j] {
					continue
				}
				if c := cost(r-1, j-1) - u[r] - v[j]; c < least[j] {
					least[j], way[j] = c, at
				}
				if least[j] < delta {
					delta, next = least[j], j
				}
			}
			for j := range used {
				if used[j] {
					u[row[j]] += delta
					v[j] -= delta
				} else {
					least[j] -= delta
				}
			}
			if at = next; row[at] == 0 {
				break
			}
		}
		for at != 0 {
			row[at] = row[way[at]]
			at = way[at]
		}
	}
	for j := 1; j <= m; j++ {
		if row[j] > 0 {
			out[row[j]-1] = j - 1
		}
	}
	return out
}

// greedy gives the most alike to each other first.
func greedy(out []int, m int, cost func(i, j int) float64) {
	type edge struct {
		i, j int
		c    float64
	}
	var all []edge
	for i := range out {
		for j := range m {
			all = append(all, edge{i, j, cost(i, j)})
		}
	}
	sort.SliceStable(all, func(i, j int) bool { return all[i].c < all[j].c })
	taken := make([]bool, m)
	for _, e := range all {
		if out[e.i] < 0 && !taken[e.j] {
			out[e.i], taken[e.j] = e.j, true
		}
	}
}
