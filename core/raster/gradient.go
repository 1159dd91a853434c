package raster

import (
	"image"
	"math"
	"slices"

	"capstan/core/geom"
	"capstan/core/paint"
)

// ink is what an outline is filled with, in device px.
type ink struct {
	colour   uint32 // premultiplied, where there is neither gradient nor texture
	texture  *image.RGBA
	opaqueAt bool // the texture lets nothing through
	gradient *paint.Gradient
	m        geom.Matrix // device to the gradient's axes
	alpha    uint32
	table    []uint32
}

// tableSize is the number of colours a gradient is cut into; one whose stops lie so close that a step would show is
// worked out pixel by pixel instead.
const tableSize = 4096

func sharp(g *paint.Gradient) bool {
	for i := 1; i < len(g.Stops); i++ {
		a, b := g.Stops[i-1], g.Stops[i]
		if b.At-a.At < 1.0/16 && a.Colour != b.Colour {
			return true
		}
	}
	return false
}

// tables keeps the colours of the gradients used last.
type tables struct{ kept []tableOf }

type tableOf struct {
	stops  []paint.Stop
	colour []uint32
}

func (t *tables) of(g *paint.Gradient) []uint32 {
	if sharp(g) {
		return nil
	}
	for _, k := range t.kept {
		if slices.Equal(k.stops, g.Stops) {
			return k.colour
		}
	}
	if len(t.kept) >= 64 {
		t.kept = t.kept[1:]
	}
	colour := make([]uint32, tableSize+1)
	for i := range colour {
		colour[i] = premultiplied(g.At(float64(i) / tableSize))
	}
	t.kept = append(t.kept, tableOf{slices.Clone(g.Stops), colour})
	return colour
}

// at returns the pixel at a share of the gradient.
func (k *ink) at(t float64) uint32 {
	if k.table == nil {
		return premultiplied(k.gradient.At(t))
	}
	return k.table[int(min(max(t, 0), 1)*tableSize+0.5)]
}

// row paints a run of pixels of row y from x0 on, at cover cov.
func (k *ink) row(row []byte, y, x0 int, cov uint32) {
	if k.texture != nil {
		k.tiled(row, y, x0, cov)
		return
	}
	if k.gradient == nil {
		solid(row, k.colour, cov)
		return
	}
	cov = div255(cov * k.alpha)
	at := k.m.Apply(geom.Point{X: float64(x0) + 0.5, Y: float64(y) + 0.5})
	for i := 0; i < len(row); i += 4 {
		// From the start of the page, not of the run: a part painted again must come out the same.
		x := float64(x0+i/4) + 0.5
		at.X = k.m.A*x + k.m.C*(float64(y)+0.5) + k.m.E
		if k.gradient.Radial {
			at.Y = k.m.B*x + k.m.D*(float64(y)+0.5) + k.m.F
		}
		t := at.X
		if k.gradient.Radial {
			if k.gradient.Focus == [2]float64{} {
				t = math.Sqrt(at.X*at.X + at.Y*at.Y)
			} else {
				t = k.gradient.Share(at.X, at.Y)
			}
		}
		p := scaled(k.at(t), cov)
		if a := p >> 24; a < 255 {
			if a == 0 {
				continue
			}
			p = over(load(row, i), p)
		}
		store(row, i, p)
	}
}

// clear reports whether nothing of it would show.
func (k *ink) clear() bool {
	if k.gradient == nil && k.texture == nil {
		return k.colour>>24 == 0
	}
	return k.alpha == 0
}

// opaque reports whether it hides all that it covers.
func (k *ink) opaque() bool {
	if k.texture != nil {
		return k.alpha == 255 && k.opaqueAt
	}
	if k.gradient == nil {
		return k.colour>>24 == 255
	}
	return k.alpha == 255 && k.gradient.Opaque()
}
