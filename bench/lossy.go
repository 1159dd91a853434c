package main

import (
	"context"
	"fmt"
	"math"
	"os"
	"path/filepath"

	"capstan/core/anim"
	"capstan/core/delivery"
	"capstan/studio/export"
)

// measureLossy holds our GIFs with a loss that is seen a little against the smallest of gifsicle's that are as true, made of ffmpeg's undithered one.
func measureLossy(dir string) error {
	list, err := demos(filepath.Join(dir, "demo-media"))
	if err != nil {
		return err
	}
	var ratios []float64
	for _, name := range []string{"opener", "evening", "post", "reel", "talk"} {
		c := list[name]
		o := c.plan()
		frames, err := c.frames(o)
		if err != nil {
			return err
		}
		raw := filepath.Join(dir, "frames.rgba")
		f, err := os.Create(raw)
		if err != nil {
			return err
		}
		for _, m := range frames {
			if _, err := f.Write(m.Pix); err != nil {
				return err
			}
		}
		f.Close()
		out := filepath.Join(dir, "ours.gif")
		o.Dither, o.Loss = anim.Flat, 16
		if err := c.export(o, out); err != nil {
			return err
		}
		ours, err := judge(out, "ours", frames)
		if err != nil {
			return err
		}
		plain, lossy := filepath.Join(dir, "plain.gif"), filepath.Join(dir, "lossy.gif")
		if err := run("ffmpeg", "-hide_banner", "-loglevel", "error", "-nostdin", "-y", "-f", "rawvideo", "-pix_fmt", "rgba", "-s", fmt.Sprintf("%dx%d", o.Width, o.Height),
			"-r", fmt.Sprint(gifRate), "-i", raw, "-filter_complex", "split[a][b];[a]palettegen=stats_mode=full[p];[b][p]paletteuse=dither=none", plain); err != nil {
			return err
		}
		var best judged
		for _, n := range []int{0, 5, 10, 20, 40, 80} {
			if err := run("gifsicle", "-O3", fmt.Sprint("--lossy=", n), "-o", lossy, plain); err != nil {
				return err
			}
			v, err := judge(lossy, fmt.Sprint(n), frames)
			if err != nil {
				return err
			}
			if v.ssim >= ours.ssim-0.0005 || best.bytes == 0 { // without a loss it may be less true than ours with one
				best = v
			}
		}
		ratios = append(ratios, float64(ours.bytes)/float64(best.bytes))
		fmt.Printf("%-8s loss 16: bytes %.2f (%d / %d by --lossy=%s)  ssim %.4f / %.4f\n", name, ratios[len(ratios)-1], ours.bytes, best.bytes, best.how, ours.ssim, best.ssim)
	}
	line("GIF with a loss / gifsicle --lossy as true", median(ratios), 0.85)
	return nil
}

// measureEstimates holds what is estimated before a file is made against the file.
func measureEstimates(dir string) error {
	list, err := demos(filepath.Join(dir, "demo-media"))
	if err != nil {
		return err
	}
	within := 0.0
	for _, name := range []string{"opener", "evening", "post", "reel", "talk"} {
		for _, format := range []string{delivery.GIF, delivery.MP4} {
			c := list[name]
			o, err := delivery.Of(c.film, delivery.Ask{Format: format, Height: 360})
			if err != nil {
				return err
			}
			guess, err := export.Estimate(context.Background(), c.film, c.files.Pixels, o)
			if err != nil {
				return err
			}
			out := filepath.Join(dir, "estimated."+format)
			if err := c.export(o, out); err != nil {
				return err
			}
			info, err := os.Stat(out)
			if err != nil {
				return err
			}
			r := float64(guess) / float64(info.Size())
			if math.Abs(r-1) <= 0.25 {
				within++
			}
			fmt.Printf("  %s, %s: estimated %.2f of %d bytes\n", name, format, r, info.Size())
		}
	}
	line("estimates within a quarter, of ten", within, 8)
	return nil
}
