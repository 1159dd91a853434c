package cutout

// graph is a network between a source and a sink, whose cheapest cut is found by growing a tree from each, sending flow where they meet and mending them
// (Boykov and Kolmogorov, An Experimental Comparison of Min-Cut/Max-Flow Algorithms for Energy Minimization in Vision, 2004). Capacities are whole numbers, so
// that the same network is cut the same everywhere.
type graph struct {
	nodes []node
	arcs  []arc // the one back is beside each: i^1
	queue []int32
	head  int // of the queue
	lost  []int32
	time  int32
}

type node struct {
	first  int32 // arc that leaves it; none: -1
	parent int32 // arc to its parent in its tree
	stamp  int32 // when far was known
	far    int32 // arcs to the root
	left   int32 // capacity from the source, below 0: to the sink, that is not used
	sink   bool  // it is in the sink's tree
	queued bool
}

type arc struct {
	to, next int32
	left     int32 // capacity that is not used
}

// What a parent is where it is no arc.
const (
	free   = -1
	rooted = -2
	orphan = -3
)

// newGraph makes a graph of so many nodes, with room for so many edges.
func newGraph(nodes, edges int) *graph {
	g := &graph{nodes: make([]node, nodes), arcs: make([]arc, 0, 2*edges)}
	for i := range g.nodes {
		g.nodes[i].first, g.nodes[i].parent = -1, free
	}
	return g
}

// terminal adds capacity from the source to a node, and from it to the sink.
func (g *graph) terminal(i int, source, sink int32) { g.nodes[i].left += source - sink }

// edge adds capacity from a node to another and back.
func (g *graph) edge(i, k int, there, back int32) {
	a := int32(len(g.arcs))
	g.arcs = append(g.arcs, arc{int32(k), g.nodes[i].first, there}, arc{int32(i), g.nodes[k].first, back})
	g.nodes[i].first, g.nodes[k].first = a, a+1
}

// kept reports whether a node is on the source's side of the cut.
func (g *graph) kept(i int) bool { return g.nodes[i].parent != free && !g.nodes[i].sink }

// cut finds the cheapest cut. It returns what flows beside what went straight through nodes.
func (g *graph) cut() (flow int64) {
	flow = g.near()
	for i := range g.nodes {
		if n := &g.nodes[i]; n.left != 0 {
			n.sink, n.parent, n.far = n.left < 0, rooted, 1
			g.active(int32(i))
		}
	}
	for g.head < len(g.queue) {
		i := g.queue[g.head]
		g.head++
		n := &g.nodes[i]
		n.queued = false
		if g.head > 1<<16 && g.head > len(g.queue)/2 {
			g.queue, g.head = append(g.queue[:0], g.queue[g.head:]...), 0
		}
		for n.parent != free {
			bridge := g.grow(i)
			if bridge < 0 {
				break
			}
			g.time++
			flow += int64(g.send(bridge))
			for len(g.lost) > 0 {
				o := g.lost[len(g.lost)-1]
				g.lost = g.lost[:len(g.lost)-1]
				g.adopt(o)
			}
		}
	}
	return flow
}

// near lets flow what can between neighbours, where trees would be grown for single arcs.
func (g *graph) near() (flow int64) {
	for a := range g.arcs {
		v := &g.arcs[a]
		i, k := &g.nodes[g.arcs[a^1].to], &g.nodes[v.to]
		if i.left > 0 && k.left < 0 && v.left > 0 {
			by := min(i.left, -k.left, v.left)
			i.left, k.left, v.left = i.left-by, k.left+by, v.left-by
			g.arcs[a^1].left += by
			flow += int64(by)
		}
	}
	return flow
}

func (g *graph) active(i int32) {
	if n := &g.nodes[i]; !n.queued {
		n.queued = true
		g.queue = append(g.queue, i)
	}
}

// residual is what may still flow towards the sink along an arc between a node of a tree and a neighbour: out of it in the source's, into it in the sink's.
func (g *graph) residual(a int32, sink bool) int32 {
	if sink {
		return g.arcs[a^1].left
	}
	return g.arcs[a].left
}

// grow takes the free neighbours of a node into its tree. It returns an arc from the source's tree to the sink's where they meet, else -1.
func (g *graph) grow(i int32) int32 {
	n := &g.nodes[i]
	for a := n.first; a >= 0; a = g.arcs[a].next {
		if g.residual(a, n.sink) <= 0 {
			continue
		}
		k := g.arcs[a].to
		m := &g.nodes[k]
		switch {
		case m.parent == free:
			m.sink, m.parent, m.stamp, m.far = n.sink, a^1, n.stamp, n.far+1
			g.active(k)
		case m.sink != n.sink:
			if n.sink {
				return a ^ 1
			}
			return a
		case m.stamp <= n.stamp && m.far > n.far: // nearer to the root this way
			m.parent, m.stamp, m.far = a^1, n.stamp, n.far+1
		}
	}
	return -1
}

// send lets as much flow as goes along the way through an arc between the trees.
func (g *graph) send(bridge int32) int32 {
	most := g.arcs[bridge].left
	walk := func(i int32, each func(a int32), end func(n *node)) {
		for {
			n := &g.nodes[i]
			if n.parent == rooted {
				end(n)
				return
			}
			a := n.parent
			each(a)
			i = g.arcs[a].to
		}
	}
	from, to := g.arcs[bridge^1].to, g.arcs[bridge].to
	walk(from, func(a int32) { most = min(most, g.arcs[a^1].left) }, func(n *node) { most = min(most, n.left) })
	walk(to, func(a int32) { most = min(most, g.arcs[a].left) }, func(n *node) { most = min(most, -n.left) })
	g.arcs[bridge].left -= most
	g.arcs[bridge^1].left += most
	for i := from; ; {
		n := &g.nodes[i]
		if n.parent == rooted {
			if n.left -= most; n.left == 0 {
				g.orphaned(i)
			}
			break
		}
		a := n.parent
		g.arcs[a].left += most
		if g.arcs[a^1].left -= most; g.arcs[a^1].left == 0 {
			g.orphaned(i)
		}
		i = g.arcs[a].to
	}
	for i := to; ; {
		n := &g.nodes[i]
		if n.parent == rooted {
			if n.left += most; n.left == 0 {
				g.orphaned(i)
			}
			break
		}
		a := n.parent
		g.arcs[a^1].left += most
		if g.arcs[a].left -= most; g.arcs[a].left == 0 {
			g.orphaned(i)
		}
		i = g.arcs[a].to
	}
	return most
}

func (g *graph) orphaned(i int32) {
	g.nodes[i].parent = orphan
	g.lost = append(g.lost, i)
}

// adopt finds a parent for a node that has lost its own; where there is none it becomes free, and its children lose theirs.
func (g *graph) adopt(i int32) {
	n := &g.nodes[i]
	best, nearest := int32(-1), int32(1<<30)
	for a := n.first; a >= 0; a = g.arcs[a].next {
		k := g.arcs[a].to
		if m := &g.nodes[k]; g.residual(a, !n.sink) <= 0 || m.sink != n.sink || m.parent == free {
			continue
		}
		if d := g.depth(k); d >= 0 && d < nearest {
			best, nearest = a, d
		}
	}
	if best >= 0 {
		n.parent, n.stamp, n.far = best, g.time, nearest+1
		return
	}
	for a := n.first; a >= 0; a = g.arcs[a].next {
		k := g.arcs[a].to
		m := &g.nodes[k]
		if m.sink != n.sink || m.parent == free {
			continue
		}
		if g.residual(a, !n.sink) > 0 {
			g.active(k)
		}
		if m.parent >= 0 && g.arcs[m.parent].to == i {
			g.orphaned(k)
		}
	}
	n.parent = free
}

// depth is how many arcs a node is away from its root; -1: it hangs on one that has lost its parent.
func (g *graph) depth(i int32) int32 {
	d, k := int32(0), i
	for {
		n := &g.nodes[k]
		if n.stamp == g.time && n.parent != orphan {
			d += n.far
			break
		}
		d++
		if n.parent == rooted {
			n.stamp, n.far = g.time, 1
			break
		}
		if n.parent < 0 {
			return -1
		}
		k = g.arcs[n.parent].to
	}
	// What was found out is noted on the way.
	far := d
	for k = i; g.nodes[k].stamp != g.time; far-- {
		n := &g.nodes[k]
		n.stamp, n.far = g.time, far
		if n.parent < 0 {
			break
		}
		k = g.arcs[n.parent].to
	}
	return d
}
