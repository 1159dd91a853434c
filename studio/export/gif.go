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
	"capstan/core/paint"
	"capstan/core/raster"
)

// Samples are spread over the film.
const (
	paletteSamples = 128 // frames the palette is chosen from: of 24, gradients that move showed steps
	ditherSamples  = 3
)

// gif makes animated GIFs: a palette for the whole film, or of their own for scenes that it strays from, then frame after frame.
type gif struct{}

func (gif) able() error { return nil }

func (gif) encode(ctx context.Context, t *task, w *os.File) error {
	o := t.o
	n, done := t.count(), int64(0)
	matte := delivery.Matte(t.film)
	parts := t.byScene()
	palettes, err := choose(ctx, t, parts, matte)
	if err != nil {
		return err
	}
	if o.Dither == "" {
		looked, err := few(ctx, t, n)
		if err != nil {
			return err
		}
		o.Dither = palettes[0].Suits(looked, matte)
	}
	g := anim.NewGIF(w, o.Width, o.Height, palettes[0], t.timing(), n, o.Loss)
	g.Comment(o.Title)
	g.Comment(o.Description)
	changed := raster.NewRegion(o.Width, o.Height)
	for i := 0; i < len(parts); {
		palette, frames := palettes[i], parts[i]
		for i++; i < len(parts) && palettes[i] == palette; i++ {
			frames = append(frames, parts[i]...)
		}
		g.Switch(palette)
		drawing := func() press {
			pen := palette.Pen(o.Dither, matte)
			return func(to []byte, img *image.RGBA, tiles *raster.Region) {
				tiles.Each(func(box image.Rectangle) { pen.Draw(to, img, box) })
			}
		}
		err := render(ctx, t.film, t.pictures, o, slices.Values(frames), anim.Drawn*o.Width*o.Height, drawing, func(_ int64, p, before *plate) error {
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
	}
	return g.Close()
}

// byScene returns the frames that are made, scene by scene, each with the transition into it.
func (t *task) byScene() (parts [][]int64) {
	scenes := len(t.film.Doc.Film.Shown())
	last := -1
	for k := range t.frames() {
		at := t.o.From + 1000*k*t.o.RateDen/t.o.RateNum
		i, met := slices.BinarySearch(t.film.Order.Starts[:scenes], at)
		if !met {
			i--
		}
		if i != last {
			parts, last = append(parts, nil), i
		}
		parts[len(parts)-1] = append(parts[len(parts)-1], k)
	}
	return parts
}

// choose returns the palette of each part of the frames that are made.
func choose(ctx context.Context, t *task, parts [][]int64, matte paint.Colour) ([]*anim.Palette, error) {
	o, n := t.o, t.count()
	censuses := make([]anim.Census, len(parts))
	step := max(1, o.Width*o.Height/200000)
	for i, part := range parts {
		var samples []int64
		own := int64(len(part))
		some := max(min(own, 2), min(n, paletteSamples)*own/n)
		for j := range some {
			samples = append(samples, part[j*(own-1)/max(1, some-1)])
		}
		var mu sync.Mutex
		counting := func() press {
			return func(_ []byte, img *image.RGBA, _ *raster.Region) {
				mu.Lock()
				defer mu.Unlock()
				censuses[i].Add(img, matte, step)
			}
		}
		if err := render(ctx, t.film, t.pictures, o, slices.Values(samples), 0, counting, func(int64, *plate, *plate) error { return nil }); err != nil {
			return nil, err
		}
	}
	return anim.Palettes(censuses, cmp.Or(o.Colours, anim.MostColours)), nil
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
