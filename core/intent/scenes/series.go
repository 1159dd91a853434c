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
