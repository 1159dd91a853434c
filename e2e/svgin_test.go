package e2e

import (
	"encoding/base64"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"os"
	"slices"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/likeness"
	"capstan/core/svg"
	"capstan/core/svg/svgtest"
	"capstan/e2e/browser"
	"capstan/e2e/librsvg"
	"capstan/library"
	"capstan/studio/media"
)

const drawingSide = 256

// landed is a drawing as its layers are painted, over white.
func landed(t *testing.T, text string, files *media.Folder) (*image.RGBA, error) {
	t.Helper()
	fonts, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	n := 0
	o := svg.Options{Fonts: fonts, Family: func([]string) (string, bool) { return "Archivo", true }, ID: func() string { n++; return fmt.Sprint("d", n) }}
	d, err := svg.Read(strings.NewReader(text), o)
	if err != nil {
		return nil, err
	}
	if o.Page = [2]float64{drawingSide / 0.8, drawingSide / 0.8}; max(d.Width, d.Height) < drawingSide {
		o.Page = [2]float64{drawingSide / 0.24, drawingSide / 0.24}
	}
	if d, err = svg.Read(strings.NewReader(text), o); err != nil {
		return nil, err
	}
	if len(d.Lost) > 0 {
		t.Logf("lost %v", d.Lost)
	}
	p := doc.NewProject("p", "P", drawingSide, drawingSide, "s")
	d.Group.Place.X, d.Group.Place.Y = drawingSide/2, drawingSide/2
	p.Film.Scenes[0].Background = doc.Fill{Kind: doc.NoFill}
	p.Film.Scenes[0].Layers = []*doc.Layer{d.Group}
	b := compileFor(t, p, files)
	return b.paint(t, b.film.Player().AtRest(0, frame.View{Scale: 1}), color.RGBA{255, 255, 255, 255}, geom.Identity), nil
}

// shownByBrowser are drawings as Chromium shows them as pictures, over white, by their names.
func (p *pieces) shownByBrowser(texts map[string]string, names []string) map[string]*image.RGBA {
	p.t.Helper()
	const across = 8
	out := map[string]*image.RGBA{}
	p.show("blank.html", across*drawingSide, across*drawingSide)
	for from := 0; from < len(names); from += across * across {
		some := names[from:min(from+across*across, len(names))]
		var list []string
		for _, name := range some {
			list = append(list, "data:image/svg+xml;base64,"+base64.StdEncoding.EncodeToString([]byte(texts[name])))
		}
		raw, err := json.Marshal(list)
		if err != nil {
			p.t.Fatal(err)
		}
		browser.Eval[bool](p.t, p.ctx, fmt.Sprintf(`new Promise(async done => {
			document.body.style.cssText = 'margin:0;display:grid;grid-template-columns:repeat(%d,%dpx);background:#fff'
			const list = %s.map(src => { const i = new Image(); i.width = i.height = %[2]d; i.style.cssText = 'display:block;object-fit:contain'; i.src = src; return i })
			document.body.replaceChildren(...list)
			await Promise.all(list.map(i => i.decode().catch(() => 0)))
			requestAnimationFrame(() => requestAnimationFrame(() => done(true)))
		})`, across, drawingSide, raw))
		seen := p.seen()
		for i, name := range some {
			cut := image.NewRGBA(image.Rect(0, 0, drawingSide, drawingSide))
			draw.Draw(cut, cut.Rect, seen, image.Pt(i%across*drawingSide, i/across*drawingSide), draw.Src)
			out[name] = cut
		}
	}
	return out
}

// Drawings come in as Chromium shows them: one a feature, and words in the family that both have; and 600 icons of four sets as the nearer of Chromium and
// librsvg shows them. Where those two differ themselves it is said apart.
func TestDrawingsComeInAsBrowsersShowThem(t *testing.T) {
	t.Parallel()
	p := showPieces(t)
	files := media.NewFolder(t.TempDir())
	features := svgtest.Features()
	var names []string
	for name := range features {
		names = append(names, name)
	}
	// Chromium is given the family that words are set in.
	var faces strings.Builder
	for _, weight := range []int{400, 700} {
		data, err := os.ReadFile(fmt.Sprintf("../web/node_modules/@fontsource/archivo/files/archivo-latin-%d-normal.woff2", weight))
		if err != nil {
			t.Fatal(err)
		}
		fmt.Fprintf(&faces, `@font-face{font-family:Archivo;font-weight:%d;src:url(data:font/woff2;base64,%s)}`, weight, base64.StdEncoding.EncodeToString(data))
	}
	shown := map[string]string{}
	for name, text := range features {
		shown[name] = text
	}
	for name, text := range svgtest.Words() {
		names, features[name] = append(names, name), text
		shown[name] = strings.Replace(text, ">", "><style>"+faces.String()+"</style>", 1)
	}
	slices.Sort(names)
	seen := p.shownByBrowser(shown, names)
	for _, name := range names {
		got, err := landed(t, features[name], files)
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		if s := likeness.SSIM(got, seen[name]); s < 0.99 {
			t.Errorf("%s: SSIM %.4f", name, s)
			keepPair(t, name, got, seen[name])
		}
	}
	icons, err := svgtest.Files(os.DirFS("../web/node_modules"), 150)
	if err != nil {
		t.Fatal(err)
	}
	names = nil
	for name := range icons {
		names = append(names, name)
	}
	slices.Sort(names)
	seen = p.shownByBrowser(icons, names)
	var worse, apart []string
	for _, name := range names {
		got, err := landed(t, icons[name], files)
		if err != nil {
			worse = append(worse, fmt.Sprint(name, ": ", err))
			continue
		}
		s := likeness.SSIM(got, seen[name])
		if s >= 0.985 {
			continue
		}
		other := librsvg.Paint(t.Context(), icons[name], drawingSide)
		if other == nil {
			continue
		}
		if likeness.SSIM(other, seen[name]) < 0.985 {
			apart = append(apart, name)
		}
		if s = max(s, likeness.SSIM(got, other)); s < 0.98 {
			worse = append(worse, fmt.Sprintf("%s %.3f", name, s))
			keepPair(t, strings.ReplaceAll(name, "/", "-"), got, seen[name])
		}
	}
	t.Logf("%d of %d icons are less alike than 0.98: %v; of %d Chromium and librsvg show other things: %v", len(worse), len(names), worse, len(apart), apart)
	if 50*len(worse) > len(names) {
		t.Errorf("%d of %d icons are less alike than 0.98", len(worse), len(names))
	}
}
