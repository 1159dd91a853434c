package export

import (
	"image"
	"math"

	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
)

// blur mixes a frame of moments within the time that a shutter is open, from the frame's own moment on: a shutter of 180 degrees lets light in for
// half of a frame (common practice of film). Bytes are averaged as they are, premultiplied, as frames that lie over each other are mixed.
type blur struct {
	step float64 // ms from moment to moment
	n    int
	end  float64 // ms of the film
	list [2]raster.Survey
	sums []uint16 // of 64 moments at most
	img  *image.RGBA
}

func newBlur(f *frame.Film, o Options) *blur {
	end := o.To
	if end == 0 {
		end = f.Order.Length
	}
	each := 1000 * float64(o.RateDen) / float64(o.RateNum)
	return &blur{
		step: each * o.Shutter / 360 / float64(o.Samples), n: o.Samples, end: float64(end),
		sums: make([]uint16, 4*o.Width*o.Height), img: image.NewRGBA(image.Rect(0, 0, o.Width, o.Height)),
	}
}

// list returns what moment i of frame k shows; none is behind the end of the film, or of its part.
func (w *worker) moment(k int64, i int) *frame.List {
	ms := 1000*float64(k)*float64(w.o.RateDen)/float64(w.o.RateNum) + float64(w.o.From) + float64(i)*w.blur.step
	return w.player.At(motion.Seconds(math.Min(ms, w.blur.end)/1000), frame.View{Scale: w.scale, Under: w.under})
}

// moves reports whether anything changes while the shutter is open.
func (b *blur) moves(w *worker, k int64) (bool, error) {
	for i := range b.n {
		if err := w.painter.Survey(&b.list[min(i, 1)], w.moment(k, i), w.o.Width, w.o.Height); err != nil {
			return false, err
		}
		if i > 0 && !b.list[1].Equal(&b.list[0]) {
			return true, nil
		}
	}
	return false, nil
}

// blurred renders a frame in which something moves.
func (w *worker) blurred(j *job, take func() *plate) error {
	b := w.blur
	clear(b.sums)
	for i := range b.n {
		if err := w.painter.Survey(&b.list[0], w.moment(j.k, i), w.o.Width, w.o.Height); err != nil {
			return err
		}
		if err := w.canvas.ShowSurvey(&b.list[0]); err != nil {
			return err
		}
		for at, v := range w.canvas.Image().Pix {
			b.sums[at] += uint16(v)
		}
	}
	n := uint16(b.n)
	for at, v := range b.sums {
		b.img.Pix[at] = uint8((v + n/2) / n)
	}
	p := take()
	w.tiles.All()
	w.press(p.bytes, w.overlay.over(b.img), w.tiles)
	p.blank, p.mixed = false, true
	p.shows.Set(&b.list[0])
	j.plate = p
	return nil
}
