package export

import (
	"bytes"
	"context"
	"fmt"
	"os"
	"os/exec"
	"strings"
	"sync"

	"capstan/core/raster"
	"capstan/core/words"
)

// tail keeps the last bytes written to it.
type tail struct {
	mu  sync.Mutex
	buf []byte
}

func (t *tail) Write(p []byte) (int, error) {
	t.mu.Lock()
	defer t.mu.Unlock()
	t.buf = append(t.buf, p...)
	if n := len(t.buf) - 2000; n > 0 {
		t.buf = t.buf[n:]
	}
	return len(p), nil
}

func (t *tail) lastWords() string {
	t.mu.Lock()
	defer t.mu.Unlock()
	lines := strings.Split(strings.TrimSpace(string(bytes.ToValidUTF8(t.buf, nil))), "\n")
	return strings.TrimSpace(lines[len(lines)-1])
}

// VideoArguments are what ffmpeg is started with to encode raw frames (YUV 4:2:0, BT.709) from an input to a file.
func VideoArguments(o Options, input, out string) []string {
	return []string{
		"-hide_banner", "-loglevel", "error", "-nostdin", "-y", "-protocol_whitelist", "pipe,file",
		"-f", "rawvideo", "-pix_fmt", "yuv420p", "-s", fmt.Sprintf("%dx%d", o.Width, o.Height), "-r", fmt.Sprintf("%d/%d", o.RateNum, o.RateDen),
		"-color_range", "tv", "-colorspace", "bt709", "-color_primaries", "bt709", "-color_trc", "bt709",
		"-i", input, "-an",
		"-c:v", "libx264", "-preset", "veryfast", "-crf", "17", "-pix_fmt", "yuv420p",
		"-color_range", "tv", "-colorspace", "bt709", "-color_primaries", "bt709", "-color_trc", "bt709",
		"-movflags", "+faststart", "-f", "mp4", out,
	}
}

// mp4 makes H.264 by ffmpeg.
type mp4 struct{}

func (mp4) able() error { return Video() }

func (mp4) encode(ctx context.Context, t *task, out *os.File) error {
	o, asked := t.o, ctx
	ctx, stop := context.WithCancel(ctx)
	defer stop()
	cmd := exec.CommandContext(ctx, "ffmpeg", VideoArguments(o, "pipe:0", out.Name())...)
	last := &tail{}
	cmd.Stderr = last
	pipe, err := cmd.StdinPipe()
	if err != nil {
		return err
	}
	if err := cmd.Start(); err != nil {
		return words.Because(err, "export.start")
	}
	n := o.Frames(t.film)
	converting := func() press {
		return func(to []byte, c *raster.Canvas, tiles *raster.Region) { raster.YUVTiles(to, c.Image(), tiles) }
	}
	var piped error // ffmpeg takes no more; its own words say why
	err = render(ctx, t.film, t.pictures, o, count(n), o.Width*o.Height*3/2, converting, func(k int64, p, _ *plate) error {
		if _, piped = pipe.Write(p.bytes); piped != nil {
			return piped
		}
		t.progress(k+1, n)
		return nil
	})
	closed := pipe.Close()
	if err != nil {
		stop() // ffmpeg ends with it; what it wrote is removed by the caller
	}
	waited := cmd.Wait()
	switch {
	case asked.Err() != nil:
		return asked.Err() // cancelling ends ffmpeg first, so the error may be that of its pipe
	case err != nil && piped == nil:
		return err
	case err != nil || closed != nil || waited != nil:
		detail := firstOf(last.lastWords(), waited, err, closed)
		return translated(detail)
	}
	return nil
}

func (mp4) readBack(ctx context.Context, t *task, file string) error {
	out, err := exec.CommandContext(ctx, "ffprobe", "-v", "error", "-select_streams", "v:0", "-count_packets",
		"-show_entries", "stream=width,height,nb_read_packets", "-of", "csv=p=0", file).Output()
	if ctx.Err() != nil {
		return ctx.Err()
	}
	if want := fmt.Sprintf("%d,%d,%d", t.o.Width, t.o.Height, t.o.Frames(t.film)); err != nil || strings.TrimSpace(string(out)) != want {
		return wrong("%s instead of %s, %v", strings.TrimSpace(string(out)), want, err)
	}
	return nil
}

func firstOf(words string, errs ...error) string {
	if words != "" {
		return words
	}
	for _, err := range errs {
		if err != nil {
			return err.Error()
		}
	}
	return ""
}
