package ink

import "slices"

// Roles that a scene begins with; it may have others of its own.
const (
	RoleGround     = "ground"
	RoleGroundTone = "ground tone"
	RoleAccent     = "accent"
	RoleAccentTone = "accent tone"
	RoleWords      = "words"
)

// RoleOrder is the order in which roles are shown; others follow by name.
var RoleOrder = []string{RoleGround, RoleGroundTone, RoleAccent, RoleAccentTone, RoleWords}

// orderKey sorts the names of roles: those that every scene begins with first.
func orderKey(name string) string {
	if i := slices.Index(RoleOrder, name); i >= 0 {
		return string(rune('0' + i))
	}
	return "9" + name
}
