// Package anim turns frames into GIF and animated PNG: a palette, a dither, only what changes from frame to frame, and delays that follow the
// film's time without drift (docs/motion.md, section 9).
package anim

import (
	"cmp"
	"math"
	"slices"

	"capstan/core/paint"
)

// MostColours is how many opaque colours a palette has at most; index 0 is kept for what is let through.
const MostColours = 255

// Palette is up to 255 opaque colours, those that are used most first, at indices from 1.
type Palette struct {
	colours [][3]uint8
	labs    [][3]float64
}

// cluster is a part of the colours that are one in the palette.
type cluster struct {
	s    []sample
	n    float64
	mean [3]float64
	axis int
	err  float64 // summed squared distance along axis
}

func newCluster(s []sample) cluster {
	c := cluster{s: s}
	var sq [3]float64
	for _, v := range s {
		c.n += v.n
		for k := range sq {
			c.mean[k] += v.lab[k] * v.n
			sq[k] += v.lab[k] * v.lab[k] * v.n
		}
	}
	for k := range sq {
		c.mean[k] /= c.n
		if e := sq[k] - c.mean[k]*c.mean[k]*c.n; e > c.err {
			c.err, c.axis = e, k
		}
	}
	return c
}

// rounds is how often colours go over to the nearest mean, and means follow (Lloyd, 1982): later rounds change little.
const rounds = 4

// Palette chooses at most n <= 255 colours of those counted: exactly those, where they are no more. Else, in OKLab, clusters are split where
// their variance is largest, at the mean of the axis it lies on (after Wan, Wong and Prusinkiewicz, 1990), and then settled by rounds of k-means.
func (c *Census) Palette(n int) *Palette {
	n = max(1, min(n, MostColours))
	if !c.many && len(c.exact) > 0 && len(c.exact) <= n {
		keys := make([]uint32, 0, n)
		for k := range c.exact {
			keys = append(keys, k)
		}
		slices.SortFunc(keys, func(a, b uint32) int { return cmp.Or(cmp.Compare(c.exact[b], c.exact[a]), cmp.Compare(a, b)) })
		p := &Palette{}
		for _, k := range keys {
			p.add([3]uint8{uint8(k >> 16), uint8(k >> 8), uint8(k)})
		}
		return p
	}
	all := c.samples()
	if len(all) == 0 {
		all = []sample{{n: 1}}
	}
	list := split(all, n)
	means, counts := make([][3]float64, len(list)), make([]float64, len(list))
	for i, k := range list {
		means[i] = k.mean
	}
	belongs := settle(all, means, counts)
	order := make([]int, len(means))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(counts[b], counts[a]) })
	// A cluster that is nearly all one colour keeps that colour exactly: flat grounds stay flat.
	tops := make([]int, len(means))
	for i := range tops {
		tops[i] = -1
	}
	for i, k := range belongs {
		if tops[k] < 0 || all[i].n > all[tops[k]].n {
			tops[k] = i
		}
	}
	p := &Palette{}
	for _, k := range order {
		v := means[k]
		if tops[k] >= 0 && all[tops[k]].n*2 > counts[k] {
			v = all[tops[k]].lab
		}
		r, g, b, _ := paint.Lab{L: v[0], A: v[1], B: v[2], Alpha: 1}.Colour().Bytes()
		if rgb := [3]uint8{r, g, b}; !slices.Contains(p.colours, rgb) {
			p.add(rgb)
		}
	}
	return p
}

func (p *Palette) add(c [3]uint8) {
	p.colours = append(p.colours, c)
	p.labs = append(p.labs, labOf(uint32(c[0])<<16|uint32(c[1])<<8|uint32(c[2])))
}

func split(all []sample, n int) []cluster {
	list := []cluster{newCluster(all)}
	for len(list) < n {
		worst := 0
		for i := range list {
			if list[i].err > list[worst].err {
				worst = i
			}
		}
		w := list[worst]
		if len(w.s) < 2 || w.err < 1e-12 {
			break
		}
		var lo, hi []sample
		for _, s := range w.s {
			if s.lab[w.axis] < w.mean[w.axis] {
				lo = append(lo, s)
			} else {
				hi = append(hi, s)
			}
		}
		if len(lo) == 0 || len(hi) == 0 {
			list[worst].err = 0
			continue
		}
		list[worst] = newCluster(lo)
		list = append(list, newCluster(hi))
	}
	return list
}

// settle moves means to where colours are, counts the pixels of each, and says which mean each colour belongs to.
func settle(all []sample, means [][3]float64, counts []float64) []int {
	belongs := make([]int, len(all))
	for round := range rounds + 1 {
		sums := make([][3]float64, len(means))
		clear(counts)
		for i := range all {
			k := nearest(means, all[i].lab)
			belongs[i] = k
			counts[k] += all[i].n
			for c := range 3 {
				sums[k][c] += all[i].lab[c] * all[i].n
			}
		}
		for k := range means {
			if counts[k] > 0 && round < rounds {
				for c := range 3 {
					means[k][c] = sums[k][c] / counts[k]
				}
			}
		}
	}
	return belongs
}

func nearest(list [][3]float64, c [3]float64) int {
	best, at := math.Inf(1), 0
	for i := range list {
		if d := apart(&list[i], &c); d < best {
			best, at = d, i
		}
	}
	return at
}

// apart is the squared distance of two colours in OKLab.
func apart(a, b *[3]float64) float64 {
	x, y, z := a[0]-b[0], a[1]-b[1], a[2]-b[2]
	return x*x + y*y + z*z
}

// linearOf holds the linear value of each sRGB byte.
var linearOf = func() (t [256]float64) {
	for i := range t {
		t[i] = paint.Linear(float64(i) / 255)
	}
	return
}()

func labOf(rgb uint32) [3]float64 {
	v := paint.LinearLab(linearOf[rgb>>16&255], linearOf[rgb>>8&255], linearOf[rgb&255])
	return [3]float64{v.L, v.A, v.B}
}
