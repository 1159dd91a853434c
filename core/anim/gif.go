package anim

import (
	"bufio"
	"bytes"
	"compress/lzw"
	"encoding/binary"
	"fmt"
	"image"
	"io"
)

// Timing is how a GIF follows its film.
type Timing struct {
	RateNum, RateDen int64 // frames a second, at most 50 (see GIFRate)
	Length           int64 // ms of the film
	EndPause         int64 // ms the last frame rests
	Once             bool  // plays once instead of for ever
}

// GIFRate returns the rate a GIF samples a film at: rates above 50 sample at 50, since delays are hundredths
// of a second and those below 2 are played as 10 (common practice).
func GIFRate(num, den int64) (int64, int64) {
	if num > 50*den {
		return 50, 1
	}
	return num, den
}

// Delay returns how long frame k of n rests, in hundredths of a second. Running sums keep it in step with
// the film: frame k lasts round(100 (k+1)/fps) - round(100 k/fps), the last one up to the film's end and through
// the end pause; never less than 2.
func (t Timing) Delay(k, n int64) int64 {
	at := func(k int64) int64 { return (200*k*t.RateDen + t.RateNum) / (2 * t.RateNum) }
	d := at(k+1) - at(k)
	if k == n-1 {
		d = (t.Length+5)/10 - at(k) + (t.EndPause+5)/10
	}
	return max(2, d)
}

// same marks a pixel that is as it was.
const same = 255

// GIF writes an animated GIF89a frame by frame. Call Add for each frame in order, then Close.
type GIF struct {
	w       *bufio.Writer
	palette *Palette
	timing  Timing
	width   int
	height  int
	n, k    int64
	shown   []uint8 // what the file shows so far
	waiting *block  // the last picture, whose delay may still grow
	err     error
}

type block struct {
	box   image.Rectangle
	pix   []uint8
	delay int64
}

// NewGIF begins a GIF of n frames.
func NewGIF(w io.Writer, width, height int, p *Palette, t Timing, n int64) *GIF {
	g := &GIF{
		w: bufio.NewWriter(w), palette: p, timing: t, width: width, height: height, n: n,
		shown: make([]uint8, width*height),
	}
	g.header()
	return g
}

func (g *GIF) put(b ...byte) {
	if g.err == nil {
		_, g.err = g.w.Write(b)
	}
}

func (g *GIF) put16(v int) { g.put(byte(v), byte(v>>8)) }

func (g *GIF) header() {
	g.put([]byte("GIF89a")...)
	g.put16(g.width)
	g.put16(g.height)
	g.put(tableFlag|eightBits|tableOf256, 0, 0)
	table := make([]byte, 768)
	for i, c := range g.palette.colours {
		copy(table[3*i:], c[:])
	}
	g.put(table...)
	if !g.timing.Once {
		g.put(extensionIntroducer, application, byte(len(loops)))
		g.put([]byte(loops)...)
		g.put(3, 1, 0, 0, 0)
	}
}

// Add adds the next frame as palette indices, row by row. It differs from the one before only inside box, as far as known; frames
// that are the same picture are joined. frame is not kept.
func (g *GIF) Add(frame []uint8, box image.Rectangle) error {
	if len(frame) != g.width*g.height {
		return fmt.Errorf("anim: a frame of %d indices in a GIF of %d x %d", len(frame), g.width, g.height)
	}
	delay := g.timing.Delay(g.k, g.n)
	g.k++
	if g.waiting == nil {
		g.waiting = &block{image.Rect(0, 0, g.width, g.height), bytes.Clone(frame), delay}
		copy(g.shown, frame)
		return g.err
	}
	box = g.changed(frame, box)
	if box.Empty() {
		g.waiting.delay += delay
		return g.err
	}
	g.write(g.waiting)
	b := &block{box, make([]uint8, 0, box.Dx()*box.Dy()), delay}
	for y := box.Min.Y; y < box.Max.Y; y++ {
		row, was := frame[y*g.width+box.Min.X:][:box.Dx()], g.shown[y*g.width+box.Min.X:][:box.Dx()]
		for x, v := range row {
			if v == was[x] {
				v = same
			}
			b.pix = append(b.pix, v)
		}
		copy(was, row)
	}
	g.waiting = b
	return g.err
}

// changed returns the box of pixels inside box that differ from what is shown.
func (g *GIF) changed(frame []uint8, box image.Rectangle) image.Rectangle {
	var out image.Rectangle
	box = box.Intersect(image.Rect(0, 0, g.width, g.height))
	for y := box.Min.Y; y < box.Max.Y; y++ {
		a, b := g.shown[y*g.width+box.Min.X:][:box.Dx()], frame[y*g.width+box.Min.X:][:box.Dx()]
		if bytes.Equal(a, b) {
			continue
		}
		l, r := 0, box.Dx()
		for a[l] == b[l] {
			l++
		}
		for a[r-1] == b[r-1] {
			r--
		}
		out = out.Union(image.Rect(box.Min.X+l, y, box.Min.X+r, y+1))
	}
	return out
}

// write puts a picture into the file. A delay above 65,535 is split, no part under 2.
func (g *GIF) write(b *block) {
	const longest = 65535
	for b.delay > longest {
		part := int64(longest)
		if b.delay-part < 2 {
			part -= 2
		}
		g.image(b, part)
		b.delay -= part
		b = &block{image.Rect(0, 0, 1, 1), []uint8{same}, b.delay}
	}
	g.image(b, b.delay)
}

func (g *GIF) image(b *block, delay int64) {
	g.put(extensionIntroducer, graphicControl, 4, keep|transparent)
	g.put16(int(delay))
	g.put(same, 0)
	g.put(imageSeparator)
	g.put16(b.box.Min.X)
	g.put16(b.box.Min.Y)
	g.put16(b.box.Dx())
	g.put16(b.box.Dy())
	g.put(0, codeSize)
	if g.err != nil {
		return
	}
	sub := &subBlocks{w: g.w}
	z := lzw.NewWriter(sub, lzw.LSB, codeSize)
	if _, g.err = z.Write(b.pix); g.err == nil {
		g.err = z.Close()
	}
	if g.err == nil {
		g.err = sub.close()
	}
}

// Close writes what waits and ends the file. It reports frames that are missing.
func (g *GIF) Close() error {
	if g.k != g.n && g.err == nil {
		g.err = fmt.Errorf("anim: %d of %d frames", g.k, g.n)
	}
	if g.waiting != nil && g.err == nil {
		g.write(g.waiting)
	}
	g.put(trailer)
	if g.err != nil {
		return g.err
	}
	return g.w.Flush()
}

// subBlocks cuts a stream into the blocks of at most 255 bytes that GIF wants.
type subBlocks struct {
	w   *bufio.Writer
	buf [256]byte
	n   int
}

func (s *subBlocks) Write(p []byte) (int, error) {
	for i, c := range p {
		s.n++
		s.buf[s.n] = c
		if s.n == 255 {
			if err := s.flush(); err != nil {
				return i, err
			}
		}
	}
	return len(p), nil
}

func (s *subBlocks) flush() error {
	s.buf[0] = byte(s.n)
	_, err := s.w.Write(s.buf[:s.n+1])
	s.n = 0
	return err
}

func (s *subBlocks) close() error {
	if s.n > 0 {
		if err := s.flush(); err != nil {
			return err
		}
	}
	return binary.Write(s.w, binary.LittleEndian, uint8(0))
}
