// Package cutout lifts a foreground off its ground: by strokes that say what is kept and what is dropped.
package cutout

import (
	"image"
	"math"
	"slices"
)

// Side is what is known of a pixel.
type Side uint8

// What strokes say of pixels. What nobody has said of is taken for one side first, and may become the other.
const (
	MaybeDrop Side = iota
	MaybeKeep
	Drop
	Keep
)

// Weights of what speaks for a side, as whole numbers (GrabCut, 2004, section 2): how strongly neighbours of one colour belong together, and the unit of all.
const (
	together = 50
	unit     = 16
	certain  = 1 << 24 // no cut goes through it
)

// model is what both sides of a picture look like, and how strongly neighbours belong together.
type model struct {
	kept, dropped mixture
	beta          float64 // one over twice the mean square difference of neighbours
}

// Segment parts a picture into what is kept and what is dropped: both sides learn the colours they have, the border goes where it costs least, and that is
// done again until it stands still, rounds times at most (Rother, Kolmogorov and Blake, GrabCut, 2004). sides holds what is known of each pixel by rows, and is
// what is found out afterwards: what was said stays. It reports whether there are two sides to be told apart.
func Segment(img *image.RGBA, sides []Side, rounds int) bool {
	return segment(img, sides, rounds, true, nil) != nil
}

// segment is Segment. With alone set, what was said of pixels counts by itself at first, where it was said of both sides. from is what is known of both sides already, nil: nothing; it returns what is known of them afterwards, nil where they cannot be told apart.
func segment(img *image.RGBA, sides []Side, rounds int, alone bool, from *model) *model {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	colours := make([][3]float64, w*h)
	for i := range colours {
		colours[i] = at(img, i, w)
	}
	m := &model{}
	links := m.linksOf(colours, w, h)
	for round := range rounds {
		if round == 0 && from != nil {
			m.kept, m.dropped = from.kept, from.dropped
		} else if !m.learned(colours, sides, round == 0 && alone) {
			return nil
		}
		g := newGraph(w*h, 4*w*h)
		for i, s := range sides {
			switch s {
			case Keep:
				g.terminal(i, certain, 0)
			case Drop:
				g.terminal(i, 0, certain)
			default:
				// What is unlikely on one side pulls to the other.
				g.terminal(i, whole(m.dropped.cost(colours[i])), whole(m.kept.cost(colours[i])))
			}
		}
		for _, l := range links {
			g.edge(int(l.i), int(l.k), l.weight, l.weight)
		}
		g.cut()
		changed := 0
		for i, s := range sides {
			is := MaybeDrop
			if g.kept(i) {
				is = MaybeKeep
			}
			if s != Keep && s != Drop && s != is {
				sides[i] = is
				changed++
			}
		}
		if 2000*changed < len(sides) {
			break
		}
	}
	if m.kept == nil {
		return nil
	}
	return m
}

// learned makes the mixtures of both sides; at first, where something was said of both, of what was said of them alone. It reports whether there are two.
func (m *model) learned(colours [][3]float64, sides []Side, first bool) bool {
	keep, drop := histogram{}, histogram{}
	sure := first && slices.Contains(sides, Keep) && slices.Contains(sides, Drop)
	for i, s := range sides {
		switch {
		case sure && s < Drop:
		case s == Keep || s == MaybeKeep:
			keep.add(colours[i])
		default:
			drop.add(colours[i])
		}
	}
	m.kept, m.dropped = keep.mixed(), drop.mixed()
	return m.kept != nil && m.dropped != nil
}

func whole(v float64) int32 {
	return int32(math.Round(unit * min(1000, max(-1000, v)+20)))
}

// link is between two neighbours, weighing as much as they belong together.
type link struct {
	i, k   int32
	weight int32
}

// apart is the square of how far two colours are from each other.
func apart(a, b [3]float64) float64 {
	x, y, z := a[0]-b[0], a[1]-b[1], a[2]-b[2]
	return x*x + y*y + z*z
}

// link is how much two neighbours weigh that are so far from each other in colours (its square), and in pixels.
func (m *model) link(d, far float64) int32 {
	return int32(math.Round(unit * together / far * math.Exp(-m.beta*d)))
}

// linksOf are those of each pixel to the right, below, and below to either side.
func (m *model) linksOf(colours [][3]float64, w, h int) []link {
	links := make([]link, 0, 4*w*h)
	sum := 0.0
	each := func(f func(i, k int, far float64)) {
		for y := range h {
			for x := range w {
				i := y*w + x
				if x+1 < w {
					f(i, i+1, 1)
				}
				if y+1 < h {
					f(i, i+w, 1)
					if x+1 < w {
						f(i, i+w+1, math.Sqrt2)
					}
					if x > 0 {
						f(i, i+w-1, math.Sqrt2)
					}
				}
			}
		}
	}
	n := 0
	each(func(i, k int, _ float64) { sum, n = sum+apart(colours[i], colours[k]), n+1 })
	if sum > 0 {
		m.beta = float64(n) / (2 * sum)
	}
	each(func(i, k int, far float64) {
		if v := m.link(apart(colours[i], colours[k]), far); v > 0 {
			links = append(links, link{int32(i), int32(k), v})
		}
	})
	return links
}
