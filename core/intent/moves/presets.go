package moves

import (
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/motion"
	"capstan/core/scope"
	"capstan/core/words"
)

// bending is which line a path is to have; numbers that are not given stay, or are as for a new one.
type bending struct {
	Move   string   `json:"move"`
	Shape  string   `json:"shape"` // straight, level, upright, arc, wave, ellipse, free
	Height *float64 `json:"height"`
	Count  *float64 `json:"count"`
	Width  *float64 `json:"width"`
	Start  *float64 `json:"start"`
	Back   *bool    `json:"back"`
}

var presetsAsked = intent.Table{
	// The line of a path, between the ends it has, by its numbers; or a free curve to be drawn on.
	"path.bend": intent.Of(func(s *intent.Desk, _ scope.Moment, c *bending) (edit.Command, error) { return bend(s, c) }),
}

// highest is the height or width of a line at most, px.
const highest = 1e5

func bend(s *intent.Desk, c *bending) (edit.Command, error) {
	_, p, err := pathOf(s, c.Move)
	if err != nil {
		return nil, err
	}
	a, b := p.Points[0], p.Points[len(p.Points)-1]
	is := motion.PresetOf(p)
	line, axis := &geom.Path{}, any(nil)
	far := b.Sub(a).Len()
	if far < 1 { // it comes back: a line of any other kind goes as far as it is wide
		if far = is.Width; far < 1 {
			far = math.Round(float64(s.Doc.Film.Width) * 0.25)
		}
		if c.Shape != motion.Ellipse {
			b = a.Add(geom.Point{X: far})
		}
	}
	switch c.Shape {
	case motion.Straight:
		line = (&motion.Preset{Shape: motion.Straight}).Path(a, b)
	case doc.Level, doc.Upright:
		axis = c.Shape
		line = (&motion.Preset{Shape: motion.Straight}).Path(a, onAxis(c.Shape, a, b, far))
	case motion.Arc, motion.Wave, motion.Ellipse:
		if is.Shape != c.Shape {
			is = presets[c.Shape]
			is.Height, is.Width = math.Round(is.Height*far), math.Round(is.Width*far)
		}
		for _, v := range []struct {
			given, of   *float64
			least, most float64
		}{{c.Height, &is.Height, -highest, highest}, {c.Count, &is.Count, 0.5, motion.MaxWaves}, {c.Width, &is.Width, 0, highest}, {c.Start, &is.Start, -1e4, 1e4}} {
			if v.given != nil {
				if !(*v.given >= v.least && *v.given <= v.most) {
					return nil, words.New("path.number", *v.given, v.least, v.most)
				}
				*v.of = *v.given
			}
		}
		is.Count = math.Round(is.Count*2) / 2
		if c.Back != nil {
			is.Back = *c.Back
		}
		line = is.Path(a, b)
	case motion.Free:
		d := b.Sub(a)
		up := geom.Point{X: d.Y, Y: -d.X}
		at := func(share, high float64) geom.Point { return a.Add(d.Mul(share)).Add(up.Mul(high)) }
		line.Move(a)
		line.Cubic(at(0.15, 0.14), at(0.35, 0.14), at(0.5, 0))
		line.Cubic(at(0.65, -0.14), at(0.85, -0.14), b)
	default:
		return nil, words.New("path.shape", c.Shape)
	}
	return edit.SetMove(c.Move, edit.Fields{"path": edit.Fields{"d": line.Data(), "axis": axis}}), nil
}

// onAxis is where a line from a ends that is dead level, or upright: as far along that as b is, or in all where it is not.
func onAxis(axis string, a, b geom.Point, far float64) geom.Point {
	d := b.Sub(a)
	along, across := &d.X, &d.Y
	if axis == doc.Upright {
		along, across = across, along
	}
	if math.Abs(*along) < 1 {
		*along = far
		if axis == doc.Upright && *across <= 0 {
			*along = -far // it rises
		}
	}
	*across = 0
	return a.Add(d)
}
