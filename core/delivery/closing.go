package delivery

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
)

// Closed says whether a film that goes round closes: its end shows what its start shows, and it lasts a whole number of frames.
type Closed struct {
	Closes bool   `json:"closes"`
	Words  string `json:"words"`
	// Stay is what the last scene would have to stay for a whole number of frames, ms, where that alone is missing; -1: nothing is, or more.
	Stay int64 `json:"stay"`
}

// mostNamed is how many layers are named that are not at the end what they are at the start.
const mostNamed = 4

// Closes tells of a film whether it closes, and what does not, by name (docs/motion.md, section 8).
func Closes(f *frame.Film) Closed {
	if !meets(f) {
		names := unmet(f)
		switch {
		case len(names) == 0:
			return Closed{Words: "It does not close: the page is another one at its end.", Stay: -1}
		case len(names) > mostNamed:
			names = append(names[:mostNamed], fmt.Sprintf("%d more", len(names)-mostNamed))
		}
		return Closed{Words: "It does not close: at its end " + strings.Join(names, ", ") + " differ from its start.", Stay: -1}
	}
	r, length := f.Doc.Film.Rate, f.Order.Length
	if length*r.Num%(1000*r.Den) == 0 {
		return Closed{true, "It closes: its last frame is followed by its first without a jump.", -1}
	}
	// The nearest stay, in whole ms, with which it is a whole number of frames; of a rate whose frames are no whole ms that may lie far off.
	last := len(f.Doc.Film.Shown()) - 1
	stay := f.Order.Stays[last]
	for by := int64(1); by <= 60000; by++ {
		for _, d := range []int64{by, -by} {
			if n := length + d; stay+d > 0 && n*r.Num%(1000*r.Den) == 0 {
				return Closed{Words: fmt.Sprintf("Its end meets its start, but it lasts no whole number of frames: a stay of %.3f s would.", float64(stay+d)/1000), Stay: stay + d}
			}
		}
	}
	return Closed{Words: "Its end meets its start, but it lasts no whole number of frames at this rate.", Stay: -1}
}

// unmet returns the names of outermost layers that the end of a film shows otherwise than its start.
func unmet(f *frame.Film) (names []string) {
	shown := f.Doc.Film.Shown()
	a, b := f.Player(), f.Player()
	a.Stand(motion.Millis(0))
	b.Stand(motion.Millis(f.Order.Length))
	end := shown[len(shown)-1]
	if f.Order.Closing > 0 {
		end = shown[0]
	}
	alone := func(p *frame.Player, l *doc.Layer) *frame.List {
		p.Clear()
		if l != nil {
			p.AddPlaced(l.ID, 1, frame.View{Scale: 1})
		}
		return p.List()
	}
	seen := map[string]bool{}
	for _, list := range [][]*doc.Layer{shown[0].Layers, end.Layers} {
		for _, l := range list {
			if seen[l.Thread] || l.Is().Looks {
				continue
			}
			seen[l.Thread] = true
			x, y := alone(a, shown[0].Thread(l.Thread)), alone(b, end.Thread(l.Thread))
			if !slices.Equal(x.Codes, y.Codes) || !slices.EqualFunc(x.Numbers, y.Numbers, func(p, q float64) bool { return math.Abs(p-q) <= 1e-6 }) {
				names = append(names, l.Name)
			}
		}
	}
	return
}
