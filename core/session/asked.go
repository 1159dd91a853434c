package session

import (
	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/intent/arrange"
	"capstan/core/intent/joining"
	"capstan/core/intent/light"
	"capstan/core/intent/looks"
	"capstan/core/intent/moves"
	"capstan/core/intent/outlines"
	"capstan/core/intent/pictures"
	"capstan/core/intent/points"
	"capstan/core/intent/project"
	"capstan/core/intent/scenes"
	"capstan/core/intent/shapes"
	"capstan/core/intent/sounds"
	"capstan/core/intent/texts"
	"capstan/core/intent/turns"
	"capstan/core/scope"
	"capstan/core/words"
)

// Asked is all that can be asked for, by name.
var Asked = intent.Join(arrange.Asked, looks.Asked, texts.Asked, shapes.Asked, points.Asked, light.Asked, joining.Asked, moves.Asked, turns.Asked, scenes.Asked, outlines.Asked, project.Asked, pictures.Asked, sounds.Asked, sounds.CaptionAsked, sounds.MarkAsked, sounds.VolumeAsked)

// Intent returns the command that carries out what is asked for at a moment; nil when there is nothing to do.
func (s *Session) Intent(name string, m scope.Moment, raw jsontext.Value) (edit.Command, error) {
	f, ok := Asked[name]
	if !ok {
		return nil, words.New("intent.unknown", name)
	}
	if m.Film != s.FilmID {
		return nil, words.New("film.other")
	}
	c, err := f.Do(s.Desk, m, name, raw)
	return s.about(c), err
}

// EndDrag is End about the film that is worked on.
func (s *Session) EndDrag() edit.Command { return s.about(s.End()) }

// EndPen is PenEnd about the film that is worked on.
func (s *Session) EndPen(m scope.Moment) edit.Command { return s.about(s.PenEnd(m)) }

// about is a command about the film that is worked on.
func (s *Session) about(c edit.Command) edit.Command {
	if c == nil || s.FilmID == "" {
		return c
	}
	return &edit.In{Film: s.FilmID, Command: c}
}
