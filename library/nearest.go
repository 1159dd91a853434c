package library

import (
	"slices"
	"strings"
)

// Nearest is the family that comes nearest to those that a drawing names, in their order: one of the same name, of those given or of those that ship, else one
// of the kind that a name stands for. close is false where none does, and words are set in the first that ships.
func Nearest(names, own []string) (family string, close bool) {
	for _, name := range names {
		for _, k := range own {
			if strings.EqualFold(k, name) {
				return k, true
			}
		}
		for _, f := range Families {
			if strings.EqualFold(f.Name, name) {
				return f.Name, true
			}
		}
	}
	for _, name := range names {
		// The generic families of CSS Fonts 4, section 2.1.
		kind := map[string]string{
			"sans-serif": "text", "system-ui": "text", "ui-sans-serif": "text", "serif": "slab", "ui-serif": "slab", "monospace": "mono", "ui-monospace": "mono",
			"cursive": "hand", "fantasy": "display", "ui-rounded": "rounded",
		}[strings.ToLower(name)]
		if i := slices.IndexFunc(Families, func(f Family) bool { return f.Kind == kind }); i >= 0 {
			return Families[i].Name, true
		}
	}
	return Families[0].Name, false
}
