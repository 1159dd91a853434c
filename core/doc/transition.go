package doc

import (
	"maps"
	"slices"

	"capstan/core/effect"
)

// Transition kinds beside the effects of pages (package effect), which one goes by.
const (
	Cut       = "cut"
	Crossfade = "crossfade"
	Morph     = "morph"
)

// Transition is the way into a scene.
type Transition struct {
	Kind     string            `json:"kind"`              // cut, crossfade, morph, or an effect of pages
	Duration int64             `json:"duration,omitzero"` // ms; 0 for a cut
	Easing   string            `json:"easing,omitzero"`   // CSS easing; empty: ease-in-out
	Params   effect.Params     `json:"params,omitzero"`   // of its effect
	GoesOn   bool              `json:"goesOn,omitzero"`   // a morph that goes on the run of the morph before, in its easing
	Curve    bool              `json:"curve,omitzero"`    // of the first morph of a run: what goes on lies on a smooth curve through the run's scenes, at the pace of the run
	Threads  map[string]Strand `json:"threads,omitempty"` // of a morph: how single threads go through it, by thread
}

// Strand is how one thread goes through a morph.
type Strand struct {
	Turn  string `json:"turn,omitzero"`  // which way it turns: numbered, short, clockwise, anticlockwise; empty: numbered, and back to the first scene as the morphs before
	Turns int    `json:"turns,omitzero"` // whole turns more, 0..MaxTurns

	Easing  string  `json:"easing,omitzero"`  // CSS easing of its own; empty: that of the transition
	Delay   float64 `json:"delay,omitzero"`   // share of the transition that it waits, 0..MaxDelay
	Wing    string  `json:"wing,omitzero"`    // of a layer that only one of the scenes has: the side it comes in from, or goes out to, one of Wings; empty: it fades
	Letters bool    `json:"letters,omitzero"` // of words that become other words: letter by letter, not by dissolving
	Arc     float64 `json:"arc,omitzero"`     // it goes by an arc of a circle, as high as this share of its way, -1..1; above 0 to the right as it looks ahead

	Outline *Reshape `json:"outline,omitempty"` // how its outline becomes that of the next scene, where a person said so
}

// Equal reports whether two strands are the same.
func (s Strand) Equal(o Strand) bool {
	a, b := s.Outline, o.Outline
	s.Outline, o.Outline = nil, nil
	return s == o && a.Equal(b)
}

// Wings are the sides of the page.
var Wings = map[string][2]float64{"left": {-1, 0}, "right": {1, 0}, "top": {0, -1}, "bottom": {0, 1}}

// MaxDelay is the share of a morph that a thread waits at most.
const MaxDelay = 0.95

// Timed reports whether the thread goes through the morph at other times than the others.
func (s Strand) Timed() bool { return s.Easing != "" || s.Delay > 0 }

// Ways of turning through a morph.
const (
	TurnNumbered      = "numbered"      // from the one number to the other
	TurnShort         = "short"         // by half a turn at most
	TurnClockwise     = "clockwise"     // by less than a turn
	TurnAnticlockwise = "anticlockwise" // by less than a turn
)

// Does returns the effect of a transition; nil where it goes by none, or by one that this version does not know.
func (t *Transition) Does() *effect.Effect { return effect.As(effect.Transition, t.Kind) }

// Pages returns what a transition does with both pages, and its parameters; nil as Does.
func (t *Transition) Pages() (*effect.Pages, effect.Params) {
	if e := t.Does(); e != nil {
		return e.Pages, e.Complete(t.Params)
	}
	return nil, nil
}

// MaxTurns is by how many whole turns more a thread turns through a morph at most.
const MaxTurns = 100

// Equal reports whether two transitions are the same.
func (t *Transition) Equal(o *Transition) bool {
	if t == o {
		return true
	}
	if t == nil || o == nil {
		return false
	}
	return t.Kind == o.Kind && t.Duration == o.Duration && t.Easing == o.Easing && t.Params.Equal(o.Params) && t.GoesOn == o.GoesOn && t.Curve == o.Curve &&
		maps.EqualFunc(t.Threads, o.Threads, Strand.Equal)
}

func (c *checker) transition(at string, t Transition) {
	if !slices.Contains([]string{Cut, Crossfade, Morph}, t.Kind) {
		c.effect(at, "kind", t.Kind, effect.Transition, t.Params)
	}
	c.time(at+".duration", t.Duration, 0)
	if t.Kind == Cut && t.Duration != 0 {
		c.fail(at+".duration", "must be 0 for a cut")
	}
	if t.Kind != Cut && t.Duration == 0 {
		c.fail(at+".duration", "must be above 0 for a %s", t.Kind)
	}
	c.easing(at+".easing", t.Easing)
	if t.GoesOn && t.Kind != Morph {
		c.fail(at+".goesOn", "belongs to a morph")
	}
	if t.Curve && t.Kind != Morph {
		c.fail(at+".curve", "belongs to a morph")
	}
	if len(t.Threads) > MaxLayers {
		c.fail(at+".threads", "are %d; a scene has up to %d", len(t.Threads), MaxLayers)
		return
	}
	for _, k := range sortedKeys(t.Threads) {
		if !c.idLike(at+".threads", k) {
			return
		}
		c.oneOf(at+".threads."+k+".turn", t.Threads[k].Turn, "", TurnNumbered, TurnShort, TurnClockwise, TurnAnticlockwise)
		c.number(at+".threads."+k+".turns", float64(t.Threads[k].Turns), 0, MaxTurns)
		c.easing(at+".threads."+k+".easing", t.Threads[k].Easing)
		c.number(at+".threads."+k+".delay", t.Threads[k].Delay, 0, MaxDelay)
		c.number(at+".threads."+k+".arc", t.Threads[k].Arc, -1, 1)
		c.reshape(at+".threads."+k+".outline", t.Threads[k].Outline)
		if wing := t.Threads[k].Wing; wing != "" && Wings[wing] == [2]float64{} {
			c.fail(at+".threads."+k+".wing", "%.20q is none of left, right, top, bottom", wing)
		}
	}
}
