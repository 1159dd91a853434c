package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"

	"capstan/core/doc"
	"capstan/demo/fonttest"
	"capstan/studio/media"
)

// A person's own font is added by its file, sets the words as it looks, stays with the project, and is asked for when its file is gone.
func TestAFontOfOnesOwnIsAddedAndUsed(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	project := motto()
	project.Film.Scenes[0].Layers[0].Text.Runs[0] = doc.Run{Text: "KITE DAY", Family: "Bungee", Weight: 400, Size: 60}
	p.bring(project, media.NewFolder(t.TempDir()))
	p.click(320, 190)
	p.settled()
	like := p.page(640, 400)
	p.press(`[aria-label^="Family:"]`)
	p.press(`[data-family="Archivo"]`)
	p.settled()
	dir := t.TempDir()
	file, broken := filepath.Join(dir, "quill.ttf"), filepath.Join(dir, "broken.ttf")
	data := fonttest.Quill(t, 0)
	for name, b := range map[string][]byte{file: data, broken: data[:len(data)/3]} {
		if err := os.WriteFile(name, b, 0o644); err != nil {
			t.Fatal(err)
		}
	}
	p.do(chromedp.SetUploadFiles(`[data-font-input]`, []string{broken}))
	p.wait(`document.body.innerText.includes('This font file is damaged')`)
	p.do(chromedp.SetUploadFiles(`[data-font-input]`, []string{file}))
	p.wait(`document.querySelector('[aria-label^="Family:"]').innerText.includes('Quilly')`)
	p.settled()
	if n := differing(like, p.page(640, 400), 0); n > 0 {
		t.Errorf("%d pixels are not as the same letters make them", n)
	}
	p.press(`[aria-label^="Family:"]`)
	p.wait(`getComputedStyle(document.querySelector('[data-family="Quilly"] span:last-child')).fontFamily.includes('Quilly')`)
	p.key("\x1b")
	p.do(chromedp.Reload())
	p.wait(`document.documentElement.dataset.painted`)
	if n := differing(like, p.page(640, 400), 0); n > 0 {
		t.Errorf("loaded again, %d pixels differ", n)
	}
	// Elsewhere, where its file may not go along.
	const hash = "bbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbb"
	project.Media = map[string]*doc.Media{hash: {Name: "q.ttf", Type: "font/ttf", Family: "Plumey", Weight: 400, Stays: true}}
	project.Film.Scenes[0].Layers[0].Text.Runs[0].Family = "Plumey"
	p.bring(project, media.NewFolder(t.TempDir()))
	p.wait(`document.body.innerText.includes('The font file of “Plumey” is missing')`)
}
