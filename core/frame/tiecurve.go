package frame

import (
	"math"

	"capstan/core/geom"
	"capstan/core/motion"
)

// Travel returns how far the middle of a layer of a scene goes on the page, from before its moves begin to after they end.
func (f *Film) Travel(scene int, id string) geom.Point {
	s := f.scenes[scene]
	l := s.byID[id]
	if l == nil {
		return geom.Point{}
	}
	p := f.Player()
	p.when = when{scene: s}
	since, until := moving(s, l)
	at := func(ms int64) geom.Point {
		return p.standsAt(l, motion.Clock{At: motion.Millis(ms), Stay: s.timing.Stay}).Apply(l.box.Centre())
	}
	return at(until).Sub(at(since))
}

// TieCurve is how much of a layer the edges of a tied move show.
type TieCurve struct {
	Begin, End int64     // ms of the scene's clock between which that changes
	Shares     []float64 // 0..1 at equal steps from Begin to End
}

// curvePoints is how many steps a curve is divided into, and how many times of a stay are looked at first.
const (
	curvePoints = 96
	curveLooks  = 400
)

// TieCurve returns what the edges of a move of scene i show of its layer; ok is false of one that goes by its own time.
func (f *Film) TieCurve(i int, layerID, move string) (out TieCurve, ok bool) {
	s := f.scenes[i]
	l := s.byID[layerID]
	if l == nil {
		return out, false
	}
	sides, join, hides := l.track.TieOf(move)
	if len(sides) == 0 {
		return out, false
	}
	d := s.driven[sides[0]]
	d.once.Do(func() { d.curve = f.tieCurve(s, l, sides, join, hides) })
	return d.curve, true
}

// tieShare is how much of a layer the edges of a tied move show at a time of its scene's clock, 0..1.
func (p *Player) tieShare(s *scene, l *layer, sides []*motion.Tie, either, hides bool, ms int64) float64 {
	c := motion.Clock{At: motion.Millis(ms), Stay: s.timing.Stay}
	p.when = when{scene: s, entering: c}
	m := p.standsAt(l, c)
	v := sides[0].Toward
	lo, hi := geom.Span(geom.Quad(l.box, m), v)
	// What lies before the first edge, and beyond the other one's place along the same axis.
	edge := func(t *motion.Tie) float64 {
		if t.Mirror {
			return math.NaN()
		}
		return p.edgeOf(t)
	}
	a, b := edge(sides[0]), math.Inf(1)
	if len(sides) > 1 {
		b = edge(sides[1])
	}
	if middle := lo + hi; math.IsNaN(a) {
		a = b + middle
	} else if math.IsNaN(b) {
		b = a - middle
	}
	from := math.Inf(-1)
	if len(sides) > 1 {
		from = -b
	}
	within := func(x float64) float64 { return (min(max(x, lo), hi) - lo) / max(hi-lo, 1e-9) }
	shown := max(within(a)-within(from), 0)
	if either {
		shown = min(within(a)+1-within(from), 1)
	}
	if hides {
		shown = 1 - shown
	}
	return shown
}

// hidden reports whether ties let nothing of a layer show at a time of its scene's clock.
func (f *Film) hidden(s *scene, l *layer, ms int64) bool {
	if len(s.driven) == 0 {
		return false
	}
	for _, m := range l.doc.Moves {
		if sides, either, hides := l.track.TieOf(m.ID); len(sides) > 0 && f.Player().tieShare(s, l, sides, either, hides, ms) <= 0 {
			return true
		}
	}
	return false
}

func (f *Film) tieCurve(s *scene, l *layer, sides []*motion.Tie, either, hides bool) (out TieCurve) {
	p := f.Player()
	stay := s.timing.Stay
	share := func(ms int64) float64 { return p.tieShare(s, l, sides, either, hides, ms) }
	step := max(10, stay/curveLooks)
	first, last := int64(-1), int64(-1)
	was := share(0)
	for at := step; at < stay+step; at += step {
		is := share(min(at, stay))
		if math.Abs(is-was) > 1e-6 {
			if first < 0 {
				first = at - step
			}
			last = min(at, stay)
		}
		was = is
	}
	if first < 0 {
		return TieCurve{0, stay, []float64{was, was}}
	}
	for begin := share(first); first+1 < last && math.Abs(share(first+1)-begin) < 1e-6; {
		first++
	}
	for end := share(last); last-1 > first && math.Abs(share(last-1)-end) < 1e-6; {
		last--
	}
	out.Begin, out.End = first, last
	for k := range curvePoints + 1 {
		out.Shares = append(out.Shares, share(first+(last-first)*int64(k)/curvePoints))
	}
	return out
}
