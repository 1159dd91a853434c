package export

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"

	"capstan/core/delivery"
	"capstan/core/frame"
	"capstan/core/raster"
	"capstan/core/words"
	"capstan/studio/aside"
)

// task is a film being made into a file.
type task struct {
	film     *frame.Film
	pictures raster.Pictures
	o        Options
	progress func(done, all int64)
}

// length is how much of the film the file shows, in ms.
func (t *task) length() int64 {
	if t.o.To == 0 {
		return t.film.Order.Length - t.o.From
	}
	return t.o.To - t.o.From
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
var encoders = map[string]encoder{delivery.MP4: mp4{}, delivery.GIF: gif{}, delivery.APNG: apng{}, delivery.PNG: still{delivery.PNG}, delivery.JPEG: still{delivery.JPEG}}

// Able returns why this machine cannot make files of a format, as a *words.Fault, or nil.
func Able(format string) error {
	if e := encoders[format]; e != nil {
		return e.able()
	}
	return words.New("export.format", format)
}

// Make renders a film into the file out. It is written aside, read back and renamed: at any moment there is a whole file or none.
// progress is told the frames done so far.
func Make(ctx context.Context, f *frame.Film, pictures raster.Pictures, o Options, out string, progress func(done, all int64)) error {
	if err := o.Check(f); err != nil {
		return err
	}
	if err := Able(o.Format); err != nil {
		return err
	}
	tmp, err := os.CreateTemp(filepath.Dir(out), aside.Pattern+"."+o.Format)
	if err != nil {
		return err
	}
	defer os.Remove(tmp.Name())
	defer tmp.Close()
	t, e := &task{f, pictures, o, progress}, encoders[o.Format]
	if err := e.encode(ctx, t, tmp); err != nil {
		return err
	}
	if err := e.readBack(ctx, t, tmp.Name()); err != nil {
		return err
	}
	if err := errors.Join(tmp.Sync(), tmp.Chmod(0o644)); err != nil {
		return err
	}
	return os.Rename(tmp.Name(), out)
}

// wrong is the fault of a file that is not what it should be, with how.
func wrong(how string, args ...any) error {
	f := words.New("export.wrong")
	f.Detail = fmt.Sprintf(how, args...)
	return f
}
