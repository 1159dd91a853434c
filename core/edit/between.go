package edit

import (
	"reflect"
	"slices"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/paint"
	"capstan/core/words"
)

// SplitMorph puts a scene into a morph that is what the morph shows at a time: what both sides have has numbers and
// colours between theirs. Both halves go on as one, so that the film shows what it did; the scene does not stay yet (docs/motion.md, section 6).
type SplitMorph struct {
	Scene string `json:"scene"` // into which the morph is
	At    int64  `json:"at"`    // ms since its begin
	ID    string `json:"id"`
	Seed  string `json:"seed"`
	Name  string `json:"name"`
}

// Op is its name on the wire.
func (c *SplitMorph) Op() string { return "morph.split" }

func (c *SplitMorph) apply(e *editor) error {
	i, s := e.p.Scene(c.Scene)
	switch {
	case s == nil:
		return words.New("scene.gone")
	case i == 0 || s.Aside || s.Transition.Kind != doc.Morph:
		return words.New("cut.pages")
	case c.At <= 0 || c.At >= s.Transition.Duration:
		return words.New("cut.edge")
	}
	film, err := frame.Compile(e.p, e.assets, nil)
	if err != nil {
		return err
	}
	into, share := film.Passes(motion.Millis(film.Order.Starts[i] + c.At))
	if into != i {
		i, s = into, e.p.Film.Scenes[into]
	}
	all := s.Transition.Duration
	first := min(max(int64(share*float64(all)+0.5), 1), all-1)
	share = float64(first) / float64(all)
	from := e.p.Film.Scenes[i-1]
	if err := e.copyScene(&DuplicateScene{From: from.ID, ID: c.ID, Seed: c.Seed, Name: c.Name}, true); err != nil {
		return err
	}
	m, err := e.scene(c.ID)
	if err != nil {
		return err
	}
	if s, err = e.scene(s.ID); err != nil {
		return err
	}
	m.AutoStay, m.Stay = false, 0
	m.Transition = doc.Transition{Kind: doc.Morph, Duration: first, Easing: s.Transition.Easing, GoesOn: s.Transition.GoesOn}
	s.Transition.Duration, s.Transition.GoesOn = all-first, true
	n := &between{seed: c.Seed, share: share, to: s}
	m.Roles = n.roles(m.Roles, s.Roles)
	m.Background = n.fill(m.Background, s.Background)
	into0 := map[string]bool{} // threads that are there as the later scene begins
	for thread := range threadsOf(s.Layers) {
		into0[thread] = film.Begins(i, s.Thread(thread).ID)
	}
	n.there = into0
	m.Layers = n.layers(m.Layers, s.Layers)
	loops := map[string]string{}
	doc.Walk(m.Layers, func(l, _ *doc.Layer) bool {
		for _, o := range l.Moves {
			if o.Continues != "" {
				loops[o.Continues] = o.ID
			}
		}
		return true
	})
	return e.relink(i+1, loops)
}

func threadsOf(list []*doc.Layer) map[string]bool {
	out := map[string]bool{}
	doc.Walk(list, func(l, _ *doc.Layer) bool {
		out[l.Thread] = true
		return true
	})
	return out
}

// between makes what lies between two scenes.
type between struct {
	seed  string
	share float64
	to    *doc.Scene
	there map[string]bool
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
				l.ID, l.Moves = derive(n.seed, "between/"+l.ID), nil
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
	if l.Kind != b.Kind {
		l.Opacity *= 1 - n.share
		return
	}
	c := b.Clone()
	for _, pair := range [][2]any{
		{&l.Place, &c.Place}, {&l.Opacity, &c.Opacity}, {&l.Corner, &c.Corner}, {&l.Blur, &c.Blur}, {&l.Feather, &c.Feather}, {&l.Fill, &c.Fill},
		{&l.Stroke, &c.Stroke}, {&l.Shadow, &c.Shadow}, {&l.Glow, &c.Glow}, {&l.Adjust, &c.Adjust}, {&l.Shape, &c.Shape}, {&l.Text, &c.Text}, {&l.Picture, &c.Picture},
	} {
		n.values(reflect.ValueOf(pair[0]).Elem(), reflect.ValueOf(pair[1]).Elem())
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
