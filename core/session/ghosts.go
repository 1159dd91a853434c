package session

import (
	"capstan/core/doc"
	"capstan/core/frame"
)

// Ghost is where a layer was or will be: the corners of its box on the page at a time of the film.
type Ghost struct {
	Time    int64         `json:"time"` // ms of the film
	Corners [4][2]float64 `json:"corners"`
}

// Ghosts returns where the selected layers stand at even times of the moment's scene, while they move, as many as can be told
// apart.
func (s *Session) Ghosts(m Moment, threads []string) []Ghost {
	out := []Ghost{}
	i := s.sceneIndex(m)
	layers := s.layers(m, threads)
	begin := s.shown.Order.Begin(i)
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
		s.player.Stand(instant(float64(begin + min(at, s.shown.Order.Stays[i]-1))))
		for _, l := range layers {
			q, _, ok := s.player.Quad(l.ID)
			if !ok {
				continue
			}
			g := Ghost{Time: begin + at}
			for k, p := range q {
				g.Corners[k] = pair(p)
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
func (s *Session) Ends(m Moment, threads []string) []Ghost {
	out := []Ghost{}
	s.eachEnd(m, threads, func(l *doc.Layer, at int64) {
		if q, _, ok := s.player.Quad(l.ID); ok {
			g := Ghost{Time: at}
			for k, p := range q {
				g.Corners[k] = pair(p)
			}
			out = append(out, g)
		}
	})
	return out
}

// endsShown is how strongly they are shown.
const endsShown = 0.4

// EndsFrame returns a display list with the selected layers alone, as they are when their moves begin and end.
func (s *Session) EndsFrame(m Moment, threads []string, scale float64) *frame.List {
	s.player.Clear()
	s.eachEnd(m, threads, func(l *doc.Layer, _ int64) { s.player.AddPlaced(l.ID, endsShown, frame.View{Scale: scale}) })
	return s.player.List()
}

// eachEnd stands the film at the begin and the end of each selected layer's moves, and calls f with the layer and the time of the film.
func (s *Session) eachEnd(m Moment, threads []string, f func(l *doc.Layer, at int64)) {
	i := s.sceneIndex(m)
	if s.scene(m).Aside {
		return
	}
	begin, stay := s.shown.Order.Begin(i), s.shown.Order.Stays[i]
	for _, l := range s.layers(m, threads) {
		if len(l.Moves) == 0 {
			continue
		}
		from, to := s.moving(i, []*doc.Layer{l})
		for _, at := range []int64{from, min(to, stay-1)} {
			s.player.Stand(instant(float64(begin + at)))
			if _, _, ok := s.player.Quad(l.ID); !ok { // it has just left
				at--
				s.player.Stand(instant(float64(begin + at)))
			}
			f(l, begin+at)
		}
	}
}

// moving returns from when to when moves of the layers go on, within the scene's stay.
func (s *Session) moving(scene int, layers []*doc.Layer) (from, to int64) {
	stay := s.shown.Order.Stays[scene]
	from, to = stay, 0
	for _, l := range layers {
		for _, m := range l.Moves {
			iv := s.shown.Timing(scene).Moves[m.ID]
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
