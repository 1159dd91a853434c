package sound

import "math"

// Cell is how many frames one pair of Peaks stands for at the finest level; each further level has one for four.
const Cell = 256

// Peaks are the least and the greatest sample of each cell of a recording, all channels together, for drawing: pairs of signed bytes, 127 is full scale.
type Peaks struct {
	Levels [][]int8 // by rising size of the cells

	least, most float32
	n           int
}

// Write adds frames, their channels in turns.
func (p *Peaks) Write(samples []float32, channels int) {
	if len(p.Levels) == 0 {
		p.Levels = [][]int8{nil}
	}
	for i := 0; i+channels <= len(samples); i += channels {
		for _, v := range samples[i : i+channels] {
			p.least, p.most = min(p.least, v), max(p.most, v)
		}
		if p.n++; p.n == Cell {
			p.cell()
		}
	}
}

func (p *Peaks) cell() {
	p.Levels[0] = append(p.Levels[0], level8(p.least), level8(p.most))
	p.least, p.most, p.n = 0, 0, 0
}

// level8 is an amplitude as a byte, rounded away from silence: what is heard is seen.
func level8(v float32) int8 {
	a := math.Ceil(math.Min(127, math.Abs(float64(v))*127))
	return int8(math.Copysign(a, float64(v)))
}

// Close adds the last cell, and the coarser levels.
func (p *Peaks) Close() {
	if p.n > 0 {
		p.cell()
	}
	for k := 0; len(p.Levels) > k && len(p.Levels[k]) > 2*8; k++ {
		fine := p.Levels[k]
		var coarse []int8
		for i := 0; i < len(fine); i += 8 {
			least, most := int8(0), int8(0)
			for j := i; j < min(i+8, len(fine)); j += 2 {
				least, most = min(least, fine[j]), max(most, fine[j+1])
			}
			coarse = append(coarse, least, most)
		}
		p.Levels = append(p.Levels, coarse)
	}
}
