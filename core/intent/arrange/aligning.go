package arrange

import (
	"math"
	"sort"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

// Typed gaps, px, lie between these.
const (
	minGap = -doc.MaxPlace
	maxGap = doc.MaxPlace
)

// maxSpread is by how many percent places are spread at once.
const maxSpread = 10000

// slight is how far, px, layers may lie from where they were put: places are stored in hundredths.
const slight = 0.02

// resting is a layer with the upright box that it fills on the page at rest.
type resting struct {
	layer *doc.Layer
	box   geom.Box
	outer geom.Matrix // from the axes its place is in to the page
}

// atRest returns the outermost of the chosen layers, in the order in which they were chosen.
func atRest(s *intent.Desk, m scope.Moment, threads []string) []resting {
	i := s.SceneIndex(m)
	var out []resting
	for _, l := range scope.Outermost(s.Scene(m), s.Layers(m, threads)) {
		box, _ := s.Shown.Box(i, l.ID)
		outer := s.Shown.Ancestry(i, l.ID)
		out = append(out, resting{l, outer.Mul(s.Shown.RestMatrix(i, l.ID)).ApplyBox(box), outer})
	}
	return out
}

// moved is the change that moves a layer on the page.
func (r *resting) moved(d geom.Point) edit.Part {
	if inv, ok := r.outer.Inverse(); ok {
		d = inv.ApplyVector(d)
	}
	return edit.PlaceOf(r.layer.ID, edit.Fields{"x": r.layer.Place.X + d.X, "y": r.layer.Place.Y + d.Y})
}

func united(list []resting) geom.Box {
	b := geom.EmptyBox()
	for _, r := range list {
		b = b.Union(r.box)
	}
	return b
}

// edge is where a box has an edge or its middle: along x left, centre, right; along y top, middle, bottom.
func edge(b geom.Box, name string) (at float64, down, ok bool) {
	switch name {
	case "left":
		return b.Min.X, false, true
	case "centre":
		return b.Centre().X, false, true
	case "right":
		return b.Max.X, false, true
	case "top":
		return b.Min.Y, true, true
	case "middle":
		return b.Centre().Y, true, true
	case "bottom":
		return b.Max.Y, true, true
	}
	return 0, false, false
}

func along(down bool, v float64) geom.Point {
	if down {
		return geom.Point{Y: v}
	}
	return geom.Point{X: v}
}

var aligningAsked = intent.Table{
	// Layers get one edge or middle, by the boxes they fill on the page at rest.
	"align": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Edge    string   `json:"edge"` // left, centre, right, top, middle, bottom
		To      string   `json:"to"`   // page, safe, first (the layer that was chosen first); else the box around all
	}) (edit.Command, error) {
		list := atRest(s, m, c.Threads)
		if len(list) == 0 {
			return nil, nil
		}
		to := united(list)
		switch c.To {
		case "page":
			to = s.SafeBox(1)
		case "safe":
			to = s.Safe()
		case "first":
			to = list[0].box
		}
		at, _, ok := edge(to, c.Edge)
		if !ok {
			return nil, words.New("intent.unreadable", "align", c.Edge)
		}
		var set []edit.Part
		for _, r := range list {
			now, down, _ := edge(r.box, c.Edge)
			if math.Abs(at-now) > slight {
				set = append(set, r.moved(along(down, at-now)))
			}
		}
		if len(set) == 0 {
			return nil, nil
		}
		return edit.SetPlaces(set), nil
	}),
	// Layers get equal gaps, or equal steps from middle to middle. The outermost two stay, or with a given gap the first.
	"distribute": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Down    bool     `json:"down"`
		Centres bool     `json:"centres"`
		Gap     *float64 `json:"gap"` // px
	}) (edit.Command, error) {
		list := atRest(s, m, c.Threads)
		if len(list) < 3 && c.Gap == nil || len(list) < 2 {
			return nil, words.New("arrange.three")
		}
		lo := func(b geom.Box) float64 { return map[bool]float64{false: b.Min.X, true: b.Min.Y}[c.Down] }
		size := func(b geom.Box) float64 { return map[bool]float64{false: b.W(), true: b.H()}[c.Down] }
		mid := func(b geom.Box) float64 { return lo(b) + size(b)/2 }
		sort.SliceStable(list, func(i, k int) bool { return mid(list[i].box) < mid(list[k].box) })
		first, last := list[0].box, list[len(list)-1].box
		sizes := 0.0
		for _, r := range list {
			sizes += size(r.box)
		}
		n := float64(len(list) - 1)
		gap := (lo(last) + size(last) - lo(first) - sizes) / n
		if c.Gap != nil {
			gap = min(max(*c.Gap, minGap), maxGap)
		}
		at := lo(first)
		var set []edit.Part
		for k, r := range list {
			to := at
			if c.Centres {
				to = mid(first) + (mid(last)-mid(first))*float64(k)/n - size(r.box)/2
			}
			if d := to - lo(r.box); math.Abs(d) > slight {
				set = append(set, r.moved(along(c.Down, d)))
			}
			at += size(r.box) + gap
		}
		if len(set) == 0 {
			return nil, nil
		}
		return edit.SetPlaces(set), nil
	}),
	// Layers become as wide, as high, or both, as the one that was chosen first.
	"same": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		What    string   `json:"what"` // width, height, both
	}) (edit.Command, error) {
		list := atRest(s, m, c.Threads)
		if len(list) < 2 {
			return nil, words.New("arrange.two")
		}
		box, _ := s.Shown.Box(s.SceneIndex(m), list[0].layer.ID)
		w, h := box.W(), box.H()
		pw, ph := &w, &h
		switch c.What {
		case "width":
			ph = nil
		case "height":
			pw = nil
		}
		var out []edit.Command
		for _, r := range list[1:] {
			out = append(out, place(s, m, r.layer, nil, nil, pw, ph, nil)...)
		}
		if len(out) == 0 {
			return nil, nil
		}
		return edit.All(out...), nil
	}),
	// The places of layers spread apart from their common middle by a percentage, or gather as if that had spread them; their sizes stay.
	"spread.apart": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Percent float64  `json:"percent"` // above 0
		Gather  bool     `json:"gather"`
	}) (edit.Command, error) {
		list := atRest(s, m, c.Threads)
		if !(c.Percent > 0 && c.Percent <= maxSpread) {
			return nil, words.New("intent.unreadable", "spread.apart", c.Percent)
		}
		by := 1 + c.Percent/100
		if c.Gather {
			by = 1 / by
		}
		if len(list) < 2 {
			return nil, words.New("arrange.two")
		}
		var mean geom.Point
		for _, r := range list {
			mean = mean.Add(r.box.Centre().Mul(1 / float64(len(list))))
		}
		var set []edit.Part
		for _, r := range list {
			set = append(set, r.moved(r.box.Centre().Sub(mean).Mul(by-1)))
		}
		return edit.SetPlaces(set), nil
	}),
}
