package e2e

import (
	"time"
	"bytes"
	"testing"

	"github.com/chromedp/chromedp"

	"capstan/core/doc"
	"capstan/demo"
	"capstan/studio/media"
)

func TestZZ(t *testing.T) {
	files := media.NewFolder(t.TempDir())
	sky, facts, err := files.Take(bytes.NewReader(demo.Sky()), "sky.jpg")
	if err != nil {
		t.Fatal(err)
	}
	d := doc.NewProject("zz", "Harbour", 1280, 720, "a")
	d.Media = map[string]*doc.Media{sky: facts}
	d.Film.Scenes[0].Layers = []*doc.Layer{{ID: "p", Thread: "p", Name: "Sky", Kind: doc.Picture, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 640, Y: 360, W: 800, H: 450}, Picture: &doc.PictureUse{Media: sky}}}
	p := sit(t, startStudio(t))
	p.bring(d, files)
	p.click(640, 360)
	p.settled()
	p.do(chromedp.MouseClickXY(at2(p, 640, 360)), chromedp.Sleep(600*time.Millisecond))
	x, y := p.at(640, 360)
	p.do(chromedp.MouseClickXY(x, y, chromedp.ClickCount(2)))
	p.settled()
	p.wait(`document.querySelector('[data-crop-frame]')`)
	p.shot("crop0")
	p.drag(1040, 585, 900, 480)
	p.settled()
	p.shot("crop1")
	p.drag(600, 300, 500, 260)
	p.settled()
	p.set("How far it is turned in its frame", "12")
	p.settled()
	p.shot("crop2")
	p.press(`[data-fold=Adjust]`)
	p.set("Contrast", "60")
	p.choose("How it is toned", "2")
	p.settled()
	p.shot("adjust")
}

func at2(p *person, x, y float64) (float64, float64) { return p.at(x, y) }
