// Package motion says where everything stands at a time: easing, the order of scenes in film time,
// hitches resolved to intervals, presence, motion paths and loops. docs/motion.md holds the rules.
package motion

import (
	"math"
	"math/bits"
)

// Instant is an exact time: Num/Den milliseconds, Den > 0. Stored times are whole milliseconds; frame k of a
// film at num/den frames a second lies at k*1000*den/num ms. Comparing and taking remainders stay in
// integers, so frames one period apart are equal byte for byte.
type Instant struct{ Num, Den int64 }

// Millis returns the instant of a stored time.
func Millis(ms int64) Instant { return Instant{ms, 1} }

// FrameTime returns when frame k of a film with the given rate is shown.
func FrameTime(k, rateNum, rateDen int64) Instant { return reduce(k*1000*rateDen, rateNum) }

// Seconds returns the instant nearest to s seconds, in steps of a microsecond; for pointers and
// typed times, not for frames.
func Seconds(s float64) Instant { return reduce(int64(math.Round(s*1e6)), 1000) }

func reduce(num, den int64) Instant {
	a, b := num, den
	if a < 0 {
		a = -a
	}
	for b != 0 {
		a, b = b, a%b
	}
	if a > 1 {
		num, den = num/a, den/a
	}
	return Instant{num, den}
}

// Sub returns t moved earlier by ms.
func (t Instant) Sub(ms int64) Instant { return Instant{t.Num - ms*t.Den, t.Den} }

// Add returns t moved later by ms.
func (t Instant) Add(ms int64) Instant { return t.Sub(-ms) }

// Cmp returns -1, 0 or 1 as t lies before, at or after the stored time.
func (t Instant) Cmp(ms int64) int {
	switch d := t.Num - ms*t.Den; {
	case d < 0:
		return -1
	case d > 0:
		return 1
	}
	return 0
}

// Ms returns the time in milliseconds as a float.
func (t Instant) Ms() float64 { return float64(t.Num) / float64(t.Den) }

// Floor returns the whole ms before it.
func (t Instant) Floor() int64 { return int64(math.Floor(t.Ms())) }

// Over returns t as a share of ms; ms must not be 0.
func (t Instant) Over(ms int64) float64 { return float64(t.Num) / float64(t.Den*ms) }

// Passes splits t into whole passes of ms and the share of the one going on, 0 <= share < 1; both are decided
// in integers, so equal phases give equal shares.
func (t Instant) Passes(ms int64) (whole int64, share float64) {
	d := t.Den * ms
	whole = t.Num / d
	rest := t.Num % d
	if rest < 0 {
		whole--
		rest += d
	}
	// Reducing first makes k/30 s and 1000k/30 ms give the same quotient.
	if r := reduce(rest, d); r.Den > 0 {
		return whole, float64(r.Num) / float64(r.Den)
	}
	return whole, float64(rest) / float64(d)
}

// Frames returns how many frames a film of length ms has at a rate: max(1, floor(L fps + 1/2)).
func Frames(ms, rateNum, rateDen int64) int64 {
	if ms <= 0 {
		return 1
	}
	// 2 ms num + 1000 den may pass 64 bits.
	hi, lo := bits.Mul64(uint64(2*ms), uint64(rateNum))
	lo, carry := bits.Add64(lo, uint64(1000*rateDen), 0)
	hi, d := hi+carry, uint64(2000*rateDen)
	if hi >= d {
		return math.MaxInt64
	}
	n, _ := bits.Div64(hi, lo, d)
	return int64(max(1, min(n, math.MaxInt64)))
}
