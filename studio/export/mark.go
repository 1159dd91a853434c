package export

import (
	"image"
	"image/draw"

	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/studio/budget"
)

// markOf paints the mark that lies over a file, as large as a frame; nil where there is none.
func markOf(f *frame.Film, pictures raster.Pictures, o Options) (*image.RGBA, error) {
	if o.Mark == nil {
		return nil, nil
	}
	film, err := o.Mark.Film(f)
	if err != nil {
		return nil, err
	}
	img := image.NewRGBA(image.Rect(0, 0, o.Width, o.Height))
	list := film.Player().At(motion.Millis(0), frame.View{Scale: float64(o.Width) / float64(film.Doc.Film.Width)})
	painter := raster.NewPainter(film, pictures)
	painter.Within(raster.Limits{Bytes: budget.RenderGroups})
	return img, guarded(func() error { return painter.Paint(img, list) })
}

// overlay lays a mark over frames; the canvas they are painted on goes on without it.
type overlay struct {
	mark, out *image.RGBA
	box       image.Rectangle // outside of which the mark is clear
}

func newOverlay(mark *image.RGBA) *overlay {
	if mark == nil {
		return nil
	}
	v := &overlay{mark: mark, out: image.NewRGBA(mark.Rect)}
	for y := range mark.Rect.Dy() {
		for x := range mark.Rect.Dx() {
			if mark.Pix[mark.PixOffset(x, y)+3] > 0 {
				v.box = v.box.Union(image.Rect(x, y, x+1, y+1))
			}
		}
	}
	return v
}

// over returns a frame with the mark, until the next call; the frame itself where there is none.
func (v *overlay) over(img *image.RGBA) *image.RGBA {
	if v == nil {
		return img
	}
	copy(v.out.Pix, img.Pix)
	draw.Draw(v.out, v.box, v.mark, v.box.Min, draw.Over)
	return v.out
}
