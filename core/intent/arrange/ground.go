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
		patch := edit.Fields{"place": covering(s, l)}
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
