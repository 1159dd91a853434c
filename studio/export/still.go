package export

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/jpeg"
	"image/png"
	"io"
	"os"
	"os/exec"

	"capstan/core/anim"
	"capstan/core/delivery"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/studio/budget"

	webpread "github.com/kovidgoyal/imaging/webp"
)

// still makes a picture of the frame at From: a PNG, clear where the page is, or a JPEG.
type still struct{ format string }

// jpegQuality keeps what is painted within what is seen (common practice).
const jpegQuality = 92

func (s still) able() error {
	if s.format == delivery.WebPStill {
		return encodes("libwebp")
	}
	return nil
}

func (s still) encode(ctx context.Context, t *task, out *os.File) error {
	img, err := t.paint(ctx, motion.Millis(t.o.From), t.o.Width, t.o.Height)
	if err != nil {
		return err
	}
	switch s.format {
	case delivery.JPEG:
		if err := jpeg.Encode(out, img, &jpeg.Options{Quality: jpegQuality}); err != nil {
			return err
		}
	case delivery.WebPStill:
		if err := writeWebP(ctx, t.o, img, out); err != nil {
			return err
		}
	default:
		var b bytes.Buffer
		if err := png.Encode(&b, img); err != nil {
			return err
		}
		// Texts come behind the header, which is the first chunk and has 13 bytes (PNG, third edition, section 5.6).
		const head = 8 + 12 + 13
		raw := b.Bytes()
		for _, part := range [][]byte{raw[:head], anim.Texts(t.o.Title, t.o.Description), raw[head:]} {
			if _, err := out.Write(part); err != nil {
				return err
			}
		}
	}
	t.progress(1, 1)
	return nil
}

// writeWebP lets ffmpeg make a WebP of a picture.
func writeWebP(ctx context.Context, o Options, img *image.RGBA, out *os.File) error {
	tiles, pixels := raster.NewRegion(o.Width, o.Height), make([]byte, 4*o.Width*o.Height)
	tiles.All()
	raster.BGRATiles(pixels, img, tiles)
	cmd := exec.CommandContext(ctx, "ffmpeg", "-hide_banner", "-loglevel", "error", "-y", "-protocol_whitelist", "pipe,file",
		"-f", "rawvideo", "-pix_fmt", "bgra", "-s", fmt.Sprintf("%dx%d", o.Width, o.Height), "-i", "pipe:0",
		"-frames:v", "1", "-c:v", "libwebp", "-pix_fmt", "bgra", "-quality", number(o), "-f", "webp", out.Name())
	last := &tail{}
	cmd.Stdin, cmd.Stderr = bytes.NewReader(pixels), last
	if err := cmd.Run(); err != nil {
		if ctx.Err() != nil {
			return ctx.Err()
		}
		return translated(firstOf(last.lastWords(), err))
	}
	return nil
}

// paint paints the frame at a time of the film, or the scene that the file shows.
func (t *task) paint(ctx context.Context, at motion.Instant, width, height int) (*image.RGBA, error) {
	img := image.NewRGBA(image.Rect(0, 0, width, height))
	view := frame.View{Scale: float64(width) / float64(t.film.Doc.Film.Width), Under: delivery.Under(t.film, t.o.Format)}
	var list *frame.List
	if t.o.Scene > 0 {
		list = t.film.Player().AtRest(t.o.Scene-1, view)
	} else {
		list = t.film.Player().At(at, view)
	}
	painter := raster.NewPainter(t.film, t.pictures)
	painter.Within(raster.Limits{Bytes: budget.RenderGroups, Stop: ctx.Err})
	if err := guarded(func() error { return painter.Paint(img, list) }); err != nil {
		return nil, err
	}
	o := t.o
	o.Width, o.Height = width, height
	mark, err := markOf(t.film, t.pictures, o)
	if err != nil {
		return nil, err
	}
	return newOverlay(mark).over(img), nil
}

func (s still) readBack(_ context.Context, t *task, file string) error {
	f, err := os.Open(file)
	if err != nil {
		return err
	}
	defer f.Close()
	config := func(r io.Reader) (image.Config, string, error) { return image.DecodeConfig(r) }
	if s.format == delivery.WebPStill {
		config = func(r io.Reader) (image.Config, string, error) {
			c, err := webpread.DecodeConfig(r)
			return c, "", err
		}
	}
	if c, _, err := config(f); err != nil || c.Width != t.o.Width || c.Height != t.o.Height {
		return wrong("%dx%d, %v", c.Width, c.Height, err)
	}
	return nil
}
