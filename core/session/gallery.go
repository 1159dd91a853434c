package session

import (
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/gallery"
	"capstan/core/geom"
	"capstan/core/scope"
)

// OpenGallery opens a gallery of moves for layers, or to find another in place of a move of theirs. It offers nothing where nothing is selected.
func (s *Session) OpenGallery(m scope.Moment, threads []string, replaces string) gallery.View {
	return s.opened(gallery.Moves(s.Desk, m, threads, replaces))
}

// OpenPages opens a gallery of the transitions into a scene.
func (s *Session) OpenPages(scene int) gallery.View { return s.opened(gallery.Pages(s.Desk, scene)) }

func (s *Session) opened(g *gallery.Gallery) gallery.View {
	s.gallery = g
	return s.Sought("")
}

// Sought is what fits some words of what the open gallery offers.
func (s *Session) Sought(text string) gallery.View {
	if s.gallery == nil {
		return gallery.View{Rows: []gallery.Row{}, First: -1}
	}
	v := s.gallery.View(text)
	if v.Rows == nil {
		v.Rows = []gallery.Row{}
	}
	return v
}

// CloseGallery lets go of what the open gallery holds.
func (s *Session) CloseGallery() { s.gallery = nil }

// SmallFrame is the small film of a card at a time of its showing, ms; nil where there is none.
func (s *Session) SmallFrame(card int, ms, scale float64) *frame.List {
	if s.gallery == nil {
		return nil
	}
	return s.gallery.Frame(card, ms, frame.View{Scale: scale})
}

// Behind is what lies behind the layer that the open gallery is for.
func (s *Session) Behind(m scope.Moment, scale float64) *frame.List {
	s.Stand(m)
	id := ""
	if s.gallery != nil {
		id = s.gallery.View("").Behind
	}
	return s.Player.Behind(id, frame.View{Scale: scale})
}

// Tried returns from when to when what the draft has changed goes on, ms of the film: the moves that are new in it, or not what they were, or a transition, with a little
// before and after it. ok is
// false where there are none.
func (s *Session) Tried() (from, to int64, ok bool) {
	was := map[string]*doc.Move{}
	scenes := map[string]*doc.Scene{}
	for _, sc := range s.Doc.Film.Scenes {
		scenes[sc.ID] = sc
		doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
			for _, m := range l.Moves {
				was[m.ID] = m
			}
			return true
		})
	}
	for i, sc := range s.Shown.Doc.Film.Scenes {
		begin := s.Shown.Order.Begin(i)
		if o := scenes[sc.ID]; o != nil && o != sc && !o.Transition.Equal(&sc.Transition) {
			from, to, ok = max(0, s.Shown.Order.Starts[i]-250), begin+250, true
		}
		doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
			for _, m := range l.Moves {
				if was[m.ID] == m { // drafts share what they do not change
					continue
				}
				iv := s.Shown.Timing(i).Moves[m.ID]
				a, b := begin+iv.Begin, begin+iv.End
				if !ok || a < from {
					from = a
				}
				to, ok = max(to, b), true
			}
			return true
		})
	}
	return from, to, ok
}

// OutlineOf returns an outline that a list names: of the film, or of the small films of the open gallery; nil where there is none.
func (s *Session) OutlineOf(key uint32) *geom.Path {
	p := s.Shown.Geometry.Path(key)
	if p == nil && s.gallery != nil {
		p = s.gallery.Outline(key)
	}
	return p
}
