package display

import (
	"math"

	"capstan/core/geom"
	"capstan/core/motion"
)

// VeilTerm is what a veil is made of, in postfix order: reveals, and what joins the two parts before it.
type VeilTerm = uint32

// The terms of veils. Each reveal has axes of its own, m from them to the page, and an opacity o: at the local point q it shows
// o x clamp((edge - u(q)) / softness, 0, 1), over one device px where softness is less than that, or o x (1 - that) where inverted is 1. What u
// and its numbers are says each:
const (
	VeilOver    VeilTerm = iota // a + b (1 - a), of the two parts before it
	VeilTimes                   // a b
	VeilHalf                    // a half-plane: dx dy edge softness inverted. u = d.q
	VeilDoors                   // two half-planes about a middle: dx dy middle edge softness inverted. u = |d.q - middle|
	VeilBox                     // cx cy rx ry unit edge softness inverted. u = unit x max(|x| / rx, |y| / ry), x and y from the centre
	VeilDiamond                 // likewise, with |x| / rx + |y| / ry
	VeilEllipse                 // likewise, with hypot(x / rx, y / ry)
	VeilSector                  // cx cy start sweep inverted: what lies in sweep degrees from start on, 0 upwards, clockwise; below 0 anticlockwise
	VeilNoise                   // seed grain smooth front softness inverted: edge is front (1 + softness), u the noise at q (see NoiseAt)
	VeilOutline                 // code: key. inverted: the inside of an outline, antialiased
)

// MaxVeilTerms is how many terms a veil has at most.
const MaxVeilTerms = 2*motion.MaxReveals - 1

// VeilTerms declares what each takes beside its code; numbers count the matrix and the opacity of reveals.
var VeilTerms = []struct {
	Name           string
	Codes, Numbers int
}{
	{"over", 0, 0}, {"times", 0, 0}, {"half", 0, 12}, {"doors", 0, 13}, {"box", 0, 15}, {"diamond", 0, 15}, {"ellipse", 0, 15}, {"sector", 0, 12}, {"noise", 0, 13},
	{"outline", 1, 8},
}

// NoiseAt is seeded noise, 0..1, at a point of a lattice whose cells are 1 by 1: one number for each cell, or, smooth, between those at its
// corners. Cells are hashed with 32-bit multiplications (lowbias32, by Chris Wellons), so that it is the same everywhere.
func NoiseAt(seed uint32, smooth bool, x, y float64) float64 {
	i, j := math.Floor(x), math.Floor(y)
	cell := func(i, j float64) float64 {
		h := uint32(int32(i))*0x9e3779b1 ^ uint32(int32(j))*0x85ebca77 ^ seed*0xc2b2ae3d
		h ^= h >> 16
		h *= 0x7feb352d
		h ^= h >> 15
		h *= 0x846ca68b
		h ^= h >> 16
		return float64(h) / (1 << 32)
	}
	if !smooth {
		return cell(i, j)
	}
	step := func(t float64) float64 { return t * t * (3 - 2*t) }
	u, v := step(x-i), step(y-j)
	top, foot := cell(i, j), cell(i, j+1)
	top += (cell(i+1, j) - top) * u
	foot += (cell(i+1, j+1) - foot) * u
	return top + (foot-top)*v
}

// terms writes the terms of a veil over something whose box is given in the axes that m maps to the page. Codes go before all numbers.
func (l *List) Terms(v motion.Veil, box geom.Box) {
	l.Codes = append(l.Codes, uint32(len(v)))
	for i := range v {
		switch v[i].Join {
		case motion.Over:
			l.Codes = append(l.Codes, VeilOver)
		case motion.Times:
			l.Codes = append(l.Codes, VeilTimes)
		default:
			f := v[i].Field(box)
			l.Codes = append(l.Codes, VeilHalf+VeilTerm(f.Shape))
		}
	}
}

func (l *List) TermNumbers(v motion.Veil, m geom.Matrix, box geom.Box) {
	for i := range v {
		if v[i].Join == motion.Shows {
			if v[i].Tie != nil {
				l.Matrix(geom.Identity) // edges that others drive lie on the page
			} else {
				l.Matrix(m)
			}
			l.Num(v[i].Opacity)
			f := v[i].Field(box)
			l.Num(f.N[:f.Count]...)
		}
	}
}
