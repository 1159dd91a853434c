package overlay

import (
	"reflect"
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/scope"
)

// Under is a layer that shows at a point.
type Under struct {
	Chain  []string `json:"chain"` // its thread, after those of its groups from the outermost on
	Name   string   `json:"name"`
	Locked bool     `json:"locked"`
}

// UnderView lists the layers that show at a page point, from the front.
func (s *Overlays) UnderView(m scope.Moment, at geom.Point, slack float64) []Under {
	s.Stand(m)
	sc := s.Scene(m)
	out := []Under{}
	for _, chain := range s.Player.HitAll(at, slack) {
		v := Under{}
		for _, id := range chain {
			if l, _ := sc.Layer(id); l != nil {
				v.Chain, v.Name, v.Locked = append(v.Chain, l.Thread), l.Name, v.Locked || l.Locked
			}
		}
		if len(v.Chain) == len(chain) {
			out = append(out, v)
		}
	}
	return out
}

// All is what can be selected at one level of the group tree.
type All struct {
	Threads []string `json:"threads"`
	OnPage  []string `json:"onPage"` // those of them that touch the page
}

// AllView returns the layers of the scene, or of the group thread inside, that are neither locked nor hidden.
func (s *Overlays) AllView(m scope.Moment, inside string) All {
	s.Stand(m)
	sc := s.Scene(m)
	v := All{[]string{}, []string{}}
	list := sc.Layers
	if g := sc.Thread(inside); g != nil && inside != "" {
		list = g.Children
	}
	page := s.SafeBox(1)
	for _, l := range list {
		if l.Locked || l.Hidden || l.Is().Looks {
			continue
		}
		v.Threads = append(v.Threads, l.Thread)
		if c, _, ok := s.Player.Quad(l.ID); ok && !scope.BoxOf(c).Intersect(page).Empty() {
			v.OnPage = append(v.OnPage, l.Thread)
		}
	}
	return v
}

// Alike returns the threads of the scene that have the kind, or the look (fill, stroke, opacity and effects), of one of the chosen ones, and are
// not locked.
func (s *Overlays) Alike(m scope.Moment, threads []string, what string) []string {
	chosen := s.Layers(m, threads)
	out := []string{}
	doc.Walk(s.Scene(m).Layers, func(l, _ *doc.Layer) bool {
		if l.Locked || l.Hidden {
			return false
		}
		if slices.ContainsFunc(chosen, func(k *doc.Layer) bool {
			if what == "kind" {
				return k.Kind == l.Kind
			}
			return (k.Kind == doc.Group) == (l.Kind == doc.Group) && reflect.DeepEqual(lookAlone(k), lookAlone(l))
		}) {
			out = append(out, l.Thread)
			return false
		}
		return true
	})
	return out
}

// lookAlone is a layer with nothing but how it is painted.
func lookAlone(l *doc.Layer) doc.Layer {
	return doc.Layer{Opacity: l.Opacity, Fill: l.Fill, Stroke: l.Stroke, Blend: l.Blend, Blur: l.Blur, Feather: l.Feather, Shadow: l.Shadow, Glow: l.Glow, Adjust: l.Adjust}
}

// Forward names the layers that would come forward past others that are not chosen, when the chosen ones were grouped: a group lies where
// its front-most layer did.
func (s *Overlays) Forward(m scope.Moment, threads []string) []string {
	sc := s.Scene(m)
	list := scope.Outermost(sc, s.Layers(m, threads))
	out := []string{}
	if len(list) == 0 {
		return out
	}
	var order []*doc.Layer // all that is neither chosen nor holds what is, and the chosen
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		chosen := slices.Contains(list, l)
		if chosen || l.Kind != doc.Group || !slices.ContainsFunc(list, func(k *doc.Layer) bool { return scope.Inside(l, k.ID) }) {
			order = append(order, l)
			return false
		}
		return true
	})
	last := 0
	for i, l := range order {
		if slices.Contains(list, l) {
			last = i
		}
	}
	for i, l := range order[:last] {
		if slices.Contains(list, l) && slices.ContainsFunc(order[i+1:last], func(k *doc.Layer) bool { return !slices.Contains(list, k) }) {
			out = append(out, l.Name)
		}
	}
	return out
}
