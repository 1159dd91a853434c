package cutout

import (
	"context"
	"image"
	"math"
	"math/rand/v2"
	"runtime"
	"slices"
	"sync"
)

// Filled holes go on as their surroundings do, texture included: from a coarse copy to the picture itself, each piece of a hole looks for the piece of the
// surroundings that is most like it, and becomes the mean of what the pieces over it found (Wexler, Shechtman and Irani, Space-Time Completion of Video, 2007); it
// is looked for at random and at the neighbours' finds (Barnes, Shechtman, Finkelstein and Goldman, PatchMatch, 2009).

// Ground is a picture without what a mask keeps of it: the hole, and a little around it where its edge was soft, is continued from around it. It stops when ctx ends.
func Ground(ctx context.Context, img *image.RGBA, mask *image.Gray) (*image.RGBA, error) {
	size := img.Rect.Size()
	out := image.NewRGBA(image.Rectangle{Max: size})
	for y := range size.Y {
		copy(out.Pix[y*out.Stride:y*out.Stride+4*size.X], img.Pix[y*img.Stride:])
	}
	wide := grown(thresholded(mask), rim)
	hole := make([]bool, size.X*size.Y)
	n := 0
	for i, v := range wide.Pix {
		if v > 0 {
			hole[i] = true
			n++
		}
	}
	switch n {
	case 0:
	case len(hole):
		clear(out.Pix) // nothing is left to go on with
	default:
		levels := []*level{{size: size, pix: out.Pix, hole: hole}}
		for l := levels[0]; min(l.size.X, l.size.Y) >= 4*side && l.deep() > 4; {
			l = l.half()
			if !slices.Contains(l.hole, false) {
				break
			}
			levels = append(levels, l)
		}
		if err := fill(ctx, levels); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// rim is by how many pixels a hole is larger than what was cut out: what shines over the edge would be continued.
const rim = 3

func thresholded(mask *image.Gray) *image.Gray {
	out := image.NewGray(image.Rectangle{Max: mask.Rect.Size()})
	for i, v := range mask.Pix {
		if v > 8 {
			out.Pix[i] = 255
		}
	}
	return out
}

// Patches are squares of side pixels.
const (
	reachOf = 3
	side    = 2*reachOf + 1
)

// level is a copy of a picture with its hole.
type level struct {
	size   image.Point
	pix    []uint8 // premultiplied, four a pixel
	hole   []bool
	source []bool  // the patch around it is known
	find   []int32 // of pixels whose patch touches the hole: the middle of the patch most like it; else -1
	off    []int32 // and how far from it that is
	inside []int32 // these pixels, in rows
}

// deep is how far the deepest pixel of the hole is from what is known, at most 5, each way.
func (l *level) deep() int {
	w := l.size.X
	far := make([]uint8, len(l.hole))
	most := 0
	pass := func(i, a, b int, okA, okB bool) {
		if !l.hole[i] {
			return
		}
		v := uint8(9)
		if okA {
			v = min(v, far[a]+1)
		}
		if okB {
			v = min(v, far[b]+1)
		}
		far[i] = v
	}
	for i := range far {
		pass(i, i-1, i-w, i%w > 0, i >= w)
	}
	for i := len(far) - 1; i >= 0; i-- {
		before := far[i]
		pass(i, i+1, i+w, i%w < w-1, i+w < len(far))
		if l.hole[i] {
			far[i] = min(before, far[i])
			most = max(most, int(far[i]))
		}
	}
	return min(most, 5)
}

// half is a copy half as large: the means of what is known.
func (l *level) half() *level {
	out := &level{size: image.Pt(l.size.X/2, l.size.Y/2)}
	out.pix = make([]uint8, 4*out.size.X*out.size.Y)
	out.hole = make([]bool, out.size.X*out.size.Y)
	for y := range out.size.Y {
		for x := range out.size.X {
			var sum [4]int
			n := 0
			for k := range 4 {
				i := (2*y+k/2)*l.size.X + 2*x + k%2
				if l.hole[i] {
					continue
				}
				for c := range sum {
					sum[c] += int(l.pix[4*i+c])
				}
				n++
			}
			i := y*out.size.X + x
			out.hole[i] = n < 4
			for c := range sum {
				if n > 0 {
					out.pix[4*i+c] = uint8((sum[c] + n/2) / n)
				}
			}
		}
	}
	return out
}

// finest is how many pixels a copy has at most in which pieces are looked for; in larger ones those that were found are taken, as large as they are there.
const finest = 640 * 640

func fill(ctx context.Context, levels []*level) error {
	r := rand.New(rand.NewPCG(31, 2009))
	for k := len(levels) - 1; k >= 0; k-- {
		l := levels[k]
		l.prepare()
		rounds := 4
		if l.size.X*l.size.Y > finest {
			rounds = 0
		}
		if k == len(levels)-1 {
			l.peel()
			if !slices.Contains(l.source, true) {
				l.up(nil)
				continue // patches do not fit beside the hole: its surroundings fade into it
			}
			l.begin(r)
		} else {
			l.up(levels[k+1])
			if !slices.Contains(l.source, true) {
				continue
			}
			l.begin(r)
			l.vote()
		}
		for range rounds {
			if err := ctx.Err(); err != nil {
				return err
			}
			l.search(r)
			l.vote()
		}
	}
	levels[0].join()
	return nil
}

// prepare finds which patches are known, and which touch the hole.
func (l *level) prepare() {
	w, h := l.size.X, l.size.Y
	count := make([]int32, (w+1)*(h+1)) // of the hole, left and above
	for y := range h {
		row := int32(0)
		for x := range w {
			if l.hole[y*w+x] {
				row++
			}
			count[(y+1)*(w+1)+x+1] = count[y*(w+1)+x+1] + row
		}
	}
	l.source, l.find, l.off = make([]bool, w*h), make([]int32, w*h), make([]int32, w*h)
	for y := range h {
		for x := range w {
			x0, x1, y0, y1 := max(0, x-reachOf), min(w, x+reachOf+1), max(0, y-reachOf), min(h, y+reachOf+1)
			n := count[y1*(w+1)+x1] - count[y0*(w+1)+x1] - count[y1*(w+1)+x0] + count[y0*(w+1)+x0]
			i := y*w + x
			l.find[i] = -1
			l.source[i] = n == 0 && x1-x0 == side && y1-y0 == side
			if n > 0 {
				l.inside = append(l.inside, int32(i))
			}
		}
	}
}

// peel fills the hole from its border inwards with the means of what is there already.
func (l *level) peel() {
	w, h := l.size.X, l.size.Y
	left := slices.Clone(l.hole)
	for {
		var done []int
		for i, is := range left {
			if !is {
				continue
			}
			x, y := i%w, i/w
			var sum [4]int
			n := 0
			for dy := -1; dy <= 1; dy++ {
				for dx := -1; dx <= 1; dx++ {
					u, v := x+dx, y+dy
					if u < 0 || v < 0 || u >= w || v >= h || left[v*w+u] {
						continue
					}
					for c := range sum {
						sum[c] += int(l.pix[4*(v*w+u)+c])
					}
					n++
				}
			}
			if n == 0 {
				continue
			}
			for c := range sum {
				l.pix[4*i+c] = uint8((sum[c] + n/2) / n)
			}
			done = append(done, i)
		}
		if len(done) == 0 {
			return
		}
		for _, i := range done {
			left[i] = false
		}
	}
}

// up takes over from a copy half as large: what it found, and its colours where the hole is.
func (l *level) up(small *level) {
	if small == nil {
		return
	}
	w := l.size.X
	of := func(x, y int) int { return min(y/2, small.size.Y-1)*small.size.X + min(x/2, small.size.X-1) }
	for i, is := range l.hole {
		if is {
			copy(l.pix[4*i:4*i+4], small.pix[4*of(i%w, i/w):])
		}
	}
	for _, i := range l.inside {
		x, y := int(i)%w, int(i)/w
		f := small.find[of(x, y)]
		if f < 0 {
			continue
		}
		u, v := 2*(int(f)%small.size.X)+x%2, 2*(int(f)/small.size.X)+y%2
		if u < w && v < l.size.Y && l.source[v*w+u] {
			l.find[i] = int32(v*w + u)
		}
	}
}

// begin gives each patch that has found nothing any one, and measures what all have found.
func (l *level) begin(r *rand.Rand) {
	var known []int32
	for i, is := range l.source {
		if is {
			known = append(known, int32(i))
		}
	}
	for _, i := range l.inside {
		if l.find[i] < 0 {
			l.find[i] = known[r.IntN(len(known))]
		}
	}
	l.measure()
}

// measure tells anew how far patches are from what they have found.
func (l *level) measure() {
	parts(l.inside, func(part []int32) {
		for _, i := range part {
			l.off[i] = l.apart(int(i), int(l.find[i]), math.MaxInt32)
		}
	})
}

// apart is how far two patches are from each other, the squares of all differences; at most is enough to know.
func (l *level) apart(i, k int, most int32) int32 {
	w, h := l.size.X, l.size.Y
	x, y := i%w, i/w
	sum := int32(0)
	for dy := -reachOf; dy <= reachOf; dy++ {
		if y+dy < 0 || y+dy >= h {
			continue
		}
		from, to := max(-reachOf, -x), min(reachOf, w-1-x)
		a := l.pix[4*(i+dy*w+from) : 4*(i+dy*w+to)+4]
		b := l.pix[4*(k+dy*w+from):]
		b = b[:len(a)]
		for n, v := range a {
			d := int32(v) - int32(b[n])
			sum += d * d
		}
		if sum >= most {
			return most
		}
	}
	return sum
}

// search looks for better finds: at those of the neighbours before, then of those behind, and at random, ever nearer.
func (l *level) search(r *rand.Rand) {
	w, h := l.size.X, l.size.Y
	better := func(i, k int) {
		if k >= 0 && k < len(l.source) && l.source[k] {
			if d := l.apart(i, k, l.off[i]); d < l.off[i] {
				l.find[i], l.off[i] = int32(k), d
			}
		}
	}
	l.measure()
	for pass := range 2 {
		step := 1 - 2*pass
		for n := range l.inside {
			i := int(l.inside[n])
			if pass == 1 {
				i = int(l.inside[len(l.inside)-1-n])
			}
			x, y := i%w, i/w
			if u := x - step; u >= 0 && u < w && l.find[i-step] >= 0 {
				better(i, int(l.find[i-step])+step)
			}
			if v := y - step; v >= 0 && v < h && l.find[i-step*w] >= 0 {
				better(i, int(l.find[i-step*w])+step*w)
			}
			for far := max(w, h); far >= 1; far /= 2 {
				u := int(l.find[i])%w + r.IntN(2*far+1) - far
				v := int(l.find[i])/w + r.IntN(2*far+1) - far
				if u >= 0 && v >= 0 && u < w && v < h {
					better(i, v*w+u)
				}
			}
		}
	}
}

// vote makes each pixel of the hole the mean of what the patches over it have found, those that fit better counting more.
func (l *level) vote() {
	all := make([]int32, 0, len(l.inside))
	for _, i := range l.inside {
		all = append(all, l.off[i])
	}
	slices.Sort(all)
	fit := 2 * max(1, float64(all[len(all)*3/4])) * 0.25
	weight := make([]float64, len(l.hole))
	for _, i := range l.inside {
		weight[i] = max(1e-9, math.Exp(-float64(l.off[i])/fit))
	}
	// Colours that are read are of what was found, and known: parts of the hole are written at once.
	parts(l.inside, func(part []int32) { l.means(part, weight) })
}

// parts calls f with parts of a list, several at once.
func parts(list []int32, f func(part []int32)) {
	n := runtime.GOMAXPROCS(0)
	var all sync.WaitGroup
	for k := range n {
		all.Go(func() { f(list[len(list)*k/n : len(list)*(k+1)/n]) })
	}
	all.Wait()
}

// means makes pixels of the hole the means of what the patches over them have found.
func (l *level) means(part []int32, weight []float64) {
	w, h := l.size.X, l.size.Y
	for _, at := range part {
		i := int(at)
		if !l.hole[i] {
			continue
		}
		x, y := i%w, i/w
		var sum [4]float64
		n := 0.0
		for dy := max(-reachOf, -y); dy <= min(reachOf, h-1-y); dy++ {
			for dx := max(-reachOf, -x); dx <= min(reachOf, w-1-x); dx++ {
				k := i + dy*w + dx // a patch over this pixel; all of them touch the hole
				v := weight[k]
				p := l.pix[4*(int(l.find[k])-dy*w-dx):]
				for c := range sum {
					sum[c] += v * float64(p[c])
				}
				n += v
			}
		}
		for c := range sum {
			l.pix[4*i+c] = uint8(sum[c]/n + 0.5)
		}
	}
}
