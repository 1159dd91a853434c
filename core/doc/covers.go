package doc

import (
	"encoding/base64"
	"encoding/binary"
)

// Covers says roughly where a mask keeps anything: a bit for each of 32 by 32 cells, a row each. Pointers go through what is cut away by it.
type Covers [32]uint32

// Set notes that something stays at a point, in shares 0..1 of the picture.
func (c *Covers) Set(u, v float64) { c[cellOf(v)] |= 1 << cellOf(u) }

// At reports whether something stays near a point.
func (c *Covers) At(u, v float64) bool { return c[cellOf(v)]>>cellOf(u)&1 == 1 }

func cellOf(v float64) int { return min(31, max(0, int(v*32))) }

// String is it in base64.
func (c *Covers) String() string {
	var b [128]byte
	for i, row := range c {
		binary.LittleEndian.PutUint32(b[4*i:], row)
	}
	return base64.StdEncoding.EncodeToString(b[:])
}

// Covered is what String wrote; nil where it is none.
func Covered(s string) *Covers {
	b, err := base64.StdEncoding.DecodeString(s)
	if err != nil || len(b) != 128 {
		return nil
	}
	var c Covers
	for i := range c {
		c[i] = binary.LittleEndian.Uint32(b[4*i:])
	}
	return &c
}
