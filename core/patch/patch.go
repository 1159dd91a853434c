// Package patch says what differs between two documents, field by field, and carries it out. Projects are stored as snapshots and the patches
// since: opening one carries out patches alone, so that stored work does not depend on what commands do today.
package patch

import (
	"bytes"
	"fmt"
	"reflect"
	"slices"
	"sort"
	"strings"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/words"
)

// Change is one field of one part of a document, before and after. A part is "project", "film" (the first), "film/ID",
// "scene/ID" or "layer/SCENE/ID"; a field that is not there is null. Scenes of the film, layers of a scene and
// children of a group appear as lists of ids.
type Change struct {
	Part   string         `json:"part"`
	Field  string         `json:"field"`
	Before jsontext.Value `json:"before,omitzero"`
	After  jsontext.Value `json:"after,omitzero"`
}

// Patch is what a command changed.
type Patch []Change

// Format is the version of how patches are written: that of the document's format.
const Format = doc.Version

// Lifted returns a patch that was written in an older format in this one.
func (p Patch) Lifted(format int) (Patch, error) {
	out := slices.Clone(p)
	for i := range out {
		for _, v := range []*jsontext.Value{&out[i].Before, &out[i].After} {
			var err error
			if *v, err = doc.LiftField(format, out[i].Field, *v); err != nil {
				return nil, err
			}
		}
	}
	return out, nil
}

// Inverse returns the patch that undoes p.
func (p Patch) Inverse() Patch {
	out := make(Patch, len(p))
	for i, c := range p {
		out[len(p)-1-i] = Change{c.Part, c.Field, c.After, c.Before}
	}
	return out
}

type fields map[string]jsontext.Value

// parts holds a document, or some of its scenes, as flat parts.
type parts map[string]fields

func split(v any) (fields, error) {
	b, err := doc.Encode(v)
	if err != nil {
		return nil, err
	}
	var f fields
	err = json.Unmarshal(b, &f)
	return f, err
}

func idList[T any](list []T, id func(T) string) jsontext.Value {
	ids := make([]string, len(list))
	for i, v := range list {
		ids[i] = id(v)
	}
	b, _ := doc.Encode(ids)
	return b
}

func layerID(l *doc.Layer) string { return l.ID }
func sceneID(s *doc.Scene) string { return s.ID }

func (ps parts) addHead(p *doc.Project) error {
	c := *p
	c.Film, c.Films = doc.Film{}, nil
	head, err := split(&c)
	if err != nil {
		return err
	}
	delete(head, "film")
	if len(p.Films) > 0 {
		head["films"] = idList(p.Films, func(f *doc.NamedFilm) string { return f.ID })
	}
	ps["project"] = head
	if err := ps.addFilm("film", &p.Film); err != nil {
		return err
	}
	for _, f := range p.Films {
		if err := ps.addFilm("film/"+f.ID, &f.Film); err != nil {
			return err
		}
		name, err := doc.Encode(f.Name)
		if err != nil {
			return err
		}
		ps["film/"+f.ID]["name"] = name
	}
	return nil
}

func (ps parts) addFilm(part string, film *doc.Film) error {
	c := *film
	c.Scenes = nil
	f, err := split(c)
	if err != nil {
		return err
	}
	f["scenes"] = idList(film.Scenes, sceneID)
	ps[part] = f
	return nil
}

// scenesOf are the scenes of all films by id.
func scenesOf(p *doc.Project) map[string]*doc.Scene {
	out := map[string]*doc.Scene{}
	p.EachFilm(func(_ string, f *doc.Film) {
		for _, s := range f.Scenes {
			out[s.ID] = s
		}
	})
	return out
}

// heads returns the scene's layers by id; nil for no scene.
func heads(s *doc.Scene) map[string]*doc.Layer {
	out := map[string]*doc.Layer{}
	if s != nil {
		doc.Walk(s.Layers, func(l, _ *doc.Layer) bool { out[l.ID] = l; return true })
	}
	return out
}

// sameHead reports whether two layers are equal but for what is inside the children.
func sameHead(a, b *doc.Layer) bool {
	if a == b {
		return true
	}
	x, y := *a, *b
	x.Children, y.Children = nil, nil
	return slices.EqualFunc(a.Children, b.Children, func(p, q *doc.Layer) bool { return p.ID == q.ID }) && reflect.DeepEqual(&x, &y)
}

// addScene adds a scene and its layers, but for those that are the same in known.
func (ps parts) addScene(s *doc.Scene, known map[string]*doc.Layer) error {
	c := *s
	c.Layers = nil
	f, err := split(&c)
	if err != nil {
		return err
	}
	f["layers"] = idList(s.Layers, layerID)
	ps["scene/"+s.ID] = f
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		if o := known[l.ID]; o != nil && sameHead(l, o) {
			return true
		}
		c := *l
		c.Children = nil
		var lf fields
		if lf, err = split(&c); err != nil {
			return false
		}
		if len(l.Children) > 0 {
			lf["children"] = idList(l.Children, layerID)
		}
		ps["layer/"+s.ID+"/"+l.ID] = lf
		return true
	})
	return err
}

// Between returns what differs from a to b. Scenes that are the same value are not looked into.
func Between(a, b *doc.Project) (Patch, error) {
	a, b = a.Settled(), b.Settled()
	x, y := parts{}, parts{}
	if err := x.addHead(a); err != nil {
		return nil, err
	}
	if err := y.addHead(b); err != nil {
		return nil, err
	}
	was, is := scenesOf(a), scenesOf(b)
	add := func(to parts, all, others map[string]*doc.Scene) error {
		for id, s := range all {
			if o := others[id]; o != s {
				if err := to.addScene(s, heads(o)); err != nil {
					return err
				}
			}
		}
		return nil
	}
	if err := add(x, was, is); err != nil {
		return nil, err
	}
	if err := add(y, is, was); err != nil {
		return nil, err
	}
	var out Patch
	names := map[string]bool{}
	for n := range x {
		names[n] = true
	}
	for n := range y {
		names[n] = true
	}
	for _, part := range sorted(names) {
		keys := map[string]bool{}
		for k := range x[part] {
			keys[k] = true
		}
		for k := range y[part] {
			keys[k] = true
		}
		for _, k := range sorted(keys) {
			if before, after := x[part][k], y[part][k]; !bytes.Equal(before, after) {
				out = append(out, Change{part, k, before, after})
			}
		}
	}
	return out, nil
}

func sorted(m map[string]bool) []string {
	out := make([]string, 0, len(m))
	for k := range m {
		out = append(out, k)
	}
	sort.Strings(out)
	return out
}

// Apply returns p with the patch carried out. It is refused in words, with nothing changed, where a
// field no longer holds what the patch found there.
func (patch Patch) Apply(p *doc.Project) (*doc.Project, error) { return All(p, []Patch{patch}) }

// All returns p with patches carried out one after the other: it is taken apart and put together once.
func All(p *doc.Project, patches []Patch) (*doc.Project, error) {
	p = p.Settled()
	ps := parts{}
	if err := ps.addHead(p); err != nil {
		return nil, err
	}
	touched := map[string]bool{}
	for _, patch := range patches {
		for _, c := range patch {
			if c.Part == "project" && (c.Field == "id" || c.Field == "version") {
				return nil, words.New("change.fixed", c.Field)
			}
			if kind, rest, ok := strings.Cut(c.Part, "/"); ok && (kind == "scene" || kind == "layer") {
				id, _, _ := strings.Cut(rest, "/")
				touched[id] = true
			} else if c.Part != "project" && c.Part != "film" && !(ok && kind == "film") {
				return nil, words.New("document.part", c.Part)
			}
		}
	}
	scenes := scenesOf(p)
	for id := range touched {
		if s := scenes[id]; s != nil {
			if err := ps.addScene(s, nil); err != nil {
				return nil, err
			}
		}
	}
	for _, patch := range patches {
		if err := ps.carryOut(patch); err != nil {
			return nil, err
		}
	}
	return ps.assemble(scenes, touched)
}

func (ps parts) carryOut(patch Patch) error {
	for _, c := range patch {
		if !same(ps[c.Part][c.Field], c.Before) {
			return words.New("undo.changed", describe(c))
		}
		if ps[c.Part] == nil {
			ps[c.Part] = fields{}
		}
		if isNull(c.After) {
			delete(ps[c.Part], c.Field)
		} else {
			ps[c.Part][c.Field] = c.After
		}
	}
	return nil
}

func isNull(r jsontext.Value) bool { return len(r) == 0 || string(r) == "null" }

func same(a, b jsontext.Value) bool {
	if isNull(a) || isNull(b) {
		return isNull(a) == isNull(b)
	}
	x, y := a.Clone(), b.Clone()
	return x.Compact() == nil && y.Compact() == nil && bytes.Equal(x, y)
}

func describe(c Change) string {
	kind, _, _ := strings.Cut(c.Part, "/")
	if kind == "project" || kind == "film" {
		return fmt.Sprintf("the %s of the %s", c.Field, kind)
	}
	return fmt.Sprintf("the %s of a %s", c.Field, kind)
}

func join(f fields, v any, without ...string) error {
	m := make(fields, len(f))
	for k, r := range f {
		if !slices.Contains(without, k) {
			m[k] = r
		}
	}
	b, err := doc.Encode(m)
	if err != nil {
		return err
	}
	if err := json.Unmarshal(b, v); err != nil {
		return words.New("change.misfit", err)
	}
	return nil
}

func (ps parts) assemble(scenes map[string]*doc.Scene, touched map[string]bool) (*doc.Project, error) {
	out := &doc.Project{}
	if err := join(ps["project"], out, "films"); err != nil {
		return nil, err
	}
	if err := ps.film("film", &out.Film, scenes, touched); err != nil {
		return nil, err
	}
	var films []string
	if list := ps["project"]["films"]; !isNull(list) {
		if err := json.Unmarshal(list, &films); err != nil || twice(films) {
			return nil, words.New("document.films")
		}
	}
	for _, id := range films {
		f := &doc.NamedFilm{ID: id}
		if err := ps.film("film/"+id, &f.Film, scenes, touched); err != nil {
			return nil, err
		}
		if name := ps["film/"+id]["name"]; !isNull(name) {
			if err := json.Unmarshal(name, &f.Name); err != nil {
				return nil, words.New("change.misfit", err)
			}
		}
		out.Films = append(out.Films, f)
	}
	return out, nil
}

// film puts a film together.
func (ps parts) film(part string, out *doc.Film, scenes map[string]*doc.Scene, touched map[string]bool) error {
	if len(ps[part]) == 0 {
		return words.New("document.films")
	}
	if err := join(ps[part], out, "scenes", "name"); err != nil {
		return err
	}
	var ids []string
	if err := json.Unmarshal(ps[part]["scenes"], &ids); err != nil || twice(ids) {
		return words.New("document.scenes")
	}
	out.Scenes = make([]*doc.Scene, 0, len(ids))
	for _, id := range ids {
		if !touched[id] {
			s := scenes[id]
			if s == nil {
				return words.New("undo.scene-gone")
			}
			out.Scenes = append(out.Scenes, s)
			continue
		}
		f := ps["scene/"+id]
		if len(f) == 0 {
			return words.New("undo.scene-gone")
		}
		s := &doc.Scene{}
		if err := join(f, s, "layers"); err != nil {
			return err
		}
		used := map[string]bool{}
		layers, err := ps.layers(id, f["layers"], used, 0)
		if err != nil {
			return err
		}
		s.Layers = layers
		if s.Layers == nil {
			s.Layers = []*doc.Layer{}
		}
		have := 0
		for part, lf := range ps {
			if strings.HasPrefix(part, "layer/"+id+"/") && len(lf) > 0 {
				have++
			}
		}
		if have != len(used) {
			return words.New("undo.layers")
		}
		out.Scenes = append(out.Scenes, s)
	}
	return nil
}

func twice(ids []string) bool {
	seen := make(map[string]bool, len(ids))
	for _, id := range ids {
		if seen[id] {
			return true
		}
		seen[id] = true
	}
	return false
}

func (ps parts) layers(scene string, list jsontext.Value, used map[string]bool, depth int) ([]*doc.Layer, error) {
	if isNull(list) {
		return nil, nil
	}
	var ids []string
	if err := json.Unmarshal(list, &ids); err != nil || depth > doc.MaxDepth+1 {
		return nil, words.New("document.layers")
	}
	var out []*doc.Layer
	for _, id := range ids {
		f := ps["layer/"+scene+"/"+id]
		if len(f) == 0 {
			return nil, words.New("undo.layer-gone")
		}
		if used[id] { // else lists of lists could grow without end
			return nil, words.New("document.layers")
		}
		used[id] = true
		l := &doc.Layer{}
		if err := join(f, l, "children"); err != nil {
			return nil, err
		}
		kids, err := ps.layers(scene, f["children"], used, depth+1)
		if err != nil {
			return nil, err
		}
		l.Children = kids
		out = append(out, l)
	}
	return out, nil
}
