package overlay

import (
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/scope"
)

// Ghost is where a layer was or will be: the corners of its box on the page at a time of the film.
type Ghost struct {
	Time    int64         `json:"time"` // ms of the film
	Corners [4][2]float64 `json:"corners"`
}

// Ghosts returns where the selected layers stand at even times of the moment's scene, while they move, as many as can be told
// apart.
func (s *Overlays) Ghosts(m scope.Moment, threads []string) []Ghost {
	out := []Ghost{}
	i := s.SceneIndex(m)
	layers := s.Layers(m, threads)
	begin := s.Shown.Order.Begin(i)
	from, to := s.moving(i, layers)
	step := int64(20)
	for _, next := range []int64{50, 100, 250, 500, 1000, 2000, 5000, 10000, 60000, 600000} {
		if (to-from)/step <= 16 {
			break
		}
		step = next
	}
	last := map[*doc.Layer][4][2]float64{}
	for at := from; at <= to; at += step {
		s.Player.Stand(scope.Instant(float64(begin + min(at, s.Shown.Order.Stays[i]-1))))
		for _, l := range layers {
			q, _, ok := s.Player.Quad(l.ID)
			if !ok {
				continue
			}
			g := Ghost{Time: begin + at}
			for k, p := range q {
				g.Corners[k] = geom.Pair(p)
			}
			if g.Corners != last[l] { // where it stands still one is enough
				out = append(out, g)
			}
			last[l] = g.Corners
		}
	}
	return out
}

// Ends returns where the selected layers stand when their moves begin and end, within the moment's scene: the first and the last frame of them.
func (s *Overlays) Ends(m scope.Moment, threads []string) []Ghost {
	out := []Ghost{}
	s.eachEnd(m, threads, func(l *doc.Layer, at int64) {
		if q, _, ok := s.Player.Quad(l.ID); ok {
			g := Ghost{Time: at}
			for k, p := range q {
				g.Corners[k] = geom.Pair(p)
			}
			out = append(out, g)
		}
	})
	return out
}

// endsShown is how strongly they are shown.
const endsShown = 0.4

// EndsFrame returns a display list with the selected layers alone, as they are when their moves begin and end.
func (s *Overlays) EndsFrame(m scope.Moment, threads []string, scale float64) *frame.List {
	s.Player.Clear()
	s.eachEnd(m, threads, func(l *doc.Layer, _ int64) { s.Player.AddPlaced(l.ID, endsShown, frame.View{Scale: scale}) })
	return s.Player.List()
}

// eachEnd stands the film at the begin and the end of each selected layer's moves, and calls f with the layer and the time of the film.
func (s *Overlays) eachEnd(m scope.Moment, threads []string, f func(l *doc.Layer, at int64)) {
	i := s.SceneIndex(m)
	if s.Scene(m).Aside {
		return
	}
	begin, stay := s.Shown.Order.Begin(i), s.Shown.Order.Stays[i]
	for _, l := range s.Layers(m, threads) {
		if len(l.Moves) == 0 {
			continue
		}
		from, to := s.moving(i, []*doc.Layer{l})
		for _, at := range []int64{from, min(to, stay-1)} {
			s.Player.Stand(scope.Instant(float64(begin + at)))
			if _, _, ok := s.Player.Quad(l.ID); !ok { // it has just left
				at--
				s.Player.Stand(scope.Instant(float64(begin + at)))
			}
			f(l, begin+at)
		}
	}
}

// moving returns from when to when moves of the layers go on, within the scene's stay.
func (s *Overlays) moving(scene int, layers []*doc.Layer) (from, to int64) {
	stay := s.Shown.Order.Stays[scene]
	from, to = stay, 0
	for _, l := range layers {
		for _, m := range l.Moves {
			iv := s.Shown.Timing(scene).Moves[m.ID]
			if m.Lasts != "" {
				return 0, stay
			}
			from, to = min(from, max(iv.Begin, 0)), max(to, min(iv.End, stay))
		}
	}
	if to <= from {
		return 0, stay
	}
	return from, to
}
