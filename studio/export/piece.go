package export

import (
	"bytes"
	"context"
	"encoding/base64"
	"encoding/xml"
	"errors"
	"fmt"
	"image"
	"image/jpeg"
	"image/png"
	"io"
	"os"

	"capstan/core/delivery"
	"capstan/core/raster"
	"capstan/core/state"
	"capstan/core/vector"
)

// piece makes web pieces: films that browsers play by themselves, as one animated SVG, or one page around it.
type piece struct{ format string }

// mostPiece is how large a web piece may become, in bytes: beyond it browsers take seconds to open it.
const mostPiece = 24 << 20

func (piece) able() error { return nil }

func (p piece) encode(ctx context.Context, t *task, out *os.File) error {
	made, err := t.piece(ctx)
	if err != nil {
		return err
	}
	_, err = io.WriteString(out, pieceText(made, t.o))
	return err
}

func pieceText(made *vector.Piece, o Options) string {
	if o.Format == delivery.HTML {
		return vector.Page(made, o.Title, o.Waits)
	}
	return made.SVG
}

// piece writes a film as SVG.
func (t *task) piece(ctx context.Context) (made *vector.Piece, err error) {
	mark, err := markOf(t.film, t.pictures, t.o)
	if err != nil {
		return nil, err
	}
	frames := t.count()
	says := t.o.Description
	if says == "" {
		says = t.o.Describe(t.film)
	}
	done := int64(0)
	o := vector.Options{
		Width: t.o.Width, Height: t.o.Height, From: t.o.From, To: t.o.Until(t.film), Rest: t.o.EndPause, Passes: t.o.Passes,
		Rate: t.o.RateNum, RateDen: t.o.RateDen, Still: t.o.Poster, Under: delivery.Under(t.film, t.o.Format), Title: t.o.Title, Says: says,
		Mark: mark, Pictures: t.pictures, MostBytes: mostPiece, Stop: ctx.Err,
		Progress: func(share float64) {
			if k := int64(share * float64(frames)); k > done {
				done = k
				t.progress(k, frames)
			}
		},
		PNG: pngAddress, Image: addresses(t.pictures, t.o.Quality),
	}
	err = guarded(func() (err error) {
		made, err = vector.Write(t.film, o)
		return err
	})
	if err == nil {
		t.progress(frames, frames)
	}
	return made, err
}

// pngAddress is pixels as a PNG at a data: address.
func pngAddress(img *image.RGBA) (string, error) {
	var b bytes.Buffer
	err := png.Encode(&b, img)
	return address("image/png", b.Bytes()), err
}

// addresses are pictures as data: addresses: JPEG of a quality where nothing lets through what is under it, else PNG.
func addresses(pictures raster.Pictures, quality int) func(media string, mip int, colours *state.Colours) (string, error) {
	known := map[string]string{}
	return func(media string, mip int, colours *state.Colours) (string, error) {
		id := fmt.Sprint(media, mip, colours)
		if data, ok := known[id]; ok {
			return data, nil
		}
		img, err := pictures(media, mip)
		if err != nil {
			return "", err
		}
		if colours != nil {
			img = raster.Mapped(img, colours)
		}
		if !img.Opaque() {
			known[id], err = pngAddress(img)
			return known[id], err
		}
		var b bytes.Buffer
		err = jpeg.Encode(&b, img, &jpeg.Options{Quality: quality})
		known[id] = address("image/jpeg", b.Bytes())
		return known[id], err
	}
}

// address is a picture as a data: address (RFC 2397).
func address(kind string, data []byte) string {
	return "data:" + kind + ";base64," + base64.StdEncoding.EncodeToString(data)
}

// readBack reads the SVG as XML, and of a page that it is whole.
func (p piece) readBack(_ context.Context, t *task, file string) error {
	raw, err := os.ReadFile(file)
	if err != nil {
		return err
	}
	if p.format == delivery.HTML {
		from, to := bytes.Index(raw, []byte("<svg")), bytes.LastIndex(raw, []byte("</svg>"))
		if from < 0 || to < from || !bytes.HasSuffix(raw, []byte("</html>\n")) {
			return wrong("a page of %d bytes", len(raw))
		}
		raw = raw[from : to+len("</svg>")]
	}
	d := xml.NewDecoder(bytes.NewReader(raw))
	var width, height string
	for {
		token, err := d.Token()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return wrong("%v", err)
		}
		if e, ok := token.(xml.StartElement); ok && e.Name.Local == "svg" {
			for _, a := range e.Attr {
				switch a.Name.Local {
				case "width":
					width = a.Value
				case "height":
					height = a.Value
				}
			}
		}
	}
	if width != fmt.Sprint(t.o.Width) || height != fmt.Sprint(t.o.Height) {
		return wrong("%sx%s", width, height)
	}
	return nil
}
