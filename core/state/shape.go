package state

import (
	"capstan/core/doc"
	"capstan/core/shape"
)

// What shapes are made of is told as they do.
type (
	Spec = shape.Spec
	Part = shape.Part
)

// ShapeOf is the shape of a layer.
func ShapeOf(l *doc.Layer) Spec { return shape.Of(l) }

// ShapeBetween is a shape on its way from one to another of its kind.
func ShapeBetween(a, b Spec, p float64) Spec { return shape.Mix(a, b, p) }

// Tool is what draws, by its name.
func Tool(name string) []shape.ToolPart { return shape.Tool(name) }
