package raster

import (
	"encoding/binary"
	"image"
	"math"
	"math/bits"
)

// What is blurred by much has no detail left, so from 5 px on cells of 2, 4, 8 … px a side are blurred instead of pixels, such that the deviation
// is 2.5 to 5 cells, and pixels are read between them: six times as fast for 24 px. Cells lie at multiples of their side, so that the result does not
// depend on where a repaint begins. What taking together and reading between spread by themselves (k^2-1)/12 + k^2/6 is left out of the blur; its
// boxes have ends of a share of a cell (extended boxes: Gwosdek, Grewenig, Bruhn, Weickert 2011), so that they spread as much as the whole boxes
// of px would that a blur of this deviation is defined by.

// coarse is how many px a side the cells of a blur have; 1: it is of pixels.
func coarse(sigma float64) int {
	k := 1
	for sigma >= float64(5*k) && k < 64 {
		k *= 2
	}
	return k
}

// wideBox returns the boxes of a blur of cells: r cells to either side of the middle, and one more that counts share sixteenths.
func wideBox(sigma float64, k int) (r int, share uint64) {
	d := float64(boxWidth(sigma))
	v := 3 * (d*d - 1) / 12
	if int(d)%2 == 0 {
		v = (2*(d*d-1) + (d+1)*(d+1) - 1) / 12
	}
	side := float64(k)
	v = (v - (side*side-1)/12 - side*side/6) / (side * side) / 3 // of one box, in cells
	r = int((math.Sqrt(1+12*v) - 1) / 2)
	q := float64(r)
	return r, uint64(16*(2*q+1)*(q*(q+1)-3*v)/(6*(v-(q+1)*(q+1))) + 0.5)
}

// wide writes sums over boxes, in sixteenths; beyond the ends of src lies nothing.
func wide(dst, src []four, r int, share uint64) {
	n := len(src)
	var a, b uint64
	for i := range min(r, n) {
		a += src[i].a
		b += src[i].b
	}
	for i := range n {
		if i+r < n {
			a += src[i+r].a
			b += src[i+r].b
		}
		if i-r-1 >= 0 {
			a -= src[i-r-1].a
			b -= src[i-r-1].b
		}
		x, y := a<<4, b<<4
		if i+r+1 < n {
			x += src[i+r+1].a * share
			y += src[i+r+1].b * share
		}
		if i-r-1 >= 0 {
			x += src[i-r-1].a * share
			y += src[i-r-1].b * share
		}
		dst[i] = four{x, y}
	}
}

// widely blurs v, which lines returned, in place: three boxes, whose sums fit in 32 bits.
func (b *blurrer) widely(v []four, r int, share uint64) {
	t := b.tmp[:len(v)]
	wide(t, v, r, share)
	wide(v, t, r, share)
	wide(t, v, r, share)
	n := 16*(2*r+1) + 2*int(share)
	mean(t, n*n*n)
	copy(v, t)
}

// shifted divides four values by a power of two, rounded.
func (f four) shifted(by int) four {
	half := uint64(1) << by >> 1
	half |= half << 32
	mask := uint64(low32) >> by
	mask |= mask << 32
	return four{(f.a + half) >> by & mask, (f.b + half) >> by & mask}
}

// coarsely is blur by cells of k px a side.
func (b *blurrer) coarsely(s *surface, sigma float64, k int) {
	from := s.dirty
	area := from.Inset(-blurReach(sigma)).Intersect(s.box)
	cells := image.Rect(floorDiv(area.Min.X, k)-1, floorDiv(area.Min.Y, k)-1, floorDiv(area.Max.X-1, k)+2, floorDiv(area.Max.Y-1, k)+2)
	w, h := cells.Dx(), cells.Dy()
	side := bits.Len(uint(k)) - 1 // shifts by it divide by k, rounded down
	r, share := wideBox(sigma, k)
	b.room(w * h)
	clear(b.plane)
	// Rows of cells, blurred along.
	for j := from.Min.Y >> side; j*k < from.Max.Y; j++ {
		v := b.lines(w)
		for y := max(j*k, from.Min.Y); y < min((j+1)*k, from.Max.Y); y++ {
			row := s.row(y, from.Min.X, from.Max.X)
			for x := from.Min.X; x < from.Max.X; {
				i := x >> side
				end := min((i+1)*k, from.Max.X)
				var sum uint64 // four values of 16 bits: red, blue, green, alpha
				for part := row[4*(x-from.Min.X) : 4*(end-from.Min.X)]; len(part) >= 4; part = part[4:] {
					p := uint64(binary.LittleEndian.Uint32(part))
					sum += p&0x00FF00FF | p&0xFF00FF00<<24
				}
				cell := &v[i-cells.Min.X]
				cell.a += sum&0xFFFF | sum>>16&0xFFFF<<32
				cell.b += sum>>32&0xFFFF | sum>>48<<32
				x = end
			}
		}
		for i := range v {
			v[i] = v[i].shifted(2 * side)
		}
		b.widely(v, r, share)
		out := b.plane[(j-cells.Min.Y)*w:][:w]
		for i, f := range v {
			out[i] = f.pixel()
		}
	}
	for i := range w {
		v := b.lines(h)
		for j := range v {
			v[j] = spread(b.plane[j*w+i])
		}
		b.widely(v, r, share)
		for j, f := range v {
			b.plane[j*w+i] = f.pixel()
		}
	}
	// Each pixel lies between the middles of four cells, a whole number of halves of a px from each.
	t := b.lines(w)
	by := 2*side + 2
	half := uint64(1) << by >> 1 * (1<<32 | 1)
	mask := uint64(low32) >> by * (1<<32 | 1)
	for y := area.Min.Y; y < area.Max.Y; y++ {
		at := 2*y + 1 - k
		j := at >> (side + 1)
		low := uint64(at - j*2*k)
		top := uint64(2*k) - low
		above, below := b.plane[(j-cells.Min.Y)*w:][:w], b.plane[(j+1-cells.Min.Y)*w:][:w]
		for i := range t {
			p, q := spread(above[i]), spread(below[i])
			t[i] = four{p.a*top + q.a*low, p.b*top + q.b*low}
		}
		row := s.row(y, area.Min.X, area.Max.X)
		at = 2*area.Min.X + 1 - k
		i := at >> (side + 1)
		right := uint64(at - i*2*k)
		for x := 0; x < area.Dx(); i++ {
			p, q := t[i-cells.Min.X], t[i+1-cells.Min.X]
			// From pixel to pixel it goes on by two shares of the way, both values of a word at once: what one borrows from the other comes back.
			left := uint64(2*k) - right
			va, vb := p.a*left+q.a*right+half, p.b*left+q.b*right+half
			da, db := 2*(q.a-p.a), 2*(q.b-p.b)
			end := min(area.Dx(), x+int(left+1)/2)
			right += 2 * uint64(end-x)
			right -= uint64(2 * k)
			for part := row[4*x : 4*end]; len(part) >= 4; part = part[4:] {
				f := four{va >> by & mask, vb >> by & mask}
				binary.LittleEndian.PutUint32(part, f.pixel())
				va += da
				vb += db
			}
			x = end
		}
	}
	s.dirty = area
}
