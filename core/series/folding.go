package series

import (
	"cmp"
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/ink"
	"capstan/core/motion"
	"capstan/core/words"
)

// folder makes one scene of several.
type folder struct {
	p      *doc.Project
	seed   string
	film   *frame.Film // with all of them
	first  int         // the index of the first
	scenes []*doc.Scene
	timing []*motion.Timing
	origin []int64 // when the clock of each begins on that of the first
	layers []*doc.Layer
	of     map[*doc.Layer]*part // what the layers of the folded scene were last
	called []map[string]string  // by scene: the threads that threads have become
	named  []map[string]bool    // by scene: threads that moves name
	lost   map[string]bool      // moves of layers that are never there
	loops  map[string]string    // loops that one that goes on stands for, by their ids
	roots  map[string]int64     // by the ids of loops: when they would begin on the folded clock if they went on none
	parts  map[string][]string  // by thread: those of the layers that it has become
	joins  *doc.Layer           // the layer that is being joined; nil: none is
	bases  []*doc.Layer         // layers in place of backgrounds
	based  doc.Fill             // the background that is seen
}

// part is what a layer of the folded scene was last.
type part struct {
	thread string
	layer  *doc.Layer
	scene  int
	rest   *doc.Layer // as it rests in the folded scene
	head   *doc.Layer // as it is at the end of that scene, without what paths have made of it

	// Where paths of scenes before have brought it, which they keep on doing: its place is so much less in these scenes.
	off   geom.Point
	angle float64
}

// brought is where the paths of a layer have brought it when its scene ends, but for those that go on in scene k.
func (f *folder) brought(p *part, b *doc.Layer, k int) (geom.Point, float64) {
	if f.carries(p, b, k) || !slices.ContainsFunc(p.layer.Moves, func(m *doc.Move) bool { return m.Kind == doc.MotionPath }) {
		return p.off, p.angle
	}
	pose := f.film.EndPose(f.first+p.scene, p.layer.ID)
	return p.off.Add(pose.Offset), p.angle + pose.Angle
}

// relative is a layer of a later scene as its part of the folded one has to rest, to be where it is.
func (f *folder) relative(b *doc.Layer, p *part, k int) *doc.Layer {
	off, angle := f.brought(p, b, k)
	if off == (geom.Point{}) && angle == 0 {
		return b
	}
	near := func(v, to float64) float64 {
		if math.Abs(v-to) < 1e-6 {
			return to
		}
		return v
	}
	n := *b
	n.Place.X, n.Place.Y, n.Place.Turn = near(b.Place.X-off.X, p.head.Place.X), near(b.Place.Y-off.Y, p.head.Place.Y), near(b.Place.Turn-angle, p.head.Place.Turn)
	n.Moves = nil
	for _, m := range b.Moves {
		n.Moves = append(n.Moves, m.Clone())
	}
	bring(&n, off.Mul(-1), -angle)
	return &n
}

// Folded is one scene made of several.
type Folded struct {
	Scene   *doc.Scene
	Origins []int64           // when the clock of each of them begins on its own, ms
	Loops   map[string]string // loops that go on in others, by their ids
}

// Fold makes one scene of n scenes of a film that follow one another: a thread that goes on is one layer, which changes where it differed, and what
// came or went from scene to scene enters and exits. While scenes stayed, what is seen stays what it was; transitions become fades and changes.
func Fold(p *doc.Project, first, n int, seed string, assets frame.Assets) (*Folded, error) {
	f := &folder{p: p, seed: seed, first: first, of: map[*doc.Layer]*part{}, lost: map[string]bool{}, loops: map[string]string{}, roots: map[string]int64{}, parts: map[string][]string{}}
	var err error
	if f.film, err = frame.Compile(p, assets, nil); err != nil {
		return nil, err
	}
	now := int64(0)
	for k := range n {
		was := p.Film.Scenes[first+k]
		t, err := motion.Resolve(was, f.into(k))
		if err != nil {
			return nil, err
		}
		s := was.Clone()
		if k > 0 {
			now += s.Transition.Duration
			plainInks(s, f.scenes[0])
		}
		f.scenes, f.timing, f.origin = append(f.scenes, s), append(f.timing, t), append(f.origin, now)
		f.called, f.named = append(f.called, map[string]string{}), append(f.named, namedBy(s.Layers))
		now += t.Stay
		if l := lastingIn(s); l != nil {
			return nil, words.New("fold.lasting", l.Name)
		}
	}
	if now > doc.MaxTime {
		return nil, words.New("fold.long", doc.MaxTime/60000)
	}
	for k, s := range f.scenes {
		f.lose(s.Layers, k)
	}
	f.based = f.scenes[0].Background
	for k := range n {
		f.base(k)
		if err := f.merge(&f.layers, f.scenes[k].Layers, k, k-1, len(f.bases)); err != nil {
			return nil, err
		}
		f.rename(k)
	}
	f.finish(now)
	return &Folded{f.scenes[0], f.origin, f.loops}, nil
}

// into is how long the transition into a scene of the series lasts.
func (f *folder) into(k int) int64 {
	if f.first+k == 0 {
		return 0
	}
	return f.p.Film.Scenes[f.first+k].Transition.Duration
}

// lastingIn returns a layer whose path lasts as long as its thread; nil where there is none.
func lastingIn(s *doc.Scene) (found *doc.Layer) {
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			if m.Lasts == doc.WholeThread {
				found = l
			}
		}
		return found == nil
	})
	return
}

// plainInks gives colours that come from roles, and are others by those of another scene, as they are.
func plainInks(s, other *doc.Scene) {
	plain := func(k ink.Ink) {
		if is := ink.Resolved(k, s); *k.Role != "" && is != ink.Resolved(k, other) {
			*k.Colour, *k.Role, *k.Tone = is, "", 0
		}
	}
	ink.Each(s, plain)
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		Becoming(l, func(b *doc.Becomes) {
			to := (&doc.Layer{}).After(b)
			ink.OfLayer(to, plain)
			if b.Fill != nil {
				*b.Fill = to.Fill
			}
		})
		return true
	})
}

// merge puts the layers of scene k into a list of the folded scene, from a place on: those that go on into their layers, others above what they lie
// upon. What was there in the scene that was the last of the list and is not in this one goes.
func (f *folder) merge(list *[]*doc.Layer, incoming []*doc.Layer, k, last, from int) error {
	met := map[*doc.Layer]*doc.Layer{} // by the incoming ones
	var order []int
	latest := make(map[string]int, len(*list))
	for i, a := range *list {
		if p := f.of[a]; p != nil && p.scene < k {
			latest[p.thread] = i
		}
	}
	for _, b := range incoming {
		at, there := latest[b.Thread]
		if there && f.goesOn((*list)[at], b, k) {
			met[b] = (*list)[at]
			order = append(order, at)
		} else {
			order = append(order, -1)
		}
	}
	for i, keep := range rising(order) {
		if !keep {
			delete(met, incoming[i])
		}
	}
	place := from
	for _, b := range incoming {
		a := met[b]
		if a != nil {
			if err := f.join(a, b, k, last); err != nil {
				return err
			}
			for (*list)[place] != a { // those that go on lie in one order in both
				place++
			}
			place++
			continue
		}
		if b.Kind == doc.ViewKind && f.hasView(*list) {
			return words.New("fold.view", b.Name)
		}
		n := f.fresh(b, k)
		if n == nil {
			continue
		}
		if k > 0 {
			f.comes(n, b, k)
		}
		*list = slices.Insert(*list, place, n)
		place++
	}
	for _, a := range *list {
		if p := f.of[a]; p != nil && p.scene == last && last < k {
			f.leaves(a, k)
		}
	}
	return nil
}

func (f *folder) hasView(list []*doc.Layer) bool {
	return slices.ContainsFunc(list, func(l *doc.Layer) bool { return l.Kind == doc.ViewKind })
}

// rising marks a longest subsequence that rises, of what is not negative: the layers that lie in one order in both lists.
func rising(list []int) []bool {
	before, ends := make([]int, len(list)), []int{} // by length: the place of the least value that ends such a sequence
	for i, v := range list {
		if v < 0 {
			continue
		}
		n, _ := slices.BinarySearchFunc(ends, v, func(at, v int) int { return list[at] - v })
		if before[i] = -1; n > 0 {
			before[i] = ends[n-1]
		}
		if n == len(ends) {
			ends = append(ends, i)
		} else {
			ends[n] = i
		}
	}
	out := make([]bool, len(list))
	if len(ends) > 0 {
		for i := ends[len(ends)-1]; i >= 0; i = before[i] {
			out[i] = true
		}
	}
	return out
}

// fresh is a layer of scene k as one of its own in the folded scene, with what is in it; nil where it is never there.
func (f *folder) fresh(b *doc.Layer, k int) *doc.Layer {
	n := *b
	if f.never(b, k) && !unseen(&n, f.named[k]) {
		return nil
	}
	moves := n.Moves
	n.Moves, n.Children = nil, nil
	for _, m := range moves {
		if m := f.move(m, k); m != nil {
			n.Moves = append(n.Moves, m)
		}
	}
	for _, c := range b.Children {
		if c := f.fresh(c, k); c != nil {
			n.Children = append(n.Children, c)
		}
	}
	if b.Kind == doc.Group && !slices.ContainsFunc(n.Children, func(c *doc.Layer) bool { return c.Mask == "" }) {
		return nil
	}
	if had := f.parts[b.Thread]; len(had) > 0 {
		n.Thread = Derive(f.seed+"/thread", b.ID)
	}
	f.parts[b.Thread] = append(f.parts[b.Thread], n.Thread)
	f.is(&n, b, k)
	return &n
}

// never reports whether a layer is not there all through scene k.
func (f *folder) never(b *doc.Layer, k int) bool {
	first := comesFirst(f.scenes[k], b, f.timing[k])
	return first != nil && first.Kind == doc.Entrance && f.dropped(first, k)
}

// lose notes the moves of layers of scene k that are not there all through it.
func (f *folder) lose(list []*doc.Layer, k int) (some bool) {
	for _, l := range list {
		n := *l
		lost := f.never(l, k) && (!unseen(&n, f.named[k]) || n.Moves == nil)
		if l.Kind == doc.Group && !f.lose(l.Children, k) {
			lost = true
		}
		if lost {
			doc.Walk([]*doc.Layer{l}, func(o, _ *doc.Layer) bool {
				for _, m := range o.Moves {
					f.lost[m.ID] = true
				}
				return true
			})
		}
		some = some || !lost && l.Mask == ""
	}
	return some
}

// is notes that a layer of the folded scene is one of scene k now.
func (f *folder) is(n, b *doc.Layer, k int) {
	f.of[n] = &part{thread: b.Thread, layer: b, scene: k, rest: b, head: f.head(b, k)}
	f.called[k][b.Thread] = n.Thread
}

// head is what the changes of a layer have made of it when scene k ends.
func (f *folder) head(b *doc.Layer, k int) *doc.Layer {
	var changes []*doc.Move
	for _, m := range b.Moves {
		if m.Kind == doc.Change && f.timing[k].Moves[m.ID].Begin < f.timing[k].Stay {
			changes = append(changes, m)
		}
	}
	slices.SortStableFunc(changes, func(x, y *doc.Move) int {
		return int(f.timing[k].Moves[x.ID].Begin - f.timing[k].Moves[y.ID].Begin)
	})
	l := b
	for _, m := range changes {
		l = l.After(&m.Change.To)
	}
	return l
}

// there reports whether a layer is there when scene k ends.
func (f *folder) there(b *doc.Layer, k int) bool { return f.film.Ends(f.first+k, b.ID) }

// waits reports whether a layer is not there as scene k begins.
func (f *folder) waits(b *doc.Layer, k int) bool {
	first := comesFirst(f.scenes[k], b, f.timing[k])
	return first != nil && first.Kind == doc.Entrance
}

// join lets a layer of the folded scene go on as one of scene k.
func (f *folder) join(a, b *doc.Layer, k, last int) error {
	p, was := f.of[a], f.of[a].scene
	off, angle := f.brought(p, b, k)
	from, carries := f.from(p, b, k), f.carries(p, b, k)
	b = f.relative(b, p, k)
	if diff := doc.Difference(from, b); len(diff.Names()) > 0 {
		f.becomes(a, diff, k)
	}
	begin, lasts := f.origin[k]-f.scenes[k].Transition.Duration, f.scenes[k].Transition.Duration
	there, waits := f.there(p.layer, p.scene), f.waits(b, k)
	switch {
	case b.Kind == doc.ViewKind || carries:
	case there && p.scene < last: // it has gone meanwhile
		there = false
		fallthrough
	default:
		if there && waits {
			f.fades(a, doc.Exit, k, begin, lasts)
		} else if !there && !waits {
			f.fades(a, doc.Entrance, k, begin, lasts)
		}
	}
	f.joins = a
	for _, m := range b.Moves {
		goes := func(o *doc.Move) bool {
			n := f.carried(o, p.scene, b, k)
			if n == m {
				f.loops[m.ID] = cmp.Or(f.loops[o.ID], o.ID)
			}
			return n == m
		}
		if slices.ContainsFunc(p.layer.Moves, goes) {
			continue
		}
		if n := f.move(m, k); n != nil {
			a.Moves = append(a.Moves, n)
		}
	}
	f.joins = nil
	f.is(a, b, k)
	f.of[a].off, f.of[a].angle = off, angle
	return f.merge(&a.Children, b.Children, k, was, 0)
}

// rename lets moves of scene k name the layers that its threads have become.
func (f *folder) rename(k int) {
	ids := map[string]bool{}
	doc.Walk(f.scenes[k].Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			ids[m.ID] = true
		}
		return true
	})
	doc.Walk(f.layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			if ids[m.ID] {
				m.RenameThreads(func(t string) string {
					if n, ok := f.called[k][t]; ok {
						return n
					}
					return t
				})
			}
		}
		return true
	})
}

// finish makes the folded scene, which stays so long in all.
func (f *folder) finish(stay int64) {
	n := len(f.scenes)
	s := f.scenes[0]
	s.AutoStay, s.EndsAtCue, s.Stay = false, "", stay
	s.Layers = f.layers
	if s.Layers == nil {
		s.Layers = []*doc.Layer{}
	}
	var cues []doc.Cue
	var runs []doc.MoveRun
	waited := int64(0)
	for k, o := range f.scenes {
		for _, q := range o.Cues {
			q.At += f.origin[k] - waited
			cues = append(cues, q)
		}
		for _, q := range o.Cues {
			waited += q.Wait
		}
		runs = append(runs, o.Runs...)
		for _, g := range o.Guides {
			if !slices.Contains(s.Guides, g) {
				s.Guides = append(s.Guides, g)
			}
		}
	}
	s.Cues, s.Runs, s.Stay = cues, runs, stay-waited
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			now := func(id string) string { return cmp.Or(f.loops[id], id) }
			m.Rename(now)
			if m.Start.Of, m.Until = now(m.Start.Of), now(m.Until); m.End != nil {
				m.End.Of = now(m.End.Of)
			}
		}
		return true
	})
	after := f.first + n
	if shown := f.p.Film.Shown(); after < len(shown) {
		swap := map[string]string{}
		for thread, parts := range f.parts {
			if len(parts) > 1 && shown[after].Thread(thread) != nil {
				last := parts[len(parts)-1]
				swap[thread], swap[last] = last, thread
			}
		}
		doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
			for _, m := range l.Moves {
				if swap[l.Thread] != "" && m.Continues != "" {
					m.Continues = ""
					f.begin(m, f.roots[m.ID])
				}
			}
			return true
		})
		Rethread(s, swap)
	}
}
