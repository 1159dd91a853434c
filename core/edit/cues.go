package edit

import (
	"slices"
	"sort"

	"capstan/core/doc"
	"capstan/core/motion"
	"capstan/core/words"
)

// AddCue adds a cue to a scene.
type AddCue struct {
	Scene string `json:"scene"`
	ID    string `json:"id"`
	Name  string `json:"name"`
	At    *int64 `json:"at"` // ms on the scene's clock
	Wait  int64  `json:"wait"`
}

// Op is its name on the wire.
func (c *AddCue) Op() string { return "cue.add" }

func (c *AddCue) apply(e *editor) error {
	s, err := e.scene(c.Scene)
	if err != nil {
		return err
	}
	if c.At == nil {
		return words.New("cue.time")
	}
	s.Cues = append(s.Cues, doc.Cue{ID: c.ID, Name: c.Name, At: *c.At, Wait: c.Wait})
	sortCues(s)
	return nil
}

// SetCue changes a cue.
type SetCue struct {
	Scene string `json:"scene"`
	ID    string `json:"id"`
	Patch Fields `json:"patch"`
}

// Op is its name on the wire.
func (c *SetCue) Op() string { return "cue.set" }

func (c *SetCue) apply(e *editor) error {
	s, i, err := e.cue(c.Scene, c.ID)
	if err != nil {
		return err
	}
	q, err := merged(&s.Cues[i], c.Patch, "id")
	if err != nil {
		return err
	}
	s.Cues[i] = *q
	sortCues(s)
	return nil
}

// DeleteCue takes a cue away. What hangs on it keeps its time, and so does a scene that ends at it.
type DeleteCue struct {
	Scene string `json:"scene"`
	ID    string `json:"id"`
}

// Op is its name on the wire.
func (c *DeleteCue) Op() string { return "cue.delete" }

func (c *DeleteCue) apply(e *editor) error {
	s, i, err := e.cue(c.Scene, c.ID)
	if err != nil {
		return err
	}
	t, err := motion.Resolve(s, e.into(s))
	if err != nil {
		return err
	}
	// What hangs on the cue keeps its time, and so does a scene that ends at it.
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			if m.Start.When == doc.AtCue && m.Start.Of == c.ID {
				m.Start = doc.Start{When: doc.AtTime, Offset: t.Moves[m.ID].Begin}
			}
		}
		return true
	})
	if s.EndsAtCue == c.ID {
		s.EndsAtCue, s.Stay = "", t.Stay
		for k, q := range s.Cues {
			if k != i {
				s.Stay -= q.Wait
			}
		}
	}
	if s.Cues = slices.Delete(s.Cues, i, i+1); len(s.Cues) == 0 {
		s.Cues = nil // as it is read again
	}
	return nil
}

func (e *editor) cue(scene, id string) (*doc.Scene, int, error) {
	s, err := e.scene(scene)
	if err != nil {
		return nil, 0, err
	}
	i := slices.IndexFunc(s.Cues, func(q doc.Cue) bool { return q.ID == id })
	if i < 0 {
		return nil, 0, words.New("cue.gone")
	}
	return s, i, nil
}

func sortCues(s *doc.Scene) {
	sort.SliceStable(s.Cues, func(i, k int) bool { return s.Cues[i].At < s.Cues[k].At })
}
