package motion

import (
	"math"
	"slices"
	"sort"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/geom"
)

// Extent is what moves need to know of their layer's size.
type Extent struct {
	Box    geom.Box // in the layer's own axes
	Line   float64  // height of a line, px: how far a slide by unit travels
	Counts Counts
	Units  func(unit string) []geom.Box // the boxes of its units, in its own axes
	Lines  func(m *doc.Move) *geom.Path // what a path goes along instead of its own line, from where its layer rests; nil: none does
	Away   float64                      // how many times as far away it is as the page; 0: 1
	Drives func(thread string) bool     // whether a layer of that thread can drive its edges; nil: none can
}

// Track is the compiled moves of one layer. It does not change after NewTrack and SetTravel, save for the phases that
// Link sets while a film is compiled.
type Track struct {
	presence []presence
	ties     []tied
	changes  []Change
	paths    []path
	loops    []loop
	finest   string
	away     float64    // what paths do seems so many times less
	rest     geom.Point // where the layer rests, in its parent's axes
}

type path struct {
	Interval
	ease    Easing
	before  Easing // before its begin, and after an end going back
	measure *geom.Measure
	rest    geom.Point // where on the line the rest pose lies

	restShare float64   // the same, as a share of the line
	ways      []float64 // how far it is to each of its stretches, where something rolls by it
	turn      bool
	back      bool
	steady    bool // keeps its speed: goes on beyond its end
	thread    bool // lasts as long as the thread, on film time
}

// NewTrack compiles the moves of a layer with their resolved times. lasting are paths of its thread that last as long
// as that, with their times on this scene's clock.
func NewTrack(l *doc.Layer, t *Timing, x Extent, lasting []Lasting) *Track {
	k := &Track{away: max(x.Away, 0), rest: geom.Point{X: l.Place.X, Y: l.Place.Y}}
	if k.away == 0 {
		k.away = 1
	}
	for _, m := range l.Moves {
		iv := t.Moves[m.ID]
		switch m.Kind {
		case doc.Entrance, doc.Exit:
			if t, ok := x.tied(m); ok {
				k.ties = append(k.ties, t)
			} else if p, ok := newPresence(m, iv, &x); ok {
				k.presence = append(k.presence, p)
			}
		case doc.MotionPath:
			if m.Lasts != doc.WholeThread {
				k.addPath(m, iv, &x, false)
			}
		case doc.Change:
			if m.Change != nil {
				k.changes = append(k.changes, newChange(m, l, iv, &x))
			}
		case doc.Loop:
			if m.Drifts() {
				if m.Lasts != doc.WholeThread {
					k.addLine(m, iv, &x, false)
				}
			} else if s, ok := newLoop(m, iv, &x); ok {
				k.loops = append(k.loops, s)
			}
		}
	}
	for _, m := range lasting {
		if m.Move.Kind == doc.Loop {
			k.addLine(m.Move, m.Interval, &x, true)
		} else {
			k.addPath(m.Move, m.Interval, &x, true)
		}
	}
	k.presence = sortPresence(k.presence)
	sort.SliceStable(k.changes, func(i, j int) bool { return k.changes[i].Begin < k.changes[j].Begin })
	k.finest = finest(k)
	return k
}

// LeavingAnew is the track, for SetTravel to tell again how far what goes off the page goes.
func (k *Track) LeavingAnew() *Track {
	n := *k
	n.presence = slices.Clone(k.presence)
	return &n
}

func (k *Track) addPath(m *doc.Move, iv Interval, x *Extent, thread bool) {
	d, err := geom.ParseData(m.Path.D)
	if err != nil {
		return // validation has refused it
	}
	along := m.Path.Along != "" // its line is told from where the layer rests, be it the other’s or what that was
	if x.Lines != nil {
		if line := x.Lines(m); line != nil {
			d = line
		}
	}
	p := path{
		Interval: iv, ease: easingOf(m.Easing, DefaultEasing(m)), before: beforeEasing(m.Easing, DefaultEasing(m)), measure: geom.NewMeasure(d), turn: m.Path.TurnAlong, back: m.Alternate,
		steady: m.Lasts == doc.WholeScene && m.Keeps == "speed", thread: thread,
	}
	if p.restShare = m.Path.RestShare(); !along {
		p.rest, _ = p.measure.At(p.restShare)
	}
	k.paths = append(k.paths, p)
}

// addLine adds a loop that drifts: a path along a line, from its begin to its end, at rest half way.
func (k *Track) addLine(m *doc.Move, iv Interval, x *Extent, thread bool) {
	from, to := m.Goes().Line(x.of(m, iv.Pass))
	line := &geom.Path{}
	line.Move(from)
	line.Line(to)
	k.paths = append(k.paths, path{
		Interval: iv, ease: easingOf(m.Easing, DefaultEasing(m)), before: beforeEasing(m.Easing, DefaultEasing(m)), measure: geom.NewMeasure(line),
		back: m.Alternate, thread: thread, restShare: 0.5,
	})
}

// finest returns the smallest unit the moves divide the layer into, "" for none.
func finest(k *Track) string {
	found := map[string]bool{}
	for i := range k.presence {
		found[k.presence[i].units.unit] = true
	}
	for i := range k.loops {
		found[k.loops[i].units.unit] = true
	}
	for i := range k.changes {
		found[k.changes[i].units.unit] = true
	}
	for _, u := range []string{doc.ByPart, doc.ByLetter, doc.ByWord, doc.ByLine} {
		if found[u] {
			return u
		}
	}
	return ""
}

// Finest returns the smallest unit that the moves of a layer name, "" for none.
func Finest(l *doc.Layer) string {
	best := ""
	for _, m := range l.Moves {
		switch unit := unitOf(m, l); {
		case unit == "" || best == doc.ByLetter:
		case best == "" || unit == doc.ByLetter || best == doc.ByLine:
			best = unit
		}
	}
	return best
}

// Still reports whether nothing in the track ever moves the layer.
func (k *Track) Still() bool {
	return len(k.presence)+len(k.paths)+len(k.loops)+len(k.ties)+len(k.changes) == 0
}

// EntersEarly reports whether an entrance begins inside the scene's own transition.
func (k *Track) EntersEarly() bool {
	return len(k.presence) > 0 && !k.presence[0].exit && k.presence[0].Begin < 0
}

// At returns the pose of the whole layer at a clock. What its units do by themselves is not in it: see ByUnit.
func (k *Track) At(c Clock, mem *Veils) Pose {
	p := Rest
	if k.unitsDeciding(c) {
		// Whether it is there at all is decided for the whole; how much of it shows, for each unit.
		k.presenceAt(c, nil, &p, mem)
		p = Pose{Present: p.Present, Waiting: p.Waiting, Opacity: 1}
	} else {
		k.presenceAt(c, nil, &p, mem)
	}
	off, angle := k.pathsAt(c)
	p.Offset = p.Offset.Add(off)
	p.Angle = angle
	p.Loops = k.loopsAt(c, nil)
	for i := range k.ties {
		p.Veil = mem.With(p.Veil, k.ties[i].veil(mem))
	}
	return p
}

// Along returns where paths alone have brought the layer: its offset and angle.
func (k *Track) Along(c Clock) (geom.Point, float64) { return k.pathsAt(c) }

// AlongThread returns where paths that last as long as the thread have brought the layer.
func (k *Track) AlongThread(c Clock) (off geom.Point, angle float64) {
	for i := range k.paths {
		if k.paths[i].thread {
			o, a := k.paths[i].at(c)
			off, angle = off.Add(o), angle+a
		}
	}
	return off.Mul(1 / k.away), angle
}

func (k *Track) pathsAt(c Clock) (off geom.Point, angle float64) {
	for i := range k.paths {
		o, a := k.paths[i].at(c)
		off = off.Add(o)
		angle += a
	}
	return off.Mul(1 / k.away), angle
}

// loopsAt sums the loops of the whole layer (u nil), or those that move its units by themselves.
func (k *Track) loopsAt(c Clock, u *Unit) (sum effect.Going) {
	for i := range k.loops {
		if (k.loops[i].units.unit != "") == (u != nil) {
			v := k.loops[i].at(c, u)
			sum = sum.Plus(&v, 1)
		}
	}
	return
}

// ByUnit returns the unit the layer is divided into at a clock, "" when it moves as one.
func (k *Track) ByUnit(c Clock) string {
	if k.finest == "" {
		return ""
	}
	if k.unitsDeciding(c) || k.LoopsByUnit() || k.partsChange(c) {
		return k.finest
	}
	return ""
}

// LoopsByUnit reports whether loops move units of the layer by themselves.
func (k *Track) LoopsByUnit() bool {
	for i := range k.loops {
		if k.loops[i].units.unit != "" {
			return true
		}
	}
	return false
}

// UnitAt returns what moves by unit, and with them presence moves of the whole, make of one unit: turns and growth about its own
// middle, offsets in the parent's axes, how much of it shows.
func (k *Track) UnitAt(c Clock, u Unit, mem *Veils) Pose {
	p := Rest
	if k.unitsDeciding(c) {
		k.presenceAt(c, &u, &p, mem)
	}
	p.Loops = k.loopsAt(c, &u)
	if k.partsChange(c) {
		off, apart := k.partsAt(c, &u)
		p.Offset, p.Apart = p.Offset.Add(off), apart
	}
	return p
}

// Progress returns the directed progress of a path or loop that fills both ways, before easing: 0 before
// the begin, the value at the end after it. passes counts whole passes done.
func (iv Interval) Progress(t Instant, alternate bool) (passes int64, x float64) {
	t = t.Sub(iv.Begin)
	if t.Num <= 0 || iv.Pass <= 0 || iv.End <= iv.Begin {
		return 0, 0
	}
	all := -1.0 // passes done, where they are no whole ms
	if iv.Stretched > 0 {
		all = min(t.Over(iv.End-iv.Begin), 1) * iv.Stretched
	} else if float64(iv.Pass)*iv.Passes != float64(iv.End-iv.Begin) && (t.Cmp(iv.End-iv.Begin) >= 0 || t.Over(iv.Pass) > iv.Passes) {
		all = iv.Passes
	}
	if all >= 0 {
		n := math.Floor(all + 1e-12)
		if x = max(all-n, 0); x == 0 && all >= iv.Passes {
			n, x = n-1, 1
		}
		if alternate && int64(n)&1 == 1 {
			x = 1 - x
		}
		return int64(n), x
	}
	if t.Cmp(iv.End-iv.Begin) >= 0 {
		t = Millis(iv.End - iv.Begin)
		passes, x = t.Passes(iv.Pass)
		if x == 0 {
			passes, x = passes-1, 1
		}
	} else {
		passes, x = t.Passes(iv.Pass)
	}
	if alternate && passes&1 == 1 {
		x = 1 - x
	}
	return passes, x
}

// share returns how far along its line a path is, eased.
func (m *path) share(c Clock) float64 {
	t := c.of(m.Begin)
	if m.thread {
		t = c.At
	}
	n, x := m.Progress(t, m.back)
	ease := m.ease
	if since := t.Sub(m.Begin); since.Num < 0 || m.back && n&1 == 1 && since.Cmp(m.End-m.Begin) >= 0 {
		ease = m.before
	}
	if m.steady && !m.back {
		x += float64(n) // beyond its end it goes on as it left
	}
	return ease(x)
}

func (m *path) at(c Clock) (geom.Point, float64) {
	p, angle := m.measure.At(m.share(c))
	if !m.turn {
		angle = 0
	}
	return p.Sub(m.rest), angle
}

// Lasting is a path that lasts as long as its thread, with its times on the clock of one of the thread's scenes.
type Lasting struct {
	Move *doc.Move
	Interval
}
