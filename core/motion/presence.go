package motion

import (
	"math"
	"sort"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/geom"
)

// presence is an entrance or exit.
type presence struct {
	Interval
	id       string
	exit     bool
	back     bool
	sudden   bool
	rule     func(effect.Moment) effect.Shown // nil: it is there, or gone, from its begin on
	front    *effect.Front                    // uncovers it; nil: nothing does
	ease     Easing
	units    byUnit
	toward   float64 // of what goes off the page: its direction of travel
	offPage  bool
	distance float64 // that is, in px; 0 until SetTravel says
}

// newPresence compiles an entrance or exit; ok is false for one whose effect this version does not know: it plays as nothing.
func newPresence(m *doc.Move, iv Interval, x *Extent) (p presence, ok bool) {
	c := m.Comes()
	if c == nil {
		return p, false
	}
	p = presence{
		Interval: iv, id: m.ID, exit: m.Kind == doc.Exit, back: m.Back, sudden: c.Sudden,
		ease: easingOf(m.Easing, DefaultEasing(m)), units: newByUnit(m, x),
	}
	if c.Even {
		p.ease = Linear
	}
	of := x.of(m, iv.Pass)
	of.Unit = p.units.unit
	if c.Rule != nil {
		p.rule = c.Rule(of)
	}
	if c.Front != nil {
		p.front = c.Front(of)
	}
	if c.OffPage != nil {
		p.toward, p.offPage = c.OffPage(of)
	}
	return p, true
}

// sortPresence puts presence moves in the order in which they decide; an exit does nothing while the layer is absent.
func sortPresence(list []presence) []presence {
	sort.SliceStable(list, func(i, j int) bool { return list[i].Begin < list[j].Begin })
	kept := list[:0]
	for _, p := range list {
		if n := len(kept); p.exit && n > 0 && kept[n-1].exit && kept[n-1].End <= p.Begin {
			continue
		}
		kept = append(kept, p)
	}
	return kept
}

// Idle reports whether a move of a layer changes nothing since the layer is already what it would make it: an entrance while it is there, an
// exit while it is gone.
func Idle(l *doc.Layer, t *Timing, id string) bool {
	var list []presence
	for _, m := range l.Moves {
		if m.Kind == doc.Entrance || m.Kind == doc.Exit {
			list = append(list, presence{Interval: t.Moves[m.ID], id: m.ID, exit: m.Kind == doc.Exit})
		}
	}
	sort.SliceStable(list, func(i, j int) bool { return list[i].Begin < list[j].Begin })
	there, end := len(list) > 0 && list[0].exit, int64(math.MinInt64)
	for _, p := range list {
		if p.id == id {
			return p.exit != there && p.Begin >= end
		}
		there, end = !p.exit, max(end, p.End)
	}
	return false
}

// showing is what one presence move makes of a layer or unit at a time.
type showing struct {
	effect.Shown
	wiped bool // a front uncovers it
	ended bool // the move is over
	begun bool // shows anything yet
}

// progress returns how far the move is, 0..1 before easing, for the whole layer or a unit.
func (m *presence) progress(c Clock, u *Unit) (x float64, begun, ended bool) {
	t := c.of(m.Begin).Sub(m.Begin)
	length := m.End - m.Begin
	if t.Num < 0 {
		return 0, false, false
	}
	if length <= 0 || t.Cmp(length) >= 0 || m.sudden && m.units.unit == "" {
		return 1, true, true
	}
	x = t.Over(length)
	if u == nil || m.units.unit == "" {
		return x, true, false
	}
	x, begun = m.units.share(x, m.units.place(u))
	return x, begun, x >= 1
}

func (m *presence) at(c Clock, u *Unit) showing {
	x, begun, ended := m.progress(c, u)
	s := showing{Shown: effect.Shown{Opacity: 1}, begun: begun}
	if m.sudden {
		// Ignores easing: an entrance shows, an exit hides, from the begin on.
		s.ended = ended || begun
		if begun == m.exit {
			s.Opacity = 0
		}
		return s
	}
	s.ended = ended
	if ended {
		if m.exit {
			s.Opacity = 0
		}
		return s
	}
	at := effect.Moment{P: m.ease(x), X: x, Distance: m.distance, Through: m.exit && !m.back}
	if m.exit {
		at.P, at.X = 1-at.P, 1-at.X
	}
	if m.rule != nil {
		s.Shown = m.rule(at)
	}
	s.wiped = m.front != nil
	s.Away = s.Away && !m.exit
	if !m.exit && !begun {
		s.Opacity = 0 // a unit that has not begun is absent, whatever the easing
	}
	return s
}

func (m *presence) reveal(s showing) Reveal {
	r := Reveal{Opacity: s.Opacity, Share: 1}
	if !s.wiped {
		return r
	}
	r.Front = m.front
	if r.Share = s.Share; m.exit && !m.back {
		r.Share, r.Inverted = 1-s.Share, true
	}
	return r
}

// deciding returns the presence moves that have a say at a clock: from the first that still runs, or else the one begun last, to that; -1 where none
// has begun.
func (k *Track) deciding(c Clock) (first, last int) {
	first, last = -1, -1
	for i := range k.presence {
		m := &k.presence[i]
		if c.of(m.Begin).Cmp(m.Begin) < 0 {
			continue
		}
		if last = i; first < 0 && !m.over(c) {
			first = i
		}
	}
	if first < 0 {
		first = last
	}
	return
}

// unitsDeciding reports whether a presence move by unit has a say at a clock.
func (k *Track) unitsDeciding(c Clock) bool {
	first, last := k.deciding(c)
	for i := max(first, 0); i <= last; i++ {
		if m := &k.presence[i]; m.units.unit != "" && (i < last || !m.over(c)) {
			return true
		}
	}
	return false
}

func (m *presence) over(c Clock) bool {
	return c.of(m.Begin).Sub(m.Begin).Cmp(m.End-m.Begin) >= 0
}

// presenceAt adds what the presence moves make of the layer, or of a unit, to a pose.
func (k *Track) presenceAt(c Clock, u *Unit, out *Pose, mem *Veils) {
	if len(k.presence) == 0 {
		return
	}
	first, last := k.deciding(c)
	if last < 0 {
		if !k.presence[0].exit {
			*out = Pose{Waiting: true, Offset: out.Offset}
		}
		return
	}
	m := &k.presence[last]
	if first == last {
		s := m.at(c, u)
		if m.exit && (s.ended || !k.present(first)) {
			*out = Pose{}
			return
		}
		out.add(&s.Shown)
		if !m.exit && k.present(first) {
			return // it is there already
		}
		out.Waiting = !m.exit && (s.Opacity == 0 || s.Away || s.wiped && s.Share == 0)
		if s.wiped {
			out.Veil = mem.Of(m.reveal(s))
		} else {
			out.Opacity = s.Opacity
		}
		return
	}
	k.overlapping(c, u, first, last, out, mem)
}

// present reports whether the layer is there before presence move i begins, those before it being over.
func (k *Track) present(i int) bool {
	if i == 0 {
		return k.presence[0].exit
	}
	return !k.presence[i-1].exit
}

// overlapping combines presence moves that overlap, in the order of their begins, from the state before the first that still runs: an exit lets
// through what is there by its share, an entrance adds its own, v <- v x and v <- 1 - (1-v)(1-e). Where wipes are among them they are a veil; of
// those before the last MaxReveals counts how much they show.
func (k *Track) overlapping(c Clock, u *Unit, first, last int, out *Pose, mem *Veils) {
	v := 0.0
	if k.present(first) {
		v = 1
	}
	wiped := false
	for i := max(first, last-MaxReveals+1); i <= last; i++ {
		wiped = wiped || k.presence[i].at(c, u).wiped
	}
	veil := mem.begin()
	for i := first; i <= last; i++ {
		m := &k.presence[i]
		s := m.at(c, u)
		out.add(&s.Shown)
		if m.exit && s.ended && i == last {
			*out = Pose{}
			return
		}
		r := m.reveal(s)
		switch {
		case wiped && last-i < MaxReveals && len(veil) > 0:
			veil = append(veil, Term{Reveal: r}, Term{Join: Over})
			if m.exit {
				veil[len(veil)-1].Join = Times
			}
		case wiped && last-i < MaxReveals && m.exit:
			if r.Opacity *= v; r.Opacity > 0 {
				veil = append(veil, Term{Reveal: r})
			} else {
				v = 0
			}
		case wiped && last-i < MaxReveals && v == 0:
			veil = append(veil, Term{Reveal: r})
		case wiped && last-i < MaxReveals-1 && v < 1: // what the exits before it left, and its own
			veil = append(veil, Term{Reveal: Reveal{Opacity: v, Share: 1}}, Term{Reveal: r}, Term{Join: Over})
		default:
			shows := s.Opacity
			if s.wiped {
				shows *= s.Share
			}
			if m.exit {
				v *= shows
			} else {
				v = 1 - (1-v)*(1-shows)
			}
		}
	}
	if len(veil) > 0 {
		out.Veil = mem.end(veil)
	} else {
		out.Opacity = v
	}
}

// add moves, grows and blurs a pose as a presence move says.
func (p *Pose) add(s *effect.Shown) {
	p.Offset = p.Offset.Add(s.Offset)
	p.Growth = (1+p.Growth)*(1+s.Growth) - 1
	p.Blur = math.Hypot(p.Blur, s.Blur)
	p.Tilts = p.Tilts.And(s.Tilt)
	if s.Drawn.Pen != nil && (p.Drawn.Pen == nil || s.Drawn.P < p.Drawn.P) {
		p.Drawn = s.Drawn
	}
}

// SetTravel works out how far what goes off the page goes: f returns the least distance along a direction (a unit vector in the
// parent's axes), measured with paths at a time on the scene's clock.
func (k *Track) SetTravel(f func(direction geom.Point, at int64) float64) {
	for i := range k.presence {
		p := &k.presence[i]
		if !p.offPage {
			continue
		}
		v := geom.Rotate(p.toward).ApplyVector(geom.Point{X: 1})
		at := p.Begin
		if p.exit {
			at = p.End
		}
		// An entrance and an exit back come from, and go to, against the direction of travel.
		if !p.exit || p.back {
			v = v.Mul(-1)
		}
		if d := f(v, at); !math.IsInf(d, 0) && !math.IsNaN(d) {
			p.distance = d
		}
	}
}
