package doc

import (
	"bytes"
	"reflect"
	"slices"
)

// Share lets s, a changed copy of old, use old's layers where they have not changed: a group too, when all in it is shared. What
// is shared need not be checked, compared or compiled again.
func Share(s, old *Scene) {
	if alongside(s.Layers, old.Layers) {
		return
	}
	before := make(map[string]*Layer, 2*len(old.Layers))
	Walk(old.Layers, func(l, _ *Layer) bool { before[l.ID] = l; return true })
	share(s.Layers, before)
}

// alongside does so for lists of the same layers in the same order, as most changes leave them; false where they are not.
func alongside(list, old []*Layer) bool {
	if len(list) != len(old) {
		return false
	}
	for i, l := range list {
		o := old[i]
		switch {
		case l == o:
			continue
		case l == nil || o == nil || l.ID != o.ID || !alongside(l.Children, o.Children):
			return false
		case sameLayer(l, o):
			list[i] = o
		}
	}
	return true
}

func share(list []*Layer, before map[string]*Layer) {
	for i, l := range list {
		if l == nil {
			continue // validation will say so
		}
		share(l.Children, before)
		if o := before[l.ID]; o != nil && o != l && sameLayer(l, o) {
			list[i] = o
		}
	}
}

// sameLayer reports whether two layers are equal, and what is inside them is the same value. A test holds it to every field.
func sameLayer(a, b *Layer) bool {
	return a.ID == b.ID && a.Thread == b.Thread && a.Name == b.Name && a.Kind == b.Kind && samePlace(&a.Place, &b.Place) &&
		a.Opacity == b.Opacity && sameFill(&a.Fill, &b.Fill) && a.Stroke.Equal(b.Stroke) && a.Blend == b.Blend && a.Mask == b.Mask && same(a.Through, b.Through) &&
		a.Blur == b.Blur && a.Feather == b.Feather && same(a.Shadow, b.Shadow) && same(a.Glow, b.Glow) && a.Adjust.Equal(b.Adjust) && a.Made.same(b.Made) && a.Corner == b.Corner && a.Path == b.Path && sameHeld(a, b) &&
		a.Tint == b.Tint && a.Column == b.Column && a.Depth == b.Depth && a.Stays == b.Stays && a.Locked == b.Locked && a.Hidden == b.Hidden &&
		slices.EqualFunc(a.Moves, b.Moves, sameMove) && slices.Equal(a.Children, b.Children) && sameExtra(a.Extra, b.Extra)
}

// Like reports whether two layers are equal but for who they are, where they lie, the data of their path, and what moves or lies in them.
func (l *Layer) Like(o *Layer) bool {
	if l.Kind != o.Kind || l.Tint != o.Tint || l.Opacity != o.Opacity || !sameFill(&l.Fill, &o.Fill) {
		return false
	}
	a, b := *l, *o
	for _, k := range []*Layer{&a, &b} {
		k.ID, k.Thread, k.Name, k.Place, k.Path, k.Moves, k.Children, k.Extra = "", "", "", Place{}, "", nil, nil, nil
	}
	return sameLayer(&a, &b)
}

func same[T comparable](a, b *T) bool { return a == b || a != nil && b != nil && *a == *b }

func samePlace(a, b *Place) bool {
	return a.X == b.X && a.Y == b.Y && a.W == b.W && a.H == b.H && a.Turn == b.Turn && a.FlipX == b.FlipX && a.FlipY == b.FlipY && same(a.Pivot, b.Pivot)
}

func sameText(a, b *Text) bool {
	if a == nil || b == nil {
		return a == b
	}
	return slices.Equal(a.Runs, b.Runs) && a.Align == b.Align && a.Wrap == b.Wrap && a.Room == b.Room && a.Stand == b.Stand && a.LineHeight == b.LineHeight && a.LetterSpacing == b.LetterSpacing && a.Stacked == b.Stacked && same(a.Ring, b.Ring) && same(a.Plate, b.Plate)
}

func sameFill(a, b *Fill) bool {
	return a.Kind == b.Kind && a.Colour == b.Colour && a.Role == b.Role && a.Tone == b.Tone && a.Media == b.Media && a.Size == b.Size && sameGradient(a.Gradient, b.Gradient)
}

func sameGradient(a, b *Gradient) bool {
	if a == nil || b == nil {
		return a == b
	}
	return a.From == b.From && a.To == b.To && a.Ratio == b.Ratio && same(a.Focus, b.Focus) && slices.Equal(a.Stops, b.Stops)
}

// Equal reports whether two strokes, either of which may be nil, are the same.
func (a *Stroke) Equal(b *Stroke) bool {
	if a == nil || b == nil {
		return a == b
	}
	return sameFill(&a.Fill, &b.Fill) && a.Width == b.Width && a.Side == b.Side && a.Cap == b.Cap && a.Join == b.Join &&
		a.MiterLimit == b.MiterLimit && slices.Equal(a.Dash, b.Dash) && a.DashOffset == b.DashOffset && same(a.Trim, b.Trim) && a.StartHead == b.StartHead && a.EndHead == b.EndHead
}

// sameHeld reports whether the fields that belong to kinds are the same.
func sameHeld(a, b *Layer) bool {
	for _, f := range fields {
		if !f.same(a, b) {
			return false
		}
	}
	return true
}

func sameMove(a, b *Move) bool {
	return a == b || a != nil && b != nil && a.ID == b.ID && a.Kind == b.Kind && a.Effect == b.Effect && a.Start == b.Start && a.Begun == b.Begun && same(a.End, b.End) &&
		a.Duration == b.Duration && a.Lasts == b.Lasts && a.Keeps == b.Keeps && a.Easing == b.Easing && a.Repeat == b.Repeat &&
		a.Until == b.Until && a.Alternate == b.Alternate && a.Continues == b.Continues && a.Unit == b.Unit && a.Order == b.Order &&
		a.Overlap == b.Overlap && a.Seed == b.Seed && a.Back == b.Back && same(a.From, b.From) && same(a.Path, b.Path) && sameChange(a.Change, b.Change) && a.Params.Equal(b.Params) && sameExtra(a.Extra, b.Extra)
}

func sameChange(a, b *ChangeParams) bool {
	return a == b || a != nil && b != nil && reflect.DeepEqual(a, b) // few layers have one
}

func sameExtra(a, b Extra) bool {
	if len(a) != len(b) {
		return false
	}
	for k, v := range a {
		if w, ok := b[k]; !ok || !bytes.Equal(v, w) {
			return false
		}
	}
	return true
}

// SameTimes reports whether nothing that decides when things happen differs between two scenes: stay, cues, and the moves of
// the same layers. Scenes whose stay follows their contents are never found the same.
func SameTimes(a, b *Scene) bool {
	return a.Stay == b.Stay && !a.AutoStay && !b.AutoStay && a.EndsAtCue == b.EndsAtCue && slices.Equal(a.Cues, b.Cues) && sameSounds(a.Sounds, b.Sounds) && sameMoves(a.Layers, b.Layers)
}

func sameMoves(a, b []*Layer) bool {
	return slices.EqualFunc(a, b, func(x, y *Layer) bool {
		return x == y || x.ID == y.ID && slices.EqualFunc(x.Moves, y.Moves, sameMove) && sameMoves(x.Children, y.Children)
	})
}
