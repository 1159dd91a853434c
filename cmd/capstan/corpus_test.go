package main

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"flag"
	"image"
	"os"
	"path/filepath"
	"runtime"
	"testing"

	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/raster"
)

var rewrite = flag.Bool("rewrite", false, "write the frames of the corpus anew: where they are meant to differ, and CHANGELOG.md says so")

// Bundles that were written when the format and the painter had been settled (November 2026) open to the same pictures byte for byte: their
// scenes at rest, and forty times of their films.
func TestWhatWasStoredLooksAsItDid(t *testing.T) {
	if runtime.GOARCH != "amd64" {
		t.Skip("other machines may round sums of products otherwise")
	}
	const kept = "testdata/corpus/frames.json"
	var want map[string][]string
	if raw, err := os.ReadFile(kept); err != nil || json.Unmarshal(raw, &want) != nil {
		if !*rewrite {
			t.Fatal(kept, " cannot be read: ", err)
		}
	}
	list, err := filepath.Glob("testdata/corpus/*.capstan")
	if err != nil || len(list) < 5 {
		t.Fatalf("%d bundles: %v", len(list), err)
	}
	is := map[string][]string{}
	for _, file := range list {
		name := filepath.Base(file)
		is[name] = framesOf(t, file)
		for i, hash := range is[name] {
			if i >= len(want[name]) || want[name][i] != hash {
				if !*rewrite {
					t.Errorf("%s: picture %d of %d is another one", name, i, len(is[name]))
				}
			}
		}
	}
	if *rewrite {
		raw, err := json.MarshalIndent(is, "", " ")
		if err == nil {
			err = os.WriteFile(kept, append(raw, '\n'), 0o644)
		}
		if err != nil {
			t.Fatal(err)
		}
	}
}

func framesOf(t *testing.T, file string) (hashes []string) {
	o, err := open(file, "")
	if err != nil {
		t.Fatal(file, err)
	}
	defer o.close()
	// A third of the page is enough to tell: times rather than pixels.
	w, h := (o.project.Film.Width+2)/3, (o.project.Film.Height+2)/3
	if o.project.Film.Width < 500 {
		w, h = o.project.Film.Width, o.project.Film.Height
	}
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	player, painter := o.film.Player(), raster.NewPainter(o.film, o.files.Pixels)
	view := frame.View{Scale: float64(w) / float64(o.project.Film.Width)}
	take := func(list *frame.List) {
		if err := painter.Paint(img, list); err != nil {
			t.Fatal(file, err)
		}
		sum := sha256.Sum256(img.Pix)
		hashes = append(hashes, hex.EncodeToString(sum[:8]))
	}
	for i := range o.project.Film.Scenes {
		take(player.AtRest(i, view))
	}
	for k := range int64(40) {
		take(player.At(motion.Millis(k*o.film.Order.Length/40), view))
	}
	return hashes
}
