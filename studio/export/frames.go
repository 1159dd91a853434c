package export

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/csv"
	"fmt"
	"image"
	"image/png"
	"io"
	"os"
	"runtime"
	"slices"
	"strconv"
	"sync"

	"capstan/core/raster"
)

// frames makes a zip of a PNG for each frame, numbered, clear where the page is, and a list of when each is shown. As many are packed at a time as there
// are cores; a frame that shows what the one before does is that file again.
type frames struct{}

// times is the list of a zip of frames.
const times = "times.csv"

// packers are free.
var packers = sync.Pool{New: func() any { return &packer{} }}

func (frames) able() error { return nil }

// packing is a PNG that is being packed.
type packing struct {
	done chan struct{}
	data []byte
	err  error
}

func (frames) encode(ctx context.Context, t *task, out *os.File) error {
	o := t.o
	z := zip.NewWriter(out)
	var rows bytes.Buffer
	list := csv.NewWriter(&rows)
	list.Write([]string{"file", "begins (ms)", "lasts (ms)"})
	n, k := t.count(), int64(0)
	timing := t.timing()
	wide := len(strconv.FormatInt(n, 10))
	name := func(k int64) string { return fmt.Sprintf("frame-%0*d.png", max(4, wide), k+1) }

	// What is rendered is packed by others meanwhile, and written in order.
	order := make(chan *packing, runtime.NumCPU()+1)
	var written error
	var writing sync.WaitGroup
	writing.Go(func() {
		at := int64(0)
		for p := range order {
			<-p.done
			if written == nil {
				written = p.err
			}
			if written == nil {
				var w io.Writer
				if w, written = z.CreateHeader(&zip.FileHeader{Name: name(at), Method: zip.Store}); written == nil {
					_, written = w.Write(p.data)
				}
			}
			at++
		}
	})
	var last *packing
	err := render(ctx, t.film, t.pictures, o, t.frames(), 4*o.Width*o.Height, func() press { return raster.NRGBATiles }, func(_ int64, p, before *plate) error {
		if p != before || last == nil {
			last = &packing{done: make(chan struct{})}
			img := &image.NRGBA{Pix: slices.Clone(p.bytes), Stride: 4 * o.Width, Rect: image.Rect(0, 0, o.Width, o.Height)}
			go func(p *packing) {
				defer close(p.done)
				packs := packers.Get().(*packer)
				defer packers.Put(packs)
				data, err := packs.pack(img)
				p.data, p.err = slices.Clone(data), err
			}(last)
		}
		order <- last
		begins := timing.Begins(k, n)
		list.Write([]string{name(k), strconv.FormatInt(begins, 10), strconv.FormatInt(timing.Begins(k+1, n)-begins, 10)})
		k++
		t.progress(k, n)
		return ctx.Err()
	})
	close(order)
	writing.Wait()
	if err != nil || written != nil {
		return firstError(err, written)
	}
	w, err := z.Create(times)
	if err != nil {
		return err
	}
	list.Flush()
	if _, err := w.Write(rows.Bytes()); err != nil {
		return err
	}
	return z.Close()
}

func firstError(list ...error) error {
	for _, err := range list {
		if err != nil {
			return err
		}
	}
	return nil
}

func (frames) readBack(_ context.Context, t *task, file string) error {
	z, err := zip.OpenReader(file)
	if err != nil {
		return wrong("%v", err)
	}
	defer z.Close()
	if n := int64(len(z.File)); n != t.shows.Len()+1 {
		return wrong("%d files instead of %d", n, t.shows.Len()+1)
	}
	for _, f := range []*zip.File{z.File[0], z.File[len(z.File)-2]} {
		r, err := f.Open()
		if err != nil {
			return wrong("%v", err)
		}
		c, err := png.DecodeConfig(r)
		r.Close()
		if err != nil || c.Width != t.o.Width || c.Height != t.o.Height {
			return wrong("%s: %dx%d, %v", f.Name, c.Width, c.Height, err)
		}
	}
	return nil
}
