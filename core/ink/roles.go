package ink

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
