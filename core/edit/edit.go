// Package edit changes documents: named commands, each all or nothing, each with the patch it made and so with
// its inverse. The page and the server apply the same commands with this code; ids, seeds and times travel inside
// them, so both get the same document.
package edit

import (
	"math"
	"slices"
	"strings"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/patch"
	"capstan/core/words"
)

// Command is one command as JSON: {"op": "layer.set", …}. docs/api.md lists them.
type Command = jsontext.Value

// Apply carries out a command on p and returns the new document, which shares with p what did not change, and the
// patch between them. On an error, *words.Fault or *doc.Invalid or *motion.Cycle among them, p still stands.
// assets are needed by commands that must know where things stand (continue, group).
func Apply(p *doc.Project, c Command, assets frame.Assets) (*doc.Project, patch.Patch, error) {
	return ApplyWhile(nil, p, c, assets)
}

// MaxEdits is how many edits one command makes at most, those in batches and lists counted.
const MaxEdits = 10000

// ApplyWhile is Apply that gives up with goOn's error, which is asked before each edit of a batch or a list.
func ApplyWhile(goOn func() error, p *doc.Project, c Command, assets frame.Assets) (*doc.Project, patch.Patch, error) {
	if err := doc.CheckNesting(c); err != nil {
		return nil, nil, words.New("command.none", err)
	}
	q, err := preview(&editor{assets: assets, goOn: goOn}, p, c)
	if err != nil {
		return nil, nil, err
	}
	changes, err := patch.Between(p, q)
	if err != nil {
		return nil, nil, err
	}
	return q, changes, nil
}

// Preview is Apply without the patch.
func Preview(p *doc.Project, c Command, assets frame.Assets) (*doc.Project, error) {
	return preview(&editor{assets: assets}, p, c)
}

func preview(e *editor, p *doc.Project, c Command) (*doc.Project, error) {
	q, err := e.draft(p, c)
	if err != nil {
		return nil, err
	}
	for i, s := range q.Film.Scenes {
		if _, old := p.Scene(s.ID); old == s {
			continue
		}
		into := int64(0)
		if i > 0 {
			into = s.Transition.Duration
		}
		if _, err := motion.Resolve(s, into); err != nil {
			return nil, err
		}
	}
	return q, nil
}

// Draft is Preview for documents that are compiled at once, while a gesture lasts: it leaves finding rings of hitches to that.
func Draft(p *doc.Project, c Command, assets frame.Assets) (*doc.Project, error) {
	return (&editor{assets: assets}).draft(p, c)
}

func (e *editor) draft(p *doc.Project, c Command) (*doc.Project, error) {
	e.p, e.cloned = shallow(p), map[string]*doc.Scene{}
	if err := e.run(c); err != nil {
		return nil, err
	}
	for id, s := range e.cloned {
		if !whole(s.Layers) {
			return nil, words.New("layer.none")
		}
		tidyRuns(s)
		if _, old := p.Scene(id); old != nil && old != s {
			doc.Share(s, old)
		}
	}
	before := p
	if e.patched {
		before = nil // anything may have changed
	}
	if err := e.p.ValidateChange(before); err != nil {
		return nil, err
	}
	return e.p, nil
}

// DraftPath is Draft for the data of a drawn path alone, which is not looked at.
func DraftPath(p *doc.Project, id, data string) (*doc.Project, error) {
	e := &editor{p: shallow(p), cloned: map[string]*doc.Scene{}}
	l, err := e.head(id)
	if err != nil {
		return nil, err
	}
	l.Path = data
	return e.p, nil
}

// whole reports whether no layer and no move is missing from lists.
func whole(list []*doc.Layer) bool {
	for _, l := range list {
		if l == nil || !whole(l.Children) || slices.Contains(l.Moves, nil) {
			return false
		}
	}
	return true
}

func shallow(p *doc.Project) *doc.Project {
	c := *p
	c.Film.Scenes = slices.Clone(p.Film.Scenes)
	if p.Media != nil {
		c.Media = make(map[string]*doc.Media, len(p.Media))
		for k, v := range p.Media {
			c.Media[k] = v
		}
	}
	return &c
}

// editor is a document being changed: scenes are cloned when they are first touched.
type editor struct {
	p      *doc.Project
	assets frame.Assets
	cloned map[string]*doc.Scene
	thin   map[string]bool // of cloned: only the layers that were asked for by head are its own
	depth  int

	goOn    func() error // nil: as long as it takes
	edits   int
	patched bool // by a patch
}

// another counts an edit of a batch or list.
func (e *editor) another() error {
	if e.edits++; e.edits > MaxEdits {
		return words.New("command.many", MaxEdits)
	}
	if e.goOn != nil {
		return e.goOn()
	}
	return nil
}

type handler func(e *editor, raw jsontext.Value) error

// ops is filled by the files beside this one, one for each thing that is edited.
var ops = map[string]handler{}

// op registers a command whose fields are a C. Unknown fields are refused: a command that is misspelt must
// not do half of what was meant.
func op[C any](name string, f func(e *editor, c *C) error) {
	ops[name] = func(e *editor, raw jsontext.Value) error {
		c := new(C)
		if err := doc.Strict(raw, c); err != nil {
			return words.New("command.unreadable", name, err)
		}
		return f(e, c)
	}
}

func (e *editor) run(raw jsontext.Value) error {
	if err := e.another(); err != nil {
		return err
	}
	var head map[string]jsontext.Value
	if err := json.Unmarshal(raw, &head); err != nil {
		return words.New("command.none", err)
	}
	var name string
	if err := json.Unmarshal(head["op"], &name); err != nil {
		return words.New("command.none", "it has no op")
	}
	f := ops[name]
	if f == nil {
		return words.New("command.unknown", name)
	}
	delete(head, "op")
	rest, err := doc.Encode(head)
	if err != nil {
		return err
	}
	return f(e, rest)
}

func init() {
	op("batch", func(e *editor, c *struct {
		Commands []jsontext.Value `json:"commands"`
	}) error {
		if e.depth++; e.depth > 4 {
			return words.New("command.deep")
		}
		defer func() { e.depth-- }()
		for _, raw := range c.Commands {
			if err := e.run(raw); err != nil {
				return err
			}
		}
		return nil
	})
	op("patch", func(e *editor, c *struct {
		Changes patch.Patch `json:"changes"`
	}) error {
		p, err := c.Changes.Apply(e.p)
		if err != nil {
			return err
		}
		e.p, e.cloned, e.thin, e.patched = shallow(p), map[string]*doc.Scene{}, nil, true
		return nil
	})
	op("project.rename", func(e *editor, c *struct {
		Name string `json:"name"`
	}) error {
		if strings.TrimSpace(c.Name) == "" {
			return words.New("project.name")
		}
		e.p.Name = strings.TrimSpace(c.Name)
		return nil
	})
	// What the project has put aside: colours, looks, sets of roles.
	op("project.set", func(e *editor, c *struct {
		Patch jsontext.Value `json:"patch"`
	}) error {
		old := struct {
			Palette  []string         `json:"palette,omitzero"`
			Looks    []*doc.SavedLook `json:"looks,omitzero"`
			RoleSets []*doc.RoleSet   `json:"roleSets,omitzero"`
		}{e.p.Palette, e.p.Looks, e.p.RoleSets}
		next, err := merged(&old, c.Patch, "id", "name", "film", "media", "version")
		if err != nil {
			return err
		}
		e.p.Palette, e.p.Looks, e.p.RoleSets = next.Palette, next.Looks, next.RoleSets
		return nil
	})
	op("film.set", func(e *editor, c *struct {
		Patch jsontext.Value `json:"patch"`
	}) error {
		old := e.p.Film
		old.Scenes = nil
		f, err := merged(&old, c.Patch, "scenes")
		if err != nil {
			return err
		}
		f.Scenes = e.p.Film.Scenes
		e.p.Film = *f
		return nil
	})
	op("media.add", func(e *editor, c *struct {
		Hash  string     `json:"hash"`
		Media *doc.Media `json:"media"`
	}) error {
		if e.p.Media == nil {
			e.p.Media = map[string]*doc.Media{}
		}
		e.p.Media[c.Hash] = c.Media
		return nil
	})
}

// scene returns a scene that may be changed.
func (e *editor) scene(id string) (*doc.Scene, error) {
	if s := e.cloned[id]; s != nil && !e.thin[id] {
		return s, nil
	}
	i, s := e.p.Scene(id)
	if s == nil {
		return nil, words.New("scene.gone")
	}
	c := s.Clone()
	e.cloned[id] = c
	delete(e.thin, id)
	e.p.Film.Scenes[i] = c
	return c, nil
}

// layer returns a layer that may be changed, with its scene and parent.
func (e *editor) layer(id string) (l, parent *doc.Layer, s *doc.Scene, err error) {
	if err = e.another(); err != nil {
		return
	}
	for _, sc := range e.p.Film.Scenes {
		if found, _ := sc.Layer(id); found != nil {
			if s, err = e.scene(sc.ID); err != nil {
				return
			}
			l, parent = s.Layer(id)
			return l, parent, s, nil
		}
	}
	return nil, nil, nil, words.New("layer.gone")
}

// head returns a layer whose own fields may be changed, not those of its moves or of what is inside it. Of its scene only it and
// the groups around it are copied, so that dragging one of many layers costs little.
func (e *editor) head(id string) (*doc.Layer, error) {
	if err := e.another(); err != nil {
		return nil, err
	}
	for i, sc := range e.p.Film.Scenes {
		if found, _ := sc.Layer(id); found == nil {
			continue
		}
		c := e.cloned[sc.ID]
		if c != nil && !e.thin[sc.ID] {
			l, _ := c.Layer(id)
			return l, nil
		}
		if c == nil {
			c = new(doc.Scene)
			*c = *sc
			c.Layers, c.Runs = slices.Clone(sc.Layers), slices.Clone(sc.Runs)
			e.cloned[sc.ID], e.p.Film.Scenes[i] = c, c
			if e.thin == nil {
				e.thin = map[string]bool{}
			}
			e.thin[sc.ID] = true
		}
		return own(c.Layers, id), nil
	}
	return nil, words.New("layer.gone")
}

// own copies the layer id and the groups around it, and returns the copy; nil when it is not there.
func own(list []*doc.Layer, id string) *doc.Layer {
	for i, l := range list {
		c := *l
		if l.ID == id {
			list[i] = &c
			return &c
		}
		if len(l.Children) == 0 {
			continue
		}
		c.Children = slices.Clone(l.Children)
		if found := own(c.Children, id); found != nil {
			list[i] = &c
			return found
		}
	}
	return nil
}

// move returns a move that may be changed, with its layer and scene.
func (e *editor) move(id string) (m *doc.Move, l *doc.Layer, s *doc.Scene, err error) {
	for _, sc := range e.p.Film.Scenes {
		if found, _ := sc.Move(id); found != nil {
			if s, err = e.scene(sc.ID); err != nil {
				return
			}
			m, l = s.Move(id)
			return m, l, s, nil
		}
	}
	return nil, nil, nil, words.New("move.gone")
}

// merged returns v with a JSON merge patch (RFC 7396) applied, as a new value: fields the patch removes are
// gone. Fields named in fixed may not be touched; numbers are rounded as documents store them.
func merged[T any](v *T, patch jsontext.Value, fixed ...string) (*T, error) {
	var p map[string]any
	if err := json.Unmarshal(patch, &p); err != nil {
		return nil, words.New("change.unreadable", err)
	}
	for _, f := range fixed {
		if _, ok := p[f]; ok {
			return nil, words.New("change.fixed", f)
		}
	}
	old, err := doc.Encode(v)
	if err != nil {
		return nil, err
	}
	merge, err := mergePatch(old, p)
	if err != nil {
		return nil, err
	}
	raw, err := doc.Encode(merge)
	if err != nil {
		return nil, err
	}
	out := new(T)
	if err := json.Unmarshal(raw, out); err != nil {
		return nil, words.New("change.misfit", err)
	}
	return out, nil
}

// mergePatch decodes of the target only what the patch names: all else stays to the last digit.
func mergePatch(target jsontext.Value, patch any) (any, error) {
	p, ok := patch.(map[string]any)
	if !ok {
		return round(patch), nil
	}
	var t map[string]jsontext.Value
	if target.Kind() == '{' {
		if err := json.Unmarshal(target, &t); err != nil {
			return nil, err
		}
	}
	out := make(map[string]any, len(t)+len(p))
	for k, v := range t {
		out[k] = v
	}
	for k, v := range p {
		if v == nil {
			delete(out, k)
			continue
		}
		merge, err := mergePatch(t[k], v)
		if err != nil {
			return nil, err
		}
		out[k] = merge
	}
	return out, nil
}

// round cuts numbers to 1e-4, which is far below what can be seen or typed.
func round(v any) any {
	switch x := v.(type) {
	case float64:
		return math.Round(x*1e4)/1e4 + 0
	case []any:
		for i := range x {
			x[i] = round(x[i])
		}
	case map[string]any:
		for k := range x {
			x[k] = round(x[k])
		}
	}
	return v
}
