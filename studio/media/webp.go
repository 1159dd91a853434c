package media

import (
	"bytes"
	"encoding/binary"
	"errors"
	"image"
	"image/draw"
)

// A WebP is a RIFF file: chunks of a name, a length (little endian) and that many bytes, and one more where they are odd (RFC 9649).
var errWebP = errors.New("webp: damaged")

// riffChunks calls f with the name and bytes of each chunk, until it returns false or they end.
func riffChunks(data []byte, f func(name string, body []byte) bool) {
	for at := uint64(0); at+8 <= uint64(len(data)); {
		n := uint64(binary.LittleEndian.Uint32(data[at+4:]))
		end := min(at+8+n, uint64(len(data)))
		if !f(string(data[at:at+4]), data[at+8:end]) {
			return
		}
		at = at + 8 + n + n&1
	}
}

func uint24(b []byte) int { return int(b[0]) | int(b[1])<<8 | int(b[2])<<16 }

func webpBody(data []byte) []byte {
	if len(data) < 12 || string(data[:4]) != "RIFF" || string(data[8:12]) != "WEBP" {
		return nil
	}
	return data[12:]
}

// sizeOfWebP is that of the canvas, where the file has one, else of the picture.
func sizeOfWebP(data []byte) (w, h int, err error) {
	err = errWebP
	riffChunks(webpBody(data), func(name string, b []byte) bool {
		if name == "VP8X" && len(b) >= 10 {
			w, h, err = uint24(b[4:])+1, uint24(b[7:])+1, nil
		}
		return false
	})
	if err != nil {
		return header(data)
	}
	return w, h, nil
}

func movesWebP(data []byte) bool {
	n := 0
	riffChunks(webpBody(data), func(name string, _ []byte) bool {
		if name == "ANMF" {
			n++
		}
		return n < 2
	})
	return n > 1
}

// readWebP reads a picture, of one that moves the first, in its place on the canvas.
func readWebP(data []byte) (image.Image, error) {
	var first []byte
	var meta [][]byte // profile and orientation hold for all pictures
	riffChunks(webpBody(data), func(name string, b []byte) bool {
		switch name {
		case "ANMF":
			first = b
			return false
		case "ICCP":
			meta = append(meta, chunkOf(name, b))
		}
		return true
	})
	if first == nil {
		return plain(data)
	}
	w, h, err := sizeOfWebP(data)
	if err != nil || len(first) < 16 {
		return nil, errWebP
	}
	x, y, fw, fh := 2*uint24(first), 2*uint24(first[3:]), uint24(first[6:])+1, uint24(first[9:])+1
	if x+fw > w || y+fh > h {
		return nil, errWebP
	}
	// The picture as a file of its own.
	flags := byte(0)
	var parts [][]byte
	riffChunks(first[16:], func(name string, b []byte) bool {
		if name == "ALPH" || name == "VP8L" {
			flags |= 0x10
		}
		parts = append(parts, chunkOf(name, b))
		return name == "ALPH"
	})
	if len(meta) > 0 {
		flags |= 0x20
	}
	head := []byte{flags, 0, 0, 0, byte(fw - 1), byte((fw - 1) >> 8), byte((fw - 1) >> 16), byte(fh - 1), byte((fh - 1) >> 8), byte((fh - 1) >> 16)}
	body := bytes.Join(append(append([][]byte{[]byte("WEBP"), chunkOf("VP8X", head)}, meta...), parts...), nil)
	img, err := plain(chunkOf("RIFF", body))
	if err != nil {
		return nil, err
	}
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	draw.Draw(out, image.Rect(x, y, x+fw, y+fh), img, img.Bounds().Min, draw.Src)
	return out, nil
}

func chunkOf(name string, b []byte) []byte {
	out := binary.LittleEndian.AppendUint32([]byte(name), uint32(len(b)))
	out = append(out, b...)
	if len(b)&1 == 1 {
		out = append(out, 0)
	}
	return out
}
