package export

import (
	"cmp"
	"context"
	"image"
	"os"
	"slices"
	"sync"

	"capstan/core/anim"
	"capstan/core/delivery"
	"capstan/core/raster"
)

// Samples are spread over the film.
const (
	paletteSamples = 128 // frames the palette is chosen from: of 24, gradients that move showed steps
	ditherSamples  = 3
)

// gif makes animated GIFs: one palette for the whole film, then frame after frame.
type gif struct{}

func (gif) able() error { return nil }

func (gif) encode(ctx context.Context, t *task, w *os.File) error {
	o := t.o
	n, done := t.count(), int64(0)
	var samples []int64
	for i := int64(0); i < min(n, paletteSamples); i++ {
		samples = append(samples, t.frame(i*(n-1)/max(1, min(n, paletteSamples)-1)))
	}
	step := max(1, o.Width*o.Height/200000)
	matte := delivery.Matte(t.film)
	var mu sync.Mutex
	var census anim.Census
	counting := func() press {
		return func(_ []byte, img *image.RGBA, _ *raster.Region) {
			mu.Lock()
			defer mu.Unlock()
			census.Add(img, matte, step)
		}
	}
	err := render(ctx, t.film, t.pictures, o, slices.Values(samples), 0, counting, func(int64, *plate, *plate) error { return nil })
	if err != nil {
		return err
	}
	palette := census.Palette(cmp.Or(o.Colours, anim.MostColours))
	if o.Dither == "" {
		looked, err := few(ctx, t, n)
		if err != nil {
			return err
		}
		o.Dither = palette.Suits(looked, matte)
	}
	g := anim.NewGIF(w, o.Width, o.Height, palette, t.timing(), n, o.Loss)
	g.Comment(o.Title)
	g.Comment(o.Description)
	drawing := func() press {
		pen := palette.Pen(o.Dither, matte)
		return func(to []byte, img *image.RGBA, tiles *raster.Region) {
			tiles.Each(func(box image.Rectangle) { pen.Draw(to, img, box) })
		}
	}
	changed := raster.NewRegion(o.Width, o.Height)
	err = render(ctx, t.film, t.pictures, o, t.frames(), anim.Drawn*o.Width*o.Height, drawing, func(_ int64, p, before *plate) error {
		if err := g.Add(p.bytes, damage(changed, o, p, before)); err != nil {
			return err
		}
		done++
		t.progress(done, n)
		return nil
	})
	if err != nil {
		return err
	}
	return g.Close()
}

// few renders some frames, spread over the film, by which the dither is chosen.
func few(ctx context.Context, t *task, n int64) (list []*image.RGBA, err error) {
	o := t.o
	var at []int64
	for i := range min(n, ditherSamples) {
		at = append(at, t.frame((2*i+1)*n/(2*min(n, ditherSamples))))
	}
	err = render(ctx, t.film, t.pictures, o, slices.Values(at), 4*o.Width*o.Height, copying(o), func(_ int64, p, before *plate) error {
		if p != before {
			list = append(list, &image.RGBA{Pix: slices.Clone(p.bytes), Stride: 4 * o.Width, Rect: image.Rect(0, 0, o.Width, o.Height)})
		}
		return nil
	})
	return list, err
}

func (gif) readBack(_ context.Context, t *task, file string) error {
	f, err := os.Open(file)
	if err != nil {
		return err
	}
	defer f.Close()
	s, err := anim.Scan(f)
	if want := (t.shows.Length()+5)/10 + (t.o.EndPause+5)/10; err != nil || s.Width != t.o.Width || s.Height != t.o.Height || s.Frames < 1 || s.Hundredths < want {
		return wrong("%dx%d, %d frames, %d of %d hundredths, %v", s.Width, s.Height, s.Frames, s.Hundredths, want, err)
	}
	return nil
}
