package delivery

import (
	"fmt"
	"math"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
)

// A4 on its side, in points of 1/72 inch (ISO 216), which sheets are laid out in.
const (
	SheetWidth  = 842.0
	SheetHeight = 595.0
)

// Sheet is a page of all scenes, or a part of them: how each rests, with its name and how long it stays.
type Sheet struct {
	Width, Height float64
	Words         *frame.Film // what is written and drawn around the scenes, on a clear page of that size, in tenths of a point
	Cells         []SheetCell
}

// SheetCell is where a scene stands on a sheet, in points.
type SheetCell struct {
	Scene int
	Box   geom.Box
}

// sheetUnits are how many px of Sheet.Words a point has: pages are whole px.
const sheetUnits = 10

// Distances on a sheet, in points.
const (
	sheetMargin  = 36.0
	sheetGap     = 16.0
	sheetHeading = 34.0
	sheetUnder   = 26.0 // each scene, for its words
)

// grid is how scenes of a film stand on sheets: how many beside each other, how large each, and how many of these rows a sheet has.
func grid(f *frame.Film, long bool) (columns, rows int, w, h float64) {
	film := &f.Doc.Film
	ratio := float64(film.Width) / float64(film.Height)
	columns = 3
	switch {
	case ratio < 0.8:
		columns = 6
	case ratio < 1.25:
		columns = 4
	}
	w = (SheetWidth - 2*sheetMargin - sheetGap*float64(columns-1)) / float64(columns)
	h = w / ratio
	if most := SheetHeight - 2*sheetMargin - sheetHeading - sheetUnder; h > most {
		w, h = most*ratio, most
	}
	if long {
		return columns, (len(film.Shown()) + columns - 1) / columns, w, h
	}
	return columns, max(1, int((SheetHeight-2*sheetMargin-sheetHeading+sheetGap)/(h+sheetUnder+sheetGap))), w, h
}

// longSheet is how high a sheet is that has all scenes, in points.
func longSheet(f *frame.Film) float64 {
	_, rows, _, h := grid(f, true)
	return math.Ceil(2*sheetMargin + sheetHeading + float64(rows)*(h+sheetUnder+sheetGap) - sheetGap)
}

// Sheets lays out the scenes of a film: on pages of A4, or, where long is true, on one as high as it needs.
func Sheets(f *frame.Film, long bool) ([]Sheet, error) {
	const margin, gap, heading, under = sheetMargin, sheetGap, sheetHeading, sheetUnder
	shown := f.Doc.Film.Shown()
	columns, rows, w, h := grid(f, long)
	var list []Sheet
	each := rows * columns
	for first := 0; first < len(shown); first += each {
		part := shown[first:min(first+each, len(shown))]
		s := Sheet{Width: SheetWidth, Height: SheetHeight}
		if long {
			s.Height = longSheet(f)
		}
		p := doc.NewProject("sheet", "Sheet", int(s.Width*sheetUnits), int(s.Height*sheetUnits), "sheet")
		p.Film.Clear = true
		put := func(l *doc.Layer) {
			l.ID = fmt.Sprint("s", len(p.Film.Scenes[0].Layers))
			l.Thread, l.Name, l.Opacity = l.ID, l.ID, 1
			p.Film.Scenes[0].Layers = append(p.Film.Scenes[0].Layers, l)
		}
		write := func(text, align, colour string, x, y, size float64, weight int) {
			if text == "" {
				return
			}
			l := &doc.Layer{Kind: doc.TextKind, Fill: doc.Fill{Kind: doc.Solid, Colour: colour},
				Text: &doc.Text{Align: align, Runs: []doc.Run{{Text: text, Family: "Archivo", Weight: weight, Size: size * sheetUnits}}}}
			l.Place.X, l.Place.Y = x*sheetUnits, y*sheetUnits
			put(l)
		}
		pages := (len(shown) + each - 1) / each
		says := fmt.Sprintf("%d scenes, %s", len(shown), clock(f.Order.Length))
		if len(shown) == 1 {
			says = "1 scene, " + clock(f.Order.Length)
		}
		if pages > 1 {
			says += fmt.Sprintf(" · page %d of %d", first/each+1, pages)
		}
		write(fitting(f.Doc.Name, 60), doc.Left, "#1a2421", margin, margin-4, 15, 700)
		write(says, doc.Right, "#55625d", SheetWidth-margin, margin, 10, 400)
		for i := range part {
			at := geom.Point{X: margin + float64(i%columns)*(w+gap), Y: margin + heading + float64(i/columns)*(h+under+gap)}
			box := geom.Box{Min: at, Max: at.Add(geom.Point{X: w, Y: h})}
			s.Cells = append(s.Cells, SheetCell{first + i, box})
			line := &doc.Layer{Kind: doc.Rectangle, Fill: doc.Fill{Kind: doc.NoFill}, Stroke: &doc.Stroke{Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8ceba"}, Width: 0.75 * sheetUnits}}
			line.Place = doc.Place{X: box.Centre().X * sheetUnits, Y: box.Centre().Y * sheetUnits, W: w * sheetUnits, H: h * sheetUnits}
			put(line)
			long := clock(f.Order.Stays[first+i])
			write(fitting(fmt.Sprintf("%d  %s", first+i+1, part[i].Name), int((w-45)/4.6)), doc.Left, "#1a2421", at.X, at.Y+h+5, 8.5, 600)
			if into := f.Order.Into[first+i]; into > 0 {
				write(fmt.Sprintf("after %.1f s", float64(into)/1000), doc.Left, "#596660", at.X, at.Y+h+16, 7, 400)
			}
			write(long, doc.Right, "#55625d", at.X+w, at.Y+h+5, 8.5, 400)
		}
		var err error
		if s.Words, err = f.Beside(p); err != nil {
			return nil, err
		}
		list = append(list, s)
	}
	return list, nil
}

// clock is a length of film for people: 0:07.40.
func clock(ms int64) string {
	h := (ms + 5) / 10
	return fmt.Sprintf("%d:%02d.%02d", h/6000, h/100%60, h%100)
}

// fitting is a text of at most so many characters, cut where it has more.
func fitting(s string, most int) string {
	r := []rune(s)
	if len(r) <= most {
		return s
	}
	return string(r[:max(1, most-1)]) + "…"
}
