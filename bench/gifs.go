package main

import (
	"bytes"
	"fmt"
	"image"
	"image/draw"
	imagegif "image/gif"
	"os"
	"os/exec"
	"path/filepath"

	"capstan/core/anim"
	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/likeness"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/demo"
	"capstan/library"
	"capstan/studio/export"
	"capstan/studio/media"
)

// The GIFs of the demo films are held against those that ffmpeg's filters for palettes and gifsicle make of the same frames: long side 480 px, 15 a
// second. Best is the fewest bytes in a class.

const gifSide, gifRate = 480, 15

// demos are the films of the demo, by name.
func demos(dir string) (map[string]*compiled, error) {
	files := media.NewFolder(dir)
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return nil, err
	}
	sky, facts, err := files.Take(bytes.NewReader(demo.Sky()), "sky.jpg")
	if err != nil {
		return nil, err
	}
	harbour, drawn, err := files.Take(bytes.NewReader(demo.Harbour()), "harbour.png")
	if err != nil {
		return nil, err
	}
	book, err := library.Book()
	if err != nil {
		return nil, err
	}
	list := map[string]*compiled{}
	for name, p := range map[string]*doc.Project{"opener": demo.Opener(sky, facts), "evening": demo.Evening(harbour, drawn), "post": demo.Post(), "reel": demo.Reel(), "talk": demo.Talk()} {
		f, err := frame.Compile(p, frame.Assets{Fonts: book}, nil)
		if err != nil {
			return nil, err
		}
		list[name] = &compiled{f, files}
	}
	return list, nil
}

// plan is a GIF of a film of the size and rate that are compared.
func (c *compiled) plan() export.Options {
	w, h := c.film.Doc.Film.Width, c.film.Doc.Film.Height
	o := export.Options{Format: "gif", RateNum: gifRate, RateDen: 1}
	o.Width, o.Height = gifSide, (h*gifSide/w+1)/2*2
	if h > w {
		o.Width, o.Height = (w*gifSide/h+1)/2*2, gifSide
	}
	return o
}

// frames are those of a plan, as they are.
func (c *compiled) frames(o export.Options) (list []*image.RGBA, err error) {
	canvas := raster.NewCanvas(raster.NewPainter(c.film, c.files.Pixels), o.Width, o.Height)
	player := c.film.Player()
	for k := range o.Frames(c.film) {
		at := player.At(motion.FrameTime(k, o.RateNum, o.RateDen), frame.View{Scale: float64(o.Width) / float64(c.film.Doc.Film.Width)})
		if err := canvas.Show(at); err != nil {
			return nil, err
		}
		m := image.NewRGBA(image.Rect(0, 0, o.Width, o.Height))
		copy(m.Pix, canvas.Image().Pix)
		list = append(list, m)
	}
	return list, nil
}

// played are the frames that a GIF shows in the middle of each frame of a film.
func played(file string, n int) ([]*image.RGBA, error) {
	raw, err := os.ReadFile(file)
	if err != nil {
		return nil, err
	}
	g, err := imagegif.DecodeAll(bytes.NewReader(raw))
	if err != nil {
		return nil, err
	}
	canvas := image.NewRGBA(image.Rect(0, 0, g.Config.Width, g.Config.Height))
	var list []*image.RGBA
	begins := 0
	for i, f := range g.Image {
		draw.Draw(canvas, f.Bounds(), f, f.Bounds().Min, draw.Over)
		begins += g.Delay[i]
		for len(list) < n && (2*len(list)+1)*100 < begins*2*gifRate || len(list) < n && i == len(g.Image)-1 {
			m := image.NewRGBA(canvas.Rect)
			copy(m.Pix, canvas.Pix)
			list = append(list, m)
		}
	}
	return list, nil
}

// judged is a file and how true it is to its frames.
type judged struct {
	bytes         int64
	ssim, banding float64
	how           string
	took          float64
}

// judge holds a GIF against the frames it is of.
func judge(file, how string, frames []*image.RGBA) (judged, error) {
	info, err := os.Stat(file)
	if err != nil {
		return judged{}, err
	}
	v := judged{bytes: info.Size(), how: how}
	shown, err := played(file, len(frames))
	if err != nil {
		return v, fmt.Errorf("%s: %w", how, err)
	}
	for i := range frames {
		v.ssim += likeness.SSIM(frames[i], shown[i]) / float64(len(frames))
		v.banding += likeness.Banding(frames[i], shown[i]) / float64(len(frames))
	}
	return v, nil
}

// classes are ways of comparing: what the palette is made over, and how it is used.
var classes = map[string][][2]string{
	"exact": {
		{"stats_mode=full", "dither=none"}, {"stats_mode=diff", "dither=none"}, {"stats_mode=full", "dither=none:diff_mode=rectangle"}, {"stats_mode=diff", "dither=none:diff_mode=rectangle"},
	},
	"dithered": {
		{"stats_mode=full", "dither=bayer:bayer_scale=2"}, {"stats_mode=full", "dither=bayer:bayer_scale=4"}, {"stats_mode=diff", "dither=bayer:bayer_scale=4"}, {"stats_mode=full", "dither=sierra2_4a"},
		{"stats_mode=full", "dither=floyd_steinberg"}, {"stats_mode=diff", "dither=floyd_steinberg"}, {"stats_mode=full", "dither=floyd_steinberg:diff_mode=rectangle"}, {"stats_mode=full", "dither=bayer:bayer_scale=5"},
	},
}

// theirs makes the files of a class and returns the smallest, before or after gifsicle -O3.
func theirs(dir, raw, class string, o export.Options, frames []*image.RGBA) (best judged, err error) {
	for _, s := range classes[class] {
		out := filepath.Join(dir, "theirs.gif")
		how := s[0] + " " + s[1]
		took, err := timed(func() error {
			return run("ffmpeg", "-hide_banner", "-loglevel", "error", "-nostdin", "-y", "-f", "rawvideo", "-pix_fmt", "rgba",
				"-s", fmt.Sprintf("%dx%d", o.Width, o.Height), "-r", fmt.Sprint(gifRate), "-i", raw, "-filter_complex", "split[a][b];[a]palettegen="+s[0]+"[p];[b][p]paletteuse="+s[1], out)
		})
		if err != nil {
			return best, err
		}
		small := filepath.Join(dir, "smaller.gif")
		if err := run("gifsicle", "-O3", "-o", small, out); err != nil {
			return best, err
		}
		for _, f := range []string{out, small} {
			if info, _ := os.Stat(f); best.bytes == 0 || info.Size() < best.bytes {
				if best, err = judge(f, how+map[bool]string{true: " -O3"}[f == small], frames); err != nil {
					return best, err
				}
				best.took = took
			}
		}
	}
	return best, nil
}

// run starts a program, and returns what it said where it fails.
func run(name string, args ...string) error {
	if said, err := exec.Command(name, args...).CombinedOutput(); err != nil {
		return fmt.Errorf("%s: %w: %s", name, err, said)
	}
	return nil
}

// measureGIFs holds our GIFs against the best of each class. What the others make is kept in the folder CAPSTAN_BENCH_THEIRS, if it is set: that takes
// most of the time, and stays the same.
func measureGIFs(dir string) error {
	list, err := demos(filepath.Join(dir, "demo-media"))
	if err != nil {
		return err
	}
	cache := os.Getenv("CAPSTAN_BENCH_THEIRS")
	ratios := map[string][]float64{}
	for _, name := range []string{"opener", "evening", "post", "reel", "talk"} {
		c := list[name]
		o := c.plan()
		frames, err := c.frames(o)
		if err != nil {
			return err
		}
		raw := filepath.Join(dir, "frames.rgba")
		for _, class := range []string{"exact", "dithered"} {
			var best judged
			kept := filepath.Join(cache, name+"."+class)
			if said, err := os.ReadFile(kept); cache != "" && err == nil {
				fmt.Sscan(string(said), &best.bytes, &best.ssim, &best.banding, &best.took)
			} else {
				var b bytes.Buffer
				for _, f := range frames {
					b.Write(f.Pix)
				}
				if err := os.WriteFile(raw, b.Bytes(), 0o644); err != nil {
					return err
				}
				if best, err = theirs(dir, raw, class, o, frames); err != nil {
					return err
				}
				if cache != "" {
					os.WriteFile(kept, []byte(fmt.Sprintln(best.bytes, best.ssim, best.banding, best.took, best.how)), 0o644)
				}
			}
			out := filepath.Join(dir, "ours.gif")
			took, err := timed(func() error { return c.exportClass(class, o, out) })
			if err != nil {
				return err
			}
			v, err := judge(out, "ours", frames)
			if err != nil {
				return err
			}
			r := float64(v.bytes) / float64(best.bytes)
			ratios[class] = append(ratios[class], r)
			fmt.Printf("%-8s %-9s bytes %.2f (%d / %d)  ssim %+.4f (%.4f)  banding %.2f (%.3f / %.3f)  time %.2f (%.2f s)\n", name, class, r, v.bytes, best.bytes, v.ssim-best.ssim, v.ssim, v.banding/best.banding, v.banding, best.banding, took/best.took, took)
		}
	}
	line("GIF, undithered: bytes / best of 4 of ffmpeg", median(ratios["exact"]), 0.95)
	line("GIF, dithered: bytes / best of 8 of ffmpeg", median(ratios["dithered"]), 0.85)
	return nil
}

// exportClass makes our file of a class: what Capstan takes by itself, without a dither or with one.
func (c *compiled) exportClass(class string, o export.Options, out string) error {
	o.Dither, o.Loss = anim.Flat, delivery.Unseen
	if class == "dithered" {
		o.Dither = anim.Ordered
	}
	return c.export(o, out)
}
