package pen

import (
	"strconv"
	"strings"
)

// Spot is a point, a handle or a place on a stretch, by its id: 0.3, 0.3.in, 0.3.out, or 0.3.on.0.25.
type Spot struct {
	Contour, Node int
	Part          string
	T             float64
}

// SpotOf reads the id of a spot on lines; false where they have none such.
func SpotOf(id string, list []Contour) (Spot, bool) {
	parts := strings.SplitN(id, ".", 4)
	if len(parts) < 2 {
		return Spot{}, false
	}
	c, err1 := strconv.Atoi(parts[0])
	n, err2 := strconv.Atoi(parts[1])
	if err1 != nil || err2 != nil || c < 0 || c >= len(list) || n < 0 || n >= len(list[c].Nodes) {
		return Spot{}, false
	}
	p := Spot{Contour: c, Node: n}
	if len(parts) > 2 {
		p.Part = parts[2]
	}
	if p.Part == "on" && len(parts) == 4 {
		t, err := strconv.ParseFloat(parts[3], 64)
		if err != nil || n >= list[c].Segments() {
			return Spot{}, false
		}
		p.T = t
	}
	return p, true
}
