// Package export makes files of films: a render pipeline, the encoders behind it, and the queue they wait in.
package export

import (
	"context"
	"errors"
	"fmt"
	"image"
	"iter"
	"log/slog"
	"runtime"
	"runtime/debug"
	"sync"

	"capstan/core/delivery"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/words"
	"capstan/studio/budget"
)

// Options say what file to make.
type Options = delivery.Plan

// needs is how many bytes one worker of a render holds: a canvas and what stands still on it, two plates of size bytes that go round for it, and
// what moments are summed up in and a mark is laid over on.
func needs(o Options, size int) int {
	pixel := 2 * 4
	if o.Shutter > 0 {
		pixel += 4*2 + 4
	}
	if o.Mark != nil {
		pixel += 4
	}
	return pixel*o.Width*o.Height + 2*size
}

// makers returns how many workers render frames of o onto plates of size bytes: one a core, as far as memory goes, and one at least.
func makers(o Options, size int) int {
	return max(1, min(runtime.NumCPU(), budget.RenderCanvases/needs(o, size)))
}

// plate is a frame as an encoder takes it, and the display list it shows. Plates go round: one that holds an older frame is
// made to show a new one where both differ.
type plate struct {
	bytes []byte
	shows raster.Survey
	blank bool
	mixed bool // it is mixed of several moments, of which shows knows one
}

// press makes what an encoder takes of the tiles of a frame; each worker has one.
type press func(to []byte, img *image.RGBA, tiles *raster.Region)

type job struct {
	k, before int64  // the frame, and the one in front of it; -1 for none
	plate     *plate // nil where it shows what the frame before shows
	err       error
	done      chan struct{}
}

// worker renders frames on a canvas of its own.
type worker struct {
	o            Options
	under        *frame.Paint
	scale        float64
	player       *frame.Player
	painter      *raster.Painter
	canvas       *raster.Canvas
	press        press
	tiles        *raster.Region
	before, list raster.Survey
	blur         *blur    // nil: none
	overlay      *overlay // nil: none
}

func newWorker(f *frame.Film, pictures raster.Pictures, o Options, mark *image.RGBA, p press) *worker {
	w := &worker{
		o: o, scale: float64(o.Width) / float64(f.Doc.Film.Width), player: f.Player(), painter: raster.NewPainter(f, pictures),
		under:   delivery.Under(f, o.Format),
		overlay: newOverlay(mark), press: p, tiles: raster.NewRegion(o.Width, o.Height),
	}
	w.canvas = raster.NewCanvas(w.painter, o.Width, o.Height)
	if o.Shutter > 0 {
		w.blur = newBlur(f, o)
	}
	return w
}

func (w *worker) at(k int64) *frame.List {
	at := motion.FrameTime(k, w.o.RateNum, w.o.RateDen).Add(w.o.From)
	return w.player.At(at, frame.View{Scale: w.scale, Under: w.under})
}

// work renders a frame onto a plate, or finds it equal to the one before: a list costs a thousandth of a picture.
func (w *worker) work(j *job, take func() *plate) error {
	if w.blur != nil {
		if moves, err := w.blur.moves(w, j.k); err != nil || moves {
			return errors.Join(err, w.blurred(j, take))
		}
	}
	if j.before >= 0 {
		if err := w.painter.Survey(&w.before, w.at(j.before), w.o.Width, w.o.Height); err != nil {
			return err
		}
	}
	if err := w.painter.Survey(&w.list, w.at(j.k), w.o.Width, w.o.Height); err != nil {
		return err
	}
	if j.before >= 0 && w.list.Equal(&w.before) {
		if w.blur == nil {
			return nil
		}
		if moved, err := w.blur.moves(w, j.before); err != nil || !moved {
			return err
		}
	}
	if err := w.canvas.ShowSurvey(&w.list); err != nil {
		return err
	}
	p := take()
	w.tiles.Clear()
	if p.blank || p.mixed {
		w.tiles.All()
	} else {
		raster.Damage(w.tiles, &p.shows, &w.list)
	}
	w.press(p.bytes, w.overlay.over(w.canvas.Image()), w.tiles)
	p.blank, p.mixed = false, false
	p.shows.Set(&w.list)
	j.plate = p
	return nil
}

// render renders frames of o by as many workers as there are cores onto plates of size bytes and hands them to sink in
// order, each with the one before; a frame that shows what the one before does is handed over as the same plate again. Plates
// may be read until the next call of sink returns, not changed.
func render(ctx context.Context, f *frame.Film, pictures raster.Pictures, o Options, frames iter.Seq[int64], size int, presses func() press, sink func(k int64, p, before *plate) error) error {
	mark, err := markOf(f, pictures, o)
	if err != nil {
		return err
	}
	ctx, stop := context.WithCancel(ctx)
	n := makers(o, size)
	order := make(chan *job, 2*n+2)
	work := make(chan *job, 2*n+2)
	var workers sync.WaitGroup
	defer workers.Wait() // nothing goes on working behind the caller's back
	defer stop()
	spare := &shelf{size: size}
	for range n {
		workers.Go(func() {
			w := newWorker(f, pictures, o, mark, presses())
			w.painter.Within(raster.Limits{Bytes: budget.RenderGroups / n, Stop: ctx.Err})
			for j := range work {
				if ctx.Err() == nil {
					j.err = guarded(func() error { return w.work(j, spare.take) })
				}
				close(j.done)
			}
		})
	}
	go func() {
		defer close(order)
		defer close(work)
		before := int64(-1)
		for k := range frames {
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

// guarded carries out work so that a mistake of the program in it ends in an error, and not the process.
func guarded(work func() error) (err error) {
	defer func() {
		if r := recover(); r != nil {
			slog.Error("a mistake while rendering", "panic", r, "stack", string(debug.Stack()))
			err = words.New("export.mistake", fmt.Sprint(r))
		}
	}()
	return work()
}

// damage is the box in which two plates that follow each other may differ; before is nil at the beginning.
func damage(changed *raster.Region, o Options, p, before *plate) image.Rectangle {
	switch {
	case before == nil || p != before && (p.mixed || before.mixed):
		return image.Rect(0, 0, o.Width, o.Height)
	case p == before:
		return image.Rectangle{}
	}
	changed.Clear()
	raster.Damage(changed, &before.shows, &p.shows)
	return changed.Bounds()
}
