package anim

import (
	"bufio"
	"encoding/binary"
	"errors"
	"fmt"
	"hash/crc32"
	"io"
)

// Scanned is what an animation says of itself.
type Scanned struct {
	Width, Height int
	Frames        int
	Hundredths    int64 // of a second, all delays together
}

var errGIF = errors.New("anim: no whole GIF")

// Scan reads a GIF's blocks, without its pixels, to its end (GIF89a, sections 18 to 27). It fails where the file breaks off.
func Scan(r io.Reader) (s Scanned, err error) {
	b := bufio.NewReader(r)
	head := make([]byte, 13)
	if _, err := io.ReadFull(b, head); err != nil || string(head[:3]) != "GIF" {
		return s, errGIF
	}
	s.Width, s.Height = int(head[6])|int(head[7])<<8, int(head[8])|int(head[9])<<8
	table := func(flags byte) error {
		if flags&tableFlag == 0 {
			return nil
		}
		_, err := b.Discard(3 << (flags&7 + 1))
		return err
	}
	skip := func() error { // sub-blocks up to an empty one
		for {
			n, err := b.ReadByte()
			if err != nil || n == 0 {
				return err
			}
			if _, err := b.Discard(int(n)); err != nil {
				return err
			}
		}
	}
	if err := table(head[10]); err != nil {
		return s, errGIF
	}
	for {
		kind, err := b.ReadByte()
		if err != nil {
			return s, errGIF
		}
		switch kind {
		case trailer:
			return s, nil
		case extensionIntroducer:
			label, err := b.ReadByte()
			if err != nil {
				return s, errGIF
			}
			if label == graphicControl {
				v, err := b.Peek(4)
				if err != nil {
					return s, errGIF
				}
				s.Hundredths += int64(v[2]) | int64(v[3])<<8
			}
			if skip() != nil {
				return s, errGIF
			}
		case imageSeparator:
			v := make([]byte, 9)
			if _, err := io.ReadFull(b, v); err != nil || table(v[8]) != nil {
				return s, errGIF
			}
			if _, err := b.ReadByte(); err != nil || skip() != nil {
				return s, errGIF
			}
			s.Frames++
		default:
			return s, fmt.Errorf("%w: block %#x", errGIF, kind)
		}
	}
}

var errAPNG = errors.New("anim: no whole animated PNG")

// ScanAPNG reads the chunks of an animated PNG, with their check sums, to its end. It fails where the file breaks off, or has other frames than it
// says.
func ScanAPNG(r io.Reader) (s Scanned, err error) {
	b := bufio.NewReader(r)
	head := make([]byte, 8)
	if _, err := io.ReadFull(b, head); err != nil || string(head) != pngSignature {
		return s, errAPNG
	}
	said, ms := -1, int64(0)
	for {
		if _, err := io.ReadFull(b, head); err != nil {
			return s, errAPNG
		}
		size, kind := int64(binary.BigEndian.Uint32(head)), string(head[4:])
		sum := crc32.NewIEEE()
		sum.Write(head[4:])
		start := make([]byte, min(size, 26))
		if _, err := io.ReadFull(b, start); err != nil {
			return s, errAPNG
		}
		sum.Write(start)
		if _, err := io.CopyN(sum, b, size-int64(len(start))); err != nil {
			return s, errAPNG
		}
		if _, err := io.ReadFull(b, head[:4]); err != nil || binary.BigEndian.Uint32(head) != sum.Sum32() {
			return s, errAPNG
		}
		switch {
		case kind == "IHDR" && len(start) >= 8:
			s.Width, s.Height = int(binary.BigEndian.Uint32(start)), int(binary.BigEndian.Uint32(start[4:]))
		case kind == "acTL" && len(start) >= 8:
			said = int(binary.BigEndian.Uint32(start))
		case kind == "fcTL" && len(start) >= 24:
			s.Frames++
			ms += 1000 * int64(binary.BigEndian.Uint16(start[20:])) / max(1, int64(binary.BigEndian.Uint16(start[22:])))
		case kind == "IEND":
			if s.Hundredths = (ms + 5) / 10; said != s.Frames {
				return s, errAPNG
			}
			return s, nil
		}
	}
}
