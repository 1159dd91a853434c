package looks

import (
	"maps"
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/ink"
	"capstan/core/intent"
	"capstan/core/paint"
	"capstan/core/scope"
	"capstan/core/words"
)

// mostTurn is how far hues are turned at most, in degrees.
const mostTurn = 360

var recolouringAsked = intent.Table{
	// A colour of layers becomes another wherever it is in them; both may be tones of roles.
	"recolour.one": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		From    doc.Tone `json:"from"`
		To      doc.Tone `json:"to"`
	}) (edit.Command, error) {
		to := ink.Code(c.To.Colour, c.To.Role, c.To.Tone, s.Scene(m))
		return recoloured(s, m, c.Threads, func(is doc.Tone) doc.Tone {
			if is != c.From {
				return is
			}
			return doc.Tone{Colour: to, Role: c.To.Role, Tone: c.To.Tone}
		})
	}),
	// All colours of layers are turned by degrees of hue, made lighter and more or less strong; they no longer come from roles.
	"recolour.shift": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Hue     float64  `json:"hue"`    // degrees
		Light   float64  `json:"light"`  // -1..1 is added
		Chroma  float64  `json:"chroma"` // -1..1: from none to twice as much
	}) (edit.Command, error) {
		if math.Abs(c.Hue) > mostTurn || math.Abs(c.Light) > 1 || math.Abs(c.Chroma) > 1 {
			return nil, words.New("recolour.much")
		}
		if c.Hue == 0 && c.Light == 0 && c.Chroma == 0 {
			return nil, nil
		}
		return recoloured(s, m, c.Threads, func(is doc.Tone) doc.Tone {
			v, err := paint.Parse(is.Colour)
			if err != nil {
				return is
			}
			return doc.Tone{Colour: v.Shifted(c.Hue, c.Light, c.Chroma).String()}
		})
	}),
	// Each colour of layers becomes the nearest tone of the scene's roles, or the nearest colour that the film has outside of them.
	"recolour.nearest": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Roles   bool     `json:"roles"` // of the roles, instead of the film's colours
	}) (edit.Command, error) {
		list := filmTones(s, m, c.Threads)
		if c.Roles {
			list = roleTones(s.Scene(m))
		}
		if len(list) == 0 {
			return nil, words.New("recolour.none")
		}
		colours := make([]paint.Colour, len(list))
		for i, t := range list {
			colours[i], _ = paint.Parse(t.Colour)
		}
		return recoloured(s, m, c.Threads, func(is doc.Tone) doc.Tone {
			v, err := paint.Parse(is.Colour)
			if err != nil {
				return is
			}
			best := 0
			for i := range list {
				if paint.Apart(v, colours[i]) < paint.Apart(v, colours[best])-1e-9 {
					best = i
				}
			}
			to := list[best]
			if v.A < 1 { // as see-through as it was: roles have no such tones
				k := colours[best]
				k.A = v.A
				to = doc.Tone{Colour: k.String()}
			}
			return to
		})
	}),
}

// recoloured returns the command that makes of every colour in layers what to does; it is given the colour that it has in the scene.
func recoloured(s *intent.Desk, m scope.Moment, threads []string, to func(doc.Tone) doc.Tone) (edit.Command, error) {
	sc := s.Scene(m)
	var commands edit.Commands
	var set []edit.Part
	change := func(k ink.Ink) (changed bool) {
		is := doc.Tone{Colour: ink.Resolved(k, sc), Role: *k.Role, Tone: *k.Tone}
		next := to(is)
		if next == is {
			return false
		}
		*k.Colour, *k.Role, *k.Tone = next.Colour, next.Role, next.Tone
		return true
	}
	for _, l := range scope.Outermost(sc, s.Layers(m, threads)) {
		doc.Walk([]*doc.Layer{l}, func(k, _ *doc.Layer) bool {
			head := *k
			head.Children, head.Made = nil, nil
			c := head.Clone()
			changed := false
			ink.OfHead(c, func(k ink.Ink) { changed = change(k) || changed })
			if changed {
				part := inked(k.ID, c)
				if c.Text != nil {
					part.Patch["text"] = edit.Fields{"plate": c.Text.Plate, "runs": c.Text.Runs}
				}
				set = append(set, part)
			}
			for i, move := range c.Moves {
				if move.Change == nil {
					continue
				}
				changed := false
				ink.Within(&doc.Layer{Moves: c.Moves[i : i+1]}, func(k ink.Ink) { changed = change(k) || changed })
				if changed {
					commands = append(commands, edit.SetMove(move.ID, edit.Fields{"change": *move.Change}))
				}
			}
			return true
		})
	}
	if len(set) > 0 {
		commands = append(commands, &edit.SetLayers{Set: set})
	}
	if len(commands) == 0 {
		return nil, nil
	}
	return &edit.Batch{Commands: commands}, nil
}

// roleTones are all tones of the scene's roles.
func roleTones(sc *doc.Scene) (list []doc.Tone) {
	for _, role := range slices.Sorted(maps.Keys(sc.Roles)) {
		c, err := paint.Parse(sc.Roles[role])
		if err != nil {
			continue
		}
		list = append(list, doc.Tone{Colour: c.String(), Role: role})
		for k := 1; k <= paint.ToneSteps; k++ {
			list = append(list, doc.Tone{Colour: c.Tone(k).String(), Role: role, Tone: k}, doc.Tone{Colour: c.Tone(-k).String(), Role: role, Tone: -k})
		}
	}
	return
}

// filmTones are the opaque colours that the film has but for some of its layers, and those that were put aside.
func filmTones(s *intent.Desk, m scope.Moment, but []string) (list []doc.Tone) {
	seen := map[string]bool{}
	add := func(code string) {
		if c, err := paint.Parse(code); err == nil && c.A == 1 && !seen[c.String()] {
			seen[c.String()] = true
			list = append(list, doc.Tone{Colour: c.String()})
		}
	}
	for _, c := range s.Doc.Palette {
		add(c)
	}
	for _, sc := range s.Doc.Film.Shown() {
		ink.OfFill(&sc.Background, func(k ink.Ink) { add(ink.Resolved(k, sc)) })
		for _, l := range sc.Layers {
			doc.Walk([]*doc.Layer{l}, func(k, _ *doc.Layer) bool {
				if slices.Contains(but, k.Thread) {
					return false
				}
				ink.OfHead(k, func(k ink.Ink) { add(ink.Resolved(k, sc)) })
				return true
			})
		}
	}
	return
}
