package cutout

import (
	"image"
	"math"
	"slices"

	"capstan/core/doc"
)

// said is what strokes say of the pixels of a picture of a size, which is scale times as small as that in which they were drawn; nil: nothing. What a later one
// says holds.
func said(strokes []doc.CutStroke, size image.Point, scale float64) []Side {
	var sides []Side
	for i := range strokes {
		s := &strokes[i]
		side := Drop
		switch s.How {
		case doc.CutKeep:
			side = Keep
		case doc.CutDrop, doc.CutWithin:
		default:
			continue
		}
		if sides == nil {
			sides = make([]Side, size.X*size.Y)
		}
		if s.How != doc.CutWithin {
			covered(s, size, scale, func(i int, _ float64) { sides[i] = side })
			continue
		}
		inside := make([]bool, len(sides))
		covered(s, size, scale, func(i int, _ float64) { inside[i] = true })
		for i, in := range inside {
			if !in {
				sides[i] = Drop
			}
		}
	}
	return sides
}

// painted carries out what strokes by hand say of a mask.
func painted(mask *image.Gray, strokes []doc.CutStroke) {
	size := mask.Rect.Size()
	var most []float64 // of one stroke: where it crosses itself it covers once
	for i := range strokes {
		s := &strokes[i]
		if s.How != doc.CutPaint && s.How != doc.CutRub {
			continue
		}
		if most == nil {
			most = make([]float64, size.X*size.Y)
		}
		var touched []int
		covered(s, size, 1, func(i int, v float64) {
			if most[i] == 0 {
				touched = append(touched, i)
			}
			most[i] = max(most[i], v)
		})
		to := 0.0
		if s.How == doc.CutPaint {
			to = 255
		}
		for _, i := range touched {
			p := &mask.Pix[i/size.X*mask.Stride+i%size.X]
			*p = uint8(math.Round(float64(*p) + (to-float64(*p))*most[i]))
			most[i] = 0
		}
	}
}

// covered calls f with the pixels that a stroke covers by more than nothing, by their numbers in rows, and how much it does; of lines, more than once.
func covered(s *doc.CutStroke, size image.Point, scale float64, f func(i int, cover float64)) {
	at := make([][2]float64, len(s.Points))
	for i, p := range s.Points {
		at[i] = [2]float64{p[0] / scale, p[1] / scale}
	}
	switch s.Form {
	case "box":
		a, b := at[0], at[1]
		at = [][2]float64{a, {b[0], a[1]}, b, {a[0], b[1]}}
		fallthrough
	case "area":
		within(at, size, f)
	default:
		half := s.Width / scale / 2
		soft := 0.0
		if s.How == doc.CutPaint || s.How == doc.CutRub {
			soft = max(s.Soft*half, 0.5)
		} else {
			half = max(half, 0.5) // what is said is said of a pixel at least
		}
		for i, p := range at {
			along(at[max(0, i-1)], p, half, soft, size, f)
		}
	}
}

// within goes over the pixels whose middles lie in a closed line, by the even-odd rule.
func within(line [][2]float64, size image.Point, f func(i int, cover float64)) {
	var cross []float64
	for y := range size.Y {
		v := float64(y) + 0.5
		cross = cross[:0]
		for i, p := range line {
			q := line[(i+1)%len(line)]
			if (p[1] <= v) != (q[1] <= v) {
				cross = append(cross, p[0]+(q[0]-p[0])*(v-p[1])/(q[1]-p[1]))
			}
		}
		slices.Sort(cross)
		for k := 0; k+1 < len(cross); k += 2 {
			from, to := pixel(cross[k], size.X), pixel(cross[k+1], size.X)
			for x := from; x < to; x++ {
				f(y*size.X+x, 1)
			}
		}
	}
}

// pixel is the first whose middle lies at v or after it, 0..n.
func pixel(v float64, n int) int { return int(min(float64(n), max(0, math.Ceil(v-0.5)))) }

// along goes over the pixels that are within half of a straight line; cover falls over soft around that.
func along(p, q [2]float64, half, soft float64, size image.Point, f func(i int, cover float64)) {
	far := half + soft/2
	dx, dy := q[0]-p[0], q[1]-p[1]
	n := dx*dx + dy*dy
	y0, y1 := pixel(min(p[1], q[1])-far, size.Y), pixel(max(p[1], q[1])+far, size.Y)
	x0, x1 := pixel(min(p[0], q[0])-far, size.X), pixel(max(p[0], q[0])+far, size.X)
	for y := y0; y < y1; y++ {
		for x := x0; x < x1; x++ {
			u, v := float64(x)+0.5-p[0], float64(y)+0.5-p[1]
			t := 0.0
			if n > 0 {
				t = min(1, max(0, (u*dx+v*dy)/n))
			}
			d := math.Hypot(u-t*dx, v-t*dy)
			switch {
			case soft == 0 && d <= half:
				f(y*size.X+x, 1)
			case soft > 0 && d < far:
				f(y*size.X+x, min(1, (far-d)/soft))
			}
		}
	}
}

// mostEffort is how many pixels strokes may go over.
const mostEffort = 1_000_000_000

// effort is how many pixels all strokes go over.
func effort(strokes []doc.CutStroke, size image.Point) (n float64) {
	all := float64(size.X) * float64(size.Y)
	for i := range strokes {
		s := &strokes[i]
		if s.Form != "" {
			n += all + float64(len(s.Points))*float64(size.Y) // the rows that lines are sought in
			continue
		}
		far := s.Width * (1 + s.Soft)
		for k, p := range s.Points {
			q := s.Points[max(0, k-1)]
			n += min(float64(size.X), math.Abs(p[0]-q[0])+far) * min(float64(size.Y), math.Abs(p[1]-q[1])+far)
		}
	}
	return n
}

// tidied are strokes with as few points as draw the same: to a tenth of a pixel, and none nearer to the one before than an eighth of their width.
func tidied(strokes []doc.CutStroke) []doc.CutStroke {
	out := slices.Clone(strokes)
	for i := range out {
		s := &out[i]
		least := max(0.7, s.Width/8)
		var points [][2]float64
		for k, p := range s.Points {
			p = [2]float64{math.Round(p[0]*10) / 10, math.Round(p[1]*10) / 10}
			if n := len(points); n > 0 && s.Form != "box" && math.Hypot(p[0]-points[n-1][0], p[1]-points[n-1][1]) < least {
				if k < len(s.Points)-1 {
					continue
				}
				if n > 1 {
					points = points[:n-1] // the end stays where it is
				}
			}
			points = append(points, p)
		}
		s.Points = points
	}
	return out
}
