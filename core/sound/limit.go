package sound

// Peaks are turned down by a volume that is known before they come: at each frame it is what the loudest peak within a window around it asks for, rounded off by
// a mean over as many frames. It depends on nothing but what is near, so that any stretch comes out the same.

// exact is the one of the whole numbers in which volumes are added up.
const exact = 1 << 40

// ahead is how far to either side a peak turns down what is around it, in frames.
const ahead = Rate / 200

// limited mixes with the level's gain, no peak beyond Ceiling.
func (m *Mixer) limited(from int64, out []float32) bool {
	n := len(out) / 2
	beyond := 2*ahead + peakHalf
	all := n + 2*beyond
	if cap(m.wide) < 2*all {
		m.wide = make([]float32, 2*all)
	}
	wide := m.wide[:2*all]
	ok := m.sum(from-int64(beyond), wide)
	gain := Amplitude(m.Score.Level.Gain)
	ceiling := Amplitude(Ceiling - 0.1)
	// What each frame asks for; nothing where no sample around is so loud that one between could be beyond the ceiling.
	tops := make([]float64, all/peakHalf+1)
	for i, v := range wide {
		tops[i/2/peakHalf] = max(tops[i/2/peakHalf], float64(v)*gain, -float64(v)*gain)
	}
	asks := make([]float64, all)
	var window [2][peakHalf]float64
	for i := range asks {
		asks[i] = 1
		if i < peakHalf/2-1 || i+peakHalf/2 >= all || max(tops[(i-peakHalf/2+1)/peakHalf], tops[(i+peakHalf/2)/peakHalf])*overshoot <= ceiling {
			continue
		}
		peak := 0.0
		for c := range 2 {
			for k := range peakHalf {
				window[c][k] = float64(wide[2*(i-peakHalf/2+1+k)+c]) * gain
			}
			peak = max(peak, peakIn(window[c][:], ceiling))
		}
		if peak > ceiling {
			asks[i] = ceiling / peak
		}
	}
	least := lowest(asks, ahead)
	// The mean over a window that is no wider than that over which the least was taken asks for no less than any peak in its middle.
	// Sums are of whole numbers, so that they are the same wherever they begin.
	sum := int64(0)
	sums := make([]int64, all+1)
	for i, v := range least {
		sum += int64(v * exact)
		sums[i+1] = sum
	}
	for i := range n {
		k := i + beyond
		v := float64(sums[k+ahead+1]-sums[k-ahead]) / (exact * (2*ahead + 1)) * gain
		out[2*i] = float32(float64(wide[2*k]) * v)
		out[2*i+1] = float32(float64(wide[2*k+1]) * v)
	}
	return ok
}

// lowest is the least of each value and those up to r to either side.
func lowest(v []float64, r int) []float64 {
	out := make([]float64, len(v))
	var queue []int // of places, values rising
	for i := 0; i < len(v)+r; i++ {
		if i < len(v) {
			for len(queue) > 0 && v[queue[len(queue)-1]] >= v[i] {
				queue = queue[:len(queue)-1]
			}
			queue = append(queue, i)
		}
		if k := i - r; k >= 0 {
			for queue[0] < k-r {
				queue = queue[1:]
			}
			out[k] = v[queue[0]]
		}
	}
	return out
}
