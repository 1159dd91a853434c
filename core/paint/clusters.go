package paint

import (
	"math"
	"slices"
	"sort"
)

// Cluster is a group of alike colours of a picture.
type Cluster struct {
	Colour Colour
	Share  float64 // 0..1 of the picture
}

// bins is how finely colours are counted along each axis of OKLab before they are clustered.
const bins = 24

// Clusters groups the colours of a picture (RGBA bytes, not premultiplied; clear pixels are left out) into at most n, the largest
// first: k-means in OKLab, weighted by how many pixels a colour has, from centres that are spread out as k-means++ would, but
// taking the farthest by weight, so that the same picture always gives the same colours.
func Clusters(rgba []byte, n int) []Cluster {
	type point struct {
		v Lab
		w float64
	}
	counted := map[[3]int]*point{}
	total := 0.0
	for i := 0; i+3 < len(rgba); i += 4 {
		if rgba[i+3] < 128 {
			continue
		}
		v := Colour{float64(rgba[i]) / 255, float64(rgba[i+1]) / 255, float64(rgba[i+2]) / 255, 1}.Lab()
		k := [3]int{int(v.L * bins), int((v.A + 0.5) * bins), int((v.B + 0.5) * bins)}
		p := counted[k]
		if p == nil {
			p = &point{}
			counted[k] = p
		}
		p.v.L, p.v.A, p.v.B, p.w = p.v.L+v.L, p.v.A+v.A, p.v.B+v.B, p.w+1
		total++
	}
	keys := make([][3]int, 0, len(counted))
	for k := range counted {
		keys = append(keys, k)
	}
	sort.Slice(keys, func(i, k int) bool { return slices.Compare(keys[i][:], keys[k][:]) < 0 })
	list := make([]point, len(keys))
	for i, k := range keys {
		p := counted[k]
		list[i] = point{Lab{p.v.L / p.w, p.v.A / p.w, p.v.B / p.w, 1}, p.w}
	}
	far := func(a, b Lab) float64 { return (a.L-b.L)*(a.L-b.L) + (a.A-b.A)*(a.A-b.A) + (a.B-b.B)*(a.B-b.B) }
	var centres []Lab
	for len(centres) < min(n, len(list)) {
		best, at := -1.0, 0
		for i, p := range list {
			d := 1.0
			for j, c := range centres {
				if e := far(p.v, c); j == 0 || e < d {
					d = e
				}
			}
			// The root keeps a small but striking colour in the running.
			if score := d * math.Sqrt(p.w); score > best {
				best, at = score, i
			}
		}
		if best <= 0 {
			break
		}
		centres = append(centres, list[at].v)
	}
	weights := make([]float64, len(centres))
	for range 24 {
		sums := make([]Lab, len(centres))
		clear(weights)
		for _, p := range list {
			at := 0
			for j, c := range centres {
				if far(p.v, c) < far(p.v, centres[at]) {
					at = j
				}
			}
			sums[at].L, sums[at].A, sums[at].B = sums[at].L+p.v.L*p.w, sums[at].A+p.v.A*p.w, sums[at].B+p.v.B*p.w
			weights[at] += p.w
		}
		for j, w := range weights {
			if w > 0 {
				centres[j] = Lab{sums[j].L / w, sums[j].A / w, sums[j].B / w, 1}
			}
		}
	}
	var out []Cluster
	for j, c := range centres {
		if weights[j] > 0 {
			out = append(out, Cluster{c.Colour(), weights[j] / total})
		}
	}
	sort.SliceStable(out, func(i, k int) bool { return out[i].Share > out[k].Share })
	return out
}

// Roles proposes the five colours of a scene from a picture: its ground is the largest group of colours; the words are what reads
// best on it, black or white's tone where no group reaches a contrast of 4.5; the accent is the most colourful of the rest; and
// both ground and accent have a tone beside them.
func Roles(rgba []byte) (ground, groundTone, accent, accentTone, words Colour, ok bool) {
	list := Clusters(rgba, 8)
	if len(list) == 0 {
		return
	}
	ground = list[0].Colour
	best := 0.0
	for _, c := range list[1:] {
		if k := Contrast(c.Colour, ground); k > best {
			best, words = k, c.Colour
		}
	}
	if best < 4.5 {
		dark, light := ground.Tone(-ToneSteps), ground.Tone(ToneSteps)
		words = dark
		if Contrast(light, ground) > Contrast(dark, ground) {
			words = light
		}
		if Contrast(words, ground) < 4.5 {
			words = Black
			if Contrast(White, ground) > Contrast(Black, ground) {
				words = White
			}
		}
	}
	accent = ground.Tone(-2)
	most := -1.0
	for _, c := range list[1:] {
		v := c.Colour.Lab()
		chroma := math.Hypot(v.A, v.B)
		if c.Colour != words && chroma > most {
			most, accent = chroma, c.Colour
		}
	}
	step := 1
	if ground.Lab().L > 0.6 {
		step = -1
	}
	return ground, ground.Tone(step), accent, accent.Tone(-1), words, true
}
