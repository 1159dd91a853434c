package export

import (
	"context"
	"image"
	"image/png"
	"io"

	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
)

// makePNG writes the frame at o.From, clear where the page is.
func makePNG(ctx context.Context, f *frame.Film, pictures raster.Pictures, o Options, w io.Writer, progress func(done, all int64)) error {
	img := image.NewRGBA(image.Rect(0, 0, o.Width, o.Height))
	list := f.Player().At(motion.Millis(o.From), frame.View{Scale: float64(o.Width) / float64(f.Doc.Film.Width)})
	painter := raster.NewPainter(f, pictures)
	painter.Within(raster.Limits{Bytes: maxSurfaces, Stop: ctx.Err})
	if err := guarded(func() error { return painter.Paint(img, list) }); err != nil {
		return err
	}
	if err := png.Encode(w, img); err != nil {
		return err
	}
	progress(1, 1)
	return nil
}
