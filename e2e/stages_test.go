package e2e

import (
	"bytes"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/core/doc"
	"capstan/demo"
	"capstan/e2e/browser"
	"capstan/studio/media"
)

// A stage is kept, looked at beside what the project is now, and returned to; that is a step like any other.
func TestAStageIsReturnedTo(t *testing.T) {
	p := sit(t, startStudio(t))
	p.bring(plain(), media.NewFolder(t.TempDir()))
	p.pressWord("Stages")
	p.wait(`document.body.innerText.includes('No stages yet')`)
	p.do(chromedp.KeyEvent("upright sail" + kb.Enter))
	p.wait(`document.querySelector('[data-stage="upright sail"]')`)
	p.key(kb.Escape)
	p.click(160, 120)
	p.set("Turn", "45")
	p.set("Opacity", "50")
	p.settled()
	now := p.colourAt(160, 120)
	p.pressWord("Stages")
	// Side by side: the sail is whole in the one and half clear in the other.
	p.wait(`document.querySelector('figure img')?.naturalWidth > 0 && document.querySelector('figure canvas')`)
	sides := browser.Eval[[]int](t, p.ctx, `(() => {
		const at = (e, w, h) => { const c = document.createElement('canvas'); c.width = w; c.height = h; const x = c.getContext('2d'); x.drawImage(e, 0, 0, w, h); return x.getImageData(w / 2, h / 2, 1, 1).data[1] }
		return [at(document.querySelector('figure img'), 320, 240), at(document.querySelector('figure canvas'), 320, 240)]
	})()`)
	if sides[0] != 0x57 || sides[1] < 0xA0 {
		t.Errorf("green in the middle: stage %d, now %d", sides[0], sides[1])
	}
	p.pressWord("Return to this stage")
	p.settled()
	if c := p.colourAt(160, 120); c.G != 0x57 {
		t.Errorf("returned, the sail is %v", c)
	}
	p.undo()
	if c := p.colourAt(160, 120); c != now {
		t.Errorf("undone, the sail is %v, was %v", c, now)
	}
	p.pressWord("Stages")
	p.pressWord("Open as a project of its own")
	p.wait(`document.title.startsWith('Plain, upright sail')`)
	p.settled()
	if c := p.colourAt(160, 120); c.G != 0x57 {
		t.Errorf("as a project of its own: %v", c)
	}
}

// A picture whose file has gone says so where it is, and another takes its place everywhere.
func TestAMissingPictureIsReplaced(t *testing.T) {
	s := startStudio(t)
	p := sit(t, s)
	files := media.NewFolder(t.TempDir())
	project := plain()
	sky, err := os.Create(filepath.Join(t.TempDir(), "sky.jpg"))
	if err != nil {
		t.Fatal(err)
	}
	if _, err := sky.Write(demo.Sky()); err != nil {
		t.Fatal(err)
	}
	sky.Seek(0, 0)
	hash, facts, err := files.Take(sky, "sky.jpg")
	if err != nil {
		t.Fatal(err)
	}
	project.Media = map[string]*doc.Media{hash: facts}
	l := project.Film.Scenes[0].Layers[0]
	l.Kind, l.Fill, l.Picture = doc.Picture, doc.Fill{Kind: doc.NoFill}, &doc.PictureUse{Media: hash}
	id := p.bring(project, files)
	whole := p.colourAt(160, 120)
	for _, f := range []string{hash, hash + ".jpg"} {
		if err := os.RemoveAll(filepath.Join(s.dir, "media", f)); err != nil {
			t.Fatal(err)
		}
	}
	q := sit(t, s)
	q.open("/p/" + id)
	q.wait(`document.querySelector('[data-notice=failed]')?.innerText.includes('The file of this picture is missing')`)
	q.settled()
	if c := q.colourAt(160, 120); !alike(c, q.colourAt(81, 120), 2) || c.R < 0x90 || c.G > 0x80 {
		t.Errorf("it shows %v, no sign", c)
	}
	q.click(160, 100)
	q.wait(`[...document.querySelectorAll('[role=alert]')].some(e => e.innerText.includes('Replace it here'))`)
	q.shot("picture-missing")
	q.do(chromedp.SetUploadFiles(`[data-replace-input]`, []string{sky.Name()}))
	q.wait(`![...document.querySelectorAll('[role=alert]')].some(e => e.innerText.includes('Replace it here'))`)
	q.settled()
	if c := q.colourAt(160, 120); !alike(c, whole, 2) {
		t.Errorf("its file is back and shows %v, was %v", c, whole)
	}
	// Another file in its place: proportions differ, so it fits into the old box.
	other := filepath.Join(t.TempDir(), "flag.png")
	if err := os.WriteFile(other, pngFile(t, 40, 40), 0o644); err != nil {
		t.Fatal(err)
	}
	q.do(chromedp.SetUploadFiles(`[data-replace-input]`, []string{other}))
	q.wait(`Number(document.documentElement.dataset.revision) > 0`)
	q.settled()
	if w, h := q.number("Wide"), q.number("High"); w != 120 || h != 120 {
		t.Errorf("the square is %v by %v", w, h)
	}
}

func pngFile(t *testing.T, w, h int) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := png.Encode(&b, image.NewGray(image.Rect(0, 0, w, h))); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}
