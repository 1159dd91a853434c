package typeface

import (
	"encoding/binary"
	"math"

	"capstan/core/words"
)

// Bounded refuses files whose directory names more than the file holds, or more than MaxUnpacked, before anything of it is unpacked:
// what reads tables takes the room that the directory asks for.
func Bounded(data []byte) error {
	if len(data) < 12 {
		return words.New("font.kind")
	}
	at := func(i int) int64 {
		if i+4 > len(data) {
			return math.MaxInt32
		}
		return int64(binary.BigEndian.Uint32(data[i:]))
	}
	entry, first, woff := 16, 12, string(data[:4]) == "wOFF"
	count := int(binary.BigEndian.Uint16(data[4:]))
	if woff {
		entry, first, count = 20, 44, 0
		if len(data) >= 14 {
			count = int(binary.BigEndian.Uint16(data[12:]))
		}
	}
	total := int64(0)
	for i := range count {
		e := first + i*entry
		from, size, whole := at(e+8), at(e+12), at(e+12)
		if woff {
			from, size, whole = at(e+4), at(e+8), at(e+12)
		}
		if from+size > int64(len(data)) {
			return words.New("font.damaged")
		}
		total += whole
	}
	if total > MaxUnpacked {
		return words.New("font.too-large", MaxUnpacked>>20)
	}
	return nil
}
