package motion

import (
	"sort"

	"capstan/core/doc"
	"capstan/core/geom"
)

// Side says from where a scene is looked at.
type Side int

// The sides: within its own stay; leaving it, in the transition after; entering it, in the one before.
const (
	Inside Side = iota
	Leaving
	Entering
)

// Clock is a time on a scene's clock. Loops follow At through transitions; other moves stand at the
// scene's end when leaving, and at its clock 0 when entering unless they begin before 0.
type Clock struct {
	At   Instant
	Side Side
	Stay int64 // ms
}

func (c Clock) of(begin int64) Instant {
	switch {
	case c.Side == Leaving:
		return Millis(c.Stay)
	case c.Side == Entering && begin >= 0:
		return Millis(0)
	}
	return c.At
}

// Pose is what the moves of one layer add to its rest pose at a time.
type Pose struct {
	Present bool       // false: not drawn at all
	Waiting bool       // has an entrance that has shown nothing yet
	Opacity float64    // of presence moves, 0..1
	Offset  geom.Point // page px in the parent's axes, from paths
	Angle   float64    // degrees, from turning along paths
	Turn    float64    // degrees about the pivot, from spins
}

// Rest is the pose of a layer that nothing moves.
var Rest = Pose{Present: true, Opacity: 1}

// Track is the compiled moves of one layer. It does not change after NewTrack, save for the phases that
// Link sets while a film is compiled.
type Track struct {
	presence []presence
	paths    []path
	spins    []spin
}

type presence struct {
	Interval
	exit bool
	once bool
	ease Easing
}

type path struct {
	Interval
	ease    Easing
	measure *geom.Measure
	rest    geom.Point // where on the line the rest pose lies
	turn    bool
	back    bool
}

type spin struct {
	Interval
	id, continues string
	ease          Easing
	easing        string
	sense         float64
	back          bool
	phase         int64 // ms into the cycle (there and back: into both ways) at the begin
}

// NewTrack compiles the moves of a layer with their resolved times.
func NewTrack(l *doc.Layer, t *Timing) *Track {
	k := &Track{}
	for _, m := range l.Moves {
		iv := t.Moves[m.ID]
		ease := easingOf(m.Easing, DefaultEasing(m.Kind))
		switch m.Kind {
		case doc.Entrance, doc.Exit:
			k.presence = append(k.presence, presence{iv, m.Kind == doc.Exit, m.Effect == doc.AtOnce, ease})
		case doc.MotionPath:
			d, err := geom.ParseData(m.Path.D)
			if err != nil {
				continue // validation has refused it
			}
			p := path{Interval: iv, ease: ease, measure: geom.NewMeasure(d), turn: m.Path.TurnAlong, back: m.Alternate}
			p.rest, _ = p.measure.At(m.Path.RestShare())
			k.paths = append(k.paths, p)
		case doc.Loop:
			s := spin{
				Interval: iv, id: m.ID, continues: m.Continues, ease: ease, easing: m.Easing,
				sense: 1, back: m.Alternate,
			}
			if m.Spin != nil && m.Spin.Anticlockwise {
				s.sense = -1
			}
			k.spins = append(k.spins, s)
		}
	}
	sort.SliceStable(k.presence, func(i, j int) bool { return k.presence[i].Begin < k.presence[j].Begin })
	// An exit does nothing while the layer is absent.
	kept := k.presence[:0]
	for _, p := range k.presence {
		if n := len(kept); p.exit && n > 0 && kept[n-1].exit && kept[n-1].End <= p.Begin {
			continue
		}
		kept = append(kept, p)
	}
	k.presence = kept
	return k
}

// Still reports whether nothing in the track ever moves the layer.
func (k *Track) Still() bool { return len(k.presence)+len(k.paths)+len(k.spins) == 0 }

// EntersEarly reports whether a presence move begins inside the scene's own transition.
func (k *Track) EntersEarly() bool { return len(k.presence) > 0 && k.presence[0].Begin < 0 }

// At returns the pose at a clock.
func (k *Track) At(c Clock) Pose {
	p := Rest
	k.presenceAt(c, &p)
	for i := range k.paths {
		off, angle := k.paths[i].at(c)
		p.Offset = p.Offset.Add(off)
		p.Angle += angle
	}
	for i := range k.spins {
		p.Turn += k.spins[i].at(c.At)
	}
	return p
}

func (k *Track) presenceAt(c Clock, out *Pose) {
	if len(k.presence) == 0 {
		return
	}
	last := -1
	for i := range k.presence {
		if c.of(k.presence[i].Begin).Cmp(k.presence[i].Begin) >= 0 {
			last = i
		}
	}
	if last < 0 {
		if !k.presence[0].exit {
			*out = Pose{Waiting: true, Offset: out.Offset}
		}
		return
	}
	m := &k.presence[last]
	alpha, ended := m.alpha(c)
	if m.exit && ended {
		*out = Pose{}
		return
	}
	if last > 0 {
		before := &k.presence[last-1]
		if b, done := before.alpha(c); !done {
			switch {
			case before.exit && !m.exit:
				alpha = 1 - (1-alpha)*(1-b)
			default:
				alpha *= b
			}
		}
	}
	out.Opacity = alpha
	out.Waiting = !m.exit && alpha == 0
}

// alpha returns how much of the layer shows by this move alone, and whether the move is over.
func (m *presence) alpha(c Clock) (float64, bool) {
	t := c.of(m.Begin).Sub(m.Begin)
	if m.once || m.Pass == 0 || t.Cmp(m.Pass) >= 0 {
		if m.exit {
			return 0, true
		}
		return 1, true
	}
	x := 0.0
	if t.Num > 0 {
		x = t.Over(m.Pass)
	}
	e := min(1, max(0, m.ease(x)))
	if m.exit {
		return 1 - e, false
	}
	return e, false
}

// Progress returns the directed progress of a path or loop that fills both ways, before easing: 0 before
// the begin, the value at the end after it. passes counts whole passes done.
func (iv Interval) Progress(t Instant, alternate bool) (passes int64, x float64) {
	t = t.Sub(iv.Begin)
	if t.Num <= 0 || iv.Pass <= 0 {
		return 0, 0
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

func (m *path) at(c Clock) (geom.Point, float64) {
	_, x := m.Progress(c.of(m.Begin), m.back)
	p, angle := m.measure.At(m.ease(x))
	if !m.turn {
		angle = 0
	}
	return p.Sub(m.rest), angle
}

// at returns the turn in degrees. Whole-scene spins are reduced to one cycle in integers, before any
// trigonometry; finite ones keep their end value.
func (s *spin) at(t Instant) float64 {
	if s.Whole {
		n, x := t.Sub(s.Begin).Add(s.phase).Passes(s.Pass)
		if s.back && n&1 != 0 {
			x = 1 - x
		}
		return s.sense * 360 * s.ease(x)
	}
	n, x := s.Progress(t, s.back)
	if s.back {
		n = 0
	}
	return s.sense * 360 * (float64(n) + s.ease(x))
}

// cycle is the time after which a whole-scene spin is where it was, counting the way back.
func (s *spin) cycle() int64 {
	if s.back {
		return 2 * s.Pass
	}
	return s.Pass
}

// sameAs reports whether two linked spins are one function of time.
func (s *spin) sameAs(o *spin) bool {
	return s.Whole && o.Whole && s.Pass == o.Pass && s.sense == o.sense && s.back == o.back && s.easing == o.easing
}

// Link sets the phases of b's whole-scene loops that continue loops of a, the scene before, which stays
// stay ms; into is the duration of the transition between them (docs/motion.md, section 5).
// Equal cycles keep their phase exactly; for unequal ones it is rounded to 1 ms of the new cycle.
func Link(a, b *Track, stay, into int64) {
	for i := range b.spins {
		s := &b.spins[i]
		o := a.find(s.continues)
		if o == nil || !s.Whole || !o.Whole || o.cycle() == 0 {
			continue
		}
		ms := (o.phase + stay + into - o.Begin) % o.cycle()
		if ms < 0 {
			ms += o.cycle()
		}
		if s.cycle() != o.cycle() {
			ms = (2*ms*s.cycle() + o.cycle()) / (2 * o.cycle())
		}
		// phase is counted at the begin of s, ms at the clock 0 of its scene.
		s.phase = ms + s.Begin
	}
}

func (k *Track) find(id string) *spin {
	for i := range k.spins {
		if id != "" && k.spins[i].id == id {
			return &k.spins[i]
		}
	}
	return nil
}

// TurnBetween returns the turn from loops of a layer that is on both sides of a transition, at eased
// progress p. Linked equal loops are one function across it; others mix, and a loop on one side only contributes its
// value at that side's end, reduced to the nearest equal state.
func TurnBetween(a, b *Track, from, into Clock, p float64) float64 {
	sum := 0.0
	var restA, restB []*spin
	for i := range b.spins {
		s := &b.spins[i]
		if o := a.find(s.continues); o == nil {
			restB = append(restB, s)
		} else if o.sameAs(s) {
			sum += o.at(from.At)
		} else {
			sum += (1-p)*o.at(from.At) + p*s.at(into.At)
		}
	}
	for i := range a.spins {
		linked := false
		for j := range b.spins {
			linked = linked || b.spins[j].continues == a.spins[i].id
		}
		if !linked {
			restA = append(restA, &a.spins[i])
		}
	}
	for i := 0; i < max(len(restA), len(restB)); i++ {
		switch {
		case i >= len(restB):
			sum += (1 - p) * nearest(restA[i].at(Millis(from.Stay)))
		case i >= len(restA):
			sum += p * nearest(restB[i].at(Millis(0)))
		default:
			sum += (1-p)*restA[i].at(from.At) + p*restB[i].at(into.At)
		}
	}
	return sum
}

// nearest reduces a turn to -180..180, where it looks the same.
func nearest(deg float64) float64 {
	for deg > 180 {
		deg -= 360
	}
	for deg < -180 {
		deg += 360
	}
	return deg
}

// TurnOf returns the turn of one loop at a time, 0 for a loop the track does not have.
func (k *Track) TurnOf(id string, t Instant) float64 {
	if s := k.find(id); s != nil {
		return s.at(t)
	}
	return 0
}
