package anim

import "math"

// Limits by which stretches of a film get palettes of their own: ours, from the demo's films.
const (
	strayed = 0.004 // how far colours are from the palette of the whole film on average (OKLab) before others are looked for
	gains   = 0.75  // a palette of its own is taken where colours are at most this share of that from it
)

// Palettes returns a palette of at most n colours for each stretch of a film, of which the colours were counted: the same one for all, but another
// where that of the whole film strays from the colours of a stretch, and one of its own does not.
func Palettes(stretches []Census, n int) []*Palette {
	var all Census
	for i := range stretches {
		all.merge(&stretches[i])
	}
	whole := all.Palette(n)
	list := make([]*Palette, len(stretches))
	for i := range stretches {
		list[i] = whole
		if off := stretches[i].off(whole); len(stretches) > 1 && off > strayed {
			if own := stretches[i].Palette(n); stretches[i].off(own) <= gains*off {
				list[i] = own
			}
		}
	}
	return list
}

// merge adds what another has counted.
func (c *Census) merge(o *Census) {
	if c.bins == nil {
		c.bins, c.exact = map[uint32]*bin{}, map[uint32]int{}
	}
	for k, b := range o.bins {
		to := c.bins[k]
		if to == nil {
			to = &bin{}
			c.bins[k] = to
		}
		to.n += b.n
		for i := range b.sum {
			to.sum[i] += b.sum[i]
		}
	}
	for k, v := range o.exact {
		if !c.many {
			c.exact[k] += v
		}
	}
	if c.many = c.many || o.many || len(c.exact) > MostColours; c.many {
		c.exact = nil
	}
}

// off is how far the counted colours are from the nearest of a palette, in OKLab: the root of the mean square.
func (c *Census) off(p *Palette) float64 {
	sum, n := 0.0, 0.0
	for _, s := range c.samples() {
		sum += s.n * apart(&p.labs[nearest(p.labs, s.lab)], &s.lab)
		n += s.n
	}
	return math.Sqrt(sum / max(1, n))
}
