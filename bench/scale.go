package main

import (
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"strconv"
	"syscall"

	"capstan/studio/export"
)

// measureScale is what exports cost as films become longer and larger: a frame of a minute beside one of six seconds, memory, and how busy the cores
// are.
func measureScale(dir string) error {
	small := export.Options{Format: "mp4", Width: 640, Height: 360, RateNum: 30, RateDen: 1}
	var each [2][]float64
	for range 3 {
		for i, ms := range []int64{6000, 60000} {
			c, err := compile(filepath.Join(dir, "media"), drifting(ms))
			if err != nil {
				return err
			}
			t, err := timed(func() error { return c.export(small, filepath.Join(dir, "film.mp4")) })
			if err != nil {
				return err
			}
			each[i] = append(each[i], t/float64(small.Frames(c.film)))
		}
	}
	line("a frame of 60 s of film / of 6 s", median(each[1])/median(each[0]), 1.05)
	for _, c := range []struct{ film, height string }{{"opener", "1080"}, {"drift", "1080"}, {"drift", "2160"}} {
		out, err := exec.Command(os.Args[0], "memory", c.film, c.height).Output()
		if err != nil {
			return fmt.Errorf("memory of %s: %w", c.film, err)
		}
		mb, err := strconv.ParseFloat(string(out), 64)
		if err != nil {
			return err
		}
		if c.height == "2160" { // canvases and plates are that large anyway: what there is beside them
			n := float64(runtime.NumCPU())
			mb -= (n + 2*n) * 3840 * 2160 * 4 / (1 << 20)
		}
		line("memory to export "+c.film+" at "+c.height+"p, MB", mb, 150)
	}
	c, err := load(dir, "drift")
	if err != nil {
		return err
	}
	before := ownAndChildren()
	t, err := timed(func() error { return c.export(mp4, filepath.Join(dir, "film.mp4")) })
	if err != nil {
		return err
	}
	line("both cores busy while exporting drift, per cent", 100*(ownAndChildren()-before)/(t*float64(runtime.NumCPU())), 85)
	return nil
}

// ownAndChildren is what this process, and the programs that it has started and that have ended, have used of all cores, in seconds.
func ownAndChildren() float64 {
	var u syscall.Rusage
	if err := syscall.Getrusage(syscall.RUSAGE_CHILDREN, &u); err != nil {
		return 0
	}
	return cpuTime() + float64(u.Utime.Nano()+u.Stime.Nano())/1e9
}
