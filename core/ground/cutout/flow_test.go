package cutout

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"
)

// Random small graphs: the cut is the cheapest of all ways to part the nodes.
func TestTheCutIsTheCheapest(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	for range 600 {
		n := 2 + r.IntN(9)
		g := newNetwork(n, n*n)
		tr := make([]float32, n)
		for i := range n {
			tr[i] = float32(r.IntN(41) - 20)
			g.tie(int32(i), max(tr[i], 0), max(-tr[i], 0))
		}
		type edge struct {
			a, b int
			w    float32
		}
		var edges []edge
		for range r.IntN(3 * n) {
			a, b := r.IntN(n), r.IntN(n)
			if a != b {
				edges = append(edges, edge{a, b, float32(r.IntN(20))})
				g.join(int32(a), int32(b), edges[len(edges)-1].w)
			}
		}
		cost := func(of func(i int) bool) (sum float32) {
			for i := range n {
				if of(i) {
					sum += max(-tr[i], 0)
				} else {
					sum += max(tr[i], 0)
				}
			}
			for _, e := range edges {
				if of(e.a) != of(e.b) {
					sum += e.w
				}
			}
			return sum
		}
		least := float32(1e9)
		for set := range 1 << n {
			least = min(least, cost(func(i int) bool { return set>>i&1 == 1 }))
		}
		g.cut()
		require.Equal(t, least, cost(func(i int) bool { return g.ofSource(int32(i)) }), "%d nodes, %v, %v", n, tr, edges)
	}
}
