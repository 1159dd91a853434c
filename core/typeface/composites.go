package typeface

import (
	"encoding/binary"

	"capstan/core/words"
)

// Flags of a part of a composite glyph (OpenType 1.9, glyf).
const (
	longArguments = 0x0001
	oneScale      = 0x0008
	moreParts     = 0x0020
	twoScales     = 0x0040
	fourScales    = 0x0080
)

// composites refuses glyphs that are made of themselves, and those that grow beyond all bounds by being made of others many times
// over: put in each other twenty times by tens they would keep any reader busy for years.
func composites(tables map[string][]byte) error {
	glyf, loca, head := tables["glyf"], tables["loca"], tables["head"]
	if len(tables["maxp"]) < 6 {
		return words.New("font.damaged")
	}
	n := int(binary.BigEndian.Uint16(tables["maxp"][4:]))
	long := binary.BigEndian.Uint16(head[50:]) != 0
	entry := 2
	if long {
		entry = 4
	}
	if len(loca) < (n+1)*entry {
		return words.New("font.damaged")
	}
	at := func(i int) int {
		if long {
			return int(binary.BigEndian.Uint32(loca[4*i:]))
		}
		return 2 * int(binary.BigEndian.Uint16(loca[2*i:]))
	}
	const open = -1
	points := make([]int, n) // of a glyph that is known, one more than it has; open while its parts are counted
	var count func(i, depth int) (int, error)
	count = func(i, depth int) (int, error) {
		if i >= n {
			return 0, words.New("font.damaged")
		}
		if points[i] == open || depth > 20 {
			return 0, words.New("font.loop")
		}
		if points[i] > 0 {
			return points[i] - 1, nil
		}
		from, to := at(i), at(i+1)
		if from > to || to > len(glyf) {
			return 0, words.New("font.damaged")
		}
		points[i] = open
		sum := 0
		if g := glyf[from:to]; len(g) > 0 {
			if len(g) < 10 {
				return 0, words.New("font.damaged")
			}
			if contours := int(int16(binary.BigEndian.Uint16(g))); contours >= 0 {
				if len(g) < 10+2*contours {
					return 0, words.New("font.damaged")
				}
				if contours > 0 {
					sum = int(binary.BigEndian.Uint16(g[8+2*contours:])) + 1
				}
			} else {
				parts, err := partsOf(g[10:])
				if err != nil {
					return 0, err
				}
				for _, p := range parts {
					k, err := count(p, depth+1)
					if err != nil {
						return 0, err
					}
					if sum += k; sum > MaxPoints {
						return 0, words.New("font.points")
					}
				}
			}
		}
		points[i] = sum + 1
		return sum, nil
	}
	for i := range n {
		if _, err := count(i, 0); err != nil {
			return err
		}
	}
	return nil
}

// partsOf lists the glyphs that a composite one is made of.
func partsOf(g []byte) (parts []int, err error) {
	for {
		if len(g) < 4 {
			return nil, words.New("font.damaged")
		}
		flags := binary.BigEndian.Uint16(g)
		parts = append(parts, int(binary.BigEndian.Uint16(g[2:])))
		size := 6
		if flags&longArguments != 0 {
			size = 8
		}
		switch {
		case flags&oneScale != 0:
			size += 2
		case flags&twoScales != 0:
			size += 4
		case flags&fourScales != 0:
			size += 8
		}
		if flags&moreParts == 0 {
			return parts, nil
		}
		if len(g) < size {
			return nil, words.New("font.damaged")
		}
		g = g[size:]
	}
}
