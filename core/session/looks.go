package session

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/paint"
	"capstan/core/words"
)

// Parts that have a fill of their own: of layers, and of the scene.
const (
	fillPart       = "fill"
	strokePart     = "stroke"
	backgroundPart = "background"
)

// fillOf returns the fill of a part of a layer; false where it has none.
func fillOf(l *doc.Layer, part string) (doc.Fill, bool) {
	switch {
	case l.Kind == doc.Group || l.Kind == doc.Picture:
		return doc.Fill{}, false
	case part == strokePart:
		if l.Stroke == nil {
			return doc.Fill{}, false
		}
		return l.Stroke.Fill, true
	}
	return l.Fill, true
}

// filled returns the patch of a layer, or of the scene, that changes the fill of a part.
func filled(part string, patch edit.Fields) edit.Fields {
	if part == backgroundPart {
		return edit.Fields{"background": patch}
	}
	p := edit.Fields{"fill": patch}
	if part == strokePart {
		return edit.Fields{"stroke": p}
	}
	return p
}

func graded(part string, patch edit.Fields) edit.Fields {
	return filled(part, edit.Fields{"gradient": patch})
}

// look makes a command of a change to each layer that has a part, or to the background of the moment's scene.
func (s *Session) look(m Moment, threads []string, part string, change func(*doc.Layer, doc.Fill) (edit.Fields, error)) (edit.Command, error) {
	if part == backgroundPart {
		sc := s.scene(m)
		patch, err := change(nil, sc.Background)
		if err != nil || patch == nil {
			return nil, err
		}
		return &edit.SetScenes{IDs: []string{sc.ID}, Patch: patch}, nil
	}
	var list []edit.Part
	for _, l := range s.layers(m, threads) {
		f, ok := fillOf(l, part)
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
func (s *Session) stopped(m Moment, threads []string, part string, change func(g *doc.Gradient) ([]doc.Stop, error)) (edit.Command, error) {
	return s.look(m, threads, part, func(_ *doc.Layer, f doc.Fill) (edit.Fields, error) {
		if !f.Graded() {
			return nil, nil
		}
		g := *f.Gradient
		g.Stops = slices.Clone(g.Stops)
		stops, err := change(&g)
		if err != nil || stops == nil {
			return nil, err
		}
		return graded(part, edit.Fields{"stops": stops}), nil
	})
}

var looksAsked = table{
	"fill.kind": of(func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Part    string   `json:"part"`
		Kind    string   `json:"kind"`
	}) (edit.Command, error) {
		return s.look(m, c.Threads, c.Part, func(_ *doc.Layer, f doc.Fill) (edit.Fields, error) {
			return filled(c.Part, fillAs(f, c.Kind)), nil
		})
	}),
	"gradient.add": of(func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Part    string   `json:"part"`
		At      float64  `json:"at"`
	}) (edit.Command, error) {
		return s.stopped(m, c.Threads, c.Part, func(g *doc.Gradient) ([]doc.Stop, error) {
			if len(g.Stops) >= doc.MaxStops {
				return nil, words.New("gradient.many", doc.MaxStops)
			}
			at := min(1, max(0, c.At))
			i := 0
			for i < len(g.Stops) && g.Stops[i].At <= at {
				i++
			}
			return slices.Insert(g.Stops, i, doc.Stop{At: at, Colour: s.colourAt(m, g, at).String()}), nil
		})
	}),
	"gradient.move": of(func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Part    string   `json:"part"`
		Index   int      `json:"index"`
		At      float64  `json:"at"`
	}) (edit.Command, error) {
		return s.stopped(m, c.Threads, c.Part, func(g *doc.Gradient) ([]doc.Stop, error) { return moveStop(g.Stops, c.Index, c.At), nil })
	}),
	"gradient.remove": of(func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Part    string   `json:"part"`
		Index   int      `json:"index"`
	}) (edit.Command, error) {
		return s.stopped(m, c.Threads, c.Part, func(g *doc.Gradient) ([]doc.Stop, error) {
			if len(g.Stops) <= 2 {
				return nil, words.New("gradient.few")
			}
			if c.Index < 0 || c.Index >= len(g.Stops) {
				return nil, nil
			}
			return slices.Delete(g.Stops, c.Index, c.Index+1), nil
		})
	}),
	"gradient.colour": of(func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Part    string   `json:"part"`
		Index   int      `json:"index"`
		Colour  string   `json:"colour"`
		Role    string   `json:"role"`
		Tone    int      `json:"tone"`
	}) (edit.Command, error) {
		return s.stopped(m, c.Threads, c.Part, func(g *doc.Gradient) ([]doc.Stop, error) {
			if c.Index < 0 || c.Index >= len(g.Stops) {
				return nil, nil
			}
			v := &g.Stops[c.Index]
			v.Colour, v.Role, v.Tone = c.Colour, c.Role, c.Tone
			return g.Stops, nil
		})
	}),
	"gradient.swap": of(func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Part    string   `json:"part"`
	}) (edit.Command, error) {
		return s.stopped(m, c.Threads, c.Part, func(g *doc.Gradient) ([]doc.Stop, error) {
			slices.Reverse(g.Stops)
			for i := range g.Stops {
				g.Stops[i].At = 1 - g.Stops[i].At
			}
			return g.Stops, nil
		})
	}),
	// Dashes of one length. A length that is missing is that of the other; a line of none is wanted for round dots alone.
	"stroke.dash": of(func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Line    *float64 `json:"line"` // absent: as it is
		Gap     *float64 `json:"gap"`
	}) (edit.Command, error) {
		var list []edit.Part
		for _, l := range s.layers(m, c.Threads) {
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

// moveStop moves a colour of a gradient between its neighbours.
func moveStop(stops []doc.Stop, i int, at float64) []doc.Stop {
	if i < 0 || i >= len(stops) {
		return nil
	}
	lo, hi := 0.0, 1.0
	if i > 0 {
		lo = stops[i-1].At
	}
	if i+1 < len(stops) {
		hi = stops[i+1].At
	}
	stops[i].At = min(hi, max(lo, at))
	return stops
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
			g["stops"] = []doc.Stop{{At: 0, Colour: first, Role: f.Role, Tone: f.Tone}, {At: 1, Colour: tone(first)}}
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

// tone is a colour a good step darker, or lighter where it is dark: OKLab lightness moves, hue and chroma stay.
func tone(code string) string {
	c, err := paint.Parse(code)
	if err != nil {
		return code // validation will say so
	}
	v := c.Lab()
	if v.L > 0.45 {
		v.L -= 0.22
	} else {
		v.L += 0.25
	}
	return v.Colour().String()
}

// colourAt returns the colour of a gradient at a share of it.
func (s *Session) colourAt(m Moment, g *doc.Gradient, at float64) paint.Colour {
	roles := s.scene(m).Roles
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

// GradientLine is a gradient as it lies on the page, to be taken by its points.
type GradientLine struct {
	Radial bool         `json:"radial"`
	From   [2]float64   `json:"from"`
	To     [2]float64   `json:"to"`
	Focus  [2]float64   `json:"focus"`
	Rim    [][2]float64 `json:"rim"` // of a radial one: its circle as it is seen, 48 points
	Stops  []GradientAt `json:"stops"`
}

// GradientAt is a colour of a gradient on the page.
type GradientAt struct {
	At     [2]float64 `json:"at"`
	Colour string     `json:"colour"`
}

// lineOf returns the gradient of a layer's fill as it lies on the page.
func (s *Session) lineOf(m Moment, l *doc.Layer) *GradientLine {
	own, _, ok := s.player.Axes(l.ID)
	if !ok {
		return nil
	}
	box, _ := s.shown.Box(s.sceneIndex(m), l.ID)
	return gradientLine(l.Fill, box, own)
}

// BackgroundLine returns the gradient of the background of the moment's scene; nil where it has none.
func (s *Session) BackgroundLine(m Moment) *GradientLine {
	return gradientLine(s.scene(m).Background, s.page(), geom.Identity)
}

// page is the page's box, px.
func (s *Session) page() geom.Box {
	return geom.Box{Max: geom.Point{X: float64(s.doc.Film.Width), Y: float64(s.doc.Film.Height)}}
}

// gradientLine returns the gradient of a fill over a box, seen through own; nil where it has none.
func gradientLine(f doc.Fill, box geom.Box, own geom.Matrix) *GradientLine {
	if !f.Graded() || f.Gradient == nil {
		return nil
	}
	g := f.Gradient
	at := func(v [2]float64) geom.Point { return shared(box, v) }
	from, to := at(g.From), at(g.To)
	v := &GradientLine{Radial: f.Kind == doc.Radial, From: pair(own.Apply(from)), To: pair(own.Apply(to)), Stops: []GradientAt{}, Rim: [][2]float64{}}
	begin := from
	if g.Focus != nil {
		begin = at(*g.Focus)
	}
	v.Focus = pair(own.Apply(begin))
	for _, stop := range g.Stops {
		v.Stops = append(v.Stops, GradientAt{pair(own.Apply(begin.Lerp(to, stop.At))), stop.Colour})
	}
	if v.Radial {
		r := to.Sub(from)
		for i := range 48 {
			v.Rim = append(v.Rim, pair(own.Apply(from.Add(geom.Rotate(float64(i)*7.5).ApplyVector(r)))))
		}
	}
	return v
}

// shared is a point given in shares of a box.
func shared(box geom.Box, v [2]float64) geom.Point {
	return geom.Point{X: box.Min.X + v[0]*box.W(), Y: box.Min.Y + v[1]*box.H()}
}
