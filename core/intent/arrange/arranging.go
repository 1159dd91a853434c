package arrange

import (
	"math"
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/motion"
	"capstan/core/scope"
	"capstan/core/words"
)

var arrangingAsked = intent.Table{
	"delete": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads    []string `json:"threads"`
		Everywhere bool     `json:"everywhere"`
	}) (edit.Command, error) {
		var gone []string
		for i, sc := range s.Doc.Film.Scenes {
			if c.Everywhere && !sc.Aside || i == s.SceneIndex(m) {
				var list []*doc.Layer
				for _, t := range c.Threads {
					if l := sc.Thread(t); l != nil {
						list = append(list, l)
					}
				}
				gone = append(gone, scope.IDs(scope.Outermost(sc, list))...)
			}
		}
		if len(gone) == 0 {
			return nil, nil
		}
		return &edit.DeleteLayers{IDs: gone}, nil
	}),
	"duplicate": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		list := scope.Outermost(s.Scene(m), s.Layers(m, c.Threads))
		if len(list) == 0 {
			return nil, nil
		}
		d := nextOffset(s, m, list)
		seed := s.NewID()
		s.Duplicates = scope.Duplicates{Seed: seed, IDs: scope.IDs(list)}
		return &edit.DuplicateLayers{IDs: scope.IDs(list), Seed: seed, DX: d.X, DY: d.Y}, nil
	}),
	"group": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		sc := s.Scene(m)
		list := scope.Outermost(sc, s.Layers(m, c.Threads))
		if len(list) == 0 {
			return nil, nil
		}
		return grouped(s, m, list, ""), nil
	}),
	"ungroup": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Drop    bool     `json:"drop"` // moves that the layers cannot have each by itself
	}) (edit.Command, error) {
		var groups []*doc.Layer
		about := map[string][2]float64{}
		for _, l := range s.Layers(m, c.Threads) {
			if l.Kind != doc.Group {
				continue
			}
			groups = append(groups, l)
			_, pivot := s.Film.Box(s.SceneIndex(m), l.ID)
			about[l.ID] = geom.Pair(pivot)
			var lost []string
			for _, mv := range l.Moves {
				if !edit.HandsDown(mv) && !edit.HandsTurnDown(s.Doc, l, mv) {
					lost = append(lost, motion.Name(mv))
				}
			}
			if len(lost) > 0 && !c.Drop {
				return nil, words.New("ungroup.moves", l.Name, strings.Join(lost, ", "))
			}
		}
		if len(groups) == 0 {
			return nil, nil
		}
		return &edit.UngroupLayers{IDs: scope.IDs(groups), Down: true, About: about}, nil
	}),
	"order": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		To      string   `json:"to"` // front, back, up, down
	}) (edit.Command, error) {
		return reorder(s, m, c.Threads, c.To)
	}),
	"order.before": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Target  string   `json:"target"` // the row they are dropped on
		Where   string   `json:"where"`  // above, below, inside
	}) (edit.Command, error) {
		return drop(s, m, c.Threads, c.Target, c.Where)
	}),
	"nudge": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		DX      float64  `json:"dx"`
		DY      float64  `json:"dy"`
	}) (edit.Command, error) {
		var list []edit.Part
		for _, l := range scope.Outermost(s.Scene(m), s.Layers(m, c.Threads)) {
			d := geom.Point{X: c.DX, Y: c.DY}
			if inv, ok := s.Shown.Ancestry(s.SceneIndex(m), l.ID).Inverse(); ok {
				d = inv.ApplyVector(d)
			}
			list = append(list, edit.PlaceOf(l.ID, edit.Fields{"x": l.Place.X + d.X, "y": l.Place.Y + d.Y}))
		}
		if len(list) == 0 {
			return nil, nil
		}
		return edit.SetPlaces(list), nil
	}),
	"set": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string    `json:"threads"`
		Patch   edit.Fields `json:"patch"`
	}) (edit.Command, error) {
		var list []edit.Part
		for _, l := range s.Layers(m, c.Threads) {
			list = append(list, edit.Part{ID: l.ID, Patch: c.Patch})
		}
		if len(list) == 0 {
			return nil, nil
		}
		return &edit.SetLayers{Set: list}, nil
	}),
	"set.everywhere": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Thread string      `json:"thread"`
		Patch  edit.Fields `json:"patch"`
	}) (edit.Command, error) {
		var list []edit.Part
		for _, sc := range s.Doc.Film.Scenes {
			if l := sc.Thread(c.Thread); l != nil {
				list = append(list, edit.Part{ID: l.ID, Patch: c.Patch})
			}
		}
		return &edit.SetLayers{Set: list}, nil
	}),
	"place": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		X       *float64 `json:"x"` // of the reference point, in the parent's axes
		Y       *float64 `json:"y"`
		W       *float64 `json:"w"`
		H       *float64 `json:"h"`
		Turn    *float64 `json:"turn"`
		// Ref is the reference point, in shares of the box: numbers say where it is, and it stays when the size changes. Absent: the middle.
		Ref  *[2]float64 `json:"ref"`
		Keep bool        `json:"keep"` // proportions, where one side is given
	}) (edit.Command, error) {
		var list []edit.Command
		ref := geom.Point{X: 0.5, Y: 0.5}
		if c.Ref != nil {
			ref = geom.Point{X: c.Ref[0], Y: c.Ref[1]}
		}
		for _, l := range s.Layers(m, c.Threads) {
			list = append(list, placeBy(s, m, l, c.X, c.Y, c.W, c.H, c.Turn, ref, c.Keep)...)
		}
		if len(list) == 0 {
			return nil, nil
		}
		return edit.All(list...), nil
	}),
}

// place returns the commands that put a layer's box where typed numbers say. Groups and texts are scaled, keeping proportions.
func place(s *intent.Desk, m scope.Moment, l *doc.Layer, x, y, w, h, turn *float64) []edit.Command {
	return placeBy(s, m, l, x, y, w, h, turn, geom.Point{X: 0.5, Y: 0.5}, false)
}

// placeBy is place by a reference point, in shares of the box. keep keeps proportions where one side is given.
func placeBy(s *intent.Desk, m scope.Moment, l *doc.Layer, x, y, w, h, turn *float64, ref geom.Point, keep bool) []edit.Command {
	var out []edit.Command
	i := s.SceneIndex(m)
	box, pivot := s.Shown.Box(i, l.ID)
	rest := s.Shown.RestMatrix(i, l.ID)
	at := geom.Point{X: l.Place.X, Y: l.Place.Y}
	by := geom.Point{X: box.Min.X + ref.X*box.W(), Y: box.Min.Y + ref.Y*box.H()}
	mid := rest.Apply(by)
	if x != nil {
		at.X += *x - mid.X
	}
	if y != nil {
		at.Y += *y - mid.Y
	}
	if turn != nil {
		at = at.Add(geom.Rotate(l.Place.Turn).ApplyVector(pivot).Sub(geom.Rotate(*turn).ApplyVector(pivot)))
		out = append(out, edit.SetPlaces([]edit.Part{edit.PlaceOf(l.ID, edit.Fields{"x": at.X, "y": at.Y, "turn": *turn})}))
	}
	if set, ok := roomTyped(l, box, at, w, h); ok {
		return append(out, edit.SetPlaces([]edit.Part{set}))
	}
	kx, ky := 1.0, 1.0
	if w != nil && box.W() > 0 {
		kx = math.Max(*w, 1) / box.W()
	}
	if h != nil && box.H() > 0 {
		ky = math.Max(*h, 1) / box.H()
	}
	if l.Is().Keeps || keep && (w == nil || h == nil) {
		if w == nil {
			kx = ky
		}
		ky = kx
	}
	if kx != 1 || ky != 1 {
		// The reference point stays where it is.
		d := rest.ApplyVector(by.Sub(geom.Point{X: by.X * kx, Y: by.Y * ky}))
		out = append(out, edit.Scaled(l, kx, ky, at.X+d.X, at.Y+d.Y, s.Grows))
	} else if (x != nil || y != nil) && turn == nil {
		out = append(out, edit.SetPlaces([]edit.Part{edit.PlaceOf(l.ID, edit.Fields{"x": at.X, "y": at.Y})}))
	}
	return out
}

// roomTyped returns what puts typed numbers into the box of a text that wraps, about its middle; false where they scale it.
func roomTyped(l *doc.Layer, box geom.Box, at geom.Point, w, h *float64) (edit.Part, bool) {
	if l.Kind != doc.TextKind || !l.Text.Wraps() || h != nil && !l.Roomy() || w == nil && h == nil {
		return edit.Part{}, false
	}
	set := edit.Fields{"x": at.X, "y": at.Y}
	if w != nil {
		set["w"] = math.Max(*w, 1)
	}
	if h != nil {
		set["h"] = math.Max(*h, 1)
		by := geom.Rotate(l.Place.Turn).ApplyVector(geom.Point{Y: (box.H() - math.Max(*h, 1)) / 2})
		set["x"], set["y"] = at.X+by.X, at.Y+by.Y
	}
	return edit.PlaceOf(l.ID, set), true
}

// reorder moves layers of one parent to the front or back, or past one neighbour.
func reorder(s *intent.Desk, m scope.Moment, chosen []string, to string) (edit.Command, error) {
	sc := s.Scene(m)
	list := scope.Outermost(sc, s.Layers(m, chosen))
	if len(list) == 0 {
		return nil, nil
	}
	_, parent := sc.Layer(list[0].ID)
	all := sc.Layers
	if parent != nil {
		all = parent.Children
	}
	var moving, staying []*doc.Layer
	first := -1
	for i, l := range all {
		if slices.Contains(list, l) {
			moving = append(moving, l)
			if first < 0 {
				first = i
			}
		} else {
			staying = append(staying, l)
		}
	}
	// What lies locked at the back is the ground: nothing goes behind it that is not there already.
	ground := 0
	for parent == nil && ground < len(staying) && staying[ground].Locked {
		ground++
	}
	ground = min(ground, first)
	at := first
	switch to {
	case "front":
		at = len(staying)
	case "back":
		at = ground
	case "up":
		at = min(first+1, len(staying))
	case "down":
		if first > 0 && first == ground {
			return nil, words.New("order.ground")
		}
		at = max(first-1, 0)
	}
	name := ""
	if parent != nil {
		name = parent.ID
	}
	return &edit.OrderLayers{IDs: scope.IDs(moving), Parent: name, Index: at}, nil
}

// drop moves layers to where a row was dropped: above (in front of), below (behind) or inside the target row.
func drop(s *intent.Desk, m scope.Moment, chosen []string, target, where string) (edit.Command, error) {
	sc := s.Scene(m)
	t := sc.Thread(target)
	list := scope.Outermost(sc, s.Layers(m, chosen))
	if t == nil || len(list) == 0 || slices.Contains(list, t) {
		return nil, nil
	}
	_, parent := sc.Layer(t.ID)
	siblings := sc.Layers
	if where == "inside" && t.Kind == doc.Group {
		parent, siblings = t, t.Children
	} else if parent != nil {
		siblings = parent.Children
	}
	at := 0
	if where == "inside" {
		at = len(siblings)
	}
	var moving []*doc.Layer
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		if slices.Contains(list, l) {
			moving = append(moving, l)
		}
		return true
	})
	if where != "inside" {
		for _, l := range siblings {
			if l == t {
				break
			}
			if !slices.Contains(moving, l) {
				at++
			}
		}
		if where == "above" {
			at++
		}
	}
	name := ""
	if parent != nil {
		name = parent.ID
	}
	return &edit.OrderLayers{IDs: scope.IDs(moving), Parent: name, Index: at}, nil
}
