package delivery

import (
	"fmt"

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

// levels are how far each goes, one after the other.
var levels = map[Sacrifice][]float64{Grain: {0}, Truth: {8, 14, 22}, Shades: {128, 64, 32}, Flow: {0.75, 0.5, 0.33}, Measure: {0.85, 0.7, 0.55, 0.42, 0.32, 0.24}}

// Trial is a plan that is tried for a target.
type Trial struct {
	Plan
	Words string // what it gives up last
}

// Trials returns the plan and what it becomes as more and more is given up, each smaller than the one before as far as can be told. Of an
// animated PNG, which is exact, colours are not given up.
func (p Plan) Trials(side int) []Trial {
	list := []Trial{{p, ""}}
	order := p.Give
	if len(order) == 0 {
		order = Sacrifices
	}
	for _, s := range order {
		if p.Format != GIF && s != Flow && s != Measure {
			continue
		}
		base := list[len(list)-1].Plan
		for _, v := range levels[s] {
			next, words := base, ""
			switch s {
			case Grain:
				next.Dither, words = anim.Flat, "no dither"
			case Truth:
				next.Loss, words = max(p.Loss, v), fmt.Sprintf("loss %g", v)
			case Shades:
				next.Colours, words = min(p.Colours, int(v)), fmt.Sprintf("%g colours", v)
			case Flow:
				next.RateNum, next.RateDen = int64(v*100+0.5)*p.RateNum, 100*p.RateDen
				words = fmt.Sprintf("%.3g a second", v*float64(p.RateNum)/float64(p.RateDen))
			case Measure:
				next.Width, next.Height = even(v*float64(p.Width)), even(v*float64(p.Height))
				words = fmt.Sprintf("%d × %d px", next.Width, next.Height)
				if min(next.Width, next.Height) < side {
					continue
				}
			}
			if last := list[len(list)-1].Plan; next.differs(last) {
				list = append(list, Trial{next, words})
			}
		}
	}
	return list
}

func (p Plan) differs(o Plan) bool {
	return p.Dither != o.Dither || p.Loss != o.Loss || p.Colours != o.Colours || p.Width != o.Width || p.RateNum*o.RateDen != o.RateNum*p.RateDen
}
