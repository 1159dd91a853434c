package sound

import (
	"math"
	"math/bits"
	"math/cmplx"
	"slices"
)

// Beats are found after Ellis (Beat Tracking by Dynamic Programming, 2007): how much begins at each moment, the pace at which that comes again, and then the series
// of moments with the most beginnings whose steps keep nearest to the pace.

// Of the looks at a recording: frames from one to the next, and frames that are looked at.
const (
	lookHop  = 256
	lookSize = 1024
)

// Of paces: the shortest and longest step between beats that is thought of, in s, the one that is likeliest, and how much less likely others are, in octaves.
const (
	leastStep   = 0.25
	mostStep    = 1.5
	likelyStep  = 0.5
	likelyWidth = 0.9
	tightness   = 400 // of keeping the pace, against beginnings
)

// Beats finds the beats of a recording of one channel, in frames; none where nothing comes again.
func Beats(mono []float32) []int64 {
	begins := beginnings(mono)
	if begins == nil {
		return nil
	}
	step := pace(begins)
	if step == 0 {
		return nil
	}
	var list []int64
	for _, k := range series(begins, step) {
		at := refined(mono, k*lookHop+lookSize/2)
		if n := len(list); n == 0 || at > list[n-1] {
			list = append(list, at)
		}
	}
	return list
}

// beginnings is how much begins at each look: the growth of the logarithm of what is in each band, together, above what is usual around, in units of its spread.
func beginnings(mono []float32) []float64 {
	n := (len(mono) - lookSize) / lookHop
	if n < 16 {
		return nil
	}
	window := make([]float64, lookSize)
	for i := range window {
		window[i] = 0.5 - 0.5*math.Cos(2*math.Pi*float64(i)/lookSize)
	}
	const bands = 32
	edges := make([]int, bands+1) // of bands of even ratios from 60 Hz to 16 kHz
	for i := range edges {
		edges[i] = max(i+1, int(60*math.Pow(16000.0/60, float64(i)/bands)*lookSize/Rate))
	}
	before, now := make([]float64, bands), make([]float64, bands)
	buf := make([]complex128, lookSize)
	out := make([]float64, n)
	for k := range n {
		for i := range buf {
			buf[i] = complex(float64(mono[k*lookHop+i])*window[i], 0)
		}
		fourier(buf)
		for b := range now {
			sum := 0.0
			for i := edges[b]; i < max(edges[b+1], edges[b]+1); i++ {
				sum += real(buf[i])*real(buf[i]) + imag(buf[i])*imag(buf[i])
			}
			now[b] = math.Log(1e-4 + sum)
			if k > 0 {
				out[k] += max(0, now[b]-before[b])
			}
		}
		before, now = now, before
	}
	// What is usual within half a second to either side does not count.
	const around = Rate / 2 / lookHop
	sums := make([]float64, n+1)
	for i, v := range out {
		sums[i+1] = sums[i] + v
	}
	spread := 0.0
	for i := range out {
		a, b := max(0, i-around), min(n, i+around)
		v := max(0, out[i]-(sums[b]-sums[a])/float64(b-a))
		spread += v * v
		out[i] = v
	}
	spread = math.Sqrt(spread / float64(n))
	if spread < 1e-6 {
		return nil
	}
	for i := range out {
		out[i] /= spread
	}
	return out
}

// pace is how many looks lie between beats; 0 where nothing comes again.
func pace(begins []float64) float64 {
	looks := func(s float64) int { return int(s * Rate / lookHop) }
	best, at := 0.0, 0
	score := func(lag int) float64 {
		sum := 0.0
		for i := lag; i < len(begins); i++ {
			sum += begins[i] * begins[i-lag]
		}
		s := float64(lag) * lookHop / Rate
		octaves := math.Log2(s/likelyStep) / likelyWidth
		return sum / float64(len(begins)) * math.Exp(-octaves*octaves/2)
	}
	for lag := looks(leastStep); lag <= min(looks(mostStep), len(begins)/2); lag++ {
		if v := score(lag); v > best {
			best, at = v, lag
		}
	}
	if at == 0 || best < 0.05 {
		return 0
	}
	// Between looks: the top of a parabola.
	a, b, c := score(at-1), best, score(at+1)
	if d := a - 2*b + c; d < 0 {
		return float64(at) + (a-c)/(2*d)
	}
	return float64(at)
}

// series is the best series of beats, in looks.
func series(begins []float64, step float64) []int {
	n := len(begins)
	score, from := make([]float64, n), make([]int, n)
	lo, hi := int(math.Round(step/2)), int(math.Round(step*2))
	cost := make([]float64, hi+1)
	for d := lo; d <= hi; d++ {
		l := math.Log(float64(d) / step)
		cost[d] = tightness * l * l / 10
	}
	for i := range score {
		best, at := 0.0, -1
		for d := max(lo, 1); d <= hi && i-d >= 0; d++ {
			if v := score[i-d] - cost[d]; v > best {
				best, at = v, i-d
			}
		}
		score[i], from[i] = begins[i]+best, at
	}
	end := max(0, n-hi)
	for i := end; i < n; i++ {
		if score[i] > score[end] {
			end = i
		}
	}
	var list []int
	for i := end; i >= 0; i = from[i] {
		list = append(list, i)
	}
	slices.Reverse(list)
	// At either end beats of which nothing begins are none.
	mean := 0.0
	for _, i := range list {
		mean += begins[i] / float64(len(list))
	}
	for len(list) > 0 && begins[list[0]] < 0.2*mean {
		list = list[1:]
	}
	for len(list) > 0 && begins[list[len(list)-1]] < 0.2*mean {
		list = list[:len(list)-1]
	}
	return list
}

// refined is where, near a frame, the recording gets louder the most, within 30 ms.
func refined(mono []float32, at int) int64 {
	const cell, far, side = Rate / 1000, 30, 3 // a millisecond, and how many to either side
	loud := func(k int) float64 {
		sum := 1e-7
		for i := max(0, k*cell); i < min(len(mono), (k+1)*cell); i++ {
			sum += float64(mono[i]) * float64(mono[i])
		}
		return sum
	}
	middle, best, found := at/cell, 0.0, at/cell
	for k := max(side, middle-far); k <= middle+far; k++ {
		before, after := 0.0, 0.0
		for j := range side {
			before += loud(k - 1 - j)
			after += loud(k + j)
		}
		if v := (after - before) * (1 - 0.3*math.Abs(float64(k-middle))/far); v > best {
			best, found = v, k
		}
	}
	return int64(found) * cell
}

// fourier transforms in place (Cooley and Tukey, 1965); there are a power of two.
func fourier(v []complex128) {
	n := len(v)
	shift := 64 - bits.Len(uint(n-1))
	for i := range v {
		if j := int(bits.Reverse64(uint64(i)) >> shift); j > i {
			v[i], v[j] = v[j], v[i]
		}
	}
	for size := 2; size <= n; size *= 2 {
		turn := cmplx.Exp(complex(0, -2*math.Pi/float64(size)))
		for i := 0; i < n; i += size {
			w := complex(1, 0)
			for j := range size / 2 {
				a, b := v[i+j], v[i+j+size/2]*w
				v[i+j], v[i+j+size/2] = a+b, a-b
				w *= turn
			}
		}
	}
}
