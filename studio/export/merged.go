package export

import (
	"bytes"
	"context"
	"image"
	"image/png"
	"math"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/raster"
	"capstan/core/words"
	"capstan/studio/budget"
)

// MergedScale is how many pixels a page px has in a picture that layers are painted into.
const MergedScale = 2

// Merged paints some layers of scene i, at rest, on nothing, as a PNG of two pixels a page px (or as many as the largest picture
// has room for), cut to what shows. box is where the picture lies on the page, px.
func Merged(ctx context.Context, f *frame.Film, pictures raster.Pictures, i int, ids []string) (data []byte, box geom.Box, err error) {
	scale := float64(MergedScale)
	list, b := f.Player().Several(i, ids, frame.View{Scale: scale})
	if !(b.W() > 0 && b.H() > 0) {
		return nil, box, words.New("merge.nothing")
	}
	// What lies far outside of the page could ask for more memory than there is.
	page := geom.Box{Max: geom.Point{X: float64(f.Doc.Film.Width), Y: float64(f.Doc.Film.Height)}}
	b = b.Intersect(page.Grow(max(page.W(), page.H())))
	b = geom.Box{Min: geom.Point{X: math.Floor(b.Min.X), Y: math.Floor(b.Min.Y)}, Max: geom.Point{X: math.Ceil(b.Max.X), Y: math.Ceil(b.Max.Y)}}
	if b.Empty() {
		return nil, box, words.New("merge.nothing")
	}
	scale = min(scale, doc.MaxSide/max(b.W(), b.H()), math.Sqrt(maxMerged/(b.W()*b.H())))
	img := image.NewRGBA(image.Rect(0, 0, int(math.Floor(b.W()*scale)), int(math.Floor(b.H()*scale))))
	view := geom.Scale(scale, scale).Mul(geom.Translate(b.Min.Mul(-1)))
	painter := raster.NewPainter(f, pictures)
	painter.Within(raster.Limits{Bytes: budget.RenderGroups, Stop: ctx.Err})
	if err := painter.PaintView(img, list, view); err != nil {
		return nil, box, err
	}
	shows := shown(img)
	if shows.Empty() {
		return nil, box, words.New("merge.nothing")
	}
	var out bytes.Buffer
	if err := png.Encode(&out, img.SubImage(shows)); err != nil {
		return nil, box, err
	}
	at := func(p image.Point) geom.Point {
		return b.Min.Add(geom.Point{X: float64(p.X), Y: float64(p.Y)}.Mul(1 / scale))
	}
	return out.Bytes(), geom.Box{Min: at(shows.Min), Max: at(shows.Max)}, nil
}

// maxMerged is the most pixels a merged picture has.
const maxMerged = 40e6

// shown is the part of a picture that is not clear.
func shown(img *image.RGBA) image.Rectangle {
	r := image.Rectangle{}
	for y := range img.Rect.Dy() {
		row := img.Pix[y*img.Stride : y*img.Stride+4*img.Rect.Dx()]
		first, last := -1, -1
		for x := 3; x < len(row); x += 4 {
			if row[x] != 0 {
				if first < 0 {
					first = x / 4
				}
				last = x / 4
			}
		}
		if first >= 0 {
			r = r.Union(image.Rect(first, y, last+1, y+1))
		}
	}
	return r
}
