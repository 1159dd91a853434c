package doc

// Styles of markers.
const (
	Dots  = "dots"
	Bars  = "bars"
	Count = "count" // "2 of 4"
)

// Marker says which scene this is among those its thread lives in.
type Marker struct {
	Style string `json:"style"` // dots, bars, count
}

var markerKind = &Kind{
	Name: MarkerKind, Words: "Marker", Filled: true,
	check: func(c *checker, at string, l *Layer) bool {
		if l.Marker == nil {
			c.fail(at+".marker", "is missing")
			return false
		}
		c.oneOf(at+".marker.style", l.Marker.Style, Dots, Bars, Count)
		return true
	},
	held: holds(func(l *Layer) **Marker { return &l.Marker }, nil, equal[Marker]),
}
