package scenes

import (
	"fmt"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/motion"
	"capstan/core/scope"
	"capstan/core/words"
)

var seriesAsked = intent.Table{
	"scene.fold": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		IDs []string `json:"ids"`
	}) (edit.Command, error) {
		return &edit.FoldScenes{IDs: c.IDs, Seed: s.NewID()}, nil
	}),
	"scene.unfold": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct{}) (edit.Command, error) {
		sc := s.Scene(m)
		steps, err := edit.Steps(sc, s.Shown.Order.Into[s.SceneIndex(m)])
		if err != nil {
			return nil, err
		}
		if len(steps) == 0 {
			return nil, words.New("unfold.nothing", sc.Name)
		}
		return &edit.UnfoldScene{Scene: sc.ID, Seed: s.NewID(), Names: namesAfter(s, sc.Name, min(len(steps), edit.MaxSteps))}, nil
	}),
	// What is seen at the playhead begins a scene of its own: the rest of one that stays, or what a morph shows.
	"scene.split": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct{}) (edit.Command, error) {
		w := s.Shown.Order.At(motion.Seconds(m.Time / 1000))
		sc := s.Scene(m)
		if sc.Aside {
			return nil, words.New("scene.aside")
		}
		into := s.Doc.Film.Scenes[w.Scene]
		switch {
		case w.Into && w.Scene > 0 && into.Transition.Kind == doc.Morph:
			since := int64(m.Time) - s.Shown.Order.Starts[w.Scene]
			return &edit.SplitMorph{Scene: into.ID, At: since, ID: s.NewID(), Seed: s.NewID(), Name: edit.SceneName(s.Doc)}, nil
		case w.Into:
			return nil, words.New("cut.pages")
		}
		at := int64(m.Time) - s.Shown.Order.Begin(w.Scene)
		return &edit.CutScene{Scene: into.ID, At: at, ID: s.NewID(), Seed: s.NewID(), Name: namesAfter(s, into.Name, 1)[0]}, nil
	}),
	// The scene is kept as a template: a copy of it aside, from which scenes are made.
	"template.keep": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct{}) (edit.Command, error) {
		sc := s.Scene(m)
		return &edit.CopyScene{From: sc.ID, ID: s.NewID(), Seed: s.NewID(), Name: sc.Name, Template: true}, nil
	}),
	// A scene is made from a template, behind the moment's, or at the end of the film.
	"template.use": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		ID string `json:"id"`
	}) (edit.Command, error) {
		_, from := s.Doc.Scene(c.ID)
		if from == nil || !from.Template {
			return nil, words.New("template.gone")
		}
		at := len(s.Doc.Film.Shown())
		if !s.Scene(m).Aside {
			at = s.SceneIndex(m) + 1
		}
		return &edit.CopyScene{From: from.ID, ID: s.NewID(), Seed: s.NewID(), Name: namesAfter(s, from.Name, 1)[0], Index: at}, nil
	}),
	// Scenes that were copied come in behind the moment's.
	"scenes.paste": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Scenes []*doc.Scene          `json:"scenes"`
		From   string                `json:"from"`  // the project they were copied in
		Media  map[string]*doc.Media `json:"media"` // that they use
	}) (edit.Command, error) {
		var list []edit.Command
		for hash, media := range c.Media {
			if s.Doc.Media[hash] == nil {
				list = append(list, &edit.AddMedia{Hash: hash, Media: media})
			}
		}
		ids := make([]string, len(c.Scenes))
		for k := range ids {
			ids[k] = s.NewID()
		}
		at := len(s.Doc.Film.Shown())
		if !s.Scene(m).Aside {
			at = s.SceneIndex(m) + 1
		}
		return edit.All(append(list, &edit.PasteScenes{Scenes: c.Scenes, IDs: ids, Seed: s.NewID(), Index: at, New: c.From != s.Doc.ID})...), nil
	}),
	// The morphs through scenes that follow one another move as one, at even speed: scenes between them do not stay, and the time they did goes to
	// the morphs out of them.
	"scenes.asOne": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		IDs   []string `json:"ids"`
		Curve bool     `json:"curve"` // what goes on lies on a smooth curve through them
	}) (edit.Command, error) {
		var at []int
		for _, id := range c.IDs {
			i, sc := s.Doc.Scene(id)
			if sc == nil || sc.Aside {
				return nil, words.New("scene.gone")
			}
			at = append(at, i)
		}
		slices.Sort(at)
		at = slices.Compact(at)
		if len(at) < 3 || at[len(at)-1]-at[0] != len(at)-1 {
			return nil, words.New("asone.three")
		}
		var list []edit.Command
		for n, i := range at[1:] {
			sc := s.Doc.Film.Scenes[i]
			patch := transitionPatch(sc.Transition, edit.Fields{"kind": doc.Morph})
			into := sc.Transition.Duration
			if into == 0 {
				into = 700
			}
			if patch["easing"], patch["curve"], patch["goesOn"] = nil, nil, true; n == 0 {
				patch["easing"], patch["goesOn"] = "linear", nil
				if c.Curve {
					patch["curve"] = true
				}
			} else {
				into += s.Shown.Order.Stays[i-1]
			}
			patch["duration"] = into
			set := edit.Fields{"transition": patch}
			if n < len(at)-2 {
				set["stay"], set["autoStay"], set["endsAtCue"] = 0, nil, nil
				for _, q := range sc.Cues { // what hangs on them keeps its times
					list = append(list, &edit.DeleteCue{Scene: sc.ID, ID: q.ID})
				}
			}
			list = append(list, &edit.SetScenes{IDs: []string{sc.ID}, Patch: set})
		}
		return edit.All(list...), nil
	}),
}

// namesAfter proposes names for so many scenes that come of one: its own with the next numbers that are free.
func namesAfter(s *intent.Desk, name string, n int) (list []string) {
	base, k := scope.Numbered(name)
	for k = max(k, 1) + 1; len(list) < n; k++ {
		next := fmt.Sprintf("%s %d", base, k)
		if !slices.ContainsFunc(s.Doc.Film.Scenes, func(sc *doc.Scene) bool { return sc.Name == next }) {
			list = append(list, next)
		}
	}
	return list
}
