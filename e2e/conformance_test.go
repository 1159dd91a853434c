package e2e

import (
	"bytes"
	"encoding/base64"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"io"
	"math"
	"net/http"
	"os"
	"path/filepath"
	"sort"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/demo"
	"capstan/e2e/browser"
	"capstan/library"
	"capstan/studio/bundle"
	"capstan/studio/media"
)

// item is one thing to paint, alone in a scene of its own.
type item struct {
	name  string
	layer *doc.Layer
	flat  bool // has inner areas of one colour
}

func shapeItem(name, kind string, w, h, turn float64, more func(l *doc.Layer)) item {
	l := &doc.Layer{Kind: kind, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"}, Place: doc.Place{X: 160.3, Y: 120.7, W: w, H: h, Turn: turn}}
	if more != nil {
		more(l)
	}
	return item{name, l, kind != doc.Picture}
}

func conformanceItems(sky string) []item {
	text := func(words, family string, weight int, size, turn float64) item {
		return shapeItem(fmt.Sprintf("%s in %s %v px", words, family, size), doc.TextKind, 0, 0, turn, func(l *doc.Layer) {
			l.Text = &doc.Text{Align: doc.Centre, Runs: []doc.Run{{Text: words, Family: family, Weight: weight, Size: size}}}
			l.Place.Y -= size / 2
		})
	}
	path := func(name, d string, turn float64) item {
		return shapeItem(name, doc.PathKind, 0, 0, turn, func(l *doc.Layer) { l.Path = d })
	}
	picture := func(name string, w, h, turn float64, more func(l *doc.Layer)) item {
		return shapeItem(name, doc.Picture, w, h, turn, func(l *doc.Layer) {
			l.Fill, l.Picture = doc.Fill{Kind: doc.NoFill}, &doc.PictureUse{Media: sky}
			if more != nil {
				more(l)
			}
		})
	}
	return []item{
		shapeItem("rectangle on odd numbers", doc.Rectangle, 121.37, 77.91, 0, nil),
		shapeItem("rectangle turned", doc.Rectangle, 140, 60, 33, nil),
		shapeItem("rounded rectangle", doc.Rectangle, 150, 90, 12, func(l *doc.Layer) { l.Corner = 22 }),
		shapeItem("see-through rectangle", doc.Rectangle, 120, 80, 0, func(l *doc.Layer) { l.Fill.Colour = "#3f7f8680" }),
		shapeItem("faint rectangle", doc.Rectangle, 120, 80, 5, func(l *doc.Layer) { l.Opacity = 0.27 }),
		shapeItem("ellipse", doc.Ellipse, 170.5, 90.25, 0, nil),
		shapeItem("ellipse turned", doc.Ellipse, 170, 50, 61, nil),
		shapeItem("small ellipse", doc.Ellipse, 5, 5, 0, nil),
		shapeItem("hairline", doc.Rectangle, 200, 0.6, 7, nil),
		shapeItem("larger than the page", doc.Ellipse, 900, 700, 20, nil),
		path("star with a hole", "M0 -90L26 -28L90 -28L38 14L56 80L0 40L-56 80L-38 14L-90 -28L-26 -28ZM-14 -10L-14 14L14 14L14 -10Z", 9),
		path("curves that cross themselves", "M-90 40C-60 -140 60 140 90 -40C60 120 -60 -120 -90 40Z", 0),
		text("Kite Day", "Shrikhand", 400, 64, 0),
		text("Fennel Quay", "Fredoka", 500, 41, -11),
		text("at ten o’clock", "Archivo", 400, 17, 0),
		picture("picture smaller", 214.7, 120.8, 0, nil),
		picture("picture turned", 180, 101, 27, nil),
		picture("picture larger", 2400, 1350, 0, nil),
		picture("part of a picture", 150, 90, 0, func(l *doc.Layer) { l.Picture.Crop = &[4]float64{0.25, 0.1, 0.75, 0.6} }),
		picture("faint picture", 150, 90, 14, func(l *doc.Layer) { l.Opacity = 0.5 }),
		shapeItem("group that fades as a whole", doc.Group, 0, 0, 8, func(l *doc.Layer) {
			a := shapeItem("", doc.Rectangle, 90, 60, 0, nil).layer
			b := shapeItem("", doc.Ellipse, 90, 90, 0, func(l *doc.Layer) { l.Fill.Colour = "#17403c" }).layer
			a.Place.X, a.Place.Y, b.Place.X, b.Place.Y = -20, -10, 30, 20
			a.ID, a.Thread, b.ID, b.Thread = "ga", "ga", "gb", "gb"
			l.Fill, l.Opacity, l.Children = doc.Fill{Kind: doc.NoFill}, 0.6, []*doc.Layer{a, b}
		}),
	}
}

// conformance is the project that both painters paint: a scene an item, on no background.
func conformance(items []item, sky string, facts *doc.Media) *doc.Project {
	p := doc.NewProject("conformance", "Conformance", 320, 240, "c0")
	p.Media = map[string]*doc.Media{sky: facts}
	p.Film.Scenes = nil
	for i, it := range items {
		s := doc.NewScene(fmt.Sprintf("c%d", i), it.name)
		s.Background = doc.Fill{Kind: doc.NoFill}
		it.layer.ID, it.layer.Thread, it.layer.Name = fmt.Sprintf("i%d", i), fmt.Sprintf("i%d", i), it.name
		s.Layers = []*doc.Layer{it.layer}
		p.Film.Scenes = append(p.Film.Scenes, s)
	}
	return p
}

// difference is what references.md measures on an item's own painted box.
type difference struct {
	mean, p999, max float64
	flat            float64 // worst in inner areas of one colour
}

func (d difference) ok(it item) bool {
	return d.mean <= 1.5 && d.p999 <= 32 && d.max <= 56 && (!it.flat || d.flat <= 1)
}

func compare(a, b *image.RGBA, box image.Rectangle) difference {
	var all []float64
	var d difference
	box = box.Intersect(a.Rect)
	for y := box.Min.Y; y < box.Max.Y; y++ {
		for x := box.Min.X; x < box.Max.X; x++ {
			for k := 0; k < 3; k++ {
				v := math.Abs(float64(a.Pix[a.PixOffset(x, y)+k]) - float64(b.Pix[b.PixOffset(x, y)+k]))
				all = append(all, v)
				d.mean += v
				d.max = max(d.max, v)
				if inner(a, x, y) {
					d.flat = max(d.flat, v)
				}
			}
		}
	}
	if len(all) == 0 {
		return difference{mean: 255}
	}
	d.mean /= float64(len(all))
	sort.Float64s(all)
	d.p999 = all[min(len(all)-1, len(all)*999/1000)]
	return d
}

// inner reports whether all neighbours of a pixel are as it is.
func inner(m *image.RGBA, x, y int) bool {
	if !(image.Point{X: x - 1, Y: y - 1}).In(m.Rect) || !(image.Point{X: x + 1, Y: y + 1}).In(m.Rect) {
		return false
	}
	c := m.RGBAAt(x, y)
	for dy := -1; dy <= 1; dy++ {
		for dx := -1; dx <= 1; dx++ {
			if m.RGBAAt(x+dx, y+dy) != c {
				return false
			}
		}
	}
	return true
}

// both is a film with its pictures, painted by the rasteriser.
type both struct {
	film  *frame.Film
	files *media.Folder
}

func (b both) paint(t *testing.T, l *frame.List, ground color.RGBA, view geom.Matrix) *image.RGBA {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, b.film.Doc.Film.Width, b.film.Doc.Film.Height))
	draw.Draw(img, img.Rect, image.NewUniform(ground), image.Point{}, draw.Src)
	if err := raster.NewPainter(b.film, b.files.Pixels).PaintView(img, l, view); err != nil {
		t.Fatal(err)
	}
	return img
}

func (p *person) pixels(scene int, atMs float64, rest bool, w, h int, ground string) *image.RGBA {
	p.t.Helper()
	raw := browser.Eval[string](p.t, p.ctx, fmt.Sprintf(`capstanProbe.pixels({rest: %v, scene: %d, time: %v}, %d, %d, %q)`, rest, scene, atMs, w, h, ground))
	data, err := base64.StdEncoding.DecodeString(raw)
	if err != nil {
		p.t.Fatal(err)
	}
	return &image.RGBA{Pix: data, Stride: 4 * w, Rect: image.Rect(0, 0, w, h)}
}

// bring imports a project into the running studio by its API and opens it.
func (p *person) bring(project *doc.Project, files *media.Folder) string {
	p.t.Helper()
	var b bytes.Buffer
	if err := bundle.Write(&b, project, files); err != nil {
		p.t.Fatal(err)
	}
	token, err := os.ReadFile(filepath.Join(p.s.dir, "session"))
	if err != nil {
		p.t.Fatal(err)
	}
	r, _ := http.NewRequest("POST", p.s.url+"/api/bundles", &b)
	r.AddCookie(&http.Cookie{Name: "capstan-session", Value: string(token)})
	resp, err := http.DefaultClient.Do(r)
	if err != nil {
		p.t.Fatal(err)
	}
	defer resp.Body.Close()
	raw, _ := io.ReadAll(resp.Body)
	var row struct{ ID string }
	if err := json.Unmarshal(raw, &row); err != nil || resp.StatusCode != 201 {
		p.t.Fatalf("%d %s", resp.StatusCode, raw)
	}
	p.open("/p/" + row.ID)
	p.settled()
	return row.ID
}

func compileFor(t *testing.T, p *doc.Project, files *media.Folder) both {
	t.Helper()
	if err := p.Validate(); err != nil {
		t.Fatal(err)
	}
	b, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	f, err := frame.Compile(p, frame.Assets{Fonts: b}, nil)
	if err != nil {
		t.Fatal(err)
	}
	return both{f, files}
}

// Both painters paint each item alike on its own box, over black and over white; and each control that is wrong on purpose
// is told from it.
func TestPageAndFilePaintAlike(t *testing.T) {
	files := media.NewFolder(t.TempDir())
	sky, facts, err := files.Take(bytes.NewReader(demo.Sky()), "sky.jpg")
	if err != nil {
		t.Fatal(err)
	}
	items := conformanceItems(sky)
	project := conformance(items, sky, facts)
	b := compileFor(t, project, files)
	p := sit(t, startStudio(t))
	p.bring(project, files)
	player := b.film.Player()
	controls := 0
	for i, it := range items {
		for _, g := range []struct {
			css    string
			colour color.RGBA
		}{{"#000", color.RGBA{0, 0, 0, 255}}, {"#fff", color.RGBA{255, 255, 255, 255}}} {
			page := p.pixels(i, 0, true, 320, 240, g.css)
			list := player.AtRest(i, frame.View{Scale: 1})
			file := b.paint(t, list, g.colour, geom.Identity)
			q, _, _ := player.Quad(it.layer.ID)
			e := geom.EmptyBox()
			for _, c := range q {
				e = e.Include(c)
			}
			box := image.Rect(int(e.Min.X)-2, int(e.Min.Y)-2, int(e.Max.X)+3, int(e.Max.Y)+3)
			if it.layer.Kind == doc.TextKind {
				box = box.Inset(-8)
			}
			d := compare(page, file, box)
			if !d.ok(it) {
				t.Errorf("%s over %s: mean %.2f, 99.9th percentile %.0f, worst %.0f, flat %.0f", it.name, g.css, d.mean, d.p999, d.max, d.flat)
			}
			// Half a pixel off must be told. What covers all of its box, or is smooth, has no edge to show it.
			if d := compare(page, b.paint(t, list, g.colour, geom.Translate(geom.Point{X: 0.5, Y: 0.5})), box); it.flat && it.layer.Opacity == 1 && it.name != "larger than the page" && g.css == "#000" {
				controls++
				if d.ok(it) {
					t.Errorf("%s half a pixel off passes: mean %.2f, 99.9th percentile %.0f, worst %.0f", it.name, d.mean, d.p999, d.max)
				}
			}
			if it.layer.Kind == doc.Group {
				for name, wrong := range wrongGroups(it.layer) {
					controls++
					if d := compare(page, b.paint(t, wrongList(t, project, i, wrong), g.colour, geom.Identity), box); d.ok(it) {
						t.Errorf("a group with %s passes: mean %.2f, worst %.0f", name, d.mean, d.max)
					}
				}
			}
		}
	}
	if controls < 16 {
		t.Errorf("only %d controls", controls)
	}
}

// wrongGroups are ways to get a group wrong: its layers exchanged, or each faded by itself.
func wrongGroups(g *doc.Layer) map[string]*doc.Layer {
	swapped, each := g.Clone(), g.Clone()
	swapped.Children[0], swapped.Children[1] = swapped.Children[1], swapped.Children[0]
	each.Opacity = 1
	for _, c := range each.Children {
		c.Opacity = g.Opacity
	}
	return map[string]*doc.Layer{"its order exchanged": swapped, "each layer faded by itself": each}
}

func wrongList(t *testing.T, p *doc.Project, scene int, l *doc.Layer) *frame.List {
	t.Helper()
	q := *p
	q.Film.Scenes = append([]*doc.Scene(nil), p.Film.Scenes...)
	s := p.Film.Scenes[scene].Clone()
	s.Layers = []*doc.Layer{l}
	q.Film.Scenes[scene] = s
	b := compileFor(t, &q, nil)
	// Shapes have the same keys in every film compiled from the same outlines in the same order.
	return b.film.Player().AtRest(scene, frame.View{Scale: 1})
}

// The demo film in the page is the demo film in the file, at rest of nothing: in stays, morphs and crossfades.
func TestTheDemoLooksTheSameInPageAndFile(t *testing.T) {
	files := media.NewFolder(t.TempDir())
	sky, facts, err := files.Take(bytes.NewReader(demo.Sky()), "sky.jpg")
	if err != nil {
		t.Fatal(err)
	}
	project := demo.Opener(sky, facts)
	b := compileFor(t, project, files)
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	p.settled()
	player, painter := b.film.Player(), raster.NewPainter(b.film, files.Pixels)
	file := image.NewRGBA(image.Rect(0, 0, 960, 540))
	for _, ms := range []float64{0, 777, 1500, 2345, 3200, 4700, 5200, 5790, 6400, 7777, 8900, 9100, 9333, 9600, 10400, 12600} {
		page := p.pixels(0, ms, false, 960, 540, "#000")
		if err := painter.Paint(file, player.At(motion.Seconds(ms/1000), frame.View{Scale: 0.5})); err != nil {
			t.Fatal(err)
		}
		d := compare(page, file, file.Rect)
		if d.mean > 0.7 || d.p999 > 32 || d.max > 90 {
			t.Errorf("at %.0f ms: mean %.2f, 99.9th percentile %.0f, worst %.0f", ms, d.mean, d.p999, d.max)
		}
	}
}
