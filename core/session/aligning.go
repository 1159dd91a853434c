package session

import (
	"math"
	"slices"
	"sort"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/words"
)

// SafeTitle and SafeAction are the shares of the page's sides that titles and action keep to (SMPTE ST 2046-1).
const (
	SafeTitle  = 0.90
	SafeAction = 0.93
)

// Typed gaps, px, lie between these.
const (
	minGap = -doc.MaxPlace
	maxGap = doc.MaxPlace
)

// slight is how far, px, layers may lie from where they were put: places are stored in hundredths.
const slight = 0.02

// resting is a layer with the upright box that it fills on the page at rest.
type resting struct {
	layer *doc.Layer
	box   geom.Box
	outer geom.Matrix // from the axes its place is in to the page
}

// atRest returns the outermost of the chosen layers, in the order in which they were chosen.
func (s *Session) atRest(m Moment, threads []string) []resting {
	i := s.sceneIndex(m)
	var out []resting
	for _, l := range outermost(s.scene(m), s.layers(m, threads)) {
		box, _ := s.shown.Box(i, l.ID)
		outer := s.shown.Ancestry(i, l.ID)
		out = append(out, resting{l, outer.Mul(s.shown.RestMatrix(i, l.ID)).ApplyBox(box), outer})
	}
	return out
}

// moved is the change that moves a layer on the page.
func (r *resting) moved(d geom.Point) map[string]any {
	if inv, ok := r.outer.Inverse(); ok {
		d = inv.ApplyVector(d)
	}
	return placeOf(r.layer.ID, map[string]any{"x": r.layer.Place.X + d.X, "y": r.layer.Place.Y + d.Y})
}

func united(list []resting) geom.Box {
	b := geom.EmptyBox()
	for _, r := range list {
		b = b.Union(r.box)
	}
	return b
}

// safeBox is the middle part of the page of that share.
func (s *Session) safeBox(share float64) geom.Box {
	f := s.shown.Doc.Film
	c := s.centre()
	return geom.BoxAt(c, float64(f.Width)*share, float64(f.Height)*share)
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

func init() {
	// Layers get one edge or middle, by the boxes they fill on the page at rest.
	intent("align", func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Edge    string   `json:"edge"` // left, centre, right, top, middle, bottom
		To      string   `json:"to"`   // page, safe, first (the layer that was chosen first); else the box around all
	}) (edit.Command, error) {
		list := s.atRest(m, c.Threads)
		if len(list) == 0 {
			return nil, nil
		}
		to := united(list)
		switch c.To {
		case "page":
			to = s.safeBox(1)
		case "safe":
			to = s.safe()
		case "first":
			to = list[0].box
		}
		at, _, ok := edge(to, c.Edge)
		if !ok {
			return nil, words.New("intent.unreadable", "align", c.Edge)
		}
		var set []map[string]any
		for _, r := range list {
			now, down, _ := edge(r.box, c.Edge)
			if math.Abs(at-now) > slight {
				set = append(set, r.moved(along(down, at-now)))
			}
		}
		if len(set) == 0 {
			return nil, nil
		}
		return setPlaces(set), nil
	})
	// Layers get equal gaps, or equal steps from middle to middle. The outermost two stay, or with a given gap the first.
	intent("distribute", func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Down    bool     `json:"down"`
		Centres bool     `json:"centres"`
		Gap     *float64 `json:"gap"` // px
	}) (edit.Command, error) {
		list := s.atRest(m, c.Threads)
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
		var set []map[string]any
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
		return setPlaces(set), nil
	})
	// Layers become as wide, as high, or both, as the one that was chosen first.
	intent("same", func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		What    string   `json:"what"` // width, height, both
	}) (edit.Command, error) {
		list := s.atRest(m, c.Threads)
		if len(list) < 2 {
			return nil, words.New("arrange.two")
		}
		box, _ := s.shown.Box(s.sceneIndex(m), list[0].layer.ID)
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
			out = append(out, s.place(m, r.layer, nil, nil, pw, ph, nil)...)
		}
		if len(out) == 0 {
			return nil, nil
		}
		return batch(out), nil
	})
	// Layers are turned over as one, left to right or top to bottom as the page has it, about the middle of all of them.
	intent("flip", func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Down    bool     `json:"down"`
	}) (edit.Command, error) {
		list := s.atRest(m, c.Threads)
		mid := united(list).Centre()
		var set []map[string]any
		for _, r := range list {
			p := r.layer.Place
			to := r.box.Centre()
			if c.Down {
				to.Y = 2*mid.Y - to.Y
				p.FlipY = !p.FlipY
			} else {
				to.X = 2*mid.X - to.X
				p.FlipX = !p.FlipX
			}
			// What was turned one way is turned the other.
			p.Turn = -p.Turn - 2*geom.AngleOf(r.outer)
			set = append(set, s.posed(m, &r, p, to))
		}
		if len(set) == 0 {
			return nil, nil
		}
		return setPlaces(set), nil
	})
	// Layers are turned as one, about the middle of all of them; one by itself about its pivot.
	intent("turn.by", func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Degrees float64  `json:"degrees"`
	}) (edit.Command, error) {
		list := s.atRest(m, c.Threads)
		if len(list) == 1 {
			turn := list[0].layer.Place.Turn + c.Degrees
			return batch(s.place(m, list[0].layer, nil, nil, nil, nil, &turn)), nil
		}
		about := geom.Rotate(c.Degrees).About(united(list).Centre())
		var set []map[string]any
		for _, r := range list {
			p := r.layer.Place
			p.Turn += c.Degrees
			set = append(set, s.posed(m, &r, p, about.Apply(r.box.Centre())))
		}
		if len(set) == 0 {
			return nil, nil
		}
		return setPlaces(set), nil
	})
	// The places of layers spread apart from their common middle, or gather, by a factor; their sizes stay.
	intent("spread.apart", func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		By      float64  `json:"by"` // above 0
	}) (edit.Command, error) {
		list := s.atRest(m, c.Threads)
		if !(c.By > 0 && c.By <= 100) {
			return nil, words.New("intent.unreadable", "spread.apart", c.By)
		}
		if len(list) < 2 {
			return nil, words.New("arrange.two")
		}
		var mean geom.Point
		for _, r := range list {
			mean = mean.Add(r.box.Centre().Mul(1 / float64(len(list))))
		}
		var set []map[string]any
		for _, r := range list {
			set = append(set, r.moved(r.box.Centre().Sub(mean).Mul(c.By-1)))
		}
		return setPlaces(set), nil
	})
	// All layers of the scene are locked, or none is.
	intent("lock.all", func(s *Session, m Moment, c *struct {
		On bool `json:"on"`
	}) (edit.Command, error) {
		var set []map[string]any
		doc.Walk(s.scene(m).Layers, func(l, parent *doc.Layer) bool {
			if l.Locked != c.On && (parent == nil || !c.On) {
				set = append(set, map[string]any{"id": l.ID, "patch": map[string]any{"locked": nilIf(c.On)}})
			}
			return true
		})
		if len(set) == 0 {
			return nil, nil
		}
		return command("layer.set", map[string]any{"set": set}), nil
	})
	// What lay behind lies in front, among the chosen layers of one group; the others stay where they are.
	intent("order.reverse", func(s *Session, m Moment, c *threads) (edit.Command, error) {
		sc := s.scene(m)
		list := outermost(sc, s.layers(m, c.Threads))
		if len(list) < 2 {
			return nil, words.New("arrange.two")
		}
		_, parent := sc.Layer(list[0].ID)
		all, name := sc.Layers, ""
		if parent != nil {
			all, name = parent.Children, parent.ID
		}
		order := slices.Clone(all)
		var at []int
		for i, l := range order {
			if slices.Contains(list, l) {
				at = append(at, i)
			}
		}
		if len(at) != len(list) {
			return nil, words.New("arrange.apart")
		}
		for i, k := 0, len(at)-1; i < k; i, k = i+1, k-1 {
			order[at[i]], order[at[k]] = order[at[k]], order[at[i]]
		}
		return command("layer.order", map[string]any{"ids": ids(order), "parent": name, "index": 0}), nil
	})
}

// posed is the change that gives a layer another turn or flips, with the middle of its box at a point of the page.
func (s *Session) posed(m Moment, r *resting, p doc.Place, mid geom.Point) map[string]any {
	box, pivot := s.shown.Box(s.sceneIndex(m), r.layer.ID)
	flip := geom.Identity
	x, y := 1.0, 1.0
	if p.FlipX {
		x = -1
	}
	if p.FlipY {
		y = -1
	}
	flip = geom.Scale(x, y).About(pivot)
	at := mid
	if inv, ok := r.outer.Inverse(); ok {
		at = inv.Apply(mid)
	}
	at = at.Sub(geom.Rotate(p.Turn).Mul(flip).Apply(box.Centre()))
	return placeOf(r.layer.ID, map[string]any{"x": at.X, "y": at.Y, "turn": nilIf(p.Turn), "flipX": nilIf(p.FlipX), "flipY": nilIf(p.FlipY)})
}
