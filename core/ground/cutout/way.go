package cutout

import (
	"container/heap"
	"image"
	"math"

	"sectilis/core/ground/geom"
	"sectilis/core/ground/pixels"
)

// waySide is the longer side of the copy in which ways along edges are sought.
const waySide = 800

// Ways finds ways in a picture that cling to its edges.
type Ways struct {
	w, h int
	cost []float32 // of a pixel: next to none on a strong edge
}

// NewWays looks at a picture.
func NewWays(img *image.NRGBA) *Ways {
	small := shrunk(img, waySide)
	w, h := small.Rect.Dx(), small.Rect.Dy()
	g := &Ways{w, h, make([]float32, w*h)}
	light := func(x, y int) float32 {
		return pixels.Light(small.Pix[min(max(y, 0), h-1)*small.Stride+4*min(max(x, 0), w-1):])
	}
	most := float32(1)
	for y := range h {
		for x := range w {
			// Sobel's operator.
			gx := light(x+1, y-1) + 2*light(x+1, y) + light(x+1, y+1) - light(x-1, y-1) - 2*light(x-1, y) - light(x-1, y+1)
			gy := light(x-1, y+1) + 2*light(x, y+1) + light(x+1, y+1) - light(x-1, y-1) - 2*light(x, y-1) - light(x+1, y-1)
			v := float32(math.Hypot(float64(gx), float64(gy)))
			g.cost[y*w+x], most = v, max(most, v)
		}
	}
	for i, v := range g.cost {
		// Edges that are half as strong as the strongest lead as well as that.
		k := min(2*v/most, 1)
		g.cost[i] = .02 + (1-k)*(1-k)
	}
	return g
}

// Along is the cheapest way from one place to another, both included, in shares of the picture: along
// edges rather than across plain parts (Mortensen and Barrett, Intelligent scissors for image
// composition, 1995).
func (g *Ways) Along(from, to geom.Point) []geom.Point {
	place := func(p geom.Point) (int, int) {
		return min(max(int(p.X*float64(g.w)), 0), g.w-1), min(max(int(p.Y*float64(g.h)), 0), g.h-1)
	}
	ax, ay := place(from)
	bx, by := place(to)
	// It goes no farther aside than it is long.
	aside := max(abs(ax-bx), abs(ay-by))/2 + 24
	box := image.Rect(min(ax, bx)-aside, min(ay, by)-aside, max(ax, bx)+aside+1, max(ay, by)+aside+1).Intersect(image.Rect(0, 0, g.w, g.h))
	n := box.Dx() * box.Dy()
	at := func(x, y int) int { return (y-box.Min.Y)*box.Dx() + x - box.Min.X }
	far, came := make([]float32, n), make([]int32, n)
	for i := range far {
		far[i], came[i] = math.MaxFloat32, -1
	}
	start, goal := at(ax, ay), at(bx, by)
	far[start] = 0
	open := &queue{{start, 0}}
	for open.Len() > 0 {
		s := heap.Pop(open).(step)
		if s.far > far[s.at] {
			continue
		}
		if s.at == goal {
			break
		}
		x, y := s.at%box.Dx()+box.Min.X, s.at/box.Dx()+box.Min.Y
		for v := y - 1; v <= y+1; v++ {
			for u := x - 1; u <= x+1; u++ {
				if !image.Pt(u, v).In(box) {
					continue
				}
				c := g.cost[v*g.w+u]
				if u != x && v != y {
					c *= math.Sqrt2
				}
				if k := at(u, v); s.far+c < far[k] {
					far[k], came[k] = s.far+c, int32(s.at)
					heap.Push(open, step{k, s.far + c})
				}
			}
		}
	}
	var back []geom.Point
	for k := goal; k >= 0 && k != start; k = int(came[k]) {
		back = append(back, geom.Pt((float64(k%box.Dx()+box.Min.X)+.5)/float64(g.w), (float64(k/box.Dx()+box.Min.Y)+.5)/float64(g.h)))
	}
	out := []geom.Point{from}
	for i := len(back) - 1; i > 0; i -= 2 { // every other pixel tells enough
		out = append(out, back[i])
	}
	return append(out, to)
}

func abs(v int) int { return max(v, -v) }

// step is a pixel that a way has come to, and what that cost.
type step struct {
	at  int
	far float32
}

// queue is a heap of steps, the cheapest first.
type queue []step

func (q queue) Len() int           { return len(q) }
func (q queue) Less(i, j int) bool { return q[i].far < q[j].far }
func (q queue) Swap(i, j int)      { q[i], q[j] = q[j], q[i] }
func (q *queue) Push(v any)        { *q = append(*q, v.(step)) }
func (q *queue) Pop() any {
	old := *q
	last := old[len(old)-1]
	*q = old[:len(old)-1]
	return last
}
