package effect

import "math"

// splitmix is one number of splitmix64 (Steele, Lea, Flood 2014) for a seed and a place in its row, 0..1.
func splitmix(seed int64, i int) float64 {
	z := uint64(seed) + uint64(i+1)*0x9e3779b97f4a7c15
	z = (z ^ z>>30) * 0xbf58476d1ce4e5b9
	z = (z ^ z>>27) * 0x94d049bb133111eb
	return float64((z^z>>31)>>11) / (1 << 53)
}

// wander is seeded noise, -1..1, that comes round: n values at even steps of a cycle, the first of them 0, and smooth between.
func wander(seed int64, row, n int) func(x float64) float64 {
	values := make([]float64, n)
	for i := 1; i < n; i++ {
		values[i] = 2*splitmix(seed+int64(row)*7919, i) - 1
	}
	return func(x float64) float64 {
		at := (x - math.Floor(x)) * float64(n)
		i := min(int(at), n-1)
		t := at - float64(i)
		a, b := values[i], values[(i+1)%n]
		return a + (b-a)*t*t*(3-2*t)
	}
}

// sketch is noise as bars show it.
var sketch = wander(5, 0, 14)

// wandering is the bar of a loop that goes by chance.
func wandering(_ Params, x float64) float64 { return 0.55 + 0.4*sketch(x) }

// evenly is the bar of a loop that has no cycle to be seen.
func evenly(Params, float64) float64 { return 0.55 }

// changes is how many values a cycle of ms has at a rate a second: two at least, so that it changes, and no more than can be seen.
func changes(ms int64, rate float64) int {
	return int(max(2, min(20000, math.Round(float64(ms)/1000*rate))))
}
