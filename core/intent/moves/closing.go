package moves

import (
	"fmt"
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/effect"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

var closingAsked = intent.Table{
	// Loops that go on to the film's end come round by then.
	"film.fit": intent.Of(func(s *intent.Desk, _ scope.Moment, _ *struct{}) (edit.Command, error) {
		set, _ := fitted(s)
		if len(set) == 0 {
			return nil, words.New("film.fit")
		}
		return &edit.SetMoves{Set: set}, nil
	}),
}

// Fits says what film.fit would change: "Vane: one turn in 2.00 s instead of 3.00 s"; it is empty where nothing would be.
func Fits(s *intent.Desk) []string {
	_, said := fitted(s)
	return said
}

// mostRounds is how many times a loop comes round at most in the time it is fitted to.
const mostRounds = 20000

// fitted returns the changes by which the loops of a film come round a whole number of times from where they begin, in whichever scene that is, to its
// end: of the cycles that do, each gets the one that differs from its own by the least factor (docs/motion.md, section 8). Loops that are one function
// through several scenes change in all of them. What rolls follows what it rolls on. The second result says in words what changes.
func fitted(s *intent.Desk) (set []edit.Part, said []string) {
	shown := s.Doc.Film.Shown()
	last := len(shown) - 1
	said = []string{}
	end := s.Film.Order.Begin(last) + s.Film.Order.Stays[last]
	doc.Walk(shown[last].Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			g := m.Goes()
			if m.Kind != doc.Loop || m.Lasts != doc.WholeScene || g == nil || g.Round != nil || g.Line != nil {
				continue
			}
			list := continued(s, last, m)
			head := list[len(list)-1]
			takes := end - s.Film.Order.Begin(head.scene) - s.Film.Timing(head.scene).Moves[head.move.ID].Begin
			was := s.Film.Cycle(last, m, l.ID)
			if takes <= 0 || was <= 0 {
				continue
			}
			one := true // all have one cycle
			for _, b := range list {
				one = one && s.Film.Cycle(b.scene, b.move, b.layer.ID) == was
			}
			if one && takes%was == 0 {
				continue
			}
			var patches []edit.Part
			cycle := nearestCycle(takes, was, func(n int64) bool {
				patches = patches[:0]
				for _, b := range list {
					patch := cycling(s, b, takes, n)
					if patch == nil {
						return false
					}
					patches = append(patches, edit.Part{ID: b.move.ID, Patch: patch})
				}
				return true
			})
			if cycle == 0 {
				continue
			}
			set = append(set, patches...)
			what := g.Cycles
			if what == "" {
				what = "One cycle"
			}
			said = append(said, fmt.Sprintf("%s: %s in %s instead of %s", l.Name, lower(what), words.Seconds(cycle), words.Seconds(was)))
		}
		return true
	})
	return
}

// continued is a loop of scene i with those it continues, the scene before first.
func continued(s *intent.Desk, i int, m *doc.Move) (list []bar) {
	for m != nil {
		_, l := s.Doc.Film.Scenes[i].Move(m.ID)
		list = append(list, bar{move: m, layer: l, scene: i})
		if m.Continues == "" || i == 0 {
			break
		}
		i--
		before, _ := s.Doc.Film.Scenes[i].Move(m.Continues)
		if before == nil || before.Effect != m.Effect || before.Lasts != doc.WholeScene {
			break
		}
		m = before
	}
	return
}

// nearestCycle returns the cycle of whole ms that a time is a multiple of and that differs by the least factor from what it was, of those that can be;
// 0 where none can.
func nearestCycle(takes, was int64, can func(n int64) bool) int64 {
	about := float64(takes) / float64(was)
	ranked := func(n int64) float64 { return math.Abs(math.Log(float64(n) / about)) }
	up, down := int64(math.Max(1, math.Ceil(about))), int64(math.Floor(about))
	for down >= 1 || up <= min(takes/doc.MinDuration, mostRounds) {
		n := up
		if down >= 1 && (up > min(takes/doc.MinDuration, mostRounds) || ranked(down) <= ranked(up)) {
			n = down
			down--
		} else {
			up++
		}
		if takes%n == 0 && can(n) {
			return takes / n
		}
	}
	return 0
}

// cycling is the change by which a loop comes round n times in a time; nil where none does.
func cycling(s *intent.Desk, b bar, takes, n int64) edit.Fields {
	g, cycle := b.move.Goes(), takes/n
	box, _ := s.Film.Box(b.scene, b.layer.ID)
	of := effect.Of{Params: b.move.Full(), Kind: b.move.Kind, Box: box, Parts: parts(b.layer)}
	var params effect.Params
	ok, patch := false, edit.Fields{}
	after := *b.move
	switch {
	case g.Pace != nil && g.Rounded != nil:
		away := max(b.layer.Away(), 0)
		if away == 0 {
			away = 1
		}
		params, ok = g.Rounded(of, float64(n)*away, float64(takes))
	case g.Cycle != nil && g.Cycled != nil && !b.move.Alternate:
		params, ok = g.Cycled(of, cycle)
	case g.Cycle == nil && g.Pace == nil:
		if after.Duration = cycle; b.move.Alternate {
			after.Duration = cycle / 2
		}
		patch["duration"], ok = after.Duration, true
	}
	if params != nil {
		after.Params = after.Params.Clone()
		if after.Params == nil {
			after.Params = effect.Params{}
		}
		for k, v := range params {
			after.Params[k] = v
		}
		patch["params"] = edit.Fields(params)
	}
	if !ok || s.Film.Cycle(b.scene, &after, b.layer.ID) != cycle {
		return nil
	}
	return patch
}

// parts is how many children of a group are shown in turn.
func parts(l *doc.Layer) (n int) {
	for _, c := range l.Children {
		if c.Mask == "" {
			n++
		}
	}
	return
}

// lower has a sentence go on inside another.
func lower(s string) string { return string(s[0]|0x20) + s[1:] }
