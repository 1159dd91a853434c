// Command bench measures what exports cost, as ratios to what has to be done anyway: each line is a name, a value and its
// limit. What is compared runs in turns, five times; medians count, since machines are noisy.
package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"syscall"
	"time"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/studio/export"
)

const rounds = 5

// only is the one film that is measured, where the command names one.
var only string

func main() {
	if len(os.Args) > 1 && os.Args[1] == "memory" {
		if err := alone(os.Args[2], os.Args[3]); err != nil {
			fail(err)
		}
		return
	}
	if len(os.Args) > 1 {
		only = os.Args[1]
	}
	dir, err := os.MkdirTemp(roomy(), "capstan-bench-")
	if err != nil {
		fail(err)
	}
	switch only {
	case "gifs":
		err = measureGIFs(dir)
	case "lossy":
		err = errors.Join(measureLossy(dir), measureEstimates(dir))
	case "scale":
		err = measureScale(dir)
	case "formats":
		err = measureFormats(dir)
	case "sounds":
		err = measureSounds(dir)
	default:
		err = measure(dir)
	}
	os.RemoveAll(dir)
	if err != nil {
		fail(err)
	}
}

func fail(err error) {
	fmt.Fprintln(os.Stderr, "bench:", err)
	os.Exit(1)
}

// roomy is a folder kept in memory where there is one with room for raw frames, else that for temporary files.
func roomy() string {
	var s syscall.Statfs_t
	if err := syscall.Statfs("/dev/shm", &s); err == nil && s.Bavail*uint64(s.Bsize) > 2<<30 {
		return "/dev/shm"
	}
	return ""
}

func line(name string, value, limit float64) { fmt.Printf("%-44s %8.2f  %8.2f\n", name, value, limit) }

func measure(dir string) error {
	for _, b := range []struct {
		name       string
		film       string
		limit, aim float64
	}{{"export of small movers / encoder alone", "opener", 1.30, 8}, {"export of a page-filling drift / encoder alone", "drift", 1.60, 30}, {"export of a push-in over 12 layers / encoder alone", "push", 1.90, 60}, {"export of an adjusted, cropped, page-filling picture / encoder alone", "adjusted", 1.80, 60}, {"export of a page-filling focus / encoder alone", effect.Focus, 2.50, 120},
		{"export of a page-filling hinge / encoder alone", effect.Hinge, 2.50, 120}, {"export of a page-filling speckle / encoder alone", effect.Speckle, 2.50, 120}} {
		if only != "" && b.film != only {
			continue
		}
		c, err := load(dir, b.film)
		if err != nil {
			return err
		}
		raw := filepath.Join(dir, "frames.yuv")
		if err := c.dump(raw, mp4); err != nil {
			return err
		}
		var ours, theirs, cpu []float64
		for range rounds {
			t, err := timed(func() error { return encodeAlone(mp4, raw, filepath.Join(dir, "alone.mp4")) })
			if err != nil {
				return err
			}
			theirs = append(theirs, t)
			before := cpuTime()
			t, err = timed(func() error { return c.export(mp4, filepath.Join(dir, "film.mp4")) })
			if err != nil {
				return err
			}
			ours = append(ours, t)
			cpu = append(cpu, (cpuTime()-before)/float64(mp4.Frames(c.film))*1000)
		}
		line(b.name, median(ours)/median(theirs), b.limit)
		line("  CPU to render a frame, ms", median(cpu), b.aim)
		fmt.Printf("  %.2f s, encoder alone %.2f s\n", median(ours), median(theirs))
		os.Remove(raw)
	}
	if only != "" {
		return nil
	}
	if err := measureGIFs(dir); err != nil {
		return err
	}
	return errors.Join(measureFormats(dir), measureLossy(dir), measureEstimates(dir), measureScale(dir))
}

var mp4 = export.Options{Format: "mp4", Width: 1920, Height: 1080, RateNum: 30, RateDen: 1}

func load(dir, name string) (*compiled, error) {
	films := map[string]func(string, *doc.Media) *doc.Project{"opener": opener, "drift": drift, "push": push, "adjusted": adjusted}
	if films[name] == nil {
		films[name] = filling(name)
	}
	return compile(filepath.Join(dir, "media"), films[name])
}

func (c *compiled) export(o export.Options, out string) error {
	return export.Make(context.Background(), c.film, c.files, o, out, func(int64, int64) {})
}

// dump writes the frames as an encoder of video reads them: YUV 4:2:0.
func (c *compiled) dump(file string, o export.Options) error {
	out, err := os.Create(file)
	if err != nil {
		return err
	}
	defer out.Close()
	canvas := raster.NewCanvas(raster.NewPainter(c.film, c.files.Pixels), o.Width, o.Height)
	player := c.film.Player()
	yuv := make([]byte, o.Width*o.Height*3/2)
	for k := range o.Frames(c.film) {
		list := player.At(motion.FrameTime(k, o.RateNum, o.RateDen), frame.View{Scale: float64(o.Width) / 1920})
		if err := canvas.Show(list); err != nil {
			return err
		}
		raster.YUV(yuv, canvas.Image())
		if _, err := out.Write(yuv); err != nil {
			return err
		}
	}
	return out.Close()
}

func encodeAlone(o export.Options, raw, out string) error {
	said, err := exec.Command("ffmpeg", export.VideoArguments(o, raw, "", out)...).CombinedOutput()
	if err != nil {
		return fmt.Errorf("%w: %s", err, said)
	}
	return nil
}

// alone exports a film in a process of its own and prints the most memory it took, in MB.
func alone(name, height string) error {
	dir, err := os.MkdirTemp("", "capstan-bench-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	c, err := load(dir, name)
	if err != nil {
		return err
	}
	// What making the picture took is not what exporting takes: the mark is set back before it begins.
	if err := os.WriteFile("/proc/self/clear_refs", []byte("5"), 0); err != nil {
		return err
	}
	o := mp4
	if o.Height, err = strconv.Atoi(height); err != nil {
		return err
	}
	o.Width = o.Height * 16 / 9
	if err := c.export(o, filepath.Join(dir, "film.mp4")); err != nil {
		return err
	}
	status, err := os.ReadFile("/proc/self/status")
	if err != nil {
		return err
	}
	found := regexp.MustCompile(`VmHWM:\s+(\d+) kB`).FindSubmatch(status)
	if found == nil {
		return fmt.Errorf("this system does not say how much memory a process took")
	}
	kb, err := strconv.Atoi(string(found[1]))
	fmt.Print(float64(kb) / 1024)
	return err
}

func timed(f func() error) (float64, error) {
	begin := time.Now()
	err := f()
	return time.Since(begin).Seconds(), err
}

func median(v []float64) float64 {
	v = slices.Clone(v)
	slices.Sort(v)
	return v[len(v)/2]
}

// cpuTime is what this process has used of all cores so far, in seconds; not what programs it started have.
func cpuTime() float64 {
	var u syscall.Rusage
	if err := syscall.Getrusage(syscall.RUSAGE_SELF, &u); err != nil {
		return 0
	}
	return float64(u.Utime.Nano()+u.Stime.Nano()) / 1e9
}
