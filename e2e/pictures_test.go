package e2e

import (
	"bytes"
	"encoding/base64"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/draw"
	"image/png"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/likeness"
	"capstan/core/paint"
	"capstan/core/state"
	"capstan/demo"
	"capstan/e2e/browser"
	"capstan/studio/media"
)

// harbour is a project of one page with the drawn harbour, a quarter as large each way, taken into a folder.
func harbour(t *testing.T, w, h int) (*doc.Project, *media.Folder, string) {
	t.Helper()
	files := media.NewFolder(t.TempDir())
	large, _, err := files.Take(bytes.NewReader(demo.Harbour()), "large.png")
	if err != nil {
		t.Fatal(err)
	}
	small, err := files.Pixels(large, 2)
	if err != nil {
		t.Fatal(err)
	}
	var b bytes.Buffer
	if err := png.Encode(&b, small); err != nil {
		t.Fatal(err)
	}
	hash, facts, err := files.Take(&b, "harbour.png")
	if err != nil {
		t.Fatal(err)
	}
	p := doc.NewProject("pictures", "Pictures", w, h, "s")
	p.Media = map[string]*doc.Media{hash: facts}
	p.Film.Scenes[0].Background = doc.Fill{Kind: doc.Solid, Colour: "#ffffff"}
	return p, files, hash
}

func pictureLayer(id, hash string, x, y, w, h float64) *doc.Layer {
	return &doc.Layer{ID: id, Thread: id, Name: id, Kind: doc.Picture, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: x, Y: y, W: w, H: h}, Picture: &doc.PictureUse{Media: hash}}
}

// In forty frames a picture lies as CSS lays it by object-fit and object-position, by clip-path, and turned under overflow; one that lies 3 px off is
// told (CSS Images 3, sections 5.5 and 5.6; CSS Masking 1, section 5.1).
func TestCropsAgreeWithCSS(t *testing.T) {
	p, files, hash := harbour(t, 1200, 760)
	facts := p.Media[hash]
	W, H := float64(facts.Width), float64(facts.Height)
	r := rand.New(rand.NewPCG(25, 4))
	var html strings.Builder
	var frames []image.Rectangle
	for i := range 40 {
		x, y := float64(10+i%8*148), float64(10+i/8*150)
		w, h := 80+math.Floor(60*r.Float64()), 80+math.Floor(60*r.Float64())
		l := pictureLayer(fmt.Sprint("p", i), hash, x+w/2, y+h/2, w, h)
		img := fmt.Sprintf(`<img src="/api/media/%s/0.png" style="position:absolute;max-width:none;`, hash)
		switch i % 3 {
		case 0:
			px, py := r.Float64(), r.Float64()
			k := max(w/W, h/H)
			u, v := w/(k*W), h/(k*H)
			l.Picture.Crop = &doc.Crop{max(0, px*(1-u)), max(0, py*(1-v)), min(1, px*(1-u)+u), min(1, py*(1-v)+v)}
			fmt.Fprintf(&html, `%sleft:%vpx;top:%vpx;width:%vpx;height:%vpx;object-fit:cover;object-position:%v%% %v%%">`, img, x, y, w, h, 100*px, 100*py)
		case 1:
			c := doc.Crop{0.4 * r.Float64(), 0.4 * r.Float64(), 1 - 0.4*r.Float64(), 1 - 0.4*r.Float64()}
			l.Picture.Crop = &c
			fw, fh := w/(c[2]-c[0]), h/(c[3]-c[1])
			fmt.Fprintf(&html, `%sleft:%vpx;top:%vpx;width:%vpx;height:%vpx;clip-path:inset(%v%% %v%% %v%% %v%%)">`, img, x-c[0]*fw, y-c[1]*fh, fw, fh, 100*c[1], 100*(1-c[2]), 100*(1-c[3]), 100*c[0])
		case 2:
			turn := 30 * (r.Float64() - 0.5)
			c := doc.Crop{0.3, 0.25, 0.7, 0.8}
			l.Picture.Crop, l.Picture.Turn = &c, turn
			fw, fh := w/(c[2]-c[0]), h/(c[3]-c[1])
			fmt.Fprintf(&html, `<div style="position:absolute;overflow:hidden;left:%vpx;top:%vpx;width:%vpx;height:%vpx">%sleft:%vpx;top:%vpx;width:%vpx;height:%vpx;transform-origin:%vpx %vpx;transform:rotate(%vdeg)"></div>`,
				x, y, w, h, img, -c[0]*fw, -c[1]*fh, fw, fh, c[0]*fw+w/2, c[1]*fh+h/2, turn)
		}
		p.Film.Scenes[0].Layers = append(p.Film.Scenes[0].Layers, l)
		frames = append(frames, image.Rect(int(x), int(y), int(x+w), int(y+h)))
	}
	b := compileFor(t, p, files)
	painted := func(by geom.Matrix) *image.RGBA {
		return b.paint(t, b.film.Player().AtRest(0, frame.View{Scale: 1}), color.RGBA{255, 255, 255, 255}, by)
	}
	s := sit(t, startStudio(t))
	s.bring(p, files)
	browser.Eval[bool](t, s.ctx, fmt.Sprintf(`(async () => {
		const d = document.createElement('div')
		d.style.cssText = 'position:fixed;inset:0;background:#fff;z-index:9999'
		d.innerHTML = %q
		document.body.append(d)
		await Promise.all([...d.querySelectorAll('img')].map((i) => i.decode()))
		await new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r)))
		return true
	})()`, html.String()))
	shot, err := chromedp.Run(s.ctx, chromedp.CaptureScreenshot())
	if err != nil {
		t.Fatal(err)
	}
	raw, err := png.Decode(bytes.NewReader(shot))
	if err != nil {
		t.Fatal(err)
	}
	css := image.NewRGBA(raw.Bounds())
	draw.Draw(css, css.Rect, raw, image.Point{}, draw.Src)
	// Halved: how a picture is made smaller differs, where it lies must not.
	css = halved(css)
	is, off := halved(painted(geom.Identity)), halved(painted(geom.Translate(geom.Point{X: 3})))
	likeness8 := func(a *image.RGBA, box image.Rectangle) float64 {
		sum, n := 0.0, 0.0
		for y := box.Min.Y; y+8 <= box.Max.Y; y += 8 {
			for x := box.Min.X; x+8 <= box.Max.X; x += 8 {
				sum, n = sum+likeness.Block(css, a, x, y), n+1
			}
		}
		return sum / n
	}
	for i, box := range frames {
		box = image.Rect(box.Min.X/2, box.Min.Y/2, box.Max.X/2, box.Max.Y/2)
		v := likeness8(is, box)
		if v < 0.93 {
			t.Errorf("frame %d: SSIM %.4f", i, v)
		}
		if w := likeness8(off, box); w > v-0.04 {
			t.Errorf("frame %d, 3 px off, is as much like it: SSIM %.4f and %.4f", i, w, v)
		}
	}
	if t.Failed() {
		keepPair(t, "crops", css, is)
	}
}

// halved is a picture half as large each way.
func halved(m *image.RGBA) *image.RGBA {
	out := image.NewRGBA(image.Rect(0, 0, m.Rect.Dx()/2, m.Rect.Dy()/2))
	for y := range out.Rect.Dy() {
		for x := range out.Rect.Dx() {
			for k := range 4 {
				i := 2*y*m.Stride + 8*x + k
				out.Pix[y*out.Stride+4*x+k] = uint8((int(m.Pix[i]) + int(m.Pix[i+4]) + int(m.Pix[i+m.Stride]) + int(m.Pix[i+m.Stride+4]) + 2) / 4)
			}
		}
	}
	return out
}

// Each adjustment does to a colour what the filters do that state.Adjust names beside it, as Chromium has them, within 2 levels.
func TestAdjustmentsAgreeWithFilters(t *testing.T) {
	toned := func(tones ...string) *doc.Adjust {
		v := &doc.Toned{Amount: 1}
		for _, c := range tones {
			v.Tones = append(v.Tones, doc.Tone{Colour: c})
		}
		return &doc.Adjust{Toned: v}
	}
	linear := func(r, g, b float64) string {
		return fmt.Sprintf(`<feComponentTransfer><feFuncR type="linear" slope="%v"/><feFuncG type="linear" slope="%v"/><feFuncB type="linear" slope="%v"/></feComponentTransfer>`, r, g, b)
	}
	warm := func(w float64) string {
		r, b := 1+0.3*w, 1-0.3*w
		k := 1 / (0.2126*r + 0.7152 + 0.0722*b)
		return linear(r*k, k, b*k)
	}
	table := func(dark, light string) string {
		a, _ := paint.Parse(dark)
		b, _ := paint.Parse(light)
		return fmt.Sprintf(`<feColorMatrix type="saturate" values="0"/><feComponentTransfer><feFuncR type="table" tableValues="%v %v"/><feFuncG type="table" tableValues="%v %v"/><feFuncB type="table" tableValues="%v %v"/></feComponentTransfer>`, a.R, b.R, a.G, b.G, a.B, b.B)
	}
	cases := []struct {
		adjust *doc.Adjust
		css    string // a filter of CSS, or the primitives of one of SVG
	}{
		{&doc.Adjust{Brightness: 0.35}, "brightness(1.35)"}, {&doc.Adjust{Brightness: -0.5}, "brightness(0.5)"},
		{&doc.Adjust{Contrast: 0.6}, "contrast(1.6)"}, {&doc.Adjust{Contrast: -0.7}, "contrast(0.3)"},
		{&doc.Adjust{Saturation: 0.8}, "saturate(1.8)"}, {&doc.Adjust{Saturation: -1}, "saturate(0)"},
		{&doc.Adjust{Hue: 75}, "hue-rotate(75deg)"}, {&doc.Adjust{Hue: -140}, "hue-rotate(-140deg)"},
		{&doc.Adjust{Warmth: 0.9}, warm(0.9)}, {&doc.Adjust{Warmth: -0.6}, warm(-0.6)},
		{toned("#17403c", "#f3dca6"), table("#17403c", "#f3dca6")},
		{toned("#12303f", "#f2a65f"), table("#12303f", "#f2a65f")},
	}
	r := rand.New(rand.NewPCG(25, 5))
	colours := make([]byte, 4*256)
	for i := range 256 {
		for k := range 3 {
			colours[4*i+k] = uint8(r.IntN(256))
		}
		colours[4*i+3] = 255
	}
	s := sit(t, startStudio(t))
	s.open("/")
	for i, c := range cases {
		raw := browser.Eval[string](t, s.ctx, fmt.Sprintf(`(() => {
			let filter = %q
			if (filter.startsWith('<')) {
				document.body.insertAdjacentHTML('beforeend', '<svg width="0" height="0"><filter id="f%d" color-interpolation-filters="sRGB" filterUnits="userSpaceOnUse" x="0" y="0" width="16" height="16">' + filter + '</filter></svg>')
				filter = 'url(#f%d)'
			}
			const from = new OffscreenCanvas(16, 16), to = document.createElement('canvas')
			const bytes = Uint8ClampedArray.from(atob(%q), (c) => c.charCodeAt(0))
			from.getContext('2d').putImageData(new ImageData(bytes, 16, 16), 0, 0)
			to.width = to.height = 16
			const x = to.getContext('2d')
			x.filter = filter
			x.drawImage(from, 0, 0)
			return btoa(String.fromCharCode(...x.getImageData(0, 0, 16, 16).data))
		})()`, c.css, i, i, base64.StdEncoding.EncodeToString(colours)))
		is, err := base64.StdEncoding.DecodeString(raw)
		if err != nil {
			t.Fatal(err)
		}
		a := state.AdjustOf(c.adjust, &doc.Scene{})
		m := a.Colours()
		changed := false
		for k := 0; k < len(colours); k += 4 {
			for ch := range 3 {
				v := 255 * m[4*ch+3]
				for j := range 3 {
					v += m[4*ch+j] * float64(colours[k+j])
				}
				v = min(255, max(0, v))
				if math.Abs(v-float64(is[k+ch])) > 2 {
					t.Fatalf("%s: of %v channel %d becomes %.1f, in Chromium %d", c.css, colours[k:k+3], ch, v, is[k+ch])
				}
				changed = changed || is[k+ch] != colours[k+ch]
			}
		}
		if !changed {
			t.Errorf("%s changed nothing in Chromium", c.css)
		}
	}
}

// A picture is cropped on the page by a double press: its frame in ink goes over it, it goes under its frame, the wheel zooms it, arrows move it, and
// Escape comes back to the brackets that size. Slid, an adjustment is seen and stored once; a key held shows what was before.
func TestAPictureIsCroppedAndAdjusted(t *testing.T) {
	d, files, hash := harbour(t, 320, 240)
	d.Film.Scenes[0].Layers = []*doc.Layer{pictureLayer("p", hash, 160, 120, 237.5, 150)}
	p := sit(t, startStudio(t))
	p.bring(d, files)
	p.click(160, 120)
	p.settled()
	x, y := p.at(160, 120)
	p.do(chromedp.Sleep(500e6), chromedp.MouseClickXY(x, y, chromedp.ClickCount(2)))
	p.wait(`document.querySelector('[data-crop-frame]') && !document.querySelector('[data-handle=nw]')`)
	layer := func() *doc.Layer {
		project, err := doc.Read([]byte(p.stored()))
		if err != nil {
			t.Fatal(err)
		}
		return project.Film.Scenes[0].Layers[0]
	}
	p.undone("the frame is dragged", func() { p.dragBy(`[data-crop=e]`, -60, 0) })
	p.dragBy(`[data-crop=e]`, -60, 0)
	cut := layer()
	if cut.Picture.Crop == nil || cut.Picture.Crop[2] > 0.95 || cut.Place.H != 150 || math.Abs(cut.Place.W/(cut.Picture.Crop[2]-cut.Picture.Crop[0])-237.5) > 0.1 {
		t.Fatalf("cut at its right it is %+v %v", cut.Place, cut.Picture.Crop)
	}
	p.drag(100, 120, 85, 120)
	p.settled()
	if l := layer(); l.Picture.Crop[0] <= cut.Picture.Crop[0] || l.Place != cut.Place {
		t.Errorf("dragged in its frame it is %+v %v", l.Place, *l.Picture.Crop)
	}
	was := layer().Picture.Crop
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.ArrowRight)
	p.settled()
	if l := layer(); l.Picture.Crop[0] >= was[0] || l.Place != cut.Place {
		t.Errorf("moved by a key it is %v, was %v", *l.Picture.Crop, *was)
	}
	p.set("How far it is turned in its frame", "8")
	p.settled()
	if l := layer(); l.Picture.Turn != 8 || l.Place != cut.Place {
		t.Errorf("turned it is %+v", l.Picture)
	}
	p.do(chromedp.Focus(`[data-desk]`))
	p.key(kb.Escape)
	p.wait(`!document.querySelector('[data-crop-frame]') && document.querySelector('[data-handle=nw]')`)

	before := p.colourAt(160, 180)
	p.press(`[data-fold=Adjust]`)
	revision := p.revision()
	p.do(chromedp.Focus(`[aria-label="Warmth, slid"]`))
	p.do(chromedp.KeyEvent(kb.End))
	p.settled()
	if l := layer(); l.Adjust == nil || l.Adjust.Warmth != 1 {
		t.Errorf("slid to its end it is adjusted by %+v", l.Adjust)
	}
	warm := p.colourAt(160, 180)
	if int(warm.R)-int(warm.B) < int(before.R)-int(before.B)+30 {
		t.Errorf("a colour goes from %v to %v", before, warm)
	}
	stored := p.revision()
	if stored == revision {
		t.Error("nothing was stored")
	}
	p.do(chromedp.Focus(`[data-desk]`))
	down := func(down bool) {
		browser.Eval[bool](t, p.ctx, fmt.Sprintf(`document.querySelector('[data-desk]').dispatchEvent(new KeyboardEvent(%q, { key: 'B', code: 'KeyB', shiftKey: true, bubbles: true }))`, map[bool]string{true: "keydown", false: "keyup"}[down]))
	}
	down(true)
	p.wait(`capstanProbe.engine !== null`)
	if c := p.colourAt(160, 180); !alike(c, before, 3) {
		t.Errorf("before its adjustments it was %v, and is shown as %v", before, c)
	}
	down(false)
	if c := p.colourAt(160, 180); !alike(c, warm, 3) || p.revision() != stored {
		t.Errorf("after it was let go it is %v, not %v; %s and %s are stored", c, warm, p.revision(), stored)
	}
}

// A colour of a group is dragged in its field: what is seen meanwhile is what is stored when it is let go of, wherever it is in the group, and it can be
// dragged on from there; slid, all of them are lighter; pointed at, a mapping is shown and left again.
func TestAGroupIsRecoloured(t *testing.T) {
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-post")
	p.settled()
	p.click(770, 330)
	p.settled()
	p.press(`[data-fold=Recolour]`)
	ray := func() (string, color.RGBA) {
		var in struct{ Film doc.Film }
		if err := json.Unmarshal([]byte(p.stored()), &in); err != nil {
			t.Fatal(err)
		}
		return in.Film.Scenes[0].Thread("p-ray3").Fill.Colour, p.pixels(0, 0, true, 1080, 1080, "#fff").RGBAAt(964, 330)
	}
	first, _ := ray()
	p.press(`[aria-label^="Colour 1, used"]`)
	p.wait(`document.querySelector('.react-colorful__saturation')`)
	p.do(chromedp.Sleep(300e6))
	last := first
	for i, by := range [][2]float64{{50, 30}, {-60, -20}} {
		x, y := p.middle(`.react-colorful__saturation`)
		p.pullXY(x, y, by[0], by[1])
		p.settled()
		is, seen := ray()
		want, err := paint.Parse(is)
		if err != nil {
			t.Fatal(err)
		}
		r, g, b, _ := want.Bytes()
		if is == last || !alike(seen, color.RGBA{r, g, b, 255}, 4) {
			t.Errorf("drag %d: stored is %s, after %s, and the page shows %v", i, is, last, seen)
		}
		last = is
	}
	p.key(kb.Escape)
	p.wait(`!document.querySelector('.react-colorful__saturation')`)
	p.do(chromedp.Focus(`[aria-label="Make all lighter, slid"]`))
	p.do(chromedp.KeyEvent(kb.End))
	p.settled()
	if is, _ := ray(); is != "#ffffff" {
		t.Errorf("as light as can be it is %s", is)
	}
	revision := p.revision()
	p.do(chromedp.Focus(`[data-desk]`))
	p.scrollToWord("Onto the roles")
	_, white := ray()
	p.hover(`[title^="Each becomes the nearest tone of a role"]`)
	soon := func(so func() bool) bool {
		for range 10 {
			if p.do(chromedp.Sleep(200e6)); so() {
				return true
			}
		}
		return false
	}
	if !soon(func() bool { _, seen := ray(); return !alike(seen, white, 3) }) {
		t.Error("what the mapping makes of it is not shown")
	}
	p.do(chromedp.MouseEvent("mouseMoved", 300, 60))
	if !soon(func() bool { _, seen := ray(); return alike(seen, white, 3) }) || p.revision() != revision {
		t.Errorf("left again it is not %v", white)
	}
}

func (p *person) scrollToWord(words string) {
	p.t.Helper()
	browser.Eval[bool](p.t, p.ctx, fmt.Sprintf(`([...document.querySelectorAll('button')].find(e => e.innerText.trim() === %q).scrollIntoView({ block: 'center' }), true)`, words))
}
