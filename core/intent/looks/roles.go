package looks

import (
	"encoding/base64"
	"math"
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/ink"
	"capstan/core/intent"
	"capstan/core/paint"
	"capstan/core/scope"
	"capstan/core/words"
)

// toneRoles are the roles that are tones of others, by those: they follow them as long as they are made from them.
var toneRoles = map[string]string{ink.RoleGround: ink.RoleGroundTone, ink.RoleAccent: ink.RoleAccentTone}

// toneAsBefore returns the tone of a new colour that follower is of the one before; false where it is none of its tones.
func toneAsBefore(was, follower, is string) (string, bool) {
	a, err1 := paint.Parse(was)
	b, err2 := paint.Parse(follower)
	c, err3 := paint.Parse(is)
	if err1 != nil || err2 != nil || err3 != nil {
		return "", false
	}
	for k := -paint.ToneSteps; k <= paint.ToneSteps; k++ {
		if k != 0 && a.Tone(k).String() == b.String() {
			return c.Tone(k).String(), true
		}
	}
	if ink.Tone(was) == b.String() {
		return ink.Tone(is), true
	}
	return "", false
}

// guess proposes the roles of a scene from what it is painted with.
func guess(sc *doc.Scene) map[string]string {
	ground := paint.White
	if c, err := paint.Parse(sc.Background.Colour); err == nil && sc.Background.Kind == doc.Solid {
		ground = c
	}
	step := 1
	if ground.Lab().L > 0.6 {
		step = -1
	}
	accent, most := ground.Tone(3*step), -1.0
	text := ink.Readable(doc.Fill{Kind: doc.Solid, Colour: ground.String()})
	found := false
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		c, err := paint.Parse(l.Fill.Colour)
		if err != nil || l.Fill.Kind != doc.Solid {
			return true
		}
		if l.Kind == doc.TextKind {
			if !found {
				text, found = c.String(), true
			}
			return true
		}
		v := c.Lab()
		if chroma := math.Hypot(v.A, v.B); chroma > most && l.Kind != doc.Group {
			most, accent = chroma, c
		}
		return true
	})
	return map[string]string{
		ink.RoleGround: ground.String(), ink.RoleGroundTone: ground.Tone(step).String(), ink.RoleAccent: accent.String(), ink.RoleAccentTone: accent.Tone(-1).String(), ink.RoleWords: text,
	}
}

// withRoles is the command that gives a scene roles and lets every colour equal to one of them, or to a tone of one, follow it.
func withRoles(sc *doc.Scene, list map[string]string) (edit.Command, error) {
	follow := ink.Follows(list)
	commands := []edit.Command{&edit.SetScenes{IDs: []string{sc.ID}, Patch: edit.Fields{"roles": list}}}
	c := (&doc.Scene{Background: sc.Background}).Clone()
	changed := false
	ink.OfFill(&c.Background, func(k ink.Ink) { changed = follow(k) || changed })
	if changed {
		commands = append(commands, &edit.SetScenes{IDs: []string{sc.ID}, Patch: edit.Fields{"background": c.Background}})
	}
	var set []edit.Part
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		c := ink.Shown(l, &doc.Scene{})
		changed := false
		ink.OfLayer(c, func(k ink.Ink) { changed = follow(k) || changed })
		if changed {
			set = append(set, inked(l.ID, c))
		}
		return true
	})
	if len(set) > 0 {
		commands = append(commands, &edit.SetLayers{Set: set})
	}
	return edit.All(commands...), nil
}

// sceneIDs returns the scenes that are meant: those named, else the one at the moment.
func sceneIDs(s *intent.Desk, m scope.Moment, ids []string) []string {
	if len(ids) > 0 {
		return ids
	}
	return []string{s.Scene(m).ID}
}

var rolesAsked = intent.Table{
	// A scene's first roles: its colours as they are, which from then on follow them.
	"roles.begin": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct{}) (edit.Command, error) {
		sc := s.Scene(m)
		if len(sc.Roles) > 0 {
			return nil, nil
		}
		return withRoles(sc, guess(sc))
	}),
	"roles.set": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Name   string   `json:"name"`
		Colour *string  `json:"colour"` // null takes the role away; what used it keeps its colour
		Scenes []string `json:"scenes"` // absent: the one at the moment
	}) (edit.Command, error) {
		name := strings.TrimSpace(c.Name)
		if name == "" || len([]rune(name)) > 40 {
			return nil, words.New("role.name")
		}
		ids := sceneIDs(s, m, c.Scenes)
		var commands []edit.Command
		if c.Colour == nil {
			for _, id := range ids {
				if _, sc := s.Doc.Scene(id); sc != nil {
					commands = append(commands, letGo(s, sc, name)...)
				}
			}
		}
		for _, id := range ids {
			_, sc := s.Doc.Scene(id)
			if sc == nil {
				return nil, words.New("scene.gone")
			}
			set := edit.Fields{name: c.Colour}
			if follower := toneRoles[name]; follower != "" && c.Colour != nil {
				if code, ok := toneAsBefore(sc.Roles[name], sc.Roles[follower], *c.Colour); ok {
					set[follower] = code
				}
			}
			commands = append(commands, &edit.SetScenes{IDs: []string{id}, Patch: edit.Fields{"roles": set}})
		}
		return edit.All(commands...), nil
	}),
	// A set of roles for scenes, in one action.
	"roles.apply": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Roles  map[string]string `json:"roles"`
		Scenes []string          `json:"scenes"`
	}) (edit.Command, error) {
		return applyRoles(s, m, c.Roles, c.Scenes)
	}),
	"roles.save": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Name string `json:"name"`
	}) (edit.Command, error) {
		name := strings.TrimSpace(c.Name)
		sc := s.Scene(m)
		if name == "" || len(sc.Roles) == 0 {
			return nil, words.New("role.name")
		}
		sets := append(slices.Clone(s.Doc.RoleSets), &doc.RoleSet{ID: s.NewID(), Name: name, Roles: sc.Roles})
		return &edit.SetProject{Patch: edit.Fields{"roleSets": sets}}, nil
	}),
	// Five roles from a picture: rgba are its pixels, in base 64.
	"roles.propose": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		RGBA   string   `json:"rgba"`
		Scenes []string `json:"scenes"`
	}) (edit.Command, error) {
		raw, err := base64.StdEncoding.DecodeString(c.RGBA)
		if err != nil {
			return nil, words.New("picture.none")
		}
		ground, groundTone, accent, accentTone, text, ok := paint.Roles(raw)
		if !ok {
			return nil, words.New("picture.clear")
		}
		list := map[string]string{
			ink.RoleGround: ground.String(), ink.RoleGroundTone: groundTone.String(), ink.RoleAccent: accent.String(), ink.RoleAccentTone: accentTone.String(), ink.RoleWords: text.String(),
		}
		return applyRoles(s, m, list, c.Scenes)
	}),
	// Colours and looks that are put aside, for the whole project.
	"palette.set": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Colour string `json:"colour"`
		Gone   bool   `json:"gone"`
	}) (edit.Command, error) {
		list := slices.DeleteFunc(slices.Clone(s.Doc.Palette), func(v string) bool { return v == c.Colour })
		if !c.Gone {
			list = append(list, c.Colour)
		}
		if len(list) == 0 {
			return &edit.SetProject{Patch: edit.Fields{"palette": nil}}, nil
		}
		return &edit.SetProject{Patch: edit.Fields{"palette": list}}, nil
	}),
}

// applyRoles gives scenes, or without any the one at the moment, a set of roles beside those they have.
func applyRoles(s *intent.Desk, m scope.Moment, roles map[string]string, scenes []string) (edit.Command, error) {
	ids := sceneIDs(s, m, scenes)
	var commands []edit.Command
	for _, id := range ids {
		_, sc := s.Doc.Scene(id)
		if sc == nil {
			continue
		}
		if len(sc.Roles) == 0 { // first its own colours become roles, so that there is something to recolour
			begin, err := withRoles(sc, guess(sc))
			if err != nil {
				return nil, err
			}
			commands = append(commands, begin)
		}
		commands = append(commands, &edit.SetScenes{IDs: []string{id}, Patch: edit.Fields{"roles": roles}})
	}
	if len(commands) == 0 {
		return nil, nil
	}
	return edit.All(commands...), nil
}

// letGo returns the commands after which nothing of a scene takes its colour from a role; every colour stays what it looks like.
func letGo(s *intent.Desk, sc *doc.Scene, role string) []edit.Command {
	var commands []edit.Command
	freed := func(k ink.Ink) bool {
		if *k.Role != role {
			return false
		}
		*k.Colour = ink.Resolved(k, sc)
		*k.Role, *k.Tone = "", 0
		return true
	}
	back := (&doc.Scene{Background: sc.Background}).Clone()
	changed := false
	ink.OfFill(&back.Background, func(k ink.Ink) { changed = freed(k) || changed })
	if changed {
		commands = append(commands, &edit.SetScenes{IDs: []string{sc.ID}, Patch: edit.Fields{"background": back.Background}})
	}
	var set []edit.Part
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		c := ink.Shown(l, &doc.Scene{})
		changed := false
		ink.OfLayer(c, func(k ink.Ink) { changed = freed(k) || changed })
		if changed {
			set = append(set, inked(l.ID, c))
		}
		return true
	})
	if len(set) > 0 {
		commands = append(commands, &edit.SetLayers{Set: set})
	}
	return commands
}

// inked gives a layer the colours of another like it, and what these come from.
func inked(id string, l *doc.Layer) edit.Part {
	p := edit.Fields{"fill": l.Fill, "stroke": l.Stroke, "shadow": l.Shadow, "glow": l.Glow, "adjust": l.Adjust}
	if l.Text != nil && l.Text.Plate != nil {
		p["text"] = edit.Fields{"plate": l.Text.Plate}
	}
	return edit.Part{ID: id, Patch: p}
}
