package cutout

import "image"

// What a hole was filled with is brought into line with what lies around it: by how much both differ along the border is spread over the hole as smoothly as can
// be, and added (as the membrane of Pérez, Gangnet and Blake, Poisson Image Editing, 2003, section 2, is; here by means of ever coarser grids, which is soon
// done).

// block is how many pixels wide and high the cells of the finest grid are.
const block = 4

// grid has a difference of colours and its weight for each cell.
type grid struct {
	size image.Point
	v    [][4]float32 // red, green, blue, weight
}

// nearest is how far, each way, colours beside the border are averaged.
const nearest = 4

// join brings the hole of a level into line with its surroundings.
func (l *level) join() {
	w, h := l.size.X, l.size.Y
	g := grid{size: image.Pt((w+block-1)/block, (h+block-1)/block)}
	g.v = make([][4]float32, g.size.X*g.size.Y)
	for _, at := range l.inside {
		i := int(at)
		x, y := i%w, i/w
		if !l.hole[i] || !(x > 0 && !l.hole[i-1] || x+1 < w && !l.hole[i+1] || y > 0 && !l.hole[i-w] || y+1 < h && !l.hole[i+w]) {
			continue
		}
		var in, out [3]float32
		var ins, outs float32
		for v := max(0, y-nearest); v < min(h, y+nearest+1); v++ {
			for u := max(0, x-nearest); u < min(w, x+nearest+1); u++ {
				p := l.pix[4*(v*w+u):]
				to, n := &out, &outs
				if l.hole[v*w+u] {
					to, n = &in, &ins
				}
				for c := range to {
					to[c] += float32(p[c])
				}
				*n++
			}
		}
		cell := &g.v[y/block*g.size.X+x/block]
		for c := range 3 {
			cell[c] += out[c]/outs - in[c]/ins
		}
		cell[3]++
	}
	for i := range g.v {
		if n := g.v[i][3]; n > 0 {
			g.v[i] = [4]float32{g.v[i][0] / n, g.v[i][1] / n, g.v[i][2] / n, 1}
		}
	}
	g.spread()
	for _, at := range l.inside {
		i := int(at)
		if !l.hole[i] {
			continue
		}
		d := g.at((float32(i%w)+0.5)/block-0.5, (float32(i/w)+0.5)/block-0.5)
		p := l.pix[4*i : 4*i+4]
		for c := range 3 {
			p[c] = uint8(min(float32(p[3]), max(0, float32(p[c])+d[c]+0.5)))
		}
	}
}

// spread gives cells without a weight what those around them have, by coarser grids.
func (g grid) spread() {
	if g.size.X <= 1 && g.size.Y <= 1 {
		return
	}
	up := grid{size: image.Pt((g.size.X+1)/2, (g.size.Y+1)/2)}
	up.v = make([][4]float32, up.size.X*up.size.Y)
	for i, v := range g.v {
		to := &up.v[i/g.size.X/2*up.size.X+i%g.size.X/2]
		for c := range 3 {
			to[c] += v[c] * v[3]
		}
		to[3] += v[3]
	}
	for i := range up.v {
		if n := up.v[i][3]; n > 0 {
			up.v[i] = [4]float32{up.v[i][0] / n, up.v[i][1] / n, up.v[i][2] / n, min(1, n)}
		}
	}
	up.spread()
	for i := range g.v {
		v := &g.v[i]
		if v[3] >= 1 {
			continue
		}
		far := up.at(float32(i%g.size.X)/2-0.25, float32(i/g.size.X)/2-0.25)
		for c := range 3 {
			v[c] = v[c]*v[3] + far[c]*(1-v[3])
		}
		v[3] = 1
	}
}

// at is what lies between the middles of cells.
func (g grid) at(x, y float32) (out [3]float32) {
	x, y = min(float32(g.size.X-1), max(0, x)), min(float32(g.size.Y-1), max(0, y))
	i, k := int(x), int(y)
	u, v := x-float32(i), y-float32(k)
	i1, k1 := min(i+1, g.size.X-1), min(k+1, g.size.Y-1)
	for c := range out {
		a := g.v[k*g.size.X+i][c]*(1-u) + g.v[k*g.size.X+i1][c]*u
		b := g.v[k1*g.size.X+i][c]*(1-u) + g.v[k1*g.size.X+i1][c]*u
		out[c] = a*(1-v) + b*v
	}
	return out
}
