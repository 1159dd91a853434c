package e2e

import (
	"bytes"
	"encoding/base64"
	"encoding/json"
	"errors"
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"image/png"
	"io"
	"math"
	"math/rand/v2"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/likeness"
	"capstan/core/motion"
	"capstan/core/raster"
	"capstan/demo"
	"capstan/e2e/browser"
	"capstan/library"
	"capstan/studio/api"
	"capstan/studio/bundle"
	"capstan/studio/media"
)

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
		n, now := 0, map[string]string{}
		doc.Walk(it.layer.Children, func(l, _ *doc.Layer) bool {
			n++
			l.ID = fmt.Sprintf("i%d-%d", i, n)
			l.Thread, now[l.Thread] = l.ID, l.ID
			return true
		})
		doc.Walk(it.layer.Children, func(l, _ *doc.Layer) bool {
			l.RenameThreads(func(t string) string { return now[t] })
			return true
		})
		p.Film.Scenes = append(p.Film.Scenes, s)
	}
	return p
}

// difference is what references.md measures on an item's own painted box.
type difference struct {
	mean, p999, max float64
	flat            float64 // worst in inner areas of one colour
	smooth          float64 // worst where nothing has an edge
}

func (d difference) ok(it item) bool {
	most := 56.0
	if it.curved {
		most = 80
	}
	return d.mean <= 1.5 && d.p999 <= 32 && d.max <= most && (!it.flat || d.flat <= 1) && (it.smooth == 0 || d.smooth <= it.smooth)
}

func compare(a, b *image.RGBA, box image.Rectangle) difference {
	var count [256]int // of differences by how large they are
	all := 0
	var d difference
	box = box.Intersect(a.Rect)
	for y := box.Min.Y; y < box.Max.Y; y++ {
		for x := box.Min.X; x < box.Max.X; x++ {
			for k := 0; k < 3; k++ {
				v := math.Abs(float64(a.Pix[a.PixOffset(x, y)+k]) - float64(b.Pix[b.PixOffset(x, y)+k]))
				count[int(v)]++
				all++
				d.mean += v
				d.max = max(d.max, v)
				if v > d.flat && within(a, x, y, 0) {
					d.flat = v
				}
				if v > d.smooth && within(a, x, y, 12) && within(b, x, y, 12) {
					d.smooth = v
				}
			}
		}
	}
	if all == 0 {
		return difference{mean: 255}
	}
	d.mean /= float64(all)
	at := min(all-1, all*999/1000)
	for v, n := range count {
		if at -= n; at < 0 {
			d.p999 = float64(v)
			break
		}
	}
	return d
}

// within reports whether no neighbour of a pixel differs from it by more than d in any channel.
func within(m *image.RGBA, x, y int, d int) bool {
	if !(image.Point{X: x - 1, Y: y - 1}).In(m.Rect) || !(image.Point{X: x + 1, Y: y + 1}).In(m.Rect) {
		return false
	}
	c := m.Pix[m.PixOffset(x, y):]
	for dy := -1; dy <= 1; dy++ {
		for dx := -1; dx <= 1; dx++ {
			o := m.Pix[m.PixOffset(x+dx, y+dy):]
			for k := 0; k < 3; k++ {
				if v := int(o[k]) - int(c[k]); v > d || v < -d {
					return false
				}
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
	cookie, err := api.SessionCookie(p.s.dir, p.s.addr, "")
	if err != nil {
		p.t.Fatal(err)
	}
	r, _ := http.NewRequest("POST", p.s.url+"/api/bundles", &b)
	r.AddCookie(cookie)
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

// shipped is the book of all tests: each file of it is read once.
var shipped = sync.OnceValues(library.Book)

func compileFor(t *testing.T, p *doc.Project, files *media.Folder) both {
	t.Helper()
	if err := p.Validate(); err != nil {
		t.Fatal(err)
	}
	b, err := shipped()
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
		told := false
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
			box := image.Rect(int(e.Min.X)-2-it.beyond, int(e.Min.Y)-2-it.beyond, int(e.Max.X)+3+it.beyond, int(e.Max.Y)+3+it.beyond)
			if it.layer.Kind == doc.TextKind {
				box = box.Inset(-8)
			}
			d := compare(page, file, box)
			if !d.ok(it) {
				t.Errorf("%s over %s: mean %.2f, 99.9th percentile %.0f, worst %.0f, flat %.0f, smooth %.0f", it.name, g.css, d.mean, d.p999, d.max, d.flat, d.smooth)
				keepPair(t, it.name+" "+g.css, page, file)
			}
			// Half a pixel off must be told over one ground or the other. What covers all of its box, or is smooth, has no
			// edge to show it.
			if it.flat && it.layer.Opacity == 1 && !it.edgeless {
				d := compare(page, b.paint(t, list, g.colour, geom.Translate(geom.Point{X: 0.5, Y: 0.5})), box)
				if told = told || !d.ok(it); g.css == "#fff" {
					controls++
					if !told {
						t.Errorf("%s half a pixel off passes: mean %.2f, 99.9th percentile %.0f, worst %.0f", it.name, d.mean, d.p999, d.max)
					}
				}
			}
			for name, wrong := range it.wrong {
				l := it.layer.Clone()
				wrong(l)
				controls++
				if d := compare(page, b.paint(t, wrongList(t, project, i, l), g.colour, geom.Identity), box); d.ok(it) && (it.only == "" || it.only == g.css) {
					t.Errorf("%s with %s passes: mean %.2f, worst %.0f, smooth %.0f", it.name, name, d.mean, d.max, d.smooth)
				}
			}
		}
	}
	if len(items) < 60 || controls < 40 {
		t.Errorf("only %d items and %d controls", len(items), controls)
	}
}

// keepPair leaves two pictures that differ for people to look at.
func keepPair(t *testing.T, name string, page, file *image.RGBA) {
	dir := os.Getenv("CAPSTAN_SHOTS")
	if dir == "" {
		return
	}
	for side, m := range map[string]*image.RGBA{"page": page, "file": file} {
		var b bytes.Buffer
		if err := png.Encode(&b, m); err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(filepath.Join(dir, strings.NewReplacer(" ", "-", "#", "").Replace(name)+"-"+side+".png"), b.Bytes(), 0o644); err != nil {
			t.Fatal(err)
		}
	}
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
	if _, _, err := files.Take(bytes.NewReader(demo.Sky()), "sky.jpg"); err != nil {
		t.Fatal(err)
	}
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-opener")
	project, err := doc.Read([]byte(p.stored())) // with its captions
	if err != nil {
		t.Fatal(err)
	}
	b := compileFor(t, project, files)
	player, painter := b.film.Player(), raster.NewPainter(b.film, files.Pixels)
	file := image.NewRGBA(image.Rect(0, 0, 960, 540))
	// On the boxes that move: the tiles in which the film changes in the 40 ms from then.
	r := rand.New(rand.NewPCG(61, 62))
	for range 20 {
		ms := math.Floor(r.Float64() * float64(b.film.Order.Length-50))
		page := p.pixels(0, ms, false, 960, 540, "#000")
		var now, next raster.Survey
		if err := painter.Survey(&next, player.At(motion.Seconds((ms+40)/1000), frame.View{Scale: 0.5}), 960, 540); err != nil {
			t.Fatal(err)
		}
		list := player.At(motion.Seconds(ms/1000), frame.View{Scale: 0.5})
		if err := errors.Join(painter.Survey(&now, list, 960, 540), painter.Paint(file, list)); err != nil {
			t.Fatal(err)
		}
		moving := raster.NewRegion(960, 540)
		raster.Damage(moving, &now, &next)
		if moving.Empty() {
			t.Errorf("at %.0f ms nothing moves", ms)
		}
		sum, n := 0.0, 0.0
		moving.Each(func(box image.Rectangle) {
			for y := box.Min.Y; y+8 <= box.Max.Y; y += 8 {
				for x := box.Min.X; x+8 <= box.Max.X; x += 8 {
					sum += likeness.Block(page, file, x, y)
					n++
				}
			}
		})
		d := compare(page, file, file.Rect)
		if d.mean > 0.7 || d.p999 > 32 || d.max > 90 || sum/n < 0.98 {
			t.Errorf("at %.0f ms: mean %.2f, 99.9th percentile %.0f, worst %.0f; SSIM where it moves %.4f", ms, d.mean, d.p999, d.max, sum/n)
		}
	}
}
