package media

import (
	"bytes"
	"errors"
	"fmt"
	"image"
	"image/draw"
	"image/gif"
	"strings"

	"capstan/core/words"

	"github.com/gabriel-vasile/mimetype"
	"github.com/kovidgoyal/imaging"
	_ "golang.org/x/image/bmp" // readers of what is taken in
	_ "golang.org/x/image/tiff"
)

// reader takes one kind of picture in.
type reader struct {
	mime, ext string
	size      func(data []byte) (w, h int, err error) // as the header says, before anything is decoded
	read      func(data []byte) (image.Image, error)  // upright, in sRGB
	moves     func(data []byte) bool                  // it has more pictures than the first, which alone is read; nil: it never has
}

// apng is what a PNG with frames is called here.
const apng = "image/vnd.mozilla.apng"

// readers are the kinds of pictures that are taken in, by what they are found to be.
var readers = map[string]*reader{
	"image/png":  {"image/png", ".png", header, plain, nil},
	apng:         {"image/apng", ".apng", header, func(data []byte) (image.Image, error) { return plain(stillPNG(data)) }, movesPNG},
	"image/jpeg": {"image/jpeg", ".jpg", header, plain, nil},
	"image/webp": {"image/webp", ".webp", sizeOfWebP, readWebP, movesWebP},
	"image/gif":  {"image/gif", ".gif", header, readGIF, movesGIF},
	"image/tiff": {"image/tiff", ".tiff", header, plain, nil},
	"image/bmp":  {"image/bmp", ".bmp", header, plain, nil},
	"image/avif": {"image/avif", ".avif", sizeOfAVIF, readAVIF, movesAVIF},
}

// readerOf is the reader of what a file is found to be, whatever it is called; nil for what is no picture that can be taken in.
func readerOf(data []byte) *reader {
	for m := mimetype.Detect(data); m != nil; m = m.Parent() {
		kind := m.String()
		if kind == "image/png" && framesOfPNG(data) > 0 {
			kind = apng // wherever in its head that is said
		}
		if r := readers[kind]; r != nil {
			return r
		}
	}
	return nil
}

// unread is the error for a picture that cannot be read, in words.
func unread(err error) error {
	var no *words.Fault
	switch {
	case errors.As(err, &no):
		return no
	case strings.Contains(err.Error(), "unsupported feature") || strings.Contains(err.Error(), "unsupported:"):
		return words.New("picture.unsupported", strings.TrimPrefix(err.Error()[strings.LastIndex(err.Error(), "feature: ")+1:], "eature: "))
	}
	return words.New("picture.damaged")
}

func header(data []byte) (int, int, error) {
	cfg, _, err := image.DecodeConfig(bytes.NewReader(data))
	return cfg.Width, cfg.Height, err
}

// plain reads a picture of one frame by readers written in Go alone, and no program on the PATH. A profile that cannot be used is left out: the
// picture counts as sRGB then, as one without.
func plain(data []byte) (img image.Image, err error) {
	defer func() { // a reader’s fault on a damaged file is the file’s
		if v := recover(); v != nil {
			img, err = nil, fmt.Errorf("picture: %v", v)
		}
	}()
	all, _, err := imaging.DecodeAll(bytes.NewReader(data), imaging.AutoOrientation(true), imaging.Backends(imaging.GO_IMAGE), imaging.ColorSpace(imaging.NO_CHANGE_OF_COLORSPACE))
	if err != nil {
		return nil, err
	}
	if all == nil || len(all.Frames) == 0 {
		return nil, errors.New("picture: nothing in it")
	}
	img = all.SingleFrame()
	if all.Metadata == nil {
		return img, nil
	}
	if converted, err := toSRGB(img, all.Metadata); err == nil {
		return converted, nil
	}
	return img, nil
}

// readGIF reads the first picture of a GIF, in its place on the screen of the whole.
func readGIF(data []byte) (image.Image, error) {
	w, h, err := header(data)
	if err != nil {
		return nil, err
	}
	first, err := gif.Decode(bytes.NewReader(data))
	if err != nil {
		return nil, err
	}
	out := image.NewRGBA(image.Rect(0, 0, w, h))
	draw.Draw(out, first.Bounds().Intersect(out.Rect), first, first.Bounds().Intersect(out.Rect).Min, draw.Src)
	return out, nil
}

// movesGIF reports whether a GIF has more pictures than one.
func movesGIF(data []byte) bool {
	if len(data) < 13 {
		return false
	}
	table := func(flags byte) int {
		if flags&0x80 == 0 {
			return 0
		}
		return 3 << (flags&7 + 1)
	}
	at, n := 13+table(data[10]), 0
	blocks := func() {
		for at < len(data) && data[at] != 0 {
			at += int(data[at]) + 1
		}
		at++
	}
	for at < len(data) {
		switch data[at] {
		case 0x21: // an extension
			at += 2
			blocks()
		case 0x2c: // a picture
			if n++; n > 1 || at+10 > len(data) {
				return n > 1
			}
			at += 11 + table(data[at+9])
			blocks()
		default:
			return false
		}
	}
	return false
}
