package delivery

import (
	"fmt"
	"slices"
	"strings"

	"capstan/core/anim"
)

// Sacrifice is something that is given up for a file to become smaller.
type Sacrifice string

// What is given up.
const (
	Truth   Sacrifice = "loss"    // pixels may be further from their colours
	Shades  Sacrifice = "colours" // fewer colours
	Grain   Sacrifice = "dither"  // no dither
	Flow    Sacrifice = "rate"    // fewer frames a second
	Measure Sacrifice = "size"    // a smaller picture
)

// Sacrifices is the order in which things are given up where none is asked for: what is seen least first.
var Sacrifices = []Sacrifice{Grain, Truth, Shades, Flow, Measure}

// gives returns what files of a format can give up, in the usual order: those without a palette are exact.
func (f Format) gives() []Sacrifice {
	switch {
	case !f.Rests || f.Piece:
		return []Sacrifice{}
	case f.Palette:
		return Sacrifices
	}
	return []Sacrifice{Flow, Measure}
}

// levels are how far each goes, one after the other.
var levels = map[Sacrifice][]float64{Grain: {0}, Truth: {6, 8, 10}, Shades: {160, 112, 80}, Flow: {0.75, 0.6, 0.5, 0.4}, Measure: {0.85, 0.72, 0.61, 0.52, 0.44, 0.37, 0.3, 0.25, 0.2}}

// rounds is how many levels there are at most.
const rounds = 9

// Trial is a plan that is tried for a target.
type Trial struct {
	Plan
	Words string // what it gives up last
}

// Trials returns the plan and what it becomes as more and more is given up, in rounds: a little of each in its order, then more of each, so that
// nothing is ruined while others are whole. The rate stays where frames are timed by hand. No side becomes shorter than least. Of an animated PNG, which is exact, colours are not given up.
func (p Plan) Trials(least int) []Trial {
	list := []Trial{{p, ""}}
	can := Formats[p.Format].gives()
	order := p.Give
	if len(order) == 0 {
		order = Sacrifices
	}
	now := p
	for round := range rounds {
		for _, s := range order {
			if round >= len(levels[s]) || !slices.Contains(can, s) || s == Flow && len(p.Times) > 0 {
				continue
			}
			next := now.without(p, s, levels[s][round])
			if next.differs(now) && min(next.Width, next.Height) >= least {
				now = next
				list = append(list, Trial{now, now.says(s)})
			}
		}
	}
	return list
}

// without gives something up as far as v says, of what p asked for.
func (now Plan) without(p Plan, s Sacrifice, v float64) Plan {
	switch s {
	case Grain:
		now.Dither = anim.Flat
	case Truth:
		now.Loss = max(p.Loss, v)
	case Shades:
		now.Colours = min(p.Colours, int(v))
	case Flow:
		now.RateNum, now.RateDen = int64(v*100+0.5)*p.RateNum, 100*p.RateDen
	case Measure:
		now.Width, now.Height = even(v*float64(p.Width)), even(v*float64(p.Height))
	}
	return now
}

func (p Plan) differs(o Plan) bool {
	return p.Dither != o.Dither || p.Loss != o.Loss || p.Colours != o.Colours || p.Width != o.Width || p.RateNum*o.RateDen != o.RateNum*p.RateDen
}

// GaveUp says what a plan has given up of what was asked for; empty: nothing.
func (p Plan) GaveUp(asked Plan) string {
	var list []string
	for _, s := range Sacrifices {
		now := asked
		switch s {
		case Grain:
			now.Dither = p.Dither
		case Truth:
			now.Loss = p.Loss
		case Shades:
			now.Colours = p.Colours
		case Flow:
			now.RateNum, now.RateDen = p.RateNum, p.RateDen
		case Measure:
			now.Width, now.Height = p.Width, p.Height
		}
		if now.differs(asked) {
			list = append(list, p.says(s))
		}
	}
	return strings.Join(list, ", ")
}

// says tells what a plan has of something that may be given up.
func (p Plan) says(s Sacrifice) string {
	switch s {
	case Grain:
		return "no dither"
	case Truth:
		return fmt.Sprintf("loss %g", p.Loss)
	case Shades:
		return fmt.Sprintf("%d colours", p.Colours)
	case Flow:
		return fmt.Sprintf("%.3g a second", float64(p.RateNum)/float64(p.RateDen))
	}
	return fmt.Sprintf("%d × %d px", p.Width, p.Height)
}
