package export

import (
	"bytes"
	"cmp"
	"context"
	"errors"
	"fmt"
	"image"
	"image/jpeg"
	"io"
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

// video makes files by ffmpeg, which gets raw frames as its encoder wants them.
type video struct {
	encoder string                                                 // as ffmpeg calls it
	pixels  string                                                 // as ffmpeg calls what it gets
	size    func(pixels int) int                                   // bytes of a frame
	press   func(to []byte, img *image.RGBA, tiles *raster.Region) // makes a frame
	how     func(o Options) []string                               // arguments of encoder and muxer
}

func planar(pixels int) int     { return pixels * 3 / 2 }
func withAlpha(pixels int) int  { return pixels * 5 / 2 }
func eightBytes(pixels int) int { return pixels * 8 }

// number is the quality as the encoder counts it; the best where the plan names none.
func number(o Options) string {
	return strconv.Itoa(cmp.Or(o.Quality, delivery.Formats[o.Format].Numbers[0]))
}

// tagged is video of BT.709.
var tagged = []string{"-color_range:v:0", "tv", "-colorspace:v:0", "bt709", "-color_primaries:v:0", "bt709", "-color_trc:v:0", "bt709"}

// vp9 is how VP9 is made: one pass at a constant quality (a second one would need all frames twice, for files a few hundredths smaller), its rows in
// parallel.
func vp9(o Options, pixels string) []string {
	return append([]string{"-c:v:0", "libvpx-vp9", "-crf", number(o), "-b:v", "0", "-deadline", "good", "-cpu-used", "5", "-row-mt", "1", "-tile-columns", "2", "-auto-alt-ref", auto(pixels), "-g", strconv.Itoa(keyEvery), "-pix_fmt:v:0", pixels}, tagged...)
}

// auto says whether VP9 may keep frames that are not shown, which it cannot together with alpha.
func auto(pixels string) string {
	if pixels == "yuva420p" {
		return "0"
	}
	return "1"
}

// The files that ffmpeg makes. Alpha is straight in all of them.
var (
	mp4 = video{encoder: "libx264", pixels: "yuv420p", size: planar, press: raster.YUVTiles, how: func(o Options) []string {
		return append(append([]string{"-c:v:0", "libx264", "-preset", "veryfast", "-crf", number(o), "-pix_fmt:v:0", "yuv420p"}, tagged...), "-movflags", "+faststart", "-f", "mp4")
	}}
	webm = video{encoder: "libvpx-vp9", pixels: "yuv420p", size: planar, press: raster.YUVTiles, how: func(o Options) []string {
		return append(vp9(o, "yuv420p"), "-f", "webm")
	}}
	webmClear = video{encoder: "libvpx-vp9", pixels: "yuva420p", size: withAlpha, press: raster.YUVATiles, how: func(o Options) []string {
		return append(vp9(o, "yuva420p"), "-f", "webm")
	}}
	av1 = video{encoder: "libsvtav1", pixels: "yuv420p", size: planar, press: raster.YUVTiles, how: func(o Options) []string {
		return append(append([]string{"-c:v:0", "libsvtav1", "-preset", "9", "-crf", number(o), "-g", strconv.Itoa(keyEvery), "-pix_fmt:v:0", "yuv420p"}, tagged...), "-f", "webm")
	}}
	proRes = video{encoder: "prores_ks", pixels: "yuva444p10le", size: eightBytes, press: raster.YUVA444P10Tiles, how: func(Options) []string {
		return append(append([]string{"-c:v:0", "prores_ks", "-profile:v", "4444", "-alpha_bits", "16", "-vendor", "apl0", "-pix_fmt:v:0", "yuva444p10le"}, tagged...), "-movflags", "+faststart", "-f", "mov")
	}}
)

// VideoArguments are what ffmpeg is started with to encode raw frames (YUV 4:2:0, BT.709) from an input to an MP4 file.
//
// cover is the file of a picture that stands for the video, or empty.
func VideoArguments(o Options, input, cover, out string) []string {
	o.Format = delivery.MP4
	return mp4.arguments(o, input, extras{cover: cover}, out)
}

// Raw is what ffmpeg gets of a film in a format that it encodes: how many bytes a frame has, what makes them, and the arguments by which it makes a file
// of them; false where it encodes no such files, or gets their times with them.
func Raw(o Options) (size int, make func(to []byte, img *image.RGBA, tiles *raster.Region), arguments func(input, out string) []string, ok bool) {
	v, ok := encoders[o.Format].(video)
	if !ok {
		return 0, nil, nil, false
	}
	return v.size(o.Width * o.Height), v.press, func(input, out string) []string { return v.arguments(o, input, extras{}, out) }, true
}

// extras are files beside the pictures of a video: a picture that stands for it, mixed sound, captions; empty: none.
type extras struct{ cover, heard, captions string }

// arguments are those of ffmpeg for pictures from an input.
func (v video) arguments(o Options, input string, and extras, out string) []string {
	list := []string{
		"-hide_banner", "-loglevel", "error", "-nostdin", "-y", "-protocol_whitelist", "pipe,file",
		"-f", "rawvideo", "-pix_fmt", v.pixels, "-s", fmt.Sprintf("%dx%d", o.Width, o.Height), "-r", fmt.Sprintf("%d/%d", o.RateNum, o.RateDen),
		"-color_range", "tv", "-colorspace", "bt709", "-color_primaries", "bt709", "-color_trc", "bt709",
		"-i", input,
	}
	list = append(append(list, v.beside(o, 1, and)...), "-metadata", "title="+o.Title, "-metadata", "comment="+o.Description)
	return append(append(list, v.how(o)...), out)
}

// beside are the inputs of what goes with the pictures of the first, from the number n on, and how they are taken.
func (v video) beside(o Options, n int, and extras) (list []string) {
	maps := []string{"-map", "0:v"}
	next := func(in ...string) string {
		list = append(list, in...)
		n++
		return strconv.Itoa(n - 1)
	}
	if and.cover != "" {
		maps = append(maps, "-map", next("-i", and.cover)+":v", "-c:v:1", "copy", "-disposition:v:1", "attached_pic")
	}
	if and.heard != "" {
		maps = append(append(maps, "-map", next(rawSound(and.heard)...)+":a"), tracks[delivery.Formats[o.Format].Track]...)
	} else {
		maps = append(maps, "-an")
	}
	if and.captions != "" {
		maps = append(maps, "-map", next("-f", "srt", "-i", and.captions)+":s", "-c:s", captionTracks[o.Format])
	}
	return append(list, maps...)
}

func (v video) able() error { return encodes(v.encoder) }

func (v video) encode(ctx context.Context, t *task, out *os.File) error {
	cover := ""
	if delivery.Formats[t.o.Format].Poster && t.o.Pictures == "" {
		var err error
		if cover, err = t.cover(ctx, out.Name()); err != nil {
			return err
		}
		defer os.Remove(cover)
	}
	heard, err := t.mixed(ctx, out.Name())
	if err != nil {
		return err
	}
	if heard != "" {
		defer os.Remove(heard)
	}
	captions, err := t.captioned(out.Name())
	if err != nil {
		return err
	}
	if captions != "" {
		defer os.Remove(captions)
	}
	if t.o.Pictures != "" {
		return v.resound(ctx, t, extras{"", heard, captions}, out.Name())
	}
	return v.piped(ctx, t, v.arguments(t.o, "pipe:0", extras{cover, heard, captions}, out.Name()), func(w io.Writer, p, _ *plate) error {
		_, err := w.Write(p.bytes)
		return err
	})
}

// piped renders frames into an ffmpeg that is started with arguments; each is written by write, with the one before.
func (v video) piped(ctx context.Context, t *task, arguments []string, write func(w io.Writer, p, before *plate) error) error {
	o, asked := t.o, ctx
	ctx, stop := context.WithCancel(ctx)
	defer stop()
	cmd := exec.CommandContext(ctx, "ffmpeg", arguments...)
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
	var piped error // ffmpeg takes no more; its own words say why
	err = render(ctx, t.film, t.pictures, o, t.frames(), v.size(o.Width*o.Height), func() press { return v.press }, func(_ int64, p, before *plate) error {
		if piped = write(pipe, p, before); piped != nil {
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

func (video) readBack(ctx context.Context, t *task, file string) error {
	out, err := exec.CommandContext(ctx, "ffprobe", "-v", "error", "-select_streams", "v:0", "-count_packets",
		"-show_entries", "stream=width,height,nb_read_packets", "-of", "csv=p=0", file).Output()
	if ctx.Err() != nil {
		return ctx.Err()
	}
	if want := fmt.Sprintf("%d,%d,%d", t.o.Width, t.o.Height, t.shows.Len()); err != nil || strings.TrimSpace(string(out)) != want {
		return wrong("%s instead of %s, %v", strings.TrimSpace(string(out)), want, err)
	}
	if t.heard() {
		return t.soundBack(ctx, file)
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
