package doc

import (
	"encoding/hex"
	"fmt"
	"math"
	"slices"
	"sort"
	"unicode/utf8"

	"capstan/core/paint"
	"capstan/core/words"
)

// Invalid names the field of a document that breaks a rule, as a path such as
// film.scenes[0].layers[2].opacity, and says what is wrong with it.
type Invalid struct{ Field, Why string }

func (e *Invalid) Error() string { return e.Fault().Error() }

// Fault returns it in words for people.
func (e *Invalid) Fault() *words.Fault { return words.New("document.invalid", e.Field+" "+e.Why) }

// checker finds the first broken rule. Paths to fields are only built where they are wanted: most documents are fine.
type checker struct {
	paths   bool
	settled map[*Scene]bool // valid already
	fine    map[*Layer]bool // valid already, but for their ids and what they hang on
	err     *Invalid
	ids     map[string]bool
	media   map[string]*Media
	easings func(string) error
	width   int // of the page of the film that is checked, px
}

// CheckEasing decides whether a CSS easing is understood. The motion package sets it, so that the
// document refuses just what cannot be played; until then every easing passes.
var CheckEasing func(string) error

// Validate returns the first broken rule as an *Invalid, or nil.
func (p *Project) Validate() error { return p.ValidateChange(nil) }

// ValidateChange is Validate for a document made from before, which is valid: scenes that both share are not looked into
// again, but for the ids they take.
func (p *Project) ValidateChange(before *Project) error {
	if p = p.Settled(); before != nil {
		before = before.Settled()
	}
	if before != nil && p.headsOnly(before) {
		if p.checkHeads(before) == nil {
			return nil
		}
		return p.check(true, nil, nil)
	}
	known, fine := map[*Scene]bool{}, map[*Layer]bool{}
	if before != nil && p.hasAllOf(before) {
		here := map[*Scene]bool{}
		p.EachFilm(func(_ string, f *Film) {
			for _, s := range f.Scenes {
				here[s] = true
			}
		})
		before.EachFilm(func(_ string, f *Film) {
			for _, s := range f.Scenes {
				known[s] = true
				if here[s] || len(s.Roles) > 0 { // its layers may name roles that are gone
					continue
				}
				Walk(s.Layers, func(l, _ *Layer) bool { fine[l] = true; return true })
			}
		})
	}
	if p.check(false, known, fine) == nil {
		return nil
	}
	return p.check(true, nil, nil)
}

// hasAllOf reports whether nothing that layers use has been taken away since before.
func (p *Project) hasAllOf(before *Project) bool {
	for h := range before.Media {
		if p.Media[h] == nil {
			return false
		}
	}
	return true
}

func (p *Project) check(paths bool, known map[*Scene]bool, fine map[*Layer]bool) error {
	c := &checker{settled: known, fine: fine, paths: paths, ids: make(map[string]bool, p.count()), media: p.Media, easings: CheckEasing}
	if p.Version != Version {
		c.fail("version", "must be %d", Version)
	}
	c.id("id", p.ID)
	c.name("name", p.Name)
	c.most("media", len(p.Media), MaxMedia)
	for _, h := range sortedKeys(p.Media) {
		m := p.Media[h]
		at := "media." + h
		if !isHash(h) {
			c.fail(at, "is no SHA-256 hash")
		}
		if m == nil {
			c.fail(at, "is empty")
			continue
		}
		if m.Width < 0 || m.Height < 0 || m.Width > MaxSide || m.Height > MaxSide {
			c.fail(at, "has sides outside 0..%d px", MaxSide)
		}
		c.name(at+".name", m.Name)
		for field, v := range map[string]string{".source": m.Source, ".licence": m.Licence} {
			if utf8.RuneCountInString(v) > MaxCredit {
				c.fail(at+field, "is longer than %d characters", MaxCredit)
			}
		}
		if v := m.Shown; v != nil && !(v[0] >= 0 && v[1] >= 0 && v[2] <= 1 && v[3] <= 1 && v[0] < v[2] && v[1] < v[3]) {
			c.fail(at+".shown", "is no part of the picture")
		}
		if m.Covers != "" && Covered(m.Covers) == nil {
			c.fail(at+".covers", "is no grid of 32 by 32 cells")
		}
		if m.IsSound() && (m.Samples < 1 || m.Samples > MaxRecording*SampleRate || m.Channels < 1 || m.Channels > 2) {
			c.fail(at, "is a recording of no length, of more than two hours, or of more than two channels")
		}
		if m.IsFont() && (m.Family == "" || len(m.Family) > 400 || m.Weight < 1 || m.Weight > 1000) {
			c.fail(at, "is a font without a family, or without a weight from 1 to 1000")
		}
	}
	// The format has room for what is not built yet. Taken in, it would be silent or unseen.
	if len(p.Insets) > 0 {
		c.fail("insets", "are films in the film, which this Capstan cannot show yet")
	}
	c.film("film", &p.Film)
	c.films(p)
	for i, r := range p.RoleSets {
		at := c.at("roleSets[%d]", i)
		if r == nil {
			c.fail(at, "is empty")
			continue
		}
		c.id(at+".id", r.ID)
		c.roles(at+".roles", r.Roles)
	}
	c.saved(p)
	p.Table.check(c, "table")
	if c.err != nil {
		return c.err
	}
	return nil
}

// films checks the films beside the first.
func (c *checker) films(p *Project) {
	c.most("films", len(p.Films), MaxFilms)
	if len(p.Films) == 0 || c.err != nil {
		return
	}
	of := map[string]*Film{} // which film a thread lives in
	one := func(at string, f *Film) {
		for _, s := range f.Scenes {
			Walk(s.Layers, func(l, _ *Layer) bool {
				if was := of[l.Thread]; was != nil && was != f {
					c.fail(at, "holds the thread %q, which lives in another film", l.Thread)
				}
				of[l.Thread] = f
				return true
			})
		}
	}
	one("film", &p.Film)
	for i, v := range p.Films {
		at := c.at("films[%d]", i)
		if v == nil {
			c.fail(at, "is empty")
			return
		}
		c.id(at+".id", v.ID)
		c.name(at+".name", v.Name)
		if c.film(at+".film", &v.Film); c.err != nil {
			return
		}
		one(at, &v.Film)
	}
}

// saved checks what was put aside: colours, looks, sets of roles.
func (c *checker) saved(p *Project) {
	if n := max(len(p.Palette), len(p.Looks), len(p.RoleSets)); n > MaxSaved {
		c.fail("palette, looks, roleSets", "hold %d; at most %d of each are put aside", n, MaxSaved)
	}
	for i, v := range p.Palette {
		c.colour(c.at("palette[%d]", i), v)
	}
	for i, v := range p.Looks {
		at := c.at("looks[%d]", i)
		if v == nil {
			c.fail(at, "is empty")
			continue
		}
		c.id(at+".id", v.ID)
		c.name(at+".name", v.Name)
		k := &v.Look
		c.number(at+".look.opacity", k.Opacity, 0, 1)
		c.number(at+".look.corner", k.Corner, 0, MaxPlace)
		shown := &Layer{Kind: Rectangle, Fill: k.Fill, Stroke: k.Stroke, Blend: k.Blend, Blur: k.Blur, Feather: k.Feather, Shadow: k.Shadow, Glow: k.Glow, Adjust: k.Adjust}
		c.look(at+".look", shown, &Scene{}) // of any scene: each colour stands beside its role
	}
}

// count returns how many layers and moves the films have: maps of ids made as large need not grow.
func (p *Project) count() int {
	n := 0
	p.EachFilm(func(_ string, f *Film) {
		for _, s := range f.Scenes {
			if s != nil {
				n += s.count()
			}
		}
	})
	return n
}

func (s *Scene) count() int {
	n := 0
	Walk(s.Layers, func(l, _ *Layer) bool {
		if l != nil {
			n += 1 + len(l.Moves)
		}
		return l != nil
	})
	return n
}

// at builds the path to a part of the document.
func (c *checker) at(format string, args ...any) string {
	if !c.paths {
		return ""
	}
	return fmt.Sprintf(format, args...)
}

func (c *checker) fail(field, why string, args ...any) {
	if c.err == nil {
		c.err = &Invalid{field, fmt.Sprintf(why, args...)}
	}
}

// idLike checks what an id is made of.
func (c *checker) idLike(at, id string) bool {
	if len(id) < 1 || len(id) > 40 {
		c.fail(at, "must be 1 to 40 characters long")
		return false
	}
	for _, r := range id {
		if !(r >= 'a' && r <= 'z' || r >= '0' && r <= '9' || r == '-') {
			c.fail(at, "may hold a-z, 0-9 and - only, not %q", string(r))
			return false
		}
	}
	return true
}

func (c *checker) id(at, id string) {
	if !c.idLike(at, id) {
		return
	}
	if c.ids[id] {
		c.fail(at, "is %q, which something else has already", id)
	}
	c.ids[id] = true
}

// taken notes the ids of a scene that is valid already.
func (c *checker) taken(s *Scene) {
	take := func(id string) {
		if c.ids[id] {
			c.fail("", "%q is the id of two things", id)
		}
		c.ids[id] = true
	}
	for _, q := range s.Cues {
		take(q.ID)
	}
	for _, r := range s.Runs {
		take(r.ID)
	}
	for _, q := range s.Sounds { // as it is valid, none is missing
		take(q.ID)
		for _, m := range q.Marks {
			take(m.ID)
		}
	}
	Walk(s.Layers, func(l, _ *Layer) bool {
		take(l.ID)
		for _, m := range l.Moves {
			take(m.ID)
		}
		return true
	})
}

func (c *checker) name(at, s string) {
	if len([]rune(s)) > 200 {
		c.fail(at, "is longer than 200 characters")
	}
}

func (c *checker) most(at string, n, limit int) {
	if n > limit {
		c.fail(at, "are %d; at most %d are kept", n, limit)
	}
}

func (c *checker) number(at string, v, lo, hi float64) {
	if math.IsNaN(v) || v < lo || v > hi {
		c.fail(at, "is %v; it must be %v to %v", v, lo, hi)
	}
}

func (c *checker) time(at string, v, lo int64) {
	if v < lo || v > MaxTime {
		c.fail(at, "is %d ms; it must be %d to %d", v, lo, MaxTime)
	}
}

func (c *checker) oneOf(at, v string, of ...string) {
	if !slices.Contains(of, v) {
		c.fail(at, "is %q; it must be one of %q", v, of)
	}
}

// isHash reports whether a text is a SHA-256 hash in hexadecimal digits.
func isHash(s string) bool {
	b, err := hex.DecodeString(s)
	return err == nil && len(b) == 32
}

func (c *checker) known(at, hash string) {
	if c.media[hash] == nil {
		c.fail(at, "names a file that is not in the project's media")
	}
}

func (c *checker) easing(at, e string) {
	if e == "" || c.easings == nil {
		return
	}
	if err := c.easings(e); err != nil {
		c.fail(at, "is no CSS easing: %v", err)
	}
}

func (c *checker) colour(at, s string) {
	if _, err := paint.Parse(s); err != nil {
		c.fail(at, "is no colour: %v", err)
	}
}

func (c *checker) roles(at string, roles map[string]string) {
	for _, k := range sortedKeys(roles) {
		c.colour(at+"."+k, roles[k])
	}
}

func (c *checker) film(at string, f *Film) {
	c.number(at+".width", float64(f.Width), MinSide, MaxSide)
	c.number(at+".height", float64(f.Height), MinSide, MaxSide)
	if !f.Rate.Valid() {
		c.fail(at+".rate", "must be a fraction of 1/1000 to 240 frames a second, of numbers up to 1000000")
	}
	if f.Under != "" {
		c.colour(at+".under", f.Under)
	}
	if f.EndPause != nil {
		c.time(at+".pause", *f.EndPause, 0)
	}
	if len(f.Scenes) < 1 || len(f.Scenes) > MaxScenes {
		c.fail(at+".scenes", "has %d scenes; a film has 1 to %d", len(f.Scenes), MaxScenes)
	}
	c.width = f.Width
	for i, s := range f.Scenes {
		c.scene(c.at("%s.scenes[%d]", at, i), s)
		if c.err != nil {
			return
		}
	}
	c.sounds(at+".sounds", f.Sounds, nil, nil, true)
	c.mix(at+".mix", f.Mix)
	c.captioned(at+".captions", f.Captions)
	if f.Closing != nil {
		c.transition(at+".closing", *f.Closing)
	}
	shown := f.Shown()
	if len(shown) == 0 {
		c.fail(at+".scenes", "are all set aside; a film has one at least")
	}
	for i, s := range f.Scenes[len(shown):] {
		if s.Template && !s.Aside {
			c.fail(c.at("%s.scenes[%d]", at, len(shown)+i), "is a template and not set aside")
		}
		if !s.Aside || s.Transition.Duration != 0 {
			c.fail(c.at("%s.scenes[%d]", at, len(shown)+i), "comes after one that is set aside: it must be, too, and have a cut")
		}
	}
	total := int64(0)
	for i, s := range shown {
		total += s.Stay
		if i > 0 {
			total += s.Transition.Duration
		} else if s.Transition.Duration != 0 {
			c.fail(at+".scenes[0].transition.duration", "must be 0: nothing comes before the first scene")
		}
	}
	if f.Closing != nil {
		total += f.Closing.Duration
	}
	if total < 10 {
		c.fail(at+".scenes", "last %d ms in all; a film lasts 10 ms or more", total)
	}
	c.shifts(at, f)
}

func (c *checker) scene(at string, s *Scene) {
	if s == nil {
		c.fail(at, "is empty")
		return
	}
	c.id(at+".id", s.ID)
	if c.settled[s] {
		c.taken(s)
		return
	}
	c.name(at+".name", s.Name)
	c.time(at+".stay", s.Stay, 0)
	c.transition(at+".transition", s.Transition)
	c.fill(at+".background", s.Background, s.Roles)
	c.roles(at+".roles", s.Roles)
	c.most(at+".roles", len(s.Roles), MaxRoles)
	c.most(at+".cues", len(s.Cues), MaxCues)
	c.most(at+".runs", len(s.Runs), MaxRuns)
	c.most(at+".guides", len(s.Guides), MaxGuides)
	on := hooks{}
	for i, q := range s.Cues {
		at := c.at("%s.cues[%d]", at, i)
		c.id(at+".id", q.ID)
		c.time(at+".at", q.At, 0)
		c.time(at+".wait", q.Wait, 0)
		on[q.ID] = AtCue
	}
	for _, q := range s.Sounds {
		if q == nil {
			continue // said below
		}
		on[q.ID] = "sound"
		for _, m := range q.Marks {
			on[m.ID] = "mark"
		}
	}
	if s.EndsAtCue != "" && on[s.EndsAtCue] != AtCue {
		c.fail(at+".endsAtCue", "names no cue of this scene")
	}
	c.views(at, s)
	c.through(at, s)
	size := s.count()
	Walk(s.Layers, func(l, _ *Layer) bool {
		if l != nil && c.err == nil && slices.ContainsFunc(l.Moves, func(m *Move) bool { return m != nil && m.Tied() }) {
			if err := TieTrouble(s, l); err != nil {
				c.fail(at+".layers", "cannot be: %v", err)
			}
		}
		return l != nil
	})
	threads, count := make(map[string]bool, size), 0
	moves := make(map[string]*Move, size)
	Walk(s.Layers, func(l, _ *Layer) bool {
		if l != nil {
			for _, m := range l.Moves {
				if m != nil {
					moves[m.ID] = m
				}
			}
		}
		return l != nil
	})
	var layers func(at string, list []*Layer, depth int)
	layers = func(at string, list []*Layer, depth int) {
		if depth > MaxDepth {
			c.fail(at, "lies more than %d groups deep", MaxDepth)
			return
		}
		masks := 0
		for i, l := range list {
			at := c.at("%s[%d]", at, i)
			if l != nil && l.Mask != "" {
				if masks++; masks > MaxMasks {
					c.fail(at+".mask", "is one too many: a group has at most %d masks", MaxMasks)
					return
				}
			}
			if count++; count > MaxLayers {
				c.fail(at, "is one too many: a scene has at most %d layers", MaxLayers)
				return
			}
			if l == nil {
				c.fail(at, "is empty")
				return
			}
			c.layer(at, l, s, moves, on)
			if threads[l.Thread] {
				c.fail(at+".thread", "is %q, which another layer of this scene has", l.Thread)
			}
			threads[l.Thread] = true
			layers(at+".children", l.Children, depth+1)
			if c.err != nil {
				return
			}
		}
	}
	layers(at+".layers", s.Layers, 0)
	if c.err == nil {
		if n := painted(s.Layers); n > MaxCopies {
			c.fail(at+".layers", "make %.0f copies of layers at once by what strews them; there can be %d", n, MaxCopies)
		}
	}
	for i, l := range s.Layers {
		if l != nil && l.Mask != "" {
			c.fail(c.at("%s.layers[%d].mask", at, i), "belongs to a layer in a group")
		}
	}
	for i, r := range s.Runs {
		c.run(c.at("%s.runs[%d]", at, i), r, moves)
	}
	c.sounds(at+".sounds", s.Sounds, moves, on, false)
	c.captions(at+".captions", s.Captions)
}

// painted is how many layers are painted at once, at most, that are in groups and copied by their moves.
func painted(list []*Layer) (n float64) {
	for _, l := range list {
		times := 1.0
		for _, m := range l.Moves {
			if g := m.Goes(); g != nil && g.Copies != nil {
				times += g.Copies(m.Full())
			}
		}
		n += times * (1 + painted(l.Children))
	}
	return n
}

func sortedKeys[V any](m map[string]V) []string {
	keys := make([]string, 0, len(m))
	for k := range m {
		keys = append(keys, k)
	}
	sort.Strings(keys)
	return keys
}
