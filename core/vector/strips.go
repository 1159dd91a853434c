package vector

import (
	"encoding/binary"
	"fmt"
	"image"
	"image/draw"
	"math"
	"slices"
	"strings"

	"capstan/core/display"
	"capstan/core/raster"
)

// Limits of a sheet of painted pictures, in px: browsers draw no larger ones.
const (
	sheetSide   = 8192
	sheetPixels = 12 << 20
)

// strip writes what SVG cannot say: it is painted for each frame and shown picture by picture, all of them on sheets that are pushed on behind a window.
func (w *writer) strip(b *strings.Builder, t *track) error {
	size := image.Rect(0, 0, w.o.Width, w.o.Height)
	painter := raster.NewPainter(w.film, w.o.Pictures)
	painter.Within(raster.Limits{Stop: w.o.Stop})
	var pictures []*image.RGBA
	var at []float64
	var which []int
	known := map[string]int{}
	canvas := image.NewRGBA(size)
	bounds := image.Rectangle{}
	for i := range t.reads {
		r := &t.reads[i]
		id := string(binary.AppendUvarint(nil, uint64(len(r.codes)))) + fmt.Sprint(r.codes, r.numbers)
		k, ok := known[id]
		if !ok {
			list := &display.List{Width: w.page().W(), Height: w.page().H(), Codes: r.codes, Numbers: r.numbers, Depth: 32}
			clear(canvas.Pix)
			if err := painter.Paint(canvas, list); err != nil {
				return err
			}
			box := painted(canvas)
			cut := image.NewRGBA(box)
			draw.Draw(cut, box, canvas, box.Min, draw.Src)
			k = len(pictures)
			known[id] = k
			pictures = append(pictures, cut)
			bounds = bounds.Union(box)
			if err := w.goes(0.5); err != nil {
				return err
			}
		}
		if n := len(which); n > 0 && which[n-1] == k {
			continue
		}
		at, which = append(at, r.at), append(which, k)
	}
	if bounds.Empty() {
		return nil
	}
	// As many of one sheet as it holds.
	across := max(1, sheetSide/bounds.Dx())
	most := max(1, min(across*max(1, sheetSide/bounds.Dy()), sheetPixels/(bounds.Dx()*bounds.Dy())))
	unit := 1 / w.scale
	cut := w.define(fmt.Sprintf(`<clipPath id="%%s"><rect x="%s" y="%s" width="%s" height="%s"/></clipPath>`,
		decimal(float64(bounds.Min.X)*unit, 3), decimal(float64(bounds.Min.Y)*unit, 3), decimal(float64(bounds.Dx())*unit, 3), decimal(float64(bounds.Dy())*unit, 3)))
	for first := 0; first < len(pictures); first += most {
		count := min(most, len(pictures)-first)
		columns := min(across, count)
		sheet := image.NewRGBA(image.Rect(0, 0, columns*bounds.Dx(), (count+columns-1)/columns*bounds.Dy()))
		place := func(k int) image.Point { return image.Pt(k%columns*bounds.Dx(), k/columns*bounds.Dy()) }
		for k := range count {
			p := pictures[first+k]
			draw.Draw(sheet, p.Rect.Sub(bounds.Min).Add(place(k)), p, p.Rect.Min, draw.Src)
		}
		data, err := w.o.PNG(sheet)
		if err != nil {
			return err
		}
		w.weights.Painted += len(data)
		var when []float64
		var says []string
		var spans []span
		base := ""
		for i, k := range which {
			if k < first || k >= first+count {
				continue
			}
			to := math.Inf(1)
			if i+1 < len(which) {
				to = at[i+1]
			}
			for _, s := range t.spans {
				if s.from, s.to = max(s.from, at[i]), min(s.to, to); s.to > s.from {
					if n := len(spans); n > 0 && spans[n-1].to == s.from {
						spans[n-1].to = s.to
					} else {
						spans = append(spans, s)
					}
				}
			}
			q := place(k - first)
			when = append(when, at[i])
			says = append(says, fmt.Sprintf("translate(%spx,%spx)", decimal(float64(bounds.Min.X-q.X)*unit, 3), decimal(float64(bounds.Min.Y-q.Y)*unit, 3)))
			if at[i] <= float64(w.o.Still) || base == "" {
				base = says[len(says)-1]
			}
		}
		e := &element{}
		e.set("width", decimal(float64(sheet.Rect.Dx())*unit, 3))
		e.set("height", decimal(float64(sheet.Rect.Dy())*unit, 3))
		e.set("preserveAspectRatio", "none")
		e.set("href", data)
		w.visible(e, slices.Clone(spans))
		e.style = append(e.style, "transform:"+base)
		if name := w.stepped("transform", when, says); name != "" {
			e.moves = append(e.moves, name)
		}
		b.WriteString(`<g clip-path="url(#` + cut + `)">`)
		e.open(b, "image")
		b.WriteString("/></g>\n")
	}
	return nil
}

// painted is the box of what is not clear.
func painted(img *image.RGBA) image.Rectangle {
	box := image.Rectangle{}
	for y := img.Rect.Min.Y; y < img.Rect.Max.Y; y++ {
		row := img.Pix[img.PixOffset(0, y) : img.PixOffset(img.Rect.Max.X-1, y)+4]
		from, to := -1, 0
		for x := 3; x < len(row); x += 4 {
			if row[x] != 0 {
				if from < 0 {
					from = x / 4
				}
				to = x/4 + 1
			}
		}
		if from >= 0 {
			box = box.Union(image.Rect(from, y, to, y+1))
		}
	}
	return box
}
