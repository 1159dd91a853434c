package arrange

import (
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
)

var pastingAsked = intent.Table{
	"paste": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Layers []*doc.Layer          `json:"layers"`
		Begins map[string]int64      `json:"begins"`
		Still  bool                  `json:"still"` // without their moves
		Place  bool                  `json:"place"` // where they were, also over what was copied
		New    bool                  `json:"new"`   // as things of their own: no morph leads to them
		From   string                `json:"from"`  // the project they were copied in
		Media  map[string]*doc.Media `json:"media"` // that they use
	}) (edit.Command, error) {
		sc := s.Scene(m)
		d := 0.0
		if c.Still {
			doc.Walk(c.Layers, func(l, _ *doc.Layer) bool {
				l.Moves = nil
				return true
			})
		}
		for _, l := range c.Layers {
			if l != nil && sc.Thread(l.Thread) != nil && !c.Place {
				d = math.Round(float64(s.Doc.Film.Width) / 60)
			}
		}
		// A thread of another project is none of this one's.
		fresh := c.New || c.From != "" && c.From != s.Doc.ID
		var list []edit.Command
		for hash, media := range c.Media {
			if s.Doc.Media[hash] == nil {
				list = append(list, &edit.AddMedia{Hash: hash, Media: media})
			}
		}
		return edit.All(append(list, &edit.PasteLayers{Scene: sc.ID, Layers: c.Layers, Seed: s.NewID(), DX: d, DY: d, Begins: c.Begins, New: fresh})...), nil
	}),
}

// Copied are layers to paste, with when their moves began.
type Copied struct {
	Layers []*doc.Layer          `json:"layers"`
	Begins map[string]int64      `json:"begins"` // by move, ms on their scene's clock
	From   string                `json:"from"`   // the project
	Media  map[string]*doc.Media `json:"media"`  // that they use, by hash
}

// Copy returns the chosen layers as they are pasted: with places on the page, back to front.
func Copy(s *intent.Desk, m scope.Moment, chosen []string) Copied {
	sc := s.Scene(m)
	i := s.SceneIndex(m)
	list := scope.Outermost(sc, s.Layers(m, chosen))
	out := Copied{Layers: []*doc.Layer{}, Begins: map[string]int64{}, From: s.Shown.Doc.ID, Media: map[string]*doc.Media{}}
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		for _, mv := range l.Moves {
			out.Begins[mv.ID] = s.Shown.Timing(i).Moves[mv.ID].Begin
		}
		if slices.Contains(list, l) {
			k := l.Clone()
			up := s.Shown.Ancestry(i, l.ID)
			p := up.Apply(geom.Point{X: k.Place.X, Y: k.Place.Y})
			k.Place.X, k.Place.Y = p.X, p.Y
			k.Place.Turn += geom.AngleOf(up)
			out.Layers = append(out.Layers, k)
		}
		return true
	})
	for hash, media := range s.Shown.Doc.Media {
		if doc.Uses(out.Layers, hash, media) {
			out.Media[hash] = media
		}
	}
	return out
}
