package session

import (
	"encoding/base64"
	"math"
	"slices"
	"sort"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/paint"
	"capstan/core/words"
)

// Roles that a scene begins with; it may have others of its own.
const (
	roleGround     = "ground"
	roleGroundTone = "ground tone"
	roleAccent     = "accent"
	roleAccentTone = "accent tone"
	roleWords      = "words"
)

// RoleOrder is the order in which roles are shown; others follow by name.
var RoleOrder = []string{roleGround, roleGroundTone, roleAccent, roleAccentTone, roleWords}

// toneRoles are the roles that are tones of others, by those: they follow them as long as they are made from them.
var toneRoles = map[string]string{roleGround: roleGroundTone, roleAccent: roleAccentTone}

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
	if tone(was) == b.String() {
		return tone(is), true
	}
	return "", false
}

// Role is a colour role of a scene.
type Role struct {
	Name   string `json:"name"`
	Colour string `json:"colour"`
	Uses   int    `json:"uses"` // how often the scene takes its colour from it
}

// roles lists the roles of a scene.
func roles(sc *doc.Scene) []Role {
	list := []Role{}
	for name, c := range sc.Roles {
		list = append(list, Role{name, c, 0})
	}
	place := func(name string) int {
		if i := slices.Index(RoleOrder, name); i >= 0 {
			return i
		}
		return len(RoleOrder)
	}
	sort.Slice(list, func(i, k int) bool {
		a, b := list[i].Name, list[k].Name
		if d := place(a) - place(b); d != 0 {
			return d < 0
		}
		return a < b
	})
	if len(list) > 0 {
		count := map[string]int{}
		eachInk(sc, func(k ink) { count[*k.role]++ })
		for i := range list {
			list[i].Uses = count[list[i].Name]
		}
	}
	return list
}

// ink is a colour of a document that may come from a role.
type ink struct {
	colour, role *string
	tone         *int
}

// inksOfFill calls f for every colour of a fill.
func inksOfFill(v *doc.Fill, f func(ink)) {
	if v.Kind == doc.Solid {
		f(ink{&v.Colour, &v.Role, &v.Tone})
	}
	if v.Graded() && v.Gradient != nil {
		for i := range v.Gradient.Stops {
			s := &v.Gradient.Stops[i]
			f(ink{&s.Colour, &s.Role, &s.Tone})
		}
	}
}

// inksOfLayer calls f for every colour of a layer itself.
func inksOfLayer(l *doc.Layer, f func(ink)) {
	inksOfFill(&l.Fill, f)
	if l.Stroke != nil {
		inksOfFill(&l.Stroke.Fill, f)
	}
	if l.Text != nil && l.Text.Plate != nil {
		f(ink{&l.Text.Plate.Colour, &l.Text.Plate.Role, &l.Text.Plate.Tone})
	}
	if l.Shadow != nil {
		f(ink{&l.Shadow.Colour, &l.Shadow.Role, &l.Shadow.Tone})
	}
	if l.Glow != nil {
		f(ink{&l.Glow.Colour, &l.Glow.Role, &l.Glow.Tone})
	}
}

// eachInk calls f for every colour of a scene, which it may change only where the scene is the caller's own.
func eachInk(sc *doc.Scene, f func(ink)) {
	inksOfFill(&sc.Background, f)
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		inksOfLayer(l, f)
		return true
	})
}

// resolved returns the colour an ink has in a scene, as a code.
func resolved(k ink, sc *doc.Scene) string {
	c, ok := sc.Roles[*k.role]
	if !ok || *k.role == "" {
		return *k.colour
	}
	v, err := paint.Parse(c)
	if err != nil {
		return *k.colour
	}
	return v.Tone(*k.tone).String()
}

// shown returns a copy of a layer's own fields whose colours are those it has in its scene.
func shown(l *doc.Layer, sc *doc.Scene) *doc.Layer {
	head := *l
	head.Moves, head.Children, head.Made = nil, nil, nil
	c := head.Clone()
	inksOfLayer(c, func(k ink) { *k.colour = resolved(k, sc) })
	return c
}

// painted returns the background of a scene in the colours it has.
func painted(sc *doc.Scene) doc.Fill {
	c := (&doc.Scene{Background: sc.Background}).Clone()
	inksOfFill(&c.Background, func(k ink) { *k.colour = resolved(k, sc) })
	return c.Background
}

// Tones returns the tones of a colour from the darkest to the lightest, the colour itself in the middle.
func Tones(code string) []string {
	c, err := paint.Parse(code)
	if err != nil {
		return []string{}
	}
	list := make([]string, 0, 2*paint.ToneSteps+1)
	for k := -paint.ToneSteps; k <= paint.ToneSteps; k++ {
		list = append(list, c.Tone(k).String())
	}
	return list
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
	text := readable(doc.Fill{Kind: doc.Solid, Colour: ground.String()})
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
		roleGround: ground.String(), roleGroundTone: ground.Tone(step).String(), roleAccent: accent.String(), roleAccentTone: accent.Tone(-1).String(), roleWords: text,
	}
}

// withRoles is the command that gives a scene roles and lets every colour equal to one of them, or to a tone of one, follow it.
func withRoles(sc *doc.Scene, list map[string]string) (edit.Command, error) {
	names := make([]string, 0, len(list))
	for n := range list {
		names = append(names, n)
	}
	sort.Slice(names, func(i, k int) bool { return orderKey(names[i]) < orderKey(names[k]) })
	type tone struct {
		role string
		step int
	}
	of := map[string]tone{}
	for _, step := range []int{0, -1, 1, -2, 2, -3, 3, -4, 4, -5, 5} {
		for _, n := range names {
			if c, err := paint.Parse(list[n]); err == nil {
				code := c.Tone(step).String()
				if _, taken := of[code]; !taken {
					of[code] = tone{n, step}
				}
			}
		}
	}
	follow := func(k ink) bool {
		t, ok := of[*k.colour]
		if ok && *k.role == "" {
			*k.role, *k.tone = t.role, t.step
		}
		return ok
	}
	commands := []edit.Command{&edit.SetScenes{IDs: []string{sc.ID}, Patch: edit.Fields{"roles": list}}}
	c := (&doc.Scene{Background: sc.Background}).Clone()
	changed := false
	inksOfFill(&c.Background, func(k ink) { changed = follow(k) || changed })
	if changed {
		commands = append(commands, &edit.SetScenes{IDs: []string{sc.ID}, Patch: edit.Fields{"background": c.Background}})
	}
	var set []edit.Part
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		c := shown(l, &doc.Scene{})
		changed := false
		inksOfLayer(c, func(k ink) { changed = follow(k) || changed })
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

func orderKey(name string) string {
	if i := slices.Index(RoleOrder, name); i >= 0 {
		return string(rune('0' + i))
	}
	return "9" + name
}

// sceneIDs returns the scenes that are meant: those named, else the one at the moment.
func (s *Session) sceneIDs(m Moment, ids []string) []string {
	if len(ids) > 0 {
		return ids
	}
	return []string{s.scene(m).ID}
}

var rolesAsked = table{
	// A scene's first roles: its colours as they are, which from then on follow them.
	"roles.begin": of(func(s *Session, m Moment, c *struct{}) (edit.Command, error) {
		sc := s.scene(m)
		if len(sc.Roles) > 0 {
			return nil, nil
		}
		return withRoles(sc, guess(sc))
	}),
	"roles.set": of(func(s *Session, m Moment, c *struct {
		Name   string   `json:"name"`
		Colour *string  `json:"colour"` // null takes the role away; what used it keeps its colour
		Scenes []string `json:"scenes"` // absent: the one at the moment
	}) (edit.Command, error) {
		name := strings.TrimSpace(c.Name)
		if name == "" || len([]rune(name)) > 40 {
			return nil, words.New("role.name")
		}
		ids := s.sceneIDs(m, c.Scenes)
		var commands []edit.Command
		if c.Colour == nil {
			for _, id := range ids {
				if _, sc := s.doc.Scene(id); sc != nil {
					commands = append(commands, s.letGo(sc, name)...)
				}
			}
		}
		for _, id := range ids {
			_, sc := s.doc.Scene(id)
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
	"roles.apply": of(func(s *Session, m Moment, c *struct {
		Roles  map[string]string `json:"roles"`
		Scenes []string          `json:"scenes"`
	}) (edit.Command, error) {
		return s.applyRoles(m, c.Roles, c.Scenes)
	}),
	"roles.save": of(func(s *Session, m Moment, c *struct {
		Name string `json:"name"`
	}) (edit.Command, error) {
		name := strings.TrimSpace(c.Name)
		sc := s.scene(m)
		if name == "" || len(sc.Roles) == 0 {
			return nil, words.New("role.name")
		}
		sets := append(slices.Clone(s.doc.RoleSets), &doc.RoleSet{ID: s.id(), Name: name, Roles: sc.Roles})
		return &edit.SetProject{Patch: edit.Fields{"roleSets": sets}}, nil
	}),
	// Five roles from a picture: rgba are its pixels, in base 64.
	"roles.propose": of(func(s *Session, m Moment, c *struct {
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
			roleGround: ground.String(), roleGroundTone: groundTone.String(), roleAccent: accent.String(), roleAccentTone: accentTone.String(), roleWords: text.String(),
		}
		return s.applyRoles(m, list, c.Scenes)
	}),
	// Colours and looks that are put aside, for the whole project.
	"palette.set": of(func(s *Session, _ Moment, c *struct {
		Colour string `json:"colour"`
		Gone   bool   `json:"gone"`
	}) (edit.Command, error) {
		list := slices.DeleteFunc(slices.Clone(s.doc.Palette), func(v string) bool { return v == c.Colour })
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
func (s *Session) applyRoles(m Moment, roles map[string]string, scenes []string) (edit.Command, error) {
	ids := s.sceneIDs(m, scenes)
	var commands []edit.Command
	for _, id := range ids {
		_, sc := s.doc.Scene(id)
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
func (s *Session) letGo(sc *doc.Scene, role string) []edit.Command {
	var commands []edit.Command
	freed := func(k ink) bool {
		if *k.role != role {
			return false
		}
		*k.colour = resolved(k, sc)
		*k.role, *k.tone = "", 0
		return true
	}
	back := (&doc.Scene{Background: sc.Background}).Clone()
	changed := false
	inksOfFill(&back.Background, func(k ink) { changed = freed(k) || changed })
	if changed {
		commands = append(commands, &edit.SetScenes{IDs: []string{sc.ID}, Patch: edit.Fields{"background": back.Background}})
	}
	var set []edit.Part
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		c := shown(l, &doc.Scene{})
		changed := false
		inksOfLayer(c, func(k ink) { changed = freed(k) || changed })
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
	p := edit.Fields{"fill": l.Fill, "stroke": l.Stroke, "shadow": l.Shadow, "glow": l.Glow}
	if l.Text != nil && l.Text.Plate != nil {
		p["text"] = edit.Fields{"plate": l.Text.Plate}
	}
	return edit.Part{ID: id, Patch: p}
}
