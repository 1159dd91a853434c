package export

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"image/jpeg"
	"image/png"
	"io"
	"os"
	"time"

	"capstan/core/delivery"
	"capstan/core/display"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/raster"
	"capstan/core/words"
	"capstan/studio/budget"

	"codeberg.org/go-pdf/fpdf"
)

// sheet makes a sheet of all scenes: one picture, or pages to print.
type sheet struct{ format string }

func (sheet) able() error { return nil }

func (s sheet) encode(ctx context.Context, t *task, out *os.File) error {
	sheets, err := delivery.Sheets(t.film, s.format == delivery.SheetPNG)
	if err != nil {
		return err
	}
	if s.format == delivery.SheetPNG {
		return t.drawSheet(ctx, &sheets[0], out)
	}
	return t.printSheets(ctx, sheets, out)
}

// scene paints how a scene rests, over what clear pages are laid on.
func (t *task) scene(ctx context.Context, painter *raster.Painter, player *frame.Player, i, w, h int) (*image.RGBA, error) {
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	img := image.NewRGBA(image.Rect(0, 0, max(1, w), max(1, h)))
	view := frame.View{Scale: float64(w) / float64(t.film.Doc.Film.Width), Under: delivery.Under(t.film, delivery.JPEG)}
	if err := guarded(func() error { return painter.Paint(img, player.AtRest(i, view)) }); err != nil {
		return nil, err
	}
	return img, nil
}

func (t *task) painter(ctx context.Context, f *frame.Film) *raster.Painter {
	p := raster.NewPainter(f, t.pictures)
	p.Within(raster.Limits{Bytes: budget.RenderGroups, Stop: ctx.Err})
	return p
}

// drawSheet paints a sheet as wide as asked for.
func (t *task) drawSheet(ctx context.Context, s *delivery.Sheet, out io.Writer) error {
	k := float64(t.o.Width) / s.Width
	page := image.NewRGBA(image.Rect(0, 0, t.o.Width, t.o.Height))
	draw.Draw(page, page.Rect, image.NewUniform(color.White), image.Point{}, draw.Src)
	painter, player := t.painter(ctx, t.film), t.film.Player()
	for n, c := range s.Cells {
		at := image.Rect(int(c.Box.Min.X*k+0.5), int(c.Box.Min.Y*k+0.5), int(c.Box.Max.X*k+0.5), int(c.Box.Max.Y*k+0.5))
		img, err := t.scene(ctx, painter, player, c.Scene, at.Dx(), at.Dy())
		if err != nil {
			return err
		}
		draw.Draw(page, at, img, image.Point{}, draw.Over)
		t.progress(int64(n+1), int64(len(s.Cells)))
	}
	around := image.NewRGBA(page.Rect)
	if err := t.painter(ctx, s.Words).Paint(around, s.Words.Player().AtRest(0, frame.View{Scale: float64(t.o.Width) / float64(s.Words.Doc.Film.Width)})); err != nil {
		return err
	}
	draw.Draw(page, page.Rect, around, image.Point{}, draw.Over)
	return png.Encode(out, page)
}

// fine is how many px of a printed scene come to a point: 216 an inch.
const fine = 3

// printSheets writes sheets as a PDF: scenes as pictures, words as outlines, so that any name can be printed.
func (t *task) printSheets(ctx context.Context, sheets []delivery.Sheet, out io.Writer) error {
	pdf := fpdf.New("L", "pt", "A4", "")
	pdf.SetTitle(firstWords(t.o.Title, t.film.Doc.Name), true)
	pdf.SetSubject(t.o.Description, true)
	pdf.SetCreator("Capstan", true)
	// The same film gives the same bytes.
	pdf.SetCreationDate(time.Unix(0, 0).UTC())
	pdf.SetModificationDate(time.Unix(0, 0).UTC())
	pdf.SetCatalogSort(true)
	pdf.SetAutoPageBreak(false, 0)
	painter, player := t.painter(ctx, t.film), t.film.Player()
	done := int64(0)
	for i := range sheets {
		s := &sheets[i]
		pdf.AddPage()
		for _, c := range s.Cells {
			// Each a px wider than the one before: fpdf writes pictures in the order of their widths, and those of one width in any.
			img, err := t.scene(ctx, painter, player, c.Scene, int(c.Box.W()*fine)+c.Scene, int(c.Box.H()*fine))
			if err != nil {
				return err
			}
			var b bytes.Buffer
			if err := jpeg.Encode(&b, img, &jpeg.Options{Quality: jpegQuality}); err != nil {
				return err
			}
			name := fmt.Sprint("scene", c.Scene)
			pdf.RegisterImageOptionsReader(name, fpdf.ImageOptions{ImageType: "jpg"}, &b)
			pdf.ImageOptions(name, c.Box.Min.X, c.Box.Min.Y, c.Box.W(), c.Box.H(), false, fpdf.ImageOptions{ImageType: "jpg"}, 0, "")
			done++
			t.progress(done, int64(len(t.film.Doc.Film.Shown())))
		}
		if err := printOutlines(pdf, s); err != nil {
			return err
		}
	}
	return pdf.Output(out)
}

func firstWords(list ...string) string {
	for _, s := range list {
		if s != "" {
			return s
		}
	}
	return ""
}

// printOutlines fills the outlines of what stands around the scenes: words and lines in one colour each.
func printOutlines(pdf *fpdf.Fpdf, s *delivery.Sheet) error {
	l := s.Words.Player().AtRest(0, frame.View{Scale: 1})
	k := s.Width / l.Width
	for c, n := 0, 0; c < len(l.Codes); {
		endC, endN, ok := display.Skip(l.Codes, l.Numbers, c, n)
		if !ok {
			return words.New("export.mistake", "a sheet's list breaks off")
		}
		if l.Codes[c] == display.OpFill {
			v := l.Numbers[n:endN]
			m := geom.Scale(k, k).Mul(geom.Matrix{A: v[0], B: v[1], C: v[2], D: v[3], E: v[4], F: v[5]})
			pdf.SetFillColor(int(v[6]*255+0.5), int(v[7]*255+0.5), int(v[8]*255+0.5))
			path := s.Words.Geometry.Path(l.Codes[c+1])
			i := 0
			for _, verb := range path.Verbs {
				var q [3]geom.Point
				for j := range geom.PointsOf[verb] {
					q[j] = m.Apply(path.Points[i+j])
				}
				i += geom.PointsOf[verb]
				switch verb {
				case geom.MoveTo:
					pdf.MoveTo(q[0].X, q[0].Y)
				case geom.LineTo:
					pdf.LineTo(q[0].X, q[0].Y)
				case geom.CubicTo:
					pdf.CurveBezierCubicTo(q[0].X, q[0].Y, q[1].X, q[1].Y, q[2].X, q[2].Y)
				case geom.Close:
					pdf.ClosePath()
				}
			}
			pdf.DrawPath("F")
		}
		c, n = endC, endN
	}
	return nil
}

func (s sheet) readBack(_ context.Context, t *task, file string) error {
	raw, err := os.ReadFile(file)
	if err != nil {
		return err
	}
	if s.format == delivery.SheetPDF {
		if !bytes.HasPrefix(raw, []byte("%PDF-")) || !bytes.Contains(raw[max(0, len(raw)-32):], []byte("%%EOF")) {
			return wrong("a PDF of %d bytes", len(raw))
		}
		return nil
	}
	if c, err := png.DecodeConfig(bytes.NewReader(raw)); err != nil || c.Width != t.o.Width || c.Height != t.o.Height {
		return wrong("%dx%d, %v", c.Width, c.Height, err)
	}
	return nil
}
