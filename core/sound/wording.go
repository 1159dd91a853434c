package sound

import (
	"math"
	"math/bits"
	"slices"
)

// Where a voice says its words is found from several readings of a sentence by one engine: as it is; and some more in which a part of the words is silent: those whose
// number, counted from 1, has a certain bit. Each of these is laid along the plain one by dynamic time warping (Sakoe and Chiba, 1978) of the logarithms of their
// bands; which of them are heard at a moment is the number of the word that is said then.

// Of the looks at a voice: ms from one to the next, the bands that are told apart, and how far, in ms, a reading may run ahead of the other.
const (
	wordHop   = 5
	wordBands = 20
	wordAhead = 600
)

// Of words: the share of the greatest power from which on something is said, that of the plain reading from which on a word is not silent, the band below which a look
// is silence, and what it costs at most to lie along that.
const (
	faint   = 1e-4
	said    = 0.3
	silence = -6
	unheard = 45
)

// Readings are how many readings with silent words tell n words apart.
func Readings(n int) int { return bits.Len(uint(n)) }

// Loud reports whether a word, counted from 0, is heard in such a reading.
func Loud(reading, word int) bool { return (word+1)>>reading&1 == 1 }

// WordTimes is where, in samples of the plain reading, words of so many letters begin; nil where that cannot be told. Words that are said as one with that before
// them begin by their share of the letters.
func WordTimes(plain []float32, silent [][]float32, rate int, letters []int) []int {
	hop, n := rate*wordHop/1000, len(letters)
	all := loudnessOf(plain, hop)
	if n == 0 || len(silent) != Readings(n) || len(all) == 0 {
		return nil
	}
	least := slices.Max(all) * faint
	bands := bandsOf(plain, rate, hop)
	numbers := make([]int, len(all)) // of the words that are said at each look; 0: none
	for r, v := range silent {
		power := loudnessOf(v, hop)
		to := warped(bands, bandsOf(v, rate, hop))
		if to == nil {
			return nil
		}
		for i := range numbers {
			if j := min(to[i], len(power)-1); all[i] >= least && power[j] > said*all[i] {
				numbers[i] |= 1 << r
			}
		}
	}
	looks := len(all)
	if looks < n {
		return nil
	}
	begins := parted(numbers, n)
	for k := n - 1; k > 0; k-- { // hardly heard by itself: it is said as one with that before it
		end := looks
		if k+1 < n {
			if end = begins[k+1]; end < 0 {
				continue
			}
		}
		own := 0
		for _, number := range numbers[begins[k]:end] {
			if number == k+1 {
				own++
			}
		}
		if own < 3 {
			begins[k] = -1
		}
	}
	for k := 1; k < n; k++ { // those that were not heard by themselves
		if begins[k] >= 0 {
			continue
		}
		next, whole := k, letters[k-1]
		for ; next < n && begins[next] < 0; next++ {
			whole += letters[next]
		}
		end := looks
		if next < n {
			end = begins[next]
		}
		from, done := begins[k-1], letters[k-1]
		for ; k < next; k++ {
			begins[k] = from + (end-from)*done/max(whole, 1)
			done += letters[k]
		}
	}
	for k := range begins {
		begins[k] *= hop
	}
	return begins
}

// parted divides looks into n words, one after another, so that as many bits as can be are as the numbers of the words are.
func parted(numbers []int, n int) []int {
	best := make([]int, n)
	from := make([]bool, len(numbers)*n) // the look before is of the word before
	for i, number := range numbers {
		for k := min(n-1, i); k >= 0; k-- {
			agree := 0
			if number != 0 {
				agree = -bits.OnesCount(uint(number ^ (k + 1)))
			}
			switch {
			case k > 0 && (i == k || best[k-1] > best[k]):
				best[k], from[i*n+k] = best[k-1]+agree, true
			default:
				best[k] += agree
			}
		}
	}
	begins := make([]int, n)
	for i, k := len(numbers)-1, n-1; k > 0; i-- {
		if from[i*n+k] {
			begins[k], k = i, k-1
		}
	}
	for k, i := range begins { // after the silence before it
		for ; i+1 < len(numbers) && numbers[i] == 0; i++ {
		}
		if k+1 == n || i < begins[k+1] {
			begins[k] = i
		}
	}
	return begins
}

// loudnessOf is the power around each look: of five of them, as long as the lowest voices take to go to and fro.
func loudnessOf(v []float32, hop int) []float64 {
	each, out := make([]float64, len(v)/hop), make([]float64, len(v)/hop)
	for i := range each {
		for _, x := range v[i*hop : (i+1)*hop] {
			each[i] += float64(x) * float64(x)
		}
	}
	for i := range out {
		for _, x := range each[max(0, i-2):min(len(each), i+3)] {
			out[i] += x
		}
	}
	return out
}

// bandsOf are the logarithms of the power in bands, evenly apart to ears, at each look.
func bandsOf(v []float32, rate, hop int) [][wordBands]float32 {
	const size = 512
	window := make([]float64, size)
	for i := range window {
		window[i] = 0.5 - 0.5*math.Cos(2*math.Pi*float64(i)/size)
	}
	var edges [wordBands + 1]int
	for i := range edges {
		hz := 700 * (math.Pow(10, float64(i)/wordBands*math.Log10(1+8000.0/700)) - 1) // O'Shaughnessy's mel scale
		edges[i] = min(size/2, max(i+1, int(hz/float64(rate)*size)))
	}
	out := make([][wordBands]float32, len(v)/hop)
	buf := make([]complex128, size)
	for k := range out {
		for i := range buf {
			x := 0.0
			if at := k*hop + i - size/2; at >= 0 && at < len(v) {
				x = float64(v[at])
			}
			buf[i] = complex(x*window[i], 0)
		}
		fourier(buf)
		for b := range wordBands {
			sum := 1e-4
			for i := edges[b]; i < max(edges[b+1], edges[b]+1) && i <= size/2; i++ {
				sum += real(buf[i])*real(buf[i]) + imag(buf[i])*imag(buf[i])
			}
			out[k][b] = float32(math.Log(sum))
		}
	}
	return out
}

// warped is which look of b each look of a is like, in the order of both; where b is silent it may be like anything.
func warped(a, b [][wordBands]float32) []int {
	n, m := len(a), len(b)
	if n == 0 || m == 0 {
		return nil
	}
	half := wordAhead / wordHop
	first := func(i int) int { return i*m/n - half }
	const far = math.MaxFloat32
	wide := 2*half + 2
	mute := make([]bool, m)
	for j, v := range b {
		mute[j] = slices.Max(v[:]) < silence
	}
	before, now := make([]float32, wide), make([]float32, wide)
	steps := make([]byte, n*wide)
	for i := range a {
		lo := first(i)
		shift := 0
		if i > 0 {
			shift = lo - first(i-1)
		}
		at := func(row []float32, j int) float32 { // of a column of this row
			if j < 0 || j >= wide {
				return far
			}
			return row[j]
		}
		for j := range wide {
			col := lo + j
			if now[j] = far; col < 0 || col >= m {
				continue
			}
			cost := float32(0)
			for k := range wordBands {
				d := a[i][k] - b[col][k]
				cost += max(d, -d)
			}
			if mute[col] {
				cost = min(cost, unheard)
			}
			const aslant = 1.3 // how much a step that goes on in one alone costs
			best, step := float32(far), byte(0)
			if i == 0 && col == 0 {
				best = cost
			}
			if i > 0 {
				if v := at(before, j+shift-1); col > 0 && v < far && v+cost < best {
					best, step = v+cost, 0
				}
				if v := at(before, j+shift); v < far && v+aslant*cost < best {
					best, step = v+aslant*cost, 1
				}
			}
			if v := at(now, j-1); col > 0 && v < far && v+aslant*cost < best {
				best, step = v+aslant*cost, 2
			}
			now[j], steps[i*wide+j] = best, step
		}
		before, now = now, before
	}
	out := make([]int, n)
	i, col := n-1, m-1
	for i >= 0 {
		j := col - first(i)
		if j < 0 || j >= wide || col < 0 {
			return nil
		}
		out[i] = col
		switch steps[i*wide+j] {
		case 0:
			i, col = i-1, col-1
		case 1:
			i--
		default:
			col--
		}
	}
	return out
}
