package combine

import (
	"math"

	"capstan/core/geom"
)

// grid divides a box into about as many cells as it holds things, and knows which things reach into each cell.
type grid struct {
	min    geom.Point
	step   geom.Point // cells per px
	nx, ny int
	first  []int32 // of each cell in things, and the end of the last
	things []int32
}

// gridOf sorts n things by their boxes.
func gridOf(boxes []geom.Box) *grid {
	all := geom.EmptyBox()
	for i := range boxes {
		all = all.Union(boxes[i])
	}
	g := &grid{min: all.Min, nx: 1, ny: 1}
	if n := float64(len(boxes)); n > 8 && all.W() > 0 && all.H() > 0 {
		k := math.Sqrt(n * all.W() / all.H())
		g.nx = int(min(max(k, 1), n))
		g.ny = int(min(max(n/k, 1), n))
		g.step = geom.Point{X: float64(g.nx) / all.W(), Y: float64(g.ny) / all.H()}
	}
	g.first = make([]int32, g.nx*g.ny+1)
	for i := range boxes {
		g.each(boxes[i], func(cell int) { g.first[cell]++ })
	}
	total := int32(0)
	for k := range g.first {
		total += g.first[k]
		g.first[k] = total
	}
	g.things = make([]int32, total)
	for i := len(boxes) - 1; i >= 0; i-- {
		g.each(boxes[i], func(cell int) {
			g.first[cell]--
			g.things[g.first[cell]] = int32(i)
		})
	}
	return g
}

func (g *grid) column(x float64) int { return min(max(int((x-g.min.X)*g.step.X), 0), g.nx-1) }
func (g *grid) row(y float64) int    { return min(max(int((y-g.min.Y)*g.step.Y), 0), g.ny-1) }

// each calls f with every cell that a box reaches into.
func (g *grid) each(b geom.Box, f func(cell int)) {
	x0, x1 := g.column(b.Min.X), g.column(b.Max.X)
	for y := g.row(b.Min.Y); y <= g.row(b.Max.Y); y++ {
		for x := x0; x <= x1; x++ {
			f(y*g.nx + x)
		}
	}
}

// in returns the things that reach into a cell, in order.
func (g *grid) in(cell int) []int32 { return g.things[g.first[cell]:g.first[cell+1]] }
