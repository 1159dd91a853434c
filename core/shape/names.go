package shape

import (
	"capstan/core/doc"
)

// ShapeNames are what layers of a kind are called.
var ShapeNames = map[string]string{
	doc.Rectangle: "Rectangle", doc.Ellipse: "Ellipse", doc.Line: "Line", doc.Arrow: "Arrow", doc.Polygon: "Polygon", doc.Star: "Star", doc.Ring: "Ring",
	doc.Sector: "Sector", doc.Bubble: "Bubble", doc.Cross: "Cross", doc.Heart: "Heart", doc.Cloud: "Cloud", doc.Wave: "Wave band", doc.Ribbon: "Ribbon",
}
