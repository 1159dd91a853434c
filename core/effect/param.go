package effect

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"capstan/core/geom"
)

// How a parameter is set.
const (
	Number    = "number"
	Choice    = "choice"
	Signs     = "signs"     // a choice of a few that are drawn
	Direction = "direction" // degrees clockwise, 0 to the right
	List      = "list"      // numbers, one for each
	Move      = "move"      // another move of the scene, by id
	Colour    = "colour"    // as #rrggbb
	Layer     = "layer"     // another layer of the scene, by its thread
)

// Param is one parameter of an effect: what it is in the document, and how it is shown and set. Least, Most and Step are as it is shown.
type Param struct {
	Name    string // in the document
	Control string // Number, Choice, Signs, Direction, List, Colour, Move or Layer
	Words   string // beside it
	Out     string // the same of an exit, where it differs
	Label   string // by itself
	Unit    string
	Times   float64 // what is shown is the value times this: 100 for shares in %
	Least   float64
	Most    float64
	Step    float64 // of the arrow keys
	Digits  int
	Whole   bool              // whole numbers alone
	Usual   any               // where it is missing
	Options []Option          // of a Choice or Signs
	Four    bool              // of directions only left, right, up and down
	Needs   string            // shown only where this parameter is no 0 and not missing
	NeedsIs string            // and where it is this word, if one is given
	NoUnit  bool              // not of moves that go unit by unit
	NoPage  bool              // not of transitions
	Free    string            // of a choice: any number may be written, too, and this is what it is called
	First   func(Setting) any // of a new move; nil: it is left away
	Mirror  func(any) any     // of a move that goes the other way; nil: it stays
}

// Option is one of what there is to choose from.
type Option struct {
	Value any // as it is written; nil: nothing is
	Words string
	Sign  string // the name of its drawing
}

// Setting is where a new move is made.
type Setting struct {
	PageW, PageH float64  // px
	Box          geom.Box // of the layer, in its own axes
	Lines        float64  // px: how long all lines are that it is drawn by
}

// num is a parameter that is a number.
func num(name, words, label, unit string, usual, least, most float64) Param {
	return Param{Name: name, Control: Number, Words: words, Label: label, Unit: unit, Times: 1, Least: least, Most: most, Step: 1, Usual: usual}
}

// share is a parameter that is a share of 1, shown in %.
func share(name, words, label string, usual, least, most float64) Param {
	p := num(name, words, label, "%", usual, least, most)
	p.Times = 100
	return p
}

func (p Param) digits(n int, step float64) Param { p.Digits, p.Step = n, step; return p }

func (p Param) whole() Param { p.Whole = true; return p }

func (p Param) needs(name string) Param { p.Needs = name; return p }

func (p Param) first(f func(Setting) any) Param { p.First = f; return p }

func (p Param) mirrored(f func(any) any) Param { p.Mirror = f; return p }

// colour is a parameter that is one.
func colour(name, words, label, usual string) Param {
	return Param{Name: name, Control: Colour, Words: words, Label: label, Times: 1, Usual: usual}
}

// choice is a parameter that is one of some words; the first is the usual one.
func choice(name, words, label string, of ...Option) Param {
	return Param{Name: name, Control: Choice, Words: words, Label: label, Times: 1, Options: of, Usual: of[0].Value}
}

// travel is the direction a move goes in.
func travel(usual float64) Param {
	p := num("direction", "Travels", "Direction of travel", "°", usual, -360, 360)
	p.Control, p.Out = Direction, "Goes"
	return p.mirrored(func(v any) any {
		d, _ := number(v)
		return math.Mod(d+180, 360)
	})
}

// softness is how soft the edge of a front is.
func softness() Param { return num("softness", "Soft by", "Softness of the edge", "px", 0, 0, 4000) }

// other is the mirror of a choice of two.
func other(a, b any) func(any) any {
	return func(v any) any {
		if v == b {
			return a
		}
		return b
	}
}

func negated(v any) any {
	n, _ := number(v)
	return -n
}

// Complete returns p with every parameter of an effect.
func (e *Effect) Complete(p Params) Params {
	out := make(Params, len(e.Params))
	for i := range e.Params {
		q := &e.Params[i]
		if v, ok := p[q.Name]; ok && v != nil {
			out[q.Name] = v
		} else if q.Usual != nil {
			out[q.Name] = q.Usual
		}
	}
	return out
}

// Fresh returns the parameters of a new move of a kind, as offered.
func (e *Effect) Fresh(o *Offer, s Setting) Params {
	out := Params{}
	for _, q := range e.Params {
		if q.First != nil {
			if v := q.First(s); v != nil {
				out[q.Name] = v
			}
		}
	}
	for k, v := range o.Params {
		out[k] = v
	}
	if len(out) == 0 {
		return nil
	}
	return out
}

// Param returns a parameter by name, nil where the effect has none of it.
func (e *Effect) Param(name string) *Param {
	for i := range e.Params {
		if e.Params[i].Name == name {
			return &e.Params[i]
		}
	}
	return nil
}

// NamesLayer reports whether a parameter of an effect names another layer.
func (e *Effect) NamesLayer() bool {
	return slices.ContainsFunc(e.Params, func(q Param) bool { return q.Control == Layer })
}

// NamesMove reports whether a parameter of an effect names another move.
func (e *Effect) NamesMove() bool {
	return slices.ContainsFunc(e.Params, func(q Param) bool { return q.Control == Move })
}

// MaxList is how many numbers a list has at most.
const MaxList = 2000

// Check returns what is wrong with a value, in words that go on from the name of the parameter: "must be 0 to 1"; "" where nothing is.
func (q *Param) Check(v any) string {
	switch q.Control {
	case Number, Direction:
		return q.checkNumber(v)
	case List:
		list, ok := v.([]any)
		if f, is := v.([]float64); is {
			list, ok = anys(f), true
		}
		if !ok || len(list) > MaxList {
			return fmt.Sprintf("must be a list of up to %d numbers", MaxList)
		}
		for _, of := range list {
			if s := q.checkNumber(of); s != "" {
				return s
			}
		}
		return ""
	case Move:
		if s, ok := v.(string); !ok || len(s) > 100 {
			return "must name a move"
		}
		return ""
	case Colour:
		s, ok := v.(string)
		if ok = ok && len(s) == 7 && s[0] == '#'; ok {
			_, err := strconv.ParseUint(s[1:], 16, 32)
			ok = err == nil
		}
		if !ok {
			return "must be a colour as #rrggbb"
		}
		return ""
	case Layer:
		if s, ok := v.(string); !ok || len(s) > 100 {
			return "must name a layer by its thread"
		}
		return ""
	}
	if q.Free != "" {
		if _, ok := number(v); ok {
			return q.checkNumber(v)
		}
	}
	var said []string
	for _, o := range q.Options {
		_, yes := o.Value.(bool)
		if o.Value == v || yes && v == false {
			return ""
		}
		if o.Value != nil {
			said = append(said, fmt.Sprint(o.Value))
		}
	}
	return "must be one of " + strings.Join(said, ", ")
}

func (q *Param) checkNumber(v any) string {
	n, ok := number(v)
	least, most := q.Least/q.Times, q.Most/q.Times
	switch {
	case !ok:
		return "must be a number"
	case q.Four && !slices.Contains([]float64{0, 90, 180, 270}, n):
		return fmt.Sprintf("is %v; it must be 0, 90, 180 or 270", n)
	case n < least-1e-9 || n > most+1e-9:
		return fmt.Sprintf("is %v; it must be %v to %v", n, least, most)
	case q.Whole && n != math.Trunc(n):
		return fmt.Sprintf("is %v; it must be a whole number", n)
	}
	return ""
}
