package media

import (
	"bytes"
	"context"
	"encoding/binary"
	"errors"
	"image"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"time"

	"capstan/core/doc"
	"capstan/core/words"

	"github.com/kovidgoyal/imaging"
)

// Bounds of the program that reads AVIF: it runs by itself, so that what is wrong with it ends with it.
const (
	avifTime   = 10 * time.Second
	avifMemory = 1 << 30 // bytes of addresses
)

// readAVIF reads the first picture of an AVIF by avifdec (Debian's libavif-bin), in a process of its own with limits of time and memory.
func readAVIF(data []byte) (image.Image, error) {
	program, err := exec.LookPath("avifdec")
	if err != nil {
		return nil, words.New("picture.avif-absent")
	}
	p, err := propertiesOf(data)
	if err != nil {
		return nil, err
	}
	dir, err := os.MkdirTemp("", "capstan-avif-")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(dir)
	in, out := filepath.Join(dir, "in.avif"), filepath.Join(dir, "out.png")
	if err := os.WriteFile(in, data, 0o600); err != nil {
		return nil, err
	}
	ctx, cancel := context.WithTimeout(context.Background(), avifTime)
	defer cancel()
	cmd := exec.CommandContext(ctx, "/bin/sh", "-c", `ulimit -v "$1" && ulimit -t "$2" && shift 2 && exec "$@"`, "avif",
		strconv.Itoa(avifMemory>>10), strconv.Itoa(int(avifTime/time.Second)),
		program, "--jobs", "1", "--depth", "8", "--png-compress", "0", "--size-limit", strconv.Itoa(MaxPixels), "--dimension-limit", strconv.Itoa(doc.MaxSide), in, out)
	cmd.Env, cmd.WaitDelay = []string{}, time.Second
	if err := cmd.Run(); err != nil {
		return nil, errAVIF
	}
	raw, err := os.ReadFile(out)
	if err != nil {
		return nil, err
	}
	img, err := plain(raw)
	if err != nil {
		return nil, err
	}
	return p.upright(img), nil
}

var errAVIF = errors.New("avif: damaged")

// properties are those of an AVIF's first picture (ISO/IEC 23008-12, 6.5): its size, and how it is turned and mirrored to be upright.
type properties struct {
	w, h int
	ways []way
}

type way struct {
	mirror bool
	by     byte // quarter turns anticlockwise; of a mirror 0: top and bottom are exchanged, 1: left and right
}

// upright does to a picture what its file says is to be done, in that order.
func (p *properties) upright(img image.Image) image.Image {
	for _, v := range p.ways {
		switch {
		case v.mirror && v.by == 0:
			img = imaging.FlipV(img)
		case v.mirror:
			img = imaging.FlipH(img)
		case v.by == 1:
			img = imaging.Rotate90(img)
		case v.by == 2:
			img = imaging.Rotate180(img)
		case v.by == 3:
			img = imaging.Rotate270(img)
		}
	}
	return img
}

// boxes calls f with the name and bytes of each box (ISO/IEC 14496-12, 4.2), until it returns false or they end.
func boxes(data []byte, f func(name string, body []byte) bool) {
	for len(data) >= 8 {
		n, head := uint64(binary.BigEndian.Uint32(data)), uint64(8)
		switch {
		case n == 1 && len(data) >= 16:
			n, head = binary.BigEndian.Uint64(data[8:]), 16
		case n == 0:
			n = uint64(len(data))
		}
		if n < head || n > uint64(len(data)) || !f(string(data[4:8]), data[head:n]) {
			return
		}
		data = data[n:]
	}
}

func boxOf(data []byte, name string) (found []byte) {
	boxes(data, func(n string, b []byte) bool {
		if n == name {
			found = b
		}
		return found == nil
	})
	return
}

// propertiesOf reads what the header says of the first picture.
func propertiesOf(data []byte) (*properties, error) {
	meta := boxOf(data, "meta")
	if len(meta) < 4 {
		return nil, errAVIF
	}
	item := uint32(0)
	if b := boxOf(meta[4:], "pitm"); len(b) >= 8 && b[0] > 0 {
		item = binary.BigEndian.Uint32(b[4:])
	} else if len(b) >= 6 {
		item = uint32(binary.BigEndian.Uint16(b[4:]))
	}
	iprp := boxOf(meta[4:], "iprp")
	var list []struct {
		name string
		body []byte
	}
	boxes(boxOf(iprp, "ipco"), func(name string, b []byte) bool {
		list = append(list, struct {
			name string
			body []byte
		}{name, b})
		return true
	})
	p := &properties{}
	for _, i := range associated(boxOf(iprp, "ipma"), item) {
		if i < 1 || i > len(list) {
			continue
		}
		switch v := list[i-1]; {
		case v.name == "ispe" && len(v.body) >= 12:
			p.w, p.h = int(binary.BigEndian.Uint32(v.body[4:])), int(binary.BigEndian.Uint32(v.body[8:]))
		case v.name == "irot" && len(v.body) >= 1:
			p.ways = append(p.ways, way{by: v.body[0] & 3})
		case v.name == "imir" && len(v.body) >= 1:
			p.ways = append(p.ways, way{true, v.body[0] & 1})
		}
	}
	if p.w <= 0 || p.h <= 0 {
		return nil, errAVIF
	}
	return p, nil
}

// associated returns which properties an item has, counted from 1, of an ipma box.
func associated(b []byte, item uint32) (list []int) {
	if len(b) < 8 {
		return nil
	}
	version, wide := b[0], b[3]&1 == 1
	r := bytes.NewReader(b[8:])
	read := func(n int) (v uint32, ok bool) {
		for range n {
			c, err := r.ReadByte()
			if err != nil {
				return 0, false
			}
			v = v<<8 | uint32(c)
		}
		return v, true
	}
	idBytes, refBytes := 2, 1
	if version > 0 {
		idBytes = 4
	}
	if wide {
		refBytes = 2
	}
	for range binary.BigEndian.Uint32(b[4:]) {
		id, ok := read(idBytes)
		n, ok2 := read(1)
		if !ok || !ok2 {
			return
		}
		for range n {
			v, ok := read(refBytes)
			if !ok {
				return
			}
			if id == item {
				list = append(list, int(v&(1<<(8*refBytes-1)-1)))
			}
		}
	}
	return
}

func sizeOfAVIF(data []byte) (int, int, error) {
	p, err := propertiesOf(data)
	if err != nil {
		return 0, 0, err
	}
	return p.w, p.h, nil
}

// movesAVIF reports whether an AVIF is a sequence.
func movesAVIF(data []byte) bool { return len(data) >= 12 && string(data[8:12]) == "avis" }
