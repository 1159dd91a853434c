package export

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"fmt"
	"image"
	"image/jpeg"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"sync"

	"capstan/core/delivery"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/words"
	"capstan/studio/aside"
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
//
// cover is the file of a picture that stands for the video, or empty.
func VideoArguments(o Options, input, cover, out string) []string {
	list := []string{
		"-hide_banner", "-loglevel", "error", "-nostdin", "-y", "-protocol_whitelist", "pipe,file",
		"-f", "rawvideo", "-pix_fmt", "yuv420p", "-s", fmt.Sprintf("%dx%d", o.Width, o.Height), "-r", fmt.Sprintf("%d/%d", o.RateNum, o.RateDen),
		"-color_range", "tv", "-colorspace", "bt709", "-color_primaries", "bt709", "-color_trc", "bt709",
		"-i", input,
	}
	if cover != "" {
		list = append(list, "-i", cover, "-map", "0:v", "-map", "1:v", "-c:v:1", "copy", "-disposition:v:1", "attached_pic")
	}
	return append(list,
		"-an", "-c:v:0", "libx264", "-preset", "veryfast", "-crf", strconv.Itoa(cmp.Or(o.CRF, delivery.Qualities[0].CRF)), "-pix_fmt:v:0", "yuv420p",
		"-color_range:v:0", "tv", "-colorspace:v:0", "bt709", "-color_primaries:v:0", "bt709", "-color_trc:v:0", "bt709",
		"-metadata", "title="+o.Title, "-metadata", "comment="+o.Description,
		"-movflags", "+faststart", "-f", "mp4", out)
}

// mp4 makes H.264 by ffmpeg.
type mp4 struct{}

func (mp4) able() error { return Video() }

func (mp4) encode(ctx context.Context, t *task, out *os.File) error {
	o, asked := t.o, ctx
	ctx, stop := context.WithCancel(ctx)
	defer stop()
	cover, err := t.cover(ctx, out.Name())
	if err != nil {
		return err
	}
	defer os.Remove(cover)
	cmd := exec.CommandContext(ctx, "ffmpeg", VideoArguments(o, "pipe:0", cover, out.Name())...)
	last := &tail{}
	cmd.Stderr = last
	pipe, err := cmd.StdinPipe()
	if err != nil {
		return err
	}
	if err := cmd.Start(); err != nil {
		return words.Because(err, "export.start")
	}
	n, done := t.count(), int64(0)
	converting := func() press {
		return func(to []byte, img *image.RGBA, tiles *raster.Region) { raster.YUVTiles(to, img, tiles) }
	}
	var piped error // ffmpeg takes no more; its own words say why
	err = render(ctx, t.film, t.pictures, o, t.frames(), o.Width*o.Height*3/2, converting, func(_ int64, p, _ *plate) error {
		if _, piped = pipe.Write(p.bytes); piped != nil {
			return piped
		}
		done++
		t.progress(done, n)
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
	// It ends well, too, where it could not write the end of the file, and says so alone.
	if f := translated(last.lastWords()); f.Key == "export.full" {
		return f
	}
	return nil
}

// coverSide is the longer side of the picture that stands for a video, px.
const coverSide = 640

// cover writes the picture that stands for a video beside it, and returns its name.
func (t *task) cover(ctx context.Context, beside string) (name string, err error) {
	by := min(1, coverSide/float64(max(t.o.Width, t.o.Height)))
	img, err := t.paint(ctx, motion.Millis(t.o.Poster), max(1, int(float64(t.o.Width)*by)), max(1, int(float64(t.o.Height)*by)))
	if err != nil {
		return "", err
	}
	f, err := os.CreateTemp(filepath.Dir(beside), aside.Pattern+".jpg")
	if err != nil {
		return "", err
	}
	return f.Name(), errors.Join(jpeg.Encode(f, img, &jpeg.Options{Quality: jpegQuality}), f.Close())
}

func (mp4) readBack(ctx context.Context, t *task, file string) error {
	out, err := exec.CommandContext(ctx, "ffprobe", "-v", "error", "-select_streams", "v:0", "-count_packets",
		"-show_entries", "stream=width,height,nb_read_packets", "-of", "csv=p=0", file).Output()
	if ctx.Err() != nil {
		return ctx.Err()
	}
	if want := fmt.Sprintf("%d,%d,%d", t.o.Width, t.o.Height, t.shows.Len()); err != nil || strings.TrimSpace(string(out)) != want {
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
