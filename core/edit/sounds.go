package edit

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/motion"
	"capstan/core/words"
)

// AddSounds adds sounds to the film's clock, or to that of a scene.
type AddSounds struct {
	Scene  string       `json:"scene"` // empty: the film's clock
	Sounds []*doc.Sound `json:"sounds"`
}

// Op is its name on the wire.
func (c *AddSounds) Op() string { return "sound.add" }

func (c *AddSounds) apply(e *editor) error {
	if slices.Contains(c.Sounds, nil) {
		return words.New("sound.none-given")
	}
	list, err := e.clock(c.Scene)
	if err != nil {
		return err
	}
	*list = append(slices.Clip(*list), doc.CloneSounds(c.Sounds)...)
	return nil
}

// clock are the sounds of a scene's clock, or of the film's, to be changed.
func (e *editor) clock(scene string) (*[]*doc.Sound, error) {
	if scene == "" {
		return &e.p.Film.Sounds, nil
	}
	s, err := e.scene(scene)
	if err != nil {
		return nil, err
	}
	return &s.Sounds, nil
}

// SetSound changes fields of a sound, and the clock it is on.
type SetSound struct {
	ID    string  `json:"id"`
	Scene *string `json:"scene,omitzero"` // on whose clock it is from now on, empty for the film's; nil: it stays where it is
	Patch Fields  `json:"patch"`
}

// Op is its name on the wire.
func (c *SetSound) Op() string { return "sound.set" }

func (c *SetSound) apply(e *editor) error {
	list, i, err := e.sound(c.ID)
	if err != nil {
		return err
	}
	old := (*list)[i].Clone()
	n, err := merged(old, c.Patch, "id")
	if err != nil {
		return err
	}
	*list = slices.Clone(*list)
	(*list)[i] = n
	if c.Scene == nil {
		return nil
	}
	to, err := e.clock(*c.Scene)
	if err != nil || to == list {
		return err
	}
	if *list = slices.Delete(*list, i, i+1); len(*list) == 0 {
		*list = nil // as it is read again
	}
	*to = append(slices.Clip(*to), n)
	return nil
}

// sound finds a sound, in the list that it is in, to be changed.
func (e *editor) sound(id string) (*[]*doc.Sound, int, error) {
	if err := e.another(); err != nil {
		return nil, 0, err
	}
	s, sc := e.p.Film.Sound(id)
	if s == nil {
		return nil, 0, words.New("sound.gone")
	}
	scene := ""
	if sc != nil {
		scene = sc.ID
	}
	list, err := e.clock(scene)
	if err != nil {
		return nil, 0, err
	}
	return list, slices.IndexFunc(*list, func(o *doc.Sound) bool { return o != nil && o.ID == id }), nil
}

// DeleteSounds takes sounds out of the film. Their recordings stay.
type DeleteSounds struct {
	IDs []string `json:"ids"`
}

// Op is its name on the wire.
func (c *DeleteSounds) Op() string { return "sound.delete" }

func (c *DeleteSounds) apply(e *editor) error {
	for _, id := range c.IDs {
		list, i, err := e.sound(id)
		if err != nil {
			return err
		}
		if *list = slices.Delete(slices.Clone(*list), i, i+1); len(*list) == 0 {
			*list = nil
		}
	}
	return nil
}

// tidySounds lets sounds of a scene whose move or cue is gone begin and end when they did before.
func tidySounds(s, before *doc.Scene, into int64) {
	var was *motion.Timing
	for i, q := range s.Sounds {
		if q == nil {
			continue // validation says so
		}
		there := func(of string) bool {
			m, _ := s.Move(of)
			return of == "" || m != nil || slices.ContainsFunc(s.Cues, func(c doc.Cue) bool { return c.ID == of })
		}
		end := q.End == nil || there(q.End.Of)
		if there(q.Start.Of) && end {
			continue
		}
		if was == nil && before != nil {
			was, _ = motion.Resolve(before, into)
		}
		n := q.Clone()
		at, known := motion.Interval{Begin: max(0, q.Start.Offset), End: max(0, q.Start.Offset) + q.Length}, false
		if was != nil {
			var t motion.Interval
			if t, known = was.Sounds[q.ID]; known {
				at = t
			}
		}
		if !there(q.Start.Of) {
			n.Start, n.Along = doc.Start{When: doc.AtTime, Offset: at.Begin}, false
		}
		if !end {
			if n.End = nil; known {
				n.Length = max(doc.MinDuration, at.End-at.Begin)
			}
		}
		s.Sounds = slices.Clone(s.Sounds)
		s.Sounds[i] = n
	}
}

// tidyHung lets moves whose sound or mark is gone begin when they did before.
func tidyHung(s, before *doc.Scene, into int64) {
	var was *motion.Timing
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		if l == nil {
			return false // validation says so
		}
		for _, m := range l.Moves {
			if m == nil || !m.Start.OnSound() || s.Holds(m.Start) {
				continue
			}
			if was == nil && before != nil {
				was, _ = motion.Resolve(before, into)
			}
			m.Start = doc.Start{When: doc.AtTime, Offset: max(0, m.Start.Offset)}
			if was != nil {
				if iv, ok := was.Moves[m.ID]; ok {
					m.Start.Offset = iv.Begin
				}
			}
		}
		return true
	})
}

// cutSounds leaves a scene that was cut at a time of its clock the sounds that begin before that, and hands the others on.
func cutSounds(s, later *doc.Scene, t *motion.Timing, at int64) {
	all := s.Sounds
	anew := later.Sounds // as copies hang on the moves of the later scene
	s.Sounds, later.Sounds = nil, nil
	for i, q := range all {
		if q == nil {
			continue
		}
		began := t.Sounds[q.ID].Begin
		if began < at {
			s.Sounds = append(s.Sounds, q)
			continue
		}
		n := anew[i]
		if m, _ := later.Move(n.Start.Of); m == nil || n.Start.When == doc.AtTime {
			n.Start = doc.Start{When: doc.AtTime, Offset: began - at}
		}
		later.Sounds = append(later.Sounds, n)
	}
}

// foldSounds gives a scene that others were folded into their sounds. origins are when their clocks began on its own.
func (e *editor) foldSounds(into *doc.Scene, scenes []*doc.Scene, origins []int64) error {
	for k, s := range scenes {
		if k == 0 || len(s.Sounds) == 0 {
			continue
		}
		t, err := motion.Resolve(s, e.into(s))
		if err != nil {
			return err
		}
		for _, q := range s.Sounds {
			if q == nil {
				continue
			}
			n := q.Clone()
			at := t.Sounds[q.ID]
			n.Start, n.End, n.Length, n.Along = doc.Start{When: doc.AtTime, Offset: at.Begin + origins[k]}, nil, max(doc.MinDuration, at.End-at.Begin), false
			into.Sounds = append(into.Sounds, n)
		}
	}
	return nil
}
