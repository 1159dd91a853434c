package scenes

import (
	"fmt"
	"maps"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/effect"
	"capstan/core/intent"
	"capstan/core/motion"
	"capstan/core/scope"
	"capstan/core/words"
)

var scenesAsked = intent.Table{
	"scene.add": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Before bool `json:"before"` // in front of the moment's scene, instead of behind it
	}) (edit.Command, error) {
		at := s.SceneIndex(m) + 1
		if c.Before {
			at--
		}
		return &edit.AddScene{ID: s.NewID(), Index: at, Name: edit.SceneName(s.Doc)}, nil
	}),
	"scene.continue": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct{}) (edit.Command, error) {
		return &edit.ContinueScene{From: s.Scene(m).ID, ID: s.NewID(), Seed: s.NewID(), Name: edit.SceneName(s.Doc)}, nil
	}),
	// A copy of the scene with all its moves, but without its cues: what hung on them keeps its times.
	"scene.duplicate": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		New bool `json:"new"` // its layers go on from none of the scenes before
	}) (edit.Command, error) {
		from, id, seed := s.Scene(m), s.NewID(), s.NewID()
		list := []edit.Command{&edit.DuplicateScene{From: from.ID, ID: id, Seed: seed, Name: namesAfter(s, from.Name, 1)[0]}}
		for _, q := range from.Cues {
			list = append(list, &edit.DeleteCue{Scene: id, ID: edit.CopyID(seed, q.ID)})
		}
		if c.New {
			var all []string
			for _, l := range from.Layers {
				all = append(all, edit.CopyID(seed, l.ID))
			}
			list = append(list, &edit.CutThreads{Scene: id, IDs: all, Seed: s.NewID(), Alone: true})
		}
		return edit.All(list...), nil
	}),
	// Layers no longer go on from the scene before.
	"thread.cut": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		i, sc := s.SceneIndex(m), s.Scene(m)
		list := scope.Outermost(sc, s.Layers(m, c.Threads))
		before := false
		for _, l := range list {
			before = before || i > 0 && !sc.Aside && s.Shown.Thread(i-1, l.Thread) != nil
		}
		if !before {
			return nil, words.New("thread.first")
		}
		return &edit.CutThreads{Scene: sc.ID, IDs: scope.IDs(list), Seed: s.NewID()}, nil
	}),
	// Layers of a scene go on from layers of the scene before.
	"thread.join": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Scene string      `json:"scene"`
		Pairs []edit.Join `json:"pairs"`
	}) (edit.Command, error) {
		return &edit.JoinThreads{Scene: c.Scene, Pairs: c.Pairs}, nil
	}),
	// The stay of scenes as it is shown, waits at cues included.
	"scene.stay": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		IDs  []string `json:"ids"`
		Stay int64    `json:"stay"` // ms
	}) (edit.Command, error) {
		var list []edit.Command
		for _, id := range c.IDs {
			_, sc := s.Doc.Scene(id)
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
	// Scenes end on bars of the music, each on that which is nearest to its end: their stays change by as little as it takes.
	"scene.bars": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		IDs   []string `json:"ids"`
		Beats int      `json:"beats"` // of a bar
	}) (edit.Command, error) {
		return onBars(s, c.IDs, c.Beats)
	}),
	"scene.transition": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		IDs   []string    `json:"ids"`
		Patch edit.Fields `json:"patch"`
	}) (edit.Command, error) {
		var list []edit.Command
		for _, id := range c.IDs {
			i, sc := s.Doc.Scene(id)
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
	"film.closing": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Patch edit.Fields `json:"patch"`
	}) (edit.Command, error) {
		was := doc.Transition{Kind: doc.Cut}
		if s.Doc.Film.Closing != nil {
			was = *s.Doc.Film.Closing
		}
		t := transitionPatch(was, c.Patch)
		patch := edit.Fields{"loop": true, "closing": t}
		if kind := ""; t.Get("kind", &kind) && kind == doc.Cut {
			patch["closing"] = nil
		}
		return &edit.SetFilm{Patch: patch}, nil
	}),
	"cue.add": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		At *int64 `json:"at"` // ms on the scene's clock; absent: at the playhead
	}) (edit.Command, error) {
		sc := s.Scene(m)
		at := s.StartAt(m)
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
		return &edit.AddCue{Scene: sc.ID, ID: s.NewID(), Name: cueName(sc), At: &at}, nil
	}),
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
		p["duration"], p["goesOn"], p["curve"] = 0, nil, nil
	case timed && ms <= 0:
		return edit.Fields{"kind": doc.Cut, "duration": 0, "goesOn": nil, "curve": nil}
	case !timed && was.Duration == 0:
		p["duration"] = 700
		if e := effect.As(effect.Transition, kind); e != nil && e.Lasts > 0 {
			p["duration"] = e.Lasts
		}
	}
	if kind != doc.Morph {
		p["goesOn"], p["curve"] = nil, nil
	}
	if kind != was.Kind {
		p["params"] = paramsFor(kind, was.Params, p["params"])
	}
	return p
}

// paramsFor is the change of parameters with which a transition gets another kind: of those that it has only what that one has too stays.
func paramsFor(kind string, was effect.Params, asked any) edit.Fields {
	out := edit.Fields{}
	e := effect.As(effect.Transition, kind)
	for name, v := range was {
		if e == nil || e.Param(name) == nil || e.Param(name).Check(v) != "" {
			out[name] = nil
		}
	}
	maps.Copy(out, edit.FieldsOf(asked))
	return out
}

// onBars lets scenes end on bars of so many beats, counted from the first.
func onBars(s *intent.Desk, ids []string, beats int) (edit.Command, error) {
	all := s.Film.Beats()
	if beats < 1 || beats > 64 {
		return nil, words.New("beats.bar")
	}
	if len(all) < beats+1 {
		return nil, words.New("beats.none")
	}
	var list []edit.Command
	moved := int64(0) // by how much later than now the scenes that follow begin
	for i, sc := range s.Doc.Film.Shown() {
		if !slices.Contains(ids, sc.ID) {
			continue
		}
		end := s.Film.Order.Begin(i) + s.Film.Order.Stays[i] + moved
		best := int64(-1)
		for k := 0; k < len(all); k += beats {
			if stay := all[k] - s.Film.Order.Begin(i) - moved; stay > 0 && (best < 0 || max(all[k]-end, end-all[k]) < max(best-end, end-best)) {
				best = all[k]
			}
		}
		if best < 0 || best == end {
			continue
		}
		moved += best - end
		own := best - (end - s.Film.Order.Stays[i])
		for _, q := range sc.Cues {
			own -= q.Wait
		}
		list = append(list, &edit.SetScenes{IDs: []string{sc.ID}, Patch: edit.Fields{"stay": max(own, 0), "autoStay": nil, "endsAtCue": nil}})
	}
	if len(list) == 0 {
		return nil, nil
	}
	return edit.All(list...), nil
}
