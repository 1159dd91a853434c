package overlay

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/scope"
)

// GradientLine is a gradient as it lies on the page, to be taken by its points.
type GradientLine struct {
	Radial bool         `json:"radial"`
	From   [2]float64   `json:"from"`
	To     [2]float64   `json:"to"`
	Focus  [2]float64   `json:"focus"`
	Rim    [][2]float64 `json:"rim"` // of a radial one: its circle as it is seen, 48 points
	Stops  []GradientAt `json:"stops"`
}

// GradientAt is a colour of a gradient on the page.
type GradientAt struct {
	At     [2]float64 `json:"at"`
	Colour string     `json:"colour"`
}

// lineOf returns the gradient of a layer's fill as it lies on the page.
func (s *Overlays) lineOf(m scope.Moment, l *doc.Layer) *GradientLine {
	own, _, ok := s.Player.Axes(l.ID)
	if !ok {
		return nil
	}
	box, _ := s.Shown.Box(s.SceneIndex(m), l.ID)
	return gradientLine(l.Fill, box, own)
}

// BackgroundLine returns the gradient of the background of the moment's scene; nil where it has none.
func (s *Overlays) BackgroundLine(m scope.Moment) *GradientLine {
	return gradientLine(s.Scene(m).Background, s.Page(), geom.Identity)
}

// gradientLine returns the gradient of a fill over a box, seen through own; nil where it has none.
func gradientLine(f doc.Fill, box geom.Box, own geom.Matrix) *GradientLine {
	if !f.Graded() || f.Gradient == nil {
		return nil
	}
	g := f.Gradient
	at := func(v [2]float64) geom.Point { return geom.AtShares(box, v) }
	from, to := at(g.From), at(g.To)
	v := &GradientLine{Radial: f.Kind == doc.Radial, From: geom.Pair(own.Apply(from)), To: geom.Pair(own.Apply(to)), Stops: []GradientAt{}, Rim: [][2]float64{}}
	begin := from
	if g.Focus != nil {
		begin = at(*g.Focus)
	}
	v.Focus = geom.Pair(own.Apply(begin))
	for _, stop := range g.Stops {
		v.Stops = append(v.Stops, GradientAt{geom.Pair(own.Apply(begin.Lerp(to, stop.At))), stop.Colour})
	}
	if v.Radial {
		r := to.Sub(from)
		for i := range 48 {
			v.Rim = append(v.Rim, geom.Pair(own.Apply(from.Add(geom.Rotate(float64(i)*7.5).ApplyVector(r)))))
		}
	}
	return v
}
