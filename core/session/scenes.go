package session

import (
	"fmt"
	"maps"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/motion"
	"capstan/core/words"
)

var scenesAsked = table{
	"scene.add": of(func(s *Session, m Moment, c *struct {
		Before bool `json:"before"` // in front of the moment's scene, instead of behind it
	}) (edit.Command, error) {
		at := s.sceneIndex(m) + 1
		if c.Before {
			at--
		}
		return &edit.AddScene{ID: s.id(), Index: at, Name: edit.SceneName(s.doc)}, nil
	}),
	"scene.continue": of(func(s *Session, m Moment, c *struct{}) (edit.Command, error) {
		return &edit.ContinueScene{From: s.scene(m).ID, ID: s.id(), Seed: s.id(), Name: edit.SceneName(s.doc)}, nil
	}),
	// A copy of the scene with all its moves, but without its cues: what hung on them keeps its times.
	"scene.duplicate": of(func(s *Session, m Moment, c *struct {
		New bool `json:"new"` // its layers go on from none of the scenes before
	}) (edit.Command, error) {
		from, id, seed := s.scene(m), s.id(), s.id()
		list := []edit.Command{&edit.DuplicateScene{From: from.ID, ID: id, Seed: seed, Name: s.sceneNameAfter(from.Name)}}
		for _, q := range from.Cues {
			list = append(list, &edit.DeleteCue{Scene: id, ID: edit.CopyID(seed, q.ID)})
		}
		if c.New {
			var all []string
			for _, l := range from.Layers {
				all = append(all, edit.CopyID(seed, l.ID))
			}
			list = append(list, &edit.CutThreads{Scene: id, IDs: all, Seed: s.id(), Alone: true})
		}
		return edit.All(list...), nil
	}),
	// Layers no longer go on from the scene before.
	"thread.cut": of(func(s *Session, m Moment, c *threads) (edit.Command, error) {
		i, sc := s.sceneIndex(m), s.scene(m)
		list := outermost(sc, s.layers(m, c.Threads))
		before := false
		for _, l := range list {
			before = before || i > 0 && !sc.Aside && s.shown.Thread(i-1, l.Thread) != nil
		}
		if !before {
			return nil, words.New("thread.first")
		}
		return &edit.CutThreads{Scene: sc.ID, IDs: ids(list), Seed: s.id()}, nil
	}),
	// The stay of scenes as it is shown, waits at cues included.
	"scene.stay": of(func(s *Session, _ Moment, c *struct {
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
			patch := edit.Fields{"stay": max(own, 0), "autoStay": nil, "endsAtCue": nil}
			list = append(list, &edit.SetScenes{IDs: []string{id}, Patch: patch})
		}
		return edit.All(list...), nil
	}),
	"scene.transition": of(func(s *Session, _ Moment, c *struct {
		IDs   []string    `json:"ids"`
		Patch edit.Fields `json:"patch"`
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
			list = append(list, &edit.SetScenes{IDs: []string{id}, Patch: edit.Fields{"transition": transitionPatch(sc.Transition, c.Patch)}})
		}
		if len(list) == 0 {
			return nil, nil
		}
		return edit.All(list...), nil
	}),
	"film.closing": of(func(s *Session, _ Moment, c *struct {
		Patch edit.Fields `json:"patch"`
	}) (edit.Command, error) {
		was := doc.Transition{Kind: doc.Cut}
		if s.doc.Film.Closing != nil {
			was = *s.doc.Film.Closing
		}
		t := transitionPatch(was, c.Patch)
		patch := edit.Fields{"loop": true, "closing": t}
		if kind := ""; t.Get("kind", &kind) && kind == doc.Cut {
			patch["closing"] = nil
		}
		return &edit.SetFilm{Patch: patch}, nil
	}),
	"cue.add": of(func(s *Session, m Moment, c *struct {
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
		at = max(at, 0)
		return &edit.AddCue{Scene: sc.ID, ID: s.id(), Name: cueName(sc), At: &at}, nil
	}),
}

// sceneNameAfter is the name of a copy of a scene: its own with the first number that is free.
func (s *Session) sceneNameAfter(name string) string {
	base, n := numbered(name)
	for n = max(n, 1) + 1; ; n++ {
		next := fmt.Sprintf("%s %d", base, n)
		if !slices.ContainsFunc(s.doc.Film.Scenes, func(sc *doc.Scene) bool { return sc.Name == next }) {
			return next
		}
	}
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
func transitionPatch(was doc.Transition, patch edit.Fields) edit.Fields {
	p := edit.Fields{"kind": was.Kind}
	maps.Copy(p, patch)
	kind := was.Kind
	p.Get("kind", &kind)
	var ms int64
	timed := p.Get("duration", &ms)
	switch {
	case kind == doc.Cut:
		p["duration"], p["goesOn"] = 0, nil
	case timed && ms <= 0:
		return edit.Fields{"kind": doc.Cut, "duration": 0, "goesOn": nil}
	case !timed && was.Duration == 0:
		p["duration"] = 700
	}
	if kind != doc.Morph {
		p["goesOn"] = nil
	}
	return p
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
