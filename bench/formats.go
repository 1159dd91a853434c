package main

import (
	"fmt"
	"os"
	"os/exec"
	"path/filepath"

	"capstan/core/delivery"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/studio/export"
)

// measureFormats holds exports of other kinds against ffmpeg alone, fed with the same frames: the opener at 720p, three seconds of it.
func measureFormats(dir string) error {
	c, err := load(dir, "opener")
	if err != nil {
		return err
	}
	for _, format := range []string{delivery.WebM, delivery.AV1, delivery.Clear, delivery.ProRes, delivery.WebP, delivery.Frames} {
		o := export.Options{Format: format, Width: 1280, Height: 720, RateNum: 30, RateDen: 1, To: 3000}
		if format == delivery.Frames {
			o.Width, o.Height = 1920, 1080
		}
		raw, out := filepath.Join(dir, "frames.raw"), filepath.Join(dir, "file."+delivery.Ending(format))
		alone, err := c.raw(o, raw, filepath.Join(dir, "alone"))
		if err != nil {
			return err
		}
		var ours, theirs []float64
		for range rounds {
			t, err := timed(func() error { return alone.Run() })
			if err != nil {
				return err
			}
			alone = exec.Command(alone.Path, alone.Args[1:]...)
			theirs = append(theirs, t)
			if t, err = timed(func() error { return c.export(o, out) }); err != nil {
				return err
			}
			ours = append(ours, t)
		}
		limit := 1.2
		if format == delivery.Frames {
			limit = 1
		}
		line("export of "+delivery.Formats[format].Words+" / ffmpeg alone", median(ours)/median(theirs), limit)
		fmt.Printf("  %.2f s, ffmpeg alone %.2f s\n", median(ours), median(theirs))
		os.Remove(raw)
		os.RemoveAll(filepath.Join(dir, "alone"))
	}
	return nil
}

// raw writes the frames of a plan as ffmpeg reads them, and returns the ffmpeg that makes a file of these in a folder.
func (c *compiled) raw(o export.Options, file, folder string) (*exec.Cmd, error) {
	if err := os.MkdirAll(folder, 0o755); err != nil {
		return nil, err
	}
	size, makes, arguments, ok := export.Raw(o)
	if !ok { // straight colours of four bytes
		size = 4 * o.Width * o.Height
		input := []string{"-loglevel", "error", "-y", "-f", "rawvideo", "-s", fmt.Sprintf("%dx%d", o.Width, o.Height), "-r", "30"}
		makes = raster.NRGBATiles
		arguments = func(from, out string) []string {
			return append(input, "-pix_fmt", "rgba", "-i", from, filepath.Join(folder, "frame-%04d.png"))
		}
		if o.Format == delivery.WebP {
			makes = raster.BGRATiles
			arguments = func(from, out string) []string {
				return append(input, "-pix_fmt", "bgra", "-i", from, "-c:v", "libwebp_anim", "-quality", "95", "-compression_level", "3", "-f", "webp", out)
			}
		}
	}
	to, err := os.Create(file)
	if err != nil {
		return nil, err
	}
	defer to.Close()
	canvas := raster.NewCanvas(raster.NewPainter(c.film, c.files.Pixels), o.Width, o.Height)
	player, plate, tiles := c.film.Player(), make([]byte, size), raster.NewRegion(o.Width, o.Height)
	for k := range o.Frames(c.film) {
		if err := canvas.Show(player.At(motion.FrameTime(k, o.RateNum, o.RateDen), frame.View{Scale: float64(o.Width) / 1920})); err != nil {
			return nil, err
		}
		tiles.All()
		makes(plate, canvas.Image(), tiles)
		if _, err := to.Write(plate); err != nil {
			return nil, err
		}
	}
	return exec.Command("ffmpeg", arguments(file, filepath.Join(folder, "file."+delivery.Ending(o.Format)))...), to.Close()
}
