package doc

import "capstan/core/effect"

// run checks a run of moves: each but the first hangs on the one before.
func (c *checker) run(at string, r MoveRun, byID map[string]*Move) {
	c.id(at+".id", r.ID)
	c.oneOf(at+".when", r.When, WhenBegins, WhenEnds)
	if len(r.Moves) < 2 {
		c.fail(at+".moves", "are fewer than two")
	}
	for i, id := range r.Moves {
		m := byID[id]
		switch {
		case m == nil:
			c.fail(at+".moves", "name a move that is not in this scene")
		case i > 0 && (m.Start.When != r.When || m.Start.Of != r.Moves[i-1]):
			c.fail(at+".moves", "do not hang on each other in this order")
		}
	}
}

func (c *checker) move(at string, m *Move, moves map[string]*Move, on hooks) {
	c.id(at+".id", m.ID)
	c.oneOf(at+".kind", m.Kind, Entrance, Exit, Loop, MotionPath, Change)
	if m.Kind == MotionPath {
		c.oneOf(at+".effect", m.Effect, Along)
	} else if m.Kind == Change {
		c.oneOf(at+".effect", m.Effect, Becoming)
	} else {
		c.effect(at, "effect", m.Effect, m.Kind, m.Params)
	}
	c.oneOf(at+".start.when", m.Start.When, AtTime, WhenBegins, WhenEnds, BeforeSceneEnd, AtCue, WhenHeard, WhenSilent)
	c.time(at+".start.offset", m.Start.Offset, -MaxTime)
	c.hangs(at, m, moves, on)
	c.lasting(at, m)
	c.easing(at+".easing", m.Easing)
	c.number(at+".repeat", m.Repeat, 0, 100000)
	c.units(at, m)
	c.params(at, m)
}

// hangs checks that what a move hangs on is in its scene.
func (c *checker) hangs(at string, m *Move, moves map[string]*Move, on hooks) {
	switch m.Start.When {
	case WhenBegins, WhenEnds:
		if moves[m.Start.Of] == nil {
			c.fail(at+".start.of", "names no move of this scene")
		}
	case AtCue:
		if on[m.Start.Of] != AtCue {
			c.fail(at+".start.of", "names no cue of this scene")
		}
	case WhenHeard:
		if k := on[m.Start.Of]; k != "sound" && k != "mark" {
			c.fail(at+".start.of", "names no sound of this scene, and no mark of one")
		}
	case WhenSilent:
		if on[m.Start.Of] != "sound" {
			c.fail(at+".start.of", "names no sound of this scene")
		}
	}
	if m.End != nil {
		c.oneOf(at+".end.when", m.End.When, WhenBegins, WhenEnds, BeforeSceneEnd)
		if m.End.When != BeforeSceneEnd && moves[m.End.Of] == nil {
			c.fail(at+".end.of", "names no move of this scene")
		}
	}
	if m.Until != "" && moves[m.Until] == nil {
		c.fail(at+".until", "names no move of this scene")
	}
}

// lasting checks what says how long a move lasts.
func (c *checker) lasting(at string, m *Move) {
	c.oneOf(at+".lasts", m.Lasts, "", WholeScene, WholeThread)
	if m.Lasts == WholeThread && !m.Drifts() {
		c.fail(at+".lasts", "as long as the thread: only paths do, and what drifts")
	}
	c.oneOf(at+".keeps", m.Keeps, "", "speed")
	switch {
	case m.Timeless():
		if m.Duration != 0 {
			c.fail(at+".duration", "must be 0: at once takes no time")
		}
	case m.Kind != MotionPath && m.Kind != Change && m.Does() == nil, m.Goes() != nil && m.Goes().Cycle != nil, m.Runs() && m.Lasts != "", m.Lasts != "" && m.Kind != Loop && m.Keeps == "":
		c.time(at+".duration", m.Duration, 0)
	default:
		c.time(at+".duration", m.Duration, MinDuration)
	}
	if active := float64(m.Duration) * m.Repeat; active > 100*MaxTime {
		c.fail(at+".repeat", "makes the move last %.0f hours; it must be %d at most", active/3600000, 100*MaxTime/3600000)
	}
}

// cycles checks how long the cycles of a loop are together whose parameters say how long one is, on a layer of so many parts.
func (c *checker) cycles(at string, m *Move, parts int) {
	if g := m.Goes(); c.err == nil && g != nil && g.Cycle != nil {
		if active := float64(g.Cycle(effect.Of{Params: m.Full(), Kind: m.Kind, Parts: parts})) * max(m.Repeat, 1); active > 100*MaxTime {
			c.fail(at+".repeat", "makes the move last %.0f hours; it must be %d at most", active/3600000, 100*MaxTime/3600000)
		}
	}
}

func (c *checker) units(at string, m *Move) {
	c.oneOf(at+".unit", m.Unit, "", ByLine, ByWord, ByLetter, ByPart)
	c.oneOf(at+".order", m.Order, "", Backwards, FromMiddle, Shuffled, Outwards, ByColumn, ByRow, FromPoint)
	if m.From != nil {
		c.number(at+".from", m.From[0], -100, 100)
		c.number(at+".from", m.From[1], -100, 100)
	}
	c.number(at+".overlap", m.Overlap, 0, 1)
	if m.Unit != "" && !m.ByUnits() && (m.Kind == MotionPath || m.Kind == Change || m.Does() != nil) {
		c.fail(at+".unit", "is for entrances, exits, changes and loops that swing")
	}
}

// params checks the line of a motion path; the parameters of effects are checked with these.
func (c *checker) params(at string, m *Move) {
	if m.Kind != MotionPath {
		return
	}
	if m.Path == nil {
		c.fail(at+".path", "is missing")
		return
	}
	c.oneOf(at+".path.axis", m.Path.Axis, "", Level, Upright)
	if err := checkPath(m.Path.D); err != nil {
		c.fail(at+".path.d", "cannot be read: %v", err)
	}
	c.oneOf(at+".path.rest", m.Path.Rest, "", Departs, Arrives, Passes)
	if len(m.Path.Along) > 100 {
		c.fail(at+".path.along", "must name a layer by its thread")
	}
	c.number(at+".path.share", m.Path.Share, 0, 1)
}

// MaxParams is how many parameters a move has at most, those of no effect that is known counted.
const MaxParams = 64

// effect checks the effect of a move or transition and its parameters. One that this version does not know is kept as it is.
func (c *checker) effect(at, field, name, kind string, p effect.Params) {
	if !c.idLike(at+"."+field, name) {
		return
	}
	if len(p) > MaxParams {
		c.fail(at+".params", "are %d; there can be %d", len(p), MaxParams)
		return
	}
	e := effect.As(kind, name)
	if e == nil {
		if effect.Named(name) != nil {
			c.fail(at+"."+field, "is %q, which is no %s", name, kind)
		}
		return
	}
	for i := range e.Params {
		q := &e.Params[i]
		if v, ok := p[q.Name]; ok && v != nil {
			if s := q.Check(v); s != "" {
				c.fail(at+".params."+q.Name, "%s", s)
			}
		}
	}
	if e.Check != nil {
		if s := e.Check(e.Complete(p)); s != "" {
			c.fail(at+".params", "%s", s)
		}
	}
}
