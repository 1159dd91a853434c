package cutout

import (
	"encoding/json"
	"fmt"
	"image"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"capstan/core/doc"
)

// The same pictures, a rectangle around each subject: what is found is no worse than by OpenCV's grabCut on the mean, and never worse by more than 0.05
// (intersection over union).
func TestASubjectInARectangleIsFoundAsByOpenCV(t *testing.T) {
	list := composites(320, 240, false)
	photos, _ := photographs(t)
	for n, k := range []int{0, 1, 5, 0, 1, 5, 0, 5} {
		list = append(list, over(halved(photos[n%len(photos)]), k, rand.New(rand.NewPCG(uint64(n), 45))))
	}
	dir := t.TempDir()
	type asked struct {
		W    int    `json:"w"`
		H    int    `json:"h"`
		Rect [4]int `json:"rect"`
	}
	var all []asked
	for n, c := range list {
		w, h := c.img.Rect.Dx(), c.img.Rect.Dy()
		box := image.Rectangle{}
		for i, v := range c.cover {
			if v > 0.5 {
				box = box.Union(image.Rect(i%w, i/w, i%w+1, i/w+1))
			}
		}
		box = box.Inset(-6).Intersect(image.Rect(1, 1, w-1, h-1))
		all = append(all, asked{w, h, [4]int{box.Min.X, box.Min.Y, box.Dx(), box.Dy()}})
		if err := os.WriteFile(filepath.Join(dir, fmt.Sprint(n, ".rgba")), c.img.Pix, 0o600); err != nil {
			t.Fatal(err)
		}
	}
	raw, _ := json.Marshal(all)
	if err := os.WriteFile(filepath.Join(dir, "list.json"), raw, 0o600); err != nil {
		t.Fatal(err)
	}
	module, _ := filepath.Abs("../../web/node_modules/@techstark/opencv-js")
	if out, err := exec.Command("node", "testdata/grabcut.cjs", module, dir).CombinedOutput(); err != nil {
		t.Fatalf("%v: %s", err, out)
	}
	ours, theirs := 0.0, 0.0
	for n, c := range list {
		mask, err := os.ReadFile(filepath.Join(dir, fmt.Sprint(n, ".mask")))
		if err != nil {
			t.Fatal(err)
		}
		img := image.NewGray(c.img.Rect)
		for i, v := range mask {
			img.Pix[i] = 255 * v
		}
		r := all[n].Rect
		got, _, err := NewSource(c.img).Mask(&doc.Cutout{Strokes: []doc.CutStroke{{How: doc.CutWithin, Form: "box", Points: [][2]float64{{float64(r[0]), float64(r[1])}, {float64(r[0] + r[2]), float64(r[1] + r[3])}}}}})
		if err != nil {
			t.Fatal(err)
		}
		a, _, _ := c.off(got)
		b, _, _ := c.off(img)
		ours, theirs = ours+a/float64(len(list)), theirs+b/float64(len(list))
		t.Logf("%-16s %.3f, OpenCV %.3f", c.name, a, b)
		if a < b-0.05 {
			t.Errorf("%s: %.3f, OpenCV %.3f", c.name, a, b)
		}
	}
	t.Logf("on the mean %.3f, OpenCV %.3f", ours, theirs)
	if ours < theirs {
		t.Errorf("on the mean %.3f, OpenCV %.3f", ours, theirs)
	}
}
