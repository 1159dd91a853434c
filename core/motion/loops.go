package motion

import (
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
)

// loop is a spin, rock or scroll.
type loop struct {
	Interval
	id, continues string
	effect        string
	ease          Easing
	easing        string
	sense         float64 // 1 or -1
	amplitude     float64 // degrees of a rock; px of a scroll's period
	ahead         float64 // share of a cycle that a rock is ahead, 0..1
	axis          geom.Point
	back          bool
	phase         int64 // ms into the cycle (there and back: into both ways) at the begin
	units         byUnit
}

// turned is what a loop adds: degrees about the pivot, or px along the layer's own axes.
type turned struct {
	turn   float64
	scroll geom.Point
	period geom.Point
	shows  float64 // how much of a scroll's repetitions
}

func (v turned) plus(o turned, k float64) turned {
	v.turn += k * o.turn
	v.scroll = v.scroll.Add(o.scroll.Mul(k))
	v.shows = min(1, max(0, v.shows+k*o.shows))
	v.period.X = max(v.period.X, o.period.X)
	v.period.Y = max(v.period.Y, o.period.Y)
	return v
}

func newLoop(m *doc.Move, iv Interval, x *Extent) loop {
	s := loop{
		Interval: iv, id: m.ID, continues: m.Continues, effect: m.Effect, ease: easingOf(m.Easing, DefaultEasing(m)), easing: m.Easing,
		sense: 1, back: m.Alternate,
	}
	switch m.Effect {
	case doc.Spin:
		if m.Spin != nil && m.Spin.Anticlockwise {
			s.sense = -1
		}
	case doc.Rock:
		s.units = newByUnit(m, x)
		if m.Rock != nil {
			s.amplitude, s.ahead = m.Rock.Angle, m.Rock.Phase
		}
	case doc.Scroll:
		if m.Scroll == nil {
			break
		}
		s.axis = geom.Rotate(m.Scroll.Direction).ApplyVector(geom.Point{X: 1})
		s.amplitude = Period(m, x.Box)
		s.Pass = CycleOfScroll(m, x.Box)
		if s.Pass > 0 {
			s.Passes = float64(s.End-s.Begin) / float64(s.Pass)
		}
	}
	return s
}

// leastPeriod is how many copies of a scroll lie over each other at most: an overlap leaves each this share of its side.
const leastPeriod = 16

// Period returns after how many px a scroll of a layer with the given box repeats, 0 for other moves.
func Period(m *doc.Move, box geom.Box) float64 {
	if m.Scroll == nil || m.Effect != doc.Scroll {
		return 0
	}
	side := box.W()
	if m.Scroll.Direction == 90 || m.Scroll.Direction == 270 {
		side = box.H()
	}
	return max(side+m.Scroll.Gap, side/leastPeriod, 1)
}

// CycleOfScroll returns the time after which a scroll is where it was: its period over its speed, rounded to ms.
func CycleOfScroll(m *doc.Move, box geom.Box) int64 {
	if m.Scroll == nil || m.Scroll.Speed <= 0 {
		return 0
	}
	return max(1, int64(math.Round(Period(m, box)/m.Scroll.Speed*1000)))
}

// at returns the loop's value for the layer (u nil) or one of its units. Whole-scene loops are reduced to one cycle in
// integers, before any trigonometry; finite spins and scrolls keep their end value, finite rocks come to rest.
func (s *loop) at(t Instant, u *Unit) turned {
	if s.Pass <= 0 || s.Whole && s.Begin > 0 && t.Cmp(s.Begin) < 0 {
		return turned{} // one that begins within the scene has not begun
	}
	switch s.effect {
	case doc.Rock:
		return turned{turn: s.rock(t, u)}
	case doc.Scroll:
		var x float64
		if s.Whole {
			_, x = s.cyclic(t)
		} else {
			_, x = s.Progress(t, false)
			if x == 1 {
				x = 0
			}
		}
		v := turned{scroll: s.axis.Mul(s.amplitude * x), shows: 1}
		if s.axis.X != 0 {
			v.period.X = s.amplitude
		} else {
			v.period.Y = s.amplitude
		}
		return v
	}
	if s.Whole {
		_, x := s.cyclic(t)
		return turned{turn: s.sense * 360 * s.ease(x)}
	}
	n, x := s.Progress(t, s.back)
	if s.back {
		n = 0
	}
	return turned{turn: s.sense * 360 * (float64(n) + s.ease(x))}
}

// cyclic returns the pass and the share of it, there and back counted.
func (s *loop) cyclic(t Instant) (int64, float64) {
	n, x := t.Sub(s.Begin).Add(s.phase).Passes(s.Pass)
	if s.back && n&1 != 0 {
		x = 1 - x
	}
	return n, x
}

// rock returns the angle of a sine of the loop's amplitude. One that does not last the scene is at rest outside its active time;
// unless it is a whole number of cycles and starts at rest, its amplitude is faded in and out over min(0.2 s, a quarter of it).
func (s *loop) rock(t Instant, u *Unit) float64 {
	lag := 0.0
	if u != nil && s.units.unit != "" {
		lag = s.units.lag(s.units.place(u))
	}
	weight := 1.0
	var x float64
	if s.Whole {
		_, x = s.cyclic(t)
	} else {
		since := t.Sub(s.Begin)
		length := s.End - s.Begin
		if since.Num <= 0 || since.Cmp(length) >= 0 {
			return 0
		}
		_, x = s.Progress(t, s.back)
		if length%s.Pass != 0 || lag != 0 || s.ahead != 0 {
			fade := min(200, float64(length)/4)
			ms := since.Ms()
			weight = min(1, ms/fade, (float64(length)-ms)/fade)
		}
	}
	x += s.ahead - lag
	x -= math.Floor(x)
	return weight * s.amplitude * math.Sin(2*math.Pi*s.ease(x))
}

// cycle is the time after which a whole-scene loop is where it was, counting the way back.
func (s *loop) cycle() int64 {
	if s.back {
		return 2 * s.Pass
	}
	return s.Pass
}

// Repeats returns after how many px, in the layer's own axes, its scrolls repeat it; 0: they do not.
func (k *Track) Repeats() geom.Point {
	var out geom.Point
	for i := range k.loops {
		s := &k.loops[i]
		if s.effect != doc.Scroll || s.Pass <= 0 {
			continue
		}
		if s.axis.X != 0 {
			out.X = max(out.X, s.amplitude)
		} else {
			out.Y = max(out.Y, s.amplitude)
		}
	}
	return out
}

// nearest returns the least value that looks the same: a turn within half a circle, a scroll within half a period.
func (s *loop) nearest(v turned) turned {
	v.turn = nearest(v.turn, 360)
	v.scroll.X, v.scroll.Y = nearest(v.scroll.X, v.period.X), nearest(v.scroll.Y, v.period.Y)
	return v
}

func nearest(v, period float64) float64 {
	if period <= 0 {
		return v
	}
	v = math.Mod(v, period)
	switch {
	case v > period/2:
		return v - period
	case v < -period/2:
		return v + period
	}
	return v
}
