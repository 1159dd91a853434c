package arrange

import (
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

// Of stops of a view over a layer: how long each is seen, and how long the view takes from one to the next, ms (docs/motion.md, Defaults).
const (
	stopStays = 1500
	stopTakes = 600
	mostStops = 60
)

var viewsAsked = intent.Table{
	// What part of the page the scene shows: all of it, until its frame is dragged.
	"view.add": intent.Of(func(s *intent.Desk, m scope.Moment, _ *struct{}) (edit.Command, error) {
		sc := s.Scene(m)
		if sc.View() != nil {
			return nil, words.New("view.one", sc.Name)
		}
		return s.AddCommand(sc, newView(s, sc)), nil
	}),
	// A view shows all of the page again.
	"view.whole": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		w, h := float64(s.Doc.Film.Width), float64(s.Doc.Film.Height)
		var set []edit.Part
		for _, l := range s.Layers(m, c.Threads) {
			if l.Kind == doc.ViewKind {
				set = append(set, edit.Part{ID: l.ID, Patch: edit.Fields{"place": doc.Place{X: w / 2, Y: h / 2, W: w, H: h}}})
			}
		}
		if len(set) == 0 {
			return nil, nil
		}
		return &edit.SetLayers{Set: set}, nil
	}),
	// How many times as large a view shows the page.
	"view.zoom": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Zoom    float64  `json:"zoom"`
	}) (edit.Command, error) {
		if !(c.Zoom >= 1.0/doc.MaxZoom && c.Zoom <= doc.MaxZoom) {
			return nil, words.New("view.zoom", doc.MaxZoom)
		}
		var set []edit.Part
		for _, l := range s.Layers(m, c.Threads) {
			if l.Kind == doc.ViewKind {
				w, h := float64(s.Doc.Film.Width)/c.Zoom, float64(s.Doc.Film.Height)/c.Zoom
				set = append(set, edit.Part{ID: l.ID, Patch: edit.Fields{"place": edit.Fields{"w": w, "h": h}}})
			}
		}
		if len(set) == 0 {
			return nil, nil
		}
		return &edit.SetLayers{Set: set}, nil
	}),
	// The view goes over a tall or wide layer in so many equal frames, each with its stay.
	"view.stops": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Count   int      `json:"count"` // 0: as many as lie side by side on it
	}) (edit.Command, error) {
		return stops(s, m, c.Threads, c.Count)
	}),
	// How many times as far away layers are as the page.
	"depth": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Depth   float64  `json:"depth"`
		Stays   *bool    `json:"stays"`
	}) (edit.Command, error) {
		var set []edit.Part
		for _, l := range s.Layers(m, c.Threads) {
			patch := edit.Fields{}
			if c.Stays != nil {
				if patch["stays"] = any(true); !*c.Stays {
					patch["stays"] = nil
				}
			} else {
				if !(c.Depth > 0) {
					return nil, words.New("depth.none")
				}
				if patch["depth"] = any(c.Depth); c.Depth == 1 {
					patch["depth"] = nil
				}
			}
			set = append(set, edit.Part{ID: l.ID, Patch: patch})
		}
		if len(set) == 0 {
			return nil, nil
		}
		return &edit.SetLayers{Set: set}, nil
	}),
	// Several are told apart by distance, in their order: the front-most is where the page is.
	"depth.spread": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		sc := s.Scene(m)
		list := s.Layers(m, c.Threads)
		list = slices.DeleteFunc(list, func(l *doc.Layer) bool { return l.Kind == doc.ViewKind })
		if len(list) < 2 {
			return nil, words.New("depth.few")
		}
		order := map[*doc.Layer]int{}
		doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool { order[l] = len(order); return true })
		slices.SortFunc(list, func(a, b *doc.Layer) int { return order[b] - order[a] })
		var set []edit.Part
		away := 1.0
		for _, l := range list {
			patch := edit.Fields{"depth": any(math.Round(away*10) / 10)}
			if away == 1 {
				patch["depth"] = nil
			}
			set = append(set, edit.Part{ID: l.ID, Patch: patch})
			away = min(away*1.6, doc.MaxDepthAway)
		}
		return &edit.SetLayers{Set: set}, nil
	}),
}

// newView is a view of all of the page.
func newView(s *intent.Desk, sc *doc.Scene) *doc.Layer {
	l := s.NewLayer(sc, "View", doc.ViewKind)
	w, h := float64(s.Doc.Film.Width), float64(s.Doc.Film.Height)
	l.Place = doc.Place{X: w / 2, Y: h / 2, W: w, H: h}
	return l
}

func stops(s *intent.Desk, m scope.Moment, threads []string, count int) (edit.Command, error) {
	list := s.Layers(m, threads)
	if len(list) != 1 || list[0].Kind == doc.ViewKind {
		return nil, words.New("view.over")
	}
	sc, l := s.Scene(m), list[0]
	s.StandWhole(m)
	corners, _, ok := s.Player.Quad(l.ID)
	if !ok {
		return nil, words.New("view.over")
	}
	box := scope.BoxOf(corners)
	pw, ph := float64(s.Doc.Film.Width), float64(s.Doc.Film.Height)
	// The frame is as wide as a tall layer, or as high as a wide one.
	w, h := box.W(), box.W()*ph/pw
	tall := h < box.H()
	if !tall {
		w, h = box.H()*pw/ph, box.H()
	}
	if long := box.H() / h; count == 0 {
		if !tall {
			long = box.W() / w
		}
		count = int(math.Ceil(long - 0.05))
	}
	if count < 2 || count > mostStops {
		return nil, words.New("view.stops", count, mostStops)
	}
	at := func(i int) (x, y float64) {
		p := float64(i) / float64(count-1)
		if c := box.Centre(); tall {
			return c.X, box.Min.Y + h/2 + p*(box.H()-h)
		} else {
			return box.Min.X + w/2 + p*(box.W()-w), c.Y
		}
	}
	round := func(v float64) float64 { return math.Round(v*100) / 100 }
	view := newView(s, sc)
	old := sc.View()
	if old != nil {
		view.ID, view.Thread, view.Name, view.Tint = old.ID, old.Thread, old.Name, old.Tint
	}
	x, y := at(0)
	view.Place = doc.Place{X: round(x), Y: round(y), W: round(w), H: round(h)}
	for i := 1; i < count; i++ {
		x, y := at(i)
		x, y = round(x), round(y)
		move := &doc.Move{ID: s.NewID(), Kind: doc.Change, Effect: doc.Becoming, Duration: stopTakes, Start: doc.Start{When: doc.AtTime, Offset: stopStays}, Change: &doc.ChangeParams{To: doc.Becomes{X: &x, Y: &y}}}
		if i > 1 {
			move.Start = doc.Start{When: doc.WhenEnds, Of: view.Moves[i-2].ID, Offset: stopStays}
		}
		view.Moves = append(view.Moves, move)
	}
	commands := edit.Commands{}
	if old != nil {
		commands = append(commands, &edit.DeleteLayers{IDs: []string{old.ID}})
		view.ID = s.NewID()
	}
	commands = append(commands, s.AddCommand(sc, view))
	if needs := int64(count)*stopStays + int64(count-1)*stopTakes; !sc.AutoStay && sc.EndsAtCue == "" && sc.Stay < needs {
		commands = append(commands, &edit.SetScenes{IDs: []string{sc.ID}, Patch: edit.Fields{"stay": min(needs, doc.MaxTime)}})
	}
	return &edit.Batch{Commands: commands}, nil
}
