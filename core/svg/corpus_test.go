package svg_test

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/draw"
	"image/png"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/likeness"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/svg"
	"capstan/library"
)

const side = 256

// ids hands out ids in order.
func ids() func() string {
	n := 0
	return func() string {
		n++
		return fmt.Sprint("d-", n)
	}
}

// painted paints a drawing as its layers are painted, over white.
func painted(text string) (*image.RGBA, *svg.Drawing, error) {
	d, err := svg.Read(strings.NewReader(text), svg.Options{Name: "Drawing", Page: [2]float64{side / 0.24, side / 0.24}, ID: ids()})
	if err != nil {
		return nil, nil, err
	}
	p := doc.NewProject("p", "P", side, side, "s")
	s := p.Film.Scenes[0]
	s.Background = doc.Fill{Kind: doc.Solid, Colour: "#ffffff"}
	d.Group.Place.X, d.Group.Place.Y = side/2, side/2
	s.Layers = []*doc.Layer{d.Group}
	if err := p.Validate(); err != nil {
		return nil, d, err
	}
	fonts, err := library.Book()
	if err != nil {
		return nil, d, err
	}
	f, err := frame.Compile(p, frame.Assets{Fonts: fonts}, nil)
	if err != nil {
		return nil, d, err
	}
	img := image.NewRGBA(image.Rect(0, 0, side, side))
	return img, d, raster.NewPainter(f, nil).Paint(img, f.Player().At(motion.Millis(0), frame.View{Scale: 1}))
}

// librsvg is what librsvg paints of a drawing, over white.
func librsvg(t *testing.T, text string) *image.RGBA {
	t.Helper()
	cmd := exec.CommandContext(context.Background(), "rsvg-convert", "-w", fmt.Sprint(side), "-h", fmt.Sprint(side), "-a", "-b", "white")
	cmd.Stdin = strings.NewReader(text)
	raw, err := cmd.Output()
	if err != nil {
		return nil
	}
	m, err := png.Decode(bytes.NewReader(raw))
	if err != nil {
		t.Fatal(err)
	}
	out := image.NewRGBA(image.Rect(0, 0, side, side))
	draw.Draw(out, out.Rect, image.White, image.Point{}, draw.Src)
	b := m.Bounds()
	draw.Draw(out, b.Sub(b.Min).Add(image.Pt((side-b.Dx())/2, (side-b.Dy())/2)), m, b.Min, draw.Over)
	return out
}

// Icons of two sets look as librsvg paints them.
func TestIconsLookAsLibrsvgPaintsThem(t *testing.T) {
	var files []string
	for _, set := range []string{"bootstrap-icons/icons", "@mdi/svg/svg"} {
		list, err := filepath.Glob(filepath.Join("../../web/node_modules", set, "*.svg"))
		if err != nil || len(list) < 300 {
			t.Fatalf("%s has %d icons, %v", set, len(list), err)
		}
		for i := 0; i < 150; i++ {
			files = append(files, list[i*len(list)/150])
		}
	}
	type bad struct {
		name string
		ssim float64
	}
	var worse []bad
	for _, file := range files {
		raw, err := os.ReadFile(file)
		if err != nil {
			t.Fatal(err)
		}
		want := librsvg(t, string(raw))
		got, _, err := painted(string(raw))
		if err != nil {
			worse = append(worse, bad{filepath.Base(file) + ": " + err.Error(), 0})
			continue
		}
		if s := likeness.SSIM(got, want); s < 0.98 {
			worse = append(worse, bad{filepath.Base(file), s})
		}
	}
	slices.SortFunc(worse, func(a, b bad) int { return strings.Compare(a.name, b.name) })
	t.Logf("%d of %d icons are less alike than 0.98: %v", len(worse), len(files), worse)
	if 50*len(worse) > len(files) {
		t.Errorf("%d of %d icons are less alike than 0.98", len(worse), len(files))
	}
}
