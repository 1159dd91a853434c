package export

import (
	"context"
	"image"
	"os"

	"capstan/core/anim"
	"capstan/core/raster"
)

// apng makes animated PNGs: exact, and clear where the page is.
type apng struct{}

func (apng) able() error { return nil }

func (apng) encode(ctx context.Context, t *task, w *os.File) error {
	o := t.o
	n, done := t.count(), int64(0)
	g := anim.NewAPNG(w, o.Width, o.Height, t.timing(), n)
	g.Texts(o.Title, o.Description)
	changed := raster.NewRegion(o.Width, o.Height)
	err := render(ctx, t.film, t.pictures, o, t.frames(), 4*o.Width*o.Height, copying(o), func(_ int64, p, before *plate) error {
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

// copying puts frames onto plates as they are.
func copying(o Options) func() press {
	return func() press {
		return func(to []byte, img *image.RGBA, tiles *raster.Region) {
			tiles.Each(func(box image.Rectangle) {
				for y := box.Min.Y; y < box.Max.Y; y++ {
					at := img.PixOffset(box.Min.X, y)
					copy(to[4*(y*o.Width+box.Min.X):], img.Pix[at:at+4*box.Dx()])
				}
			})
		}
	}
}

func (apng) readBack(_ context.Context, t *task, file string) error {
	f, err := os.Open(file)
	if err != nil {
		return err
	}
	defer f.Close()
	s, err := anim.ScanAPNG(f)
	if want := t.shows.Length() + t.o.EndPause; err != nil || s.Width != t.o.Width || s.Height != t.o.Height || s.Frames < 1 || 10*s.Hundredths < want-10 {
		return wrong("%dx%d, %d frames, %d hundredths of %d ms, %v", s.Width, s.Height, s.Frames, s.Hundredths, want, err)
	}
	return nil
}
