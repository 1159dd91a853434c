package sound

import (
	"math"
	"sync"
)

// Source holds recordings.
type Source interface {
	// Read fills to with frames of a recording from a frame on, its channels in turns, and reports whether they are there. It is asked for no more frames than
	// the recording has.
	Read(media string, channels int, from int64, to []float32) bool
}

// joint is how long a recording that loops fades from its end into its beginning at most, in frames.
const joint = Rate / 50

// Round is how many frames of its recording a part that loops has before it begins again, those over which it goes over into its beginning not counted.
func (p *Part) Round() int64 {
	whole := p.Recording.Samples - Frames(p.Sound.From)
	return whole - min(joint, whole/4)
}

// heard fills to with frames of a part as if its recording went on for ever: with silence after its end, or, where it loops, from its beginning again. Places are
// counted from where the part begins in its recording. At the joint of a loop the end goes over into the beginning, with the power of one.
func (p *Part) heard(src Source, from int64, to []float32) bool {
	ch := p.Recording.Channels
	n := int64(len(to) / ch)
	first := Frames(p.Sound.From)
	whole := p.Recording.Samples - first
	if whole <= 0 {
		return true
	}
	if !p.Sound.Loops {
		a, b := max(from, -first), min(from+n, whole)
		if a >= b {
			return true
		}
		return src.Read(p.Sound.Media, ch, first+a, to[(a-from)*int64(ch):(b-from)*int64(ch)])
	}
	period := p.Round()
	over := whole - period
	ok := true
	for done := int64(0); done < n; {
		at := from + done
		round, v := at/period, at%period
		if at < 0 {
			round, v = -1, 0
			done += min(-at, n-done)
			continue
		}
		m := min(n-done, period-v)
		part := to[done*int64(ch) : (done+m)*int64(ch)]
		ok = src.Read(p.Sound.Media, ch, first+v, part) && ok
		if round > 0 && v < over {
			k := min(m, over-v)
			tail := make([]float32, k*int64(ch))
			ok = src.Read(p.Sound.Media, ch, first+period+v, tail) && ok
			for i := range k {
				in, out := math.Sincos((float64(v+i) + 0.5) / float64(over) * math.Pi / 2)
				for c := range int64(ch) {
					j := i*int64(ch) + c
					part[j] = float32(float64(part[j])*in + float64(tail[j])*out)
				}
			}
		}
		done += m
	}
	return ok
}

// kernel resamples to another speed: a sinc in a Kaiser window, cut off where the faster recording would fold over.
type kernel struct {
	speed float64
	half  int         // frames to either side that count
	table [][]float32 // of each phase
}

// Of a kernel: zero crossings to either side, phases, and the shape of the window (Kaiser, 1974: 80 dB and a transition of a fifth).
const (
	crossings = 16
	phases    = 512
	beta      = 7.86
)

var kernels = struct {
	sync.Mutex
	by map[float64]*kernel
}{by: map[float64]*kernel{}}

func kernelFor(speed float64) *kernel {
	kernels.Lock()
	defer kernels.Unlock()
	if k := kernels.by[speed]; k != nil {
		return k
	}
	if len(kernels.by) > 64 {
		clear(kernels.by)
	}
	k := newKernel(speed)
	kernels.by[speed] = k
	return k
}

func newKernel(speed float64) *kernel {
	cut := math.Min(1, 1/speed) * 0.94
	k := &kernel{speed: speed, half: int(math.Ceil(crossings / cut)), table: make([][]float32, phases+1)}
	for ph := range k.table {
		row := make([]float32, 2*k.half)
		sum := 0.0
		weights := make([]float64, len(row))
		for i := range row {
			x := float64(i-k.half+1) - float64(ph)/phases // frames from the place that is asked for
			w := sinc(x*cut) * kaiser(x/float64(k.half))
			weights[i] = w
			sum += w
		}
		for i, w := range weights {
			row[i] = float32(w / sum)
		}
		k.table[ph] = row
	}
	return k
}

func sinc(x float64) float64 {
	if x == 0 {
		return 1
	}
	return math.Sin(math.Pi*x) / (math.Pi * x)
}

func kaiser(x float64) float64 {
	if x <= -1 || x >= 1 {
		return 0
	}
	return bessel(beta*math.Sqrt(1-x*x)) / bessel(beta)
}

// bessel is the modified Bessel function of the first kind of order 0, by its series.
func bessel(x float64) float64 {
	sum, term := 1.0, 1.0
	for k := 1.0; term > 1e-12*sum; k++ {
		term *= x * x / 4 / (k * k)
		sum += term
	}
	return sum
}

// taken fills to with frames of a part from a frame of the film on, at its speed; scratch is used again.
func (p *Part) taken(src Source, at int64, to []float32, scratch *[]float32) bool {
	since := at - p.Begin
	if p.grains != nil {
		return p.stretched(src, since, to, scratch)
	}
	if p.kernel == nil {
		clear(to)
		return p.heard(src, since, to)
	}
	k, ch := p.kernel, p.Recording.Channels
	n := len(to) / ch
	first := float64(since) * k.speed
	from := int64(math.Floor(first)) - int64(k.half) + 1
	last := int64(math.Floor(float64(since+int64(n)-1)*k.speed)) + int64(k.half)
	need := int(last-from+1) * ch
	if cap(*scratch) < need {
		*scratch = make([]float32, need)
	}
	in := (*scratch)[:need]
	clear(in)
	ok := p.heard(src, from, in)
	for i := range n {
		x := float64(since+int64(i)) * k.speed
		whole := math.Floor(x)
		ph := (x - whole) * phases
		row := int(ph)
		t := float32(ph - float64(row))
		a, b := k.table[row], k.table[row+1]
		base := (int(int64(whole)-from) - k.half + 1) * ch
		for c := range ch {
			sum := float32(0)
			for j, v := range a {
				sum += in[base+j*ch+c] * (v + (b[j]-v)*t)
			}
			to[i*ch+c] = sum
		}
	}
	return ok
}
