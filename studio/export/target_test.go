package export_test

import (
	"bytes"
	"context"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"capstan/core/delivery"
	"capstan/core/words"
	"capstan/studio/export"
)

// A size that is asked for is kept to, by giving up in the stated order, whatever it is; ffmpeg reads what comes of it. One that cannot be reached
// names the smallest that can.
func TestASizeIsKeptTo(t *testing.T) {
	f := sticker(t, true)
	dir := t.TempDir()
	for _, format := range []string{delivery.GIF, delivery.APNG} {
		free, _ := made(t, f, format)
		info, err := os.Stat(free)
		if err != nil {
			t.Fatal(err)
		}
		for i := range 10 {
			target := int64(float64(info.Size()) * math.Pow(0.86, float64(i)))
			o, err := delivery.Of(f, delivery.Ask{Format: format, Target: max(delivery.MinTarget, target)})
			if err != nil {
				t.Fatal(err)
			}
			out := filepath.Join(dir, "film."+format)
			tried := 0
			plan, err := export.MakeWithin(context.Background(), f, nil, o, out, none, func(string, int64) { tried++ })
			if err != nil {
				t.Fatalf("%s in %d bytes: %v", format, target, err)
			}
			is, err := os.Stat(out)
			if err != nil || is.Size() > o.Target || tried > 7 {
				t.Errorf("%s: %d bytes instead of %d at most, after %d trials, %v", format, is.Size(), o.Target, tried, err)
			}
			if said, err := exec.Command("ffmpeg", "-v", "error", "-i", out, "-f", "null", "-").CombinedOutput(); err != nil || len(said) > 0 {
				t.Errorf("%s by %+v: %v %s", format, plan, err, said)
			}
			os.Remove(out)
		}
		o, err := delivery.Of(f, delivery.Ask{Format: format, Target: delivery.MinTarget, Give: []delivery.Sacrifice{delivery.Flow}})
		if err != nil {
			t.Fatal(err)
		}
		_, err = export.MakeWithin(context.Background(), f, nil, o, filepath.Join(dir, "none"), none, func(string, int64) {})
		if !words.Is(err, "export.target-missed") || !strings.Contains(err.Error(), "smallest that can be reached") {
			t.Errorf("%s in a kilobyte: %v", format, err)
		}
	}
	leftIn(t, dir)
}

// The same film and settings make the same bytes, however many workers there are; and what is estimated is near what it becomes.
func TestFilesAreTheSameAgainAndWereEstimated(t *testing.T) {
	f, files := opener(t)
	for format, height := range map[string]int{delivery.GIF: 180, delivery.APNG: 120, delivery.MP4: 270} {
		o, err := delivery.Of(f, delivery.Ask{Format: format, Height: height})
		if err != nil {
			t.Fatal(err)
		}
		var got [2][]byte
		for i := range got {
			out := filepath.Join(t.TempDir(), "film")
			if err := export.Make(context.Background(), f, files, o, out, none); err != nil {
				t.Fatal(err)
			}
			if got[i], err = os.ReadFile(out); err != nil {
				t.Fatal(err)
			}
			if format == delivery.MP4 {
				break // x264's threads decide
			}
		}
		if format != delivery.MP4 && !bytes.Equal(got[0], got[1]) {
			t.Errorf("%s: %d and %d bytes, not the same", format, len(got[0]), len(got[1]))
		}
		bytes, err := export.Estimate(context.Background(), f, files.Pixels, o)
		if r := float64(bytes) / float64(len(got[0])); err != nil || r < 0.75 || r > 1.25 {
			t.Errorf("%s: %d bytes were estimated, %d it became: %.2f, %v", format, bytes, len(got[0]), r, err)
		} else {
			t.Logf("%s: estimated %.2f of what it became", format, r)
		}
	}
}
