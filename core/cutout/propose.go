package cutout

import (
	"image"
	"math"
	"strings"

	"capstan/core/doc"
)

// glance is how wide or high the copy is at most in which sides are tried.
const glance = 112

// Propose says which sides of a picture are its ground, as letters out of l, t, r and b, and how well what is found by them stands out, 0..1. Subjects touch the
// border in most photographs: each set of sides is tried on a small copy, and that one is taken whose two sides differ most in colour and meet where the picture
// has edges.
func (s *Source) Propose() (ground string, clear float64) {
	small := s.small
	for max(small.Rect.Dx(), small.Rect.Dy()) > glance && min(small.Rect.Dx(), small.Rect.Dy()) > 1 {
		small = halved(small)
	}
	best := math.Inf(-1)
	ground = "ltrb"
	for _, sides := range []string{"ltrb", "ltr", "tr", "lt", "t", "lr", "l", "r", "trb", "ltb", "lrb"} {
		if v, is := tried(small, sides); v > best {
			best, ground, clear = v, sides, is
		}
	}
	return ground, clear
}

// Stands says in words how well what was found stands out, 0..1: what a person may expect to have to draw. The thresholds are those of the photographs that the
// tests try.
func Stands(clear float64) string {
	switch {
	case clear > 0.96:
		return "It stands out clearly from its ground."
	case clear > 0.9:
		return "Its edges are plain in part: a few strokes will help."
	}
	return "It hardly stands out from its ground: expect to draw."
}

// tried parts a small picture whose ground is at some sides. worth is for comparing sets of sides, clear how well the parts are told apart, 0..1.
func tried(small *image.RGBA, ground string) (worth, clear float64) {
	size := small.Rect.Size()
	sides := begun(size, 1, &doc.Cutout{Ground: ground})
	m := segment(small, sides, 3, false, nil)
	if m == nil {
		return math.Inf(-1), 0
	}
	is := func(i int) bool { return sides[i] == Keep || sides[i] == MaybeKeep }
	kept, edge, edges, all, n := 0, 0.0, 0, 0.0, 0
	apartBy := 0.0
	for y := range size.Y {
		for x := range size.X {
			i := y*size.X + x
			c := at(small, i, size.X)
			by := m.dropped.cost(c) - m.kept.cost(c)
			if is(i) {
				kept++
			} else {
				by = -by
			}
			apartBy += min(6, max(-6, by)) / float64(len(sides))
			for _, k := range []int{i + 1, i + size.X} {
				if k == i+1 && x+1 == size.X || k >= len(sides) {
					continue
				}
				d := math.Sqrt(apart(c, at(small, k, size.X)))
				all, n = all+d, n+1
				if is(i) != is(k) {
					edge, edges = edge+d, edges+1
				}
			}
		}
	}
	share := float64(kept) / float64(len(sides))
	if edges == 0 || share < 0.02 || share > 0.97 {
		return math.Inf(-1), 0
	}
	stands := edge / float64(edges) / (all/float64(max(1, n)) + 1) // how much stronger the border is than edges are
	worth = min(3, stands)/3 + max(0, apartBy)/6 - 0.3*math.Abs(share-0.4)
	// Most subjects stand: the ground is above them, and seldom below alone (common practice).
	if !strings.ContainsRune(ground, 't') {
		worth -= 0.25
	}
	// A side that is not ground is where the subject goes on: most of it is kept there.
	for _, side := range "ltrb" {
		if !strings.ContainsRune(ground, side) && keptAlong(sides, size, side) < 0.3 {
			worth -= 0.5
		}
	}
	return worth, min(1, max(0, (min(3, stands)/3+max(0, apartBy)/6)/2))
}

// keptAlong is how much of a side is kept, 0..1.
func keptAlong(sides []Side, size image.Point, side rune) float64 {
	n, kept := size.X, 0
	if side == 'l' || side == 'r' {
		n = size.Y
	}
	for k := range n {
		i := 0
		switch side {
		case 'l':
			i = k * size.X
		case 't':
			i = k
		case 'r':
			i = k*size.X + size.X - 1
		case 'b':
			i = (size.Y-1)*size.X + k
		}
		if sides[i] == Keep || sides[i] == MaybeKeep {
			kept++
		}
	}
	return float64(kept) / float64(max(1, n))
}
