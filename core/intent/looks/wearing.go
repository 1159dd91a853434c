package looks

import (
	"maps"
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/ink"
	"capstan/core/intent"
	"capstan/core/scope"
)

// worn is a part of the look that a layer may have or not: its stroke, shadow or glow.
type worn struct {
	part string
	fits func(l *doc.Layer) bool
	has  func(l *doc.Layer) bool
	// first is what it is when it is put on; short is the shorter side of the page, px.
	first func(short float64) edit.Fields
}

var wearingAsked = intent.Table{
	// A stroke comes in the ink that reads on the layer's fill, as wide as suits the page.
	"stroke.set": wear(worn{
		"stroke",
		func(l *doc.Layer) bool { _, ok := edit.FillOf(l, edit.FillPart); return ok },
		func(l *doc.Layer) bool { return l.Stroke != nil },
		func(short float64) edit.Fields {
			return edit.Fields{"fill": doc.Fill{Kind: doc.Solid, Colour: ink.Readable(doc.Fill{})}, "width": max(1, math.Round(short/180))}
		},
	}),
	// A shadow falls a little down the page.
	"shadow.set": wear(worn{
		"shadow",
		func(*doc.Layer) bool { return true },
		func(l *doc.Layer) bool { return l.Shadow != nil },
		func(short float64) edit.Fields {
			u := math.Round(short / 120)
			return edit.Fields{"x": 0, "y": u, "blur": u, "colour": "#0c252380"}
		},
	}),
	"glow.set": wear(worn{
		"glow",
		func(*doc.Layer) bool { return true },
		func(l *doc.Layer) bool { return l.Glow != nil },
		func(short float64) edit.Fields {
			return edit.Fields{"blur": max(2, short/60), "colour": "#f3dca6"}
		},
	}),
}

// wear asks for a change of a part; layers that lack it get it, as it is at first.
func wear(w worn) intent.Ask {
	return intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string    `json:"threads"`
		Patch   edit.Fields `json:"patch"` // null takes it away
	}) (edit.Command, error) {
		var list []edit.Part
		for _, l := range s.Layers(m, c.Threads) {
			if !w.fits(l) {
				continue
			}
			var patch any
			if c.Patch != nil {
				p := edit.Fields{}
				if !w.has(l) {
					p = w.first(float64(min(s.Doc.Film.Width, s.Doc.Film.Height)))
				}
				maps.Copy(p, c.Patch)
				patch = p
			}
			list = append(list, edit.Part{ID: l.ID, Patch: edit.Fields{w.part: patch}})
		}
		if len(list) == 0 {
			return nil, nil
		}
		return &edit.SetLayers{Set: list}, nil
	})
}
