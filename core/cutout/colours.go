package cutout

import (
	"math"
	"slices"
)

// mixture is how the colours of one side lie: some normal distributions, each with its share.
type mixture []normal

// normal is a normal distribution of colours 0..255.
type normal struct {
	mean    [3]float64
	inverse [6]float64 // of the covariance: xx xy xz yy yz zz
	cost    float64    // what its share and its spread add to the cost of any colour
}

// mostParts is of how many distributions a mixture is made (Rother, Kolmogorov and Blake, GrabCut, 2004, section 3.1).
const mostParts = 5

// cost is how unlikely a colour is: the negative logarithm of what the nearest distribution gives it.
func (m mixture) cost(c [3]float64) float64 {
	least := math.Inf(1)
	for i := range m {
		n := &m[i]
		x, y, z := c[0]-n.mean[0], c[1]-n.mean[1], c[2]-n.mean[2]
		v := &n.inverse
		d := x*x*v[0] + y*y*v[3] + z*z*v[5] + 2*(x*y*v[1]+x*z*v[2]+y*z*v[4])
		least = min(least, n.cost+d/2)
	}
	return least
}

// sums are those of colours: how many, their sum, and of the products of their parts.
type sums struct {
	n    float64
	sum  [3]float64
	prod [6]float64
}

func (s *sums) add(c [3]float64) {
	s.n++
	for i := range c {
		s.sum[i] += c[i]
	}
	s.prod[0] += c[0] * c[0]
	s.prod[1] += c[0] * c[1]
	s.prod[2] += c[0] * c[2]
	s.prod[3] += c[1] * c[1]
	s.prod[4] += c[1] * c[2]
	s.prod[5] += c[2] * c[2]
}

func (s *sums) join(o *sums) {
	s.n += o.n
	for i := range s.sum {
		s.sum[i] += o.sum[i]
	}
	for i := range s.prod {
		s.prod[i] += o.prod[i]
	}
}

// spread is the mean and the covariance.
func (s *sums) spread() (mean [3]float64, cov [6]float64) {
	for i := range mean {
		mean[i] = s.sum[i] / s.n
	}
	k := 0
	for i := range 3 {
		for j := i; j < 3; j++ {
			cov[k] = s.prod[k]/s.n - mean[i]*mean[j]
			k++
		}
	}
	return mean, cov
}

// axis is the direction in which colours are spread most, and how far (the largest eigenvalue), by repeated multiplication.
func axis(c [6]float64) (v [3]float64, most float64) {
	v = [3]float64{0.6, 0.64, 0.48}
	for range 24 {
		w := [3]float64{c[0]*v[0] + c[1]*v[1] + c[2]*v[2], c[1]*v[0] + c[3]*v[1] + c[4]*v[2], c[2]*v[0] + c[4]*v[1] + c[5]*v[2]}
		most = math.Sqrt(w[0]*w[0] + w[1]*w[1] + w[2]*w[2])
		if most < 1e-9 {
			return v, 0
		}
		v = [3]float64{w[0] / most, w[1] / most, w[2] / most}
	}
	return v, most
}

// histogram counts colours by the upper five bits of their parts.
type histogram map[uint16]*sums

func (h histogram) add(c [3]float64) {
	k := uint16(c[0])>>3<<10 | uint16(c[1])>>3<<5 | uint16(c[2])>>3
	s := h[k]
	if s == nil {
		s = &sums{}
		h[k] = s
	}
	s.add(c)
}

// mixed makes a mixture of a histogram: the group of colours that is spread most is parted at its mean, again and again (Orchard and Bouman, 1991).
func (h histogram) mixed() mixture {
	keys := make([]uint16, 0, len(h))
	for k := range h {
		keys = append(keys, k)
	}
	slices.Sort(keys) // the same colours give the same mixture
	type group struct {
		bins []*sums
		all  sums
	}
	groups := []*group{{}}
	for _, k := range keys {
		groups[0].bins = append(groups[0].bins, h[k])
		groups[0].all.join(h[k])
	}
	if groups[0].all.n == 0 {
		return nil
	}
	total := groups[0].all.n
	for len(groups) < mostParts {
		var widest *group
		var along, mean [3]float64
		most := 1.0 // what is narrower is one colour
		for _, g := range groups {
			m, cov := g.all.spread()
			if v, by := axis(cov); len(g.bins) > 1 && by*g.all.n/total > most {
				widest, along, mean, most = g, v, m, by*g.all.n/total
			}
		}
		if widest == nil {
			break
		}
		far := &group{}
		near := group{}
		for _, b := range widest.bins {
			d := 0.0
			for i := range along {
				d += along[i] * (b.sum[i]/b.n - mean[i])
			}
			if d > 0 {
				far.bins = append(far.bins, b)
				far.all.join(b)
			} else {
				near.bins = append(near.bins, b)
				near.all.join(b)
			}
		}
		if len(far.bins) == 0 || len(near.bins) == 0 {
			break
		}
		*widest = near
		groups = append(groups, far)
	}
	var m mixture
	for _, g := range groups {
		mean, c := g.all.spread()
		// At least as wide as noise of two levels: one flat colour would have no width.
		c[0], c[3], c[5] = c[0]+4, c[3]+4, c[5]+4
		a, b, d := c[3]*c[5]-c[4]*c[4], c[2]*c[4]-c[1]*c[5], c[1]*c[4]-c[2]*c[3]
		det := c[0]*a + c[1]*b + c[2]*d
		if det <= 0 {
			continue
		}
		m = append(m, normal{mean, [6]float64{a / det, b / det, d / det, (c[0]*c[5] - c[2]*c[2]) / det, (c[1]*c[2] - c[0]*c[4]) / det, (c[0]*c[3] - c[1]*c[1]) / det},
			-math.Log(g.all.n/total) + math.Log(det)/2})
	}
	return m
}
