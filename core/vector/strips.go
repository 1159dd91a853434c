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
	"capstan/core/geom"
	"capstan/core/raster"
)

// Limits of a sheet of painted pictures, in px: browsers draw no larger ones.
const (
	sheetSide   = 8192
	sheetPixels = 12 << 20
)

// strip writes what SVG cannot say: it is painted for each frame and shown picture by picture, all of them on sheets that are pushed on behind a window.
func (w *writer) strip(b *strings.Builder, t *track) error {
	painter := raster.NewPainter(w.film, w.o.Pictures)
	painter.Within(raster.Limits{Stop: w.o.Stop})
	var pictures []*image.RGBA
	var at []float64
	var which []int
	known := map[string]int{}
	bounds := image.Rectangle{}
	for i := range t.reads {
		r := &t.reads[i]
		id := string(binary.AppendUvarint(nil, uint64(len(r.codes)))) + fmt.Sprint(r.codes, r.numbers)
		k, ok := known[id]
		if !ok {
			list := &display.List{Width: w.page().W(), Height: w.page().H(), Codes: r.codes, Numbers: r.numbers, Depth: 32}
			room := w.room(t.op, r)
			canvas := image.NewRGBA(image.Rectangle{Max: room.Size()})
			view := geom.Translate(geom.Point{X: -float64(room.Min.X), Y: -float64(room.Min.Y)}).Mul(geom.Scale(w.scale, w.scale))
			if err := painter.PaintView(canvas, list, view); err != nil {
				return err
			}
			box := painted(canvas)
			cut := image.NewRGBA(box.Add(room.Min))
			draw.Draw(cut, cut.Rect, canvas, box.Min, draw.Src)
			box = cut.Rect
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
			e.moves = append(e.moves, move{name, 1})
		}
		b.WriteString(`<g clip-path="url(#` + cut + `)">`)
		w.open(e, b, "image")
		b.WriteString("/></g>\n")
	}
	return nil
}

// room is the part of the page, in px of the piece, that something may be painted in: what holds others says so, pixels lie in a box of their own.
func (w *writer) room(op display.Op, r *reading) image.Rectangle {
	b := geom.Box{Min: geom.Point{X: r.numbers[0], Y: r.numbers[1]}, Max: geom.Point{X: r.numbers[0] + r.numbers[2], Y: r.numbers[1] + r.numbers[3]}}
	if op == display.OpTile {
		v := r.numbers[6:]
		b = matrixAt(0)(r).ApplyBox(geom.Box{Min: geom.Point{X: v[0], Y: v[1]}, Max: geom.Point{X: v[0] + v[2], Y: v[1] + v[3]}}.Grow(max(v[2], v[3]) / 8))
	}
	b = geom.Scale(w.scale, w.scale).ApplyBox(b).Grow(8)
	return image.Rect(int(math.Floor(b.Min.X)), int(math.Floor(b.Min.Y)), int(math.Ceil(b.Max.X)), int(math.Ceil(b.Max.Y))).Intersect(image.Rect(0, 0, w.o.Width, w.o.Height))
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
