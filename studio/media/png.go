package media

import (
	"bytes"
	"encoding/binary"
)

// eachChunk calls f with the chunks of a PNG in turn, whole, until it returns false or the file ends.
func eachChunk(data []byte, f func(kind string, chunk []byte) bool) {
	for at := uint64(8); at+12 <= uint64(len(data)); {
		end := at + 12 + uint64(binary.BigEndian.Uint32(data[at:]))
		if end > uint64(len(data)) || !f(string(data[at+4:at+8]), data[at:end]) {
			return
		}
		at = end
	}
}

// framesOfPNG is how many frames a PNG says it has (acTL, before the first IDAT); 0: it is a plain one.
func framesOfPNG(data []byte) (n uint32) {
	eachChunk(data, func(kind string, chunk []byte) bool {
		if kind == "acTL" && len(chunk) >= 16 {
			n = max(binary.BigEndian.Uint32(chunk[8:]), 1)
		}
		return n == 0 && kind != "IDAT"
	})
	return
}

func movesPNG(data []byte) bool { return framesOfPNG(data) > 1 }

// stillPNG is a PNG without its frames: the picture that programs show that know nothing of them.
func stillPNG(data []byte) []byte {
	if len(data) < 8 {
		return data
	}
	out := bytes.NewBuffer(data[:8:8])
	whole := 8
	eachChunk(data, func(kind string, chunk []byte) bool {
		if whole += len(chunk); kind != "acTL" && kind != "fcTL" && kind != "fdAT" {
			out.Write(chunk)
		}
		return true
	})
	out.Write(data[whole:]) // what is cut off stays so, for the reader to find
	return out.Bytes()
}
