package texts

import (
	"strings"
	"unicode/utf8"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

var styleAsked = intent.Table{
	"text.style": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string    `json:"threads"`
		Patch   edit.Fields `json:"patch"`
		From    int         `json:"from"` // a stretch of it, in characters; to 0: all of it
		To      int         `json:"to"`
	}) (edit.Command, error) {
		return &edit.StyleTexts{IDs: scope.IDs(s.Layers(m, c.Threads)), Patch: c.Patch, From: c.From, To: c.To}, nil
	}),
	"text.family": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Family  string   `json:"family"`
		From    int      `json:"from"` // as of text.style
		To      int      `json:"to"`
	}) (edit.Command, error) {
		// Each text keeps its weight as nearly as the family allows.
		var list []edit.Command
		for _, l := range s.Layers(m, c.Threads) {
			if l.Kind == doc.TextKind {
				patch := edit.Fields{"family": c.Family, "weight": s.Fonts.Weight(c.Family, l.Text.Runs[0].Weight)}
				list = append(list, &edit.StyleTexts{IDs: []string{l.ID}, Patch: patch, From: c.From, To: c.To})
			}
		}
		if len(list) == 0 {
			return nil, nil
		}
		return edit.All(list...), nil
	}),
	// Texts, or a stretch of one, become italic or bold, or cease to be where all of it is.
	"text.toggle": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		What    string   `json:"what"` // italic, bold
		From    int      `json:"from"` // as of text.style
		To      int      `json:"to"`
	}) (edit.Command, error) {
		all, family := true, ""
		list := s.Layers(m, c.Threads)
		for _, l := range list {
			if l.Kind != doc.TextKind {
				continue
			}
			at := 0
			for _, r := range l.Text.Runs {
				from := at
				at += utf8.RuneCountInString(r.Text)
				if c.To > 0 && (from >= c.To || at <= c.From) {
					continue
				}
				family = r.Family
				all = all && (c.What == "italic" && r.Italic || c.What == "bold" && r.Weight >= 600)
			}
		}
		if family == "" {
			return nil, nil
		}
		patch := edit.Fields{"weight": s.Fonts.Weight(family, map[bool]int{false: 700, true: 400}[all])}
		if c.What == "italic" {
			patch = edit.Fields{"italic": !all}
		}
		return &edit.StyleTexts{IDs: scope.IDs(list), Patch: patch, From: c.From, To: c.To}, nil
	}),
	// Every stretch of the texts grows by some px, or shrinks.
	"text.grow": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		By      float64  `json:"by"`
	}) (edit.Command, error) {
		var list []edit.Part
		for _, l := range s.Layers(m, c.Threads) {
			if l.Kind != doc.TextKind {
				continue
			}
			runs := make([]doc.Run, len(l.Text.Runs))
			for i, r := range l.Text.Runs {
				r.Size = min(max(r.Size+c.By, 1), 4000)
				runs[i] = r
			}
			list = append(list, edit.Part{ID: l.ID, Patch: edit.Fields{"text": edit.Fields{"runs": runs}}})
		}
		if len(list) == 0 {
			return nil, nil
		}
		return &edit.SetLayers{Set: list}, nil
	}),
	"text.words": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Thread string `json:"thread"`
		Text   string `json:"text"`
	}) (edit.Command, error) {
		l := s.Scene(m).Thread(c.Thread)
		if l == nil {
			return nil, words.New("text.gone")
		}
		list := []edit.Command{&edit.SetWords{ID: l.ID, Text: c.Text}}
		// A layer is called by its words until it is given another name.
		if first := nameOf(c.Text); first != "" && first != l.Name && (strings.HasPrefix(l.Name, "Text") || l.Name == nameOf(l.Text.String())) {
			list = append(list, &edit.SetLayers{Set: []edit.Part{{ID: l.ID, Patch: edit.Fields{"name": first}}}})
		}
		return edit.All(list...), nil
	}),
	"text.align": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Align   string   `json:"align"`
	}) (edit.Command, error) {
		var list []edit.Part
		for _, l := range s.Layers(m, c.Threads) {
			if l.Kind != doc.TextKind {
				continue
			}
			// The lines move inside the box; the box stays. Only the origin changes for a text that grows.
			patch := edit.Fields{"text": edit.Fields{"align": c.Align}}
			if !l.Text.Wrap {
				box, _ := s.Shown.Box(s.SceneIndex(m), l.ID)
				to := map[string]float64{doc.Left: box.Min.X, doc.Centre: box.Centre().X, doc.Right: box.Max.X}[c.Align]
				by := geom.Rotate(l.Place.Turn).ApplyVector(geom.Point{X: to})
				patch["place"] = edit.Fields{"x": l.Place.X + by.X, "y": l.Place.Y + by.Y}
			}
			list = append(list, edit.Part{ID: l.ID, Patch: patch})
		}
		return &edit.SetLayers{Set: list}, nil
	}),
}

// nameOf is what a layer is called by its words: their first line, cut short.
func nameOf(words string) string {
	first := strings.TrimSpace(strings.SplitN(words, "\n", 2)[0])
	if r := []rune(first); len(r) > 40 {
		first = strings.TrimSpace(string(r[:40]))
	}
	return first
}
