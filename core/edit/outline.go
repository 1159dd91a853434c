package edit

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/shape"
	"capstan/core/words"
)

// OutlineShapes makes shapes drawn paths with the same outline. What hangs on their size, such as gradients, goes by the outline's box then.
type OutlineShapes struct {
	IDs []string `json:"ids"`
}

// Op is its name on the wire.
func (c *OutlineShapes) Op() string { return "layer.outline" }

func (c *OutlineShapes) apply(e *editor) error {
	for _, id := range c.IDs {
		l, _, _, err := e.layer(id)
		if err != nil {
			return err
		}
		if !l.IsShape() {
			return words.New("shape.none", l.Name)
		}
		p := &geom.Path{}
		for _, part := range shape.Of(l).Parts() {
			p.Append(part.Path, geom.Identity)
		}
		l.Kind, l.Path, l.Shape, l.Corner = doc.PathKind, p.Data(), nil, 0
		l.Place.W, l.Place.H = 0, 0
	}
	return nil
}
