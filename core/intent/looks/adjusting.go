package looks

import (
	"maps"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/paint"
	"capstan/core/scope"
)

var adjustingAsked = intent.Table{
	// Layers are toned by no tone, one or two: those they have stay, others come from the scene's roles.
	"adjust.tones": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Count   int      `json:"count"`
	}) (edit.Command, error) {
		return toned(s, m, c.Threads, func(v *doc.Toned) *doc.Toned {
			if c.Count < 1 {
				return nil
			}
			if v == nil {
				v = &doc.Toned{Amount: 1}
			}
			list := slices.Clone(v.Tones[:min(len(v.Tones), c.Count)])
			for usual := usualTones(s.Scene(m), c.Count); len(list) < min(c.Count, 2); {
				list = append(list, usual[len(list)])
			}
			return &doc.Toned{Amount: v.Amount, Tones: list}
		})
	}),
	// One of the tones of layers becomes another colour; those that have none are toned with it.
	"adjust.tone": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Index   int      `json:"index"`
		Tone    doc.Tone `json:"tone"`
	}) (edit.Command, error) {
		return toned(s, m, c.Threads, func(v *doc.Toned) *doc.Toned {
			if v == nil && c.Index == 0 {
				return &doc.Toned{Amount: 1, Tones: []doc.Tone{c.Tone}}
			}
			if v == nil || c.Index < 0 || c.Index >= len(v.Tones) {
				return v
			}
			list := slices.Clone(v.Tones)
			list[c.Index] = c.Tone
			return &doc.Toned{Amount: v.Amount, Tones: list}
		})
	}),
}

func toned(s *intent.Desk, m scope.Moment, threads []string, to func(*doc.Toned) *doc.Toned) (edit.Command, error) {
	var list []edit.Part
	for _, l := range s.Layers(m, threads) {
		var v *doc.Toned
		if l.Adjust != nil {
			v = l.Adjust.Toned
		}
		var patch any
		if v = to(v); v != nil {
			patch = v
		}
		list = append(list, edit.Part{ID: l.ID, Patch: edit.Fields{"adjust": edit.Fields{"toned": patch}}})
	}
	if len(list) == 0 {
		return nil, nil
	}
	return &edit.SetLayers{Set: list}, nil
}

// usualTones are the tones that something is first toned with: the role most unlike a grey for one; the darkest and the lightest for two.
func usualTones(sc *doc.Scene, count int) []doc.Tone {
	var roles []doc.Tone
	for _, role := range slices.Sorted(maps.Keys(sc.Roles)) {
		if c, err := paint.Parse(sc.Roles[role]); err == nil {
			roles = append(roles, doc.Tone{Colour: c.String(), Role: role})
		}
	}
	if len(roles) < 2 {
		roles = []doc.Tone{{Colour: "#17403c"}, {Colour: "#f3dca6"}}
	}
	lab := func(t doc.Tone) paint.Lab { c, _ := paint.Parse(t.Colour); return c.Lab() }
	by := func(of func(paint.Lab) float64) doc.Tone {
		return slices.MaxFunc(roles, func(a, b doc.Tone) int {
			switch x, y := of(lab(a)), of(lab(b)); {
			case x < y:
				return -1
			case x > y:
				return 1
			}
			return 0
		})
	}
	if count < 2 {
		return []doc.Tone{by(func(v paint.Lab) float64 { return v.A*v.A + v.B*v.B })}
	}
	return []doc.Tone{by(func(v paint.Lab) float64 { return -v.L }), by(func(v paint.Lab) float64 { return v.L })}
}
