package doc

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

// effects lists the effects each kind of move may have.
var effects = map[string][]string{
	Entrance: {AtOnce, Fade, Wipe, Slide}, Exit: {AtOnce, Fade, Wipe, Slide}, Loop: {Spin, Rock, Scroll}, MotionPath: {Along},
}

func (c *checker) move(at string, m *Move, moves map[string]*Move, cues map[string]bool) {
	c.id(at+".id", m.ID)
	c.oneOf(at+".kind", m.Kind, Entrance, Exit, Loop, MotionPath)
	c.oneOf(at+".effect", m.Effect, effects[m.Kind]...)
	c.oneOf(at+".start.when", m.Start.When, AtTime, WhenBegins, WhenEnds, BeforeSceneEnd, AtCue)
	c.time(at+".start.offset", m.Start.Offset, -MaxTime)
	c.hangs(at, m, moves, cues)
	c.lasting(at, m)
	c.easing(at+".easing", m.Easing)
	c.number(at+".repeat", m.Repeat, 0, 100000)
	c.units(at, m)
	c.params(at, m)
}

// hangs checks that what a move hangs on is in its scene.
func (c *checker) hangs(at string, m *Move, moves map[string]*Move, cues map[string]bool) {
	switch m.Start.When {
	case WhenBegins, WhenEnds:
		if moves[m.Start.Of] == nil {
			c.fail(at+".start.of", "names no move of this scene")
		}
	case AtCue:
		if !cues[m.Start.Of] {
			c.fail(at+".start.of", "names no cue of this scene")
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
	if m.Lasts == WholeThread && m.Kind != MotionPath {
		c.fail(at+".lasts", "as long as the thread: only paths do")
	}
	c.oneOf(at+".keeps", m.Keeps, "", "speed")
	switch {
	case m.Effect == AtOnce && m.Unit == "":
		if m.Duration != 0 {
			c.fail(at+".duration", "must be 0: at once takes no time")
		}
	case m.Effect == Scroll && m.Lasts == WholeScene, m.Lasts != "" && m.Kind != Loop && m.Keeps == "":
		c.time(at+".duration", m.Duration, 0)
	default:
		c.time(at+".duration", m.Duration, MinDuration)
	}
	if active := float64(m.Duration) * m.Repeat; active > 100*MaxTime {
		c.fail(at+".repeat", "makes the move last %.0f hours; it must be %d at most", active/3600000, 100*MaxTime/3600000)
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
	if m.Unit != "" && m.Kind != Entrance && m.Kind != Exit && m.Effect != Rock {
		c.fail(at+".unit", "is for entrances, exits and sine loops")
	}
}

// params checks the parameters of the effect; those of other effects may stay from before and are not looked at.
func (c *checker) params(at string, m *Move) {
	switch m.Effect {
	case Wipe:
		if m.Wipe != nil {
			c.number(at+".wipe.direction", m.Wipe.Direction, -360, 360)
			c.number(at+".wipe.softness", m.Wipe.Softness, 0, MaxPlace)
		}
	case Slide:
		if m.Slide != nil {
			c.number(at+".slide.direction", m.Slide.Direction, -360, 360)
			c.number(at+".slide.distance", m.Slide.Distance, 0, MaxPlace)
		}
	case Rock:
		if m.Rock == nil {
			c.fail(at+".rock", "is missing")
			return
		}
		c.number(at+".rock.angle", m.Rock.Angle, -360, 360)
		c.number(at+".rock.phase", m.Rock.Phase, 0, 1)
	case Scroll:
		if m.Scroll == nil {
			c.fail(at+".scroll", "is missing")
			return
		}
		if d := m.Scroll.Direction; d != 0 && d != 90 && d != 180 && d != 270 {
			c.fail(at+".scroll.direction", "is %v; a scroll goes 0, 90, 180 or 270 degrees", d)
		}
		c.number(at+".scroll.speed", m.Scroll.Speed, 1, 100000)
		c.number(at+".scroll.gap", m.Scroll.Gap, -MaxPlace, MaxPlace)
	case Along:
		if m.Path == nil {
			c.fail(at+".path", "is missing")
			return
		}
		if err := checkPath(m.Path.D); err != nil {
			c.fail(at+".path.d", "cannot be read: %v", err)
		}
		c.oneOf(at+".path.rest", m.Path.Rest, "", Departs, Arrives, Passes)
		c.number(at+".path.share", m.Path.Share, 0, 1)
	}
}
