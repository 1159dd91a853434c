package anim

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"hash/crc32"
	"image"
	"io"
	"math"
)

// Chunks and values of animated PNG (PNG, third edition, sections 11.2 and 11.3.3).
const (
	pngSignature = "\x89PNG\r\n\x1a\n"
	colourRGBA   = 6 // 11.2.1
	blendSource  = 0 // 11.3.3.2: a frame takes the place of what is there
	blendOver    = 1 // or lies over it
)

// Paper is what an animated PNG is written to: what it says at its beginning is known at its end.
type Paper interface {
	io.Writer
	io.WriterAt
}

// APNG writes an animated PNG frame by frame, exactly. Call Add for each frame in order, then Close. Colours are kept as a PNG has them, not
// multiplied by their covers. A reader that knows no animation shows the first frame.
type APNG struct {
	w             Paper
	timing        Timing
	width, height int
	n, k          int64
	shown         []byte // what the file shows so far, straight RGBA
	waiting       *still // the last picture, which may still rest longer
	frames        uint32 // written
	sequence      uint32 // of fcTL and fdAT
	err           error
}

// still is a picture of an APNG that waits to be written.
type still struct {
	box    image.Rectangle
	packed []byte
	blend  byte
	ms     int64
}

// NewAPNG begins an APNG of n frames. Opaque films, too, have covers: what stays is clear in a picture that lies over the one before, which makes
// files smaller by a third to a half.
func NewAPNG(w Paper, width, height int, t Timing, n int64) *APNG {
	g := &APNG{w: w, timing: t, width: width, height: height, n: n, shown: make([]byte, 4*width*height)}
	_, g.err = io.WriteString(w, pngSignature)
	head := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, uint32(width)), uint32(height))
	g.chunk("IHDR", append(head, 8, colourRGBA, 0, 0, 0))
	g.chunk("acTL", g.animation())
	g.chunk("sRGB", []byte{0})
	return g
}

// animationAt is where the acTL chunk begins.
const animationAt = len(pngSignature) + 12 + 13

func (g *APNG) animation() []byte {
	return binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, g.frames), uint32(g.timing.Passes))
}

// Chunk is a chunk of a PNG with its length and check sum (PNG, third edition, section 5.3); kind is four letters.
func Chunk(kind string, data []byte) []byte {
	out := binary.BigEndian.AppendUint32(make([]byte, 0, len(data)+12), uint32(len(data)))
	out = append(append(out, kind...), data...)
	return binary.BigEndian.AppendUint32(out, crc32.ChecksumIEEE(out[4:]))
}

// Texts returns chunks that say a title and a description, those that are not empty, in UTF-8 (PNG, third edition, section 11.3.2.4, with keywords of
// 11.3.2.1).
func Texts(title, description string) (list []byte) {
	for _, v := range [][2]string{{"Title", title}, {"Description", description}} {
		if v[1] != "" {
			list = append(list, Chunk("iTXt", []byte(v[0]+"\x00\x00\x00\x00\x00"+v[1]))...)
		}
	}
	return
}

// Texts writes a title and a description, before the first frame.
func (g *APNG) Texts(title, description string) {
	if g.err == nil {
		_, g.err = g.w.Write(Texts(title, description))
	}
}

func (g *APNG) chunk(kind string, data []byte) {
	if g.err == nil {
		_, g.err = g.w.Write(Chunk(kind, data))
	}
}

// lasts returns how long frame k of n rests, in ms, by running sums: frame k lasts round(1000 (k+1)/fps) - round(1000 k/fps).
func (t Timing) lasts(k, n int64) int64 {
	ms := t.ends(k, n, 1) - t.ends(k-1, n, 1)
	if k == n-1 {
		ms += t.EndPause
	}
	return max(1, ms)
}

// Add adds the next frame as premultiplied RGBA, row by row. It differs from the one before only inside box, as far as known; frames that are
// the same picture are joined. frame is not kept.
func (g *APNG) Add(frame []byte, box image.Rectangle) error {
	if len(frame) != 4*g.width*g.height {
		return fmt.Errorf("anim: a frame of %d bytes in an APNG of %d x %d", len(frame), g.width, g.height)
	}
	ms := g.timing.lasts(g.k, g.n)
	g.k++
	if g.err != nil {
		return g.err
	}
	all := image.Rect(0, 0, g.width, g.height)
	if g.waiting == nil {
		straighten(g.shown, frame)
		g.waiting = g.picture(all, nil)
		g.waiting.ms = ms
		return g.err
	}
	fresh, changed := g.changed(frame, box.Intersect(all))
	if changed.Empty() {
		g.waiting.ms += ms
		return g.err
	}
	g.write(g.waiting)
	g.waiting = g.picture(changed, fresh)
	g.waiting.ms = ms
	return g.err
}

// changed returns the pixels of a box, straight, and the part of it in which these differ from what is shown.
func (g *APNG) changed(frame []byte, box image.Rectangle) (fresh []byte, out image.Rectangle) {
	w := 4 * box.Dx()
	fresh = make([]byte, w*box.Dy())
	for y := range box.Dy() {
		at := 4 * ((box.Min.Y+y)*g.width + box.Min.X)
		row := fresh[y*w : (y+1)*w]
		straighten(row, frame[at:at+w])
		was := g.shown[at : at+w]
		if bytes.Equal(row, was) {
			continue
		}
		l, r := 0, box.Dx()
		for bytes.Equal(row[4*l:4*l+4], was[4*l:4*l+4]) {
			l++
		}
		for bytes.Equal(row[4*r-4:4*r], was[4*r-4:4*r]) {
			r--
		}
		out = out.Union(image.Rect(box.Min.X+l, box.Min.Y+y, box.Min.X+r, box.Min.Y+y+1))
	}
	if out.Empty() {
		return nil, out
	}
	own := make([]byte, 0, 4*out.Dx()*out.Dy())
	for y := out.Min.Y; y < out.Max.Y; y++ {
		at := (y-box.Min.Y)*w + 4*(out.Min.X-box.Min.X)
		own = append(own, fresh[at:at+4*out.Dx()]...)
	}
	return own, out
}

// picture packs what is in a box; fresh is what comes there, nil for what is shown. What is shown becomes that.
func (g *APNG) picture(box image.Rectangle, fresh []byte) *still {
	if fresh == nil {
		fresh = g.shown
	}
	s := &still{box: box}
	w := 4 * box.Dx()
	if s.packed, g.err = packed(fresh, w, 4); g.err != nil {
		return s
	}
	if &fresh[0] == &g.shown[0] {
		return s
	}
	// Laid over, what stays may be clear, where all that changes is opaque.
	over, lays := make([]byte, len(fresh)), true
	for y := range box.Dy() {
		was := g.shown[4*((box.Min.Y+y)*g.width+box.Min.X):][:w]
		row, to := fresh[y*w:(y+1)*w], over[y*w:(y+1)*w]
		for i := 0; i < w && lays; i += 4 {
			if !bytes.Equal(row[i:i+4], was[i:i+4]) {
				lays = row[i+3] == 255
				copy(to[i:], row[i:i+4])
			}
		}
		copy(was, row)
	}
	if lays {
		if p, err := packed(over, w, 4); err == nil && len(p) < len(s.packed) {
			s.packed, s.blend = p, blendOver
		}
	}
	return s
}

// write puts a picture into the file. A rest beyond what a delay can say is split: a pixel that changes nothing goes on.
func (g *APNG) write(s *still) {
	const longest = math.MaxUint16
	for s.ms > longest && g.err == nil {
		rest := s.ms - longest
		g.frame(s, longest)
		if s = g.picture(image.Rect(0, 0, 1, 1), bytes.Clone(g.shown[:4])); s != nil {
			s.ms = rest
		}
	}
	g.frame(s, s.ms)
}

func (g *APNG) frame(s *still, ms int64) {
	c := binary.BigEndian.AppendUint32(nil, g.sequence)
	for _, v := range []int{s.box.Dx(), s.box.Dy(), s.box.Min.X, s.box.Min.Y} {
		c = binary.BigEndian.AppendUint32(c, uint32(v))
	}
	c = binary.BigEndian.AppendUint16(binary.BigEndian.AppendUint16(c, uint16(ms)), 1000)
	g.sequence++
	g.chunk("fcTL", append(c, 0, s.blend)) // it stays: dispose is none
	if g.frames == 0 {
		g.chunk("IDAT", s.packed)
	} else {
		g.chunk("fdAT", append(binary.BigEndian.AppendUint32(nil, g.sequence), s.packed...))
		g.sequence++
	}
	g.frames++
}

// Close writes what waits and ends the file. It reports frames that are missing.
func (g *APNG) Close() error {
	if g.k != g.n && g.err == nil {
		g.err = fmt.Errorf("anim: %d of %d frames", g.k, g.n)
	}
	if g.waiting != nil && g.err == nil {
		g.write(g.waiting)
	}
	g.chunk("IEND", nil)
	if g.err != nil {
		return g.err
	}
	_, err := g.w.WriteAt(Chunk("acTL", g.animation()), int64(animationAt))
	return err
}

// straighten divides colours by their covers, rounded; what is clear has none.
func straighten(to, from []byte) {
	for i := 0; i+3 < len(from); i += 4 {
		switch a := uint32(from[i+3]); a {
		case 255:
			copy(to[i:i+4], from[i:i+4])
		case 0:
			to[i], to[i+1], to[i+2], to[i+3] = 0, 0, 0, 0
		default:
			for k := range 3 {
				to[i+k] = byte(min(255, (255*uint32(from[i+k])+a/2)/a))
			}
			to[i+3] = byte(a)
		}
	}
}
