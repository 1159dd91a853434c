package delivery

import (
	"fmt"

	"capstan/core/anim"
	"capstan/core/frame"
)

// Limits says, in words, what a file of the plan cannot have that the film has, or was asked for.
func (p Plan) Limits(f *frame.Film, a Ask) []string {
	list := []string{}
	say := func(format string, args ...any) { list = append(list, fmt.Sprintf(format, args...)) }
	format := Formats[p.Format]
	asked := a.Rate
	if a.Frame > 0 {
		asked.Num, asked.Den = 1000, a.Frame
	}
	if format.Rate != nil && asked.Valid() && asked.Num*p.RateDen > p.RateNum*asked.Den {
		say("%d frames a second is the most it plays", p.RateNum/p.RateDen)
	}
	if format.Palette && len(p.Times) == 0 && 100*p.RateDen%p.RateNum != 0 {
		d := 100 * p.RateDen / p.RateNum
		say("its frames last %d or %d hundredths of a second in turn; at 10, 20, 25 or 50 a second all are alike", d, d+1)
	}
	if heard := f.Doc.Film.Sounding(); heard && format.Track != "" && len(p.Times) > 0 && !p.Silent {
		say("it is silent: what is heard has no time of its own where frames are timed by hand")
	} else if heard && format.Track == "" && !format.Still {
		say("it is silent: such files hold no sound")
	}
	if format.Palette {
		say("%d colours", min(p.Colours, anim.MostColours))
	}
	if format.Palette && !Opaque(f) {
		say("its edges are not half clear: they are laid on %s", f.Doc.Film.Under)
	}
	if h := f.Doc.Film.Height; p.Height > h {
		say("it is larger than the page: pictures, textures and blurs get no finer")
	}
	return list
}
