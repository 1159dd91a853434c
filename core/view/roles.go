package view

import (
	"slices"
	"sort"

	"capstan/core/doc"
	"capstan/core/ink"
)

// Role is a colour role of a scene.
type Role struct {
	Name   string `json:"name"`
	Colour string `json:"colour"`
	Uses   int    `json:"uses"` // how often the scene takes its colour from it
}

// roles lists the roles of a scene.
func roles(sc *doc.Scene) []Role {
	list := []Role{}
	for name, c := range sc.Roles {
		list = append(list, Role{name, c, 0})
	}
	place := func(name string) int {
		if i := slices.Index(ink.RoleOrder, name); i >= 0 {
			return i
		}
		return len(ink.RoleOrder)
	}
	sort.Slice(list, func(i, k int) bool {
		a, b := list[i].Name, list[k].Name
		if d := place(a) - place(b); d != 0 {
			return d < 0
		}
		return a < b
	})
	if len(list) > 0 {
		count := map[string]int{}
		ink.Each(sc, func(k ink.Ink) { count[*k.Role]++ })
		for i := range list {
			list[i].Uses = count[list[i].Name]
		}
	}
	return list
}
