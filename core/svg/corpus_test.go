package svg_test

import (
	"fmt"
	"image"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/likeness"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/core/svg"
	"capstan/core/svg/svgtest"
	"capstan/e2e/librsvg"
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
	fonts, err := library.Book()
	if err != nil {
		return nil, nil, err
	}
	o := svg.Options{Name: "Drawing", ID: ids(), Fonts: fonts, Family: func([]string) (string, bool) { return "Archivo", true }}
	d, err := svg.Read(strings.NewReader(text), o)
	if err != nil {
		return nil, nil, err
	}
	// It lands on the page as large as the picture.
	if o.Page = [2]float64{side / 0.8, side / 0.8}; max(d.Width, d.Height) < side {
		o.Page = [2]float64{side / 0.24, side / 0.24}
	}
	if d, err = svg.Read(strings.NewReader(text), o); err != nil {
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
	f, err := frame.Compile(p, frame.Assets{Fonts: fonts}, nil)
	if err != nil {
		return nil, d, err
	}
	img := image.NewRGBA(image.Rect(0, 0, side, side))
	return img, d, raster.NewPainter(f, nil).Paint(img, f.Player().At(motion.Millis(0), frame.View{Scale: 1}))
}

// byLibrsvg is what librsvg paints of a drawing, over white.
func byLibrsvg(t *testing.T, text string) *image.RGBA {
	t.Helper()
	m := librsvg.Paint(t.Context(), text, side)
	if m == nil {
		t.Fatalf("librsvg cannot paint %.80s", text)
	}
	return m
}

// Icons of four sets look as librsvg paints them; where the two differ, Chromium is asked, too (e2e).
func TestIconsLookAsLibrsvgPaintsThem(t *testing.T) {
	files, err := svgtest.Files(os.DirFS("../../web/node_modules"), 75)
	if err != nil {
		t.Fatal(err)
	}
	var worse []string
	for name, text := range files {
		got, _, err := painted(text)
		if err != nil {
			worse = append(worse, fmt.Sprint(name, ": ", err))
		} else if s := likeness.SSIM(got, byLibrsvg(t, text)); s < 0.98 {
			worse = append(worse, fmt.Sprintf("%s %.3f", name, s))
		}
	}
	slices.Sort(worse)
	t.Logf("%d of %d icons are less alike than 0.98: %v", len(worse), len(files), worse)
	if 50*len(worse) > len(files) {
		t.Errorf("%d of %d icons are less alike than 0.98", len(worse), len(files))
	}
}

// part is one thing that an icon shows.
var part = regexp.MustCompile(`<(path|rect|circle|ellipse|line|polyline|polygon|use)\b[^>]*/>`)

// That is said of pictures that differ: without one of its parts an icon no longer looks as it did, in the box of the part’s ink (in all of a flag a small star
// is nothing).
func TestIconsWithoutAPartLookOtherwise(t *testing.T) {
	files, err := svgtest.Files(os.DirFS("../../web/node_modules"), 75)
	if err != nil {
		t.Fatal(err)
	}
	tried, alike := 0, []string{}
	for name, text := range files {
		parts := part.FindAllStringIndex(text, -1)
		if len(parts) < 2 || tried == 100 {
			continue
		}
		last := parts[len(parts)-1]
		without := text[:last[0]] + text[last[1]:]
		whole := byLibrsvg(t, text)
		box := differing(whole, byLibrsvg(t, without))
		if box.Empty() {
			continue // nobody sees it
		}
		tried++
		if got, _, err := painted(without); err == nil && inkLikeness(got, whole, box) >= 0.98 {
			alike = append(alike, name)
		}
	}
	t.Logf("%d of %d look as before: %v", len(alike), tried, alike)
	if tried < 100 || 20*len(alike) > tried {
		t.Errorf("%d of %d icons look as before without one of their parts", len(alike), tried)
	}
}

// differing is the box of what differs between two pictures.
func differing(a, b *image.RGBA) (box image.Rectangle) {
	for y := range side {
		for x := range side {
			if a.RGBAAt(x, y) != b.RGBAAt(x, y) {
				box = box.Union(image.Rect(x, y, x+1, y+1))
			}
		}
	}
	return box
}

// inkLikeness is how alike two pictures are in a box, in the red, the green or the blue, whichever is least so: brightness alone says nothing of a green star on
// red.
func inkLikeness(a, b *image.RGBA, box image.Rectangle) float64 {
	least := 1.0
	for c := range 3 {
		least = min(least, likeness.SSIM(channel(a, c).SubImage(box).(*image.RGBA), channel(b, c).SubImage(box).(*image.RGBA)))
	}
	return least
}

// channel is one of the three colours of a picture as greys.
func channel(m *image.RGBA, c int) *image.RGBA {
	out := image.NewRGBA(m.Rect)
	for i := 0; i < len(m.Pix); i += 4 {
		v := m.Pix[i+c]
		out.Pix[i], out.Pix[i+1], out.Pix[i+2], out.Pix[i+3] = v, v, v, 255
	}
	return out
}
