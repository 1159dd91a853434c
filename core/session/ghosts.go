package session

import "capstan/core/doc"

// Ghost is where a layer was or will be: the corners of its box on the page at a time of the film.
type Ghost struct {
	Time    int64         `json:"time"` // ms of the film
	Corners [4][2]float64 `json:"corners"`
}

// Ghosts returns where the selected layers stand at even times of the moment's scene, as many as can be told apart.
func (s *Session) Ghosts(m Moment, threads []string) []Ghost {
	out := []Ghost{}
	i := s.sceneIndex(m)
	begin, stay := s.shown.Order.Begin(i), s.shown.Order.Stays[i]
	step := int64(50)
	for _, next := range []int64{100, 250, 500, 1000, 2000, 5000, 10000, 60000, 600000} {
		if stay/step <= 16 {
			break
		}
		step = next
	}
	layers := s.layers(m, threads)
	last := map[*doc.Layer][4][2]float64{}
	for at := int64(0); at <= stay; at += step {
		s.player.Stand(instant(float64(begin + min(at, stay-1))))
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
