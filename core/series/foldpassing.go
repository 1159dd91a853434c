package series

import (
	"fmt"
	"slices"
	"strconv"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/motion"
)

// What was a transition between scenes that are folded is what comes, goes and changes in the one scene.

// base puts a layer in the place of a background that differs from the one that is seen.
func (f *folder) base(k int) {
	bg := f.scenes[k].Background
	if k == 0 || f.p.Film.Clear || sameGround(&bg, &f.based) {
		return
	}
	begin, lasts := f.origin[k]-f.scenes[k].Transition.Duration, f.scenes[k].Transition.Duration
	back := sameGround(&bg, &f.scenes[0].Background)
	if n := len(f.bases); n > 0 {
		last := f.bases[n-1]
		if back {
			f.fades(last, doc.Exit, k, begin, lasts)
		} else {
			f.fades(last, doc.Exit, k, f.origin[k], 0)
		}
	}
	if f.based = bg; back {
		return
	}
	w, h := float64(f.p.Film.Width), float64(f.p.Film.Height)
	large := 1.0
	if bg.Kind == doc.Solid && slices.ContainsFunc(f.scenes, func(s *doc.Scene) bool { return s.View() != nil }) {
		large = 9 // it covers what a view shows beside the page
	}
	id := Derive(f.seed, "ground/"+strconv.Itoa(k))
	l := &doc.Layer{
		ID: id, Thread: Derive(f.seed+"/thread", id), Name: "Ground of " + f.scenes[k].Name, Kind: doc.Rectangle, Opacity: 1, Fill: bg,
		Place: doc.Place{X: w / 2, Y: h / 2, W: w * large, H: h * large},
	}
	f.fades(l, doc.Entrance, k, begin, lasts)
	f.layers = slices.Insert(f.layers, len(f.bases), l)
	f.bases = append(f.bases, l)
}

func sameGround(a, b *doc.Fill) bool {
	return doc.Difference(&doc.Layer{Fill: *a}, &doc.Layer{Fill: *b}).Fill == nil
}

// fades lets a layer come or go through what was a transition; at once where that takes no time.
func (f *folder) fades(l *doc.Layer, kind string, k int, begin, lasts int64) {
	m := &doc.Move{ID: Derive(f.seed, fmt.Sprintf("%s/%s/%d", l.ID, kind, k)), Kind: kind, Effect: comingAs(func(c *effect.Comes) bool { return c.Morphs }), Duration: lasts, Easing: f.easing(k)}
	if lasts < doc.MinDuration {
		m.Effect, m.Duration, m.Easing = comingAs(func(c *effect.Comes) bool { return c.Sudden }), 0, ""
	}
	startAt(m, begin)
	l.Moves = append(l.Moves, m)
}

// comingAs is the name of the effect of which something holds.
func comingAs(is func(c *effect.Comes) bool) string { return effect.Coming(is).Name }

func (f *folder) easing(k int) string {
	if by := f.scenes[k].Transition.Easing; by != "" {
		return by
	}
	return motion.PagesEase
}

// becomes lets a layer change through what was a transition; at once where that takes no time.
func (f *folder) becomes(l *doc.Layer, to *doc.Becomes, k int) {
	begin, lasts := f.origin[k]-f.scenes[k].Transition.Duration, f.scenes[k].Transition.Duration
	m := &doc.Move{
		ID: Derive(f.seed, fmt.Sprintf("%s/change/%d", l.ID, k)), Kind: doc.Change, Effect: doc.Becoming, Duration: lasts, Easing: f.easing(k),
		Change: &doc.ChangeParams{To: to.Clone()},
	}
	if lasts < doc.MinDuration {
		begin, m.Duration, m.Easing = f.origin[k], doc.MinDuration, "step-start"
	}
	startAt(m, begin)
	l.Moves = append(l.Moves, m)
}

// comes lets a layer that begins with scene k come through the transition into that; a view sees the whole page before.
func (f *folder) comes(n, b *doc.Layer, k int) {
	if b.Kind == doc.ViewKind {
		n.Place = f.whole()
		f.becomes(n, doc.Difference(n, b), k)
		return
	}
	if !f.waits(b, k) && b.Mask == "" {
		own := n.Moves
		n.Moves = nil
		begin, lasts := f.origin[k]-f.scenes[k].Transition.Duration, f.scenes[k].Transition.Duration
		if first := comesFirst(f.scenes[k], b, f.timing[k]); first != nil && f.timing[k].Moves[first.ID].Begin+f.origin[k] < begin {
			begin, lasts = f.timing[k].Moves[first.ID].Begin+f.origin[k], 0 // it has been going for a while
		}
		f.fades(n, doc.Entrance, k, begin, lasts)
		n.Moves = append(n.Moves, own...) // it has come before it does anything
	}
}

// whole is the place of a view that shows all of the page.
func (f *folder) whole() doc.Place {
	w, h := float64(f.p.Film.Width), float64(f.p.Film.Height)
	return doc.Place{X: w / 2, Y: h / 2, W: w, H: h}
}

// leaves lets a layer that is not in scene k go through the transition into that.
func (f *folder) leaves(a *doc.Layer, k int) {
	p := f.of[a]
	if a.Kind == doc.ViewKind {
		all := *p.head
		all.Place = f.whole()
		f.becomes(a, doc.Difference(p.head, &all), k)
		p.head = &all
		return
	}
	if f.there(p.layer, p.scene) {
		f.fades(a, doc.Exit, k, f.origin[k]-f.scenes[k].Transition.Duration, f.scenes[k].Transition.Duration)
	}
}
