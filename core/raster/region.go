package raster

import (
	"image"
	"math/bits"
)

// Tiles of damage. Sides are even, since chroma is halved; the last row and column of a picture are partial.
const (
	tileW = 32
	tileH = 16
)

// Region is a set of tiles of a picture.
type Region struct {
	box        image.Rectangle // of the picture
	cols, rows int
	words      int
	bits       []uint64
	spans      [][][2]int // runs of px by row of tiles, made when asked for
	n          int
}

// NewRegion returns the empty region of a picture w px wide and h px high.
func NewRegion(w, h int) *Region {
	r := &Region{box: image.Rect(0, 0, w, h), cols: (w + tileW - 1) / tileW, rows: (h + tileH - 1) / tileH}
	r.words = (r.cols + 63) / 64
	r.bits, r.spans = make([]uint64, r.words*r.rows), make([][][2]int, r.rows)
	return r
}

// Clear empties the region.
func (r *Region) Clear() {
	clear(r.bits)
	r.n = 0
	r.forget()
}

func (r *Region) forget() {
	for i := range r.spans {
		r.spans[i] = r.spans[i][:0]
	}
}

// Add adds the tiles that a box touches.
func (r *Region) Add(box image.Rectangle) {
	box = box.Intersect(r.box)
	if box.Empty() {
		return
	}
	for ty := box.Min.Y / tileH; ty <= (box.Max.Y-1)/tileH; ty++ {
		for tx := box.Min.X / tileW; tx <= (box.Max.X-1)/tileW; tx++ {
			w := &r.bits[ty*r.words+tx/64]
			if *w&(1<<(tx%64)) == 0 {
				*w |= 1 << (tx % 64)
				r.n++
			}
		}
	}
	r.forget()
}

// All adds every tile.
func (r *Region) All() { r.Add(r.box) }

// Empty reports whether there is no tile in the region.
func (r *Region) Empty() bool { return r.n == 0 }

// Full reports whether every tile is in the region.
func (r *Region) Full() bool { return r.n == r.cols*r.rows }

// Share returns how much of the picture the region takes, 0..1.
func (r *Region) Share() float64 { return float64(r.n) / float64(max(1, r.cols*r.rows)) }

// runs returns the runs of px of row y, from left to right.
func (r *Region) runs(y int) [][2]int {
	ty := y / tileH
	if len(r.spans[ty]) > 0 {
		return r.spans[ty]
	}
	out := r.spans[ty]
	for k := 0; k < r.words; k++ {
		for w := r.bits[ty*r.words+k]; w != 0; {
			from := bits.TrailingZeros64(w)
			n := bits.TrailingZeros64(^(w >> from))
			x0, x1 := (64*k+from)*tileW, min((64*k+from+n)*tileW, r.box.Max.X)
			if m := len(out); m > 0 && out[m-1][1] == x0 {
				out[m-1][1] = x1
			} else {
				out = append(out, [2]int{x0, x1})
			}
			if from+n >= 64 {
				break
			}
			w &^= 1<<(from+n) - 1
		}
	}
	r.spans[ty] = out
	return out
}

// Touches reports whether any tile of the region lies under a box.
func (r *Region) Touches(box image.Rectangle) bool {
	box = box.Intersect(r.box)
	if box.Empty() {
		return false
	}
	for ty := box.Min.Y / tileH; ty <= (box.Max.Y-1)/tileH; ty++ {
		for _, run := range r.runs(ty * tileH) {
			if run[0] < box.Max.X && run[1] > box.Min.X {
				return true
			}
		}
	}
	return false
}

// Bounds returns the smallest box that holds the region.
func (r *Region) Bounds() image.Rectangle {
	var b image.Rectangle
	for ty := 0; ty < r.rows; ty++ {
		if runs := r.runs(ty * tileH); len(runs) > 0 {
			b = b.Union(image.Rect(runs[0][0], ty*tileH, runs[len(runs)-1][1], min((ty+1)*tileH, r.box.Max.Y)))
		}
	}
	return b
}

// Each calls f with boxes that make up the region, row by row.
func (r *Region) Each(f func(image.Rectangle)) {
	for ty := 0; ty < r.rows; ty++ {
		for _, run := range r.runs(ty * tileH) {
			f(image.Rect(run[0], ty*tileH, run[1], min((ty+1)*tileH, r.box.Max.Y)))
		}
	}
}
