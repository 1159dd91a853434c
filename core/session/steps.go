package session

import (
	"bytes"
	"slices"

	"github.com/go-json-experiment/json"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/patch"
	"capstan/core/words"
)

// How many steps a window keeps to undo, and how many bytes of what was changed; the oldest go first, the newest is kept whatever it takes.
const (
	MaxSteps     = 200
	MaxStepBytes = 4 << 20
)

// Row says which row of small steps, as arrow keys take them, a command belongs to: those of one row that change the same fields without a pause
// between them are undone as one.
type Row struct {
	Of    string  // its name; empty: the command is a step by itself
	Now   float64 // ms of any clock that goes on
	Pause float64 // ms that end it; 0: nothing does
}

// step is one thing that can be undone.
type step struct{ changes patch.Patch }

func (t *step) size() (n int) {
	for _, c := range t.changes {
		n += len(c.Part) + len(c.Field) + len(c.Before) + len(c.After)
	}
	return
}

// goesOn reports whether a patch changes nothing but what the step has changed.
func (t *step) goesOn(p patch.Patch) bool {
	return !slices.ContainsFunc(p, func(c patch.Change) bool { return t.find(c) == nil })
}

func (t *step) find(c patch.Change) *patch.Change {
	i := slices.IndexFunc(t.changes, func(o patch.Change) bool { return o.Part == c.Part && o.Field == c.Field })
	if i < 0 {
		return nil
	}
	return &t.changes[i]
}

// moved puts a patch of the step into another shape: the command that made it was carried out again on what another window has stored.
func (t *step) moved(was, is patch.Patch) {
	for _, c := range is {
		k := t.find(c)
		if k == nil {
			t.changes = append(t.changes, c)
			continue
		}
		i := slices.IndexFunc(was, func(o patch.Change) bool { return o.Part == c.Part && o.Field == c.Field })
		if i < 0 || bytes.Equal(k.Before, was[i].Before) {
			k.Before = c.Before
		}
		if i < 0 || bytes.Equal(k.After, was[i].After) {
			k.After = c.After
		}
	}
}

// steps are what this window has done and can undo, and what it has undone and can do again; the newest are last.
type steps struct {
	done, undone []*step
	row          Row // of the newest one done
}

// note adds a patch that a command has made, and returns the step that it is part of.
func (t *steps) note(p patch.Patch, row Row) *step {
	n := len(t.done)
	on := n > 0 && row.Of != "" && row.Of == t.row.Of && (row.Pause == 0 || row.Now-t.row.Now < row.Pause) && t.done[n-1].goesOn(p)
	t.row, t.undone = row, nil
	if !on {
		t.done = append(t.done, &step{slices.Clone(p)})
		t.trim()
		return t.done[len(t.done)-1]
	}
	top := t.done[n-1]
	for _, c := range p {
		top.find(c).After = c.After
	}
	return top
}

// trim forgets the oldest steps of too many.
func (t *steps) trim() {
	bytes := 0
	for i := len(t.done) - 1; i >= 0; i-- {
		if bytes += t.done[i].size(); i < len(t.done)-1 && bytes > MaxStepBytes || len(t.done)-i > MaxSteps {
			t.done = slices.Clone(t.done[i+1:])
			return
		}
	}
}

// forget takes a step off the lists: what it did is not there any more.
func (t *steps) forget(gone *step) {
	is := func(s *step) bool { return s == gone }
	t.done, t.undone = slices.DeleteFunc(t.done, is), slices.DeleteFunc(t.undone, is)
}

// Do is Apply of a command that this window can undo.
func (s *Session) Do(c edit.Command, row Row) (patch.Patch, error) {
	p, err := s.Apply(c)
	if err == nil && len(p) > 0 {
		s.pending[len(s.pending)-1].step = s.steps.note(p, row)
	}
	return p, err
}

// Steps returns how many steps can be undone, and how many done again.
func (s *Session) Steps() (undo, redo int) { return len(s.steps.done), len(s.steps.undone) }

// Undo takes this window's last step back and returns the command that did so, to be stored like any other; nil where there is none. A step that
// can no longer be undone, since another window has changed the same fields, is refused in words and off the list, so that those before it can
// be reached.
func (s *Session) Undo() (edit.Command, error) { return s.back(&s.steps.done, &s.steps.undone) }

// Redo does again what was undone last, in the same way.
func (s *Session) Redo() (edit.Command, error) { return s.back(&s.steps.undone, &s.steps.done) }

func (s *Session) back(from, to *[]*step) (edit.Command, error) {
	n := len(*from)
	if n == 0 {
		return nil, nil
	}
	last := (*from)[n-1]
	*from = (*from)[:n-1]
	s.steps.row = Row{}
	c := &edit.ApplyPatch{Changes: last.changes.Inverse()}
	p, err := s.Apply(c)
	if err != nil {
		return nil, err
	}
	other := &step{p}
	*to = append(*to, other)
	if len(p) > 0 {
		s.pending[len(s.pending)-1].step = other
	}
	return c, nil
}

// keptSteps are steps as they outlive a reload of the page.
type keptSteps struct {
	Done   []patch.Patch `json:"done"`
	Undone []patch.Patch `json:"undone"`
}

// KeepSteps returns what can be undone, to be brought back when this window shows the project again.
func (s *Session) KeepSteps() ([]byte, error) {
	changes := func(list []*step) []patch.Patch {
		out := make([]patch.Patch, len(list))
		for i, t := range list {
			out[i] = t.changes
		}
		return out
	}
	return doc.Encode(keptSteps{changes(s.steps.done), changes(s.steps.undone)})
}

// BringSteps brings back what KeepSteps returned. What cannot be read is no step.
func (s *Session) BringSteps(raw []byte) error {
	var kept keptSteps
	if err := json.Unmarshal(raw, &kept); err != nil {
		return words.New("steps.unreadable", err)
	}
	all := func(list []patch.Patch) (out []*step) {
		for _, p := range list {
			out = append(out, &step{p})
		}
		return
	}
	s.steps = steps{done: all(kept.Done), undone: all(kept.Undone)}
	s.steps.trim()
	return nil
}
