// Package export makes files of films: a render pipeline, the encoders behind it, and the queue they wait in.
package export

import (
	"context"
	"fmt"
	"runtime"
	"sync"

	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
)

// Options say what file to make.
type Options struct {
	Format           string // mp4, gif, or png: the frame at From
	Width, Height    int    // px; both even for mp4
	RateNum, RateDen int64
	From, To         int64 // ms of the film; To 0: its end
	Once             bool  // GIF: play once
	EndPause         int64 // ms, GIF
}

// Frames returns how many frames the options make of a film.
func (o Options) Frames(f *frame.Film) int64 {
	if o.Format == "png" {
		return 1
	}
	to := o.To
	if to == 0 {
		to = f.Order.Length
	}
	return motion.Frames(to-o.From, o.RateNum, o.RateDen)
}

// ring is how many frames may be rendered ahead of the encoder.
func ring() int { return 2*runtime.NumCPU() + 2 }

// plate is a frame as an encoder takes it, and the display list it shows. Plates go round: one that holds an older frame is
// made to show a new one where both differ.
type plate struct {
	bytes []byte
	shows raster.Survey
	blank bool
}

// press makes what an encoder takes of the tiles of a frame; each worker has one.
type press func(to []byte, c *raster.Canvas, tiles *raster.Region)

type job struct {
	k, before int64  // the frame, and the one in front of it; -1 for none
	plate     *plate // nil where it shows what the frame before shows
	err       error
	done      chan struct{}
}

// worker renders frames on a canvas of its own.
type worker struct {
	o            Options
	scale        float64
	player       *frame.Player
	painter      *raster.Painter
	canvas       *raster.Canvas
	press        press
	tiles        *raster.Region
	before, list raster.Survey
}

func newWorker(f *frame.Film, pictures raster.Pictures, o Options, p press) *worker {
	w := &worker{
		o: o, scale: float64(o.Width) / float64(f.Doc.Film.Width), player: f.Player(), painter: raster.NewPainter(f, pictures),
		press: p, tiles: raster.NewRegion(o.Width, o.Height),
	}
	w.canvas = raster.NewCanvas(w.painter, o.Width, o.Height)
	return w
}

func (w *worker) at(k int64) *frame.List {
	at := motion.FrameTime(k, w.o.RateNum, w.o.RateDen).Add(w.o.From)
	return w.player.At(at, frame.View{Scale: w.scale})
}

// work renders a frame onto a plate, or finds it equal to the one before: a list costs a thousandth of a picture.
func (w *worker) work(j *job, take func() *plate) error {
	if j.before >= 0 {
		if err := w.painter.Survey(&w.before, w.at(j.before), w.o.Width, w.o.Height); err != nil {
			return err
		}
	}
	if err := w.painter.Survey(&w.list, w.at(j.k), w.o.Width, w.o.Height); err != nil {
		return err
	}
	if j.before >= 0 && w.list.Equal(&w.before) {
		return nil
	}
	if err := w.canvas.ShowSurvey(&w.list); err != nil {
		return err
	}
	p := take()
	w.tiles.Clear()
	if p.blank {
		w.tiles.All()
	} else {
		raster.Damage(w.tiles, &p.shows, &w.list)
	}
	w.press(p.bytes, w.canvas, w.tiles)
	p.blank = false
	p.shows.Set(&w.list)
	j.plate = p
	return nil
}

// render renders frames of o by as many workers as there are cores onto plates of size bytes and hands them to sink in
// order, each with the one before; a frame that shows what the one before does is handed over as the same plate again. Plates
// may be read until the next call of sink returns, not changed.
func render(ctx context.Context, f *frame.Film, pictures raster.Pictures, o Options, frames []int64, size int, presses func() press, sink func(k int64, p, before *plate) error) error {
	ctx, stop := context.WithCancel(ctx)
	order := make(chan *job, ring())
	work := make(chan *job, ring())
	var workers sync.WaitGroup
	defer workers.Wait() // nothing goes on working behind the caller's back
	defer stop()
	spare := &shelf{size: size}
	for i := 0; i < runtime.NumCPU(); i++ {
		workers.Add(1)
		go func() {
			defer workers.Done()
			w := newWorker(f, pictures, o, presses())
			for j := range work {
				if ctx.Err() == nil {
					j.err = w.work(j, spare.take)
				}
				close(j.done)
			}
		}()
	}
	go func() {
		defer close(order)
		defer close(work)
		before := int64(-1)
		for _, k := range frames {
			j := &job{k: k, before: before, done: make(chan struct{})}
			before = k
			select {
			case <-ctx.Done():
				return
			case order <- j:
			}
			work <- j
		}
	}()
	var last *plate
	for j := range order {
		<-j.done
		if err := ctx.Err(); err != nil {
			return err
		}
		if j.err != nil {
			return fmt.Errorf("frame %d: %w", j.k, j.err)
		}
		p := j.plate
		if p == nil {
			p = last
		}
		if err := sink(j.k, p, last); err != nil {
			return err
		}
		if last != nil && last != p {
			spare.give(last)
		}
		last = p
	}
	return ctx.Err()
}

// shelf holds plates that are free; the one given last is taken first, since it shows the latest frame.
type shelf struct {
	mu     sync.Mutex
	plates []*plate
	size   int
}

func (s *shelf) take() *plate {
	s.mu.Lock()
	defer s.mu.Unlock()
	if n := len(s.plates); n > 0 {
		p := s.plates[n-1]
		s.plates = s.plates[:n-1]
		return p
	}
	return &plate{bytes: make([]byte, s.size), blank: true}
}

func (s *shelf) give(p *plate) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.plates = append(s.plates, p)
}

func count(n int64) []int64 {
	out := make([]int64, n)
	for i := range out {
		out[i] = int64(i)
	}
	return out
}
