package edit

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/series"
	"capstan/core/words"
)

// KeepShift notes that a thread goes on by a step from scene to scene, so that what comes between them later takes its place. It takes the place of
// notes on the same thread in any of these scenes; of fewer than two it takes them away.
type KeepShift struct {
	ID     string   `json:"id"`
	Thread string   `json:"thread"`
	Scenes []string `json:"scenes"`
	Step   doc.Step `json:"step"`
}

// Op is its name on the wire.
func (c *KeepShift) Op() string { return "shift.keep" }

func (c *KeepShift) apply(e *editor) error {
	for _, id := range c.Scenes {
		if _, s := e.p.Scene(id); s == nil {
			return words.New("scene.gone")
		}
	}
	list := slices.DeleteFunc(slices.Clone(e.p.Film.Shifts), func(s doc.Shift) bool {
		return s.ID == c.ID || s.Thread == c.Thread && slices.ContainsFunc(s.Scenes, func(id string) bool { return slices.Contains(c.Scenes, id) })
	})
	if len(c.Scenes) > 1 {
		list = append(list, doc.Shift{ID: c.ID, Thread: c.Thread, Scenes: slices.Clone(c.Scenes), Step: c.Step})
	}
	if len(list) == 0 {
		list = nil
	}
	e.p.Film.Shifts = list
	return nil
}

// Hued is a plain colour some steps further; see series.Hued.
func Hued(f doc.Fill, by doc.Step, steps float64, sc *doc.Scene) doc.Fill {
	return series.Hued(f, by, steps, sc)
}

// between lets a scene that was put behind another take its place in the shifts that go on beyond that: it, and those after it, a step further.
func (e *editor) between(from, id string) error {
	for k := range e.p.Film.Shifts {
		s := e.p.Film.Shifts[k]
		i := slices.Index(s.Scenes, from)
		if i < 0 || i == len(s.Scenes)-1 {
			continue
		}
		s.Scenes = slices.Insert(slices.Clone(s.Scenes), i+1, id)
		list := slices.Clone(e.p.Film.Shifts)
		list[k] = s
		e.p.Film.Shifts = list
		for _, later := range s.Scenes[i+1:] {
			if err := e.another(); err != nil {
				return err
			}
			sc, err := e.scene(later)
			if err != nil {
				return err
			}
			if l := sc.Thread(s.Thread); l != nil {
				series.Step(l, s.Step, 1, sc)
				if by := s.Step.Size; by > 0 && by != 1 {
					if err := grown(l, by); err != nil {
						return err
					}
				}
			}
		}
	}
	return nil
}

// tidyShifts leaves of each shift the scenes that are in the film, as they follow one another now; of fewer than two nothing is left.
func (e *editor) tidyShifts() {
	if len(e.p.Film.Shifts) == 0 {
		return
	}
	place := map[string]int{}
	for i, s := range e.p.Film.Shown() {
		place[s.ID] = i
	}
	var list []doc.Shift
	changed := false
	for _, s := range e.p.Film.Shifts {
		was := s.Scenes
		s.Scenes = slices.DeleteFunc(slices.Clone(was), func(id string) bool {
			_, there := place[id]
			return !there
		})
		slices.SortStableFunc(s.Scenes, func(a, b string) int { return place[a] - place[b] })
		changed = changed || !slices.Equal(was, s.Scenes)
		if len(s.Scenes) > 1 {
			list = append(list, s)
		}
	}
	if changed || len(list) != len(e.p.Film.Shifts) {
		e.p.Film.Shifts = list
	}
}
