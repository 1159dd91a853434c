package intent

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/words"
)

// SetStrands is the command that changes how threads go through the morph into the scene of an id, or, of the first, back to it. What changes a strand
// may refuse.
func (s *Desk) SetStrands(scene string, threads []string, change func(own *doc.Strand) error) (edit.Command, error) {
	i, sc := s.Doc.Scene(scene)
	if sc == nil {
		return nil, words.New("scene.gone")
	}
	t := &sc.Transition
	if i == 0 {
		t = s.Doc.Film.Closing
	}
	if t == nil || t.Kind != doc.Morph {
		return nil, words.New("strand.none")
	}
	set := edit.Fields{}
	for _, thread := range threads {
		own := t.Threads[thread]
		if err := change(&own); err != nil {
			return nil, err
		}
		if set[thread] = nil; own != (doc.Strand{}) {
			set[thread] = own
		}
	}
	if i == 0 {
		return &edit.SetFilm{Patch: edit.Fields{"closing": edit.Fields{"threads": set}}}, nil
	}
	return &edit.SetScenes{IDs: []string{sc.ID}, Patch: edit.Fields{"transition": edit.Fields{"threads": set}}}, nil
}
