package media

import (
	"bytes"
	"encoding/binary"
	"image"

	"capstan/core/anim"

	"github.com/klauspost/compress/zlib"
)

// encoded is a PNG of a derivative. image/png tries five filters for every row, which takes most of the time that a photograph takes to be taken in; here all rows
// are written with one: each byte less that of the pixel before it (PNG, third edition, section 9.2, type 1).
func encoded(m *image.RGBA) ([]byte, error) {
	var b bytes.Buffer
	w, h := m.Rect.Dx(), m.Rect.Dy()
	n, kind := 4, byte(6) // with alpha
	if m.Opaque() {
		n, kind = 3, 2
	}
	b.WriteString("\x89PNG\r\n\x1a\n")
	head := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, uint32(w)), uint32(h))
	b.Write(anim.Chunk("IHDR", append(head, 8, kind, 0, 0, 0))) // eight bits a channel
	var data bytes.Buffer
	z, err := zlib.NewWriterLevel(&data, zlib.BestSpeed)
	if err != nil {
		return nil, err
	}
	line := make([]byte, 1+n*w)
	line[0] = 1
	for y := range h {
		row := m.Pix[y*m.Stride : y*m.Stride+4*w]
		var before [4]byte
		for x := range w {
			p := [4]byte(row[4*x:])
			if a := uint32(p[3]); a > 0 && a < 255 { // PNG has colours that are not premultiplied
				for c := range 3 {
					p[c] = byte(uint32(p[c]) * 0xffff / a >> 8)
				}
			}
			for c := range n {
				line[1+n*x+c] = p[c] - before[c]
			}
			before = p
		}
		if _, err := z.Write(line); err != nil {
			return nil, err
		}
	}
	if err := z.Close(); err != nil {
		return nil, err
	}
	b.Write(anim.Chunk("IDAT", data.Bytes()))
	b.Write(anim.Chunk("IEND", nil))
	return b.Bytes(), nil
}
