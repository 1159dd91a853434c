package anim

import (
	"bufio"
	"bytes"
	"fmt"
	"image"
	"io"
	"math"
	"math/bits"
	"sync"
)

// Timing is how an animation follows its film.
type Timing struct {
	RateNum, RateDen int64   // frames a second, at most 50 (see GIFRate)
	Length           int64   // ms of the film
	Ends             []int64 // when each frame ends, in parts of a ms of which there are RateNum; nil: as rate and length have it
	EndPause         int64   // ms the last frame rests
	Passes           int64   // how often it plays; 0: for ever
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
	d := t.ends(k, n, 10) - t.ends(k-1, n, 10)
	if k == n-1 {
		d += (t.EndPause + 5) / 10
	}
	return max(2, d)
}

// Begins returns when frame k of n is first shown, in ms, without the rest at the end; that of frame n is when all ends.
func (t Timing) Begins(k, n int64) int64 {
	if k <= 0 {
		return 0
	}
	return t.ends(k-1, n, 1)
}

// ends returns when frame k of n ends, rounded to steps of some ms.
func (t Timing) ends(k, n, step int64) int64 {
	switch {
	case t.Ends != nil && k >= 0:
		return (2*t.Ends[k] + step*t.RateNum) / (2 * step * t.RateNum)
	case k == n-1:
		return (2*t.Length + step) / (2 * step)
	}
	return (2000*(k+1)*t.RateDen + step*t.RateNum) / (2 * step * t.RateNum)
}

// GIF writes an animated GIF89a frame by frame. Call Add for each frame in order, then Close.
type GIF struct {
	w             *bufio.Writer
	palette       *Palette
	next          *Palette // from the next frame on; nil: the same
	global        *Palette // whose table stands at the head
	timing        Timing
	width, height int
	loss          float64
	n, k          int64
	shown         []uint8 // what the file shows so far
	was           []uint8 // the last frame, in Drawn bytes a pixel
	stay          []bool  // what is shown is as good as what is drawn now, in the box that was looked at last
	waiting       *block  // the last picture, whose delay may still grow
	packer        packer
	halves        [2]acquainted
	err           error
}

// block is a picture of a GIF that waits to be written.
type block struct {
	box    image.Rectangle
	chosen []uint8
	size   uint
	packed []byte
	delay  int64
	wipes  bool // its box is cleared before the next
	table  *Palette
}

// NewGIF begins a GIF of n frames. loss is by how much, in OKLab times 1000, a pixel may be further from its colour than the nearest of the palette
// is, where that makes the file smaller; 0 to 100.
func NewGIF(w io.Writer, width, height int, p *Palette, t Timing, n int64, loss float64) *GIF {
	g := &GIF{
		w: bufio.NewWriter(w), palette: p, global: p, timing: t, width: width, height: height, n: n, loss: loss / 1000,
		shown: make([]uint8, width*height), was: make([]uint8, Drawn*width*height), stay: make([]bool, width*height),
	}
	for i := range g.halves {
		if loss > 0 {
			g.halves[i].met = make([]nearby, 1<<metBits)
		}
	}
	g.header()
	return g
}

// acquainted knows colours that were met, with a loss. Each goroutine has one.
type acquainted struct {
	met  []nearby
	last nearby
}

// nearby is a colour that was met, as 1<<24 | rgb, and what will do for it.
type nearby struct {
	colour uint32
	list   shades
}

const metBits = 15

// inHalves carries out work on the upper and the lower half of a box at the same time.
func (g *GIF) inHalves(box image.Rectangle, work func(half int, part image.Rectangle)) {
	const alone = 64 * 64 // px that are not worth a goroutine
	if box.Dx()*box.Dy() < alone {
		work(0, box)
		return
	}
	upper, lower := box, box
	upper.Max.Y = box.Min.Y + box.Dy()/2
	lower.Min.Y = upper.Max.Y
	var other sync.WaitGroup
	other.Go(func() { work(1, lower) })
	work(0, upper)
	other.Wait()
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
	size, table := g.palette.table()
	g.put(tableFlag|eightBits|byte(size-1), 0, 0)
	g.put(table...)
	if g.timing.Passes != 1 {
		again := max(0, g.timing.Passes-1) // times it plays again; 0: for ever
		g.put(extensionIntroducer, application, byte(len(loops)))
		g.put([]byte(loops)...)
		g.put(3, 1, byte(again), byte(again>>8), 0)
	}
}

// table returns the colours as they are in files, of which there are 2 to the power of size, with index 0.
func (p *Palette) table() (size int, table []byte) {
	size = max(1, bits.Len(uint(len(p.colours))))
	table = make([]byte, 3<<size)
	for i, c := range p.colours {
		copy(table[3*(i+1):], c[:])
	}
	return size, table
}

// Switch lets frames from the next on have another palette. That one is painted whole.
func (g *GIF) Switch(p *Palette) {
	if p != g.palette {
		g.next = p
	}
}

// switchTo begins with another palette at a frame.
func (g *GIF) switchTo(p *Palette, frame []uint8) {
	g.palette, g.next = p, nil
	for i := range g.halves {
		clear(g.halves[i].met)
		g.halves[i].last = nearby{}
	}
	if g.waiting == nil {
		return
	}
	for at := 3; at < len(frame); at += Drawn {
		if frame[at] == through {
			g.wipe(image.Rect(0, 0, g.width, g.height))
			break
		}
	}
	g.write(g.waiting)
	clear(g.shown)
	clear(g.stay)
}

// Comment writes words that belong to the file, where it stands. UTF-8 is what readers take them for (common practice; section 24 says ASCII).
func (g *GIF) Comment(words string) {
	if words == "" {
		return
	}
	g.put(extensionIntroducer, comment)
	for rest := []byte(words); len(rest) > 0; {
		n := min(255, len(rest))
		g.put(byte(n))
		g.put(rest[:n]...)
		rest = rest[n:]
	}
	g.put(0)
}

// Add adds the next frame as a Pen has drawn it. It differs from the one before only inside box, as far as known; frames that are the same picture
// are joined. frame is not kept.
func (g *GIF) Add(frame []uint8, box image.Rectangle) error {
	if len(frame) != Drawn*g.width*g.height {
		return fmt.Errorf("anim: a frame of %d bytes in a GIF of %d x %d", len(frame), g.width, g.height)
	}
	delay := g.timing.Delay(g.k, g.n)
	g.k++
	all := image.Rect(0, 0, g.width, g.height)
	if g.next != nil {
		g.switchTo(g.next, frame)
		g.picture(frame, all, delay)
		return g.err
	}
	if g.waiting == nil {
		g.picture(frame, all, delay)
		return g.err
	}
	box, wiped := g.changed(frame, box.Intersect(all))
	if box.Empty() {
		g.waiting.delay += delay
		return g.err
	}
	if !wiped.Empty() {
		g.wipe(wiped.Union(g.waiting.box))
		box, _ = g.changed(frame, box.Union(g.waiting.box))
	}
	g.write(g.waiting)
	g.picture(frame, box, delay)
	return g.err
}

// changed returns the box of pixels inside box that must not stay as they are shown, and that of those which become clear.
func (g *GIF) changed(frame []uint8, box image.Rectangle) (out, wiped image.Rectangle) {
	var outs, wipes [2]image.Rectangle
	g.inHalves(box, func(half int, part image.Rectangle) {
		outs[half], wipes[half] = g.changedIn(&g.halves[half], frame, part)
	})
	return outs[0].Union(outs[1]), wipes[0].Union(wipes[1])
}

func (g *GIF) changedIn(know *acquainted, frame []uint8, box image.Rectangle) (out, wiped image.Rectangle) {
	for y := box.Min.Y; y < box.Max.Y; y++ {
		l, r, wl, wr := -1, 0, -1, 0
		at := y*g.width + box.Min.X
		row := frame[Drawn*at:][:Drawn*box.Dx()]
		for x := range box.Dx() {
			v, shown := row[Drawn*x+3], g.shown[at+x]
			if g.stay[at+x] = v == shown || v != through && g.stays(know, row[Drawn*x:], at+x); g.stay[at+x] {
				continue
			}
			if l < 0 {
				l = x
			}
			r = x + 1
			if v == through {
				if wl < 0 {
					wl = x
				}
				wr = x + 1
			}
		}
		if l >= 0 {
			out = out.Union(image.Rect(box.Min.X+l, y, box.Min.X+r, y+1))
		}
		if wl >= 0 {
			wiped = wiped.Union(image.Rect(box.Min.X+wl, y, box.Min.X+wr, y+1))
		}
	}
	return
}

// stays reports whether what is shown at a place is as good as the pixel that is drawn there now: its colour is as it was, whatever a dither makes
// of it, or it is near enough for the loss.
func (g *GIF) stays(know *acquainted, px []uint8, at int) bool {
	shown := g.shown[at]
	if shown == through {
		return false
	}
	if was := g.was[Drawn*at:]; px[0] == was[0] && px[1] == was[1] && px[2] == was[2] {
		return true
	}
	return g.loss > 0 && g.near(know, px).have(shown)
}

// near returns the indices that will do for a pixel.
func (g *GIF) near(know *acquainted, px []uint8) shades {
	rgb := uint32(px[0])<<16 | uint32(px[1])<<8 | uint32(px[2])
	if know.last.colour == 1<<24|rgb {
		return know.last.list
	}
	slot := &know.met[rgb*0x9E3779B1>>(32-metBits)]
	if slot.colour == 1<<24|rgb {
		know.last = *slot
		return slot.list
	}
	lab := labOf(rgb)
	first := nearest(g.palette.labs, lab)
	reach := math.Sqrt(apart(&g.palette.labs[first], &lab)) + g.loss
	list, n := shades(first+1), 1
	for i := range g.palette.labs {
		if i != first && n < mostShades && apart(&g.palette.labs[i], &lab) <= reach*reach {
			list |= shades(i+1) << (8 * n)
			n++
		}
	}
	*slot = nearby{1<<24 | rgb, list}
	know.last = *slot
	return list
}

// wipe lets the picture that waits be cleared, over a box that holds its own, before the next is shown.
func (g *GIF) wipe(box image.Rectangle) {
	b := g.waiting
	if box != b.box {
		chosen := make([]uint8, box.Dx()*box.Dy())
		for y := range b.box.Dy() {
			copy(chosen[(y+b.box.Min.Y-box.Min.Y)*box.Dx()+b.box.Min.X-box.Min.X:], b.chosen[y*b.box.Dx():][:b.box.Dx()])
		}
		b.box, b.chosen = box, chosen
		b.packed = bytes.Clone(g.packer.pack(&row{pix: bytes.Clone(chosen), free: make([]bool, len(chosen))}, b.size, chosen))
	}
	b.wipes = true
	for y := box.Min.Y; y < box.Max.Y; y++ {
		clear(g.shown[y*g.width+box.Min.X:][:box.Dx()])
	}
}

// picture packs a frame's box, and lets it wait.
func (g *GIF) picture(frame []uint8, box image.Rectangle, delay int64) {
	n := box.Dx() * box.Dy()
	r := &row{pix: make([]uint8, n), free: make([]bool, n)}
	if g.loss > 0 {
		r.near = make([]shades, n)
	}
	var tops [2]uint8
	g.inHalves(box, func(half int, part image.Rectangle) {
		tops[half] = g.prepare(r, &g.halves[half], frame, box, part)
	})
	size := uint(max(2, bits.Len8(max(tops[0], tops[1]))))
	b := &block{box: box, size: size, delay: delay, table: g.palette, chosen: make([]uint8, n)}
	b.packed = bytes.Clone(g.packer.pack(r, size, b.chosen))
	for y := range box.Dy() {
		at := (box.Min.Y+y)*g.width + box.Min.X
		for x, v := range b.chosen[y*box.Dx():][:box.Dx()] {
			if v != through {
				g.shown[at+x] = v
			}
		}
	}
	g.waiting = b
}

// prepare says of the pixels in a part of a box what they may be written as, and returns the highest index.
func (g *GIF) prepare(r *row, know *acquainted, frame []uint8, box, part image.Rectangle) (top uint8) {
	for y := part.Min.Y - box.Min.Y; y < part.Max.Y-box.Min.Y; y++ {
		at := (box.Min.Y+y)*g.width + box.Min.X
		px := frame[Drawn*at:][:Drawn*box.Dx()]
		for x := range box.Dx() {
			i, p := y*box.Dx()+x, px[Drawn*x:Drawn*x+Drawn]
			v, shown := p[3], g.shown[at+x]
			switch was := g.was[Drawn*(at+x):]; {
			case v == through || v == shown:
				r.free[i] = true
			case shown != through && p[0] == was[0] && p[1] == was[1] && p[2] == was[2]:
				v, r.free[i] = shown, true // what rests does not crawl, whatever the dither makes of what is around it
			default:
				r.free[i] = g.stay[at+x]
			}
			r.pix[i] = v
			top = max(top, v)
			if g.loss > 0 && v != through {
				r.near[i] = g.near(know, p)
			}
		}
		copy(g.was[Drawn*at:], px)
	}
	return top
}

// write puts a picture into the file. A delay above 65,535 is split, no part under 2.
func (g *GIF) write(b *block) {
	const longest = 65535
	for b.delay > longest {
		part := int64(longest)
		if b.delay-part < 2 {
			part -= 2
		}
		first := *b
		first.wipes = false // what is cleared is the box of the part that ends it
		g.image(&first, part)
		rest := &block{box: image.Rect(0, 0, 1, 1), size: 2, table: g.global, delay: b.delay - part, wipes: b.wipes}
		if b.wipes {
			rest.box = b.box
		}
		n := rest.box.Dx() * rest.box.Dy()
		rest.packed = bytes.Clone(g.packer.pack(&row{pix: make([]uint8, n), free: make([]bool, n)}, 2, make([]uint8, n)))
		b = rest
	}
	g.image(b, b.delay)
}

func (g *GIF) image(b *block, delay int64) {
	disposal := byte(keep)
	if b.wipes {
		disposal = wipe
	}
	g.put(extensionIntroducer, graphicControl, 4, disposal|transparent)
	g.put16(int(delay))
	g.put(through, 0)
	g.put(imageSeparator)
	g.put16(b.box.Min.X)
	g.put16(b.box.Min.Y)
	g.put16(b.box.Dx())
	g.put16(b.box.Dy())
	if b.table == g.global {
		g.put(0)
	} else {
		size, table := b.table.table()
		g.put(tableFlag | byte(size-1))
		g.put(table...)
	}
	g.put(byte(b.size))
	for rest := b.packed; len(rest) > 0 && g.err == nil; {
		n := min(255, len(rest))
		g.put(byte(n))
		g.put(rest[:n]...)
		rest = rest[n:]
	}
	g.put(0)
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
