package anim

import (
	"bufio"
	"errors"
	"fmt"
	"io"
)

// Scanned is what a GIF says of itself.
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
