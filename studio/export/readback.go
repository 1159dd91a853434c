package export

import (
	"context"
	"fmt"
	"image/png"
	"os"
	"os/exec"
	"strings"

	"capstan/core/anim"
	"capstan/core/delivery"
	"capstan/core/words"
)

// readBack holds a file that was made to what it should be: whole, of its size, with its frames, as long as it was to be.
func readBack(ctx context.Context, file string, o Options, frames, ms int64) error {
	wrong := func(how string, args ...any) error {
		f := words.New("export.wrong")
		f.Detail = fmt.Sprintf(how, args...)
		return f
	}
	f, err := os.Open(file)
	if err != nil {
		return err
	}
	defer f.Close()
	switch o.Format {
	case delivery.PNG:
		c, err := png.DecodeConfig(f)
		if err != nil || c.Width != o.Width || c.Height != o.Height {
			return wrong("%dx%d, %v", c.Width, c.Height, err)
		}
	case delivery.GIF:
		s, err := anim.Scan(f)
		if want := (ms+5)/10 + (o.EndPause+5)/10; err != nil || s.Width != o.Width || s.Height != o.Height || s.Frames < 1 || s.Hundredths < want {
			return wrong("%dx%d, %d frames, %d of %d hundredths, %v", s.Width, s.Height, s.Frames, s.Hundredths, want, err)
		}
	case delivery.MP4:
		out, err := exec.CommandContext(ctx, "ffprobe", "-v", "error", "-select_streams", "v:0", "-count_packets",
			"-show_entries", "stream=width,height,nb_read_packets", "-of", "csv=p=0", file).Output()
		if ctx.Err() != nil {
			return ctx.Err()
		}
		if want := fmt.Sprintf("%d,%d,%d", o.Width, o.Height, frames); err != nil || strings.TrimSpace(string(out)) != want {
			return wrong("%s instead of %s, %v", strings.TrimSpace(string(out)), want, err)
		}
	}
	return nil
}
