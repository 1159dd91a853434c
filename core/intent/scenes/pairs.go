package scenes

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
)

// Pairs is which layers of a scene go on from which of the scene before.
type Pairs struct {
	Scene  string  `json:"scene"` // the later one
	From   string  `json:"from"`  // names of both
	To     string  `json:"to"`
	Before []Mate  `json:"before"`
	After  []Mate  `json:"after"`
	Offers []Offer `json:"offers"` // what could be joined, the likeliest first; nothing is joined by guessing
}

// Mate is a layer of one of the two scenes.
type Mate struct {
	ID     string     `json:"id"`
	Thread string     `json:"thread"`
	Name   string     `json:"name"`
	Depth  int        `json:"depth"` // groups it lies in
	Box    [4]float64 `json:"box"`   // on the page at rest, px: left, top, width, height
	Paired bool       `json:"paired"`
	Inside bool       `json:"inside"` // in a group that is not
}

// Offer is two layers that look as if one went on as the other.
type Offer struct {
	From string `json:"from"` // threads
	To   string `json:"to"`
	Why  string `json:"why"` // in words

	Parts []edit.Join `json:"parts"` // of groups: those of their parts that are alike
}

// PairsInto returns the pairs of scene i and the one before it; of the first scene, and of one set aside, there are none.
func PairsInto(s *intent.Desk, i int) Pairs {
	shown := s.Shown.Doc.Film.Shown()
	v := Pairs{Before: []Mate{}, After: []Mate{}, Offers: []Offer{}}
	if i < 1 || i >= len(shown) {
		return v
	}
	a, b := shown[i-1], shown[i]
	v.Scene, v.From, v.To = b.ID, a.Name, b.Name
	v.Before, v.After = mates(s, i-1, a, b), mates(s, i, b, a)
	v.Offers = offers(lone(a.Layers, b), lone(b.Layers, a), shown[i:])
	return v
}

// mates lists the layers of scene i, the front-most first.
func mates(s *intent.Desk, i int, sc, other *doc.Scene) []Mate {
	list := []Mate{}
	p := s.Shown.Player()
	p.StandAtRest(i)
	var walk func(layers []*doc.Layer, depth int, inside bool)
	walk = func(layers []*doc.Layer, depth int, inside bool) {
		for _, l := range slices.Backward(layers) {
			if l.Kind == doc.ViewKind {
				continue
			}
			corners, _, _ := p.Quad(l.ID)
			box := scope.BoxOf(corners)
			list = append(list, Mate{l.ID, l.Thread, l.Name, depth, [4]float64{box.Min.X, box.Min.Y, box.W(), box.H()}, other.Thread(l.Thread) != nil, inside})
			walk(l.Children, depth+1, inside || other.Thread(l.Thread) == nil)
		}
	}
	walk(sc.Layers, 0, false)
	return list
}

// lone returns the layers that have no pair in another scene, and are not parts of a group that has none.
func lone(layers []*doc.Layer, other *doc.Scene) (list []*doc.Layer) {
	for _, l := range layers {
		switch {
		case l.Kind == doc.ViewKind:
		case other.Thread(l.Thread) != nil:
			list = append(list, lone(l.Children, other)...)
		default:
			list = append(list, l)
		}
	}
	return
}

// offers are pairs of lone layers that have something in common: words, a picture, a name, or looks. Of groups, parts that are alike go along. later
// are the scenes in which the earlier thread would go on: it must not be there.
func offers(from, to []*doc.Layer, later []*doc.Scene) []Offer {
	type scored struct {
		a, b  *doc.Layer
		why   []string
		score int
	}
	var all []scored
	for _, b := range to {
		for _, a := range from {
			why, score := alike(a, b)
			if score > 0 && !slices.ContainsFunc(later, func(sc *doc.Scene) bool { return sc.Thread(a.Thread) != nil }) {
				all = append(all, scored{a, b, why, score})
			}
		}
	}
	slices.SortStableFunc(all, func(a, b scored) int { return cmp.Compare(b.score, a.score) })
	list := []Offer{}
	met := map[*doc.Layer]bool{}
	for _, o := range all {
		if met[o.a] || met[o.b] {
			continue
		}
		met[o.a], met[o.b] = true, true
		v := Offer{From: o.a.Thread, To: o.b.Thread, Why: strings.Join(o.why, ", "), Parts: []edit.Join{}}
		for _, part := range offers(o.a.Children, o.b.Children, later) {
			v.Parts = append(append(v.Parts, edit.Join{From: part.From, To: part.To}), part.Parts...)
		}
		list = append(list, v)
	}
	return list
}

// alike says what two layers have in common, and how much that counts; kind and size alone are nothing.
func alike(a, b *doc.Layer) (why []string, score int) {
	has := func(what string, counts int) { why, score = append(why, what), score+counts }
	if a.Kind != b.Kind {
		if a.Kind != doc.Group && b.Kind != doc.Group && base(a) == base(b) {
			has("the same name", 4)
		}
		return
	}
	if a.Text != nil && b.Text != nil && a.Text.String() == b.Text.String() {
		has("the same words", 8)
	}
	if a.Picture != nil && b.Picture != nil && a.Picture.Media == b.Picture.Media {
		has("the same picture", 8)
	}
	if base(a) == base(b) {
		has("the same name", 4)
	}
	near := func(p, q float64) bool { return math.Abs(p-q) <= 0.2*max(p, q) }
	if a.Fill.Kind == b.Fill.Kind && a.Fill.Colour == b.Fill.Colour && a.Fill.Role == b.Fill.Role && a.Kind != doc.Group && near(a.Place.W, b.Place.W) && near(a.Place.H, b.Place.H) && a.Text == nil && a.Picture == nil {
		has("the same look", 3)
	}
	return
}

// base is a layer's name without the number that tells copies apart.
func base(l *doc.Layer) string {
	return strings.ToLower(strings.TrimRight(l.Name, " 0123456789"))
}
