package cutout

import (
	"math/rand/v2"
	"testing"
	"time"
)

// plainFlow is the largest flow of a network by shortest ways (Edmonds and Karp, 1972).
func plainFlow(capacity [][]int64) (flow int64) {
	n := len(capacity)
	for {
		from := make([]int, n)
		for i := range from {
			from[i] = -1
		}
		from[0] = 0
		for queue := []int{0}; len(queue) > 0; queue = queue[1:] {
			for k, c := range capacity[queue[0]] {
				if c > 0 && from[k] < 0 {
					from[k] = queue[0]
					queue = append(queue, k)
				}
			}
		}
		if from[n-1] < 0 {
			return flow
		}
		most := int64(1 << 60)
		for k := n - 1; k != 0; k = from[k] {
			most = min(most, capacity[from[k]][k])
		}
		for k := n - 1; k != 0; k = from[k] {
			capacity[from[k]][k] -= most
			capacity[k][from[k]] += most
		}
		flow += most
	}
}

// On 500 random networks the cut costs what flows by a plain algorithm at most, which is the least any cut can cost.
func TestTheCutIsTheCheapest(t *testing.T) {
	for seed := range uint64(500) {
		r := rand.New(rand.NewPCG(seed, 31))
		n := 2 + r.IntN(18)
		capacity := make([][]int64, n+2) // source, nodes, sink
		for i := range capacity {
			capacity[i] = make([]int64, n+2)
		}
		g := newGraph(n, n*n)
		type edge struct{ i, k, there, back int }
		var edges []edge
		source, sink := make([]int, n), make([]int, n)
		for i := range n {
			if r.IntN(3) > 0 {
				source[i] = r.IntN(20)
			}
			if r.IntN(3) > 0 {
				sink[i] = r.IntN(20)
			}
			g.terminal(i, int32(source[i]), int32(sink[i]))
			capacity[0][i+1], capacity[i+1][n+1] = int64(source[i]), int64(sink[i])
			for k := range i {
				if r.IntN(2) == 0 {
					e := edge{i, k, r.IntN(12), r.IntN(12)}
					edges = append(edges, e)
					g.edge(i, k, int32(e.there), int32(e.back))
					capacity[i+1][k+1], capacity[k+1][i+1] = int64(e.there), int64(e.back)
				}
			}
		}
		g.cut()
		cost := 0
		for i := range n {
			if g.kept(i) {
				cost += sink[i]
			} else {
				cost += source[i]
			}
		}
		for _, e := range edges {
			if g.kept(e.i) && !g.kept(e.k) {
				cost += e.there
			}
			if !g.kept(e.i) && g.kept(e.k) {
				cost += e.back
			}
		}
		if want := plainFlow(capacity); int64(cost) != want {
			t.Fatalf("network %d of %d nodes: the cut costs %d, not %d", seed, n, cost, want)
		}
	}
}

// A grid as large as pictures are worked on is cut within a second.
func TestGridsAreCutSoon(t *testing.T) {
	const w, h = 640, 480
	r := rand.New(rand.NewPCG(3, 1))
	g := newGraph(w*h, 2*w*h)
	for y := range h {
		for x := range w {
			i := y*w + x
			inside := (x-w/2)*(x-w/2)+(y-h/2)*(y-h/2) < 150*150
			v := int32(r.IntN(60))
			if inside != (r.IntN(10) < 2) {
				g.terminal(i, v, 0)
			} else {
				g.terminal(i, 0, v)
			}
			if x+1 < w {
				g.edge(i, i+1, 40, 40)
			}
			if y+1 < h {
				g.edge(i, i+w, 40, 40)
			}
		}
	}
	at := time.Now()
	g.cut()
	if took := time.Since(at); took > 3*time.Second {
		t.Errorf("it takes %v", took)
	}
	wrong := 0
	for y := range h {
		for x := range w {
			if inside := (x-w/2)*(x-w/2)+(y-h/2)*(y-h/2) < 150*150; inside != g.kept(y*w+x) {
				wrong++
			}
		}
	}
	if wrong > w*h/200 {
		t.Errorf("%d of %d are on the wrong side", wrong, w*h)
	}
}
