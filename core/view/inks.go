package view

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/ink"
)

// InkUse is a colour that a group is painted with, as it is in its scene, and how often.
type InkUse struct {
	doc.Tone
	Count int `json:"count"`
}

// inksOf are the colours of a group, the most used first.
func inksOf(l *doc.Layer, sc *doc.Scene) []InkUse {
	list := []InkUse{}
	if l.Kind != doc.Group {
		return list
	}
	at := map[doc.Tone]int{}
	ink.Within(l, func(k ink.Ink) {
		t := doc.Tone{Colour: ink.Resolved(k, sc), Role: *k.Role, Tone: *k.Tone}
		i, ok := at[t]
		if !ok {
			i = len(list)
			at[t] = i
			list = append(list, InkUse{Tone: t})
		}
		list[i].Count++
	})
	slices.SortStableFunc(list, func(a, b InkUse) int { return b.Count - a.Count })
	return list
}
