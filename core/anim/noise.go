package anim

import (
	"math"
	"sync"
)

// noiseSide is the side of the pattern of blue noise, px.
const noiseSide = 32

// blueNoise returns a pattern of thresholds 0..63, each as often as the others, without the low frequencies that show as clouds and the lines of an
// ordered one: void and cluster (Ulichney, 1993), with a Gaussian of 1.5 px on a torus, begun from one point.
var blueNoise = sync.OnceValue(func() *[noiseSide * noiseSide]uint8 {
	const n, sigma = noiseSide * noiseSide, 1.5
	var falls [n]float64 // what a point at the corner adds elsewhere
	for y := range noiseSide {
		for x := range noiseSide {
			dx, dy := float64(min(x, noiseSide-x)), float64(min(y, noiseSide-y))
			falls[y*noiseSide+x] = math.Exp(-(dx*dx + dy*dy) / (2 * sigma * sigma))
		}
	}
	var dense [n]float64
	var taken [n]bool
	out := &[n]uint8{}
	at := 0
	for rank := range n {
		if rank > 0 {
			at = -1
			for i := range n { // the largest void
				if !taken[i] && (at < 0 || dense[i] < dense[at]) {
					at = i
				}
			}
		}
		taken[at] = true
		out[at] = uint8(rank * 64 / n)
		for i := range n {
			dx, dy := (i%noiseSide-at%noiseSide+noiseSide)%noiseSide, (i/noiseSide-at/noiseSide+noiseSide)%noiseSide
			dense[i] += falls[dy*noiseSide+dx]
		}
	}
	return out
})
