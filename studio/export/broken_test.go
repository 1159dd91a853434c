package export_test

import (
	"context"
	"image"
	"os"
	"os/exec"
	"os/signal"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
	"testing"

	"capstan/core/words"
	"capstan/studio/aside"
	"capstan/studio/export"
	"capstan/studio/media"
)

// leftIn fails where an export that came to nothing left a file.
func leftIn(t *testing.T, dir string) {
	t.Helper()
	if left, _ := os.ReadDir(dir); len(left) > 0 {
		t.Errorf("left behind: %v", left)
	}
}

// A disk that is full while a file is written: the system refuses to let files grow, as it does then, and programs get an error
// for it that counts as one.
func TestAFullDiskLeavesNoHalfFile(t *testing.T) {
	f, files := opener(t)
	var whole syscall.Rlimit
	if err := syscall.Getrlimit(syscall.RLIMIT_FSIZE, &whole); err != nil {
		t.Fatal(err)
	}
	signal.Ignore(syscall.SIGXFSZ) // ffmpeg inherits that, and gets an error instead
	for _, format := range []string{"gif", "apng", "png", "mp4", "for a size.gif"} {
		o := export.Options{Width: 480, Height: 270, RateNum: 10, RateDen: 1}
		if strings.HasPrefix(format, "for") {
			format, o.Target = "gif", 60_000 // of which each trial is a file
		}
		if o.Format = format; format == "png" {
			o.Width, o.Height = 960, 540
		}
		dir := t.TempDir()
		if err := syscall.Setrlimit(syscall.RLIMIT_FSIZE, &syscall.Rlimit{Cur: 40000, Max: whole.Max}); err != nil {
			t.Fatal(err)
		}
		err := export.Make(context.Background(), f, files, o, filepath.Join(dir, "film."+format), none)
		if e := syscall.Setrlimit(syscall.RLIMIT_FSIZE, &whole); e != nil {
			t.Fatal(e)
		}
		if !aside.Full(err) && !words.Is(err, "export.full") {
			t.Errorf("%s: %v", format, err)
		}
		leftIn(t, dir)
	}
}

// children are the processes that this one has started.
func children(t *testing.T) (list []int) {
	t.Helper()
	raw, err := os.ReadFile("/proc/self/task/" + strconv.Itoa(os.Getpid()) + "/children")
	if err != nil {
		t.Fatal(err)
	}
	all, _ := filepath.Glob("/proc/self/task/*/children")
	for _, f := range all {
		more, _ := os.ReadFile(f)
		raw = append(raw, more...)
	}
	for _, f := range strings.Fields(string(raw)) {
		pid, _ := strconv.Atoi(f)
		list = append(list, pid)
	}
	return list
}

// The real ffmpeg, ended by somebody half-way.
func TestFFmpegKilledHalfWay(t *testing.T) {
	f, files := opener(t)
	dir := t.TempDir()
	killed := false
	err := export.Make(context.Background(), f, files, export.Options{Format: "mp4", Width: 480, Height: 270, RateNum: 30, RateDen: 1}, filepath.Join(dir, "film.mp4"),
		func(done, all int64) {
			if done > all/2 && !killed {
				killed = true
				for _, pid := range children(t) {
					syscall.Kill(pid, syscall.SIGKILL)
				}
			}
		})
	if !killed || !words.Is(err, "export.killed") && !words.Is(err, "export.stopped") {
		t.Errorf("got %v", err)
	}
	leftIn(t, dir)
}

// An encoder that ends well and wrote nothing, or not all: what was made is read back before it is called done.
func TestWhatIsNotWholeIsNotDone(t *testing.T) {
	f, files := opener(t)
	real, err := exec.LookPath("ffmpeg")
	if err != nil {
		t.Fatal(err)
	}
	for name, script := range map[string]string{
		"nothing": "cat > /dev/null",
		"half":    `head -c 4000000 | ` + real + ` "$@"; cat > /dev/null`,
	} {
		bin, dir := t.TempDir(), t.TempDir()
		encoders := `[ "$2" = -encoders ] && echo " libx264 " && exit 0` + "\n"
		if err := os.WriteFile(filepath.Join(bin, "ffmpeg"), []byte("#!/bin/sh\n"+encoders+script+"\n"), 0o755); err != nil {
			t.Fatal(err)
		}
		t.Setenv("PATH", bin+":"+os.Getenv("PATH"))
		err := export.Make(context.Background(), f, files, export.Options{Format: "mp4", Width: 480, Height: 270, RateNum: 10, RateDen: 1}, filepath.Join(dir, "film.mp4"), none)
		if !words.Is(err, "export.wrong") && !words.Is(err, "export.stopped") {
			t.Errorf("%s: %v", name, err)
		}
		leftIn(t, dir)
	}
}

// broken are files that cannot be read without a mistake.
type broken struct{ *media.Folder }

func (broken) Pixels(string, int) (*image.RGBA, error) { panic("a mistake") }

// A mistake while a frame is rendered, in a goroutine of its own, ends the export and not the process; so does a picture that needs too much memory.
func TestAMistakeEndsTheExportAlone(t *testing.T) {
	f, _ := opener(t)
	for _, format := range []string{"gif", "apng", "png", "mp4", "gif"} {
		dir := t.TempDir()
		var broken broken
		err := export.Make(context.Background(), f, broken, export.Options{Format: format, Width: 96, Height: 54, RateNum: 10, RateDen: 1}, filepath.Join(dir, "film."+format), none)
		if !words.Is(err, "export.mistake") {
			t.Errorf("%s: %v", format, err)
		}
		leftIn(t, dir)
	}
}
