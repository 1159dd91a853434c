package edit

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/series"
)

// shiftChanges moves what the changes of a layer bring it to, which is given in its parent's axes, along with it.
func shiftChanges(l *doc.Layer, dx, dy float64) {
	series.Becoming(l, func(b *doc.Becomes) {
		if b.X != nil {
			*b.X = round(*b.X + dx)
		}
		if b.Y != nil {
			*b.Y = round(*b.Y + dy)
		}
	})
}

// mapChanges brings what the changes of a layer name of its place to other axes; it is called before the layer itself is.
func mapChanges(l *doc.Layer, m geom.Matrix) {
	x, y := l.Place.X, l.Place.Y
	series.Becoming(l, func(b *doc.Becomes) {
		if b.X != nil || b.Y != nil {
			if b.X != nil {
				x = *b.X
			}
			if b.Y != nil {
				y = *b.Y
			}
			p := m.Apply(geom.Point{X: x, Y: y})
			px, py := round(p.X), round(p.Y)
			b.X, b.Y = &px, &py
		}
		if b.Turn != nil && (m.A != 1 || m.B != 0) {
			*b.Turn += geom.AngleOf(m)
		}
	})
}

// scaleChanges scales what the changes of a layer name of its size, along its own axes.
func scaleChanges(l *doc.Layer, kx, ky float64) error {
	var failed error
	series.Becoming(l, func(b *doc.Becomes) {
		if b.W != nil {
			*b.W = round(*b.W * kx)
		}
		if b.H != nil {
			*b.H = round(*b.H * ky)
		}
		if b.Path != nil {
			d, err := scaledData(*b.Path, kx, ky)
			if err != nil {
				failed = err
			}
			*b.Path = d
		}
	})
	return failed
}
