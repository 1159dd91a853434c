package media

import (
	"bytes"
	"compress/zlib"
	"encoding/binary"
	"image"
	"image/png"

	"capstan/core/anim"
)

// encoded is a PNG of a derivative. image/png tries five filters for every row, which takes most of the time that a photograph takes to be taken in;
// opaque pictures are written with one: each byte less that of the pixel before it (PNG, third edition, section 9.2, type 1).
func encoded(m *image.RGBA) ([]byte, error) {
	var b bytes.Buffer
	if !m.Opaque() {
		err := (&png.Encoder{CompressionLevel: png.BestSpeed}).Encode(&b, m)
		return b.Bytes(), err
	}
	w, h := m.Rect.Dx(), m.Rect.Dy()
	b.WriteString("\x89PNG\r\n\x1a\n")
	head := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, uint32(w)), uint32(h))
	b.Write(anim.Chunk("IHDR", append(head, 8, 2, 0, 0, 0))) // eight bits of red, green and blue
	var data bytes.Buffer
	z, err := zlib.NewWriterLevel(&data, zlib.BestSpeed)
	if err != nil {
		return nil, err
	}
	line := make([]byte, 1+3*w)
	line[0] = 1
	for y := range h {
		row := m.Pix[y*m.Stride : y*m.Stride+4*w]
		var r, g, bl byte
		for x := range w {
			p := row[4*x : 4*x+3 : 4*x+3]
			line[3*x+1], line[3*x+2], line[3*x+3] = p[0]-r, p[1]-g, p[2]-bl
			r, g, bl = p[0], p[1], p[2]
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
