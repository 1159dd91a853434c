package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"image/png"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"
)

// run runs the binary and returns what it prints.
func run(t *testing.T, args ...string) (string, string, error) {
	t.Helper()
	ctx, stop := context.WithTimeout(t.Context(), 2*time.Minute) // one that serves for ever is told by that
	defer stop()
	cmd := exec.CommandContext(ctx, binary, args...)
	var out, errs bytes.Buffer
	cmd.Stdout, cmd.Stderr = &out, &errs
	err := cmd.Run()
	return out.String(), errs.String(), err
}

func demoBundle(t *testing.T) string {
	t.Helper()
	dir := t.TempDir()
	if _, errs, err := run(t, "demo", "--write", dir); err != nil {
		t.Fatalf("%v: %s", err, errs)
	}
	return filepath.Join(dir, "kite-day-opener.capstan")
}

func TestTheCommandLineWorksOnBundles(t *testing.T) {
	file := demoBundle(t)
	dir := t.TempDir()
	if out, errs, err := run(t, "check", file); err != nil || !strings.Contains(out, "3 scenes") || !strings.Contains(out, "no errors") {
		t.Errorf("check: %v %s %s", err, out, errs)
	}
	out, _, err := run(t, "inspect", file, "--at", "1.25")
	var v struct {
		Length, Frames int64
		Scenes         []struct {
			Stay  int64
			Moves map[string]struct{ Begin, End int64 }
		}
		List struct{ Codes, Numbers []float64 }
	}
	if err != nil || json.Unmarshal([]byte(out), &v) != nil || v.Length != 12700 || v.Frames != 381 || len(v.Scenes) != 3 || len(v.List.Numbers) < 100 {
		t.Errorf("inspect: %v %.300s", err, out)
	}
	shot := filepath.Join(dir, "f.png")
	if _, errs, err := run(t, "frame", file, "--at", "4", "--out", shot); err != nil {
		t.Fatalf("frame: %v %s", err, errs)
	}
	f, err := os.Open(shot)
	if err != nil {
		t.Fatal(err)
	}
	defer f.Close()
	img, err := png.Decode(f)
	if err != nil || img.Bounds().Dx() != 1920 || img.Bounds().Dy() != 1080 {
		t.Fatalf("frame: %v, %v", img.Bounds(), err)
	}
	if r, g, b, _ := img.At(1380, 400).RGBA(); r>>8 < 150 || g>>8 > 120 || b>>8 > 90 {
		t.Errorf("the red kite is not where it arrives: %d %d %d", r>>8, g>>8, b>>8)
	}
	film := filepath.Join(dir, "film.gif")
	_, errs, err := run(t, "export", file, "--format", "gif", "--height", "90", "--fps", "10", "--from", "1", "--to", "2.5", "--out", film, "--json")
	if err != nil || !strings.Contains(errs, `"done":15,"all":15}`) {
		t.Errorf("export: %v %s", err, errs)
	}
	if n := len(decode(t, film, 160, 90, 10)); n < 15 {
		t.Errorf("export: %d frames", n)
	}
}

func TestTheCommandLineSaysWhatIsWrong(t *testing.T) {
	file := demoBundle(t)
	torn := filepath.Join(t.TempDir(), "torn.capstan")
	raw, _ := os.ReadFile(file)
	if err := os.WriteFile(torn, raw[:len(raw)/2], 0o644); err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		args  []string
		words string
	}{
		{[]string{"check", torn}, "no Capstan bundle"},
		{[]string{"check", torn + "x"}, "no such file"},
		{[]string{"export", file, "--from", "5", "--to", "2", "--out", torn}, "must lie in it"},
		{[]string{"export", file, "--format", "avi", "--out", torn}, "does not make"},
		{[]string{"serve", "--addr", "0.0.0.0:0", "--token", "short", "--data", t.TempDir()}, "shorter than 16"},
	} {
		if _, errs, err := run(t, c.args...); err == nil || !strings.Contains(errs, c.words) {
			t.Errorf("%v: %v %s", c.args, err, errs)
		}
	}
}

func TestASecondStartSaysSo(t *testing.T) {
	s := startStudio(t)
	if _, errs, err := run(t, "serve", "--data", s.dir, "--addr", "127.0.0.1:0"); err == nil || !strings.Contains(errs, fmt.Sprint("process ", s.cmd.Process.Pid)) {
		t.Errorf("on the same data: %v %s", err, errs)
	}
	if _, errs, err := run(t, "serve", "--data", t.TempDir(), "--addr", s.addr); err == nil || !strings.Contains(errs, "is taken") {
		t.Errorf("on the same address: %v %s", err, errs)
	}
}
