package export

import (
	"context"
	"errors"
	"fmt"
	"iter"
	"os"
	"path/filepath"

	"capstan/core/anim"
	"capstan/core/delivery"
	"capstan/core/frame"
	"capstan/core/raster"
	"capstan/core/sound"
	"capstan/core/words"
	"capstan/studio/aside"
)

// task is a film being made into a file.
type task struct {
	film     *frame.Film
	pictures raster.Pictures
	files    Files // nil: nothing is heard
	o        Options
	progress func(done, all int64)
	shows    delivery.Sequence
	some     []int64 // which of what it shows is made; nil: all
}

// count returns how many frames are made.
func (t *task) count() int64 {
	if t.some != nil {
		return int64(len(t.some))
	}
	return t.shows.Len()
}

// frame returns which frame of the film is the k-th that is made.
func (t *task) frame(k int64) int64 {
	if t.some != nil {
		k = t.some[k]
	}
	return t.shows.Frame(k)
}

// frames are those that are made, in order.
func (t *task) frames() iter.Seq[int64] {
	return func(yield func(int64) bool) {
		for k := int64(0); k < t.count() && yield(t.frame(k)); k++ {
		}
	}
}

// timing is how long the frames of what goes round are shown.
func (t *task) timing() anim.Timing {
	v := anim.Timing{RateNum: t.o.RateNum, RateDen: t.o.RateDen, Length: t.shows.Length(), EndPause: t.o.EndPause, Passes: t.o.Passes}
	if t.some == nil {
		v.Ends = t.shows.Ends()
	}
	return v
}

// encoder makes files of one format.
type encoder interface {
	// able returns why this machine cannot make such files, as a *words.Fault, or nil.
	able() error
	// encode renders the film into a file.
	encode(ctx context.Context, t *task, out *os.File) error
	// readBack holds a file that was made to what it should be: whole, of its size, with its frames, as long as it was to be.
	readBack(ctx context.Context, t *task, file string) error
}

// encoders are the formats' files: one of each in delivery.Formats.
var encoders = map[string]encoder{
	delivery.MP4: mp4, delivery.WebM: webm, delivery.AV1: av1, delivery.Clear: webmClear, delivery.ProRes: proRes,
	delivery.GIF: gif{}, delivery.APNG: apng{}, delivery.WebP: webp{}, delivery.Frames: frames{},
	delivery.SVG: piece{delivery.SVG}, delivery.HTML: piece{delivery.HTML}, delivery.SheetPDF: sheet{delivery.SheetPDF}, delivery.SheetPNG: sheet{delivery.SheetPNG},
	delivery.WAV: soundAlone{"pcm_s24le", "wav"}, delivery.MP3: soundAlone{"libmp3lame", "mp3"},
	delivery.SRT: captionFile{sound.SRT}, delivery.VTT: captionFile{sound.VTT},
	delivery.PNG: still{delivery.PNG}, delivery.JPEG: still{delivery.JPEG}, delivery.WebPStill: still{delivery.WebPStill},
}

// Able returns why this machine cannot make files of a format, as a *words.Fault, or nil.
func Able(format string) error {
	if e := encoders[format]; e != nil {
		return e.able()
	}
	return words.New("export.format", format)
}

// Make renders a film into the file out. It is written aside, read back and renamed: at any moment there is a whole file or none.
// progress is told the frames done so far.
func Make(ctx context.Context, f *frame.Film, files Files, o Options, out string, progress func(done, all int64)) error {
	_, err := MakeWithin(ctx, f, files, o, out, progress, func(string, int64) {})
	return err
}

// MakeWithin is Make, and tells what was tried for a target. It returns the plan by which the file was made.
func MakeWithin(ctx context.Context, f *frame.Film, files Files, o Options, out string, progress func(done, all int64), tried Tried) (Options, error) {
	if err := o.Check(f); err != nil {
		return o, err
	}
	if err := Able(o.Format); err != nil {
		return o, err
	}
	if o.Target > 0 && delivery.Formats[o.Format].Rests {
		return makeWithin(ctx, f, files, o, out, progress, tried)
	}
	file, err := makeAside(ctx, f, files, o, out, progress)
	if err != nil {
		return o, err
	}
	return o, os.Rename(file, out)
}

// makeAside makes a whole file beside out and returns its name. Where it fails nothing is left.
func makeAside(ctx context.Context, f *frame.Film, files Files, o Options, out string, progress func(done, all int64)) (name string, err error) {
	tmp, err := os.CreateTemp(filepath.Dir(out), aside.Pattern+"."+delivery.Ending(o.Format))
	if err != nil {
		return "", err
	}
	defer tmp.Close()
	defer func() {
		if err != nil {
			os.Remove(tmp.Name())
		}
	}()
	t, e := &task{film: f, pictures: picturesOf(files), files: files, o: o, progress: progress, shows: o.Sequence(f)}, encoders[o.Format]
	if err := e.encode(ctx, t, tmp); err != nil {
		return "", err
	}
	if err := e.readBack(ctx, t, tmp.Name()); err != nil {
		return "", err
	}
	return tmp.Name(), errors.Join(tmp.Sync(), tmp.Chmod(0o644))
}

// picturesOf are the pictures among files; none where there are no files.
func picturesOf(files Files) raster.Pictures {
	if files == nil {
		return nil
	}
	return files.Pixels
}

// wrong is the fault of a file that is not what it should be, with how.
func wrong(how string, args ...any) error {
	f := words.New("export.wrong")
	f.Detail = fmt.Sprintf(how, args...)
	return f
}
