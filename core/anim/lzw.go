package anim

// mostCodes is how many codes there are: one has at most twelve bits (GIF89a, appendix F).
const mostCodes = 4096

// widest is how many strings are followed at once where a pixel may be written in more ways than one.
const widest = 8

// through is the index that lets through what is there: "as before".
const through = 0

// shades are the indices that are near enough to a colour, the nearest first, from the lowest byte on; as none is 0, the first 0 ends them.
type shades uint64

// mostShades is how many there is room for.
const mostShades = 8

func (s shades) have(v uint8) bool {
	for ; s != 0; s >>= 8 {
		if uint8(s) == v {
			return true
		}
	}
	return false
}

// row says what each pixel of a picture may be written as: as its index, or as any index of a set, so that runs of the code go on.
type row struct {
	pix  []uint8  // the index that is nearest
	free []bool   // "as before" is as good
	near []shades // more that are near enough, for each pixel; nil: none are
}

// packer compresses indices as GIF does (Welch's LZW with codes of growing width; GIF89a, appendix F). Of what a pixel may be written as, it takes
// what lets the code run on furthest, and "as before" where that is all the same: strings then repeat. The table is cleared when it is full; to
// keep it for as long as it yields, and to end codes early for the next, were tried and gain 0 and 1 % (docs/measured.md).
type packer struct {
	out    []byte
	acc    uint32
	bits   uint
	size   uint // bits of an index
	width  uint // bits of a code
	next   int  // the next code
	before int  // the code written last; -1 after a clear

	child       [mostCodes][256]uint16 // the code of a string with one index more; 0: none
	first, last [mostCodes]uint8       // indices of a code's string
	prefix      [mostCodes]uint16
	reach       [mostCodes]uint16 // its length

	a, b []uint16 // strings that are followed
}

func (z *packer) put(code int) {
	z.acc |= uint32(code) << z.bits
	z.bits += z.width
	for ; z.bits >= 8; z.bits -= 8 {
		z.out = append(z.out, byte(z.acc))
		z.acc >>= 8
	}
}

// clear empties the table.
func (z *packer) clear() {
	z.put(1 << z.size)
	z.width, z.next, z.before = z.size+1, 1<<z.size+2, -1
	for v := range 1 << z.size {
		z.begin(v, uint8(v), uint8(v), 0, 1)
	}
}

func (z *packer) begin(code int, first, last uint8, prefix int, reach uint16) {
	z.child[code] = [256]uint16{}
	z.first[code], z.last[code], z.prefix[code], z.reach[code] = first, last, uint16(prefix), reach
}

// emit writes a code, and takes the one before it, with the first index of this one, into the table.
func (z *packer) emit(code int) {
	if z.before >= 0 && z.next < mostCodes {
		if c := z.first[code]; z.child[z.before][c] == 0 {
			z.begin(z.next, z.first[z.before], c, z.before, z.reach[z.before]+1)
			z.child[z.before][c] = uint16(z.next)
		}
		z.next++
	}
	z.put(code)
	if z.next == 1<<z.width && z.width < 12 {
		z.width++
	}
	z.before = code
}

// match returns the code of the longest string in the table that the pixels from i on may be written as, and its length.
func (z *packer) match(r *row, i int) (code, n int) {
	z.a = z.a[:0]
	if r.free[i] && r.pix[i] != through {
		z.a = append(z.a, through)
	}
	z.a = append(z.a, uint16(r.pix[i]))
	if r.near != nil {
		for s := r.near[i]; s != 0; s >>= 8 {
			if v := uint8(s); v != r.pix[i] && int(v) < 1<<z.size && len(z.a) < widest {
				z.a = append(z.a, uint16(v))
			}
		}
	}
	n = 1
	for j := i + 1; j < len(r.pix); j++ {
		z.b = z.b[:0]
		p, free := r.pix[j], r.free[j] && r.pix[j] != through
		for _, at := range z.a {
			row := &z.child[at]
			if free && row[through] != 0 {
				z.b = append(z.b, row[through])
			}
			if k := row[p]; k != 0 {
				z.b = append(z.b, k)
			}
			if r.near != nil {
				for s := r.near[j]; s != 0; s >>= 8 {
					if k := row[uint8(s)]; k != 0 && uint8(s) != p {
						z.b = append(z.b, k)
					}
				}
			}
			if len(z.b) >= widest {
				break
			}
		}
		if len(z.b) == 0 {
			break
		}
		z.a, z.b = z.b, z.a
		n++
	}
	return int(z.a[0]), n
}

// may reports whether pixel i may be written as an index.
func (r *row) may(i int, v uint8) bool {
	return v == r.pix[i] || v == through && r.free[i] || r.near != nil && v != through && r.near[i].have(v)
}

// upcoming reports whether the code that is taken into the table next, the one before with its own first index behind it, fits from pixel i on.
func (z *packer) upcoming(r *row, i int) (n int, fits bool) {
	if z.before < 0 || z.next >= mostCodes || z.child[z.before][z.first[z.before]] != 0 {
		return 0, false
	}
	n = int(z.reach[z.before]) + 1
	if i+n > len(r.pix) || !r.may(i, z.first[z.before]) || !r.may(i+n-1, z.first[z.before]) {
		return n, false
	}
	for c, k := z.before, n-2; k >= 0; c, k = int(z.prefix[c]), k-1 {
		if !r.may(i+k, z.last[c]) {
			return n, false
		}
	}
	return n, true
}

// pack compresses pixels by indices of so many bits and tells which indices were chosen. The result is kept until the next call.
func (z *packer) pack(r *row, size uint, chosen []uint8) []byte {
	z.out, z.acc, z.bits, z.size, z.width = z.out[:0], 0, 0, size, size+1
	z.clear()
	for i := 0; i < len(r.pix); {
		code, n := z.match(r, i)
		if m, fits := z.upcoming(r, i); fits && m > n {
			// It is not in the table yet, and is once it is written.
			v := z.first[z.before]
			z.begin(z.next, v, v, z.before, uint16(m))
			z.child[z.before][v] = uint16(z.next)
			code, n = z.next, m
		}
		for c, k := code, n-1; k >= 0; c, k = int(z.prefix[c]), k-1 {
			chosen[i+k] = z.last[c]
		}
		z.emit(code)
		i += n
		if z.next == mostCodes && i < len(r.pix) {
			z.clear()
		}
	}
	z.put(1<<z.size + 1)
	if z.bits > 0 {
		z.out = append(z.out, byte(z.acc))
	}
	return z.out
}
