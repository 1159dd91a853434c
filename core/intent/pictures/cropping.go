package pictures

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/shape"
	"capstan/core/words"
)

var croppingAsked = intent.Table{
	// Pictures are cut off at their sides: what is still seen of them stays where it is, the frame goes.
	"crop.sides": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Left    *float64 `json:"left"` // shares of the picture that are cut off
		Top     *float64 `json:"top"`
		Right   *float64 `json:"right"`
		Bottom  *float64 `json:"bottom"`
	}) (edit.Command, error) {
		return cropped(s, m, c.Threads, func(l *doc.Layer, is doc.Crop) (doc.Crop, bool) {
			for k, v := range []*float64{c.Left, c.Top, c.Right, c.Bottom} {
				switch {
				case v == nil:
				case k < 2:
					is[k] = *v
				default:
					is[k] = 1 - *v
				}
			}
			return is, false
		})
	}),
	// Pictures are cut to a ratio of their sides, about the middle of what is seen of them; without one they are whole again.
	"crop.ratio": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Across  float64  `json:"across"`
		Down    float64  `json:"down"`
	}) (edit.Command, error) {
		return cropped(s, m, c.Threads, func(l *doc.Layer, is doc.Crop) (doc.Crop, bool) {
			if !(c.Across > 0) || !(c.Down > 0) {
				return doc.Uncropped, false
			}
			return narrowed(is, c.Across/c.Down*l.Place.H/l.Place.W), false
		})
	}),
	// Pictures fill the frames that they have, in their own proportions: what does not fit is cut off evenly.
	"crop.fill": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		return cropped(s, m, c.Threads, func(l *doc.Layer, _ doc.Crop) (doc.Crop, bool) {
			file := s.Doc.Media[l.Picture.Media]
			if file == nil || file.Width < 1 || file.Height < 1 {
				return doc.Uncropped, true
			}
			return narrowed(doc.Uncropped, l.Place.W/l.Place.H*float64(file.Height)/float64(file.Width)), true
		})
	}),
	// The clear margins of pictures are cut off; what is seen of them stays where it is.
	"crop.trim": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		trims := false
		cut, err := cropped(s, m, c.Threads, func(l *doc.Layer, is doc.Crop) (doc.Crop, bool) {
			file := s.Doc.Media[l.Picture.Media]
			if file == nil || file.Shown == nil || l.Picture.Turn != 0 {
				return is, false
			}
			v := file.Shown
			next := doc.Crop{max(is[0], v[0]), max(is[1], v[1]), min(is[2], v[2]), min(is[3], v[3])}
			if next[2]-next[0] < shape.LeastCrop || next[3]-next[1] < shape.LeastCrop {
				return is, false // nothing but margins is seen of it
			}
			trims = trims || next != is
			return next, false
		})
		if err == nil && !trims {
			return nil, words.New("picture.full")
		}
		return cut, err
	}),
	// Pictures get frames as large as that of the first, and fill them: as much larger than just covers these as they were.
	"crop.same": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		var first *shape.Framed
		count := 0
		cut, err := reframed(s, m, c.Threads, func(_ *doc.Layer, f shape.Framed) shape.Framed {
			if count++; first == nil {
				first = &f
				return f
			}
			zoom := f.Zoom()
			f.Frame = first.Frame
			return f.Zoomed(zoom / f.Zoom())
		})
		if err == nil && count < 2 {
			return nil, words.New("arrange.two")
		}
		return cut, err
	}),
	// Pictures are whole, in the largest frame of their proportions that lies in the one they had.
	"crop.fit": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		return reframed(s, m, c.Threads, func(l *doc.Layer, f shape.Framed) shape.Framed {
			k := min(f.Frame.X/f.Whole.X, f.Frame.Y/f.Whole.Y)
			f.At, f.Turn, f.Whole = geom.Point{X: 0.5, Y: 0.5}, 0, f.Whole.Mul(k)
			f.Frame = f.Whole
			return f
		})
	}),
	// Pictures are shown larger in frames that stay: 1 is as large as just covers them.
	"crop.zoom": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Zoom    float64  `json:"zoom"`
		By      float64  `json:"by"` // times as large as they are, instead
	}) (edit.Command, error) {
		if c.Zoom < 1 && c.By <= 0 {
			return nil, words.New("picture.zoom")
		}
		return reframed(s, m, c.Threads, func(_ *doc.Layer, f shape.Framed) shape.Framed {
			if c.By > 0 {
				return f.Zoomed(c.By)
			}
			return f.Zoomed(c.Zoom / f.Zoom())
		})
	}),
	// Pictures go by px of the page in frames that stay, as far as they cover them.
	"crop.pan": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		DX      float64  `json:"dx"`
		DY      float64  `json:"dy"`
	}) (edit.Command, error) {
		return reframed(s, m, c.Threads, func(l *doc.Layer, f shape.Framed) shape.Framed {
			i := s.SceneIndex(m)
			inv, ok := s.Shown.Ancestry(i, l.ID).Mul(s.Shown.RestMatrix(i, l.ID)).Inverse()
			if !ok {
				return f
			}
			return f.Panned(inv.ApplyVector(geom.Point{X: c.DX, Y: c.DY}))
		})
	}),
	// Pictures are turned in frames that stay, and enlarged where these would be bare.
	"crop.turn": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Turn    float64  `json:"turn"` // degrees clockwise
	}) (edit.Command, error) {
		return reframed(s, m, c.Threads, func(_ *doc.Layer, f shape.Framed) shape.Framed {
			f.Turn = c.Turn
			return f.Covered()
		})
	}),
}

// reframed returns the command by which pictures lie in their frames as to says; the middles of these stay.
func reframed(s *intent.Desk, m scope.Moment, threads []string, to func(*doc.Layer, shape.Framed) shape.Framed) (edit.Command, error) {
	var set []edit.Part
	for _, l := range s.Layers(m, threads) {
		if f, ok := shape.FramedOf(l); ok {
			set = append(set, edit.Framed(l, to(l, f), geom.Point{}))
		}
	}
	if len(set) == 0 {
		return nil, words.New("picture.unselected")
	}
	return &edit.SetLayers{Set: set}, nil
}

// narrowed is the largest part of a crop, about its middle, that is so many times as wide as high as that is.
func narrowed(is doc.Crop, ratio float64) doc.Crop {
	w, h := is[2]-is[0], is[3]-is[1]
	if ratio < 1 {
		by := w * (1 - ratio) / 2
		is[0], is[2] = is[0]+by, is[2]-by
	} else {
		by := h * (1 - 1/ratio) / 2
		is[1], is[3] = is[1]+by, is[3]-by
	}
	return is
}

// cropped returns the command by which pictures show another part; to says which, and whether their frames stay: else what is seen stays where it is.
func cropped(s *intent.Desk, m scope.Moment, threads []string, to func(l *doc.Layer, is doc.Crop) (doc.Crop, bool)) (edit.Command, error) {
	var set []edit.Part
	for _, l := range s.Layers(m, threads) {
		if l.Picture == nil || !(l.Place.W > 0) || !(l.Place.H > 0) {
			continue
		}
		is := l.Picture.Cropped()
		next, stays := to(l, is)
		if !(next[2]-next[0] >= shape.LeastCrop && next[3]-next[1] >= shape.LeastCrop && next[0] >= 0 && next[1] >= 0 && next[2] <= 1 && next[3] <= 1) {
			return nil, words.New("picture.crop")
		}
		f, _ := shape.FramedOf(l)
		mid := geom.Point{X: (next[0] + next[2]) / 2, Y: (next[1] + next[3]) / 2}
		size := geom.Point{X: next[2] - next[0], Y: next[3] - next[1]}
		if stays {
			f.At, f.Whole = mid, geom.Point{X: f.Frame.X / size.X, Y: f.Frame.Y / size.Y}
			set = append(set, edit.Framed(l, f, geom.Point{}))
			continue
		}
		by := geom.Rotate(f.Turn).ApplyVector(geom.Point{X: (mid.X - f.At.X) * f.Whole.X, Y: (mid.Y - f.At.Y) * f.Whole.Y})
		f.At, f.Frame = mid, geom.Point{X: size.X * f.Whole.X, Y: size.Y * f.Whole.Y}
		if next == doc.Uncropped {
			f.Turn = 0
		}
		set = append(set, edit.Framed(l, f, by))
	}
	if len(set) == 0 {
		return nil, words.New("picture.unselected")
	}
	return &edit.SetLayers{Set: set}, nil
}
