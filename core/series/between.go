package series

import (
	"reflect"
	"slices"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/paint"
)

// Between makes of a scene, which is as the one before a morph ends, what that morph shows a share of the way into scene i, 0..1: what both have has
// numbers and colours between theirs, what one alone has is as clear as it is there.
func Between(film *frame.Film, i int, m, into *doc.Scene, share float64, seed string) {
	n := &between{seed: seed, share: share, to: into, there: map[string]bool{}, film: film, into: i}
	m.Roles = n.roles(m.Roles, into.Roles)
	m.Background = n.fill(m.Background, into.Background)
	doc.Walk(into.Layers, func(l, _ *doc.Layer) bool {
		n.there[l.Thread] = film.Begins(i, l.ID)
		return true
	})
	m.Layers = n.layers(m.Layers, into.Layers)
}

// between makes what lies between two scenes.
type between struct {
	seed  string
	share float64
	film  *frame.Film
	into  int
	to    *doc.Scene
	there map[string]bool // threads that are there as the later scene begins
}

// mix is a colour of two, as codes; the nearer one where either cannot be read.
func (n *between) mix(a, b string) string {
	x, err1 := paint.Parse(a)
	y, err2 := paint.Parse(b)
	switch {
	case err1 == nil && err2 == nil:
		return paint.Mix(x, y, n.share).String()
	case n.share < 0.5:
		return a
	}
	return b
}

func (n *between) roles(a, b map[string]string) map[string]string {
	if len(a)+len(b) == 0 {
		return nil
	}
	out := map[string]string{}
	for k, v := range b {
		out[k] = v
	}
	for k, v := range a {
		if w, both := b[k]; both {
			v = n.mix(v, w)
		}
		out[k] = v
	}
	return out
}

func (n *between) fill(a, b doc.Fill) doc.Fill {
	switch {
	case a.Kind == doc.Solid && b.Kind == doc.Solid && a.Role == b.Role && a.Tone == b.Tone:
		a.Colour = n.mix(a.Colour, b.Colour)
		return a
	case a.Kind == doc.Solid && b.Kind == doc.Solid && a.Role == "" && b.Role == "":
		a.Colour = n.mix(a.Colour, b.Colour)
		return a
	case n.share < 0.5:
		return a
	}
	return b
}

// layers makes of what one scene ends with, and another begins with, what lies between them.
func (n *between) layers(list, later []*doc.Layer) []*doc.Layer {
	for _, l := range list {
		b := n.to.Thread(l.Thread)
		if b == nil || !n.there[l.Thread] {
			l.Opacity *= 1 - n.share
			continue
		}
		n.toward(l, b)
		if l.Kind == doc.Group && b.Kind == doc.Group {
			l.Children = n.layers(l.Children, b.Children)
		}
	}
	place := 0
	for _, b := range later {
		at := slices.IndexFunc(list, func(l *doc.Layer) bool { return l.Thread == b.Thread })
		switch {
		case at >= 0:
			place = at + 1
		case n.there[b.Thread] && b.Kind != doc.ViewKind && b.Mask == "":
			k := b.Clone()
			doc.Walk([]*doc.Layer{k}, func(l, _ *doc.Layer) bool {
				l.ID, l.Moves = Derive(n.seed, "between/"+l.ID), nil
				return true
			})
			k.Opacity *= n.share
			list = slices.Insert(list, place, k)
			place++
		}
	}
	return list
}

// toward gives a layer numbers and colours a share of the way to those of another one; what is of no degree, it has of the nearer.
func (n *between) toward(l, b *doc.Layer) {
	c := b.Clone()
	reshaped := n.reshaped(l, c)
	if l.Kind != c.Kind {
		l.Opacity *= 1 - n.share
		return
	}
	for _, pair := range [][2]any{
		{&l.Place, &c.Place}, {&l.Opacity, &c.Opacity}, {&l.Corner, &c.Corner}, {&l.Blur, &c.Blur}, {&l.Feather, &c.Feather}, {&l.Fill, &c.Fill},
		{&l.Stroke, &c.Stroke}, {&l.Shadow, &c.Shadow}, {&l.Glow, &c.Glow}, {&l.Adjust, &c.Adjust}, {&l.Shape, &c.Shape}, {&l.Text, &c.Text}, {&l.Picture, &c.Picture},
	} {
		n.values(reflect.ValueOf(pair[0]).Elem(), reflect.ValueOf(pair[1]).Elem())
	}
	off := n.film.OffLine(n.into, l.Thread, n.share)
	l.Place.X, l.Place.Y = l.Place.X+off.X, l.Place.Y+off.Y
	if reshaped {
		return
	}
	x, err1 := geom.ParseData(l.Path)
	y, err2 := geom.ParseData(c.Path)
	switch {
	case l.Path == c.Path:
	case err1 == nil && err2 == nil && slices.Equal(x.Verbs, y.Verbs):
		for i := range x.Points {
			x.Points[i] = x.Points[i].Mul(1 - n.share).Add(y.Points[i].Mul(n.share))
		}
		l.Path = x.Data()
	case n.share >= 0.5:
		l.Path = c.Path
	}
}

// values brings a value a share of the way to another one of its type.
func (n *between) values(a, b reflect.Value) {
	nearer := func() {
		if n.share >= 0.5 {
			a.Set(b)
		}
	}
	switch a.Kind() {
	case reflect.Float64:
		a.SetFloat(a.Float() + (b.Float()-a.Float())*n.share)
	case reflect.String:
		if a.String() != b.String() {
			a.SetString(n.mix(a.String(), b.String()))
		}
	case reflect.Pointer:
		if a.IsNil() || b.IsNil() {
			nearer()
			return
		}
		n.values(a.Elem(), b.Elem())
	case reflect.Struct:
		if f, ok := a.Addr().Interface().(*doc.Fill); ok {
			if to := b.Interface().(doc.Fill); f.Kind != to.Kind || f.Kind == doc.Solid {
				*f = n.fill(*f, to)
				return
			}
		}
		for i := range a.NumField() {
			n.values(a.Field(i), b.Field(i))
		}
	case reflect.Slice, reflect.Array:
		if a.Len() != b.Len() {
			nearer()
			return
		}
		for i := range a.Len() {
			n.values(a.Index(i), b.Index(i))
		}
	default:
		nearer()
	}
}

// reshaped makes of a layer whose outline becomes another one a drawn path of what the outline is on its way, and of that other one the same; false where
// the outline does not.
func (n *between) reshaped(l, c *doc.Layer) bool {
	if l.Kind == doc.Group || c.Kind == doc.Group {
		return false
	}
	r, ok := n.film.Reshaping(n.into, l.Thread)
	if !ok {
		return false
	}
	var p geom.Path
	r.Outlines.At(n.share, &p)
	for _, k := range []*doc.Layer{l, c} {
		k.Kind, k.Path, k.Shape, k.Text, k.Corner, k.Made = doc.PathKind, p.Data(), nil, nil, 0, nil
		k.Place.W, k.Place.H = 0, 0
	}
	return true
}
