package export

import (
	"bytes"
	"encoding/binary"
	"hash/crc32"
	"image"

	"capstan/core/anim"

	"github.com/klauspost/compress/zlib"
)

// packer packs pictures as PNG (third edition), in memory that is used again: rows are filtered by the row above or by the pixel before, whichever leaves
// less, and packed fast. The standard library tries five filters a row, which takes longer than packing.
type packer struct {
	rows []byte
	out  bytes.Buffer
	z    *zlib.Writer
}

// pack returns a picture as a PNG, of three bytes a pixel where nothing of it is clear. It is good until the next call.
func (p *packer) pack(img *image.NRGBA) ([]byte, error) {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	opaque := img.Opaque()
	n, kind := 4, byte(6)
	if opaque {
		n, kind = 3, 2
	}
	size := n * w
	if len(p.rows) < 3*size+1 {
		p.rows = make([]byte, 3*size+1)
	}
	above, row, line := p.rows[:size], p.rows[size:2*size], p.rows[2*size:3*size+1]
	clear(above)
	p.out.Reset()
	p.out.WriteString("\x89PNG\r\n\x1a\n")
	head := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, uint32(w)), uint32(h))
	p.out.Write(anim.Chunk("IHDR", append(head, 8, kind, 0, 0, 0)))
	begun := p.out.Len()
	p.out.Write(make([]byte, 8)) // length and kind, written when it is known
	if p.z == nil {
		z, err := zlib.NewWriterLevel(&p.out, zlib.BestSpeed)
		if err != nil {
			return nil, err
		}
		p.z = z
	} else {
		p.z.Reset(&p.out)
	}
	for y := range h {
		pix := img.Pix[y*img.Stride : y*img.Stride+4*w]
		if opaque {
			for x, to := 0, row; x < len(pix); x, to = x+4, to[3:] {
				to[0], to[1], to[2] = pix[x], pix[x+1], pix[x+2]
			}
		} else {
			copy(row, pix)
		}
		filtered(line, row, above, n)
		if _, err := p.z.Write(line); err != nil {
			return nil, err
		}
		above, row = row, above
	}
	if err := p.z.Close(); err != nil {
		return nil, err
	}
	all := p.out.Bytes()
	binary.BigEndian.PutUint32(all[begun:], uint32(len(all)-begun-8))
	copy(all[begun+4:], "IDAT")
	p.out.Write(binary.BigEndian.AppendUint32(nil, crc32.ChecksumIEEE(all[begun+4:])))
	p.out.Write(anim.Chunk("IEND", nil))
	return p.out.Bytes(), nil
}

// filtered writes a row with the filter that leaves less: 1 for the pixel before (of n bytes), 2 for the row above.
func filtered(line, row, above []byte, n int) {
	up, sub := 0, 0
	to := line[1:]
	for i, v := range row {
		d := v - above[i]
		to[i] = d
		up += size8(d)
	}
	if up == 0 {
		line[0] = 2
		return
	}
	for i, v := range row {
		if i >= n {
			v -= row[i-n]
		}
		if sub += size8(v); sub >= up {
			line[0] = 2
			return
		}
	}
	line[0] = 1
	copy(to[:n], row[:n])
	for i := n; i < len(row); i++ {
		to[i] = row[i] - row[i-n]
	}
}

// size8 is how far a byte is from 0, going round.
func size8(v byte) int {
	if d := int(int8(v)); d < 0 {
		return -d
	}
	return int(v)
}
