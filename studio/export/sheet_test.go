package export_test

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/png"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/library"
	"capstan/studio/export"
)

// many is a film of n scenes, each of a colour of its own, the second with two cues.
func many(t *testing.T, n, w, h int) *frame.Film {
	t.Helper()
	p := doc.NewProject("p", "Ärmel & <co>", w, h, "s")
	p.Film.Scenes = nil
	for i := range n {
		s := doc.NewScene(fmt.Sprint("s", i), fmt.Sprint("Scene 名 ", i))
		s.Stay, s.Background = 1000+int64(i), doc.Fill{Kind: doc.Solid, Colour: colourOf(i)}
		p.Film.Scenes = append(p.Film.Scenes, s)
	}
	if n > 1 {
		p.Film.Scenes[1].Cues = []doc.Cue{{ID: "a", Name: "Lift", At: 300, Wait: 500}, {ID: "b", Name: "Drop", At: 700}}
	}
	fonts, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	f, err := frame.Compile(p, frame.Assets{Fonts: fonts}, nil)
	if err != nil {
		t.Fatal(err)
	}
	return f
}

func colourOf(i int) string { return fmt.Sprintf("#%02x%02x%02x", 40+i*7%200, 200-i*11%180, i*23%250) }

// Sheets read back by Poppler, and by the standard library: each scene where it was laid, as many pages as it takes, the same bytes again.
func TestSheetsShowAllScenes(t *testing.T) {
	for _, of := range []struct{ n, w, h, pages int }{{1, 1920, 1080, 1}, {14, 1920, 1080, 3}, {14, 1080, 1920, 2}, {8, 600, 600, 1}, {3, 400, 3000, 1}} {
		f, dir := many(t, of.n, of.w, of.h), t.TempDir()
		make := func(format, name string) (string, delivery.Plan) {
			plan, err := delivery.Of(f, delivery.Ask{Format: format})
			if err != nil {
				t.Fatal(err)
			}
			file := filepath.Join(dir, name)
			if err := export.Make(context.Background(), f, nil, plan, file, func(int64, int64) {}); err != nil {
				t.Fatal(err)
			}
			return file, plan
		}
		pdf, _ := make(delivery.SheetPDF, "a.pdf")
		again, _ := make(delivery.SheetPDF, "b.pdf")
		a, b := read(t, pdf), read(t, again)
		if !bytes.Equal(a, b) {
			t.Errorf("%v: the second time it is another", of)
		}
		info, err := exec.Command("pdfinfo", pdf).CombinedOutput()
		if err != nil || !strings.Contains(string(info), fmt.Sprintf("Pages:           %d\n", of.pages)) || !strings.Contains(string(info), "(A4)") || !strings.Contains(string(info), "Ärmel & <co>") {
			t.Errorf("%v: %v %s", of, err, info)
		}
		if out, err := exec.Command("pdftoppm", "-r", "72", "-png", pdf, filepath.Join(dir, "page")).CombinedOutput(); err != nil {
			t.Fatalf("%v %s", err, out)
		}
		sheets, err := delivery.Sheets(f, false)
		if err != nil || len(sheets) != of.pages {
			t.Fatalf("%v: %d sheets, %v", of, len(sheets), err)
		}
		for k, s := range sheets {
			shown(t, filepath.Join(dir, fmt.Sprintf("page-%d.png", k+1)), s.Cells, 1)
		}
		file, plan := make(delivery.SheetPNG, "a.png")
		long, err := delivery.Sheets(f, true)
		if err != nil || len(long) != 1 || len(long[0].Cells) != of.n {
			t.Fatalf("%v: %d, %v", of, len(long), err)
		}
		shown(t, file, long[0].Cells, float64(plan.Width)/delivery.SheetWidth)
	}
}

func read(t *testing.T, file string) []byte {
	t.Helper()
	raw, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	return raw
}

// shown holds the middle and the corners of each cell to the colour of its scene.
func shown(t *testing.T, file string, cells []delivery.SheetCell, k float64) {
	t.Helper()
	img, err := png.Decode(bytes.NewReader(read(t, file)))
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range cells {
		var want [3]int
		if _, err := fmt.Sscanf(colourOf(c.Scene), "#%02x%02x%02x", &want[0], &want[1], &want[2]); err != nil {
			t.Fatal(err)
		}
		for _, q := range append([]image.Point{}, at(c, 0.5, 0.5, k), at(c, 0.1, 0.1, k), at(c, 0.9, 0.9, k)) {
			r, g, b, _ := img.At(q.X, q.Y).RGBA()
			for i, v := range []uint32{r, g, b} {
				if d := int(v>>8) - want[i]; d > 4 || d < -4 {
					t.Fatalf("%s: scene %d is %d %d %d at %v, not %v", file, c.Scene, r>>8, g>>8, b>>8, q, want)
				}
			}
		}
	}
}

func at(c delivery.SheetCell, x, y, k float64) image.Point {
	return image.Pt(int((c.Box.Min.X+c.Box.W()*x)*k), int((c.Box.Min.Y+c.Box.H()*y)*k))
}

// Stills of all cues are one file of each, of the moment at which a presenter is waited for.
func TestStillsOfCues(t *testing.T) {
	f := many(t, 3, 640, 360)
	asks, err := delivery.Each(f, delivery.Ask{Format: delivery.PNG, Cues: true})
	if err != nil || len(asks) != 2 {
		t.Fatalf("%d, %v", len(asks), err)
	}
	begins := f.Order.Starts[1] + f.Order.Into[1]
	for i, want := range []int64{begins + 300, begins + 1200} {
		p, err := delivery.Of(f, asks[i])
		if err != nil || p.From != want || p.Scene != 0 || !strings.HasSuffix(p.SceneName, []string{"-Lift", "-Drop"}[i]) {
			t.Errorf("cue %d is at %d (%s), %v; want %d", i+1, p.From, p.SceneName, err, want)
		}
	}
	if _, err := delivery.Each(many(t, 1, 640, 360), delivery.Ask{Format: delivery.PNG, Cues: true}); err == nil {
		t.Error("a film without cues has stills of them")
	}
	if _, err := delivery.Of(f, delivery.Ask{Format: delivery.PNG, Scene: 2, Cue: 3}); err == nil {
		t.Error("a third cue of two")
	}
}
