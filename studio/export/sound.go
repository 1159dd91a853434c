package export

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"image"
	"io"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"unsafe"

	"capstan/core/delivery"
	"capstan/core/frame"
	"capstan/core/sound"
	"capstan/core/words"
	"capstan/studio/aside"
	"capstan/studio/media"
)

// Files are what a film shows, and what is heard of it: a folder of media.
type Files interface {
	Pixels(name string, mip int) (*image.RGBA, error)
	Recordings() *media.Recordings
}

// Loudness measures what is heard of a film, before it is brought to a loudness. It gives up when ctx ends.
func Loudness(ctx context.Context, f *frame.Film, files Files) (sound.Measured, error) {
	in := files.Recordings()
	m, err := sound.Measure(sound.Of(f), in, func(int64) error { return ctx.Err() })
	return m, errors.Join(err, in.Close())
}

// heard reports whether a file has a track of sound.
func (t *task) heard() bool { return t.files != nil && sounds(t.film, t.o) }

func sounds(f *frame.Film, o Options) bool {
	return delivery.Formats[o.Format].Track != "" && !o.Silent && len(o.Times) == 0 && f.Doc.Film.Sounding()
}

// trackBytes is how many bytes a file’s track of sound takes: its bits a second are given.
func trackBytes(f *frame.Film, o Options) int64 {
	if !sounds(f, o) {
		return 0
	}
	bits := map[string]int64{delivery.AAC: 192_000, delivery.Opus: 160_000, delivery.PCM: 2 * 24 * sound.Rate, delivery.MPEG: 192_000}
	return bits[delivery.Formats[o.Format].Track] * o.Sequence(f).Len() * o.RateDen / o.RateNum / 8
}

// soundFrames is how many frames of sound go with so many pictures.
func (t *task) soundFrames() int64 {
	return int64(math.Round(float64(t.shows.Len()) * float64(t.o.RateDen) * sound.Rate / float64(t.o.RateNum)))
}

// mixed writes what is heard of a file beside it, as floats of 32 bits, and returns its name; empty where nothing is. It is as long as the pictures are.
func (t *task) mixed(ctx context.Context, beside string) (name string, err error) {
	if !t.heard() {
		return "", nil
	}
	f, err := os.CreateTemp(filepath.Dir(beside), aside.Pattern+".f32")
	if err != nil {
		return "", err
	}
	w := bufio.NewWriterSize(f, 1<<20)
	err = errors.Join(t.mix(ctx, w, t.soundFrames()), w.Flush(), f.Close())
	if err != nil {
		os.Remove(f.Name())
		return "", err
	}
	return f.Name(), nil
}

// mix writes so many frames of what is heard from where the file begins.
func (t *task) mix(ctx context.Context, w io.Writer, frames int64) error {
	score := sound.Of(t.film)
	if to := t.film.Doc.Film.Mixed().Loudness; to != 0 {
		m, err := Loudness(ctx, t.film, t.files)
		if err != nil {
			return err
		}
		score.Level = m.To(to)
	}
	in := t.files.Recordings()
	m := &sound.Mixer{Score: score, Source: in}
	buf := make([]float32, 2*sound.Rate/4)
	from := sound.Frames(t.o.From)
	for done := int64(0); done < frames; {
		if err := ctx.Err(); err != nil {
			return errors.Join(err, in.Close())
		}
		part := buf[:2*min(int64(len(buf)/2), frames-done)]
		if !m.Mix(from+done, part) {
			name := "?"
			if known := t.film.Doc.Media[m.Missed[0]]; known != nil {
				name = known.Name
			}
			return errors.Join(words.New("export.sound-gone", name), in.Close())
		}
		if _, err := w.Write(unsafe.Slice((*byte)(unsafe.Pointer(&part[0])), 4*len(part))); err != nil {
			return errors.Join(err, in.Close())
		}
		done += int64(len(part) / 2)
	}
	return in.Close()
}

// tracks are the arguments by which ffmpeg encodes a track of sound, by how that is done.
var tracks = map[string][]string{
	delivery.AAC:  {"-c:a", "aac", "-b:a", "192k"},
	delivery.Opus: {"-c:a", "libopus", "-b:a", "160k"},
	delivery.PCM:  {"-c:a", "pcm_s24le"},
	delivery.MPEG: {"-c:a", "libmp3lame", "-b:a", "192k"},
}

// rawSound is an input of ffmpeg with mixed sound.
func rawSound(file string) []string {
	return []string{"-f", "f32le", "-ar", strconv.Itoa(sound.Rate), "-ac", "2", "-i", file}
}

// soundAlone makes files of what is heard, without pictures.
type soundAlone struct{ encoder, muxer string }

func (s soundAlone) able() error { return encodes(s.encoder) }

func (s soundAlone) encode(ctx context.Context, t *task, out *os.File) error {
	if !t.heard() {
		return words.New("export.silent")
	}
	file, err := t.mixed(ctx, out.Name())
	if err != nil {
		return err
	}
	defer os.Remove(file)
	t.progress(0, t.shows.Len())
	arguments := append([]string{"-hide_banner", "-loglevel", "error", "-nostdin", "-y", "-protocol_whitelist", "pipe,file"}, rawSound(file)...)
	arguments = append(append(arguments, "-metadata", "title="+t.o.Title, "-metadata", "comment="+t.o.Description), tracks[delivery.Formats[t.o.Format].Track]...)
	cmd := exec.CommandContext(ctx, "ffmpeg", append(arguments, "-f", s.muxer, out.Name())...)
	last := &tail{}
	cmd.Stderr = last
	err = cmd.Run()
	switch {
	case ctx.Err() != nil:
		return ctx.Err()
	case err != nil:
		return translated(firstOf(last.lastWords(), err))
	}
	t.progress(t.shows.Len(), t.shows.Len())
	return nil
}

func (soundAlone) readBack(ctx context.Context, t *task, file string) error {
	return t.soundBack(ctx, file)
}

// soundBack holds the track of sound of a file to how long it should be.
func (t *task) soundBack(ctx context.Context, file string) error {
	out, err := exec.CommandContext(ctx, "ffprobe", "-v", "error", "-select_streams", "a:0", "-show_entries", "stream=channels:format=duration", "-of", "default=nw=1", file).Output()
	if ctx.Err() != nil {
		return ctx.Err()
	}
	var channels int
	var lasts float64
	for _, line := range strings.Fields(string(out)) {
		_, _ = fmt.Sscanf(line, "channels=%d", &channels)
		_, _ = fmt.Sscanf(line, "duration=%f", &lasts)
	}
	if want := float64(t.soundFrames()) / sound.Rate; err != nil || channels != 2 || math.Abs(lasts-want) > 0.15 {
		return wrong("%d channels, %.2f s instead of %.2f, %v", channels, lasts, want, err)
	}
	return nil
}
