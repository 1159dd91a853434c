package e2e

import (
	"bytes"
	"testing"

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
	p.press(`[data-fold=Adjust]`)
	p.settled()
	p.set("Contrast", "60")
	p.set("Warmth", "80")
	p.choose("How it is toned", "2")
	p.settled()
	p.shot("adjust")
}
