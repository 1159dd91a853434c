package effect

import (
	"cmp"
	"slices"
)

var (
	catalogue []*Effect
	byName    = map[string]*Effect{}
)

// add puts an effect into the catalogue, as each file of this package does.
func add(e Effect) *Effect {
	catalogue = append(catalogue, &e)
	slices.SortStableFunc(catalogue, func(a, b *Effect) int { return cmp.Compare(a.Rank, b.Rank) })
	byName[e.Name] = &e
	return &e
}

// Add puts an effect into the catalogue until remove is called. It is for tests, before anything else asks.
func Add(e Effect) (remove func()) {
	p := add(e)
	return func() {
		catalogue = slices.DeleteFunc(slices.Clone(catalogue), func(o *Effect) bool { return o == p })
		delete(byName, e.Name)
	}
}

// Named returns an effect by its name in documents; nil for one that this version does not know.
func Named(name string) *Effect { return byName[name] }

// All returns all effects, in the order in which they are offered.
func All() []*Effect { return catalogue }

// As returns an effect that can be of a kind; nil where it cannot.
func As(kind, name string) *Effect {
	if e := byName[name]; e != nil && slices.Contains(e.Kinds(), kind) {
		return e
	}
	return nil
}

// Offered returns the ways an effect is offered in as one of a kind.
func (e *Effect) Offered(kind string) (list []Offer) {
	for _, o := range e.Offers {
		if o.Kind == kind {
			list = append(list, o)
		}
	}
	if len(list) > 0 || !slices.Contains(e.Kinds(), kind) {
		return list
	}
	name := map[string]string{Entrance: e.Words + " in", Exit: e.Words + " out"}[kind]
	if name == "" {
		name = e.Words
	}
	return []Offer{{Kind: kind, Words: e.Words, Name: name}}
}

// Offer returns the way of a variant; the first where there is none of that name.
func (e *Effect) Offer(kind, variant string) *Offer {
	list := e.Offered(kind)
	for i := range list {
		if list[i].Variant == variant {
			return &list[i]
		}
	}
	if len(list) > 0 {
		return &list[0]
	}
	return nil
}

// Coming returns the first effect of comings and goings for which is holds; nil where there is none.
func Coming(is func(c *Comes) bool) *Effect {
	for _, e := range catalogue {
		if e.Comes != nil && is(e.Comes) {
			return e
		}
	}
	return nil
}
