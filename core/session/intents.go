package session

import (
	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/words"
)

// intents turn what a person asks for (add a rectangle, group this, fade it in) into a command, with the defaults of
// docs/motion.md. They change nothing themselves.
var intents = map[string]func(s *Session, m Moment, raw jsontext.Value) (edit.Command, error){}

func intent[C any](name string, f func(s *Session, m Moment, c *C) (edit.Command, error)) {
	intents[name] = func(s *Session, m Moment, raw jsontext.Value) (edit.Command, error) {
		c := new(C)
		if err := doc.Strict(raw, c); err != nil {
			return nil, words.New("intent.unreadable", name, err)
		}
		return f(s, m, c)
	}
}

// Intent returns the command that carries out what is asked for at a moment; nil when there is nothing to do.
func (s *Session) Intent(name string, m Moment, raw jsontext.Value) (edit.Command, error) {
	f := intents[name]
	if f == nil {
		return nil, words.New("intent.unknown", name)
	}
	return f(s, m, raw)
}

type threads struct {
	Threads []string `json:"threads"`
}
