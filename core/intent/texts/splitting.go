package texts

import (
	"fmt"
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/text"
	"capstan/core/words"
)

// maxSplit is the most layers a text is split into.
const maxSplit = 400

var splittingAsked = intent.Table{
	// A text becomes a group of texts, one for each letter, word or line, where they stood; the text itself is kept in it.
	"text.split": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Unit    string   `json:"unit"` // letter, word, line
	}) (edit.Command, error) {
		if c.Unit != doc.ByLetter && c.Unit != doc.ByWord && c.Unit != doc.ByLine {
			return nil, words.New("intent.unreadable", "text.split", c.Unit)
		}
		var list []edit.Command
		for _, l := range s.Layers(m, c.Threads) {
			if l.Kind != doc.TextKind {
				continue
			}
			command, parts := Split(s, l, c.Unit)
			if len(parts) > maxSplit {
				return nil, words.New("split.many", len(parts), maxSplit)
			}
			if command != nil {
				list = append(list, command)
			}
		}
		if len(list) == 0 {
			return nil, words.New("split.nothing")
		}
		return edit.All(list...), nil
	}),
	// A text is set on a ring, or off it, its middle staying where it is.
	"text.ring": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		On      bool     `json:"on"`
	}) (edit.Command, error) {
		var list []edit.Part
		for _, l := range s.Layers(m, c.Threads) {
			if l.Kind != doc.TextKind || (l.Text.Ring != nil) == c.On {
				continue
			}
			box, _ := s.Shown.Box(s.SceneIndex(m), l.ID)
			v := *l.Text
			set := edit.Fields{"ring": nil}
			origin := geom.Point{}
			if c.On {
				// As large as to be filled by two thirds.
				r := max(20, box.W()/(2*math.Pi*0.66))
				set["ring"] = edit.Fields{"radius": r, "start": -90}
				set["align"] = doc.Centre
				origin = box.Centre()
			} else {
				v.Ring = nil
				flat := text.Set(&s.Fonts, &v, text.RoomOf(&l.Place)).Box
				origin = flat.Centre().Mul(-1)
			}
			by := geom.Rotate(l.Place.Turn).ApplyVector(origin)
			list = append(list, edit.Part{ID: l.ID, Patch: edit.Fields{"text": set, "place": edit.Fields{"x": l.Place.X + by.X, "y": l.Place.Y + by.Y}}})
		}
		if len(list) == 0 {
			return nil, nil
		}
		return &edit.SetLayers{Set: list}, nil
	}),
	// The parts of a group move apart from its middle, or together, without changing size.
	"parts.spread": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		By      float64  `json:"by"` // factor of their distances from the middle, above 0
	}) (edit.Command, error) {
		if !(c.By > 0 && c.By <= 100) {
			return nil, words.New("intent.unreadable", "parts.spread", c.By)
		}
		return moveParts(s, m, c.Threads, func(_ int, from geom.Point) geom.Point { return from.Mul(c.By - 1) })
	}),
	// The parts of a group go off in any direction, up to an amount; the same seed gives the same places.
	"parts.scatter": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Amount  float64  `json:"amount"` // px
		Seed    int64    `json:"seed"`
	}) (edit.Command, error) {
		return moveParts(s, m, c.Threads, func(i int, _ geom.Point) geom.Point {
			// Evenly over a disc: directions by the golden angle from a seeded start, distances by a small generator.
			x := uint64(c.Seed)*0x9e3779b97f4a7c15 + uint64(i+1)*0xbf58476d1ce4e5b9
			x ^= x >> 31
			x *= 0x94d049bb133111eb
			x ^= x >> 29
			share := float64(x>>11) / (1 << 53)
			angle := float64(x&0xffff)/0x10000*360 + float64(i)*137.508
			return geom.Rotate(angle).ApplyVector(geom.Point{X: c.Amount * math.Sqrt(share)})
		})
	}),
}

// Split returns the command by which a text becomes a group of texts, one for each of its units, and these, which may still be changed; no
// command where it is one unit, or more than can be.
func Split(s *intent.Desk, l *doc.Layer, unit string) (edit.Command, []*doc.Layer) {
	parts := split(s, l, unit)
	if len(parts) < 2 || len(parts) > maxSplit {
		return nil, parts
	}
	return &edit.CombineLayers{
		IDs: []string{l.ID}, How: doc.MadeSplit, Children: parts,
		Become: edit.Fields{"kind": doc.Group, "text": nil, "fill": doc.Fill{Kind: doc.NoFill}, "stroke": nil, "place": edit.Fields{"w": 0, "h": 0}},
	}, parts
}

// split returns the texts that a text is split into, in its own axes.
func split(s *intent.Desk, l *doc.Layer, unit string) []*doc.Layer {
	lay := text.SetIn(&s.Fonts, l.Text, text.RoomOf(&l.Place), unit)
	var out []*doc.Layer
	if v := l.Text.Plate; v != nil {
		// The plate becomes a layer of its own, behind them.
		k := l.Clone()
		k.ID, k.Thread, k.Name = s.NewID(), s.NewID(), "Plate"
		k.Kind, k.Path, k.Text, k.Moves, k.Made, k.Opacity, k.Stroke = doc.PathKind, lay.Plate(v).Data(), nil, nil, nil, 1, nil
		k.Blend, k.Blur, k.Feather, k.Shadow, k.Glow, k.Adjust, k.Through = "", 0, 0, nil, nil, nil, nil
		k.Fill = doc.Fill{Kind: doc.Solid, Colour: v.Colour, Role: v.Role, Tone: v.Tone}
		k.Place, k.Column = doc.Place{}, ""
		out = append(out, k)
	}
	for i, p := range lay.Pieces {
		v := &doc.Text{Align: doc.Left, LineHeight: l.Text.LineHeight, LetterSpacing: l.Text.LetterSpacing * lay.Scale, Runs: l.Text.Stretch(p.From, p.To)}
		for r := range v.Runs {
			v.Runs[r].Size *= lay.Scale
		}
		if len(v.Runs) == 0 {
			continue
		}
		k := l.Clone()
		k.ID, k.Thread = s.NewID(), s.NewID()
		k.Name, k.Moves, k.Made, k.Opacity, k.Text, k.Column = v.String(), nil, nil, 1, v, ""
		k.Blend, k.Blur, k.Feather, k.Shadow, k.Glow, k.Adjust, k.Through = "", 0, 0, nil, nil, nil, nil // the group's
		if k.Name == "" {
			k.Name = fmt.Sprint(l.Name, " ", i+1)
		}
		if p.Ring != nil && unit != doc.ByLetter {
			v.Ring, v.LetterSpacing = p.Ring, p.Spacing
			k.Place = doc.Place{}
			out = append(out, k)
			continue
		}
		set := text.Set(&s.Fonts, v, text.Room{})
		own := geom.Translate(p.At).Mul(geom.Rotate(p.Turn)).Mul(geom.Translate(geom.Point{Y: -set.Feet[0]}))
		k.Place = doc.Place{X: own.E, Y: own.F, Turn: p.Turn}
		if g := k.Fill.Gradient; g != nil {
			if inv, ok := own.Inverse(); ok {
				k.Fill.Gradient = edit.Held(g, lay.Box, set.Box, inv) // one gradient over all of them
			}
		}
		out = append(out, k)
	}
	return out
}

// moveParts moves the layers in groups by what by says of each, by its place among them and where its middle lies from the mean of all.
func moveParts(s *intent.Desk, m scope.Moment, threads []string, by func(i int, from geom.Point) geom.Point) (edit.Command, error) {
	i := s.SceneIndex(m)
	var list []edit.Part
	for _, g := range s.Layers(m, threads) {
		if g.Kind != doc.Group {
			continue
		}
		// About the mean of their middles, which spreading leaves where it is.
		mids := make([]geom.Point, len(g.Children))
		var mean geom.Point
		for k, l := range g.Children {
			box, _ := s.Shown.Box(i, l.ID)
			mids[k] = s.Shown.RestMatrix(i, l.ID).Apply(box.Centre())
			mean = mean.Add(mids[k].Mul(1 / float64(len(mids))))
		}
		for k, l := range g.Children {
			d := by(k, mids[k].Sub(mean))
			list = append(list, edit.PlaceOf(l.ID, edit.Fields{"x": l.Place.X + d.X, "y": l.Place.Y + d.Y}))
		}
	}
	if len(list) == 0 {
		return nil, words.New("parts.none")
	}
	return edit.SetPlaces(list), nil
}
