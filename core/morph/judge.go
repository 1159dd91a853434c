package morph

import (
	"slices"

	"capstan/core/geom"
)

// judged are the times at which outlines on their way are judged.
var judged = [3]float64{0.25, 0.5, 0.75}

// chordsJudged is by how many chords outlines are told about where they are judged.
const chordsJudged = 240

// edge is a chord of an outline that is judged.
type edge struct{ p, q geom.Point }

func (e edge) left() float64  { return min(e.p.X, e.q.X) }
func (e edge) right() float64 { return max(e.p.X, e.q.X) }

// crosses reports whether two chords cross each other at a point inside both.
func (e edge) crosses(f edge) bool {
	side := func(a, b, c geom.Point) float64 { return (b.X-a.X)*(c.Y-a.Y) - (b.Y-a.Y)*(c.X-a.X) }
	if max(e.p.Y, e.q.Y) < min(f.p.Y, f.q.Y) || max(f.p.Y, f.q.Y) < min(e.p.Y, e.q.Y) {
		return false
	}
	const least = 1e-9
	return side(e.p, e.q, f.p)*side(e.p, e.q, f.q) < -least && side(f.p, f.q, e.p)*side(f.p, f.q, e.q) < -least
}

// edges tells subpaths, as points of cubic segments, by chords.
func edges(rings ...[]geom.Point) (all []edge) {
	segments := 0
	for _, r := range rings {
		segments += len(r) / 3
	}
	n, every := max(1, chordsJudged/max(segments, 1)), max(1, segments/chordsJudged)
	for _, r := range rings {
		was := r[0]
		for i := 0; i+3 < len(r); i += 3 * every {
			j := min(i+3*(every-1), len(r)-4)
			s := geom.Segment{P0: r[j], P1: r[j+1], P2: r[j+2], P3: r[j+3]}
			for k := 1; k <= n; k++ {
				q := s.At(float64(k) / float64(n))
				all = append(all, edge{was, q})
				was = q
			}
		}
		if was != r[0] {
			all = append(all, edge{was, r[0]})
		}
	}
	return
}

// crossings counts the pairs of chords that cross each other, up to a most.
func crossings(all []edge, most int) (n int) {
	slices.SortFunc(all, func(a, b edge) int { return sign(a.left() - b.left()) })
	for i, e := range all {
		right := e.right()
		for _, f := range all[i+1:] {
			if f.left() > right {
				break
			}
			if e.crosses(f) {
				if n++; n > most {
					return
				}
			}
		}
	}
	return
}
