package session

import (
	"fmt"
	"slices"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/motion"
	"capstan/core/words"
)

func init() {
	intent("scene.add", func(s *Session, m Moment, c *struct {
		Before bool `json:"before"` // in front of the moment's scene, instead of behind it
	}) (edit.Command, error) {
		at := s.sceneIndex(m) + 1
		if c.Before {
			at--
		}
		return command("scene.add", map[string]any{"id": s.id(), "index": at, "name": edit.SceneName(s.doc)}), nil
	})
	for _, op := range []string{"scene.continue", "scene.duplicate"} {
		intent(op, func(s *Session, m Moment, c *struct{}) (edit.Command, error) {
			return command(op, map[string]any{"from": s.scene(m).ID, "id": s.id(), "seed": s.id(), "name": edit.SceneName(s.doc)}), nil
		})
	}
	// The stay of scenes as it is shown, waits at cues included.
	intent("scene.stay", func(s *Session, _ Moment, c *struct {
		IDs  []string `json:"ids"`
		Stay int64    `json:"stay"` // ms
	}) (edit.Command, error) {
		var list []edit.Command
		for _, id := range c.IDs {
			_, sc := s.doc.Scene(id)
			if sc == nil {
				return nil, words.New("scene.gone")
			}
			own := c.Stay
			for _, q := range sc.Cues {
				own -= q.Wait
			}
			patch := map[string]any{"stay": max(own, 0), "autoStay": nil, "endsAtCue": nil}
			list = append(list, command("scene.set", map[string]any{"ids": []string{id}, "patch": patch}))
		}
		return batch(list), nil
	})
	intent("scene.transition", func(s *Session, _ Moment, c *struct {
		IDs   []string       `json:"ids"`
		Patch jsontext.Value `json:"patch"`
	}) (edit.Command, error) {
		var list []edit.Command
		for _, id := range c.IDs {
			i, sc := s.doc.Scene(id)
			if i < 0 {
				return nil, words.New("scene.gone")
			}
			if i == 0 {
				if len(c.IDs) == 1 {
					return nil, words.New("scene.first")
				}
				continue
			}
			t, err := transitionPatch(sc.Transition, c.Patch)
			if err != nil {
				return nil, err
			}
			list = append(list, command("scene.set", map[string]any{"ids": []string{id}, "patch": map[string]any{"transition": t}}))
		}
		if len(list) == 0 {
			return nil, nil
		}
		return batch(list), nil
	})
	intent("film.closing", func(s *Session, _ Moment, c *struct {
		Patch jsontext.Value `json:"patch"`
	}) (edit.Command, error) {
		was := doc.Transition{Kind: doc.Cut}
		if s.doc.Film.Closing != nil {
			was = *s.doc.Film.Closing
		}
		t, err := transitionPatch(was, c.Patch)
		if err != nil {
			return nil, err
		}
		patch := map[string]any{"loop": true, "closing": t}
		if t["kind"] == doc.Cut {
			patch["closing"] = nil
		}
		return command("film.set", map[string]any{"patch": patch}), nil
	})
	intent("cue.add", func(s *Session, m Moment, c *struct {
		At *int64 `json:"at"` // ms on the scene's clock; absent: at the playhead
	}) (edit.Command, error) {
		sc := s.scene(m)
		at := s.begin(m)
		if c.At != nil {
			at = *c.At
		}
		// Cues are stored without the waits before them.
		for _, q := range sc.Cues {
			if motion.CueTime(sc, q.ID) <= at {
				at -= q.Wait
			}
		}
		return command("cue.add", map[string]any{"scene": sc.ID, "id": s.id(), "name": cueName(sc), "at": max(at, 0)}), nil
	})
}

func cueName(sc *doc.Scene) string {
	for n := len(sc.Cues) + 1; ; n++ {
		name := fmt.Sprintf("Cue %d", n)
		if !slices.ContainsFunc(sc.Cues, func(q doc.Cue) bool { return q.Name == name }) {
			return name
		}
	}
}

// transitionPatch completes a change to a transition: a cut takes no time, everything else some; the last used when there is none.
func transitionPatch(was doc.Transition, patch jsontext.Value) (map[string]any, error) {
	var p map[string]any
	if err := json.Unmarshal(patch, &p); err != nil {
		return nil, err
	}
	kind, _ := p["kind"].(string)
	if kind == "" {
		kind = was.Kind
		p["kind"] = kind
	}
	ms, timed := p["duration"].(float64)
	switch {
	case kind == doc.Cut:
		p["duration"], p["goesOn"] = 0, nil
	case timed && ms <= 0:
		return map[string]any{"kind": doc.Cut, "duration": 0, "goesOn": nil}, nil
	case !timed && was.Duration == 0:
		p["duration"] = 700
	}
	if kind != doc.Morph {
		p["goesOn"] = nil
	}
	return p, nil
}

// OwnScenes returns which of the scenes have been set by themselves: their stay ("stay") or their transition differs from what
// most of them have.
func (s *Session) OwnScenes(ids []string, what string) []string {
	value := func(i int, sc *doc.Scene) string {
		if what == "stay" {
			return fmt.Sprint(sc.AutoStay, s.film.Order.Stays[i])
		}
		t := sc.Transition
		t.Threads = nil
		return fmt.Sprint(t)
	}
	count := map[string]int{}
	most := ""
	each := func(f func(id, v string)) {
		for _, id := range ids {
			if i, sc := s.doc.Scene(id); sc != nil && (what == "stay" || i > 0) {
				f(id, value(i, sc))
			}
		}
	}
	each(func(_, v string) {
		if count[v]++; count[v] > count[most] {
			most = v
		}
	})
	out := []string{}
	each(func(id, v string) {
		if v != most {
			out = append(out, id)
		}
	})
	return out
}
