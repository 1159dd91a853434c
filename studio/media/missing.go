package media

import (
	"image"
	"image/color"
	"maps"
	"os"
	"path/filepath"
	"slices"

	"capstan/core/words"
)

// Has tells whether a file is there as it came. What was derived from it is derived again where only that is gone.
func (f *Folder) Has(hash string) bool {
	original, err := f.Original(hash)
	if err != nil {
		return false
	}
	if ext := filepath.Ext(original); ext == ".ttf" || ext == ".otf" {
		return true
	}
	if _, err := os.Stat(f.derived(hash, 0)); err == nil {
		return true
	}
	if _, err := f.soundFacts(hash); err == nil {
		return true
	}
	if ext := filepath.Ext(original); slices.ContainsFunc(slices.Collect(maps.Values(recordings)), func(r recording) bool { return r.ext == ext }) {
		return f.soundAgain(hash, original)
	}
	file, err := os.Open(original)
	if err != nil {
		return false
	}
	defer file.Close()
	again, _, err := f.Take(file, "")
	return err == nil && again == hash
}

// PixelsOrSign is Pixels for small views: a picture whose file is missing, or whose mask is not of it, is a sign that says so.
func (f *Folder) PixelsOrSign(hash string, mip int) (*image.RGBA, error) {
	img, err := f.Pixels(hash, mip)
	if words.Is(err, Missing.Key) || words.Is(err, "cutout.size") {
		return missingSign(), nil
	}
	return img, err
}

// missingSign is a paper-coloured plate with a coral frame and cross; the page draws the same.
func missingSign() *image.RGBA {
	const n = 64
	paper, coral := color.RGBA{0xEF, 0xE9, 0xDC, 0xFF}, color.RGBA{0xAE, 0x3B, 0x21, 0xFF}
	img := image.NewRGBA(image.Rect(0, 0, n, n))
	for y := range n {
		for x := range n {
			c := paper
			if x < 2 || y < 2 || x >= n-2 || y >= n-2 || abs(x-y) < 2 || abs(x+y-n+1) < 2 {
				c = coral
			}
			img.SetRGBA(x, y, c)
		}
	}
	return img
}

func abs(v int) int { return max(v, -v) }
