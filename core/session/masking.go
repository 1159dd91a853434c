package session

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/frame"
	"capstan/core/words"
)

var maskingAsked = table{
	// One layer in a group becomes the mask of the others, or ceases to be; of several the front-most becomes that of a new group.
	"mask": of(func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		How     string   `json:"how"` // inside, outside; empty: a layer like others
	}) (edit.Command, error) {
		sc := s.scene(m)
		list := outermost(sc, s.layers(m, c.Threads))
		if len(list) > 1 {
			return s.grouped(m, list, c.How), nil
		}
		if len(list) == 0 {
			return nil, nil
		}
		if _, parent := sc.Layer(list[0].ID); parent == nil {
			return nil, words.New("mask.alone")
		}
		return &edit.SetLayers{Set: []edit.Part{{ID: list[0].ID, Patch: edit.Fields{"mask": c.How}}}}, nil
	}),
}

// maskShown is how strongly a selected mask is shown over what it masks.
const maskShown = 0.35

// MasksFrame returns a display list with the masks among the selected layers alone, faintly: they are not painted themselves.
func (s *Session) MasksFrame(m Moment, threads []string, scale float64) *frame.List {
	s.standWhole(m)
	s.player.Clear()
	for _, l := range s.layers(m, threads) {
		if l.Mask != "" {
			s.player.AddPlaced(l.ID, maskShown, frame.View{Scale: scale})
		}
	}
	return s.player.List()
}

// grouped returns the command that puts layers into a group, the front-most as a mask of the others where mask says so.
func (s *Session) grouped(m Moment, list []*doc.Layer, mask string) edit.Command {
	all := make([]string, len(list))
	for i, l := range list {
		all[i] = l.Thread
	}
	at := united(s.atRest(m, all)).Centre()
	return &edit.GroupLayers{
		IDs: ids(list), ID: s.id(), Thread: s.id(), Name: nameFor(s.scene(m), "Group"), Tint: list[len(list)-1].Tint,
		X: at.X, Y: at.Y, Mask: mask,
	}
}
