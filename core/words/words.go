// Package words is the one catalogue of what Capstan says to people: catalogue.json. Everything that can go wrong has an
// entry there that says what happened, what is kept and what to do. The page reads the same file.
package words

import (
	_ "embed"
	"errors"
	"fmt"
	"strings"
	"sync"

	"github.com/go-json-experiment/json"
)

//go:embed catalogue.json
var catalogue []byte

// read decodes the catalogue at the first message.
var read = sync.OnceValue(func() (c struct {
	Faults map[string][3]string `json:"faults"`
}) {
	if err := json.Unmarshal(catalogue, &c); err != nil {
		panic(err) // the catalogue is part of the program, and a test reads it
	}
	return c
})

// Fault is an error in words for people.
type Fault struct {
	Key      string // of the catalogue, for example "scene.gone"
	Happened string
	Kept     string
	Do       string
	Detail   string // what another program said, as it said it; may be empty
	Cause    error  // what led to it; may be nil
}

// Error returns the whole message in one line.
func (f *Fault) Error() string {
	all := f.Happened + " " + f.Kept + " " + f.Do
	if f.Detail != "" {
		all += " (" + f.Detail + ")"
	}
	return all
}

// Unwrap returns the cause.
func (f *Fault) Unwrap() error { return f.Cause }

// New returns the fault of a key. Each {name} in it is replaced by the next of args. A key that is not in the catalogue is
// a mistake in the program, which a test finds; the fault then says the key.
func New(key string, args ...any) *Fault {
	m, ok := read().Faults[key]
	if !ok {
		m = [3]string{key + ".", "", ""}
	}
	f := &Fault{Key: key}
	for i, to := range []*string{&f.Happened, &f.Kept, &f.Do} {
		*to, args = fill(m[i], args)
	}
	return f
}

// Because is New with the error that led to it.
func Because(cause error, key string, args ...any) *Fault {
	f := New(key, args...)
	f.Cause = cause
	return f
}

// fill puts args in for placeholders and returns those that are left.
func fill(pattern string, args []any) (string, []any) {
	var b strings.Builder
	for {
		before, after, found := strings.Cut(pattern, "{")
		b.WriteString(before)
		if !found {
			return b.String(), args
		}
		_, after, _ = strings.Cut(after, "}")
		if len(args) > 0 {
			fmt.Fprint(&b, args[0])
			args = args[1:]
		}
		pattern = after
	}
}

// Is tells whether err is, or was led to by, the fault of a key.
func Is(err error, key string) bool {
	var f *Fault
	return errors.As(err, &f) && f.Key == key
}
