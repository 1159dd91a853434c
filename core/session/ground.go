package session

import (
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/words"
)

// roam is how far a layer's motion paths take it from its rest pose, as a box about the origin.
func roam(l *doc.Layer) geom.Box {
	all := geom.Box{}
	for _, m := range l.Moves {
		if m.Path == nil {
			continue
		}
		p, err := geom.ParseData(m.Path.D)
		if err != nil || len(p.Points) < 2 {
			continue
		}
		rest, _ := geom.NewMeasure(p).At(m.Path.RestShare())
		b := p.Bounds()
		// Paths follow each other or run together: their reaches add up at the worst.
		all.Min = all.Min.Add(geom.Point{X: min(0, b.Min.X-rest.X), Y: min(0, b.Min.Y-rest.Y)})
		all.Max = all.Max.Add(geom.Point{X: max(0, b.Max.X-rest.X), Y: max(0, b.Max.Y-rest.Y)})
	}
	return all
}

// covering is the place that lets a layer of size w by h cover the page, wherever its paths take it, in its own proportions when
// it keeps them. The layer stands in the middle of where it roams.
func (s *Session) covering(l *doc.Layer) edit.Fields {
	w, h := float64(s.doc.Film.Width), float64(s.doc.Film.Height)
	r := roam(l)
	needW, needH := w+r.W(), h+r.H()
	at := geom.Point{X: w/2 - r.Centre().X, Y: h/2 - r.Centre().Y}
	if l.Kind == doc.Picture && l.Place.W > 0 && l.Place.H > 0 {
		k := max(needW/l.Place.W, needH/l.Place.H)
		needW, needH = l.Place.W*k, l.Place.H*k
	}
	return edit.Fields{"x": at.X, "y": at.Y, "w": math.Ceil(needW*100) / 100, "h": math.Ceil(needH*100) / 100, "turn": nil, "pivot": nil}
}

// bares reports whether a layer that covers the page at rest bares an edge of it on its way.
func (s *Session) bares(l *doc.Layer, box geom.Box, rest geom.Matrix) bool {
	page := geom.Box{Max: geom.Point{X: float64(s.doc.Film.Width), Y: float64(s.doc.Film.Height)}}
	b := rest.ApplyBox(box)
	const e = 0.01
	covers := func(b geom.Box) bool {
		return b.Min.X <= page.Min.X+e && b.Min.Y <= page.Min.Y+e && b.Max.X >= page.Max.X-e && b.Max.Y >= page.Max.Y-e
	}
	if l.Place.Turn != 0 || !covers(b) {
		return false
	}
	r := roam(l)
	return !covers(geom.Box{Min: b.Min.Add(r.Max), Max: b.Max.Add(r.Min)})
}

// groundable reports whether a layer may fill the page: a picture or a shape that lies in no group.
func groundable(l, parent *doc.Layer) bool {
	return parent == nil && (l.Kind == doc.Picture || l.IsShape() && l.Kind != doc.Line)
}

var groundAsked = table{
	"ground.make":  of(func(s *Session, m Moment, c *threads) (edit.Command, error) { return s.ground(m, c.Threads, true) }),
	"ground.cover": of(func(s *Session, m Moment, c *threads) (edit.Command, error) { return s.ground(m, c.Threads, false) }),
}

// ground returns the command by which layers cover the page, and become its ground: at the back, and locked.
func (s *Session) ground(m Moment, threads []string, make bool) (edit.Command, error) {
	sc := s.scene(m)
	var commands []edit.Command
	for _, l := range s.layers(m, threads) {
		_, parent := sc.Layer(l.ID)
		if !groundable(l, parent) {
			return nil, words.New("ground.kind")
		}
		patch := edit.Fields{"place": s.covering(l)}
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
