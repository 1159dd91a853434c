package looks

import (
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/ink"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

// LookOf returns the look of a layer of the moment's scene, to be given to others, with the colours it has there; nil for none.
func LookOf(s *intent.Desk, m scope.Moment, thread string) *doc.Look {
	list := s.Layers(m, []string{thread})
	if len(list) == 0 {
		return nil
	}
	l := ink.Shown(list[0], s.Scene(m))
	return &doc.Look{Fill: l.Fill, Stroke: l.Stroke, Opacity: l.Opacity, Blend: l.Blend, Blur: l.Blur, Feather: l.Feather, Shadow: l.Shadow, Glow: l.Glow, Adjust: l.Adjust, Corner: l.Corner}
}

// dressed is the patch that gives a layer a look, as far as its kind has one: groups and pictures have no fill and stroke.
func dressed(l *doc.Layer, k *doc.Look) edit.Fields {
	p := edit.Fields{"opacity": k.Opacity, "blend": k.Blend, "blur": k.Blur, "feather": k.Feather, "shadow": k.Shadow, "glow": k.Glow, "adjust": k.Adjust}
	if _, ok := edit.FillOf(l, edit.FillPart); !ok {
		return p
	}
	p["fill"] = k.Fill
	if l.IsShape() && l.Is().Cornered {
		p["corner"] = k.Corner
	}
	p["stroke"] = nil
	if k.Stroke != nil && l.Is().Stroked {
		v := *k.Stroke
		if v.Trim = nil; l.Stroke != nil {
			v.Trim = l.Stroke.Trim // how much of the line is drawn is none of its looks
		}
		p["stroke"] = v
	}
	return p
}

var savedAsked = intent.Table{
	"look.paste": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string  `json:"threads"`
		Look    *doc.Look `json:"look"`
		Saved   string    `json:"saved"` // the id of one that was put aside, instead
	}) (edit.Command, error) {
		look := c.Look
		for _, v := range s.Doc.Looks {
			if v.ID == c.Saved {
				look = &v.Look
			}
		}
		if look == nil {
			return nil, words.New("look.none")
		}
		var list []edit.Part
		for _, l := range s.Layers(m, c.Threads) {
			list = append(list, edit.Part{ID: l.ID, Patch: dressed(l, look)})
		}
		if len(list) == 0 {
			return nil, nil
		}
		return &edit.SetLayers{Set: list}, nil
	}),
	"look.save": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Thread string `json:"thread"`
		Name   string `json:"name"`
	}) (edit.Command, error) {
		look := LookOf(s, m, c.Thread)
		if look == nil {
			return nil, words.New("look.none")
		}
		name := strings.TrimSpace(c.Name)
		if name == "" {
			name = s.Layers(m, []string{c.Thread})[0].Name
		}
		looks := append(slices.Clone(s.Doc.Looks), &doc.SavedLook{ID: s.NewID(), Name: name, Look: *look})
		return &edit.SetProject{Patch: edit.Fields{"looks": looks}}, nil
	}),
	"look.forget": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		ID string `json:"id"`
	}) (edit.Command, error) {
		looks := slices.DeleteFunc(slices.Clone(s.Doc.Looks), func(v *doc.SavedLook) bool { return v.ID == c.ID })
		if len(looks) == 0 {
			return &edit.SetProject{Patch: edit.Fields{"looks": nil}}, nil
		}
		return &edit.SetProject{Patch: edit.Fields{"looks": looks}}, nil
	}),
	// A picture or a texture as a fill; hash and media are those of a file that was just taken in, or of one the project has.
	"fill.picture": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string   `json:"threads"`
		Kind    string     `json:"kind"` // picture or texture
		Hash    string     `json:"hash"`
		Media   *doc.Media `json:"media"`
	}) (edit.Command, error) {
		if c.Media == nil && s.Doc.Media[c.Hash] == nil {
			return nil, words.New("picture.none")
		}
		set, err := look(s, m, c.Threads, edit.FillPart, func(l *doc.Layer, f doc.Fill) (edit.Fields, error) {
			p := edit.Fields{"kind": c.Kind, "media": c.Hash, "gradient": nil, "colour": nil, "role": nil, "tone": nil, "size": nil}
			if c.Kind == doc.Texture {
				p["size"] = max(8, min(400, l.Place.W/3))
			}
			return edit.Filled(edit.FillPart, p), nil
		})
		if err != nil || set == nil || c.Media == nil {
			return set, err
		}
		return edit.All(&edit.AddMedia{Hash: c.Hash, Media: c.Media}, set), nil
	}),
}
