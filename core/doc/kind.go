package doc

import "slices"

// Kind is what is true of all layers of one kind. Each stands in the file of what it holds, and in Kinds; what is compiled of it, painted and
// scaled stands in tables of the packages that do so, by its name.
type Kind struct {
	Name  string // in documents
	Words string // what new layers of it are called

	Shape    bool     // its outline follows from numbers: package shape
	Filled   bool     // it has a fill of its own
	Stroked  bool     // it may have a stroke
	Cornered bool     // it has corners that can be rounded
	Keeps    bool     // it keeps its proportions when it is resized, unless somebody wants otherwise
	Scaled   bool     // it is resized as one: it cannot but keep its proportions
	Joins    bool     // its outline can be united, cut and overlapped with others
	Grounds  bool     // it may fill the page
	Looks    bool     // it is looked through: nothing is painted of it, and it is no part of the page
	Units    []string // what moves can divide it into
	Unbuilt  string   // why this Capstan refuses it; empty: it does not

	mayBeMade func(how string) bool                      // of other layers, in a way; nil: in none
	check     func(c *checker, at string, l *Layer) bool // what layers of it hold; false: there is no sense in looking on
	held      *held                                      // the field of a layer that holds it, if any
}

// Kinds are all kinds of layers; shapes stand in the order in which they are offered. A new one is a file, or a part of one, and a name here.
var Kinds = slices.Concat([]*Kind{groupKind, pathKind, textKind, pictureKind, markerKind, viewKind, insetKind}, shapeKinds)

var kindsByName = func() map[string]*Kind {
	all := map[string]*Kind{}
	for _, k := range Kinds {
		all[k.Name] = k
	}
	return all
}()

// KindNamed returns a kind by its name in documents; one that there is none of has no traits.
func KindNamed(name string) *Kind {
	if k := kindsByName[name]; k != nil {
		return k
	}
	return &Kind{Name: name}
}

// Is returns the kind of a layer.
func (l *Layer) Is() *Kind { return KindNamed(l.Kind) }

// held is a field of layers that belongs to a kind.
type held struct {
	clone func(l *Layer) // gives l, a copy of a layer, its own
	same  func(a, b *Layer) bool
}

// holds declares a field of layers: how it is copied deeply, and compared.
func holds[T any](field func(l *Layer) **T, clone func(v *T), equal func(a, b *T) bool) *held {
	return &held{
		clone: func(l *Layer) {
			p := field(l)
			if *p == nil {
				return
			}
			c := **p
			if *p = &c; clone != nil {
				clone(&c)
			}
		},
		same: func(a, b *Layer) bool {
			x, y := *field(a), *field(b)
			return x == y || x != nil && y != nil && equal(x, y)
		},
	}
}

// equal compares values that hold nothing but values.
func equal[T comparable](a, b *T) bool { return *a == *b }

// fields are those that kinds hold.
var fields = func() (list []*held) {
	for _, k := range Kinds {
		if k.held != nil && !slices.Contains(list, k.held) {
			list = append(list, k.held)
		}
	}
	return
}()

// groupKind holds other layers.
var groupKind = &Kind{
	Name: Group, Words: "Group", Keeps: true, Scaled: true, Joins: true, Units: []string{ByPart},
	mayBeMade: func(how string) bool { return how == MadeSplit },
}
