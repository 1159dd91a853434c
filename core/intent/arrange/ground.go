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

// mostRoom is how often a ground is made larger at most until it covers the page: what turns and grows about a middle that moves along with it needs
// more than once.
const mostRoom = 6

// roomy is covering, and larger where changes, loops or a view take the layer off the page, too.
func roomy(s *intent.Desk, i int, l *doc.Layer) (edit.Fields, error) {
	place := covering(s, l)
	for range mostRoom {
		f, err := s.FilmAfter(&edit.SetLayers{Set: []edit.Part{{ID: l.ID, Patch: edit.Fields{"place": place}}}})
		if err != nil {
			return nil, err
		}
		if px, _ := f.Bares(i, l.ID); px == 0 {
			break
		}
		box, _ := f.Box(i, l.ID)
		is := f.RestMatrix(i, l.ID).ApplyBox(box)
		need := is.Union(f.Room(i, l.ID))
		w, h := need.W(), need.H()
		if l.Kind == doc.Picture {
			k := max(w/is.W(), h/is.H())
			w, h = is.W()*k, is.H()*k
		}
		at := need.Centre()
		place = edit.Fields{"x": at.X, "y": at.Y, "w": math.Ceil(w*100) / 100, "h": math.Ceil(h*100) / 100, "turn": nil, "pivot": nil}
	}
	return place, nil
}

// covering is the place that lets a layer of size w by h cover the page, wherever its paths take it, in its own proportions when
// it keeps them. The layer stands in the middle of where it roams.
func covering(s *intent.Desk, l *doc.Layer) edit.Fields {
	w, h := float64(s.Doc.Film.Width), float64(s.Doc.Film.Height)
	r := scope.Roam(l)
	needW, needH := w+r.W(), h+r.H()
	at := geom.Point{X: w/2 - r.Centre().X, Y: h/2 - r.Centre().Y}
	if l.Kind == doc.Picture && l.Place.W > 0 && l.Place.H > 0 {
		k := max(needW/l.Place.W, needH/l.Place.H)
		needW, needH = l.Place.W*k, l.Place.H*k
	}
	return edit.Fields{"x": at.X, "y": at.Y, "w": math.Ceil(needW*100) / 100, "h": math.Ceil(needH*100) / 100, "turn": nil, "pivot": nil}
}

var groundAsked = intent.Table{
	"ground.make": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		return ground(s, m, c.Threads, true)
	}),
	"ground.cover": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		return ground(s, m, c.Threads, false)
	}),
}

// ground returns the command by which layers cover the page, and become its ground: at the back, and locked.
func ground(s *intent.Desk, m scope.Moment, threads []string, make bool) (edit.Command, error) {
	sc := s.Scene(m)
	var commands []edit.Command
	for _, l := range s.Layers(m, threads) {
		_, parent := sc.Layer(l.ID)
		if !scope.Groundable(l, parent) {
			return nil, words.New("ground.kind")
		}
		place, err := roomy(s, s.SceneIndex(m), l)
		if err != nil {
			return nil, err
		}
		patch := edit.Fields{"place": place}
		if make {
			patch["locked"] = true
		}
		commands = append(commands, &edit.SetLayers{Set: []edit.Part{{ID: l.ID, Patch: patch}}})
		if make {
			commands = append(commands, &edit.OrderLayers{IDs: []string{l.ID}, Index: 0})
		}
	}
	if len(commands) == 0 {
		return nil, nil
	}
	return edit.All(commands...), nil
}
