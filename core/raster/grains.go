package raster

import (
	"math"

	"capstan/core/display"
	"capstan/core/geom"
)

// grainy reports whether a veil is nothing but grains along the axes of the device: it goes cell by cell then, instead of pixel by pixel.
func (v *veil) grainy() bool {
	if len(v.terms) != 1 || v.terms[0] != display.VeilNoise {
		return false
	}
	r := &v.reveals[0]
	return r.v[2] == 0 && r.inv.B == 0 && r.inv.C == 0 && r.inv.A != 0
}

// sprinkle takes what is on s down to the grains that show. A pixel belongs to the cell that its middle lies in, as in at.
func (r *reveal) sprinkle(s *surface) {
	box := s.dirty
	column := func(x int) float64 {
		return math.Floor(r.inv.Apply(geom.Point{X: float64(x) + 0.5, Y: 0.5}).X / r.v[1])
	}
	// Where the columns of cells begin; the same in every row.
	var edges []int
	for x := box.Min.X; x < box.Max.X; {
		i := column(x)
		edges = append(edges, x)
		far := (i+1)*r.v[1] - r.inv.E
		if r.inv.A < 0 {
			far = i*r.v[1] - r.inv.E
		}
		end := max(x+1, int(math.Ceil(far/r.inv.A-0.5)))
		for end > x+1 && column(end-1) != i {
			end--
		}
		for column(end) == i && end < box.Max.X {
			end++
		}
		x = end
	}
	edges = append(edges, box.Max.X)
	var shares []uint32
	row0 := math.NaN()
	for y := box.Min.Y; y < box.Max.Y; y++ {
		if j := math.Floor(r.inv.Apply(geom.Point{X: 0.5, Y: float64(y) + 0.5}).Y / r.v[1]); j != row0 {
			row0, shares = j, shares[:0]
			for _, x := range edges[:len(edges)-1] {
				shares = append(shares, uint32(min(1, max(0, r.at(float64(x)+0.5, float64(y)+0.5)))*255+0.5))
			}
		}
		for k, share := range shares {
			x0, x1 := edges[k], min(edges[k+1], box.Max.X)
			switch share {
			case 255:
			case 0:
				clear(s.row(y, x0, x1))
			default:
				row := s.row(y, x0, x1)
				for i := 0; i < len(row); i += 4 {
					store(row, i, scaled(load(row, i), share))
				}
			}
		}
	}
}
