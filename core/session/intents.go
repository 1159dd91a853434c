package session

import (
	"maps"

	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/words"
)

// ask turns what a person asks for (add a rectangle, group this, fade it in) into a command, with the defaults of docs/motion.md. It changes
// nothing itself.
type ask func(s *Session, m Moment, name string, raw jsontext.Value) (edit.Command, error)

// table is what can be asked for of one subject, by name.
type table map[string]ask

// of reads what is asked for into a C, and refuses what a C does not have.
func of[C any](f func(s *Session, m Moment, c *C) (edit.Command, error)) ask {
	return func(s *Session, m Moment, name string, raw jsontext.Value) (edit.Command, error) {
		c := new(C)
		if err := doc.Strict(raw, c); err != nil {
			return nil, words.New("intent.unreadable", name, err)
		}
		return f(s, m, c)
	}
}

// asked is all that can be asked for.
var asked = func() table {
	all := table{}
	for _, t := range []table{
		acrossAsked,
		addingAsked,
		aligningAsked,
		arrangingAsked,
		asideAsked,
		barsAsked,
		combiningAsked,
		copiesAsked,
		drawingAsked,
		groundAsked,
		guidesAsked,
		hangingAsked,
		laterAsked,
		looksAsked,
		maskingAsked,
		mergingAsked,
		movesAsked,
		outliningAsked,
		ownfontsAsked,
		pastingAsked,
		pathpointsAsked,
		pivotAsked,
		placingAsked,
		platesAsked,
		pointsAsked,
		replacingAsked,
		rolesAsked,
		roomsAsked,
		savedlooksAsked,
		scenesAsked,
		scrollingAsked,
		settingAsked,
		severalAsked,
		shapesAsked,
		splittingAsked,
		stackingAsked,
		strandsAsked,
		toolsAsked,
		transferAsked,
		turningAsked,
		wearingAsked,
	} {
		maps.Copy(all, t)
	}
	return all
}()

// Intent returns the command that carries out what is asked for at a moment; nil when there is nothing to do.
func (s *Session) Intent(name string, m Moment, raw jsontext.Value) (edit.Command, error) {
	f := asked[name]
	if f == nil {
		return nil, words.New("intent.unknown", name)
	}
	return f(s, m, name, raw)
}

// Threads are what many things are asked of: layers of the moment's scene.
type threads struct {
	Threads []string `json:"threads"`
}
