package series

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/words"
)

// cutter divides one scene.
type cutter struct {
	at      int64
	timing  *motion.Timing
	scene   *doc.Scene      // as it was
	named   map[string]bool // threads that moves name: drivers, and outlines that are followed
	film    *frame.Film     // with the earlier part alone
	grow    func(l *doc.Layer, times float64) error
	index   int                // of the scene in it
	waiting map[string]bool    // layers that wait in the earlier part for an entrance that does not come in it
	unseen  map[string]bool    // layers that the earlier part has, and that are not there in it
	phases  map[string]int64   // how far loops of layers that have yet to come are in their cycle at their begin, ms, where they go on others
	kept    map[string]bool    // moves that the later part has
	apart   map[*doc.Move]bool // that say how far apart parts lie from the later part's beginning
	went    map[string]bool    // of these, loops that the earlier part has, too
}

// Means are what it takes to tell where things stand, and to make them larger.
type Means struct {
	Assets frame.Assets
	Before *frame.Film // the last that was compiled, of whose scenes none has been changed since; nil: none
	Grow   func(l *doc.Layer, times float64) error
}

// Cut leaves of scene i of a project, which the caller may change, what is before a time of its clock, and returns the rest of it as a scene that
// begins with a cut as the earlier one ends: what is seen at any time stays what it was. Moves go where they begin; what is under way then goes on
// in the later scene from where it is; what is over is rest there. Loops that have gone on in the later scene are returned by the ids that they had.
// into is how long the transition into the scene lasts.
func Cut(p *doc.Project, i int, at, into int64, seed string, by *Means) (later *doc.Scene, loops map[string]string, err error) {
	s := p.Film.Scenes[i]
	t, err := motion.Resolve(s, into)
	if err != nil {
		return nil, nil, err
	}
	if at <= 0 || at >= t.Stay {
		return nil, nil, words.New("cut.edge")
	}
	later = s.Clone()
	phases, err := Phases(p, i, by.Assets)
	if err != nil {
		return nil, nil, err
	}
	c := &cutter{
		phases: phases, at: at, timing: t, scene: s.Clone(), named: namedBy(s.Layers), grow: by.Grow,
		waiting: map[string]bool{}, unseen: map[string]bool{}, kept: map[string]bool{}, apart: map[*doc.Move]bool{}, went: map[string]bool{},
	}
	if err := c.earlier(s, into); err != nil {
		return nil, nil, err
	}
	if c.film, err = frame.Compile(p, by.Assets, by.Before); err != nil {
		return nil, nil, err
	}
	c.index, by.Before = i, c.film
	later.Transition, later.AutoStay = doc.Transition{Kind: doc.Cut}, false
	if later.Layers, err = c.after(later.Layers, false); err != nil {
		return nil, nil, err
	}
	doc.Walk(later.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			c.shift(m)
		}
		return true
	})
	c.cues(s, later)
	if later.Layers == nil {
		later.Layers = []*doc.Layer{}
	}
	old := map[string]string{}
	Remap(later, seed, old)
	loops = map[string]string{}
	doc.Walk(later.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			loops[old[m.ID]] = m.ID
			if c.went[old[m.ID]] {
				m.Continues = old[m.ID]
			}
		}
		return true
	})
	return later, loops, nil
}

// Phases returns how far into their cycles loops of a scene are at their begins that go on loops of the scene before, in ms.
func Phases(p *doc.Project, i int, assets frame.Assets) (map[string]int64, error) {
	var film *frame.Film
	var err error
	out := map[string]int64{}
	doc.Walk(p.Film.Scenes[i].Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			if m.Kind != doc.Loop || m.Continues == "" || m.Lasts != doc.WholeScene || err != nil {
				continue
			}
			if film == nil {
				if film, err = frame.Compile(p, assets, nil); err != nil {
					continue
				}
			}
			out[m.ID] = film.Phase(i, m.ID, l.ID)
		}
		return err == nil
	})
	return out, err
}

// namedBy returns the threads that moves of layers name.
func namedBy(layers []*doc.Layer) map[string]bool {
	named := map[string]bool{}
	doc.Walk(layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			m.Clone().RenameThreads(func(t string) string {
				named[t] = true
				return t
			})
		}
		return true
	})
	return named
}

// comesFirst returns the first presence move of a layer; nil where it is simply there.
func comesFirst(s *doc.Scene, l *doc.Layer, t *motion.Timing) (first *doc.Move) {
	for _, m := range l.Moves {
		if (m.Kind == doc.Entrance || m.Kind == doc.Exit) && !m.TiedIn(s) && (first == nil || t.Moves[m.ID].Begin < t.Moves[first.ID].Begin) {
			first = m
		}
	}
	return first
}

// unseen makes a layer that is not there in a scene what others need of it: nothing shows in a mask that is not there, and what drives others
// does so where it stands. False where nothing needs it.
func unseen(l *doc.Layer, named map[string]bool) bool {
	switch {
	case l.Mask == doc.Inside:
		l.Opacity, l.Moves = 0, nil
	case named[l.Thread]:
		l.Hidden = true
	default:
		return false
	}
	return true
}

// whole reports whether a group has to keep all that lies in it: how its moves go depends on how large it is, and of what.
func whole(l *doc.Layer) bool { return l.Kind == doc.Group && len(l.Moves) > 0 }

// BeginAt lets a move begin at a time of its scene's clock, by itself; before the transition into that, which lasts so long, it has gone on for a
// while.
func BeginAt(m *doc.Move, at, into int64) {
	m.Start, m.Begun = doc.Start{When: doc.AtTime, Offset: max(at, -into)}, max(-into-at, 0)
}

// startAt is BeginAt after a cut.
func startAt(m *doc.Move, at int64) { BeginAt(m, at, 0) }

// explicit lets a move last as long as it does by its own numbers.
func explicit(m *doc.Move, iv motion.Interval) {
	if m.End != nil && m.End.Stretches && m.Lasts == "" && m.Until == "" {
		m.Duration = iv.Pass
	}
	if m.Until != "" && m.Duration > 0 {
		m.Repeat = iv.Passes
	}
	m.End, m.Until = nil, ""
	if m.Lasts == doc.WholeScene && m.Keeps == "" && (m.Kind != doc.Loop || m.Drifts()) {
		m.Lasts, m.Duration = "", max(iv.Pass, doc.MinDuration)
		if m.Repeat = 0; iv.Passes != 1 {
			m.Repeat = iv.Passes
		}
	}
}

// earlier leaves in a scene what is before the cut.
func (c *cutter) earlier(s *doc.Scene, into int64) error {
	gone := map[string]bool{}
	var prune func(list []*doc.Layer, all bool) []*doc.Layer
	prune = func(list []*doc.Layer, all bool) []*doc.Layer {
		var out []*doc.Layer
		for _, l := range list {
			first := comesFirst(c.scene, l, c.timing)
			absent := first != nil && first.Kind == doc.Entrance && c.timing.Moves[first.ID].Begin >= c.at
			if all && absent {
				c.waiting[l.ID] = true
				out = append(out, l) // it counts as a part: it waits for an entrance that does not come
				continue
			}
			if absent {
				if !unseen(l, c.named) {
					continue
				}
				c.unseen[l.ID] = true
			}
			if l.Kind == doc.Group {
				l.Children = prune(l.Children, all || whole(l))
				if !slices.ContainsFunc(l.Children, func(k *doc.Layer) bool { return k.Mask == "" }) {
					continue
				}
			}
			out = append(out, l)
		}
		return out
	}
	before := s.Clone()
	s.Layers = prune(s.Layers, false)
	has := map[string]bool{}
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		l.Moves = slices.DeleteFunc(l.Moves, func(m *doc.Move) bool {
			waits := m.Kind == doc.Entrance && c.waiting[l.ID]
			return c.timing.Moves[m.ID].Begin >= c.at && m.Lasts != doc.WholeThread && !waits && !m.TiedIn(c.scene) && !fillsBack(m)
		})
		if len(l.Moves) == 0 {
			l.Moves = nil
		}
		for _, m := range l.Moves {
			has[m.ID] = true
		}
		return true
	})
	doc.Walk(before.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			gone[m.ID] = !has[m.ID]
		}
		return true
	})
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			iv := c.timing.Moves[m.ID]
			if m.Lasts == doc.WholeThread {
				continue
			}
			if m.Start.When == doc.BeforeSceneEnd || gone[m.Start.Of] || iv.Early || m.End != nil && !m.End.Stretches {
				BeginAt(m, iv.Begin, into)
			}
			if m.End != nil && (m.End.When == doc.BeforeSceneEnd || gone[m.End.Of]) || gone[m.Until] || m.Lasts == doc.WholeScene {
				explicit(m, iv)
			}
		}
		return true
	})
	s.AutoStay, s.EndsAtCue, s.Stay = false, "", c.at
	var cues []doc.Cue
	for _, q := range s.Cues {
		if motion.CueTime(c.scene, q.ID) <= c.at {
			cues = append(cues, q)
			s.Stay -= q.Wait
		}
	}
	s.Cues = cues
	return nil
}

// cues leaves in the later part the cues that are passed in it; what has been waited for one counts.
func (c *cutter) cues(s, later *doc.Scene) {
	var list []doc.Cue
	later.Stay = c.timing.Stay - c.at
	before := int64(0)
	for _, q := range c.scene.Cues {
		passed := motion.CueTime(c.scene, q.ID)
		if passed <= c.at {
			continue
		}
		q.Wait = min(q.Wait, passed-c.at)
		q.At = max(passed-c.at-q.Wait-before, 0)
		before += q.Wait
		later.Stay -= q.Wait
		list = append(list, q)
	}
	later.Cues = list
	if !slices.ContainsFunc(list, func(q doc.Cue) bool { return q.ID == later.EndsAtCue }) {
		later.EndsAtCue = ""
	}
}

// fillsBack reports whether a move has a say before it begins.
func fillsBack(m *doc.Move) bool {
	g := m.Goes()
	return m.Drifts() && (m.Path == nil || m.Path.RestShare() > 0) || g != nil && (g.Keeps || g.Round != nil)
}

// Settles reports whether what a finished move leaves behind can be said by a layer at rest.
func Settles(m *doc.Move) bool {
	g := m.Goes()
	switch {
	case m.Kind != doc.Loop || m.Drifts():
		return true
	case g == nil:
		return true
	case g.Manner == effect.Rounds:
		return m.Spins()
	}
	return !g.Keeps
}

// over reports whether nothing that a layer does by itself is under way at the cut, nor leaves behind what no rest can say.
func (c *cutter) over(l *doc.Layer) bool {
	turned, brought := false, false // by what goes on about the pivot; by a change that is yet to come
	for _, m := range l.Moves {
		iv := c.timing.Moves[m.ID]
		turned = turned || iv.Begin < c.at && m.Kind == doc.Loop && !m.Drifts() && m.Does() != nil && m.Goes().Turns
		brought = brought || iv.Begin >= c.at && m.Kind == doc.Change && m.Change.To.Moves()
		switch {
		case iv.Begin >= c.at && fillsBack(m):
			return false
		case iv.Whole || m.Lasts == doc.WholeThread || m.TiedIn(c.scene) || iv.Begin >= c.at:
		case iv.End > c.at || !Settles(m) || m.Kind == doc.Change && m.Unit != "":
			return false
		}
	}
	return !turned || !brought
}

// after makes of layers what they are in the later part.
func (c *cutter) after(layers []*doc.Layer, all bool) ([]*doc.Layer, error) {
	var out []*doc.Layer
	for _, l := range layers {
		if !c.film.Has(c.index, l.ID) || c.unseen[l.ID] {
			c.keep(l)
			out = append(out, l)
			continue
		}
		present := c.film.Ends(c.index, l.ID)
		later := func(m *doc.Move) bool { return c.timing.Moves[m.ID].Begin >= c.at }
		comes := slices.ContainsFunc(l.Moves, func(m *doc.Move) bool { return m.Kind == doc.Entrance && later(m) && !m.TiedIn(c.scene) })
		gone := !l.Hidden && !present && !comes && !all
		if gone && l.Mask != doc.Inside && !c.named[l.Thread] {
			continue
		}
		if !all && c.over(l) {
			if err := c.settle(l, present, later); err != nil {
				return nil, err
			}
		} else {
			l.Moves = slices.DeleteFunc(l.Moves, func(m *doc.Move) bool { return m.Lasts == doc.WholeThread })
		}
		if gone {
			unseen(l, c.named)
		}
		for _, m := range l.Moves {
			c.kept[m.ID] = true
			if iv := c.timing.Moves[m.ID]; iv.Whole && iv.Begin < c.at {
				c.went[m.ID] = true
			}
		}
		if len(l.Moves) == 0 {
			l.Moves = nil
		}
		if l.Kind == doc.Group {
			var err error
			if l.Children, err = c.after(l.Children, all || whole(l)); err != nil {
				return nil, err
			}
			if !slices.ContainsFunc(l.Children, func(k *doc.Layer) bool { return k.Mask == "" }) {
				continue
			}
		}
		out = append(out, l)
	}
	return out, nil
}

// keep leaves a layer that has yet to come as it is, with what is in it.
func (c *cutter) keep(l *doc.Layer) {
	doc.Walk([]*doc.Layer{l}, func(k, _ *doc.Layer) bool {
		k.Moves = slices.DeleteFunc(k.Moves, func(m *doc.Move) bool { return m.Lasts == doc.WholeThread })
		if len(k.Moves) == 0 {
			k.Moves = nil
		}
		for _, m := range k.Moves {
			c.kept[m.ID] = true
		}
		return true
	})
}

// settle gives a layer what has been made of it before the cut as its rest, and leaves it what it does later.
func (c *cutter) settle(l *doc.Layer, present bool, later func(*doc.Move) bool) error {
	pose := c.film.EndPose(c.index, l.ID)
	if is, large := c.film.EndLayer(c.index, l.ID); is != nil {
		if err := Settle(l, is, large, c.grow); err != nil {
			return err
		}
	}
	spin := pose.Loops.Turn
	var kept []*doc.Move
	for _, m := range l.Moves {
		iv := c.timing.Moves[m.ID]
		switch {
		case m.Lasts == doc.WholeThread:
		case iv.Whole:
			if g := m.Goes(); iv.Begin < c.at && (g == nil || g.Round == nil) {
				spin -= c.film.EndTurn(c.index, l.ID, m.ID)
			}
			kept = append(kept, m)
		case m.TiedIn(c.scene) || later(m):
			kept = append(kept, m)
		}
	}
	if m := ApartAt(c.film, c.index, l); m != nil {
		c.apart[m] = true
		kept = append([]*doc.Move{m}, kept...)
	}
	l.Place.X += pose.Offset.X
	l.Place.Y += pose.Offset.Y
	l.Place.Turn += pose.Angle
	TurnAbout(l, c.film, c.index, spin)
	l.Moves = c.presence(kept, present)
	bring(l, pose.Offset, pose.Angle)
	return nil
}

// bring lets what the changes of a layer bring it to be as much farther.
func bring(l *doc.Layer, off geom.Point, angle float64) {
	Becoming(l, func(to *doc.Becomes) {
		for _, v := range []struct {
			to *float64
			by float64
		}{{to.X, off.X}, {to.Y, off.Y}, {to.Turn, angle}} {
			if v.to != nil {
				*v.to += v.by
			}
		}
	})
}

// presence leaves out comings of what is there, and goings of what is not, before the first that does something.
func (c *cutter) presence(moves []*doc.Move, present bool) []*doc.Move {
	for {
		first := comesFirst(c.scene, &doc.Layer{Moves: moves}, c.timing)
		if first == nil || (first.Kind == doc.Entrance) != present {
			return moves
		}
		moves = slices.DeleteFunc(moves, func(m *doc.Move) bool { return m == first })
	}
}

// shift brings a move to the clock of the later part.
func (c *cutter) shift(m *doc.Move) {
	iv := c.timing.Moves[m.ID]
	m.Continues = ""
	switch {
	case c.apart[m]:
		return
	case c.went[m.ID]:
		m.Start, m.Begun, m.End, m.Until = doc.Start{When: doc.AtTime}, 0, nil, ""
		return
	case iv.Begin < c.at || iv.Whole:
		explicit(m, iv)
		startAt(m, iv.Begin-c.at-c.phases[m.ID])
		return
	}
	if m.End != nil && m.End.When != doc.BeforeSceneEnd && !c.kept[m.End.Of] || m.Until != "" && !c.kept[m.Until] {
		explicit(m, iv)
		startAt(m, iv.Begin-c.at)
		return
	}
	switch m.Start.When {
	case doc.WhenBegins, doc.WhenEnds:
		if !c.kept[m.Start.Of] || c.went[m.Start.Of] {
			startAt(m, iv.Begin-c.at)
		}
	case doc.AtCue:
		if motion.CueTime(c.scene, m.Start.Of) <= c.at {
			startAt(m, iv.Begin-c.at)
		}
	case doc.WhenHeard, doc.WhenSilent:
		if q, _ := c.scene.Heard(m.Start.Of); q == nil || c.timing.Sounds[q.ID].Begin < c.at { // it stays with the first part
			startAt(m, iv.Begin-c.at)
		}
	case doc.AtTime:
		startAt(m, iv.Begin-c.at)
	}
}
