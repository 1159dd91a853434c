// Package edit changes documents: named commands, each all or nothing, each with the patch it made and so with
// its inverse. The page and the server apply the same commands with this code; ids, seeds and times travel inside
// them, so both get the same document.
package edit

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/patch"
	"capstan/core/words"
)

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
	was := map[*doc.Scene]bool{}
	p.EachFilm(func(_ string, f *doc.Film) {
		for _, s := range f.Scenes {
			was[s] = true
		}
	})
	q.EachFilm(func(_ string, f *doc.Film) {
		for i, s := range f.Scenes {
			if was[s] || err != nil {
				continue
			}
			into := int64(0)
			if i > 0 {
				into = s.Transition.Duration
			}
			_, err = motion.Resolve(s, into)
		}
	})
	if err != nil {
		return nil, err
	}
	return q, nil
}

// Draft is Preview for documents that are compiled at once, while a gesture lasts: it leaves finding rings of hitches to that.
func Draft(p *doc.Project, c Command, assets frame.Assets) (*doc.Project, error) {
	return (&editor{assets: assets}).draft(p, c)
}

func (e *editor) draft(p *doc.Project, c Command) (*doc.Project, error) {
	e.p, e.cloned = shallow(p), map[string]*doc.Scene{}
	if err := e.do(c); err != nil {
		return nil, err
	}
	for id, s := range e.cloned {
		if !sound(s.Layers) {
			return nil, words.New("layer.none")
		}
		tidyRuns(s)
		if before := p.FindScene(id); !e.thin[id] {
			tidySounds(s, before, doc.MaxTime)
			tidyHung(s, before, doc.MaxTime)
		}
		if old := p.FindScene(id); old != nil && old != s {
			doc.Share(s, old)
		}
	}
	e.tidyShifts()
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

// do carries out one command, also as a part of another.
func (e *editor) do(c Command) error {
	if err := e.another(); err != nil {
		return err
	}
	return c.apply(e)
}

// sound reports whether no layer and no move is missing from lists.
func sound(list []*doc.Layer) bool {
	for _, l := range list {
		if l == nil || !sound(l.Children) || slices.Contains(l.Moves, nil) {
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
		if l.ID != id && !holds(l, id) {
			continue
		}
		c := *l
		list[i] = &c
		if l.ID == id {
			return &c
		}
		c.Children = slices.Clone(l.Children)
		return own(c.Children, id)
	}
	return nil
}

// holds reports whether a layer of an id lies in g.
func holds(g *doc.Layer, id string) bool {
	for _, l := range g.Children {
		if l.ID == id || holds(l, id) {
			return true
		}
	}
	return false
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
