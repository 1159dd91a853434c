package ink

import "capstan/core/doc"

// Within calls f for every colour of a layer and all that is in it: of its letters, and of what its changes make of it, too. It may change them
// only where the layer is the caller's own. Letters have no roles: what f makes of theirs is left.
func Within(l *doc.Layer, f func(Ink)) {
	doc.Walk([]*doc.Layer{l}, func(k, _ *doc.Layer) bool {
		OfHead(k, f)
		for _, m := range k.Moves {
			if m.Change != nil {
				b := &m.Change.To
				head := doc.Layer{Stroke: b.Stroke, Shadow: b.Shadow, Glow: b.Glow, Adjust: b.Adjust, Text: b.Text}
				if b.Fill != nil {
					OfFill(b.Fill, f)
				}
				OfHead(&head, f)
			}
		}
		return true
	})
}

// OfHead calls f for every colour of a layer itself, that of its letters with it.
func OfHead(l *doc.Layer, f func(Ink)) {
	OfLayer(l, f)
	if l.Text == nil {
		return
	}
	for i := range l.Text.Runs {
		if r := &l.Text.Runs[i]; r.Colour != "" {
			role, tone := "", 0
			f(Ink{&r.Colour, &role, &tone})
		}
	}
}
