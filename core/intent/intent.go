// Package intent is what a person asks for (align these, fade it in), turned into a command. Each thing asked for is a function of the desk, a
// moment and its own arguments; the packages below this one hold them by subject, each with its table of names.
package intent

import (
	"maps"
	"slices"

	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/scope"
	"capstan/core/words"
)

// Desk is where things are asked for: the document in its window, and what a window remembers of what was asked before.
type Desk struct {
	*scope.Scope
	LastPlate *doc.Plate          // that was taken away last
	Last      map[string]LastUsed // by kind and effect of a move
	LastOf    map[string]string   // the effect of the move that was added last, by its kind
	Used      []string            // keys of Last, as they were added, the last one first
	Trying    bool                // what is asked for is shown, and not done: nothing is remembered
}

// New returns a desk that remembers nothing yet.
func New(s *scope.Scope) *Desk {
	return &Desk{Scope: s, Last: map[string]LastUsed{}, LastOf: map[string]string{}}
}

// FilmAfter is the film that a command would make of this one.
func (s *Desk) FilmAfter(c edit.Command) (*frame.Film, error) {
	p, err := edit.Preview(s.Doc, c, s.Assets())
	if err != nil {
		return nil, err
	}
	return frame.Compile(p, s.Assets(), s.Film)
}

// Use remembers that a move was added.
func (s *Desk) Use(key, kind, effect string) {
	if s.Trying {
		return
	}
	s.LastOf[kind] = effect
	s.Used = append([]string{key}, slices.DeleteFunc(s.Used, func(k string) bool { return k == key })...)
}

// Ask turns what a person asks for (add a rectangle, group this, fade it in) into a command, with the defaults of docs/motion.md. It changes
// nothing itself.
type Ask struct {
	Do    func(s *Desk, m scope.Moment, name string, raw jsontext.Value) (edit.Command, error)
	Takes any // its arguments, all of which may be left away; the page's types are made from them
}

// Table is what can be asked for of one subject, by name.
type Table map[string]Ask

// Of reads what is asked for into a C, and refuses what a C does not have.
func Of[C any](f func(s *Desk, m scope.Moment, c *C) (edit.Command, error)) Ask {
	return Ask{func(s *Desk, m scope.Moment, name string, raw jsontext.Value) (edit.Command, error) {
		c := new(C)
		if err := doc.Strict(raw, c); err != nil {
			return nil, words.New("intent.unreadable", name, err)
		}
		return f(s, m, c)
	}, *new(C)}
}

// Threads are what many things are asked of: layers of the moment's scene.
type Threads struct {
	Threads []string `json:"threads"`
}

// LastUsed is what a move of a kind and effect was last given.
type LastUsed struct {
	Duration int64
	Easing   string
	Params   effect.Params
}

// Join returns all that is in some tables; no name is in two.
func Join(list ...Table) Table {
	all := Table{}
	for _, t := range list {
		maps.Copy(all, t)
	}
	return all
}
