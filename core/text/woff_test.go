package text_test

import (
	"bytes"
	"compress/zlib"
	"encoding/binary"
	"io"
	"testing"
)

// unpack turns a WOFF 1.0 file (W3C Recommendation, section 4) into the TrueType file it was made of.
func unpack(t testing.TB, woff []byte) []byte {
	t.Helper()
	be := binary.BigEndian
	n := int(be.Uint16(woff[12:]))
	head := make([]byte, 12+16*n)
	copy(head, woff[4:8])
	be.PutUint16(head[4:], uint16(n))
	out := head
	for i := 0; i < n; i++ {
		e := woff[44+20*i:]
		offset, packed, length := be.Uint32(e[4:]), be.Uint32(e[8:]), be.Uint32(e[12:])
		table := woff[offset : offset+packed]
		if packed < length {
			z, err := zlib.NewReader(bytes.NewReader(table))
			if err != nil {
				t.Fatal(err)
			}
			if table, err = io.ReadAll(z); err != nil {
				t.Fatal(err)
			}
		}
		d := out[12+16*i:]
		copy(d, e[:4])
		copy(d[4:], e[16:20])
		be.PutUint32(d[8:], uint32(len(out)))
		be.PutUint32(d[12:], length)
		out = append(out, table...)
		for len(out)%4 != 0 {
			out = append(out, 0)
		}
	}
	return out
}
