package export

import (
	"context"
	"io"
	"os"

	"capstan/core/anim"
	"capstan/core/raster"
)

// webp makes animated WebP by ffmpeg, which gets each picture once, with the time at which it is first shown. How often it plays and how long its last
// frame rests is written into the file when it is made: ffmpeg leaves both to itself.
type webp struct{}

var webpFrames = video{encoder: "libwebp_anim", pixels: "BGRA", size: func(pixels int) int { return 4 * pixels }, press: raster.BGRATiles}

func (webp) able() error { return webpFrames.able() }

func (webp) encode(ctx context.Context, t *task, out *os.File) error {
	arguments := []string{
		"-hide_banner", "-loglevel", "error", "-nostdin", "-y", "-protocol_whitelist", "pipe,file", "-f", "matroska", "-i", "pipe:0", "-an",
		"-fps_mode", "passthrough", "-c:v", "libwebp_anim", "-pix_fmt", "bgra", "-quality", number(t.o), "-compression_level", "3", "-loop", "0", "-f", "webp", out.Name(),
	}
	timing, n := t.timing(), t.count()
	var to *timed
	k := int64(0)
	err := webpFrames.piped(ctx, t, arguments, func(w io.Writer, p, before *plate) (err error) {
		if to == nil {
			if to, err = newTimed(w, t.o.Width, t.o.Height, webpFrames.pixels); err != nil {
				return err
			}
		}
		if k++; p == before {
			return nil
		}
		return to.frame(timing.Begins(k-1, n), p.bytes)
	})
	if err != nil {
		return err
	}
	// ffmpeg has written by name: what is open here is the same file.
	info, err := out.Stat()
	if err != nil {
		return err
	}
	if s, err := anim.ScanWebP(out, info.Size()); err != nil || s.Frames == 1 {
		return err
	}
	return anim.TimeWebP(out, info.Size(), t.o.Passes, t.lasts())
}

// lasts is how long what goes round lasts, its rest at the end with it, in ms.
func (t *task) lasts() int64 {
	timing, n := t.timing(), t.count()
	return timing.Begins(n, n) + t.o.EndPause
}

func (webp) readBack(_ context.Context, t *task, file string) error {
	f, err := os.Open(file)
	if err != nil {
		return err
	}
	defer f.Close()
	info, err := f.Stat()
	if err != nil {
		return err
	}
	s, err := anim.ScanWebP(f, info.Size())
	if want := t.lasts(); err != nil || s.Width != t.o.Width || s.Height != t.o.Height || s.Frames > 1 && 10*s.Hundredths < want-10 {
		return wrong("%dx%d, %d frames, %d hundredths of %d ms, %v", s.Width, s.Height, s.Frames, s.Hundredths, want, err)
	}
	return nil
}
