package sound

import "slices"

// Mixer mixes stretches of a score. It is used by one at a time.
type Mixer struct {
	Score  *Score
	Source Source
	Only   []string // ids of the parts that are heard alone; none: all
	Missed []string // media of which frames were not there since this was emptied

	take, scratch []float32
	wide          []float32
}

// Mix fills out with the film from a frame on, left and right in turns. What lies beside the film is silence. It reports whether all frames of recordings
// were there: those that were not are silence, and Missed names them.
func (m *Mixer) Mix(from int64, out []float32) bool {
	if m.Score.Level.Limited {
		return m.limited(from, out)
	}
	ok := m.sum(from, out)
	if g := m.Score.Level.Gain; g != 0 {
		a := float32(Amplitude(g))
		for i := range out {
			out[i] *= a
		}
	}
	return ok
}

// sum adds the parts up.
func (m *Mixer) sum(from int64, out []float32) bool {
	clear(out)
	n := int64(len(out) / 2)
	ok := true
	for _, p := range m.Score.Parts {
		a, b := max(from, p.Begin), min(from+n, p.End)
		if a >= b || p.Sound.Muted || len(m.Only) > 0 && !slices.Contains(m.Only, p.ID) {
			continue
		}
		ch := p.Recording.Channels
		need := int(b-a) * ch
		if cap(m.take) < need {
			m.take = make([]float32, need)
		}
		take := m.take[:need]
		if !p.taken(m.Source, a, take, &m.scratch) {
			ok = false
			if !slices.Contains(m.Missed, p.Sound.Media) {
				m.Missed = append(m.Missed, p.Sound.Media)
			}
		}
		m.Score.add(p, a, take, out[2*(a-from):2*(b-from)])
	}
	return ok
}

// add adds frames of a part from a frame of the film on to those that are heard.
func (s *Score) add(p *Part, at int64, take, out []float32) {
	ch := p.Recording.Channels
	n := int64(len(out) / 2)
	still := sides(ch, p.Sound.Pan)
	shares := func(at int64) (v [4]float32) {
		a, by := s.volume(p, at), still
		if p.where != nil {
			by = sides(ch, p.panned(at))
		}
		for i, w := range by {
			v[i] = float32(a * w)
		}
		return v
	}
	// The lines go from grid to grid of the film, so that stretches do not depend on where they begin.
	cell := at - at%grid
	v0 := shares(cell)
	for done := int64(0); done < n; {
		v1 := shares(cell + grid)
		to := min(n, cell+grid-at)
		if v0 == v1 {
			add(take, out, ch, done, to, v0)
		} else {
			slope(take, out, ch, done, to, v0, v1, float32(at+done-cell))
		}
		done, cell, v0 = to, cell+grid, v1
	}
}

// slope adds frames whose volume goes from one to another within a cell of the grid, from t of its frames on.
func slope(take, out []float32, ch int, from, to int64, v, next [4]float32, t float32) {
	var d [4]float32
	for i := range d {
		d[i] = (next[i] - v[i]) / grid
	}
	if ch == 1 {
		in, out := take[from:to], out[2*from:2*to]
		for i, x := range in {
			if 2*i+1 < len(out) {
				out[2*i] += x * (v[0] + d[0]*t)
				out[2*i+1] += x * (v[1] + d[1]*t)
			}
			t++
		}
		return
	}
	in, out := take[2*from:2*to], out[2*from:2*to]
	across := v[1] != 0 || v[2] != 0 || d[1] != 0 || d[2] != 0
	for i := 0; i+1 < len(in) && i+1 < len(out); i += 2 {
		l, r := in[i], in[i+1]
		out[i] += l * (v[0] + d[0]*t)
		out[i+1] += r * (v[3] + d[3]*t)
		if across {
			out[i] += r * (v[2] + d[2]*t)
			out[i+1] += l * (v[1] + d[1]*t)
		}
		t++
	}
}

// add adds frames whose volume stays.
func add(take, out []float32, ch int, from, to int64, v [4]float32) {
	if ch == 1 {
		for i, x := range take[from:to] {
			k := 2 * (from + int64(i))
			out[k] += x * v[0]
			out[k+1] += x * v[1]
		}
		return
	}
	in, out := take[2*from:2*to], out[2*from:2*to]
	if v[1] == 0 && v[2] == 0 {
		for i := 0; i+1 < len(in) && i+1 < len(out); i += 2 {
			out[i] += in[i] * v[0]
			out[i+1] += in[i+1] * v[3]
		}
		return
	}
	for i := 0; i+1 < len(in) && i+1 < len(out); i += 2 {
		l, r := in[i], in[i+1]
		out[i] += l*v[0] + r*v[2]
		out[i+1] += l*v[1] + r*v[3]
	}
}
