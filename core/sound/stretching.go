package sound

import (
	"math"
	"sync"
)

// Another speed at the same pitch: grains of the recording overlap at their even distance in the film, each taken from a little before or after where it would be, so
// that its waves lie over those of the grain before (waveform similarity, WSOLA: Verhelst and Roelands, 1993). Every so many grains one is taken from just where it
// would be, and the one before it is chosen to suit both its neighbours: so any stretch of the film can be made without all that comes before it.

// Of grains: frames from one to the next, how many go from one that is fixed to the next that is, how far each may be taken from its place, in frames, and in steps of
// how many frames it is looked for at first.
const (
	grainHop  = 1024
	grainRun  = 64
	grainSway = 512
	grainStep = 4
)

// grains knows where the grains of a part are taken from.
type grains struct {
	speed float64
	mu    sync.Mutex
	runs  map[int64][]int16 // how far off its place each of a run is
}

// mostRuns is how many runs of grains are remembered, of about 1.4 s each.
const mostRuns = 8192

// place is where a grain would be taken from, in frames since the part begins in its recording.
func (g *grains) place(k int64) int64 { return int64(math.Round(float64(k) * grainHop * g.speed)) }

// rise is how loud a grain is as it comes, by frames since the one before it was at its loudest; that one is what is left of 1.
var rise = sync.OnceValue(func() (w [grainHop]float32) {
	for i := range w {
		s := math.Sin(float64(i) / grainHop * math.Pi / 2)
		w[i] = float32(s * s)
	}
	return w
})

// stretched fills to with frames of a part from so many frames after its begin on, at its speed and its own pitch.
func (p *Part) stretched(src Source, since int64, to []float32, scratch *[]float32) bool {
	ch := int64(p.Recording.Channels)
	n := int64(len(to)) / ch
	clear(to)
	if int64(cap(*scratch)) < grainHop*ch {
		*scratch = make([]float32, grainHop*ch)
	}
	ok := true
	w := rise()
	for done := int64(0); done < n; {
		k, t := (since+done)/grainHop, (since+done)%grainHop
		m := min(n-done, grainHop-t)
		part := to[done*ch : (done+m)*ch]
		a, good := p.sway(src, k)
		b, fine := p.sway(src, k+1)
		ok = ok && good && fine
		in := (*scratch)[:m*ch]
		clear(in)
		ok = p.heard(src, p.grains.place(k)+a+t, part) && ok
		ok = p.heard(src, p.grains.place(k+1)+b+t-grainHop, in) && ok
		for i := range m {
			v := w[t+i]
			for c := range ch {
				j := i*ch + c
				part[j] += (in[j] - part[j]) * v
			}
		}
		done += m
	}
	return ok
}

// sway is how far off its place a grain is taken from; not for good where frames are missing.
func (p *Part) sway(src Source, k int64) (int64, bool) {
	run, i := k/grainRun, k%grainRun
	if i == 0 {
		return 0, true
	}
	g := p.grains
	g.mu.Lock()
	defer g.mu.Unlock()
	if known := g.runs[run]; known != nil {
		return int64(known[i]), true
	}
	list, ok := p.run(src, run*grainRun)
	if !ok {
		return 0, false
	}
	if len(g.runs) >= mostRuns {
		clear(g.runs)
	}
	g.runs[run] = list
	return int64(list[i]), true
}

// run finds how far off their places the grains of a run are.
func (p *Part) run(src Source, first int64) ([]int16, bool) {
	ch := int64(p.Recording.Channels)
	g := p.grains
	from, to := g.place(first)-grainHop-grainSway, g.place(first+grainRun)+grainHop+grainSway
	all := make([]float32, (to-from)*ch)
	ok := p.heard(src, from, all)
	mono := all
	if ch == 2 {
		mono = make([]float32, to-from)
		for i := range mono {
			mono[i] = (all[2*i] + all[2*i+1]) / 2
		}
	}
	at := func(frame int64) []float32 { return mono[frame-from:] }
	list := make([]int16, grainRun)
	off := int64(0)
	for i := int64(1); i < grainRun; i++ {
		k := first + i
		before := at(g.place(k-1) + off)[:grainHop] // that it comes over
		var after []float32                         // that comes over it, where that is known
		if i == grainRun-1 {
			after = at(g.place(k+1) - grainHop)[:grainHop]
		}
		place := g.place(k)
		like := func(d, step int64) float64 {
			s := alike(before, at(place + d - grainHop)[:grainHop], int(step))
			if after != nil {
				s += alike(after, at(place + d)[:grainHop], int(step))
			}
			return s
		}
		best, most := int64(0), math.Inf(-1)
		for d := int64(-grainSway); d <= grainSway; d += grainStep {
			if v := like(d, grainStep); v > most {
				best, most = d, v
			}
		}
		middle := best
		most = math.Inf(-1)
		for d := max(middle-grainStep, -grainSway); d <= min(middle+grainStep, grainSway); d++ {
			if v := like(d, 2); v > most {
				best, most = d, v
			}
		}
		off, list[i] = best, int16(best)
	}
	return list, ok
}

// alike is how like two stretches are, every so many frames looked at: their product in shares of the second's power.
func alike(a, b []float32, step int) float64 {
	var sum, power float32
	for i := 0; i < len(a) && i < len(b); i += step {
		sum += a[i] * b[i]
		power += b[i] * b[i]
	}
	if power == 0 {
		return 0
	}
	return float64(sum) / math.Sqrt(float64(power))
}
