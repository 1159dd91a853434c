package overlay

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/scope"
	"capstan/core/shape"
)

// Crop is all of a picture of which its frame shows a part.
type Crop struct {
	Media string        `json:"media"`
	Shows string        `json:"shows"` // what is seen of the file: its hash, and of a cut-out that of the mask
	Size  [2]int        `json:"size"`  // of its file, px
	Place [6]float64    `json:"place"` // maps 1 by 1 of all of it to the page
	Frame [4][2]float64 `json:"frame"` // corners of its frame, as of boxes
	Whole [4][2]float64 `json:"whole"` // those of all of it
}

func (s *Overlays) cropOf(l *doc.Layer) *Crop {
	f, ok := shape.FramedOf(l)
	if !ok {
		return nil
	}
	own, _, ok := s.Player.Axes(l.ID)
	if !ok {
		return nil
	}
	m := own.Mul(geom.Rotate(f.Turn)).Mul(geom.Translate(geom.Point{X: -f.At.X * f.Whole.X, Y: -f.At.Y * f.Whole.Y})).Mul(geom.Scale(f.Whole.X, f.Whole.Y))
	c := &Crop{Media: l.Picture.Media, Shows: l.Picture.Shows(), Place: [6]float64{m.A, m.B, m.C, m.D, m.E, m.F}}
	if v := s.Doc.Media[c.Media]; v != nil {
		c.Size = [2]int{v.Width, v.Height}
	}
	unit := geom.Box{Max: geom.Point{X: 1, Y: 1}}
	frame := geom.Box{Min: f.Frame.Mul(-0.5), Max: f.Frame.Mul(0.5)}
	for i, q := range unit.Corners() {
		c.Whole[i] = geom.Pair(m.Apply(q))
	}
	for i, q := range frame.Corners() {
		c.Frame[i] = geom.Pair(own.Apply(q))
	}
	return c
}

// Along is the outline of a layer as one closed line on a picture, in px of its file: with it that can be cut out. Several lines are joined by stretches there and
// back, which the even-odd rule does not count. There is none where one of both is not in the scene, or has no outline.
func (s *Overlays) Along(m scope.Moment, picture, thread string) [][2]float64 {
	l, o := s.Layers(m, []string{picture}), s.Layers(m, []string{thread})
	if len(l) != 1 || l[0].Picture == nil || len(o) != 1 {
		return nil
	}
	s.Stand(m)
	c := s.cropOf(l[0])
	own, _, ok := s.Player.Axes(o[0].ID)
	outline, err := s.Shown.Outline(s.SceneIndex(m), o[0].ID)
	if c == nil || !ok || err != nil {
		return nil
	}
	onto, ok := geom.Matrix{A: c.Place[0], B: c.Place[1], C: c.Place[2], D: c.Place[3], E: c.Place[4], F: c.Place[5]}.Inverse()
	if !ok {
		return nil
	}
	onto = geom.Scale(float64(c.Size[0]), float64(c.Size[1])).Mul(onto).Mul(own)
	var line [][2]float64
	for _, polygon := range geom.Polygons(outline) {
		for _, q := range append(polygon, polygon[0]) {
			line = append(line, geom.Pair(onto.Apply(q)))
		}
		if len(line) > len(polygon)+1 {
			line = append(line, line[0])
		}
	}
	return line
}
