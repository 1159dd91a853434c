package session

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/patch"
	"capstan/core/words"
)

// pending is a command that was carried out here and is not acknowledged yet, with the document it made. Documents share
// what did not change, so keeping them costs little.
type pending struct {
	command edit.Command
	after   *doc.Project
	made    patch.Patch
	step    *step // of this window that it is part of; nil: none
}

// Acknowledge notes that the oldest pending command is stored.
func (s *Session) Acknowledge() error {
	if len(s.pending) == 0 {
		return words.New("pending.none")
	}
	s.acked = s.pending[0].after
	s.pending = s.pending[1:]
	return nil
}

// Failure is a pending command that could not be carried out again, by its place among those that waited.
type Failure struct {
	Index int    `json:"index"`
	Words string `json:"words"`
}

// CatchUp applies what was stored in between (patches, oldest first) to the acknowledged document and carries out the pending
// commands again; drop leaves out the oldest, which was refused. It returns those that no longer can be
// carried out; they are no longer pending, nor among the steps. Where a patch does not fit, nothing has changed: the document must be loaded anew.
func (s *Session) CatchUp(patches []patch.Patch, drop bool) ([]Failure, error) {
	base := s.acked
	for _, p := range patches {
		next, err := p.Apply(base)
		if err != nil {
			return nil, err
		}
		base = next
	}
	failed := []Failure{}
	var kept []pending
	p := base
	for i, c := range s.pending {
		if drop && i == 0 {
			continue
		}
		next, made, err := edit.Apply(p, c.command, s.Assets())
		if err != nil {
			failed = append(failed, Failure{i, err.Error()})
			s.steps.forget(c.step)
			continue
		}
		if p = next; c.step != nil {
			c.step.moved(c.made, made)
		}
		kept = append(kept, pending{c.command, next, made, c.step})
	}
	f, err := s.compile(p)
	if err != nil {
		return nil, err
	}
	s.acked, s.pending = base, kept
	s.showUnder(p, f)
	return failed, nil
}
