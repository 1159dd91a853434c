package overlay

import (
	"capstan/core/geom"
	"capstan/core/scope"
)

// Frame is what part of the page a scene shows.
type Frame struct {
	Thread  string        `json:"thread"`
	Name    string        `json:"name"`
	Corners [4][2]float64 `json:"corners"` // page px, from its upper left clockwise
	Zoom    float64       `json:"zoom"`    // how many times as large it shows the page
}

// ViewFrame returns the frame of the moment's scene at rest; nil where it shows all of the page, and in time, when the page is what it shows.
func (s *Overlays) ViewFrame(m scope.Moment) *Frame {
	l := s.Scene(m).View()
	if l == nil || !m.Rest {
		return nil
	}
	i := s.SceneIndex(m)
	box, _ := s.Shown.Box(i, l.ID)
	at := s.Shown.RestMatrix(i, l.ID)
	f := &Frame{Thread: l.Thread, Name: l.Name, Zoom: float64(s.Doc.Film.Width) / max(l.Place.W, 1e-9)}
	for k, q := range box.Corners() {
		f.Corners[k] = geom.Pair(at.Apply(q))
	}
	return f
}
