package export

import (
	"context"
	"image"
	"image/png"
	"os"

	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/studio/budget"
)

// still makes a PNG of the frame at From, clear where the page is.
type still struct{}

func (still) able() error { return nil }

func (still) encode(ctx context.Context, t *task, out *os.File) error {
	o := t.o
	img := image.NewRGBA(image.Rect(0, 0, o.Width, o.Height))
	list := t.film.Player().At(motion.Millis(o.From), frame.View{Scale: float64(o.Width) / float64(t.film.Doc.Film.Width)})
	painter := raster.NewPainter(t.film, t.pictures)
	painter.Within(raster.Limits{Bytes: budget.RenderGroups, Stop: ctx.Err})
	if err := guarded(func() error { return painter.Paint(img, list) }); err != nil {
		return err
	}
	if err := png.Encode(out, img); err != nil {
		return err
	}
	t.progress(1, 1)
	return nil
}

func (still) readBack(_ context.Context, t *task, file string) error {
	f, err := os.Open(file)
	if err != nil {
		return err
	}
	defer f.Close()
	if c, err := png.DecodeConfig(f); err != nil || c.Width != t.o.Width || c.Height != t.o.Height {
		return wrong("%dx%d, %v", c.Width, c.Height, err)
	}
	return nil
}
