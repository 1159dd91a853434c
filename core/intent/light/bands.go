// Package light is what is asked about light that falls between layers.
package light

import (
	"fmt"
	"maps"
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/effect"
	"capstan/core/ink"
	"capstan/core/intent"
	"capstan/core/scope"
)

// Light bands, as they begin.
const (
	bandCount   = 5
	bandFeather = 25  // px
	bandApart   = 300 // ms from one to the next
	bandFade    = 900 // ms
	bandPass    = 4200
)

// Asked is all of it, by name.
var Asked = intent.Table{
	// Bands of light fan out over the page: strips with soft borders in two colours of the scene, which come one after another and rock.
	"bands.add": intent.Of(func(s *intent.Desk, m scope.Moment, _ *struct{}) (edit.Command, error) {
		sc := s.Scene(m)
		w, h := float64(s.Doc.Film.Width), float64(s.Doc.Film.Height)
		group := s.NewLayer(sc, "Light bands", doc.Group)
		group.Place = doc.Place{X: w / 2, Y: h * 1.05}
		group.Blend = "screen"
		long, wide := 1.25*math.Hypot(w/2, h), 0.11*min(w, h)
		for i := range bandCount {
			l := s.NewLayer(sc, "Band", doc.Rectangle)
			l.Name, l.Tint = fmt.Sprintf("Band %d", i+1), group.Tint
			turn := 23 * float64(i-bandCount/2)
			rad := turn * math.Pi / 180
			l.Place = doc.Place{X: long / 2 * math.Sin(rad), Y: -long / 2 * math.Cos(rad), W: wide, H: long, Turn: turn, Pivot: &[2]float64{0, long / 2}}
			l.Opacity, l.Feather = 0.6, bandFeather
			role, colour := ink.RoleAccent, "#e0a03a"
			if i%2 == 1 {
				role, colour = ink.RoleAccentTone, "#f3dca6"
			}
			l.Fill = doc.Fill{Kind: doc.Solid, Colour: colour}
			if c, ok := sc.Roles[role]; ok {
				l.Fill.Colour, l.Fill.Role = c, role
			}
			l.Moves = []*doc.Move{
				{ID: s.NewID(), Kind: doc.Entrance, Effect: effect.Light.Comes, Duration: bandFade, Start: doc.Start{When: doc.AtTime, Offset: int64(i) * bandApart}},
				{ID: s.NewID(), Kind: doc.Loop, Effect: effect.Light.Goes, Duration: bandPass, Lasts: doc.WholeScene, Start: doc.Start{When: doc.AtTime},
					Params: maps.Clone(effect.Light.Params)},
			}
			group.Children = append(group.Children, l)
		}
		return s.AddCommand(sc, group), nil
	}),
}
