package looks

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/ink"
	"capstan/core/intent"
	"capstan/core/paint"
	"capstan/core/scope"
	"capstan/core/words"
)

// look makes a command of a change to each layer that has a part, or to the background of the moment's scene.
func look(s *intent.Desk, m scope.Moment, threads []string, part string, change func(*doc.Layer, doc.Fill) (edit.Fields, error)) (edit.Command, error) {
	if part == edit.BackgroundPart {
		sc := s.Scene(m)
		patch, err := change(nil, sc.Background)
		if err != nil || patch == nil {
			return nil, err
		}
		return &edit.SetScenes{IDs: []string{sc.ID}, Patch: patch}, nil
	}
	var list []edit.Part
	for _, l := range s.Layers(m, threads) {
		f, ok := edit.FillOf(l, part)
		if !ok {
			continue
		}
		patch, err := change(l, f)
		if err != nil {
			return nil, err
		}
		if patch != nil {
			list = append(list, edit.Part{ID: l.ID, Patch: patch})
		}
	}
	if len(list) == 0 {
		return nil, nil
	}
	return &edit.SetLayers{Set: list}, nil
}

// stopped is look for layers whose part is a gradient.
func stopped(s *intent.Desk, m scope.Moment, threads []string, part string, change func(g *doc.Gradient) ([]doc.Stop, error)) (edit.Command, error) {
	return look(s, m, threads, part, func(_ *doc.Layer, f doc.Fill) (edit.Fields, error) {
		if !f.Graded() {
			return nil, nil
		}
		g := *f.Gradient
		g.Stops = slices.Clone(g.Stops)
		stops, err := change(&g)
		if err != nil || stops == nil {
			return nil, err
		}
		return edit.Graded(part, edit.Fields{"stops": stops}), nil
	})
}

var fillsAsked = intent.Table{
	"fill.kind": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Part    string   `json:"part"`
		Kind    string   `json:"kind"`
	}) (edit.Command, error) {
		return look(s, m, c.Threads, c.Part, func(_ *doc.Layer, f doc.Fill) (edit.Fields, error) {
			return edit.Filled(c.Part, fillAs(f, c.Kind)), nil
		})
	}),
	"gradient.add": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Part    string   `json:"part"`
		At      float64  `json:"at"`
	}) (edit.Command, error) {
		return stopped(s, m, c.Threads, c.Part, func(g *doc.Gradient) ([]doc.Stop, error) {
			if len(g.Stops) >= doc.MaxStops {
				return nil, words.New("gradient.many", doc.MaxStops)
			}
			at := min(1, max(0, c.At))
			i := 0
			for i < len(g.Stops) && g.Stops[i].At <= at {
				i++
			}
			return slices.Insert(g.Stops, i, doc.Stop{At: at, Colour: colourAt(s, m, g, at).String()}), nil
		})
	}),
	"gradient.move": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Part    string   `json:"part"`
		Index   int      `json:"index"`
		At      float64  `json:"at"`
	}) (edit.Command, error) {
		return stopped(s, m, c.Threads, c.Part, func(g *doc.Gradient) ([]doc.Stop, error) { return edit.MoveStop(g.Stops, c.Index, c.At), nil })
	}),
	"gradient.remove": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Part    string   `json:"part"`
		Index   int      `json:"index"`
	}) (edit.Command, error) {
		return stopped(s, m, c.Threads, c.Part, func(g *doc.Gradient) ([]doc.Stop, error) {
			if len(g.Stops) <= 2 {
				return nil, words.New("gradient.few")
			}
			if c.Index < 0 || c.Index >= len(g.Stops) {
				return nil, nil
			}
			return slices.Delete(g.Stops, c.Index, c.Index+1), nil
		})
	}),
	"gradient.colour": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Part    string   `json:"part"`
		Index   int      `json:"index"`
		Colour  string   `json:"colour"`
		Role    string   `json:"role"`
		Tone    int      `json:"tone"`
	}) (edit.Command, error) {
		return stopped(s, m, c.Threads, c.Part, func(g *doc.Gradient) ([]doc.Stop, error) {
			if c.Index < 0 || c.Index >= len(g.Stops) {
				return nil, nil
			}
			v := &g.Stops[c.Index]
			v.Colour, v.Role, v.Tone = c.Colour, c.Role, c.Tone
			return g.Stops, nil
		})
	}),
	"gradient.swap": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Part    string   `json:"part"`
	}) (edit.Command, error) {
		return stopped(s, m, c.Threads, c.Part, func(g *doc.Gradient) ([]doc.Stop, error) {
			slices.Reverse(g.Stops)
			for i := range g.Stops {
				g.Stops[i].At = 1 - g.Stops[i].At
			}
			return g.Stops, nil
		})
	}),
	// Dashes of one length. A length that is missing is that of the other; a line of none is wanted for round dots alone.
	"stroke.dash": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Line    *float64 `json:"line"` // absent: as it is
		Gap     *float64 `json:"gap"`
	}) (edit.Command, error) {
		var list []edit.Part
		for _, l := range s.Layers(m, c.Threads) {
			if l.Stroke != nil {
				list = append(list, edit.Part{ID: l.ID, Patch: edit.Fields{"stroke": edit.Fields{"dash": dashed(l.Stroke, c.Line, c.Gap)}}})
			}
		}
		if len(list) == 0 {
			return nil, nil
		}
		return &edit.SetLayers{Set: list}, nil
	}),
}

// dashed returns the pattern of a stroke with another line or gap; nil for a whole line.
func dashed(s *doc.Stroke, line, gap *float64) any {
	now := [2]float64{}
	copy(now[:], s.Dash)
	if line != nil {
		now[0] = max(0, *line)
	}
	if gap != nil {
		now[1] = max(0, *gap)
	}
	switch {
	case line != nil && *line <= 0, gap != nil && *gap <= 0:
		return nil // taking either away makes it whole
	case now[0] == 0 && s.Cap != geom.RoundCap:
		now[0] = now[1]
	case now[1] == 0:
		now[1] = now[0]
	}
	return now[:]
}

// fillAs returns the patch that makes a fill one of another kind, with what it shows now as a beginning: a gradient goes from its
// colour to a tone of it, a colour is the first of a gradient.
func fillAs(f doc.Fill, kind string) edit.Fields {
	switch kind {
	case doc.Linear, doc.Radial:
		p := edit.Fields{"kind": kind, "colour": nil, "role": nil, "tone": nil, "media": nil, "size": nil}
		// Its ends lie a little within the edges, clear of the bars that change the size.
		from, to := []float64{0.5, 0.1}, []float64{0.5, 0.9}
		if kind == doc.Radial {
			from, to = []float64{0.5, 0.5}, []float64{0.9, 0.5}
		}
		g := edit.Fields{"from": from, "to": to, "focus": nil}
		if !f.Graded() {
			first := "#d8573a"
			if f.Kind == doc.Solid && f.Colour != "" {
				first = f.Colour
			}
			g["stops"] = []doc.Stop{{At: 0, Colour: first, Role: f.Role, Tone: f.Tone}, {At: 1, Colour: ink.Tone(first)}}
		}
		p["gradient"] = g
		return p
	case doc.Solid:
		p := edit.Fields{"kind": kind, "gradient": nil, "media": nil, "size": nil}
		if f.Graded() {
			v := f.Gradient.Stops[0]
			p["colour"], p["role"], p["tone"] = v.Colour, v.Role, v.Tone
		} else if f.Kind != doc.Solid {
			p["colour"] = "#d8573a"
		}
		return p
	}
	return edit.Fields{"kind": doc.NoFill, "colour": nil, "role": nil, "tone": nil, "gradient": nil, "media": nil, "size": nil}
}

// colourAt returns the colour of a gradient at a share of it.
func colourAt(s *intent.Desk, m scope.Moment, g *doc.Gradient, at float64) paint.Colour {
	roles := s.Scene(m).Roles
	p := paint.Gradient{}
	for _, v := range g.Stops {
		code := v.Colour
		if r, ok := roles[v.Role]; ok {
			code = r
		}
		c, _ := paint.Parse(code) // validation has read it
		p.Stops = append(p.Stops, paint.Stop{At: v.At, Colour: c})
	}
	return p.At(at)
}
