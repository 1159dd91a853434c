package ink

import (
	"cmp"
	"maps"
	"slices"

	"capstan/core/paint"
)

// Follows returns what lets a colour that comes from no role follow the role that it equals, or whose tone it equals: roles themselves before their tones, and
// near tones before far ones. It reports whether a colour equals one.
func Follows(roles map[string]string) func(Ink) bool {
	names := slices.SortedFunc(maps.Keys(roles), func(a, b string) int { return cmp.Compare(orderKey(a), orderKey(b)) })
	type tone struct {
		role string
		step int
	}
	of := map[string]tone{}
	for i := range 2*paint.ToneSteps + 1 {
		step := (i + 1) / 2
		if i%2 == 1 {
			step = -step
		}
		for _, n := range names {
			if c, err := paint.Parse(roles[n]); err == nil {
				code := c.Tone(step).String()
				if _, taken := of[code]; !taken {
					of[code] = tone{n, step}
				}
			}
		}
	}
	return func(k Ink) bool {
		t, ok := of[*k.Colour]
		if ok && *k.Role == "" {
			*k.Role, *k.Tone = t.role, t.step
		}
		return ok
	}
}
