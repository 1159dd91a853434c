package export

import (
	"encoding/binary"
	"io"
)

// timed writes raw frames that have times of their own as Matroska (RFC 9559; EBML is RFC 8794), which ffmpeg reads: uncompressed video, one cluster a
// frame, ms.
type timed struct{ w io.Writer }

// element is an EBML element: its id and its content.
func element(id uint32, content []byte) []byte {
	out := binary.BigEndian.AppendUint32(nil, id)
	for len(out) > 1 && out[0] == 0 {
		out = out[1:]
	}
	return append(append(out, sized(uint64(len(content)))...), content...)
}

// sized is a length in eight bytes.
func sized(n uint64) []byte { return binary.BigEndian.AppendUint64(nil, n|1<<56) }

// unsigned is an element of a number.
func unsigned(id uint32, v uint64) []byte { return element(id, binary.BigEndian.AppendUint64(nil, v)) }

// unknown is the length of what has no length yet.
const unknown = 1<<56 - 1

// newTimed begins a stream of frames of a size, of pixels that a FourCC names.
func newTimed(w io.Writer, width, height int, pixels string) (*timed, error) {
	join := func(list ...[]byte) (out []byte) {
		for _, b := range list {
			out = append(out, b...)
		}
		return
	}
	head := join(
		element(0x1A45DFA3, join(unsigned(0x4286, 1), unsigned(0x42F7, 1), unsigned(0x42F2, 4), unsigned(0x42F3, 8), element(0x4282, []byte("matroska")), unsigned(0x4287, 4), unsigned(0x4285, 2))),
		binary.BigEndian.AppendUint32(nil, 0x18538067), sized(unknown), // Segment
		element(0x1549A966, unsigned(0x2AD7B1, 1_000_000)), // Info: times are ms
		element(0x1654AE6B, element(0xAE, join(unsigned(0xD7, 1), unsigned(0x73C5, 1), unsigned(0x83, 1), element(0x86, []byte("V_UNCOMPRESSED")),
			element(0xE0, join(unsigned(0xB0, uint64(width)), unsigned(0xBA, uint64(height)), element(0x2EB524, []byte(pixels))))))),
	)
	_, err := w.Write(head)
	return &timed{w}, err
}

// frame writes a frame that is shown from a time on, in ms.
func (t *timed) frame(at int64, pixels []byte) error {
	clock := unsigned(0xE7, uint64(at))
	const block = 4 // track, time within the cluster, flags
	head := append([]byte{0x1F, 0x43, 0xB6, 0x75}, sized(uint64(len(clock)+1+8+block+len(pixels)))...)
	head = append(append(head, clock...), 0xA3)
	head = append(append(head, sized(uint64(block+len(pixels)))...), 0x81, 0, 0, 0x80)
	if _, err := t.w.Write(head); err != nil {
		return err
	}
	_, err := t.w.Write(pixels)
	return err
}
