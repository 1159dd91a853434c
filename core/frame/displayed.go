package frame

import (
	"capstan/core/display"
	"capstan/core/geom"
	"capstan/core/state"
)

// What a film is shown by is told as lists have it.
type (
	List    = display.List
	Effects = state.Effects
	Paint   = state.Paint
	Texture = state.Texture
)

// fill writes an outline that the film stores.
func (p *Player) fill(key uint32, m geom.Matrix, paint *Paint, alpha float64) {
	p.list.Fill(key, p.film.Geometry.Bounds(key), m, paint, alpha)
}
