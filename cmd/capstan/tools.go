package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"image"
	"image/png"
	"io"
	"math"
	"os"
	"path/filepath"
	"strings"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/studio/bundle"
	"capstan/studio/export"
	"capstan/studio/media"

	"github.com/spf13/cobra"
)

// opened is a bundle being worked on, with its media in a folder that is removed again.
type opened struct {
	project *doc.Project
	film    *frame.Film
	files   *media.Folder
	dir     string
}

func (o *opened) close() { os.RemoveAll(o.dir) }

// open reads a bundle, and makes the film of an id in it; an empty one is that of its first.
func open(file, film string) (*opened, error) {
	f, err := os.Open(file)
	if err != nil {
		return nil, err
	}
	defer f.Close()
	info, err := f.Stat()
	if err != nil {
		return nil, err
	}
	dir, err := os.MkdirTemp("", "capstan")
	if err != nil {
		return nil, err
	}
	o := &opened{dir: dir, files: media.NewFolder(dir)}
	if o.project, err = bundle.Read(context.Background(), f, info.Size(), o.files); err != nil {
		o.close()
		return nil, err
	}
	a, err := assets()
	if err == nil {
		a.Fonts = o.files.Fonts(o.project, a.Fonts)
		if o.film, err = frame.CompileFilm(o.project, film, a); err == nil {
			o.project = o.film.Doc
		}
	}
	if err != nil {
		o.close()
		return nil, err
	}
	return o, nil
}

// ms returns a number of seconds, or of anything, in thousandths; one beyond all use as a day.
func ms(v float64) int64 { return int64(math.Round(min(max(v, -86400), 86400) * 1000)) }

func frameCommand() *cobra.Command {
	var at float64
	var out, film string
	var spoken bool
	c := &cobra.Command{
		Use: "frame FILE.capstan", Short: "Render one frame as PNG, or as SVG where the file is to be one", Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			o, err := open(args[0], film)
			if err != nil {
				return err
			}
			defer o.close()
			write := func(f io.Writer) error {
				img := image.NewRGBA(image.Rect(0, 0, o.project.Film.Width, o.project.Film.Height))
				list := o.film.Player().At(motion.Seconds(min(max(at, 0), 86400)), frame.View{Scale: 1})
				if err := raster.NewPainter(o.film, o.files.Pixels).Paint(img, list); err != nil {
					return err
				}
				return png.Encode(f, img)
			}
			if strings.EqualFold(filepath.Ext(out), ".svg") {
				write = func(f io.Writer) error {
					ms := min(max(int64(math.Round(at*1000)), 0), o.film.Order.Length)
					text, err := export.Drawing(c.Context(), o.film, o.files.Pixels, export.Sketch{Scene: o.film.Order.At(motion.Millis(ms)).Scene, At: &ms, Words: spoken})
					if err == nil {
						_, err = io.WriteString(f, text)
					}
					return err
				}
			}
			f, err := os.CreateTemp(filepath.Dir(out), ".aside-*")
			if err != nil {
				return err
			}
			defer os.Remove(f.Name())
			if err := errors.Join(write(f), f.Chmod(0o644), f.Close()); err != nil {
				return err
			}
			return os.Rename(f.Name(), out)
		},
	}
	filmFlag(c, &film)
	c.Flags().Float64Var(&at, "at", 0, "film time in seconds")
	c.Flags().StringVar(&out, "out", "frame.png", "file to write")
	c.Flags().BoolVar(&spoken, "words", false, "texts of an SVG as words, not as outlines")
	return c
}

func inspectCommand() *cobra.Command {
	var at float64
	var film string
	c := &cobra.Command{
		Use: "inspect FILE.capstan", Short: "Print resolved moves and the display list as JSON", Args: cobra.ExactArgs(1),
		RunE: func(_ *cobra.Command, args []string) error {
			o, err := open(args[0], film)
			if err != nil {
				return err
			}
			defer o.close()
			type sceneTimes struct {
				Scene string                     `json:"scene"`
				Start int64                      `json:"start"`
				Into  int64                      `json:"into"`
				Stay  int64                      `json:"stay"`
				Moves map[string]motion.Interval `json:"moves"`
			}
			var scenes []sceneTimes
			for i, s := range o.project.Film.Shown() {
				scenes = append(scenes, sceneTimes{s.Name, o.film.Order.Starts[i], o.film.Order.Into[i], o.film.Order.Stays[i], o.film.Timing(i).Moves})
			}
			e := json.NewEncoder(os.Stdout)
			e.SetIndent("", "  ")
			return e.Encode(map[string]any{
				"length": o.film.Order.Length, "frames": o.film.Frames(), "scenes": scenes,
				"at": at, "list": o.film.Player().At(motion.Seconds(at), frame.View{Scale: 1}),
			})
		},
	}
	filmFlag(c, &film)
	c.Flags().Float64Var(&at, "at", 0, "film time in seconds")
	return c
}

func filmFlag(c *cobra.Command, film *string) {
	c.Flags().StringVar(film, "film", "", "id of a film of the project (default: its first)")
}

func checkCommand() *cobra.Command {
	return &cobra.Command{
		Use: "check FILE.capstan", Short: "Validate a bundle; exit 1 on errors", Args: cobra.ExactArgs(1),
		RunE: func(_ *cobra.Command, args []string) error {
			o, err := open(args[0], "")
			if err != nil {
				return err
			}
			defer o.close()
			layers := 0
			for _, s := range o.project.Film.Shown() {
				doc.Walk(s.Layers, func(*doc.Layer, *doc.Layer) bool { layers++; return true })
			}
			fmt.Printf("%s: %d scenes, %d layers, %.2f s, no errors\n", o.project.Name, len(o.project.Film.Shown()), layers, float64(o.film.Order.Length)/1000)
			return nil
		},
	}
}
