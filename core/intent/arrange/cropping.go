package arrange

import (
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

// leastCrop is the smallest part of a picture, each way, that can be shown, as a share of it.
const leastCrop = 0.001

var croppingAsked = intent.Table{
	// Pictures are cut off at their sides: what is still seen of them stays where it is, the frame goes.
	"crop.sides": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Left    *float64 `json:"left"` // shares of the picture that are cut off
		Top     *float64 `json:"top"`
		Right   *float64 `json:"right"`
		Bottom  *float64 `json:"bottom"`
	}) (edit.Command, error) {
		return cropped(s, m, c.Threads, func(l *doc.Layer, is [4]float64) ([4]float64, bool) {
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
		return cropped(s, m, c.Threads, func(l *doc.Layer, is [4]float64) ([4]float64, bool) {
			if !(c.Across > 0) || !(c.Down > 0) {
				return whole, false
			}
			return narrowed(is, c.Across/c.Down*l.Place.H/l.Place.W), false
		})
	}),
	// Pictures fill the frames that they have, in their own proportions: what does not fit is cut off evenly.
	"crop.fill": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		return cropped(s, m, c.Threads, func(l *doc.Layer, _ [4]float64) ([4]float64, bool) {
			file := s.Doc.Media[l.Picture.Media]
			if file == nil || file.Width < 1 || file.Height < 1 {
				return whole, true
			}
			return narrowed(whole, l.Place.W/l.Place.H*float64(file.Height)/float64(file.Width)), true
		})
	}),
}

var whole = [4]float64{0, 0, 1, 1}

// narrowed is the largest part of a crop, about its middle, that is so many times as wide as high as that is.
func narrowed(is [4]float64, ratio float64) [4]float64 {
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
func cropped(s *intent.Desk, m scope.Moment, threads []string, to func(l *doc.Layer, is [4]float64) ([4]float64, bool)) (edit.Command, error) {
	var set []edit.Part
	for _, l := range s.Layers(m, threads) {
		if l.Picture == nil || !(l.Place.W > 0) || !(l.Place.H > 0) {
			continue
		}
		is := whole
		if l.Picture.Crop != nil {
			is = *l.Picture.Crop
		}
		next, stays := to(l, is)
		if !(next[2]-next[0] >= leastCrop && next[3]-next[1] >= leastCrop && next[0] >= 0 && next[1] >= 0 && next[2] <= 1 && next[3] <= 1) {
			return nil, words.New("picture.crop")
		}
		for k := range next {
			next[k] = math.Round(next[k]*1e6) / 1e6
		}
		patch := edit.Fields{"picture": edit.Fields{"crop": next}}
		if next == whole {
			patch["picture"] = edit.Fields{"crop": nil}
		}
		if !stays {
			patch["place"] = framed(l, is, next)
		}
		set = append(set, edit.Part{ID: l.ID, Patch: patch})
	}
	if len(set) == 0 {
		return nil, words.New("picture.unselected")
	}
	return &edit.SetLayers{Set: set}, nil
}

// framed is the place at which what a picture shows by another crop lies where it did.
func framed(l *doc.Layer, is, next [4]float64) edit.Fields {
	w, h := l.Place.W/(is[2]-is[0]), l.Place.H/(is[3]-is[1]) // of the whole picture
	by := geom.Point{X: ((next[0] + next[2]) - (is[0] + is[2])) / 2 * w, Y: ((next[1] + next[3]) - (is[1] + is[3])) / 2 * h}
	place := edit.Fields{"w": geom.Hundredth((next[2] - next[0]) * w), "h": geom.Hundredth((next[3] - next[1]) * h)}
	if v := l.Place.Pivot; v != nil { // it stays where it is, in axes whose origin has gone on
		place["pivot"] = [2]float64{v[0] - by.X, v[1] - by.Y}
	}
	if l.Place.FlipX {
		by.X = -by.X
	}
	if l.Place.FlipY {
		by.Y = -by.Y
	}
	by = geom.Rotate(l.Place.Turn).ApplyVector(by)
	place["x"], place["y"] = geom.Hundredth(l.Place.X+by.X), geom.Hundredth(l.Place.Y+by.Y)
	return place
}
