package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/likeness"
	"capstan/core/svg"
	"capstan/demo"
	"capstan/library"
	"capstan/studio/export"
	"capstan/studio/media"
)

// resting is a scene of a film at rest, over white.
func (b both) resting(t *testing.T, scene int) *image.RGBA {
	return b.paint(t, b.film.Player().AtRest(scene, frame.View{Scale: 1}), color.RGBA{255, 255, 255, 255}, geom.Identity)
}

// back reads a drawing as a scene of its own.
func back(t *testing.T, text string, w, h int, files *media.Folder) both {
	t.Helper()
	n := 0
	p := doc.NewProject("back", "Back", w, h, "s")
	p.Media = map[string]*doc.Media{}
	fonts, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	d, err := svg.Read(strings.NewReader(text), svg.Options{
		Fonts: fonts, Family: func(names []string) (string, bool) { return names[0], true },
		ID: func() string { n++; return fmt.Sprint("b", n) },
		Picture: func(address string) (string, int, int, error) {
			raw, err := media.InAddress(address)
			if err != nil {
				return "", 0, 0, err
			}
			hash, m, err := files.Take(bytes.NewReader(raw), "picture")
			if err != nil {
				return "", 0, 0, err
			}
			p.Media[hash] = m
			return hash, m.Width, m.Height, nil
		},
	})
	if err != nil {
		t.Fatal(err)
	}
	if len(d.Lost) > 0 {
		t.Logf("lost %v", d.Lost)
	}
	d.Group.Place.X, d.Group.Place.Y = float64(w)/2, float64(h)/2
	p.Film.Scenes[0].Background = doc.Fill{Kind: doc.NoFill}
	p.Film.Scenes[0].Layers = []*doc.Layer{d.Group}
	return compileFor(t, p, files)
}

// Every scene of the demo goes out as SVG, which Chromium shows as the page does; and comes back in as layers that show the same.
func TestScenesGoOutAsSVGAndComeBack(t *testing.T) {
	t.Parallel()
	files := media.NewFolder(t.TempDir())
	sky, facts, err := files.Take(bytes.NewReader(demo.Sky()), "sky.jpg")
	if err != nil {
		t.Fatal(err)
	}
	harbour, of, err := files.Take(bytes.NewReader(demo.Harbour()), "harbour.jpg")
	if err != nil {
		t.Fatal(err)
	}
	p, n := showPieces(t), 0
	for _, project := range []*doc.Project{demo.Opener(sky, facts), demo.Reel(), demo.Post(), demo.Talk(), demo.Sticker(), demo.Drawings(), demo.Evening(harbour, of)} {
		b := compileFor(t, project, files)
		w, h := project.Film.Width, project.Film.Height
		p.show("blank.html", w, h)
		for i, s := range project.Film.Scenes {
			name := project.Name + ", " + s.Name
			text, err := export.Drawing(t.Context(), b.film, files.Pixels, export.Sketch{Scene: i})
			if err != nil {
				t.Errorf("%s: %v", name, err)
				continue
			}
			want := b.resting(t, i)
			n++
			n++
			got, again := p.standing(text, float64(n)), back(t, text, w, h, files).resting(t, 0)
			if a, b := likeness.SSIM(got, want), likeness.SSIM(again, want); a < 0.99 || b < 0.99 {
				t.Errorf("%s: Chromium shows SSIM %.4f, back it is %.4f", name, a, b)
				keepPair(t, fmt.Sprint(project.ID, "-", i), got, want)
				keepPair(t, fmt.Sprint(project.ID, "-", i, "-back"), again, want)
			}
			if text, err = export.Drawing(t.Context(), b.film, files.Pixels, export.Sketch{Scene: i, Words: true}); err != nil {
				t.Fatal(err)
			}
			if s := likeness.SSIM(back(t, text, w, h, files).resting(t, 0), want); s < 0.99 {
				t.Errorf("%s: with its texts as words, back it is SSIM %.4f", name, s)
			}
		}
	}
}
