package motion

import (
	"math"

	"capstan/core/effect"
)

// bins is into how many stretches a path is divided to tell how far its layer has come on it, to the right counted forwards. Within one the
// way is taken to be even, which is exact but where the path turns.
const bins = 512

// travelled returns how far the paths of a track have brought their layer by a time, px from its rest pose: along each path, forwards where it
// goes to the right (of an upright stretch: down), and back where it goes to the left. It is what a wheel rolls by (docs/motion.md, section 4).
func (k *Track) travelled(c Clock) (sum float64) {
	for i := range k.paths {
		sum += k.paths[i].travelled(c)
	}
	return
}

func (m *path) travelled(c Clock) float64 {
	return m.wayTo(m.share(c)) - m.wayTo(m.restShare)
}

// wayTo returns how far it is to a share of the path.
func (m *path) wayTo(p float64) float64 {
	w := m.ways
	if len(w) == 0 {
		return 0
	}
	at := p * bins
	i := min(max(int(math.Floor(at)), 0), bins-1)
	return w[i] + (w[i+1]-w[i])*(at-float64(i)) // beyond its ends it goes on as it left
}

// measureWays works out the ways along a path.
func (m *path) measureWays() {
	if m.ways != nil {
		return
	}
	m.ways = make([]float64, bins+1)
	step := m.measure.Length() / bins
	was, _ := m.measure.At(0)
	for i := 1; i <= bins; i++ {
		is, _ := m.measure.At(float64(i) / bins)
		d := is.Sub(was)
		way := d.X
		if math.Abs(d.X) < 1e-9*math.Max(1, step) {
			way = d.Y
		}
		m.ways[i] = m.ways[i-1] + math.Copysign(step, way)
		was = is
	}
}

// Rolls reports whether loops of the track roll.
func (k *Track) Rolls() bool {
	for i := range k.loops {
		if k.loops[i].round > 0 {
			return true
		}
	}
	return false
}

// SetRolls tells the loops that roll by what they do: by the paths of their layer and of the groups around it, or by the scroll that one of their
// parameters names, which pace finds; the ground that goes to the left rolls a wheel as one that itself goes to the right.
func (k *Track) SetRolls(outer []*Track, find func(move string) *Track) {
	for i := range k.loops {
		s := &k.loops[i]
		if s.round <= 0 {
			continue
		}
		if name := s.names(); name != "" {
			if ground := find(name); ground != nil && ground.find(name) != nil {
				g := ground.find(name)
				s.travel = func(c Clock) float64 { return g.run(c) }
				continue
			}
		}
		all := append([]*Track{k}, outer...)
		for _, t := range all {
			for j := range t.paths {
				t.paths[j].measureWays()
			}
		}
		s.travel = func(c Clock) (sum float64) {
			for _, t := range all {
				sum += t.travelled(c)
			}
			return
		}
	}
}

// names returns the move that a parameter of the loop names.
func (s *loop) names() string {
	if e := effect.Named(s.effect); e != nil {
		for i := range e.Params {
			if e.Params[i].Control == effect.Move {
				return s.params.Word(e.Params[i].Name)
			}
		}
	}
	return ""
}

// run returns how far a scroll has gone against the way that it goes, px to the right or down.
func (s *loop) run(c Clock) float64 {
	if s.Pass <= 0 {
		return 0
	}
	at := c.At
	if !s.Whole || s.Begin > 0 {
		at = at.within(s.Begin, max(s.End, s.Begin))
		if s.Whole && c.At.Cmp(s.Begin) >= 0 {
			at = c.At
		}
	}
	half := s.rule(0.5)
	way := 2 * (half.Scroll.X + half.Scroll.Y)
	return -way * at.Sub(s.Begin).Add(s.phase).Ms() / float64(s.Pass)
}
