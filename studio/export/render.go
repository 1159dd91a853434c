// Package export makes files of films: a render pipeline, the encoders behind it, and the queue they wait in.
package export

import (
	"context"
	"fmt"
	"image"
	"runtime"

	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
)

// Options say what file to make.
type Options struct {
	Format           string // mp4 or gif
	Width, Height    int    // px; both even for mp4
	RateNum, RateDen int64
	From, To         int64 // ms of the film; To 0: its end
	Once             bool  // GIF: play once
	EndPause         int64 // ms, GIF
}

// Frames returns how many frames the options make of a film.
func (o Options) Frames(f *frame.Film) int64 {
	to := o.To
	if to == 0 {
		to = f.Order.Length
	}
	return motion.Frames(to-o.From, o.RateNum, o.RateDen)
}

// ring is how many frames may be rendered ahead of the encoder.
func ring() int { return 2*runtime.NumCPU() + 2 }

type job struct {
	k    int64
	img  *image.RGBA
	err  error
	done chan struct{}
}

// render renders frames 0..n-1 of o by as many workers as there are cores and hands them to sink in order. The image belongs
// to sink until it returns.
func render(ctx context.Context, f *frame.Film, pictures raster.Pictures, o Options, frames []int64, sink func(k int64, img *image.RGBA) error) error {
	ctx, stop := context.WithCancel(ctx)
	defer stop()
	order := make(chan *job, ring())
	work := make(chan *job, ring())
	spare := make(chan *image.RGBA, 2*ring())
	for i := 0; i < runtime.NumCPU(); i++ {
		go func() {
			player := f.Player()
			painter := raster.NewPainter(f, pictures)
			for j := range work {
				if ctx.Err() == nil {
					select {
					case j.img = <-spare:
					default:
						j.img = image.NewRGBA(image.Rect(0, 0, o.Width, o.Height))
					}
					at := motion.FrameTime(j.k, o.RateNum, o.RateDen).Add(o.From)
					list := player.At(at, frame.View{Scale: float64(o.Width) / float64(f.Doc.Film.Width)})
					j.err = painter.Paint(j.img, list)
				}
				close(j.done)
			}
		}()
	}
	go func() {
		defer close(order)
		defer close(work)
		for _, k := range frames {
			j := &job{k: k, done: make(chan struct{})}
			select {
			case <-ctx.Done():
				return
			case order <- j:
			}
			work <- j
		}
	}()
	for j := range order {
		<-j.done
		if err := ctx.Err(); err != nil {
			return err
		}
		if j.err != nil {
			return fmt.Errorf("frame %d: %w", j.k, j.err)
		}
		if err := sink(j.k, j.img); err != nil {
			return err
		}
		spare <- j.img
	}
	return ctx.Err()
}

func count(n int64) []int64 {
	out := make([]int64, n)
	for i := range out {
		out[i] = int64(i)
	}
	return out
}
