package export

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"image"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"sync"

	"capstan/core/anim"
	"capstan/core/frame"
	"capstan/core/raster"
	"capstan/core/words"
	"capstan/studio/aside"
)

// Make renders a film into the file out. It is written aside and renamed: at any moment there is a whole file or none.
// progress is told the frames done so far.
func Make(ctx context.Context, f *frame.Film, pictures raster.Pictures, o Options, out string, progress func(done, all int64)) error {
	if err := o.Check(f); err != nil {
		return err
	}
	tmp, err := os.CreateTemp(filepath.Dir(out), aside.Pattern+"."+o.Format)
	if err != nil {
		return err
	}
	defer os.Remove(tmp.Name())
	defer tmp.Close()
	switch o.Format {
	case "gif":
		err = makeGIF(ctx, f, pictures, o, tmp, progress)
	case "mp4":
		err = makeMP4(ctx, f, pictures, o, tmp.Name(), progress)
	case "png":
		err = makePNG(ctx, f, pictures, o, tmp, progress)
	}
	if err != nil {
		return err
	}
	to := o.To
	if to == 0 {
		to = f.Order.Length
	}
	if err := readBack(ctx, tmp.Name(), o, o.Frames(f), to-o.From); err != nil {
		return err
	}
	if err := errors.Join(tmp.Sync(), tmp.Chmod(0o644)); err != nil {
		return err
	}
	return os.Rename(tmp.Name(), out)
}

// paletteSamples is how many frames, spread over the film, the palette is chosen from.
const paletteSamples = 24

func makeGIF(ctx context.Context, f *frame.Film, pictures raster.Pictures, o Options, w io.Writer, progress func(done, all int64)) error {
	o.RateNum, o.RateDen = anim.GIFRate(o.RateNum, o.RateDen)
	n := o.Frames(f)
	var samples []int64
	for i := int64(0); i < min(n, paletteSamples); i++ {
		samples = append(samples, i*(n-1)/max(1, min(n, paletteSamples)-1))
	}
	step := max(1, o.Width*o.Height/200000)
	var mu sync.Mutex
	var census anim.Census
	counting := func() press {
		return func(_ []byte, c *raster.Canvas, _ *raster.Region) {
			mu.Lock()
			defer mu.Unlock()
			census.Add(c.Image(), step)
		}
	}
	err := render(ctx, f, pictures, o, slices.Values(samples), 0, counting, func(int64, *plate, *plate) error { return nil })
	if err != nil {
		return err
	}
	to := o.To
	if to == 0 {
		to = f.Order.Length
	}
	palette := census.Palette(255)
	g := anim.NewGIF(w, o.Width, o.Height, palette, anim.Timing{
		RateNum: o.RateNum, RateDen: o.RateDen, Length: to - o.From, EndPause: o.EndPause, Once: o.Once,
	}, n)
	drawing := func() press {
		pen := palette.Pen()
		return func(to []byte, c *raster.Canvas, tiles *raster.Region) {
			tiles.Each(func(box image.Rectangle) { pen.Draw(to, c.Image(), box) })
		}
	}
	changed := raster.NewRegion(o.Width, o.Height)
	err = render(ctx, f, pictures, o, count(n), o.Width*o.Height, drawing, func(k int64, p, before *plate) error {
		box := image.Rect(0, 0, o.Width, o.Height)
		if before != nil {
			changed.Clear()
			if p != before {
				raster.Damage(changed, &before.shows, &p.shows)
			}
			box = changed.Bounds()
		}
		if err := g.Add(p.bytes, box); err != nil {
			return err
		}
		progress(k+1, n)
		return nil
	})
	if err != nil {
		return err
	}
	return g.Close()
}

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

func makeMP4(ctx context.Context, f *frame.Film, pictures raster.Pictures, o Options, out string, progress func(done, all int64)) error {
	if err := Video(); err != nil {
		return err
	}
	asked := ctx
	ctx, stop := context.WithCancel(ctx)
	defer stop()
	cmd := exec.CommandContext(ctx, "ffmpeg", VideoArguments(o, "pipe:0", out)...)
	last := &tail{}
	cmd.Stderr = last
	pipe, err := cmd.StdinPipe()
	if err != nil {
		return err
	}
	if err := cmd.Start(); err != nil {
		return words.Because(err, "export.start")
	}
	n := o.Frames(f)
	converting := func() press {
		return func(to []byte, c *raster.Canvas, tiles *raster.Region) { raster.YUVTiles(to, c.Image(), tiles) }
	}
	var piped error // ffmpeg takes no more; its own words say why
	err = render(ctx, f, pictures, o, count(n), o.Width*o.Height*3/2, converting, func(k int64, p, _ *plate) error {
		if _, piped = pipe.Write(p.bytes); piped != nil {
			return piped
		}
		progress(k+1, n)
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
