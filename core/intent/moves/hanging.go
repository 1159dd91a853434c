package moves

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/motion"
	"capstan/core/scope"
	"capstan/core/words"
)

var hangingAsked = intent.Table{
	"move.start": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Move string `json:"move"`
		When string `json:"when"`
		Of   string `json:"of"`
	}) (edit.Command, error) {
		return hang(s, c.Move, c.When, c.Of)
	}),
	"move.end": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Move      string `json:"move"`
		When      string `json:"when"` // "", begins, ends, scene-end
		Of        string `json:"of"`
		Stretches bool   `json:"stretches"`
	}) (edit.Command, error) {
		return endWith(s, c.Move, c.When, c.Of, c.Stretches)
	}),
	// A hitch between an end of one bar and an end of another: the second hangs on the first.
	"hitch": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		From     string `json:"from"`
		FromPart string `json:"fromPart"` // begin or end
		To       string `json:"to"`
		ToPart   string `json:"toPart"`
	}) (edit.Command, error) {
		when := doc.WhenBegins
		if c.FromPart == "end" {
			when = doc.WhenEnds
		}
		if c.From == c.To {
			return nil, words.New("hitch.itself")
		}
		if c.ToPart == "end" {
			return endWith(s, c.To, when, c.From, false)
		}
		return hang(s, c.To, when, c.From)
	}),
}

// hang hangs a move's start on something else: on a moment of another move or a cue there, else at the time it starts now.
func hang(s *intent.Desk, id, when, of string) (edit.Command, error) {
	m, _, i := s.Move(id)
	if m == nil {
		return nil, words.New("move.gone")
	}
	t := s.Film.Timing(i)
	now := t.Moves[id].Begin
	start := doc.Start{When: when, Of: of}
	switch when {
	case doc.AtTime:
		start.Of, start.Offset = "", now
	case doc.BeforeSceneEnd:
		start.Of, start.Offset = "", max(0, t.Stay-now)
	case doc.WhenBegins, doc.WhenEnds:
		if _, _, other := s.Move(of); other >= 0 && other != i {
			return nil, words.New("hitch.across")
		}
		if err := tiedTo(s, of); err != nil {
			return nil, err
		}
	case doc.AtCue:
	case doc.WhenHeard, doc.WhenSilent:
		if !s.Doc.Film.Scenes[i].Holds(start) {
			return nil, words.New("sound.gone")
		}
	default:
		return nil, words.New("hitch.start")
	}
	patch := edit.Fields{"start": start}
	if m.End != nil && !m.End.Stretches {
		patch["end"] = edit.Fields{"stretches": true} // its begin was solved from its end, which stays live: its length follows now
	}
	return edit.SetMove(id, patch), nil
}

// endWith gives a move a live end, or lets go of it, keeping the time it has.
func endWith(s *intent.Desk, id, when, of string, stretches bool) (edit.Command, error) {
	m, _, i := s.Move(id)
	if m == nil {
		return nil, words.New("move.gone")
	}
	iv := s.Film.Timing(i).Moves[id]
	if when == "" {
		if m.End == nil {
			return nil, nil
		}
		patch := edit.Fields{"end": nil}
		if m.End.Stretches {
			patch["duration"] = iv.Pass
		} else {
			patch["start"] = doc.Start{When: doc.AtTime, Offset: iv.Begin}
		}
		return edit.SetMove(id, patch), nil
	}
	if m.Timeless() {
		return nil, words.New("hitch.endless")
	}
	if when != doc.BeforeSceneEnd {
		if _, _, other := s.Move(of); other >= 0 && other != i {
			return nil, words.New("hitch.across")
		}
		if err := tiedTo(s, of); err != nil {
			return nil, err
		}
	}
	end := doc.Anchor{When: when, Stretches: stretches}
	if when != doc.BeforeSceneEnd {
		end.Of = of
	}
	patch := edit.Fields{"end": end, "lasts": nil, "until": nil}
	if m.Lasts != "" || m.Until != "" {
		patch["duration"] = max(iv.Pass, doc.MinDuration)
	}
	return edit.SetMove(id, patch), nil
}

// followers returns the moves of a scene that hang on any of ids, directly or through others, ids included.
func followers(sc *doc.Scene, ids []string) map[string]bool {
	out := map[string]bool{}
	for _, id := range ids {
		out[id] = true
	}
	for again := true; again; {
		again = false
		for _, q := range sc.Sounds {
			if !out[q.ID] && (out[q.Start.Of] || q.End != nil && out[q.End.Of]) {
				out[q.ID], again = true, true
				for _, m := range q.Marks {
					out[m.ID] = true
				}
			}
		}
		doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
			for _, m := range l.Moves {
				if !out[m.ID] && (out[m.Start.Of] || m.End != nil && out[m.End.Of] || out[m.Until]) {
					out[m.ID], again = true, true
				}
			}
			return true
		})
	}
	return out
}

// Snap is where dragged bars come to lie, and on what, in words.
type Snap struct {
	By    int64  `json:"by"`    // ms, instead of the asked ones
	At    int64  `json:"at"`    // ms of the film, where it snapped; -1: nowhere
	Words string `json:"words"` // "begins when Path of Kite ends"
	Part  string `json:"part"`  // which end of the bar snapped: begin or end
	When  string `json:"when"`  // what it may hang on: begins, ends, cue, scene-end; empty: nothing
	Of    string `json:"of"`
}

// SnapBar returns how far bars, or one end of each, are dragged when the one that is held, the first, snaps to what lies within a
// tolerance of ms: begins and ends of moves of its scene that do not move along, cues, the scene's own begin and end, and the
// playhead. Nearest wins; moves go before cues, the scene and the playhead.
func SnapBar(s *intent.Desk, m scope.Moment, ids []string, part string, by, tolerance int64) Snap {
	out := Snap{By: by, At: -1}
	if len(ids) == 0 {
		return out
	}
	mv, _, i := s.Move(ids[0])
	if mv == nil {
		return out
	}
	sc, t := s.Doc.Film.Scenes[i], s.Film.Timing(i)
	iv := t.Moves[mv.ID]
	start := s.Film.Order.Begin(i)
	along, beats := followers(sc, ids), s.Film.Beats()
	best := tolerance + 1
	try := func(own int64, edge, verb string, at int64, what, when, of string) {
		d := at - own - by
		if a := max(d, -d); a < best {
			best = a
			out = Snap{by + d, start + at, verb + " " + what, edge, when, of}
		}
	}
	each := func(own int64, edge, verb string) {
		doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
			for _, o := range l.Moves {
				if along[o.ID] || o.TiedIn(sc) {
					continue
				}
				name := fmt.Sprintf("%s of %s", motion.Name(o), l.Name)
				try(own, edge, verb, t.Moves[o.ID].Begin, "when "+name+" begins", doc.WhenBegins, o.ID)
				if o.Lasts == "" {
					try(own, edge, verb, t.Moves[o.ID].End, "when "+name+" ends", doc.WhenEnds, o.ID)
				}
			}
			return true
		})
		for _, q := range sc.Cues {
			when := doc.AtCue
			if edge == "end" {
				when = ""
			}
			try(own, edge, verb, motion.CueTime(sc, q.ID), "at cue "+q.Name, when, q.ID)
		}
		for _, q := range sc.Sounds {
			if along[q.ID] {
				continue
			}
			heard, silent := doc.WhenHeard, doc.WhenSilent
			if edge == "end" {
				heard, silent = "", ""
			}
			try(own, edge, verb, t.Sounds[q.ID].Begin, "when "+q.Name+" is heard", heard, q.ID)
			try(own, edge, verb, t.Sounds[q.ID].End, "when "+q.Name+" falls silent", silent, q.ID)
			for _, m := range q.MarksHeard(t.Sounds[q.ID].Begin, t.Sounds[q.ID].End) {
				try(own, edge, verb, m.At, fmt.Sprintf("at “%s” of %s", m.Name, q.Name), heard, m.ID)
			}
		}
		for _, at := range beats {
			try(own, edge, verb, at-start, "on a beat", "", "")
		}
		try(own, edge, verb, 0, "with the scene", "", "")
		end := doc.BeforeSceneEnd
		if edge == "begin" {
			end = ""
		}
		try(own, edge, verb, t.Stay, "at the scene’s end", end, "")
		if !m.Rest {
			if w := s.Film.Order.At(scope.Instant(m.Time)); w.Scene == i {
				try(own, edge, verb, int64(w.Clock.Ms()+0.5), "at the playhead", "", "")
			}
		}
	}
	if part != "end" {
		each(iv.Begin, "begin", "begins")
	}
	if part != "begin" && iv.End > iv.Begin {
		each(iv.End, "end", "ends")
	}
	return out
}
