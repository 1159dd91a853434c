package anim

import (
	"encoding/binary"
	"errors"
	"io"
)

// errWebP says that a file is no whole animated WebP.
var errWebP = errors.New("no whole animated WebP")

// ScanWebP reads the chunks of an animated WebP (RFC 9649) to its end. One that does not move has one frame and no delay.
// It fails where the file breaks off.
func ScanWebP(r io.ReaderAt, size int64) (s Scanned, err error) {
	ms := int64(0)
	err = chunks(r, size, func(kind string, _ int64, start []byte) {
		switch {
		case kind == "VP8 " && len(start) >= 10 && s.Width == 0: // of one that stands still
			s.Width, s.Height = int(start[6])|int(start[7]&0x3f)<<8, int(start[8])|int(start[9]&0x3f)<<8
		case kind == "VP8L" && len(start) >= 5 && s.Width == 0:
			bits := binary.LittleEndian.Uint32(start[1:])
			s.Width, s.Height = 1+int(bits&0x3fff), 1+int(bits>>14&0x3fff)
		case kind == "VP8X" && len(start) >= 10:
			s.Width, s.Height = 1+int(three(start[4:])), 1+int(three(start[7:]))
		case kind == "ANMF" && len(start) >= 16:
			s.Frames++
			ms += three(start[12:])
		}
	})
	s.Hundredths, s.Frames = ms/10, max(s.Frames, 1)
	return s, err
}

// TimeWebP lets an animated WebP go round so often, 0 being for ever, and its last frame end when the file does, in ms.
func TimeWebP(f interface {
	io.ReaderAt
	io.WriterAt
}, size, passes, length int64) error {
	var loops, last, before, lasts int64
	err := chunks(f, size, func(kind string, at int64, start []byte) {
		switch {
		case kind == "ANIM" && len(start) >= 6:
			loops = at + 4
		case kind == "ANMF" && len(start) >= 16:
			before += lasts
			last, lasts = at+12, three(start[12:])
		}
	})
	if err != nil || loops == 0 || last == 0 {
		return errors.Join(err, errWebP)
	}
	d := min(max(length-before, 1), 1<<24-1)
	if _, err := f.WriteAt(binary.LittleEndian.AppendUint16(nil, uint16(min(passes, 65535))), loops); err != nil {
		return err
	}
	_, err = f.WriteAt([]byte{byte(d), byte(d >> 8), byte(d >> 16)}, last)
	return err
}

// three is a number of three bytes.
func three(b []byte) int64 { return int64(b[0]) | int64(b[1])<<8 | int64(b[2])<<16 }

// chunks calls each for the chunks of a WebP: its kind, where its content begins, and the first bytes of that.
func chunks(r io.ReaderAt, size int64, each func(kind string, at int64, start []byte)) error {
	head := make([]byte, 12)
	if _, err := r.ReadAt(head, 0); err != nil || string(head[:4]) != "RIFF" || string(head[8:]) != "WEBP" || 8+int64(binary.LittleEndian.Uint32(head[4:])) != size {
		return errWebP
	}
	for at := int64(12); at < size; {
		if _, err := r.ReadAt(head[:8], at); err != nil {
			return errWebP
		}
		n := int64(binary.LittleEndian.Uint32(head[4:8]))
		kind := string(head[:4])
		if at += 8; at+n > size {
			return errWebP
		}
		start := make([]byte, min(n, 16))
		if _, err := r.ReadAt(start, at); err != nil {
			return errWebP
		}
		each(kind, at, start)
		at += n + n&1
	}
	return nil
}
