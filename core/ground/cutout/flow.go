package cutout

// network is a graph whose nodes are cut into two with as little capacity as can be (Boykov and
// Kolmogorov, An experimental comparison of min-cut/max-flow algorithms, 2004).
type network struct {
	first   []int32   // the first edge of each node; -1 for none
	tr      []float32 // what is left to the source (more than 0) or from the sink
	to      []int32   // of each edge; the opposite of edge e is e ^ 1
	next    []int32
	cap     []float32
	parent  []int32 // the edge to the parent; terminal or none
	source  []bool  // the tree that a node is in, where it has a parent
	stamp   []int32
	dist    []int32
	active  []int32 // a queue, from head on
	queued  []bool
	head    int
	orphans []int32
	time    int32
}

const (
	none     = -1
	terminal = -2
	orphaned = -3
)

func newNetwork(nodes, edges int) *network {
	g := &network{
		first: make([]int32, nodes), tr: make([]float32, nodes), parent: make([]int32, nodes), source: make([]bool, nodes), stamp: make([]int32, nodes), dist: make([]int32, nodes), queued: make([]bool, nodes),
		to: make([]int32, 0, 2*edges), next: make([]int32, 0, 2*edges), cap: make([]float32, 0, 2*edges),
	}
	for i := range g.first {
		g.first[i], g.parent[i] = none, none
	}
	return g
}

// join lays an edge both ways.
func (g *network) join(a, b int32, weight float32) {
	for _, e := range [2][2]int32{{a, b}, {b, a}} {
		g.to, g.next, g.cap = append(g.to, e[1]), append(g.next, g.first[e[0]]), append(g.cap, weight)
		g.first[e[0]] = int32(len(g.to) - 1)
	}
}

// tie adds what a node costs where it is on the side of the sink, and of the source.
func (g *network) tie(node int32, source, sink float32) { g.tr[node] += source - sink }

// push makes a node active.
func (g *network) push(i int32) {
	if !g.queued[i] {
		g.queued[i] = true
		g.active = append(g.active, i)
	}
}

// cut finds the cut; ofSource then says on which side a node is.
func (g *network) cut() {
	for i := range g.tr {
		if g.tr[i] != 0 {
			g.source[i], g.parent[i], g.dist[i] = g.tr[i] > 0, terminal, 1
			g.push(int32(i))
		}
	}
	for g.head < len(g.active) {
		i := g.active[g.head]
		if g.head++; g.head > 1<<16 {
			g.active = append([]int32(nil), g.active[g.head:]...)
			g.head = 0
		}
		g.queued[i] = false
		for g.parent[i] != none {
			e := g.grow(i)
			if e < 0 {
				break
			}
			g.time++
			g.augment(e)
			g.adopt()
		}
	}
}

func (g *network) ofSource(i int32) bool { return g.parent[i] != none && g.source[i] }

// grow takes neighbours of an active node into its tree, until an edge leads from the source's
// tree to the sink's; -1 where none does.
func (g *network) grow(i int32) int32 {
	for e := g.first[i]; e >= 0; e = g.next[e] {
		through := e
		if !g.source[i] {
			through = e ^ 1
		}
		if g.cap[through] <= 0 {
			continue
		}
		j := g.to[e]
		switch {
		case g.parent[j] == none:
			g.source[j], g.parent[j], g.stamp[j], g.dist[j] = g.source[i], e^1, g.stamp[i], g.dist[i]+1
			g.push(j)
		case g.source[j] != g.source[i]:
			return through
		case g.stamp[j] <= g.stamp[i] && g.dist[j] > g.dist[i]:
			g.parent[j], g.stamp[j], g.dist[j] = e^1, g.stamp[i], g.dist[i]+1
		}
	}
	return none
}

// flows is the edge that flow takes between a node and its parent.
func (g *network) flows(i int32, source bool) int32 {
	if source {
		return g.parent[i] ^ 1
	}
	return g.parent[i]
}

// augment sends as much as can be along the way through an edge; nodes that are cut off from
// their tree become orphans.
func (g *network) augment(middle int32) {
	ends := [2]int32{g.to[middle^1], g.to[middle]}
	least := g.cap[middle]
	for side, i := range ends {
		for g.parent[i] != terminal {
			least = min(least, g.cap[g.flows(i, side == 0)])
			i = g.to[g.parent[i]]
		}
		if side == 0 {
			least = min(least, g.tr[i])
		} else {
			least = min(least, -g.tr[i])
		}
	}
	g.cap[middle] -= least
	g.cap[middle^1] += least
	for side, i := range ends {
		for g.parent[i] != terminal {
			e, above := g.flows(i, side == 0), g.to[g.parent[i]]
			g.cap[e] -= least
			g.cap[e^1] += least
			if g.cap[e] <= 0 {
				g.disown(i)
			}
			i = above
		}
		if side == 0 {
			g.tr[i] -= least
		} else {
			g.tr[i] += least
		}
		if g.tr[i] == 0 {
			g.disown(i)
		}
	}
}

func (g *network) disown(i int32) {
	g.parent[i] = orphaned
	g.orphans = append(g.orphans, i)
}

// adopt finds a parent for each orphan in its own tree, or takes it out of that.
func (g *network) adopt() {
	for len(g.orphans) > 0 {
		i := g.orphans[len(g.orphans)-1]
		g.orphans = g.orphans[:len(g.orphans)-1]
		best, near := g.foster(i)
		if best >= 0 {
			g.parent[i], g.stamp[i], g.dist[i] = best, g.time, near+1
			continue
		}
		for e := g.first[i]; e >= 0; e = g.next[e] {
			j, through := g.to[e], e^1
			if !g.source[i] {
				through = e
			}
			if g.parent[j] == none || g.source[j] != g.source[i] {
				continue
			}
			if g.cap[through] > 0 {
				g.push(j)
			}
			if p := g.parent[j]; p >= 0 && g.to[p] == i {
				g.disown(j)
			}
		}
		g.parent[i] = none
	}
}

// foster is the edge to the neighbour of an orphan that is nearest to their terminal, and how near
// that is; none where no neighbour reaches it.
func (g *network) foster(i int32) (best, near int32) {
	best, near = none, 1<<30
	for e := g.first[i]; e >= 0; e = g.next[e] {
		j, through := g.to[e], e^1
		if !g.source[i] {
			through = e
		}
		if g.cap[through] <= 0 || g.parent[j] == none || g.source[j] != g.source[i] {
			continue
		}
		if d := g.rooted(j); d < near {
			best, near = e, d
		}
	}
	return best, near
}

// rooted is how far a node is from its terminal; as far as can be for one that hangs on an orphan.
func (g *network) rooted(i int32) int32 {
	const never = 1 << 30
	d, at := int32(0), i
	for {
		if g.stamp[at] == g.time && g.parent[at] != orphaned {
			d += g.dist[at]
			break
		}
		d++
		p := g.parent[at]
		if p == terminal {
			g.stamp[at], g.dist[at] = g.time, 1
			break
		}
		if p == orphaned || p == none {
			return never
		}
		at = g.to[p]
	}
	// What was found is kept on the way, until the next augmentation.
	for k := i; g.stamp[k] != g.time; k = g.to[g.parent[k]] {
		g.stamp[k], g.dist[k] = g.time, d
		d--
	}
	return g.dist[i]
}
