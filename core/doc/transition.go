package doc

import "maps"

// Transition kinds. A wipe over the page is a transition, over a layer an entrance or exit.
const (
	Cut       = "cut"
	Crossfade = "crossfade"
	Morph     = "morph"
	Wipe      = "wipe"
	Push      = "push"
)

// Transition is the way into a scene.
type Transition struct {
	Kind      string            `json:"kind"`               // cut, crossfade, morph, wipe, push
	Duration  int64             `json:"duration,omitzero"`  // ms; 0 for a cut
	Easing    string            `json:"easing,omitzero"`    // CSS easing; empty: ease-in-out
	Direction float64           `json:"direction,omitzero"` // of travel of a wipe or push, degrees clockwise, 0 to the right
	Softness  float64           `json:"softness,omitzero"`  // px of a wipe's edge
	GoesOn    bool              `json:"goesOn,omitzero"`    // a morph that goes on the run of the morph before, in its easing
	Threads   map[string]Strand `json:"threads,omitempty"`  // of a morph: how single threads go through it, by thread
}

// Strand is how one thread goes through a morph.
type Strand struct {
	Turn  string `json:"turn,omitzero"`  // which way it turns: numbered, short, clockwise, anticlockwise; empty: numbered, and back to the first scene as the morphs before
	Turns int    `json:"turns,omitzero"` // whole turns more, 0..MaxTurns
}

// Ways of turning through a morph.
const (
	TurnNumbered      = "numbered"      // from the one number to the other
	TurnShort         = "short"         // by half a turn at most
	TurnClockwise     = "clockwise"     // by less than a turn
	TurnAnticlockwise = "anticlockwise" // by less than a turn
)

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
	return t.Kind == o.Kind && t.Duration == o.Duration && t.Easing == o.Easing && t.Direction == o.Direction && t.Softness == o.Softness && t.GoesOn == o.GoesOn &&
		maps.Equal(t.Threads, o.Threads)
}

func (c *checker) transition(at string, t Transition) {
	c.oneOf(at+".kind", t.Kind, Cut, Crossfade, Morph, Wipe, Push)
	c.time(at+".duration", t.Duration, 0)
	if t.Kind == Cut && t.Duration != 0 {
		c.fail(at+".duration", "must be 0 for a cut")
	}
	if t.Kind != Cut && t.Duration == 0 {
		c.fail(at+".duration", "must be above 0 for a %s", t.Kind)
	}
	c.easing(at+".easing", t.Easing)
	c.number(at+".direction", t.Direction, -360, 360)
	c.number(at+".softness", t.Softness, 0, MaxSide)
	if t.GoesOn && t.Kind != Morph {
		c.fail(at+".goesOn", "belongs to a morph")
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
	}
}
